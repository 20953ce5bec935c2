"""The sums behind the figures of Money, line by line in words."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.grid import small_unit
from ridge_tally.core.job.money import PriceRule
from ridge_tally.core.money.told import money_told
from ridge_tally.core.money.years import YearRow, aged_frac
from ridge_tally.core.number_format import spaced
from ridge_tally.rules.design import Design
from ridge_tally.studies.money.option_money import OptionMoney, expected_of
from ridge_tally.studies.money.quote import Quote


@dataclass(frozen=True, slots=True)
class WorkedView:
    """A figure with its sum, line by line in words."""

    name: str
    lines: tuple[str, ...]


def currency_of(job: Job) -> str:
    """Return the job's currency; empty where no grid rules say."""
    return "" if job.brief.grid is None else job.brief.grid.currency


def worked_price(job: Job, quote: Quote) -> Iterator[WorkedView]:
    """Yield how the price comes about."""
    currency, list_, size = currency_of(job), quote.priced, quote.bought

    def m(cents: float) -> str:
        return money_told(cents, currency)

    if quote.by_list:
        x = job.money.rule_frac * 100
        how = (
            f"cost × (1 + {x:g} %)"
            if job.money.rule is PriceRule.MARKUP
            else f"cost ÷ (1 − {x:g} %)"
        )
        yield WorkedView(
            "Price",
            (
                f"{how}, each line in whole {small_unit(currency)}",
                f"{m(list_.price_cents)} for a cost of {m(list_.cost_cents)}",
                f"sales tax {m(list_.tax_cents)}",
                f"together {m(quote.gross_cents)}",
            ),
        )
    else:
        target = job.brief.target
        yield WorkedView(
            "Price",
            (
                f"{m(target.price_cents_per_w or 0)} a watt × {size.dc_kw * 1000:,.0f} W "
                f"+ {m(target.fixed_price_cents)} = {m(quote.gross_cents)}".replace(",", " "),
                quote.told,
            ),
        )
    yield WorkedView(
        "Price a watt",
        tuple(
            f"{name}: {m(cents)} ÷ {kw * 1000:,.0f} W = {m(cents / kw / 1000)}".replace(",", " ")
            for name, cents, kw in (
                ("gross, DC", quote.gross_cents, size.dc_kw),
                ("net, DC", quote.net_cents, size.dc_kw),
                ("gross, AC", quote.gross_cents, size.ac_kw),
                ("net, AC", quote.net_cents, size.ac_kw),
            )
            if kw > 0
        ),
    )


def worked_worth(job: Job, money: OptionMoney) -> Iterator[WorkedView]:
    """Yield how what the years come to is worked out."""
    currency, expected, worth = currency_of(job), job.money.expected, money.worth

    def m(cents: float) -> str:
        return money_told(cents, currency)

    first = money.rows[1]
    yield WorkedView(
        "Saved in year 1",
        (
            f"bills without {m(first.before_cents)} − bills with {m(first.after_cents)} "
            f"= {m(first.saved_cents)}",
            "the same tariff on both, hour by hour",
        ),
    )
    paid = worth.paid.lasting
    if paid is not None and paid > 0:
        year = min(int(paid), len(money.rows) - 2)
        at, after = money.rows[year], money.rows[year + 1]
        yield WorkedView(
            "Paid back",
            (
                f"year {year}: {m(at.running_cents)}; year {year + 1}: {m(after.running_cents)}",
                f"{year} + {m(-at.running_cents)} ÷ {m(after.net_cents)} = {paid:.1f} years",
            ),
        )
    rate = f"{expected.discount_frac * 100:g} %"
    yield WorkedView(
        "Worth today",
        (
            f"each year’s sum ÷ (1 + {rate}) as often as years have passed",
            f"{m(money.rows[0].net_cents)} + … = {m(worth.npv_cents)}",
        ),
    )
    if worth.kwh_cents is not None:
        yield WorkedView(
            "Cost of a kWh",
            (
                f"all costs less incentives, at {rate}, over all kWh, at {rate}: "
                f"{worth.kwh_cents:.2f} {small_unit(currency)}",
            ),
        )
    if money.loan is not None and job.money.loan is not None:
        loan, terms = money.loan, job.money.loan
        yield WorkedView(
            "Loan",
            (
                f"{terms.share_frac * 100:g} % of {m(money.quote.now_cents)}"
                + (
                    f" and a fee of {m(loan.owed_cents - loan.taken_cents)}"
                    if terms.fee_frac
                    else ""
                )
                + f" = {m(loan.owed_cents)}",
                f"{terms.rate_frac * 100:g} % over {terms.years} years: {m(loan.monthly_cents)} a month",
                f"interest and fee in all {m(loan.interest_cents)}",
            ),
        )


def worked_rows(design: Design, money: OptionMoney) -> tuple[WorkedView, ...]:
    """Return how each row of the table is worked out, year 0 first."""
    return tuple(
        WorkedView(f"Year {row.year}", tuple(_worked_row(design, money, row))) for row in money.rows
    )


def _worked_row(design: Design, money: OptionMoney, row: YearRow) -> Iterator[str]:
    currency, expected = currency_of(design.job), expected_of(design)
    n, before = row.year, money.rows[row.year - 1]

    def m(cents: float) -> str:
        return money_told(cents, currency)

    def risen(name: str, rise: float) -> str:
        return f"{name} × (1 + {rise * 100:g} %)^{n - 1}"

    if n == 0:
        yield f"price {m(row.price_cents)}"
        yield from _arriving(money, n, currency)
        if row.loan_cents:
            yield f"lent {m(-row.loan_cents)}"
        yield f"net {m(row.net_cents)}"
        return
    aged = aged_frac(expected, n)
    yield (
        f"{spaced(row.energy_kwh)} kWh: modules at {aged * 100:.1f} % of new, what the rating cut off "
        "first"
    )
    rises = "; ".join(
        (
            risen("prices of energy", expected.energy_rise_frac),
            risen("fixed", expected.fixed_rise_frac),
            risen("of export", expected.export_rise_frac),
        )
    )
    yield f"bills without {m(row.before_cents)}, with {m(row.after_cents)}: twelve months each, {rises}"
    yield f"saved {m(row.before_cents)} − {m(row.after_cents)} = {m(row.saved_cents)}"
    if row.upkeep_cents:
        yield f"upkeep {risen(m(expected.upkeep_cents), expected.upkeep_rise_frac)} = {m(row.upkeep_cents)}"
    if row.inverter_cents:
        yield f"inverter replaced {m(row.inverter_cents)}"
    yield from _arriving(money, n, currency)
    if row.loan_cents:
        yield f"loan, twelve months: {m(row.loan_cents)}"
    spent = row.upkeep_cents + row.inverter_cents + row.loan_cents
    yield (
        f"net {m(row.saved_cents)} − {m(spent)} + {m(row.incentives_cents)} = {m(row.net_cents)}"
    )
    yield f"running {m(before.running_cents)} + {m(row.net_cents)} = {m(row.running_cents)}"
    yield (
        f"at today’s worth {m(before.discounted_cents)} + {m(row.net_cents)} ÷ "
        f"(1 + {expected.discount_frac * 100:g} %)^{n} = {m(row.discounted_cents)}"
    )


def _arriving(money: OptionMoney, year: int, currency: str) -> Iterator[str]:
    for g in money.quote.granted:
        cents = sum(cents for at, cents in g.by_year if at == year)
        if cents:
            yield f"{g.incentive.name} {money_told(cents, currency)}"
