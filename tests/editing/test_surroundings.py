"""What lies around: sighted trees, horizons, lot lines, the picture under the plan, gear, notes."""

import math

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.errors import BadGeometry, NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.brief.needs import (
    AddExisting,
    ServiceField,
    SetExistingPlane,
    SetServiceField,
)
from ridge_tally.core.job.edits.survey.obstructions import (
    AddKeepOut,
    DrawExisting,
    ExistingRowsField,
    SetExistingRows,
)
from ridge_tally.core.job.edits.survey.planes import AddPlane, RemovePlane
from ridge_tally.core.job.edits.survey.surroundings import (
    AddAttachment,
    AddLotLine,
    AddShade,
    Gear,
    MoveShade,
    MoveTrace,
    PlaceGear,
    RemoveShade,
    ScaleTrace,
    SetHorizon,
    SetShadeField,
    SetTrace,
    ShadeField,
    SightShade,
    TurnTrace,
)
from ridge_tally.core.job.places import PlanePoint, SitePoint
from ridge_tally.core.job.survey import Picture, PicturePoint, ShadeKind
from ridge_tally.core.survey.shade import parse_horizon, source_at, source_height_m
from ridge_tally.core.survey.trace import metres_per_px, site_of
from ridge_tally.core.working import Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.views.option import option_report
from ridge_tally.views.survey.report import survey_report

HERE, TREE = SitePoint(0.0, 0.0), "s4"
PICTURE = Picture("0" * 64, 800, 600)


def after(*steps, job: Job = SAMPLE) -> Job:
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return job


PLANTED = after(AddShade(ShadeKind.TREE, SitePoint(3.0, -9.0)))


def test_a_tree_is_placed_by_bearing_and_distance_and_measured_by_its_angle() -> None:
    # 12 m due south-east; 30 degrees up from an eye at 1.60 m: 12 tan 30 + 1.6 = 8.528 m.
    job = after(SightShade(TREE, HERE, "135", "12 m", "30", "1.6 m"), job=PLANTED)
    tree = job.survey.shade_sources[-1]
    at = source_at(tree)
    assert (at.east_m, at.north_m) == pytest.approx((12 / 2**0.5, -12 / 2**0.5))
    assert source_height_m(tree) == pytest.approx(8.528, abs=1e-3)
    moved = after(MoveShade(TREE, SitePoint(1, 1)), job=job).survey.shade_sources[-1]
    assert (moved.sighting, source_at(moved)) == (None, SitePoint(1, 1))


def test_a_compass_bearing_is_made_true_and_a_given_height_wins() -> None:
    job = after(SightShade(TREE, HERE, "100 compass", "10 m"), job=PLANTED)
    sighting = job.survey.shade_sources[-1].sighting
    east_deg = SAMPLE.survey.planes[0].azimuth_deg - 168.5  # the sample's own declination
    assert sighting.bearing_deg == pytest.approx(100 + east_deg, abs=0.02)
    tall = after(SetShadeField(TREE, ShadeField.HEIGHT, "7 m"), job=job)
    assert source_height_m(tall.survey.shade_sources[-1]) == 7


def test_a_tree_without_a_height_is_still_to_measure() -> None:
    told = [item.text for item in survey_report(PLANTED).to_measure]
    assert "Tree 1: its height." in told or "Tree 2: its height." in told


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (SightShade(TREE, HERE, "400", "10"), OutOfRange, "bearing in degrees reads 400"),
        (SightShade(TREE, HERE, "90", "-3"), OutOfRange, "distance in metres"),
        (SightShade(TREE, HERE, "90", "10", "88", "5'"), OutOfRange, "angle to the top"),
        (
            SightShade(TREE, HERE, "90", "10", "30", "eye"),
            NotUnderstood,
            "height of the eye",
        ),
        (SetShadeField(TREE, ShadeField.HEIGHT, "0"), OutOfRange, "more than 0"),
        (SetShadeField(TREE, ShadeField.LEAF, "pine"), NotUnderstood, "evergreen"),
        (
            SetShadeField(TREE, ShadeField.CROWN, "cube"),
            NotUnderstood,
            "round or cone",
        ),
        (SetShadeField(TREE, ShadeField.LEAF_MONTHS, "5"), NotUnderstood, "5-10"),
        (SetShadeField(TREE, ShadeField.LEAF_MONTHS, "0-13"), OutOfRange, "1 and 12"),
        (RemoveShade("s99"), NotFound, "s99"),
        (AddLotLine((HERE,), closed=False), BadGeometry, "Click 2"),
        (MoveTrace(HERE), NotFound, "picture"),
        (SetHorizon("120 up"), NotUnderstood, "Horizon, line 1"),
        (AddAttachment("  "), NotUnderstood, "choose a photo"),
        (AddAttachment("x", None, "attic"), NotFound, "attic"),
    ],
)
def test_what_cannot_be_is_refused_by_name_and_nothing_changes(edit, error, says) -> None:
    with pytest.raises(error, match=says):
        after(edit, job=PLANTED)


@pytest.mark.parametrize(
    "typed",
    [
        "bearing,elevation\n60,3.5\n280,7.5\n",
        "60;3,5\n280;7,5",
        '"bearing_deg","elevation_deg"\r\n"60","3.5"\r\n"280","7.5"\r\n',
        "280 7.5\n60 3.5",
        "\ufeff60\t3.5\r\n280\t7.5",
    ],
)
def test_a_horizon_reads_as_people_write_it(typed: str) -> None:
    points = parse_horizon(typed)
    assert [(p.bearing_deg, p.elevation_deg) for p in points] == [(60, 3.5), (280, 7.5)]


