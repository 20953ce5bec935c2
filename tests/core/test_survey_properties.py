"""What must hold of any roof: mirrored, walked round, derived, drawn either way, put on the site."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.sparse.csgraph import shortest_path
from shapely.geometry import Polygon

from jobs import SAMPLE
from ridge_tally.core.job.places import PlanePoint, SitePoint
from ridge_tally.core.job.survey import (
    EdgeKind,
    LengthBasis,
    Outline,
    Picture,
    PicturePoint,
    ReadingKind,
    TapeReading,
    Trace,
)
from ridge_tally.core.survey.adjustment import adjust_outline
from ridge_tally.core.survey.closing import drawn_headings_deg, walked
from ridge_tally.core.survey.outline import adjusted_outline, corners_m, is_closed
from ridge_tally.core.survey.polygon import area_m2, crosses_itself, edge_distance_m
from ridge_tally.core.survey.reach import too_long
from ridge_tally.core.survey.readings import LENGTHS, Reading, misfit
from ridge_tally.core.survey.shapes import (
    mirrored,
    sketched_outline,
    with_corner_on,
    without_corner,
)
from ridge_tally.core.survey.site_frame import edge_ends, joined_at, to_site
from ridge_tally.core.survey.taping import drawn_length
from ridge_tally.core.survey.trace import metres_per_px, site_of
from ridge_tally.core.units import LengthUnit

PLANE = SAMPLE.survey.planes[0]
SIDE, DIAGONAL = ReadingKind.SIDE, ReadingKind.DIAGONAL


def taped(value_m: float):
    # To the micrometre, so that what is tested is geometry and not rounding.
    return replace(drawn_length(value_m, LengthUnit.METRE), value_m=value_m)


@st.composite
def rings(draw: st.DrawFn, least: int = 4, most: int = 8) -> np.ndarray:
    """A simple polygon about the origin, anticlockwise, its first side along +x."""
    count = draw(st.integers(least, most))
    turns = np.sort([2 * math.pi * (i + draw(st.floats(0.1, 0.9))) / count for i in range(count)])
    reach = np.array([draw(st.floats(3.0, 9.0)) for _ in range(count)])
    ring = np.column_stack([reach * np.cos(turns), reach * np.sin(turns)])
    assume(not crosses_itself(ring) and area_m2(ring) > 5)
    first = ring[1] - ring[0]
    angle = -math.atan2(first[1], first[0])
    turn = np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])
    return (ring - ring[0]) @ turn.T


def measured(ring: np.ndarray, *, diagonals: bool = True) -> Outline:
    """The outline a crew would get of it: every side and, from the first corner, diagonals."""
    count = len(ring)
    pairs = [(i, (i + 1) % count) for i in range(count)]
    readings = [
        TapeReading(SIDE, (a,), taped(float(np.hypot(*(ring[b] - ring[a]))))) for a, b in pairs
    ]
    readings += [
        TapeReading(DIAGONAL, (0, b), taped(float(np.hypot(*(ring[b] - ring[0])))))
        for b in range(2, count - 1)
        if diagonals
    ]
    return Outline(
        tuple(PlanePoint(float(x), float(y)) for x, y in ring),
        (EdgeKind.EAVE, *(EdgeKind.RAKE,) * (count - 1)),
        tuple(readings),
    )


@settings(max_examples=40)
@given(rings())
def test_sides_and_a_fan_of_diagonals_fix_any_outline(ring: np.ndarray) -> None:
    adjusted = adjusted_outline(measured(ring))
    assert (adjusted.missing, adjusted.redundancy) == (0, 0)
    assert area_m2(adjusted.corners_m) == pytest.approx(Polygon(ring).area, rel=1e-4)


@settings(max_examples=40)
@given(rings())
def test_sides_alone_leave_as_many_hinges_as_corners_over_three(ring: np.ndarray) -> None:
    adjusted = adjusted_outline(measured(ring, diagonals=False))
    assert adjusted.missing == len(ring) - 3
    assert set(adjusted.loose) <= set(range(2, len(ring)))
    assert len(adjusted.would_fix) > 0


@settings(max_examples=40)
@given(rings())
def test_the_far_side_of_a_ridge_is_the_mirror_image(ring: np.ndarray) -> None:
    outline = measured(ring)
    once = mirrored(outline, adjusted_outline(outline).corners_m)
    here, there = adjusted_outline(outline).corners_m, adjusted_outline(once).corners_m
    count = len(ring)
    width = here[1, 0]
    for corner in range(count):
        x, y = here[corner]
        assert there[(1 - corner) % count] == pytest.approx([width - x, y], abs=2e-3)
    twice = mirrored(once, there)
    assert {(r.kind, r.at) for r in twice.readings} == {(r.kind, r.at) for r in outline.readings}
    assert twice.edges == outline.edges


@settings(max_examples=60)
@given(rings(), st.data())
def test_a_length_beyond_the_way_round_is_found_as_a_graph_library_finds_it(
    ring: np.ndarray, data: st.DataObject
) -> None:
    outline = measured(ring)
    assert too_long(outline) is None
    which = data.draw(st.integers(0, len(outline.readings) - 1))
    more_m = data.draw(st.floats(0.2, 40.0))
    old = outline.readings[which]
    wrong = replace(old, taped=taped(old.taped.value_m + more_m))
    readings = tuple(wrong if i == which else r for i, r in enumerate(outline.readings))
    found = too_long(replace(outline, readings=readings))
    count = len(ring)
    graph = np.zeros((count, count))
    for i, r in enumerate(outline.readings):
        a, b = (r.at[0], (r.at[0] + 1) % count) if r.kind is SIDE else r.at
        if i != which:
            graph[a, b] = graph[b, a] = r.taped.value_m
    a, b = (old.at[0], (old.at[0] + 1) % count) if old.kind is SIDE else old.at
    way_m = shortest_path(graph, directed=False)[a, b]
    over_m = wrong.taped.value_m - way_m
    slack_m = 6 * math.hypot(0.005, 0.001 * wrong.taped.value_m)
    if over_m > slack_m:
        assert found is not None
        assert found.reading == wrong
        assert found.way_round_m == pytest.approx(way_m)
    elif over_m < 0:
        assert found is None or found.reading != wrong


@settings(max_examples=60)
@given(rings(), st.integers(0, 7), st.booleans())
def test_a_sketch_may_be_clicked_from_any_corner_in_either_sense(
    ring: np.ndarray, start: int, backwards: bool
) -> None:
    clicked = np.roll(ring[::-1] if backwards else ring, start, axis=0)
    outline = sketched_outline(tuple(PlanePoint(float(x), float(y)) for x, y in clicked), "roof")
    corners = np.array([(c.x_m, c.y_m) for c in outline.corners])
    assert area_m2(corners) == pytest.approx(area_m2(ring), rel=1e-2)
    # Every clicked corner is there, to the millimetre, whatever order they came in.
    apart = np.hypot(*(corners[:, None, :] - ring[None, :, :]).transpose(2, 0, 1))
    assert apart.min(axis=0).max() < 2e-3
    assert len(corners) == len(ring)
    assert outline.edges[0] is EdgeKind.EAVE
    assert all(r.kind is ReadingKind.RIGHT_ANGLE for r in outline.readings)


@settings(max_examples=40)
@given(rings(5), st.integers(0, 4))
def test_a_corner_put_in_and_taken_out_leaves_the_rest_alone(ring: np.ndarray, edge: int) -> None:
    outline = measured(ring)
    more = with_corner_on(outline, edge)
    assert len(more.corners) == len(more.edges) == len(ring) + 1
    assume(edge + 1 >= 2)
    back = without_corner(more, edge + 1, "roof")
    assert [(c.x_m, c.y_m) for c in back.corners] == [(c.x_m, c.y_m) for c in outline.corners]
    lost = {(SIDE, (edge,))}
    assert {(r.kind, r.at) for r in back.readings} == {
        (r.kind, r.at) for r in outline.readings
    } - lost


kinds = st.sampled_from(
    [
        (SIDE, 1), (DIAGONAL, 2), (ReadingKind.OFFSET, 2), (ReadingKind.ALONG, 2),
        (ReadingKind.RIGHT_ANGLE, 1), (ReadingKind.PARALLEL, 2), (ReadingKind.ON_LINE, 2),
    ]
)  # fmt: skip


@settings(max_examples=120)
@given(rings(), kinds, st.integers(0, 7), st.integers(0, 7))
def test_the_pull_of_every_reading_is_its_slope(ring: np.ndarray, kind, a: int, b: int) -> None:
    count = len(ring)
    what, places = kind
    at = (a % count, b % count)[:places]
    if places == 2:
        assume(at[0] != at[1] and at[0] != (at[1] + 1) % count)
    reading = Reading(what, at, 1.0)
    points = [(float(x), float(y)) for x, y in ring]
    here, pulls = misfit(points, reading, 1.0)
    assume(what in LENGTHS or abs(here) < 1.2)
    if what is ReadingKind.OFFSET:
        assume(abs(here + 1.0) > 0.05)
    step = 1e-6
    for corner in range(count):
        for axis in (0, 1):
            moved = [list(p) for p in points]
            moved[corner][axis] += step
            there, _ = misfit([(x, y) for x, y in moved], reading, 1.0)
            expected = sum(pull[1 + axis] for pull in pulls if pull[0] == corner)
            assert (there - here) / step == pytest.approx(expected, abs=1e-4)


@settings(max_examples=40)
@given(rings(), st.floats(0, 359), st.floats(0, 80), st.floats(0, 359), st.data())
def test_joined_edges_have_one_middle(ring, azimuth, slope, other_azimuth, data) -> None:
    plane = replace(
        PLANE, outline=measured(ring), azimuth_deg=azimuth, slope_deg=slope, obstructions=(),
        eave_height=taped(30.0),
    )  # fmt: skip
    other = replace(
        PLANE, azimuth_deg=other_azimuth, at=SitePoint(4.0, -3.0), eave_height=taped(40.0)
    )
    edge = data.draw(st.integers(0, len(ring) - 1))
    at, height_m = joined_at(plane, edge, other, 2)
    joined = replace(plane, at=at, eave_height=taped(height_m))
    assert edge_ends(joined, edge).mean(axis=0) == pytest.approx(
        edge_ends(other, 2).mean(axis=0), abs=1e-3
    )


@settings(max_examples=40)
@given(rings(), st.floats(0, 359), st.floats(0, 75))
def test_on_the_site_a_plane_keeps_its_lengths_and_its_plan_shrinks_by_the_cosine(
    ring: np.ndarray, azimuth: float, slope: float
) -> None:
    plane = replace(
        PLANE, outline=measured(ring), azimuth_deg=azimuth, slope_deg=slope, obstructions=()
    )
    corners = corners_m(plane)
    site = to_site(plane, corners)
    edge = np.roll(site, -1, axis=0) - site
    flat = np.roll(corners, -1, axis=0) - corners
    assert np.linalg.norm(edge, axis=1) == pytest.approx(np.hypot(*flat.T), rel=1e-9)
    seen = Polygon(site[:, :2]).area
    assert seen == pytest.approx(area_m2(corners) * math.cos(math.radians(slope)), rel=1e-6)
    # Lengths off a plan are the plan's own: the cosine is undone.
    off_plan = replace(plane, lengths=LengthBasis.PLAN)
    plan = Polygon(to_site(off_plan, corners_m(off_plan))[:, :2]).area
    assert plan == pytest.approx(area_m2(corners), rel=1e-6)


@given(
    st.floats(0, 359), st.floats(1, 500), st.floats(-900, 900), st.floats(-900, 900),
    st.floats(20, 900),
)  # fmt: skip
def test_a_turned_picture_keeps_its_distances_and_its_sense(
    turned: float, long_m: float, x: float, y: float, apart: float
) -> None:
    first, second = PicturePoint(x, y), PicturePoint(x + apart, y)
    trace = Trace(
        Picture("0" * 64, 900, 900), first, second, taped(long_m), SitePoint(5, 7), turned
    )
    a, b = site_of(trace, first), site_of(trace, second)
    up = site_of(trace, PicturePoint(x, y - apart))
    run = np.array([b.east_m - a.east_m, b.north_m - a.north_m])
    rise = np.array([up.east_m - a.east_m, up.north_m - a.north_m])
    assert np.hypot(*run) == pytest.approx(long_m)
    assert float(run @ rise) == pytest.approx(0, abs=1e-6 * long_m**2)
    assert run[0] * rise[1] - run[1] * rise[0] > 0
    # Up on the picture points that much clockwise of north.
    bearing = math.degrees(math.atan2(rise[0], rise[1])) % 360
    assert abs((bearing - turned + 180) % 360 - 180) < 1e-6
    assert metres_per_px(trace) == pytest.approx(long_m / apart)


@settings(max_examples=30)
@given(st.floats(4, 16), st.floats(3, 9), st.lists(st.floats(-0.04, 0.04), min_size=4, max_size=4))
def test_a_walk_round_a_square_misses_by_what_its_sides_differ(eave, rake, errors) -> None:
    lengths = [eave + errors[0], rake + errors[1], eave + errors[2], rake + errors[3]]
    outline = Outline(
        tuple(PlanePoint(x, y) for x, y in ((0.0, 0.0), (10.0, 0.0), (10.0, 6.0), (0.0, 6.0))),
        PLANE.outline.edges,
        (
            *(TapeReading(SIDE, (i,), taped(v)) for i, v in enumerate(lengths)),
            *(TapeReading(ReadingKind.RIGHT_ANGLE, (i,)) for i in range(4)),
        ),
    )
    headings = drawn_headings_deg(outline)
    assert headings is not None
    assert [h % 360 for h in headings] == pytest.approx([0, 90, 180, 270])
    walk = walked(outline)
    assert walk is not None
    assert walk.misclosure_m == pytest.approx(
        (lengths[0] - lengths[2], lengths[1] - lengths[3]), abs=1e-9
    )
    assert is_closed(replace(PLANE, outline=outline))


@settings(max_examples=60)
@given(rings(), st.floats(-10, 10), st.floats(-10, 10))
def test_the_distance_to_an_edge_agrees_with_a_geometry_library(ring, x, y) -> None:
    from shapely.geometry import Point

    ours = edge_distance_m(ring, np.array([x]), np.array([y]))[0]
    assert ours == pytest.approx(Polygon(ring).exterior.distance(Point(x, y)), abs=1e-9)


@settings(max_examples=25)
@given(rings(4, 5), st.integers(0, 2**31))
def test_readings_with_their_usual_errors_are_never_called_a_blunder_out_loud(ring, seed) -> None:
    """With every diagonal and honest errors, the predicted reading is near the one read."""
    chosen = np.random.default_rng(seed)
    count = len(ring)
    readings = []
    for a in range(count):
        for b in range(a + 1, count):
            true_m = float(np.hypot(*(ring[b] - ring[a])))
            sd_m = math.hypot(0.005, 0.001 * true_m)
            read_m = true_m + float(np.clip(chosen.normal(0, sd_m), -2 * sd_m, 2 * sd_m))
            side = b - a == 1 or (a, b) == (0, count - 1)
            place = ((a,) if b - a == 1 else (b,)) if side else (a, b)
            readings.append(Reading(SIDE if side else DIAGONAL, place, read_m))
    adjusted = adjust_outline(ring, tuple(readings))
    assert adjusted.missing == 0
    if adjusted.suspect is not None:
        assert abs(adjusted.predicted_m - readings[adjusted.suspect].value_m) < 0.25
