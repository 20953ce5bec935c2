"""The edits of an array: filling a plane, and moving its modules by hand."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.array import Mounting, Orientation, Position, Ways
from ridge_tally.core.job.ids import OptionId, PlacedId, PlaneId
from ridge_tally.core.job.survey import EdgeKind


@dataclass(frozen=True, slots=True)
class FillPlane:
    """Rows that are free sideways, as many modules as the plane takes."""

    option_id: OptionId
    plane_id: PlaneId
    ways: Ways
    kind: Literal["fill-plane"] = "fill-plane"


@dataclass(frozen=True, slots=True)
class LaidAt:
    """A module's lower left corner, metres, and the way round it lies."""

    x_m: float
    y_m: float
    orientation: Orientation


@dataclass(frozen=True, slots=True)
class LayModules:
    """A layout that was worked out, in the place of what the plane holds."""

    option_id: OptionId
    plane_id: PlaneId
    places: tuple[LaidAt, ...]
    kind: Literal["lay-modules"] = "lay-modules"


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


class ArrayField(StrEnum):
    """What a fill asks for."""

    GAP_IN_ROW = "gap_in_row"
    GAP_BETWEEN_ROWS = "gap_between_rows"
    SHORTEST_RUN = "shortest_run"
    LEG_TILT = "leg_tilt"


@dataclass(frozen=True, slots=True)
class SetArrayField:
    option_id: OptionId
    plane_id: PlaneId
    field: ArrayField
    typed: str
    kind: Literal["set-array-field"] = "set-array-field"


class TableField(StrEnum):
    """A figure of the tables of a ground array."""

    ROWS = "rows"
    CLEARANCE = "clearance"
    ALONG = "along"
    APART = "apart"


@dataclass(frozen=True, slots=True)
class SetTableField:
    option_id: OptionId
    plane_id: PlaneId
    field: TableField
    typed: str
    kind: Literal["set-table-field"] = "set-table-field"


@dataclass(frozen=True, slots=True)
class SetSeasons:
    """Tilts a ground array is changed between, its posts staying; one stays all year."""

    option_id: OptionId
    plane_id: PlaneId
    positions: tuple[Position, ...]
    kind: Literal["set-seasons"] = "set-seasons"


class SeasonField(StrEnum):
    """A figure of one of the tilts of the year."""

    FROM_DAY = "from_day"
    TILT = "tilt"


@dataclass(frozen=True, slots=True)
class SetSeasonField:
    """One figure of a tilt of the year, numbered from 1 in the order of the year."""

    option_id: OptionId
    plane_id: PlaneId
    number: int
    field: SeasonField
    typed: str
    kind: Literal["set-season-field"] = "set-season-field"


@dataclass(frozen=True, slots=True)
class SpaceRows:
    """Rows as far apart as leaves them the shortest day's sun from 9 to 15 h."""

    option_id: OptionId
    plane_id: PlaneId
    kind: Literal["space-rows"] = "space-rows"


@dataclass(frozen=True, slots=True)
class SetOnLines:
    """Rows shifted onto the seams, ribs or purlins under them."""

    option_id: OptionId
    plane_id: PlaneId
    kind: Literal["set-on-lines"] = "set-on-lines"


@dataclass(frozen=True, slots=True)
class FillBays:
    """Every bay left free gets its module."""

    option_id: OptionId
    kind: Literal["fill-bays"] = "fill-bays"


@dataclass(frozen=True, slots=True)
class SetSymmetric:
    option_id: OptionId
    plane_id: PlaneId
    on: bool
    kind: Literal["set-symmetric"] = "set-symmetric"


@dataclass(frozen=True, slots=True)
class SetMounting:
    option_id: OptionId
    plane_id: PlaneId
    mounting: Mounting
    kind: Literal["set-mounting"] = "set-mounting"


@dataclass(frozen=True, slots=True)
class SetBrushed:
    """Whether somebody clears snow off the array."""

    option_id: OptionId
    plane_id: PlaneId
    on: bool
    kind: Literal["set-brushed"] = "set-brushed"


@dataclass(frozen=True, slots=True)
class ApplySetbackPack:
    """Edge widths of a shipped pack on some planes; the house's measures where it asks them."""

    plane_ids: tuple[PlaneId, ...]
    pack_id: str
    least_width: str = ""
    mean_height: str = ""
    kind: Literal["apply-setback-pack"] = "apply-setback-pack"


@dataclass(frozen=True, slots=True)
class SetAccessPath:
    """How wide the path up the roof is, and along which kinds of edge it may run."""

    plane_id: PlaneId
    typed: str
    along: tuple[EdgeKind, ...]
    kind: Literal["set-access-path"] = "set-access-path"


ArrayEdit = (
    FillPlane
    | LayModules
    | ToggleModules
    | AddModule
    | RemoveModules
    | MoveModules
    | TurnModules
    | SplitRow
    | KeepModules
    | SetArrayField
    | SetTableField
    | SetSeasons
    | SetSeasonField
    | SpaceRows
    | FillBays
    | SetOnLines
    | SetSymmetric
    | SetMounting
    | SetBrushed
    | ApplySetbackPack
    | SetAccessPath
)
