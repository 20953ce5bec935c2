"""How many modules a plane takes, and where: rows stacked exactly.

Rows run along the eave and may start anywhere sideways; every row band is free of the
next.  In one band a gap of length l takes floor((l + g) / (w + g)) modules, attained by
pushing them left.  Rows meet each other only through their height, so

    E[c] = min over k of  next(k, E[c - k] + gap) + h

is the lowest possible top of a stack with at least c modules, next(k, t) the lowest
y >= t whose row takes k.  The count is the largest c with E[c] finite.  A lattice with
the critical heights gives a legal lower bound; the same stack on cells, each counted on
the part of the band every position in the cell covers, gives an upper bound.  Where they
agree the count is proven.  Method and proof: docs/derivations/fill.md.
"""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.blockers import Gap, Ground, free_gaps

FloatArray = NDArray[np.float64]
LATTICE_M = 0.01
# A place is legal to 0.1 mm: closer than any tape reads.
TOLERANCE_M = 1e-4


@dataclass(frozen=True, slots=True)
class Footprint:
    """A module the way round it is laid, and the gaps it keeps, metres."""

    width_m: float
    height_m: float
    gap_in_row_m: float
    gap_between_rows_m: float


@dataclass(frozen=True, slots=True)
class Fill:
    """Lower left corners of the modules, row by row from the eave, and the proven ceiling."""

    places_m: tuple[tuple[float, float], ...]
    at_most: int

    @property
    def proven(self) -> bool:
        """Whether no layout of this kind holds more."""
        return len(self.places_m) == self.at_most


def fill_rows(ground: Ground, footprint: Footprint) -> Fill:
    """Return the largest fill of one orientation in rows along the eave.

    Where a common column grid costs no module, the rows share it; a row that would lose
    one keeps its own places.
    """
    heights = _heights(ground, footprint.height_m)
    if len(heights) == 0:
        return Fill((), 0)
    counts = _counts(ground, heights, heights + footprint.height_m, footprint)
    rows_y = tuple(y for _, y in _fullest_stack(heights, heights, counts, footprint))
    places = _places(ground, rows_y, footprint)
    return Fill(places, _ceiling(ground, heights, footprint))


def fits(ground: Ground, footprint: Footprint, places_m: FloatArray) -> NDArray[np.bool_]:
    """Return, per place, whether a module keeps every distance there.

    Parameters
    ----------
    places_m : (n, 2) float
        Lower left corners.  Places of one row share the work of its band.
    """
    rows, row_of = np.unique(places_m[:, 1], return_inverse=True)
    gaps = free_gaps(ground, rows + TOLERANCE_M, rows + footprint.height_m - TOLERANCE_M)
    left = places_m[:, 0] + TOLERANCE_M
    right = places_m[:, 0] + footprint.width_m - TOLERANCE_M
    return np.array(
        [any(a <= left[i] and right[i] <= b for a, b in gaps[row]) for i, row in enumerate(row_of)],
        dtype=bool,
    )


def _heights(ground: Ground, height_m: float) -> FloatArray:
    """Return bottoms of rows worth trying: a lattice and the heights where counts change."""
    low = float(ground.corners[:, 1].min())
    high = float(ground.corners[:, 1].max()) - height_m
    if high < low - TOLERANCE_M:
        return np.array([])
    _, ay, _, by, radius = ground.capsules.T
    ends = np.concatenate([ay - radius, ay + radius, by - radius, by + radius])
    lattice = np.arange(low, high + LATTICE_M, LATTICE_M)
    tried = np.concatenate([lattice, ends, ends - height_m, [low, high]])
    return np.unique(tried[(tried >= low) & (tried <= high + 1e-12)])


def _row_places(gaps: list[Gap], footprint: Footprint) -> list[float]:
    """Return the left edges of the modules pushed left into the gaps of one row."""
    places: list[float] = []
    cursor = -np.inf
    for left, right in gaps:
        x_m = max(left, cursor)
        while x_m + footprint.width_m <= right + 1e-9:
            places.append(x_m)
            x_m += footprint.width_m + footprint.gap_in_row_m
            cursor = x_m
    return places


def _counts(
    ground: Ground, bottom_m: FloatArray, top_m: FloatArray, footprint: Footprint
) -> NDArray[np.int64]:
    gaps = free_gaps(ground, bottom_m, top_m)
    return np.array([len(_row_places(row, footprint)) for row in gaps], dtype=np.int64)


