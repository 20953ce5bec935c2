"""Modules anywhere that is legal: the most that was found, and ceilings on what could be.

Found: the roof cut once across or along at a likely place, each side filled with rows or
with columns.  Every such layout is legal, and most roofs take no better one.

Ceilings.  Grow each module by half its gaps; no two grown ones overlap.  A line across the
roof meets grown modules side by side: on a free length l at most as many as weigh in

    best(l) = max  a / (h_P + G) + b / (h_L + G)   with   a (w_P + g) + b (w_L + g) <= l + g

each module counted by the share of its grown height the line stands for.  Integrated up the
slope this bounds the count; so it does across, with width and height exchanged.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.array.blockers import (
    FloatArray,
    Gap,
    LayoutRegion,
    Window,
    free_bands,
    turned,
)
from ridge_tally.core.array.lay import Fill, Lay, Place, never
from ridge_tally.core.array.places import side_by_side
from ridge_tally.core.array.rows import CEILING_SLACK_M, Row, traced
from ridge_tally.core.array.search import EXACT_ROUNDS, Prepared, lowest_stack, prepared, within
from ridge_tally.core.job.array import OTHER_WAY, Orientation, Ways

LINES_EVERY_M = 0.005
# A line is a band this thin.
HAIR_M = 1e-6
# A cut is found to this.
CUT_STEP_M = 0.005


@dataclass(frozen=True, slots=True)
class _Side:
    """One side of a cut, filled with rows; ``turned`` where they run up the slope."""

    roof: Prepared
    rows: tuple[Row, ...]
    turned: bool

    @property
    def count(self) -> int:
        return sum(r.modules for r in self.rows)


def fill_freely(
    ground: LayoutRegion,
    lay: Lay,
    ways: Ways,
    given_up: Callable[[], bool] = never,
) -> Fill:
    """Return the fullest layout found with no rule but legality, and its ceiling.

    Parameters
    ----------
    given_up : callable
        No further cut is tried once it says so.
    """
    lay = replace(lay, shortest_run=1, axis_m=None)
    roofs = (prepared(ground, lay), prepared(turned(ground), _turned_lay(lay)))
    at_most = free_ceiling(ground, lay, ways)
    best: tuple[_Side, ...] = (_fuller(roofs, ways, _Part(0, -np.inf, np.inf), EXACT_ROUNDS),)
    for direction in (0, 1):
        if _held(best) >= at_most:
            break
        for cut_m in _steps_of_left(roofs, ways, direction, given_up):
            gap_m = roofs[direction].lay.gap_in_row_m
            parts = (_Part(direction, -np.inf, cut_m), _Part(direction, cut_m + gap_m, np.inf))
            sides = tuple(_fuller(roofs, ways, part, EXACT_ROUNDS) for part in parts)
            if _held(sides) > _held(best):
                best = sides
            if given_up():
                break
    places = [place for side in best for place in _laid(side)]
    return Fill(tuple(sorted(places, key=lambda p: (p.y_m, p.x_m))), max(at_most, len(places)))


def _held(sides: tuple[_Side, ...]) -> int:
    return sum(side.count for side in sides)


@dataclass(frozen=True, slots=True)
class _Part:
    """What lies between two cuts: of x for direction 0, of y for direction 1."""

    direction: int
    low_m: float
    high_m: float


def _steps_of_left(
    roofs: tuple[Prepared, Prepared], ways: Ways, direction: int, given_up: Callable[[], bool]
) -> list[float]:
    """Return the least cuts at which the part before them takes one more module.

    Notes
    -----
    The count before a cut never falls as the cut moves on, so its steps are found by halving;
    between two steps the part beyond is fullest right at the lower one.
    """
    x_m = roofs[direction].ground.corners[:, 0]
    low_m, high_m = float(x_m.min()), float(x_m.max())

    def count(at_m: float) -> int:
        return _fuller(roofs, ways, _Part(direction, -np.inf, at_m), rounds=0).count

    steps: list[float] = []
    spans = [(low_m, 0, high_m, count(high_m))]
    while spans and not given_up():
        low, held_low, high, held_high = spans.pop()
        if held_low >= held_high:
            continue
        if high - low <= CUT_STEP_M:
            steps.append(high)
            continue
        middle = (low + high) / 2
        held = count(middle)
        spans += [(low, held_low, middle, held), (middle, held, high, held_high)]
    return sorted(steps, key=lambda at: abs(at - (low_m + high_m) / 2))


def _fuller(roofs: tuple[Prepared, Prepared], ways: Ways, part: _Part, rounds: int) -> _Side:
    """Return a part with rows or with columns, whichever holds more."""
    return max((_side(roofs, ways, part, t, rounds) for t in (0, 1)), key=lambda s: s.count)


def _side(
    roofs: tuple[Prepared, Prepared], ways: Ways, part: _Part, columns: int, rounds: int
) -> _Side:
    roof, orientations = roofs[columns], ways.orientations
    if columns:
        # A portrait module of the turned roof is a landscape one of the roof as it is.
        orientations = tuple(OTHER_WAY[o] for o in orientations)
    if part.direction == columns:
        window = Window(left_m=part.low_m, right_m=part.high_m)
    else:
        window = Window(low_m=part.low_m, high_m=part.high_m)
    view = within(roof, window)
    return _Side(view, traced(lowest_stack(view, orientations, rounds=rounds)), columns == 1)


def _laid(side: _Side) -> tuple[Place, ...]:
    places = side_by_side(side.roof, side.rows)
    if not side.turned:
        return places
    return tuple(Place(p.y_m, p.x_m, OTHER_WAY[p.orientation]) for p in places)


def _turned_lay(lay: Lay) -> Lay:
    return replace(lay, gap_in_row_m=lay.gap_between_rows_m, gap_between_rows_m=lay.gap_in_row_m)


def free_ceiling(ground: LayoutRegion, lay: Lay, ways: Ways) -> int:
    """Return a count that no legal layout passes: the lower of the bounds up and across."""
    up = _line_ceiling(ground, lay, ways.orientations)
    ways_turned = tuple(OTHER_WAY[o] for o in ways.orientations)
    across = _line_ceiling(turned(ground), _turned_lay(lay), ways_turned)
    return min(up, across)


def _line_ceiling(ground: LayoutRegion, lay: Lay, orientations: tuple[Orientation, ...]) -> int:
    low = float(ground.corners[:, 1].min())
    high = float(ground.corners[:, 1].max())
    half_m = lay.gap_between_rows_m / 2
    count = max(1, int(np.ceil((high - low) / LINES_EVERY_M)))
    edges = np.linspace(low - half_m, high + half_m, count + 1)
    # A grown module that meets the strip between two lines covers, ungrown, one of the two
    # lines half a gap further out: so a place that is free on neither holds none.
    lines = np.stack([edges[:-1] - half_m, edges[1:] + half_m])
    free = [free_bands(ground, at - HAIR_M, at + HAIR_M) for at in lines]
    table_m, worth = _worth(lay, orientations, float(np.ptp(ground.corners[:, 0])))
    total = 0.0
    for band in range(count):
        for left, right in _union(free[0].gaps(band) + free[1].gaps(band)):
            at = int(np.searchsorted(table_m, right - left + CEILING_SLACK_M, side="right")) - 1
            total += worth[at]
    return int(np.floor(total * float(edges[1] - edges[0]) + 1e-6))


def _union(gaps: list[Gap]) -> list[Gap]:
    joined: list[Gap] = []
    for left, right in sorted(gaps):
        if joined and left <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(joined[-1][1], right))
        else:
            joined.append((left, right))
    return joined


def _worth(
    lay: Lay, orientations: tuple[Orientation, ...], longest_m: float
) -> tuple[FloatArray, FloatArray]:
    """Return free lengths and the most that fits each, as modules per metre up the slope."""
    pairs = [(0.0, 0.0)]
    kinds = [(lay.pitch_m(o), 1 / (lay.height_m(o) + lay.gap_between_rows_m)) for o in orientations]
    for pitch_m, share in kinds:
        most = int((longest_m + lay.gap_in_row_m) / pitch_m) + 1
        pairs = [(a + n * pitch_m, w + n * share) for a, w in pairs for n in range(most + 1)]
    pairs.sort()
    lengths = np.array([a - lay.gap_in_row_m for a, _ in pairs])
    return lengths, np.maximum.accumulate(np.array([w for _, w in pairs]))
