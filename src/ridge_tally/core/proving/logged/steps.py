"""A log's steps against what was due in them: which are judged, and why others are left out."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import IntEnum

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]
# Our own lines, as shares: of the rating, under which nothing is due or nothing is made; of the
# inverter's limit, from where it is at it; of a step, that a level may move and still be flat.
DARK_FRAC, NOTHING_FRAC, AT_LIMIT_FRAC, FLAT_FRAC = 0.02, 0.004, 0.985, 0.006
# Light enough that something must come of it; without a light meter a black cloud is thinkable.
SURELY_FRAC, SURELY_UNDER_ANY_SKY_FRAC = 0.05, 0.35
FLAT_H, LOWER_FRAC, STEPPED_FRAC = 1.0, 0.95, 1.08
SNOW_FRAC, SNOW_AIR_DEGC = 0.25, 2.0
# Roughness of a cloudless day over that of the curve due.
CLEAR_TIMES, CLEAR_MORE = 1.6, 0.03


class What(IntEnum):
    """What a step is."""

    NIGHT = 0
    KEPT = 1
    GAP = 2
    OUT = 3
    SNOW = 4
    CLIPPED = 5
    HELD = 6
    HOT = 7


# Left out of every ratio, and counted.
LEFT_OUT = (What.GAP, What.OUT, What.SNOW, What.CLIPPED, What.HELD, What.HOT)


@dataclass(frozen=True, slots=True, eq=False)
class DueSteps:
    """A log (d, p) of whole days beside what was due, W; NaN where nothing was logged.

    ``due_w``: what the inverter gives, ``free_w``: what it would without its limits.
    ``light_w_per_m2``: in the arrays' planes by their rating, ``cell_degc`` alike.
    ``light_measured``: whether the light was, or is that of a cloudless sky; ``in_plane``: whether
    it was in the plane of an array.
    """

    made_w: FloatArray
    due_w: FloatArray
    free_w: FloatArray
    light_w_per_m2: FloatArray
    cell_degc: FloatArray
    air_degc: FloatArray
    rated_dc_w: float
    limit_w: float
    step_h: float
    light_measured: bool
    in_plane: bool

    @property
    def rated_w(self) -> float:
        """The smaller of the modules' rating and the inverter's limit."""
        return min(self.rated_dc_w, self.limit_w)


@dataclass(frozen=True, slots=True)
class Plateau:
    """A level held on a day, numbered from 0: its steps from ``first`` to before ``end``, W."""

    day: int
    first: int
    end: int
    level_w: float
    what: What


@dataclass(frozen=True, slots=True, eq=False)
class Sorted:
    """A log with each step's ``what`` (d, p), and the cloudless days (d,) among it."""

    log: DueSteps
    what: NDArray[np.int64]
    clear: BoolArray
    plateaus: tuple[Plateau, ...]

    @property
    def kept(self) -> BoolArray:
        """(d, p): what is judged: of cloudless days alone where no light was measured."""
        judged = self.what == What.KEPT
        if not self.log.light_measured:
            judged &= self.clear[:, None]
        return np.asarray(judged)

    def kwh(self, power_w: FloatArray, where: BoolArray) -> FloatArray:
        """Return (d,) kWh of a power over some steps."""
        summed = np.where(where, np.nan_to_num(power_w), 0.0).sum(axis=1)
        return np.asarray(summed * self.log.step_h / 1000)


def sorted_steps(log: DueSteps) -> Sorted:
    """Return which steps are judged; one step a day has no course, and is judged whole."""
    made, rated = log.made_w, log.rated_w
    what = np.full(made.shape, What.KEPT, np.int64)
    what[log.free_w < DARK_FRAC * rated] = What.NIGHT
    day = what != What.NIGHT
    what[day & np.isnan(made)] = What.GAP
    surely = SURELY_FRAC if log.light_measured else SURELY_UNDER_ANY_SKY_FRAC
    lit = log.free_w > surely * rated
    if made.shape[1] == 1:
        return Sorted(log, what, np.isfinite(made[:, 0]), ())
    seen = np.nan_to_num(made)
    nothing = (what == What.KEPT) & lit & (seen < NOTHING_FRAC * rated)
    what[nothing] = What.OUT
    what[_snowed(log, what)] = What.SNOW
    at_limit = (seen >= AT_LIMIT_FRAC * log.limit_w) & (log.free_w >= AT_LIMIT_FRAC * log.limit_w)
    what[(what == What.KEPT) & at_limit] = What.CLIPPED
    plateaus = tuple(_plateaus(log, what))
    for one in plateaus:
        what[one.day, one.first : one.end] = one.what
    return Sorted(log, what, _clear(log, what), plateaus)


