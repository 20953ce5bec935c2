"""Roof planes: added, derived from one another, placed, turned, named and taken away."""

import math
import re
from dataclasses import replace

from ridge_tally.catalogue.gazetteer import site_declination_deg
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotUnderstood, OutOfRange
from ridge_tally.core.job.document import Job, plane_of, with_plane
from ridge_tally.core.job.edits.survey.planes import (
    AddHipPlanes,
    AddOtherSide,
    AddPlane,
    FaceByCorners,
    JoinEdges,
    MovePlane,
    PlaneEdit,
    PlaneField,
    PlaneShape,
    RemovePlane,
    RenamePlane,
    SetGroundField,
    SetLengthBasis,
    SetPlaneField,
    SetTrenchRoute,
)
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.places import SitePoint, Taped
from ridge_tally.core.job.survey import (
    EdgeKind,
    GroundArea,
    LengthBasis,
    Outline,
    ReadingKind,
    RoofPlane,
    Setbacks,
    TapeReading,
)
from ridge_tally.core.survey.ground import ground_of_plane
from ridge_tally.core.survey.outline import adjusted_outline, corners_m, is_closed
from ridge_tally.core.survey.shapes import mirrored, starting_outline, triangle_outline
from ridge_tally.core.survey.site_frame import (
    axes,
    azimuth_of_eave_deg,
    joined_at,
    to_site,
)
from ridge_tally.core.survey.taping import drawn_length, typed_length
from ridge_tally.core.units import (
    LengthUnit,
    one_line,
    parse_number,
    parse_slope_deg,
)
from ridge_tally.editing.rows import next_id
from ridge_tally.editing.survey.grounds import ground_field, with_ground_arrays, with_open_arrays

MOST_PLANES = 12
# A new plane is laid this far east of the others until it is placed.
ASIDE_M = 3.0


def planes_changed(job: Job, edit: PlaneEdit) -> Job:  # noqa: PLR0911, PLR0912 - one return an edit
    """Return the job after an edit of its planes.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound
        If a figure cannot be, the list is full or would be empty, or has no such plane.
    """
    match edit:
        case AddPlane():
            name = f"Wall {len(job.survey.planes) + 1}" if edit.shape is PlaneShape.WALL else ""
            new = blank_plane(_next_id(job), name or _next_name(job), job.unit, edit.shape)
            plane = replace(new, azimuth_deg=equator_deg(job))
            if edit.shape is PlaneShape.GROUND:
                return with_ground_arrays(_added(job, _as_ground(job, plane)), plane.id)
            if edit.shape is PlaneShape.CARPORT:
                return with_open_arrays(_added(job, _as_carport(job, plane)), plane.id)
            return _added(job, _beside(job, plane))
        case AddOtherSide():
            return _added(job, _other_side(job, plane_of(job, edit.plane_id)))
        case AddHipPlanes():
            return _with_hip(job, plane_of(job, edit.plane_id))
        case RenamePlane():
            return with_plane(job, replace(plane_of(job, edit.plane_id), name=edit.name.strip()))
        case RemovePlane():
            return _without(job, plane_of(job, edit.plane_id))
        case SetPlaneField():
            return with_plane(job, _plane_field(job, edit))
        case SetGroundField():
            return with_plane(job, ground_field(job, edit))
        case SetTrenchRoute():
            plane = plane_of(job, edit.plane_id)
            ground = replace(ground_of_plane(plane), trench_route=edit.points)
            return with_plane(job, replace(plane, ground=ground))
        case SetLengthBasis():
            return with_plane(job, replace(plane_of(job, edit.plane_id), lengths=edit.basis))
        case MovePlane():
            at = SitePoint(round(edit.east_m, 3), round(edit.north_m, 3))
            return with_plane(job, replace(plane_of(job, edit.plane_id), at=at, at_given=True))
        case JoinEdges():
            plane, other = plane_of(job, edit.plane_id), plane_of(job, edit.other_id)
            for of, edge in ((plane, edit.edge), (other, edit.other_edge)):
                if not 0 <= edge < len(of.outline.edges):
                    raise OutOfRange(f"{of.name}, edge", edge + 1, f"1 to {len(of.outline.edges)}")
            at, height_m = joined_at(plane, edit.edge, other, edit.other_edge)
            return with_plane(
                job,
                replace(plane, at=at, at_given=True, eave_height=drawn_length(height_m, job.unit)),
            )
        case FaceByCorners():
            plane = plane_of(job, edit.plane_id)
            azimuth_deg = round(azimuth_of_eave_deg(edit.left, edit.right), 1) % 360
            faced = replace(plane, azimuth_deg=azimuth_deg, compass_deg=None, azimuth_given=True)
            return with_plane(job, replace(faced, at=edit.left, at_given=True))


