"""Money in words, as screens and papers write it."""

from ridge_tally.core.number_format import spaced

WHOLE_FROM_CENTS = 100_00


def money_told(cents: float, currency: str = "") -> str:
    """Return money for people: whole cents only where they matter; a true minus before the currency."""
    even = abs(cents / 100 - round(cents / 100)) < 5e-5
    whole = even and abs(cents) >= WHOLE_FROM_CENTS
    text = spaced(abs(cents) / 100, 0 if whole else 2)
    return f"{'−' if cents < 0 and text.strip('0.') else ''}{currency}{text}"
