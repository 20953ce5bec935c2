"""Sketches of planes: starting shapes, clicked outlines set right, corners added and taken."""

import math
from dataclasses import replace

import numpy as np

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.edits.survey.planes import PlaneShape
from ridge_tally.core.job.places import PlanePoint
from ridge_tally.core.job.survey import EdgeKind, Outline, ReadingKind, TapeReading
from ridge_tally.core.survey.outline import FloatArray, sketch_m
from ridge_tally.core.survey.polygon import area_m2, crosses_itself

EAVE, RAKE, RIDGE = EdgeKind.EAVE, EdgeKind.RAKE, EdgeKind.RIDGE
HIP, WALL, BOUNDARY = EdgeKind.HIP, EdgeKind.WALL, EdgeKind.BOUNDARY
# A corner clicked within this of a right angle is taken as drawn square, and marked so.
NEARLY_SQUARE_DEG = 12.0
NEARLY_LEVEL_DEG = 20.0
Shape = tuple[tuple[tuple[float, float], ...], tuple[EdgeKind, ...], tuple[TapeReading, ...]]


def _square(*corners: int) -> tuple[TapeReading, ...]:
    return tuple(TapeReading(ReadingKind.RIGHT_ANGLE, (c,)) for c in corners)


OBLONG = ((0.0, 0.0), (10.0, 0.0), (10.0, 6.0), (0.0, 6.0))
ELL = ((0.0, 0.0), (11.0, 0.0), (11.0, 4.0), (6.0, 4.0), (6.0, 8.0), (0.0, 8.0))
NOTCHED = (
    (0.0, 0.0), (4.0, 0.0), (4.0, 2.5), (6.5, 2.5), (6.5, 0.0), (10.5, 0.0), (10.5, 6.0), (0.0, 6.0),
)  # fmt: skip
SHAPES: dict[PlaneShape, Shape] = {
    PlaneShape.GABLE: (OBLONG, (EAVE, RAKE, RIDGE, RAKE), _square(0, 1, 2, 3)),
    PlaneShape.SHED: (OBLONG, (EAVE, RAKE, WALL, RAKE), _square(0, 1, 2, 3)),
    PlaneShape.WALL: (OBLONG, (WALL, WALL, WALL, WALL), _square(0, 1, 2, 3)),
    PlaneShape.GROUND: (
        OBLONG,
        (BOUNDARY, BOUNDARY, BOUNDARY, BOUNDARY),
        _square(0, 1, 2, 3),
    ),
    # Every edge of a carport is free: nothing stands on its upper one.
    PlaneShape.CARPORT: (
        ((0.0, 0.0), (6.0, 0.0), (6.0, 4.0), (0.0, 4.0)),
        (EAVE, RAKE, EAVE, RAKE),
        _square(0, 1, 2, 3),
    ),
    PlaneShape.HIP: (
        ((0.0, 0.0), (12.0, 0.0), (8.5, 5.0), (3.5, 5.0)),
        (EAVE, HIP, RIDGE, HIP),
        (TapeReading(ReadingKind.PARALLEL, (0, 2)),),
    ),
    PlaneShape.HIP_END: (((0.0, 0.0), (8.0, 0.0), (4.0, 5.0)), (EAVE, HIP, HIP), ()),
    PlaneShape.ELL: (ELL, (EAVE, RAKE, RIDGE, RAKE, RIDGE, RAKE), _square(0, 1, 2, 3, 4, 5)),
    PlaneShape.DORMER_CUT: (
        NOTCHED,
        (EAVE, WALL, WALL, WALL, EAVE, RAKE, RIDGE, RAKE),
        (*_square(0, 1, 2, 3, 4, 5, 6, 7), TapeReading(ReadingKind.ON_LINE, (4, 0))),
    ),
}


def starting_outline(shape: PlaneShape) -> Outline:
    """Return the sketch of a shape: marks where it is drawn square, no length yet."""
    corners, edges, marks = SHAPES[shape]
    return Outline(tuple(PlanePoint(x, y) for x, y in corners), edges, marks)


def sketched_outline(points: tuple[PlanePoint, ...], name: str) -> Outline:
    """Return a clicked outline in the survey's order, edges and square corners guessed.

    Raises
    ------
    BadGeometry
        If it has too few corners or crosses itself.
    """
    sketch = sketch_m(points)
    if len(sketch) < 3 or crosses_itself(sketch) or abs(area_m2(sketch)) < 1e-3:
        raise BadGeometry(
            name, "the sketch crosses itself or encloses nothing", "Click its corners in order."
        )
    if area_m2(sketch) < 0:
        sketch = sketch[::-1]
    sketch = np.roll(sketch, -_lower_edge(sketch), axis=0)
    headings = _headings_deg(sketch)
    edges = tuple(_edge_kind(i, headings) for i in range(len(sketch)))
    turns = (headings - np.roll(headings, 1) + 180) % 360 - 180
    nearly = np.abs(np.abs(turns) - 90) <= NEARLY_SQUARE_DEG
    corners = tuple(PlanePoint(round(float(x), 3), round(float(y), 3)) for x, y in sketch)
    return Outline(corners, edges, _square(*(int(i) for i in np.flatnonzero(nearly))))


def _lower_edge(sketch: FloatArray) -> int:
    """Return the lowest edge that runs to the right: the eave."""
    after = np.roll(sketch, -1, axis=0)
    level = np.abs((_headings_deg(sketch) + 180) % 360 - 180) <= 45
    middle_y = np.where(level, (sketch[:, 1] + after[:, 1]) / 2, np.inf)
    return int(np.argmin(middle_y)) if level.any() else int(np.argmin(sketch[:, 1]))


