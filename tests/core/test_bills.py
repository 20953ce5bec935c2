"""Bills worked by hand: full years, missing months, a leap February, and rows that cannot be."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.brief.bills import (
    ReadBill,
    Usage,
    read_bills,
    usage_of_bills,
    usage_of_year,
)
from ridge_tally.core.job.brief import BillRow
from ridge_tally.core.job.grid import RateTier, Tariff, TariffPeriod
from ridge_tally.core.job.ids import BillId

TARIFF = Tariff(TariffPeriod.BILL, 1000.0, 0.0, (RateTier(None, 12.0),), 0.0)


def rows(*cells: tuple[str, str, str, str]) -> tuple[BillRow, ...]:
    return tuple(BillRow(BillId(f"b{i}"), *cell) for i, cell in enumerate(cells, start=1))


def read(*cells: tuple[str, str, str, str], tariff: Tariff | None = TARIFF) -> list[ReadBill]:
    return list(read_bills(rows(*cells), tariff, month_first=True))


def usage(*cells: tuple[str, str, str, str], southern: bool = False) -> Usage:
    found = usage_of_bills(tuple(read(*cells)), southern=southern)
    assert found is not None
    return found


def month_rows(year: int, kwh: list[str]) -> list[tuple[str, str, str, str]]:
    firsts = [date(year, m, 1) for m in range(1, 13)] + [date(year + 1, 1, 1)]
    return [
        (str(a), str(b - timedelta(days=1)), k, "")
        for a, b, k in zip(firsts, firsts[1:], kwh, strict=False)
    ]


def test_twelve_whole_months_are_the_year() -> None:
    kwh = [310, 280, 310, 300, 310, 300, 310, 310, 300, 310, 300, 310]
    found = usage(*month_rows(2025, [str(k) for k in kwh]))
    assert found.energy_kwh == pytest.approx(3650)
    assert found.monthly_kwh == pytest.approx(tuple(kwh))
    assert found.days_covered == 365
    assert found.warnings == ()


def test_a_reading_day_shared_by_two_bills_counts_once() -> None:
    shared = read(
        ("2025-01-05", "2025-02-04", "300", ""),
        ("2025-02-04", "2025-03-06", "300", ""),
        ("2025-03-06", "2025-04-05", "300", ""),
    )
    assert [b.days for b in shared] == [30, 30, 30]
    apart = read(("2025-01-05", "2025-02-03", "300", ""), ("2025-02-04", "2025-03-05", "300", ""))
    assert [b.days for b in apart] == [30, 30]


def test_a_leap_february_is_brought_to_28_days() -> None:
    # 29 days at 10 kWh a day in February 2024, 336 others at 10: a year is 3650, not 3660.
    kwh = ["310", "290", *["310", "300"] * 2, "310", *["310", "300"] * 2, "310"]
    found = usage(*month_rows(2024, kwh))
    assert found.monthly_kwh[1] == pytest.approx(280)
    assert found.energy_kwh == pytest.approx(3650)


def test_missing_months_take_the_mean_of_the_days_billed() -> None:
    # 59 days at 20 kWh a day: the year is 7300; winter is covered for 59 of its 90 days.
    found = usage(("2025-01-01", "2025-02-28", "1180", ""))
    assert found.energy_kwh == pytest.approx(7300)
    assert found.billed_kwh[0] == pytest.approx(620)
    assert found.billed_kwh[5] == 0
    assert found.monthly_kwh[5] == pytest.approx(600)
    assert found.warnings[0].startswith("The bills cover 59 of 365 days")
    assert [w.split(" (")[0] for w in found.warnings[1:]] == [
        "No bill covers spring",
        "No bill covers summer",
        "No bill covers autumn",
    ]


def test_seasons_follow_the_hemisphere() -> None:
    found = usage(("2025-01-01", "2025-02-28", "1180", ""), southern=True)
    assert any(w.startswith("No bill covers winter (Jun to Aug)") for w in found.warnings)
    assert not any("summer" in w for w in found.warnings)


def test_money_alone_is_turned_into_energy() -> None:
    (bill,) = read(("2025-01-01", "2025-01-31", "", "$82.00"))
    assert bill.energy_kwh == pytest.approx(600)
    assert bill.from_cost


PROBLEMS = [
    (("2025-03-01", "2025-02-01", "300", ""), "last_day", "ends before it begins"),
    (("2025-01-01", "2026-06-01", "300", ""), "last_day", "longer than a year"),
    (("2025-01-01", "2025-01-31", "-20", ""), "energy", "not the balance after credit"),
    (("2025-01-01", "2025-01-31", "", "842 kWh"), "cost", "energy goes in the kWh column"),
    (("2025-01-01", "2025-01-31", "", "842"), "cost", "is 842 the kWh?"),
    (("2025-01-01", "2025-01-31", "", "9.00"), "cost", "less than the fixed charge"),
    (("2025-01-01", "2025-01-31", "80", "600"), "cost", "look swapped"),
    (("2025-01-01", "", "300", ""), "last_day", "The day is missing"),
    (("31 Feb 2025", "2025-03-31", "300", ""), "first_day", "“31 Feb 2025” was not understood"),
    (("2025-01-01", "2025-01-31", "much", ""), "energy", "“much” was not understood"),
]


@pytest.mark.parametrize(("cells", "field", "words"), PROBLEMS)
def test_a_row_that_cannot_be_says_why_in_its_place(
    cells: tuple[str, str, str, str], field: str, words: str
) -> None:
    tariff = Tariff(TariffPeriod.BILL, 1000.0, 0.0, (RateTier(None, 12.0),), 0.0)
    (bill,) = read(cells, tariff=tariff)
    assert bill.problem_field == field
    assert words in bill.problem
    assert usage_of_bills((bill,), southern=False) is None


def test_an_overlap_is_told_at_the_later_row_and_the_other_bills_stand() -> None:
    first, second, third = read(
        ("2025-01-01", "2025-01-31", "310", ""),
        ("2025-01-27", "2025-02-25", "300", ""),
        ("2025-03-01", "2025-03-31", "310", ""),
    )
    assert second.problem == "Overlaps the bill of 1 Jan 2025 to 31 Jan 2025 (row 1) by 4 days."
    assert not first.problem
    assert not third.problem
    assert usage_of_bills((first, second, third), southern=False).days_covered == 62


def test_money_without_a_tariff_asks_for_one() -> None:
    (bill,) = read(("2025-01-01", "2025-01-31", "", "82"), tariff=None)
    assert "choose the grid rules" in bill.problem


@pytest.mark.parametrize(
    ("kwh", "money", "words"),
    [("6000", "", "kWh a day is a lot"), ("300", "1", "unusual"), ("10", "900", "unusual")],
)
def test_an_unlikely_row_is_caveated_but_counts(kwh: str, money: str, words: str) -> None:
    (bill,) = read(("2025-01-01", "2025-01-31", kwh, money), tariff=None)
    assert words in bill.warning
    assert usage_of_bills((bill,), southern=False).energy_kwh > 0


def test_a_row_with_days_alone_waits_and_counts_for_nothing() -> None:
    (bill,) = read(("2025-01-01", "2025-01-31", "", ""))
    assert (bill.problem, bill.days, bill.energy_kwh) == ("", 31, None)
    assert usage_of_bills((bill,), southern=False) is None


def test_rows_without_any_text_are_left_out() -> None:
    assert read(("", "", "", "")) == []


def test_a_yearly_figure_is_spread_by_days() -> None:
    found = usage_of_year(7300)
    assert found.monthly_kwh[1] == pytest.approx(560)
    assert sum(found.monthly_kwh) == pytest.approx(7300)
    assert "spread evenly" in found.warnings[0]


@given(
    st.lists(st.tuples(st.integers(5, 60), st.integers(0, 3000)), min_size=1, max_size=6),
    st.dates(date(2023, 1, 1), date(2025, 12, 31)),
)
def test_the_months_always_add_up_to_energy_times_365_over_days(
    bills: list[tuple[int, int]], start: date
) -> None:
    cells, day = [], start
    for length, kwh in bills:
        last = day + timedelta(days=length - 1)
        cells.append((str(day), str(last), str(kwh), ""))
        day = last + timedelta(days=1)
    found = usage(*cells)
    days = sum(length for length, _ in bills)
    has_leap_day = start <= date(2024, 2, 29) < day
    if not has_leap_day and days <= 365:
        wanted = sum(kwh for _, kwh in bills) * 365 / days
        assert found.energy_kwh == pytest.approx(wanted)
    assert sum(found.monthly_kwh) == pytest.approx(found.energy_kwh)
