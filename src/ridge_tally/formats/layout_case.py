"""Layout case files: a roof with strips, obstructions and a module in, the count of a fill out."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from ridge_tally.core.array.blockers import (
    BlockerKind,
    LayoutRegion,
    Owner,
    ground_from,
    with_disc,
    with_ring,
)
from ridge_tally.core.array.fill import fill
from ridge_tally.core.array.lay import Fill, Lay
from ridge_tally.core.errors import FormatError, OutOfRange
from ridge_tally.core.job.array import RowRule, Ways
from ridge_tally.core.survey.polygon import area_m2
from ridge_tally.formats.case_file import read_case

MOST_OBSTRUCTIONS = 500
# How a box's sides, and a ring's corners, may be called; the first spelling present is taken.
WIDTHS, HEIGHTS = ("w", "width", "dx"), ("h", "height", "depth", "dy")
RINGS = ("polygon", "points", "vertices", "corners")


@dataclass(frozen=True, slots=True)
class LayoutCase:
    """A roof, and how modules are to lie on it."""

    ground: LayoutRegion
    lay: Lay


def read_layout_case(text: str, file: str) -> LayoutCase:
    """Return the roof and the lay of a case file.

    Raises
    ------
    FormatError
        Naming the place in the file, the value and the remedy.
    OutOfRange
        If a length cannot be.
    """
    case = _Case(text, file)
    corners = case.ring(case.data, ("polygon",), "polygon")
    if area_m2(corners) < 0:
        raise FormatError(file, "polygon", "its corners run clockwise", "List them anticlockwise.")
    edges = case.rows("edges")
    if len(edges) != len(corners):
        raise FormatError(
            file, "edges", f"{len(edges)} for {len(corners)} corners", "Give a kind for each edge."
        )
    ground = ground_from(
        corners,
        [case.strip_m(edge, i) for i, edge in enumerate(edges)],
        [str(edge.get("kind", i)) for i, edge in enumerate(edges)],
    )
    obstructions = case.rows("obstructions")
    if len(obstructions) > MOST_OBSTRUCTIONS:
        raise OutOfRange("Obstructions", len(obstructions), f"at most {MOST_OBSTRUCTIONS}")
    for i, row in enumerate(obstructions):
        ground = case.with_obstruction(ground, row, i)
    module = case.data.get("module")
    if not isinstance(module, dict):
        raise FormatError(file, "module", "there is none", "Give its long and short side.")
    long_m = case.length_m(module, ("long",), "module.long", positive=True)
    short_m = case.length_m(module, ("short",), "module.short", positive=True)
    if short_m > long_m:
        raise OutOfRange("module.short", short_m, f"at most the long side, {long_m:g}")
    run = case.data.get("min_run", 1)
    if not isinstance(run, int) or run < 1:
        raise FormatError(file, "min_run", f"it reads {run!r}", "Give a whole number from 1.")
    lay = Lay(
        long_m,
        short_m,
        case.length_m(case.data, ("gap_in_row",), "gap_in_row"),
        case.length_m(case.data, ("gap_between_rows",), "gap_between_rows"),
        run,
    )
    return LayoutCase(ground, lay)


def solve_layout_case(
    text: str, file: str, rule: RowRule, ways: Ways, given_up: Callable[[], bool]
) -> dict[str, Any]:
    """Return the fill of a case file as plain values; raises as ``read_layout_case``."""
    case = read_layout_case(text, file)
    found: Fill = fill(case.ground, case.lay, ways, rule, given_up)
    return {
        "count": found.count,
        "bound": found.at_most,
        "proven": found.proven,
        "placements": [
            [round(p.x_m, 6), round(p.y_m, 6), p.orientation.value] for p in found.places
        ],
    }


class _Case:
    """The plain values of a case, read with the place named in every complaint."""

    def __init__(self, text: str, file: str) -> None:
        self.file = file
        data = read_case(text, file)
        if not isinstance(data, dict) or "polygon" not in data:
            raise FormatError(file, "polygon", "there is none", "Choose a layout case file.")
        self.data: dict[str, Any] = data

    def rows(self, name: str) -> list[dict[str, Any]]:
        rows = self.data.get(name, [])
        if not isinstance(rows, list) or not all(isinstance(r, dict) for r in rows):
            raise FormatError(self.file, name, "this is no list of objects", "See the other cases.")
        return rows

    def length_m(
        self, row: dict[str, Any], names: tuple[str, ...], place: str, positive: bool = False
    ) -> float:
        found = next((row[n] for n in names if n in row), None)
        if isinstance(found, bool) or not isinstance(found, int | float) or not np.isfinite(found):
            raise FormatError(self.file, place, f"it reads {found!r}", "Give a length in metres.")
        if found < 0 or (positive and found == 0):
            raise OutOfRange(place, found, "more than 0" if positive else "0 or more")
        return float(found)

    def number(self, row: dict[str, Any], name: str, place: str) -> float:
        found = row.get(name)
        if isinstance(found, bool) or not isinstance(found, int | float) or not np.isfinite(found):
            raise FormatError(self.file, f"{place}.{name}", f"it reads {found!r}", "Give metres.")
        return float(found)

    def ring(self, row: dict[str, Any], names: tuple[str, ...], place: str) -> np.ndarray:
        found = next((row[n] for n in names if n in row), None)
        try:
            ring = np.array(found, dtype=float)
        except (TypeError, ValueError):
            ring = np.array([])
        if ring.ndim != 2 or ring.shape[1] != 2 or len(ring) < 3 or not np.isfinite(ring).all():
            raise FormatError(self.file, place, "this is no ring of corners", "List [x, y] pairs.")
        return ring

    def strip_m(self, edge: dict[str, Any], number: int) -> float:
        place = f"edges.{number}"
        if "setback" in edge:
            return self.length_m(edge, ("setback",), f"{place}.setback")
        strips = self.data.get("setbacks", {})
        kind = edge.get("kind")
        if not isinstance(strips, dict) or kind not in strips:
            raise FormatError(
                self.file, place, f"no setback for an edge of kind {kind!r}", "Add it to setbacks."
            )
        return self.length_m(strips, (str(kind),), f"setbacks.{kind}")

    def with_obstruction(
        self, ground: LayoutRegion, row: dict[str, Any], number: int
    ) -> LayoutRegion:
        place = f"obstructions.{number}"
        owner = Owner(BlockerKind.OBSTRUCTION, str(number), str(row.get("label", place)))
        clearance_m = self.length_m({"clearance": 0.0, **row}, ("clearance",), f"{place}.clearance")
        kind = row.get("type")
        if kind == "circle":
            radius_m = self.length_m(row, ("r", "radius"), f"{place}.r")
            x_m, y_m = (self.number(row, axis, place) for axis in "xy")
            return with_disc(ground, x_m, y_m, radius_m, clearance_m, owner)
        if kind in ("polygon", "ring"):
            return with_ring(ground, self.ring(row, RINGS, place), clearance_m, owner)
        if kind in ("rect", "rectangle", "box"):
            x_m, y_m = (self.number(row, axis, place) for axis in "xy")
            right_m = x_m + self.length_m(row, WIDTHS, f"{place}.w")
            top_m = y_m + self.length_m(row, HEIGHTS, f"{place}.h")
            ring = np.array([[x_m, y_m], [right_m, y_m], [right_m, top_m], [x_m, top_m]])
            return with_ring(ground, ring, clearance_m, owner)
        raise FormatError(
            self.file, f"{place}.type", f"it reads {kind!r}", "Use circle, rect or polygon."
        )
