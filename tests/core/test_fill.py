"""Fills: legal by an independent geometry library, under every bound, the same mirrored."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from core.roofs import LAY, chimney, grounds, legal_by_shapely, roof, trapezoid, vent
from ridge_tally.core.array.blockers import LayoutRegion, ground_from, mirrored
from ridge_tally.core.array.fill import fill, fill_row_kinds
from ridge_tally.core.array.free import free_ceiling
from ridge_tally.core.array.lay import Lay, after_steps
from ridge_tally.core.array.shape import rail_m, rows_in, runs_of
from ridge_tally.core.job.array import Orientation, RowRule, Ways

WAYS = st.sampled_from(list(Ways))
RULES = st.sampled_from([RowRule.INDEPENDENT, RowRule.ALIGNED])


@settings(max_examples=20)
@given(grounds(), st.integers(1, 3))
def test_every_row_layout_is_legal_by_shapely_and_under_every_bound(
    ground: LayoutRegion, run: int
) -> None:
    lay = replace(LAY, shortest_run=run)
    fills = fill_row_kinds(ground, lay)
    # Any packing has less area than the roof, grown by half a gap.
    cell_m2 = (lay.long_m + 0.02) * (lay.short_m + 0.02)
    by_area = math.floor(Polygon(ground.corners).buffer(0.015).area / cell_m2)
    for kind, found in fills.items():
        assert legal_by_shapely(ground, lay, found.places)
        assert found.count <= found.at_most
        assert found.count <= min(by_area, free_ceiling(ground, lay, kind.ways))
        for one in runs_of(lay, found.places):
            assert one.modules >= run or kind.rule is RowRule.INDEPENDENT
    loose, mixed = RowRule.INDEPENDENT, Ways.MIXED
    by = {(k.ways, k.rule): f.count for k, f in fills.items()}
    assert by[mixed, loose] >= max(by[Ways.PORTRAIT, loose], by[Ways.LANDSCAPE, loose])
    assert all(by[w, RowRule.ALIGNED] <= by[w, loose] for w in Ways)


@settings(max_examples=25)
@given(grounds(), WAYS)
def test_a_layout_without_rows_is_legal_and_holds_no_less(ground: LayoutRegion, ways: Ways) -> None:
    found = fill(ground, LAY, ways, RowRule.FREE, after_steps(150))
    assert legal_by_shapely(ground, LAY, found.places)
    assert fill(ground, LAY, ways, RowRule.INDEPENDENT).count <= found.count <= found.at_most


@settings(max_examples=25)
@given(grounds(), WAYS, RULES)
def test_a_mirrored_roof_takes_the_same_proven_count(
    ground: LayoutRegion, ways: Ways, rule
) -> None:
    one = fill(ground, LAY, ways, rule, after_steps(300))
    other = fill(mirrored(ground, 0.0), LAY, ways, rule, after_steps(300))
    assume(one.proven and other.proven)
    assert one.count == other.count


@settings(max_examples=25)
@given(grounds(), WAYS, RULES, st.floats(1, 8), st.floats(1, 5))
def test_an_obstruction_more_never_raises_a_proven_count(ground, ways, rule, x, y) -> None:
    before = fill(ground, LAY, ways, rule, after_steps(300))
    after = fill(vent(ground, x, y, 0.2), LAY, ways, rule, after_steps(300))
    assume(before.proven and after.proven)
    assert after.count <= before.count


@settings(max_examples=25)
@given(st.floats(4, 12), st.floats(2.5, 6), st.floats(0.5, 5), WAYS)
def test_a_symmetric_layout_is_its_own_mirror_image(eave, height, x, ways) -> None:
    ground = vent(roof(eave, height), x, height / 2, 0.1)
    lay = replace(LAY, axis_m=eave / 2)
    for found in fill_row_kinds(ground, lay).values():
        assert legal_by_shapely(ground, lay, found.places)
        places = {(round(p.x_m, 4), round(p.y_m, 4), p.orientation) for p in found.places}
        for p in found.places:
            mirror = eave - p.x_m - lay.width_m(p.orientation)
            assert any(
                abs(mirror - other[0]) < 2e-4 and abs(p.y_m - other[1]) < 2e-4 for other in places
            )


@pytest.mark.parametrize(
    ("eave", "height", "ways", "count"),
    [
        # (10 - 0.6 + 0.02) / 1.07 = 8.8 across; (5 - 0.55 + 0.03) / 1.79 = 2.5 up: 8 x 2 by hand.
        (10, 5, Ways.PORTRAIT, 16),
        # (10 - 0.6 + 0.02) / 1.78 = 5.3; (5 - 0.55 + 0.03) / 1.08 = 4.1: 5 x 4 by hand.
        (10, 5, Ways.LANDSCAPE, 20),
        (3, 1.2, Ways.MIXED, 0),
        # Up the slope 1.76 + 0.03 + 1.05 = 2.84 of 2.85: one row of each, 8 + 5.
        (10, 3.4, Ways.MIXED, 13),
    ],
)
def test_a_rectangle_counts_as_division_does(eave, height, ways, count) -> None:
    found = fill(roof(eave, height), LAY, ways, RowRule.INDEPENDENT)
    assert (found.count, found.proven) == (count, True)


def test_turning_the_modules_takes_a_roof_from_ten_to_sixteen_to_twenty() -> None:
    """A fact of the trade: turning modules can double a roof (common practice, no source).

    A hip 10.5 m at the eave, 9.9 m at the ridge and 3.8 m up, a line of snow guards at 2.75 m.
    Portrait: one row of 10, the guards stop the second.  Landscape: 6 + 5, and 5 above the
    guards.  A portrait row with two of landscape above it: 10 + 5 + 5.
    """
    lay = Lay(1.70, 1.00, 0.02, 0.02)
    ground = ground_from(trapezoid(10.5, 9.9, 0.3, 3.8), [0.0] * 4, ["eave", "", "ridge", ""])
    for x in np.arange(0.5, 10.5, 0.9):
        ground = vent(ground, x, 2.75, 0.005, 0.0)
    found = [fill(ground, lay, ways, RowRule.INDEPENDENT) for ways in Ways]
    assert [(f.count, f.proven) for f in found] == [(10, True), (16, True), (20, True)]


@pytest.mark.parametrize("run", [1, 2, 3])
def test_no_run_is_shorter_than_asked(run: int) -> None:
    ground = chimney(vent(roof(8, 4.5), 2.2, 1.2, 0.1), 4.0, 1.4, 4.8, 2.2)
    lay = replace(LAY, shortest_run=run)
    for found in fill_row_kinds(ground, lay).values():
        assert min(r.modules for r in runs_of(lay, found.places)) >= run


def test_rows_and_rail_of_a_layout_are_counted_by_hand() -> None:
    # Two rows of eight: 8 x 1.05 + 7 x 0.02 = 8.54 m, two rails under each.
    runs = runs_of(LAY, fill(roof(10, 5), LAY, Ways.PORTRAIT, RowRule.ALIGNED).places)
    assert rows_in(runs) == 2
    assert rail_m(runs) == pytest.approx(4 * 8.54)


def test_a_long_barn_with_many_obstructions_is_filled() -> None:
    ground = roof(60, 12)
    rng = np.random.default_rng(5)
    for x, y in rng.uniform([1, 1], [59, 11], (200, 2)):
        ground = vent(ground, x, y, 0.05)
    found = fill(ground, LAY, Ways.MIXED, RowRule.INDEPENDENT)
    assert found.count > 50
    assert legal_by_shapely(ground, LAY, found.places)
    assert {p.orientation for p in found.places} <= set(Orientation)