def blank_plane(
    plane_id: PlaneId,
    name: str,
    unit: LengthUnit,
    shape: PlaneShape = PlaneShape.GABLE,
) -> RoofPlane:
    """Return a plane of that shape without a reading yet."""
    metric = unit is LengthUnit.METRE
    eave, narrow, wide = (
        typed_length(m if metric else ft, unit)
        for m, ft in (("0.15", '6"'), ("0.3", '12"'), ("0.45", '18"'))
    )
    upright = shape is PlaneShape.WALL
    return RoofPlane(
        id=plane_id,
        name=name,
        outline=starting_outline(shape),
        slope_deg=90.0 if upright else 25.0,
        slope_typed="90" if upright else "",
        azimuth_deg=180.0,
        azimuth_given=False,
        setbacks=Setbacks(
            eave=eave,
            ridge=wide,
            rake=narrow,
            hip=wide,
            valley=wide,
            wall=narrow,
        ),
    )


def equator_deg(job: Job) -> float:
    """Return which way a roof that nobody has looked at is taken to face: the equator."""
    return 180.0 if job.site.latitude_deg >= 0 else 0.0


def facing_equator(job: Job) -> Job:
    """Return the job with planes whose azimuth is a guess facing the equator of its site."""
    planes = tuple(
        p
        if p.azimuth_given or p.azimuth_deg not in (0.0, 180.0)
        else replace(p, azimuth_deg=equator_deg(job))
        for p in job.survey.planes
    )
    return replace(job, survey=replace(job.survey, planes=planes))


def with_true_azimuths(job: Job) -> Job:
    """Return the job with every compass reading made true for its place and day."""
    planes = tuple(
        plane
        if plane.compass_deg is None
        else replace(plane, azimuth_deg=_true_deg(job, plane.compass_deg, plane.azimuth_deg))
        for plane in job.survey.planes
    )
    return replace(job, survey=replace(job.survey, planes=planes))


def true_bearing_deg(job: Job, typed: str, field: str) -> tuple[float, float | None]:
    """Return a bearing made true, and what the compass read where it comes from one.

    Raises
    ------
    NotUnderstood, OutOfRange, MissingDatum
        For text that is no bearing, or a compass reading on no day.
    """
    expected = "degrees from true north such as 176, or as read: 168.6 compass"
    text = one_line(typed, field, expected)
    found = _COMPASS.search(text)
    bare = text[: found.start()] if found else text.removesuffix("true").rstrip()
    bearing = parse_number(bare, field, expected)
    if not 0 <= bearing <= 360:
        raise OutOfRange(f"{field} in degrees", bearing, "between 0 and 360")
    if not found:
        return bearing % 360, None
    if job.site.survey_day is None:
        raise MissingDatum("day of the survey", "The brief", "A compass drifts: type the day.")
    return _true_deg(job, bearing, bearing), bearing


_COMPASS = re.compile(r" ?(?:by )?(?:compass|magnetic|mag)\.?$", re.IGNORECASE)


def _true_deg(job: Job, compass_deg: float, otherwise_deg: float) -> float:
    """Return a compass reading turned by the declination of place and day.

    Without a day, or outside the years of the magnetic model, the azimuth stays as it was.
    """
    east_deg = site_declination_deg(job.site)
    return otherwise_deg if east_deg is None else round((compass_deg + east_deg) % 360, 2)


def _plane_field(job: Job, edit: SetPlaneField) -> RoofPlane:
    plane, kind = plane_of(job, edit.plane_id), PlaneField
    match edit.field:
        case kind.SLOPE if plane.ground is not None:
            raise BadGeometry(
                f"{plane.name}, slope",
                "a ground area is a level frame for its rows",
                "Type how the ground falls, and the tilt of the tables in Array.",
            )
        case kind.SLOPE:
            slope_deg = parse_slope_deg(edit.typed, f"{plane.name}, slope", job.unit)
            return replace(plane, slope_deg=slope_deg, slope_typed=edit.typed.strip())
        case kind.AZIMUTH:
            azimuth, compass = true_bearing_deg(job, edit.typed, f"{plane.name}, azimuth")
            return replace(plane, azimuth_deg=azimuth, compass_deg=compass, azimuth_given=True)
        case kind.EAVE_HEIGHT:
            if not edit.typed.strip():
                return replace(plane, eave_height=None)
            field = f"{plane.name}, eave above ground"
            height = typed_length(edit.typed, job.unit, field)
            if not 0 <= height.value_m <= 60:
                raise OutOfRange(f"{field} in metres", height.value_m, "between 0 and 60")
            return replace(plane, eave_height=height)
        case _:
            name = edit.field.value.removeprefix("setback_")
            field = f"{plane.name}, free strip at the {name}"
            taped = typed_length(edit.typed, job.unit, field)
            return replace(plane, setbacks=_with_strip(plane.setbacks, edit.field, taped))


