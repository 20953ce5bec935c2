"""How sure an option's money is: each unknown alone, low and high; then all at once, drawn many times."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.money.incentives import arriving_cents, granted
from ridge_tally.core.money.sure import (
    PricePoints,
    Unknowns,
    flows_cents,
    paid_years,
    worth_today_cents,
)
from ridge_tally.core.money.years import SunBills, borrowed
from ridge_tally.rules.design import Design
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.loading.household import house_of, require_load
from ridge_tally.studies.money.house_bills import bills_without
from ridge_tally.studies.money.option_money import (
    aged_bills,
    ages_of,
    expected_of,
    money_of,
    renewed_cents,
    require_grid,
)
from ridge_tally.studies.money.quote import Quote, incentives_of

DRAWS, SEED = 2000, 20260101
# Shares of today's yield at which bills are worked out whole.
WHOLE_FRACS = (1.25, 1.1, 1.0, 0.9, 0.8, 0.7)
PRICE_FRACS = tuple(np.linspace(0.6, 1.5, 19).round(3).tolist())


@dataclass(frozen=True, slots=True)
class OneUnknown:
    """An unknown by itself: how it is told, and what the purchase is worth at its low and its high end."""

    name: str
    low: str
    high: str
    low_npv_cents: int
    high_npv_cents: int
    low_years: float | None
    high_years: float | None


@dataclass(frozen=True, slots=True)
class Band:
    """A figure in one of ten draws below, at the middle, and in one of ten above."""

    low: float | None
    middle: float | None
    high: float | None


@dataclass(frozen=True, slots=True)
class HowSure:
    """The tornado, widest first, from what is expected; then the band of all draws together.

    ``never_frac``: of the draws that do not pay themselves back within the table.
    """

    npv_cents: int
    years: float | None
    unknowns: tuple[OneUnknown, ...]
    draws: int
    npv: Band
    paid: Band
    never_frac: float
    told: tuple[str, ...]


def how_sure(desk: Desk, design: Design) -> Iterator[HowSure]:
    """Yield how sure an option's money is.

    Notes
    -----
    Draws are normal about what is expected, the ends of the bars being one in ten and nine in ten;
    the numbers are the same every time.  How far each may lie off is practice, no source.

    Raises
    ------
    MissingDatum
        As ``option_money`` does.
    """
    grid, load = require_grid(design), require_load(desk, design.job)
    year, house = hourly_year(desk, design), house_of(desk, design.job, load)
    whole, expected = money_of(desk, design, grid, house, year), expected_of(design)
    ages = ages_of(expected)
    fracs = sorted({*WHOLE_FRACS, *ages, WHOLE_FRACS[-1] * ages[-1]}, reverse=True)
    bills = SunBills(
        bills_without(desk, design.job, grid, load),
        tuple(aged_bills(design, grid, house, year, f) for f in fracs),
    )
    points, renewed = _points(design, whole.quote), renewed_cents(design, whole.quote)

    def worth(unknowns: Unknowns) -> tuple[np.ndarray, np.ndarray]:
        flows = flows_cents(bills, points, renewed, expected, unknowns)
        return worth_today_cents(flows, expected.discount_frac), paid_years(flows)

    base = Unknowns.expected(1)
    spreads = (
        ("Yield of the year", "yield_frac", practice(Practice.YIELD_OFF_FRAC), 1.0),
        ("Price asked", "price_frac", practice(Practice.PRICE_OFF_FRAC), 1.0),
        ("Energy prices rise", "energy_rise_add", practice(Practice.RISE_OFF_FRAC), 0.0),
        ("Replacing the inverter", "replaced_frac", practice(Practice.REPLACED_OFF_FRAC), 1.0),
    )
    found = []
    for name, field, off, middle in spreads:
        ends = [worth(replace(base, **{field: np.array([middle + s * off])})) for s in (-1, 1)]
        told = _ends(field, middle, off, expected.energy_rise_frac)
        found.append(
            OneUnknown(
                name, *told, round(float(ends[0][0][0])), round(float(ends[1][0][0])),
                _years(ends[0][1][0]), _years(ends[1][1][0]),
            )
        )  # fmt: skip
    random = np.random.default_rng(SEED)
    # One draw in ten lies beyond 1.2816 deviations either way.
    drawn = {
        field: middle + random.standard_normal(DRAWS) * off / 1.2816
        for _, field, off, middle in spreads
    }
    npvs, years = worth(Unknowns(**drawn))
    never = float(np.isinf(years).mean())
    yield HowSure(
        npv_cents=whole.worth.npv_cents,
        years=whole.worth.paid.lasting,
        unknowns=tuple(sorted(found, key=lambda u: -abs(u.high_npv_cents - u.low_npv_cents))),
        draws=DRAWS,
        npv=_band(npvs),
        paid=_band(years),
        never_frac=never,
        told=(
            f"{DRAWS} draws of all four at once, normal, each one in ten beyond either end; the same "
            "numbers every time",
            "How far each may lie off: common practice, no source",
        ),
    )


def _points(design: Design, quote: Quote) -> PricePoints:
    """Return what price, loan and incentives bring each year at prices around the one asked."""
    money, years = design.job.money, design.job.money.expected.years
    rows = []
    for frac in PRICE_FRACS:
        asked = quote.bought
        bought = replace(
            asked,
            gross_cents=round(frac * asked.gross_cents),
            credit_cents=round(frac * asked.credit_cents),
            rebate_cents=round(frac * asked.rebate_cents),
        )
        by_year = np.zeros(years + 1)
        by_year[0] = -bought.gross_cents
        comes = granted(incentives_of(design), bought, money.payer, money.expected)
        for year, cents in arriving_cents(comes).items():
            if year <= years:
                by_year[year] += cents
        if money.loan is not None:
            loan = borrowed(money.loan, round(-by_year[0]))
            by_year[0] += loan.taken_cents
            for year, cents in enumerate(loan.by_year_cents[:years], start=1):
                by_year[year] -= cents
        rows.append(by_year)
    return PricePoints(np.array(PRICE_FRACS), np.array(rows))


def _ends(field: str, middle: float, off: float, rise: float) -> tuple[str, str]:
    if field == "energy_rise_add":
        return f"{(rise - off) * 100:g} % a year", f"{(rise + off) * 100:g} % a year"
    return f"{(middle - off) * 100:g} %", f"{(middle + off) * 100:g} %"


def _years(value: float) -> float | None:
    return None if np.isinf(value) else float(value)


def _band(values: np.ndarray) -> Band:
    low, middle, high = np.quantile(values, (0.1, 0.5, 0.9), method="lower")
    return Band(_years(low), _years(middle), _years(high))