def _fullest_stack(
    low: FloatArray, high: FloatArray, counts: NDArray[np.int64], footprint: Footprint
) -> tuple[tuple[int, float], ...]:
    """Return (modules counted, bottom) of each row of the fullest stack, from the eave up.

    Row i may stand anywhere from low[i] to high[i] and takes counts[i]: on the lattice both
    are its height, for the ceiling they bound its cell.
    """
    most = int(counts.max())
    lowest_top: list[float] = [-np.inf]
    came_by: list[tuple[int, float]] = [(0, 0.0)]
    # next_at[k] are the indices whose row takes at least k modules.
    next_at = [np.nonzero(counts >= k)[0] for k in range(most + 1)]
    while True:
        c = len(lowest_top)
        best = (np.inf, 0, 0.0)
        for k in range(1, min(c, most) + 1):
            after = lowest_top[c - k] + footprint.gap_between_rows_m - 1e-9
            at = next_at[k][np.searchsorted(high[next_at[k]], after) :]
            if len(at):
                y_m = max(float(low[at[0]]), after)
                best = min(best, (y_m + footprint.height_m, k, y_m))
        if not np.isfinite(best[0]):
            break
        lowest_top.append(best[0])
        came_by.append((best[1], best[2]))
    rows: list[tuple[int, float]] = []
    c = len(lowest_top) - 1
    while c > 0:
        rows.append(came_by[c])
        c -= came_by[c][0]
    return tuple(reversed(rows))


def _ceiling(ground: Ground, heights: FloatArray, footprint: Footprint) -> int:
    """Return a count no stack of rows can pass, for rows at any height."""
    low, high = (heights[:-1], heights[1:]) if len(heights) > 1 else (heights, heights)
    counts = _counts(ground, high, low + footprint.height_m, footprint)
    return sum(modules for modules, _ in _fullest_stack(low, high, counts, footprint))


def _places(
    ground: Ground, rows_y: tuple[float, ...], footprint: Footprint
) -> tuple[tuple[float, float], ...]:
    """Return the places of all rows, on one column grid wherever that loses nothing."""
    bottoms = np.array(rows_y)
    if len(bottoms) == 0:
        return ()
    gaps = free_gaps(ground, bottoms, bottoms + footprint.height_m)
    own = [_row_places(row, footprint) for row in gaps]
    offsets = {left for row in gaps for left, _ in row}
    offsets |= {right - footprint.width_m for row in gaps for _, right in row}
    # Runs centred in their gap: an even margin left and right is what a crew would snap.
    offsets |= {_centred_start(gap, footprint) for row in gaps for gap in row}

    def worth(rows: list[list[float]]) -> tuple[int, float]:
        lost = sum(len(a) < len(b) for a, b in zip(rows, own, strict=True))
        return lost, sum(_lopsided_m(r, g, footprint) for r, g in zip(rows, gaps, strict=True))

    def on_grid(offset_m: float) -> list[list[float]]:
        return [_grid_places(row, offset_m, footprint) for row in gaps]

    best = min((on_grid(offset) for offset in sorted(offsets)), key=worth)
    rows = [
        a if len(a) == len(b) else _spread(b, row, footprint)
        for a, b, row in zip(best, own, gaps, strict=True)
    ]
    return tuple((x, y) for y, row in zip(rows_y, rows, strict=True) for x in row)


def _centred_start(gap: Gap, footprint: Footprint) -> float:
    """Return the left edge of the first module of the fullest run centred in a gap."""
    left, right = gap
    pitch_m = footprint.width_m + footprint.gap_in_row_m
    count = len(_row_places([gap], footprint))
    return left + max(0.0, right - left - count * pitch_m + footprint.gap_in_row_m) / 2


def _lopsided_m(places: list[float], gaps: list[Gap], footprint: Footprint) -> float:
    """Return how far the row as a whole sits off the middle of its free width, metres."""
    if not places:
        return 0.0
    return abs((places[0] - gaps[0][0]) - (gaps[-1][1] - places[-1] - footprint.width_m))


def _spread(places: list[float], gaps: list[Gap], footprint: Footprint) -> list[float]:
    """Return a row of its own with each run centred, where gaps stand apart enough for it."""
    near = any(after[0] - before[1] < footprint.gap_in_row_m for before, after in pairwise(gaps))
    if near:
        return places
    pitch_m = footprint.width_m + footprint.gap_in_row_m
    return [
        _centred_start(gap, footprint) + i * pitch_m
        for gap in gaps
        for i in range(len(_row_places([gap], footprint)))
    ]


def _grid_places(gaps: list[Gap], offset_m: float, footprint: Footprint) -> list[float]:
    pitch_m = footprint.width_m + footprint.gap_in_row_m
    places: list[float] = []
    for left, right in gaps:
        first = int(np.ceil((left - offset_m) / pitch_m - 1e-9))
        last = int(np.floor((right - footprint.width_m - offset_m) / pitch_m + 1e-9))
        places += [offset_m + i * pitch_m for i in range(first, last + 1)]
    return places
