"""A household's power by the hour, from twelve months and a day's shape."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.brief.loads import HEATING_BASE_DEGC
from ridge_tally.core.sky.weather_year import SATURDAY, hour_of, month_of, step_h, weekday_of

FloatArray = NDArray[np.float64]


def spread_w(
    monthly_kwh: Sequence[float], weight: FloatArray, time: NDArray[np.datetime64]
) -> FloatArray:
    """Return (n,) W that come to each month's energy, in proportion to weights within the month.

    Parameters
    ----------
    monthly_kwh : (12,) float
        What each month comes to; below 0 where something is taken off.
    weight : (n,) float
        0 or more for each step.  A month without any weight is spread evenly.
    time : (n,) datetime64
        Middles of equal steps of a whole year.
    """
    month, hours = month_of(time), step_h(len(time))
    whole = np.bincount(month, weights=weight, minlength=12)
    even = np.where(whole > 0, 0.0, 1.0)[month]
    weighed = weight + even
    whole = np.bincount(month, weights=weighed, minlength=12)
    energy_wh = np.asarray(monthly_kwh, dtype=float) * 1000
    return np.asarray(weighed * (energy_wh / whole)[month] / hours)


def by_hour(
    time: NDArray[np.datetime64], workday: Sequence[float], weekend: Sequence[float] | None = None
) -> FloatArray:
    """Return (n,) weights of a day's 24 shares, other ones on Saturdays and Sundays where given."""
    shares = np.asarray(workday, dtype=float)[hour_of(time)]
    if weekend is None:
        return shares
    return np.where(
        weekday_of(time) >= SATURDAY, np.asarray(weekend, dtype=float)[hour_of(time)], shares
    )


def by_cold(air_degc: FloatArray) -> FloatArray:
    """Return (n,) weights of heating: how far the air is below 18 °C."""
    return np.maximum(0.0, HEATING_BASE_DEGC - air_degc)


def base_and_heat_kwh(
    monthly_kwh: Sequence[float], days: Sequence[int]
) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Return what months hold beside heat, and their heat: all above the least month's days.

    Notes
    -----
    The month with least energy a day is taken to hold no heat; common practice, no source.
    """
    base_per_day = min(kwh / n for kwh, n in zip(monthly_kwh, days, strict=True))
    base = tuple(base_per_day * n for n in days)
    return base, tuple(kwh - b for kwh, b in zip(monthly_kwh, base, strict=True))
