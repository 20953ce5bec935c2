"""What an option is sold for: its priced list or the Brief's price a watt, and what incentives make of it."""

from dataclasses import dataclass

from ridge_tally.core.job.money import (
    BaseKind,
    Incentive,
    IncentiveId,
    IncentiveKind,
    Over,
)
from ridge_tally.core.money.cents import half_up
from ridge_tally.core.money.cost import Priced, priced
from ridge_tally.core.money.incentives import Bought, Granted, arriving_cents, granted
from ridge_tally.rules.build.sawing import Sawing
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.studies.money.costs import costed

GRID_REBATE = IncentiveId("grid-rebate")


@dataclass(frozen=True, slots=True)
class Quote:
    """What an option is sold for: the list where every line has a price, else the Brief's price a watt.

    ``told`` says which; ``by_list``.  ``bought`` is what incentives look at, 0 while nothing has a
    price; ``granted`` what comes of them.
    """

    priced: Priced
    bought: Bought
    by_list: bool
    told: str
    granted: tuple[Granted, ...]

    @property
    def gross_cents(self) -> int:
        """The price, tax with it."""
        return self.bought.gross_cents

    @property
    def now_cents(self) -> int:
        """The price less what lowers it at once."""
        return self.gross_cents - arriving_cents(self.granted).get(0, 0)

    @property
    def net_cents(self) -> int:
        """The price less all incentives, whenever they come."""
        return self.gross_cents - sum(g.cents for g in self.granted)

    @property
    def whole(self) -> bool:
        """Whether it is a price: no line of a list it is made of is without one."""
        return self.gross_cents > 0 and not (self.by_list and self.priced.unknown)


def quote_of(design: Design, sawings: tuple[Sawing, ...]) -> Quote:
    """Return what an option is sold for, its rails cut so."""
    money, target = design.job.money, design.job.brief.target
    list_ = priced(money, costed(design, sawings))
    dc_kw, ac_kw = dc_watts(design)[2] / 1000, design.p_ac_w / 1000
    many = len(list_.unknown)
    by_list = not many or target.price_cents_per_w is None
    if by_list or target.price_cents_per_w is None:
        bought = Bought(list_.gross_cents, list_.credit_cents, list_.rebate_cents, dc_kw, ac_kw)
        told = "by the list, line by line"
        if many:
            told += f"; without {many} that ha{'ve' if many > 1 else 's'} no price"
    else:
        gross = half_up(target.price_cents_per_w * dc_kw * 1000 + target.fixed_price_cents)
        bought = Bought(gross, gross, gross, dc_kw, ac_kw)
        told = f"by the Brief’s price a watt, as {many} line{'s have' if many > 1 else ' has'} no price yet"
    return Quote(
        list_, bought, by_list, told,
        granted(incentives_of(design), bought, money.payer, money.expected),
    )  # fmt: skip


def incentives_of(design: Design) -> tuple[Incentive, ...]:
    """Return the job's incentives, the grid's own rebate first where it pays anything."""
    grid = design.job.brief.grid
    rebate = None if grid is None else grid.rebate
    own = design.job.money.incentives
    if grid is None or rebate is None or not rebate.pays_cents_per_dc_w:
        return own
    first = Incentive(
        GRID_REBATE,
        rebate.name or "Rebate of the grid rules",
        IncentiveKind.PER_KW,
        cents=rebate.pays_cents_per_dc_w * 1000,
        base=BaseKind.GROSS,
        most_kw=rebate.most_dc_kw,
        most_dc_ac_ratio=rebate.most_dc_ac_ratio,
        over=Over.REJECT,
        pays_in_year=0,
        source=f"{grid.operator}, in the Brief",
    )
    return (first, *own)
