"""The outline of a roof plane as corners, edges and area, in plane coordinates."""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.job.document import ROUND_KINDS, Obstruction, RoofPlane, Trapezoid

FloatArray = NDArray[np.float64]
LONGEST_EDGE_M = 100.0


class EdgeKind(StrEnum):
    """What an edge of a plane is."""

    EAVE = "eave"
    RAKE = "rake"
    RIDGE = "ridge"


EDGES = (EdgeKind.EAVE, EdgeKind.RAKE, EdgeKind.RIDGE, EdgeKind.RAKE)


@dataclass(frozen=True, slots=True)
class PlanePoint:
    """A point of a plane: x along the eave, y up the slope, metres."""

    x_m: float
    y_m: float


@dataclass(frozen=True, slots=True)
class Box:
    """An axis-parallel rectangle on the plane, metres."""

    left_m: float
    bottom_m: float
    right_m: float
    top_m: float


def corners_m(outline: Trapezoid) -> FloatArray:
    """Return the (4, 2) corners counter-clockwise from the eave's left end, metres."""
    eave, ridge = outline.eave.value_m, outline.ridge.value_m
    left, height = outline.ridge_left.value_m, outline.height.value_m
    return np.array([[0, 0], [eave, 0], [left + ridge, height], [left, height]], dtype=float)


def area_m2(corners: FloatArray) -> float:
    """Return the area of an (n, 2) polygon, positive counter-clockwise (shoelace)."""
    x, y = corners[:, 0], corners[:, 1]
    return float(0.5 * np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y))


def obstruction_box(obstruction: Obstruction) -> Box:
    """Return the box an obstruction covers; a vent's offsets go to its centre."""
    left, bottom = obstruction.left.value_m, obstruction.bottom.value_m
    width, depth = obstruction.width.value_m, obstruction.depth.value_m
    if obstruction.kind in ROUND_KINDS:
        radius = width / 2
        return Box(left - radius, bottom - radius, left + radius, bottom + radius)
    return Box(left, bottom, left + width, bottom + depth)


def require_possible(plane: RoofPlane) -> None:
    """Raise if the plane cannot stand: lengths, slope, azimuth, a crossing outline.

    Raises
    ------
    OutOfRange
        A length, slope or azimuth that no roof plane has.
    BadGeometry
        Sides that cross, or an obstruction outside the outline.
    """
    outline = plane.outline
    for name, taped in (("eave", outline.eave), ("height up the slope", outline.height)):
        if not 0 < taped.value_m <= LONGEST_EDGE_M:
            raise OutOfRange(
                f"{plane.name}, {name} in metres",
                taped.value_m,
                f"more than 0 and at most {LONGEST_EDGE_M:g}",
                "Read the tape again.",
            )
    if not 0 <= plane.slope_deg < 90:
        raise OutOfRange(
            f"{plane.name}, slope in degrees",
            plane.slope_deg,
            "at least 0 and below 90",
            "Type degrees (26.6) or rise in twelve (6:12).",
        )
    if not 0 <= plane.azimuth_deg < 360:
        raise OutOfRange(
            f"{plane.name}, azimuth in degrees",
            plane.azimuth_deg,
            "at least 0 and below 360",
            "0 is true north, 90 east, 180 south.",
        )
    if not 0 < outline.ridge.value_m <= LONGEST_EDGE_M:
        raise BadGeometry(
            f"{plane.name}, ridge",
            f"a ridge of {outline.ridge.value_m:g} m makes the two rakes cross",
            "Type the ridge's length; a plane that comes to a point is not drawn yet.",
        )
    if abs(outline.ridge_left.value_m) > LONGEST_EDGE_M:
        raise OutOfRange(
            f"{plane.name}, ridge inset in metres",
            outline.ridge_left.value_m,
            f"between −{LONGEST_EDGE_M:g} and {LONGEST_EDGE_M:g}",
        )
    for name in ("eave", "ridge", "rake"):
        width_m = getattr(plane.setbacks, name).value_m
        if not 0 <= width_m <= LONGEST_EDGE_M:
            raise OutOfRange(
                f"{plane.name}, free strip at the {name} in metres",
                width_m,
                f"between 0 and {LONGEST_EDGE_M:g}",
            )
    for obstruction in plane.obstructions:
        _require_obstruction_on(plane, obstruction)


def _require_obstruction_on(plane: RoofPlane, obstruction: Obstruction) -> None:
    for name in ("width", "depth", "height"):
        value_m = getattr(obstruction, name).value_m
        if not 0 < value_m <= 20:
            raise OutOfRange(
                f"{obstruction.name}, {name} in metres", value_m, "more than 0 and at most 20"
            )
    if not 0 <= obstruction.clearance.value_m <= 5:
        raise OutOfRange(
            f"{obstruction.name}, clearance in metres",
            obstruction.clearance.value_m,
            "between 0 and 5",
        )
    box = obstruction_box(obstruction)
    corners = corners_m(plane.outline)
    x_m = np.array([box.left_m, box.right_m, box.right_m, box.left_m])
    y_m = np.array([box.bottom_m, box.bottom_m, box.top_m, box.top_m])
    if not contains(corners, x_m, y_m).all():
        raise BadGeometry(
            f"{obstruction.name} on {plane.name}",
            f"{obstruction.left.value_m:.2f} m from the left and {obstruction.bottom.value_m:.2f} m "
            "up the slope does not lie on the plane",
            "Check both offsets: along the eave from the left corner, then square up.",
        )


def contains(corners: FloatArray, x_m: FloatArray, y_m: FloatArray) -> NDArray[np.bool_]:
    """Return, per point, whether it lies in a convex counter-clockwise polygon or on its edge.

    Parameters
    ----------
    corners : (n, 2) float
        Convex, counter-clockwise, metres.
    x_m, y_m : (k,) float
        Points, metres.
    """
    ahead = np.roll(corners, -1, axis=0) - corners
    cross = ahead[:, 0, None] * (y_m[None] - corners[:, 1, None]) - ahead[:, 1, None] * (
        x_m[None] - corners[:, 0, None]
    )
    return np.asarray((cross >= -1e-9).all(axis=0), dtype=np.bool_)
