"""Metal roofs and carports: where brackets can sit under the modules, and rows set on the lines."""

from dataclasses import dataclass

from ridge_tally.core.array.seats import (
    USUAL_REACH_M,
    Seat,
    SeatLines,
    Side,
    near,
    seated,
)
from ridge_tally.core.job.array import (
    present_of,
)
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.survey import Covering, RoofPlane
from ridge_tally.editing.array.brackets import bracket_lines
from ridge_tally.rules.array.checks import lay_of, placed_at
from ridge_tally.rules.design import Design


@dataclass(frozen=True, slots=True)
class ModuleSeats:
    """A module, where brackets can sit under it, and which two edges can carry it."""

    module_id: PlacedId
    seats: tuple[Seat, ...]
    held_by: tuple[Side, ...]


@dataclass(frozen=True, slots=True)
class SeatReport:
    """All modules of a plane over its seams, ribs or beams.

    ``edges_on``: upright edges that fall on a line, of ``edges``.  ``held``: modules that two
    opposite edges can carry without a rail.  ``covers``: widths of sheet the array lies over.
    """

    lines_told: str
    reach_m: float
    modules: tuple[ModuleSeats, ...]
    held: int
    edges_on: int
    edges: int
    covers: float | None


def seat_report(design: Design, plane_id: PlaneId) -> SeatReport:
    """Return where brackets can sit under the modules of a plane.

    Raises
    ------
    MissingDatum
        If no seam, rib or purlin of the plane was read.
    """
    laid = design.on(plane_id)
    plane, present = laid.plane, present_of(laid.array)
    framing, lines = bracket_lines(plane)
    if not present:
        return SeatReport(_told(plane, lines), USUAL_REACH_M, (), 0, 0, 0, None)
    lay = lay_of(laid)
    places = placed_at(present)
    found = [seated(lines, lay, place, USUAL_REACH_M) for place in places]
    edges = [x for p in places for x in (p.x_m, p.x_m + lay.width_m(p.orientation))]
    cover = plane.structure.cover_width
    return SeatReport(
        _told(plane, lines),
        USUAL_REACH_M,
        tuple(
            ModuleSeats(m.id, one.seats, one.held_by) for m, one in zip(present, found, strict=True)
        ),
        sum(bool(one.held_by) for one in found),
        sum(near(x, lines.xs_m, USUAL_REACH_M) for x in edges),
        len(edges),
        (max(edges) - min(edges)) / cover.value_m if framing.laps_x_m and cover else None,
    )


def _told(plane: RoofPlane, lines: SeatLines) -> str:
    what = "seams" if plane.structure.covering is Covering.STANDING_SEAM else "ribs"
    if lines.crossings:
        return "where ribs cross purlins"
    if lines.xs_m and what == "ribs":
        return "along ribs; purlins are not read"
    return f"along {what}" if lines.xs_m else "along purlins"
