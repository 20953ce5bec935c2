"""Rows of a metal roof or carport set on the lines that can carry them."""

from dataclasses import replace
from itertools import pairwise

from ridge_tally.core.array.blockers import LayoutRegion, ground_of
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.legal import shortfalls
from ridge_tally.core.array.seats import (
    USUAL_REACH_M,
    SeatLines,
    seated,
    shifts_m,
)
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.array import (
    ROUNDED_TO,
    PlacedModule,
    PlaneArray,
    module_rows,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.survey import Covering, RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.survey.framing import FramingLines, framing_lines
from ridge_tally.core.survey.outline import corners_m, require_closed
from ridge_tally.rules.array.checks import lay_of, placed_at


def bracket_lines(plane: RoofPlane) -> tuple[FramingLines, SeatLines]:
    """Return a plane's framing and where brackets can sit on it; MissingDatum if none was read."""
    require_closed(plane)
    framing = framing_lines(plane, corners_m(plane))
    if not framing.ribs_x_m and not framing.purlins_y_m:
        raise MissingDatum(
            "seams, ribs or purlins read yet",
            plane.name,
            "Type their spacing in Survey under “Structure”.",
        )
    # A seam is clamped anywhere; a ribbed sheet is screwed through to what lies under it.
    through = plane.structure.covering is not Covering.STANDING_SEAM
    both = bool(framing.ribs_x_m and framing.purlins_y_m) and through
    ys = framing.purlins_y_m if through else ()
    return framing, SeatLines(framing.ribs_x_m, ys, crossings=both)


def set_on_lines(laid: LaidArray) -> PlaneArray:
    """Return the array with its rows shifted sideways, and up, onto the lines under them.

    Kept is the shift that lets most modules be held without a rail, then puts most edges over
    a line, then is the smallest; never one by which a distance that is kept would no longer be.

    Raises
    ------
    MissingDatum
        If no seam, rib or purlin of the plane was read.
    """
    plane, array = laid.plane, laid.array
    _, lines = bracket_lines(plane)
    setter = _Setter(plane, array, lay_of(laid), lines)
    modules = setter.upwards(list(array.modules))
    for row in module_rows(modules):
        modules = setter.sideways(modules, {m.id for m in row})
    return replace(array, modules=tuple(modules))


class _Setter:
    def __init__(self, plane: RoofPlane, array: PlaneArray, lay: Lay, lines: SeatLines) -> None:
        self.ground: LayoutRegion = ground_of(plane)
        self.lay, self.lines = lay, lines
        self.wrong = self._wrong(list(array.modules))

    def upwards(self, modules: list[PlacedModule]) -> list[PlacedModule]:
        edges = [y for m in modules for y in (m.y_m, m.y_m + self.lay.height_m(m.orientation))]
        shifts = [(0.0, up) for up in self._shifts(edges, self.lines.ys_m)]
        return self._best(modules, {m.id for m in modules}, shifts)

    def sideways(self, modules: list[PlacedModule], row: set[PlacedId]) -> list[PlacedModule]:
        mine = [m for m in modules if m.id in row]
        edges = [x for m in mine for x in (m.x_m, m.x_m + self.lay.width_m(m.orientation))]
        shifts = [(right, 0.0) for right in self._shifts(edges, self.lines.xs_m)]
        return self._best(modules, row, shifts)

    @staticmethod
    def _shifts(edges: list[float], lines: tuple[float, ...]) -> list[float]:
        step = min((b - a for a, b in pairwise(lines)), default=0.6)
        return shifts_m(edges, lines, step, USUAL_REACH_M)

    def _best(
        self,
        modules: list[PlacedModule],
        row: set[PlacedId],
        shifts: list[tuple[float, float]],
    ) -> list[PlacedModule]:
        """Return the modules with those of a row at the best of shifts, right and up, metres."""
        best, most = modules, self._worth(modules)
        for right, up in shifts:
            moved = [
                replace(
                    m,
                    x_m=round(m.x_m + right, ROUNDED_TO),
                    y_m=round(m.y_m + up, ROUNDED_TO),
                )
                if m.id in row
                else m
                for m in modules
            ]
            # Shifts come nearest first: an equal one further off is no better.
            worth = self._worth(moved)
            if worth > most and self._wrong(moved) <= self.wrong:
                best, most = moved, worth
        return best

    def _worth(self, modules: list[PlacedModule]) -> tuple[int, int]:
        places = self._places(modules)
        found = [seated(self.lines, self.lay, p, USUAL_REACH_M) for p in places]
        on = sum(len({s.side for s in one.seats}) for one in found)
        return sum(bool(one.held_by) for one in found), on

    def _wrong(self, modules: list[PlacedModule]) -> int:
        return sum(map(len, shortfalls(self.ground, self.lay, self._places(modules))))

    @staticmethod
    def _places(modules: list[PlacedModule]) -> tuple[Place, ...]:
        return placed_at(tuple(m for m in modules if m.present))