def _with_strip(strips: Setbacks, field: PlaneField, taped: Taped) -> Setbacks:  # noqa: PLR0911 - one arm a strip
    kind = PlaneField
    match field:
        case kind.SETBACK_EAVE:
            return replace(strips, eave=taped)
        case kind.SETBACK_RIDGE:
            return replace(strips, ridge=taped)
        case kind.SETBACK_RAKE:
            return replace(strips, rake=taped)
        case kind.SETBACK_HIP:
            return replace(strips, hip=taped)
        case kind.SETBACK_VALLEY:
            return replace(strips, valley=taped)
        case kind.SETBACK_WALL:
            return replace(strips, wall=taped)
        case kind.SETBACK_BOUNDARY:
            return replace(strips, boundary=taped)
        case _:
            raise NotUnderstood("Field", field.value, "a strip along an edge")


def _as_ground(job: Job, plane: RoofPlane) -> RoofPlane:
    """Return a plane as a level frame over ground, its rows to face the equator."""
    facing_deg = equator_deg(job)
    number = 1 + sum(p.ground is not None for p in job.survey.planes)
    return replace(
        _beside(job, plane),
        name=f"Ground area {number}",
        slope_deg=0.0,
        slope_typed="0",
        azimuth_deg=facing_deg,
        azimuth_given=True,
        eave_height=typed_length("0", job.unit, "Ground"),
        ground=GroundArea(falls_to_deg=facing_deg),
    )


def _as_carport(job: Job, plane: RoofPlane) -> RoofPlane:
    """Return a plane as a roof on posts, its slope and height still to be read."""
    return replace(
        _beside(job, plane),
        name=f"Carport {1 + sum(p.open_below for p in job.survey.planes)}",
        slope_deg=5.0,
        open_below=True,
    )


def _next_id(job: Job) -> PlaneId:
    return PlaneId(next_id("plane-", [p.id for p in job.survey.planes]))


def _next_name(job: Job) -> str:
    return f"Roof plane {len(job.survey.planes) + 1}"


def _beside(job: Job, plane: RoofPlane) -> RoofPlane:
    """Return a plane free of those there are, east of them, until somebody places it."""
    drawn = [to_site(p, corners_m(p)) for p in job.survey.planes]
    if not drawn:
        # The first is what the others are placed by.
        return replace(plane, at=SitePoint(0.0, 0.0), at_given=True)
    east_m = max(float(points[:, 0].max()) for points in drawn)
    south_m = min(float(points[:, 1].min()) for points in drawn)
    at = SitePoint(round(east_m + ASIDE_M, 2), round(south_m, 2))
    return replace(plane, at=at, at_given=False)


def _added(job: Job, plane: RoofPlane) -> Job:
    if len(job.survey.planes) >= MOST_PLANES:
        raise BadGeometry(
            "Roof planes", f"a job holds at most {MOST_PLANES}", "Remove one, or make a second job."
        )
    return replace(job, survey=replace(job.survey, planes=(*job.survey.planes, plane)))


def _turned(plane: RoofPlane, by_deg: float) -> RoofPlane:
    compass = plane.compass_deg
    return replace(
        plane,
        azimuth_deg=round((plane.azimuth_deg + by_deg) % 360, 4),
        compass_deg=None if compass is None else round((compass + by_deg) % 360, 4),
    )


def _bare(plane: RoofPlane) -> RoofPlane:
    """Return the plane without what stands on it or was drawn on it."""
    return replace(plane, obstructions=(), keep_outs=(), existing=())


def _other_side(job: Job, plane: RoofPlane) -> RoofPlane:
    """Return the mirror image across the ridge, facing away, its ridge on the first one's."""
    read = adjusted_outline(plane.outline).corners_m
    other = replace(
        _turned(_bare(plane), 180),
        id=_next_id(job),
        name=f"{plane.name[:60]}, other side",
        outline=mirrored(plane.outline, read),
    )
    ridges = [i for i, kind in enumerate(plane.outline.edges) if kind is EdgeKind.RIDGE]
    if not ridges:
        return _beside(job, other)
    edge = ridges[0]
    at, _ = joined_at(other, -edge % len(plane.outline.edges), plane, edge)
    return replace(other, at=at, at_given=plane.at_given)


