"""Legal plans ranked, why others are not legal, and every plan held to every check again."""

import math
from dataclasses import replace
from pathlib import Path

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, warm_workspace_in, with_inverter, with_module
from ridge_tally.core.equipment import TrackerSheet
from ridge_tally.core.job.document import Job, present_ids, strung_count, with_option
from ridge_tally.core.job.edits.array.modules import RemoveModules
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.edits.strings.threading import ThreadString
from ridge_tally.core.working import LimitKind, Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.report import all_checks
from ridge_tally.rules.strings.plans import length_told, plan_space, why_no_plan
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.strings.inverters import inverter_plans, no_plan
from ridge_tally.studies.strings.plans import Objective, plans_report


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("plans")))


def why(job: Job) -> str:
    design = design_for(job, option_a(job))
    return why_no_plan(design, plan_space(design))


def without(count: int, job: Job = SAMPLE) -> Job:
    return apply_edit(job, RemoveModules("a", present_ids(option_a(job))[:count]), SHELF)


TWO_INPUTS = tuple(TrackerSheet(120.0, 520.0, 30.0, 50.0, 2) for _ in range(2))


def test_the_sample_has_one_legal_plan_and_it_is_the_one_there_is(workspace) -> None:
    report = plans_report(workspace.desk, design_for(FULL, option_a(FULL)))
    assert (report.total, report.why_none) == (1, "")
    (plan,) = report.plans
    assert [(s.tracker_number, len(s.module_ids)) for s in plan.edit.strings] == [(1, 14), (2, 14)]
    assert plan.told == "South roof: 14 on tracker 1, 14 on tracker 2"
    assert plan.current
    # One year everywhere: the plan's is the option's own.
    design = design_for(FULL, option_a(FULL))
    assert plan.energy_kwh == hourly_year(workspace.desk, design).energy_kwh


def test_every_legal_plan_passes_every_stop_when_it_is_wired(workspace) -> None:
    job = with_inverter(FULL, trackers=TWO_INPUTS)
    report = plans_report(workspace.desk, design_for(job, option_a(job)))
    assert report.total == 10
    for plan in report.plans:
        wired = apply_edit(job, plan.edit, SHELF)
        design = design_for(wired, option_a(wired))
        stops = [
            c
            for c in all_checks(design)
            if c.kind is LimitKind.STOP and c.rule_id.startswith("strings.")
        ]
        assert stops
        assert {c.verdict for c in stops} == {Verdict.KEPT}
        assert sum(len(s.module_ids) for s in option_a(wired).strings) == 28


def test_what_the_person_puts_first_comes_first(workspace) -> None:
    job = with_inverter(FULL, trackers=TWO_INPUTS)
    fewest = plans_report(workspace.desk, design_for(job, option_a(job)), Objective.FEWEST_STRINGS)
    assert fewest.plans[0].merits.strings == min(p.merits.strings for p in fewest.plans) == 2
    head = plans_report(workspace.desk, design_for(job, option_a(job)), Objective.HEADROOM)
    assert head.plans[0].merits.tight_strings == 0
    assert head.ranked_by.startswith("strings with headroom")
    middle = plans_report(workspace.desk, design_for(job, option_a(job)), Objective.MIDDLE)
    offs = [p.merits.off_centre_v for p in middle.plans]
    assert offs == sorted(offs)


def test_lengths_are_told_with_their_numbers() -> None:
    # By hand: 15 x 37.3 V x (1 + 0.0027 x 53) = 639.6 V at -28 °C.
    design = design_for(SAMPLE, option_a(SAMPLE))
    over = length_told(design, design.module, 15)
    assert over.breaks is LimitKind.STOP
    assert over.told == (
        "15 in series: 640 V on a −28 °C morning, the inverter input limit is 600 V"
    )
    assert length_told(design, design.module, 14).breaks is None
    short = length_told(design, design.module, 3)
    assert short.breaks is LimitKind.COSTS
    assert "the tracker needs 120 V" in short.told


def test_each_gate_says_in_one_sentence_why_no_plan_is_legal() -> None:
    weak = with_inverter(
        SAMPLE,
        trackers=tuple(replace(t, isc_max_a=15.0) for t in SAMPLE.equipment.inverters[0].trackers),
    )
    assert why(weak) == (
        "One string alone is 17.3 A short-circuited (1.25 × Isc); no input takes more than 15 A."
    )
    narrow = with_inverter(SAMPLE, v_start_v=560.0)
    assert why(narrow).startswith("Needs at least 17 modules in series to start and track")
    assert "only 14 stay under 600 V at −28 °C" in why(narrow)
    three = without(25)
    assert why(three) == (
        "3 modules on South roof cannot be split into strings of 5 to 14; 5 would."
    )
    one = with_inverter(SAMPLE, trackers=SAMPLE.equipment.inverters[0].trackers[:1])
    assert why(one) == "28 modules need at least 2 strings of up to 14; the inverter takes 1."
    tall = with_module(SAMPLE, voc_v=700.0, vmp_v=600.0, max_system_v=1000.0)
    assert "over 600 V at −28 °C" in why(tall)
    none = without(28)
    assert "nothing to string" in why(none)


