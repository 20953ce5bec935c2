"""Use cases on jobs: saving, conflicts with both sides kept, evaluation and the sheet."""

from dataclasses import replace
from io import BytesIO
from pathlib import Path

import pytest
from pypdf import PdfReader

from jobs import SAMPLE, warm_workspace_in
from ridge_tally.core.errors import Conflict, FormatError, MissingDatum, OutOfRange
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.options import RenameJob
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import PlaneField, SetPlaneField
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.survey import ReadingKind
from ridge_tally.core.units import LengthUnit
from ridge_tally.editing.design import design_for
from ridge_tally.formats.job_file import write_job
from ridge_tally.services import jobs
from ridge_tally.services.papers import design_sheet_pdf
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.remembered import Remembered
from ridge_tally.studies.array.layouts import alternatives
from ridge_tally.views.loading.year import year_report
from ridge_tally.views.option import option_report

RENAME = RenameJob("Juniper Flat")
FILL_FIRST = FillPlane("a", "plane-1", Ways.PORTRAIT)
TURN = SetPlaneField("south", PlaneField.AZIMUTH, "200")


@pytest.fixture
def workspace(tmp_path: Path) -> Workspace:
    made = warm_workspace_in(tmp_path)
    jobs.store_job(made, SAMPLE, "sample", "tests")
    return made


def test_a_save_answers_with_the_new_revision_and_its_checks(workspace: Workspace) -> None:
    state = jobs.save_edit(workspace, "juniper-bench", 1, RENAME, "tab 1")
    assert (state.revision, state.job.name, state.undo) == (2, "Juniper Flat", "rename job")
    assert [r.option_id for r in state.reports] == ["a", "b"]
    assert jobs.list_jobs(workspace)[0].name == "Juniper Flat"


def test_only_what_an_edit_touches_is_reported_again(workspace: Workspace) -> None:
    before = jobs.open_job(workspace, "juniper-bench")
    toggled = jobs.save_edit(
        workspace, "juniper-bench", 1, ToggleModules("a", ("south-3",)), "tab 1"
    )
    assert toggled.reports[0] != before.reports[0]
    assert toggled.reports[1] is before.reports[1]
    assert (toggled.brief, toggled.survey) == (before.brief, before.survey)
    # What all options rest on is in every report.
    turned = jobs.save_edit(workspace, "juniper-bench", 2, TURN, "tab 1")
    assert turned.survey != before.survey
    assert turned.reports[1] is not before.reports[1]
    for state in (toggled, turned):
        fresh = [option_report(design_for(state.job, option)) for option in state.job.options]
        assert list(state.reports) == fresh


def test_the_losing_side_of_a_conflict_becomes_a_job_of_its_own(workspace: Workspace) -> None:
    jobs.save_edit(workspace, "juniper-bench", 1, RENAME, "tab 1")
    with pytest.raises(Conflict, match="Your version is kept") as caught:
        jobs.save_edit(workspace, "juniper-bench", 1, TURN, "tab 2")
    kept = jobs.open_job(workspace, caught.value.kept_job_id)
    assert kept.job.survey.planes[0].azimuth_deg == 200
    assert jobs.open_job(workspace, "juniper-bench").job.name == "Juniper Flat"


def test_an_edit_whose_answer_was_lost_may_be_sent_again(workspace: Workspace) -> None:
    first = jobs.save_edit(workspace, "juniper-bench", 1, RENAME, "tab 1")
    again = jobs.save_edit(workspace, "juniper-bench", 1, RENAME, "tab 1")
    assert (again.revision, again.job) == (first.revision, first.job)
    assert len(jobs.list_jobs(workspace)) == 1


def test_a_refused_edit_stores_nothing(workspace: Workspace) -> None:
    with pytest.raises(OutOfRange):
        jobs.save_edit(workspace, "juniper-bench", 1, replace(TURN, typed="999"), "tab")
    assert jobs.open_job(workspace, "juniper-bench").revision == 1


def test_undo_and_redo_survive_closing_the_program(tmp_path: Path, workspace: Workspace) -> None:
    jobs.save_edit(workspace, "juniper-bench", 1, RENAME, "tab")
    again = warm_workspace_in(tmp_path)
    assert jobs.undo(again, "juniper-bench", 2).job.name == "Juniper Bench"
    state = jobs.open_job(warm_workspace_in(tmp_path), "juniper-bench")
    assert (state.undo, state.redo) == ("", True)
    assert jobs.redo(again, "juniper-bench", 1).job.name == "Juniper Flat"


def test_any_stored_revision_still_answers(workspace: Workspace) -> None:
    jobs.save_edit(workspace, "juniper-bench", 1, RENAME, "tab")
    old = jobs.open_job(workspace, "juniper-bench", 1)
    assert (old.job, old.is_newest) == (SAMPLE, False)


def test_export_import_duplicate_delete_restore(workspace: Workspace) -> None:
    text, suffix = jobs.export_job(workspace, "juniper-bench")
    assert suffix == ".ridgetally.json"
    assert text == write_job(SAMPLE).encode()
    brought = jobs.import_job(workspace, text, "a.ridgetally.json", "tests")
    assert (brought.job_id, brought.job) == ("juniper-bench-2", SAMPLE)
    assert (
        jobs.duplicate_job(workspace, "juniper-bench", "tests").job.name == "Juniper Bench (copy)"
    )
    jobs.delete_job(workspace, "juniper-bench")
    assert len(jobs.list_jobs(workspace)) == 2
    assert jobs.restore_job(workspace, "juniper-bench").job == SAMPLE


