"""Shadows drawn to scale: against closed forms, against shapely, and against the sky's own answer."""

import numpy as np
import pytest
from shapely.geometry import Polygon
from shapely.ops import unary_union

from jobs import FULL
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.job.array import Orientation
from ridge_tally.core.job.places import SitePoint, Taped
from ridge_tally.core.job.survey import CrownShape, ShadeKind, ShadeSource, Survey
from ridge_tally.core.sun.occluders import OWN_PLANE_M, occluders_of
from ridge_tally.core.sun.shading import (
    FINE,
    Passing,
    cell_weights,
    glass_corners_m,
    glass_of,
    passes_of,
    reach_at,
    sample_points_m,
    skies_over,
)
from ridge_tally.core.sun.shadows import Screen, before_screen, shadows_on, toward_sun
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.survey.site_frame import axes, to_site

EVERYWHERE = (-1e6, -1e6, 1e6, 1e6)
GROUND = Screen(np.zeros(3), np.array([0.0, 0.0, 1.0]), EVERYWHERE)
LAY = Lay(1.722, 1.134, 0.02, 0.02)
SOUTH = FULL.survey.planes[0]


def metres(value: float) -> Taped:
    return Taped(value, f"{value} m")


def standing(kind: ShadeKind, crown: CrownShape = CrownShape.ROUND) -> Survey:
    """One thing 10 m high and 4 m across at the origin, its crown or eaves from 2 m up."""
    source = ShadeSource(
        "s", kind, "it", SitePoint(0, 0), metres(10), metres(4), metres(4), metres(2), metres(0),
        crown=crown,
    )  # fmt: skip
    return Survey((), shade_sources=(source,))


def thrown(survey: Survey, azimuth: float, elevation: float) -> Polygon:
    before = before_screen(GROUND, occluders_of(survey))
    found = shadows_on(before, toward_sun(azimuth, elevation))
    return unary_union([Polygon(s.ring) for s in found])


@pytest.mark.parametrize("elevation", [15.0, 45.0, 70.0])
@pytest.mark.parametrize("azimuth", [100.0, 180.0, 250.0])
def test_a_pole_throws_its_length_away_from_the_sun(azimuth: float, elevation: float) -> None:
    shadow = thrown(standing(ShadeKind.POLE), azimuth, elevation)
    reach = 10 / np.tan(np.radians(elevation))
    # A strip as wide as the pole with a half disc at each end.
    assert shadow.area == pytest.approx(4 * reach + np.pi * 4, rel=0.03)
    tip = np.array(shadow.centroid.coords[0]) * 2
    away = np.radians(azimuth + 180)
    assert tip == pytest.approx([reach * np.sin(away), reach * np.cos(away)], abs=0.05)


@pytest.mark.parametrize("elevation", [20.0, 50.0, 80.0])
def test_a_round_crown_throws_an_ellipse(elevation: float) -> None:
    # Half axes a across and sqrt(a2 + c2 / tan2 e) along; a = 2 m, c = 4 m.
    shadow = thrown(standing(ShadeKind.TREE), 200.0, elevation)
    along = np.sqrt(4 + 16 / np.tan(np.radians(elevation)) ** 2)
    # Drawn with 18 points, 2 % inside the curve.
    assert shadow.area == pytest.approx(np.pi * 2 * along, rel=0.025)
    reach = 6 / np.tan(np.radians(elevation))
    assert np.hypot(*shadow.centroid.coords[0]) == pytest.approx(reach, abs=0.05)


def test_a_cone_throws_a_point() -> None:
    shadow = thrown(standing(ShadeKind.TREE, CrownShape.CONE), 180.0, 30.0)
    tip = max(y for _, y in shadow.exterior.coords)
    assert tip == pytest.approx(10 / np.tan(np.radians(30)), abs=0.01)


def test_outlines_run_one_way_round_so_that_none_cancels_another() -> None:
    before = before_screen(GROUND, occluders_of(FULL.survey))
    for azimuth in (110.0, 180.0, 240.0):
        for shadow in shadows_on(before, toward_sun(azimuth, 25.0)):
            x, y = np.array(shadow.ring).T
            assert np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y) >= 0


def test_behind_the_plane_there_is_no_sun_to_throw() -> None:
    normal = np.cross(*axes(SOUTH.azimuth_deg, SOUTH.slope_deg))
    screen = Screen(to_site(SOUTH, corners_m(SOUTH))[0], normal, EVERYWHERE, OWN_PLANE_M)
    before = before_screen(screen, occluders_of(FULL.survey))
    assert shadows_on(before, toward_sun(0.0, 10.0)) == ()


@pytest.mark.parametrize(
    "place", [Place(8.05, 4.3, Orientation.PORTRAIT), Place(0.4, 0.3, Orientation.PORTRAIT)]
)
def test_the_drawn_shadow_covers_what_the_sky_says(place: Place) -> None:
    occluders, glass = occluders_of(FULL.survey), glass_of(SOUTH, 0.0)
    ring = Polygon(glass_corners_m(SOUTH, LAY, place)[:, :2])
    normal = np.cross(*axes(SOUTH.azimuth_deg, SOUTH.slope_deg))
    # The glass stands off the roof: shadows are thrown on its own plane here.
    screen = Screen(glass_corners_m(SOUTH, LAY, place)[0], normal, EVERYWHERE, OWN_PLANE_M)
    before = before_screen(screen, occluders)
    points = sample_points_m(SOUTH, LAY, place, 3, FINE).reshape(-1, 3)
    sky = skies_over(occluders, glass, points, cell_weights(glass, FINE.rows))
    solid = passes_of(occluders, Passing(0.0, 0.0))
    covered, reached = [], []
    for azimuth in range(120, 281, 8):
        for elevation in (10, 18, 30, 45):
            found = shadows_on(before, toward_sun(azimuth, elevation))
            dark = unary_union([Polygon(s.ring).buffer(0) for s in found]).intersection(ring)
            covered.append(dark.area / ring.area)
            reached.append(
                reach_at(
                    sky, 3, np.array([float(azimuth)]), np.array([float(elevation)]), np.array([0]), solid
                ).mean()
            )  # fmt: skip
    parted = np.abs(np.array(covered) - (1 - np.array(reached)))
    assert np.sqrt(np.mean(parted**2)) < 0.06
    assert max(covered) > 0.3
