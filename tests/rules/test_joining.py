"""Joining to the panel and the phases, against the worked examples of the code, by hand.

NEC 2023 705.12(B): sum of sources, 120 per cent at the opposite end, sum of breakers, and 705.11
and 705.12(A); clauses from memory.  A 7.6 kW inverter at 240 V gives 31.67 A, 125 % is 39.58 A.
"""

from dataclasses import replace

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.document import CodePack, Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.brief.grid import GridField, SetGridField
from ridge_tally.core.job.edits.brief.needs import ServiceField, SetServiceField
from ridge_tally.core.job.edits.loading.batteries import SetBattery
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics
from ridge_tally.core.job.edits.strings.inverters import AddInverter, ChooseInverter
from ridge_tally.core.job.edits.strings.wiring import SetStringFuse
from ridge_tally.core.working import Check, Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.loading.grid import grid_checks

SERVICE = ServiceField


def checks(*changes: Edit, of: Job = SAMPLE) -> dict[str, Check]:
    job = of
    for change in changes:
        job = apply_edit(job, change, SHELF)
    return {c.rule_id: c for c in grid_checks(design_for(job, option_a(job)))}


def panel(main: str, bus: str, place: str, loads: str = "", feeder: str = "") -> tuple[Edit, ...]:
    return (
        SetServiceField(SERVICE.MAIN_BREAKER, main),
        SetServiceField(SERVICE.BUSBAR, bus),
        SetServiceField(SERVICE.SOURCE_BREAKER, place),
        SetServiceField(SERVICE.LOAD_BREAKERS, loads),
        SetServiceField(SERVICE.FEEDER, feeder),
    )


@pytest.mark.parametrize(
    ("typed", "verdict", "clause", "amps"),
    [
        # 200 + 39.58 = 239.58 A: over the bar by itself, within 120 % of it, 240 A.
        (panel("200", "200", "opposite-end"), "kept", "705.12(B)(2)", 239.583),
        (panel("200", "199", "opposite-end"), "broken", "705.12(B)(2)", 239.583),
        (panel("200", "200", "elsewhere"), "broken", "705.12(B)(1)", 239.583),
        (panel("200", "200", "centre-fed"), "kept", "705.12(B)(4)", 239.583),
        # A main of 150 A leaves room for all sources anywhere: 189.58 A of 200 A.
        (panel("150", "200", "elsewhere"), "kept", "705.12(B)(1)", 189.583),
        (panel("160", "200", "not-said"), "kept", "705.12(B)(1)", 199.583),
        # Loads of 160 A and the sources' 40 A breaker are 200 A: exactly equal is legal.
        (panel("200", "200", "elsewhere", "160"), "kept", "705.12(B)(3)", 200.0),
        (panel("200", "200", "elsewhere", "161"), "broken", "705.12(B)(3)", 201.0),
        # A feeder between must carry its breaker and all sources; before the main, the service.
        (panel("100", "200", "feeder", "", "140"), "kept", "705.12(A)", 139.583),
        (panel("100", "200", "feeder", "", "139"), "broken", "705.12(A)", 139.583),
        (panel("32", "", "line-side"), "kept", "705.11(A)", 31.667),
        (panel("31", "", "line-side"), "broken", "705.11(A)", 31.667),
    ],
)
def test_the_way_that_holds_is_named(
    typed: tuple[Edit, ...], verdict: str, clause: str, amps: float
) -> None:
    found = checks(*typed)["grid.busbar"]
    assert (found.verdict, clause in found.source.document) == (Verdict(verdict), True)
    assert found.value.value == pytest.approx(amps, abs=0.001)


def test_where_nobody_said_where_the_breaker_stands_it_is_not_checked() -> None:
    found = checks(*panel("200", "200", "not-said"))["grid.busbar"]
    assert found.verdict is Verdict.NOT_CHECKED
    assert "opposite the main breaker" in found.reason
    missing = checks(*panel("", "200", "opposite-end"))["grid.busbar"]
    assert (missing.verdict, "main breaker" in missing.reason) == (Verdict.NOT_CHECKED, True)


