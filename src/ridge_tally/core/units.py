"""Lengths, slopes and angles as people write them, and back.

Inside the program everything is metres and degrees; feet, inches and rise-in-twelve
live only here.  The browser echoes the same readings; both test suites share
``tests/shared/lengths.json``.
"""

import math
import re
from datetime import date
from enum import StrEnum
from fractions import Fraction

from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.number_format import spaced

M_PER_FT = 0.3048
M_PER_IN = 0.0254
KM_PER_MI = 1.609344
L_PER_US_GALLON = 3.785411784


class LengthUnit(StrEnum):
    """The unit of a bare number, and of figures on drawings."""

    METRE = "m"
    FOOT = "ft"


# Runs of digits are bounded, so that no text makes a pattern try one split after another.
_NUMBER = r"\d{1,15}(?:[.,]\d{1,20})?|[.,]\d{1,20}"
_FRACTION = r"\d{1,9} ?/ ?\d{1,9}"
# Larger than any figure of a house; past it sums lose their meaning.
LARGEST_NUMBER = 1e12
LONGEST_TYPED = 300
_FINITE = re.compile(r"[-+]?(?:\d{1,20}(?:\.\d{0,20})?|\.\d{1,20})(?:[eE][-+]?\d{1,3})?")
_METRIC = re.compile(rf"(?P<n>{_NUMBER}) ?(?P<u>mm|cm|m)")
_FEET_AND_INCHES = re.compile(
    rf"(?:(?P<ft>{_NUMBER}) ?(?:'|ft|feet|foot) ?-? ?)?"
    rf"(?:(?P<inch>{_NUMBER})(?:(?: |-| - )(?P<frac>{_FRACTION}))?|(?P<only_frac>{_FRACTION}))?"
    r" ?(?P<mark>\"|in|inches|inch)?"
)
_DASHED = re.compile(rf"(?P<ft>\d{{1,15}}) ?- ?(?P<inch>{_NUMBER})(?: (?P<frac>{_FRACTION}))? ?\"?")
_BARE = re.compile(rf"(?P<n>{_NUMBER})")
_BARE_FRACTION = re.compile(rf"(?:(?P<whole>\d{{1,15}}) )?(?P<frac>{_FRACTION})")
_PER_METRIC = {"mm": 0.001, "cm": 0.01, "m": 1.0}
_EXPECTED = "a length such as 12.19, 12190mm, 40' or 39' 11 3/4\""


def one_line(typed: str, field: str, expected: str) -> str:
    """Return a typed text without its outer blanks, each run of blanks in it one space.

    Raises
    ------
    NotUnderstood
        If it is longer than anything a figure is written with.
    """
    if len(typed) > LONGEST_TYPED:
        raise NotUnderstood(field, typed, expected)
    return " ".join(typed.split())


def finite_number(text: str) -> float:
    """Return a number written with a decimal point; ValueError if it is none or beyond counting."""
    if not _FINITE.fullmatch(text):
        raise ValueError(text)
    value = float(text)
    if not abs(value) <= LARGEST_NUMBER:
        raise ValueError(text)
    return value


def _number(text: str | None) -> float:
    return float(text.replace(",", ".")) if text else 0.0


def _fraction(text: str | None, field: str, typed: str) -> float:
    if not text:
        return 0.0
    try:
        return float(Fraction(text.replace(" ", "")))
    except ZeroDivisionError:
        raise NotUnderstood(field, typed, _EXPECTED) from None


def parse_length_m(typed: str, unit: LengthUnit, field: str = "Length") -> float:
    """Return the length in metres that `typed` means.

    Parameters
    ----------
    typed : str
        ``12.19``, ``12190mm``, ``40'``, ``39' 11 3/4"``, ``39-11 3/4``, ``6"``; decimal comma
        accepted; a leading minus is kept.
    unit : LengthUnit
        What a bare number is in.  In feet a bare fraction is inches.
    field : str
        Name of the field for the message.

    Raises
    ------
    NotUnderstood
        If the text is not a length.
    """
    text = one_line(typed, field, _EXPECTED).lower()
    text = text.replace("′", "'").replace("″", '"').replace("''", '"')
    text = text.replace("’", "'").replace("”", '"').replace("−", "-")
    length_m = _length_m(text, unit, field, typed)
    if abs(length_m) > LARGEST_NUMBER:
        raise NotUnderstood(field, typed, _EXPECTED)
    return length_m


