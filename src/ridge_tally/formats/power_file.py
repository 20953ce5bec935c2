"""A test module's measured power: the days of a logger's table, each as it was."""

from collections import defaultdict
from dataclasses import dataclass
from datetime import date, datetime

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import FormatError
from ridge_tally.formats.timed_table import RETRY, read_timed

FloatArray = NDArray[np.float64]
# Of the steps between the first and the last that has power.
MOST_MISSING_FRAC = 0.1
DAY_MIN = 1440


@dataclass(frozen=True, slots=True, eq=False)
class MeasuredDay:
    """``power_w`` (1440 / step_min,) means of equal steps from midnight of the file's clock."""

    day: date
    step_min: int
    power_w: FloatArray
    missing: int


def read_power(content: bytes, file: str, *, month_first: bool) -> tuple[MeasuredDay, ...]:
    """Return the whole days of a table of one module's power.

    Raises
    ------
    FormatError
        Naming the file, the place and the remedy: no such table, or no whole day with power.
    """
    table = read_timed(content, file, month_first=month_first)
    by_day: dict[date, dict[int, float]] = defaultdict(dict)
    for start, watts in zip(table.start, table.power_w, strict=True):
        by_day[start.date()].setdefault(_step_of(start, table.step_min), float(watts))
    days = [_day(day, rows, table.step_min) for day, rows in sorted(by_day.items())]
    whole = tuple(d for d in days if d is not None)
    if not whole:
        raise FormatError(
            file,
            "rows",
            "no day in it has its power from morning to evening",
            "Log a whole clear day in steps of at most 15 minutes."
            if table.step_min > 15
            else RETRY,
        )
    return whole


def _step_of(start: datetime, step_min: int) -> int:
    return (start.hour * 60 + start.minute) // step_min


def _day(day: date, rows: dict[int, float], step_min: int) -> MeasuredDay | None:
    power = np.full(DAY_MIN // step_min, np.nan)
    for step, watts in rows.items():
        power[step] = watts
    there = np.nonzero(np.nan_to_num(power) > 0)[0]
    if len(there) < 4:
        return None
    inside = slice(int(there[0]), int(there[-1]) + 1)
    missing = int(np.isnan(power[inside]).sum())
    if missing > MOST_MISSING_FRAC * (inside.stop - inside.start):
        return None
    steps = np.arange(len(power))
    known = np.isfinite(power)
    whole = np.interp(steps, steps[known], power[known])
    whole[: inside.start] = 0.0
    whole[inside.stop :] = 0.0
    return MeasuredDay(day, step_min, np.maximum(whole, 0.0), missing)
