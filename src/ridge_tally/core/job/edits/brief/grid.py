"""The edits of the grid rules, as data; figures travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.grid import PriceDays, RouteKind


class GridField(StrEnum):
    """A figure or words of the grid rules."""

    OPERATOR = "operator"
    SOURCE = "source"
    DATED = "dated"
    SIZE_CAP_KIND = "size_cap_kind"
    SIZE_CAP = "size_cap"
    AC_CAP = "ac_cap_kw_per_phase"
    EXPORT_LIMIT = "export_limit_kw"
    METERING = "metering"
    EXPORT_RATE = "export_cents_per_kwh"
    TARIFF_PER = "tariff_per"
    FIXED = "fixed_cents"
    MINIMUM = "minimum_cents"
    TIERS = "tiers"
    TAX = "tax_frac"
    HOLIDAYS = "holidays"
    DEMAND = "demand_cents_per_kw"
    TRUEUP = "trueup_month"
    DISCONNECT = "disconnect"
    INSURANCE = "insurance"
    REBATE_NAME = "rebate_name"
    REBATE_DC = "rebate_dc_kw"
    REBATE_RATIO = "rebate_ratio"
    REBATE_PAYS = "rebate_pays"


class RouteField(StrEnum):
    """A figure or words of an approval route."""

    MOST = "most_kw_per_phase"
    WEEKS = "weeks"
    FEE = "fee_cents"
    NOTICE = "notice"
    IMPOSED_EXPORT = "imposed_export_kw"


@dataclass(frozen=True, slots=True)
class TakeGridPack:
    """Copy a sample pack into the job; an empty id takes the grid rules away."""

    pack_id: str
    kind: Literal["take-grid-pack"] = "take-grid-pack"


@dataclass(frozen=True, slots=True)
class SetGridField:
    field: GridField
    typed: str
    kind: Literal["set-grid-field"] = "set-grid-field"


@dataclass(frozen=True, slots=True)
class SetRouteField:
    route: RouteKind
    field: RouteField
    typed: str
    kind: Literal["set-route-field"] = "set-route-field"


@dataclass(frozen=True, slots=True)
class TypedPeriod:
    """A line of prices by the hour; without hours it takes all that no other line has."""

    name: str
    months: str
    days: PriceDays
    hours: str
    buy: str
    sell: str


@dataclass(frozen=True, slots=True)
class SetRatePeriods:
    """All lines of prices by the hour; none of them: the tiers hold again."""

    periods: tuple[TypedPeriod, ...]
    kind: Literal["set-rate-periods"] = "set-rate-periods"


@dataclass(frozen=True, slots=True)
class TakeTariff:
    """Copy a sample tariff into the grid rules there are: prices, metering, what export earns."""

    tariff_id: str
    kind: Literal["take-tariff"] = "take-tariff"


GridEdit = TakeTariff | TakeGridPack | SetGridField | SetRouteField | SetRatePeriods