def _length_m(text: str, unit: LengthUnit, field: str, typed: str) -> float:
    """Return the length of a text in plain marks."""
    sign = -1.0 if text.startswith("-") else 1.0
    text = text.removeprefix("-").removeprefix("+").strip()
    if found := _METRIC.fullmatch(text):
        return sign * _number(found["n"]) * _PER_METRIC[found["u"]]
    if found := _BARE.fullmatch(text):
        return sign * _number(found["n"]) * (M_PER_FT if unit is LengthUnit.FOOT else 1.0)
    if found := _DASHED.fullmatch(text):
        inches = _number(found["inch"]) + _fraction(found["frac"], field, typed)
        return sign * (_number(found["ft"]) * M_PER_FT + inches * M_PER_IN)
    if unit is LengthUnit.FOOT and (found := _BARE_FRACTION.fullmatch(text)):
        inches = _number(found["whole"]) + _fraction(found["frac"], field, typed)
        return sign * inches * M_PER_IN
    found = _FEET_AND_INCHES.fullmatch(text)
    has_inches = found and (found["inch"] or found["only_frac"])
    if (
        found
        and (found["ft"] or (has_inches and found["mark"]))
        and (has_inches or not found["mark"])
    ):
        inches = _number(found["inch"]) + _fraction(
            found["frac"] or found["only_frac"], field, typed
        )
        return sign * (_number(found["ft"]) * M_PER_FT + inches * M_PER_IN)
    raise NotUnderstood(field, typed, _EXPECTED)


def with_unit_written(typed: str, unit: LengthUnit) -> str:
    """Return a length's text with its unit written, so that it means the same in any job."""
    text = " ".join(typed.split())
    if _BARE.fullmatch(text):
        return f"{text} m" if unit is LengthUnit.METRE else f"{text}'"
    if unit is LengthUnit.FOOT and _BARE_FRACTION.fullmatch(text):
        return f'{text}"'
    return text


def parse_slope_deg(
    typed: str, field: str = "Roof slope", unit: LengthUnit = LengthUnit.METRE
) -> float:
    """Return the slope in degrees.

    Parameters
    ----------
    typed : str
        ``26.6``, ``26.6°``, ``6:12``, ``6/12``, ``50%``, or a measured rise over its run:
        ``7' 6" over 15'``.
    field : str
        Name of the field for the message.
    unit : LengthUnit
        What bare numbers of a rise and a run are in.

    Raises
    ------
    NotUnderstood
        If the text is not a slope.
    """
    expected = "degrees (26.6) or rise in twelve (6:12)"
    text = one_line(typed, field, expected).lower()
    rise_typed, over, run_typed = text.partition("over")
    if over:
        rise_m, run_m = (parse_length_m(part, unit, field) for part in (rise_typed, run_typed))
        if run_m > 0:
            return math.degrees(math.atan2(rise_m, run_m))
    text = text.replace(",", ".").rstrip("°").removesuffix("deg").strip()
    try:
        if text.endswith("%"):
            return math.degrees(math.atan(finite_number(text[:-1].rstrip()) / 100))
        parts = [finite_number(part.strip()) for part in re.split("[:/]", text)]
    except ValueError:
        raise NotUnderstood(field, typed, expected) from None
    if len(parts) == 1:
        return parts[0]
    if len(parts) == 2 and parts[0] >= 0 and parts[1] > 0:
        return math.degrees(math.atan2(*parts))
    raise NotUnderstood(field, typed, expected)


