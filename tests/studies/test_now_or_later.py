"""Now or later, and the moves that are not of the strings: whole runs, hand sums, what ends in between."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from jobs import FULL, SHELF, WORKED_OUT, option_a
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.grid import Metering, RateTier, Tariff, TariffPeriod
from ridge_tally.core.job.money import Expected
from ridge_tally.core.money.bills import MeterYear, YearBills, year_bills
from ridge_tally.core.money.stages import Stage, staged_flows
from ridge_tally.core.money.years import AgedBills, SunBills
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.editing.design import design_for
from ridge_tally.simulation.remembered import Remembered
from ridge_tally.studies.money import moves
from ridge_tally.studies.money.changes import changes_of, tariffs_of
from ridge_tally.studies.money.later import LaterPlan, NowOrLater, now_or_later
from ridge_tally.studies.money.option_money import expected_of, option_money
from shelves import small_shelf

DESK = replace(WORKED_OUT, samples=small_shelf(SHELF), own=Remembered(1))


def told(job: Job) -> NowOrLater:
    *_, found = now_or_later(DESK, design_for(job, option_a(job)))
    return found


def first_two(job: Job) -> tuple[LaterPlan, ...]:
    steps = now_or_later(DESK, design_for(job, option_a(job)))
    return next(step.plans for step in steps if len(step.plans) == 2)


def expecting(job: Job, **what: object) -> Job:
    return replace(job, money=replace(job.money, expected=replace(job.money.expected, **what)))


def _bought(kwh_a_month: float) -> YearBills:
    """Bills at 20 cents, 9.00 a month and a tenth of tax: 75.90 a month for 300 kWh."""
    tariff = Tariff(TariffPeriod.BILL, 900.0, 0.0, (RateTier(None, 20.0),), 0.1)
    assert FULL.brief.grid is not None
    rules = replace(FULL.brief.grid, tariff=tariff, metering=Metering.NET_BILLING)
    # Every month the same, whatever its days.
    days = np.repeat([31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31], 24 * np.array(
        [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]))  # fmt: skip
    return year_bills(rules, MeterYear(kwh_a_month / (days * 24.0), np.zeros(8760)))


def test_stages_by_hand() -> None:
    """300 kWh a month of which 100, then 200 are the sun's: 22.00, then 44.00 spared a month."""
    without = _bought(300)
    first, both = (SunBills(without, (AgedBills(1.0, 1200.0, _bought(kwh)),)) for kwh in (200, 100))
    expected = Expected(
        years=5, energy_rise_frac=0, fixed_rise_frac=0, ageing_frac=0, upkeep_cents=1000,
        upkeep_rise_frac=0, inverter_year=4,
    )  # fmt: skip
    stages = (
        Stage(0, 100_000, {}, 10_000, first),
        Stage(2, 60_000, {1: 5000}, 4000, both),
    )
    assert staged_flows(stages, expected) == (
        -100_000, 25_400, 25_400 - 60_000, 51_800 + 5000, 51_800 - 10_000, 51_800,
    )  # fmt: skip
    # Bought a year later: nothing is spared in the first, its inverter is due a year later.
    late = (replace(stages[0], at=1),)
    assert staged_flows(late, expected) == (0, -100_000, 25_400, 25_400, 25_400, 15_400)


