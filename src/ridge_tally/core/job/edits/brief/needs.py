"""The edits of loads to come, the target, what is there already and wishes, as data."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.brief import TargetKind
from ridge_tally.core.job.ids import ExistingId, LoadId, PlaneId


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
    SOURCE_BREAKER = "source_breaker"
    LOAD_BREAKERS = "load_breakers_a"
    FEEDER = "feeder_a"


class WishFlag(StrEnum):
    """A wish that is there or not."""

    BATTERY_LATER = "battery_later"
    BACKUP = "backup"
    SYMMETRIC = "symmetric"
    ALL_BLACK = "all_black"


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
class SetSubPanel:
    """A board between the sources and the main panel, by its place from 0; with an empty name it goes.

    The place after the last adds one.  What is ``None`` stays as it is.
    """

    place: int
    name: str | None = None
    main: str | None = None
    bus: str | None = None
    feeder: str | None = None
    kind: Literal["set-sub-panel"] = "set-sub-panel"


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


NeedEdit = (
    AddLoad
    | SetLoadField
    | RemoveLoad
    | SetTarget
    | SetTargetField
    | AddExisting
    | SetExistingField
    | SetExistingPlane
    | RemoveExisting
    | SetAlreadyField
    | SetServiceField
    | SetSubPanel
    | SetWish
    | SetGrowth
    | SetNoGo
    | ImportStock
)