def test_no_combination_names_the_counts_nearby_that_fit() -> None:
    # Two inputs of one tracker, strings of 13 or 14: 28 fit as 14 + 14, 27 not at all.
    tracker = (TrackerSheet(350.0, 520.0, 30.0, 50.0, 2),)
    job = without(1, with_inverter(SAMPLE, trackers=tracker))
    told = why(job)
    assert told.startswith("No combination of strings of 13 to 14 on 1 tracker(s) holds exactly 27")
    assert told.endswith("26 or 28 would fit.")


def test_the_shelf_s_inverters_come_one_by_one_with_a_plan_or_a_reason(workspace) -> None:
    *before, last = inverter_plans(
        workspace.desk, design_for(FULL, option_a(FULL)), SHELF.inverters
    )
    first = [step for step in before if step.years == 0]
    assert [len(step.found) for step in first] == list(range(len(SHELF.inverters) + 1))
    assert last.years == sum(i.legal for i in last.found)
    assert len(last.found) == last.of == len(SHELF.inverters)
    found = {i.inverter_id: i for i in last.found}
    assert not found["sample-i3"].legal
    assert found["sample-i3"].told.endswith("the inverter takes 1.")
    assert found["sample-i7-6"].total == 1
    assert found["sample-i7-6"].loading == pytest.approx(28 * 405 / 7600)
    assert {i.energy_kwh is not None for i in last.found if i.legal} == {True}
    assert {i.energy_kwh for i in last.found if not i.legal} == {None}
    # Its best plan, fourteen and fourteen, is what the sample has.
    own = hourly_year(workspace.desk, design_for(FULL, option_a(FULL)))
    assert found["sample-i7-6"].energy_kwh == pytest.approx(own.energy_kwh, rel=2e-3)


def test_without_a_typed_extreme_the_sentence_says_what_stands_in() -> None:
    site = replace(SAMPLE.site, coldest=replace(SAMPLE.site.coldest, value_degc=None))
    job = replace(SAMPLE, site=site)
    design = design_for(job, option_a(job))
    assert "(stand-in by climate)" in length_told(design, design.module, 16).told


def test_locks_that_leave_modules_without_a_place_say_what_to_change(workspace) -> None:
    ids = present_ids(option_a(FULL))
    job = apply_edit(FULL, ThreadString("a", 1, ids[:6]), SHELF)
    job = apply_edit(job, ThreadString("a", 2, ids[6:12]), SHELF)
    kept = tuple(s for s in option_a(job).strings if len(s.module_ids) == 6)
    option = replace(option_a(job), strings=kept)
    told = plans_report(workspace.desk, design_for(with_option(job, option), option)).held_up
    tags = ", ".join(s.tag for s in kept)
    assert told.startswith(
        f"Locked as they are, {tags} leave no legal place for 16 modules: unlock"
    )
    assert plans_report(workspace.desk, design_for(FULL, option_a(FULL))).held_up == ""


def test_where_no_plan_strings_all_the_nearest_inverter_that_does_is_named(workspace) -> None:
    small = next(i for i in SHELF.inverters if i.p_ac_w == 3000.0 and len(i.trackers) == 1)
    job = apply_edit(SAMPLE, ChooseInverter("a", small.id), SHELF)
    told = no_plan(workspace.desk, design_for(job, option_a(job)))
    assert told.why == "28 modules need at least 2 strings of up to 14; the inverter takes 1."
    assert told.nearest is not None
    assert told.edit is not None
    mended = apply_edit(job, told.edit, SHELF)
    design = design_for(mended, option_a(mended))
    assert strung_count(option_a(mended)) == 28
    assert no_plan(workspace.desk, design).why == ""
    # None that also has a plan keeping every Stop lies nearer.
    off = abs(math.log(told.nearest.p_ac_w / 3000))
    for sheet in SHELF.inverters:
        if abs(math.log(sheet.p_ac_w / 3000)) < off - 1e-9:
            other = apply_edit(job, ChooseInverter("a", sheet.id), SHELF)
            found = design_for(other, option_a(other))
            assert plan_space(found).plans().total == 0 or any(
                c.verdict is Verdict.BROKEN and c.kind in (LimitKind.STOP, LimitKind.OUTSIDE)
                for c in all_checks(found)
            )


def test_where_no_inverter_serves_only_the_reason_is_told(workspace) -> None:
    cold = with_module(SAMPLE, voc_v=2000.0, vmp_v=1900.0)
    told = no_plan(workspace.desk, design_for(cold, option_a(cold)))
    assert told.why.startswith("One module alone is over 600 V")
    assert (told.nearest, told.edit) == (None, None)
