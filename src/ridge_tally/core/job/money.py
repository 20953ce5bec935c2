"""What a firm charges and a household pays, as given: prices, work, incentives, loan, what is expected."""

from dataclasses import dataclass, field
from datetime import date
from enum import StrEnum
from typing import NewType

from ridge_tally.core.job.ids import LoadId

IncentiveId = NewType("IncentiveId", str)
LineId = NewType("LineId", str)
OfferId = NewType("OfferId", str)


class LineKind(StrEnum):
    """What a line of the priced list is for."""

    MODULES = "modules"
    INVERTERS = "inverters"
    ELECTRONICS = "electronics"
    BATTERY = "battery"
    RACKING = "racking"
    WIRING = "wiring"
    LABOUR = "labour"
    PERMITS = "permits"
    FREIGHT = "freight"
    TRAVEL = "travel"
    OTHER = "other"


class PriceRule(StrEnum):
    """How a price comes from a cost: so much on top, or so much of the price is the firm's."""

    MARKUP = "markup"
    MARGIN = "margin"


@dataclass(frozen=True, slots=True)
class OwnPrice:
    """The firm's price of a line of the list by its name, cents each; a sheet's own where none is."""

    name: str
    cents: float


@dataclass(frozen=True, slots=True)
class OwnLine:
    """A line the design does not bring by itself."""

    id: LineId
    name: str
    kind: LineKind
    count: float
    cents: float


@dataclass(frozen=True, slots=True)
class Counted:
    """Whether lines of a kind bear sales tax, and count for a credit and for a rebate."""

    kind: LineKind
    taxable: bool
    credit: bool
    rebate: bool


@dataclass(frozen=True, slots=True)
class Work:
    """Hours of one person beside those of the racking's crew, and what an hour costs the firm.

    Each for all electrical work of so many kW and for each job; estimates until typed.
    """

    cents_per_h: float | None = None
    electrical_h_per_kw: float = 2.0
    each_job_h: float = 8.0


class IncentiveKind(StrEnum):
    """What is paid: a share of the cost, a tax credit, so much a kW, a sum, or tax on a first-year allowance."""

    SHARE = "share"
    CREDIT = "credit"
    PER_KW = "per-kw"
    GRANT = "grant"
    ALLOWANCE = "allowance"


class BaseKind(StrEnum):
    """What a share is of: the price, the price after what stands before it, or the lines that count."""

    GROSS = "gross"
    AFTER_PREVIOUS = "after-previous"
    ELIGIBLE = "eligible"


class Over(StrEnum):
    """Above the loading ratio: paid up to it, or not at all."""

    CAP = "cap"
    REJECT = "reject"


class Owner(StrEnum):
    """Who owns the array."""

    HOUSEHOLD = "household"
    COMPANY = "company"


class DateRule(StrEnum):
    """Which day an end date looks at."""

    IN_SERVICE = "in-service"
    CONTRACT = "contract"


@dataclass(frozen=True, slots=True)
class Less:
    """What another incentive takes from a base: so much of it."""

    id: IncentiveId
    frac: float = 1.0


@dataclass(frozen=True, slots=True)
class Incentive:
    """An incentive as data.

    ``rate_frac`` of its base, or ``cents`` for each kW or in all.  An allowance deducts
    ``rate_frac`` of its base from what is taxed.  ``pays_in_year`` 0 lowers the purchase.
    Of more than ``most_kw`` no more is paid.
    ``ends`` is the last day it holds.  ``taken``: a person has not put it aside.
    """

    id: IncentiveId
    name: str
    kind: IncentiveKind
    rate_frac: float = 0.0
    cents: float = 0.0
    base: BaseKind = BaseKind.AFTER_PREVIOUS
    less: tuple[Less, ...] = ()
    cap_cents: int | None = None
    most_kw: float | None = None
    most_dc_ac_ratio: float | None = None
    over: Over = Over.REJECT
    owner: Owner | None = None
    refundable: bool = True
    ends: date | None = None
    date_rule: DateRule = DateRule.IN_SERVICE
    pays_in_year: int = 1
    source: str = ""
    taken: bool = True


@dataclass(frozen=True, slots=True)
class Loan:
    """``share_frac`` of the price after what lowers it; ``fee_frac`` of that is added to what is owed."""

    share_frac: float
    rate_frac: float
    years: int
    fee_frac: float = 0.0


@dataclass(frozen=True, slots=True)
class Expected:
    """What the years are expected to bring; all of it an estimate.

    ``ageing_frac``: what modules lose a year, ``None`` as the year reckons it.  ``inverter_cents``: ``None`` for today's price of the
    inverters.  ``contract`` and ``in_service``: days the end of an incentive looks at.
    ``price_change_frac``: what arrays cost more each year, negative where less; ``stage_year``: when
    the rest of a roof would be built; ``tilt_change_cents``: each time a table's tilt is changed.
    """

    years: int = 25
    discount_frac: float = 0.04
    energy_rise_frac: float = 0.025
    fixed_rise_frac: float = 0.02
    export_rise_frac: float = 0.0
    ageing_frac: float | None = None
    upkeep_cents: int = 0
    upkeep_rise_frac: float = 0.02
    inverter_year: int = 13
    inverter_cents: int | None = None
    contract: date | None = None
    in_service: date | None = None
    price_change_frac: float = 0.0
    stage_year: int = 3
    tilt_change_cents: int = 0


@dataclass(frozen=True, slots=True)
class Payer:
    """Who pays, and what tax they owe in a year that a credit can be set against; ``None``: enough."""

    owner: Owner = Owner.HOUSEHOLD
    tax_frac: float = 0.0
    tax_cents_per_year: int | None = None


@dataclass(frozen=True, slots=True)
class FuelPrice:
    """What a unit of the fuel costs that a load to come displaces."""

    load_id: LoadId
    cents: float


@dataclass(frozen=True, slots=True)
class Offer:
    """Another firm's offer as its paper has it; ``None`` where the paper is silent.

    ``free_modules``: those among ``modules`` that it calls a gift.
    """

    id: OfferId
    name: str
    p_dc_kw: float
    price_cents: int
    modules: int | None = None
    claimed_kwh: float | None = None
    warranty_years: int | None = None
    free_modules: int = 0


@dataclass(frozen=True, slots=True)
class Money:
    """Everything about money that the design does not bring; ``currency``: what it was typed in."""

    rule: PriceRule = PriceRule.MARKUP
    rule_frac: float = 0.0
    sales_tax_frac: float = 0.0
    prices: tuple[OwnPrice, ...] = ()
    lines: tuple[OwnLine, ...] = ()
    counted: tuple[Counted, ...] = ()
    work: Work = field(default_factory=Work)
    incentives: tuple[Incentive, ...] = ()
    payer: Payer = field(default_factory=Payer)
    loan: Loan | None = None
    expected: Expected = field(default_factory=Expected)
    offers: tuple[Offer, ...] = ()
    fuel_prices: tuple[FuelPrice, ...] = ()
    currency: str = ""


def counted_of(money: Money, kind: LineKind) -> Counted:
    """Return what lines of a kind count for: all of it but permits and travel where nobody said."""
    usual = kind not in (LineKind.PERMITS, LineKind.TRAVEL)
    found = (c for c in money.counted if c.kind is kind)
    return next(found, Counted(kind, usual and kind is not LineKind.LABOUR, usual, usual))
