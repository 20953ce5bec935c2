"""Money as it is shown: the priced list, incentives, bills, years and worth, each with its working."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ridge_tally.core.brief.tariff import bill_cents
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.grid import GridRules, Metering
from ridge_tally.core.job.ids import BillId
from ridge_tally.core.job.money import (
    BaseKind,
    DateRule,
    IncentiveKind,
    LineKind,
    Over,
    Owner,
)
from ridge_tally.core.money.cents import half_up
from ridge_tally.core.money.cost import PricedLine
from ridge_tally.core.money.incentives import Granted
from ridge_tally.core.money.told import money_told
from ridge_tally.core.money.years import Borrowed, Worth, YearRow
from ridge_tally.core.nominal_year import MONTH_NAMES
from ridge_tally.core.number_format import spaced
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.need import need_of
from ridge_tally.studies.build.cuts import cuts_so_far
from ridge_tally.studies.money.costs import SAMPLE
from ridge_tally.studies.money.loads import LoadMoney, loads_money
from ridge_tally.studies.money.option_money import OptionMoney, option_money
from ridge_tally.studies.money.quote import GRID_REBATE, Quote, quote_of
from ridge_tally.views.money.fields import (
    MoneyFieldView,
    TariffView,
    money_fields,
    tariff_view,
)
from ridge_tally.views.money.offers import OfferView, offer_views
from ridge_tally.views.money.worked import (
    WorkedView,
    currency_of,
    worked_price,
    worked_rows,
    worked_worth,
)


@dataclass(frozen=True, slots=True)
class CostLineView:
    """A line of the priced list; ``typed``: its price is the firm's own, ``line_id`` of an own line."""

    name: str
    kind: LineKind
    count: float
    unit: str
    each_cents: float | None
    cost_cents: int | None
    price_cents: int | None
    tax_cents: int
    taxable: bool
    credit: bool
    rebate: bool
    origin: str
    typed: bool
    line_id: str


@dataclass(frozen=True, slots=True)
class PerWattView:
    """A price a watt, always named: gross or net, DC or AC."""

    name: str
    cents_per_w: float


@dataclass(frozen=True, slots=True)
class ArrivesView:
    """What arrives in a year."""

    year: int
    cents: int


@dataclass(frozen=True, slots=True)
class IncentiveView:
    """An incentive as typed, and what comes of it or why nothing does."""

    id: str
    name: str
    kind: IncentiveKind
    rate: str
    amount: str
    base: BaseKind
    less: str
    cap: str
    most_kw: str
    ratio: str
    over: Over
    owner: Owner | None
    refundable: bool
    ends: str
    date_rule: DateRule
    pays_in_year: int
    source: str
    taken: bool
    own: bool
    cents: int
    arrives: tuple[ArrivesView, ...]
    refused: str
    worked: WorkedView


@dataclass(frozen=True, slots=True)
class BillMonthView:
    """A month's two bills: without an array and with it."""

    month: str
    before_cents: int
    after_cents: int
    bought_kwh: float
    sent_kwh: float
    banked_kwh: float
    paid_cents: float


@dataclass(frozen=True, slots=True)
class TypedBillView:
    """A bill of the Brief against the tariff; ``told`` where they differ, and why that may be."""

    bill_id: BillId
    days: int
    energy_kwh: float
    cost_cents: int
    tariff_cents: int
    told: str


@dataclass(frozen=True, slots=True)
class MoneyView:
    """An option's money so far; what rests on its year comes later, or ``asked`` says what it wants.

    ``whole``: the price is one, no line is missing.  ``worked_price``, ``worked_worth`` and
    ``worked_rows``, one a year: the sums.
    """

    currency: str
    lines: tuple[CostLineView, ...]
    unknown: tuple[str, ...]
    cost_cents: int
    price_cents: int
    tax_cents: int
    gross_cents: int
    now_cents: int
    net_cents: int
    by_list: bool
    whole: bool
    price_told: str
    per_watt: tuple[PerWattView, ...]
    incentives: tuple[IncentiveView, ...]
    fields: tuple[MoneyFieldView, ...]
    tariff: TariffView | None
    typed_bills: tuple[TypedBillView, ...]
    months: tuple[BillMonthView, ...]
    rows: tuple[YearRow, ...]
    worth: Worth | None
    loan: Borrowed | None
    worked_price: tuple[WorkedView, ...]
    worked_worth: tuple[WorkedView, ...]
    worked_rows: tuple[WorkedView, ...]
    offers: tuple[OfferView, ...]
    loads: tuple[LoadMoney, ...]
    told: tuple[str, ...]
    caveats: tuple[str, ...]
    asked: str
    other_currency: str


