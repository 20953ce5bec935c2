"""Rules of strings: verdicts worked by hand, and what a missing number does."""

from dataclasses import replace

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, with_inverter, with_module
from ridge_tally.core.job.array import Mounting
from ridge_tally.core.job.code_rules import CodeRuleField, Shutdown
from ridge_tally.core.job.document import CodePack, ColdSchool, DesignTemperature, Job, present_ids
from ridge_tally.core.job.edits.array.fills import ArrayField, SetArrayField, SetMounting
from ridge_tally.core.job.edits.brief.site import SetCodeRule, SetColdSchool
from ridge_tally.core.job.edits.strings.threading import WishSeriesLength
from ridge_tally.core.job.edits.strings.wiring import SetShutdown, SetStringFuse
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.editing.strings.planned import thread_option
from ridge_tally.rules import tables
from ridge_tally.rules.design import hottest_on
from ridge_tally.rules.report import all_checks
from ridge_tally.rules.strings.limits import series_limits, table_factor
from ridge_tally.studies.rule_status import standing_of

# Of the sample: 14 in series stay 3 V under 600 V; the table has them over; the chimney parts a row.
NOTED = {"strings.headroom", "strings.by-the-table", "strings.leads"}


def checks_of(job: Job, option_index: int = 0) -> dict[tuple[str, str], Check]:
    found = all_checks(design_for(job, job.options[option_index]))
    return {(c.rule_id, c.subject): c for c in found}


def at_site(job: Job, **change: object) -> Job:
    return replace(job, site=replace(job.site, **change))


def test_one_module_too_many_breaks_a_stop_and_offers_the_way_out() -> None:
    check = checks_of(SAMPLE, 1)["strings.cold-voltage", "string A"]
    assert (check.kind, check.verdict) == (LimitKind.STOP, Verdict.BROKEN)
    assert [f.label for f in check.fixes] == ["Make it 14"]
    assert check.fixes[0].edit == WishSeriesLength("b", 14)
    # By hand: 25 + (600 / (15 x 37.3) - 1) / -0.0027 = -1.81 °C.
    assert check.reached_at == "over 600 V below −1.8 °C"


def test_without_a_typed_minimum_the_cold_check_is_not_made() -> None:
    job = at_site(SAMPLE, coldest=DesignTemperature(None, ""))
    check = checks_of(job)["strings.cold-voltage", "string A"]
    assert check.verdict is Verdict.NOT_CHECKED
    assert "no extreme minimum temperature" in check.reason
    assert "-26" in check.reason


@pytest.mark.parametrize(
    ("change", "rule"),
    [
        ({"beta_voc_frac_per_degc": None}, ("strings.cold-voltage", "string A")),
        ({"max_system_v": None}, ("strings.cold-voltage", "string A")),
        ({"beta_voc_frac_per_degc": None}, ("strings.hot-window", "string A")),
    ],
)
def test_a_missing_datasheet_number_is_not_a_silent_pass(change: dict, rule: tuple) -> None:
    # Where no table stands in for a coefficient.
    job = at_site(with_module(SAMPLE, **change), code_pack=CodePack.IEC)
    check = checks_of(job)[rule]
    assert check.verdict is Verdict.NOT_CHECKED
    assert check.reason


def test_a_limit_already_passed_is_broken_even_when_another_ceiling_is_unknown() -> None:
    job = with_module(SAMPLE, max_system_v=None, voc_v=45.0)
    option = replace(option_a(job), strings=option_a(SAMPLE).strings)
    job = replace(job, options=(option,))
    assert checks_of(job)["strings.cold-voltage", "string A"].verdict is Verdict.BROKEN


@pytest.mark.parametrize(
    ("change", "limit_v", "label"),
    [
        ({}, 600.0, "inverter input"),
        ({"v_dc_max_v": 1000.0}, 600.0, "code, dwelling"),
    ],
)
def test_the_smallest_ceiling_is_the_limit(change: dict, limit_v: float, label: str) -> None:
    limit = checks_of(with_inverter(SAMPLE, **change))["strings.cold-voltage", "string A"].limit
    assert (limit.value, limit.label) == (limit_v, f"{label} limit")


def test_another_building_or_code_family_lifts_the_ceiling() -> None:
    big = with_inverter(SAMPLE, v_dc_max_v=1100.0)
    for site in ({"dwelling": False}, {"code_pack": CodePack.IEC}):
        limit = checks_of(at_site(big, **site))["strings.cold-voltage", "string A"].limit
        assert limit.value == 1000.0


