"""Lengths, slopes and angles as people write them, and back.

Inside the program everything is metres and degrees; feet, inches and rise-in-twelve
live only here.  The browser echoes the same readings; both test suites share
``tests/shared/lengths.json``.
"""

import math
import re
from enum import StrEnum
from fractions import Fraction

from ridge_tally.core.errors import NotUnderstood

M_PER_FT = 0.3048
M_PER_IN = 0.0254
KM_PER_MI = 1.609344
L_PER_US_GALLON = 3.785411784


class LengthUnit(StrEnum):
    """The unit of a bare number, and of figures on drawings."""

    METRE = "m"
    FOOT = "ft"


_NUMBER = r"\d+(?:[.,]\d+)?|[.,]\d+"
_FRACTION = r"\d+\s*/\s*\d+"
_METRIC = re.compile(rf"(?P<n>{_NUMBER})\s*(?P<u>mm|cm|m)")
_FEET_AND_INCHES = re.compile(
    rf"(?:(?P<ft>{_NUMBER})\s*(?:'|ft|feet|foot)\s*-?\s*)?"
    rf"(?:(?P<inch>{_NUMBER})(?:[\s-]+(?P<frac>{_FRACTION}))?|(?P<only_frac>{_FRACTION}))?"
    r"\s*(?P<mark>\"|in|inches|inch)?"
)
_DASHED = re.compile(rf"(?P<ft>\d+)\s*-\s*(?P<inch>{_NUMBER})(?:\s+(?P<frac>{_FRACTION}))?\s*\"?")
_BARE = re.compile(rf"(?P<n>{_NUMBER})")
_BARE_FRACTION = re.compile(rf"(?:(?P<whole>\d+)\s+)?(?P<frac>{_FRACTION})")
_PER_METRIC = {"mm": 0.001, "cm": 0.01, "m": 1.0}
_EXPECTED = "a length such as 12.19, 12190mm, 40' or 39' 11 3/4\""


def _number(text: str | None) -> float:
    return float(text.replace(",", ".")) if text else 0.0


def _fraction(text: str | None, field: str, typed: str) -> float:
    if not text:
        return 0.0
    try:
        return float(Fraction(re.sub(r"\s", "", text)))
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
    text = typed.strip().lower().replace("′", "'").replace("″", '"').replace("''", '"')
    text = text.replace("’", "'").replace("”", '"').replace("−", "-")
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
    text = typed.strip()
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
    if found := re.fullmatch(r"(.+?)\s*over\s*(.+)", typed.strip(), re.IGNORECASE):
        rise_m, run_m = (parse_length_m(part, unit, field) for part in found.groups())
        if run_m > 0:
            return math.degrees(math.atan2(rise_m, run_m))
    text = typed.strip().replace(",", ".").rstrip("°").removesuffix("deg").strip()
    if found := re.fullmatch(r"(\d+(?:\.\d+)?)\s*[:/]\s*(\d+(?:\.\d+)?)", text):
        rise, run = float(found[1]), float(found[2])
        if run > 0:
            return math.degrees(math.atan2(rise, run))
    if found := re.fullmatch(r"(\d+(?:\.\d+)?)\s*%", text):
        return math.degrees(math.atan(float(found[1]) / 100))
    try:
        return _finite(text)
    except ValueError:
        raise NotUnderstood(field, typed, "degrees (26.6) or rise in twelve (6:12)") from None


def parse_number(typed: str, field: str, expected: str) -> float:
    """Return a plain number with its unit sign stripped; decimal comma and − accepted.

    Raises
    ------
    NotUnderstood
        If the text is not one finite number.
    """
    text = typed.strip().replace(",", ".").replace("−", "-")
    text = re.sub(r"\s*(°|deg|h|m)$", "", text)
    try:
        return _finite(text)
    except ValueError:
        raise NotUnderstood(field, typed, expected) from None


def parse_temperature_degc(typed: str, field: str) -> float:
    """Return a temperature in °C; `-24`, `−24 °C` and `-11 °F` are understood.

    Raises
    ------
    NotUnderstood
        If the text is not a temperature.
    """
    expected = "degrees Celsius such as −24, or −11 °F"
    found = re.fullmatch(r"(.*?)\s*°?\s*([CcFf])?\s*", typed.strip())
    assert found is not None
    value = parse_number(found[1], field, expected)
    return (value - 32) / 1.8 if (found[2] or "").lower() == "f" else value


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
    text = typed.strip().upper().replace("−", "-").replace("′", "'").replace("″", '"')
    pattern = re.compile(_ANGLE + r"\s*([NS])?\s*[,; ]\s*" + _ANGLE + r"\s*([EWO])?")
    compact = re.sub(r"\s*([NSEWO])\s*,?\s*", r"\1 ", text).strip()
    found = pattern.fullmatch(compact)
    if not found:
        raise NotUnderstood(field, typed, "latitude, longitude such as 36.2, -105.6")
    parts = found.groups()
    return _angle_deg(parts[:4], "S"), _angle_deg(parts[4:], "WO")


_ANGLE = r"([-+]?\d+(?:\.\d+)?)°?\s*(?:(\d+(?:\.\d+)?)')?\s*(?:(\d+(?:\.\d+)?)\")?"


def _angle_deg(parts: tuple[str | None, ...], negative: str) -> float:
    whole, minutes, seconds, side = parts
    assert whole is not None
    size = abs(float(whole)) + float(minutes or 0) / 60 + float(seconds or 0) / 3600
    return -size if whole.startswith("-") or (side and side in negative) else size


def _finite(text: str) -> float:
    value = float(text)
    if not math.isfinite(value):
        raise ValueError(text)
    return value


def format_length(length_m: float, unit: LengthUnit) -> str:
    """Return the length as a carpenter writes it: ``12.19 m`` or ``39' 11 7/8"``."""
    if unit is LengthUnit.METRE:
        return f"{length_m:.2f} m".replace("-", "−")
    sign = "−" if length_m < 0 else ""
    eighths = round(abs(length_m) / M_PER_IN * 8)
    feet, eighths = divmod(eighths, 96)
    inches, eighths = divmod(eighths, 8)
    part = f" {Fraction(eighths, 8)}" if eighths else ""
    whole = f"{inches}{part}" if inches or not part else part.strip()
    return f"{sign}{feet}' {whole}\"" if feet else f'{sign}{whole}"'
