"""Several inverters in an option: their inputs numbered through, each with its own limits."""

import json
from dataclasses import replace
from pathlib import Path

import pytest

from jobs import EPOCH, FULL, SAMPLE, SHELF, option_a, warm_workspace_in
from ridge_tally.core.errors import (
    BadGeometry,
    MissingDatum,
    NotFound,
    NotUnderstood,
    OutOfRange,
)
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.array.modules import RemoveModules
from ridge_tally.core.job.edits.strings.inverters import (
    AddInverter,
    ChangeInverter,
    ChooseInverter,
    RemoveInverter,
    UseDcInput,
)
from ridge_tally.core.job.edits.strings.threading import MoveString, PlannedString, UsePlan
from ridge_tally.core.job.system import system_of, tracker_inputs
from ridge_tally.core.strings.parts import ac_makers, counted_names
from ridge_tally.core.working import LimitKind, Verdict
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.formats.sheet_pdf import write_sheet_pdf
from ridge_tally.rules.design import Design
from ridge_tally.rules.report import all_checks
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.plant import plant_of
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.strings.plans import plans_report
from ridge_tally.studies.strings.remedies import WIRING, remedies
from ridge_tally.views.loading.year import year_report
from ridge_tally.views.option import option_report
from ridge_tally.views.sheets.design import Stamp, sheet_content

TWO = apply_edits(
    FULL,
    [AddInverter("a", "sample-i5"), MoveString("a", "B", 3)],
    SHELF,
)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("inverters")))


def wired(job: Job) -> dict[str, int]:
    return {s.tag: s.tracker_number for s in option_a(job).strings if s.locked}


def test_inputs_are_numbered_through_and_the_job_file_keeps_them() -> None:
    inputs = tracker_inputs(system_of(TWO, option_a(TWO)).inverters)
    assert [(t.number, t.unit_number, t.inverter.id) for t in inputs] == [
        (1, 1, "sample-i7-6"), (2, 1, "sample-i7-6"), (3, 2, "sample-i5"), (4, 2, "sample-i5"),
    ]  # fmt: skip
    assert read_job(write_job(TWO)) == TWO
    report = option_report(design_for(TWO, option_a(TWO)))
    assert [t.inverter for t in report.trackers] == ["inverter 1"] * 2 + ["inverter 2"] * 2
    assert report.p_ac_w == 12_600


def test_each_inverter_has_its_own_maker_s_watts_and_voltage_limit() -> None:
    found = {(c.rule_id, c.subject): c for c in all_checks(design_for(TWO, option_a(TWO)))}
    # A hangs on the first, B on the second: 14 x 405 W each.
    for unit, most in ((1, 11_400.0), (2, 7_500.0)):
        check = found["loading.dc-limit", f"inverter {unit}"]
        assert (check.value.value, check.limit.value) == (5670.0, most)


def test_the_year_is_the_sum_of_both_and_each_clips_by_itself(workspace: Workspace) -> None:
    option = option_a(TWO)
    plant = plant_of(workspace.desk, design_for(TWO, option))
    assert [side.rating_w for side in plant.sides] == [7600.0, 5000.0]
    year = hourly_year(workspace.desk, design_for(TWO, option))
    assert year.limit_w == 12_600
    alone = hourly_year(workspace.desk, design_for(FULL, option_a(FULL)))
    # With half the array on each hardly anything is clipped any more.
    assert alone.clipped_kwh > 1000 > year.clipped_kwh
    # Nearly the same from the same light: the second one's inputs take a little less current.
    assert year.dc_w.sum() == pytest.approx(alone.dc_w.sum(), rel=2e-3)
    assert year_report(workspace.desk, design_for(TWO, option)).energy_kwh > year.energy_kwh - 1


def test_the_planner_uses_the_inputs_of_both(workspace: Workspace) -> None:
    report = plans_report(workspace.desk, design_for(TWO, option_a(TWO)))
    assert report.total > 1
    assert max(s.tracker_number for p in report.plans for s in p.edit.strings) == 4


def test_taken_away_its_strings_are_planned_anew_and_the_others_stay() -> None:
    first_gone = apply_edit(TWO, RemoveInverter("a", 1), SHELF)
    assert option_a(first_gone).inverter_id == "sample-i5"
    # B was on the first input of the second, which is input 1 now.
    assert wired(first_gone) == {"B": 1}
    assert sum(len(s.module_ids) for s in option_a(first_gone).strings) == 28
    other = apply_edit(TWO, ChangeInverter("a", 1, "sample-i10"), SHELF)
    # Three inputs stand before it now.
    assert wired(other)["B"] == 4
    one = apply_edit(TWO, ChooseInverter("a", "sample-i12"), SHELF)
    assert counted_names(ac_makers(system_of(one, option_a(one)))).startswith(
        "Sample inverter 12.0 kW"
    )


def test_alike_ones_are_counted() -> None:
    job = apply_edit(FULL, AddInverter("a", "sample-i7-6"), SHELF)
    assert counted_names(ac_makers(system_of(job, option_a(job)))).startswith(
        "2 × Sample inverter 7.6 kW"
    )


