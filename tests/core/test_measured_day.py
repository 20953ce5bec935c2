"""One module's day made into an array: mirrored, multiplied, summed and cut."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.loading.measured_day import judged, mirrored, moved, summed

STEPS = 288


def bell(centre_h: float, width_h: float = 6.0, steps: int = STEPS) -> np.ndarray:
    """A clear day's curve: a half sine from sunrise to sunset."""
    hours = (np.arange(steps) + 0.5) * 24 / steps
    x = (hours - centre_h) / width_h
    return np.where(np.abs(x) < 1, np.cos(np.clip(x, -1, 1) * math.pi / 2), 0.0)


def test_a_half_sine_day_cut_at_six_ninths_loses_18_5_percent() -> None:
    # cos a - r (pi/2 - a), a = asin r, at r = 6/9: 18.46 %.  Derivable; common practice says 19 %.
    made = summed(bell(12.0, steps=2880), ((9000.0, False),), 12.0, 6.0)
    assert made.clipped_kwh / made.whole_kwh == pytest.approx(0.1846, abs=2e-4)
    # By hand: a half sine of 9 kW over 12 h is 9 * 12 * 2/pi.
    assert made.whole_kwh == pytest.approx(9 * 12 * 2 / math.pi, rel=1e-4)


def test_a_morning_curve_mirrored_is_an_evening_one_as_far_from_noon() -> None:
    morning, evening = bell(10.5), bell(13.7)
    assert mirrored(morning, 12.1) == pytest.approx(evening, abs=5e-3)
    assert mirrored(mirrored(morning, 12.0), 12.0) == pytest.approx(morning, abs=1e-9)


def test_half_each_way_peaks_lower_and_is_broader() -> None:
    morning = bell(10.0)
    one_way = summed(morning, ((5000.0, False),), 12.0, 4.0)
    split = summed(morning, ((2500.0, False), (2500.0, True)), 12.0, 4.0)
    assert split.whole_kwh == pytest.approx(one_way.whole_kwh, rel=1e-6)
    assert split.whole_kw.max() < one_way.whole_kw.max()
    assert split.clipped_kwh < one_way.clipped_kwh


@given(st.floats(0, 9000), st.floats(0, 9000), st.floats(0.1, 12))
def test_a_sum_is_its_parts_and_the_limit_is_kept(one: float, two: float, limit: float) -> None:
    curve = bell(11.0)
    made = summed(curve, ((one, False), (two, True)), 12.0, limit)
    parts = curve * one / 1000 + mirrored(curve, 12.0) * two / 1000
    assert made.whole_kw == pytest.approx(parts)
    assert made.given_kw.max() <= limit + 1e-9


def test_a_clock_on_daylight_time_is_moved_back() -> None:
    assert moved(bell(13.0), -1.0) == pytest.approx(bell(12.0), abs=2e-3)


def test_a_clear_day_is_told_from_a_cloudy_and_a_limited_one() -> None:
    clear = judged(bell(12.0) * 330)
    assert (clear.clear, clear.limited) == (True, False)
    assert clear.roughness == pytest.approx(0, abs=1e-6)
    cloudy = bell(12.0) * 330
    cloudy[120:126] *= 0.4
    assert not judged(cloudy).clear
    # By hand: one dip of 60 % of the top, there and back, is 0.6 of one rise and fall.
    dip = judged(np.where(np.arange(STEPS) == 144, 0.4, 1.0) * bell(12.0))
    assert dip.roughness == pytest.approx(0.6, abs=0.01)
    flat = judged(np.minimum(bell(12.0) * 330, 250))
    assert flat.limited
    assert not judged(np.zeros(STEPS)).clear
