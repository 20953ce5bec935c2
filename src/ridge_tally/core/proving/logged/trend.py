"""How a log's daily ratios run: sudden steps with their days, and a slow sinking between them."""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.stats import theilslopes

FloatArray = NDArray[np.float64]
# Judged days on either side of a step; a smaller change, or one within the days' scatter, is none.
SIDES, LEAST_STEP_FRAC, DEVIATIONS = (7, 14), 0.03, 4.0
NEAR_DAYS, LEAST_OF_SIDE = 5, 3
# A sinking slower than this, a share of the whole a day, is nobody's business.
LEAST_SINKING_PER_DAY, LEAST_SEGMENT_DAYS = 0.0004, 10
SURE_FRAC = 0.95
SLOPE_DAYS, MOSTLY = 12, 0.6


@dataclass(frozen=True, slots=True)
class Change:
    """A sudden step: the first day, from 0, of the new level; the ratios before and after it."""

    day: int
    before: float
    after: float


@dataclass(frozen=True, slots=True)
class Sinking:
    """A slow sinking from a day to before another: share a day, and the ratio at its ends."""

    first: int
    end: int
    per_day: float
    at_first: float
    at_end: float


def changes_of(ratio: FloatArray) -> tuple[Change, ...]:
    """Return the sudden steps in (d,) daily ratios, NaN where a day is not judged."""
    there = np.flatnonzero(np.isfinite(ratio))
    seen = ratio[there]
    if len(seen) < 2 * SIDES[0]:
        return ()
    # A step is one difference among many: the median of the differences does not see it.
    scatter = 1.4826 * float(np.median(np.abs(np.diff(seen)))) / np.sqrt(2)
    size, side_of = np.zeros(len(seen) + 1), np.full(len(seen) + 1, SIDES[0])
    for side in SIDES:
        least = _least(scatter, side)
        for n in range(side, len(seen) - side + 1):
            jump = abs(_jump(seen, n, side)) / least
            if jump > size[n]:
                size[n], side_of[n] = jump, side
    found, edges = list[Change](), [0, len(seen)]
    while size.max(initial=0.0) >= 1.0:
        best = at = int(np.argmax(size))
        side = int(side_of[best])
        best = _edge(seen, best, side)
        before = float(np.median(seen[max(0, best - side) : best]))
        after = float(np.median(seen[best : best + side]))
        large = abs(after - before) >= _least(scatter, side)
        if large and _sudden(seen, there, best, after - before, edges):
            edges.append(best)
            found.append(Change(int(there[best]), before, after))
        size[max(0, best - side) : best + side + 1] = 0.0
        size[at] = 0.0
    return tuple(sorted(found, key=lambda c: c.day))


def _least(scatter: float, side: int) -> float:
    """Return the smallest step that medians of so many days on either side make no chance of."""
    return max(LEAST_STEP_FRAC, DEVIATIONS * scatter * float(np.sqrt(2 / side)) * 1.25)


def _jump(seen: FloatArray, at: int, side: int) -> float:
    return float(np.median(seen[at : at + side]) - np.median(seen[at - side : at]))


def _edge(seen: FloatArray, near: int, side: int) -> int:
    """Return where two levels on either side leave the least over, within a window's reach."""
    first, end = max(0, near - side), min(len(seen), near + side)
    window = range(first + LEAST_OF_SIDE, end - LEAST_OF_SIDE + 1)

    def over(at: int) -> float:
        sides = (seen[first:at], seen[at:end])
        return sum(float(np.abs(s - np.median(s)).sum()) for s in sides)

    return min(window, key=over)


def _sudden(
    seen: FloatArray, there: NDArray[np.int64], at: int, jump: float, edges: list[int]
) -> bool:
    """Whether most of a change lies between two judged days and their slope does not explain it.

    ``edges``: where other steps are already; no slope reaches over one.
    """
    first = max(e for e in edges if e < at) if at else 0
    end = min((e for e in edges if e > at), default=len(seen))
    before = slice(max(first, at - SLOPE_DAYS), at)
    after = slice(at, min(end, at + SLOPE_DAYS))
    near_before = slice(max(first, at - NEAR_DAYS), at)
    near_after = slice(at, min(end, at + NEAR_DAYS))
    near = float(np.median(seen[near_after]) - np.median(seen[near_before]))
    slopes = [
        float(theilslopes(seen[s], there[s])[0]) if s.stop - s.start > 2 else 0.0
        for s in (before, after)
    ]
    apart = float(np.median(there[near_after]) - np.median(there[near_before]))
    near -= apart * (slopes[0] + slopes[1]) / 2
    return near / jump > MOSTLY


def sinkings_of(ratio: FloatArray, changes: tuple[Change, ...]) -> tuple[Sinking, ...]:
    """Return slow sinkings between steps: Theil 1950 and Sen 1968, sure at 95 %."""
    edges = [0, *(c.day for c in changes), len(ratio)]
    found = []
    for first, end in pairwise(edges):
        there = first + np.flatnonzero(np.isfinite(ratio[first:end]))
        if len(there) < LEAST_SEGMENT_DAYS:
            continue
        slope, level, _, high = theilslopes(ratio[there], there, SURE_FRAC)
        if high < 0 and slope < -LEAST_SINKING_PER_DAY:
            found.append(
                Sinking(first, end, float(slope), float(level + slope * there[0]),
                        float(level + slope * there[-1]))
            )  # fmt: skip
    return tuple(found)