@pytest.mark.parametrize(
    ("steps", "error", "match"),
    [
        ([RemoveInverter("a", 1)], BadGeometry, "the last one stays"),
        ([RemoveInverter("a", 2)], NotFound, "inverter number"),
        ([AddInverter("a", "sample-none")], NotFound, "sample-none"),
        ([AddInverter("a", "sample-i5")] * 4, BadGeometry, "at most 4"),
    ],
)
def test_what_cannot_hang_there_is_refused(steps, error, match) -> None:
    with pytest.raises(error, match=match):
        apply_edits(replace(FULL), steps, SHELF)


def test_a_bare_dc_input_checks_the_sums_of_any_array(workspace) -> None:
    # By hand: 150 V, 30 A, 2000 W and two strings of three 405 W modules.
    typed = UseDcInput("a", "150 V", "30", "2000 W", "2")
    job = apply_edit(FULL, typed, SHELF)
    ids = present_ids(option_a(job))
    two = tuple(PlannedString(1, part) for part in (ids[:3], ids[3:6]))
    job = apply_edit(job, UsePlan("a", two), SHELF)
    checks = {(c.rule_id, c.subject): c for c in all_checks(design_for(job, option_a(job)))}
    cold = checks["strings.cold-voltage", "string A"]
    assert cold.value.value == pytest.approx(3 * 37.3 * (1 + 0.0027 * 53))
    assert cold.limit.value == 150.0
    short = checks["strings.short-circuit-current", "tracker 1"]
    # 1.25 x 2 x 13.84 A = 34.6 A of 30 A.
    assert (short.value.value, short.verdict) == (pytest.approx(34.6), Verdict.BROKEN)
    watts = checks["strings.tracker-watts", "tracker 1"]
    assert (watts.value.value, watts.verdict) == (6 * 405.0, Verdict.BROKEN)
    assert read_job(write_job(job)) == job
    with pytest.raises(MissingDatum, match="A DC input makes no AC, so there is no year"):
        year_report(workspace.desk, design_for(job, option_a(job)))


def six_on_an_input(*lengths: int) -> Design:
    """Six modules of 405 W in strings of those lengths on an input of 150 V, 40 A and 2500 W."""
    rest = present_ids(option_a(SAMPLE))[6:]
    typed = UseDcInput("a", "150", "40", "2500", "3")
    job = apply_edits(SAMPLE, [RemoveModules("a", rest), typed], SHELF)
    ids, strings, first = present_ids(option_a(job)), list[PlannedString](), 0
    for length in lengths:
        strings.append(PlannedString(1, ids[first : first + length]))
        first += length
    job = apply_edit(job, UsePlan("a", tuple(strings)), SHELF)
    return design_for(job, option_a(job))


def test_a_dc_input_is_no_ac_and_nothing_asks_it_for_any(workspace: Workspace) -> None:
    design = six_on_an_input(3, 3)
    report = option_report(design)
    assert (report.makes_ac, report.p_ac_w, report.dc_ac_ratio) == (False, 0.0, None)
    # By hand: 3 x 37.3 V x (1 + 0.0027 x 53) = 127.9 V; 1.25 x 2 x 13.84 A = 34.6 A; 2430 W.
    assert [v.check.title for v in report.checks if v.check.verdict is Verdict.BROKEN] == []
    assert not any(
        v.check.rule_id.startswith(("grid.", "loading.")) and v.check.kind is LimitKind.STOP
        for v in report.checks
    )
    assert {"strings.cold-voltage", "strings.short-circuit-current", "strings.tracker-watts"} <= {
        v.check.rule_id for v in report.checks
    }
    sheet = sheet_content(workspace.desk, design, Stamp(1, EPOCH.date()))
    assert "DC input 150 V, 40 A, 2500 W" in sheet.equipment
    assert "2.43 kW DC, nothing makes AC" in sheet.equipment
    assert "A DC input makes no AC" in sheet.year[1]
    assert write_sheet_pdf(sheet).startswith(b"%PDF")


def test_the_first_way_out_for_a_dc_input_is_other_strings(workspace: Workspace) -> None:
    # Six in series are 255.8 V cold, on 150 V.
    design = six_on_an_input(6)
    *_, found = remedies(workspace.desk, design)
    first = found.remedies[0]
    assert first.kind in WIRING
    assert found.best == 0
    assert first.legal
    assert first.problem == ""
    after = apply_edit(design.job, first.edit, SHELF)
    lengths = sorted(len(s.module_ids) for s in option_a(after).strings)
    assert lengths in ([3, 3], [2, 2, 2])
    # 1.25 x 3 x 13.84 A are 51.9 A: three strings are too many for 40 A.
    assert lengths == [3, 3]


def test_an_input_stored_before_it_had_a_mark_gets_it() -> None:
    job = six_on_an_input(3, 3).job
    old = json.loads(write_job(job))
    old["job"]["version"] = 9
    for sheet in old["job"]["equipment"]["inverters"]:
        del sheet["dc_only"]
    assert read_job(json.dumps(old)) == job


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"most_v": "-3"}, "Highest volts reads -3"),
        ({"most_a": "many"}, "Most amperes"),
        ({"strings": "1.5"}, "Strings in parallel"),
        ({"most_w": "0"}, "Most watts"),
    ],
)
def test_a_bare_dc_input_that_cannot_be_is_refused(change: dict, says: str) -> None:
    typed = {"most_v": "150", "most_a": "30", "most_w": "2000", "strings": "2"} | change
    with pytest.raises((OutOfRange, NotUnderstood), match=says):
        apply_edit(FULL, UseDcInput("a", **typed), SHELF)
