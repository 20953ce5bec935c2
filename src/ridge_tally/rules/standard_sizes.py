"""Ratings that overcurrent devices are made in."""

from ridge_tally.core.job.document import CodePack
from ridge_tally.rules import tables


def standard_breakers_a(pack: CodePack) -> tuple[float, ...]:
    """Return the standard ratings of a family's breakers, A, the smallest first."""
    name = "standard-breakers" if pack is CodePack.US else "standard-breakers-metric"
    return tuple(float(row[0]) for row in tables.load(name).rows)


def next_breaker_a(pack: CodePack, least_a: float) -> float | None:
    """Return a family's next standard breaker that is no smaller, A; ``None`` past the largest."""
    return next((b for b in standard_breakers_a(pack) if b >= least_a * (1 - 1e-9)), None)
