"""The strips of a plane that stay free of modules, as flat patches."""

from collections.abc import Iterator
from dataclasses import dataclass

from shapely import LineString, Polygon, get_parts, unary_union
from shapely.geometry.base import BaseGeometry

from ridge_tally.core.array.blockers import BlockerKind, ground_of
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.survey.outline import corners_m

Ring = tuple[tuple[float, float], ...]
# A boundary nearer than this to the plane's own edge is that edge; and what is smaller is no patch.
SAME_M, LEAST_M2 = 1e-3, 1e-4


@dataclass(frozen=True, slots=True)
class Patch:
    """A flat piece with its holes, plane metres; ``inner``: its bounds that are no edge of the plane."""

    outer: Ring
    holes: tuple[Ring, ...]
    inner: tuple[Ring, ...]


def kept_free(plane: RoofPlane, path_edge: int | None) -> tuple[Patch, ...]:
    """Return the strips along edges, the access path and the keep-outs of a closed plane.

    Parameters
    ----------
    path_edge : int, optional
        The edge the access path runs along, as the array's check found it.
    """
    ground = ground_of(plane, path_edge)
    roof = Polygon(corners_m(plane))
    wanted: list[BaseGeometry] = [
        LineString(((ax, ay), (bx, by))).buffer(radius, quad_segs=24)
        for (ax, ay, bx, by, radius), owner in zip(ground.capsules, ground.owners, strict=True)
        if owner.kind in (BlockerKind.EDGE, BlockerKind.PATH) and radius > 0
    ]
    wanted += [Polygon([(p.x_m, p.y_m) for p in zone.corners]) for zone in plane.keep_outs]
    if not wanted or not roof.is_valid:
        return ()
    free = unary_union(wanted).intersection(roof)
    near = roof.exterior.buffer(SAME_M)
    return tuple(
        Patch(
            _ring(piece.exterior.coords),
            tuple(_ring(hole.coords) for hole in piece.interiors),
            tuple(_lines(piece.boundary.difference(near))),
        )
        for piece in get_parts(free)
        if isinstance(piece, Polygon) and piece.area > LEAST_M2
    )


def _lines(geometry: BaseGeometry) -> Iterator[Ring]:
    for part in get_parts(geometry):
        if isinstance(part, LineString) and part.length > SAME_M:
            yield _ring(part.coords)


def _ring(coords: object) -> Ring:
    return tuple((float(x), float(y)) for x, y in coords)  # type: ignore[attr-defined]
