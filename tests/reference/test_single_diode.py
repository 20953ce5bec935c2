"""The fitted diode and its operating points against the datasheet and an exact route.

The exact route is the Lambert-W solution of the single-diode equation (Jain and Kapoor
2004) scanned over the whole curve; the product uses Newton's method on the diode voltage.
"""

import csv
import json
from dataclasses import replace
from itertools import pairwise
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pvlib import pvsystem, singlediode
from scipy import constants

from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.lit import diode_reference
from ridge_tally.core.equipment import ModuleSheet, TrackerSheet
from ridge_tally.core.kernels.diode import best_point, voltage_at
from ridge_tally.core.kernels.strings import free_year, limited_year

MODULES = sample_shelf().modules
LIGHT = np.array([0.0, 40.0, 200.0, 600.0, 1000.0, 1150.0])
CELL = np.array([-5.0, 2.0, 15.0, 40.0, 61.0, 70.0])


def curve_by_lambert_w(
    sheet: ModuleSheet, hour: int, edges_v: tuple[float, ...] = ()
) -> tuple[np.ndarray, np.ndarray]:
    d = fit_diode(sheet)
    il, i0, rs, rsh, a = pvsystem.calcparams_desoto(
        LIGHT[hour], CELL[hour], d.alpha_isc_a_per_degc, d.thermal_v, d.light_current_a,
        d.saturation_current_a, d.shunt_ohm, d.series_ohm,
        EgRef=d.gap_ev,
    )  # fmt: skip
    volts = np.union1d(np.linspace(0, sheet.voc_v * 1.15, 20001), edges_v)
    return volts, pvsystem.i_from_v(volts, il, i0, rs, rsh, a, method="lambertw")


@pytest.mark.parametrize("sheet", MODULES, ids=lambda m: m.id)
def test_fit_reproduces_the_datasheet(sheet: ModuleSheet) -> None:
    d = fit_diode(sheet)
    points = singlediode.bishop88_mpp(
        d.light_current_a, d.saturation_current_a, d.series_ohm, d.shunt_ohm, d.thermal_v
    )
    assert points[1] == pytest.approx(sheet.vmp_v, rel=2e-3)
    assert points[0] == pytest.approx(sheet.imp_a, rel=2e-3)
    # Thin guard: a fit that missed the Voc coefficient would plan strings on a wrong Vmp.
    assert d.beta_error_frac < 0.10


FREE = TrackerSheet(0.0, 5000.0, 1e6, None, 1)


def drawn(
    sheet: ModuleSheet,
    light: np.ndarray,
    starts: list[int],
    cells: np.ndarray,
    tracker: TrackerSheet = FREE,
    v_start_v: float = 0.0,
) -> tuple[np.ndarray, ...]:
    """What the product's kernels make of substrings (m, n) in strings: own, free, taken, volts."""
    ref = diode_reference(fit_diode(sheet), sheet.bypass_diodes)
    heat = np.repeat(cells[None], len(starts) - 1, axis=0)
    _, own, *free = free_year(light, np.array(starts), heat, ref)
    taken, volts = limited_year(
        light, np.array(starts), heat, ref, *free, tracker.v_min_v, tracker.v_max_v,
        tracker.i_max_a, v_start_v,
    )  # fmt: skip
    return own, free[0], taken, volts


def in_series(sheet: ModuleSheet, modules: int) -> np.ndarray:
    return np.repeat(LIGHT[None], modules * sheet.bypass_diodes, axis=0)


@pytest.mark.parametrize("sheet", MODULES, ids=lambda m: m.id)
@pytest.mark.parametrize("hour", range(1, len(LIGHT)))
def test_maximum_power_point_equals_the_scanned_exact_curve(sheet: ModuleSheet, hour: int) -> None:
    light = in_series(sheet, 1)
    own, free, taken, _ = drawn(sheet, light, [0, len(light)], CELL)
    volts, amps = curve_by_lambert_w(sheet, hour)
    assert own[hour] == free[hour] == taken[hour]
    assert free[hour] == pytest.approx((volts * amps).max(), rel=1e-5)


def test_dark_hours_give_nothing() -> None:
    light = in_series(MODULES[0], 4)
    assert all(power[0] == 0 for power in drawn(MODULES[0], light, [0, len(light)], CELL))


@pytest.mark.parametrize(
    ("tracker", "why"),
    [
        (TrackerSheet(430.0, 500.0, 99.0, None, 1), "edge of the window from below"),
        (TrackerSheet(100.0, 300.0, 99.0, None, 1), "edge of the window from above"),
        (TrackerSheet(100.0, 590.0, 9.0, None, 1), "current limit"),
    ],
)
@pytest.mark.parametrize("strings", [1, 2])
def test_tracker_limits_choose_the_point_of_the_exact_curve(
    tracker: TrackerSheet, why: str, strings: int
) -> None:
    sheet, count, hour = MODULES[1], 13, 4
    light = in_series(sheet, count * strings)
    starts = [count * sheet.bypass_diodes * s for s in range(strings + 1)]
    limit = replace(tracker, i_max_a=tracker.i_max_a * strings)
    _, free, taken, volts_v = drawn(sheet, light, starts, CELL, limit, 100.0)
    edges = (tracker.v_min_v / count, tracker.v_max_v / count)
    volts, amps = curve_by_lambert_w(sheet, hour, edges)
    allowed = (volts >= edges[0]) & (volts <= edges[1])
    # Above the maximum-power voltage the power falls, so the best allowed point is the choice.
    allowed &= (amps >= 0) & (amps <= tracker.i_max_a * (1 + 1e-4))
    exact = (volts * amps)[allowed].max() * count * strings
    assert taken[hour] == pytest.approx(exact, rel=3e-4), why
    assert taken[hour] < free[hour]
    # The operating point moves up in voltage where the current is limited, never down.
    if why == "current limit":
        assert volts_v[hour] / count > volts[np.argmax(volts * amps)]


