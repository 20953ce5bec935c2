"""The edits of strings: a plan taken, modules threaded by hand, inverters, boxes and safety."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.equipment import InverterId
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.code_rules import OnSite, Shutdown
from ridge_tally.core.job.ids import BoxId, OptionId, PlacedId, PlaneId


@dataclass(frozen=True, slots=True)
class PlannedString:
    """A string of a plan: its tracker, numbered from 1, and its modules in wiring order."""

    tracker_number: int
    module_ids: tuple[PlacedId, ...]


@dataclass(frozen=True, slots=True)
class UsePlan:
    """A plan in the place of all strings there are; they are locked as it has them."""

    option_id: OptionId
    strings: tuple[PlannedString, ...]
    kind: Literal["use-plan"] = "use-plan"


@dataclass(frozen=True, slots=True)
class ThreadString:
    """Modules in this order as one string, out of whichever strings they were in."""

    option_id: OptionId
    tracker_number: int
    module_ids: tuple[PlacedId, ...]
    kind: Literal["thread-string"] = "thread-string"


@dataclass(frozen=True, slots=True)
class MoveString:
    """A string to another tracker."""

    option_id: OptionId
    tag: str
    tracker_number: int
    kind: Literal["move-string"] = "move-string"


@dataclass(frozen=True, slots=True)
class CutString:
    """A string in two, the second from a module on."""

    option_id: OptionId
    tag: str
    from_id: PlacedId
    kind: Literal["cut-string"] = "cut-string"


@dataclass(frozen=True, slots=True)
class JoinStrings:
    """A second string behind the end of a first, on its tracker."""

    option_id: OptionId
    tag: str
    other_tag: str
    kind: Literal["join-strings"] = "join-strings"


@dataclass(frozen=True, slots=True)
class ReverseString:
    """Positive and negative end change places."""

    option_id: OptionId
    tag: str
    kind: Literal["reverse-string"] = "reverse-string"


@dataclass(frozen=True, slots=True)
class LockString:
    """Whether planning leaves a string as it is."""

    option_id: OptionId
    tag: str
    on: bool
    kind: Literal["lock-string"] = "lock-string"


@dataclass(frozen=True, slots=True)
class PlanAnew:
    """Every string unlocked, and all of them planned again."""

    option_id: OptionId
    kind: Literal["plan-anew"] = "plan-anew"


@dataclass(frozen=True, slots=True)
class AddInverter:
    """One more inverter beside those there are."""

    option_id: OptionId
    inverter_id: InverterId
    kind: Literal["add-inverter"] = "add-inverter"


@dataclass(frozen=True, slots=True)
class ChangeInverter:
    """Another inverter in the place of one, numbered from 1."""

    option_id: OptionId
    unit_number: int
    inverter_id: InverterId
    kind: Literal["change-inverter"] = "change-inverter"


@dataclass(frozen=True, slots=True)
class RemoveInverter:
    """An inverter, numbered from 1, is taken away; its strings are planned anew."""

    option_id: OptionId
    unit_number: int
    kind: Literal["remove-inverter"] = "remove-inverter"


@dataclass(frozen=True, slots=True)
class UseDcInput:
    """A bare DC input as typed, volts, amperes and watts, in the place of all inverters.

    So the sums of any series-parallel array can be checked; it makes no AC and has no year.
    """

    option_id: OptionId
    most_v: str
    most_a: str
    most_w: str
    strings: str
    kind: Literal["use-dc-input"] = "use-dc-input"


@dataclass(frozen=True, slots=True)
class PlaceBox:
    """A box put on a plane, or one that is there moved; from the left end of the eave, up the slope."""

    option_id: OptionId
    plane_id: PlaneId
    x_m: float
    y_m: float
    box_id: BoxId | None = None
    kind: Literal["place-box"] = "place-box"


@dataclass(frozen=True, slots=True)
class RemoveBox:
    option_id: OptionId
    box_id: BoxId
    kind: Literal["remove-box"] = "remove-box"


@dataclass(frozen=True, slots=True)
class SetShutdown:
    """How the roof is shut down."""

    option_id: OptionId
    way: Shutdown
    kind: Literal["set-shutdown"] = "set-shutdown"


@dataclass(frozen=True, slots=True)
class ConfirmOnSite:
    """Somebody on site says a point is so, or takes it back."""

    option_id: OptionId
    point: OnSite
    on: bool
    kind: Literal["confirm-on-site"] = "confirm-on-site"


@dataclass(frozen=True, slots=True)
class ChooseElectronics:
    """Another way for the modules to reach the grid; the array stays, the rest follows.

    ``unit_id``: the optimizer or microinverter of the shelf; empty for strings alone.
    """

    option_id: OptionId
    architecture: Architecture
    unit_id: str = ""
    kind: Literal["choose-electronics"] = "choose-electronics"


@dataclass(frozen=True, slots=True)
class FitOptimizers:
    """Add-on optimizers on some modules, or off them."""

    option_id: OptionId
    module_ids: tuple[PlacedId, ...]
    on: bool
    kind: Literal["fit-optimizers"] = "fit-optimizers"


WiringEdit = PlaceBox | RemoveBox | SetShutdown | ConfirmOnSite
InverterEdit = AddInverter | ChangeInverter | RemoveInverter | UseDcInput
ElectronicsEdit = ChooseElectronics | FitOptimizers
ThreadEdit = (
    UsePlan
    | ThreadString
    | MoveString
    | CutString
    | JoinStrings
    | ReverseString
    | LockString
    | PlanAnew
)
StringEdit = ThreadEdit | InverterEdit | WiringEdit | ElectronicsEdit
