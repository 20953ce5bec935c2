"""What a house's bills come to on its own sun, and without: the one sum behind every saving."""

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.battery import Battery
from ridge_tally.core.job.document import Job, battery_joined
from ridge_tally.core.job.grid import GridRules, Metering
from ridge_tally.core.loading.house import HouseYear
from ridge_tally.core.money.bills import MeterYear, YearBills, year_bills
from ridge_tally.core.sky.weather_year import HOURS
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import HouseLoad, load_key

FloatArray = NDArray[np.float64]


def battery_billed(design: Design) -> Battery | None:
    """Return the battery a house's bills are reckoned with: where all is sold it is left out."""
    grid = design.job.brief.grid
    if grid is not None and grid.metering is Metering.ALL_SOLD:
        return None
    return battery_joined(design.option)


def bills_without(desk: Desk, job: Job, grid: GridRules, load: HouseLoad) -> YearBills:
    """Return a house's bills without an array: all it uses is bought."""
    key = ("bills", load_key(job), grid)
    nothing = np.zeros(HOURS)
    return desk.weather.get(key, lambda: year_bills(grid, MeterYear(load.power_w / 1000, nothing)))


def bills_with(job: Job, grid: GridRules, lived: HouseYear) -> YearBills:
    """Return a house's bills as it lives on its sun."""
    events = job.brief.household.events
    bought, sent = _hourly(lived, lived.bought_w), _hourly(lived, lived.sent_w)
    if grid.metering is Metering.ALL_SOLD:
        # Two meters: all the sun goes out by one, all the house uses comes in by the other.
        own = _hourly(lived, lived.own_use_w)
        bought, sent = bought + own, sent + own
    return year_bills(
        grid,
        MeterYear(bought, sent, _hourly(lived, lived.sold_w)),
        0.0 if events is None else events.cents_per_kwh,
    )


def saved_cents(desk: Desk, job: Job, load: HouseLoad, lived: HouseYear) -> int | None:
    """Return what a house's bills of a year are less by; ``None`` without grid rules."""
    grid = job.brief.grid
    if grid is None:
        return None
    before = bills_without(desk, job, grid, load)
    return before.year_cents - bills_with(job, grid, lived).year_cents


def _hourly(lived: HouseYear, power_w: FloatArray) -> FloatArray:
    """Return (8760,) kWh."""
    return np.asarray(power_w.reshape(HOURS, -1).sum(axis=1) * lived.hours / 1000)