def test_today_is_moneys_own_worth_and_a_stage_costs_the_difference_and_the_way() -> None:
    job = kiln_yard(SHELF)
    design = design_for(job, option_a(job))
    found, now = told(job), option_money(DESK, design)
    by_title = {p.title: p for p in found.plans}
    drawn = found.plans[0]
    assert (drawn.npv_cents, drawn.years) == (now.worth.npv_cents, now.worth.paid.lasting)
    assert found.plans[1].npv_cents < drawn.npv_cents
    whole, staged = by_title["All 27 modules today"], by_title["As drawn today, 3 more in year 3"]
    again = sum(
        (x.price_cents or 0) + x.tax_cents
        for x in now.quote.priced.lines
        if x.costed.kind.value in ("permits", "travel") or x.costed.name == "Work each job takes"
    )
    assert staged.paid[0].price_cents == drawn.paid[0].price_cents
    assert staged.paid[1].year == 3
    assert staged.paid[1].price_cents == pytest.approx(
        whole.paid[0].price_cents - drawn.paid[0].price_cents + again, abs=1
    )
    # One that ends with limits broken says so; a bigger inverter is hung on the first day.
    bigger = by_title["The bigger inverter today, 3 more in year 3"]
    assert bigger.sound
    assert "10.0 kW" in bigger.paid[0].what
    assert "kW" not in bigger.paid[1].what


def test_prices_that_fall_and_incentives_that_end_meet_in_the_later_year() -> None:
    whole = FULL.money.incentives
    assert whole
    ends = tuple(replace(i, ends=date(2027, 12, 31)) for i in whole)
    job = expecting(
        replace(FULL, money=replace(FULL.money, incentives=ends)),
        in_service=date(2027, 6, 1), price_change_frac=-0.1,
    )  # fmt: skip
    today, later = first_two(job)
    assert today.paid[0].incentives_cents > 0
    assert later.paid[0].incentives_cents == 0
    assert later.paid[0].price_cents == round(today.paid[0].price_cents * 0.9)
    on_its_last_day = expecting(job, in_service=date(2026, 12, 31))
    assert first_two(on_its_last_day)[1].paid[0].incentives_cents > 0


def test_tilts_batteries_and_tariffs_are_weighed_too() -> None:
    job = expecting(kiln_yard(SHELF), tilt_change_cents=15_00)
    design = design_for(job, option_a(job))
    changes = {c.title: c for c in changes_of(DESK, design)}
    tilted = next(c for t, c in changes.items() if c.work.startswith("2 changes"))
    assert tilted.edit is not None
    after = design_for(tilted.job, option_a(tilted.job))
    # Twice a year at 15.00 beside the upkeep there is.
    upkeep = expected_of(design).upkeep_cents
    assert expected_of(after).upkeep_cents == upkeep + 3000
    assert present_ids(after.option) == present_ids(design.option)
    assert {"Battery of 5 kWh on the AC side", "Battery of 10 kWh on the DC side"} <= set(changes)
    tariffs = [c for t, c in changes.items() if t.startswith("Tariff: ")]
    assert len(tariffs) >= 2
    assert all(c.edit is None and c.job.brief.grid != job.brief.grid for c in tariffs)
    trimmed = next(c for t, c in changes.items() if "trimmed by" in t)
    assert trimmed.job.survey.shade_sources != job.survey.shade_sources
    held = replace(
        job, options=(replace(option_a(job), battery=Battery(Coupling.DC, 10.0, 5.0, 400_000)),)
    )
    with_one = {c.title for c in changes_of(DESK, design_for(held, option_a(held)))}
    assert {"Without the battery", "The battery on the AC side"} <= with_one


def test_another_tariff_is_told_by_all_the_house_pays(monkeypatch) -> None:
    """A dearer tariff makes an array worth more and the house poorer: the move must say the latter."""
    design = design_for(FULL, option_a(FULL))
    now, rate = option_money(DESK, design), 1 + FULL.money.expected.discount_frac
    (change, *_) = tariffs_of(DESK, design)
    monkeypatch.setattr(moves, "changes_of", lambda *_: [change])
    *_, found = moves.next_moves(DESK, design)
    (move,) = found.moves
    then = option_money(DESK, design_for(change.job, option_a(change.job)))
    assert move.saved_cents == now.rows[1].after_cents - then.rows[1].after_cents
    paid = sum(
        (a.after_cents - b.after_cents) / rate**a.year
        for a, b in zip(now.rows, then.rows, strict=True)
    )
    assert move.npv_cents == pytest.approx(paid, abs=2)
