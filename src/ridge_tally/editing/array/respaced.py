"""An array at other gaps or tilts: its rows drawn apart or together, other tables laid anew."""

from dataclasses import replace

from ridge_tally.core.array.tables import columns_of, tier_up_m
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import (
    ROUNDED_TO,
    PlacedModule,
    PlaneArray,
    in_lines,
    present_of,
    table_of,
    ways_of_array,
)
from ridge_tally.core.job.document import Job, array_of, option_of, with_array, with_option
from ridge_tally.core.job.ids import OptionId, PlacedId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import LaidArray, laid_array
from ridge_tally.core.units import parse_length_m
from ridge_tally.editing.array.filled import filled
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.option_document import WIDEST_GAP_M

# What stands within this of a gap is meant to stand at it.
AT_GAP_M = 2e-3


def typed_gap_m(job: Job, typed: str, field: str) -> float:
    """Return a gap as typed, metres; OutOfRange past what is built."""
    gap_m = parse_length_m(typed, job.unit, field)
    if not 0 <= gap_m <= WIDEST_GAP_M:
        raise OutOfRange(f"{field} in metres", gap_m, f"between 0 and {WIDEST_GAP_M:g}")
    return gap_m


def stood_anew(job: Job, option: Option, old: PlaneArray, new: PlaneArray) -> Job:
    """Return the job with an array at new gaps or tilts: what stands there is moved, none is lost.

    Only tables of more or fewer module rows are laid anew, as many modules and bays as before.
    """
    laid = laid_array(job, option, old)
    if old.modules and table_of(old).rows != table_of(new).rows:
        return _laid_anew(with_option(job, with_array(option, new)), option.id, new)
    return with_option(job, with_array(option, _respaced(laid, new)))


def _laid_anew(job: Job, option_id: OptionId, array: PlaneArray) -> Job:
    """Return the job with other tables filled from the front, as many modules and bays as before.

    Bays are the last of the rows.  Where the ground holds fewer, bays go first.

    Raises
    ------
    BadGeometry
        If the ground holds no table any more.
    """
    again = filled(job, option_id, array.plane_id, ways_of_array(array))
    option = option_of(again, option_id)
    new, modules = array_of(option, array.plane_id), len(present_of(array))
    lay = lay_of(laid_array(again, option, new))
    columns = columns_of(lay, new.modules)
    ordered = [
        m
        for line in in_lines(columns, lambda c: c[0].y_m, lambda c: c[0].x_m)
        for _, column in line
        for m in column
    ]
    whole = -(-len(array.modules) // lay.tiers) * lay.tiers
    kept = tuple(replace(m, present=number < modules) for number, m in enumerate(ordered[:whole]))
    return with_option(again, with_array(option, replace(new, modules=kept)))


def _respaced(laid: LaidArray, new: PlaneArray) -> PlaneArray:
    """Return the array with its runs and stacks of rows drawn apart or together to new sizes.

    Neighbours that stood at the old gap stand at the new one, counted from the left and from
    below; what stood further apart keeps its place.  A table's modules move as one.
    """
    old, lay, wanted = laid.array, lay_of(laid), lay_of(replace(laid, array=new))
    in_row_m = wanted.gap_in_row_m - lay.gap_in_row_m
    between_m = wanted.gap_between_rows_m - lay.gap_between_rows_m
    columns = columns_of(lay, old.modules)
    moved: dict[PlacedId, PlacedModule] = {}
    up_m, taller_m, top_m = 0.0, 0.0, float("-inf")
    for row in in_lines(columns, lambda c: c[0].y_m, lambda c: c[0].x_m):
        front_m, way = row[0][0].y_m, row[0][0].orientation
        close = abs(front_m - top_m - lay.gap_between_rows_m) < AT_GAP_M
        up_m = up_m + between_m + taller_m if close else 0.0
        right_m, end_m = 0.0, float("-inf")
        for place, modules in row:
            touches = abs(place.x_m - end_m - lay.gap_in_row_m) < AT_GAP_M
            right_m = right_m + in_row_m if touches else 0.0
            end_m = place.x_m + lay.width_m(place.orientation)
            for m in modules:
                y_m = place.y_m + up_m + tier_up_m(wanted, m.orientation, m.tier)
                moved[m.id] = replace(
                    m, x_m=round(m.x_m + right_m, ROUNDED_TO), y_m=round(y_m, ROUNDED_TO)
                )
        top_m = front_m + lay.height_m(way)
        taller_m = wanted.height_m(way) - lay.height_m(way)
    return replace(new, modules=tuple(moved[m.id] for m in old.modules))
