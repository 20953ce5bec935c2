"""Rise, set and day length against closed forms and common practice at 40° N.

Closed forms (spherical astronomy): cos w = (sin h - sin lat sin dec) / (cos lat cos dec) with
h = -0.8333 deg for the upper limb with mean refraction; cos A = (sin dec - sin h sin lat) /
(cos h cos lat).  The day lengths 15.015, 12.145 and 9.325 h at 40° N are the design page's.
"""

import math
from pathlib import Path

import numpy as np
import pytest

from jobs import FULL, option_a, warm_workspace_in
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sun.day_path import day_path
from ridge_tally.core.sun.occluders import OwnerKind
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.survey.shade import source_at
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.editing.design import design_for
from ridge_tally.studies.sun.sun_paths import sun_paths

DENVERISH = Location(40.0, -105.0, 0.0, -7.0)
TILT_DEG = 23.44
JUNE, MARCH, DECEMBER = 171, 79, 354


@pytest.mark.parametrize(
    ("day", "declination", "hours"),
    [(JUNE, TILT_DEG, 15.015), (MARCH, 0.0, 12.145), (DECEMBER, -TILT_DEG, 9.325)],
)
def test_day_length_and_sunrise_at_40_north(day: int, declination: float, hours: float) -> None:
    found = day_path(day, DENVERISH)
    assert found.day_length_h == pytest.approx(hours, abs=0.07)
    lat, dec, h = math.radians(40), math.radians(declination), math.radians(-0.8333)
    cosine = (math.sin(dec) - math.sin(h) * math.sin(lat)) / (math.cos(h) * math.cos(lat))
    assert found.rise is not None
    assert found.rise.azimuth_deg == pytest.approx(math.degrees(math.acos(cosine)), abs=0.6)


@pytest.mark.parametrize(("day", "from_east_deg"), [(JUNE, -20.0), (DECEMBER, 43.0)])
def test_the_sun_ten_degrees_up_stands_where_practice_says(day: int, from_east_deg: float) -> None:
    """Within 3° of 20° north of east at midsummer, 43° south of east at midwinter (common practice)."""
    spots = day_path(day, DENVERISH).spots
    morning = [s for s in spots if s.minute < 12 * 60]
    rising = [s for s in morning if s.elevation_deg < 40]
    azimuth = np.interp(10.0, [s.elevation_deg for s in rising], [s.azimuth_deg for s in rising])
    assert azimuth - 90 == pytest.approx(from_east_deg, abs=3)


def test_the_southern_day_is_the_northern_one_half_a_year_on() -> None:
    south = Location(-40.0, -105.0, 0.0, -7.0)
    assert day_path(DECEMBER, south).day_length_h == pytest.approx(
        day_path(JUNE, DENVERISH).day_length_h, abs=0.05
    )
    noon = max(day_path(JUNE, south).spots, key=lambda s: s.elevation_deg)
    assert min(noon.azimuth_deg, 360 - noon.azimuth_deg) < 4


def test_spots_are_those_of_the_sun_s_own_position() -> None:
    found = day_path(100, DENVERISH)
    for spot in found.spots[::9]:
        at = np.array([np.datetime64("2025-04-11T00:00", "s") + np.timedelta64(spot.minute * 60)])
        sun = sun_path(at, DENVERISH)
        assert spot.azimuth_deg == pytest.approx(float(sun.azimuth_deg[0]), abs=1e-6)


def test_the_sky_over_the_sample_holds_its_tree_where_it_was_sighted(tmp_path: Path) -> None:
    paths = sun_paths(warm_workspace_in(tmp_path).desk, design_for(FULL, option_a(FULL)), "south")
    tree = [b for b in paths.blocked if b.name == "Cottonwood"]
    assert {b.kind for b in tree} == {OwnerKind.TREE}
    source = next(s for s in FULL.survey.shade_sources if s.name == "Cottonwood")
    plane = FULL.survey.planes[0]
    middle = to_site(plane, corners_m(plane)).mean(axis=0)
    at = source_at(source)
    bearing = math.degrees(math.atan2(at.east_m - middle[0], at.north_m - middle[1])) % 360
    assert np.mean([b.azimuth_deg for b in tree]) == pytest.approx(bearing, abs=3)
