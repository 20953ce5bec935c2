"""Ratings that overcurrent devices are made in."""

from ridge_tally.rules import tables


def standard_breaker_a(least_a: float) -> float | None:
    """Return the next standard breaker that is no smaller, A; ``None`` past the largest."""
    sizes = (float(row[0]) for row in tables.load("standard-breakers").rows)
    return next((s for s in sizes if s >= least_a * (1 - 1e-9)), None)
