"""What was measured on site, as given: planes, what stands on and around them, the service."""

from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.job.ids import (
    AttachmentId,
    ExistingId,
    KeepOutId,
    LotLineId,
    ObstructionId,
    PlaneId,
    ShadeId,
)
from ridge_tally.core.job.places import PlanePoint, SitePoint, Taped
from ridge_tally.core.job.service import Service


class EdgeKind(StrEnum):
    """What an edge of a plane is."""

    EAVE = "eave"
    RAKE = "rake"
    RIDGE = "ridge"
    HIP = "hip"
    VALLEY = "valley"
    WALL = "wall"
    BOUNDARY = "boundary"


class ReadingKind(StrEnum):
    """What was measured, or drawn as a fact."""

    SIDE = "side"
    DIAGONAL = "diagonal"
    OFFSET = "offset"
    ALONG = "along"
    RIGHT_ANGLE = "right_angle"
    PARALLEL = "parallel"
    ON_LINE = "on_line"


@dataclass(frozen=True, slots=True)
class TapeReading:
    """A reading on an outline; ``taped`` is ``None`` for facts such as a corner drawn square.

    ``at`` names corners and edges from 0: a side its edge; a diagonal two corners; an offset,
    a distance along, or a corner on a line, the corner and the edge; a right angle its corner;
    parallels two edges.  ``derived`` marks what another plane gave, until it is taped.
    """

    kind: ReadingKind
    at: tuple[int, ...]
    taped: Taped | None = None
    left_out: bool = False
    derived: bool = False


@dataclass(frozen=True, slots=True)
class Outline:
    """A plane's outline as sketched, and the readings that give it its scale.

    ``corners`` run anticlockwise; the first edge is the eave (or the lower edge), left to
    right.  The sketch gives the shape's sense only: lengths come from the readings.
    ``edges[i]`` runs from corner i to the next.
    """

    corners: tuple[PlanePoint, ...]
    edges: tuple[EdgeKind, ...]
    readings: tuple[TapeReading, ...]


class LengthBasis(StrEnum):
    """Whether a plane's lengths were taped along the slope or taken from a plan."""

    SLOPE = "slope"
    PLAN = "plan"


# Room to walk round a ground array; common practice, no source.
USUAL_BOUNDARY = Taped(0.5, "0.5 m")


@dataclass(frozen=True, slots=True)
class Setbacks:
    """Strips along the edges that stay free of modules."""

    eave: Taped
    ridge: Taped
    rake: Taped
    hip: Taped
    valley: Taped
    wall: Taped
    boundary: Taped = USUAL_BOUNDARY


@dataclass(frozen=True, slots=True)
class AccessPath:
    """A strip from the eave to the ridge that stays free along one edge of those kinds."""

    width: Taped
    along: tuple[EdgeKind, ...]


class ObstructionKind(StrEnum):
    """What stands on a plane: pipes and dishes are round, the others boxes along the eave."""

    VENT = "vent"
    FLUE = "flue"
    DISH = "dish"
    CHIMNEY = "chimney"
    SKYLIGHT = "skylight"
    BOX_VENT = "box-vent"
    HATCH = "hatch"
    OTHER = "other"


ROUND_KINDS = frozenset({ObstructionKind.VENT, ObstructionKind.FLUE, ObstructionKind.DISH})


class OffsetMode(StrEnum):
    """How an obstruction's left offset was taped.

    ``corner``: along the eave from its left corner.  ``edge``: along the eave's direction from
    the left edge beside it.  ``square``: square off the left edge.
    """

    CORNER = "corner"
    EDGE = "edge"
    SQUARE = "square"


@dataclass(frozen=True, slots=True)
class Obstruction:
    """Something standing on a plane.

    ``bottom`` is square up from the eave, ``left`` as ``offsets`` says: both to the centre of
    a round thing, to the near faces of a box.  ``width`` is a round thing's diameter.
    """

    id: ObstructionId
    kind: ObstructionKind
    name: str
    left: Taped
    bottom: Taped
    width: Taped
    depth: Taped
    height: Taped
    clearance: Taped
    offsets: OffsetMode = OffsetMode.CORNER


