"""An array at other gaps or tilts: its tables laid anew, its modules drawn apart or together."""

from dataclasses import replace

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import (
    ROUNDED_TO,
    PlaneArray,
    module_rows,
    ways_of_array,
)
from ridge_tally.core.job.document import (
    Job,
    Option,
    array_of,
    option_of,
    with_array,
    with_option,
)
from ridge_tally.core.job.ids import OptionId, PlacedId
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
    """Return the job with an array at new gaps or tilts: tables laid anew, modules moved apart."""
    laid = laid_array(job, option, old)
    if laid.plane.ground is not None:
        return _relaid(with_option(job, with_array(option, new)), option.id, new)
    return with_option(job, with_array(option, _respaced(laid, new)))


def _relaid(job: Job, option_id: OptionId, array: PlaneArray) -> Job:
    """Return the job with the tables of a ground array laid anew, as many bays left as before.

    They stay where they were while the count of places does; else they are the last of the rows.

    Raises
    ------
    BadGeometry
        If the ground holds no table any more.
    """
    if not array.modules:
        return job
    again = filled(job, option_id, array.plane_id, ways_of_array(array))
    option = option_of(again, option_id)
    new, bays = array_of(option, array.plane_id), {m.id for m in array.modules if not m.present}
    if len(new.modules) != len(array.modules):
        ordered = [m for row in module_rows(new.modules) for m in row]
        most = min(len(bays), len(ordered) - 1)
        bays = {m.id for m in ordered[len(ordered) - most :]}
    kept = tuple(replace(m, present=m.id not in bays) for m in new.modules)
    return with_option(again, with_array(option, replace(new, modules=kept)))


def _respaced(laid: LaidArray, new: PlaneArray) -> PlaneArray:
    """Return the array with its runs and stacks of rows drawn apart or together to new sizes.

    Neighbours that stood at the old gap stand at the new one, counted from the left and from
    below; what stood further apart keeps its place.
    """
    old, lay, wanted = laid.array, lay_of(laid), lay_of(replace(laid, array=new))
    in_row_m = new.gap_in_row.value_m - old.gap_in_row.value_m
    between_m = new.gap_between_rows.value_m - old.gap_between_rows.value_m
    shifted: dict[PlacedId, tuple[float, float]] = {}
    up_m, taller_m, top_m = 0.0, 0.0, float("-inf")
    for row in module_rows(old.modules):
        close = abs(row[0].y_m - top_m - lay.gap_between_rows_m) < AT_GAP_M
        up_m = up_m + between_m + taller_m if close else 0.0
        right_m, end_m = 0.0, float("-inf")
        for module in row:
            touches = abs(module.x_m - end_m - lay.gap_in_row_m) < AT_GAP_M
            right_m = right_m + in_row_m if touches else 0.0
            shifted[module.id] = (right_m, up_m)
            end_m = module.x_m + lay.width_m(module.orientation)
        way = row[0].orientation
        top_m = row[0].y_m + lay.height_m(way)
        taller_m = wanted.height_m(way) - lay.height_m(way)
    modules = tuple(
        replace(
            m,
            x_m=round(m.x_m + shifted[m.id][0], ROUNDED_TO),
            y_m=round(m.y_m + shifted[m.id][1], ROUNDED_TO),
        )
        for m in old.modules
    )
    return replace(new, modules=modules)
