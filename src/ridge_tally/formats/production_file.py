"""A gateway's log of what an array makes: any of many kinds of table, put into equal steps of its site's standard time."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import FormatError, RidgeTallyError
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.formats.clock_changes import clock_changes
from ridge_tally.formats.logged_columns import (
    Column,
    Quantity,
    bare,
    columns_of,
    counts_up,
    likeliest,
)
from ridge_tally.formats.table import read_table
from ridge_tally.formats.timed_table import LARGEST_FILE_BYTES, RETRY, decoded, number_at

FloatArray = NDArray[np.float64]
Stamps = NDArray[np.datetime64]
DAY_MIN = 1440
STEPS_MIN = (1, 2, 3, 5, 6, 10, 15, 20, 30, 60, DAY_MIN)
# Steps that a log is judged in, by its own: quarters of an hour where they hold whole steps.
JUDGED_MIN = {10: 30, 20: 60, 30: 30, 60: 60, DAY_MIN: DAY_MIN}
USUAL_MIN = 15
MOST_DAYS, LEAST_ROWS = 3660, 2
# A share of the rows without a number that a log may have; of the due steps that make a mean.
MOST_UNREAD_FRAC, LEAST_OF_STEP_FRAC = 0.5, 0.5
# What fits an array: its highest reading over its rating.
FITS = (0.02, 1.4)
_CLOCK = re.compile(
    r"^(.*?)[T ,]*(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*([ap]m)?\s*(Z|UTC|[+-]\d{2}:?\d{2})?$",
    re.IGNORECASE,
)
_DAY = re.compile(
    r"\d{1,4}[-/. ]+(\d{1,2}|[A-Za-z]{3,9})[-/., ]+\d{1,4}|[A-Za-z]{3,9} \d{1,2},? \d{4}"
)


@dataclass(frozen=True, slots=True, eq=False)
class ProductionLog:
    """Equal steps from midnight of the first day, in the site's standard time, NaN where nothing is.

    ``power_w`` (d, p): means of each step.  ``light_w_per_m2``, ``air_degc``, ``cell_degc``: the
    same, nothing where there is no such column; ``level_light``: the light is on the level.
    ``modules``: by module, (d, p).  ``columns``: those that may be the array's, ``column`` is read.
    ``corrections``: what was put right, each a sentence.
    """

    first_day: date
    step_min: int
    power_w: FloatArray
    light_w_per_m2: FloatArray | None
    level_light: bool
    air_degc: FloatArray | None
    cell_degc: FloatArray | None
    modules: tuple[tuple[tuple[PlacedId, ...], FloatArray], ...]
    column: str
    columns: tuple[str, ...]
    own_step_min: int
    missing: int
    zoned: bool
    corrections: tuple[str, ...]

    @property
    def days(self) -> int:
        """How many there are, from the first to the last."""
        return len(self.power_w)


@dataclass(frozen=True, slots=True)
class LogTerms:
    """What a reader must know of the job.

    ``utc_offset_h``: of the site's standard time.  ``rated_w``: of its ``modules``
    together.
    ``month_first``: how ``3/4/2025`` is read where the file does not tell.  ``called``: modules
    by their serial numbers and places, see ``logged_columns.bare``.  ``column``: the one to be
    read; nothing for the likeliest.
    """

    utc_offset_h: float
    rated_w: float
    modules: int
    month_first: bool
    called: Mapping[str, tuple[PlacedId, ...]]
    column: str = ""


def read_production(content: bytes, file: str, terms: LogTerms) -> ProductionLog:
    """Return a gateway's log in equal steps.

    Raises
    ------
    FormatError
        Naming the file, the row or column, and the remedy: no table, no stamps, nothing made, more
        than one zone, a step that is none.
    """
    if len(content) > LARGEST_FILE_BYTES:
        raise FormatError(file, "", f"{len(content) / 1e6:.0f} MB is more than a few years", RETRY)
    lines = read_table(decoded(content), file)
    names, rows, first_line = _headed(lines, file)
    return _Reading(file, terms, names, rows, first_line).log()


def _headed(lines: list[list[str]], file: str) -> tuple[list[str], list[list[str]], int]:
    """Return the heading, the rows under it, and the number of the first row."""
    first = next((i for i, line in enumerate(lines[:60]) if any(map(_is_stamp, line))), None)
    if first is None:
        raise FormatError(
            file,
            "rows",
            "no row begins with a day",
            "Write days as 2025-03-04 17:30, one row a step.",
        )
    if first == 0:
        raise FormatError(
            file, "heading", "there is none over the first row",
            "Write above each column what it is and its unit, as in “AC power, W”.",
        )  # fmt: skip
    wide = len(lines[first])
    names = [n.strip() for n in lines[first - 1]]
    if first > 1 and len(lines[first - 2]) == len(names) and all(len(n) <= 8 for n in names):
        # Units stand in a row of their own.
        names = [f"{a.strip()} {b}".strip() for a, b in zip(lines[first - 2], names, strict=True)]
    names += [""] * (wide - len(names))
    rows = lines[first:]
    if len(rows) < LEAST_ROWS:
        raise FormatError(file, "rows", "there is only one", RETRY)
    return names, rows, first + 1


def _is_stamp(cell: str) -> bool:
    return bool(_DAY.match(cell.strip()))


class _Reading:
    """One file on its way from rows to equal steps; keeps what was put right."""

    def __init__(
        self, file: str, terms: LogTerms, names: list[str], rows: list[list[str]], first_line: int
    ) -> None:
        self.file, self.terms, self.names, self.rows = file, terms, names, rows
        self.first_line = first_line
        self.notes: list[str] = []

    def log(self) -> ProductionLog:
        """Return the log; see ``read_production``."""
        apart = self._stamp_columns()
        stamps, zoned = self._stamps(apart)
        found = self._columns(apart)
        long = self._long_format(apart)
        if long is not None:
            return self._of_long(stamps, zoned, found, long)
        stamps = self._ascending(stamps)
        step_min = self._step_min(stamps)
        stamps = self._standard(stamps, step_min, zoned=zoned)
        values = {c.at: self._values(c.at) for c in found if c.quantity is not Quantity.OTHER}
        found = [self._counted(c, values) for c in found]
        chosen = self._chosen(found)
        modules = [c for c in found if c.modules and c.quantity in _MAKES]
        grid = _Grid(stamps, step_min)
        power = [self._power(c, values[c.at], stamps, step_min) for c in (chosen or modules)]
        if not power:
            raise FormatError(
                self.file, "heading", "no column is of what an array makes",
                "Write W, kW, Wh or kWh into the heading of its column, as in “AC power, W”.",
            )  # fmt: skip
        whole = power[0] if chosen else np.sum([np.nan_to_num(p) for p in power], axis=0)
        if not chosen:
            self.notes.append(f"The array is the sum of {len(modules)} columns of modules")
        return self._made(
            grid, self._positive(whole), zoned=zoned, step_min=step_min,
            column=chosen[0].name if chosen else "all modules", found=found, values=values,
            modules=tuple(
                (c.modules, grid.means(self._power(c, values[c.at], stamps, step_min)))
                for c in modules
            ),
        )  # fmt: skip

    def _columns(self, apart: tuple[int, ...]) -> list[Column]:
        """Return the columns; where no heading is of production, a single one is."""
        found = columns_of(self.names, apart, self.terms.called)
        if any(c.quantity in _MAKES for c in found):
            return found
        rest = [c for c in found if c.quantity is Quantity.OTHER and c.name]
        if len(rest) != 1:
            return found
        return [
            replace(c, quantity=Quantity.POWER, sure=False) if c is rest[0] else c for c in found
        ]

    def _made(
        self, grid: "_Grid", power: FloatArray, *, zoned: bool, step_min: int, column: str,
        found: list[Column], values: dict[int, FloatArray],
        modules: tuple[tuple[tuple[PlacedId, ...], FloatArray], ...],
    ) -> ProductionLog:  # fmt: skip
        if grid.twice:
            self.notes.append(f"{grid.twice} rows stand there twice: the first of each is read")
        means = grid.means(power)
        if not np.any(np.nan_to_num(means) > 0):
            raise FormatError(
                self.file, column, "it is nothing all the time", "Choose another column."
            )
        light = self._mean_of(found, values, grid, Quantity.LIGHT)
        level = light is None
        if level:
            light = self._mean_of(found, values, grid, Quantity.LEVEL_LIGHT)
        return ProductionLog(
            first_day=grid.first_day, step_min=grid.judged_min, power_w=means,
            light_w_per_m2=light, level_light=level and light is not None,
            air_degc=self._mean_of(found, values, grid, Quantity.AIR),
            cell_degc=self._mean_of(found, values, grid, Quantity.CELL),
            modules=modules, column=column, columns=tuple(c.name for c in likeliest(found)),
            own_step_min=step_min, missing=grid.missing(power), zoned=zoned,
            corrections=tuple(self.notes),
        )  # fmt: skip

    def _mean_of(
        self, found: list[Column], values: dict[int, FloatArray], grid: "_Grid", quantity: Quantity
    ) -> FloatArray | None:
        mine = [c for c in found if c.quantity is quantity]
        if not mine:
            return None
        if len(mine) > 1 and quantity in (Quantity.LIGHT, Quantity.LEVEL_LIGHT):
            self.notes.append(f"Of {len(mine)} columns of light “{mine[0].name}” is read")
            mine = mine[:1]
        if quantity is Quantity.LEVEL_LIGHT:
            self.notes.append(f"“{mine[0].name}” is taken as light on the level")
        told = np.stack([grid.means(values[c.at] * c.scale) for c in mine])
        there = np.isfinite(told)
        sums, counts = np.where(there, told, 0.0).sum(axis=0), there.sum(axis=0)
        return np.where(counts > 0, sums / np.maximum(counts, 1), np.nan)

    def _stamp_columns(self) -> tuple[int, ...]:
        row = [cell.strip() for cell in self.rows[0]]
        day = next(i for i, cell in enumerate(row) if _is_stamp(cell))
        if _CLOCK.match(row[day]):
            return (day,)
        clock = next(
            (i for i, c in enumerate(row) if i != day and re.match(r"\d{1,2}:\d{2}", c)), None
        )
        return (day,) if clock is None else (day, clock)

    def _stamps(self, at: tuple[int, ...]) -> tuple[Stamps, bool]:
        """Return the stamps as they are written, or in standard time where they name their zone."""
        texts = [" ".join(row[i].strip() for i in at if i < len(row)) for row in self.rows]
        split = [_CLOCK.match(t) for t in texts]
        days = [(m[1] if m else t).strip(" T,") for m, t in zip(split, texts, strict=True)]
        month_first = self._month_first(days)
        of_day: dict[str, np.datetime64] = {}
        of_clock: dict[tuple[str, ...], int] = {}
        of_zone: dict[str, int] = {}
        out = np.empty(len(texts), "datetime64[s]")
        zoned = bool(split[0] and split[0][6])
        for n, (day, match) in enumerate(zip(days, split, strict=True)):
            try:
                if day not in of_day:
                    of_day[day] = np.datetime64(parse_day(day, "Day", month_first=month_first), "s")
                shift_s = 0
                if match:
                    clock = match.groups()[1:5]
                    if clock not in of_clock:
                        of_clock[clock] = _seconds(*clock)
                    shift_s = of_clock[clock]
                    zone = match[6] or ""
                    if bool(zone) != zoned:
                        raise FormatError(
                            self.file, f"row {self.first_line + n}",
                            "only some stamps name their zone: the log has two clocks",
                            "Split the file where its clock changes, and read the parts one by one.",
                        )  # fmt: skip
                    if zone:
                        if zone not in of_zone:
                            of_zone[zone] = _offset_s(zone)
                        shift_s -= of_zone[zone]
            except FormatError:
                raise
            except (ValueError, RidgeTallyError):
                raise FormatError(
                    self.file, f"row {self.first_line + n}",
                    f"“{texts[n][:40]}” is no day with a clock", "Write days as 2025-03-04 17:30.",
                ) from None  # fmt: skip
            out[n] = of_day[day] + np.timedelta64(shift_s, "s")
        if zoned:
            out = out + np.timedelta64(round(self.terms.utc_offset_h * 3600), "s")
        return out, zoned

    def _month_first(self, days: Sequence[str]) -> bool:
        """Return how days are written: a number above 12 tells it, or the job's own way is taken."""
        told = set[bool]()
        unsure = False
        for day in dict.fromkeys(days):
            found = re.fullmatch(r"(\d{1,2})([/-])(\d{1,2})\2\d{2,4}", day)
            if found is None:
                continue
            first, second = int(found[1]), int(found[3])
            unsure = True
            if first > 12:
                told.add(False)
            elif second > 12:
                told.add(True)
        if len(told) > 1:
            raise FormatError(
                self.file, "rows", "some days are written day first, some month first",
                "Write all days one way, best as 2025-03-04.",
            )  # fmt: skip
        if told:
            return told.pop()
        if unsure and (run := _running(days)) is not None:
            return run
        if unsure:
            way = "month/day" if self.terms.month_first else "day/month"
            self.notes.append(
                f"No day tells which way round: {way} is read, as the job writes days"
            )
        return self.terms.month_first

    def _ascending(self, stamps: Stamps) -> Stamps:
        if np.sum(stamps[1:] < stamps[:-1]) <= np.sum(stamps[1:] > stamps[:-1]):
            return stamps
        self.notes.append("Its rows run from the newest to the oldest: turned round")
        self.rows.reverse()
        return stamps[::-1]

    def _step_min(self, stamps: Stamps) -> int:
        apart = (stamps[1:] - stamps[:-1]).astype(np.int64)
        apart = apart[apart > 0]
        if not len(apart):
            raise FormatError(self.file, "rows", "all have one stamp", RETRY)
        minutes, times = np.unique(np.round(apart / 60).astype(np.int64), return_counts=True)
        step = int(minutes[np.argmax(times)])
        if step not in STEPS_MIN:
            told = ", ".join(str(s) for s in STEPS_MIN[:-1])
            raise FormatError(
                self.file, "rows", f"their step is {step} minutes",
                f"Choose steps of {told} minutes, or of a day.",
            )  # fmt: skip
        span = int((stamps.max() - stamps.min()) / np.timedelta64(1, "D")) + 1
        if span > MOST_DAYS:
            raise FormatError(
                self.file, "rows", f"they run over {span} days", "Choose ten years at the most."
            )
        return step

    def _standard(self, stamps: Stamps, step_min: int, *, zoned: bool) -> Stamps:
        if zoned or step_min == DAY_MIN:
            return stamps
        changes = clock_changes(stamps, step_min)
        self.notes += changes.notes
        return stamps - changes.ahead_h * np.timedelta64(3600, "s")

    def _values(self, at: int) -> FloatArray:
        """Return a column's numbers, NaN where there is none; words of a logger are no reading."""
        cells = [row[at].strip() if at < len(row) else "" for row in self.rows]
        try:
            return np.array([c or "nan" for c in cells], np.float64)
        except ValueError:
            pass
        out = np.full(len(cells), np.nan)
        words: dict[str, int] = {}
        for n, row in enumerate(self.rows):
            try:
                out[n] = number_at(row, at, self.file, self.first_line + n)
            except FormatError:
                words[cells[n][:20]] = words.get(cells[n][:20], 0) + 1
        many = sum(words.values())
        if many > MOST_UNREAD_FRAC * len(cells):
            said = next(iter(words))
            raise FormatError(
                self.file, self.names[at], f"“{said}” is no number", "Choose another column."
            )
        if many:
            said = ", ".join(f"“{w}”" for w in list(words)[:3])
            self.notes.append(f"{many} cells of “{self.names[at]}” say {said}: taken as missing")
        return out

    def _counted(self, one: Column, values: dict[int, FloatArray]) -> Column:
        energy = one.quantity in (Quantity.ENERGY, Quantity.POWER) and one.at in values
        if not energy or not counts_up(values[one.at]):
            return one
        return replace(one, quantity=Quantity.COUNTER)

    def _chosen(self, found: list[Column]) -> list[Column]:
        offered = likeliest(found)
        if self.terms.column:
            wanted = [c for c in offered if c.name == self.terms.column]
            if not wanted and self.terms.column != "all modules":
                raise FormatError(
                    self.file,
                    self.terms.column,
                    "there is no such column",
                    "Choose one that is there.",
                )
            return wanted
        if len(offered) > 1:
            self.notes.append(f"Of {len(offered)} columns “{offered[0].name}” is read")
        return offered[:1]

    def _power(self, one: Column, values: FloatArray, stamps: Stamps, step_min: int) -> FloatArray:
        """Return a column in W as means of the steps."""
        scale = one.scale
        if one.quantity is Quantity.POWER:
            watts = values * (scale if one.sure else self._fitting(one, values, 1.0))
        elif one.quantity is Quantity.ENERGY:
            per_h = 60 / step_min
            watts = values * per_h * (scale if one.sure else self._fitting(one, values, per_h))
        else:
            made = self._since_last(one, values, stamps, step_min) * (60 / step_min)
            watts = made * (scale if one.sure else self._fitting(one, made, 1.0))
        return np.asarray(watts)

    def _fitting(self, one: Column, values: FloatArray, per_h: float) -> float:
        """Return W or Wh, or kW or kWh, whichever fits the array: the heading does not say."""
        most = float(np.nanquantile(values, 0.999)) * per_h if np.any(np.isfinite(values)) else 0.0
        share = len(one.modules) / max(1, self.terms.modules) if one.modules else 1.0
        rated = self.terms.rated_w * share
        for scale, unit in ((1.0, "W"), (1e3, "kW")):
            if FITS[0] * rated <= most * scale <= FITS[1] * rated:
                self.notes.append(f"“{one.name}” says no unit: taken in {unit}, as fits the array")
                return scale
        self.notes.append(f"“{one.name}” says no unit: taken in W, which does not fit the array")
        return 1.0

    def _since_last(
        self, one: Column, values: FloatArray, stamps: Stamps, step_min: int
    ) -> FloatArray:
        """Return what a counter ran on in each step; what ran through a hole has no course."""
        read = np.nonzero(np.isfinite(values))[0]
        ran = np.diff(values[read])
        resets = ran < 0
        ran = np.where(resets, values[read][1:], ran)
        apart = (stamps[read][1:] - stamps[read][:-1]).astype(np.int64)
        # Where the clock goes back an hour the counter still ran on for a step.
        whole = np.abs(apart - step_min * 60) <= 0.5 * step_min * 60
        out = np.full(len(values), np.nan)
        # What is read at a stamp ran since the one before.
        out[read[:-1][whole]] = ran[whole]
        told = f"“{one.name}” is a counter"
        if resets.any():
            told += f" that began anew {int(resets.sum())} times"
        lost = float(ran[~whole & (apart > 0)].sum()) * one.scale / 1000
        if lost > 0.05:
            told += f"; {lost:.1f} kWh ran through holes of the log"
        self.notes.append(told)
        return out

    def _positive(self, watts: FloatArray) -> FloatArray:
        below = np.nan_to_num(watts) < 0
        if below.any():
            self.notes.append(
                f"{int(below.sum())} readings are below 0, {abs(float(watts[below].min())):.0f} W at most: "
                "what the inverter itself uses at night, taken as nothing made"
            )
        high = float(np.nanmax(watts)) if np.any(np.isfinite(watts)) else 0.0
        if high <= 0 < -float(np.nanmin(np.nan_to_num(watts))):
            self.notes.append(
                "All readings are below 0: the meter counts the other way, turned round"
            )
            return -watts
        return np.asarray(np.where(below, 0.0, watts))

    def _long_format(self, apart: tuple[int, ...]) -> int | None:
        """Return the column that names the module of each row, where rows are of one module each."""
        called = self.terms.called
        for at in range(len(self.names)):
            if at in apart:
                continue
            some = [row[at] for row in self.rows[:200] if at < len(row)]
            if some and sum(bare(c) in called for c in some) > 0.5 * len(some):
                return at
        return None

    def _of_long(
        self, stamps: Stamps, zoned: bool, found: list[Column], named: int
    ) -> ProductionLog:
        """Return the log of a file with one row a module and step."""
        made = [c for c in likeliest(found) if c.at != named]
        if not made:
            raise FormatError(
                self.file, "heading", "no column is of what a module makes",
                "Write W or Wh into the heading of its column.",
            )  # fmt: skip
        one = made[0]
        values = self._values(one.at)
        names = np.array([bare(row[named]) if named < len(row) else "" for row in self.rows])
        modules, step_min = [], 0
        grid: _Grid | None = None
        every: list[tuple[tuple[PlacedId, ...], Stamps, FloatArray]] = []
        strange = 0
        for name in dict.fromkeys(names.tolist()):
            mine = names == name
            if name not in self.terms.called:
                strange += int(mine.sum())
                continue
            order = np.argsort(stamps[mine], kind="stable")
            every.append((self.terms.called[name], stamps[mine][order], values[mine][order]))
        if strange:
            self.notes.append(f"{strange} rows name a module that is not known here: left out")
        step_min = self._step_min(max((e[1] for e in every), key=len))
        whole_notes = self.notes
        grids = []
        for ids, written, what in every:
            self.notes = []
            when = self._standard(written, step_min, zoned=zoned)
            column = replace(one, modules=ids)
            column = self._counted(column, {one.at: what})
            grids.append((ids, when, self._power(column, what, when, step_min)))
            kept = self.notes
        self.notes = [*whole_notes, *kept, f"Its rows are of one module each, {len(every)} of them"]
        first = min(g[1].min() for g in grids)
        last = max(g[1].max() for g in grids)
        for ids, when, watts in grids:
            grid = _Grid(when, step_min, first, last)
            modules.append((ids, grid.means(self._quiet_positive(watts))))
        whole = np.nansum([m for _, m in modules], axis=0)
        whole[np.all([np.isnan(m) for _, m in modules], axis=0)] = np.nan
        assert grid is not None
        return ProductionLog(
            first_day=grid.first_day, step_min=grid.judged_min, power_w=whole, light_w_per_m2=None,
            level_light=False, air_degc=None, cell_degc=None, modules=tuple(modules),
            column="all modules", columns=("all modules",), own_step_min=step_min,
            missing=int(np.isnan(whole).sum()), zoned=zoned, corrections=tuple(self.notes),
        )  # fmt: skip

    @staticmethod
    def _quiet_positive(watts: FloatArray) -> FloatArray:
        return np.asarray(np.where(watts < 0, 0.0, watts))


