"""Days, energies, money, shares and positions as people write them."""

from datetime import date

import pytest

from ridge_tally.core.brief.typed import (
    parse_day,
    parse_day_of_year,
    parse_energy_kwh,
    parse_money_cents,
    parse_quantity,
    parse_share_frac,
)
from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.units import parse_coordinates_deg


@pytest.mark.parametrize(
    ("typed", "month_first", "day"),
    [
        ("2025-03-04", True, date(2025, 3, 4)),
        ("3/4/2025", True, date(2025, 3, 4)),
        ("3/4/2025", False, date(2025, 4, 3)),
        ("3/4/25", True, date(2025, 3, 4)),
        ("4.3.2025", True, date(2025, 3, 4)),
        ("4 Mar 2025", False, date(2025, 3, 4)),
        ("March 4, 2025", False, date(2025, 3, 4)),
        (" 4  march 2025 ", True, date(2025, 3, 4)),
    ],
)
def test_days(typed: str, month_first: bool, day: date) -> None:
    assert parse_day(typed, "From", month_first=month_first) == day


@pytest.mark.parametrize("typed", ["", "soon", "2025-02-30", "13/13/2025", "4 Mar"])
def test_no_days(typed: str) -> None:
    with pytest.raises(NotUnderstood, match="From: “"):
        parse_day(typed, "From", month_first=True)


@pytest.mark.parametrize(
    ("typed", "month_first", "day"),
    [("1 Jan", True, 0), ("Mar 20", False, 78), ("20 march", True, 78), ("3/20", True, 78),
     ("20.3", True, 78), ("20/3", False, 78), ("31 Dec 2024", True, 364), ("2028-03-01", True, 59)],
)  # fmt: skip
def test_days_of_any_year(typed: str, month_first: bool, day: int) -> None:
    assert parse_day_of_year(typed, "From", month_first=month_first) == day


@pytest.mark.parametrize("typed", ["", "spring", "29 Feb", "29 Feb 2028", "31/31"])
def test_no_days_of_any_year(typed: str) -> None:
    with pytest.raises(NotUnderstood, match="such as 20 Mar"):
        parse_day_of_year(typed, "From", month_first=True)


@pytest.mark.parametrize(
    ("typed", "kwh"),
    [("842", 842), ("842 kWh", 842), ("1,240", 1240), ("1 240,5", 1240.5), ("1.240,50", 1240.5),
     ("12.5", 12.5), ("12,5", 12.5), ("0", 0), ("1,240.5kwh", 1240.5)],
)  # fmt: skip
def test_energies(typed: str, kwh: float) -> None:
    assert parse_energy_kwh(typed, "kWh") == pytest.approx(kwh)


@pytest.mark.parametrize(
    ("typed", "cents"),
    [("118.20", 11820), ("$118.20", 11820), ("118,20 €", 11820), ("A$ 1,118", 111800), ("£0.52", 52)],
)  # fmt: skip
def test_money(typed: str, cents: float) -> None:
    assert parse_money_cents(typed, "Money") == pytest.approx(cents)


def test_money_and_energy_refuse_each_other_and_negatives() -> None:
    with pytest.raises(NotUnderstood, match="kWh column"):
        parse_money_cents("842 kWh", "Money")
    with pytest.raises(NotUnderstood, match="energy bought"):
        parse_energy_kwh("$84", "kWh")
    with pytest.raises(OutOfRange, match="balance"):
        parse_energy_kwh("−12", "kWh")


@pytest.mark.parametrize(
    ("typed", "share"), [("80 %", 0.8), ("80", 0.8), ("0.8", 0.8), ("120", 1.2), ("1.2", 1.2)]
)
def test_shares(typed: str, share: float) -> None:
    assert parse_share_frac(typed, "Share") == pytest.approx(share)


def test_quantities_take_their_unit_or_the_default() -> None:
    units = {"": 1.609344, "mi": 1.609344, "km": 1.0}
    assert parse_quantity("9,200 mi", "Distance", units, "x") == pytest.approx(14805.96, abs=0.01)
    assert parse_quantity("9200", "Distance", units, "x") == pytest.approx(14805.96, abs=0.01)
    assert parse_quantity("12 000 km", "Distance", units, "x") == 12000
    with pytest.raises(NotUnderstood):
        parse_quantity("12 leagues", "Distance", units, "12 km")


@pytest.mark.parametrize(
    ("typed", "latitude", "longitude"),
    [
        ("36.2, -105.6", 36.2, -105.6),
        ("36.2 -105.6", 36.2, -105.6),
        ("36.2 N 105.6 W", 36.2, -105.6),
        ("42.4 S, 146.9 E", -42.4, 146.9),
        ("36°12'N 105°36'30\"W", 36.2, -105.608333),
        ("36.2;−105.6", 36.2, -105.6),
    ],
)
def test_positions(typed: str, latitude: float, longitude: float) -> None:
    assert parse_coordinates_deg(typed, "Place") == pytest.approx((latitude, longitude), abs=1e-6)


@pytest.mark.parametrize("typed", ["", "36.2", "here, there", "105.6 W 36.2 N"])
def test_no_positions(typed: str) -> None:
    with pytest.raises(NotUnderstood, match="latitude, longitude"):
        parse_coordinates_deg(typed, "Place")
