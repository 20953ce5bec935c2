"""Whether modules may lie where they are, and by how much a distance is short.

Worked out from the distance of each rectangle to each edge and obstruction, with none of
the bands a fill is made of: the one checks the other.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from ridge_tally.core.array.blockers import BlockerKind, FloatArray, LayoutRegion, Owner
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.survey.polygon import encloses

# A place is legal to 0.1 mm: closer than any tape reads.
TOLERANCE_M = 1e-4
NEIGHBOUR = "the module beside it"
OFF_ROOF = Owner(BlockerKind.EDGE, "", "the edge of the roof")
INSIDE = Owner(BlockerKind.OBSTRUCTION, "", "what stands there")


@dataclass(frozen=True, slots=True)
class Shortfall:
    """A distance that a module does not keep.

    ``has_m`` is what there is, below 0 where it overlaps; ``wants_m`` what there should be.
    """

    owner: Owner
    has_m: float
    wants_m: float

    @property
    def short_m(self) -> float:
        """How much is missing."""
        return self.wants_m - self.has_m

    @property
    def impossible(self) -> bool:
        """Whether the module would lie on something or over the edge: no reason allows that."""
        return self.has_m < -TOLERANCE_M


def boxes_of(lay: Lay, places: tuple[Place, ...]) -> FloatArray:
    """Return the (n, 4) left, bottom, right, top of modules, metres."""
    return np.array(
        [
            [
                p.x_m,
                p.y_m,
                p.x_m + lay.width_m(p.orientation),
                p.y_m + lay.height_m(p.orientation),
            ]
            for p in places
        ]
    ).reshape(-1, 4)


def shortfalls(
    ground: LayoutRegion, lay: Lay, places: tuple[Place, ...]
) -> tuple[tuple[Shortfall, ...], ...]:
    """Return, per module, every distance it does not keep, worst first.

    Two modules are apart when they keep the gap beside each other or the gap above each other.
    """
    boxes = boxes_of(lay, places)
    if len(boxes) == 0:
        return ()
    found: list[list[Shortfall]] = [[] for _ in places]
    centre = (boxes[:, :2] + boxes[:, 2:]) / 2
    apart = _capsule_distances(ground.capsules, boxes)
    off = ~encloses(ground.corners, centre[:, 0], centre[:, 1])
    inside = [encloses(solid, centre[:, 0], centre[:, 1]) for solid in ground.solids]
    for i, mine in enumerate(found):
        mine.extend(_too_close(ground, apart[i]))
        if off[i] and not any(s.impossible for s in mine):
            mine.append(Shortfall(OFF_ROOF, -1.0, 0.0))
        if any(solid[i] for solid in inside) and not any(s.impossible for s in mine):
            mine.append(Shortfall(INSIDE, -1.0, 0.0))
    for pair in _between(lay, boxes):
        for one, other in ((pair.one, pair.other), (pair.other, pair.one)):
            owner = Owner(BlockerKind.EXISTING, str(other), NEIGHBOUR)
            found[one].append(Shortfall(owner, pair.has_m, pair.wants_m))
    return tuple(tuple(sorted(m, key=lambda s: -s.short_m)) for m in found)


def _too_close(ground: LayoutRegion, apart_m: FloatArray) -> Iterable[Shortfall]:
    """Return the worst shortfall to each owner, from a module's distances to the capsules."""
    by_owner: dict[Owner, Shortfall] = {}
    for j in np.nonzero(apart_m < ground.capsules[:, 4] - TOLERANCE_M)[0]:
        owner, body_m = ground.owners[j], float(ground.bodies_m[j])
        has_m = float(apart_m[j]) - body_m
        # Touching an edge or a side is crossing it, give or take a hair.
        has_m = has_m if has_m > 1e-9 else min(has_m, -2 * TOLERANCE_M)
        if owner not in by_owner or by_owner[owner].has_m > has_m:
            by_owner[owner] = Shortfall(owner, has_m, float(ground.capsules[j, 4]) - body_m)
    return by_owner.values()


