"""Bills worked by hand: flat, tiered, fixed, minimum, by the day, with tax; and turned round."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.brief.tariff import (
    bill_cents,
    energy_for_bill_kwh,
    parse_tiers,
    write_tiers,
)
from ridge_tally.core.errors import NotUnderstood, OutOfRange, OutsideModelRange
from ridge_tally.core.job.grid import RateTier, Tariff, TariffPeriod

FLAT = Tariff(TariffPeriod.BILL, 0.0, 0.0, (RateTier(None, 12.0),), 0.0)
FIXED = Tariff(TariffPeriod.BILL, 1000.0, 0.0, (RateTier(None, 12.0),), 0.0)
TIERED = Tariff(
    TariffPeriod.BILL, 1450.0, 1450.0, (RateTier(500.0, 12.4), RateTier(None, 15.8)), 0.0
)
LEAST = Tariff(TariffPeriod.BILL, 500.0, 2000.0, (RateTier(None, 10.0),), 0.0)
DAILY = Tariff(TariffPeriod.DAY, 38.0, 0.0, (RateTier(None, 15.5),), 0.265)
DAILY_TIERS = Tariff(TariffPeriod.DAY, 0.0, 0.0, (RateTier(10.0, 8.0), RateTier(None, 20.0)), 0.0)

# By hand, cents: tariff, kWh, days, what the bill comes to.
WORKED = [
    (FLAT, 600.0, 30, 7200.0),
    (FIXED, 600.0, 30, 8200.0),
    (FIXED, 0.0, 30, 1000.0),
    (TIERED, 500.0, 30, 1450 + 6200.0),
    (TIERED, 842.0, 30, 1450 + 6200 + 342 * 15.8),
    (LEAST, 50.0, 30, 2000.0),
    (LEAST, 150.0, 30, 2000.0),
    (LEAST, 400.0, 30, 4500.0),
    (DAILY, 400.0, 30, (1140 + 6200) * 1.265),
    (DAILY_TIERS, 400.0, 30, 300 * 8 + 100 * 20.0),
    (DAILY_TIERS, 400.0, 60, 400 * 8.0),
]


@pytest.mark.parametrize(("tariff", "kwh", "days", "cents"), WORKED)
def test_a_bill_worked_by_hand(tariff: Tariff, kwh: float, days: int, cents: float) -> None:
    assert bill_cents(tariff, kwh, days) == pytest.approx(cents, abs=1e-9)


@pytest.mark.parametrize(
    ("tariff", "kwh", "days", "cents"), [w for w in WORKED if w[0] is not LEAST or w[1] > 150]
)
def test_the_same_bills_turned_round(tariff: Tariff, kwh: float, days: int, cents: float) -> None:
    if cents == 1000.0:
        assert energy_for_bill_kwh(tariff, cents, days) == 0.0
    else:
        assert energy_for_bill_kwh(tariff, cents, days) == pytest.approx(kwh, rel=1e-12)


@given(st.floats(1.0, 5000.0), st.integers(20, 100), st.sampled_from([TIERED, DAILY, DAILY_TIERS]))
def test_turning_round_gives_the_energy_back(kwh: float, days: int, tariff: Tariff) -> None:
    cents = bill_cents(tariff, kwh, days)
    assert energy_for_bill_kwh(tariff, cents, days) == pytest.approx(kwh, rel=1e-9)


@pytest.mark.parametrize("cents", [1500.0, 2000.0])
def test_a_bill_at_the_minimum_is_refused_with_the_reason(cents: float) -> None:
    with pytest.raises(OutsideModelRange, match=r"minimum charge.*0 to 150 kWh"):
        energy_for_bill_kwh(LEAST, cents, 30)


def test_a_bill_below_the_fixed_charge_is_refused() -> None:
    with pytest.raises(OutsideModelRange, match=r"less than the fixed charge of 10\.00"):
        energy_for_bill_kwh(FIXED, 900.0, 30)


def test_a_free_tier_cannot_be_turned_round() -> None:
    free = Tariff(TariffPeriod.BILL, 1000.0, 0.0, (RateTier(None, 0.0),), 0.0)
    with pytest.raises(OutsideModelRange, match="costs nothing"):
        energy_for_bill_kwh(free, 1500.0, 30)


def test_tiers_are_read_as_they_are_written() -> None:
    assert parse_tiers("14.2", "x") == (RateTier(None, 14.2),)
    assert parse_tiers("11.2 to 500; 14,8 c", "x") == (RateTier(500.0, 11.2), RateTier(None, 14.8))
    assert parse_tiers(write_tiers(TIERED.tiers), "x") == TIERED.tiers


@pytest.mark.parametrize("typed", ["", "cheap", "11.2 to 500", "11.2; 14.8", "11 to x; 3"])
def test_tiers_without_an_open_end_are_refused(typed: str) -> None:
    with pytest.raises(NotUnderstood, match=r"11\.2 to 500; 14\.8"):
        parse_tiers(typed, "Price of a kWh")


def test_tiers_must_rise() -> None:
    with pytest.raises(OutOfRange, match="above the bound before it"):
        parse_tiers("11 to 500; 12 to 400; 13", "Price of a kWh")
