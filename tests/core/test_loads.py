"""Loads to come, worked by hand."""

import pytest

from ridge_tally.core.brief.loads import heating_shares, load_year
from ridge_tally.core.job.brief import CarLoad, Fuel, HeatPumpLoad, OtherLoad
from ridge_tally.core.job.ids import LoadId

ID = LoadId("load1")
EVEN = tuple(1 / 12 for _ in range(12))


def test_a_car() -> None:
    # 12 000 km * 0.18 kWh/km = 2160 at the wheel; / 0.9 = 2400 drawn; 90 % of it at home.
    year = load_year(CarLoad(ID, "car", 12000, 0.18, 0.10, 0.9, 7.0), EVEN, 0.0, "")
    assert year.energy_kwh == pytest.approx(2160)
    assert year.monthly_kwh[0] == pytest.approx(2160 * 31 / 365)
    assert year.displaced_fuel == pytest.approx(840)


def test_a_heat_pump_in_the_place_of_a_burner() -> None:
    # 1000 m³ * 10.55 kWh * 0.85 = 8967.5 kWh of heat; / 3.2 = 2802 drawn.
    load = HeatPumpLoad(ID, "heat", Fuel.GAS_M3, 1000, 0.85, 3.2)
    year = load_year(load, EVEN, 10.55, "m³")
    assert year.energy_kwh == pytest.approx(2802.34, abs=0.01)
    assert (year.displaced_fuel, year.displaced_unit) == (1000, "m³")


def test_a_heat_pump_in_the_place_of_resistance_heat_takes_off_the_bill() -> None:
    load = HeatPumpLoad(ID, "heat", Fuel.ELECTRIC_KWH, 6000, 1.0, 3.0)
    assert load_year(load, EVEN, 1.0, "kWh").energy_kwh == pytest.approx(-4000)


@pytest.mark.parametrize(
    ("first", "last", "in_months"),
    [(1, 12, range(12)), (5, 9, range(4, 9)), (11, 2, (10, 11, 0, 1)), (7, 7, (6,))],
)
def test_other_loads_are_spread_over_their_months(first: int, last: int, in_months) -> None:
    year = load_year(OtherLoad(ID, "pool", 1800, first, last), EVEN, 0.0, "")
    assert year.energy_kwh == pytest.approx(1800)
    assert {m for m, kwh in enumerate(year.monthly_kwh) if kwh > 0} == set(in_months)


def test_heat_follows_degree_days() -> None:
    # Only January (31 days, 10 °C: 248 K·d) and February (28 days, 14 °C: 112 K·d) are cold.
    shares = heating_shares((10.0, 14.0, *[20.0] * 10))
    assert shares[:2] == pytest.approx((248 / 360, 112 / 360))
    assert sum(shares) == pytest.approx(1)
    assert sum(heating_shares((25.0,) * 12)) == pytest.approx(1)
