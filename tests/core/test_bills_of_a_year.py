"""Bills of a year by hand: tiers, hours, seasons, net metering with its true-up, minimum, tax, demand."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.catalogue.tariffs import SampleTariff, sample_tariffs
from ridge_tally.core.brief.rate_periods import (
    parse_days,
    parse_months,
    typed_period,
    write_hours,
    write_months,
)
from ridge_tally.core.brief.tariff_hours import require_whole_periods, tariff_hours
from ridge_tally.core.errors import BadGeometry, NotUnderstood
from ridge_tally.core.job.grid import (
    GridRules,
    Metering,
    PriceDays,
    RatePeriod,
    RateTier,
    SizeCap,
    SizeCapKind,
    Tariff,
    TariffPeriod,
)
from ridge_tally.core.money.bills import MeterYear, YearBills, year_bills
from ridge_tally.core.nominal_year import DAYS_IN_MONTH
from ridge_tally.core.sky.weather_year import HOURS, hour_middles, hour_of, month_of, weekday_of

TIME = hour_middles()
MONTH, HOUR = month_of(TIME), hour_of(TIME)
FLAT = Tariff(TariffPeriod.BILL, 1000.0, 0.0, (RateTier(None, 20.0),), 0.0)
NOTHING = np.zeros(HOURS)


def grid(tariff: Tariff = FLAT, **change: object) -> GridRules:
    made = GridRules(
        "own", "x", "", date(2026, 1, 1), False, (), "$", 240.0, SizeCap(SizeCapKind.NONE, None),
        None, None, Metering.NET, 5.0, tariff, "", "", None, (),
    )  # fmt: skip
    return replace(made, **change)  # type: ignore[arg-type]


def monthly(kwh: list[float]) -> np.ndarray:
    """A year whose months come to so many kWh, evenly."""
    return np.array([kwh[m] / (DAYS_IN_MONTH[m] * 24) for m in MONTH])


def bills(rules: GridRules, bought: np.ndarray, sent: np.ndarray = NOTHING) -> YearBills:
    return year_bills(rules, MeterYear(bought, sent))


def test_tiers_minimum_and_tax_by_hand() -> None:
    tiers = (RateTier(500.0, 10.0), RateTier(None, 15.0))
    tariff = Tariff(TariffPeriod.BILL, 1200.0, 2500.0, tiers, 0.1)
    kwh = [400.0, 500.0, 700.0, 0.0] + [100.0] * 8
    found = bills(grid(tariff), monthly(kwh)).months_cents()
    # 12 + 40 = 52; 12 + 50 = 62; 12 + 50 + 30 = 92; the minimum of 25; 12 + 10 = 22: 25; a tenth on all.
    assert found[:5] == (5720, 6820, 10120, 2750, 2750)


def test_charges_by_the_day_follow_the_months() -> None:
    tiers = (RateTier(10.0, 10.0), RateTier(None, 20.0))
    tariff = Tariff(TariffPeriod.DAY, 50.0, 0.0, tiers, 0.0)
    found = bills(grid(tariff), monthly([400.0] * 12)).months_cents()
    # January: 31 x 0.50, 310 kWh at 10 c, 90 at 20 c; February: 28 x 0.50, 280 and 120.
    assert found[:2] == (1550 + 3100 + 1800, 1400 + 2800 + 2400)


PEAK = typed_period("peak", "Jun-Sep", PriceDays.WORKDAYS, "16-21", "40", "12")
NIGHT = typed_period("night", "", PriceDays.EVERY, "22-6", "8", "")
REST = typed_period("other", "", PriceDays.EVERY, "", "18", "")


def hourly_tariff(*periods: RatePeriod, holidays: tuple[int, ...] = ()) -> Tariff:
    return replace(FLAT, fixed_cents=0.0, periods=periods, holidays=holidays)


def test_hours_with_their_own_price_by_hand() -> None:
    # One kWh in every hour of July 2025: 23 workdays; 5 peak hours each, 8 night hours a day.
    tariff = hourly_tariff(PEAK, NIGHT, REST)
    found = bills(grid(tariff), np.where(MONTH == 6, 1.0, 0.0))
    peak, night = 23 * 5, 31 * 8
    assert found.energy_cents[6] == pytest.approx(
        peak * 40 + night * 8 + (31 * 24 - peak - night) * 18
    )
    # The fourth of July is a Friday: with it a holiday, a workday less.
    rested = hourly_tariff(
        PEAK, NIGHT, REST, holidays=parse_days("4 Jul", "Holidays", month_first=True)
    )
    less = bills(grid(rested), np.where(MONTH == 6, 1.0, 0.0))
    assert found.energy_cents[6] - less.energy_cents[6] == pytest.approx(5 * (40 - 18))


def test_net_billing_pays_each_hour_its_own() -> None:
    tariff = hourly_tariff(PEAK, NIGHT, REST)
    at_four = np.where((MONTH == 6) & (HOUR == 16), 1.0, 0.0)
    found = bills(grid(tariff, metering=Metering.NET_BILLING), NOTHING, at_four)
    # 23 workdays at 12 c, 8 days of weekends at the usual 5 c.
    assert found.paid_cents[6] == pytest.approx(23 * 12 + 8 * 5)
    assert found.months_cents()[6] == -(23 * 12 + 8 * 5)


@pytest.mark.parametrize(
    ("trueup", "january", "april"),
    [
        # Paid out each month: 100 kWh over in January at 5 c; April buys 300 at 20 c.
        (None, 1000 - 500, 1000 + 300 * 20),
        # Carried to April, which pays for 200 less: February and March make nothing over or short.
        (12, 1000, 1000 + 200 * 20),
        # The year ends with January: what it has over is paid out then.
        (1, 1000 - 500, 1000 + 300 * 20),
    ],
)
def test_net_metering_and_its_true_up(trueup: int | None, january: int, april: int) -> None:
    bought = monthly([200.0, 200.0, 200.0, 300.0] + [200.0] * 8)
    sent = monthly([300.0, 200.0, 200.0, 0.0] + [200.0] * 8)
    found = bills(grid(trueup_month=trueup), bought, sent).months_cents()
    assert (found[0], found[3]) == (january, april)


def test_each_period_nets_by_itself() -> None:
    # 10 kWh over at peak are no help at night.
    tariff = hourly_tariff(typed_period("day", "", PriceDays.EVERY, "6-22", "30", ""), REST)
    sent = np.where((MONTH == 0) & (HOUR == 12), 1.0, 0.0)
    bought = np.where((MONTH == 0) & (HOUR == 23), 1.0, 0.0)
    found = bills(grid(tariff, trueup_month=12), bought, sent)
    assert found.energy_cents[0] == pytest.approx(31 * 18)
    assert found.banked_kwh[0].tolist() == pytest.approx([31.0, 0.0])


def test_the_highest_hour_of_the_month_is_charged() -> None:
    load = np.where(MONTH == 2, 1.0, 0.5)
    load[np.flatnonzero(MONTH == 2)[100]] = 7.0
    found = bills(grid(replace(FLAT, demand_cents_per_kw=900.0)), load)
    assert found.demand_cents[[1, 2]].tolist() == [450.0, 6300.0]


@given(st.lists(st.floats(0, 5000), min_size=12, max_size=12), st.floats(1, 60))
def test_export_paid_as_import_is_energy_times_price(kwh: list[float], price: float) -> None:
    """With no fixed charge and both prices alike the saving is the energy times the price."""
    tariff = replace(FLAT, fixed_cents=0.0, tiers=(RateTier(None, price),))
    rules = grid(tariff, metering=Metering.NET_BILLING, export_cents_per_kwh=price)
    load, made = monthly([300.0] * 12), monthly(kwh)
    own = np.minimum(load, made)
    before = bills(rules, load).months_cents()
    after = bills(rules, load - own, made - own).months_cents()
    for m in range(12):
        # Each bill is rounded to a cent by itself.
        assert before[m] - after[m] == pytest.approx(kwh[m] * price, abs=1.01)


@given(st.lists(st.floats(0, 2000), min_size=12, max_size=12), st.sampled_from([None, 1, 6, 12]))
def test_kwh_of_a_bank_are_never_lost_or_made(kwh: list[float], trueup: int | None) -> None:
    rules = grid(trueup_month=trueup, export_cents_per_kwh=1.0)
    found = bills(rules, monthly([500.0] * 12), monthly(kwh))
    # All that was sent counted against what was bought or was paid for, at a cent.
    assert found.billed_kwh.sum() - found.paid_cents.sum() == pytest.approx(
        6000 - sum(kwh), abs=1e-6
    )


def test_every_hour_has_one_price() -> None:
    hours = tariff_hours(hourly_tariff(PEAK, NIGHT, REST), 5.0)
    weekday = weekday_of(TIME)
    for n in range(0, HOURS, 37):
        peak = MONTH[n] in (5, 6, 7, 8) and weekday[n] < 5 and 16 <= HOUR[n] < 21
        night = HOUR[n] >= 22 or HOUR[n] < 6
        assert hours.names[hours.period[n]] == ("peak" if peak else "night" if night else "other")


@pytest.mark.parametrize(
    ("periods", "words"),
    [
        ((NIGHT,), "Jan, workdays, 6 to 7 h"),
        ((PEAK, typed_period("x", "Sep", PriceDays.EVERY, "20-22", "1", ""), REST), "peak and x"),
        ((REST, replace(REST, name="again")), "two lines"),
    ],
)
def test_gaps_and_overlaps_are_named(periods: tuple[RatePeriod, ...], words: str) -> None:
    with pytest.raises(BadGeometry, match=words):
        require_whole_periods(hourly_tariff(*periods))


@pytest.mark.parametrize(
    ("typed", "months"),
    [("", tuple(range(1, 13))), ("Nov-Feb", (1, 2, 11, 12)), ("3, jun-Aug", (3, 6, 7, 8))],
)
def test_months_are_read_and_written_back(typed: str, months: tuple[int, ...]) -> None:
    assert parse_months(typed, "Months") == months
    assert parse_months(write_months(months), "Months") == months


@pytest.mark.parametrize("hours", ["24-3", "5", "7-7", "noon", "6-25"])
def test_hours_that_cannot_be_are_refused(hours: str) -> None:
    with pytest.raises(NotUnderstood, match="Hours"):
        typed_period("p", "", PriceDays.EVERY, hours, "1", "")
    assert write_hours(typed_period("p", "", PriceDays.EVERY, "22-6", "1", "")) == "22-6"


def test_sample_tariffs_are_whole_three_a_family_and_priced_in_one_currency() -> None:
    by_family: dict[str, list[SampleTariff]] = {}
    for sample in sample_tariffs().values():
        require_whole_periods(sample.tariff)
        by_family.setdefault(sample.family.value, []).append(sample)
        assert sample.name.startswith("Sample")
    assert {f: len(found) for f, found in by_family.items()} == {
        "us": 3,
        "iec": 3,
        "uk": 3,
        "au-nz": 3,
    }
    for found in by_family.values():
        assert len({s.currency for s in found}) == 1
        # At least one of each kind: one price or tiers, and by the hour.
        assert {bool(s.tariff.periods) for s in found} == {True, False}


def test_a_feed_in_house_by_hand() -> None:
    # 300 kWh a month used, 400 made, all sold at 12.9 c; 30 and 31 days of 36 c; 19 % on what is bought.
    sold = sample_tariffs()["iec-sold"]
    rules = grid(
        sold.tariff, metering=sold.metering, export_cents_per_kwh=sold.export_cents_per_kwh
    )
    found = bills(rules, monthly([300.0] * 12), monthly([400.0] * 12)).months_cents()
    june = (30 * 36 + 300 * 27.5) * 1.19 - 400 * 12.9
    july = (31 * 36 + 300 * 27.5) * 1.19 - 400 * 12.9
    assert found[5:7] == (round(june), round(july))
