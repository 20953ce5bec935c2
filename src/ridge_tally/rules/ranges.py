"""Figures of a document that must lie within bounds, and names that must be there."""

from collections.abc import Iterable

from ridge_tally.core.errors import OutOfRange

# What the message calls the figure, the figure, its least and its most; ``None`` is not judged.
Range = tuple[str, float | None, float, float]
LONGEST_NAME = 200


def require_within(field: str, value: float | None, low: float, high: float) -> None:
    """Raise OutOfRange, naming the field, if a figure that is there lies outside."""
    if value is not None and not low <= value <= high:
        raise OutOfRange(field, value, f"between {low:g} and {high:g}")


def require_ranges(ranges: Iterable[Range]) -> None:
    """Raise OutOfRange on the first figure that lies outside."""
    for each in ranges:
        require_within(*each)


def require_named(name: str, what: str) -> None:
    """Raise OutOfRange if a name is empty or longer than anybody reads."""
    if not 0 < len(name.strip()) <= LONGEST_NAME:
        raise OutOfRange(f"Length of the name of {what}", len(name), f"1 to {LONGEST_NAME}")
