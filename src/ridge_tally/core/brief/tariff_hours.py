"""Which price holds in which hour of a year, and the rules that such prices go together by."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.grid import PriceDays, RatePeriod, Tariff
from ridge_tally.core.nominal_year import MONTH_NAMES
from ridge_tally.core.sky.weather_year import (
    SATURDAY,
    day_of,
    hour_middles,
    hour_of,
    month_of,
    weekday_of,
)

FloatArray = NDArray[np.float64]
ALL_HOURS = "all hours"
_DAYS = (PriceDays.WORKDAYS, PriceDays.WEEKENDS)


@dataclass(frozen=True, slots=True, eq=False)
class TariffHours:
    """The period of each hour of a year, (8760,), and the prices of each period, cents per kWh."""

    period: NDArray[np.int64]
    month: NDArray[np.int64]
    names: tuple[str, ...]
    buy_cents: FloatArray
    sell_cents: FloatArray


# Asked for by every bill of every option and age: a tariff's hours are the same each time.
@lru_cache(maxsize=32)
def tariff_hours(tariff: Tariff, export_cents_per_kwh: float) -> TariffHours:
    """Return a tariff hour by hour; one period of all hours where it has none.

    Notes
    -----
    The hours are those of the nominal year in standard time; a country's summer time is not in
    them.  Tiers have no price of an hour: theirs stands as 0 here.
    """
    time = hour_middles()
    month, periods = month_of(time), tariff.periods
    if not periods:
        one, sold = np.zeros(1), np.array([export_cents_per_kwh])
        return TariffHours(np.zeros(len(time), np.int64), month, (ALL_HOURS,), one, sold)
    weekend = (weekday_of(time) >= SATURDAY) | np.isin(day_of(time), tariff.holidays)
    held = _held(periods)[:, month, weekend.astype(int), hour_of(time)]
    rest = next((n for n, p in enumerate(periods) if p.rest), -1)
    sold_for = [
        export_cents_per_kwh if p.sell_cents_per_kwh is None else p.sell_cents_per_kwh
        for p in periods
    ]
    return TariffHours(
        np.where(held.any(axis=0), held.argmax(axis=0), rest),
        month,
        tuple(p.name for p in periods),
        np.array([p.buy_cents_per_kwh for p in periods]),
        np.array(sold_for),
    )


def _held(periods: tuple[RatePeriod, ...]) -> NDArray[np.bool_]:
    """Return (periods, 12, 2, 24): whether each holds, by month, workday or weekend, and hour.

    What takes the rest holds nowhere by itself.
    """
    months, hours = np.arange(1, 13)[:, None, None], np.arange(24)
    found = []
    for p in periods:
        days = np.array([p.days is not PriceDays.WEEKENDS, p.days is not PriceDays.WORKDAYS])
        after, before = hours >= p.from_h, hours < p.to_h
        inside = after & before if p.from_h < p.to_h else after | before
        found.append(np.isin(months, p.months) & days[:, None] & inside & (not p.rest))
    return np.array(found)


def mean_price_cents(tariff: Tariff) -> float:
    """Return the price of a kWh taken evenly over the year of a tariff with periods."""
    hours = tariff_hours(tariff, 0.0)
    return float(hours.buy_cents[hours.period].mean())


def require_whole_periods(tariff: Tariff) -> None:
    """Raise BadGeometry, naming month, day and hour, where periods leave a gap or overlap."""
    field = "Hours with their own price"
    periods = tariff.periods
    if not periods:
        return
    if sum(p.rest for p in periods) > 1:
        raise BadGeometry(field, "two lines take all other hours", "Keep one without hours.")
    held, rest = _held(periods), any(p.rest for p in periods)
    count = held.sum(axis=0)
    for month, days, hour in np.argwhere((count > 1) | ((count == 0) & (not rest)))[:1].tolist():
        where = f"{MONTH_NAMES[month]}, {_DAYS[days].value}, {hour} to {hour + 1} h"
        names = [
            p.name for p, there in zip(periods, held[:, month, days, hour], strict=True) if there
        ]
        if names:
            problem = f"{names[0]} and {names[1]} both hold in {where}"
            raise BadGeometry(field, problem, "Leave one of them.")
        remedy = "Add a line without hours: it takes all that are left."
        raise BadGeometry(field, f"no price holds in {where}", remedy)
