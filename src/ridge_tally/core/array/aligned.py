"""Rows that share a column grid: the best grid found, and proof that no other holds more.

All left edges of one orientation are alike modulo its pitch P = w + g.  With the grid's
offset anywhere in [p, q], a gap [a, b] holds at most

    floor((b - w - p) / P) - ceil((a - q) / P) + 1

modules, and exactly that many where p = q.  The offsets (one per orientation in use) are
bisected, the most promising range first, until no range can beat the best grid found.
"""

import heapq
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import product

import numpy as np

from ridge_tally.core.array.blockers import Bands
from ridge_tally.core.array.lay import Lay, never
from ridge_tally.core.array.rows import (
    CEILING_SLACK_M,
    ROUNDING_M,
    Counter,
    IntArray,
    Row,
    RowChoice,
    ceiling_counts,
)
from ridge_tally.core.array.search import (
    LATTICES_M,
    Cells,
    Prepared,
    cells_of,
    least_ceiling,
    lowest_stack,
    stacked,
)
from ridge_tally.core.job.array import Orientation

Offsets = dict[Orientation, float]
Span = tuple[float, float]
# Grids tried before any proof: those the gaps' ends suggest, and this many equal steps.
EVEN_STEPS = 12
# Of each orientation's grids the best so many are tried in pairs, where rows may be mixed.
PAIRED_GRIDS = 5
# So many of the best are laid exactly.
LAID_GRIDS = 4
# A range of offsets narrower than this is a grid as far as any tape can tell.
NARROWEST_M = 1e-4
# Rows are looked at on finer lattices once a range of offsets is narrower than this.
FINER_BELOW_M = 0.05


@dataclass(frozen=True, slots=True)
class GridRows:
    """The fullest rows found on one grid per orientation, and the ceiling over all grids."""

    rows: tuple[Row, ...]
    offsets: Offsets
    at_most: int

    @property
    def count(self) -> int:
        """How many modules the rows hold."""
        return sum(row.modules for row in self.rows)


@dataclass(frozen=True, slots=True)
class Progress:
    """How a proof stands: what is held, what it may still be, how many ranges were judged."""

    best: GridRows
    judged: int


def grid_counter(offsets: Offsets) -> Counter:
    """Return a counter of rows on those grids."""

    def count(bands: Bands, lay: Lay, orientation: Orientation) -> IntArray:
        return _on_grid(bands, lay, orientation, (offsets[orientation],) * 2, ROUNDING_M)

    return count


def _on_grid(
    bands: Bands, lay: Lay, orientation: Orientation, span: Span, slack_m: float
) -> IntArray:
    pitch_m, width_m = lay.pitch_m(orientation), lay.width_m(orientation)
    low, high = span
    used = bands.right_m > bands.left_m
    right, left = np.where(used, bands.right_m, 0.0), np.where(used, bands.left_m, 0.0)
    last = np.floor((right - width_m - low + slack_m) / pitch_m)
    first = np.ceil((left - high - slack_m) / pitch_m)
    held = np.where(used, np.maximum(last - first + 1, 0.0), 0.0).astype(np.int64)
    return np.asarray(np.where(held >= lay.shortest_run, held, 0).sum(axis=1), dtype=np.int64)


Scores = dict[Orientation, list[tuple[int, float]]]


def grid_scores(roof: Prepared) -> Scores:
    """Return, per orientation, the grids that the gaps suggest with their counts, best first.

    Counted on the lattice only: which of them is best is settled when rows are laid exactly.
    """
    scores: Scores = {}
    for orientation in roof.rows:
        found = []
        for offset in _suggested(roof, orientation):
            tops = lowest_stack(roof, (orientation,), grid_counter({orientation: offset}), rounds=0)
            found.append((len(tops) - 1, offset))
        scores[orientation] = sorted(found, key=lambda scored: -scored[0])
    return scores


def best_seed(
    roof: Prepared,
    orientations: tuple[Orientation, ...],
    ceiling_count: int,
    scores: Scores | None = None,
) -> GridRows:
    """Return the best of the grids that the gaps themselves suggest.

    Parameters
    ----------
    ceiling_count : int
        What rows that are free sideways cannot pass; no grid can either.
    scores : Scores, optional
        What ``grid_scores`` returns, where several kinds of layout ask.
    """
    scores = grid_scores(roof) if scores is None else scores
    most = LAID_GRIDS if len(orientations) == 1 else PAIRED_GRIDS
    tried = [[offset for _, offset in scores[o][:most]] for o in orientations]
    best = GridRows((), {}, ceiling_count)
    # In pairs the lattice chooses which to lay exactly.
    pairs = [dict(zip(orientations, c, strict=True)) for c in product(*tried)]
    if len(orientations) > 1:

        def count(offsets: Offsets) -> int:
            return len(lowest_stack(roof, orientations, grid_counter(offsets), rounds=0)) - 1

        pairs = sorted(pairs, key=lambda offsets: -count(offsets))[:LAID_GRIDS]
    for offsets in pairs:
        rows = stacked(roof, orientations, grid_counter(offsets), ceiling_count)
        if sum(r.modules for r in rows) > best.count:
            best = GridRows(rows, offsets, ceiling_count)
        if best.count == ceiling_count:
            break
    return best


