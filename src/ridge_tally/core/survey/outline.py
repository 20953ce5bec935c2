"""A roof plane as its readings make it: corners, edges, and where its obstructions stand."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.places import PlanePoint
from ridge_tally.core.job.survey import (
    ROUND_KINDS,
    ExistingRows,
    LengthBasis,
    Obstruction,
    OffsetMode,
    Outline,
    ReadingKind,
    RoofPlane,
)
from ridge_tally.core.survey.adjustment import LOCKED_SQUARE_DEG, Adjusted, adjust_outline
from ridge_tally.core.survey.polygon import contains, leftmost_x_m
from ridge_tally.core.survey.readings import Reading

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Box:
    """An axis-parallel rectangle on the plane, metres."""

    left_m: float
    bottom_m: float
    right_m: float
    top_m: float

    def ring(self) -> FloatArray:
        """Return its (4, 2) corners, anticlockwise."""
        left, bottom, right, top = self.left_m, self.bottom_m, self.right_m, self.top_m
        return np.array([[left, bottom], [right, bottom], [right, top], [left, top]])


def sketch_m(corners: tuple[PlanePoint, ...]) -> FloatArray:
    """Return points of a plane as an (n, 2) array, metres."""
    return np.array([(c.x_m, c.y_m) for c in corners], dtype=float).reshape(-1, 2)


@lru_cache(maxsize=1024)
def adjusted_outline(outline: Outline) -> Adjusted:
    """Return the outline its readings make, in the lengths they were given in.

    Raises
    ------
    OutOfRange, BadGeometry
        As ``adjust_outline``.
    """
    return adjust_outline(sketch_m(outline.corners), used_readings(outline))


@lru_cache(maxsize=256)
def adjusted_if_square(outline: Outline) -> Adjusted:
    """Return the outline as if every corner drawn square, and sides drawn parallel, truly were."""
    return adjust_outline(sketch_m(outline.corners), used_readings(outline), LOCKED_SQUARE_DEG)


def used_readings(outline: Outline) -> tuple[Reading, ...]:
    """Return the readings that are not left out, as the adjustment takes them."""
    return tuple(
        Reading(r.kind, r.at, r.taped.value_m if r.taped else 0.0)
        for r in outline.readings
        if not r.left_out
    )


def is_closed(plane: RoofPlane) -> bool:
    """Return whether the readings fix every corner of a plane."""
    return adjusted_outline(plane.outline).missing == 0


def what_would_close(adjusted: Adjusted) -> str:
    """Return which measurement fixes the loose corners, in words; empty when none is loose."""
    if not adjusted.missing:
        return ""
    loose = _listed([str(i + 1) for i in adjusted.loose])
    corners = f"corner{'s' if len(adjusted.loose) > 1 else ''} {loose}"
    more = "One more measurement" if adjusted.missing == 1 else f"{adjusted.missing} more"
    if adjusted.would_fix:
        pairs = [f"{a + 1}–{b + 1}" for a, b in adjusted.would_fix[:3]]
        return (
            f"{more} fixes {corners}: a side, or diagonal {_listed(pairs, 'or')}."
            if (adjusted.missing == 1)
            else f"{more} measurements fix {corners}: sides, or diagonals such as {pairs[0]}."
        )
    verb = "fixes" if adjusted.missing == 1 else "measurements fix"
    return f"{more} {verb} {corners}: the sides first."


def _listed(words: list[str], last: str = "and") -> str:
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} {last} {words[-1]}"


def require_closed(plane: RoofPlane) -> None:
    """Raise unless the readings fix every corner.

    Raises
    ------
    MissingDatum
        Saying which measurement would.
    """
    adjusted = adjusted_outline(plane.outline)
    if adjusted.missing:
        raise MissingDatum("closed outline yet", plane.name, what_would_close(adjusted))


def up_slope_per_plan(plane: RoofPlane) -> float:
    """Return how many metres up the slope one metre of the given lengths is."""
    if plane.lengths is LengthBasis.SLOPE:
        return 1.0
    return 1 / math.cos(math.radians(plane.slope_deg))


def corners_m(plane: RoofPlane) -> FloatArray:
    """Return the (n, 2) corners anticlockwise from the eave's left end, metres up the slope.

    Corners that no reading fixes lie where the sketch has them.
    """
    corners = adjusted_outline(plane.outline).corners_m
    return np.asarray(corners * np.array([1.0, up_slope_per_plan(plane)]))


def place_m(plane: RoofPlane, obstruction: Obstruction) -> PlanePoint:
    """Return where an obstruction's offsets lead: its centre if round, else its lower left corner.

    Notes
    -----
    ``square``: with the left edge through (0, 0) and (dx, dy) of length L, the point at height
    y that lies left_m off it has x = (left_m L + dx y) / dy.
    """
    left_m = obstruction.left.value_m
    y_m = obstruction.bottom.value_m * up_slope_per_plan(plane)
    if obstruction.offsets is OffsetMode.CORNER:
        return PlanePoint(left_m, y_m)
    corners = corners_m(plane)
    if obstruction.offsets is OffsetMode.EDGE:
        start_m = leftmost_x_m(corners, y_m)
        return PlanePoint(left_m + (start_m or 0.0), y_m)
    dx, dy = (float(v) for v in corners[-1])
    if abs(dy) < 1e-6:
        return PlanePoint(left_m, y_m)
    return PlanePoint((left_m * math.hypot(dx, dy) + dx * y_m) / dy, y_m)


def left_offset_m(plane: RoofPlane, mode: OffsetMode, place: PlanePoint) -> float:
    """Return what a tape would read as the left offset of a point, in that mode."""
    if mode is OffsetMode.CORNER:
        return place.x_m
    corners = corners_m(plane)
    if mode is OffsetMode.EDGE:
        return place.x_m - (leftmost_x_m(corners, place.y_m) or 0.0)
    dx, dy = (float(v) for v in corners[-1])
    if abs(dy) < 1e-6:
        return place.x_m
    return (place.x_m * dy - dx * place.y_m) / math.hypot(dx, dy)


def obstruction_box(plane: RoofPlane, obstruction: Obstruction) -> Box:
    """Return the box an obstruction covers."""
    place = place_m(plane, obstruction)
    width = obstruction.width.value_m
    depth = obstruction.depth.value_m * up_slope_per_plan(plane)
    if obstruction.kind in ROUND_KINDS:
        radius = width / 2
        return Box(place.x_m - radius, place.y_m - radius, place.x_m + radius, place.y_m + radius)
    return Box(place.x_m, place.y_m, place.x_m + width, place.y_m + depth)


def existing_box(plane: RoofPlane, rows: ExistingRows) -> Box:
    """Return the box modules that are already there cover."""
    up = up_slope_per_plan(plane)
    left, bottom = rows.left.value_m, rows.bottom.value_m * up
    return Box(
        left,
        bottom,
        left + rows.columns * rows.width.value_m,
        bottom + rows.rows * rows.height.value_m,
    )


def lies_on(plane: RoofPlane, ring: FloatArray) -> bool:
    """Return whether every corner of an (n, 2) ring lies on the plane."""
    return bool(contains(corners_m(plane), ring[:, 0], ring[:, 1]).all())


@lru_cache(maxsize=512)
def edge_names(outline: Outline) -> tuple[str, ...]:
    """Return what a person calls each edge: eave, left rake, hip 3–4."""
    corners = sketch_m(outline.corners)
    middle_x = (corners + np.roll(corners, -1, axis=0))[:, 0] / 2
    names = []
    for i, kind in enumerate(outline.edges):
        same = [j for j, other in enumerate(outline.edges) if other is kind]
        if len(same) == 1:
            names.append(kind.value)
        elif len(same) == 2 and middle_x[same[0]] != middle_x[same[1]]:
            left = min(same, key=lambda j: middle_x[j])
            names.append(f"{'left' if i == left else 'right'} {kind.value}")
        else:
            names.append(f"{kind.value} {i + 1}–{(i + 1) % len(corners) + 1}")
    return tuple(names)


def reading_name(outline: Outline, kind: ReadingKind, at: tuple[int, ...]) -> str:  # noqa: PLR0911 - one return a kind
    """Return what a person calls a reading: right rake, diagonal 1–3, corner 4 off the eave."""
    edges = edge_names(outline)
    match kind:
        case ReadingKind.SIDE:
            return edges[at[0]]
        case ReadingKind.DIAGONAL:
            return f"diagonal {at[0] + 1}–{at[1] + 1}"
        case ReadingKind.OFFSET:
            return f"corner {at[0] + 1} square off the {edges[at[1]]}"
        case ReadingKind.ALONG:
            return f"corner {at[0] + 1} along the {edges[at[1]]}"
        case ReadingKind.RIGHT_ANGLE:
            return f"corner {at[0] + 1} drawn square"
        case ReadingKind.PARALLEL:
            return f"{edges[at[0]]} parallel to {edges[at[1]]}"
        case ReadingKind.ON_LINE:
            return f"corner {at[0] + 1} in line with the {edges[at[1]]}"
