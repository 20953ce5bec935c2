"""Planes on the site: which way they look, how they meet, what a hip's first plane gives."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jobs import FULL, SAMPLE, SHELF
from ridge_tally.core.errors import BadGeometry, MissingDatum, OutOfRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import SurveyEdit
from ridge_tally.core.job.edits.survey.outlines import SetReading, StartShape
from ridge_tally.core.job.edits.survey.planes import (
    AddHipPlanes,
    AddPlane,
    FaceByCorners,
    JoinEdges,
    MovePlane,
    PlaneField,
    PlaneShape,
    SetPlaneField,
)
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import EdgeKind, ReadingKind
from ridge_tally.core.survey.outline import corners_m, edge_names
from ridge_tally.core.survey.scene import FaceKind, RoundKind, scene_of
from ridge_tally.core.survey.site_frame import (
    axes,
    azimuth_of_eave_deg,
    edge_ends,
    meetings,
    to_site,
)
from ridge_tally.editing.apply import apply_edit

SIDE = ReadingKind.SIDE


def after(*steps: SurveyEdit, job: Job = SAMPLE) -> Job:
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return job


# Facing a south plane from outside one looks north: x runs east, up the slope is north.
@pytest.mark.parametrize(
    ("azimuth_deg", "x_runs", "up_runs"),
    [(180, (1, 0), (0, 1)), (0, (-1, 0), (0, -1)), (90, (0, 1), (-1, 0)), (270, (0, -1), (1, 0))],
)
def test_the_axes_of_a_plane_that_looks(azimuth_deg: float, x_runs, up_runs) -> None:
    x, up = axes(azimuth_deg, 60.0)
    assert x == pytest.approx([*x_runs, 0.0], abs=1e-12)
    # Sixty degrees: half a metre over, 0.866 up, for each metre of slope.
    assert up == pytest.approx([up_runs[0] / 2, up_runs[1] / 2, math.sqrt(3) / 2], abs=1e-12)


@given(st.floats(0, 359.9), st.floats(0, 90))
def test_axes_are_square_unit_steps_and_the_normal_looks_along_the_azimuth(
    azimuth_deg: float, slope_deg: float
) -> None:
    frame = axes(azimuth_deg, slope_deg)
    assert frame @ frame.T == pytest.approx(np.eye(2), abs=1e-12)
    east, north, up = np.cross(frame[0], frame[1])
    assert up == pytest.approx(math.cos(math.radians(slope_deg)), abs=1e-12)
    if slope_deg > 0.01:
        bearing = math.degrees(math.atan2(east, north)) % 360
        assert abs((bearing - azimuth_deg + 180) % 360 - 180) < 1e-6


def test_a_derived_half_meets_the_first_along_its_ridge() -> None:
    south, north = FULL.survey.planes[:2]
    assert edge_ends(south, 2) == pytest.approx(edge_ends(north, 2)[::-1], abs=0.01)
    assert [m.apart_m < 0.02 for m in meetings(FULL.survey.planes)] == [True, True]


def test_ridges_that_were_meant_to_meet_and_do_not_are_told() -> None:
    at = FULL.survey.planes[1].at
    moved = after(MovePlane("plane-1", at.east_m, at.north_m + 0.3), job=FULL)
    assert meetings(moved.survey.planes)[0].apart_m == pytest.approx(0.3, abs=0.02)
    apart = after(MovePlane("plane-1", at.east_m, at.north_m + 3), job=FULL)
    assert len(meetings(apart.survey.planes)) == 1


HIP = after(
    StartShape("south", PlaneShape.HIP),
    SetReading("south", SIDE, (0,), "12 m"),
    SetReading("south", SIDE, (2,), "5 m"),
    SetReading("south", ReadingKind.OFFSET, (3, 0), "5 m"),
    SetReading("south", ReadingKind.ALONG, (3, 0), "3 m"),
    SetPlaneField("south", PlaneField.SLOPE, "30"),
    SetPlaneField("south", PlaneField.EAVE_HEIGHT, "3 m"),
    SetPlaneField("south", PlaneField.AZIMUTH, "180"),
    AddHipPlanes("south"),
)


def test_a_hip_is_derived_whole_and_its_four_planes_meet() -> None:
    south, north, left, right = HIP.survey.planes
    # By hand: the ridge stands 5 sin 30 = 2.5 m up, 5 cos 30 = 4.33 m in.  The left end
    # rises 2.5 m over 3 m: 39.81 degrees; the right over 12 - 5 - 3 = 4 m: 32.01 degrees.
    assert (left.azimuth_deg, right.azimuth_deg, north.azimuth_deg) == (270, 90, 0)
    assert (left.slope_deg, right.slope_deg) == pytest.approx((39.806, 32.005), abs=1e-3)
    assert corners_m(left)[1, 0] == pytest.approx(8.6603, abs=1e-3)
    peak = to_site(left, corners_m(left))[2]
    assert peak == pytest.approx(to_site(south, corners_m(south))[3], abs=1e-3)
    assert peak[2] == pytest.approx(3 + 2.5, abs=1e-3)
    # One ridge and four hips, each shared by two planes.
    assert len(meetings(HIP.survey.planes)) == 5
    assert max(m.apart_m for m in meetings(HIP.survey.planes)) < 2e-3
    assert {p.eave_height.typed for p in HIP.survey.planes} == {"3 m"}


@pytest.mark.parametrize(
    ("steps", "error", "says"),
    [
        ((AddHipPlanes("south"),), BadGeometry, "eave, hip, ridge, hip"),
        (
            (StartShape("south", PlaneShape.HIP), AddHipPlanes("south")),
            MissingDatum,
            "closed outline",
        ),
        ((JoinEdges("south", 9, "south", 0),), OutOfRange, "1 to 4"),
        (
            (
                AddPlane(),
                SetPlaneField("south", PlaneField.EAVE_HEIGHT, "1 m"),
                SetReading("plane-1", SIDE, (0,), "8 m"),
                SetReading("plane-1", SIDE, (3,), "9 m"),
                JoinEdges("plane-1", 2, "south", 0),
            ),
            BadGeometry,
            "under ground",
        ),
        (
            (FaceByCorners("south", SitePoint(1, 1), SitePoint(1, 1)),),
            BadGeometry,
            "both ends are one point",
        ),
    ],
)
def test_what_cannot_be_derived_is_refused_in_words(steps, error, says) -> None:
    with pytest.raises(error, match=says):
        after(*steps)


@pytest.mark.parametrize(
    ("right", "azimuth_deg"), [((5, 0), 180), ((0, 5), 90), ((-5, 0), 0), ((5, 5), 135)]
)
def test_an_eave_by_its_two_ends_gives_the_azimuth(right, azimuth_deg: float) -> None:
    assert azimuth_of_eave_deg(SitePoint(0, 0), SitePoint(*right)) == pytest.approx(azimuth_deg)
    job = after(FaceByCorners("south", SitePoint(0, 0), SitePoint(*right)))
    plane = job.survey.planes[0]
    assert (plane.azimuth_deg, plane.compass_deg) == (pytest.approx(azimuth_deg), None)


def test_edges_are_called_what_a_person_calls_them() -> None:
    assert edge_names(SAMPLE.survey.planes[0].outline) == (
        "eave", "right rake", "ridge", "left rake",
    )  # fmt: skip
    ell = after(StartShape("south", PlaneShape.ELL)).survey.planes[0]
    assert edge_names(ell.outline)[2] == "ridge 3–4" or edge_names(ell.outline)[2].endswith("ridge")


def test_the_scene_stands_every_thing_where_it_was_surveyed() -> None:
    scene = scene_of(FULL.survey)
    roofs = [f for f in scene.faces if f.kind is FaceKind.ROOF]
    assert [f.name for f in roofs] == [p.name for p in FULL.survey.planes]
    highest = max(p.up_m for f in roofs for p in f.ring)
    # Eave 9' 6" and 21' 3" of slope at 6:12.
    assert highest == pytest.approx(2.8956 + 6.477 * math.sin(math.atan(0.5)), abs=0.01)
    chimney = [f for f in scene.faces if f.name == "Chimney"]
    assert len(chimney) == 5
    top = {p.up_m for p in chimney[-1].ring}
    assert len(top) == 1  # its head is level
    crown = next(r for r in scene.rounds if r.kind is RoundKind.CROWN)
    assert (crown.name, crown.guessed) == ("Cottonwood", False)
    # Sighted: 36' 6" level, 41 degrees up, eye at 5' 4".
    assert crown.top_m / 0.3048 == pytest.approx(
        36.5 * math.tan(math.radians(41)) + 5.333, abs=0.01
    )


def test_a_wall_is_a_plane_that_stands_upright() -> None:
    job = after(
        AddPlane(PlaneShape.WALL),
        SetReading("plane-1", SIDE, (0,), "6 m"),
        SetReading("plane-1", SIDE, (3,), "2.5 m"),
        SetPlaneField("plane-1", PlaneField.EAVE_HEIGHT, "0.4 m"),
    )
    wall = job.survey.planes[1]
    assert wall.slope_deg == 90
    up = to_site(wall, corners_m(wall))[:, 2]
    assert (up.min(), up.max()) == pytest.approx((0.4, 2.9))
    assert EdgeKind.EAVE not in wall.outline.edges


def test_planes_keep_their_ridge_when_the_first_is_taped_again() -> None:
    taller = replace(FULL.survey.planes[0], slope_deg=30.0)
    assert to_site(taller, corners_m(taller))[0] == pytest.approx([0, 0, 2.8956])
