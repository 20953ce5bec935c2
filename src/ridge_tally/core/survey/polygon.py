"""Simple polygons in a plane: area, what lies inside, whether sides cross."""

from itertools import combinations

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
BoolArray = NDArray[np.bool_]
# Within this of an edge is on it; far below what is legal to show.
ON_EDGE_M = 1e-9
# Less rise than this is none.
LEVEL_WITHIN_M = 1e-12


def area_m2(corners: FloatArray) -> float:
    """Return the area of an (n, 2) polygon, positive anticlockwise (shoelace)."""
    x, y = corners[:, 0], corners[:, 1]
    return float(0.5 * np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y))


def contains(corners: FloatArray, x_m: FloatArray, y_m: FloatArray) -> BoolArray:
    """Return, per point, whether it lies in a simple polygon or on its edge.

    Parameters
    ----------
    corners : (n, 2) float
        In order round the polygon, metres.
    x_m, y_m : (k,) float
        Points, metres.

    Notes
    -----
    Even-odd rule on a ray to the right; points on an edge count as inside.
    """
    return encloses(corners, x_m, y_m) | (edge_distance_m(corners, x_m, y_m) <= ON_EDGE_M)


def encloses(corners: FloatArray, x_m: FloatArray, y_m: FloatArray) -> BoolArray:
    """Return, per point, whether it lies inside; a point on an edge may fall either way."""
    after = np.roll(corners, -1, axis=0)
    ax, ay, bx, by = corners[:, 0], corners[:, 1], after[:, 0], after[:, 1]
    above = ay[:, None] > y_m[None]
    spans = above != (by[:, None] > y_m[None])
    # An edge as good as level has no crossing to divide out.
    rise = np.where(np.abs(by - ay) < LEVEL_WITHIN_M, 1.0, by - ay)
    meets_x = ax[:, None] + (y_m[None] - ay[:, None]) * ((bx - ax) / rise)[:, None]
    crossed = spans & (x_m[None] < meets_x)
    return np.asarray(crossed.sum(axis=0) % 2 == 1, dtype=np.bool_)


def edge_distance_m(corners: FloatArray, x_m: FloatArray, y_m: FloatArray) -> FloatArray:
    """Return each point's distance to the nearest edge, metres."""
    run = np.roll(corners, -1, axis=0) - corners
    long2 = np.maximum((run**2).sum(axis=1), 1e-30)
    dx, dy = x_m[None] - corners[:, 0, None], y_m[None] - corners[:, 1, None]
    share = np.clip((dx * run[:, 0, None] + dy * run[:, 1, None]) / long2[:, None], 0.0, 1.0)
    apart = np.hypot(dx - share * run[:, 0, None], dy - share * run[:, 1, None])
    return np.asarray(apart.min(axis=0))


def leftmost_x_m(corners: FloatArray, y_m: float) -> float | None:
    """Return where the polygon begins, from the left, at a height; ``None`` beside it."""
    after = np.roll(corners, -1, axis=0)
    found: list[float] = []
    for (ax, ay), (bx, by) in zip(corners.tolist(), after.tolist(), strict=True):
        if min(ay, by) <= y_m <= max(ay, by):
            found.append(min(ax, bx) if ay == by else ax + (y_m - ay) * (bx - ax) / (by - ay))
    return min(found, default=None)


def crosses_itself(corners: FloatArray) -> bool:
    """Return whether two edges that do not meet at a corner cross."""
    points = [(float(x), float(y)) for x, y in corners]
    count = len(points)

    def side(a: int, b: int, c: int) -> float:
        (px, py), (qx, qy), (rx, ry) = points[a % count], points[b % count], points[c % count]
        return (qx - px) * (ry - py) - (qy - py) * (rx - px)

    for i, j in combinations(range(count), 2):
        if j - i in (1, count - 1):
            continue
        apart = side(i, i + 1, j) * side(i, i + 1, j + 1) < 0
        if apart and side(j, j + 1, i) * side(j, j + 1, i + 1) < 0:
            return True
    return False