def parse_number(typed: str, field: str, expected: str) -> float:
    """Return a plain number with its unit sign stripped; decimal comma and − accepted.

    Raises
    ------
    NotUnderstood
        If the text is not one finite number.
    """
    text = one_line(typed, field, expected).replace(",", ".").replace("−", "-")
    text = re.sub(r" ?(°|deg|h|m)$", "", text)
    try:
        return finite_number(text)
    except ValueError:
        raise NotUnderstood(field, typed, expected) from None


def whole(value: float, field: str, typed: str, expected: str) -> int:
    """Return a number that is a whole one.

    Raises
    ------
    NotUnderstood
        If it has a fraction.
    """
    if value != int(value):
        raise NotUnderstood(field, typed, expected)
    return int(value)


def parse_temperature_degc(typed: str, field: str) -> float:
    """Return a temperature in °C; `-24`, `−24 °C` and `-11 °F` are understood.

    Raises
    ------
    NotUnderstood
        If the text is not a temperature.
    """
    expected = "degrees Celsius such as −24, or −11 °F"
    text = one_line(typed, field, expected)
    scale = text[-1:].lower()
    bare = text[:-1] if scale in {"c", "f"} else text
    value = parse_number(bare.rstrip(" °"), field, expected)
    return (value - 32) / 1.8 if scale == "f" else value


def parse_coordinates_deg(typed: str, field: str) -> tuple[float, float]:
    """Return latitude and longitude, north and east plus.

    Parameters
    ----------
    typed : str
        ``36.2, -105.6``, ``36.2 N 105.6 W``, ``36°12'N 105°36'30"W``.
    field : str
        Name of the field for the message.

    Raises
    ------
    NotUnderstood
        If the text is not two angles, latitude first.
    """
    expected = "latitude, longitude such as 36.2, -105.6"
    text = one_line(typed, field, expected).upper()
    text = text.replace("−", "-").replace("′", "'").replace("″", '"')
    compact = re.sub(r" ?([NSEWO]) ?,? ?", r"\1 ", text).strip()
    found = _COORDINATES.fullmatch(compact)
    if not found:
        raise NotUnderstood(field, typed, expected)
    parts = found.groups()
    return _angle_deg(parts[:4], "S"), _angle_deg(parts[4:], "WO")


_DEGREES = r"\d{1,3}(?:\.\d{1,15})?"
_ANGLE = rf"([-+]?{_DEGREES})°? ?(?:({_DEGREES})')? ?(?:({_DEGREES})\")?"
_COORDINATES = re.compile(rf"{_ANGLE} ?([NS])? ?[,; ] ?{_ANGLE} ?([EWO])?")


def _angle_deg(parts: tuple[str | None, ...], negative: str) -> float:
    whole, minutes, seconds, side = parts
    assert whole is not None
    size = abs(float(whole)) + float(minutes or 0) / 60 + float(seconds or 0) / 3600
    return -size if whole.startswith("-") or (side and side in negative) else size


def day_text(day: date) -> str:
    """Return a day with its year as people write it, such as 4 Mar 2025."""
    return f"{day.day} {day:%b %Y}"


def format_altitude(height_m: float, unit: LengthUnit) -> str:
    """Return a height above the sea to the metre or foot: nobody knows a house's inches there."""
    if unit is LengthUnit.METRE:
        return f"{spaced(height_m)} m"
    return f"{spaced(height_m / M_PER_FT)} ft"


def inches_text(parts: int, of: int) -> str:
    """Return so many parts of an inch, whole and the rest: ``11 7/8``; `of` parts are an inch."""
    whole, rest = divmod(parts, of)
    return " ".join(str(n) for n in (whole, Fraction(rest, of)) if n) or "0"


def format_length(length_m: float, unit: LengthUnit) -> str:
    """Return the length as a carpenter writes it: ``12.19 m`` or ``39' 11 7/8"``."""
    if unit is LengthUnit.METRE:
        return f"{length_m:.2f} m".replace("-", "−")
    sign = "−" if length_m < 0 else ""
    eighths = round(abs(length_m) / M_PER_IN * 8)
    feet, eighths = divmod(eighths, 96)
    whole = inches_text(eighths, 8)
    return f"{sign}{feet}' {whole}\"" if feet else f'{sign}{whole}"'
