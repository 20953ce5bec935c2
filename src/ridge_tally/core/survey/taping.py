"""Lengths as given: typed by a person, or taken off the drawing and written as one would."""

from ridge_tally.core.job.survey import Taped
from ridge_tally.core.units import (
    LengthUnit,
    format_length,
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


def drawn_length(length_m: float, unit: LengthUnit) -> Taped:
    """Return a length taken off the drawing, to a tenth of a millimetre."""
    return Taped(round(length_m, 4), format_length(length_m, unit))
