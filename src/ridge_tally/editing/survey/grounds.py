"""Ground areas: their lie and soil as typed, and the empty tables new ones begin with."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import (
    USUAL_GAP,
    GroundTable,
    Mounting,
    PlaneArray,
)
from ridge_tally.core.job.document import Job, plane_of
from ridge_tally.core.job.edits.survey.planes import GroundField, SetGroundField
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import laid_array
from ridge_tally.core.survey.ground import ground_of_plane
from ridge_tally.core.survey.taping import typed_length
from ridge_tally.core.units import parse_number
from ridge_tally.editing.array.spaced import spaced

# A usual tilt to begin with; common practice, no source.
USUAL_TILT_DEG = 30.0

STEEPEST_FALL_DEG = 30.0


def ground_field(job: Job, edit: SetGroundField) -> RoofPlane:
    """Return a ground area with one field as typed.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry
        Naming the field, the value and the remedy.
    """
    plane = plane_of(job, edit.plane_id)
    ground, kind, typed = ground_of_plane(plane), GroundField, edit.typed.strip()
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
        if edit.field is kind.FALL:
            return replace(plane, ground=replace(ground, slope_deg=value))
        return replace(plane, ground=replace(ground, falls_to_deg=value))
    field = f"{plane.name}, {edit.field.value.replace('_', ' ')}"
    taped = typed_length(typed, job.unit, field) if typed else None
    if taped is not None and not 0 <= taped.value_m <= 30:
        raise OutOfRange(f"{field} in metres", taped.value_m, "between 0 and 30")
    match edit.field:
        case kind.LOT_DISTANCE:
            ground = replace(ground, lot_distance=taped)
        case kind.SNOW_DEPTH:
            ground = replace(ground, snow_depth=taped)
        case kind.TRENCH_DEPTH:
            ground = replace(ground, trench_depth=taped)
        case _:
            assert_never(edit.field)
    return replace(plane, ground=ground)


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
        options.append(
            replace(
                there,
                arrays=(
                    *option.arrays,
                    spaced(laid_array(job, there, array), job.site.latitude_deg),
                ),
            )
        )
    return replace(job, options=tuple(options))


def with_open_arrays(job: Job, plane_id: PlaneId) -> Job:
    """Return the job with an empty array on a new carport in every option: air flows below it."""
    array = PlaneArray(plane_id, USUAL_GAP, USUAL_GAP, (), mounting=Mounting.OPEN_RACK)
    return replace(job, options=tuple(replace(o, arrays=(*o.arrays, array)) for o in job.options))
