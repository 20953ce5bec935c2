"""How many modules a row takes at each height, and the fullest stack of rows.

Rows run along the eave; their bands do not overlap.  In one band a gap of length l takes
floor((l + g) / (w + g)) modules, attained by pushing them left.  Rows meet each other only
through their height, so with rows of any orientation o

    E[c] = min over o, k of  next(o, k, E[c - k] + gap) + h_o

is the lowest possible top of a stack with at least c modules, next(o, k, t) the lowest
y >= t whose row of orientation o takes k.  The count is the largest c with E[c] finite.
Method and proof: docs/derivations/fill.md.
"""

from bisect import bisect_left
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.blockers import Bands, FloatArray, LayoutRegion, free_bands
from ridge_tally.core.array.lay import Lay
from ridge_tally.core.job.array import Orientation

IntArray = NDArray[np.int64]
# Sums of lengths are rounded this far; a place found is legal to well under a tape's reading.
ROUNDING_M = 1e-7
# A ceiling gives every gap this much more than it has, the tolerance of legality at either end,
# so that no legal layout slips past it.
CEILING_SLACK_M = 2e-4
# Planes taller than this many steps are looked at on a coarser lattice: a barn takes no longer.
MOST_BANDS = 4000


@dataclass(frozen=True, slots=True)
class Row:
    """A row of a stack: its orientation, its bottom and how many modules were counted in it."""

    orientation: Orientation
    bottom_m: float
    modules: int


@dataclass(frozen=True, slots=True)
class RowChoice:
    """Rows of one orientation: row i may stand from low_m[i] to high_m[i] and takes counts[i]."""

    orientation: Orientation
    height_m: float
    low_m: FloatArray
    high_m: FloatArray
    counts: IntArray


def row_heights(ground: LayoutRegion, height_m: float, lattice_m: float) -> FloatArray:
    """Return bottoms of rows worth trying: a lattice and the heights where counts change."""
    low = max(ground.window.low_m, *(float(ring[:, 1].min()) for ring in ground.outlines))
    high = min(ground.window.high_m, *(float(ring[:, 1].max()) for ring in ground.outlines))
    high -= height_m
    if high < low:
        return np.array([])
    lattice_m = max(lattice_m, (high - low) / MOST_BANDS)
    _, ay, _, by, radius = ground.capsules.T
    ends = np.concatenate([ay - radius, ay + radius, by - radius, by + radius])
    tried = np.concatenate([np.arange(low, high, lattice_m), ends, ends - height_m, [low, high]])
    return np.unique(tried[(tried >= low) & (tried <= high)])


def row_bands(ground: LayoutRegion, bottom_m: FloatArray, height_m: float) -> Bands:
    """Return the gaps of rows that stand at those heights."""
    return free_bands(ground, bottom_m, bottom_m + height_m)


def cell_bands(ground: LayoutRegion, bottom_m: FloatArray, height_m: float) -> Bands:
    """Return, per cell between two heights, the gaps of the part every row of the cell covers."""
    low, high = cells(bottom_m)
    return free_bands(ground, high, low + height_m)


