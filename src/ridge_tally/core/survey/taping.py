"""Lengths as given: typed by a person, or taken off the drawing and written as one would."""

from ridge_tally.core.job.places import Taped
from ridge_tally.core.units import (
    M_PER_IN,
    LengthUnit,
    format_length,
    inches_text,
    parse_length_m,
    with_unit_written,
)


def typed_length(typed: str, unit: LengthUnit, field: str = "Length") -> Taped:
    """Return a typed length; its text keeps its unit, so that it means the same in any job.

    Raises
    ------
    NotUnderstood
        If the text is not a length.
    """
    return Taped(parse_length_m(typed, unit, field), with_unit_written(typed, unit))


def each_typed(typed: str) -> tuple[str, ...]:
    """Return the parts of a list typed with semicolons or line by line, the empty ones left out."""
    return tuple(filter(None, (p.strip() for p in typed.replace("\n", ";").split(";"))))


def drawn_length(length_m: float, unit: LengthUnit) -> Taped:
    """Return a length taken off the drawing, to a tenth of a millimetre."""
    return Taped(round(length_m, 4), format_length(length_m, unit))


def small_size_text(size_m: float, unit: LengthUnit) -> str:
    """Return a few millimetres that have no sign, such as a gap; in feet jobs inches."""
    return small_length_text(size_m, unit).lstrip("+")


def small_area_text(area_m2: float, unit: LengthUnit) -> str:
    """Return a few square metres; in feet jobs square feet."""
    if unit is LengthUnit.METRE:
        return f"{area_m2:.1f} m²"
    return f"{area_m2 / (12 * M_PER_IN) ** 2:.0f} sq ft"


def small_length_text(length_m: float, unit: LengthUnit) -> str:
    """Return a few millimetres with their sign; in feet jobs inches to the sixteenth."""
    if unit is LengthUnit.METRE:
        size, mark = f"{abs(length_m) * 1000:.0f}", " mm"
    else:
        size, mark = inches_text(round(abs(length_m) / M_PER_IN * 16), 16), '"'
    sign = "" if size == "0" else "−" if length_m < 0 else "+"
    return f"{sign}{size}{mark}"
