"""Edits: each does what it says, a refused one leaves the document as it was."""

from dataclasses import replace

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job import edits
from ridge_tally.core.job.document import (
    ROUND_KINDS,
    CodePack,
    Job,
    ObstructionKind,
    Orientation,
    present_ids,
)
from ridge_tally.core.units import LengthUnit
from ridge_tally.services.editing import apply_edit, describe_edit
from ridge_tally.services.reporting import StepState, option_report


def after(*steps: edits.Edit, job: Job = SAMPLE) -> Job:
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return job


def plane_field(field: str, typed: str) -> edits.SetPlaneField:
    return edits.SetPlaneField("south", edits.PlaneField(field), typed)


def test_a_length_is_kept_as_typed_beside_its_metres() -> None:
    eave = after(plane_field("eave", "39' 11 3/4\"")).survey.planes[0].outline.eave
    assert (eave.typed, eave.value_m) == ("39' 11 3/4\"", pytest.approx(12.18565))


def test_the_ridge_of_a_rectangle_follows_the_eave_and_a_taped_one_does_not() -> None:
    outline = after(plane_field("eave", "44'")).survey.planes[0].outline
    assert outline.ridge == outline.eave
    outline = (
        after(plane_field("ridge", "38'"), plane_field("eave", "44'")).survey.planes[0].outline
    )
    assert outline.ridge.typed == "38'"


def test_a_shorter_tape_leaves_modules_in_place_and_says_which_no_longer_fit() -> None:
    job = after(plane_field("eave", "37'"))
    assert option_a(job).arrays == option_a(SAMPLE).arrays
    report = option_report(job, option_a(job))
    assert report.steps["array"] is StepState.STOP
    first = report.checks[0].check
    assert first.rule_id == "array.on-roof"
    mended = after(first.fixes[0].edit, job=job)
    assert option_report(mended, option_a(mended)).broken_stops == 0


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (
            plane_field("eave", "forty"),
            NotUnderstood,
            "eave: “forty” was not understood. Type a length",
        ),
        (plane_field("slope", "95"), OutOfRange, "slope in degrees reads 95"),
        (plane_field("slope", "steep"), NotUnderstood, "6:12"),
        (plane_field("azimuth", "south"), NotUnderstood, "degrees from true north"),
        (plane_field("setback_eave", "-1'"), OutOfRange, "free strip at the eave"),
        (plane_field("height", "4'"), BadGeometry, "Chimney on South roof"),
        (edits.MoveObstruction("south", "o1", 50.0, 1.0), BadGeometry, "does not lie on the plane"),
        (
            edits.SetObstructionField("south", "o9", edits.ObstructionField.LEFT, "1"),
            NotFound,
            "o9",
        ),
        (edits.RemoveObstruction("south", "o9"), NotFound, "o9"),
        (edits.SetCoordinates("75, 100"), OutOfRange, "Latitude"),
        (edits.SetSiteField(edits.SiteField.COLDEST, "cold"), NotUnderstood, "Coldest air: “cold”"),
        (
            edits.SetPlace("x", "tropical-moon", CodePack.US, dwelling=True),
            NotFound,
            "tropical-moon",
        ),
        (edits.RenameJob("   "), OutOfRange, "Length of the name"),
        (edits.ToggleModules("a", ("ghost",)), NotFound, "ghost"),
        (edits.ChooseInverter("a", "gone"), NotFound, "gone"),
        (edits.ChooseModule("z", "sample-405"), NotFound, "option “z”"),
        (edits.WishSeriesLength("a", 0), BadGeometry, "0 cannot be wired"),
        (edits.FillPlane("a", "north", Orientation.PORTRAIT), NotFound, "roof plane “north”"),
    ],
)
def test_a_refused_edit_names_field_value_and_remedy(edit, error, says: str) -> None:
    before = SAMPLE
    with pytest.raises(error, match=says):
        after(edit)
    assert before == SAMPLE


def test_a_roof_too_small_for_the_module_says_so() -> None:
    bare = replace(SAMPLE.survey.planes[0], obstructions=())
    job = replace(SAMPLE, survey=replace(SAMPLE.survey, planes=(bare,)))
    job = after(plane_field("height", "5'"), job=job)
    with pytest.raises(BadGeometry, match=r"no module of 1\.722 × 1\.134 m fits"):
        after(edits.FillPlane("a", "south", Orientation.PORTRAIT), job=job)


def test_toggling_takes_a_module_off_its_string_and_back() -> None:
    off = after(edits.ToggleModules("a", ("south-3",)))
    assert len(present_ids(option_a(off))) == 27
    assert sorted(len(s.module_ids) for s in option_a(off).strings) == [13, 14]
    assert option_a(after(edits.ToggleModules("a", ("south-3",)), job=off)) == option_a(SAMPLE)