def test_parallel_strings_add_currents_and_must_be_alike() -> None:
    ids = [m for s in option_a(SAMPLE).strings for m in s.module_ids]
    strings = (
        ModuleString("A", 1, tuple(ids[:10])),
        ModuleString("B", 1, tuple(ids[10:18])),
    )
    job = replace(SAMPLE, options=(replace(option_a(SAMPLE), strings=strings),))
    found = checks_of(job)
    # By hand: 2 x 12.98 A = 25.96 A of 16 A; 1.25 x 2 x 13.84 A = 34.6 A of 22 A.
    operating = found["strings.operating-current", "tracker 1"]
    assert operating.value.value == pytest.approx(25.96)
    assert (operating.kind, operating.verdict) == (LimitKind.COSTS, Verdict.BROKEN)
    short = found["strings.short-circuit-current", "tracker 1"]
    assert short.value.value == pytest.approx(34.6)
    assert (short.kind, short.verdict) == (LimitKind.STOP, Verdict.BROKEN)
    assert found["strings.equal-lengths", "tracker 1"].verdict is Verdict.BROKEN
    assert found["strings.terminals", "tracker 1"].verdict is Verdict.BROKEN
    # Ten modules left over are told, as a cost.
    left = found["array.strung", "array"]
    assert (left.value.value, left.kind) == (10.0, LimitKind.COSTS)


def test_a_tracker_without_a_short_circuit_limit_is_not_checked() -> None:
    trackers = tuple(replace(t, isc_max_a=None) for t in SAMPLE.equipment.inverters[0].trackers)
    found = checks_of(with_inverter(SAMPLE, trackers=trackers))
    check = found["strings.short-circuit-current", "tracker 1"]
    assert check.verdict is Verdict.NOT_CHECKED
    assert "ask the maker" in check.reason


def test_a_short_string_below_the_window_costs_energy_and_offers_a_longer_one() -> None:
    strings = (ModuleString("A", 1, option_a(SAMPLE).strings[0].module_ids[:4]),)
    job = replace(SAMPLE, options=(replace(option_a(SAMPLE), strings=strings),))
    check = checks_of(job)["strings.hot-window", "string A"]
    assert (check.kind, check.verdict) == (LimitKind.COSTS, Verdict.BROKEN)
    assert check.fixes[0].label == "Make it 5"


def test_makers_dc_limit_is_outside_not_a_stop() -> None:
    check = checks_of(with_inverter(SAMPLE, p_dc_max_w=9000.0))["loading.dc-limit", "inverter"]
    assert (check.kind, check.verdict) == (LimitKind.OUTSIDE, Verdict.BROKEN)


def test_an_inverter_larger_than_its_array_is_legal() -> None:
    found = all_checks(
        design_for(with_inverter(SAMPLE, p_ac_w=20_000.0, p_dc_max_w=30_000.0), option_a(SAMPLE))
    )
    broken = {c.rule_id for c in found if c.verdict is Verdict.BROKEN} - NOTED
    # The panel and the quick route have no room for it: limits of the house, not of the strings.
    # Its breaker grows with it, past what its unchanged sheet allows.
    assert broken == {"grid.busbar", "grid.quick-approval", "wiring.breaker-most"}


def test_order_is_broken_by_kind_then_unchecked_then_by_margin() -> None:
    job = at_site(with_inverter(SAMPLE, p_dc_max_w=9000.0), hottest=SAMPLE.site.hottest)
    found = all_checks(design_for(job, job.options[1]))
    verdicts = [c.verdict for c in found]
    assert verdicts == sorted(
        verdicts, key=[Verdict.BROKEN, Verdict.NOT_CHECKED, Verdict.KEPT].index
    )
    broken = [c.kind for c in found if c.verdict is Verdict.BROKEN and c.rule_id not in NOTED]
    assert broken == [LimitKind.STOP, LimitKind.OUTSIDE, LimitKind.NOTE]
    margins = [
        c.margin_frac for c in found if c.verdict is Verdict.KEPT and c.margin_frac is not None
    ]
    assert margins == sorted(margins)


