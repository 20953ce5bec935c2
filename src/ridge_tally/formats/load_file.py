"""A household's metered use: a year of it in hours of standard time, put right where it can be."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import FormatError
from ridge_tally.core.nominal_year import NOMINAL_YEAR
from ridge_tally.core.sky.weather_year import HOURS
from ridge_tally.core.units import day_text
from ridge_tally.formats.clock_changes import clock_changes
from ridge_tally.formats.holes import MOST_HOLES, filled
from ridge_tally.formats.timed_table import TimedTable, read_timed

FloatArray = NDArray[np.float64]
HOUR = timedelta(hours=1)
# A house that uses less or more is possible; a wrong unit is likelier. Common practice, no source.
LEAST_KWH, MOST_KWH = 100.0, 200_000.0
# Less than this a meter's own noise.
NOISE_W = 5.0


@dataclass(frozen=True, slots=True, eq=False)
class LoadFile:
    """``power_w`` (8760,) means of the hours of a year from 1 January, standard time.

    ``holes``: hours that were filled in.  ``notes`` are sentences on what was put right.
    """

    power_w: FloatArray
    first_day: date
    holes: int
    notes: tuple[str, ...]

    @property
    def energy_kwh(self) -> float:
        """The whole year."""
        return float(self.power_w.sum()) / 1000


def read_load(content: bytes, file: str, utc_offset_h: float, *, month_first: bool) -> LoadFile:
    """Return a year of metered use.

    Parameters
    ----------
    utc_offset_h : float
        Of the site's standard time: for stamps that name their zone.

    Raises
    ------
    FormatError
        Naming the file, the place and the remedy: no such table, less than a year, a balance in
        the place of use, a unit that cannot be, too many holes.
    """
    table = read_timed(content, file, month_first=month_first)
    notes = list(table.notes)
    if table.zoned:
        starts = [s + timedelta(hours=utc_offset_h) for s in table.start]
    else:
        starts, told = _in_standard_time(table)
        notes += told
    hourly, whole, first, last = _hours(starts, table, file)
    years = {first.year, last.year}
    if years != {NOMINAL_YEAR}:
        named = " and ".join(str(y) for y in sorted(years))
        notes.append(f"It is of {named}: each day stands on its own date of the year")
    if float(np.nanmin(np.where(whole, hourly, 0.0))) < -NOISE_W:
        raise FormatError(
            file,
            table.column.strip(),
            "some of its hours are below 0: it is what was used less what was made",
            "Choose the column of what was bought, or of what was used.",
        )
    holes = int((~whole).sum())
    if holes > MOST_HOLES:
        raise FormatError(
            file,
            "rows",
            f"{HOURS - holes} of a year's {HOURS} hours are there",
            f"Choose twelve months with at most {MOST_HOLES} hours missing, or take the bills.",
        )
    if holes:
        notes.append(
            f"{holes} hour{'s are' if holes > 1 else ' is'} missing: filled from the same hour of the days beside"
        )
        hourly = filled(np.where(whole, hourly, 0.0), ~whole)
    found = LoadFile(np.maximum(hourly, 0.0), first.date(), holes, tuple(notes))
    if not LEAST_KWH <= found.energy_kwh <= MOST_KWH:
        raise FormatError(
            file,
            table.column.strip(),
            f"read in {table.unit.value} it comes to {found.energy_kwh:,.0f} kWh a year",
            "Its unit is likely another: correct the heading.",
        )
    return found


def _in_standard_time(table: TimedTable) -> tuple[list[datetime], list[str]]:
    """Return starts without daylight time, and what was found of it.

    A year has both changes: where one alone is seen, nobody knows what the clock did.
    """
    starts = list(table.start)
    changes = clock_changes(np.array(starts, "datetime64[s]"), table.step_min)
    if changes.forward and changes.back:
        ahead = changes.ahead_h.tolist()
        moved = [s - HOUR * a for s, a in zip(starts, ahead, strict=True)]
        return moved, list(changes.notes)
    if changes.back:
        return starts, ["It repeats an hour and jumps over none: its clock is taken as it is"]
    twice = sum(n - 1 for n in Counter(starts).values())
    if twice:
        return starts, [f"{twice} stamps stand there twice: the first of each is read"]
    return starts, []


def _year_before(when: datetime) -> datetime:
    """Return the same moment a year earlier: a leap day between them makes it 366 days."""
    try:
        return when.replace(year=when.year - 1)
    except ValueError:
        return when.replace(year=when.year - 1, day=28)


def _hours(
    starts: Sequence[datetime], table: TimedTable, file: str
) -> tuple[FloatArray, NDArray[np.bool_], datetime, datetime]:
    """Return hourly means of the last year there is, which are whole, and its first and last."""
    last = max(starts)
    since = _year_before(last)
    first = min(s for s in starts if s > since)
    if (last - first) < timedelta(days=355):
        raise FormatError(
            file,
            "rows",
            f"they run from {day_text(min(starts))} to {day_text(last)}",
            "Choose twelve months, or take the bills with a day's shape.",
        )
    sums, counts = np.zeros(HOURS), np.zeros(HOURS, np.int64)
    seen: set[datetime] = set()
    for start, watts in zip(starts, table.power_w, strict=True):
        leap = (start.month, start.day) == (2, 29)
        if start <= since or leap or start in seen or not np.isfinite(watts):
            continue
        seen.add(start)
        here = start.replace(year=NOMINAL_YEAR)
        at = (here.timetuple().tm_yday - 1) * 24 + here.hour
        sums[at] += watts
        counts[at] += 1
    whole = counts == 60 // table.step_min
    return np.divide(sums, counts, out=np.zeros(HOURS), where=counts > 0), whole, first, last
