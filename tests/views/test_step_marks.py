"""The marks of the steps: no step is settled while a limit met in it is broken or unchecked."""

from dataclasses import replace

import pytest

from jobs import FULL, SHELF, option_a, with_inverter
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.brief.grid import GridField, SetGridField
from ridge_tally.core.job.edits.brief.needs import SetNoGo
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics
from ridge_tally.core.job.edits.strings.threading import WishSeriesLength
from ridge_tally.core.job.option import Option
from ridge_tally.core.steps import WorkStep
from ridge_tally.core.working import STEP_OF, Family, LimitKind, Verdict
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.views.option import option_report
from ridge_tally.views.step_state import StepState

SAMPLES = (FULL, kiln_yard(SHELF), lagoon_road(SHELF), mill_terrace(SHELF))


def require_marked(job: Job, option: Option) -> set[Family]:
    """Hold every check against its step's mark; the families of what does not hold."""
    report, off = option_report(design_for(job, option)), set()
    for view in report.checks:
        check = view.check
        assert check.step is STEP_OF[check.family]
        if check.verdict is Verdict.KEPT or check.kind is LimitKind.NOTE:
            continue
        off.add(check.family)
        mark = report.steps[check.step]
        assert mark in (StepState.LOOK, StepState.STOP), (check.rule_id, mark)
        if check.kind is LimitKind.STOP and check.verdict is Verdict.BROKEN:
            assert mark is StepState.STOP
            assert report.steps[WorkStep.SHEETS] is StepState.STOP
    return off


@pytest.mark.parametrize("job", SAMPLES, ids=lambda job: job.name)
def test_no_step_of_a_sample_is_settled_against_its_checks(job: Job) -> None:
    for option in job.options:
        require_marked(job, option)


def test_each_family_of_limits_marks_its_step() -> None:
    micro = next(m for m in SHELF.microinverters if m.inputs == 1)
    tiny = replace(micro, v_dc_max_v=30.0, v_max_v=29.0)
    by_micro = apply_edit(FULL, ChooseElectronics("a", Architecture.MICRO, micro.id), SHELF)
    by_micro = replace(by_micro, equipment=replace(by_micro.equipment, microinverters=(tiny,)))
    assert Family.MICRO in require_marked(by_micro, option_a(by_micro))
    capped = apply_edit(FULL, SetGridField(GridField.AC_CAP, "3 kW"), SHELF)
    assert Family.GRID in require_marked(capped, option_a(capped))
    barred = apply_edit(FULL, SetNoGo("south", on=True), SHELF)
    assert Family.WISH in require_marked(barred, option_a(barred))
    long = apply_edit(FULL, WishSeriesLength("a", 20), SHELF)
    assert Family.STRINGS in require_marked(long, option_a(long))
    weak = with_inverter(FULL, p_dc_max_w=4000.0)
    assert Family.LOADING in require_marked(weak, option_a(weak))
