"""Ways to the grid: optimizers on some or all modules, and microinverters; the array stays."""

from dataclasses import replace
from pathlib import Path

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, warm_workspace_in, with_inverter
from ridge_tally.core.equipment import MicroinverterSheet, OptimizerSheet
from ridge_tally.core.errors import BadGeometry, NotFound
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import CodePack, Job, present_ids
from ridge_tally.core.job.edits.array.modules import RemoveModules
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics, FitOptimizers
from ridge_tally.core.job.edits.strings.threading import MoveString
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import system_of
from ridge_tally.core.strings.units import branches_of, trunk_rise_v, units_by_plane
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.rules.report import all_checks
from ridge_tally.rules.strings.microinverters import branches, most_on_branch
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.strings.own_point import Way, own_point_report
from ridge_tally.studies.strings.tracker_losses import tracker_losses
from ridge_tally.views.loading.year import year_report
from ridge_tally.views.option import option_report
from ridge_tally.views.rules import rules_view

ADD_ON, SYSTEM = SHELF.optimizers[:2]
MICRO, TWIN = SHELF.microinverters[:2]
IDS = present_ids(option_a(FULL))


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("electronics")))


def by(way: Architecture, unit_id: str = "", job: Job = FULL) -> Job:
    return apply_edit(job, ChooseElectronics("a", way, unit_id), SHELF)


def checks_of(job: Job) -> dict[tuple[str, str], Check]:
    return {(c.rule_id, c.subject): c for c in all_checks(design_for(job, option_a(job)))}


def with_unit(job: Job, **change: object) -> Job:
    """The job with its optimizer's or microinverter's sheet changed."""
    equipment = job.equipment
    return replace(
        job,
        equipment=replace(
            equipment,
            optimizers=tuple(replace(o, **change) for o in equipment.optimizers),
            microinverters=tuple(replace(m, **change) for m in equipment.microinverters),
        ),
    )


def test_the_array_stays_and_the_way_back_is_whole() -> None:
    micro = by(Architecture.MICRO, MICRO.id)
    assert option_a(micro).arrays == option_a(FULL).arrays
    assert read_job(write_job(micro)) == micro
    assert option_a(by(Architecture.STRINGS, job=micro)) == option_a(FULL)


def test_add_on_optimizers_never_lift_the_cold_voltage_rule() -> None:
    # Common practice: each passes its module's power; the string's open voltage is still the sum.
    plain = checks_of(FULL)["strings.cold-voltage", "string A"]
    job = apply_edit(
        by(Architecture.ADD_ON, ADD_ON.id), FitOptimizers("a", IDS[:4], on=True), SHELF
    )
    helped = checks_of(job)["strings.cold-voltage", "string A"]
    assert (helped.value.value, helped.verdict) == (plain.value.value, plain.verdict)
    assert option_report(design_for(job, option_a(job))).at_modules.count == 4
    fewer = apply_edit(job, RemoveModules("a", IDS[:1]), SHELF)
    assert option_a(fewer).electronics.fitted == IDS[1:4]


def test_an_optimizer_s_own_input_by_hand() -> None:
    job = by(Architecture.SYSTEM, SYSTEM.id)
    found, name = checks_of(job), FULL.equipment.modules[0].name
    # By hand: 37.3 V x (1 + 0.0027 x 53) = 42.64 V of 60 V; 1.25 x 13.84 A = 17.3 A of 18.5 A.
    cold = found["optimizer.cold-voltage", name]
    assert cold.value.value == pytest.approx(42.64, abs=0.01)
    short = found["optimizer.short-circuit", name]
    assert (short.value.value, short.verdict) == (pytest.approx(17.3), Verdict.KEPT)
    tight = checks_of(with_unit(job, i_in_max_a=17.0, v_in_max_v=40.0, p_max_w=400.0))
    for rule in ("optimizer.short-circuit", "optimizer.cold-voltage", "optimizer.watts"):
        assert (tight[rule, name].kind, tight[rule, name].verdict) == (
            LimitKind.STOP, Verdict.BROKEN,
        )  # fmt: skip
    silent = checks_of(with_unit(job, i_in_max_a=None))
    assert silent["optimizer.short-circuit", name].verdict is Verdict.NOT_CHECKED


def test_a_held_string_by_hand_and_what_of_plain_strings_no_longer_holds() -> None:
    job = by(Architecture.SYSTEM, SYSTEM.id)
    found = checks_of(job)
    assert not any(rule == "strings.cold-voltage" for rule, _ in found)
    # By hand: 14 x 405 W = 5670 W of 6000 W; / 380 V = 14.9 A of 15 A; 14 V when off.
    watts = found["optimizer.string-watts", "string A"]
    assert (watts.value.value, watts.verdict) == (5670.0, Verdict.KEPT)
    amps = found["optimizer.string-current", "string A"]
    assert amps.value.value == pytest.approx(14.92, abs=0.01)
    assert found["safety.shutdown", "roof"].value.value == 14.0
    assert found["optimizer.fewest", "string A"].verdict is Verdict.KEPT
    short = checks_of(with_unit(job, least_in_string=15, most_in_string=13))
    assert short["optimizer.fewest", "string A"].verdict is Verdict.BROKEN
    assert short["optimizer.most", "string A"].verdict is Verdict.BROKEN
    # Two may fail: 14 is six above 8 and eleven below 25.
    assert found["optimizer.spare", "string A"].value.value == 6
    # Unequal strings in parallel are allowed at one held voltage; their currents add up.
    assert not any(rule == "strings.equal-lengths" for rule, _ in found)
    both = apply_edit(job, MoveString("a", "B", 1), SHELF)
    whole = checks_of(both)["optimizer.tracker-current", "tracker 1"]
    assert whole.value.value == pytest.approx(28 * 405 / 380)
    assert (whole.kind, whole.verdict) == (LimitKind.COSTS, Verdict.BROKEN)


