"""Fills: every place legal by an independent geometry library, counts under every bound."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon, box

from ridge_tally.core.array.blockers import Ground
from ridge_tally.core.array.fill import Footprint, fill_rows, fits

PORTRAIT = Footprint(1.05, 1.76, 0.02, 0.02)
LANDSCAPE = Footprint(1.76, 1.05, 0.02, 0.02)
SETBACKS = (0.1, 0.3, 0.45, 0.3)


def trapezoid(eave: float, ridge: float, left: float, height: float) -> np.ndarray:
    return np.array([[0, 0], [eave, 0], [left + ridge, height], [left, height]], dtype=float)


def ground_with(corners: np.ndarray, vents: list[tuple[float, float, float]]) -> Ground:
    capsules = [[*corners[i], *corners[(i + 1) % 4], SETBACKS[i]] for i in range(4)] + [
        [x, y, x, y, r] for x, y, r in vents
    ]
    return Ground(corners, np.array(capsules), ())


@st.composite
def grounds(draw: st.DrawFn) -> tuple[Ground, list[tuple[float, float, float]]]:
    eave = draw(st.floats(3, 14))
    ridge = draw(st.floats(1, 14))
    left = draw(st.floats(-2, 4))
    corners = trapezoid(eave, ridge, left, draw(st.floats(2, 8)))
    spot = st.tuples(st.floats(0, 12), st.floats(0, 7), st.floats(0.1, 0.6))
    vents = draw(st.lists(spot, max_size=5))
    return ground_with(corners, vents), vents


@settings(max_examples=60)
@given(grounds(), st.sampled_from([PORTRAIT, LANDSCAPE]))
def test_every_place_is_legal_by_shapely_and_under_the_bounds(ground_vents, footprint) -> None:
    ground, vents = ground_vents
    fill = fill_rows(ground, footprint)
    outline = Polygon(ground.corners)
    boxes = [box(x, y, x + footprint.width_m, y + footprint.height_m) for x, y in fill.places_m]
    sides = [LineString(ground.capsules[i, :4].reshape(2, 2)) for i in range(4)]
    for module in boxes:
        assert outline.buffer(1e-6).contains(module)
        for side, setback in zip(sides, SETBACKS, strict=True):
            assert module.distance(side) >= setback - 1e-4
        for vx, vy, r in vents:
            assert module.distance(Point(vx, vy)) >= r - 1e-4
    if boxes:
        assert fits(ground, footprint, np.array(fill.places_m)).all()
    for i, one in enumerate(boxes):
        for other in boxes[i + 1 :]:
            assert one.distance(other) >= 0.02 - 1e-4
    assert len(boxes) <= fill.at_most
    # Any packing has less area than the roof inside its setbacks, grown by half a gap.
    cell_m2 = (footprint.width_m + 0.02) * (footprint.height_m + 0.02)
    assert len(boxes) <= math.floor(outline.buffer(0.01).area / cell_m2)


@settings(max_examples=30)
@given(grounds())
def test_a_mirrored_roof_takes_the_same_count(ground_vents) -> None:
    ground, _ = ground_vents
    flip = np.array([-1.0, 1.0])
    corners = (ground.corners * flip)[::-1]
    capsules = ground.capsules * np.array([-1.0, 1.0, -1.0, 1.0, 1.0])
    mirrored = Ground(corners, capsules, ())
    one, other = fill_rows(ground, PORTRAIT), fill_rows(mirrored, PORTRAIT)
    if one.proven and other.proven:
        assert len(one.places_m) == len(other.places_m)


def test_a_rectangle_counts_as_division_does() -> None:
    # (10 - 0.6 + 0.02) / 1.07 = 8.8 across; (5 - 0.55 + 0.02) / 1.78 = 2.5 up: 8 x 2 by hand.
    fill = fill_rows(ground_with(trapezoid(10, 10, 0, 5), []), PORTRAIT)
    assert len(fill.places_m) == 16
    assert fill.proven


def test_a_roof_smaller_than_a_module_takes_none() -> None:
    fill = fill_rows(ground_with(trapezoid(3, 3, 0, 1.2), []), PORTRAIT)
    assert fill.places_m == ()
    assert fill.proven


@pytest.mark.parametrize(
    ("x", "y", "legal"), [(0.3, 0.1, True), (0.29, 0.1, False), (0.3, 0.09, False)]
)
def test_a_place_short_of_its_setback_by_a_centimetre_is_refused(x, y, legal) -> None:
    ground = ground_with(trapezoid(10, 10, 0, 5), [])
    assert fits(ground, PORTRAIT, np.array([[x, y]])).tolist() == [legal]
