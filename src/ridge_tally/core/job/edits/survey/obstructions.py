"""The edits of what stands on a plane or lies under it, as data; lengths travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import (
    ExistingId,
    KeepOutId,
    ObstructionId,
    PlaneId,
)
from ridge_tally.core.job.places import PlanePoint
from ridge_tally.core.job.survey import ObstructionKind, OffsetMode


class ObstructionField(StrEnum):
    """A figure or the name of an obstruction that can be typed over."""

    NAME = "name"
    LEFT = "left"
    BOTTOM = "bottom"
    WIDTH = "width"
    DEPTH = "depth"
    HEIGHT = "height"
    CLEARANCE = "clearance"


class ExistingRowsField(StrEnum):
    """A figure of modules that are already on a plane."""

    LEFT = "left"
    BOTTOM = "bottom"
    COLUMNS = "columns"
    ROWS = "rows"
    WIDTH = "width"
    HEIGHT = "height"


class StructureField(StrEnum):
    """A line of what mounts will find under them."""

    COVERING = "covering"
    SEAM_SPACING = "seam_spacing"
    RIB_SPACING = "rib_spacing"
    RIB_HEIGHT = "rib_height"
    COVER_WIDTH = "cover_width"
    FRAMING = "framing"
    RAFTER_SPACING = "rafter_spacing"
    FIRST_RAFTER = "first_rafter"
    RAFTER_SPAN = "rafter_span"
    RAFTER_SIZE = "rafter_size"
    PURLIN_SPACING = "purlin_spacing"
    FIRST_PURLIN = "first_purlin"
    FIRST_RIB = "first_rib"


@dataclass(frozen=True, slots=True)
class AddObstruction:
    """At a point of the plane."""

    plane_id: PlaneId
    obstruction_kind: ObstructionKind
    left_m: float
    bottom_m: float
    kind: Literal["add-obstruction"] = "add-obstruction"


@dataclass(frozen=True, slots=True)
class SetObstructionField:
    plane_id: PlaneId
    obstruction_id: ObstructionId
    field: ObstructionField
    typed: str
    kind: Literal["set-obstruction-field"] = "set-obstruction-field"


@dataclass(frozen=True, slots=True)
class SetOffsetMode:
    """How its left offset was taped; the reading stays, the place follows."""

    plane_id: PlaneId
    obstruction_id: ObstructionId
    offsets: OffsetMode
    kind: Literal["set-offset-mode"] = "set-offset-mode"


@dataclass(frozen=True, slots=True)
class MoveObstruction:
    """To a point of the plane."""

    plane_id: PlaneId
    obstruction_id: ObstructionId
    left_m: float
    bottom_m: float
    kind: Literal["move-obstruction"] = "move-obstruction"


@dataclass(frozen=True, slots=True)
class RemoveObstruction:
    plane_id: PlaneId
    obstruction_id: ObstructionId
    kind: Literal["remove-obstruction"] = "remove-obstruction"


@dataclass(frozen=True, slots=True)
class AddKeepOut:
    plane_id: PlaneId
    reason: str
    corners: tuple[PlanePoint, ...]
    kind: Literal["add-keep-out"] = "add-keep-out"


@dataclass(frozen=True, slots=True)
class SetKeepOutReason:
    plane_id: PlaneId
    keep_out_id: KeepOutId
    reason: str
    kind: Literal["set-keep-out-reason"] = "set-keep-out-reason"


@dataclass(frozen=True, slots=True)
class RemoveKeepOut:
    plane_id: PlaneId
    keep_out_id: KeepOutId
    kind: Literal["remove-keep-out"] = "remove-keep-out"


@dataclass(frozen=True, slots=True)
class DrawExisting:
    """Rows of an array that is already there, on its plane."""

    plane_id: PlaneId
    existing_id: ExistingId
    left_m: float
    bottom_m: float
    kind: Literal["draw-existing"] = "draw-existing"


@dataclass(frozen=True, slots=True)
class SetExistingRows:
    plane_id: PlaneId
    existing_id: ExistingId
    field: ExistingRowsField
    typed: str
    kind: Literal["set-existing-rows"] = "set-existing-rows"


@dataclass(frozen=True, slots=True)
class EraseExisting:
    plane_id: PlaneId
    existing_id: ExistingId
    kind: Literal["erase-existing"] = "erase-existing"


@dataclass(frozen=True, slots=True)
class SetStructure:
    plane_id: PlaneId
    field: StructureField
    typed: str
    kind: Literal["set-structure"] = "set-structure"


@dataclass(frozen=True, slots=True)
class SetFoundRafters:
    """Rafters as found, from the left edge: lengths parted by semicolons, a cross behind one no
    mount may stand on; none for even spacing."""

    plane_id: PlaneId
    lengths: str
    kind: Literal["set-found-rafters"] = "set-found-rafters"


ObstructionEdit = (
    AddObstruction
    | SetObstructionField
    | SetOffsetMode
    | MoveObstruction
    | RemoveObstruction
    | AddKeepOut
    | SetKeepOutReason
    | RemoveKeepOut
    | DrawExisting
    | SetExistingRows
    | EraseExisting
    | SetStructure
    | SetFoundRafters
)
