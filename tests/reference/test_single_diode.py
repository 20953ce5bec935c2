"""The fitted diode and its operating points against the datasheet and an exact route.

The exact route is the Lambert-W solution of the single-diode equation (Jain and Kapoor
2004) scanned over the whole curve; the product uses Newton's method on the diode voltage.
"""

import numpy as np
import pytest
from pvlib import pvsystem, singlediode

from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.string_power import module_hours, tracker_hours
from ridge_tally.core.equipment import ModuleSheet, TrackerSheet

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


@pytest.mark.parametrize("sheet", MODULES, ids=lambda m: m.id)
@pytest.mark.parametrize("hour", range(1, len(LIGHT)))
def test_maximum_power_point_equals_the_scanned_exact_curve(sheet: ModuleSheet, hour: int) -> None:
    hours = module_hours(fit_diode(sheet), LIGHT, CELL)
    volts, amps = curve_by_lambert_w(sheet, hour)
    assert hours.vmp_v[hour] * hours.imp_a[hour] == pytest.approx((volts * amps).max(), rel=1e-5)


def test_dark_hours_give_nothing() -> None:
    hours = module_hours(fit_diode(MODULES[0]), LIGHT, CELL)
    assert hours.vmp_v[0] == hours.imp_a[0] == 0


@pytest.mark.parametrize(
    ("tracker", "why"),
    [
        (TrackerSheet(430.0, 500.0, 99.0, None, 1), "edge of the window from below"),
        (TrackerSheet(100.0, 300.0, 99.0, None, 1), "edge of the window from above"),
        (TrackerSheet(100.0, 590.0, 9.0, None, 1), "current limit"),
    ],
)
def test_tracker_limits_choose_the_point_of_the_exact_curve(
    tracker: TrackerSheet, why: str
) -> None:
    sheet, count, hour = MODULES[1], 13, 4
    hours = module_hours(fit_diode(sheet), LIGHT, CELL)
    taken = tracker_hours(hours, count, 1, tracker, 100.0)
    edges = (tracker.v_min_v / count, tracker.v_max_v / count)
    volts, amps = curve_by_lambert_w(sheet, hour, edges)
    allowed = (volts >= edges[0]) & (volts <= edges[1])
    # Above the maximum-power voltage the power falls, so the best allowed point is the choice.
    allowed &= (amps >= 0) & (amps <= tracker.i_max_a * (1 + 1e-4))
    exact = (volts * amps)[allowed].max() * count
    assert taken.taken_w[hour] == pytest.approx(exact, rel=2e-4), why
    assert taken.taken_w[hour] < taken.available_w[hour]


def test_a_string_that_opens_below_the_start_voltage_gives_nothing() -> None:
    hours = module_hours(fit_diode(MODULES[1]), LIGHT, CELL)
    tracker = TrackerSheet(60.0, 500.0, 20.0, None, 1)
    assert tracker_hours(hours, 3, 1, tracker, v_start_v=200.0).taken_w.sum() == 0
