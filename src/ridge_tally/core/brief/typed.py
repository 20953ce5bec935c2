"""Days, energies and money as they stand on a bill."""

import re
from collections.abc import Mapping
from datetime import date, datetime
from enum import StrEnum
from typing import TypeVar

from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.nominal_year import NOMINAL_YEAR, day_of_date
from ridge_tally.core.units import finite_number, one_line, parse_number

Choice = TypeVar("Choice", bound=StrEnum)

_GROUPED = re.compile(r"\d{1,3}([ ,.'’])\d{3}(?:\1\d{3}){0,5}(?:[.,]\d{1,2})?")
_CURRENCY = re.compile(r"(?:[A-Z]{0,3}[$€£¥]|USD|EUR|GBP|AUD|NZD)", re.IGNORECASE)
_NUMERIC_DAY = re.compile(r"(\d{1,2}) ?([/.-]) ?(\d{1,2}) ?\2 ?(\d{4}|\d{2})")
_WORDY = ("%d %b %Y", "%d %B %Y", "%b %d %Y", "%B %d %Y", "%d %b %y", "%b %d %y")
# Bills and surveys of houses that have a roof for modules.
FIRST_YEAR, LAST_YEAR = 1900, 2199
_DAY_EXPECTED = "a day such as 2025-03-04 or 4 Mar 2025"


def parse_day(typed: str, field: str, *, month_first: bool) -> date:
    """Return the day meant by ``2025-03-04``, ``4 Mar 2025``, ``Mar 4, 2025`` or ``3/4/2025``.

    Parameters
    ----------
    typed, field : str
        The text, and what the message calls its field.
    month_first : bool
        How ``3/4/2025`` is read; with points (``4.3.2025``) the day is always first.

    Raises
    ------
    NotUnderstood
        If no day is meant.
    """
    day = _day(one_line(typed.replace(",", " "), field, _DAY_EXPECTED), month_first=month_first)
    if day is None or not FIRST_YEAR <= day.year <= LAST_YEAR:
        raise NotUnderstood(field, typed, _DAY_EXPECTED)
    return day


def _day(text: str, *, month_first: bool) -> date | None:
    try:
        return date.fromisoformat(text)
    except ValueError:
        pass
    if found := _NUMERIC_DAY.fullmatch(text):
        first, second, year = int(found[1]), int(found[3]), int(found[4])
        month, day = (first, second) if month_first and found[2] != "." else (second, first)
        try:
            return date(year + 2000 if year < 100 else year, month, day)
        except ValueError:
            return None
    for form in _WORDY:
        try:
            return datetime.strptime(text, form).date()  # noqa: DTZ007 - a day has no zone
        except ValueError:
            continue
    return None


def parse_day_of_year(typed: str, field: str, *, month_first: bool) -> int:
    """Return the day of any year, 0 for the first of January, from ``20 Mar`` or ``Mar 20``.

    A year behind it is passed over.

    Raises
    ------
    NotUnderstood
        If no day is meant, or the 29th of February.
    """
    text = one_line(typed, field, "a day of the year such as 20 Mar")
    short = re.fullmatch(r"\d{1,2} ?([/.-]) ?\d{1,2}", text)
    for whole in (f"{text}{short[1] if short else ' '}{NOMINAL_YEAR}", text):
        try:
            return day_of_date(parse_day(whole, field, month_first=month_first))
        except (NotUnderstood, ValueError):
            continue
    raise NotUnderstood(field, typed, "a day of the year such as 20 Mar")


def parse_energy_kwh(typed: str, field: str) -> float:
    """Return kWh from ``842``, ``842 kWh``, ``1,240`` or ``1 240,5``.

    Raises
    ------
    NotUnderstood, OutOfRange
        If it is no number, or negative.
    """
    expected = "energy bought in kWh, such as 842"
    text = re.sub(" ?kwh$", "", one_line(typed, field, expected), flags=re.IGNORECASE)
    value = _amount(text, field, typed, expected)
    if value < 0:
        raise OutOfRange(
            field, value, "0 or more", "Type the energy bought, not the balance after credit."
        )
    return value


def parse_money_cents(typed: str, field: str) -> float:
    """Return cents, not rounded, from ``118.20``, ``$118.20``, ``118,20 €`` or ``1,118``.

    Raises
    ------
    NotUnderstood, OutOfRange
        If it is no amount, carries an energy unit, or is negative.
    """
    expected = "an amount such as 118.20"
    text = one_line(typed, field, expected)
    if text.lower().endswith("wh"):
        raise NotUnderstood(field, typed, "money here; energy goes in the kWh column")
    value = _amount(_CURRENCY.sub("", text).strip(), field, typed, expected)
    if value < 0:
        raise OutOfRange(field, value, "0 or more", "Type what was charged before credits.")
    return value * 100


def parse_share_frac(typed: str, field: str) -> float:
    """Return a fraction from ``80 %``, ``80`` or ``0.8``: a bare number above 1.5 is per cent.

    Raises
    ------
    NotUnderstood
        If it is no number.
    """
    text = typed.strip()
    value = parse_number(text.removesuffix("%"), field, "a share such as 80 %")
    return value / 100 if text.endswith("%") or value > 1.5 else value


def parse_quantity(typed: str, field: str, units: Mapping[str, float], example: str) -> float:
    """Return a number times the factor of the unit behind it.

    Parameters
    ----------
    typed, field : str
        The text, and what the message calls its field.
    units : mapping
        Factor by unit, lower case; ``""`` is that of a bare number.
    example : str
        What the message shows.

    Raises
    ------
    NotUnderstood
        If the number or the unit is not known.
    """
    text = one_line(typed, field, example).lower()
    unit = max((u for u in units if text.endswith(u)), key=len, default=None)
    if unit is None:
        raise NotUnderstood(field, typed, example)
    return _amount(text.removesuffix(unit), field, typed, example) * units[unit]


def parse_choice(kind: type[Choice], typed: str, field: str) -> Choice:
    """Return the member of an enumeration with that value.

    Raises
    ------
    NotUnderstood
        Naming the values there are.
    """
    try:
        return kind(typed)
    except ValueError:
        raise NotUnderstood(field, typed, " or ".join(k.value for k in kind)) from None


def parse_yes(typed: str, field: str) -> bool:
    """Return whether ``yes`` was typed, not ``no``; NotUnderstood where it was neither."""
    if typed not in {"yes", "no"}:
        raise NotUnderstood(field, typed, "yes or no")
    return typed == "yes"


def parse_kwh_price_cents(typed: str, field: str, example: str) -> float:
    """Return a price of a kWh in the currency's hundredths, from ``6.5``, ``6.5 ct`` or ``6.5p``.

    Raises
    ------
    NotUnderstood
        If it is no number, or has another unit.
    """
    return parse_quantity(typed, field, {"": 1.0, "c": 1.0, "ct": 1.0, "p": 1.0}, example)


def _amount(text: str, field: str, typed: str, expected: str) -> float:
    """Return a number that may be grouped: a mark before exactly three digits groups."""
    text = text.replace("−", "-").strip()
    sign = -1.0 if text.startswith("-") else 1.0
    text = text.lstrip("+-").strip()
    if found := _GROUPED.fullmatch(text):
        text = text.replace(found[1], "")
    try:
        return sign * finite_number(text.replace(",", "."))
    except ValueError:
        raise NotUnderstood(field, typed, expected) from None