def _with_hip(job: Job, plane: RoofPlane) -> Job:
    """Return the job with the other three planes of a hip roof.

    Raises
    ------
    BadGeometry, MissingDatum
        If the first is no closed hip plane of four corners.

    Notes
    -----
    With eave a, depth d up slope s and ridge insets l and r: the ends are triangles on
    2 d cos s whose slopes are atan(d sin s / l) and atan(d sin s / r).
    """
    kinds = plane.outline.edges
    if kinds != (EdgeKind.EAVE, EdgeKind.HIP, EdgeKind.RIDGE, EdgeKind.HIP):
        raise BadGeometry(
            plane.name,
            "a hip roof is derived from a plane of eave, hip, ridge, hip",
            "Start it from the hip shape, or add the planes one by one.",
        )
    if not is_closed(plane):
        raise MissingDatum("closed outline", plane.name, "Type the readings that fix its corners.")
    corners = corners_m(plane)
    slope = math.radians(plane.slope_deg)
    depth_m = float(corners[2:, 1].mean())
    rise_m, width_m = depth_m * math.sin(slope), 2 * depth_m * math.cos(slope)
    insets = (float(corners[3, 0]), float(corners[1, 0] - corners[2, 0]))
    if min(insets) <= 0.05:
        raise BadGeometry(
            plane.name,
            "its ridge is as long as its eave, so there is no hip end",
            "Use “Other side”.",
        )
    site = to_site(plane, corners)
    job = _added(job, _other_side(job, plane))
    for which, inset_m, by_deg in (("left", insets[0], 90.0), ("right", insets[1], -90.0)):
        hip_m = math.hypot(depth_m, inset_m)
        slope_deg = math.degrees(math.atan2(rise_m, inset_m))
        end = replace(
            _turned(_bare(plane), by_deg),
            id=_next_id(job),
            name=f"{plane.name[:60]}, {which} hip end",
            outline=_triangle(width_m, hip_m, job.unit),
            slope_deg=slope_deg,
            slope_typed=f"{slope_deg:.2f}",
            lengths=LengthBasis.SLOPE,
        )
        # The left end's eave ends where the first plane's begins; the right end's begins there.
        corner = site[0] if which == "left" else site[1]
        step = axes(end.azimuth_deg, end.slope_deg)[0] * (width_m if which == "left" else 0.0)
        at = SitePoint(round(float(corner[0] - step[0]), 4), round(float(corner[1] - step[1]), 4))
        job = _added(job, replace(end, at=at, at_given=plane.at_given))
    return job


def _triangle(eave_m: float, hip_m: float, unit: LengthUnit) -> Outline:
    sides = (eave_m, hip_m, hip_m)
    return Outline(
        triangle_outline(eave_m, hip_m, hip_m),
        (EdgeKind.EAVE, EdgeKind.HIP, EdgeKind.HIP),
        tuple(
            TapeReading(ReadingKind.SIDE, (i,), drawn_length(side, unit), derived=True)
            for i, side in enumerate(sides)
        ),
    )


def _without(job: Job, plane: RoofPlane) -> Job:
    """Return the job without a plane, and without what stood on it or spoke of it."""
    if len(job.survey.planes) == 1:
        raise BadGeometry("Roof planes", "the last one cannot be removed", "Type over its lengths.")
    planes = tuple(p for p in job.survey.planes if p.id != plane.id)
    hung = tuple(a for a in job.survey.attachments if a.plane_id != plane.id)
    options = tuple(
        replace(
            o,
            arrays=tuple(a for a in o.arrays if a.plane_id != plane.id),
            boxes=tuple(b for b in o.boxes if b.plane_id != plane.id),
            racking=replace(
                o.racking, planes=tuple(p for p in o.racking.planes if p.plane_id != plane.id)
            ),
        )
        for o in job.options
    )
    brief, already = job.brief, job.brief.already
    arrays = tuple(
        replace(a, plane_ids=tuple(i for i in a.plane_ids if i != plane.id)) for a in already.arrays
    )
    kept = tuple(i for i in brief.wishes.no_go_planes if i != plane.id)
    return replace(
        job,
        survey=replace(job.survey, planes=planes, attachments=hung),
        options=options,
        brief=replace(
            brief,
            already=replace(already, arrays=arrays),
            wishes=replace(brief.wishes, no_go_planes=kept),
        ),
    )
