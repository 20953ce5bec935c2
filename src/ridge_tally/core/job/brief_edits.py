"""The edits of the brief, as data; figures travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.brief import TargetKind
from ridge_tally.core.job.grid import RouteKind
from ridge_tally.core.job.ids import BillId, ExistingId, LoadId, PlaneId


class BillField(StrEnum):
    """A column of the bills."""

    FIRST_DAY = "first_day"
    LAST_DAY = "last_day"
    ENERGY = "energy"
    COST = "cost"


class LoadKind(StrEnum):
    """The kinds of load to come."""

    CAR = "car"
    HEAT_PUMP = "heat-pump"
    OTHER = "other"


class LoadField(StrEnum):
    """A figure of a load, of whichever kind has it."""

    NAME = "name"
    DISTANCE = "distance_km_per_year"
    USE = "use_kwh_per_km"
    CHARGING_LOSS = "charging_loss_frac"
    AT_HOME = "charged_at_home_frac"
    DISPLACED = "displaced_l_per_100km"
    FUEL = "fuel"
    FUEL_PER_YEAR = "fuel_per_year"
    BURNER = "burner_efficiency_frac"
    COP = "seasonal_cop"
    ENERGY = "energy_kwh_per_year"
    FIRST_MONTH = "first_month"
    LAST_MONTH = "last_month"


class TargetField(StrEnum):
    """A figure of the target."""

    SHARE = "share_frac"
    BUDGET = "budget_cents"
    PRICE = "price_cents_per_w"
    FIXED_PRICE = "fixed_price_cents"
    YIELD = "yield_kwh_per_kw"


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


class ExistingField(StrEnum):
    """A figure or words of an array that is already there."""

    NAME = "name"
    P_DC = "p_dc_kw"
    P_AC = "p_ac_kw"
    BUILT_YEAR = "built_year"
    ENERGY = "energy_kwh_per_year"
    PAID = "paid"


class AlreadyField(StrEnum):
    """Storage and engines that are already there."""

    BATTERY_ENERGY = "battery_kwh"
    BATTERY_POWER = "battery_kw"
    GENERATOR = "generator_kw"


class ServiceField(StrEnum):
    """The house's connection."""

    PHASES = "phases"
    MAIN_BREAKER = "main_breaker_a"
    BUSBAR = "busbar_a"
    SPACES = "spaces"
    DISCONNECT_WITHIN = "disconnect_within"


class WishFlag(StrEnum):
    """A wish that is there or not."""

    BATTERY_LATER = "battery_later"
    BACKUP = "backup"
    SYMMETRIC = "symmetric"
    ALL_BLACK = "all_black"


@dataclass(frozen=True, slots=True)
class AddBills:
    """Rows pasted from a table or read from a CSV file, after those already there."""

    text: str
    file: str = ""
    kind: Literal["add-bills"] = "add-bills"


@dataclass(frozen=True, slots=True)
class LayOutBills:
    """Twelve empty rows, a month each, from a first day on."""

    first_day: str
    kind: Literal["lay-out-bills"] = "lay-out-bills"


@dataclass(frozen=True, slots=True)
class SetBill:
    """One cell.

    Without a ``bill_id`` it is of the row at the place ``row``, and starts a new one where there
    is none: two cells of a new row typed before the first is answered are of one row.
    """

    bill_id: BillId | None
    field: BillField
    typed: str
    row: int | None = None
    kind: Literal["set-bill"] = "set-bill"


@dataclass(frozen=True, slots=True)
class FillBillColumn:
    """Cells pasted into one column, from a row downwards; rows are added while there is room."""

    bill_id: BillId | None
    field: BillField
    values: tuple[str, ...]
    kind: Literal["fill-bill-column"] = "fill-bill-column"


@dataclass(frozen=True, slots=True)
class SwapBillColumns:
    bill_id: BillId
    kind: Literal["swap-bill-columns"] = "swap-bill-columns"


@dataclass(frozen=True, slots=True)
class RemoveBills:
    """Rows to take away; none named takes all."""

    bill_ids: tuple[BillId, ...]
    kind: Literal["remove-bills"] = "remove-bills"


@dataclass(frozen=True, slots=True)
class SetUse:
    """The yearly figure, where there are no bills; empty clears it."""

    typed: str
    kind: Literal["set-use"] = "set-use"


@dataclass(frozen=True, slots=True)
class AddLoad:
    load_kind: LoadKind
    kind: Literal["add-load"] = "add-load"


@dataclass(frozen=True, slots=True)
class SetLoadField:
    load_id: LoadId
    field: LoadField
    typed: str
    kind: Literal["set-load-field"] = "set-load-field"


@dataclass(frozen=True, slots=True)
class RemoveLoad:
    load_id: LoadId
    kind: Literal["remove-load"] = "remove-load"


@dataclass(frozen=True, slots=True)
class SetTarget:
    target_kind: TargetKind
    kind: Literal["set-target"] = "set-target"


@dataclass(frozen=True, slots=True)
class SetTargetField:
    field: TargetField
    typed: str
    kind: Literal["set-target-field"] = "set-target-field"


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
class AddExisting:
    kind: Literal["add-existing"] = "add-existing"


@dataclass(frozen=True, slots=True)
class SetExistingField:
    existing_id: ExistingId
    field: ExistingField
    typed: str
    kind: Literal["set-existing-field"] = "set-existing-field"


@dataclass(frozen=True, slots=True)
class SetExistingPlane:
    """Whether an existing array takes a plane."""

    existing_id: ExistingId
    plane_id: PlaneId
    on: bool
    kind: Literal["set-existing-plane"] = "set-existing-plane"


@dataclass(frozen=True, slots=True)
class RemoveExisting:
    existing_id: ExistingId
    kind: Literal["remove-existing"] = "remove-existing"


@dataclass(frozen=True, slots=True)
class SetAlreadyField:
    field: AlreadyField
    typed: str
    kind: Literal["set-already-field"] = "set-already-field"


@dataclass(frozen=True, slots=True)
class SetServiceField:
    field: ServiceField
    typed: str
    kind: Literal["set-service-field"] = "set-service-field"


@dataclass(frozen=True, slots=True)
class SetWish:
    wish: WishFlag
    on: bool
    kind: Literal["set-wish"] = "set-wish"


@dataclass(frozen=True, slots=True)
class SetGrowth:
    typed: str
    kind: Literal["set-growth"] = "set-growth"


@dataclass(frozen=True, slots=True)
class SetNoGo:
    """Whether the household wants a roof left free."""

    plane_id: PlaneId
    on: bool
    kind: Literal["set-no-go"] = "set-no-go"


@dataclass(frozen=True, slots=True)
class ImportStock:
    """The firm's stock list as CSV text; empty text clears it."""

    text: str
    file: str = ""
    kind: Literal["import-stock"] = "import-stock"


BriefEdit = (
    AddBills
    | LayOutBills
    | SetBill
    | FillBillColumn
    | SwapBillColumns
    | RemoveBills
    | SetUse
    | AddLoad
    | SetLoadField
    | RemoveLoad
    | SetTarget
    | SetTargetField
    | TakeGridPack
    | SetGridField
    | SetRouteField
    | AddExisting
    | SetExistingField
    | SetExistingPlane
    | RemoveExisting
    | SetAlreadyField
    | SetServiceField
    | SetWish
    | SetGrowth
    | SetNoGo
    | ImportStock
)