def cells(bottom_m: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return the lower and upper ends of the cells between heights; one height is one cell."""
    return (bottom_m[:-1], bottom_m[1:]) if len(bottom_m) > 1 else (bottom_m, bottom_m)


def fitted(length_m: FloatArray, width_m: float, gap_m: float, shortest_run: int) -> IntArray:
    """Return how many modules gaps of those lengths take, none where the run would be too short."""
    # A place that is not used is infinitely short.
    count = np.floor((np.maximum(length_m, -1.0) + gap_m + ROUNDING_M) / (width_m + gap_m))
    whole = np.maximum(count, 0.0).astype(np.int64)
    return np.where(whole >= shortest_run, whole, 0)


def pushed_left(bands: Bands, lay: Lay, orientation: Orientation) -> IntArray:
    """Return the count of each band with every gap filled from its left end.

    Notes
    -----
    Gaps nearer to each other than modules may be are heeded by carrying the end of the last run.
    """
    width_m, gap_m = lay.width_m(orientation), lay.gap_in_row_m
    total = np.zeros(len(bands.bottom_m), dtype=np.int64)
    free_from = np.full(len(bands.bottom_m), -np.inf)
    for left, right in zip(bands.left_m.T, bands.right_m.T, strict=True):
        start = np.maximum(left, free_from)
        with np.errstate(invalid="ignore"):
            length = np.where(right > start, right - start, -np.inf)
        count = fitted(length, width_m, gap_m, lay.shortest_run)
        total += count
        free_from = np.where(count > 0, start + count * (width_m + gap_m), free_from)
    return total


def kept_apart(bands: Bands, gap_m: float) -> Bands:
    """Return the bands with gaps nearer than that cut back at their facing ends, both alike."""
    near = np.zeros_like(bands.left_m)
    if near.shape[1] > 1:
        with np.errstate(invalid="ignore"):
            apart = bands.left_m[:, 1:] - bands.right_m[:, :-1]
        short = np.where(np.isfinite(apart), np.maximum(gap_m - apart, 0.0) / 2, 0.0)
        near[:, 1:] = short
        far = np.zeros_like(near)
        far[:, :-1] = short
        return Bands(bands.bottom_m, bands.left_m + near, bands.right_m - far)
    return bands


def ceiling_counts(bands: Bands, lay: Lay, orientation: Orientation) -> IntArray:
    """Return counts no row can pass whose band covers these: each gap by itself, a little longer."""
    length = bands.right_m - bands.left_m + CEILING_SLACK_M
    width_m = lay.width_m(orientation)
    counts = fitted(length, width_m, lay.gap_in_row_m, lay.shortest_run)
    return np.asarray(counts.sum(axis=1), dtype=np.int64)


@dataclass(frozen=True, slots=True)
class Top:
    """The lowest top of a stack with so many modules, and the row it was reached by."""

    top_m: float
    row: Row | None


def lowest_tops(choices: Sequence[RowChoice], gap_m: float) -> list[Top]:
    """Return E[c] for c = 0, 1, … as long as it is finite."""
    ladders = [_Ladder(choice) for choice in choices if len(choice.counts)]
    tops = [Top(-np.inf, None)]
    while True:
        c = len(tops)
        best: Top | None = None
        for ladder in ladders:
            for k in range(1, min(c, ladder.most) + 1):
                bottom_m = ladder.next_m(k, tops[c - k].top_m + gap_m - ROUNDING_M)
                if bottom_m is None:
                    continue
                top_m = bottom_m + ladder.height_m
                if best is None or top_m < best.top_m:
                    best = Top(top_m, Row(ladder.orientation, bottom_m, k))
        if best is None:
            return tops
        tops.append(best)


def traced(tops: list[Top]) -> tuple[Row, ...]:
    """Return the rows of the fullest stack, from the eave up."""
    rows: list[Row] = []
    c = len(tops) - 1
    while c > 0:
        row = tops[c].row
        assert row is not None
        rows.append(row)
        c -= row.modules
    return tuple(reversed(rows))


class _Ladder:
    """The lowest next row of one orientation, by count: looked up some thousand times a stack."""

    def __init__(self, choice: RowChoice) -> None:
        self.orientation, self.height_m = choice.orientation, choice.height_m
        self.most = int(choice.counts.max())
        self._low: list[list[float]] = [[]]
        self._high: list[list[float]] = [[]]
        for k in range(1, self.most + 1):
            enough = choice.counts >= k
            self._low.append(choice.low_m[enough].tolist())
            self._high.append(choice.high_m[enough].tolist())

    def next_m(self, k: int, after_m: float) -> float | None:
        at = bisect_left(self._high[k], after_m)
        return max(self._low[k][at], after_m) if at < len(self._high[k]) else None


Counter = Callable[[Bands, Lay, Orientation], IntArray]


def choice_at(
    bands: Bands, lay: Lay, orientation: Orientation, count: Counter = pushed_left
) -> RowChoice:
    """Return the rows that stand exactly at the heights of those bands."""
    at = bands.bottom_m
    counts = count(bands, lay, orientation)
    return RowChoice(orientation, lay.height_m(orientation), at, at, counts)


def merged(one: Bands, other: Bands) -> Bands:
    """Return the bands of both, by height."""
    bottom = np.concatenate([one.bottom_m, other.bottom_m])
    order = np.argsort(bottom, kind="stable")
    most = max(one.left_m.shape[1], other.left_m.shape[1])

    def widened(edges: FloatArray, empty: float) -> FloatArray:
        room = ((0, 0), (0, most - edges.shape[1]))
        return np.pad(edges, room, constant_values=empty)

    left = np.concatenate([widened(b.left_m, np.inf) for b in (one, other)])
    right = np.concatenate([widened(b.right_m, -np.inf) for b in (one, other)])
    return Bands(bottom[order], left[order], right[order])


def joined(one: RowChoice, other: RowChoice) -> RowChoice:
    """Return the rows of both, by height."""
    low = np.concatenate([one.low_m, other.low_m])
    order = np.argsort(low, kind="stable")
    return RowChoice(
        one.orientation,
        one.height_m,
        low[order],
        np.concatenate([one.high_m, other.high_m])[order],
        np.concatenate([one.counts, other.counts])[order],
    )
