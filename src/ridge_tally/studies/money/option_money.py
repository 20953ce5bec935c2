"""An option's money whole: its price, incentives, bills, years and worth, from one engine."""

from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.array.stances import positions_of
from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.grid import GridRules
from ridge_tally.core.job.money import Expected, LineKind
from ridge_tally.core.loading.house import Sun
from ridge_tally.core.money.bills import YearBills
from ridge_tally.core.money.years import (
    AgedBills,
    Borrowed,
    Purchase,
    SunBills,
    Worth,
    YearRow,
    aged_frac,
    borrowed,
    worth_of,
    year_rows,
)
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.plant import losses_of
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.build.cuts import cuts_so_far
from ridge_tally.studies.loading.household import (
    SelfConsumption,
    house_of,
    lived_on,
    require_load,
    sun_of,
)
from ridge_tally.studies.money.house_bills import battery_billed, bills_with, bills_without
from ridge_tally.studies.money.quote import Quote, quote_of

# Years worked out whole; those between lie on lines.
WHOLE_AGES = 5


@dataclass(frozen=True, slots=True, eq=False)
class OptionMoney:
    """All of an option's money."""

    quote: Quote
    loan: Borrowed | None
    bills: SunBills
    rows: tuple[YearRow, ...]
    worth: Worth
    energy_kwh: float

    @property
    def without(self) -> YearBills:
        """The first year's bills without an array."""
        return self.bills.without

    @property
    def with_sun(self) -> YearBills:
        """The first year's bills with it."""
        return self.bills.ages[0].bills


def require_grid(design: Design) -> GridRules:
    """Return the job's grid rules; MissingDatum while none are chosen."""
    if design.job.brief.grid is None:
        raise MissingDatum(
            "tariff", "The Brief", "Choose sample grid rules there, or type your own."
        )
    return design.job.brief.grid


def option_money(desk: Desk, design: Design) -> OptionMoney:
    """Return an option's money.

    Raises
    ------
    MissingDatum
        While no use, tariff or price is known, or no module is in a string.
    """
    grid, load = require_grid(design), require_load(desk, design.job)
    year, house = hourly_year(desk, design), house_of(desk, design.job, load)
    return money_of(desk, design, grid, house, year)


def money_of(
    desk: Desk, design: Design, grid: GridRules, house: SelfConsumption, year: YearResult
) -> OptionMoney:
    """Return an option's money once its hours are known; MissingDatum where nothing has a price."""
    expected, job = expected_of(design), design.job
    *_, sawings = cuts_so_far(desk, design)
    quote = quote_of(design, sawings)
    if not quote.bought.dc_kw:
        raise MissingDatum(
            "module", "The option", "Lay modules first: nothing is there to pay back."
        )
    if not quote.gross_cents:
        raise MissingDatum(
            "price", "The option", "Type prices in the list here, or a price a watt in the Brief."
        )
    loan = None if job.money.loan is None else borrowed(job.money.loan, quote.now_cents)
    bills = SunBills(
        bills_without(desk, job, grid, house.load),
        tuple(aged_bills(design, grid, house, year, frac) for frac in ages_of(expected)),
    )
    purchase = Purchase(quote.gross_cents, renewed_cents(design, quote), quote.granted, loan)
    rows = year_rows(purchase, bills, expected)
    return OptionMoney(
        quote=quote,
        loan=loan,
        bills=bills,
        rows=rows,
        worth=worth_of(rows, expected),
        energy_kwh=year.energy_kwh,
    )


def expected_of(design: Design) -> Expected:
    """Return what the years are expected to bring, modules ageing as Loading's year has them.

    What changing the tilt of tables costs, so often as the design has it changed, is upkeep.
    """
    expected = design.job.money.expected
    changes = sum(
        len(seasons)
        for laid in design.arrays
        if laid.array.modules and len(seasons := positions_of(laid.array)) > 1
    )
    if changes and expected.tilt_change_cents:
        upkeep = expected.upkeep_cents + changes * expected.tilt_change_cents
        expected = replace(expected, upkeep_cents=upkeep)
    if expected.ageing_frac is not None:
        return expected
    return replace(expected, ageing_frac=losses_of(design.module).yearly_frac)


def renewed_cents(design: Design, quote: Quote) -> int:
    """Return what replacing the inverters costs: as typed, else today's price of them."""
    typed = design.job.money.expected.inverter_cents
    if typed is not None:
        return typed
    lines = (x for x in quote.priced.lines if x.costed.kind is LineKind.INVERTERS)
    return sum((x.price_cents or 0) + x.tax_cents for x in lines)


def ages_of(expected: Expected) -> tuple[float, ...]:
    """Return the ages at which the bills are worked out whole, new first."""
    years = sorted({1 + (expected.years - 1) * n // (WHOLE_AGES - 1) for n in range(WHOLE_AGES)})
    return tuple(aged_frac(expected, y) for y in years)


def aged_bills(
    design: Design, grid: GridRules, house: SelfConsumption, year: YearResult, frac: float
) -> AgedBills:
    """Return a year of an array that gives a share of what it gave new.

    The meter gets so much less as the inverters give less.
    """
    new = sun_of(year)
    sun = aged_sun(new, frac)
    energy = year.energy_kwh - kwh_of(new.made_w - sun.made_w, new.hours)
    lived = lived_on(design, house, sun, battery_billed(design))
    return AgedBills(frac, energy, bills_with(design.job, grid, lived))


def aged_sun(sun: Sun, frac: float) -> Sun:
    """Return what inverters give of an array that makes a share of what it did; night draw stays.

    What the rating cut off goes first: a weaker array meets it less, a stronger one more.
    """
    if frac == 1.0:
        return sun
    there = frac * (np.maximum(sun.made_w, 0.0) + sun.clipped_w)
    # Where it is cut off it is held where it was held; elsewhere the rating is the most.
    most = np.where(sun.clipped_w > 0, sun.made_w, np.maximum(sun.made_w, sun.limit_w))
    made = np.where(sun.made_w > 0, np.minimum(there, most), sun.made_w)
    clipped = np.where(sun.made_w > 0, np.maximum(0.0, there - made), 0.0)
    held = None if sun.held_within_w is None else frac * sun.held_within_w
    return replace(sun, made_w=made, clipped_w=clipped, held_within_w=held)
