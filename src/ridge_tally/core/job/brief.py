"""What the household gave and wants: bills, loads to come, target, wishes, what is there.

Bills are kept as typed, so that a row which cannot be read yet is not lost; ``core.brief``
reads them.
"""

from dataclasses import dataclass, field
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.grid import GridRules
from ridge_tally.core.job.household import Household
from ridge_tally.core.job.ids import BillId, ExistingId, LoadId, PlaneId

MOST_BILLS = 12


@dataclass(frozen=True, slots=True)
class BillRow:
    """One bill as typed; a day that could be read stands as ``2025-03-04``."""

    id: BillId
    first_day: str
    last_day: str
    energy: str
    cost: str


class Fuel(StrEnum):
    """A heating fuel in the unit it is bought in."""

    GAS_M3 = "gas-m3"
    GAS_THERM = "gas-therm"
    GAS_KWH = "gas-kwh"
    OIL_L = "oil-l"
    OIL_GALLON = "oil-gallon"
    PROPANE_L = "propane-l"
    PROPANE_GALLON = "propane-gallon"
    PELLETS_KG = "pellets-kg"
    ELECTRIC_KWH = "electric-kwh"


@dataclass(frozen=True, slots=True)
class CarLoad:
    """An electric car to come; ``displaced_l_per_100km`` is the fuel of the car it replaces."""

    id: LoadId
    name: str
    distance_km_per_year: float
    use_kwh_per_km: float
    charging_loss_frac: float
    charged_at_home_frac: float
    displaced_l_per_100km: float
    kind: Literal["car"] = "car"


@dataclass(frozen=True, slots=True)
class HeatPumpLoad:
    """A heat pump to come; resistance heat it replaces is in the bills already."""

    id: LoadId
    name: str
    fuel: Fuel
    fuel_per_year: float
    burner_efficiency_frac: float
    seasonal_cop: float
    kind: Literal["heat-pump"] = "heat-pump"


@dataclass(frozen=True, slots=True)
class OtherLoad:
    """Any other change, spread by days over its months (1 to 12, across the new year too)."""

    id: LoadId
    name: str
    energy_kwh_per_year: float
    first_month: int
    last_month: int
    kind: Literal["other"] = "other"


Load = CarLoad | HeatPumpLoad | OtherLoad


class TargetKind(StrEnum):
    """What the count is to reach."""

    NET_ZERO = "net-zero"
    SHARE = "share"
    BUDGET = "budget"
    ROOF = "roof"
    REBATE = "rebate"


@dataclass(frozen=True, slots=True)
class Target:
    """The wish, and the purse: a budget with a first installed price.

    ``yield_kwh_per_kw`` is set when the person knows a yearly yield from a neighbour's array.
    """

    kind: TargetKind = TargetKind.NET_ZERO
    share_frac: float = 0.8
    budget_cents: int | None = None
    price_cents_per_w: float | None = None
    fixed_price_cents: int = 0
    yield_kwh_per_kw: float | None = None


@dataclass(frozen=True, slots=True)
class ExistingArray:
    """An array that is already there.

    ``energy_kwh_per_year`` is ``None`` until read off its inverter; ``paid`` says in words what
    its energy earns; the planes named are taken.
    """

    id: ExistingId
    name: str
    p_dc_kw: float
    p_ac_kw: float
    built_year: int
    energy_kwh_per_year: float | None
    paid: str
    plane_ids: tuple[PlaneId, ...]


@dataclass(frozen=True, slots=True)
class AlreadyThere:
    """Generation and storage that stand before the job begins."""

    arrays: tuple[ExistingArray, ...] = ()
    battery_kwh: float | None = None
    battery_kw: float | None = None
    generator_kw: float | None = None


@dataclass(frozen=True, slots=True)
class Wishes:
    """What later steps honour or refuse aloud."""

    growth_modules: int = 0
    battery_later: bool = False
    backup: bool = False
    symmetric: bool = False
    all_black: bool = False
    no_go_planes: tuple[PlaneId, ...] = ()


class StockKind(StrEnum):
    """What lies on the firm's shelf."""

    MODULE = "module"
    INVERTER = "inverter"
    OPTIMIZER = "optimizer"
    MICROINVERTER = "microinverter"
    RAIL = "rail"
    PART = "part"


@dataclass(frozen=True, slots=True)
class StockItem:
    """A line of the firm's stock list; ``item_id`` is a datasheet's id; of rails and parts of racking any.

    These are known by their name in the parts list.
    """

    kind: StockKind
    item_id: str
    name: str
    count: int


@dataclass(frozen=True, slots=True)
class Brief:
    """Everything that sets the target."""

    bills: tuple[BillRow, ...] = ()
    use_kwh_per_year: float | None = None
    loads: tuple[Load, ...] = ()
    target: Target = field(default_factory=Target)
    grid: GridRules | None = None
    already: AlreadyThere = field(default_factory=AlreadyThere)
    wishes: Wishes = field(default_factory=Wishes)
    stock: tuple[StockItem, ...] = ()
    household: Household = field(default_factory=Household)
