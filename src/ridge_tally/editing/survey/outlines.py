"""A plane's outline: sketched, given its readings, marked, and named for people."""

from dataclasses import replace

from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.job.document import Job, plane_of, with_plane
from ridge_tally.core.job.edits.survey.outlines import (
    AddCorner,
    LeaveOutReading,
    MarkOutline,
    MoveCorner,
    OutlineEdit,
    RemoveCorner,
    SetEdgeKind,
    SetReading,
    SketchOutline,
    StartShape,
)
from ridge_tally.core.job.edits.survey.planes import PlaneShape
from ridge_tally.core.job.places import PlanePoint
from ridge_tally.core.job.survey import EdgeKind, Outline, ReadingKind, RoofPlane, TapeReading
from ridge_tally.core.survey.outline import (
    adjusted_outline,
    reading_name,
    sketch_m,
    up_slope_per_plan,
)
from ridge_tally.core.survey.polygon import crosses_itself
from ridge_tally.core.survey.possible import require_place, require_places
from ridge_tally.core.survey.readings import LENGTHS
from ridge_tally.core.survey.shapes import (
    sketched_outline,
    starting_outline,
    with_corner_on,
    without_corner,
)
from ridge_tally.core.survey.taping import typed_length

# Kinds whose two places may be named either way round.
SYMMETRIC = frozenset({ReadingKind.DIAGONAL, ReadingKind.PARALLEL})


def outline_changed(job: Job, edit: OutlineEdit) -> Job:
    """Return the job after an edit of a plane's outline.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, NotFound
        Naming the reading and the remedy.
    """
    plane = plane_of(job, edit.plane_id)
    begun = replace(plane, outline=_outline(job, plane, edit))
    if isinstance(edit, StartShape) and plane.ground is None:
        begun = replace(begun, open_below=edit.shape is PlaneShape.CARPORT)
    return with_plane(job, begun)


def _outline(job: Job, plane: RoofPlane, edit: OutlineEdit) -> Outline:  # noqa: PLR0911 - one return an edit
    outline = plane.outline
    match edit:
        case StartShape():
            return starting_outline(edit.shape)
        case SketchOutline():
            return sketched_outline(edit.corners, plane.name)
        case AddCorner():
            require_place(plane, "edge", edit.edge)
            return with_corner_on(outline, edit.edge)
        case MoveCorner():
            return _with_corner_moved(plane, edit)
        case RemoveCorner():
            require_place(plane, "corner", edit.corner)
            return without_corner(outline, edit.corner, plane.name)
        case SetEdgeKind():
            require_place(plane, "edge", edit.edge)
            kinds = list(outline.edges)
            kinds[edit.edge] = EdgeKind(edit.edge_kind)
            return replace(outline, edges=tuple(kinds))
        case SetReading():
            return _with_reading(job, plane, edit)
        case MarkOutline():
            at = _place(plane, edit.reading, edit.at)
            if edit.reading in LENGTHS:
                raise BadGeometry(plane.name, "a length is typed, not marked", "Type the reading.")
            kept = _without(outline, edit.reading, at)
            if not edit.on:
                return kept
            return replace(kept, readings=(*kept.readings, TapeReading(edit.reading, at)))
        case LeaveOutReading():
            at = _place(plane, edit.reading, edit.at)
            readings = tuple(
                replace(r, left_out=edit.out) if (r.kind, r.at) == (edit.reading, at) else r
                for r in outline.readings
            )
            return replace(outline, readings=readings)


def _with_reading(job: Job, plane: RoofPlane, edit: SetReading) -> Outline:
    outline, at = plane.outline, _place(plane, edit.reading, edit.at)
    if edit.reading not in LENGTHS:
        raise BadGeometry(plane.name, "this fact has no length", "Mark it on the drawing.")
    if not edit.typed.strip():
        return _without(outline, edit.reading, at)
    field = f"{plane.name}, {reading_name(outline, edit.reading, at)}"
    taped = typed_length(edit.typed, job.unit, field)
    if edit.reading is not ReadingKind.ALONG and taped.value_m <= 0:
        raise OutOfRange(f"{field} in metres", taped.value_m, "more than 0", "Read the tape again.")
    new = TapeReading(edit.reading, at, taped)
    kept = [r for r in outline.readings if (r.kind, r.at) != (edit.reading, at)]
    index = next(
        (i for i, r in enumerate(outline.readings) if (r.kind, r.at) == (edit.reading, at)),
        len(kept),
    )
    return replace(outline, readings=(*kept[:index], new, *kept[index:]))


def _without(outline: Outline, kind: ReadingKind, at: tuple[int, ...]) -> Outline:
    kept = tuple(r for r in outline.readings if (r.kind, r.at) != (kind, at))
    return replace(outline, readings=kept)


def _place(plane: RoofPlane, kind: ReadingKind, at: tuple[int, ...]) -> tuple[int, ...]:
    """Return the places a reading joins, in one order."""
    require_places(plane, kind, at)
    return tuple(sorted(at)) if kind in SYMMETRIC else at


def _with_corner_moved(plane: RoofPlane, edit: MoveCorner) -> Outline:
    """Return the outline sketched anew as it is drawn, with one corner elsewhere.

    What readings fix comes back to its place; what they leave loose stays where it is put.
    """
    outline = plane.outline
    require_place(plane, "corner", edit.corner)
    drawn = adjusted_outline(outline).corners_m
    corners = [PlanePoint(round(float(x), 4), round(float(y), 4)) for x, y in drawn]
    y_m = edit.y_m / up_slope_per_plan(plane)
    corners[edit.corner] = PlanePoint(round(edit.x_m, 3), round(y_m, 3))
    if crosses_itself(sketch_m(tuple(corners))):
        raise BadGeometry(plane.name, "the sketch would cross itself", "Move the corner back.")
    return replace(outline, corners=tuple(corners))
