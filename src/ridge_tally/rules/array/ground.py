"""Rules of ground arrays and of rows on legs: clear of snow, lot line and each other's shade."""

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ridge_tally.core.array.posts import Post, legs, overhang_m, posts_along, posts_apart_m
from ridge_tally.core.array.stances import flattest_deg, positions_of, tilted
from ridge_tally.core.array.tables import (
    Table,
    ground_height_m,
    slant_of_m,
    table_rows,
    tables_of,
)
from ridge_tally.core.job.array import (
    GroundTable,
    PlaneArray,
    module_rows,
    present_of,
    table_of,
)
from ridge_tally.core.job.edits.array.fills import ArrayField, SetArrayField
from ridge_tally.core.job.edits.array.tables import SpaceRows
from ridge_tally.core.job.survey import GroundArea, RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sun.row_spacing import Rows, gap_at_m, solstice_gap_m
from ridge_tally.core.survey.ground import rise_behind
from ridge_tally.core.survey.lot import lot_distance_m
from ridge_tally.core.survey.outline import is_closed, require_closed
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.working import (
    Check,
    Fix,
    Given,
    LimitKind,
    Relation,
    Source,
    SourceStatus,
    check,
)
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.design import Design

MEASURED = Source("measured on this ground", "", SourceStatus.GEOMETRY)
PRACTICE = Source("sun from 9 to 15 h on the shortest day", "", SourceStatus.COMMON_PRACTICE)


def rows_of(laid: LaidArray) -> Rows:
    """Return an array as long rows: its glass up the slope, and how what it stands on rises."""
    plane, array = laid.plane, laid.array
    behind = (
        math.tan(math.radians(min(plane.slope_deg, 89.0)))
        if plane.ground is None
        else rise_behind(plane.ground, plane.azimuth_deg)
    )
    tilt_deg = plane.slope_deg + array.leg_tilt_deg
    return Rows(tilt_deg, plane.azimuth_deg, slant_of_m(array, lay_of(laid)), behind)


def posts_of(
    plane: RoofPlane, rows: Rows, table: GroundTable, tables: Sequence[Table]
) -> tuple[Post, ...]:
    """Return every post; both rows of posts under the glass, as far apart up the slope as typed."""
    tilt = math.radians(rows.tilt_deg)
    apart = posts_apart_m(table, rows.slant_m)
    over = overhang_m(rows.slant_m, apart)
    found = []
    for number, one in enumerate(tables, start=1):
        hinge = one.base_m + over * math.sin(tilt)
        at = legs(rows.slant_m, apart, hinge, rows.tilt_deg)
        for back, up, top in ((False, over, at.front_m), (True, over + apart, at.back_m)):
            y = one.front_m + up * math.cos(tilt)
            for along in posts_along(one.right_m - one.left_m, table.along.value_m):
                x = one.left_m + along
                found.append(Post(number, x, y, back, top - ground_height_m(plane, x, y)))
    return tuple(found)


def rings_of(plane: RoofPlane, rows: Rows, tables: tuple[Table, ...]) -> list[np.ndarray]:
    """Return each table's outline on the site, (4, 2) metres east and north."""
    return [
        to_site(
            plane,
            np.array(
                [
                    [t.left_m, t.front_m],
                    [t.right_m, t.front_m],
                    [t.right_m, t.front_m + rows.depth_m],
                    [t.left_m, t.front_m + rows.depth_m],
                ]
            ),
        )[:, :2]
        for t in tables
    ]


def rings_in_year(laid: LaidArray, rows: Rows, tables: tuple[Table, ...]) -> list[np.ndarray]:
    """Return what tables cover at the steepest and at the flattest tilt of the year."""
    plane, flat_deg = laid.plane, flattest_deg(laid.array)
    found = rings_of(plane, rows, tables)
    if flat_deg < laid.array.leg_tilt_deg:
        flat = replace(laid, array=tilted(plane, laid.array, lay_of(laid), flat_deg))
        there = tables_of(plane, flat.array, lay_of(flat))
        found += rings_of(plane, rows_of(flat), there)
    return found


def ground_checks(design: Design) -> tuple[Check, ...]:
    """Return what ground arrays and rows on legs are held to, plane by plane."""
    found: list[Check] = []
    for laid in design.arrays:
        plane, array = laid.plane, laid.array
        if not array.modules or not is_closed(plane):
            continue
        if plane.ground is not None:
            found += table_checks(design, laid)
        elif array.leg_tilt_deg > 0 and len(module_rows(present_of(array))) > 1:
            found.append(_apart(design, plane, array, rows_of(laid)))
    return tuple(found)


