"""Row spacing against the design table, the formula, the reference library and cast rays."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridge_tally.core.job.survey import GroundArea
from ridge_tally.core.sky.sun import SunPath
from ridge_tally.core.sun.row_spacing import Rows, gap_m, shaded_frac, solstice_gap_m, solstice_sun
from ridge_tally.core.survey.ground import rise_behind, rise_m


def sun(elevation_deg: float, azimuth_deg: float) -> SunPath:
    return SunPath(np.array([90.0 - elevation_deg]), np.array([azimuth_deg]))


@pytest.mark.parametrize(
    ("latitude", "wanted"),
    [(25, 1.512), (30, 1.843), (35, 2.301), (40, 2.991), (45, 4.170), (50, 6.702)],
)
def test_gaps_by_height_from_9_to_15_h_are_those_of_the_table(
    latitude: float, wanted: float
) -> None:
    # D = H cos(Az) / tan(el) at 9 h of the shortest day: engine page, section 5, derivable.
    rows = Rows(90.0, 180.0, 1.0)
    assert solstice_gap_m(rows, latitude) == pytest.approx(wanted, abs=0.004)
    # The same in the south, rows facing north.
    assert solstice_gap_m(Rows(90.0, 0.0, 1.0), -latitude) == pytest.approx(wanted, abs=0.004)


def test_the_sun_at_nine_on_the_shortest_day_at_40_north() -> None:
    # Engine page, section 5: elevation 13.963°, azimuth 41.952° from south.
    elevation, azimuth = solstice_sun(40.0, 9.0)
    assert elevation == pytest.approx(13.963, abs=0.02)
    assert 180 - azimuth == pytest.approx(41.952, abs=0.02)


@pytest.mark.parametrize(("latitude", "wanted"), [(30, 1.558), (40, 2.528), (45, 3.524)])
def test_two_metres_at_25_degrees(latitude: float, wanted: float) -> None:
    assert solstice_gap_m(Rows(25.0, 180.0, 2.0), latitude) == pytest.approx(wanted, abs=0.004)


@settings(max_examples=60, deadline=None)
@given(
    st.floats(10, 60), st.floats(-60, 60), st.floats(8, 60), st.floats(-70, 70),
    st.floats(-0.12, 0.12),
)  # fmt: skip
def test_the_reference_library_shades_nothing_just_beyond_and_something_just_within(
    tilt: float, facing: float, elevation: float, off: float, rise: float
) -> None:
    rows = Rows(tilt, 180.0 + facing, 2.0, rise)
    azimuth = rows.facing_deg + off
    gap = gap_m(rows, elevation, azimuth)
    if not 0.05 < gap < 40:
        return
    assert shaded_frac(rows, gap * 1.0001, sun(elevation, azimuth))[0] == pytest.approx(0, abs=1e-9)
    assert shaded_frac(rows, gap * 0.99, sun(elevation, azimuth))[0] > 0


@settings(max_examples=60, deadline=None)
@given(
    st.floats(10, 60), st.floats(8, 60), st.floats(-60, 60), st.floats(0.1, 6),
    st.floats(-0.1, 0.1),
)  # fmt: skip
def test_the_shaded_share_is_that_of_cast_rays(
    tilt: float, elevation: float, off: float, gap: float, rise: float
) -> None:
    rows = Rows(tilt, 180.0, 2.0, rise)
    # Rays from points up the next row's glass towards the sun, in the plane across long rows.
    el, az = math.radians(elevation), math.radians(off)
    slope_of_ray = math.tan(el) / math.cos(az)
    steps = (np.arange(4000) + 0.5) / 4000
    pitch = gap + rows.depth_m
    behind = pitch + steps * rows.depth_m
    height = rise * pitch + steps * rows.height_m
    at_edge = height + (behind - rows.depth_m) * slope_of_ray
    at_foot = height + behind * slope_of_ray
    blocked = (at_edge < rows.height_m) & (at_foot > 0)
    told = shaded_frac(rows, gap, sun(elevation, 180.0 + off))[0]
    assert told == pytest.approx(float(blocked.mean()), abs=2e-3)


def test_ground_that_falls_to_the_sun_brings_rows_together_and_the_other_way_apart() -> None:
    falls_south = GroundArea(slope_deg=5.0, falls_to_deg=180.0)
    assert rise_behind(falls_south, 180.0) == pytest.approx(math.tan(math.radians(5)))
    assert rise_behind(falls_south, 90.0) == pytest.approx(0, abs=1e-12)
    level = solstice_gap_m(Rows(30, 180, 2), 43)
    up = solstice_gap_m(Rows(30, 180, 2, rise_behind(falls_south, 180)), 43)
    down = solstice_gap_m(Rows(30, 180, 2, -rise_behind(falls_south, 180)), 43)
    assert up < level < down
    # By hand: 10 m north of the measuring point the ground stands 10 tan 5° higher.
    rise = rise_m(falls_south, np.array([[3.0, 10.0]]))
    assert rise[0] == pytest.approx(10 * math.tan(math.radians(5)))
