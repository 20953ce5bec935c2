"""Tables of several module rows on posts: their modules, columns and heights over the ground."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.job.array import (
    SAME_ROW_M,
    Orientation,
    PlacedModule,
    PlaneArray,
    in_lines,
    table_of,
    ways_of_array,
)
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.survey.site_frame import to_site

# Lower edges nearer than this lie in one line; modules further apart than their gap and this
# stand on two tables.
SAME_LINE_M = 0.02


@dataclass(frozen=True, slots=True)
class Table:
    """One table: its modules column by column, its lower edge, and how high that is.

    ``left_m``, ``right_m`` and ``front_m`` on the plane; ``base_m`` over the ground where the
    site is measured from: ``clearance`` above the highest ground under the lower edge.
    """

    modules: tuple[PlacedModule, ...]
    left_m: float
    right_m: float
    front_m: float
    base_m: float


def front_m(lay: Lay, module: PlacedModule) -> float:
    """Return where the lower edge of a module's table lies on the plane, up from the eave."""
    return module.y_m - tier_up_m(lay, module.orientation, module.tier)


def tier_up_m(lay: Lay, orientation: Orientation, tier: int) -> float:
    """Return how far up the plane a tier of a table begins from its lowest edge."""
    return tier * lay.tier_m(orientation) * math.cos(math.radians(lay.leg_tilt_deg))


def slant_of_m(array: PlaneArray, lay: Lay) -> float:
    """Return how long the glass of an array's tables is up the slope."""
    return lay.table_m(ways_of_array(array).orientations[0])


def tiers_of(lay: Lay, places: Iterable[Place]) -> tuple[tuple[Place, int], ...]:
    """Return the modules of columns, each with its tier, from the places of their lowest ones."""
    return tuple(
        (replace(p, y_m=p.y_m + tier_up_m(lay, p.orientation, tier)), tier)
        for p in places
        for tier in range(lay.tiers)
    )


def columns_of(
    lay: Lay, modules: Sequence[PlacedModule]
) -> tuple[tuple[Place, tuple[PlacedModule, ...]], ...]:
    """Return each column of modules on a table with the place of its lowest; one each without tiers."""
    found = [[m] for m in modules] if lay.tiers == 1 else _columns(lay, modules)
    return tuple((Place(c[0].x_m, front_m(lay, c[0]), c[0].orientation), tuple(c)) for c in found)


def _columns(lay: Lay, modules: Sequence[PlacedModule]) -> list[list[PlacedModule]]:
    """Return modules that stand over each other, columns and modules in the order they came in."""
    places = {m.id: number for number, m in enumerate(modules)}
    found = [
        sorted(column, key=lambda m: places[m.id])
        for line in in_lines(modules, lambda m: m.x_m, lambda m: places[m.id], SAME_LINE_M)
        for column in in_lines(line, lambda m: front_m(lay, m), lambda m: m.tier, SAME_LINE_M)
    ]
    return sorted(found, key=lambda column: places[column[0].id])


def tables_of(plane: RoofPlane, array: PlaneArray, lay: Lay) -> tuple[Table, ...]:
    """Return the tables of an array on the ground, from the lower left on; bays belong to them.

    Notes
    -----
    A table's beams are level: it stands ``clearance`` over the highest ground under its front.
    """
    ground, table = plane.ground, table_of(array)
    columns = columns_of(lay, array.modules)
    lines = in_lines(columns, lambda c: c[0].y_m, lambda c: c[0].x_m, SAME_LINE_M)
    runs: list[list[tuple[Place, tuple[PlacedModule, ...]]]] = []
    for place, modules in (column for line in lines for column in line):
        last = runs[-1][-1][0] if runs else None
        if last is not None:
            end_m = last.x_m + lay.width_m(last.orientation)
            beside = place.x_m - end_m <= lay.gap_in_row_m + SAME_LINE_M
            level = abs(place.y_m - last.y_m) < SAME_LINE_M
            if beside and level and place.orientation is last.orientation:
                runs[-1].append((place, modules))
                continue
        runs.append([(place, modules)])
    found = []
    for run in runs:
        left, right = run[0][0].x_m, run[-1][0].x_m + lay.width_m(run[-1][0].orientation)
        front = run[0][0].y_m
        highest = 0.0
        if ground is not None:
            ends = to_site(plane, np.array([[left, front], [right, front]]))
            highest = float(ends[:, 2].max())
        modules = tuple(m for _, column in run for m in column)
        found.append(Table(modules, left, right, front, highest + table.clearance.value_m))
    return tuple(found)


def table_rows(tables: Iterable[Table]) -> tuple[tuple[Table, ...], ...]:
    """Return tables row by row from the lowest; those whose fronts nearly line up are one row."""
    rows: list[list[Table]] = []
    for table in sorted(tables, key=lambda t: t.front_m):
        if rows and table.front_m - rows[-1][-1].front_m < SAME_ROW_M:
            rows[-1].append(table)
        else:
            rows.append([table])
    return tuple(tuple(row) for row in rows)


def behind_frac(rows: int) -> float:
    """Return the share of so many rows alike that have one before them."""
    return (rows - 1) / rows if rows else 0.0


def raised(
    plane: RoofPlane, array: PlaneArray, lay: Lay, modules: Sequence[PlacedModule]
) -> tuple[Place, ...]:
    """Return the places of modules, those on ground tables as high as their posts hold them."""
    bare = tuple(Place(m.x_m, m.y_m, m.orientation) for m in modules)
    if plane.ground is None or not modules:
        return bare
    base = {m.id: t.base_m for t in tables_of(plane, array, lay) for m in t.modules}
    feet = to_site(plane, np.array([[p.x_m, p.y_m] for p in bare]))
    sine = math.sin(math.radians(lay.leg_tilt_deg))
    return tuple(
        replace(p, up_m=base[m.id] - float(foot[2]) + m.tier * lay.tier_m(m.orientation) * sine)
        for p, m, foot in zip(bare, modules, feet, strict=True)
    )


def ground_height_m(plane: RoofPlane, x_m: float, y_m: float) -> float:
    """Return how high the ground is at a point of a plane, over where the site is measured from."""
    return float(to_site(plane, np.array([[x_m, y_m]]))[0, 2])
