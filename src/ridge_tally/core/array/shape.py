"""A layout as rows and runs: what a crew sees, and the rail under it."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.job.array import Orientation, in_lines

# Bottoms nearer than this are one chalk line; modules nearer than a gap and this are touching.
SAME_LINE_M = 0.005
# Two rails under each row, whichever way its modules lie; common practice, no source.
RAILS_UNDER_A_ROW = 2


@dataclass(frozen=True, slots=True)
class Run:
    """Modules that touch, in one row, all the same way round: from left to right, metres."""

    orientation: Orientation
    bottom_m: float
    left_m: float
    right_m: float
    modules: int


def runs_of(lay: Lay, places: tuple[Place, ...]) -> tuple[Run, ...]:
    """Return the runs of a layout, from the eave up and from left to right."""
    runs: list[Run] = []
    for row in same_lines(places):
        starts = [0]
        for i, (one, other) in enumerate(pairwise(row), start=1):
            end_m = one.x_m + lay.width_m(one.orientation)
            if other.x_m - end_m > lay.gap_in_row_m + SAME_LINE_M:
                starts.append(i)
        for first, after in zip(starts, [*starts[1:], len(row)], strict=True):
            run = row[first:after]
            right_m = run[-1].x_m + lay.width_m(run[-1].orientation)
            runs.append(Run(run[0].orientation, run[0].y_m, run[0].x_m, right_m, len(run)))
    return tuple(runs)


def same_lines(places: Iterable[Place]) -> tuple[tuple[Place, ...], ...]:
    """Return places line by line from the eave up, each from its left, all the same way round."""
    lines = in_lines(places, lambda p: p.y_m, lambda p: p.x_m, SAME_LINE_M)
    return tuple(
        tuple(p for p in line if p.orientation is way)
        for line in lines
        for way in sorted({p.orientation for p in line})
    )


def rows_in(runs: tuple[Run, ...]) -> int:
    """Return how many rows those runs stand in."""
    lines = in_lines(runs, lambda r: r.bottom_m, lambda r: r.left_m, SAME_LINE_M)
    return sum(len({r.orientation for r in line}) for line in lines)


def modules_a_row(runs: tuple[Run, ...]) -> int | None:
    """Return how many modules each row has, where all have as many and none is broken."""
    counts = {run.modules for run in runs}
    return counts.pop() if len(counts) == 1 and rows_in(runs) == len(runs) else None


def rail_m(runs: tuple[Run, ...]) -> float:
    """Return the length of rail under the runs, before splices and overhangs, metres."""
    return RAILS_UNDER_A_ROW * sum(run.right_m - run.left_m for run in runs)
