"""A ground array as it stands: tables, posts over the ground, how far rows are apart and what it costs."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq

from ridge_tally.core.array.stances import Stand, positions_of, stands, tilt_by_day
from ridge_tally.core.array.tables import Table, behind_frac, table_rows, tables_of
from ridge_tally.core.job.array import GroundTable, PlaneArray, present_of
from ridge_tally.core.job.document import Job, Option, module_on, plane_of
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.core.sun.row_spacing import FROM_H, TO_H, Rows, shaded_frac, solstice_gap_m
from ridge_tally.core.sun.shading import glass_of
from ridge_tally.core.sun.spliced import parts_while
from ridge_tally.core.survey.lot import lot_distance_m
from ridge_tally.core.survey.outline import require_closed
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.core.working import Check, Verdict
from ridge_tally.rules.array import lay_of
from ridge_tally.rules.ground import rings_in_year, rows_of, table_checks
from ridge_tally.services.array_editing import array_of
from ridge_tally.services.array_light import array_lights
from ridge_tally.services.editing import design_for
from ridge_tally.services.ground_editing import ground_of_plane
from ridge_tally.services.ground_posts import Post, posts_of
from ridge_tally.services.site_sky import site_sky, turned
from ridge_tally.services.workspace import Workspace

FloatArray = NDArray[np.float64]
# Gaps looked at, as shares of the shortest day's.
CURVE = tuple(i / 10 for i in range(1, 19))
WIDEST_M = 60.0


@dataclass(frozen=True, slots=True)
class TableView:
    """A table on the plane, its modules and the bays left free on it."""

    left_m: float
    right_m: float
    front_m: float
    depth_m: float
    modules: int
    bays: int


@dataclass(frozen=True, slots=True)
class SpacingPoint:
    """A level gap between rows: what rows take of the year's light, and the land they cover."""

    gap_m: float
    loss_frac: float
    land_m2: float


@dataclass(frozen=True, slots=True)
class GroundReport:
    """A ground array.

    ``loss_frac`` of long rows by the reference library, ``cast_frac``
    of these very tables by the sky over each module, ``None`` without modules.  ``asked_gap_m``:
    the gap at which rows take the share asked for.  ``lot_m``: least distance to a lot line.
    ``stands``: the tilts of the year, where they are changed; gaps, posts and land are of the
    steepest.
    """

    tables: tuple[TableView, ...]
    modules: int
    bays: int
    posts: tuple[Post, ...]
    shortest_post_m: float
    longest_post_m: float
    gap_m: float
    solstice_gap_m: float
    spacing_sum: str
    loss_frac: float | None
    cast_frac: float | None
    stands: tuple[Stand, ...]
    curve: tuple[SpacingPoint, ...]
    asked_gap_m: float | None
    land_m2: float
    lot_m: float | None
    told: tuple[str, ...]


def ground_report(
    workspace: Workspace,
    job: Job,
    option: Option,
    plane_id: PlaneId,
    most_loss: float | None = None,
) -> GroundReport:
    """Return a ground array as it stands.

    Raises
    ------
    BadGeometry, MissingDatum
        If the plane is a roof, or does not close yet.
    """
    plane = plane_of(job, plane_id)
    ground_of_plane(plane)
    require_closed(plane)
    array = array_of(option, plane_id)
    lay = lay_of(module_on(job, option, plane_id), array, plane)
    rows, table = rows_of(job, option, array), array.table or GroundTable()
    tables = tables_of(plane, array, lay)
    posts = posts_of(plane, rows, table, tables)
    light = _Light(workspace, job, option, plane, array)
    lines = table_rows(tables)
    count, behind = len(lines), behind_frac(len(lines))
    row_m = max(
        (max(t.right_m for t in ts) - min(t.left_m for t in ts) for ts in lines), default=0.0
    )
    solstice = solstice_gap_m(rows, job.site.latitude_deg)
    gap = array.gap_between_rows.value_m

    def land(of_gap_m: float) -> float:
        return (count * rows.depth_m + max(0, count - 1) * of_gap_m) * row_m

    rings = rings_in_year(job, option, array, rows, tables)
    lot_m = lot_distance_m(rings, job.survey.lot_lines)
    heights = [p.height_m for p in posts]
    present = present_of(array)
    checks = table_checks(design_for(job, option), array)
    return GroundReport(
        tables=tuple(_view(rows, t) for t in tables),
        modules=len(present),
        bays=len(array.modules) - len(present),
        posts=posts,
        shortest_post_m=min(heights, default=0.0),
        longest_post_m=max(heights, default=0.0),
        gap_m=gap,
        solstice_gap_m=solstice,
        spacing_sum=_sum(rows, solstice),
        loss_frac=light.loss_frac(gap) * behind if lines else None,
        cast_frac=_cast_frac(workspace, job, option, plane) if present else None,
        stands=stands(rows.slant_m, table, table.seasons) if table.seasons else (),
        curve=tuple(
            SpacingPoint(g, light.loss_frac(g) * behind, land(g))
            for g in (max(0.05, share * solstice) for share in CURVE)
        )
        if count > 1
        else (),
        asked_gap_m=_asked(light, behind, most_loss),
        land_m2=land(gap),
        lot_m=lot_m,
        told=_told(job.unit, checks, array, rows, tables, solstice),
    )


