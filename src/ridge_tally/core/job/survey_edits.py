"""The edits of a survey, as data; ``edits`` joins them to the rest.

Lengths and angles travel as typed; points that were clicked travel in metres.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import (
    AttachmentId,
    ExistingId,
    KeepOutId,
    LotLineId,
    ObstructionId,
    PlaneId,
    ShadeId,
)
from ridge_tally.core.job.survey import (
    EdgeKind,
    LengthBasis,
    ObstructionKind,
    OffsetMode,
    Picture,
    PicturePoint,
    PlanePoint,
    ReadingKind,
    ShadeKind,
    SitePoint,
)


class PlaneShape(StrEnum):
    """What the sketch of a plane may start from."""

    GABLE = "gable"
    HIP = "hip"
    HIP_END = "hip-end"
    SHED = "shed"
    ELL = "ell"
    DORMER_CUT = "dormer-cut"
    WALL = "wall"
    GROUND = "ground"
    CARPORT = "carport"


class PlaneField(StrEnum):
    """A figure of a plane, besides its readings, that can be typed over."""

    SLOPE = "slope"
    AZIMUTH = "azimuth"
    EAVE_HEIGHT = "eave_height"
    SETBACK_EAVE = "setback_eave"
    SETBACK_RIDGE = "setback_ridge"
    SETBACK_RAKE = "setback_rake"
    SETBACK_HIP = "setback_hip"
    SETBACK_VALLEY = "setback_valley"
    SETBACK_WALL = "setback_wall"
    SETBACK_BOUNDARY = "setback_boundary"


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


class ShadeField(StrEnum):
    """A figure of a shade source that can be typed over."""

    NAME = "name"
    HEIGHT = "height"
    WIDTH = "width"
    DEPTH = "depth"
    BASE = "base"
    TRUNK = "trunk"
    TURNED = "turned_deg"
    LEAF = "leaf"
    LEAF_MONTHS = "leaf_months"
    CROWN = "crown"


class Gear(StrEnum):
    """What hangs on the house's walls."""

    METER = "meter"
    PANEL = "panel"
    DISCONNECT = "disconnect"
    INVERTER = "inverter"


@dataclass(frozen=True, slots=True)
class AddPlane:
    shape: PlaneShape = PlaneShape.GABLE
    kind: Literal["add-plane"] = "add-plane"


@dataclass(frozen=True, slots=True)
class AddOtherSide:
    """The second half of a gable or hip: the same outline, facing the other way."""

    plane_id: PlaneId
    kind: Literal["add-other-side"] = "add-other-side"


@dataclass(frozen=True, slots=True)
class AddHipPlanes:
    """The other three planes of a hip roof, from its first long side."""

    plane_id: PlaneId
    kind: Literal["add-hip-planes"] = "add-hip-planes"


@dataclass(frozen=True, slots=True)
class RenamePlane:
    plane_id: PlaneId
    name: str
    kind: Literal["rename-plane"] = "rename-plane"


@dataclass(frozen=True, slots=True)
class RemovePlane:
    """With its modules in every option."""

    plane_id: PlaneId
    kind: Literal["remove-plane"] = "remove-plane"


@dataclass(frozen=True, slots=True)
class SetPlaneField:
    plane_id: PlaneId
    field: PlaneField
    typed: str
    kind: Literal["set-plane-field"] = "set-plane-field"


class GroundField(StrEnum):
    """A figure or words of a ground area."""

    FALL = "slope_deg"
    FALLS_TO = "falls_to_deg"
    SOIL = "soil"
    LOT_DISTANCE = "lot_distance"
    SNOW_DEPTH = "snow_depth"
    TRENCH_DEPTH = "trench_depth"


@dataclass(frozen=True, slots=True)
class SetGroundField:
    """Empty text takes a distance or a depth back."""

    plane_id: PlaneId
    field: GroundField
    typed: str
    kind: Literal["set-ground-field"] = "set-ground-field"


