"""A roof made ready for filling: its bands worked out once, asked by every kind of layout."""

from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.array.blockers import (
    Bands,
    FloatArray,
    Ground,
    Window,
    both,
    clipped,
    mirrored,
)
from ridge_tally.core.array.lay import Lay
from ridge_tally.core.array.rows import (
    Counter,
    Row,
    RowChoice,
    Top,
    ceiling_counts,
    cell_bands,
    cells,
    choice_at,
    joined,
    kept_apart,
    lowest_tops,
    merged,
    pushed_left,
    row_bands,
    row_heights,
    traced,
)
from ridge_tally.core.job.array import Orientation

# Finer only where a count is not proven on the coarser one.
LATTICES_M = (0.01, 0.004, 0.0015)
# Rounds of trying rows exactly where the row below lets them begin.
EXACT_ROUNDS = 6


@dataclass(frozen=True, slots=True)
class Prepared:
    """A ground, a lay, and its bands by orientation: of rows, and common to the rows of a cell."""

    ground: Ground
    lay: Lay
    rows: dict[Orientation, Bands]
    cells: dict[Orientation, Bands]


def prepared(ground: Ground, lay: Lay) -> Prepared:
    """Return the roof ready for filling; a symmetric layout is blocked from both sides."""
    if lay.axis_m is not None:
        ground = both(ground, mirrored(ground, lay.axis_m))
    rows, common = {}, {}
    for orientation in Orientation:
        height_m = lay.height_m(orientation)
        at = row_heights(ground, height_m, LATTICES_M[0])
        rows[orientation] = bands_at(ground, lay, orientation, at)
        common[orientation] = cell_bands(ground, at, height_m)
    return Prepared(ground, lay, rows, common)


def within(roof: Prepared, window: Window) -> Prepared:
    """Return a part of the roof, its bands taken over from the whole."""
    ground = replace(roof.ground, window=window)
    rows = {}
    for orientation, bands in roof.rows.items():
        height_m = roof.lay.height_m(orientation)
        at = bands.bottom_m
        kept = (at >= window.low_m) & (at + height_m <= window.high_m)
        part = clipped(Bands(at[kept], bands.left_m[kept], bands.right_m[kept]), window)
        if np.isfinite(window.low_m) and len(at) and at[0] <= window.low_m <= at[-1]:
            first = bands_at(ground, roof.lay, orientation, np.array([window.low_m]))
            part = merged(first, part)
        rows[orientation] = part
    return Prepared(ground, roof.lay, rows, {})


def bands_at(ground: Ground, lay: Lay, orientation: Orientation, bottom_m: FloatArray) -> Bands:
    """Return the gaps of rows that stand at those heights."""
    bands = row_bands(ground, bottom_m, lay.height_m(orientation))
    # Carrying the end of a run along would lean to one side.
    return bands if lay.axis_m is None else kept_apart(bands, lay.gap_in_row_m)


def _cell_choice(
    roof: Prepared, orientation: Orientation, lattice_m: float, count: Counter
) -> RowChoice:
    """Return the most a row can take, cell by cell."""
    height_m = roof.lay.height_m(orientation)
    bands = roof.cells[orientation]
    at = row_heights(roof.ground, height_m, lattice_m)
    if lattice_m != LATTICES_M[0]:
        bands = cell_bands(roof.ground, at, height_m)
    low, high = cells(at)
    return RowChoice(orientation, height_m, low, high, count(bands, roof.lay, orientation))


def stacked(
    roof: Prepared,
    orientations: tuple[Orientation, ...],
    count: Counter = pushed_left,
    enough: int | None = None,
) -> tuple[Row, ...]:
    """Return the fullest stack of legal rows found.

    Parameters
    ----------
    enough : int, optional
        A count that cannot be passed; reaching it ends the search.

    Notes
    -----
    Rows are tried on the lattice, then exactly where the rows below let them begin, until no
    stack ends lower for it.
    """
    tops = lowest_stack(roof, orientations, count, enough)
    return traced(tops)


def lowest_stack(
    roof: Prepared,
    orientations: tuple[Orientation, ...],
    count: Counter = pushed_left,
    enough: int | None = None,
    rounds: int = EXACT_ROUNDS,
) -> list[Top]:
    """Return, per count of modules, the lowest top of legal rows found that hold so many."""
    lay = roof.lay
    choices = [choice_at(roof.rows[o], lay, o, count) for o in orientations]
    tops = lowest_tops(choices, lay.gap_between_rows_m)
    for _ in range(rounds):
        if len(tops) - 1 == enough:
            return tops
        starts = np.array([t.top_m for t in tops[1:]]) + lay.gap_between_rows_m
        choices = [_with_starts(roof, c, starts, count) for c in choices]
        lower = lowest_tops(choices, lay.gap_between_rows_m)
        same = len(lower) == len(tops)
        if same and all(a.top_m == b.top_m for a, b in zip(lower, tops, strict=True)):
            return tops
        tops = lower
    return tops


def _with_starts(
    roof: Prepared, choice: RowChoice, starts: FloatArray, count: Counter
) -> RowChoice:
    if len(choice.low_m) == 0:
        return choice
    new = np.setdiff1d(starts[starts <= choice.low_m[-1]], choice.low_m)
    if len(new) == 0:
        return choice
    bands = bands_at(roof.ground, roof.lay, choice.orientation, new)
    return joined(choice, choice_at(bands, roof.lay, choice.orientation, count))


def ceiling(
    roof: Prepared,
    orientations: tuple[Orientation, ...],
    reached: int,
    count: Counter = ceiling_counts,
    lattices_m: tuple[float, ...] = LATTICES_M,
) -> int:
    """Return a count no stack of rows can pass, for rows at any height.

    Finer lattices are tried only while the ceiling is above what was reached.
    """
    best = -1
    for lattice_m in lattices_m:
        choices = [_cell_choice(roof, o, lattice_m, count) for o in orientations]
        most = len(lowest_tops(choices, roof.lay.gap_between_rows_m)) - 1
        best = most if best < 0 else min(best, most)
        if best <= reached:
            break
    return best