@pytest.mark.parametrize("series", range(1, 20))
def test_adding_a_module_never_lowers_the_cold_voltage(series: int) -> None:
    ids = [m for s in option_a(SAMPLE).strings for m in s.module_ids]

    def cold(count: int) -> float:
        strings = (ModuleString("A", 1, tuple(ids[:count])),)
        job = replace(SAMPLE, options=(replace(option_a(SAMPLE), strings=strings),))
        return checks_of(job)["strings.cold-voltage", "string A"].value.value or 0.0

    assert cold(series + 1) > cold(series)


@pytest.mark.parametrize(
    ("coldest_degc", "factor"),
    [(21.0, 1.02), (0.0, 1.10), (-0.5, 1.12), (-28.0, 1.21), (-40.0, 1.25), (-40.5, None)],
)
def test_without_a_coefficient_the_table_stands_in(coldest_degc: float, factor) -> None:
    bare = with_module(SAMPLE, beta_voc_frac_per_degc=None)
    job = at_site(bare, coldest=DesignTemperature(coldest_degc, "typed"))
    job = replace(job, options=tuple(thread_option(job, o) for o in job.options))
    check = checks_of(job)["strings.cold-voltage", "string A"]
    longest = len(option_a(job).strings[0].module_ids)
    if factor is None:
        assert check.verdict is Verdict.NOT_CHECKED
    else:
        assert check.value.value == pytest.approx(longest * 37.3 * factor)
        assert check.source.document.startswith("NEC Table 690.7(A)")
        # The plan is made on the same factor.
        assert check.verdict is Verdict.KEPT


def test_the_table_lies_where_crystalline_coefficients_do() -> None:
    # Derivable: 1 + 0.0037 (25 - T) at the coldest of each row, within a point and a half.
    for low_degc, factor in tables.load("voltage-table").rows:
        assert float(factor) == pytest.approx(1 + 0.0037 * (25 - float(low_degc)), abs=0.015)


def paralleled(job: Job, strings: int, **module: object) -> Job:
    """All modules in equal strings on tracker 1, as wired by hand."""
    job = with_module(job, **module)
    option = option_a(job)
    ids = present_ids(option)
    each = len(ids) // strings
    wired = tuple(
        ModuleString(chr(65 + k), 1, ids[k * each : (k + 1) * each], locked=True)
        for k in range(strings)
    )
    return replace(job, options=(replace(option, strings=wired),))


def test_two_strings_need_no_fuse_and_four_do_with_the_size_named() -> None:
    # By hand: 1.25 x 13.84 A is 17.3 A, under the module's 25 A; three sound strings push 51.9 A
    # into the fourth, and 1.5625 x 13.84 = 21.6 A wants 25 A.
    two = checks_of(paralleled(SAMPLE, 2))["strings.without-fuses", "tracker 1"]
    assert (two.verdict, two.value.value) == (Verdict.KEPT, pytest.approx(17.3))
    four = checks_of(paralleled(SAMPLE, 4))["strings.without-fuses", "tracker 1"]
    assert (four.kind, four.verdict) == (LimitKind.STOP, Verdict.BROKEN)
    assert four.value.value == pytest.approx(51.9)
    assert four.reached_at.startswith("fuse every string with 25 A gPV")
    # Light on the back adds to what is pushed and to what a fuse must bear.
    lit = checks_of(paralleled(SAMPLE, 4, bifacial_frac=0.7))["strings.without-fuses", "tracker 1"]
    assert lit.value.value == pytest.approx(51.9 * 1.05)


@pytest.mark.parametrize(
    ("typed", "least", "most"),
    [("20 A", "broken", "kept"), ("25 A", "kept", "kept"), ("30 A", "kept", "broken")],
)
def test_fuses_that_are_needed_are_a_stop_until_one_that_serves_is_said(
    typed: str, least: str, most: str
) -> None:
    # By hand: no less than 1.5625 x 13.84 = 21.6 A, no more than the module's 25 A.
    said = apply_edit(paralleled(SAMPLE, 4), SetStringFuse("a", typed), SHELF)
    found = checks_of(said)
    assert ("strings.without-fuses", "tracker 1") not in found
    assert found["strings.fuse-least", "tracker 1"].verdict is Verdict(least)
    assert found["strings.fuse-most", "tracker 1"].verdict is Verdict(most)
    # Where none is needed nothing is held to what is said.
    two = apply_edit(paralleled(SAMPLE, 2), SetStringFuse("a", typed), SHELF)
    assert checks_of(two)["strings.without-fuses", "tracker 1"].verdict is Verdict.KEPT


