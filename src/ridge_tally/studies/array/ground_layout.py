"""A ground array as it stands: its tables, posts over the ground, land and distances, in words too."""

from collections.abc import Sequence
from dataclasses import dataclass

from ridge_tally.core.array.posts import Post
from ridge_tally.core.array.stances import Stand, stands
from ridge_tally.core.array.tables import Table, table_rows, tables_of
from ridge_tally.core.job.array import PlaneArray, present_of, table_of
from ridge_tally.core.job.survey import GroundArea, RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.nominal_year import day_name
from ridge_tally.core.sun.row_spacing import FROM_H, TO_H, Rows, solstice_gap_m
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.core.working import Check, Verdict
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.array.ground import posts_of, rows_of, table_checks
from ridge_tally.rules.design import Design


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
class GroundLayout:
    """A ground array.  ``lot_m``: least distance to a lot line in the year.

    ``stands``: the tilts of the year, where they are changed; gaps, posts and land are of the
    steepest.  ``on_sheet``: the array in a sentence or two; ``told``: what is amiss.
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
    stands: tuple[Stand, ...]
    land_m2: float
    lot_m: float | None
    on_sheet: str
    told: tuple[str, ...]


def ground_layout(design: Design, laid: LaidArray) -> GroundLayout | None:
    """Return a ground array as it stands; ``None`` on roofs and while the area does not close."""
    job, plane, array = design.job, laid.plane, laid.array
    if plane.ground is None or not is_closed(plane):
        return None
    rows, table = rows_of(laid), table_of(array)
    tables = tables_of(plane, array, lay_of(laid))
    posts = posts_of(plane, rows, table, tables)
    heights = [p.height_m for p in posts]
    solstice = solstice_gap_m(rows, job.site.latitude_deg)
    held = stands(rows.slant_m, table, table.seasons) if table.seasons else ()
    checks = table_checks(design, laid)
    gap_m, modules = array.gap_between_rows.value_m, len(present_of(array))
    return GroundLayout(
        tables=tuple(_view(rows, t) for t in tables),
        modules=modules,
        bays=len(array.modules) - modules,
        posts=posts,
        shortest_post_m=min(heights, default=0.0),
        longest_post_m=max(heights, default=0.0),
        gap_m=gap_m,
        solstice_gap_m=solstice,
        spacing_sum=_sum(job.unit, rows, solstice),
        stands=held,
        land_m2=land_m2(rows, tables, gap_m),
        lot_m=next((c.value.value for c in checks if c.rule_id == "ground.lot-line"), None),
        on_sheet=_on_sheet(job.unit, plane, plane.ground, array, posts, held),
        told=_told(job.unit, checks, array, rows, tables, solstice),
    )


def land_m2(rows: Rows, tables: Sequence[Table], gap_m: float) -> float:
    """Return the land that tables cover with the gaps between their rows."""
    lines = table_rows(tables)
    wide_m = max(
        (max(t.right_m for t in ts) - min(t.left_m for t in ts) for ts in lines), default=0.0
    )
    return (len(lines) * rows.depth_m + max(0, len(lines) - 1) * gap_m) * wide_m


def _on_sheet(
    unit: LengthUnit,
    plane: RoofPlane,
    ground: GroundArea,
    array: PlaneArray,
    posts: Sequence[Post],
    held: Sequence[Stand],
) -> str:
    table, bays = table_of(array), len(array.modules) - len(present_of(array))

    def length(of_m: float) -> str:
        return format_length(of_m, unit)

    found = (
        f"{plane.name}: tables facing {plane.azimuth_deg:.0f}° true at {array.leg_tilt_deg:g}°, "
        f"ground falls {ground.slope_deg:g}° to {ground.falls_to_deg:.0f}°, lengths level. Front "
        f"edge {length(table.clearance.value_m)} over the ground, rows "
        f"{length(array.gap_between_rows.value_m)} apart"
    )
    if posts:
        heights_m = [p.height_m for p in posts]
        found += (
            f"; {max(p.table for p in posts)} tables on {len(posts)} posts of "
            f"{length(min(heights_m))} to {length(max(heights_m))} over the ground"
        )
    if bays:
        found += f"; {bays} bays left for later"
    told = "; ".join(
        f"{s.tilt_deg:g}° from {day_name(s.from_day)}, back legs {length(s.back_leg_m)}"
        for s in held
    )
    return f"{found}. Tilted with the seasons: {told}." if told else f"{found}."


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


def _sum(unit: LengthUnit, rows: Rows, solstice_m: float) -> str:
    """Return the sum of the shortest day's gap in words and numbers."""
    level = "level ground" if abs(rows.rise_behind) < 1e-6 else "this ground"
    glass, high, gap = (format_length(m, unit) for m in (rows.slant_m, rows.height_m, solstice_m))
    return (
        f"H = {glass} · sin {rows.tilt_deg:g}° = {high}; on {level} the sun of {FROM_H:.0f} to "
        f"{TO_H:.0f} h on the shortest day asks for {gap}"
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
        are = "table is" if len(lone) == 1 else "tables are"
        found.append(f"{len(lone)} {are} narrower than half the glass's height: one module alone")
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
