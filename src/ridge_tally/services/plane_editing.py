"""Roof planes added, mirrored, named and taken away."""

from dataclasses import replace

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job import edits
from ridge_tally.core.job.document import (
    Job,
    PlaneId,
    RoofPlane,
    Setbacks,
    Taped,
    Trapezoid,
    plane_of,
    with_plane,
)
from ridge_tally.core.units import LengthUnit, parse_length_m

MOST_PLANES = 6

PlaneEdit = edits.AddPlane | edits.AddOtherSide | edits.RenamePlane | edits.RemovePlane


def planes_changed(job: Job, edit: PlaneEdit) -> Job:
    """Return the job after an edit of its list of planes.

    Raises
    ------
    BadGeometry, NotFound
        If the list is full, or would be empty, or has no such plane.
    """
    match edit:
        case edits.AddPlane():
            return _added(job, blank_plane(_next_id(job), _next_name(job), job.unit))
        case edits.AddOtherSide():
            plane = plane_of(job, edit.plane_id)
            other = replace(
                plane,
                id=_next_id(job),
                name=f"{plane.name[:60]}, other side",
                azimuth_deg=(plane.azimuth_deg + 180) % 360,
                compass_deg=None if plane.compass_deg is None else (plane.compass_deg + 180) % 360,
                obstructions=(),
            )
            return _added(job, other)
        case edits.RenamePlane():
            return with_plane(job, replace(plane_of(job, edit.plane_id), name=edit.name.strip()))
        case edits.RemovePlane():
            return _without(job, plane_of(job, edit.plane_id))


def blank_plane(plane_id: PlaneId, name: str, unit: LengthUnit) -> RoofPlane:
    """Return a rectangular plane, round in its unit, to be measured over."""
    return RoofPlane(
        id=plane_id,
        name=name,
        outline=_outline(unit),
        slope_deg=25.0,
        slope_typed="25",
        azimuth_deg=180.0,
        setbacks=Setbacks(
            _taped("0.15", '6"', unit), _taped("0.45", '18"', unit), _taped("0.3", '12"', unit)
        ),
        obstructions=(),
    )


def is_unmeasured(plane: RoofPlane) -> bool:
    """Return whether a plane still has the outline of a new one."""
    return any(plane.outline == _outline(unit) for unit in LengthUnit)


def _taped(metric: str, feet: str, unit: LengthUnit) -> Taped:
    typed = metric if unit is LengthUnit.METRE else feet
    return Taped(parse_length_m(typed, unit), typed)


def _outline(unit: LengthUnit) -> Trapezoid:
    eave = _taped("10", "33'", unit)
    return Trapezoid(eave, eave, _taped("6", "20'", unit), _taped("0", "0", unit))


def _next_id(job: Job) -> PlaneId:
    taken = {p.id for p in job.survey.planes}
    free = (f"plane-{n}" for n in range(1, MOST_PLANES + 2))
    return PlaneId(next(name for name in free if name not in taken))


def _next_name(job: Job) -> str:
    return f"Roof plane {len(job.survey.planes) + 1}"


def _added(job: Job, plane: RoofPlane) -> Job:
    if len(job.survey.planes) >= MOST_PLANES:
        raise BadGeometry(
            "Roof planes", f"a job holds at most {MOST_PLANES}", "Remove one, or make a second job."
        )
    return replace(job, survey=replace(job.survey, planes=(*job.survey.planes, plane)))


def _without(job: Job, plane: RoofPlane) -> Job:
    """Return the job without a plane, and without what stood on it or spoke of it."""
    if len(job.survey.planes) == 1:
        raise BadGeometry("Roof planes", "the last one cannot be removed", "Type over its lengths.")
    planes = tuple(p for p in job.survey.planes if p.id != plane.id)
    options = tuple(
        replace(o, arrays=tuple(a for a in o.arrays if a.plane_id != plane.id)) for o in job.options
    )
    brief, already = job.brief, job.brief.already
    arrays = tuple(
        replace(a, plane_ids=tuple(i for i in a.plane_ids if i != plane.id)) for a in already.arrays
    )
    kept = tuple(i for i in brief.wishes.no_go_planes if i != plane.id)
    return replace(
        job,
        survey=replace(job.survey, planes=planes),
        options=options,
        brief=replace(
            brief,
            already=replace(already, arrays=arrays),
            wishes=replace(brief.wishes, no_go_planes=kept),
        ),
    )
