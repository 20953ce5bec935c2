"""What incentives come to on a price, in their order, and why one does not."""

from collections.abc import Iterable
from dataclasses import dataclass

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.money import (
    BaseKind,
    DateRule,
    Expected,
    Incentive,
    IncentiveId,
    IncentiveKind,
    Over,
    Owner,
    Payer,
)
from ridge_tally.core.money.cents import half_up
from ridge_tally.core.units import day_text

# What floating sums leave: a ratio of exactly the limit holds.
EPSILON = 1e-9


@dataclass(frozen=True, slots=True)
class Bought:
    """What incentives look at: prices in cents with tax, and the size."""

    gross_cents: int
    credit_cents: int
    rebate_cents: int
    dc_kw: float
    ac_kw: float


@dataclass(frozen=True, slots=True)
class Granted:
    """An incentive as it comes out.

    ``by_year_cents``: what arrives in which year, (year, cents).  ``base_cents`` it is worked out
    on.  ``refused`` in words where it does not come.
    """

    incentive: Incentive
    base_cents: int
    cents: int
    by_year: tuple[tuple[int, int], ...]
    told: str
    refused: str


def granted(
    incentives: tuple[Incentive, ...],
    bought: Bought,
    payer: Payer,
    expected: Expected,
) -> tuple[Granted, ...]:
    """Return what each incentive comes to; their order is what ``after-previous`` means.

    Notes
    -----
    A tax credit that is not refundable arrives as far as the year's tax goes and is carried
    forward after it.  Cash amounts are in whole cents.
    """
    found: list[Granted] = []
    for one in incentives:
        refused = _why_not(one, bought, payer, expected)
        base = _base_cents(one, bought, found)
        cents, told = (0, "") if refused else _amount(one, base, bought, payer)
        by_year = () if not cents else _by_year(one, cents, payer, expected.years)
        found.append(Granted(one, base, cents, by_year, told, refused))
    return tuple(found)


def arriving_cents(granted: Iterable[Granted]) -> dict[int, int]:
    """Return what arrives in which year, all together; year 0 lowers the purchase."""
    found: dict[int, int] = {}
    for g in granted:
        for year, cents in g.by_year:
            found[year] = found.get(year, 0) + cents
    return found


def require_sound_order(incentives: tuple[Incentive, ...]) -> None:
    """Raise BadGeometry where an incentive's base rests on itself or on one that comes later."""
    before: set[IncentiveId] = set()
    for one in incentives:
        for less in one.less:
            if less.id == one.id:
                raise BadGeometry(
                    f"Base of {one.name}", "it is less by itself", "Name another incentive."
                )
            if less.id not in before:
                raise BadGeometry(
                    f"Base of {one.name}",
                    "it is less by one that comes after it",
                    "Move that one above it.",
                )
        before.add(one.id)


def _why_not(  # noqa: PLR0911 - one return a reason
    one: Incentive, bought: Bought, payer: Payer, expected: Expected
) -> str:
    """Return why an incentive does not come, in words; empty where it does."""
    if not one.taken:
        return "put aside here"
    if one.owner is not None and one.owner is not payer.owner:
        who = "a company" if one.owner is Owner.COMPANY else "a household"
        return f"only for {who}"
    if one.kind is IncentiveKind.ALLOWANCE and payer.owner is Owner.HOUSEHOLD:
        return "a household writes nothing off"
    if one.kind is IncentiveKind.ALLOWANCE and payer.tax_frac <= 0:
        return "no tax rate of the company is given"
    if one.ends is not None:
        day = expected.contract if one.date_rule is DateRule.CONTRACT else expected.in_service
        what = "the contract" if one.date_rule is DateRule.CONTRACT else "going live"
        if day is None:
            return f"ends {day_text(one.ends)}: no day of {what} is given"
        if day > one.ends:
            return f"ended {day_text(one.ends)}, before {what} on {day_text(day)}"
    ratio = one.most_dc_ac_ratio
    if (
        ratio is not None
        and one.over is Over.REJECT
        and bought.dc_kw > ratio * bought.ac_kw + EPSILON
    ):
        now = bought.dc_kw / bought.ac_kw if bought.ac_kw else 0.0
        return f"DC over AC is {now * 100:.1f} %, above {ratio * 100:.0f} %"
    return ""


def _base_cents(one: Incentive, bought: Bought, before: list[Granted]) -> int:
    match one.base:
        case BaseKind.ELIGIBLE:
            counts = (
                bought.credit_cents if one.kind is IncentiveKind.CREDIT else bought.rebate_cents
            )
            base = float(counts)
        case BaseKind.AFTER_PREVIOUS:
            base = float(bought.gross_cents - sum(g.cents for g in before))
        case _:
            base = float(bought.gross_cents)
    taken = {g.incentive.id: g.cents for g in before}
    base -= sum(less.frac * taken.get(less.id, 0) for less in one.less)
    return max(0, half_up(base))


def _amount(one: Incentive, base: int, bought: Bought, payer: Payer) -> tuple[int, str]:
    """Return what comes, capped, and how."""
    match one.kind:
        case IncentiveKind.PER_KW:
            kw = bought.dc_kw
            if one.most_dc_ac_ratio is not None:
                kw = min(kw, one.most_dc_ac_ratio * bought.ac_kw)
            if one.most_kw is not None:
                kw = min(kw, one.most_kw)
            cents, told = kw * one.cents, f"{kw:.2f} kW of {bought.dc_kw:.2f}"
        case IncentiveKind.GRANT:
            cents, told = one.cents, "in all"
        case IncentiveKind.ALLOWANCE:
            cents = base * one.rate_frac * payer.tax_frac
            told = f"{one.rate_frac * 100:g} % written off, taxed {payer.tax_frac * 100:g} %"
        case _:
            cents, told = base * one.rate_frac, f"{one.rate_frac * 100:g} % of its base"
    whole = half_up(min(cents, base))
    if cents > base:
        told += ", no more than its base"
    if one.cap_cents is not None and whole > one.cap_cents:
        return one.cap_cents, f"{told}, at its cap"
    return whole, told


def _by_year(one: Incentive, cents: int, payer: Payer, years: int) -> tuple[tuple[int, int], ...]:
    carried = one.kind is IncentiveKind.CREDIT and not one.refundable
    if not carried or payer.tax_cents_per_year is None:
        return ((one.pays_in_year, cents),)
    found, left, year = [], cents, max(1, one.pays_in_year)
    while left > 0 and year <= years and payer.tax_cents_per_year > 0:
        part = min(left, payer.tax_cents_per_year)
        found.append((year, part))
        left, year = left - part, year + 1
    return tuple(found)
