"""A roof made ready for filling: its bands worked out once, asked by every kind of layout."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.array.blockers import (
    Bands,
    FloatArray,
    LayoutRegion,
    Window,
    both,
    clipped,
    mirrored,
)
from ridge_tally.core.array.lay import Lay
from ridge_tally.core.array.rows import (
    Counter,
    IntArray,
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
    """A ground, a lay, and the bands of its rows by orientation."""

    ground: LayoutRegion
    lay: Lay
    rows: dict[Orientation, Bands]


def prepared(
    ground: LayoutRegion, lay: Lay, orientations: tuple[Orientation, ...] = tuple(Orientation)
) -> Prepared:
    """Return the roof ready for filling; a symmetric layout is blocked from both sides."""
    if lay.axis_m is not None:
        ground = both(ground, mirrored(ground, lay.axis_m))
    rows = {}
    for orientation in orientations:
        at = row_heights(ground, lay.height_m(orientation), LATTICES_M[0])
        rows[orientation] = bands_at(ground, lay, orientation, at)
    return Prepared(ground, lay, rows)


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
    return Prepared(ground, roof.lay, rows)


def bands_at(
    ground: LayoutRegion, lay: Lay, orientation: Orientation, bottom_m: FloatArray
) -> Bands:
    """Return the gaps of rows that stand at those heights."""
    bands = row_bands(ground, bottom_m, lay.height_m(orientation))
    # Carrying the end of a run along would lean to one side.
    return bands if lay.axis_m is None else kept_apart(bands, lay.gap_in_row_m)


@dataclass(frozen=True, slots=True)
class Cells:
    """Rows of one orientation by cells of height, and the gaps common to the rows of each."""

    orientation: Orientation
    height_m: float
    low_m: FloatArray
    high_m: FloatArray
    bands: Bands

    def counted(self, counts: IntArray) -> RowChoice:
        """Return the rows with the most each cell can take."""
        return RowChoice(self.orientation, self.height_m, self.low_m, self.high_m, counts)


def cells_of(roof: Prepared, orientation: Orientation, lattice_m: float) -> Cells:
    """Return the cells of a lattice and the heights where counts change."""
    height_m = roof.lay.height_m(orientation)
    at = row_heights(roof.ground, height_m, lattice_m)
    return Cells(orientation, height_m, *cells(at), cell_bands(roof.ground, at, height_m))


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


def ceiling(roof: Prepared, orientations: tuple[Orientation, ...], reached: int) -> int:
    """Return a count no stack of rows can pass, for rows at any height."""

    def choices(lattice_m: float) -> list[RowChoice]:
        found = [cells_of(roof, o, lattice_m) for o in orientations]
        return [c.counted(ceiling_counts(c.bands, roof.lay, c.orientation)) for c in found]

    return least_ceiling(choices, roof.lay.gap_between_rows_m, reached, LATTICES_M)


def least_ceiling(
    choices_on: Callable[[float], list[RowChoice]],
    gap_m: float,
    reached: int,
    lattices_m: tuple[float, ...],
) -> int:
    """Return the lowest ceiling of some lattices, coarsest first.

    A finer one is tried only while the ceiling is above what was reached.
    """
    best: int | None = None
    for lattice_m in lattices_m:
        most = len(lowest_tops(choices_on(lattice_m), gap_m)) - 1
        best = most if best is None else min(best, most)
        if best <= reached:
            break
    assert best is not None
    return best
