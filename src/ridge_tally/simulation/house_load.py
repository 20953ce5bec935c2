"""What the household uses by the hour: its bills under a day's shape, or its own metered year."""

from collections.abc import Hashable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.brief import CarLoad, HeatPumpLoad
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.household import DayShape
from ridge_tally.core.loading.house_load import base_and_heat_kwh, by_cold, by_hour, spread_w
from ridge_tally.core.nominal_year import DAYS_IN_MONTH
from ridge_tally.core.sky.weather_year import HOURS, WeatherYear
from ridge_tally.formats.load_file import LoadFile, read_load
from ridge_tally.rules import tables
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.kept import meter_file
from ridge_tally.simulation.need import need_of
from ridge_tally.simulation.weather import weather_key, weather_of

FloatArray = NDArray[np.float64]
# Share of a house's energy that goes into its car where the bills hold one; our own estimate.
CAR_FRAC = 0.3
SHAPES = {
    DayShape.HOME: "somebody at home all day",
    DayShape.OUT: "all out on workdays",
    DayShape.CAR: "all out on workdays, a car charged by night",
    DayShape.HEAT_PUMP: "at home, heated by a heat pump",
}


@dataclass(frozen=True, slots=True, eq=False)
class HouseLoad:
    """``power_w`` (8760,) hourly means in standard time; ``origin`` and ``caveats`` in words."""

    power_w: FloatArray
    origin: str
    caveats: tuple[str, ...]


def load_key(job: Job) -> Hashable:
    """Return what the load of a job depends on, to remember things by."""
    brief = job.brief
    tariff = brief.grid.tariff if brief.grid else None
    return (
        brief.bills, brief.use_kwh_per_year, brief.loads, brief.household, tariff, job.unit,
        weather_key(job),
    )  # fmt: skip


def house_load(desk: Desk, job: Job) -> HouseLoad | None:
    """Return what the household uses by the hour, loads to come with it; ``None``: no use is known."""
    return desk.weather.get(("load", load_key(job)), lambda: _load(desk, job))


def house_w(desk: Desk, job: Job, steps: int) -> FloatArray | None:
    """Return (steps,) W, each hour's mean in all of its parts; ``None`` while no use is known."""
    load = house_load(desk, job)
    return None if load is None else np.repeat(load.power_w, steps // HOURS)


def kept_load(desk: Desk, job: Job) -> LoadFile | None:
    """Return the job's metered year; ``None`` without one, or where it is not kept here."""
    ref = job.brief.household.load_file
    if ref is None:
        return None
    try:
        place = meter_file(desk, ref.sha256)
    except NotFound:
        return None
    offset_h, first = job.site.utc_offset_h, month_first(job)
    return desk.weather.get(
        ("load file", ref.sha256, offset_h, first),
        lambda: read_load(place.read_bytes(), ref.file, offset_h, month_first=first),
    )


def _load(desk: Desk, job: Job) -> HouseLoad | None:
    need, weather = need_of(job), weather_of(desk, job)
    household, metered = job.brief.household, kept_load(desk, job)
    caveats: list[str] = []
    if metered is not None:
        whole = metered.power_w
        origin = f"metered, {household.load_file.file if household.load_file else ''}"
    elif need.usage is not None:
        whole = _shaped(household.shape, need.usage.monthly_kwh, weather)
        origin = f"{need.usage.origin}; {SHAPES[household.shape]}"
        caveats.append(
            "The hours are a day's shape of our own, not this house's: a metered file beats it"
        )
    else:
        return None
    if household.load_file is not None and metered is None:
        caveats.append(
            f"The load file {household.load_file.file} is not kept here: choose it again"
        )
    for load, year in need.loads:
        if isinstance(load, CarLoad):
            weight = by_hour(weather.time, shares("car"))
        elif isinstance(load, HeatPumpLoad):
            weight = by_cold(weather.air_degc)
        else:
            weight = _weight(household.shape, weather)
        whole = whole + spread_w(year.monthly_kwh, weight, weather.time)
        origin += f", with {load.name}"
    caveats.append("Means of hours: kettles and ovens of minutes are smoothed away")
    if job.brief.already.arrays:
        caveats.append(
            "What the old array gives is not in it: bills beside one are what was bought"
        )
    return HouseLoad(np.maximum(whole, 0.0), origin, tuple(caveats))


def shares(shape: str) -> tuple[float, ...]:
    """Return the 24 shares of a day's energy of a shape of the table."""
    table = tables.load("day-shapes")
    return tuple(table.number(f"{shape}_percent", hour=h) / 100 for h in range(24))


def _weight(shape: DayShape, weather: WeatherYear) -> FloatArray:
    home = shares("home")
    if shape in (DayShape.HOME, DayShape.HEAT_PUMP):
        return by_hour(weather.time, home)
    return by_hour(weather.time, shares("out"), home)


def _shaped(shape: DayShape, monthly_kwh: tuple[float, ...], weather: WeatherYear) -> FloatArray:
    time, weight = weather.time, _weight(shape, weather)
    match shape:
        case DayShape.CAR:
            car = tuple(CAR_FRAC * kwh for kwh in monthly_kwh)
            rest = tuple(kwh - c for kwh, c in zip(monthly_kwh, car, strict=True))
            return spread_w(rest, weight, time) + spread_w(car, by_hour(time, shares("car")), time)
        case DayShape.HEAT_PUMP:
            base, heat = base_and_heat_kwh(monthly_kwh, DAYS_IN_MONTH)
            return spread_w(base, weight, time) + spread_w(heat, by_cold(weather.air_degc), time)
        case _:
            return spread_w(monthly_kwh, weight, time)