def test_a_compass_reading_is_made_true_for_its_place_and_day() -> None:
    plane = after(plane_field("azimuth", "168.6 compass")).survey.planes[0]
    # The world magnetic model has 7.45° east at the sample on 12 October 2026.
    assert (plane.compass_deg, plane.azimuth_deg) == (168.6, pytest.approx(176.05, abs=0.02))
    moved = after(
        plane_field("azimuth", "168.6 compass"), edits.SetCoordinates("43.1, -8.2")
    ).survey.planes[0]
    assert moved.azimuth_deg == pytest.approx(168.6, abs=2)
    assert moved.azimuth_deg != plane.azimuth_deg
    true = after(plane_field("azimuth", "168.6 compass"), plane_field("azimuth", "170 true"))
    assert (true.survey.planes[0].compass_deg, true.survey.planes[0].azimuth_deg) == (None, 170)


def test_a_compass_reading_needs_its_day() -> None:
    with pytest.raises(MissingDatum, match="day of the survey"):
        after(edits.SetSiteField(edits.SiteField.SURVEY_DAY, ""), plane_field("azimuth", "90 mag"))


def test_a_height_from_a_plan_is_longer_up_the_slope_and_follows_it() -> None:
    # 6:12 is 26.565°, cosine 0.894427: 18 feet on plan are 20.125 up the slope.
    job = after(plane_field("height", "18 plan"))
    height = job.survey.planes[0].outline.height
    assert height.typed == "18' plan"
    assert height.value_m / 0.3048 == pytest.approx(20.1246, abs=1e-4)
    steeper = after(edits.SetUnit(LengthUnit.METRE), plane_field("slope", "12:12"), job=job)
    assert steeper.survey.planes[0].outline.height.value_m / 0.3048 == pytest.approx(
        18 * 2**0.5, abs=1e-4
    )
    taped = after(plane_field("height", "20'"), job=job).survey.planes[0].outline.height
    assert taped.value_m == pytest.approx(6.096)


@pytest.mark.parametrize("kind", list(ObstructionKind))
def test_each_kind_of_obstruction_is_placed_with_a_usual_size(kind: ObstructionKind) -> None:
    new = after(edits.AddObstruction("south", kind, 2.0, 2.0)).survey.planes[0].obstructions[-1]
    assert new.kind is kind
    assert min(new.width.value_m, new.depth.value_m, new.height.value_m) > 0
    if kind in ROUND_KINDS:
        assert new.width == new.depth


def test_turning_the_modules_fills_again() -> None:
    job = after(edits.FillPlane("a", "south", Orientation.LANDSCAPE))
    assert option_a(job).arrays[0].orientation is Orientation.LANDSCAPE
    assert job.options[1].arrays == SAMPLE.options[1].arrays


def test_another_module_of_another_size_fills_again_and_is_kept_in_the_job() -> None:
    job = after(edits.ChooseModule("a", "sample-450"))
    assert [m.id for m in job.equipment.modules] == ["sample-405", "sample-450"]
    assert option_report(job, option_a(job)).broken_stops == 0


def test_another_inverter_restrings() -> None:
    job = after(edits.ChooseInverter("a", "sample-i10"))
    assert len(option_a(job).strings) >= 2
    broken = [
        v.check.rule_id
        for v in option_report(job, option_a(job)).checks
        if v.check.verdict == "broken" and v.check.kind == "stop"
    ]
    assert broken == ["grid.busbar"]


def test_obstructions_are_added_moved_named_and_removed() -> None:
    job = after(
        edits.AddObstruction("south", ObstructionKind.VENT, 2.0, 1.0),
        edits.MoveObstruction("south", "o3", 2.5, 1.25),
        edits.SetObstructionField("south", "o3", edits.ObstructionField.WIDTH, '4"'),
    )
    added = job.survey.planes[0].obstructions[-1]
    assert (added.id, added.name) == ("o3", "Vent 2")
    assert (added.left.value_m, added.bottom.value_m) == (2.5, 1.25)
    assert added.depth == added.width
    assert after(edits.RemoveObstruction("south", "o3"), job=job).survey == SAMPLE.survey


def test_options_are_copied_renamed_and_removed_but_never_the_last() -> None:
    job = after(
        edits.CopyOption("a", "third"), edits.RenameOption("c", "micro"), edits.RemoveOption("b")
    )
    assert [(o.id, o.name) for o in job.options] == [("a", "two trackers"), ("c", "micro")]
    with pytest.raises(BadGeometry, match="last one"):
        after(edits.RemoveOption("a"), edits.RemoveOption("c"), job=job)


def test_an_emptied_temperature_is_not_given_and_a_typed_one_has_a_source() -> None:
    job = after(edits.SetSiteField(edits.SiteField.COLDEST, ""))
    assert job.site.coldest.value_degc is None
    assert option_report(job, option_a(job)).unchecked_stops == 2
    job = after(edits.SetSiteField(edits.SiteField.COLDEST, "-13 °F", "airport record"), job=job)
    assert job.site.coldest.value_degc == -25
    assert job.site.coldest.source == "airport record"


def test_bare_numbers_follow_the_unit_of_the_job() -> None:
    job = after(edits.SetUnit(LengthUnit.METRE), plane_field("eave", "12.5"))
    assert job.survey.planes[0].outline.eave.value_m == 12.5


@pytest.mark.parametrize(
    "edit", [edits.RenameJob("x"), plane_field("eave", "40'"), edits.SetUnit(LengthUnit.FOOT)]
)
def test_history_has_a_word_for_every_edit(edit: edits.Edit) -> None:
    assert describe_edit(edit)