@pytest.mark.parametrize(
    ("typed", "says"),
    [
        ("400, 3", "bearing in degrees reads 400"),
        ("10, 95", "elevation"),
        ("1,2\n3", "line 2"),
        ("90, 4\n90, 7", "line 2, bearing 90°: it is 7° high here"),
    ],
)
def test_a_bad_horizon_line_is_named(typed: str, says: str) -> None:
    with pytest.raises((OutOfRange, NotUnderstood, BadGeometry), match=says):
        parse_horizon(typed)


def test_a_picture_is_scaled_by_two_points_and_its_first_stays_put() -> None:
    job = after(SetTrace(PICTURE), TurnTrace("90"))
    before = job.survey.trace
    first, second = PicturePoint(200, 500), PicturePoint(600, 200)
    seen = site_of(before, first)
    trace = after(ScaleTrace(first, second, "25 m"), job=job).survey.trace
    # 500 pixels apart, 25 m: 5 cm a pixel; turned a quarter clockwise, right is south.
    assert metres_per_px(trace) == pytest.approx(0.05)
    assert site_of(trace, first) == seen
    other = site_of(trace, PicturePoint(300, 500))
    assert (other.east_m - seen.east_m, other.north_m - seen.north_m) == pytest.approx((0, -5))
    with pytest.raises(BadGeometry, match="less than 5 pixels"):
        after(ScaleTrace(first, first, "25 m"), job=job)


def reach(job: Job):
    found = {c.check.rule_id: c.check for c in option_report(design_for(job, option_a(job))).checks}
    return found.get("survey.disconnect-reach")


def test_the_disconnect_is_held_against_what_the_utility_states() -> None:
    bare = after(
        *(PlaceGear(g, None) for g in Gear),
        SetServiceField(ServiceField.DISCONNECT_WITHIN, "10'"),
    )
    assert reach(bare).verdict is Verdict.NOT_CHECKED
    near = after(
        PlaceGear(Gear.METER, HERE),
        PlaceGear(Gear.DISCONNECT, SitePoint(1.8, 2.4)),
        job=bare,
    )
    # 3 m across, told in the feet of the job: the fourth decimal by hand.
    assert (reach(near).value.unit, reach(near).value.value) == (
        "ft",
        pytest.approx(9.8425, abs=1e-4),
    )
    assert reach(near).verdict is Verdict.KEPT
    far = after(PlaceGear(Gear.DISCONNECT, SitePoint(1.8, 2.6)), job=near)
    assert reach(far).verdict is Verdict.BROKEN
    assert reach(after(SetServiceField(ServiceField.DISCONNECT_WITHIN, ""), job=far)) is None


def test_notes_hang_on_a_plane_and_go_with_it() -> None:
    job = after(
        AddPlane(),
        AddAttachment("soft spot", None, "plane-1"),
        AddAttachment("label faded"),
    )
    note = job.survey.attachments[-2]
    assert (note.text, note.plane_id) == ("soft spot", "plane-1")
    left = after(RemovePlane("plane-1"), job=job).survey.attachments
    assert note.id not in {a.id for a in left}
    assert "label faded" in {a.text for a in left}


def test_a_zone_keeps_modules_off_and_says_why() -> None:
    square = ((1.0, 1.0), (3.5, 1.0), (3.5, 3.5), (1.0, 3.5))
    zone = AddKeepOut("south", "", tuple(PlanePoint(x, y) for x, y in square))
    job = after(zone)
    assert job.survey.planes[0].keep_outs[-1].reason == "stay off"
    stops = [
        v.check
        for v in option_report(design_for(job, option_a(job))).checks
        if v.check.rule_id == "array.on-roof"
    ]
    assert stops[0].verdict is Verdict.BROKEN
    mended = after(stops[0].fixes[0].edit, job=job)
    assert 20 <= option_report(design_for(mended, option_a(mended))).modules < 28
    with pytest.raises(BadGeometry, match="beyond the plane"):
        after(AddKeepOut("south", "x", tuple(PlanePoint(x + 40, y) for x, y in square)))


def test_an_array_there_already_is_drawn_and_counted_apart() -> None:
    job = after(
        AddExisting(),
        SetExistingPlane("existing1", "south", on=True),
        DrawExisting("south", "existing1", 0.5, 0.5),
        SetExistingRows("south", "existing1", ExistingRowsField.COLUMNS, "5"),
    )
    report = option_report(design_for(job, option_a(job)))
    assert report.modules == 28
    assert len(report.planes[0].misplaced) >= 4
    box = survey_report(job).planes[0].existing[0]
    assert box.right_m - box.left_m == pytest.approx(5 * 1.0)
    with pytest.raises(BadGeometry, match="reach beyond"):
        after(
            SetExistingRows("south", "existing1", ExistingRowsField.COLUMNS, "50"),
            job=job,
        )


def test_rafters_are_drawn_from_the_first_one_on() -> None:
    xs = survey_report(SAMPLE).planes[0].rafters_x_m
    # First 11 inches in, then every 24, in 40 feet.
    assert xs[0] == pytest.approx(11 * 0.0254)
    assert xs[1] - xs[0] == pytest.approx(0.6096)
    assert len(xs) == math.floor((40 * 12 - 11) / 24) + 1
