"""Sums every practitioner knows, by hand, and closed forms beside them."""

from dataclasses import replace

import numpy as np
import pytest

from jobs import SAMPLE, SHELF, option_a, with_inverter, with_module
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.document import present_ids, with_option
from ridge_tally.core.job.edits.array.modules import RemoveModules
from ridge_tally.core.job.edits.brief.grid import GridField, SetGridField, TakeGridPack
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.loading.clipped_day import clipped_kwh_at
from ridge_tally.core.strings.voltage import string_voltage_v, temperature_at_voltage_degc
from ridge_tally.core.working import Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.loading.grid import rebate_wording
from ridge_tally.rules.report import all_checks


def test_four_modules_in_series_and_four_strings_in_parallel() -> None:
    # Common practice, no source: 4 x 45.92 V = 183.68 V; 4 x 10.15 A = 40.6 A.
    assert string_voltage_v(4, 45.92, -0.0028, 25.0) == pytest.approx(183.68, abs=5e-3)
    job = with_module(SAMPLE, imp_a=10.15, isc_a=10.8, vmp_v=39.9, p_max_w=405.0)
    ids = present_ids(option_a(job))
    four = tuple(ModuleString(f"{n}", 1, ids[7 * n : 7 * n + 7]) for n in range(4))
    job = with_option(job, replace(option_a(job), strings=four))
    found = {c.rule_id: c for c in all_checks(design_for(job, option_a(job)))}
    assert found["strings.operating-current"].value.value == pytest.approx(40.6)


def test_five_kilowatts_carry_six_and_two_thirds_and_keep_the_rebate() -> None:
    # Common practice, no source: at most 133 % stated as 1.33 lets 6.65 kW on 5 kW, 6.66 not;
    # stated as "three quarters of the array" it is 6.667 kW.
    assert rebate(6650.0, 1.33) is Verdict.KEPT
    assert rebate(6660.0, 1.33) is Verdict.BROKEN
    assert rebate(6660.0, 1 / 0.75) is Verdict.KEPT
    # An inverter larger than its array breaks nothing of the loading.
    assert rebate(4000.0, 1.33) is Verdict.KEPT


def test_which_of_the_two_wordings_a_rebate_has_is_said() -> None:
    # Common practice, no source: "133 %" is 6.65 kW on 5 kW, "three quarters" 6.667 kW.
    assert rebate_wording(1.33) == "an array of at most 133 % of the inverter"
    assert rebate_wording(1 / 0.75) == "an inverter of at least 75 % of the array"
    for typed, most_w in (("133 %", 6650.0), ("AC at least 75 %", 6666.67)):
        job = apply_edit(SAMPLE, TakeGridPack("sample-au-capped"), SHELF)
        field = GridField.REBATE_RATIO
        job = apply_edit(job, SetGridField(field, typed), SHELF)
        assert job.brief.grid.rebate.most_dc_ac_ratio * 5000 == pytest.approx(most_w, abs=0.01)
    with pytest.raises(OutOfRange, match="AC over DC"):
        apply_edit(job, SetGridField(field, "AC at least 0 %"), SHELF)


def rebate(array_w: float, most: float) -> Verdict:
    """Whether a rebate's ratio lets ten modules of an array on 5 kW."""
    job = apply_edit(SAMPLE, TakeGridPack("sample-au-capped"), SHELF)
    job = with_inverter(with_module(job, p_max_w=array_w / 10), p_ac_w=5000.0)
    grid = job.brief.grid
    grid = replace(grid, rebate=replace(grid.rebate, most_dc_ac_ratio=most))
    ids = present_ids(option_a(job))[10:]
    job = apply_edit(
        replace(job, brief=replace(job.brief, grid=grid)), RemoveModules("a", ids), SHELF
    )
    found = {c.rule_id: c for c in all_checks(design_for(job, option_a(job)))}
    return found["grid.rebate-ratio"].verdict


def test_frost_on_the_same_four_modules() -> None:
    # By hand: 183.68 x (1 + 0.0028 x 45) = 206.82 V at -20 °C.
    assert string_voltage_v(4, 45.92, -0.0028, -20.0) == pytest.approx(206.82, abs=5e-3)
    assert temperature_at_voltage_degc(4, 45.92, -0.0028, 206.82368) == pytest.approx(-20.0)


@pytest.mark.parametrize(
    ("ratio", "lost_frac"),
    [(1.1, 0.0260), (1.2, 0.0647), (1.35, 0.1261), (1.5, 0.1846), (1.8, 0.2861)],
)
def test_half_sine_day_loses_the_closed_form(ratio: float, lost_frac: float) -> None:
    # loss = cos a - r (pi/2 - a), a = asin r, r = limit / peak; practice says 19 % for 9 on 6 kW.
    hours = (np.arange(200_000) + 0.5) / 200_000 * np.pi
    peak_w = 9000.0
    power = peak_w * np.sin(hours)
    (lost_kwh,) = clipped_kwh_at(power[:, None], np.array([peak_w / ratio]), 1.0)
    lost = lost_kwh / (power.sum() / 1000)
    assert lost == pytest.approx(lost_frac, abs=5e-5)


@pytest.mark.parametrize(
    ("beta_percent", "lowest", "highest"), [(-0.26, 0.10, 0.11), (-0.36, 0.14, 0.15)]
)
def test_a_hot_string_opens_10_to_14_per_cent_low(
    beta_percent: float, lowest: float, highest: float
) -> None:
    # Common practice, no source: at a 65 °C cell the string reads that much under its sum.
    drop = 1 - string_voltage_v(10, 40.0, beta_percent / 100, 65.0) / 400.0
    assert lowest <= drop <= highest