@dataclass(frozen=True, slots=True)
class SetTrenchRoute:
    """The points a trench turns at between a ground area and the panel."""

    plane_id: PlaneId
    points: tuple[SitePoint, ...]
    kind: Literal["set-trench-route"] = "set-trench-route"


@dataclass(frozen=True, slots=True)
class SetLengthBasis:
    plane_id: PlaneId
    basis: LengthBasis
    kind: Literal["set-length-basis"] = "set-length-basis"


@dataclass(frozen=True, slots=True)
class MovePlane:
    """Where the plane's first corner lies on the site plan."""

    plane_id: PlaneId
    east_m: float
    north_m: float
    kind: Literal["move-plane"] = "move-plane"


@dataclass(frozen=True, slots=True)
class JoinEdges:
    """Moves the plane, and its eave's height, until its edge meets the other plane's."""

    plane_id: PlaneId
    edge: int
    other_id: PlaneId
    other_edge: int
    kind: Literal["join-edges"] = "join-edges"


@dataclass(frozen=True, slots=True)
class FaceByCorners:
    """The two ends of the eave on the site plan: place and azimuth follow."""

    plane_id: PlaneId
    left: SitePoint
    right: SitePoint
    kind: Literal["face-by-corners"] = "face-by-corners"


@dataclass(frozen=True, slots=True)
class StartShape:
    plane_id: PlaneId
    shape: PlaneShape
    kind: Literal["start-shape"] = "start-shape"


@dataclass(frozen=True, slots=True)
class SketchOutline:
    """A rough outline, clicked round in either sense, to no scale."""

    plane_id: PlaneId
    corners: tuple[PlanePoint, ...]
    kind: Literal["sketch-outline"] = "sketch-outline"


@dataclass(frozen=True, slots=True)
class AddCorner:
    """A new corner in the middle of an edge."""

    plane_id: PlaneId
    edge: int
    kind: Literal["add-corner"] = "add-corner"


@dataclass(frozen=True, slots=True)
class MoveCorner:
    plane_id: PlaneId
    corner: int
    x_m: float
    y_m: float
    kind: Literal["move-corner"] = "move-corner"


@dataclass(frozen=True, slots=True)
class RemoveCorner:
    plane_id: PlaneId
    corner: int
    kind: Literal["remove-corner"] = "remove-corner"


@dataclass(frozen=True, slots=True)
class SetEdgeKind:
    plane_id: PlaneId
    edge: int
    edge_kind: EdgeKind
    kind: Literal["set-edge-kind"] = "set-edge-kind"


@dataclass(frozen=True, slots=True)
class SetReading:
    """A length as read; empty text takes the reading back."""

    plane_id: PlaneId
    reading: ReadingKind
    at: tuple[int, ...]
    typed: str
    kind: Literal["set-reading"] = "set-reading"


@dataclass(frozen=True, slots=True)
class MarkOutline:
    """A fact of the sketch: a corner drawn square, parallels, a corner on a line."""

    plane_id: PlaneId
    reading: ReadingKind
    at: tuple[int, ...]
    on: bool
    kind: Literal["mark-outline"] = "mark-outline"


@dataclass(frozen=True, slots=True)
class LeaveOutReading:
    plane_id: PlaneId
    reading: ReadingKind
    at: tuple[int, ...]
    out: bool
    kind: Literal["leave-out-reading"] = "leave-out-reading"


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
class AddShade:
    shade_kind: ShadeKind
    at: SitePoint
    kind: Literal["add-shade"] = "add-shade"


@dataclass(frozen=True, slots=True)
class SetShadeField:
    shade_id: ShadeId
    field: ShadeField
    typed: str
    kind: Literal["set-shade-field"] = "set-shade-field"


@dataclass(frozen=True, slots=True)
class MoveShade:
    """By hand on the site plan; a sighting no longer places it."""

    shade_id: ShadeId
    at: SitePoint
    kind: Literal["move-shade"] = "move-shade"


