"""Which price holds in which hour of a year, and the rules that such prices go together by."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from itertools import product

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.grid import PriceDays, RatePeriod, Tariff
from ridge_tally.core.nominal_year import MONTH_NAMES, NOMINAL_YEAR, day_of_date
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
    hour, weekend = hour_of(time), weekday_of(time) >= SATURDAY
    for holiday in tariff.holidays:
        weekend |= day_of(time) == day_of_date_in(holiday.month, holiday.day)
    found = np.full(len(time), -1)
    for n, p in enumerate(periods):
        if p.rest:
            continue
        mine = np.isin(month + 1, p.months) & _inside(hour, p)
        if p.days is not PriceDays.EVERY:
            mine &= weekend == (p.days is PriceDays.WEEKENDS)
        found[mine] = n
    rest = next((n for n, p in enumerate(periods) if p.rest), -1)
    found[found < 0] = rest
    sold_for = [
        export_cents_per_kwh if p.sell_cents_per_kwh is None else p.sell_cents_per_kwh
        for p in periods
    ]
    return TariffHours(
        found,
        month,
        tuple(p.name for p in periods),
        np.array([p.buy_cents_per_kwh for p in periods]),
        np.array(sold_for),
    )


def day_of_date_in(month: int, day: int) -> int:
    """Return the number of a day of the nominal year; ValueError where the month has none such."""
    return day_of_date(date(NOMINAL_YEAR, month, day))


def _inside(hour: NDArray[np.int64], period: RatePeriod) -> NDArray[np.bool_]:
    if period.from_h < period.to_h:
        return (hour >= period.from_h) & (hour < period.to_h)
    return (hour >= period.from_h) | (hour < period.to_h)


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
    timed, rest = [p for p in periods if not p.rest], any(p.rest for p in periods)
    for month, days, hour in product(range(1, 13), _DAYS, range(24)):
        holds = [p.name for p in _holding(timed, month, days, hour)]
        where = f"{MONTH_NAMES[month - 1]}, {days.value}, {hour} to {hour + 1} h"
        if len(holds) > 1:
            raise BadGeometry(
                field, f"{holds[0]} and {holds[1]} both hold in {where}", "Leave one of them."
            )
        if not holds and not rest:
            raise BadGeometry(
                field,
                f"no price holds in {where}",
                "Add a line without hours: it takes all that are left.",
            )


def _holding(
    periods: list[RatePeriod], month: int, days: PriceDays, hour: int
) -> Iterator[RatePeriod]:
    for p in periods:
        inside = (
            p.from_h <= hour < p.to_h if p.from_h < p.to_h else (hour >= p.from_h or hour < p.to_h)
        )
        if inside and month in p.months and p.days in (PriceDays.EVERY, days):
            yield p
