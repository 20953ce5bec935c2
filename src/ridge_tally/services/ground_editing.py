"""Ground areas and the tables on them: their figures, the rows' spacing, the bays filled."""

import math
from dataclasses import replace
from typing import Any

from ridge_tally.core.array.stances import steepest_deg
from ridge_tally.core.brief.typed import parse_day_of_year
from ridge_tally.core.errors import BadGeometry, NotFound, OutOfRange
from ridge_tally.core.job import array_edits, survey_edits
from ridge_tally.core.job.array import (
    ROUNDED_TO,
    USUAL_GAP,
    GroundTable,
    Mounting,
    PlaneArray,
    Position,
    table_of,
)
from ridge_tally.core.job.document import Job, Option, plane_of
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import GroundArea, RoofPlane, Taped
from ridge_tally.core.sun.row_spacing import solstice_gap_m
from ridge_tally.core.survey.taping import typed_length
from ridge_tally.core.units import parse_number
from ridge_tally.rules.ground import rows_of
from ridge_tally.rules.option_document import MOST_TIERS, WIDEST_GAP_M, require_sound_seasons
from ridge_tally.services.bill_editing import month_first
from ridge_tally.services.stances import at_tilt

# A usual tilt to begin with; common practice, no source.
USUAL_TILT_DEG = 30.0
STEEPEST_FALL_DEG = 30.0


def ground_of_plane(plane: RoofPlane) -> GroundArea:
    """Return a plane's ground; BadGeometry where it is a roof."""
    if plane.ground is None:
        raise BadGeometry(plane.name, "it is no ground area", "Add a ground area in Survey.")
    return plane.ground


def ground_field(job: Job, edit: survey_edits.SetGroundField) -> RoofPlane:
    """Return a ground area with one field as typed.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry
        Naming the field, the value and the remedy.
    """
    plane = plane_of(job, edit.plane_id)
    ground, kind, typed = ground_of_plane(plane), survey_edits.GroundField, edit.typed.strip()
    if edit.field is kind.SOIL:
        return replace(plane, ground=replace(ground, soil=typed[:200]))
    if edit.field in (kind.FALL, kind.FALLS_TO):
        words = "ground falls by" if edit.field is kind.FALL else "ground falls towards"
        field, most = f"{plane.name}, {words}", 360.0
        if edit.field is kind.FALL:
            most = STEEPEST_FALL_DEG
        value = parse_number(typed.rstrip("° "), field, "degrees such as 4")
        if not 0 <= value <= most:
            raise OutOfRange(f"{field} in degrees", value, f"between 0 and {most:g}")
        figure: dict[str, Any] = {edit.field.value: value}
        return replace(plane, ground=replace(ground, **figure))
    field = f"{plane.name}, {edit.field.value.replace('_', ' ')}"
    taped = typed_length(typed, job.unit, field) if typed else None
    if taped is not None and not 0 <= taped.value_m <= 30:
        raise OutOfRange(f"{field} in metres", taped.value_m, "between 0 and 30")
    length: dict[str, Any] = {edit.field.value: taped}
    return replace(plane, ground=replace(ground, **length))


def with_ground_arrays(job: Job, plane_id: PlaneId) -> Job:
    """Return the job with an empty array on a new ground area in every option, rows spaced."""
    options = []
    for option in job.options:
        array = PlaneArray(
            plane_id,
            USUAL_GAP,
            USUAL_GAP,
            (),
            mounting=Mounting.OPEN_RACK,
            leg_tilt_deg=USUAL_TILT_DEG,
            table=GroundTable(),
        )
        there = replace(option, arrays=(*option.arrays, array))
        options.append(replace(there, arrays=(*option.arrays, spaced(job, there, array))))
    return replace(job, options=tuple(options))


def with_open_arrays(job: Job, plane_id: PlaneId) -> Job:
    """Return the job with an empty array on a new carport in every option: air flows below it."""
    array = PlaneArray(plane_id, USUAL_GAP, USUAL_GAP, (), mounting=Mounting.OPEN_RACK)
    return replace(job, options=tuple(replace(o, arrays=(*o.arrays, array)) for o in job.options))


def spaced(job: Job, option: Option, array: PlaneArray) -> PlaneArray:
    """Return an array with its rows as far apart as the shortest day's sun from 9 to 15 h asks."""
    level_m = solstice_gap_m(rows_of(job, option, array), job.site.latitude_deg)
    # On a roof that slopes the gap lies along it.
    gap_m = level_m / math.cos(math.radians(plane_of(job, array.plane_id).slope_deg))
    return replace(array, gap_between_rows=level_gap(min(gap_m, WIDEST_GAP_M)))


