"""Where the modules of chosen rows go: counted already, here made to look right."""

from itertools import pairwise

import numpy as np

from ridge_tally.core.array.blockers import Gap
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.rows import ROUNDING_M, Row, fitted
from ridge_tally.core.array.search import Prepared, bands_at
from ridge_tally.core.job.array import Orientation

# Far below a chalk line.
SAME_GRID_M = 1e-6


def on_grids(
    roof: Prepared, rows: tuple[Row, ...], offsets: dict[Orientation, float]
) -> tuple[Place, ...]:
    """Return the places of rows on one column grid per orientation.

    A grid is moved to the middle of the play it has: a crew snaps even margins.
    """
    lay = roof.lay
    places: dict[Row, list[float]] = {}
    for orientation in Orientation:
        alike = [(row, _gaps(roof, row)) for row in rows if row.orientation is orientation]
        if not alike:
            continue
        found = [_grid_places(gaps, lay, orientation, offsets[orientation]) for _, gaps in alike]
        shift_m = 0.0
        if lay.axis_m is None:
            shift_m = _play_m(found, [gaps for _, gaps in alike], lay.width_m(orientation))
        for (row, _), xs in zip(alike, found, strict=True):
            places[row] = [x + shift_m for x in xs]
    return tuple(
        Place(float(x_m), float(row.bottom_m), row.orientation)
        for row in rows
        for x_m in places[row]
    )


def _play_m(rows: list[list[float]], gaps: list[list[Gap]], width_m: float) -> float:
    """Return the shift to the middle of how far the rows may move sideways together."""
    to_left, to_right = np.inf, np.inf
    for row, free in zip(rows, gaps, strict=True):
        for x_m in row:
            left, right = next(g for g in free if g[0] - 1e-6 <= x_m <= g[1])
            to_left, to_right = min(to_left, x_m - left), min(to_right, right - x_m - width_m)
    return float(to_right - to_left) / 2 if np.isfinite(to_left) else 0.0


def shares_grid(lay: Lay, places: tuple[Place, ...]) -> bool:
    """Return whether all modules of one orientation stand on one column grid."""
    for orientation in Orientation:
        pitch_m = lay.pitch_m(orientation)
        xs = np.array([p.x_m for p in places if p.orientation is orientation])
        if len(xs):
            off = (xs - xs[0] + pitch_m / 2) % pitch_m - pitch_m / 2
            if np.abs(off).max() > SAME_GRID_M:
                return False
    return True


def side_by_side(roof: Prepared, rows: tuple[Row, ...]) -> tuple[Place, ...]:
    """Return the places of rows that are free sideways.

    Where a common column grid costs no module, rows of one orientation share it; a row that
    would lose one keeps its own places.  Symmetric layouts have each run centred in its gap.
    """
    places: dict[Row, list[float]] = {}
    for orientation in Orientation:
        alike = [row for row in rows if row.orientation is orientation]
        gaps = [_gaps(roof, row) for row in alike]
        if roof.lay.axis_m is not None:
            found = [_spread(row, roof.lay, orientation) for row in gaps]
        else:
            found = _shared_grid(gaps, roof.lay, orientation)
        places |= dict(zip(alike, found, strict=True))
    return tuple(
        Place(float(x), float(row.bottom_m), row.orientation) for row in rows for x in places[row]
    )


def _gaps(roof: Prepared, row: Row) -> list[Gap]:
    at = np.array([row.bottom_m])
    return bands_at(roof.ground, roof.lay, row.orientation, at).gaps(0)


def _count(gap: Gap, lay: Lay, orientation: Orientation) -> int:
    length = np.array(gap[1] - gap[0])
    return int(fitted(length, lay.width_m(orientation), lay.gap_in_row_m, lay.shortest_run))


def _pushed_left(gaps: list[Gap], lay: Lay, orientation: Orientation) -> list[float]:
    """Return the left edges of the modules pushed left into the gaps of one row."""
    places: list[float] = []
    free_from = -np.inf
    for left, right in gaps:
        start = max(left, free_from)
        count = _count((start, right), lay, orientation)
        places += [start + i * lay.pitch_m(orientation) for i in range(count)]
        if count:
            free_from = start + count * lay.pitch_m(orientation)
    return places


def _shared_grid(gaps: list[list[Gap]], lay: Lay, orientation: Orientation) -> list[list[float]]:
    own = [_pushed_left(row, lay, orientation) for row in gaps]
    width_m = lay.width_m(orientation)
    offsets = {left for row in gaps for left, _ in row}
    offsets |= {right - width_m for row in gaps for _, right in row}
    # Runs centred in their gap: an even margin left and right is what a crew would snap.
    offsets |= {_centred_start(gap, lay, orientation) for row in gaps for gap in row}
    if not offsets:
        return own

    def worth(rows: list[list[float]]) -> tuple[int, float]:
        lost = sum(len(a) < len(b) for a, b in zip(rows, own, strict=True))
        return lost, sum(_lopsided_m(r, g, width_m) for r, g in zip(rows, gaps, strict=True))

    def on_grid(offset_m: float) -> list[list[float]]:
        return [_grid_places(row, lay, orientation, offset_m) for row in gaps]

    best = min((on_grid(offset) for offset in sorted(offsets)), key=worth)
    return [
        a if len(a) >= len(b) else _spread(row, lay, orientation)
        for a, b, row in zip(best, own, gaps, strict=True)
    ]


def _centred_start(gap: Gap, lay: Lay, orientation: Orientation) -> float:
    """Return the left edge of the first module of the fullest run centred in a gap."""
    left, right = gap
    used_m = _count(gap, lay, orientation) * lay.pitch_m(orientation) - lay.gap_in_row_m
    return left + max(0.0, right - left - max(used_m, 0.0)) / 2


def _lopsided_m(places: list[float], gaps: list[Gap], width_m: float) -> float:
    """Return how far the row as a whole sits off the middle of its free width, metres."""
    if not places:
        return 0.0
    return abs((places[0] - gaps[0][0]) - (gaps[-1][1] - places[-1] - width_m))


def _spread(gaps: list[Gap], lay: Lay, orientation: Orientation) -> list[float]:
    """Return a row of its own with each run centred, where gaps stand apart enough for it."""
    near = any(
        after[0] - before[1] < lay.gap_in_row_m - ROUNDING_M for before, after in pairwise(gaps)
    )
    if near:
        return _pushed_left(gaps, lay, orientation)
    return [
        _centred_start(gap, lay, orientation) + i * lay.pitch_m(orientation)
        for gap in gaps
        for i in range(_count(gap, lay, orientation))
    ]


def _grid_places(
    gaps: list[Gap], lay: Lay, orientation: Orientation, offset_m: float
) -> list[float]:
    pitch_m, width_m = lay.pitch_m(orientation), lay.width_m(orientation)
    places: list[float] = []
    for left, right in gaps:
        first = int(np.ceil((left - offset_m - ROUNDING_M) / pitch_m))
        last = int(np.floor((right - width_m - offset_m + ROUNDING_M) / pitch_m))
        if last - first + 1 >= lay.shortest_run:
            places += [offset_m + i * pitch_m for i in range(first, last + 1)]
    return places
