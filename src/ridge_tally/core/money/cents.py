"""Whole cents out of sums."""

import math


def half_up(amount: float) -> int:
    """Return an amount in whole cents, halves away from nothing, as invoices round."""
    # A ten-thousandth of a cent is what adding floats leaves, not money.
    whole = math.floor(abs(amount) + 0.5 + 1e-7)
    return whole if amount >= 0 else -whole