def money_view(desk: Desk, design: Design) -> Iterator[MoneyView]:
    """Yield an option's price, then its bills and years once its hours are known."""
    for sawings in cuts_so_far(desk, design):
        quote = quote_of(design, sawings)
        yield _view(design, quote, None, "")
    try:
        money = option_money(desk, design)
    except RidgeTallyError as error:
        yield _view(design, quote, None, str(error))
        return
    yield _view(design, quote, money, "", tuple(loads_money(desk, design)))


def _view(
    design: Design,
    quote: Quote,
    money: OptionMoney | None,
    asked: str,
    loads: tuple[LoadMoney, ...] = (),
) -> MoneyView:
    job, grid = design.job, design.job.brief.grid
    currency, list_ = currency_of(job), quote.priced
    own = {line.name: line.id for line in job.money.lines}
    typed = {p.name for p in job.money.prices}
    typed_in = job.money.currency
    mixed = grid is not None and typed_in not in ("", grid.currency)
    # A list with holes has no payback to tell, nor has one in another currency than the bills.
    told = money if quote.whole and not mixed else None
    if mixed and grid is not None:
        asked = (
            f"The prices here were typed in {typed_in}, the grid rules are in {grid.currency}: nothing "
            "is converted. Type the prices anew and say so, or take grid rules of that currency."
        )
    elif money is not None and told is None:
        asked = (
            f"Payback is told once every line has a price: {len(list_.unknown)} have none yet, "
            f"{list_.unknown[0]} first. Or type a price a watt in the Brief."
        )
    return MoneyView(
        currency=currency,
        lines=tuple(_line(x, typed, own) for x in list_.lines),
        unknown=list_.unknown,
        cost_cents=list_.cost_cents,
        price_cents=list_.price_cents,
        tax_cents=list_.tax_cents,
        gross_cents=quote.gross_cents,
        now_cents=quote.now_cents,
        net_cents=quote.net_cents,
        by_list=quote.by_list,
        whole=quote.whole,
        price_told=quote.told,
        per_watt=_per_watt(quote),
        incentives=tuple(_incentive(g, currency) for g in quote.granted),
        fields=money_fields(job),
        tariff=None if grid is None else tariff_view(grid),
        typed_bills=_typed_bills(job),
        months=() if money is None else _months(money),
        rows=() if told is None else told.rows,
        worth=None if told is None else told.worth,
        loan=None if told is None else told.loan,
        worked_price=tuple(worked_price(job, quote)),
        worked_worth=() if told is None else tuple(worked_worth(job, told)),
        worked_rows=() if told is None else worked_rows(design, told),
        offers=offer_views(design, told, currency),
        loads=loads,
        told=_told(job, quote, told),
        caveats=_caveats(job, quote),
        asked=asked,
        other_currency=typed_in if mixed else "",
    )


def _line(line: PricedLine, typed: set[str], own: Mapping[str, str]) -> CostLineView:
    c = line.costed
    return CostLineView(
        c.name, c.kind, c.count, c.unit, c.each_cents, line.cost_cents, line.price_cents,
        line.tax_cents, line.taxable, line.credit, line.rebate, c.origin, c.name in typed,
        own.get(c.name, ""),
    )  # fmt: skip


def _per_watt(quote: Quote) -> tuple[PerWattView, ...]:
    found = []
    for kw, side in ((quote.bought.dc_kw, "DC"), (quote.bought.ac_kw, "AC")):
        if kw > 0:
            found += [
                PerWattView(f"gross, {side}", quote.gross_cents / kw / 1000),
                PerWattView(f"net of incentives, {side}", quote.net_cents / kw / 1000),
            ]
    return tuple(found)