def table_checks(design: Design, laid: LaidArray) -> tuple[Check, ...]:
    """Return what the tables of a ground array are held to; some of it before any module lies.

    Raises
    ------
    MissingDatum
        If the plane does not close yet.
    """
    plane, array = laid.plane, laid.array
    require_closed(plane)
    if plane.ground is None:
        return ()
    rows = rows_of(laid)
    tables = tables_of(plane, array, lay_of(laid))
    found = _clear(plane, plane.ground, table_of(array))
    found += _fall(plane, plane.ground, array)
    rings = rings_in_year(laid, rows, tables)
    found += _lot(design, plane, plane.ground, rings)
    if len(table_rows(tables)) > 1:
        found.append(_apart(design, plane, array, rows))
        if flattest_deg(array) < array.leg_tilt_deg:
            found.append(_swing(plane, array, rows))
    return tuple(found)


def _held(
    plane: RoofPlane,
    rule_id: str,
    title: str,
    kind: LimitKind,
    given: Given,
    relation: Relation,
    limit: Given,
    source: Source = MEASURED,
    fixes: tuple[Fix, ...] = (),
) -> Check:
    """Return the check of one figure, as it was measured or drawn, against its limit."""
    return check(
        rule_id=rule_id,
        title=title,
        subject=plane.name,
        kind=kind,
        formula=given.symbol,
        givens=(given,),
        value=given.value,
        symbol=given.symbol,
        unit=given.unit,
        relation=relation,
        limit=limit,
        source=source,
        fixes=fixes,
    )


def _clear(plane: RoofPlane, ground: GroundArea, table: GroundTable) -> list[Check]:
    if ground.snow_depth is None:
        return []
    over = Given("c", "front edge over the ground", table.clearance.value_m, "m", "drawing")
    depth = ground.snow_depth.value_m
    snow = Given("snow", "depth of snow", depth, "m", "typed for this ground")
    title = "Front clearance over the snow"
    return [_held(plane, "ground.clearance", title, LimitKind.COSTS, over, ">=", snow)]


def _fall(plane: RoofPlane, ground: GroundArea, array: PlaneArray) -> list[Check]:
    if ground.slope_deg <= 0:
        return []
    fall = Given("fall", "fall of the ground", ground.slope_deg, "°", "survey")
    tilt = Given("tilt", "tilt of the tables", flattest_deg(array), "°", "drawing")
    title = "Ground flatter than its tables"
    return [_held(plane, "ground.fall", title, LimitKind.NOTE, fall, "<=", tilt)]


def _lot(
    design: Design,
    plane: RoofPlane,
    ground: GroundArea,
    rings: list[np.ndarray],
) -> list[Check]:
    away_m = lot_distance_m(rings, design.job.survey.lot_lines)
    if away_m is None:
        return []
    # Without a distance of the authority's, no table may cross the line.
    wanted_m = ground.lot_distance.value_m if ground.lot_distance else 0.01
    away = Given("d", "least distance of a table", away_m, "m", "drawing")
    wanted = Given("away", "distance to keep", wanted_m, "m", "typed for this ground")
    title = "Away from the lot line"
    return [_held(plane, "ground.lot-line", title, LimitKind.OUTSIDE, away, ">=", wanted)]


def _swing(plane: RoofPlane, array: PlaneArray, rows: Rows) -> Check:
    """Return whether rows clear each other at the flattest tilt of the year, their posts staying."""
    flat_deg = flattest_deg(array)
    gap_m = gap_at_m(rows, array.gap_between_rows.value_m, flat_deg)
    return _held(
        plane,
        "ground.swing",
        f"Row spacing at {flat_deg:g}°",
        LimitKind.STOP,
        Given("D_flat", "level gap at the flattest tilt", gap_m, "m", "drawing"),
        ">=",
        Given("touch", "gap at which rows touch", 0.0, "m", "geometry"),
    )


def _apart(design: Design, plane: RoofPlane, array: PlaneArray, rows: Rows) -> Check:
    wanted_m = solstice_gap_m(rows, design.job.site.latitude_deg)
    # On a roof that slopes the gap is typed along it.
    gap_m = array.gap_between_rows.value_m * math.cos(math.radians(plane.slope_deg))
    option_id = design.option.id
    fixes = [Fix("Space them so", SpaceRows(option_id, plane.id))]
    if len(positions_of(array)) == 1:
        # A tilt that is set would end the seasons'.
        typed = f"{max(0.0, array.leg_tilt_deg - 5):g}"
        flatter = SetArrayField(option_id, plane.id, ArrayField.LEG_TILT, typed)
        fixes.append(Fix("Flatter by 5°", flatter))
    return _held(
        plane,
        "array.row-spacing",
        "Rows apart",
        LimitKind.NOTE,
        Given("D", "level gap between rows", gap_m, "m", "drawing"),
        ">=",
        Given("D_sun", "gap that leaves the shortest day's sun", wanted_m, "m", "formula"),
        PRACTICE,
        tuple(fixes),
    )
