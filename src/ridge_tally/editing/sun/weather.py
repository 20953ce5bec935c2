"""Applying the edits of a job's weather."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.errors import BadGeometry, NotFound, OutOfRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.sun.weather import (
    ForgetWeatherFile,
    ResetMonthly,
    SetMonthly,
    UseWeatherFile,
    WeatherEdit,
)
from ridge_tally.core.job.weather import MONTHS, Monthly, MonthlyValues, typed_months
from ridge_tally.core.sky.site import located, location_of
from ridge_tally.core.sky.sun import apart_km
from ridge_tally.core.units import parse_number, parse_temperature_degc
from ridge_tally.editing.sun.normals import NORMALS, normals_of
from ridge_tally.rules import tables
from ridge_tally.rules.sun.weather_document import KINDS

# A typical year says little of a place further off than this; common practice, no source.
NEAR_KM = 50.0
AIR = (Monthly.MEAN_AIR, Monthly.MAX_AIR, Monthly.MIN_AIR)
PER_CENT = (Monthly.REFLECTION, Monthly.SOILING)
NAMES = {
    Monthly.CLEARNESS: "Clearness",
    Monthly.MEAN_AIR: "Mean air",
    Monthly.MAX_AIR: "Mean of the days' highest",
    Monthly.MIN_AIR: "Mean of the days' lowest",
    Monthly.WIND: "Wind",
    Monthly.REFLECTION: "Ground reflection",
    Monthly.SOILING: "Soiling",
    Monthly.SNOWFALL: "Snowfall",
}
MONTH_NAMES = (
    "January", "February", "March", "April", "May", "June", "July", "August", "September",
    "October", "November", "December",
)  # fmt: skip


def weather_changed(job: Job, edit: WeatherEdit) -> Job:
    """Return the job after an edit of its weather.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, NotFound
        Naming the file or the month, the value and the remedy.
    """
    weather = job.weather
    match edit:
        case UseWeatherFile():
            away_km = apart_km(location_of(job.site), located(edit.file))
            if away_km > NEAR_KM and not edit.far_is_meant:
                raise BadGeometry(
                    edit.file.file,
                    f"it was measured at {edit.file.place}, {away_km:.0f} km from this site",
                    "Choose a file of a nearer place, or use it all the same.",
                )
            return replace(job, weather=replace(weather, file=edit.file))
        case ForgetWeatherFile():
            return replace(job, weather=replace(weather, file=None))
        case ResetMonthly():
            left = tuple(m for m in weather.months if m.quantity is not edit.quantity)
            return replace(job, weather=replace(weather, months=left))
        case SetMonthly():
            return _month_set(job, edit)
        case _:
            assert_never(edit)


def _month_set(job: Job, edit: SetMonthly) -> Job:
    if edit.month is not None and not 0 <= edit.month < MONTHS:
        raise NotFound("month", str(edit.month + 1))
    which = "every month" if edit.month is None else MONTH_NAMES[edit.month]
    value = _read(edit.quantity, edit.typed, f"{NAMES[edit.quantity]}, {which}")
    old = typed_months(job.weather, edit.quantity) or _usual(job, edit.quantity)
    values = tuple(
        value if edit.month in (None, month) else before for month, before in enumerate(old)
    )
    kept = tuple(m for m in job.weather.months if m.quantity is not edit.quantity)
    months = (*kept, MonthlyValues(edit.quantity, values))
    changed = replace(job, weather=replace(job.weather, months=months))
    _require_span(changed)
    return changed


def _read(quantity: Monthly, typed: str, field: str) -> float:
    _, low, high = KINDS[quantity]
    if quantity in AIR:
        value = parse_temperature_degc(typed, field)
    elif quantity in PER_CENT:
        value = parse_number(typed.strip().removesuffix("%"), field, "per cent such as 4") / 100
    elif quantity is Monthly.SNOWFALL:
        value = parse_number(typed.strip().removesuffix("cm"), field, "centimetres such as 30")
    else:
        value = parse_number(typed, field, f"a number from {low:g} to {high:g}")
    if not low <= value <= high:
        shown = (value * 100, low * 100, high * 100) if quantity in PER_CENT else (value, low, high)
        unit = " in per cent" if quantity in PER_CENT else ""
        raise OutOfRange(f"{field}{unit}", shown[0], f"between {shown[1]:g} and {shown[2]:g}")
    return value


def _usual(job: Job, quantity: Monthly) -> tuple[float, ...]:
    """Return the months that hold while nobody typed any."""
    if quantity in NORMALS:
        values: tuple[float, ...] = getattr(normals_of(job), NORMALS[quantity])
        return values
    if quantity is Monthly.SOILING:
        return (tables.load("usual-losses").number("share_frac", loss="soiling"),) * MONTHS
    if quantity is Monthly.REFLECTION:
        return (tables.load("ground-reflection").number("reflected_frac", ground="bare"),) * MONTHS
    return (0.0,) * MONTHS


def _require_span(job: Job) -> None:
    """Raise where a month's days would be warmest at night."""
    normals = normals_of(job)
    for month, (low, mean, high) in enumerate(
        zip(normals.min_degc, normals.mean_degc, normals.max_degc, strict=True)
    ):
        if not low < mean < high:
            raise OutOfRange(
                f"Mean air of {MONTH_NAMES[month]} in °C",
                mean,
                f"between the days' lowest ({low:g}) and highest ({high:g})",
            )
