"""The edits of prices, lines and what counts for what, as data; figures travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import LoadId
from ridge_tally.core.job.money import LineId, LineKind


class MoneyField(StrEnum):
    """A figure of the price, of the owner, or of what the years are expected to bring."""

    RULE = "rule"
    RULE_FRAC = "rule_frac"
    SALES_TAX = "sales_tax_frac"
    HOUR = "cents_per_h"
    ELECTRICAL = "electrical_h_per_kw"
    EACH_JOB = "each_job_h"
    OWNER = "owner"
    TAX = "tax_frac"
    TAX_OWED = "tax_cents_per_year"
    YEARS = "years"
    DISCOUNT = "discount_frac"
    ENERGY_RISE = "energy_rise_frac"
    FIXED_RISE = "fixed_rise_frac"
    EXPORT_RISE = "export_rise_frac"
    AGEING = "ageing_frac"
    UPKEEP = "upkeep_cents"
    UPKEEP_RISE = "upkeep_rise_frac"
    INVERTER_YEAR = "inverter_year"
    INVERTER_PRICE = "inverter_cents"
    CONTRACT = "contract"
    IN_SERVICE = "in_service"
    PRICE_CHANGE = "price_change_frac"
    STAGE_YEAR = "stage_year"
    TILT_CHANGE = "tilt_change_cents"
    LOAN_SHARE = "loan_share_frac"
    LOAN_RATE = "loan_rate_frac"
    LOAN_YEARS = "loan_years"
    LOAN_FEE = "loan_fee_frac"


class CountsFor(StrEnum):
    """What a line may count for."""

    TAXABLE = "taxable"
    CREDIT = "credit"
    REBATE = "rebate"


@dataclass(frozen=True, slots=True)
class SetMoneyField:
    field: MoneyField
    typed: str
    kind: Literal["set-money-field"] = "set-money-field"


@dataclass(frozen=True, slots=True)
class TypedPrice:
    """A price of a line by its name; empty for the sheet's own."""

    name: str
    typed: str


@dataclass(frozen=True, slots=True)
class SetPrices:
    """Prices of lines, one typed or a whole list of them, undone in one go."""

    prices: tuple[TypedPrice, ...]
    kind: Literal["set-prices"] = "set-prices"


@dataclass(frozen=True, slots=True)
class TakePrices:
    """Prices out of a table with a column ``name`` and one ``each``; names it does not hold stay."""

    text: str
    file: str = ""
    kind: Literal["take-prices"] = "take-prices"


@dataclass(frozen=True, slots=True)
class SetOwnLine:
    """A line of one's own; without an id a new one."""

    line_id: LineId | None
    name: str
    line_kind: LineKind
    count: str
    price: str
    kind: Literal["set-own-line"] = "set-own-line"


@dataclass(frozen=True, slots=True)
class RemoveOwnLine:
    line_id: LineId
    kind: Literal["remove-own-line"] = "remove-own-line"


@dataclass(frozen=True, slots=True)
class SetCounted:
    """Whether lines of a kind count."""

    line_kind: LineKind
    counts_for: CountsFor
    counts: bool
    kind: Literal["set-counted"] = "set-counted"


@dataclass(frozen=True, slots=True)
class TakeCurrency:
    """The prices typed count in the currency of the grid rules from now on, figure by figure."""

    kind: Literal["take-currency"] = "take-currency"


@dataclass(frozen=True, slots=True)
class SetFuelPrice:
    """What a unit of the fuel costs that a load to come displaces; empty for not known."""

    load_id: LoadId
    typed: str
    kind: Literal["set-fuel-price"] = "set-fuel-price"


PriceEdit = (
    SetMoneyField
    | SetPrices
    | TakePrices
    | SetOwnLine
    | RemoveOwnLine
    | SetCounted
    | SetFuelPrice
    | TakeCurrency
)
