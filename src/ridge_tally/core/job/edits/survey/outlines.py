"""The edits of a plane's outline, as data; lengths travel as typed, clicked points in metres."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.edits.survey.planes import PlaneShape
from ridge_tally.core.job.ids import (
    PlaneId,
)
from ridge_tally.core.job.places import PlanePoint
from ridge_tally.core.job.survey import EdgeKind, ReadingKind


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
