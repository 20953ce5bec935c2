"""One design for a survey: its modules, strings, inverters, and how they are mounted and wired."""

from dataclasses import dataclass, field

from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job.architecture import Electronics
from ridge_tally.core.job.array import PlaneArray
from ridge_tally.core.job.battery import Battery
from ridge_tally.core.job.code_rules import Safety
from ridge_tally.core.job.ids import OptionId, PlacedId
from ridge_tally.core.job.racking import Racking
from ridge_tally.core.job.wiring import JunctionBox, Wiring


@dataclass(frozen=True, slots=True)
class ModuleString:
    """Modules in series, in wiring order from the positive end, on one tracker (from 1).

    ``locked``: wired so by a person; planning leaves it alone.
    """

    tag: str
    tracker_number: int
    module_ids: tuple[PlacedId, ...]
    locked: bool = False


@dataclass(frozen=True, slots=True)
class Option:
    """One design for this survey; trackers are numbered through from ``inverter_id`` on."""

    id: OptionId
    name: str
    module_id: ModuleId
    inverter_id: InverterId
    arrays: tuple[PlaneArray, ...] = ()
    series_wish: int | None = None
    strings: tuple[ModuleString, ...] = ()
    more_inverters: tuple[InverterId, ...] = ()
    boxes: tuple[JunctionBox, ...] = ()
    safety: Safety = field(default_factory=Safety)
    electronics: Electronics = field(default_factory=Electronics)
    battery: Battery | None = None
    racking: Racking = field(default_factory=Racking)
    wiring: Wiring = field(default_factory=Wiring)
