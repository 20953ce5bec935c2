"""Every printed sum, done again from what is printed."""

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jobs import SAMPLE, option_a, with_inverter, with_module
from ridge_tally.core.job.code_rules import OwnRules, VoltageMethod
from ridge_tally.core.job.document import CodePack, DesignTemperature, Job
from ridge_tally.core.sheets.in_feet import in_feet
from ridge_tally.core.sheets.working_lines import value_and_limit, with_unit, working_lines
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import (
    Check,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    Verdict,
    shown,
    shown_against,
    verdict_of,
)
from ridge_tally.core.working import (
    check as worked,
)
from ridge_tally.editing.design import design_for
from ridge_tally.rules.report import all_checks


def redo(check: Check) -> float | None:
    if any(g.value is None for g in check.givens):
        return None
    names = {g.symbol: g.value for g in check.givens}
    return eval(check.formula, {"__builtins__": {}}, names)


@st.composite
def designs(draw: st.DrawFn) -> Job:
    job = with_module(
        SAMPLE,
        voc_v=draw(st.floats(35.0, 50.0)),
        isc_a=draw(st.floats(13.1, 16.0)),
        beta_voc_frac_per_degc=draw(st.sampled_from([None, -0.0024, -0.0029, -0.0034])),
        max_system_v=draw(st.sampled_from([None, 600.0, 1000.0])),
        bifacial_frac=draw(st.sampled_from([None, 0.8])),
        lead_m=draw(st.sampled_from([None, 0.9, 1.4])),
    )
    coldest = draw(st.one_of(st.none(), st.floats(-45.0, 10.0)))
    own = OwnRules(
        ceiling_v=draw(st.sampled_from([None, 450.0])),
        bright_cloud_factor=draw(st.sampled_from([None, 1.4])),
        voltage_method=draw(st.sampled_from([None, VoltageMethod.TABLE])),
        dc_ac_most=draw(st.sampled_from([None, 1.2])),
    )
    pack = draw(st.sampled_from(CodePack))
    site = replace(
        job.site,
        coldest=DesignTemperature(coldest, "drawn"),
        code_pack=pack,
        own_rules=own,
        elevation_m=draw(st.sampled_from([None, 400.0, 2600.0])),
    )
    job = replace(job, site=site, unit=draw(st.sampled_from(LengthUnit)))
    return with_inverter(
        job,
        p_dc_max_w=draw(st.sampled_from([None, 9000.0, 14000.0])),
        bare_isc=draw(st.booleans()),
        full_power_to_m=draw(st.sampled_from([None, 2000.0])),
        arc_fault=draw(st.sampled_from([None, True, False])),
    )


@settings(max_examples=40)
@given(designs())
def test_printed_formula_and_givens_give_the_stored_value_and_verdict(job: Job) -> None:
    for option in job.options:
        for check in all_checks(design_for(job, option)):
            again = redo(check)
            if again is None:
                assert check.value.value is None
            else:
                assert check.value.value == pytest.approx(again, rel=1e-12)
            wanted = Verdict.NOT_CHECKED
            if again is not None and check.limit.value is not None:
                kept = {"<=": again <= check.limit.value * (1 + 1e-9) + 1e-12,
                        ">=": again >= check.limit.value * (1 - 1e-9)}[check.relation]  # fmt: skip
                wanted = Verdict.KEPT if kept else Verdict.BROKEN
            assert check.verdict is wanted
            if check.verdict is Verdict.NOT_CHECKED:
                assert check.reason.startswith("Not checked")


@given(st.floats(0.01, 1e5), st.floats(-1e-3, 1e-3), st.sampled_from(["<=", ">="]))
def test_rounding_for_display_never_turns_a_verdict(
    limit: float, off: float, relation: str
) -> None:
    value = limit * (1 + off)
    left, right = (
        float(t.replace(" ", "").replace("−", "-")) for t in shown_against(value, limit, relation)
    )
    assert verdict_of(left, relation, right) is verdict_of(value, relation, limit)


def test_just_over_a_limit_is_shown_as_over() -> None:
    assert shown_against(600.04, 600.0, "<=") == ("600.04", "600")


@pytest.mark.parametrize(
    ("value", "text"),
    [
        (0, "0"),
        (-26, "−26"),
        (11340.0, "11 340"),
        (0.0027, "0.0027"),
        (596.93, "597"),
        (1.5, "1.5"),
    ],
)
def test_numbers_as_people_read_them(value: float, text: str) -> None:
    assert shown(value) == text


def test_the_cold_sum_reads_as_a_person_writes_it() -> None:
    check = next(
        c for c in all_checks(design_for(SAMPLE, option_a(SAMPLE)))
        if c.rule_id == "strings.cold-voltage"
    )  # fmt: skip
    lines = working_lines(check)
    assert lines.symbols == "n · Voc · (1 + β · (Tmin − 25))"
    assert lines.numbers == "14 · 37.3 V · (1 + (−0.0027) · ((−28 °C) − 25))"
    # By hand: 14 x 37.3 x (1 + 0.0027 x 53) = 596.93.
    assert value_and_limit(check) == ("597 V", "600 V")
    assert math.isclose(check.value.value or 0, 596.93, abs_tol=0.005)


@pytest.mark.parametrize(
    ("value_m", "limit_m", "told"),
    [
        # By hand: 3.46 m are 136.2 inches, 2.2 m are 86.6.
        (3.46, 2.2, ("11' 4 1/4\"", "7' 2 5/8\"")),
        # Over by less than a sixteenth: inches would say that it holds.
        (2.2001, 2.2, ("7.22 ft", "7.218 ft")),
        (2150.0, 3000.0, ("7 054 ft", "9 843 ft")),
    ],
)
def test_lengths_of_a_job_in_feet_are_told_in_feet(value_m, limit_m, told) -> None:
    sum_of = worked(
        rule_id="strings.leads", title="Leads", subject="", kind=LimitKind.NOTE, formula="step",
        givens=(Given("step", "step", value_m, "m", ""),), value=value_m, symbol="step", unit="m",
        relation="<=", limit=Given("reach", "reach", limit_m, "m", ""),
        source=Source("", "", SourceStatus.DATASHEET),
    )  # fmt: skip
    in_ft = in_feet(sum_of)
    assert value_and_limit(in_ft) == told
    assert (in_ft.verdict, in_ft.margin_frac) == (sum_of.verdict, sum_of.margin_frac)


@pytest.mark.parametrize(
    ("value", "unit", "told"),
    [
        (1, "planes", "1 plane"),
        (2, "planes", "2 planes"),
        (1, "branches", "1 branch"),
        (1, "A", "1 A"),
    ],
)
def test_one_of_what_is_counted_is_one(value: float, unit: str, told: str) -> None:
    assert with_unit(Given("n", "count", value, unit, "")) == told