def test_a_bad_file_stores_nothing(workspace: Workspace) -> None:
    with pytest.raises(FormatError):
        jobs.import_job(workspace, b"{}", "a.json", "tests")
    assert len(jobs.list_jobs(workspace)) == 1


def test_a_file_with_a_climate_nobody_knows_is_refused_before_it_is_stored(
    workspace: Workspace,
) -> None:
    text = write_job(SAMPLE).replace('"high-desert"', '"tropical-moon"')
    with pytest.raises(FormatError, match="climate type “tropical-moon”"):
        jobs.import_job(workspace, text.encode(), "a.json", "tests")
    assert len(jobs.list_jobs(workspace)) == 1


@pytest.mark.parametrize("unit", LengthUnit)
def test_a_new_job_is_sound_and_says_what_is_not_known(
    workspace: Workspace, unit: LengthUnit
) -> None:
    state = jobs.create_job(workspace, "New roof", unit, "tests")
    with pytest.raises(MissingDatum, match="Roof plane 1 has no closed outline yet"):
        jobs.save_edit(workspace, state.job_id, 1, FILL_FIRST, "tests")
    for revision, edge in ((1, 0), (2, 3)):
        taped = SetReading("plane-1", ReadingKind.SIDE, (edge,), "9.6 m")
        jobs.save_edit(workspace, state.job_id, revision, taped, "tests")
    filled = jobs.save_edit(workspace, state.job_id, 3, FILL_FIRST, "tests")
    assert filled.reports[0].modules > 10
    # Nobody typed the coldest temperature: the Stop is unchecked, never kept.
    assert filled.reports[0].unchecked_stops > 0


def test_the_year_is_marked_and_remembered(workspace: Workspace) -> None:
    option = SAMPLE.options[0]
    first = year_report(workspace.desk, design_for(SAMPLE, option))
    assert first.stand_in_weather
    assert any("minutes within each" in caveat for caveat in first.caveats)
    assert sum(first.monthly_kwh) == pytest.approx(first.energy_kwh)
    assert first.specific_kwh_per_kw == pytest.approx(first.energy_kwh / (28 * 0.405))
    renamed = replace(SAMPLE, name="other")
    assert year_report(workspace.desk, design_for(renamed, option)) == first


def test_a_place_not_given_and_a_clock_that_cannot_be_are_told(workspace: Workspace) -> None:
    site = replace(SAMPLE.site, place="", utc_offset_h=7.0)
    caveats = " ".join(
        year_report(
            workspace.desk, design_for(replace(SAMPLE, site=site), SAMPLE.options[0])
        ).caveats
    )
    assert "No place is given" in caveats
    assert "disagree by 14.0 h" in caveats


def test_no_strings_no_year(workspace: Workspace) -> None:
    option = replace(SAMPLE.options[0], strings=())
    with pytest.raises(MissingDatum, match="Fill the roof"):
        year_report(workspace.desk, design_for(SAMPLE, option))


def test_remembered_values_are_bounded_and_the_oldest_goes() -> None:
    memory, calls = Remembered(2), []
    for key in ("a", "b", "a", "c", "a", "b"):
        memory.get(key, lambda key=key: calls.append(key))
    assert calls == ["a", "b", "c", "b"]


def test_alternatives_are_ranked_by_count(workspace: Workspace) -> None:
    found = alternatives(workspace.desk, design_for(SAMPLE, SAMPLE.options[0]), "south")
    assert [a.count for a in found] == sorted((a.count for a in found), reverse=True)
    assert found[0].count == len(found[0].places) <= found[0].at_most


@pytest.mark.parametrize("option_id", ["a", "b"])
def test_the_sheet_says_all_it_must_without_a_picture(workspace: Workspace, option_id: str) -> None:
    pdf = PdfReader(BytesIO(design_sheet_pdf(workspace, "juniper-bench", 1, OptionId(option_id))))
    assert len(pdf.pages) <= 2
    text = " ".join(" ".join(page.extract_text() for page in pdf.pages).split())
    for wanted in (
        "Juniper Bench", "Revision 1", "2026-03-01", "Stand-in weather", "kWh a year at the meter",
        "Cold Voc", "37.3 V", "Daylight keeps module wiring live", "40' 0\"", "21' 3\"",
    ):  # fmt: skip
        assert wanted in text
    assert ("broken" in text) is (option_id == "b")
    assert not pdf.pages[0].images


def test_a_name_with_markup_cannot_reach_the_sheet_as_markup(workspace: Workspace) -> None:
    nasty = replace(SAMPLE, name='<img src="http://elsewhere/x">')
    state = jobs.store_job(workspace, nasty, "test", "tests")
    pdf = PdfReader(BytesIO(design_sheet_pdf(workspace, state.job_id, 1, OptionId("a"))))
    assert "<img" in pdf.pages[0].extract_text()
