"""Rules of strings: verdicts worked by hand, and what a missing number does."""

from dataclasses import replace

import pytest

from jobs import SAMPLE, option_a, with_inverter, with_module
from ridge_tally.core.job.document import CodePack, DesignTemperature, Job, ModuleString
from ridge_tally.core.job.edits import WishSeriesLength
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.rules.report import all_checks
from ridge_tally.services.editing import design_for


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
    check = checks_of(with_module(SAMPLE, **change))[rule]
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
    broken = {c.rule_id for c in found if c.verdict is Verdict.BROKEN}
    # The panel and the quick route have no room for it: limits of the house, not of the strings.
    assert broken == {"grid.busbar", "grid.quick-approval"}


def test_order_is_broken_by_kind_then_unchecked_then_by_margin() -> None:
    job = at_site(with_inverter(SAMPLE, p_dc_max_w=9000.0), hottest=SAMPLE.site.hottest)
    found = all_checks(design_for(job, job.options[1]))
    verdicts = [c.verdict for c in found]
    assert verdicts == sorted(
        verdicts, key=[Verdict.BROKEN, Verdict.NOT_CHECKED, Verdict.KEPT].index
    )
    broken = [c.kind for c in found if c.verdict is Verdict.BROKEN]
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