class _Light:
    """What rows before a row take of the year's light, whatever their gap."""

    def __init__(
        self, workspace: Workspace, job: Job, option: Option, plane: RoofPlane, array: PlaneArray
    ) -> None:
        sky = site_sky(workspace, job, option)
        self.sun, self.whole = sky.hours.sun, 0.0
        self.depth_m = rows_of(job, option, array).depth_m
        # Rows at each tilt of the year with the direct light of its own days.
        self.held: list[tuple[Rows, FloatArray]] = []
        tilts = np.repeat(tilt_by_day(positions_of(array)), len(sky.hours.month) // DAYS)
        for tilt in np.unique(tilts).tolist():
            parts = parts_while(turned(sky, glass_of(plane, tilt)).parts, tilts == tilt)
            self.whole += float(parts.poa_w_per_m2.sum())
            there = rows_of(job, option, replace(array, leg_tilt_deg=tilt))
            self.held.append((there, parts.beam_w_per_m2 + parts.circumsolar_w_per_m2))

    def loss_frac(self, gap_m: float) -> float:
        """Return the share of a shaded row's light; sky light that the row hides is not in it."""
        lost = sum(
            float((direct * shaded_frac(rows, self._gap_m(rows, gap_m), self.sun)).sum())
            for rows, direct in self.held
        )
        return lost / self.whole if self.whole > 0 else 0.0

    def _gap_m(self, rows: Rows, gap_m: float) -> float:
        """Return the gap at another tilt, the rows' pitch being what it is at the drawn one."""
        return max(0.01, gap_m + self.depth_m - rows.depth_m)


def _asked(light: _Light, behind: float, most_loss: float | None) -> float | None:
    if most_loss is None or behind <= 0:
        return None

    def over(gap_m: float) -> float:
        return light.loss_frac(gap_m) * behind - most_loss

    if over(0.02) <= 0:
        return 0.02
    return None if over(WIDEST_M) > 0 else float(brentq(over, 0.02, WIDEST_M, xtol=1e-3))


def _cast_frac(workspace: Workspace, job: Job, option: Option, plane: RoofPlane) -> float:
    """Return what all shade takes of the light on these modules, by the sky over each of them."""
    _, arrays = array_lights(workspace, job, option)
    mine = next(a for a in arrays if a.plane.id == plane.id)
    free = float(mine.on_free.free_wh_per_m2.sum()) * len(mine.lights)
    return sum(float(x.lost.sum()) for x in mine.lights) / free if free > 0 else 0.0


def _view(rows: Rows, table: Table) -> TableView:
    present = sum(m.present for m in table.modules)
    return TableView(
        table.left_m,
        table.right_m,
        table.front_m,
        rows.depth_m,
        present,
        len(table.modules) - present,
    )


def _sum(rows: Rows, solstice_m: float) -> str:
    """Return the sum of the shortest day's gap in words and numbers."""
    level = "level ground" if abs(rows.rise_behind) < 1e-6 else "this ground"
    return (
        f"H = {rows.slant_m:.2f} m · sin {rows.tilt_deg:g}° = {rows.height_m:.2f} m; on {level} "
        f"the sun of {FROM_H:.0f} to {TO_H:.0f} h on the shortest day asks for {solstice_m:.2f} m"
    )


def _told(
    unit: LengthUnit,
    checks: Sequence[Check],
    array: PlaneArray,
    rows: Rows,
    tables: Sequence[Table],
    solstice_m: float,
) -> tuple[str, ...]:
    found = [
        words for one in checks if one.verdict is Verdict.BROKEN and (words := _in_words(one, unit))
    ]
    if solstice_m > 20.0:
        found.append("No gap of 20 m or less leaves the shortest day's sun: choose a loss instead")
    lone = [t for t in tables if t.right_m - t.left_m < rows.slant_m / 2]
    if lone:
        found.append(f"{len(lone)} table is narrower than half its height: one module alone")
    if array.table and array.table.apart.value_m > rows.slant_m:
        found.append("Posts are set further apart than the glass is long: they stand at its edges")
    return tuple(found)


def _in_words(broken: Check, unit: LengthUnit) -> str:
    """Return what a broken check of tables means on the drawing, and what mends it."""
    value, limit = broken.value.value or 0.0, broken.limit.value or 0.0

    def length(of_m: float) -> str:
        return format_length(of_m, unit)

    match broken.rule_id:
        case "ground.fall":
            return (
                f"The ground falls by {value:g}°, more than the tables' {limit:g}°: tilt them more, "
                "or treat it as a roof"
            )
        case "ground.clearance":
            return (
                f"Snow lies {length(limit)} deep and the front edge is {length(value)} over the "
                "ground: raise it, or the lowest cells stay buried"
            )
        case "ground.lot-line" if value <= 0:
            return "A table crosses the lot line: move the area or take modules away"
        case "ground.lot-line":
            return (
                f"A table stands {length(value)} from the lot line, which wants {length(limit)}: "
                "move the area or take modules away"
            )
        case "ground.swing":
            return (
                f"{broken.title}: they lie over each other by {length(-value)}. Space them wider, "
                "or leave the flattest tilt steeper"
            )
    return ""
