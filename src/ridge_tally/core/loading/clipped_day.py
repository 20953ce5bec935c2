"""Days that show what an inverter's limit does, and the cost of other limits."""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.nominal_year import DECEMBER_21, JUNE_21
from ridge_tally.core.sky.weather_year import WeatherYear, clearest_day, steps_of_day

FloatArray = NDArray[np.float64]
# So many limits are looked at.
LIMITS = 61


class DayKind(StrEnum):
    """Why a day is shown."""

    MOST_CLIPPED = "most-clipped"
    CLEAR_SUMMER = "clear-summer"
    CLEAR_WINTER = "clear-winter"


TITLES = {
    DayKind.MOST_CLIPPED: "Most clipped day",
    DayKind.CLEAR_SUMMER: "Clear summer day",
    DayKind.CLEAR_WINTER: "Clear winter day",
}


@dataclass(frozen=True, slots=True)
class LimitCost:
    """What a limit would clip in the year."""

    limit_kw: float
    clipped_kwh: float
    clipped_frac: float


@dataclass(frozen=True, slots=True)
class LoadingDay:
    """One day in means of equal steps, kW; ``day_of_year`` counts from 0.

    ``tracker_kw`` are the trackers' shares of ``dc_kw``; ``limits`` what others would clip that day.
    """

    kind: DayKind
    title: str
    day_of_year: int
    dc_kw: tuple[float, ...]
    tracker_kw: tuple[tuple[float, ...], ...]
    unlimited_kw: tuple[float, ...]
    ac_kw: tuple[float, ...]
    clipped_kwh: float
    limits: tuple[LimitCost, ...]


def clipped_kwh_at(parts_w: FloatArray, limits_w: FloatArray, hours: float) -> FloatArray:
    """Return (k,): the energy above each of k limits, kWh.

    Parameters
    ----------
    parts_w : (n, q) float
        Powers of equal parts of steps of so many ``hours``; see ``YearResult.parts_w``.
    """
    ordered = np.sort(parts_w, axis=None)
    above = np.append(np.cumsum(ordered[::-1])[::-1], 0.0)
    first = np.searchsorted(ordered, limits_w)
    cut_w = above[first] - limits_w * (len(ordered) - first)
    return np.asarray(cut_w * hours / parts_w.shape[1] / 1000)


def loading_days(year: YearResult, weather: WeatherYear, latitude_deg: float) -> list[LoadingDay]:
    """Return the clearest summer day, the clearest winter day and the most clipped day.

    The last is left out when nothing is clipped all year.  Seasons follow the hemisphere.
    """
    summer, winter = (JUNE_21, DECEMBER_21) if latitude_deg >= 0 else (DECEMBER_21, JUNE_21)
    days = [
        _day(DayKind.CLEAR_SUMMER, clearest_day(weather.ghi_w_per_m2, summer), year),
        _day(DayKind.CLEAR_WINTER, clearest_day(weather.ghi_w_per_m2, winter), year),
    ]
    clipped = year.clipped_w.reshape(365, -1).sum(axis=1)
    if clipped.max() > 0:
        days.insert(0, _day(DayKind.MOST_CLIPPED, int(np.argmax(clipped)), year))
    return days


def _day(kind: DayKind, day: int, year: YearResult) -> LoadingDay:
    mine = steps_of_day(day, len(year.ac_w))

    def kilowatts(power_w: FloatArray) -> tuple[float, ...]:
        return tuple(float(p) for p in power_w[mine] / 1000)

    return LoadingDay(
        kind,
        TITLES[kind],
        day,
        kilowatts(year.dc_w),
        tuple(kilowatts(tracker) for tracker in year.tracker_dc_w),
        kilowatts(year.ac_unlimited_w),
        kilowatts(year.ac_rated_w),
        kwh_of(year.clipped_w[mine], year.hours),
        _costs(np.maximum(year.parts_w[mine], 0.0), year.hours),
    )


def limit_costs(year: YearResult) -> tuple[LimitCost, ...]:
    """Return clipped energy for limits from zero to the highest part of an hour of the year."""
    return _costs(np.maximum(year.parts_w, 0.0), year.hours)


def _costs(parts_w: FloatArray, hours: float) -> tuple[LimitCost, ...]:
    whole_kwh = float(parts_w.sum()) * hours / parts_w.shape[1] / 1000
    limits = np.linspace(0, max(float(parts_w.max()), 1.0) * 1.05, LIMITS)
    return tuple(
        LimitCost(float(limit_w / 1000), float(kwh), float(kwh) / whole_kwh if whole_kwh else 0.0)
        for limit_w, kwh in zip(limits, clipped_kwh_at(parts_w, limits, hours), strict=True)
    )
