"""The grid's rules for one house, as given: caps, routes to approval, metering, tariff.

They start as a copy of a sample pack and are edited from there; ``source`` and ``dated``
say where they come from.
"""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum


class TariffPeriod(StrEnum):
    """What fixed charge, tier bounds and minimum count for: each bill, or each day of it."""

    BILL = "bill"
    DAY = "day"


@dataclass(frozen=True, slots=True)
class RateTier:
    """Energy up to a bound (``None``: all that is left) at one price."""

    up_to_kwh: float | None
    rate_cents_per_kwh: float


class PriceDays(StrEnum):
    """The days a price holds on; holidays count as weekends."""

    EVERY = "every-day"
    WORKDAYS = "workdays"
    WEEKENDS = "weekends"


@dataclass(frozen=True, slots=True)
class RatePeriod:
    """Hours with a price of their own: from ``from_h`` to ``to_h``, across midnight where it is less.

    ``months`` 1 to 12.  ``sell_cents_per_kwh``: paid for what is sent out then; ``None`` as ever.
    ``rest``: all hours that no other period takes.
    """

    name: str
    months: tuple[int, ...]
    days: PriceDays
    from_h: int
    to_h: int
    buy_cents_per_kwh: float
    sell_cents_per_kwh: float | None = None
    rest: bool = False


@dataclass(frozen=True, slots=True)
class Tariff:
    """What a bill costs: fixed charge, tiers, a minimum, tax on all of it.

    ``fixed_cents``, tier bounds and ``minimum_cents`` are per bill or per day, as ``per`` says.
    With ``periods`` a kWh costs what its hour says, and the tiers rest; ``holidays`` are days of the
    year from 0.  ``demand_cents_per_kw``:
    for the month's highest hour.
    """

    per: TariffPeriod
    fixed_cents: float
    minimum_cents: float
    tiers: tuple[RateTier, ...]
    tax_frac: float
    periods: tuple[RatePeriod, ...] = ()
    holidays: tuple[int, ...] = ()
    demand_cents_per_kw: float = 0.0


class Metering(StrEnum):
    """What happens to energy sent out."""

    NET = "net"
    NET_BILLING = "net-billing"
    ALL_SOLD = "all-sold"
    UNPAID = "unpaid"


class SizeCapKind(StrEnum):
    """What a size cap counts, existing arrays included."""

    NONE = "none"
    DC_KW = "dc-kw"
    AC_KW = "ac-kw"
    SHARE_OF_USE = "share-of-use"


@dataclass(frozen=True, slots=True)
class SizeCap:
    """``value``: kW, or the share of past yearly use as a fraction."""

    kind: SizeCapKind
    value: float | None


class RouteKind(StrEnum):
    """Tell the grid operator afterwards, or ask first."""

    NOTIFY = "notify"
    APPLY = "apply"


@dataclass(frozen=True, slots=True)
class ApprovalRoute:
    """One way to get a connection; what nobody entered is ``None``.

    ``most_kw_per_phase`` bounds all inverters of the house together;  an imposed export limit
    is entered when the grid operator announces one, never guessed.
    """

    kind: RouteKind
    most_kw_per_phase: float | None
    weeks: float | None
    fee_cents: int | None
    notice: str
    imposed_export_kw: float | None


@dataclass(frozen=True, slots=True)
class Rebate:
    """What a rebate stands behind: DC kW in all, and DC over AC."""

    name: str
    most_dc_kw: float | None
    most_dc_ac_ratio: float | None
    pays_cents_per_dc_w: float


@dataclass(frozen=True, slots=True)
class GridRules:
    """The rules of this house's grid operator.

    ``sample`` stays set while the figures are those of a shipped sample; ``edited`` names the
    fields a person has typed over.
    """

    pack_id: str
    operator: str
    source: str
    dated: date
    sample: bool
    edited: tuple[str, ...]
    currency: str
    volts_per_phase_v: float
    size_cap: SizeCap
    ac_cap_kw_per_phase: float | None
    export_limit_kw: float | None
    metering: Metering
    export_cents_per_kwh: float
    tariff: Tariff
    disconnect: str
    insurance: str
    rebate: Rebate | None
    routes: tuple[ApprovalRoute, ...]
    # Under net metering: the month, 1 to 12, after which a year's surplus is paid out; each if none.
    trueup_month: int | None = None


# A hundredth of a currency, where people do not call it a cent.
_HUNDREDTHS = {"£": "pence"}


def small_unit(currency: str) -> str:
    """Return what people call the hundredth of a currency, many of them: cents, pence."""
    return _HUNDREDTHS.get(currency, "cents")