def _incentive(g: Granted, currency: str) -> IncentiveView:
    i = g.incentive
    lines = [f"base {money_told(g.base_cents, currency)}"]
    if g.refused:
        lines.append(f"refused: {g.refused}")
    else:
        lines.append(f"{g.told}: {money_told(g.cents, currency)}")
    lines += [f"year {year}: {money_told(cents, currency)}" for year, cents in g.by_year]
    return IncentiveView(
        id=i.id,
        name=i.name,
        kind=i.kind,
        rate=f"{i.rate_frac * 100:g} %",
        amount=f"{i.cents / 100:.2f}",
        base=i.base,
        less=", ".join(f"{x.id} {x.frac * 100:g} %" for x in i.less),
        cap="" if i.cap_cents is None else f"{i.cap_cents / 100:.2f}",
        most_kw="" if i.most_kw is None else f"{i.most_kw:g}",
        ratio="" if i.most_dc_ac_ratio is None else f"{i.most_dc_ac_ratio * 100:.4g} %",
        over=i.over,
        owner=i.owner,
        refundable=i.refundable,
        ends="" if i.ends is None else i.ends.isoformat(),
        date_rule=i.date_rule,
        pays_in_year=i.pays_in_year,
        source=i.source,
        taken=i.taken,
        own=i.id != GRID_REBATE,
        cents=g.cents,
        arrives=tuple(ArrivesView(y, c) for y, c in g.by_year),
        refused=g.refused,
        worked=WorkedView(i.name, tuple(lines)),
    )


def _months(money: OptionMoney) -> tuple[BillMonthView, ...]:
    before, after = money.without.months_cents(), money.with_sun.months_cents()
    sun = money.with_sun
    return tuple(
        BillMonthView(
            MONTH_NAMES[m], before[m], after[m], float(sun.bought_kwh[m].sum()),
            float(sun.sent_kwh[m].sum()), float(sun.banked_kwh[m].sum()), float(sun.paid_cents[m]),
        )
        for m in range(12)
    )  # fmt: skip


def _typed_bills(job: Job) -> tuple[TypedBillView, ...]:
    """Return the Brief's bills that have both energy and cost, beside what the tariff makes of them."""
    grid = job.brief.grid
    if grid is None:
        return ()
    found = []
    for bill in need_of(job).bills:
        if bill.problem or bill.from_cost or bill.energy_kwh is None or bill.cost_cents is None:
            continue
        cents = half_up(bill_cents(grid.tariff, bill.energy_kwh, bill.days))
        told = ""
        if cents != bill.cost_cents:
            more = money_told(abs(cents - bill.cost_cents), grid.currency)
            told = f"the tariff asks {more} {'more' if cents > bill.cost_cents else 'less'}"
            if grid.tariff.periods:
                told += "; the bill does not say at which hours"
        found.append(
            TypedBillView(bill.id, bill.days, bill.energy_kwh, bill.cost_cents, cents, told)
        )
    return tuple(found)


def _told(job: Job, quote: Quote, money: OptionMoney | None) -> tuple[str, ...]:
    currency, unknown = currency_of(job), quote.priced.unknown
    if quote.by_list and unknown:
        so_far = money_told(quote.gross_cents, currency)
        many = f"{len(unknown)} lines have" if len(unknown) > 1 else f"{unknown[0]} has"
        return (f"So far the list comes to {so_far}: that is not the price yet, {many} none.",)
    cost = f"It costs {money_told(quote.gross_cents, currency)}"
    if quote.net_cents != quote.gross_cents:
        cost += f", {money_told(quote.net_cents, currency)} after incentives"
    found = [f"{cost} ({quote.told})."]
    if money is None:
        return tuple(found)
    first = money.rows[1]
    found.append(
        f"In the first year its {spaced(money.energy_kwh)} kWh spare "
        f"{money_told(first.saved_cents, currency)} of {money_told(first.before_cents, currency)}."
    )
    paid, years = money.worth.paid, job.money.expected.years
    if paid.lasting is None:
        found.append(f"It does not pay itself back within {years} years.")
    else:
        again = ""
        if paid.first is not None and paid.lasting - paid.first > 0.05:
            again = f" (a first time after {paid.first:.1f}, before the inverter is replaced)"
        found.append(
            f"By this estimate it has paid for itself after {paid.lasting:.1f} years{again}."
        )
    return tuple(found)


def _caveats(job: Job, quote: Quote) -> tuple[str, ...]:
    found = []
    grid: GridRules | None = job.brief.grid
    if any(x.costed.origin == SAMPLE for x in quote.priced.lines):
        found.append("Sample prices are invented: type the firm’s own before anybody signs")
    if grid is not None and grid.sample:
        found.append(f"The tariff is a sample: {grid.source}")
    if (
        grid is not None
        and grid.metering is Metering.ALL_SOLD
        and any(o.battery is not None for o in job.options)
    ):
        found.append("Where all is sold a battery is left out")
    if job.money.incentives:
        found.append("Incentives: check with an adviser")
    found.append("Rises of prices, ageing and the discount rate are expectations, not facts")
    return tuple(found)
