"""The edits of strings, as data: a plan taken, modules threaded, strings changed by hand."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.ids import OptionId, PlacedId


@dataclass(frozen=True, slots=True)
class WishSeriesLength:
    """Modules in series the person wants; ``None`` lets the planner choose."""

    option_id: OptionId
    modules_in_series: int | None
    kind: Literal["wish-series-length"] = "wish-series-length"


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


ThreadEdit = (
    UsePlan
    | ThreadString
    | MoveString
    | CutString
    | JoinStrings
    | ReverseString
    | LockString
    | PlanAnew
    | WishSeriesLength
)
