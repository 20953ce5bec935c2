"""Families of rules, what a job holds otherwise, and the checks of safety."""

from dataclasses import replace

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, with_inverter, with_module
from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.job.code_rules import CodeRuleField, OnSite, Shutdown
from ridge_tally.core.job.document import CodePack, ColdSchool, Job, present_ids
from ridge_tally.core.job.edits.brief.site import SetCodeRule, SetColdSchool, SetPlace
from ridge_tally.core.job.edits.strings.wiring import ConfirmOnSite, SetShutdown
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.working import Check, LimitKind, SourceStatus, Verdict
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.rules.code import code_families, code_rules
from ridge_tally.rules.report import all_checks
from ridge_tally.rules.strings.limits import series_limits

FIELD = CodeRuleField


def held(field: CodeRuleField, typed: str, source: str = "", job: Job = SAMPLE) -> Job:
    return apply_edit(job, SetCodeRule(field, typed, source), SHELF)


def at_family(job: Job, pack: CodePack) -> Job:
    site = job.site
    place = SetPlace(site.place, site.climate_id, pack, site.dwelling)
    return apply_edit(job, place, SHELF)


def checks_of(job: Job) -> dict[str, Check]:
    return {c.rule_id: c for c in all_checks(design_for(job, option_a(job)))}


def paralleled(lengths: tuple[int, ...], job: Job = SAMPLE) -> Job:
    ids, strings, at = present_ids(option_a(job)), [], 0
    for n, length in enumerate(lengths):
        strings.append(ModuleString(f"S{n}", 1, ids[at : at + length]))
        at += length
    return replace(job, options=(replace(option_a(job), strings=tuple(strings)),))


@pytest.mark.parametrize(
    ("pack", "ceiling_v", "back", "least_fuse", "school"),
    [
        # From memory, as the families' own file says: NEC 690.7 and 690.9; IEC 62548; AS/NZS 5033.
        (CodePack.US, 600.0, 1.25, 1.5625, ColdSchool.YEARLY_LOWS),
        (CodePack.IEC, 1000.0, 1.0, 1.5, ColdSchool.YEARLY_LOWS),
        (CodePack.AU_NZ, 1000.0, 1.0, 1.5, ColdSchool.YEARLY_LOWS),
        (CodePack.UK, 1000.0, 1.0, 1.5, ColdSchool.FIXED),
    ],
)
def test_a_dwelling_s_ceiling_fuses_and_cold_follow_the_family(
    pack, ceiling_v, back, least_fuse, school
) -> None:
    job = at_family(SAMPLE, pack)
    rules = code_rules(job.site)
    assert (rules.ceiling_v, rules.family.back_current_factor) == (ceiling_v, back)
    assert rules.family.least_fuse_factor == least_fuse
    assert job.site.cold_school is school


def test_a_school_chosen_by_hand_stays_when_the_family_changes() -> None:
    strict = apply_edit(SAMPLE, SetColdSchool(ColdSchool.RECORD_LOW), SHELF)
    assert at_family(strict, CodePack.UK).site.cold_school is ColdSchool.RECORD_LOW
    assert at_family(at_family(SAMPLE, CodePack.UK), CodePack.US).site.cold_school is (
        ColdSchool.YEARLY_LOWS
    )


def test_every_figure_of_every_family_says_it_is_from_memory() -> None:
    for family in code_families().values():
        for source in (family.ceiling, family.bright_cloud, family.method, family.fuses):
            assert source.status is SourceStatus.FROM_MEMORY


def test_a_lower_ceiling_typed_for_the_job_is_held_with_its_source_and_taken_back() -> None:
    job = held(FIELD.CEILING, "450 V", "county sheet 7")
    check = checks_of(job)["strings.cold-voltage"]
    assert (check.limit.value, check.verdict) == (450.0, Verdict.KEPT)
    assert "code as held here" in check.limit.label
    # The planner goes by it: ten of 42.6 V each stay under 450 V at -28 °C.
    assert series_limits(design_for(job, option_a(job))).series_max == 10
    assert code_rules(job.site).ceiling.document == "county sheet 7"
    assert held(FIELD.CEILING, "", job=job).site.own_rules.ceiling_v is None