def _suggested(roof: Prepared, orientation: Orientation) -> list[float]:
    """Return offsets, modulo the pitch: symmetric ones, or gap ends and equal steps."""
    lay = roof.lay
    pitch_m, width_m = lay.pitch_m(orientation), lay.width_m(orientation)
    if lay.axis_m is not None:
        # A module on the axis, or a joint.
        return [(lay.axis_m - width_m / 2) % pitch_m, (lay.axis_m + lay.gap_in_row_m / 2) % pitch_m]
    rows = stacked(roof, (orientation,))
    at = np.array([r.bottom_m for r in rows])
    found = set(np.arange(EVEN_STEPS) * pitch_m / EVEN_STEPS)
    bands = roof.rows[orientation]
    for band in np.searchsorted(bands.bottom_m, at - ROUNDING_M) if len(at) else []:
        for left, right in bands.gaps(min(int(band), len(bands.bottom_m) - 1)):
            found |= {left % pitch_m, (right - width_m) % pitch_m}
    return sorted({round(x, 6) for x in found})


def prove(
    roof: Prepared,
    orientations: tuple[Orientation, ...],
    seed: GridRows,
    given_up: Callable[[], bool] = never,
) -> Iterator[Progress]:
    """Yield the best grid and its ceiling as ranges of offsets are judged, until proven.

    Parameters
    ----------
    seed : GridRows
        Where to begin; its ceiling is never passed.
    given_up : callable
        Ends the proof once it says so; what was found stands, with the ceiling reached.
    """
    best = seed
    if best.count >= best.at_most:
        yield Progress(best, 0)
        return
    if roof.lay.axis_m is not None:
        # Only two grids of each orientation are symmetric, and the seed tried them all.
        yield Progress(GridRows(best.rows, best.offsets, best.count), 0)
        return
    judge = _Judge(roof, orientations)
    whole = tuple((0.0, roof.lay.pitch_m(o)) for o in orientations)
    ranges = [(-min(judge.ceiling(whole, best.count), best.at_most), 0, whole)]
    judged = 1
    while ranges and -ranges[0][0] > best.count:
        most = -ranges[0][0]
        if given_up():
            yield Progress(GridRows(best.rows, best.offsets, most), judged)
            return
        _, _, spans = heapq.heappop(ranges)
        middles = {o: (low + high) / 2 for o, (low, high) in zip(orientations, spans, strict=True)}
        rows = _laid_if_promising(roof, orientations, grid_counter(middles), best.count)
        if sum(r.modules for r in rows) > best.count:
            best = GridRows(rows, middles, most)
        # Too narrow to halve: what it may hold is counted as an open question.
        if max(high - low for low, high in spans) <= NARROWEST_M:
            yield Progress(GridRows(best.rows, best.offsets, most), judged)
            return
        for half in _halved(spans):
            judged += 1
            ceiling_count = min(judge.ceiling(half, best.count), most)
            if ceiling_count > best.count:
                heapq.heappush(ranges, (-ceiling_count, judged, half))
        yield Progress(GridRows(best.rows, best.offsets, most), judged)
    yield Progress(GridRows(best.rows, best.offsets, best.count), judged)


def _laid_if_promising(
    roof: Prepared, orientations: tuple[Orientation, ...], count: Counter, held: int
) -> tuple[Row, ...]:
    """Return the rows on a grid, laid exactly where the lattice alone comes near what is held."""
    tops = lowest_stack(roof, orientations, count, rounds=0)
    if len(tops) - 1 < held:
        return ()
    return stacked(roof, orientations, count)


def _halved(spans: tuple[Span, ...]) -> Iterator[tuple[Span, ...]]:
    """Yield the spans with the widest one halved, lower and upper half."""
    widest = max(range(len(spans)), key=lambda i: spans[i][1] - spans[i][0])
    low, high = spans[widest]
    for half in ((low, (low + high) / 2), ((low + high) / 2, high)):
        yield (*spans[:widest], half, *spans[widest + 1 :])


class _Judge:
    """Ceilings of ranges of offsets; the count of a span is kept, as pairs ask it again."""

    def __init__(self, roof: Prepared, orientations: tuple[Orientation, ...]) -> None:
        self._roof, self._orientations = roof, orientations
        self._counts: dict[tuple[Orientation, Span, float], RowChoice] = {}
        self._cells: dict[tuple[Orientation, float], Cells] = {}

    def ceiling(self, spans: tuple[Span, ...], beaten: int) -> int:
        """Return the ceiling of a range; finer rows are looked at once the range is narrow."""
        narrow = max(high - low for low, high in spans) < FINER_BELOW_M

        def choices(lattice_m: float) -> list[RowChoice]:
            pairs = zip(self._orientations, spans, strict=True)
            return [self._choice(o, span, lattice_m) for o, span in pairs]

        lattices_m = LATTICES_M if narrow else LATTICES_M[:1]
        return least_ceiling(choices, self._roof.lay.gap_between_rows_m, beaten, lattices_m)

    def _choice(self, orientation: Orientation, span: Span, lattice_m: float) -> RowChoice:
        key = (orientation, span, lattice_m)
        if key not in self._counts:
            lay, at = self._roof.lay, (orientation, lattice_m)
            if at not in self._cells:
                self._cells[at] = cells_of(self._roof, orientation, lattice_m)
            found = self._cells[at]
            grid = _on_grid(found.bands, lay, orientation, span, CEILING_SLACK_M / 2)
            counts = np.minimum(grid, ceiling_counts(found.bands, lay, orientation))
            self._counts[key] = found.counted(counts)
        return self._counts[key]
