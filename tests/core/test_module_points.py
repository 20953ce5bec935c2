"""Modules each at a point of their own: sums by hand, exact curves, and what must always hold."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pvlib import pvsystem

from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.lit import HeatLoss, StringIrradiance, diode_reference
from ridge_tally.core.energy.module_points import (
    Converter,
    drawn_by_microinverters,
    drawn_by_optimizers,
    micro_converter,
    module_points,
    optimizer_converter,
    series_of_optimizers_w,
)
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.system import tracker_inputs
from ridge_tally.core.kernels.modules import helped_year, own_points
from ridge_tally.core.kernels.strings import free_year
from ridge_tally.core.sky.weather_year import WeatherYear, hour_middles

SHELF = sample_shelf()
SHEET = SHELF.modules[1]
REF = diode_reference(fit_diode(SHEET), 3)
ADD_ON, SYSTEM = SHELF.optimizers[:2]
MICRO, TWIN = SHELF.microinverters[:2]
WIDE = Converter(0.0, 5000.0, 1e6, 0.0)
NO_LIMITS = (0.0, 5000.0, 1e6, 0.0)


def helped(light: list[float], fitted: list[bool], cell: float, kept: float = 1.0) -> float:
    """W of one string of modules of three substrings, some with optimizers."""
    column = np.array(light)[:, None]
    free, taken, _ = helped_year(
        column, np.array([0, len(light)]), np.array([[cell]]), REF[None],
        np.zeros(len(light), np.int64), 3, np.array(fitted),
        kept, 1e6, 1e6, *NO_LIMITS,
    )  # fmt: skip
    assert taken[0] == free[0]
    return float(free[0])


def bare(light: list[float], cell: float) -> float:
    """W of the same string without any."""
    column = np.array(light)[:, None]
    return float(free_year(column, np.array([0, len(light)]), np.array([[cell]]), REF)[2][0])


def own_sum(light: list[float], cell: float) -> float:
    """W of its modules each at its own best."""
    column = np.array(light)[:, None]
    heat = np.full((len(light) // 3, 1), cell)
    return float(own_points(column, 3, heat, REF, *NO_LIMITS)[2].sum())


LIGHT = st.lists(st.floats(30, 1100), min_size=12, max_size=12)


@settings(max_examples=60, deadline=None)
@given(LIGHT, st.lists(st.booleans(), min_size=4, max_size=4), st.floats(-10, 65))
def test_optimizers_never_lose_before_their_own_efficiency(
    light: list[float], fitted: list[bool], cell: float
) -> None:
    # A peak between two looks costs up to three thousandths of the rating.
    slack = 0.003 * 4 * SHEET.p_max_w
    with_some = helped(light, fitted, cell)
    assert with_some >= bare(light, cell) - slack
    assert with_some <= own_sum(light, cell) + slack


def test_optimizers_on_all_modules_give_what_each_module_has() -> None:
    light = [900.0] * 9 + [300.0] * 3
    assert helped(light, [True] * 4, 40.0) == pytest.approx(own_sum(light, 40.0), rel=0.003)
    assert helped(light, [True] * 4, 40.0, 0.98) == pytest.approx(
        0.98 * own_sum(light, 40.0), rel=0.005
    )


def module_curve(light: list[float], cell: float, amps: np.ndarray) -> np.ndarray:
    """Volts of a module at currents by Lambert W, each substring bypassed at half a volt."""
    d = fit_diode(SHEET)
    volts = np.zeros_like(amps)
    for e in light:
        il, i0, rs, rsh, a = pvsystem.calcparams_desoto(
            e, cell, d.alpha_isc_a_per_degc, d.thermal_v, d.light_current_a,
            d.saturation_current_a, d.shunt_ohm, d.series_ohm,
        EgRef=d.gap_ev,
        )  # fmt: skip
        below = amps < il
        each = np.full_like(amps, -0.5)
        each[below] = pvsystem.v_from_i(amps[below], il, i0, rs / 3, rsh / 3, a / 3)
        volts += np.maximum(each, -0.5)
    return volts


def test_a_string_with_some_optimizers_equals_the_exact_sum_of_its_curves() -> None:
    draw = np.random.default_rng(3)
    amps = np.linspace(0.01, SHEET.isc_a * 1.2, 4000)
    for _ in range(8):
        bright, cell = draw.uniform(400, 1000), float(draw.uniform(0, 60))
        light = bright * np.where(draw.random(30) < 0.3, draw.choice([0.2, 0.5, 0.8], 30), 1.0)
        fitted = draw.random(10) < 0.4
        volts = np.zeros_like(amps)
        for m in range(10):
            own = module_curve(list(light[3 * m : 3 * m + 3]), cell, amps)
            if fitted[m]:
                best = int(np.argmax(own * amps))
                own = np.where(
                    amps > amps[best], np.maximum(own, own[best] * amps[best] / amps), own
                )
            volts += own
        exact = float((volts * amps).max())
        ours = helped(list(light), list(fitted), cell)
        assert abs(ours - exact) < 0.002 * 10 * SHEET.p_max_w


def test_a_string_held_at_a_voltage_gives_the_sum_until_one_stands_at_its_own_limit() -> None:
    even = np.full((10, 1), 300.0)
    assert series_of_optimizers_w(even, SYSTEM, 380.0)[0] == pytest.approx(3000.0)
    # By hand: one of 300 W among nine of 10 W stands at 60 V; the nine share the other 320 V:
    # 90 W / I = 320 V, I = 0.28125 A, and 380 V times that are 106.9 W.
    odd = np.array([[300.0], *[[10.0]] * 9])
    assert series_of_optimizers_w(odd, SYSTEM, 380.0)[0] == pytest.approx(106.875, rel=1e-6)


def test_too_few_never_reach_the_voltage_and_too_many_stand_at_their_current() -> None:
    assert series_of_optimizers_w(np.full((6, 1), 300.0), SYSTEM, 380.0)[0] == 0
    # By hand: 15 A at 380 V are 5700 W, whatever 30 modules of 400 W offer.
    assert series_of_optimizers_w(np.full((30, 1), 400.0), SYSTEM, 380.0)[0] == pytest.approx(5700)
    assert series_of_optimizers_w(np.zeros((10, 3)), SYSTEM, 380.0) == pytest.approx(np.zeros(3))


def weather() -> WeatherYear:
    time = hour_middles()
    none = np.zeros(len(time))
    return WeatherYear(time, none, none, none, none + 20.0, none, "steady", False)


def group(light_w_per_m2: list[float], index: int = 0) -> StringIrradiance:
    """Modules of three substrings under light that never changes."""
    steady = np.repeat(np.array(light_w_per_m2)[:, None], 8760, axis=1)
    mean = steady.mean(axis=0)
    heat = HeatLoss(1e9, 0.0)
    return StringIrradiance(
        index,
        (SHEET,) * (len(light_w_per_m2) // 3),
        steady,
        mean,
        np.zeros(8760),
        ((Step.SUNLIGHT, mean),),
        heat,
    )


def points(converter: Converter, *groups: StringIrradiance):
    return module_points(groups, converter, weather())


def test_microinverters_each_take_their_own_modules_and_pairs_stay_on_their_array() -> None:
    found = points(micro_converter(TWIN), group([800.0] * 9), group([500.0] * 6, 1))
    drawn = drawn_by_microinverters(found, [[2, 1], [2]], 8760)
    # Three modules make two units, two make one.
    assert drawn.banks[0].units_w.shape == (3, 8760)
    one, other = drawn.banks[0].units_w[:2, 0]
    assert one == pytest.approx(2 * other)
    assert drawn.whole_w.sum() == pytest.approx(sum(s.sum() for s in drawn.sources_w))
    assert dict(drawn.left)[Step.TRACKER] == pytest.approx(drawn.whole_w.sum() / 1000)


def test_a_converter_outside_its_window_takes_less_and_below_its_start_nothing() -> None:
    light = [900.0] * 6 + [200.0] * 3
    free = points(WIDE, group(light)).taken_w[0][:, 0]
    high = points(Converter(SHEET.vmp_v * 1.1, 60.0, 1e6, 0.0), group(light)).taken_w[0][:, 0]
    assert (high < free).all()
    assert (high > 0).all()
    none = points(Converter(0.0, 60.0, 1e6, SHEET.voc_v * 2), group(light)).taken_w[0]
    assert none.sum() == 0
    short = points(Converter(0.0, 60.0, 3.0, 0.0), group(light)).taken_w[0][:, 0]
    assert short[0] < 3.0 * SHEET.voc_v
    assert short[0] > 3.0 * SHEET.vmp_v * 0.9


def test_optimizers_on_all_keep_their_efficiency_and_want_the_string_s_voltage_named() -> None:
    inverter = SHELF.inverters[4]
    found = points(optimizer_converter(SYSTEM), group([700.0] * 30), group([400.0] * 30, 1))
    drawn = drawn_by_optimizers(found, SYSTEM, tracker_inputs((inverter,)), 8760)
    whole = sum(t.sum() for t in found.taken_w)
    assert drawn.whole_w.sum() == pytest.approx(whole * SYSTEM.efficiency_frac)
    assert drawn.banks[0].volts_v[0] == SYSTEM.string_v
    with pytest.raises(MissingDatum, match="string voltage"):
        drawn_by_optimizers(
            found, replace(SYSTEM, string_v=None), tracker_inputs((inverter,)), 8760
        )


def test_a_microinverter_clips_at_its_own_watts_not_at_the_sum() -> None:
    # One module in full sun above the unit's limit, one dim: the sum would hide it.
    found = points(micro_converter(MICRO), group([1100.0] * 3 + [200.0] * 3))
    units = (
        drawn_by_microinverters(found, [[1] * len(t) for t in found.taken_w], 8760).banks[0].units_w
    )
    assert units[0, 0] > MICRO.p_ac_w > units[1, 0]