def test_the_table_can_be_the_method_though_a_coefficient_is_known() -> None:
    job = held(FIELD.METHOD, "table")
    check = checks_of(job)["strings.cold-voltage"]
    # By hand: 13 x 37.3 V x 1.21 at -28 °C = 586.7 V; 14 would be 631.9 V, over 600 V.
    assert check.formula == "n * voc * f"
    assert series_limits(design_for(job, option_a(job))).series_max == 13
    assert "strings.by-the-table" not in checks_of(job)
    assert checks_of(SAMPLE)["strings.by-the-table"].value.value == pytest.approx(631.9, abs=0.05)


def test_another_factor_on_short_circuit_current() -> None:
    # By hand: 1.4 x 13.84 A = 19.376 A.
    check = checks_of(held(FIELD.BRIGHT_CLOUD, "1.4"))["strings.short-circuit-current"]
    assert check.value.value == pytest.approx(19.376)
    # A maker whose limit is meant for plain Isc.
    bare = checks_of(with_inverter(SAMPLE, bare_isc=True))["strings.short-circuit-current"]
    assert bare.value.value == pytest.approx(13.84)


def test_a_practice_that_lets_strings_differ_by_a_little() -> None:
    # 14 and 13 are 7 % apart, 28 and 27 would be 3.6 %: neither within 3 %.
    assert checks_of(paralleled((14, 13)))["strings.equal-lengths"].verdict is Verdict.BROKEN
    loose = held(FIELD.PARALLEL, "5 %", job=SAMPLE)
    assert checks_of(paralleled((14, 13), loose))["strings.equal-lengths"].verdict is Verdict.BROKEN
    wide = checks_of(paralleled((14, 14), loose))["strings.equal-lengths"]
    assert (wide.verdict, wide.limit.value) == (Verdict.KEPT, 5.0)


def test_a_ratio_this_job_is_not_to_pass_says_from_how_many_modules() -> None:
    check = checks_of(held(FIELD.LOADING, "1.2"))["loading.own-cap"]
    assert (check.kind, check.verdict) == (LimitKind.OUTSIDE, Verdict.BROKEN)
    # By hand: 1.2 x 7600 W = 9120 W; / 405 W = 22.5.
    assert check.reached_at == "over 9 120 W from 23 modules"


@pytest.mark.parametrize(
    ("field", "typed", "error", "match"),
    [
        (FIELD.CEILING, "5", OutOfRange, "between 50 and 1500"),
        (FIELD.CEILING, "high", NotUnderstood, "voltage ceiling"),
        (FIELD.METHOD, "guess", NotUnderstood, "coefficient or table"),
        (FIELD.BRIGHT_CLOUD, "0.8", OutOfRange, "between 1 and 2"),
        (FIELD.PARALLEL, "40", OutOfRange, "between 0 and 5"),
        (FIELD.LOADING, "9", OutOfRange, "between 0.5 and 4"),
    ],
)
def test_what_cannot_be_a_rule_is_refused_by_name(field, typed, error, match) -> None:
    with pytest.raises(error, match=match):
        held(field, typed)


@pytest.mark.parametrize(
    ("rule_id", "told"),
    [
        # By hand: 25 + (520 / (14 x 31.2) - 1) / gamma; 16 / 12.98 x 1000; 22 / 13.84 x 1000.
        ("strings.cold-window", "over 520 V below −30.9 °C"),
        ("strings.operating-current", "over 16 A above 1 233 W/m²"),
        ("strings.short-circuit-current", "over 22 A above 1 590 W/m²"),
        ("strings.hot-window", "not under 120 V before 100 °C cells"),
        ("loading.dc-limit", "over 11 400 W from 29 modules"),
        # (1.2 x 200 A - 200 A) / 1.25 x 240 V.
        ("grid.busbar", "by 120 per cent takes up to 7.68 kW of inverters"),
    ],
)
def test_each_limit_says_where_it_would_be_reached(rule_id: str, told: str) -> None:
    assert checks_of(SAMPLE)[rule_id].reached_at == told


