"""When the AC limit cuts: by month and hour, and on how many days."""

from dataclasses import dataclass

import numpy as np

from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.sky.weather_year import WeatherYear, hour_of, month_of

# A day counts as much clipped from this share of what it would have given; our own line.
MUCH_FRAC = 0.1
# Less in a day than this is no clipping a person would see.
LEAST_KWH = 0.01


@dataclass(frozen=True, slots=True)
class ClipCalendar:
    """``kwh`` (12, 24) by month and hour of standard time; days a month with any, with much."""

    kwh: tuple[tuple[float, ...], ...]
    days_any: tuple[int, ...]
    days_much: tuple[int, ...]


def clip_calendar(year: YearResult, weather: WeatherYear) -> ClipCalendar:
    """Return when a year's hours are clipped."""
    month, kwh_per_w = month_of(weather.time), year.hours / 1000
    kwh = np.bincount(
        month * 24 + hour_of(weather.time), year.clipped_w * kwh_per_w, minlength=288
    ).reshape(12, 24)
    daily = year.clipped_w.reshape(365, -1).sum(axis=1) * kwh_per_w
    whole = np.maximum(year.ac_unlimited_w, 0).reshape(365, -1).sum(axis=1) * kwh_per_w
    month_of_day = month.reshape(365, -1)[:, 0]
    much = daily > MUCH_FRAC * np.maximum(whole, LEAST_KWH)
    some = daily > LEAST_KWH

    def by_month(days: np.ndarray) -> tuple[int, ...]:
        return tuple(int(days[month_of_day == m].sum()) for m in range(12))

    return ClipCalendar(
        tuple(tuple(float(v) for v in row) for row in kwh), by_month(some), by_month(much)
    )
