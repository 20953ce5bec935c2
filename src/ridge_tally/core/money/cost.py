"""From what things cost to what is asked for them: markup or margin, tax, what counts for what."""

from dataclasses import dataclass

from ridge_tally.core.job.money import LineKind, Money, PriceRule, counted_of
from ridge_tally.core.money.cents import half_up


@dataclass(frozen=True, slots=True)
class Costed:
    """So many of a thing: what one costs the firm, ``None`` while nobody knows; ``origin`` in words."""

    name: str
    kind: LineKind
    count: float
    unit: str
    each_cents: float | None
    origin: str


@dataclass(frozen=True, slots=True)
class PricedLine:
    """A line of the list in whole cents; ``None`` where its cost is not known."""

    costed: Costed
    cost_cents: int | None
    price_cents: int | None
    tax_cents: int
    taxable: bool
    credit: bool
    rebate: bool


@dataclass(frozen=True, slots=True)
class Priced:
    """The list with its sums; ``gross_cents``: everything, tax too.

    ``unknown`` names lines without a cost: they are not in the sums.
    """

    lines: tuple[PricedLine, ...]
    cost_cents: int
    price_cents: int
    tax_cents: int
    gross_cents: int
    credit_cents: int
    rebate_cents: int
    unknown: tuple[str, ...]


def priced(money: Money, costed: tuple[Costed, ...]) -> Priced:
    """Return costs as prices, line by line.

    Notes
    -----
    markup: price = cost * (1 + x); margin: price = cost / (1 - x); they differ.  Each line is
    rounded to whole cents, so that the lines come to the sum.
    """
    lines = tuple(_line(money, c) for c in costed if c.count)
    known = [x for x in lines if x.price_cents is not None]

    def whole(chosen: list[PricedLine]) -> int:
        return sum((x.price_cents or 0) + x.tax_cents for x in chosen)

    return Priced(
        lines=lines,
        cost_cents=sum(x.cost_cents or 0 for x in known),
        price_cents=sum(x.price_cents or 0 for x in known),
        tax_cents=sum(x.tax_cents for x in known),
        gross_cents=whole(known),
        credit_cents=whole([x for x in known if x.credit]),
        rebate_cents=whole([x for x in known if x.rebate]),
        unknown=tuple(x.costed.name for x in lines if x.price_cents is None),
    )


def _asked_frac(money: Money) -> float:
    """Return a price over its cost."""
    x = money.rule_frac
    return 1 + x if money.rule is PriceRule.MARKUP else 1 / (1 - x)


def _line(money: Money, costed: Costed) -> PricedLine:
    counts = counted_of(money, costed.kind)
    if costed.each_cents is None:
        return PricedLine(costed, None, None, 0, counts.taxable, counts.credit, counts.rebate)
    cost = half_up(costed.count * costed.each_cents)
    price = half_up(costed.count * costed.each_cents * _asked_frac(money))
    tax = half_up(price * money.sales_tax_frac) if counts.taxable else 0
    return PricedLine(costed, cost, price, tax, counts.taxable, counts.credit, counts.rebate)
