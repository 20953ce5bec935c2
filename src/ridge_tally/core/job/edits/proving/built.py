"""The edits of what was built and of its serial numbers, as data."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.ids import OptionId, PlacedId
from ridge_tally.core.job.proving import Carries, Corner


@dataclass(frozen=True, slots=True)
class MarkBuilt:
    """An option stands; ``revision``: the one it was marked at."""

    option_id: OptionId
    revision: int
    day: str
    who: str
    kind: Literal["mark-built"] = "mark-built"


@dataclass(frozen=True, slots=True)
class UnmarkBuilt:
    """It was marked too early; serials and records stay."""

    kind: Literal["unmark-built"] = "unmark-built"


@dataclass(frozen=True, slots=True)
class NoteSiteChange:
    """Why something is otherwise than drawn."""

    day: str
    who: str
    words: str
    kind: Literal["note-site-change"] = "note-site-change"


@dataclass(frozen=True, slots=True)
class DropSiteNote:
    """By its place from 0."""

    at: int
    kind: Literal["drop-site-note"] = "drop-site-note"


@dataclass(frozen=True, slots=True)
class SetSerials:
    """Stickers of places, one after the other; an empty text takes one off."""

    carries: Carries
    places: tuple[PlacedId, ...]
    texts: tuple[str, ...]
    kind: Literal["set-serials"] = "set-serials"


@dataclass(frozen=True, slots=True)
class SwapSerials:
    """Two places change stickers."""

    carries: Carries
    one: PlacedId
    other: PlacedId
    kind: Literal["swap-serials"] = "swap-serials"


@dataclass(frozen=True, slots=True)
class SetUnitPort:
    """Which port of a unit its first module is on: ``A`` or ``B``."""

    place: PlacedId
    port: str
    kind: Literal["set-unit-port"] = "set-unit-port"


@dataclass(frozen=True, slots=True)
class SetSerialPattern:
    """Nothing typed: any serial number will do."""

    carries: Carries
    pattern: str
    kind: Literal["set-serial-pattern"] = "set-serial-pattern"


@dataclass(frozen=True, slots=True)
class SetCorner:
    """Where stickers begin."""

    corner: Corner
    kind: Literal["set-corner"] = "set-corner"


BuiltEdit = (
    MarkBuilt | UnmarkBuilt | NoteSiteChange | DropSiteNote | SetSerials | SwapSerials | SetUnitPort
    | SetSerialPattern | SetCorner
)  # fmt: skip
