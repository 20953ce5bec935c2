"""The edits of modules by hand, as data; a move travels in metres."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.edits.array.fills import LaidAt
from ridge_tally.core.job.ids import OptionId, PlacedId, PlaneId


@dataclass(frozen=True, slots=True)
class ToggleModules:
    option_id: OptionId
    module_ids: tuple[PlacedId, ...]
    kind: Literal["toggle-modules"] = "toggle-modules"


@dataclass(frozen=True, slots=True)
class AddModule:
    """A module set down; on tables of several rows a column of them, from its lowest."""

    option_id: OptionId
    plane_id: PlaneId
    at: LaidAt
    kind: Literal["add-module"] = "add-module"


@dataclass(frozen=True, slots=True)
class RemoveModules:
    option_id: OptionId
    module_ids: tuple[PlacedId, ...]
    kind: Literal["remove-modules"] = "remove-modules"


@dataclass(frozen=True, slots=True)
class MoveModules:
    """Modules of one plane moved together: to the right and up the slope, metres."""

    option_id: OptionId
    module_ids: tuple[PlacedId, ...]
    right_m: float
    up_m: float
    kind: Literal["move-modules"] = "move-modules"


@dataclass(frozen=True, slots=True)
class TurnModules:
    """Modules turned the other way round, row by row, closed up from their lower left."""

    option_id: OptionId
    module_ids: tuple[PlacedId, ...]
    kind: Literal["turn-modules"] = "turn-modules"


@dataclass(frozen=True, slots=True)
class SplitRow:
    """The gap to the left of a module as typed; it and what touches it to the right move."""

    option_id: OptionId
    module_id: PlacedId
    typed: str
    kind: Literal["split-row"] = "split-row"


@dataclass(frozen=True, slots=True)
class KeepModules:
    """Why modules stay where a distance is short; no reason takes it back."""

    option_id: OptionId
    module_ids: tuple[PlacedId, ...]
    reason: str
    kind: Literal["keep-modules"] = "keep-modules"


ModuleEdit = (
    ToggleModules | AddModule | RemoveModules | MoveModules | TurnModules | SplitRow | KeepModules
)
