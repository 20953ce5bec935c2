"""What the survey's drawings and its part of the Tally show, as values."""

from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.job.ids import ObstructionId, PlaneId, ShadeId
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import EdgeKind, ReadingKind
from ridge_tally.core.survey.outline import Box
from ridge_tally.core.survey.scene import SitePoint3


class EdgeState(StrEnum):
    """How an edge's length is known."""

    TAPED = "taped"
    DERIVED = "derived"
    RECKONED = "reckoned"
    LOOSE = "loose"
    SUSPECT = "suspect"


class Closing(StrEnum):
    """How well the readings of an outline close; ``open`` while corners are loose."""

    OPEN = "open"
    UNCHECKED = "unchecked"
    GOOD = "good"
    FAIR = "fair"
    POOR = "poor"


@dataclass(frozen=True, slots=True)
class EdgeView:
    """An edge: what it is called, how long it came out, and how that is known."""

    name: str
    kind: EdgeKind
    length_text: str
    state: EdgeState


@dataclass(frozen=True, slots=True)
class ReadingView:
    """A reading beside what the adjustment made of it.

    ``fits_text`` is the length it came out as, ``residual_text`` that less what was read; ``predicted_text`` what a suspect should have read.
    """

    kind: ReadingKind
    at: tuple[int, ...]
    name: str
    typed: str
    fits_text: str
    residual_m: float | None
    residual_text: str
    suspect: bool
    predicted_text: str
    left_out: bool
    derived: bool


@dataclass(frozen=True, slots=True)
class CornerPair:
    """Two corners, counted from 0."""

    a: int
    b: int


@dataclass(frozen=True, slots=True)
class CornerView:
    """A corner; ``sd_m`` is ``None`` while corners are loose."""

    x_m: float
    y_m: float
    sd_m: float | None
    loose: bool


@dataclass(frozen=True, slots=True)
class ObstructionView:
    """Where an obstruction's offsets lead; ``off_plane`` when that is beside the plane."""

    id: ObstructionId
    round: bool
    box: Box
    off_plane: bool


@dataclass(frozen=True, slots=True)
class PlaneSurvey:
    """A plane as its readings make it, in metres up the slope."""

    plane_id: PlaneId
    corners: tuple[CornerView, ...]
    edges: tuple[EdgeView, ...]
    readings: tuple[ReadingView, ...]
    unmeasured: bool
    closing: Closing
    closing_text: str
    to_close: str
    would_fix: tuple[CornerPair, ...]
    doubt: str
    area_m2: float
    area_sd_m2: float | None
    obstructions: tuple[ObstructionView, ...]
    existing: tuple[Box, ...]
    rafters_x_m: tuple[float, ...]
    purlins_y_m: tuple[float, ...]
    ribs_x_m: tuple[float, ...]
    site: tuple[SitePoint3, ...]


@dataclass(frozen=True, slots=True)
class ShadeView:
    """A shade source where it stands; ``height_m`` is ``None`` until it is measured."""

    id: ShadeId
    at: SitePoint
    height_m: float | None
    height_text: str


class Where(StrEnum):
    """Which drawing of the survey shows a thing."""

    PLANE = "plane"
    SITE = "site"


@dataclass(frozen=True, slots=True)
class ToMeasure:
    """Something still to measure or in doubt, and where it is seen."""

    text: str
    where: Where
    plane_id: PlaneId | None = None
    doubt: bool = False


@dataclass(frozen=True, slots=True)
class SurveyReport:
    """What follows an edit of the survey at once."""

    planes: tuple[PlaneSurvey, ...]
    shade: tuple[ShadeView, ...]
    to_measure: tuple[ToMeasure, ...]