def _headings_deg(sketch: FloatArray) -> FloatArray:
    run = np.roll(sketch, -1, axis=0) - sketch
    return np.asarray(np.degrees(np.arctan2(run[:, 1], run[:, 0])))


def _edge_kind(edge: int, headings_deg: FloatArray) -> EdgeKind:
    off_level = abs((headings_deg[edge] - headings_deg[0] + 180) % 360 - 180)
    if edge == 0 or off_level <= NEARLY_LEVEL_DEG:
        return EAVE
    if off_level >= 180 - NEARLY_LEVEL_DEG:
        return RIDGE
    return RAKE if abs(off_level - 90) <= NEARLY_LEVEL_DEG else HIP


def with_corner_on(outline: Outline, edge: int) -> Outline:
    """Return the outline with a new corner in the middle of an edge; that edge's length goes."""
    after = (edge + 1) % len(outline.corners)
    a, b = outline.corners[edge], outline.corners[after]
    middle = PlanePoint(round((a.x_m + b.x_m) / 2, 3), round((a.y_m + b.y_m) / 2, 3))

    def moved(place: int) -> int:
        return place + 1 if place > edge else place

    kept = [r for r in outline.readings if not _names_edge(r, edge)]
    return Outline(
        (*outline.corners[: edge + 1], middle, *outline.corners[edge + 1 :]),
        (*outline.edges[: edge + 1], outline.edges[edge], *outline.edges[edge + 1 :]),
        tuple(replace(r, at=tuple(moved(p) for p in r.at)) for r in kept),
    )


def without_corner(outline: Outline, corner: int, name: str) -> Outline:
    """Return the outline with a corner taken out, and the readings that named it or its edges.

    Raises
    ------
    BadGeometry
        If three corners are all there are, or the eave's own corners are meant.
    """
    if len(outline.corners) <= 3:
        raise BadGeometry(name, "three corners are the fewest", "Draw the outline again.")
    if corner < 2:
        raise BadGeometry(
            name, f"corner {corner + 1} begins or ends the eave", "Draw the outline again."
        )
    before = corner - 1

    def moved(place: int) -> int:
        return place - 1 if place > before else place

    kept = [
        r
        for r in outline.readings
        if not (_names_edge(r, before) or _names_edge(r, corner) or _names_corner(r, corner))
    ]
    return Outline(
        outline.corners[:corner] + outline.corners[corner + 1 :],
        outline.edges[:corner] + outline.edges[corner + 1 :],
        tuple(replace(r, at=tuple(moved(p) for p in r.at)) for r in kept),
    )


def _names_edge(reading: TapeReading, edge: int) -> bool:
    match reading.kind:
        case ReadingKind.SIDE | ReadingKind.PARALLEL:
            return edge in reading.at
        case ReadingKind.OFFSET | ReadingKind.ALONG | ReadingKind.ON_LINE:
            return reading.at[1] == edge
        case ReadingKind.DIAGONAL | ReadingKind.RIGHT_ANGLE:
            return False


def _names_corner(reading: TapeReading, corner: int) -> bool:
    match reading.kind:
        case ReadingKind.SIDE | ReadingKind.PARALLEL:
            return False
        case ReadingKind.OFFSET | ReadingKind.ALONG | ReadingKind.ON_LINE:
            return reading.at[0] == corner
        case ReadingKind.DIAGONAL | ReadingKind.RIGHT_ANGLE:
            return corner in reading.at


def mirrored(outline: Outline, corners: FloatArray) -> Outline:
    """Return the outline as the far side of a ridge has it: left and right exchanged.

    Parameters
    ----------
    corners : (n, 2) float
        The adjusted corners, in the lengths the readings are given in.

    Notes
    -----
    Corner c becomes 1 - c and edge e becomes -e, counted round.  A distance along an edge is
    counted from its other end.
    """
    count = len(outline.corners)
    edge_m = np.hypot(*(np.roll(corners, -1, axis=0) - corners).T)

    def reading(r: TapeReading) -> TapeReading:
        corner_kinds = (ReadingKind.DIAGONAL, ReadingKind.RIGHT_ANGLE)
        mixed = (ReadingKind.OFFSET, ReadingKind.ALONG, ReadingKind.ON_LINE)
        if r.kind in corner_kinds:
            at = tuple((1 - c) % count for c in r.at)
        elif r.kind in mixed:
            at = ((1 - r.at[0]) % count, -r.at[1] % count)
        else:
            at = tuple(-e % count for e in r.at)
        taped = r.taped
        if r.kind is ReadingKind.ALONG and taped is not None:
            rest_m = float(edge_m[r.at[1]]) - taped.value_m
            taped = replace(taped, value_m=round(rest_m, 4), typed=f"{rest_m:.3f} m")
        return replace(r, at=at, taped=taped, derived=taped is not None)

    width = max(c.x_m for c in outline.corners)
    flipped = [outline.corners[(1 - i) % count] for i in range(count)]
    return Outline(
        tuple(PlanePoint(round(width - c.x_m, 4), c.y_m) for c in flipped),
        tuple(outline.edges[-i % count] for i in range(count)),
        tuple(reading(r) for r in outline.readings),
    )


def triangle_outline(eave_m: float, left_m: float, right_m: float) -> tuple[PlanePoint, ...]:
    """Return the corners of a triangle on its eave from the lengths of its three sides."""
    x_m = (eave_m**2 + left_m**2 - right_m**2) / (2 * eave_m)
    y_m = math.sqrt(max(left_m**2 - x_m**2, 0.0))
    return (PlanePoint(0.0, 0.0), PlanePoint(eave_m, 0.0), PlanePoint(x_m, y_m))
