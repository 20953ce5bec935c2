"""The edits of an option's racking and of what the site is designed for, as data."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.racking import CrewTask, MountAim, TrenchLay
from ridge_tally.core.mounting_sheet import MountingId


class RackingField(StrEnum):
    """A length that stands in the place of the maker's, or of the middle of the clamp zone."""

    SPAN = "span"
    BARE_END = "bare_end"
    RAIL_OFFSET = "rail_offset"
    OVERHANG = "overhang"
    EMBEDMENT = "embedment"


class DesignLoadField(StrEnum):
    """A figure the site is designed for."""

    WIND = "wind"
    SNOW = "snow"
    EXPOSURE = "exposure"
    ROOF_HEIGHT = "roof_height"
    GCP_FIELD = "gcp_field"
    GCP_EDGE = "gcp_edge"
    WOOD = "wood"
    MOUNT_CAP = "mount_cap"


@dataclass(frozen=True, slots=True)
class ChooseMounting:
    """A system for a plane; none takes it off."""

    option_id: OptionId
    plane_id: PlaneId
    mounting_id: MountingId | None
    kind: Literal["choose-mounting"] = "choose-mounting"


@dataclass(frozen=True, slots=True)
class SetMountAim:
    option_id: OptionId
    aim: MountAim
    kind: Literal["set-mount-aim"] = "set-mount-aim"


@dataclass(frozen=True, slots=True)
class SetRackingField:
    """As typed; empty for the maker's own."""

    option_id: OptionId
    plane_id: PlaneId
    field: RackingField
    typed: str
    kind: Literal["set-racking-field"] = "set-racking-field"


@dataclass(frozen=True, slots=True)
class PinMount:
    """Hold a mount on a support of a rail, ``instead_of`` one that is let go; ``None`` lets go alone.

    The rest is planned anew round it.
    """

    option_id: OptionId
    plane_id: PlaneId
    rail: int
    at_m: float | None
    instead_of_m: float | None = None
    kind: Literal["pin-mount"] = "pin-mount"


@dataclass(frozen=True, slots=True)
class SetBlocking:
    """Wood between rafters at places along the rails, put in or taken out."""

    option_id: OptionId
    plane_id: PlaneId
    at_m: tuple[float, ...]
    on: bool
    kind: Literal["set-blocking"] = "set-blocking"


@dataclass(frozen=True, slots=True)
class SetRunOn:
    """Whether rail ends run on to the next support where none is near enough."""

    option_id: OptionId
    plane_id: PlaneId
    on: bool
    kind: Literal["set-run-on"] = "set-run-on"


@dataclass(frozen=True, slots=True)
class SetRailsARow:
    """Two rails under a row, or a third one in their middle."""

    option_id: OptionId
    plane_id: PlaneId
    count: Literal[2, 3]
    kind: Literal["set-rails-a-row"] = "set-rails-a-row"


@dataclass(frozen=True, slots=True)
class SetTrenchLay:
    option_id: OptionId
    plane_id: PlaneId
    lay: TrenchLay
    kind: Literal["set-trench-lay"] = "set-trench-lay"


@dataclass(frozen=True, slots=True)
class ClearPins:
    option_id: OptionId
    plane_id: PlaneId
    kind: Literal["clear-pins"] = "clear-pins"


@dataclass(frozen=True, slots=True)
class SetOffcuts:
    """Pieces of rail at hand as typed, parted by semicolons."""

    option_id: OptionId
    lengths: str
    kind: Literal["set-offcuts"] = "set-offcuts"


@dataclass(frozen=True, slots=True)
class SetCrewRate:
    """How much of a task the crew does in an hour, as typed; empty for the usual."""

    option_id: OptionId
    task: CrewTask
    typed: str
    kind: Literal["set-crew-rate"] = "set-crew-rate"


@dataclass(frozen=True, slots=True)
class SetDesignLoad:
    """A figure as typed and who said so; empty where nobody has."""

    field: DesignLoadField
    typed: str
    source: str = ""
    kind: Literal["set-design-load"] = "set-design-load"


RackingEdit = (
    ChooseMounting
    | SetMountAim
    | SetRackingField
    | PinMount
    | SetBlocking
    | SetRunOn
    | SetRailsARow
    | SetTrenchLay
    | ClearPins
    | SetOffcuts
    | SetCrewRate
    | SetDesignLoad
)
