"""How far things stay from a lot line."""

from collections.abc import Iterable
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.survey import LotLine

FloatArray = NDArray[np.float64]


def lot_distance_m(rings_m: Iterable[FloatArray], lines: Iterable[LotLine]) -> float | None:
    """Return the least distance of (n, 2) rings to lot lines, metres; 0 where one is crossed.

    ``None`` without rings or lines.
    """
    sides = [s for ring in rings_m for s in pairwise([*ring, ring[0]])]
    drawn = [s for line in lines for s in _sides(line)]
    if not sides or not drawn:
        return None
    return min(_apart_m(a, b, c, d) for a, b in sides for c, d in drawn)


def _sides(line: LotLine) -> Iterable[tuple[FloatArray, FloatArray]]:
    points = [np.array([p.east_m, p.north_m]) for p in line.points]
    return pairwise([*points, points[0]] if line.closed and points else points)


def _apart_m(a: FloatArray, b: FloatArray, c: FloatArray, d: FloatArray) -> float:
    """Return the distance of two segments; 0 where they cross."""
    if _side(a, b, c) * _side(a, b, d) < 0 and _side(c, d, a) * _side(c, d, b) < 0:
        return 0.0
    return min(_to_segment_m(a, c, d), _to_segment_m(b, c, d), _to_segment_m(c, a, b),
               _to_segment_m(d, a, b))  # fmt: skip


def _side(a: FloatArray, b: FloatArray, p: FloatArray) -> float:
    return float((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]))


def _to_segment_m(p: FloatArray, a: FloatArray, b: FloatArray) -> float:
    along = b - a
    length = float(along @ along)
    share = 0.0 if length == 0 else float(np.clip((p - a) @ along / length, 0.0, 1.0))
    return float(np.linalg.norm(p - a - share * along))
