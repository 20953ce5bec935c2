"""The edits of boxes on planes, of shutdown and of what is confirmed on site, as data."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.code_rules import OnSite, Shutdown
from ridge_tally.core.job.ids import BoxId, OptionId, PlaneId


@dataclass(frozen=True, slots=True)
class PlaceBox:
    """A box put on a plane, or one that is there moved; from the left end of the eave, up the slope."""

    option_id: OptionId
    plane_id: PlaneId
    x_m: float
    y_m: float
    box_id: BoxId | None = None
    kind: Literal["place-box"] = "place-box"


@dataclass(frozen=True, slots=True)
class RemoveBox:
    option_id: OptionId
    box_id: BoxId
    kind: Literal["remove-box"] = "remove-box"


@dataclass(frozen=True, slots=True)
class SetShutdown:
    """How the roof is shut down."""

    option_id: OptionId
    way: Shutdown
    kind: Literal["set-shutdown"] = "set-shutdown"


@dataclass(frozen=True, slots=True)
class ConfirmOnSite:
    """Somebody on site says a point is so, or takes it back."""

    option_id: OptionId
    point: OnSite
    on: bool
    kind: Literal["confirm-on-site"] = "confirm-on-site"


@dataclass(frozen=True, slots=True)
class SetStringFuse:
    """The fuse every paralleled string has, as typed; empty for none said."""

    option_id: OptionId
    typed: str
    kind: Literal["set-string-fuse"] = "set-string-fuse"


WiringEdit = PlaceBox | RemoveBox | SetShutdown | ConfirmOnSite | SetStringFuse
