"""Sums every practitioner knows, by hand, and closed forms beside them."""

import numpy as np
import pytest

from ridge_tally.core.loading.clipped_day import clipped_kwh_at
from ridge_tally.core.strings.voltage import string_voltage_v, temperature_at_voltage_degc


def test_four_modules_in_series_and_four_strings_in_parallel() -> None:
    # Common practice, no source: 4 x 45.92 V = 183.68 V; 4 x 10.15 A = 40.6 A.
    assert string_voltage_v(4, 45.92, -0.0028, 25.0) == pytest.approx(183.68, abs=5e-3)
    assert pytest.approx(40.6) == 4 * 10.15


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
    lost = clipped_kwh_at(power, peak_w / ratio, 1.0) / (power.sum() / 1000)
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
