"""Tables on sloping ground: which modules stand on which, how high, and their glass in one face."""

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from jobs import SHELF
from ridge_tally.core.array.tables import columns_of, front_m, raised, tables_of
from ridge_tally.core.job.document import option_of
from ridge_tally.core.job.edits.array.tables import SetTableField, TableField
from ridge_tally.core.job.ids import LotLineId, OptionId
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import LotLine
from ridge_tally.core.job.system import system_of
from ridge_tally.core.sun.shading import glass_corners_m
from ridge_tally.core.survey.lot import lot_distance_m
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.demo.kiln_yard import YARD, kiln_yard
from ridge_tally.editing.apply import apply_edit
from ridge_tally.rules.array.checks import lay_of

A = OptionId("a")
KILN = kiln_yard(SHELF)
TWO = apply_edit(KILN, SetTableField(A, YARD, TableField.ROWS, "2", lay_anew=True), SHELF)


def there(job):
    laid = system_of(job, option_of(job, A)).on(YARD)
    return laid.plane, laid.array, lay_of(laid)


def test_three_rows_are_three_tables_bays_among_them() -> None:
    plane, array, lay = there(KILN)
    tables = tables_of(plane, array, lay)
    assert [len(t.modules) for t in tables] == [9, 9, 9]
    # By hand: nine modules of 1.04 m and eight gaps of 20 mm.
    width = 9 * lay.short_m + 8 * 0.02
    assert [t.right_m - t.left_m for t in tables] == pytest.approx([width] * 3)
    depth = lay.long_m * math.cos(math.radians(30))
    gaps = [b.front_m - a.front_m - depth for a, b in pairwise(tables)]
    assert gaps == pytest.approx([array.gap_between_rows.value_m] * 2, abs=2e-3)


def test_a_table_clears_the_highest_ground_under_its_front_and_is_level() -> None:
    plane, array, lay = there(KILN)
    for table in tables_of(plane, array, lay):
        ends = to_site(
            plane, np.array([[table.left_m, table.front_m], [table.right_m, table.front_m]])
        )
        assert table.base_m == pytest.approx(ends[:, 2].max() + 0.6)
        places = raised(plane, array, lay, table.modules)
        corners = np.array([glass_corners_m(plane, lay, p) for p in places])
        assert corners[:, :2, 2] == pytest.approx(table.base_m)
        assert corners[:, 2:, 2] == pytest.approx(
            table.base_m + lay.long_m * math.sin(math.radians(30))
        )


def test_heights_over_a_sloping_plane_by_hand() -> None:
    # The ground falls 4° towards 170°; the row faces 186°.  From one end of 9.5 m to the other it
    # falls by 9.5 m · sin(16°) · tan 4° across the fall's direction.
    plane, array, lay = there(KILN)
    table = tables_of(plane, array, lay)[0]
    width = table.right_m - table.left_m
    ends = to_site(plane, np.array([[table.left_m, 1.0], [table.right_m, 1.0]]))[:, 2]
    assert abs(ends[1] - ends[0]) == pytest.approx(
        width * math.sin(math.radians(16)) * math.tan(math.radians(4)), rel=1e-6
    )


def test_two_tiers_lie_in_one_face_with_a_clamp_between_them() -> None:
    plane, array, lay = there(TWO)
    assert lay.tiers == 2
    table = tables_of(plane, array, lay)[0]
    assert {m.tier for m in table.modules} == {0, 1}
    column = columns_of(lay, table.modules)[0][1]
    low, high = sorted(column, key=lambda m: m.tier)
    assert front_m(lay, high) == pytest.approx(front_m(lay, low), abs=1e-4)
    below, above = (glass_corners_m(plane, lay, p) for p in raised(plane, array, lay, (low, high)))
    # The upper one begins a gap of 20 mm up the glass above the lower one's upper edge.
    assert np.linalg.norm(above[0] - below[3]) == pytest.approx(0.02, abs=1e-4)
    normal = np.cross(below[1] - below[0], below[3] - below[0])
    assert abs((above - below[0]) @ normal).max() < 1e-3


def test_bays_stay_bays_when_the_tables_are_tilted_anew() -> None:
    _, array, _ = there(KILN)
    job = apply_edit(KILN, SetTableField(A, YARD, TableField.CLEARANCE, "0.9"), SHELF)
    _, raised_array, _ = there(job)
    off = {m.id for m in array.modules if not m.present}
    assert {m.id for m in raised_array.modules if not m.present} == off
    assert len(off) == 3


@given(
    st.lists(st.tuples(st.floats(-20, 20), st.floats(-20, 20)), min_size=2, max_size=5),
    st.booleans(),
    st.floats(-10, 10),
    st.floats(-10, 10),
)
def test_the_distance_to_a_lot_line_is_that_of_a_geometry_library(
    points: list[tuple[float, float]], closed: bool, east: float, north: float
) -> None:
    ring = np.array([[0, 0], [4, 0], [4, 2], [0, 2]], dtype=float) + np.array([east, north])
    line = LotLine(LotLineId("l"), "lot", tuple(SitePoint(*p) for p in points), closed=closed)
    drawn = shapely.LineString([*points, points[0]] if closed else points)
    told = lot_distance_m([ring], [line])
    assert told == pytest.approx(shapely.LinearRing(ring).distance(drawn), abs=1e-9)
    assert lot_distance_m([ring], [replace(line, points=())]) is None
