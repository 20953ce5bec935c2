"""How a log's daily ratios run: sudden steps with their days, and a slow sinking between them."""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.stats import theilslopes

FloatArray = NDArray[np.float64]
# Judged days on either side of a step; a smaller change, or one within the days' scatter, is none.
SIDE_DAYS, LEAST_STEP_FRAC, DEVIATIONS = 7, 0.03, 4.0
# A sinking slower than this, a share of the whole a day, is nobody's business.
LEAST_SINKING_PER_DAY, LEAST_SEGMENT_DAYS = 0.0004, 14
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
    if len(seen) < 2 * SIDE_DAYS:
        return ()
    # A step is one difference among many: the median of the differences does not see it.
    scatter = 1.4826 * float(np.median(np.abs(np.diff(seen)))) / np.sqrt(2)
    least = max(LEAST_STEP_FRAC, DEVIATIONS * scatter * np.sqrt(2 / SIDE_DAYS) * 1.25)
    at = range(SIDE_DAYS, len(seen) - SIDE_DAYS + 1)
    jump = np.zeros(len(seen) + 1)
    for n in at:
        jump[n] = np.median(seen[n : n + SIDE_DAYS]) - np.median(seen[n - SIDE_DAYS : n])
    found = list[Change]()
    size = np.abs(jump)
    while size.max(initial=0.0) >= least:
        best = int(np.argmax(size))
        best = _edge(seen, best, float(jump[best]))
        before = float(np.median(seen[max(0, best - SIDE_DAYS) : best]))
        after = float(np.median(seen[best : best + SIDE_DAYS]))
        if abs(after - before) >= least and _sudden(seen, there, best, after - before):
            found.append(Change(int(there[best]), before, after))
        size[max(0, best - SIDE_DAYS) : best + SIDE_DAYS + 1] = 0.0
    return tuple(sorted(found, key=lambda c: c.day))


def _edge(seen: FloatArray, near: int, jump: float) -> int:
    """Return where, near the middle of a window's change, two days differ the most its way."""
    way = np.sign(jump)
    window = range(max(1, near - SIDE_DAYS // 2), min(len(seen), near + SIDE_DAYS // 2 + 1))
    middle = [
        way * (np.median(seen[n : n + 3]) - np.median(seen[max(0, n - 3) : n])) for n in window
    ]
    return window[int(np.argmax(middle))]


def _sudden(seen: FloatArray, there: NDArray[np.int64], at: int, jump: float) -> bool:
    """Whether most of a change lies between two judged days and their slope does not explain it."""
    near = float(np.median(seen[at : at + 3]) - np.median(seen[max(0, at - 3) : at]))
    sides = (slice(max(0, at - SLOPE_DAYS), at), slice(at, at + SLOPE_DAYS))
    slopes = [float(theilslopes(seen[s], there[s])[0]) for s in sides]
    apart = float(np.median(there[at : at + 3]) - np.median(there[max(0, at - 3) : at]))
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
