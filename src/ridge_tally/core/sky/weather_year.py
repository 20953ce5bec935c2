"""A year of weather in equal steps, and which day of it shows what."""

from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.nominal_year import NOMINAL_YEAR

FloatArray = NDArray[np.float64]
_T = TypeVar("_T", bound=np.generic)
HOURS = 8760


@dataclass(frozen=True, slots=True)
class WeatherYear:
    """8760 hours, or equal parts of them, in standard time; irradiances are their means in W/m².

    ``time`` is the middle of each.  ``stand_in`` marks a synthetic year.
    """

    time: NDArray[np.datetime64]
    ghi_w_per_m2: FloatArray
    dni_w_per_m2: FloatArray
    dhi_w_per_m2: FloatArray
    air_degc: FloatArray
    wind_m_per_s: FloatArray
    name: str
    stand_in: bool

    @property
    def step_h(self) -> float:
        """Hours in a step."""
        return step_h(len(self.time))


def step_h(steps: int) -> float:
    """Return the hours in each of so many equal steps of a year."""
    return HOURS / steps


def hour_middles() -> NDArray[np.datetime64]:
    """Return the (8760,) middles of the hours of the nominal year."""
    start = np.datetime64(f"{NOMINAL_YEAR}-01-01T00:30", "s")
    hours: NDArray[np.datetime64] = start + np.arange(HOURS) * np.timedelta64(3600, "s")
    return hours


def month_of(time: NDArray[np.datetime64]) -> NDArray[np.int64]:
    """Return the month 0 to 11 of each moment."""
    return time.astype("datetime64[M]").astype(np.int64) % 12


def hour_of(time: NDArray[np.datetime64]) -> NDArray[np.int64]:
    """Return the hour 0 to 23 of each moment."""
    hours = time.astype("datetime64[h]") - time.astype("datetime64[D]")
    return np.asarray(hours.astype(np.int64))


SATURDAY = 5


def weekday_of(time: NDArray[np.datetime64]) -> NDArray[np.int64]:
    """Return (n,) days of the week, 0 for Monday."""
    # The first day of 1970 was a Thursday, counted from Monday as 3.
    return (time.astype("datetime64[D]").astype(np.int64) + 3) % 7


def day_of(time: NDArray[np.datetime64]) -> NDArray[np.int64]:
    """Return the day of the year, from 0, of each moment."""
    days = time.astype("datetime64[D]") - time.astype("datetime64[Y]")
    return np.asarray(days.astype(np.int64))


def moments_of_day(day: int, minutes: NDArray[np.int64]) -> NDArray[np.datetime64]:
    """Return moments of a day of the nominal year, 0 for the first of January."""
    midnight = np.datetime64(f"{NOMINAL_YEAR}-01-01T00:00", "s") + np.timedelta64(day * 86400, "s")
    return np.asarray(midnight + (minutes * 60).astype("timedelta64[s]"))


def steps_of_day(day: int, steps_in_year: int) -> slice:
    """Return where the steps of a day of the year (0 to 364) lie among all of them."""
    steps = steps_in_year // 365
    return slice(day * steps, (day + 1) * steps)


def by_step(by_day: NDArray[_T], steps_in_year: int) -> NDArray[_T]:
    """Return what holds on each day of the year, (365,), for each of so many equal steps."""
    return np.repeat(by_day, steps_in_year // len(by_day))


def clearest_day(ghi_w_per_m2: FloatArray, around_day: int, within_days: int = 12) -> int:
    """Return the day of the year (0 to 364) with most light within some days of another.

    Parameters
    ----------
    ghi_w_per_m2 : (n,) float
        Means of equal steps of the year.
    around_day : int
        0 is the first of January; the search wraps round the year's end.
    """
    daily = ghi_w_per_m2.reshape(365, -1).sum(axis=1)
    days = np.arange(around_day - within_days, around_day + within_days + 1) % 365
    return int(days[np.argmax(daily[days])])
