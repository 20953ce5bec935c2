"""The modules of a plane, as placed: what a person chose, and nothing computed."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import TypeVar

from ridge_tally.core.equipment import ModuleId
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.places import Taped

T = TypeVar("T")


class Orientation(StrEnum):
    """Which side of a module stands up the slope."""

    PORTRAIT = "P"
    LANDSCAPE = "L"


OTHER_WAY = {
    Orientation.PORTRAIT: Orientation.LANDSCAPE,
    Orientation.LANDSCAPE: Orientation.PORTRAIT,
}


class Ways(StrEnum):
    """Which ways round the rows of a fill may lie; ``mixed`` chooses for each row."""

    PORTRAIT = "P"
    LANDSCAPE = "L"
    MIXED = "PL"

    @property
    def orientations(self) -> tuple[Orientation, ...]:
        """The orientations a row may have."""
        return tuple(Orientation(letter) for letter in self.value)


WAYS_TOLD = {Ways.PORTRAIT: "portrait", Ways.LANDSCAPE: "landscape", Ways.MIXED: "mixed rows"}


class RowRule(StrEnum):
    """How modules stand to each other.

    ``independent``: in rows along the eave, each where it likes sideways.  ``aligned``: in such
    rows, all of one orientation on one column grid.  ``free``: anywhere that is legal.
    """

    INDEPENDENT = "independent"
    ALIGNED = "aligned"
    FREE = "free"


@dataclass(frozen=True, slots=True)
class PlacedModule:
    """A module's place on its plane (lower left corner); ``present`` is what a click toggles.

    ``kept_because`` is why a person keeps it though a distance is short; empty for most.
    ``tier``: its row on a table that holds several, 0 for the lowest.
    """

    id: PlacedId
    x_m: float
    y_m: float
    orientation: Orientation
    present: bool
    kept_because: str = ""
    tier: int = 0


class Mounting(StrEnum):
    """How far modules stand off what they are fixed to, which sets how warm they run."""

    FLUSH = "flush"
    LOW_STAND_OFF = "low-stand-off"
    STAND_OFF = "stand-off"
    OPEN_RACK = "open-rack"


# What most frames have: grass under the lower edge, a beam's span, posts under a module's clamps;
# common practice, no source.
USUAL_CLEARANCE, USUAL_ALONG = Taped(0.6, "0.6 m"), Taped(2.5, "2.5 m")
USUAL_APART = Taped(1.0, "1.0 m")


@dataclass(frozen=True, slots=True)
class Position:
    """A tilt held from a day of the year (0 the first of January) until the next one's."""

    from_day: int
    tilt_deg: float


@dataclass(frozen=True, slots=True)
class GroundTable:
    """A table of ``rows`` module rows on posts.

    ``clearance``: the lowest edge over the ground.  Posts stand ``along`` apart in a row at most,
    in a front and a back row ``apart`` measured up the glass, so that both overhang alike.
    ``seasons``: tilts it is changed between, in the order of the year; none where it stays.
    """

    rows: int = 1
    clearance: Taped = USUAL_CLEARANCE
    along: Taped = USUAL_ALONG
    apart: Taped = USUAL_APART
    seasons: tuple[Position, ...] = ()


@dataclass(frozen=True, slots=True)
class PlaneArray:
    """The modules of one plane, the gaps they keep, and what a fill of it is to look like.

    ``shortest_run``: each run of touching modules in a row has at least so many.
    ``symmetric``: rows mirror themselves about the middle of the eave.
    ``leg_tilt_deg``: how much steeper than the plane legs hold each row, its upper edge lifted;
    the gap between rows is then what the plane shows between one and the next.  Tables changed
    with the seasons are laid and drawn at their steepest.
    ``brushed``: somebody clears snow off it.  ``module_id``: of another type than the option's.
    ``table``: how the tables of a ground array stand; ``None`` on roofs.
    """

    plane_id: PlaneId
    gap_in_row: Taped
    gap_between_rows: Taped
    modules: tuple[PlacedModule, ...]
    shortest_run: int = 1
    symmetric: bool = False
    mounting: Mounting = Mounting.STAND_OFF
    leg_tilt_deg: float = 0.0
    brushed: bool = False
    module_id: ModuleId | None = None
    table: GroundTable | None = None


def table_of(array: PlaneArray) -> GroundTable:
    """Return how an array's tables stand, the usual where none was given."""
    return array.table or GroundTable()


def present_of(array: PlaneArray) -> tuple[PlacedModule, ...]:
    """Return the modules that are there."""
    return tuple(m for m in array.modules if m.present)


# Places are kept to the hundredth of a millimetre.
ROUNDED_TO = 5
# Modules whose bottoms differ by less than this stand in one row.
SAME_ROW_M = 0.05


def in_lines(
    things: Iterable[T],
    across: Callable[[T], float],
    along: Callable[[T], float],
    within_m: float = SAME_ROW_M,
) -> tuple[tuple[T, ...], ...]:
    """Return things line by line, lines by how far across they lie, each in its order along.

    What lies within so many metres of a line's first belongs to it: a line is told by distance,
    never by a grid's edges.
    """
    lines: list[list[T]] = []
    for thing in sorted(things, key=across):
        if lines and across(thing) - across(lines[-1][0]) <= within_m:
            lines[-1].append(thing)
        else:
            lines.append([thing])
    return tuple(tuple(sorted(line, key=along)) for line in lines)


def module_rows(modules: Iterable[PlacedModule]) -> tuple[tuple[PlacedModule, ...], ...]:
    """Return modules row by row from the lowest, each row from its left."""
    return in_lines(modules, lambda m: m.y_m, lambda m: m.x_m)


def ways_of_array(array: PlaneArray) -> Ways:
    """Return the ways round the modules of an array lie; portrait while there is none."""
    ways = {m.orientation.value for m in array.modules if m.present}
    ways = ways or {m.orientation.value for m in array.modules} or {"P"}
    return Ways("PL" if len(ways) > 1 else ways.pop())


# Room for a mid clamp between two modules; common practice, no source.
USUAL_GAP = Taped(0.02, "20 mm")


def mounting_of(array: PlaneArray) -> Mounting:
    """Return how modules of an array stand: in the open where they are on legs."""
    return Mounting.OPEN_RACK if array.leg_tilt_deg > 0 else array.mounting


def empty_array(plane_id: PlaneId) -> PlaneArray:
    """Return an array of no modules, with the usual gaps."""
    return PlaneArray(plane_id, USUAL_GAP, USUAL_GAP, ())
