"""Exactly N modules in rows that may stand anywhere, worth the most by a map.

Rows meet each other only through their height, so two recursions nest.  In a row, from its
right end to its left, with a module at place i as the first of m,

    S[i, m] = v_i + max(S[next in the run, m - 1], F[next free of it, m - 1])
    F[i, m] = max(F[i + 1, m], S[i, m] - price of a run)

and over rows at bottoms y of orientation o, from the ridge down,

    H[y, n] = max(H[next y, n], max over o, k of  F_o,y[0, k] + H[y + h + gap, n - k]).

Best on the heights and places that are tried: a lattice, the ends of the gaps, and the rows
of layouts that are known already, so that it is never worse than those by the map.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.blockers import Bands, FloatArray, Gap
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.rows import ROUNDING_M
from ridge_tally.core.array.search import Prepared, bands_at
from ridge_tally.core.array.worth import WorthMap
from ridge_tally.core.job.array import Orientation

# Rows are tried this far apart, and modules in a row this share of their pitch apart: shade
# of what stands on a roof moves a module's year little over less.
HEIGHT_STEP_M = 0.1
STEPS_A_PITCH = 12
NONE = -np.inf


@dataclass(frozen=True, slots=True)
class _Row:
    """The places of one row that may be taken, from left to right, and what follows each.

    ``run`` (p,) is the place that touches it on the right, ``free`` (p,) the first one clear of
    it; p where there is none.
    """

    orientation: Orientation
    bottom_m: float
    x_m: FloatArray
    worth: FloatArray
    run: NDArray[np.int64]
    free: NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class _Table:
    """The recursion of one row: F and S, (p + 1, n + 1), and T: S with the shortest run behind."""

    best: FloatArray
    here: FloatArray
    begun: FloatArray


def moving_rows(
    roof: Prepared,
    orientations: tuple[Orientation, ...],
    worth: WorthMap,
    modules: int,
    run_price: float,
    known: tuple[Place, ...] = (),
) -> tuple[Place, ...]:
    """Return the places of exactly so many modules worth the most; none where rows hold fewer.

    Parameters
    ----------
    run_price : float
        What each run costs, in the unit of the map; 0 or more.
    known : tuple of Place
        Places whose heights and columns are tried besides the lattice's.
    """
    rows = sorted(_rows(roof, orientations, worth, known), key=lambda r: r.bottom_m)
    if not rows:
        return ()
    lay = roof.lay
    tables = [_table(row, lay, modules, run_price) for row in rows]
    bottoms = np.array([r.bottom_m for r in rows])
    stack = np.full((len(rows) + 1, modules + 1), NONE)
    stack[:, 0] = 0.0
    after = [
        int(np.searchsorted(bottoms, bottom_m - ROUNDING_M))
        for row in rows
        for bottom_m in [row.bottom_m + lay.height_m(row.orientation) + lay.gap_between_rows_m]
    ]
    for i in reversed(range(len(rows))):
        stack[i] = np.maximum(stack[i + 1], _with_row(tables[i].best[0], stack[after[i]]))
    if stack[0, modules] == NONE:
        return ()
    return _traced(rows, tables, stack, after, lay, modules, run_price)


def one_row(
    roof: Prepared, orientations: tuple[Orientation, ...], worth: WorthMap, modules: int
) -> tuple[Place, ...]:
    """Return the places of so many modules in one row, with the fewest breaks; none if none can.

    Of rows with as few breaks, the one worth the most by the map.
    """
    lay, most = roof.lay, NONE
    best: tuple[Place, ...] = ()
    # A break costs more than any place can gain.
    price = float(worth.worth.max()) * modules
    for row in _rows(roof, orientations, worth, ()):
        table = _table(row, lay, modules, price)
        if table.best[0, modules] > most:
            most = float(table.best[0, modules])
            best = _row_places(row, table, lay, modules, price)
    return best


def longest_row(
    roof: Prepared, orientations: tuple[Orientation, ...], worth: WorthMap, most: int
) -> int:
    """Return how many modules, up to that, one row holds; its runs no shorter than asked."""
    tables = (_table(row, roof.lay, most, 0.0) for row in _rows(roof, orientations, worth, ()))
    held = (np.nonzero(table.best[0] > NONE)[0].max() for table in tables)
    return int(max(held, default=0))


def _with_row(row: FloatArray, above: FloatArray) -> FloatArray:
    """Return the most of n modules of which k > 0 are in the row: max-plus of the two."""
    most = np.full(len(above), NONE)
    for k in range(1, len(row)):
        if row[k] > NONE:
            most[k:] = np.maximum(most[k:], row[k] + above[: len(above) - k])
    return most


def _rows(
    roof: Prepared,
    orientations: tuple[Orientation, ...],
    worth: WorthMap,
    known: tuple[Place, ...],
) -> list[_Row]:
    """Return the rows that are tried, each with its places and their worth."""
    rows = []
    for orientation in orientations:
        mine = [p for p in known if p.orientation is orientation]
        every = roof.rows[orientation].bottom_m
        if len(every) == 0:
            continue
        lattice = np.arange(every[0], every[-1], HEIGHT_STEP_M)
        at = np.unique(np.concatenate([lattice, [every[-1]], [p.y_m for p in mine]]))
        bands = bands_at(roof.ground, roof.lay, orientation, at)
        for i, bottom_m in enumerate(at):
            columns = [p.x_m for p in mine if abs(p.y_m - bottom_m) < ROUNDING_M]
            row = _row(roof.lay, orientation, bands, i, columns, worth)
            if len(row.x_m):
                rows.append(row)
    return rows


def _row(
    lay: Lay,
    orientation: Orientation,
    bands: Bands,
    band: int,
    columns_m: list[float],
    worth: WorthMap,
) -> _Row:
    pitch_m, width_m = lay.pitch_m(orientation), lay.width_m(orientation)
    found = [
        place for gap in bands.gaps(band) for place in _places(gap, pitch_m, width_m, columns_m)
    ]
    x_m = np.unique(np.round(found, 7))
    count = len(x_m)
    touching = np.searchsorted(x_m, x_m + pitch_m - ROUNDING_M * 4)
    near = np.minimum(touching, count - 1)
    touches = (touching < count) & (np.abs(x_m[near] - x_m - pitch_m) < ROUNDING_M * 8)
    bottom_m = float(bands.bottom_m[band])
    return _Row(
        orientation,
        bottom_m,
        x_m,
        worth.at(lay, orientation, x_m, np.array(bottom_m)) if count else x_m,
        np.where(touches, touching, count),
        touching,
    )


def _places(gap: Gap, pitch_m: float, width_m: float, columns_m: list[float]) -> FloatArray:
    """Return left edges in a gap: from its left end, its right end, and on known columns."""
    left, right = gap[0], gap[1] - width_m
    if right < left - ROUNDING_M:
        return np.array([])
    step_m = pitch_m / STEPS_A_PITCH
    steps = np.arange(int((right - left + ROUNDING_M) / step_m) + 1) * step_m
    mine = [x for x in columns_m if left - 1e-5 <= x <= right + 1e-5]
    return np.concatenate([left + steps, right - steps, mine])


def _table(row: _Row, lay: Lay, modules: int, run_price: float) -> _Table:
    count, shortest = len(row.x_m), lay.shortest_run
    best = np.full((count + 1, modules + 1), NONE)
    here, begun = best.copy(), best.copy()
    best[:, 0] = 0.0
    for i in reversed(range(count)):
        goes_on = np.maximum(here[row.run[i]], best[row.free[i]])
        here[i, 1:] = row.worth[i] + goes_on[:-1]
        if shortest == 1:
            begun[i] = here[i]
        else:
            at, carried = i, 0.0
            for _ in range(shortest - 1):
                carried += row.worth[at] if at < count else 0.0
                at = int(row.run[at]) if at < count else count
            if at < count and modules >= shortest:
                begun[i, shortest - 1 :] = carried + here[at, : modules + 2 - shortest]
        best[i] = np.maximum(best[i + 1], begun[i] - run_price)
        best[i, 0] = 0.0
    return _Table(best, here, begun)


def _row_places(
    row: _Row, table: _Table, lay: Lay, modules: int, run_price: float
) -> tuple[Place, ...]:
    """Return the places the recursion of a row took for so many modules."""
    taken: list[int] = []
    i, left = 0, modules
    while left:
        if table.best[i, left] == table.best[i + 1, left]:
            i += 1
            continue
        assert table.best[i, left] == table.begun[i, left] - run_price
        at = i
        for _ in range(lay.shortest_run - 1):
            taken.append(at)
            at, left = int(row.run[at]), left - 1
        while True:
            taken.append(at)
            left -= 1
            goes_on = table.here[row.run[at], left]
            if left and goes_on >= table.best[row.free[at], left]:
                at = int(row.run[at])
                continue
            i = int(row.free[at])
            break
    return tuple(Place(float(row.x_m[i]), row.bottom_m, row.orientation) for i in taken)


def _traced(
    rows: list[_Row],
    tables: list[_Table],
    stack: FloatArray,
    after: list[int],
    lay: Lay,
    modules: int,
    run_price: float,
) -> tuple[Place, ...]:
    places: list[Place] = []
    i, left = 0, modules
    while left:
        if stack[i, left] == stack[i + 1, left]:
            i += 1
            continue
        above, row = stack[after[i]], tables[i].best[0]
        k = next(k for k in range(1, left + 1) if row[k] + above[left - k] == stack[i, left])
        places += _row_places(rows[i], tables[i], lay, k, run_price)
        i, left = after[i], left - k
    return tuple(places)