@dataclass(frozen=True, slots=True)
class KeepOut:
    """A zone of a plane that stays free, and why."""

    id: KeepOutId
    reason: str
    corners: tuple[PlanePoint, ...]


@dataclass(frozen=True, slots=True)
class ExistingRows:
    """Modules already on a plane: columns and rows of one size, from their lower left corner."""

    existing_id: ExistingId
    left: Taped
    bottom: Taped
    columns: int
    rows: int
    width: Taped
    height: Taped


class Covering(StrEnum):
    """What a roof is covered with."""

    SHINGLE = "shingle"
    TILE = "tile"
    STANDING_SEAM = "standing-seam"
    RIBBED_METAL = "ribbed-metal"
    MEMBRANE = "membrane"


class Framing(StrEnum):
    """What carries a roof."""

    RAFTERS = "rafters"
    TRUSSES = "trusses"


@dataclass(frozen=True, slots=True)
class FoundRafter:
    """A rafter as it was found, from the left edge, and whether a mount may stand on it."""

    at: Taped
    usable: bool


@dataclass(frozen=True, slots=True)
class Structure:
    """What mounts will find under them; ``None`` until somebody has looked.

    Rafters run up the slope, the first ``first_rafter`` from the left edge; purlins run
    along the eave, the first ``first_purlin`` up from it.  Seams and ribs run up the slope, the
    first ``first_rib`` from the left edge, or at it; ribs begin anew on each sheet.
    ``found_rafters``: found by tapping or probing, in the place of even spacing.
    """

    covering: Covering | None = None
    seam_spacing: Taped | None = None
    rib_spacing: Taped | None = None
    rib_height: Taped | None = None
    cover_width: Taped | None = None
    framing: Framing | None = None
    rafter_spacing: Taped | None = None
    first_rafter: Taped | None = None
    rafter_span: Taped | None = None
    rafter_size: str = ""
    purlin_spacing: Taped | None = None
    first_purlin: Taped | None = None
    first_rib: Taped | None = None
    found_rafters: tuple[FoundRafter, ...] = ()


@dataclass(frozen=True, slots=True)
class GroundArea:
    """What makes a plane a piece of ground: its fall, what is in it, and what it must keep from.

    The ground falls by ``slope_deg`` towards ``falls_to_deg`` (true); the plane itself is level,
    its x along the rows.  ``lot_distance``: how far from a lot line a table must stay;
    ``snow_depth``: how deep snow lies; ``trench_depth``: of the trench to the panel, its
    ``trench_route`` the points it turns at.
    """

    slope_deg: float = 0.0
    falls_to_deg: float = 180.0
    soil: str = ""
    lot_distance: Taped | None = None
    snow_depth: Taped | None = None
    trench_depth: Taped | None = None
    trench_route: tuple[SitePoint, ...] = ()


@dataclass(frozen=True, slots=True)
class RoofPlane:
    """One roof plane, or wall, seen from outside, facing it: x to the right, y up the slope.

    ``azimuth_deg`` is true; ``compass_deg`` is what a compass read where it comes from one.
    ``at`` is where the outline's first corner lies on the site plan, ``eave_height`` how high.
    ``setback_pack`` is the set the strips were last taken from.
    Until somebody measures them ``slope_typed`` is empty and ``azimuth_given`` is false: the
    figures beside them are guesses.  ``ground`` makes it a level frame over a piece of ground;
    ``open_below`` a carport's roof, on posts with no walls.  ``at_given`` is false while it lies
    beside the others, where nobody has put it.
    """

    id: PlaneId
    name: str
    outline: Outline
    slope_deg: float
    slope_typed: str
    azimuth_deg: float
    setbacks: Setbacks
    obstructions: tuple[Obstruction, ...] = ()
    compass_deg: float | None = None
    lengths: LengthBasis = LengthBasis.SLOPE
    at: SitePoint = SitePoint(0.0, 0.0)
    eave_height: Taped | None = None
    keep_outs: tuple[KeepOut, ...] = ()
    existing: tuple[ExistingRows, ...] = ()
    structure: Structure = Structure()
    azimuth_given: bool = True
    access: AccessPath | None = None
    setback_pack: str = ""
    ground: GroundArea | None = None
    open_below: bool = False
    at_given: bool = True


