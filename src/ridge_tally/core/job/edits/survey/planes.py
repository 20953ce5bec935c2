"""The edits of planes, as data; lengths and angles travel as typed, clicked points in metres."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import (
    PlaneId,
)
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import LengthBasis


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