@dataclass(frozen=True, slots=True)
class _Pair:
    """Two modules that keep neither gap; the nearer gap is the one a person would mend."""

    one: int
    other: int
    has_m: float
    wants_m: float


def _between(lay: Lay, boxes: FloatArray) -> list[_Pair]:
    left, bottom, right, top = boxes.T
    beside = np.maximum(left[:, None] - right[None], left[None] - right[:, None])
    above = np.maximum(bottom[:, None] - top[None], bottom[None] - top[:, None])
    beside_short, above_short = lay.gap_in_row_m - beside, lay.gap_between_rows_m - above
    close = (beside_short > TOLERANCE_M) & (above_short > TOLERANCE_M)
    pairs = []
    for i, j in np.argwhere(np.triu(close, 1)).tolist():
        if beside_short[i, j] <= above_short[i, j]:
            pairs.append(_Pair(i, j, float(beside[i, j]), lay.gap_in_row_m))
        else:
            pairs.append(_Pair(i, j, float(above[i, j]), lay.gap_between_rows_m))
    return pairs


def _capsule_distances(capsules: FloatArray, boxes: FloatArray) -> FloatArray:
    """Return the (n, k) distance of each box to each capsule's segment; 0 where they meet."""
    left, bottom, right, top = (boxes[:, i, None] for i in range(4))
    ax, ay, bx, by = (capsules[None, :, i] for i in range(4))
    ends = np.minimum(
        _to_box(ax, ay, left, bottom, right, top), _to_box(bx, by, left, bottom, right, top)
    )
    corners = [(left, bottom), (right, bottom), (right, top), (left, top)]
    sides = [_to_segment(x, y, ax, ay, bx, by) for x, y in corners]
    nearest = np.minimum(ends, np.min(np.broadcast_arrays(*sides), axis=0))
    return np.where(_crosses(left, bottom, right, top, ax, ay, bx, by), 0.0, nearest)


def _to_box(
    x: FloatArray,
    y: FloatArray,
    left: FloatArray,
    bottom: FloatArray,
    right: FloatArray,
    top: FloatArray,
) -> FloatArray:
    dx = np.maximum(np.maximum(left - x, x - right), 0.0)
    dy = np.maximum(np.maximum(bottom - y, y - top), 0.0)
    return np.asarray(np.hypot(dx, dy))


def _to_segment(
    x: FloatArray, y: FloatArray, ax: FloatArray, ay: FloatArray, bx: FloatArray, by: FloatArray
) -> FloatArray:
    run_x, run_y = bx - ax, by - ay
    long2 = np.maximum(run_x**2 + run_y**2, 1e-30)
    share = np.clip(((x - ax) * run_x + (y - ay) * run_y) / long2, 0.0, 1.0)
    return np.asarray(np.hypot(x - ax - share * run_x, y - ay - share * run_y))


def _crosses(
    left: FloatArray, bottom: FloatArray, right: FloatArray, top: FloatArray,
    ax: FloatArray, ay: FloatArray, bx: FloatArray, by: FloatArray,
) -> np.ndarray:  # fmt: skip
    """Return whether a segment meets the inside of a box: the slab test, a hair inside it."""
    hair = 1e-9
    enter = np.zeros(np.broadcast_shapes(left.shape, ax.shape))
    leave = np.ones_like(enter)
    hit = np.ones_like(enter, dtype=bool)
    for a, b, low, high in ((ax, bx, left, right), (ay, by, bottom, top)):
        run = b - a
        still = np.abs(run) < 1e-12
        safe = np.where(still, 1.0, run)
        one, other = (low + hair - a) / safe, (high - hair - a) / safe
        enter = np.where(still, enter, np.maximum(enter, np.minimum(one, other)))
        leave = np.where(still, leave, np.minimum(leave, np.maximum(one, other)))
        hit &= ~still | ((a > low + hair) & (a < high - hair))
    return hit & (enter < leave)