def test_two_sided_modules_add_what_their_back_gets_to_currents() -> None:
    # By hand: 1.05 x 12.98 A and 1.25 x 1.05 x 13.84 A above a roof; common practice.
    found = checks_of(with_module(SAMPLE, bifacial_frac=0.8))
    assert found["strings.operating-current"].value.value == pytest.approx(13.629)
    assert found["strings.short-circuit-current"].value.value == pytest.approx(18.165)


def test_a_hair_under_the_limit_asks_for_the_record_low() -> None:
    check = checks_of(SAMPLE)["strings.headroom"]
    # By hand: (600 - 596.93) / 600 = 0.51 %.
    assert check.value.value == pytest.approx(0.512, abs=0.001)
    assert (check.kind, check.verdict) == (LimitKind.NOTE, Verdict.BROKEN)


def test_nobody_said_how_the_roof_is_shut_down_and_then_somebody_did() -> None:
    silent = apply_edit(SAMPLE, SetShutdown("a", Shutdown.NOT_SAID), SHELF)
    check = checks_of(silent)["safety.shutdown"]
    assert (check.kind, check.verdict) == (LimitKind.STOP, Verdict.NOT_CHECKED)
    assert "nobody said" in check.reason
    listed = apply_edit(SAMPLE, SetShutdown("a", Shutdown.HAZARD_CONTROL), SHELF)
    assert "own listing" in checks_of(listed)["safety.shutdown"].reason
    switched = checks_of(SAMPLE)["safety.shutdown"]
    # Common practice: a listed switch leaves 1 V; fourteen leave 14 V of the 80 V from memory.
    assert (switched.value.value, switched.verdict) == (14.0, Verdict.KEPT)
    assert "safety.shutdown" not in checks_of(at_family(SAMPLE, CodePack.IEC))


def test_protections_an_inverter_lacks_or_is_silent_on() -> None:
    for has, verdict in (
        (True, Verdict.KEPT), (False, Verdict.BROKEN), (None, Verdict.NOT_CHECKED),
    ):  # fmt: skip
        found = checks_of(with_inverter(SAMPLE, arc_fault=has, ground_fault=has))
        for rule in ("safety.arc-fault", "safety.ground-fault"):
            assert (found[rule].kind, found[rule].verdict) == (LimitKind.STOP, verdict)


def test_points_are_confirmed_one_by_one_on_site() -> None:
    job, left = FULL, len(OnSite)
    for point in OnSite:
        check = checks_of(job)["safety.on-site"]
        assert check.verdict is Verdict.NOT_CHECKED
        assert len(check.fixes) == left
        job, left = apply_edit(job, ConfirmOnSite("a", point, on=True), SHELF), left - 1
    assert checks_of(job)["safety.on-site"].verdict is Verdict.KEPT
    back = apply_edits(job, [ConfirmOnSite("a", OnSite.POLARITY, on=False)], SHELF)
    assert checks_of(back)["safety.on-site"].verdict is Verdict.NOT_CHECKED


@pytest.mark.parametrize(
    ("elevation_m", "full_power_to_m", "verdict"),
    [
        (2150.0, 3000.0, Verdict.KEPT),
        (2150.0, 2000.0, Verdict.BROKEN),
        (2150.0, None, Verdict.NOT_CHECKED),
        (400.0, None, None),
    ],
)
def test_thin_air(elevation_m, full_power_to_m, verdict) -> None:
    job = with_inverter(SAMPLE, full_power_to_m=full_power_to_m)
    job = replace(job, site=replace(job.site, elevation_m=elevation_m))
    found = checks_of(job).get("loading.altitude")
    assert (found.verdict if found else None) is verdict


def test_phases_by_the_service() -> None:
    three = replace(SAMPLE.survey.service, phases=3)
    job = at_family(replace(SAMPLE, survey=replace(SAMPLE.survey, service=three)), CodePack.AU_NZ)
    # From memory: at most 5 kW between phases; all of 7.6 kW hangs on one.
    apart = checks_of(job)["grid.phases-apart"]
    assert (apart.kind, apart.verdict) == (LimitKind.OUTSIDE, Verdict.BROKEN)
    needs = checks_of(with_inverter(SAMPLE, phases=3))["grid.phases"]
    assert (needs.kind, needs.verdict) == (LimitKind.STOP, Verdict.BROKEN)