@dataclass(frozen=True, slots=True)
class LotLine:
    """A lot line or boundary as points in order; ``closed`` joins the last to the first."""

    id: LotLineId
    name: str
    points: tuple[SitePoint, ...]
    closed: bool


@dataclass(frozen=True, slots=True)
class Picture:
    """A stored picture: its content's SHA-256 and its size."""

    sha256: str
    width_px: int
    height_px: int


@dataclass(frozen=True, slots=True)
class PicturePoint:
    """A point of a picture, pixels from its upper left corner."""

    x_px: float
    y_px: float


@dataclass(frozen=True, slots=True)
class Trace:
    """The user's own plat or overhead picture under the site plan.

    Two points of it are known to be ``distance`` apart; ``first`` lies at ``at`` and the
    picture's up points ``turned_deg`` clockwise from north.
    """

    picture: Picture
    first: PicturePoint
    second: PicturePoint
    distance: Taped
    at: SitePoint
    turned_deg: float = 0.0


class ShadeKind(StrEnum):
    """What throws shade from beside the house."""

    TREE = "tree"
    HOUSE = "house"
    POLE = "pole"
    CHIMNEY = "chimney"


class CrownShape(StrEnum):
    """The outline of a tree's crown: an ellipsoid, or a cone with its tip at the top."""

    ROUND = "round"
    CONE = "cone"


class LeafHabit(StrEnum):
    """Whether a tree stands bare for part of the year."""

    EVERGREEN = "evergreen"
    DECIDUOUS = "deciduous"


@dataclass(frozen=True, slots=True)
class Sighting:
    """A bearing and distance from a station, and the angle up to the top where it was read.

    ``bearing_deg`` is true; ``compass_deg`` is what a compass read where it comes from one.
    """

    station: SitePoint
    bearing_deg: float
    distance: Taped
    compass_deg: float | None = None
    top_deg: float | None = None
    eye: Taped | None = None


@dataclass(frozen=True, slots=True)
class ShadeSource:
    """A tree, house, pole or chimney near the array.

    ``at`` is its middle on the site plan, unless it was sighted.  ``width`` is a crown's,
    pole's or chimney's diameter, or a house's length along ``turned_deg``; ``base`` is where
    a crown or a house's roof begins.  ``height`` is ``None`` until it is given or sighted.
    """

    id: ShadeId
    kind: ShadeKind
    name: str
    at: SitePoint
    height: Taped | None
    width: Taped
    depth: Taped
    base: Taped
    trunk: Taped
    turned_deg: float = 0.0
    leaf: LeafHabit = LeafHabit.EVERGREEN
    first_leaf_month: int = 5
    last_leaf_month: int = 10
    sighting: Sighting | None = None
    crown: CrownShape = CrownShape.ROUND


@dataclass(frozen=True, slots=True)
class HorizonPoint:
    """The far horizon's elevation in one true bearing, degrees."""

    bearing_deg: float
    elevation_deg: float


@dataclass(frozen=True, slots=True)
class Attachment:
    """A photo or a note hung on a plane, on an obstruction of it, or on the panel."""

    id: AttachmentId
    text: str
    picture: Picture | None = None
    plane_id: PlaneId | None = None
    obstruction_id: ObstructionId | None = None


@dataclass(frozen=True, slots=True)
class Survey:
    """Everything measured on site."""

    planes: tuple[RoofPlane, ...]
    service: Service = Service()
    lot_lines: tuple[LotLine, ...] = ()
    trace: Trace | None = None
    shade_sources: tuple[ShadeSource, ...] = ()
    horizon: tuple[HorizonPoint, ...] = ()
    attachments: tuple[Attachment, ...] = ()
