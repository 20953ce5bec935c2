"""Edits: each does what it says, a refused one leaves the document as it was."""

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.array import Orientation, Ways
from ridge_tally.core.job.document import CodePack, Job, present_ids
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.array.kinds import ChooseModule
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.brief.site import SetCoordinates, SetPlace, SetSiteField, SiteField
from ridge_tally.core.job.edits.options import (
    CopyOption,
    RemoveOption,
    RenameJob,
    RenameOption,
    SetUnit,
)
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.edits.strings.threading import WishSeriesLength
from ridge_tally.core.job.edits.survey.obstructions import (
    AddObstruction,
    MoveObstruction,
    ObstructionField,
    RemoveObstruction,
    SetObstructionField,
)
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import PlaneField, SetLengthBasis, SetPlaneField
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.survey import ROUND_KINDS, LengthBasis, ObstructionKind, ReadingKind
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.units import LengthUnit
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.describe import describe_edit
from ridge_tally.editing.design import design_for
from ridge_tally.views.option import StepState, option_report


def after(*steps: Edit, job: Job = SAMPLE) -> Job:
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return job


def plane_field(field: str, typed: str) -> SetPlaneField:
    return SetPlaneField("south", PlaneField(field), typed)


def side(edge: int, typed: str) -> SetReading:
    return SetReading("south", ReadingKind.SIDE, (edge,), typed)


def first_reading(job: Job):
    return job.survey.planes[0].outline.readings[4]


# The sample without what checks its outline: corners drawn square, eave and left rake.
BARE = after(side(2, ""), side(1, ""), SetReading("south", ReadingKind.DIAGONAL, (0, 2), ""))


def test_a_length_is_kept_as_typed_beside_its_metres() -> None:
    eave = first_reading(after(side(0, "39' 11 3/4\""))).taped
    assert (eave.typed, eave.value_m) == ("39' 11 3/4\"", pytest.approx(12.18565))


def test_a_shorter_tape_leaves_modules_in_place_and_says_which_no_longer_fit() -> None:
    job = after(side(0, "37'"), job=BARE)
    assert option_a(job).arrays == option_a(SAMPLE).arrays
    report = option_report(design_for(job, option_a(job)))
    assert report.steps["array"] is StepState.STOP
    first = report.checks[0].check
    assert first.rule_id == "array.on-roof"
    mended = after(first.fixes[0].edit, job=job)
    assert option_report(design_for(mended, option_a(mended))).broken_stops == 0


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (
            side(0, "forty"),
            NotUnderstood,
            "eave: “forty” was not understood. Type a length",
        ),
        (plane_field("slope", "95"), OutOfRange, "slope in degrees reads 95"),
        (plane_field("slope", "steep"), NotUnderstood, "6:12"),
        (plane_field("azimuth", "south"), NotUnderstood, "degrees from true north"),
        (plane_field("setback_eave", "-1'"), OutOfRange, "free strip at the eave"),
        (side(3, "0"), OutOfRange, "left rake in metres reads 0, but it must be more than 0"),
        (side(0, "900'"), OutOfRange, "at most 100"),
        (
            MoveObstruction("south", "o1", 50.0, 1.0),
            BadGeometry,
            "does not lie on the plane",
        ),
        (
            SetObstructionField("south", "o9", ObstructionField.LEFT, "1"),
            NotFound,
            "o9",
        ),
        (RemoveObstruction("south", "o9"), NotFound, "o9"),
        (SetCoordinates("75, 100"), OutOfRange, "Latitude"),
        (SetSiteField(SiteField.COLDEST, "cold"), NotUnderstood, "Coldest air: “cold”"),
        (
            SetPlace("x", "tropical-moon", CodePack.US, dwelling=True),
            NotFound,
            "tropical-moon",
        ),
        (RenameJob("   "), OutOfRange, "Length of the name"),
        (ToggleModules("a", ("ghost",)), NotFound, "ghost"),
        (ChooseInverter("a", "gone"), NotFound, "gone"),
        (ChooseModule("z", "sample-405"), NotFound, "option “z”"),
        (WishSeriesLength("a", 0), BadGeometry, "0 cannot be wired"),
        (FillPlane("a", "north", Ways.PORTRAIT), NotFound, "roof plane “north”"),
    ],
)
def test_a_refused_edit_names_field_value_and_remedy(edit, error, says: str) -> None:
    before = SAMPLE
    with pytest.raises(error, match=says):
        after(edit)
    assert before == SAMPLE


def test_a_roof_too_small_for_the_module_says_so() -> None:
    job = after(side(3, "5'"), job=BARE)
    with pytest.raises(BadGeometry, match=r"no module of 1\.722 × 1\.134 m fits"):
        after(FillPlane("a", "south", Ways.PORTRAIT), job=job)


def test_toggling_takes_a_module_off_its_string_and_back() -> None:
    off = after(ToggleModules("a", ("south-3",)))
    assert len(present_ids(option_a(off))) == 27
    assert sorted(len(s.module_ids) for s in option_a(off).strings) == [13, 14]
    assert option_a(after(ToggleModules("a", ("south-3",)), job=off)) == option_a(SAMPLE)


