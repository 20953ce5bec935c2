"""The sky over an array: against exact shadows by shapely, against closed forms, and by season."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import MultiPoint, Point, Polygon, box
from shapely.ops import unary_union

from jobs import FULL
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.job.array import Orientation
from ridge_tally.core.job.places import SitePoint, Taped
from ridge_tally.core.job.survey import (
    CrownShape,
    HorizonPoint,
    LeafHabit,
    RoofPlane,
    ShadeKind,
    ShadeSource,
    Survey,
)
from ridge_tally.core.sky.plane_irradiance import LightParts, glass_passing, light_parts
from ridge_tally.core.sky.stand_in_year import stand_in_year
from ridge_tally.core.sky.sun import Location, SunPath, sun_path
from ridge_tally.core.sun.occluders import occluders_of, with_rows
from ridge_tally.core.sun.shading import (
    FINE,
    QUICK,
    Glass,
    Passing,
    Resolution,
    cell_groups,
    cell_weights,
    glass_corners_m,
    glass_of,
    hours_of,
    module_light,
    passes_of,
    reach_at,
    sample_points_m,
    skies_over,
    substring_light,
)
from ridge_tally.core.survey.site_frame import axes
from ridge_tally.simulators.weather_service import normals_at

SOUTH = FULL.survey.planes[0]
LAY = Lay(1.722, 1.134, 0.02, 0.02)
P, L = Orientation.PORTRAIT, Orientation.LANDSCAPE
PASSING = Passing(0.2, 0.6)
NOON_MONTH = 5
SITE = Location(36.2, -105.6, 2150.0, -7.0)


def metres(value: float) -> Taped:
    return Taped(value, f"{value} m")


def source(kind: ShadeKind, east: float, north: float, **change: object) -> ShadeSource:
    made = ShadeSource(
        "s", kind, "it", SitePoint(east, north), metres(9), metres(4), metres(6), metres(3),
        metres(0.3),
    )  # fmt: skip
    return replace(made, **change)


def bare(plane: RoofPlane = SOUTH, **change: object) -> RoofPlane:
    return replace(plane, obstructions=(), keep_outs=(), existing=(), **change)


def beam_lost(
    survey: Survey,
    plane: RoofPlane,
    place: Place,
    azimuth_deg: float,
    elevation_deg: float,
    resolution: Resolution = FINE,
    month: int = NOON_MONTH,
) -> float:
    """The share of the beam a module loses at one moment."""
    occluders = occluders_of(survey)
    glass = glass_of(plane, 0.0)
    points = sample_points_m(plane, LAY, place, 3, resolution).reshape(-1, 3)
    sky = skies_over(occluders, glass, points, cell_weights(glass, resolution.rows))
    reach = reach_at(
        sky, 3, np.array([azimuth_deg]), np.array([elevation_deg]), np.array([month]),
        passes_of(occluders, PASSING),
    )  # fmt: skip
    return float(1 - reach.mean())


def shadow_share(survey: Survey, plane: RoofPlane, place: Place, az: float, el: float) -> float:
    """The same by projecting every face along the sun onto the glass: exact, by shapely."""
    a, e = np.radians(az), np.radians(el)
    sun = np.array([np.cos(e) * np.sin(a), np.cos(e) * np.cos(a), np.sin(e)])
    right, up = axes(plane.azimuth_deg, plane.slope_deg)
    normal = np.cross(right, up)
    foot = sample_points_m(plane, LAY, place, 1, Resolution("one", 1, 1, 1)).reshape(3)
    w, h = LAY.width_m(place.orientation), LAY.height_m(place.orientation)
    glass = box(-w / 2, -h / 2, w / 2, h / 2)
    occluders = occluders_of(survey)
    shadows = []
    for f in range(len(occluders.face_owners)):
        ring = occluders.corners_m[occluders.starts[f] : occluders.starts[f + 1]] - foot
        ahead = ring @ normal
        if abs(occluders.normals[f] @ normal) > 0.9999 and abs(ahead).max() < 0.3:
            continue
        if (ahead <= 1e-6).any() and (ahead > 1e-6).any():
            ring = _before(ring, ahead)
        elif (ahead <= 1e-6).all():
            continue
        fallen = ring - np.outer(ring @ normal, sun) / (sun @ normal)
        flat = np.column_stack([fallen @ right, fallen @ up])
        shadows.append(MultiPoint(flat).convex_hull)
    return unary_union(shadows).intersection(glass).area / glass.area if shadows else 0.0


def _before(ring: np.ndarray, ahead: np.ndarray) -> np.ndarray:
    """A ring cut off at the plane of the glass."""
    kept = []
    for i in range(len(ring)):
        j = (i + 1) % len(ring)
        if ahead[i] > 0:
            kept.append(ring[i])
        if (ahead[i] > 0) != (ahead[j] > 0):
            kept.append(ring[i] + (ring[j] - ring[i]) * ahead[i] / (ahead[i] - ahead[j]))
    return np.array(kept)


CHIMNEY_ONLY = replace(
    FULL.survey,
    planes=(replace(SOUTH, obstructions=SOUTH.obstructions[:1]),),
    shade_sources=(),
    horizon=(),
)


@settings(max_examples=60)
@given(
    st.floats(80, 280),
    st.floats(12, 70),
    st.floats(4.5, 9.5),
    st.floats(3.0, 4.7),
    st.sampled_from([P, L]),
)  # fmt: skip
def test_a_chimney_shades_what_its_exact_shadow_covers(az, el, x, y, way) -> None:
    plane = CHIMNEY_ONLY.planes[0]
    place = Place(x, y, way)
    chimney = box(7.16, 4.57, 7.98, 5.39)
    if box(x, y, x + LAY.width_m(way), y + LAY.height_m(way)).intersects(chimney.buffer(0.02)):
        return
    exact = shadow_share(CHIMNEY_ONLY, plane, place, az, el)
    assert beam_lost(CHIMNEY_ONLY, plane, place, az, el) == pytest.approx(exact, abs=0.09)


def test_exact_shadows_and_the_sky_agree_over_many_moments() -> None:
    plane, place = CHIMNEY_ONLY.planes[0], Place(8.05, 4.3, P)
    moments = [(az, el) for az in range(190, 291, 10) for el in range(15, 75, 8)]
    exact = np.array([shadow_share(CHIMNEY_ONLY, plane, place, *m) for m in moments])
    for resolution, rmse in ((FINE, 0.02), (QUICK, 0.05)):
        ours = np.array([beam_lost(CHIMNEY_ONLY, plane, place, *m, resolution) for m in moments])
        assert np.sqrt(np.mean((ours - exact) ** 2)) < rmse
        assert abs(np.mean(ours - exact)) < 0.006
    assert exact.max() > 0.3


@pytest.mark.parametrize("slope", [0.0, 18.0, 45.0, 89.0])
@pytest.mark.parametrize("rows", [QUICK.rows, FINE.rows])
def test_a_free_plane_sees_one_plus_cosine_over_two_of_the_sky(slope: float, rows: int) -> None:
    seen = cell_weights(Glass(slope, 180.0), rows).sum() / np.pi
    assert seen == pytest.approx((1 + np.cos(np.radians(slope))) / 2, abs=2e-4)


def sky_lost(survey: Survey, plane: RoofPlane, place: Place) -> float:
    occluders = occluders_of(survey)
    glass = glass_of(plane, 0.0)
    weights = cell_weights(glass, FINE.rows)
    points = sample_points_m(plane, LAY, place, 3, FINE).reshape(-1, 3)
    sky = skies_over(occluders, glass, points, weights)
    none = np.zeros(1)
    parts = LightParts(none, none, np.ones(1), none, none)
    hours = hours_of(
        np.array(["2025-01-01T12:30"], "datetime64[s]"),
        SunPath(np.array([95.0]), np.array([0.0])),
    )
    groups = cell_groups(QUICK if len(sky) == 12 else FINE, half_cut=False)
    light = module_light(
        sky, 3, groups, hours, parts, weights, passes_of(occluders, PASSING), len(occluders.owners)
    )
    # The one moment stands for the whole year of hours.
    lost = float(light.lost.sum()) / hours.step_h
    assert lost == pytest.approx(1 - light.sky_open_frac[:, 0].mean())
    return lost


@pytest.mark.parametrize("up_to", [5.0, 20.0, 45.0])
def test_a_level_horizon_takes_its_sine_squared_from_a_flat_plane(up_to: float) -> None:
    # The cosine-weighted sky below an elevation h on a level plane is sin2 h.
    ring = tuple(HorizonPoint(b, up_to) for b in (0.0, 90.0, 180.0, 270.0))
    plane = bare(slope_deg=0.0)
    survey = Survey((plane,), horizon=ring)
    lost = sky_lost(survey, plane, Place(3, 3, P))
    assert lost == pytest.approx(np.sin(np.radians(up_to)) ** 2, abs=0.012)


def test_a_pole_and_a_crown_stand_where_they_stand() -> None:
    plane = bare()
    place = Place(6.0, 3.0, P)
    middle = sample_points_m(plane, LAY, place, 3, FINE).reshape(-1, 3).mean(axis=0)
    east, north = middle[0] + 20 * np.sin(np.radians(200)), middle[1] + 20 * np.cos(np.radians(200))
    for kind in (ShadeKind.POLE, ShadeKind.TREE):
        survey = Survey((plane,), shade_sources=(source(kind, east, north, base=metres(2)),))
        rise = np.degrees(np.arctan((6.0 - middle[2]) / 20))
        assert beam_lost(survey, plane, place, 200, rise) > 0.7
        assert beam_lost(survey, plane, place, 20, rise) == 0
        assert beam_lost(survey, plane, place, 180, rise) == 0
        assert beam_lost(survey, plane, place, 200, rise + 25) == 0


@pytest.mark.parametrize(("month", "lost"), [(0, 0.4), (3, 0.4), (4, 0.8), (9, 0.8), (10, 0.4)])
def test_a_deciduous_crown_lets_more_through_while_it_is_bare(month: int, lost: float) -> None:
    plane, place = bare(), Place(6.0, 3.0, P)
    tree = source(
        ShadeKind.TREE, 6.0, -9.0, leaf=LeafHabit.DECIDUOUS, height=metres(14), base=metres(0.5),
        width=metres(14), trunk=metres(0),
    )  # fmt: skip
    survey = Survey((plane,), shade_sources=(tree,))
    assert beam_lost(survey, plane, place, 180, 15, month=month) == pytest.approx(lost, abs=0.02)


def test_the_mirrored_site_shades_the_mirrored_module_alike() -> None:
    plane = bare(azimuth_deg=180.0, at=SitePoint(-6.0, 0.0))
    pole = source(ShadeKind.POLE, 5.0, -6.0)
    east, west = Place(8.0, 3.0, P), Place(12.192 - 8.0 - 1.134 - 0.192, 3.0, P)
    one = Survey((plane,), shade_sources=(pole,))
    other = Survey((plane,), shade_sources=(replace(pole, at=SitePoint(-5.0, -6.0)),))
    assert beam_lost(one, plane, east, 160, 25) == pytest.approx(
        beam_lost(other, plane, west, 200, 25), abs=0.02
    )


def test_a_higher_roof_shades_a_lower_one() -> None:
    low = bare(eave_height=metres(2.0))
    high = bare(id="high", name="High", eave_height=metres(7.0), at=SitePoint(-6.0, -14.0))
    lost = beam_lost(Survey((low, high)), low, Place(5.0, 0.5, P), 180, 20)
    assert lost > 0.9
    assert beam_lost(Survey((low,)), low, Place(5.0, 0.5, P), 180, 20) == 0


def test_sample_points_lie_inside_the_module_on_its_plane() -> None:
    for way in (P, L):
        place = Place(2.0, 1.0, way)
        points = sample_points_m(SOUTH, LAY, place, 3, QUICK).reshape(-1, 3)
        right, up = axes(SOUTH.azimuth_deg, SOUTH.slope_deg)
        origin = np.array([SOUTH.at.east_m, SOUTH.at.north_m, SOUTH.eave_height.value_m])
        flat = np.column_stack([(points - origin) @ right, (points - origin) @ up])
        inside = box(2.0, 1.0, 2.0 + LAY.width_m(way), 1.0 + LAY.height_m(way))
        assert all(inside.contains(Point(p)) for p in flat)
        assert isinstance(inside, Polygon)


def test_a_cone_stands_slimmer_than_a_round_crown_of_its_size() -> None:
    plane, place = bare(), Place(6.0, 3.0, P)
    middle = sample_points_m(plane, LAY, place, 3, FINE).reshape(-1, 3).mean(axis=0)
    tree = source(
        ShadeKind.TREE, middle[0], middle[1] - 20, height=metres(14), base=metres(0), width=metres(10),
        trunk=metres(0),
    )  # fmt: skip

    def half_width_deg(shape: CrownShape, above_m: float) -> float:
        """Bearings it covers at a height, from the middle; closed form beside it."""
        survey = Survey((plane,), shade_sources=(replace(tree, crown=shape),))
        elevation = np.degrees(np.arctan((above_m - middle[2]) / 20))
        covered = [
            az for az in np.arange(180.0, 200.0, 0.25)
            if beam_lost(survey, plane, place, az, elevation) > 0.4
        ]  # fmt: skip
        return (max(covered) - 180.0) if covered else 0.0

    # At 7 m of 14 the cone is half as wide as at its base: 2.5 m at 20 m; the ellipsoid 5 m.
    assert half_width_deg(CrownShape.CONE, 7.0) == pytest.approx(np.degrees(2.5 / 20), abs=1.2)
    assert half_width_deg(CrownShape.ROUND, 7.0) == pytest.approx(np.degrees(5 / 20), abs=1.6)
    assert half_width_deg(CrownShape.CONE, 16.0) == 0


# A level roof, rows of modules lying on legs of 25 degrees, facing due south.
LEVEL = bare(slope_deg=0.0, azimuth_deg=180.0)
ON_LEGS = replace(LAY, leg_tilt_deg=25.0)


def row_shaded(gap_m: float, azimuth_deg: float, elevation_deg: float) -> float:
    """What the row in front takes of the beam on a module in the middle of a long row."""
    depth = ON_LEGS.height_m(P)
    front = [Place(1.154 * i, -(depth + gap_m), P) for i in range(-60, 61)]
    corners = np.array([glass_corners_m(LEVEL, ON_LEGS, p) for p in front])
    occluders = with_rows(occluders_of(Survey((LEVEL,))), "rows", corners)
    glass = glass_of(LEVEL, ON_LEGS.leg_tilt_deg)
    points = sample_points_m(LEVEL, ON_LEGS, Place(0.0, 0.0, P), 3, FINE).reshape(-1, 3)
    sky = skies_over(occluders, glass, points, cell_weights(glass, FINE.rows))
    reach = reach_at(
        sky, 3, np.array([azimuth_deg]), np.array([elevation_deg]), np.array([0]),
        passes_of(occluders, PASSING),
    )  # fmt: skip
    return float(1 - reach.mean())


@pytest.mark.parametrize("gap_m", [0.6, 1.2, 1.8])
@pytest.mark.parametrize("sun", [(180.0, 26.56), (222.0, 14.0), (150.0, 20.0), (200.0, 45.0)])
def test_a_row_in_front_shades_the_share_of_long_rows(gap_m: float, sun: tuple) -> None:
    # Closed form for long rows: D = H cos(az) / tan(el) is the gap that just stays clear, and
    # with less the share 1 - (L cos b + gap) / (L cos b + D) of the glass lies in shade.
    azimuth, elevation = sun
    tall, deep = (1.722 * f(np.radians(25)) for f in (np.sin, np.cos))
    clear = tall * np.cos(np.radians(azimuth - 180)) / np.tan(np.radians(elevation))
    wanted = max(0.0, 1 - (deep + gap_m) / (deep + clear))
    assert row_shaded(gap_m, azimuth, elevation) == pytest.approx(wanted, abs=0.06)


def test_row_spacing_of_the_table_just_stays_clear() -> None:
    # 40° N, winter solstice, 9 h solar: elevation 13.963°, 41.952° from south, D/H = 2.991.
    gap_m = 2.991 * 1.722 * np.sin(np.radians(25))
    assert row_shaded(gap_m * 1.06, 180 - 41.952, 13.963) < 0.02
    assert row_shaded(gap_m * 0.80, 180 - 41.952, 13.963) > 0.08


def test_hours_months_and_substrings_add_up_to_what_the_module_loses() -> None:
    weather = stand_in_year(normals_at("high-desert", SITE.latitude_deg), SITE)
    sun = sun_path(weather.time, SITE)
    hours = hours_of(weather.time, sun)
    occluders, glass = occluders_of(FULL.survey), glass_of(SOUTH, 0.0)
    parts = light_parts(weather, sun, glass.slope_deg, glass.azimuth_deg)
    weights = cell_weights(glass, QUICK.rows)
    points = sample_points_m(SOUTH, LAY, Place(0.6, 0.2, P), 3, QUICK).reshape(-1, 3)
    sky = skies_over(occluders, glass, points, weights)
    groups = cell_groups(QUICK if len(sky) == 12 else FINE, half_cut=False)
    light = module_light(
        sky, 3, groups, hours, parts, weights, passes_of(occluders, PASSING), len(occluders.owners)
    )
    falling, reaching = substring_light(
        light, hours, parts, glass_passing(sun, glass.slope_deg, glass.azimuth_deg)
    )
    assert falling.shape == reaching.shape == (3, 8760)
    left = falling.mean(axis=0).sum()
    assert parts.poa_w_per_m2.sum() - left == pytest.approx(light.lost.sum(), rel=1e-5)
    assert (reaching <= falling + 1e-6).all()
    # Nobody's shadow is longer than everybody's: each alone gives back no more than it takes.
    assert (light.alone <= light.only + 1e-6).all()
    assert light.alone.sum() <= light.lost.sum() + 1e-6


def test_the_darkest_cells_rule_a_substring_and_half_cut_ones_by_halves() -> None:
    plane, place = CHIMNEY_ONLY.planes[0], Place(8.05, 4.3, P)
    occluders, glass = occluders_of(CHIMNEY_ONLY), glass_of(plane, 0.0)
    points = sample_points_m(plane, LAY, place, 3, FINE).reshape(-1, 3)
    weights = cell_weights(glass, FINE.rows)
    sky = skies_over(occluders, glass, points, weights)
    time = np.array(["2025-06-01T12:30"] * 12, "datetime64[s]")
    sun = SunPath(np.linspace(30.0, 75.0, 12), np.full(12, 240.0))
    none = np.zeros(12)
    parts = LightParts(np.ones(12), none, none, none, none)
    passes, owners = passes_of(occluders, PASSING), len(occluders.owners)
    whole, halved = (
        module_light(
            sky, 3, cell_groups(FINE, half_cut=cut), hours_of(time, sun), parts, weights, passes, owners
        )
        for cut in (False, True)
    )  # fmt: skip
    each = reach_at(
        sky, len(sky), sun.azimuth_deg, 90 - sun.zenith_deg, np.full(12, 5), passes
    ).reshape(3, FINE.across, FINE.along, 12)
    assert whole.reach == pytest.approx(each.mean(axis=(1, 2)), abs=1e-5)
    assert whole.reach_least == pytest.approx(each.min(axis=(1, 2)), abs=1e-5)
    # Two halves along the module, each as its darkest, side by side.
    halves = each.reshape(3, FINE.across, 2, FINE.along // 2, 12).min(axis=(1, 3)).mean(axis=1)
    assert halved.reach_least == pytest.approx(halves, abs=1e-5)
    assert (whole.reach_least <= halved.reach_least + 1e-6).all()
    assert (halved.reach_least < halved.reach - 0.05).any()
