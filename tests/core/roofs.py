"""Roofs for layout tests, drawn at random, and their legality by an independent library."""

import numpy as np
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon, box

from ridge_tally.core.array.blockers import (
    BlockerKind,
    LayoutRegion,
    Owner,
    ground_from,
    with_disc,
    with_ring,
)
from ridge_tally.core.array.lay import Lay, Place

LAY = Lay(long_m=1.76, short_m=1.05, gap_in_row_m=0.02, gap_between_rows_m=0.03)
NAMES = ["eave", "right rake", "ridge", "left rake"]
STRIPS_M = [0.1, 0.3, 0.45, 0.3]


def trapezoid(eave: float, ridge: float, left: float, height: float) -> np.ndarray:
    return np.array([[0, 0], [eave, 0], [left + ridge, height], [left, height]], dtype=float)


def roof(eave: float, height: float, strips_m: list[float] | None = None) -> LayoutRegion:
    return ground_from(trapezoid(eave, eave, 0, height), strips_m or STRIPS_M, NAMES)


def vent(
    ground: LayoutRegion, x: float, y: float, radius: float, clearance: float = 0.1
) -> LayoutRegion:
    owner = Owner(BlockerKind.OBSTRUCTION, f"v{len(ground.owners)}", "vent")
    return with_disc(ground, x, y, radius, clearance, owner)


def chimney(
    ground: LayoutRegion, left: float, bottom: float, right: float, top: float
) -> LayoutRegion:
    ring = np.array([[left, bottom], [right, bottom], [right, top], [left, top]])
    return with_ring(ground, ring, 0.2, Owner(BlockerKind.OBSTRUCTION, "c", "chimney"))


@st.composite
def grounds(draw: st.DrawFn) -> LayoutRegion:
    """A trapezoid or an L with up to five vents and a chimney."""
    eave = draw(st.floats(3, 13))
    height = draw(st.floats(2, 7.5))
    if draw(st.booleans()):
        corners = trapezoid(eave, draw(st.floats(1, 13)), draw(st.floats(-2, 4)), height)
        ground = ground_from(corners, STRIPS_M, NAMES)
    else:
        x, y = eave * draw(st.floats(0.3, 0.7)), height * draw(st.floats(0.3, 0.7))
        corners = np.array([[0, 0], [eave, 0], [eave, y], [x, y], [x, height], [0, height]], float)
        ground = ground_from(corners, [0.1, 0.3, 0.2, 0.25, 0.45, 0.3], ["e"] * 6)
    for x, y, radius in draw(
        st.lists(st.tuples(st.floats(0, 12), st.floats(0, 7), st.floats(0.03, 0.4)), max_size=5)
    ):
        ground = vent(ground, x, y, radius)
    if draw(st.booleans()):
        left, bottom = draw(st.floats(1, 8)), draw(st.floats(0.5, 4))
        ground = chimney(ground, left, bottom, left + 0.8, bottom + 0.6)
    return ground


def shape(lay: Lay, place: Place) -> Polygon:
    right = place.x_m + lay.width_m(place.orientation)
    return box(place.x_m, place.y_m, right, place.y_m + lay.height_m(place.orientation))


def legal_by_shapely(ground: LayoutRegion, lay: Lay, places: tuple[Place, ...]) -> bool:
    """Whether every module keeps every distance to 0.1 mm, by shapely's own distances."""
    outline = Polygon(ground.corners).buffer(1e-6)
    blockers = [
        (Point(a[:2]) if (a[:2] == a[2:4]).all() else LineString([a[:2], a[2:4]]), a[4])
        for a in ground.capsules
    ]
    solids = [Polygon(ring) for ring in ground.solids]
    shapes = [shape(lay, p) for p in places]
    for module in shapes:
        if not outline.contains(module):
            return False
        if any(module.distance(body) < reach - 1e-4 for body, reach in blockers):
            return False
        if any(module.intersects(solid) for solid in solids):
            return False
    return all(
        _apart(lay, one.bounds, other.bounds)
        for i, one in enumerate(shapes)
        for other in shapes[i + 1 :]
    )


def _apart(lay: Lay, one: tuple[float, ...], other: tuple[float, ...]) -> bool:
    beside = max(other[0] - one[2], one[0] - other[2])
    above = max(other[1] - one[3], one[1] - other[3])
    return beside >= lay.gap_in_row_m - 1e-4 or above >= lay.gap_between_rows_m - 1e-4
