"""Rules of ground arrays and of rows on legs: clear of snow, lot line and each other's shade."""

import math

import numpy as np

from ridge_tally.core.array.tables import Table, tables_of
from ridge_tally.core.job.array import GroundTable, PlaneArray, ways_of_array
from ridge_tally.core.job.array_edits import ArrayField, SetArrayField, SpaceRows
from ridge_tally.core.job.document import Job, Option, module_on, plane_of
from ridge_tally.core.job.survey import GroundArea, RoofPlane
from ridge_tally.core.sun.row_spacing import Rows, solstice_gap_m
from ridge_tally.core.survey.ground import rise_behind
from ridge_tally.core.survey.lot import lot_distance_m
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.working import Check, Fix, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.array import lay_of
from ridge_tally.rules.design import Design

MEASURED = Source("measured on this ground", "", SourceStatus.GEOMETRY)
PRACTICE = Source("sun from 9 to 15 h on the shortest day", "", SourceStatus.COMMON_PRACTICE)


def rows_of(job: Job, option: Option, array: PlaneArray) -> Rows:
    """Return an array as long rows: its glass up the slope, and how what it stands on rises."""
    plane = plane_of(job, array.plane_id)
    lay = lay_of(module_on(job, option, plane.id), array, plane)
    behind = (
        math.tan(math.radians(min(plane.slope_deg, 89.0)))
        if plane.ground is None
        else rise_behind(plane.ground, plane.azimuth_deg)
    )
    slant_m = lay.table_m(ways_of_array(array).orientations[0])
    tilt_deg = plane.slope_deg + array.leg_tilt_deg
    return Rows(tilt_deg, plane.azimuth_deg, slant_m, behind)


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


def ground_checks(design: Design) -> tuple[Check, ...]:
    """Return what ground arrays and rows on legs are held to, plane by plane."""
    found: list[Check] = []
    for array in design.option.arrays:
        plane = plane_of(design.job, array.plane_id)
        if not array.modules or not is_closed(plane):
            continue
        rows = rows_of(design.job, design.option, array)
        if plane.ground is None:
            bottoms = {round(m.y_m, 1) for m in array.modules if m.present}
            if array.leg_tilt_deg > 0 and len(bottoms) > 1:
                found.append(_apart(design, plane, array, rows))
            continue
        lay = lay_of(module_on(design.job, design.option, plane.id), array, plane)
        tables = tables_of(plane, array, lay)
        found += _clear(plane, plane.ground, array.table or GroundTable())
        found += _fall(plane, plane.ground, array)
        found += _lot(design, plane, plane.ground, rows, tables)
        if len({round(t.front_m, 1) for t in tables}) > 1:
            found.append(_apart(design, plane, array, rows))
    return tuple(found)


def _clear(plane: RoofPlane, ground: GroundArea, table: GroundTable) -> list[Check]:
    if ground.snow_depth is None:
        return []
    snow = ground.snow_depth.value_m
    return [
        check(
            rule_id="ground.clearance",
            title="Front edge over the snow",
            subject=plane.name,
            kind=LimitKind.COSTS,
            formula="c",
            givens=(
                Given("c", "front edge over the ground", table.clearance.value_m, "m", "drawing"),
            ),
            value=table.clearance.value_m,
            symbol="c",
            unit="m",
            relation=">=",
            limit=Given("snow", "depth of snow", snow, "m", "typed for this ground"),
            source=MEASURED,
        )
    ]


def _fall(plane: RoofPlane, ground: GroundArea, array: PlaneArray) -> list[Check]:
    if ground.slope_deg <= 0:
        return []
    tilt = Given("tilt", "tilt of the tables", array.leg_tilt_deg, "°", "drawing")
    return [
        check(
            rule_id="ground.fall",
            title="Ground flatter than its tables",
            subject=plane.name,
            kind=LimitKind.NOTE,
            formula="fall",
            givens=(Given("fall", "fall of the ground", ground.slope_deg, "°", "survey"),),
            value=ground.slope_deg,
            symbol="fall",
            unit="°",
            relation="<=",
            limit=tilt,
            source=MEASURED,
        )
    ]


def _lot(
    design: Design,
    plane: RoofPlane,
    ground: GroundArea,
    rows: Rows,
    tables: tuple[Table, ...],
) -> list[Check]:
    away = lot_distance_m(rings_of(plane, rows, tables), design.job.survey.lot_lines)
    if away is None:
        return []
    # Without a distance of the authority's, no table may cross the line.
    wanted = ground.lot_distance.value_m if ground.lot_distance else 0.01
    return [
        check(
            rule_id="ground.lot-line",
            title="Away from the lot line",
            subject=plane.name,
            kind=LimitKind.OUTSIDE,
            formula="d",
            givens=(Given("d", "least distance of a table", away, "m", "drawing"),),
            value=away,
            symbol="d",
            unit="m",
            relation=">=",
            limit=Given("away", "distance to keep", wanted, "m", "typed for this ground"),
            source=MEASURED,
        )
    ]


def _apart(design: Design, plane: RoofPlane, array: PlaneArray, rows: Rows) -> Check:
    wanted = solstice_gap_m(rows, design.job.site.latitude_deg)
    # On a roof that slopes the gap is typed along it.
    gap = array.gap_between_rows.value_m * math.cos(math.radians(plane.slope_deg))
    option_id = design.option.id
    return check(
        rule_id="array.row-spacing",
        title="Rows apart",
        subject=plane.name,
        kind=LimitKind.NOTE,
        formula="D",
        givens=(Given("D", "level gap between rows", gap, "m", "drawing"),),
        value=gap,
        symbol="D",
        unit="m",
        relation=">=",
        limit=Given("D_sun", "gap that leaves the shortest day's sun", wanted, "m", "formula"),
        source=PRACTICE,
        fixes=(
            Fix("Space them so", SpaceRows(option_id, plane.id)),
            Fix(
                "Flatter by 5°",
                SetArrayField(
                    option_id,
                    plane.id,
                    ArrayField.LEG_TILT,
                    f"{max(0.0, array.leg_tilt_deg - 5):g}",
                ),
            ),
        ),
    )
