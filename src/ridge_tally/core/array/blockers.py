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

from dataclasses import dataclass, replace
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.survey import ROUND_KINDS, EdgeKind, RoofPlane, Setbacks
from ridge_tally.core.survey.outline import (
    corners_m,
    edge_names,
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


class BlockerKind(StrEnum):
    """What keeps a module away."""

    EDGE = "edge"
    PATH = "path"
    OBSTRUCTION = "obstruction"
    KEEP_OUT = "keep-out"
    EXISTING = "existing"
    CUT = "cut"


@dataclass(frozen=True, slots=True)
class Owner:
    """Whose a capsule is: ``id`` is an edge's number, or the id of what stands there."""

    kind: BlockerKind
    id: str
    name: str


@dataclass(frozen=True, slots=True)
class Window:
    """A part of a plane between two x and two y, metres."""

    left_m: float = -np.inf
    right_m: float = np.inf
    low_m: float = -np.inf
    high_m: float = np.inf


WHOLE = Window()


@dataclass(frozen=True, slots=True)
class LayoutRegion:
    """A plane as a fill sees it.

    ``outlines`` are rings every module lies inside of: the plane's, and its mirror image where
    a layout is to be symmetric.  ``capsules`` is (k, 5): ax, ay, bx, by, radius in metres, of
    ``owners``; a round thing's radius includes its own, which ``bodies_m`` (k,) tells apart.
    ``solids`` are (m, 2) rings a gap may lie wholly inside of; ``window`` is the part in view.
    """

    outlines: tuple[FloatArray, ...]
    capsules: FloatArray
    owners: tuple[Owner, ...]
    bodies_m: FloatArray
    solids: tuple[FloatArray, ...] = ()
    window: Window = WHOLE

    @property
    def corners(self) -> FloatArray:
        """The plane's own outline, (n, 2)."""
        return self.outlines[0]


def ground_from(corners: FloatArray, strips_m: list[float], names: list[str]) -> LayoutRegion:
    """Return a bare roof with a strip along each edge."""
    owners = tuple(Owner(BlockerKind.EDGE, str(i), name) for i, name in enumerate(names))
    capsules = np.array(_ring_capsules(corners, strips_m), dtype=float)
    return LayoutRegion((corners,), capsules, owners, np.zeros(len(owners)))


def with_disc(
    ground: LayoutRegion, x_m: float, y_m: float, radius_m: float, clearance_m: float, owner: Owner
) -> LayoutRegion:
    """Return the ground with a round thing on it."""
    capsule = np.array([[x_m, y_m, x_m, y_m, radius_m + clearance_m]])
    return replace(
        ground,
        capsules=np.concatenate([ground.capsules, capsule]),
        owners=(*ground.owners, owner),
        bodies_m=np.append(ground.bodies_m, radius_m),
    )


def with_ring(
    ground: LayoutRegion, ring: FloatArray, clearance_m: float, owner: Owner
) -> LayoutRegion:
    """Return the ground with something of straight sides on it."""
    capsules = np.array(_ring_capsules(ring, [clearance_m] * len(ring)))
    return replace(
        ground,
        capsules=np.concatenate([ground.capsules, capsules]),
        owners=(*ground.owners, *[owner] * len(ring)),
        bodies_m=np.append(ground.bodies_m, np.zeros(len(ring))),
        solids=(*ground.solids, ring),
    )


def mirrored(ground: LayoutRegion, axis_m: float) -> LayoutRegion:
    """Return the ground turned over left to right about x = ``axis_m``."""

    def over(ring: FloatArray) -> FloatArray:
        return (ring * [-1.0, 1.0] + [2 * axis_m, 0.0])[::-1]

    flip = np.array([-1.0, 1.0, -1.0, 1.0, 1.0])
    shift = np.array([2 * axis_m, 0.0, 2 * axis_m, 0.0, 0.0])
    return replace(
        ground,
        outlines=tuple(over(ring) for ring in ground.outlines),
        capsules=ground.capsules * flip + shift,
        solids=tuple(over(ring) for ring in ground.solids),
    )


def both(one: LayoutRegion, other: LayoutRegion) -> LayoutRegion:
    """Return what keeps away on either of two grounds."""
    return LayoutRegion(
        (*one.outlines, *other.outlines),
        np.concatenate([one.capsules, other.capsules]),
        (*one.owners, *other.owners),
        np.append(one.bodies_m, other.bodies_m),
        (*one.solids, *other.solids),
    )


def turned(ground: LayoutRegion) -> LayoutRegion:
    """Return the ground with x and y exchanged, so that its rows are columns."""
    return replace(
        ground,
        outlines=tuple(ring[::-1, ::-1] for ring in ground.outlines),
        capsules=ground.capsules[:, [1, 0, 3, 2, 4]],
        solids=tuple(ring[::-1, ::-1] for ring in ground.solids),
    )


def setback_m(setbacks: Setbacks, edge: EdgeKind) -> float:
    """Return the width of the strip along that kind of edge, metres."""
    taped: Taped = getattr(setbacks, edge.value)
    return taped.value_m


def ground_of(plane: RoofPlane, path_edge: int | None = None) -> LayoutRegion:
    """Return what keeps modules away on a plane, its access path along that edge.

    Parameters
    ----------
    path_edge : int, optional
        The edge whose strip is widened to the plane's access path.
    """
    corners = corners_m(plane)
    strips = [setback_m(plane.setbacks, edge) for edge in plane.outline.edges]
    names = list(edge_names(plane.outline))
    ground = ground_from(corners, strips, names)
    if path_edge is not None and plane.access is not None:
        ground = with_path(ground, path_edge, plane.access.width.value_m)
    for obstruction in plane.obstructions:
        owner = Owner(BlockerKind.OBSTRUCTION, obstruction.id, obstruction.name)
        clearance_m = obstruction.clearance.value_m
        if obstruction.kind in ROUND_KINDS:
            spot = place_m(plane, obstruction)
            radius_m = obstruction.width.value_m / 2
            ground = with_disc(ground, spot.x_m, spot.y_m, radius_m, clearance_m, owner)
        else:
            ring = obstruction_box(plane, obstruction).ring()
            ground = with_ring(ground, ring, clearance_m, owner)
    for zone in plane.keep_outs:
        owner = Owner(BlockerKind.KEEP_OUT, zone.id, zone.reason)
        ground = with_ring(ground, sketch_m(zone.corners), 0.0, owner)
    for rows in plane.existing:
        owner = Owner(BlockerKind.EXISTING, rows.existing_id, "the modules already there")
        ground = with_ring(ground, existing_box(plane, rows).ring(), EXISTING_GAP_M, owner)
    return ground


def with_path(ground: LayoutRegion, edge: int, width_m: float) -> LayoutRegion:
    """Return the ground with an access path inside that edge."""
    capsules = ground.capsules.copy()
    if capsules[edge, 4] >= width_m:
        return ground
    capsules[edge, 4] = width_m
    owner = Owner(BlockerKind.PATH, str(edge), f"access path, {ground.owners[edge].name}")
    owners = (*ground.owners[:edge], owner, *ground.owners[edge + 1 :])
    return replace(ground, capsules=capsules, owners=owners)


def path_edges(plane: RoofPlane) -> tuple[int, ...]:
    """Return the edges along one of which the plane's access path may run; none without one."""
    if plane.access is None:
        return ()
    return tuple(i for i, kind in enumerate(plane.outline.edges) if kind in plane.access.along)


def _ring_capsules(ring: FloatArray, radii_m: list[float]) -> list[list[float]]:
    after = np.roll(ring, -1, axis=0)
    return [
        [*map(float, a), *map(float, b), radius]
        for a, b, radius in zip(ring, after, radii_m, strict=True)
    ]


@dataclass(frozen=True, slots=True)
class Bands:
    """Open bands across a plane and the free gaps in each.

    ``bottom_m`` (b,) are the heights of the bands, ascending; ``left_m`` and ``right_m`` (b, m)
    the gaps from left to right, metres.  Unused places hold left = +inf, right = -inf.
    """

    bottom_m: FloatArray
    left_m: FloatArray
    right_m: FloatArray

    def gaps(self, band: int) -> list[Gap]:
        """Return the gaps of one band, left to right."""
        pairs = zip(self.left_m[band], self.right_m[band], strict=True)
        return [(float(a), float(b)) for a, b in pairs if b > a]


def free_bands(ground: LayoutRegion, bottom_m: FloatArray, top_m: FloatArray) -> Bands:
    """Return, per open band (bottom, top), the x-intervals no blocker reaches.

    Parameters
    ----------
    bottom_m, top_m : (b,) float
        Heights up the slope, metres, each bottom below its top.

    Notes
    -----
    A gap has no boundary in it, so its middle decides whether it is on the roof.
    """
    left, right = intervals(ground.capsules, bottom_m, top_m)
    order = np.argsort(left, axis=1, kind="stable")
    starts = np.take_along_axis(left, order, axis=1)
    ends = np.maximum.accumulate(np.take_along_axis(right, order, axis=1), axis=1)
    gap_left, gap_right = ends[:, :-1], starts[:, 1:]
    free = (gap_right > gap_left) & np.isfinite(gap_left) & np.isfinite(gap_right)
    band, place = np.nonzero(free)
    middle_x = (gap_left[band, place] + gap_right[band, place]) / 2
    middle_y = ((bottom_m + top_m) / 2)[band]
    inside = np.ones(len(band), dtype=bool)
    for ring in ground.outlines:
        inside &= encloses(ring, middle_x, middle_y)
    for solid in ground.solids:
        inside &= ~encloses(solid, middle_x, middle_y)
    band, place = band[inside], place[inside]
    # Gaps of a band moved together: the n-th gap of a band in column n.
    first = np.searchsorted(band, np.arange(len(bottom_m)))
    column = np.arange(len(band)) - first[band]
    most = int(column.max()) + 1 if len(column) else 0
    lefts = np.full((len(bottom_m), most), np.inf)
    rights = np.full((len(bottom_m), most), -np.inf)
    lefts[band, column] = gap_left[band, place]
    rights[band, column] = gap_right[band, place]
    bands = Bands(bottom_m, lefts, rights)
    return bands if ground.window is WHOLE else clipped(bands, ground.window)


def clipped(bands: Bands, window: Window) -> Bands:
    """Return the bands with what lies left and right of a window cut off."""
    left = np.maximum(bands.left_m, window.left_m)
    right = np.minimum(bands.right_m, window.right_m)
    gone = right <= left
    return Bands(bands.bottom_m, np.where(gone, np.inf, left), np.where(gone, -np.inf, right))


def intervals(
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
