"""The edits of what lies around the planes, as data; clicked points travel in metres."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import (
    AttachmentId,
    LotLineId,
    ObstructionId,
    PlaneId,
    ShadeId,
)
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import Picture, PicturePoint, ShadeKind


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
