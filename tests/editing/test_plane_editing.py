"""Several planes: added, mirrored, filled and strung apart, taken away with all that spoke of them."""

from datetime import date
from io import BytesIO
from pathlib import Path

import pytest
from pypdf import PdfReader

from jobs import SAMPLE, SHELF, option_a, warm_workspace_in
from ridge_tally.core.errors import BadGeometry, NotFound, OutOfRange
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.brief.needs import AddExisting, SetExistingPlane, SetNoGo
from ridge_tally.core.job.edits.brief.site import SetCoordinates
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import (
    AddOtherSide,
    AddPlane,
    PlaneField,
    RemovePlane,
    RenamePlane,
    SetPlaneField,
)
from ridge_tally.core.job.survey import ReadingKind
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.survey.polygon import area_m2
from ridge_tally.core.survey.standing import is_unmeasured
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.blank_job import blank_job
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.editing.survey.planes import MOST_PLANES
from ridge_tally.services import jobs
from ridge_tally.services.papers import design_sheet_pdf
from ridge_tally.views.loading.year import year_report
from ridge_tally.views.option import option_report
from ridge_tally.views.step_state import StepState


def after(*steps: Edit, job: Job = SAMPLE) -> Job:
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return job


TWO = after(
    AddOtherSide("south"),
    RenamePlane("plane-1", "North roof"),
    ChooseInverter("a", "sample-i10"),
)


def test_the_other_side_of_a_gable_faces_away_and_is_as_large() -> None:
    south, north = TWO.survey.planes
    assert north.name == "North roof"
    assert north.azimuth_deg == pytest.approx((south.azimuth_deg + 180) % 360)
    assert area_m2(corners_m(north)) == pytest.approx(area_m2(corners_m(south)))
    assert north.slope_deg == south.slope_deg
    assert all(r.derived for r in north.outline.readings if r.taped)
    assert north.obstructions == ()
    turned = after(
        SetPlaneField("south", PlaneField.AZIMUTH, "168.6 compass"),
        AddOtherSide("south"),
    ).survey.planes[1]
    assert turned.compass_deg == pytest.approx(348.6)


def test_a_new_plane_waits_to_be_measured() -> None:
    plane = after(AddPlane()).survey.planes[1]
    assert plane.name == "Roof plane 2"
    assert is_unmeasured(plane)
    assert not is_unmeasured(SAMPLE.survey.planes[0])


def test_the_survey_is_settled_once_every_plane_is_measured(tmp_path: Path) -> None:
    state = jobs.create_job(warm_workspace_in(tmp_path), "Larch End", LengthUnit.METRE, "tests")
    assert state.reports[0].steps["survey"] is StepState.NOT_BEGUN
    eave = SetReading("plane-1", ReadingKind.SIDE, (0,), "11.2")
    half = after(eave, job=state.job)
    assert option_report(design_for(half, option_a(half))).steps["survey"] is StepState.LOOK
    measured = after(SetReading("plane-1", ReadingKind.SIDE, (3,), "6"), job=half)
    assert (
        option_report(design_for(measured, option_a(measured))).steps["survey"] is StepState.SETTLED
    )
    more = after(AddPlane(), job=measured)
    assert option_report(design_for(more, option_a(more))).steps["survey"] is StepState.LOOK


def test_each_plane_has_its_own_strings_on_its_own_trackers() -> None:
    filled = after(FillPlane("a", "plane-1", Ways.PORTRAIT), job=TWO)
    option = option_a(filled)
    plane_of_module = {m.id: a.plane_id for a in option.arrays for m in a.modules}
    planes_of_tracker: dict[int, set[str]] = {}
    for string in option.strings:
        planes = {plane_of_module[m] for m in string.module_ids}
        assert len(planes) == 1
        planes_of_tracker.setdefault(string.tracker_number, set()).update(planes)
    assert all(len(planes) == 1 for planes in planes_of_tracker.values())
    assert len({s.tag for s in option.strings}) == len(option.strings)
    assert set().union(*planes_of_tracker.values()) == {"south", "plane-1"}


def test_a_north_plane_adds_less_than_a_south_one(tmp_path: Path) -> None:
    workspace = warm_workspace_in(tmp_path)
    option = option_a(TWO)
    alone = year_report(workspace.desk, design_for(TWO, option))
    both = after(FillPlane("a", "plane-1", Ways.LANDSCAPE), job=TWO)
    year = year_report(workspace.desk, design_for(both, option_a(both)))
    assert year.energy_kwh > alone.energy_kwh
    assert year.specific_kwh_per_kw < alone.specific_kwh_per_kw


def test_removing_a_plane_takes_what_stood_on_it_and_spoke_of_it() -> None:
    full = after(
        FillPlane("a", "plane-1", Ways.PORTRAIT),
        SetNoGo("plane-1", on=True),
        AddExisting(),
        SetExistingPlane("existing1", "plane-1", on=True),
        job=TWO,
    )
    gone = after(RemovePlane("plane-1"), job=full)
    assert [p.id for p in gone.survey.planes] == ["south"]
    assert {a.plane_id for o in gone.options for a in o.arrays} == {"south"}
    assert gone.brief.wishes.no_go_planes == ()
    assert gone.brief.already.arrays[0].plane_ids == ()
    assert option_report(design_for(gone, option_a(gone))).modules == 28


def test_the_sheet_draws_every_plane_in_use_on_its_one_page(tmp_path: Path) -> None:
    workspace = warm_workspace_in(tmp_path)
    both = after(FillPlane("a", "plane-1", Ways.PORTRAIT), job=TWO)
    state = jobs.store_job(workspace, both, "two planes", "tests")
    pdf = PdfReader(BytesIO(design_sheet_pdf(workspace, state.job_id, 1, option_a(both).id)))
    text = " ".join(pdf.pages[0].extract_text().split())
    assert "South roof: azimuth 176° true" in text
    assert "North roof: azimuth 356° true" in text


@pytest.mark.parametrize(
    ("steps", "error", "says"),
    [
        ((RemovePlane("south"),), BadGeometry, "last one cannot be removed"),
        ((RemovePlane("attic"),), NotFound, "attic"),
        ((AddOtherSide("attic"),), NotFound, "attic"),
        ((RenamePlane("south", "  "),), OutOfRange, "Length of the name"),
        ((AddPlane(),) * MOST_PLANES, BadGeometry, f"at most {MOST_PLANES}"),
    ],
)
def test_what_cannot_be_is_refused(steps, error, says) -> None:
    with pytest.raises(error, match=says):
        after(*steps)


def test_a_plane_nobody_has_looked_at_faces_the_equator() -> None:
    blank = blank_job(SHELF, "Larch End", LengthUnit.METRE, date(2026, 3, 1))
    assert blank.survey.planes[0].azimuth_deg == 180.0
    south = apply_edit(blank, SetCoordinates("-41.3, 174.8"), SHELF)
    assert south.survey.planes[0].azimuth_deg == 0.0
    assert apply_edit(south, AddPlane(), SHELF).survey.planes[1].azimuth_deg == 0.0
    # What somebody read stays, wherever the site is found to be.
    read = apply_edit(blank, SetPlaneField("plane-1", PlaneField.AZIMUTH, "180"), SHELF)
    moved = apply_edit(read, SetCoordinates("-41.3, 174.8"), SHELF)
    assert moved.survey.planes[0].azimuth_deg == 180.0