def test_shutdown_is_asked_for_on_buildings_alone() -> None:
    on_roof, shutdown = checks_of(SAMPLE), ("safety.shutdown", "roof")
    assert shutdown in on_roof
    (plane, *others) = SAMPLE.survey.planes
    open_below = replace(plane, open_below=True)
    carport = replace(SAMPLE, survey=replace(SAMPLE.survey, planes=(open_below, *others)))
    assert shutdown not in checks_of(carport)
    assert ("safety.ground-fault", "inverter") in checks_of(carport)
    ground = checks_of(at_site(kiln_yard(SHELF), code_pack=CodePack.US))
    assert shutdown not in ground
    # Families that have no such rule never show it.
    assert shutdown not in checks_of(at_site(SAMPLE, code_pack=CodePack.IEC))


def test_nothing_is_said_to_keep_all_while_a_stop_is_unchecked() -> None:
    assert standing_of(design_for(SAMPLE, option_a(SAMPLE))).not_checked == ""
    unsaid = apply_edit(SAMPLE, SetShutdown("a", Shutdown.NOT_SAID), SHELF)
    status = standing_of(design_for(unsaid, option_a(unsaid)))
    assert status.not_checked == "not checked: Rapid shutdown"


def test_where_no_fuse_fits_between_string_and_module_it_is_a_stop() -> None:
    tight = checks_of(paralleled(SAMPLE, 4, max_series_fuse_a=20.0))
    check = tight["strings.without-fuses", "tracker 1"]
    assert (check.kind, check.verdict) == (LimitKind.STOP, Verdict.BROKEN)
    assert "no standard fuse lies between 21.6 A and 20.0 A" in check.reached_at
    silent = checks_of(paralleled(SAMPLE, 4, max_series_fuse_a=None))
    assert silent["strings.without-fuses", "tracker 1"].verdict is Verdict.NOT_CHECKED
    # Elsewhere plain Isc counts: 3 x 13.84 = 41.5 A.
    iec = at_site(paralleled(SAMPLE, 4), code_pack=CodePack.IEC)
    assert checks_of(iec)["strings.without-fuses", "tracker 1"].value.value == pytest.approx(41.52)


def test_planes_in_series_cost_and_planes_in_parallel_are_a_word() -> None:
    south, north = FULL.survey.planes[:2]
    option = option_a(FULL)
    (array,) = option.arrays
    half = len(array.modules) // 2
    split = (
        replace(array, modules=array.modules[:half]),
        replace(array, plane_id=north.id, modules=array.modules[half:]),
    )
    ids = present_ids(option)
    in_series = ModuleString("A", 1, (*ids[:7], *ids[-7:]), locked=True)
    job = replace(FULL, options=(replace(option, arrays=split, strings=(in_series,)),))
    check = checks_of(job)["strings.one-plane", "string A"]
    assert (check.kind, check.verdict) == (LimitKind.COSTS, Verdict.BROKEN)
    assert check.value.value == pytest.approx(180, abs=8)
    assert abs(south.azimuth_deg - north.azimuth_deg) == pytest.approx(check.value.value)
    beside = tuple(
        ModuleString(t, 1, part, locked=True) for t, part in (("A", ids[:14]), ("B", ids[14:]))
    )
    job = replace(FULL, options=(replace(option, arrays=split, strings=beside),))
    found = checks_of(job)
    assert ("strings.one-plane", "string A") not in found
    note = found["strings.planes-on-tracker", "tracker 1"]
    assert (note.kind, note.verdict) == (LimitKind.NOTE, Verdict.BROKEN)


