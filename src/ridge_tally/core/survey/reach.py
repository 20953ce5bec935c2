"""Lengths that no outline can have: longer than the way round by the other readings."""

import math
from dataclasses import dataclass
from functools import lru_cache
from itertools import product

from ridge_tally.core.job.survey import Outline, ReadingKind, TapeReading
from ridge_tally.core.survey.adjustment import reading_sd_m

# How many standard deviations of itself a length may be longer than the way round.
SLACK = 6.0


@dataclass(frozen=True, slots=True)
class TooLong:
    """A reading between two corners, and the shortest way between them by the others, metres."""

    reading: TapeReading
    way_round_m: float


@lru_cache(maxsize=512)
def too_long(outline: Outline) -> TooLong | None:
    """Return the length that exceeds the way round by most; ``None`` when none does.

    Notes
    -----
    The straight line is the shortest way between two corners: a side or diagonal longer than a
    chain of the other readings between its ends (triangle inequality) can be in no outline.
    Shortest chains by Floyd and Warshall's all-pairs method.
    """
    count = len(outline.corners)
    lengths = [
        (r, ends, r.taped.value_m)
        for r in outline.readings
        if r.taped and r.taped.value_m > 0 and not r.left_out and (ends := _ends(r, count))
    ]
    way = [[0.0 if i == j else math.inf for j in range(count)] for i in range(count)]
    for _, (a, b), value_m in lengths:
        way[a][b] = way[b][a] = min(way[a][b], value_m)
    for k, i, j in product(range(count), repeat=3):
        way[i][j] = min(way[i][j], way[i][k] + way[k][j])
    # A way shorter than the reading itself does not go along it.
    over = [
        (value_m - way[a][b], TooLong(r, way[a][b]))
        for r, (a, b), value_m in lengths
        if value_m - way[a][b] > SLACK * reading_sd_m(value_m)
    ]
    return max(over, key=lambda found: found[0])[1] if over else None


def _ends(reading: TapeReading, count: int) -> tuple[int, int] | None:
    if reading.kind is ReadingKind.SIDE:
        return reading.at[0], (reading.at[0] + 1) % count
    if reading.kind is ReadingKind.DIAGONAL:
        return reading.at[0], reading.at[1]
    return None