def level_gap(gap_m: float) -> Taped:
    """Return a gap up to the next centimetre."""
    up = -(-round(gap_m * 1000) // 10) / 100
    return Taped(up, f"{up:.2f} m")


def table_field(job: Job, array: PlaneArray, edit: array_edits.SetTableField) -> PlaneArray:
    """Return an array with one figure of its tables as typed.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry
        Naming the field, the value and the remedy.
    """
    plane = plane_of(job, edit.plane_id)
    ground_of_plane(plane)
    table, kind = table_of(array), array_edits.TableField
    if edit.field is kind.ROWS:
        rows = parse_number(edit.typed, "Module rows on a table", "a number such as 2")
        if rows != int(rows) or not 1 <= rows <= MOST_TIERS:
            raise OutOfRange("Module rows on a table", rows, f"a whole number, 1 to {MOST_TIERS}")
        return replace(array, table=replace(table, rows=int(rows)))
    names = {
        kind.CLEARANCE: ("Front edge over the ground", 0.05, 4.0),
        kind.ALONG: ("Posts apart in a row", 0.5, 8.0),
        kind.APART: ("Posts apart front to back", 0.2, 8.0),
    }
    field, low, high = names[edit.field]
    taped = typed_length(edit.typed, job.unit, field)
    if not low <= taped.value_m <= high:
        raise OutOfRange(f"{field} in metres", taped.value_m, f"between {low:g} and {high:g}")
    change: dict[str, Any] = {edit.field.value: taped}
    return replace(array, table=replace(table, **change))


def bays_filled(option: Option) -> Option:
    """Return an option with a module in every bay left free."""
    return replace(
        option,
        arrays=tuple(
            replace(a, modules=tuple(replace(m, present=True) for m in a.modules))
            for a in option.arrays
        ),
    )


def with_seasons(
    job: Job, option: Option, array: PlaneArray, positions: tuple[Position, ...]
) -> PlaneArray:
    """Return a ground array changed between tilts, drawn at the steepest; one stays all year.

    Posts and pitch stay; the front edge's clearance is that of the steepest.

    Raises
    ------
    OutOfRange, BadGeometry
        If days or tilts cannot be, the plane is a roof, or rows would lie on each other.
    """
    plane = plane_of(job, array.plane_id)
    ground_of_plane(plane)
    ordered = tuple(sorted(positions, key=lambda p: p.from_day))
    require_sound_seasons(ordered)
    table = table_of(array)
    drawn = at_tilt(job, option, replace(array, table=table), steepest_deg(ordered))
    # Whole centimetres, as they are typed, and none more than there is.
    gap_m = math.floor(drawn.gap_between_rows.value_m * 100 + 1e-6) / 100
    if gap_m < 0:
        raise BadGeometry(
            plane.name,
            f"its rows would lie over each other by {-gap_m:.2f} m at {drawn.leg_tilt_deg:g}°",
            "Space them wider first.",
        )
    seasons = ordered if len(ordered) > 1 else ()
    return replace(
        drawn,
        gap_between_rows=Taped(gap_m, f"{gap_m:.2f} m"),
        modules=tuple(replace(m, y_m=round(m.y_m, ROUNDED_TO)) for m in drawn.modules),
        table=replace(table, seasons=seasons),
    )


def season_field(
    job: Job, array: PlaneArray, edit: array_edits.SetSeasonField
) -> tuple[Position, ...]:
    """Return the tilts of a year with one figure as typed.

    Raises
    ------
    NotFound, NotUnderstood
        If the year has no such position, or the text means no day or tilt.
    """
    seasons = list(array.table.seasons if array.table else ())
    if not 1 <= edit.number <= len(seasons):
        raise NotFound("position of the year", str(edit.number))
    was, kind = seasons[edit.number - 1], array_edits.SeasonField
    if edit.field is kind.TILT:
        tilt_deg = parse_number(edit.typed.rstrip("° "), "Tilt", "degrees such as 15")
        seasons[edit.number - 1] = replace(was, tilt_deg=tilt_deg)
    else:
        day = parse_day_of_year(edit.typed, "Day of the change", month_first=month_first(job))
        seasons[edit.number - 1] = replace(was, from_day=day)
    return tuple(seasons)
