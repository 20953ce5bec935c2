"""Applying the edits of ground tables: their figures, tilts by season, spacing, free bays."""

import math
from dataclasses import replace
from typing import assert_never

from ridge_tally.core.array.stances import steepest_deg
from ridge_tally.core.brief.typed import parse_day_of_year
from ridge_tally.core.errors import AnswerWanted, BadGeometry, NotFound, OutOfRange
from ridge_tally.core.job.array import (
    ROUNDED_TO,
    PlaneArray,
    Position,
    table_of,
)
from ridge_tally.core.job.document import (
    Job,
    array_of,
    month_first,
    option_of,
    with_array,
    with_option,
)
from ridge_tally.core.job.edits.array.tables import (
    FillBays,
    SeasonField,
    SetSeasonField,
    SetSeasons,
    SetTableField,
    SpaceRows,
    TableEdit,
    TableField,
)
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.system import LaidArray, laid_array
from ridge_tally.core.survey.ground import ground_of_plane
from ridge_tally.core.survey.taping import typed_length
from ridge_tally.core.units import LengthUnit, parse_number
from ridge_tally.editing.array.respaced import stood_anew
from ridge_tally.editing.array.spaced import spaced
from ridge_tally.editing.array.tilt_positions import at_tilt
from ridge_tally.rules.option_document import (
    MOST_TIERS,
    require_sound_seasons,
)


def tables_changed(job: Job, edit: TableEdit) -> Job:
    """Return the job after an edit of the tables on a ground area.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, NotFound
        Naming the field, the value and the remedy.
    """
    option = option_of(job, edit.option_id)
    if isinstance(edit, FillBays):
        return with_option(job, bays_filled(option))
    array = array_of(option, edit.plane_id)
    laid = laid_array(job, option, array)
    match edit:
        case SetTableField():
            return stood_anew(job, option, array, table_field(laid, job.unit, edit))
        case SpaceRows():
            return stood_anew(job, option, array, spaced(laid, job.site.latitude_deg))
        case SetSeasons():
            seasonal = with_seasons(laid, edit.positions)
        case SetSeasonField():
            seasonal = with_seasons(laid, season_field(job, array, edit))
        case _:
            assert_never(edit)
    return with_option(job, with_array(option, seasonal))


def table_field(laid: LaidArray, unit: LengthUnit, edit: SetTableField) -> PlaneArray:
    """Return an array with one figure of its tables as typed.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry
        Naming the field, the value and the remedy.
    AnswerWanted
        If the modules would be laid anew and nobody said so.
    """
    ground_of_plane(laid.plane)
    array, table, kind = laid.array, table_of(laid.array), TableField
    if edit.field is kind.ROWS:
        rows = parse_number(edit.typed, "Module rows on a table", "a number such as 2")
        if rows != int(rows) or not 1 <= rows <= MOST_TIERS:
            raise OutOfRange("Module rows on a table", rows, f"a whole number, 1 to {MOST_TIERS}")
        if array.modules and rows != table.rows and not edit.lay_anew:
            raise AnswerWanted(
                "Module rows on a table",
                f"with {rows:g} all {len(array.modules)} places are laid anew, from the front on",
                "Say whether they are to be.",
            )
        return replace(array, table=replace(table, rows=int(rows)))
    names = {
        kind.CLEARANCE: ("Front clearance", 0.05, 4.0),
        kind.ALONG: ("Posts apart in a row", 0.5, 8.0),
        kind.APART: ("Posts apart front to back", 0.2, 8.0),
    }
    field, low, high = names[edit.field]
    taped = typed_length(edit.typed, unit, field)
    if not low <= taped.value_m <= high:
        raise OutOfRange(f"{field} in metres", taped.value_m, f"between {low:g} and {high:g}")
    match edit.field:
        case kind.CLEARANCE:
            table = replace(table, clearance=taped)
        case kind.ALONG:
            table = replace(table, along=taped)
        case kind.APART:
            table = replace(table, apart=taped)
        case _:
            assert_never(edit.field)
    return replace(array, table=table)


def bays_filled(option: Option) -> Option:
    """Return an option with a module in every bay left free."""
    return replace(
        option,
        arrays=tuple(
            replace(a, modules=tuple(replace(m, present=True) for m in a.modules))
            for a in option.arrays
        ),
    )


def with_seasons(laid: LaidArray, positions: tuple[Position, ...]) -> PlaneArray:
    """Return a ground array changed between tilts, drawn at the steepest; one stays all year.

    Posts and pitch stay; the front edge's clearance is that of the steepest.

    Raises
    ------
    OutOfRange, BadGeometry
        If days or tilts cannot be, the plane is a roof, or rows would lie on each other.
    """
    plane = laid.plane
    ground_of_plane(plane)
    ordered = tuple(sorted(positions, key=lambda p: p.from_day))
    require_sound_seasons(ordered)
    table = table_of(laid.array)
    on_tables = replace(laid, array=replace(laid.array, table=table))
    drawn = at_tilt(on_tables, steepest_deg(ordered))
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


def season_field(job: Job, array: PlaneArray, edit: SetSeasonField) -> tuple[Position, ...]:
    """Return the tilts of a year with one figure as typed.

    Raises
    ------
    NotFound, NotUnderstood
        If the year has no such position, or the text means no day or tilt.
    """
    seasons = list(array.table.seasons if array.table else ())
    if not 1 <= edit.number <= len(seasons):
        raise NotFound("position of the year", str(edit.number))
    was, kind = seasons[edit.number - 1], SeasonField
    if edit.field is kind.TILT:
        tilt_deg = parse_number(edit.typed.rstrip("° "), "Tilt", "degrees such as 15")
        seasons[edit.number - 1] = replace(was, tilt_deg=tilt_deg)
    else:
        day = parse_day_of_year(edit.typed, "Day of the change", month_first=month_first(job))
        seasons[edit.number - 1] = replace(was, from_day=day)
    return tuple(seasons)
