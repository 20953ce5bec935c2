"""What keeps modules away on a plane, as capsules, and the free gaps they leave in a row.

A capsule is a segment with a radius: an edge with its setback, a side of a chimney with
its clearance, a vent (a point) with radius plus clearance.  The part of a capsule inside
an open band between two heights projects on x as one interval in closed form, because a
capsule is convex: its right end is R(clamp(y*, band)), R the capsule's right boundary and
y* the height of its right-most point; the left end is the same, mirrored.

        ______________          band top
       /      |
      |   o---|--o  capsule     right end inside the band
       \\______|______          band bottom
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.survey import ROUND_KINDS, EdgeKind, RoofPlane, Setbacks, Taped
from ridge_tally.core.survey.outline import (
    corners_m,
    existing_box,
    obstruction_box,
    place_m,
    sketch_m,
)
from ridge_tally.core.survey.polygon import encloses

FloatArray = NDArray[np.float64]
Gap = tuple[float, float]
# Far below what is legal to show, far above the rounding of sums of lengths.
TOUCH_M = 1e-9
# New modules stay this far from those already there; common practice, no source.
EXISTING_GAP_M = 0.15


@dataclass(frozen=True, slots=True)
class Ground:
    """A plane as a fill sees it.

    ``corners`` is the (n, 2) outline; ``capsules`` is (k, 5): ax, ay, bx, by, radius in
    metres; ``solids`` are (m, 2) rings a gap may lie wholly inside of.
    """

    corners: FloatArray
    capsules: FloatArray
    solids: tuple[FloatArray, ...]


def setback_m(setbacks: Setbacks, edge: EdgeKind) -> float:
    """Return the width of the strip along that kind of edge, metres."""
    taped: Taped = getattr(setbacks, edge.value)
    return taped.value_m


def ground_of(plane: RoofPlane) -> Ground:
    """Return the outline, capsules and solids of a plane."""
    corners = corners_m(plane)
    strips = [setback_m(plane.setbacks, edge) for edge in plane.outline.edges]
    capsules = _ring_capsules(corners, strips)
    solids: list[FloatArray] = []

    def stand(ring: FloatArray, clearance_m: float) -> None:
        solids.append(ring)
        capsules.extend(_ring_capsules(ring, [clearance_m] * len(ring)))

    for obstruction in plane.obstructions:
        clearance_m = obstruction.clearance.value_m
        if obstruction.kind in ROUND_KINDS:
            spot = place_m(plane, obstruction)
            reach_m = obstruction.width.value_m / 2 + clearance_m
            capsules.append([spot.x_m, spot.y_m, spot.x_m, spot.y_m, reach_m])
        else:
            stand(obstruction_box(plane, obstruction).ring(), clearance_m)
    for zone in plane.keep_outs:
        stand(sketch_m(zone.corners), 0.0)
    for rows in plane.existing:
        stand(existing_box(plane, rows).ring(), EXISTING_GAP_M)
    return Ground(corners, np.array(capsules, dtype=float), tuple(solids))


def _ring_capsules(ring: FloatArray, radii_m: list[float]) -> list[list[float]]:
    after = np.roll(ring, -1, axis=0)
    return [
        [*map(float, a), *map(float, b), radius]
        for a, b, radius in zip(ring, after, radii_m, strict=True)
    ]


def free_gaps(ground: Ground, bottom_m: FloatArray, top_m: FloatArray) -> list[list[Gap]]:
    """Return, per open band (bottom, top), the x-intervals no blocker reaches, left to right.

    Parameters
    ----------
    bottom_m, top_m : (b,) float
        Heights up the slope, metres, each bottom below its top.

    Returns
    -------
    gaps : list of b lists of (left, right)
        Metres; a gap has no boundary in it, so it is wholly free.
    """
    left, right = _intervals(ground.capsules, bottom_m, top_m)
    middle_m = (bottom_m + top_m) / 2
    return [_gaps_of_band(ground, left[i], right[i], float(middle_m[i])) for i in range(len(left))]


def _gaps_of_band(ground: Ground, left: FloatArray, right: FloatArray, y_m: float) -> list[Gap]:
    order = np.argsort(left, kind="stable")
    starts = left[order]
    reach = np.maximum.accumulate(right[order])
    open_to = np.append(starts[1:], np.inf)
    found = np.nonzero((open_to > reach) & np.isfinite(reach) & np.isfinite(open_to))[0]
    if len(found) == 0:
        return []
    lefts, rights = reach[found], open_to[found]
    middles = (lefts + rights) / 2
    inside = encloses(ground.corners, middles, np.full_like(middles, y_m))
    for solid in ground.solids:
        inside &= ~encloses(solid, middles, np.full_like(middles, y_m))
    return [(float(a), float(b)) for a, b, ok in zip(lefts, rights, inside, strict=True) if ok]


def _intervals(
    capsules: FloatArray, bottom_m: FloatArray, top_m: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Return the (b, k) left and right ends of each capsule in each band; +inf/-inf if absent."""
    right = _right_end(capsules, bottom_m, top_m)
    mirrored = capsules * np.array([-1.0, 1.0, -1.0, 1.0, 1.0])
    left = -_right_end(mirrored, bottom_m, top_m)
    return left, right


def _right_end(capsules: FloatArray, bottom_m: FloatArray, top_m: FloatArray) -> FloatArray:
    ax, ay, bx, by, radius = capsules.T
    lowest, highest = np.minimum(ay, by) - radius, np.maximum(ay, by) + radius
    rightmost_y = np.where(ax >= bx, ay, by)
    low, high = bottom_m[:, None], top_m[:, None]
    touches = (highest[None] > low + TOUCH_M) & (lowest[None] < high - TOUCH_M)
    y = np.clip(rightmost_y[None], low, high)
    y = np.clip(y, lowest[None], highest[None])
    ends = np.maximum(_disc_right(ax, ay, radius, y), _disc_right(bx, by, radius, y))
    return np.where(touches, np.maximum(ends, _side_right(capsules, y)), -np.inf)


def _disc_right(cx: FloatArray, cy: FloatArray, radius: FloatArray, y: FloatArray) -> FloatArray:
    squared = radius[None] ** 2 - (y - cy[None]) ** 2
    reach = cx[None] + np.sqrt(np.maximum(squared, 0.0))
    return np.where(squared >= -1e-12, reach, -np.inf)


def _side_right(capsules: FloatArray, y: FloatArray) -> FloatArray:
    """Return x on the capsule's straight right side at height y, -inf where it has none."""
    ax, ay, bx, by, radius = capsules.T
    dx, dy = bx - ax, by - ay
    length = np.hypot(dx, dy)
    sloping = np.abs(dy) > 1e-12
    safe_length, safe_dy = np.where(length > 0, length, 1.0), np.where(sloping, dy, 1.0)
    # The normal of the segment that points to the right.
    nx, ny = np.abs(dy) / safe_length, -np.sign(dy) * dx / safe_length
    t = (y - (ay + ny * radius)[None]) / safe_dy[None]
    on_side = sloping[None] & (t >= -1e-12) & (t <= 1 + 1e-12)
    return np.where(on_side, (ax + nx * radius)[None] + t * dx[None], -np.inf)
