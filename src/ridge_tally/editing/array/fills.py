"""Applying the edits of a plane's fill and of the strips round it."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.array.lay import Place
from ridge_tally.core.errors import BadGeometry, MissingDatum, OutOfRange
from ridge_tally.core.job.array import PlaneArray
from ridge_tally.core.job.document import (
    Job,
    array_of,
    option_of,
    plane_of,
    with_array,
    with_option,
    with_plane,
)
from ridge_tally.core.job.edits.array.fills import (
    ApplySetbackPack,
    ArrayField,
    FillEdit,
    FillPlane,
    LayModules,
    SetAccessPath,
    SetArrayField,
    SetBrushed,
    SetMounting,
    SetOnLines,
    SetSymmetric,
)
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.survey import AccessPath, EdgeKind, Setbacks
from ridge_tally.core.job.system import LaidArray, laid_array
from ridge_tally.core.survey.outline import require_closed
from ridge_tally.core.units import LengthUnit, format_length, parse_length_m, parse_number
from ridge_tally.editing.array.brackets import set_on_lines
from ridge_tally.editing.array.filled import filled, nothing_fits, require_possible, with_places
from ridge_tally.editing.array.respaced import stood_anew, typed_gap_m
from ridge_tally.rules.array.setbacks import edge_zone_m, setback_pack
from ridge_tally.rules.option_document import LONGEST_RUN, STEEPEST_LEG_DEG

WIDEST_PATH_M = 5.0


def fills_changed(job: Job, edit: FillEdit) -> Job:
    """Return the job after an edit of a plane's fill or of the strips round it.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the field, the value and the remedy.
    """
    match edit:
        case FillPlane():
            return filled(job, edit.option_id, edit.plane_id, edit.ways)
        case LayModules():
            return _laid(job, edit)
        case SetArrayField():
            return _field_set(job, edit)
        case ApplySetbackPack():
            return _packed(job, edit)
        case SetAccessPath():
            return _path_set(job, edit)
        case SetOnLines() | SetSymmetric() | SetMounting() | SetBrushed():
            option = option_of(job, edit.option_id)
            laid = laid_array(job, option, array_of(option, edit.plane_id))
            return with_option(job, with_array(option, _array_set(laid, edit)))
        case _:
            assert_never(edit)


def _array_set(
    laid: LaidArray, edit: SetOnLines | SetSymmetric | SetMounting | SetBrushed
) -> PlaneArray:
    array = laid.array
    match edit:
        case SetOnLines():
            return set_on_lines(laid)
        case SetSymmetric():
            return replace(array, symmetric=edit.on)
        case SetMounting():
            return replace(array, mounting=edit.mounting)
        case SetBrushed():
            return replace(array, brushed=edit.on)
        case _:
            assert_never(edit)


def _laid(job: Job, edit: LayModules) -> Job:
    option = option_of(job, edit.option_id)
    laid = laid_array(job, option, array_of(option, edit.plane_id))
    require_closed(laid.plane)
    if not edit.places:
        raise nothing_fits(laid)
    places = [Place(p.x_m, p.y_m, p.orientation) for p in edit.places]
    array = with_places(laid, places)
    require_possible(replace(laid, array=array), {m.id for m in array.modules})
    return with_option(job, with_array(option, array))


def _field_set(job: Job, edit: SetArrayField) -> Job:
    option, plane = option_of(job, edit.option_id), plane_of(job, edit.plane_id)
    array = array_of(option, plane.id)
    kind = ArrayField
    match edit.field:
        case kind.SHORTEST_RUN:
            run = parse_number(edit.typed, "Shortest run", "a number of modules such as 2")
            if run != int(run) or not 1 <= run <= LONGEST_RUN:
                raise OutOfRange("Shortest run", run, f"a whole number, 1 to {LONGEST_RUN}")
            return with_option(job, with_array(option, replace(array, shortest_run=int(run))))
        case kind.GAP_IN_ROW:
            gap = Taped(typed_gap_m(job, edit.typed, "Gap in a row"), edit.typed.strip())
            wider = replace(array, gap_in_row=gap)
        case kind.GAP_BETWEEN_ROWS:
            gap = Taped(typed_gap_m(job, edit.typed, "Gap between rows"), edit.typed.strip())
            wider = replace(array, gap_between_rows=gap)
        case kind.LEG_TILT:
            tilt_deg = parse_number(
                edit.typed.rstrip("° "), "Tilt of the legs", "degrees such as 10"
            )
            if not 0 <= tilt_deg <= STEEPEST_LEG_DEG:
                raise OutOfRange(
                    "Tilt of the legs in degrees", tilt_deg, f"between 0 and {STEEPEST_LEG_DEG:g}"
                )
            # A tilt that is typed stays all year.
            table = array.table and replace(array.table, seasons=())
            wider = replace(array, leg_tilt_deg=tilt_deg, table=table)
        case _:
            assert_never(edit.field)
    return stood_anew(job, option, array, wider)


def _written(length_m: float, unit: LengthUnit) -> Taped:
    typed = (
        f"{length_m * 1000:.0f} mm" if unit is LengthUnit.METRE else format_length(length_m, unit)
    )
    return Taped(length_m, typed)


def _packed(job: Job, edit: ApplySetbackPack) -> Job:
    pack = setback_pack(edit.pack_id)
    widths = {s.edge.value: _written(s.width_m, job.unit) for s in pack.edges}
    if pack.edge_zone:
        if not edit.least_width.strip() or not edit.mean_height.strip():
            raise MissingDatum(
                "least width and mean roof height of the house",
                pack.title,
                "Type both: the zone is worked out from them.",
            )
        least_m = parse_length_m(edit.least_width, job.unit, "Least width of the house")
        height_m = parse_length_m(edit.mean_height, job.unit, "Mean roof height")
        for field, value in (("Least width of the house", least_m), ("Mean roof height", height_m)):
            if not 1 <= value <= 60:
                raise OutOfRange(f"{field} in metres", value, "between 1 and 60")
        zone = _written(edge_zone_m(least_m, height_m), job.unit)
        widths = {kind.value: zone for kind in EdgeKind}
    access = None
    if pack.path_m is not None:
        access = AccessPath(_written(pack.path_m, job.unit), pack.path_along)
    for plane_id in edit.plane_ids:
        plane = plane_of(job, plane_id)
        packed = replace(plane, setbacks=Setbacks(**widths), access=access, setback_pack=pack.id)
        job = with_plane(job, packed)
    return job


def _path_set(job: Job, edit: SetAccessPath) -> Job:
    plane = plane_of(job, edit.plane_id)
    if not edit.typed.strip():
        return with_plane(job, replace(plane, access=None))
    field = f"{plane.name}, access path"
    width_m = parse_length_m(edit.typed, job.unit, field)
    if not 0 < width_m <= WIDEST_PATH_M:
        raise OutOfRange(f"{field} in metres", width_m, f"above 0, at most {WIDEST_PATH_M:g}")
    if not any(kind in edit.along for kind in plane.outline.edges):
        raise BadGeometry(
            field,
            f"the plane has no {', '.join(edit.along) or 'edge'} for it to run along",
            "Choose a kind of edge that the plane has.",
        )
    access = AccessPath(Taped(width_m, edit.typed.strip()), edit.along)
    return with_plane(job, replace(plane, access=access))