def test_three_phases_use_their_own_current() -> None:
    # 6 kW over three phases: 2 kW at 240 V are 8.33 A, 125 % 10.42 A; beside 100 A.
    three = (SetServiceField(SERVICE.PHASES, "3"), ChooseInverter("a", "sample-i6p"))
    found = checks(*panel("100", "125", "elsewhere"), *three)["grid.busbar"]
    assert found.value.value == pytest.approx(100 + 1.25 * 2000 / 240)


ONE_PHASE = (SetServiceField(SERVICE.PHASES, "3"), SetGridField(GridField.AC_CAP, "5"))


@pytest.mark.parametrize("family", list(CodePack))
def test_a_one_phase_inverter_on_three_phases_counts_against_one(family: CodePack) -> None:
    here = replace(SAMPLE, site=replace(SAMPLE.site, code_pack=family))
    found = checks(*ONE_PHASE, of=here)["grid.ac-cap"]
    assert (found.verdict, found.value.value) == (Verdict.BROKEN, 7.6)
    # Two smaller ones stand on a phase each: 5 kW of 5 kW.
    two = (ChooseInverter("a", "sample-i5"), AddInverter("a", "sample-i5"))
    shared = checks(*ONE_PHASE, *two, of=here)["grid.ac-cap"]
    assert (shared.verdict, shared.value.value) == (Verdict.KEPT, 5.0)
    # 28 units of 330 W are ten on the fullest phase.
    micro = ChooseElectronics("a", Architecture.MICRO, "sample-micro-330")
    assert checks(*ONE_PHASE, micro, of=here)["grid.ac-cap"].value.value == pytest.approx(3.3)


def test_phases_apart_are_those_of_units_shared_out() -> None:
    here = replace(SAMPLE, site=replace(SAMPLE.site, code_pack=CodePack.AU_NZ))
    apart = checks(*ONE_PHASE, of=here)["grid.phases-apart"]
    assert (apart.verdict, apart.value.value) == (Verdict.BROKEN, 7.6)
    two = (ChooseInverter("a", "sample-i5"), AddInverter("a", "sample-i5"))
    assert checks(*ONE_PHASE, *two, of=here)["grid.phases-apart"].value.value == 5.0
    three = ChooseInverter("a", "sample-i8p")
    assert checks(*ONE_PHASE, three, of=here)["grid.phases-apart"].value.value == 0.0


@pytest.mark.parametrize("rule_id", ["grid.ac-cap", "grid.quick-approval", "grid.busbar"])
def test_a_battery_beside_the_inverter_counts_and_one_behind_it_does_not(rule_id: str) -> None:
    was = checks()[rule_id].value.value
    behind = checks(SetBattery("a", Coupling.DC, "10 kWh", "4 kW"))[rule_id].value.value
    beside = checks(SetBattery("a", Coupling.AC, "10 kWh", "4 kW"))[rule_id].value.value
    more = 1.25 * 4000 / 240 if rule_id == "grid.busbar" else 4.0
    assert behind == pytest.approx(was)
    assert beside == pytest.approx(was + more)


@pytest.mark.parametrize("phases", ["1", "2", "3"])
def test_without_grid_rules_a_usual_voltage_is_taken_and_named(phases: str) -> None:
    bare = replace(SAMPLE, brief=replace(SAMPLE.brief, grid=None))
    found = checks(SetServiceField(SERVICE.PHASES, phases), of=bare)["grid.busbar"]
    volts = next(g for g in found.givens if g.symbol == "u")
    assert (volts.value, volts.origin) == (240.0 if phases == "1" else 120.0, "usual service")


@pytest.mark.parametrize(
    ("edit", "says"),
    [
        (SetServiceField(SERVICE.LOAD_BREAKERS, "-1"), "Load breakers together"),
        (SetServiceField(SERVICE.FEEDER, "5 A"), "Feeder"),
        (SetServiceField(SERVICE.SOURCE_BREAKER, "under the stairs"), "opposite-end"),
        (SetStringFuse("a", "0 A"), "String fuse"),
        (SetStringFuse("a", "thick"), "String fuse"),
    ],
)
def test_what_cannot_be_is_refused_by_name(edit: Edit, says: str) -> None:
    with pytest.raises((OutOfRange, NotUnderstood), match=says):
        apply_edit(SAMPLE, edit, SHELF)
