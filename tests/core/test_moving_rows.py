"""Rows that may stand anywhere, rectangles and single rows: by a map, legal, never worse."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from core.roofs import LAY, chimney, grounds, legal_by_shapely, roof
from ridge_tally.core.array.blockers import LayoutRegion
from ridge_tally.core.array.fill import fill
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.moving import longest_row, moving_rows, one_row
from ridge_tally.core.array.rectangles import Shape, rectangle, shapes_of
from ridge_tally.core.array.search import prepared
from ridge_tally.core.array.shape import runs_of
from ridge_tally.core.array.worth import WorthMap, corners
from ridge_tally.core.job.array import Orientation, RowRule, Ways

P, L = Orientation.PORTRAIT, Orientation.LANDSCAPE
EVEN = WorthMap(0.0, 0.0, (1.0, 1.0), np.full((9, 15), 100.0))


def mapped(seed: int) -> WorthMap:
    return WorthMap(0.0, 0.0, (1.0, 1.0), np.random.default_rng(seed).uniform(60, 100, (9, 15)))


def total(worth: WorthMap, lay: Lay, places: tuple[Place, ...]) -> float:
    return sum(
        float(worth.at(lay, p.orientation, np.array([p.x_m]), np.array([p.y_m]))[0]) for p in places
    )


def test_the_map_is_linear_between_its_nodes() -> None:
    slope = WorthMap(0.0, 0.0, (2.0, 2.0), np.array([[0.0, 2.0], [10.0, 12.0]]))
    # Middles at (0.525 + 0.475, 0.88 + 0.12) = (1, 1): the mean of four.
    assert slope.at(LAY, P, np.array([0.475]), np.array([0.12]))[0] == pytest.approx(6.0)


@settings(max_examples=25)
@given(grounds(), st.integers(1, 3), st.integers(0, 99), st.sampled_from([0.0, 5.0, 60.0]))
def test_moved_rows_are_legal_of_the_number_asked_and_no_worse_than_known_ones(
    ground: LayoutRegion, shortest: int, seed: int, price: float
) -> None:
    lay, worth = replace(LAY, shortest_run=shortest), mapped(seed)
    full = fill(ground, lay, Ways.MIXED, RowRule.INDEPENDENT)
    ready = prepared(ground, lay)
    every = Ways.MIXED.orientations
    found = moving_rows(ready, every, worth, full.count, price, full.places)
    if full.count == 0:
        assert found == ()
        return
    assert len(found) == full.count
    assert legal_by_shapely(ground, lay, found)
    assert min(r.modules for r in runs_of(lay, found)) >= shortest

    def net(places: tuple[Place, ...]) -> float:
        return total(worth, lay, places) - price * len(runs_of(lay, places))

    if min(r.modules for r in runs_of(lay, full.places)) >= shortest:
        assert net(found) >= net(full.places) - 1e-6


def test_rows_go_where_the_light_is() -> None:
    # Bright below 1.5 m and above 4.5 m of a roof 6 m high: two rows of two stand at both ends.
    bright = np.full((7, 5), 50.0)
    bright[:2] = bright[5:] = 100.0
    worth = WorthMap(0.0, 0.0, (1.0, 1.0), bright)
    ready = prepared(roof(2.8, 6.0, [0.0] * 4), LAY, (P,))
    found = moving_rows(ready, (P,), worth, 4, 0.0)
    bottoms = sorted({p.y_m for p in found})
    assert len(bottoms) == 2
    # Middles at most 1 m up and at least 5 m up: worth 100 each.
    assert bottoms[0] <= 1.0 - 0.88 + 1e-9
    assert bottoms[1] >= 5.0 - 0.88 - 1e-9
    assert total(worth, LAY, found) == pytest.approx(400.0)


def test_more_than_rows_hold_is_nothing() -> None:
    ready = prepared(roof(2.8, 2.0, [0.0] * 4), LAY)
    assert moving_rows(ready, (P, L), EVEN, 3, 0.0) == ()


@pytest.mark.parametrize(("length_m", "held"), [(4.259, 3), (4.26, 4), (4.261, 4)])
def test_one_row_holds_what_its_length_takes(length_m: float, held: int) -> None:
    # Four of 1.05 m and three gaps of 20 mm are 4.26 m.
    ready = prepared(roof(length_m, 1.8, [0.0] * 4), LAY, (P,))
    assert longest_row(ready, (P,), EVEN, 9) == held
    row = one_row(ready, (P,), EVEN, held)
    assert len(row) == held
    assert one_row(ready, (P,), EVEN, held + 1) == ()


def test_one_row_is_broken_only_where_it_must_be() -> None:
    # Below the chimney four stand unbroken; across its height they would be parted.
    ground = chimney(roof(5.0, 4.2, [0.0] * 4), 2.2, 2.2, 2.8, 3.0)
    row = one_row(prepared(ground, LAY, (P,)), (P,), mapped(3), 4)
    assert len(runs_of(LAY, row)) == 1
    assert max(p.y_m for p in row) + 1.76 <= 2.2 - 0.2 + 1e-6


def test_the_rectangles_of_a_roof_of_twelve_by_seven() -> None:
    # By hand: upright 11 in a row (11 × 1.05 + 10 × 0.02 = 11.75 m), 3 rows (5.34 m);
    # lying 6 in a row (10.66 m), 6 rows (6.45 m).
    shapes = set(shapes_of(prepared(roof(12.0, 7.0, [0.0] * 4), LAY), 36))
    assert Shape(P, 3, 11) in shapes
    assert Shape(L, 6, 6) in shapes
    assert not {Shape(P, 1, 12), Shape(P, 4, 4), Shape(L, 1, 7), Shape(L, 7, 1)} & shapes
    assert {s for s in shapes if s.modules == 16} == {Shape(P, 2, 8), Shape(L, 4, 4)}


@settings(max_examples=25)
@given(grounds(), st.integers(2, 12), st.integers(0, 99))
def test_a_rectangle_is_legal_whole_and_has_four_corners(
    ground: LayoutRegion, modules: int, seed: int
) -> None:
    ready = prepared(ground, LAY)
    for shape in shapes_of(ready, modules):
        if shape.modules == modules:
            places = rectangle(ready, shape, mapped(seed))
            assert len(places) == modules
            assert legal_by_shapely(ground, LAY, places)
            assert corners(LAY, places) == 4


def test_a_symmetric_rectangle_stands_about_the_axis() -> None:
    ready = prepared(roof(6.0, 4.0, [0.0] * 4), replace(LAY, axis_m=3.0))
    places = rectangle(ready, Shape(P, 1, 2), mapped(1))
    assert sum(p.x_m + 0.525 for p in places) / 2 == pytest.approx(3.0)


def test_corners_are_counted() -> None:
    # Eight over eight are a rectangle; ten with six over their left end have two more; and a
    # row set off sideways by half a module has all eight.
    def row(count: int, y_m: float, start_m: float = 0.0) -> tuple[Place, ...]:
        return tuple(Place(start_m + i * 1.07, y_m, P) for i in range(count))

    assert corners(LAY, row(8, 0.0) + row(8, 1.79)) == 4
    assert corners(LAY, row(10, 0.0) + row(6, 1.79)) == 6
    assert corners(LAY, row(4, 0.0) + row(4, 1.79, 0.5)) == 8
    assert corners(LAY, row(4, 0.0) + row(4, 2.5)) == 8