def of_va(va: float) -> MicroinverterSheet:
    return replace(MICRO, va_continuous=va, most_on_branch=None)


@pytest.mark.parametrize(
    ("va", "on_each", "main_a"),
    # Common practice, no source: 24 of 240 VA are two circuits of twelve on a 30 A main, exactly
    # equal being legal; 24 of 250 VA want 35 A (31.25 A).
    [(240.0, 12, 30.0), (250.0, 12, 35.0)],
)
def test_twenty_four_units_by_hand(va: float, on_each: int, main_a: float) -> None:
    job = apply_edit(FULL, RemoveModules("a", IDS[24:]), SHELF)
    job = with_unit(by(Architecture.MICRO, MICRO.id, job), va_continuous=va, most_on_branch=12)
    design = design_for(job, option_a(job))
    circuits = branches(design, design.microinverter)
    assert [len(b.units) for b in circuits] == [on_each, on_each]
    assert circuits[0].amps == pytest.approx(on_each * va / 240)
    main = checks_of(job)["micro.main", "combiner"]
    assert main.value.value == pytest.approx(1.25 * 24 * va / 240)
    assert main.limit.value == main_a


def test_a_branch_by_its_breaker_or_its_listing_and_evenly() -> None:
    design = design_for(FULL, option_a(FULL))
    # 16 A / (240 VA / 240 V) = 16 units by the breaker; the listing says fewer.
    assert most_on_branch(design, of_va(240.0)) == 16
    assert most_on_branch(design, replace(of_va(240.0), most_on_branch=11)) == 11
    units = tuple((str(n),) for n in range(28))
    assert [len(b) for b in branches_of(units, 11)] == [10, 9, 9]
    assert branches_of((), 11) == ()


def test_a_trunk_rises_least_when_fed_in_its_middle() -> None:
    # By hand: 10 units of 1 A, 1 m apart, 5 milliohm a metre one way: 55 x 2 x 0.005 = 0.55 V.
    assert trunk_rise_v(10, 1.0, 0.005, 1.0) == pytest.approx(0.55)
    # Half of them each way: about a quarter.
    assert trunk_rise_v(5, 1.0, 0.005, 1.0) / trunk_rise_v(10, 1.0, 0.005, 1.0) == pytest.approx(
        15 / 55
    )
    found = checks_of(by(Architecture.MICRO, MICRO.id))
    rise = found["micro.trunk-rise", "branch 1"]
    assert rise.kind is LimitKind.COSTS
    assert rise.reached_at.startswith("fed in its middle")


def test_a_larger_module_on_a_smaller_unit_is_a_normal_pairing() -> None:
    # Common practice, no source: a 400 W module is about 300 W at nominal operating conditions.
    job = with_unit(by(Architecture.MICRO, MICRO.id), p_ac_w=300.0)
    usual = checks_of(job)["micro.nominal", FULL.equipment.modules[0].name]
    # By hand: its sheet's 300.8 W x 0.97 = 291.8 W of 300 W.
    assert (usual.value.value, usual.verdict) == (pytest.approx(291.8, abs=0.1), Verdict.KEPT)
    beyond = checks_of(with_unit(job, module_most_w=400.0))
    largest = beyond["micro.largest-module", FULL.equipment.modules[0].name]
    assert (largest.kind, largest.verdict) == (LimitKind.OUTSIDE, Verdict.BROKEN)


def test_twin_units_stay_on_their_plane() -> None:
    (units,) = units_by_plane(system_of(SAMPLE, option_a(SAMPLE)), 2)
    # The upper row is five and three modules with the chimney between, and the rows below it are
    # further off than leads reach: one of five and one of three stand alone, twenty go in pairs.
    assert [len(u) for u in units] == [2, 2, 1, 2, 1] + [2] * 10
    job = by(Architecture.MICRO, TWIN.id, SAMPLE)
    report = option_report(design_for(job, option_a(job)))
    assert (report.at_modules.count, report.p_ac_w) == (15, 15 * 700)