_MAKES = (Quantity.POWER, Quantity.ENERGY, Quantity.COUNTER)


class _Grid:
    """Whole days of equal steps that rows fall into."""

    def __init__(
        self, stamps: Stamps, step_min: int, first: np.datetime64 | None = None,
        last: np.datetime64 | None = None,
    ) -> None:  # fmt: skip
        self.judged_min = JUDGED_MIN.get(step_min, USUAL_MIN)
        begin = (stamps.min() if first is None else first).astype("datetime64[D]")
        end = (stamps.max() if last is None else last).astype("datetime64[D]")
        self.days = int((end - begin).astype(np.int64)) + 1
        self.per_day = DAY_MIN // self.judged_min
        self.first_day: date = begin.astype(datetime)
        self.step_min = step_min
        minutes = (stamps - begin).astype("timedelta64[s]").astype(np.int64) / 60
        self.cell = np.clip((minutes // self.judged_min).astype(np.int64), 0, self.size - 1)
        _, firsts = np.unique(stamps, return_index=True)
        self.counts = np.zeros(len(stamps), bool)
        self.counts[firsts] = True
        self.twice = len(stamps) - len(firsts)

    @property
    def size(self) -> int:
        """Steps in all."""
        return self.days * self.per_day

    def means(self, values: FloatArray) -> FloatArray:
        """Return (d, p) means of steps that have at least half of their rows."""
        use = self.counts & np.isfinite(values)
        many = np.bincount(self.cell[use], minlength=self.size)
        sums = np.bincount(self.cell[use], values[use], minlength=self.size)
        least = max(1.0, LEAST_OF_STEP_FRAC * self.judged_min / self.step_min)
        return np.where(many >= least, sums / np.maximum(many, 1), np.nan).reshape(
            self.days, self.per_day
        )

    def missing(self, values: FloatArray) -> int:
        """Return how many of the log's own steps have no reading."""
        there = int((self.counts & np.isfinite(values)).sum())
        return max(0, self.days * (DAY_MIN // self.step_min) - there)


def _running(days: Sequence[str]) -> bool | None:
    """Return whether the month is first where days then follow each other, and otherwise do not."""
    spans = []
    for month_first in (False, True):
        read = [parse_day(d, "Day", month_first=month_first) for d in (days[0], days[-1])]
        spans.append(abs((read[1] - read[0]).days) + 1)
    many = len(set(days))
    close = [span <= 1.5 * many for span in spans]
    return close[1] if close[0] != close[1] else None


def _seconds(hour: str, minute: str, second: str | None, half: str | None) -> int:
    h, m, s = int(hour), int(minute), int(second or 0)
    if half:
        h = h % 12 + (12 if half.lower() == "pm" else 0)
    if h > 24 or m > 59 or s > 60 or (h == 24 and (m or s)):
        raise ValueError(hour)
    return h * 3600 + m * 60 + s


def _offset_s(zone: str) -> int:
    if zone.upper() in ("Z", "UTC"):
        return 0
    offset = datetime.strptime(zone.replace(":", ""), "%z").utcoffset()
    return int(offset.total_seconds()) if offset else 0


def called_modules(
    named: Iterator[tuple[str, tuple[PlacedId, ...]]],
) -> dict[str, tuple[PlacedId, ...]]:
    """Return modules by what they are called, the way columns are searched for them."""
    return {bare(name): ids for name, ids in named if bare(name)}