def test_the_school_decides_which_coldest_air_counts() -> None:
    low = at_site(SAMPLE, record_low=DesignTemperature(-35.0, "typed"))
    mean = checks_of(low)
    assert mean["strings.record-low", "string A"].kind is LimitKind.NOTE
    strict_job = apply_edit(low, SetColdSchool(ColdSchool.RECORD_LOW), SHELF)
    strict = checks_of(strict_job)
    # By hand: 13 x 37.3 V x (1 + 0.0027 x 60) = 563.5 V; 14 would be 606.8 V.
    check = strict["strings.cold-voltage", "string A"]
    assert (check.value.value, check.verdict) == (pytest.approx(563.5, abs=0.1), Verdict.KEPT)
    assert ("strings.record-low", "string A") not in strict
    missing = checks_of(apply_edit(SAMPLE, SetColdSchool(ColdSchool.RECORD_LOW), SHELF))
    reason = missing["strings.cold-voltage", "string A"].reason
    assert reason.startswith("Not checked: no record low is typed")
    fixed = checks_of(apply_edit(SAMPLE, SetColdSchool(ColdSchool.FIXED), SHELF))
    # By hand: 14 x 37.3 V x (1 + 0.0027 x 40) = 578.6 V.
    assert fixed["strings.cold-voltage", "string A"].value.value == pytest.approx(578.6, abs=0.1)


def test_every_family_of_rules_has_its_ceiling_and_its_factor() -> None:
    for pack in CodePack:
        found = checks_of(at_site(SAMPLE, code_pack=pack))
        assert found["strings.cold-voltage", "string A"].limit.value == 600
        assert found["strings.short-circuit-current", "tracker 1"].value.value == pytest.approx(
            17.3
        )


@pytest.mark.parametrize(
    ("mounting", "rise_k"),
    [
        (Mounting.OPEN_RACK, 25.0),
        (Mounting.STAND_OFF, 30.0),
        (Mounting.LOW_STAND_OFF, 35.0),
        (Mounting.FLUSH, 40.0),
    ],
)
def test_the_hottest_cell_follows_the_mounting(mounting: Mounting, rise_k: float) -> None:
    job = at_site(SAMPLE, hottest=DesignTemperature(33.0, "typed"))
    held = apply_edit(job, SetMounting("a", "south", mounting), SHELF)
    design = design_for(held, option_a(held))
    string = design.option.strings[0].module_ids
    assert hottest_on(design, string).value == design.hottest_cell.value == 33.0 + rise_k
    # On legs modules stand in the open, whatever they are fixed to.
    legs = apply_edit(held, SetArrayField("a", "south", ArrayField.LEG_TILT, "10"), SHELF)
    assert design_for(legs, option_a(legs)).hottest_cell.value == 58.0


def test_a_printed_vmp_coefficient_is_taken_before_the_diode_s() -> None:
    printed = with_module(SAMPLE, gamma_vmp_frac_per_degc=-0.0045)
    hot = checks_of(printed)["strings.hot-window", "string A"]
    gamma = next(g for g in hot.givens if g.symbol == "gamma_v")
    assert (gamma.value, gamma.origin) == (-0.0045, "module datasheet")
    t_hot = next(g.value for g in hot.givens if g.symbol == "t_hot")
    volts = SAMPLE.equipment.modules[0].vmp_v
    assert hot.value.value == pytest.approx(14 * volts * (1 - 0.0045 * (t_hot - 25)))


@pytest.mark.parametrize(
    ("coldest_degc", "factor"), [(19.9, 1.04), (20.0, 1.02), (24.9, 1.02), (25.0, 1.0), (28.0, 1.0)]
)
def test_the_table_adds_nothing_where_it_is_never_colder_than_25(
    coldest_degc: float, factor: float
) -> None:
    # NEC table 690.7(A), from memory: 24 to 20 °C 1.02, 19 to 15 °C 1.04.
    warm = at_site(SAMPLE, coldest=DesignTemperature(coldest_degc, "typed"))
    assert table_factor(design_for(warm, option_a(warm))).value == factor


def test_an_ageing_allowance_is_off_until_it_is_stated() -> None:
    was = checks_of(SAMPLE)["strings.hot-window", "string A"]
    assert "d" not in {g.symbol for g in was.givens}
    aged = apply_edit(SAMPLE, SetCodeRule(CodeRuleField.AGEING, "8 %"), SHELF)
    found = checks_of(aged)
    now = found["strings.hot-window", "string A"]
    assert now.value.value == pytest.approx(was.value.value * 0.92)
    # The cold voltage, a Stop, is that of new modules.
    cold = ("strings.cold-voltage", "string A")
    assert found[cold].value.value == checks_of(SAMPLE)[cold].value.value
    # Strings are planned for the same: some 60 V less at the hottest wants more in series.
    most = design_for(aged, option_a(aged)), design_for(SAMPLE, option_a(SAMPLE))
    assert series_limits(most[0]).series_min >= series_limits(most[1]).series_min