def test_a_compass_reading_is_made_true_for_its_place_and_day() -> None:
    plane = after(plane_field("azimuth", "168.6 compass")).survey.planes[0]
    # The world magnetic model has 7.45° east at the sample on 12 October 2026.
    assert (plane.compass_deg, plane.azimuth_deg) == (168.6, pytest.approx(176.05, abs=0.02))
    moved = after(
        plane_field("azimuth", "168.6 compass"), SetCoordinates("43.1, -8.2")
    ).survey.planes[0]
    assert moved.azimuth_deg == pytest.approx(168.6, abs=2)
    assert moved.azimuth_deg != plane.azimuth_deg
    true = after(plane_field("azimuth", "168.6 compass"), plane_field("azimuth", "170 true"))
    assert (true.survey.planes[0].compass_deg, true.survey.planes[0].azimuth_deg) == (None, 170)


def test_a_compass_reading_needs_its_day() -> None:
    with pytest.raises(MissingDatum, match="day of the survey"):
        after(SetSiteField(SiteField.SURVEY_DAY, ""), plane_field("azimuth", "90 mag"))


def test_a_plane_taken_from_a_plan_says_so_and_keeps_its_readings() -> None:
    job = after(SetLengthBasis("south", LengthBasis.PLAN), job=BARE)
    assert job.survey.planes[0].outline == BARE.survey.planes[0].outline
    # 21' 3" on plan at 6:12 is 23.758 feet up the slope.
    assert corners_m(job.survey.planes[0])[3, 1] / 0.3048 == pytest.approx(23.758, abs=1e-3)


@pytest.mark.parametrize("kind", list(ObstructionKind))
def test_each_kind_of_obstruction_is_placed_with_a_usual_size(kind: ObstructionKind) -> None:
    new = after(AddObstruction("south", kind, 2.0, 2.0)).survey.planes[0].obstructions[-1]
    assert new.kind is kind
    assert min(new.width.value_m, new.depth.value_m, new.height.value_m) > 0
    if kind in ROUND_KINDS:
        assert new.width == new.depth


def test_turning_the_modules_fills_again() -> None:
    job = after(FillPlane("a", "south", Ways.LANDSCAPE))
    assert {m.orientation for m in option_a(job).arrays[0].modules} == {Orientation.LANDSCAPE}
    assert job.options[1].arrays == SAMPLE.options[1].arrays


def test_another_module_of_another_size_fills_again_and_is_kept_in_the_job() -> None:
    job = after(ChooseModule("a", "sample-450"))
    assert [m.id for m in job.equipment.modules] == ["sample-405", "sample-450"]
    assert option_report(design_for(job, option_a(job))).broken_stops == 0


def test_another_inverter_restrings() -> None:
    job = after(ChooseInverter("a", "sample-i10"))
    assert len(option_a(job).strings) >= 2
    broken = [
        v.check.rule_id
        for v in option_report(design_for(job, option_a(job))).checks
        if v.check.verdict == "broken" and v.check.kind == "stop"
    ]
    assert broken == ["grid.busbar"]


def test_obstructions_are_added_moved_named_and_removed() -> None:
    job = after(
        AddObstruction("south", ObstructionKind.VENT, 2.0, 1.0),
        MoveObstruction("south", "o5", 2.5, 1.25),
        SetObstructionField("south", "o5", ObstructionField.WIDTH, '4"'),
    )
    added = job.survey.planes[0].obstructions[-1]
    assert (added.id, added.name) == ("o5", "Vent 4")
    # Off the left rake, which the readings lean in by a hair.
    assert (added.left.value_m, added.bottom.value_m) == pytest.approx((2.5, 1.25), abs=1e-3)
    assert added.depth == added.width
    assert after(RemoveObstruction("south", "o5"), job=job).survey == SAMPLE.survey


def test_options_are_copied_renamed_and_removed_but_never_the_last() -> None:
    job = after(CopyOption("a", "third"), RenameOption("c", "micro"), RemoveOption("b"))
    assert [(o.id, o.name) for o in job.options] == [("a", "two trackers"), ("c", "micro")]
    with pytest.raises(BadGeometry, match="last one"):
        after(RemoveOption("a"), RemoveOption("c"), job=job)


def test_an_emptied_temperature_is_not_given_and_a_typed_one_has_a_source() -> None:
    job = after(SetSiteField(SiteField.COLDEST, ""))
    assert job.site.coldest.value_degc is None
    assert option_report(design_for(job, option_a(job))).unchecked_stops == 2
    job = after(SetSiteField(SiteField.COLDEST, "-13 °F", "airport record"), job=job)
    assert job.site.coldest.value_degc == -25
    assert job.site.coldest.source == "airport record"


def test_bare_numbers_follow_the_unit_of_the_job() -> None:
    job = after(SetUnit(LengthUnit.METRE), side(0, "12.5"), job=BARE)
    assert first_reading(job).taped == Taped(12.5, "12.5 m")
    back = after(SetUnit(LengthUnit.FOOT), job=job)
    assert first_reading(back).taped == Taped(12.5, "12.5 m")


@pytest.mark.parametrize("edit", [RenameJob("x"), side(0, "40'"), SetUnit(LengthUnit.FOOT)])
def test_history_has_a_word_for_every_edit(edit: Edit) -> None:
    assert describe_edit(edit)
