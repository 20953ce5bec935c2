"""Why not one more module on a plane: told in words, drawn as distances, mended by edits."""

from dataclasses import dataclass

from ridge_tally.core.array.blockers import BlockerKind, ground_of
from ridge_tally.core.array.tables import columns_of
from ridge_tally.core.array.why_not import Change, ChangeKind, RowRoom, changes, most, row_rooms
from ridge_tally.core.job.array import WAYS_TOLD, Orientation, Ways, present_of, ways_of_array
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.fills import ArrayField, FillPlane, SetArrayField
from ridge_tally.core.job.edits.survey.obstructions import ObstructionField, SetObstructionField
from ridge_tally.core.job.edits.survey.planes import PlaneField, SetPlaneField
from ridge_tally.core.job.ids import ObstructionId, OptionId, PlaneId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.survey.outline import require_closed
from ridge_tally.core.survey.taping import small_size_text
from ridge_tally.core.units import LengthUnit
from ridge_tally.rules.array.checks import lay_of, standing
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk

# Rows further than this from one more module are not worth a line.
MOST_ROWS = 6
MOST_CHANGES = 6


@dataclass(frozen=True, slots=True)
class RowTold:
    """A row and what it lacks; the stretch between its bounds is drawn on the plan."""

    told: str
    orientation: Orientation
    bottom_m: float
    top_m: float
    left_m: float
    right_m: float
    short_m: float


@dataclass(frozen=True, slots=True)
class WayIn:
    """A change that lets more in, how many there are then, and the edits that make it."""

    told: str
    modules: int
    edits: tuple[Edit, ...]


@dataclass(frozen=True, slots=True)
class OneMore:
    """The answer: what the layout holds, what a fill holds, what lacks and what would help."""

    holds: int
    fill_holds: int
    told: str
    rows: tuple[RowTold, ...]
    ways_in: tuple[WayIn, ...]


def one_more(desk: Desk, design: Design, plane_id: PlaneId) -> OneMore:
    """Return what blocks the next module and the smallest changes that would let it in.

    Raises
    ------
    MissingDatum
        If the plane does not close yet.
    """
    laid = design.on(plane_id)
    require_closed(laid.plane)
    key = ("one-more", laid.plane, laid.array, laid.module, design.job.unit, design.option.id)
    return desk.fills.get(key, lambda: _one_more(design, laid))


def _one_more(design: Design, laid: LaidArray) -> OneMore:
    plane, array, lay, unit = laid.plane, laid.array, lay_of(laid), design.job.unit
    present = present_of(array)
    ways = ways_of_array(array)
    ground = ground_of(plane, standing(laid).path_edge)
    fill_holds = most(ground, lay, ways) * lay.tiers
    fill_it: tuple[Edit, ...] = (FillPlane(design.option.id, plane.id, ways),)
    ways_in = [
        WayIn(_change_told(c, unit), c.modules * lay.tiers, (*edits, *fill_it) if edits else ())
        for c in changes(ground, lay, ways, tuple(k.value for k in plane.outline.edges))
        for edits in [_edits(design.option.id, plane, c)]
    ]
    if fill_holds > len(present):
        again = f"Fill again in {WAYS_TOLD[ways]}: there is room as it is"
        ways_in.insert(0, WayIn(again, fill_holds, fill_it))
    for other in Ways:
        count = fill_holds if other is ways else most(ground, lay, other) * lay.tiers
        if count > max(fill_holds, len(present)):
            lay_them = FillPlane(design.option.id, plane.id, other)
            ways_in.insert(0, WayIn(f"Lay them in {WAYS_TOLD[other]}", count, (lay_them,)))
    columns = tuple(place for place, _ in columns_of(lay, present))
    rooms = row_rooms(ground, lay, columns)[:MOST_ROWS]
    return OneMore(
        holds=len(present),
        fill_holds=fill_holds,
        told=_told(len(present), fill_holds, ways, rooms, unit),
        rows=tuple(_row_told(room, unit) for room in rooms),
        ways_in=tuple(ways_in[:MOST_CHANGES]),
    )


def _told(
    holds: int, fill_holds: int, ways: Ways, rooms: tuple[RowRoom, ...], unit: LengthUnit
) -> str:
    if fill_holds > holds:
        return f"A fill in {WAYS_TOLD[ways]} holds {fill_holds}, this layout {holds}."
    if not rooms:
        return "Nothing is laid yet."
    return (
        f"No layout in {WAYS_TOLD[ways]} rows was found to hold more than {fill_holds}. "
        f"Nearest to another: {_bounds_told(rooms[0])}, {_lack_told(rooms[0], unit)}."
    )


def _bounds_told(room: RowRoom) -> str:
    return f"{room.modules} in a row between {room.left_owner.name} and {room.right_owner.name}"


def _lack_told(room: RowRoom, unit: LengthUnit) -> str:
    if room.short_m > 0:
        return f"{small_size_text(room.short_m, unit)} short of one more"
    return "room for one more once closed up"


def _row_told(room: RowRoom, unit: LengthUnit) -> RowTold:
    return RowTold(
        f"{_bounds_told(room)}: {_lack_told(room, unit)}",
        room.orientation,
        room.bottom_m,
        room.top_m,
        room.left_m,
        room.right_m,
        room.short_m,
    )


def _change_told(change: Change, unit: LengthUnit) -> str:
    by = small_size_text(change.by_m, unit)
    to = small_size_text(change.to_m, unit)
    names = change.owners[0].name
    match change.kind:
        case ChangeKind.STRIP:
            owners = change.owners
            at = names if len(owners) == 1 else f"{change.edge_kind}s"
            return f"Strip at the {at} {by} narrower, {to} left"
        case ChangeKind.CLEARANCE:
            return f"Clearance of {names} {by} less, {to} left"
        case ChangeKind.AWAY:
            return f"{names} moved off this plane"
        case _:
            return f"The {names} {by} narrower, {to} left"


def _edits(option_id: OptionId, plane: RoofPlane, change: Change) -> tuple[Edit, ...]:
    typed, plane_id = f"{change.to_m * 1000:.0f} mm", plane.id
    match change.kind:
        case ChangeKind.STRIP:
            kind = plane.outline.edges[int(change.owners[0].id)]
            return (SetPlaneField(plane_id, PlaneField(f"setback_{kind.value}"), typed),)
        case ChangeKind.CLEARANCE:
            assert change.owners[0].kind is BlockerKind.OBSTRUCTION
            obstruction = ObstructionId(change.owners[0].id)
            return (SetObstructionField(plane_id, obstruction, ObstructionField.CLEARANCE, typed),)
        case ChangeKind.GAP_IN_ROW:
            return (SetArrayField(option_id, plane_id, ArrayField.GAP_IN_ROW, typed),)
        case ChangeKind.GAP_BETWEEN_ROWS:
            return (SetArrayField(option_id, plane_id, ArrayField.GAP_BETWEEN_ROWS, typed),)
        case ChangeKind.AWAY:
            return ()