@pytest.mark.parametrize(
    ("way", "unit", "as_way"),
    [
        (Architecture.SYSTEM, SYSTEM, Way.SYSTEM),
        (Architecture.MICRO, MICRO, Way.MICRO),
    ],
)
def test_the_year_of_a_way_is_the_one_it_was_compared_by(
    workspace: Workspace, way: Architecture, unit: OptimizerSheet | MicroinverterSheet, as_way: Way
) -> None:
    job = by(way, unit.id)
    option = option_a(job)
    mine = hourly_year(workspace.desk, design_for(job, option)).energy_kwh
    for base in (FULL, job):
        compared = own_point_report(workspace.desk, design_for(base, option_a(base)), ())
        told = {(w.way, w.unit): w.energy_kwh for w in compared.ways}
        assert told[as_way, unit.name] == pytest.approx(mine)
        strung = hourly_year(workspace.desk, design_for(FULL, option_a(FULL))).energy_kwh
        assert told[Way.STRUNG, ""] == pytest.approx(strung)
    report = year_report(workspace.desk, design_for(job, option))
    assert report.faults == ()
    assert tracker_losses(workspace.desk, design_for(job, option)) == ()
    assert report.limit_kw == pytest.approx(28 * 0.33 if way is Architecture.MICRO else 7.6)


def test_microinverters_need_no_string(workspace: Workspace) -> None:
    two = apply_edit(by(Architecture.MICRO, MICRO.id), RemoveModules("a", IDS[2:]), SHELF)
    option: Option = option_a(two)
    report = year_report(workspace.desk, design_for(two, option))
    assert report.energy_kwh > 500
    assert option_report(design_for(two, option)).modules_strung == 2


@pytest.mark.parametrize(
    ("edit", "error", "match"),
    [
        (
            ChooseElectronics("a", Architecture.MICRO, "sample-none"),
            NotFound,
            "sample-none",
        ),
        (ChooseElectronics("a", Architecture.SYSTEM, ADD_ON.id), BadGeometry, "add-on"),
        (FitOptimizers("a", IDS[:1], on=True), BadGeometry, "no add-on optimizers"),
    ],
)
def test_what_does_not_go_together_is_refused(edit, error, match) -> None:
    with pytest.raises(error, match=match):
        apply_edit(FULL, edit, SHELF)


def test_an_optimizer_goes_only_on_a_module_that_is_there() -> None:
    job = by(Architecture.ADD_ON, ADD_ON.id)
    with pytest.raises(NotFound, match="south-99"):
        apply_edit(job, FitOptimizers("a", ("south-99",), on=True), SHELF)


@pytest.mark.parametrize(
    ("pack", "continuous_a", "factor"),
    # NEC 705.28, 2023, from memory: 80 % of the breaker; elsewhere all of it.
    [
        (CodePack.US, 16.0, 1.25),
        (CodePack.IEC, 20.0, 1.0),
        (CodePack.AU_NZ, 20.0, 1.0),
        (CodePack.UK, 20.0, 1.0),
    ],
)
def test_a_branch_is_held_to_its_family_s_breaker(
    pack: CodePack, continuous_a: float, factor: float
) -> None:
    job = by(Architecture.MICRO, MICRO.id, FULL)
    job = replace(job, site=replace(job.site, code_pack=pack))
    found = checks_of(job)
    branch = found["micro.branch", "branch 1"]
    assert branch.limit.value == continuous_a
    assert ("NEC" in branch.source.document) is (pack is CodePack.US)
    main = found["micro.main", "combiner"]
    amps = next(g.value for g in main.givens if g.symbol == "i_all")
    assert main.value.value == pytest.approx(factor * amps)


def test_a_unit_that_is_too_much_for_a_branch_alone_is_told() -> None:
    # By hand: 4 kVA at 240 V are 16.7 A, over 80 % of 20 A.
    job = with_unit(by(Architecture.MICRO, MICRO.id, FULL), va_continuous=4000.0)
    one = checks_of(job)["micro.branch", "branch 1"]
    assert (one.kind, one.verdict) == (LimitKind.STOP, Verdict.BROKEN)
    assert one.value.value == pytest.approx(4000 / 240)


def test_a_system_s_circuit_is_held_to_the_lower_of_code_and_inverter() -> None:
    job = by(Architecture.SYSTEM, SYSTEM.id, FULL)
    code = checks_of(job)["optimizer.circuit-voltage", "string A"]
    assert (code.limit.value, "690.7" in code.source.document) == (600.0, True)
    own = with_inverter(job, v_dc_max_v=370.0)
    low = checks_of(own)["optimizer.circuit-voltage", "string A"]
    assert (low.limit.value, low.verdict) == (370.0, Verdict.BROKEN)


@pytest.mark.parametrize("pack", [CodePack.IEC, CodePack.AU_NZ, CodePack.UK])
@pytest.mark.parametrize(
    "way", [None, (Architecture.MICRO, MICRO.id), (Architecture.SYSTEM, SYSTEM.id)]
)
def test_no_family_speaks_another_one_s_code(pack: CodePack, way) -> None:
    job = FULL if way is None else by(*way, FULL)
    job = replace(job, site=replace(job.site, code_pack=pack))
    found = all_checks(design_for(job, option_a(job)))
    sources = {c.source.document for c in found} | {g.origin for c in found for g in c.givens}
    assert [told for told in sources if "NEC" in told] == []
    report = rules_view(job.site)
    assert not any("NEC" in p.told for p in report.points)
    assert not any("NEC" in r.source.document for r in report.rules)
