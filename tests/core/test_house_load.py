"""A household's hours from twelve months: every month keeps its energy, heat follows the cold."""

import numpy as np
import pytest

from ridge_tally.core.loading.house_load import base_and_heat_kwh, by_cold, by_hour, spread_w
from ridge_tally.core.nominal_year import DAYS_IN_MONTH
from ridge_tally.core.sky.weather_year import hour_middles, hour_of, month_of
from ridge_tally.simulation.house_load import shares

TIME = hour_middles()
MONTHLY = tuple(100.0 + 10 * m for m in range(12))


def by_month_kwh(power_w: np.ndarray) -> np.ndarray:
    return np.bincount(month_of(TIME), weights=power_w, minlength=12) / 1000


@pytest.mark.parametrize("shape", ["home", "out", "car"])
def test_a_shape_shares_out_one_day_and_each_month_keeps_its_energy(shape: str) -> None:
    assert sum(shares(shape)) == pytest.approx(1.0)
    power = spread_w(MONTHLY, by_hour(TIME, shares(shape)), TIME)
    assert by_month_kwh(power) == pytest.approx(MONTHLY)
    day = power[:24]
    # By hand: January has 31 days alike, 100 kWh in all.
    assert day == pytest.approx(np.array(shares(shape)) * 100_000 / 31)


def test_weekends_have_a_day_of_their_own() -> None:
    workday, weekend = [1.0] + [0.0] * 23, [0.0] * 23 + [1.0]
    power = spread_w(MONTHLY, by_hour(TIME, workday, weekend), TIME)
    # The nominal year, 2025, begins on a Wednesday: its first Saturday is the 4th.
    hours = [int(np.argmax(power[d * 24 : (d + 1) * 24])) for d in range(7)]
    assert hours == [0, 0, 0, 23, 23, 0, 0]


def test_heat_falls_on_cold_hours_alone_and_a_month_without_any_is_even() -> None:
    air = np.where(month_of(TIME) == 6, 25.0, np.where(hour_of(TIME) < 6, 8.0, 18.0))
    power = spread_w([120.0] * 12, by_cold(air), TIME)
    assert by_month_kwh(power) == pytest.approx([120.0] * 12)
    january, july = month_of(TIME) == 0, month_of(TIME) == 6
    assert power[january & (hour_of(TIME) >= 6)].max() == 0.0
    assert power[july] == pytest.approx(120_000 / (31 * 24))


def test_what_is_taken_off_is_spread_like_what_is_added() -> None:
    assert by_month_kwh(spread_w([-50.0] * 12, by_hour(TIME, shares("home")), TIME)) == (
        pytest.approx([-50.0] * 12)
    )


def test_the_least_month_is_taken_to_hold_no_heat() -> None:
    # By hand: 2 kWh a day in February, 5 else: base 2 a day, heat 3 a day but for February.
    monthly = tuple(n * (2.0 if n == 28 else 5.0) for n in DAYS_IN_MONTH)
    base, heat = base_and_heat_kwh(monthly, DAYS_IN_MONTH)
    assert base == pytest.approx([2.0 * n for n in DAYS_IN_MONTH])
    assert heat == pytest.approx([0.0 if n == 28 else 3.0 * n for n in DAYS_IN_MONTH])