def test_a_string_that_opens_below_the_start_voltage_gives_nothing() -> None:
    light = in_series(MODULES[1], 3)
    tracker = TrackerSheet(60.0, 500.0, 20.0, None, 1)
    assert drawn(MODULES[1], light, [0, len(light)], CELL, tracker, 200.0)[2].sum() == 0


def summed_exactly(sheet: ModuleSheet, light: np.ndarray, starts: list[int], cell: float) -> float:
    """The best of strings in parallel, W: every substring's curve by Lambert W, summed."""
    d, parts = fit_diode(sheet), sheet.bypass_diodes
    volts = np.linspace(0, sheet.voc_v * 1.1 * (starts[1] - starts[0]) / parts, 5000)
    total = np.zeros_like(volts)
    for low, high in pairwise(starts):
        amps = np.linspace(0, sheet.isc_a * 1.2, 2000)
        string = np.zeros_like(amps)
        for e in light[low:high]:
            il, i0, rs, rsh, a = pvsystem.calcparams_desoto(
                e, cell, d.alpha_isc_a_per_degc, d.thermal_v, d.light_current_a,
                d.saturation_current_a, d.shunt_ohm, d.series_ohm,
        EgRef=d.gap_ev,
            )  # fmt: skip
            below = amps < il
            each = np.full_like(amps, -0.5)
            each[below] = pvsystem.v_from_i(
                amps[below], il, i0, rs / parts, rsh / parts, a / parts, method="lambertw"
            )
            string += np.maximum(each, -0.5)
        total += np.interp(volts, string[::-1], amps[::-1], left=amps[-1], right=0)
    return float((volts * total).max())


@pytest.mark.parametrize("strings", [1, 2])
def test_partly_shaded_strings_equal_the_exact_sum(strings: int) -> None:
    # At random hours, to 0.2 % of what the strings are rated.
    sheet, each = MODULES[1], 30
    draw = np.random.default_rng(7)
    starts = [each * s for s in range(strings + 1)]
    for _ in range(8):
        bright = draw.uniform(300, 1000)
        light = np.where(
            draw.random(each * strings) < 0.3, bright * draw.choice([0.2, 0.5, 0.8], each * strings), bright
        )  # fmt: skip
        cell = float(draw.uniform(-5, 60))
        free = drawn(sheet, light[:, None], starts, np.array([cell]))[1][0]
        exact = summed_exactly(sheet, light, starts, cell)
        rated = each * strings / sheet.bypass_diodes * sheet.p_max_w
        assert abs(free - exact) < 0.002 * rated


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.floats(50, 1100), min_size=12, max_size=12),
    st.floats(1.02, 1.6),
    st.floats(-10, 65),
)  # fmt: skip
def test_more_light_never_gives_less_and_one_s_own_best_is_never_beaten(
    light: list[float], brighter: float, cell: float
) -> None:
    sheet, heat = MODULES[1], np.array([cell])
    dull = np.array(light)[:, None]
    own, free, _, _ = drawn(sheet, dull, [0, 12], heat)
    assert free[0] <= own[0] * (1 + 1e-5)
    assert drawn(sheet, dull * brighter, [0, 12], heat)[1][0] >= free[0] * (1 - 1e-5)
    two = drawn(sheet, dull, [0, 6, 12], heat)[1][0]
    assert two <= own[0] * (1 + 1e-5)


PRECISE = Path(__file__).parents[2] / ".build/measured/pvlib/data"


def precise_curves() -> list[tuple[dict, tuple[float, ...]]]:
    """High-precision solutions of the single diode (Jain and Kapoor's equation in 40 digits).

    They travel with an earlier wheel of the reference library, installed for the tests alone.
    """
    found = []
    for number in (1, 2):
        text = (PRECISE / f"precise_iv_curves{number}.json").read_text("utf-8")
        curves = {c["Index"]: c for c in json.loads(text)["IV Curves"]}
        table = PRECISE / f"precise_iv_curves_parameter_sets{number}.csv"
        for row in csv.DictReader(table.open(encoding="utf-8")):
            curve = curves[int(row["Index"])]
            volts_a = float(row["n"]) * int(row["cells_in_series"]) * constants.k / constants.e
            terms = (
                float(row["photocurrent"]),
                float(row["saturation_current"]),
                float(row["resistance_series"]),
                1 / float(row["resistance_shunt"]),
                volts_a * float(curve["Temperature"]),
            )
            found.append((curve, terms))
    return found


def test_points_and_peaks_equal_high_precision_solutions() -> None:
    curves = precise_curves()
    assert len(curves) > 50
    for curve, terms in curves:
        volts, amps = best_point(terms)
        assert volts * amps == pytest.approx(float(curve["p_mp"]), rel=1e-9)
        # Where the curve is flat the peak's place is known less well than its height.
        assert volts == pytest.approx(float(curve["v_mp"]), rel=2e-5)
        for v, i in zip(curve["Voltages"][::9], curve["Currents"][::9], strict=True):
            assert voltage_at(float(i), terms) == pytest.approx(float(v), abs=2e-6)