@dataclass(frozen=True, slots=True)
class SightShade:
    """Bearing and distance from a station; with the angle to the top and the eye's height, the height."""

    shade_id: ShadeId
    station: SitePoint
    bearing: str
    distance: str
    top: str = ""
    eye: str = ""
    kind: Literal["sight-shade"] = "sight-shade"


@dataclass(frozen=True, slots=True)
class RemoveShade:
    shade_id: ShadeId
    kind: Literal["remove-shade"] = "remove-shade"


@dataclass(frozen=True, slots=True)
class SetHorizon:
    """Lines of bearing and elevation, as typed or from a CSV file."""

    typed: str
    kind: Literal["set-horizon"] = "set-horizon"


@dataclass(frozen=True, slots=True)
class AddLotLine:
    points: tuple[SitePoint, ...]
    closed: bool
    kind: Literal["add-lot-line"] = "add-lot-line"


@dataclass(frozen=True, slots=True)
class RenameLotLine:
    lot_line_id: LotLineId
    name: str
    kind: Literal["rename-lot-line"] = "rename-lot-line"


@dataclass(frozen=True, slots=True)
class RemoveLotLine:
    lot_line_id: LotLineId
    kind: Literal["remove-lot-line"] = "remove-lot-line"


@dataclass(frozen=True, slots=True)
class SetTrace:
    """A stored picture under the site plan; its width is taken as a guess until it is scaled."""

    picture: Picture
    kind: Literal["set-trace"] = "set-trace"


@dataclass(frozen=True, slots=True)
class ScaleTrace:
    first: PicturePoint
    second: PicturePoint
    distance: str
    kind: Literal["scale-trace"] = "scale-trace"


@dataclass(frozen=True, slots=True)
class MoveTrace:
    at: SitePoint
    kind: Literal["move-trace"] = "move-trace"


@dataclass(frozen=True, slots=True)
class TurnTrace:
    typed: str
    kind: Literal["turn-trace"] = "turn-trace"


@dataclass(frozen=True, slots=True)
class RemoveTrace:
    kind: Literal["remove-trace"] = "remove-trace"


@dataclass(frozen=True, slots=True)
class PlaceGear:
    gear: Gear
    at: SitePoint | None
    kind: Literal["place-gear"] = "place-gear"


@dataclass(frozen=True, slots=True)
class AddAttachment:
    text: str
    picture: Picture | None = None
    plane_id: PlaneId | None = None
    obstruction_id: ObstructionId | None = None
    kind: Literal["add-attachment"] = "add-attachment"


@dataclass(frozen=True, slots=True)
class SetAttachmentText:
    attachment_id: AttachmentId
    text: str
    kind: Literal["set-attachment-text"] = "set-attachment-text"


@dataclass(frozen=True, slots=True)
class RemoveAttachment:
    attachment_id: AttachmentId
    kind: Literal["remove-attachment"] = "remove-attachment"


PlaneEdit = (
    AddPlane
    | AddOtherSide
    | AddHipPlanes
    | RenamePlane
    | RemovePlane
    | SetPlaneField
    | SetGroundField
    | SetTrenchRoute
    | SetLengthBasis
    | MovePlane
    | JoinEdges
    | FaceByCorners
)
OutlineEdit = (
    StartShape
    | SketchOutline
    | AddCorner
    | MoveCorner
    | RemoveCorner
    | SetEdgeKind
    | SetReading
    | MarkOutline
    | LeaveOutReading
)
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
)
SurroundingsEdit = (
    AddShade
    | SetShadeField
    | MoveShade
    | SightShade
    | RemoveShade
    | SetHorizon
    | AddLotLine
    | RenameLotLine
    | RemoveLotLine
    | SetTrace
    | ScaleTrace
    | MoveTrace
    | TurnTrace
    | RemoveTrace
    | PlaceGear
    | AddAttachment
    | SetAttachmentText
    | RemoveAttachment
)
SurveyEdit = PlaneEdit | OutlineEdit | ObstructionEdit | SurroundingsEdit
