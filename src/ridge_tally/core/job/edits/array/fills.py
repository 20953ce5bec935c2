"""The edits of a plane's fill and of the strips round it, as data; lengths travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.array import Mounting, Orientation, Ways
from ridge_tally.core.job.ids import OptionId, PlaneId
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


@dataclass(frozen=True, slots=True)
class SetOnLines:
    """Rows shifted onto the seams, ribs or purlins under them."""

    option_id: OptionId
    plane_id: PlaneId
    kind: Literal["set-on-lines"] = "set-on-lines"


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


FillEdit = (
    FillPlane
    | LayModules
    | SetArrayField
    | SetOnLines
    | SetSymmetric
    | SetMounting
    | SetBrushed
    | ApplySetbackPack
    | SetAccessPath
)