def _snowed(log: DueSteps, what: NDArray[np.int64]) -> BoolArray:
    """Return (d, p): next to nothing under measured light, on days that froze."""
    if not log.light_measured:
        return np.zeros(what.shape, bool)
    cold = np.nanmin(log.air_degc, axis=1) < SNOW_AIR_DEGC
    low = np.nan_to_num(log.made_w) < SNOW_FRAC * log.due_w
    low &= (log.light_w_per_m2 > 100) & ((what == What.KEPT) | (what == What.OUT))
    # A cover lasts; a step alone is something else.
    for_long = low.sum(axis=1) * log.step_h >= 1.0
    return np.asarray((low | (what == What.OUT)) & (cold & for_long)[:, None])


def _clear(log: DueSteps, what: NDArray[np.int64]) -> BoolArray:
    """Return (d,): cloudless days, by the roughness of their curve beside the one due."""
    use = what == What.KEPT
    made = np.where(use, np.nan_to_num(log.made_w), 0.0)
    due = np.where(use, log.due_w, 0.0)
    inner = use[:, 2:] & use[:, 1:-1] & use[:, :-2]

    def rough(of: FloatArray) -> FloatArray:
        bends = np.abs(of[:, 2:] - 2 * of[:, 1:-1] + of[:, :-2])
        sums = np.where(inner, of[:, 1:-1], 0.0).sum(axis=1)
        return np.asarray(np.where(inner, bends, 0.0).sum(axis=1) / np.maximum(sums, 1e-9))

    there = due.sum(axis=1) > 0.5 * np.where(what != What.NIGHT, log.due_w, 0.0).sum(axis=1)
    smooth = rough(made) <= CLEAR_TIMES * rough(due) + CLEAR_MORE
    # A closed sky is smooth as well, and far darker.
    bright = made.sum(axis=1) > 0.45 * due.sum(axis=1)
    return np.asarray(there & smooth & bright)


def _plateaus(log: DueSteps, what: NDArray[np.int64]) -> Iterator[Plateau]:
    least = max(3, round(FLAT_H / log.step_h))
    for day in range(len(what)):
        made = np.nan_to_num(log.made_w[day])
        kept = what[day] == What.KEPT
        flat = np.abs(np.diff(made)) <= FLAT_FRAC * np.maximum(made[:-1], 1.0)
        flat &= kept[1:] & kept[:-1] & (made[:-1] > 0.05 * log.rated_w)
        for first, last in runs(flat, least - 1):
            found = _held(log, day, kept, first, last + 1)
            if found is not None:
                yield found


def _held(log: DueSteps, day: int, kept: BoolArray, first: int, end: int) -> Plateau | None:
    """Return a level as a plateau if less came of the light in it than around it."""
    made, due = np.nan_to_num(log.made_w[day]), log.due_w[day]
    bright = kept & (due > 0.3 * due.max())
    outside = bright.copy()
    outside[first:end] = False
    if outside.sum() < 4:
        return None
    around = float(np.median(made[outside] / due[outside]))
    inside = float(made[first:end].sum() / max(due[first:end].sum(), 1e-9))
    if around <= 0 or inside > LOWER_FRAC * around:
        return None
    level = float(np.median(made[first:end]))
    before = made[max(0, first - 4) : first]
    stepped = len(before) > 0 and float(before.max()) > STEPPED_FRAC * level
    what = What.HOT if stepped else What.HELD
    return Plateau(day, first, end, level, what)


def runs(mask: BoolArray, least: int = 1) -> Iterator[tuple[int, int]]:
    """Yield where each run of at least so many in (n,) begins, and where it has ended."""
    edges = np.flatnonzero(np.diff(np.concatenate([[False], mask, [False]]).astype(np.int8)))
    for first, end in zip(edges[::2], edges[1::2], strict=True):
        if end - first >= least:
            yield int(first), int(end)
