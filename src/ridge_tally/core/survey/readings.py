"""What each kind of reading says about the corners: its misfit and how corners move it.

An edge runs from the corner of its number to the next; headings are anticlockwise from +x.
"""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.survey import ReadingKind

FloatArray = NDArray[np.float64]
Pull = tuple[int, float, float]

LENGTHS = frozenset({ReadingKind.SIDE, ReadingKind.DIAGONAL, ReadingKind.OFFSET, ReadingKind.ALONG})


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading.

    ``at`` names what it joins: a side its edge; a diagonal its two corners; an offset, a
    distance along, or a corner on a line, the corner and the edge; a right angle its corner;
    parallels their two edges.  ``value_m`` is a length's reading.
    """

    kind: ReadingKind
    at: tuple[int, ...]
    value_m: float = 0.0


def misfit(  # noqa: PLR0911 - one return a kind
    corners: list[tuple[float, float]], reading: Reading, turn_sign: float
) -> tuple[float, list[Pull]]:
    """Return how far a reading is from the corners, and each corner's pull on that.

    Parameters
    ----------
    corners : list of (x, y)
        Metres.
    reading : Reading
        What was read.
    turn_sign : float
        Which way the sketch turns at a right angle's corner: 1 left, -1 right.

    Returns
    -------
    misfit : float
        Metres, or radians for right angles and parallels.
    pulls : list of (corner, d/dx, d/dy)
        A corner may be named twice; its pulls add up.
    """
    at, count = reading.at, len(corners)
    match reading.kind:
        case ReadingKind.SIDE:
            return _apart(corners, at[0], (at[0] + 1) % count, reading.value_m)
        case ReadingKind.DIAGONAL:
            return _apart(corners, at[0], at[1], reading.value_m)
        case ReadingKind.OFFSET:
            off, pulls = _off_line(corners, at[0], at[1])
            side = 1.0 if off >= 0 else -1.0
            return abs(off) - reading.value_m, [(i, side * x, side * y) for i, x, y in pulls]
        case ReadingKind.ON_LINE:
            return _off_line(corners, at[0], at[1])
        case ReadingKind.ALONG:
            along, pulls = _along_line(corners, at[0], at[1])
            return along - reading.value_m, pulls
        case ReadingKind.RIGHT_ANGLE:
            turned, pulls = _between(corners, at[0], (at[0] - 1) % count)
            return _wrapped(turned - turn_sign * math.pi / 2, 2 * math.pi), pulls
        case ReadingKind.PARALLEL:
            turned, pulls = _between(corners, at[0], at[1])
            return _wrapped(turned, math.pi), pulls


def turn_at(corners: FloatArray, corner: int) -> float:
    """Return the turn at a corner in radians, left positive, within half a turn."""
    points = [(float(x), float(y)) for x, y in corners]
    turned, _ = _between(points, corner, (corner - 1) % len(points))
    return _wrapped(turned, 2 * math.pi)


def _wrapped(angle: float, period: float) -> float:
    return (angle + period / 2) % period - period / 2


def _run(corners: list[tuple[float, float]], edge: int) -> tuple[int, int, float, float, float]:
    """Return an edge's two corners, its run and its length."""
    after = (edge + 1) % len(corners)
    (px, py), (qx, qy) = corners[edge], corners[after]
    run_x, run_y = qx - px, qy - py
    # A start may lay two corners on one another; a nanometre keeps the division whole.
    return edge, after, run_x, run_y, math.hypot(run_x, run_y) or 1e-9


def _apart(
    corners: list[tuple[float, float]], a: int, b: int, value_m: float
) -> tuple[float, list[Pull]]:
    run_x, run_y = corners[b][0] - corners[a][0], corners[b][1] - corners[a][1]
    length = math.hypot(run_x, run_y) or 1e-9
    x, y = run_x / length, run_y / length
    return length - value_m, [(a, -x, -y), (b, x, y)]


def _off_line(
    corners: list[tuple[float, float]], corner: int, edge: int
) -> tuple[float, list[Pull]]:
    start, end, run_x, run_y, length = _run(corners, edge)
    away_x, away_y = corners[corner][0] - corners[start][0], corners[corner][1] - corners[start][1]
    off = (run_x * away_y - run_y * away_x) / length
    of_corner = (-run_y / length, run_x / length)
    of_end = (
        away_y / length - off * run_x / length**2,
        -away_x / length - off * run_y / length**2,
    )
    return off, _shared_out(corner, start, end, of_corner, of_end)


def _along_line(
    corners: list[tuple[float, float]], corner: int, edge: int
) -> tuple[float, list[Pull]]:
    start, end, run_x, run_y, length = _run(corners, edge)
    away_x, away_y = corners[corner][0] - corners[start][0], corners[corner][1] - corners[start][1]
    along = (run_x * away_x + run_y * away_y) / length
    of_corner = (run_x / length, run_y / length)
    of_end = (
        away_x / length - along * run_x / length**2,
        away_y / length - along * run_y / length**2,
    )
    return along, _shared_out(corner, start, end, of_corner, of_end)


def _shared_out(
    corner: int, start: int, end: int, of_corner: tuple[float, float], of_end: tuple[float, float]
) -> list[Pull]:
    """Return the pulls of all three points: moving them together changes nothing."""
    of_start = (-of_corner[0] - of_end[0], -of_corner[1] - of_end[1])
    return [(corner, *of_corner), (end, *of_end), (start, *of_start)]


def _between(corners: list[tuple[float, float]], edge: int, other: int) -> tuple[float, list[Pull]]:
    """Return the angle from the other edge to this one, and its pulls."""
    angle, pulls = 0.0, []
    for which, sign in ((edge, 1.0), (other, -1.0)):
        start, end, run_x, run_y, length = _run(corners, which)
        angle += sign * math.atan2(run_y, run_x)
        x, y = -sign * run_y / length**2, sign * run_x / length**2
        pulls += [(end, x, y), (start, -x, -y)]
    return angle, pulls
