"""What a plane cannot be: refused with its name, the figure and the remedy."""

from dataclasses import replace

from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.survey import EdgeKind, LengthBasis, Obstruction, ReadingKind, RoofPlane
from ridge_tally.core.survey.outline import (
    FloatArray,
    corners_m,
    reading_name,
    sketch_m,
    used_readings,
)
from ridge_tally.core.survey.polygon import crosses_itself
from ridge_tally.core.survey.reach import too_long
from ridge_tally.core.survey.readings import LENGTHS

LONGEST_EDGE_M = 100.0
MOST_CORNERS = 24
MOST_READINGS = 120
MOST_OBSTRUCTIONS = 100
MOST_KEEP_OUTS = 40
# A wall's plane stands upright; nothing steeper is measured.
STEEPEST_DEG = 90.0
OF_CORNER_AND_EDGE = frozenset({ReadingKind.OFFSET, ReadingKind.ALONG, ReadingKind.ON_LINE})


def require_possible(plane: RoofPlane) -> None:
    """Raise if the plane cannot stand: lengths, slope, azimuth, a crossing outline.

    Raises
    ------
    OutOfRange
        A length, slope or azimuth that no roof plane has.
    BadGeometry
        Sides that cross, or more parts than a plane holds.
    """
    _require_outline(plane)
    if not 0 <= plane.slope_deg <= STEEPEST_DEG:
        raise OutOfRange(
            f"{plane.name}, slope in degrees",
            plane.slope_deg,
            f"between 0 and {STEEPEST_DEG:g}",
            "Type degrees (26.6) or rise in twelve (6:12); a wall is 90.",
        )
    if plane.lengths is LengthBasis.PLAN and plane.slope_deg > 80:
        raise OutOfRange(
            f"{plane.name}, slope in degrees",
            plane.slope_deg,
            "at most 80 while its lengths come from a plan",
            "Tape a wall along its own face.",
        )
    if not 0 <= plane.azimuth_deg < 360:
        raise OutOfRange(
            f"{plane.name}, azimuth in degrees",
            plane.azimuth_deg,
            "at least 0 and below 360",
            "0 is true north, 90 east, 180 south.",
        )
    for kind in EdgeKind:
        width_m = getattr(plane.setbacks, kind.value).value_m
        if not 0 <= width_m <= LONGEST_EDGE_M:
            raise OutOfRange(
                f"{plane.name}, free strip at the {kind.value} in metres",
                width_m,
                f"between 0 and {LONGEST_EDGE_M:g}",
            )
    _require_few(plane.name, "obstructions", len(plane.obstructions), MOST_OBSTRUCTIONS)
    _require_few(plane.name, "keep-out zones", len(plane.keep_outs), MOST_KEEP_OUTS)
    for obstruction in plane.obstructions:
        _require_sizes(obstruction)
    _require_structure(plane)
    for zone in plane.keep_outs:
        _require_ring(f"{plane.name}, keep-out “{zone.reason}”", sketch_m(zone.corners))
    for rows in plane.existing:
        if not (1 <= rows.columns <= 60 and 1 <= rows.rows <= 60):
            raise OutOfRange(
                f"{plane.name}, columns and rows already there", rows.columns, "1 to 60 each"
            )
        for name in ("width", "height"):
            _require_size(f"{plane.name}, {name} of a module already there", getattr(rows, name))


def require_place(plane: RoofPlane, what: str, place: int) -> None:
    """Raise OutOfRange unless the plane has a corner or edge of that number, from 0."""
    count = len(plane.outline.corners)
    if not 0 <= place < count:
        raise OutOfRange(f"{plane.name}, {what}", place + 1, f"1 to {count}")


def require_places(plane: RoofPlane, kind: ReadingKind, at: tuple[int, ...]) -> None:
    """Raise unless a reading of that kind can join those places.

    Raises
    ------
    OutOfRange, BadGeometry
        For a corner that is not there, or two that are one.
    """
    wanted = 1 if kind in (ReadingKind.SIDE, ReadingKind.RIGHT_ANGLE) else 2
    if len(at) != wanted:
        raise BadGeometry(plane.name, f"this reading joins {wanted} places", "Choose them again.")
    for place in at:
        require_place(plane, "corner or edge", place)
    if wanted == 1:
        return
    a, b = at
    count = len(plane.outline.corners)
    if kind is ReadingKind.DIAGONAL and abs(a - b) in (0, 1, count - 1):
        raise BadGeometry(
            plane.name,
            f"corners {a + 1} and {b + 1} are joined by a side",
            "Type that side's length, or choose corners across.",
        )
    if kind is ReadingKind.PARALLEL and a == b:
        raise BadGeometry(plane.name, "a side is parallel to itself", "Choose two sides.")
    if kind in OF_CORNER_AND_EDGE and a in {b, (b + 1) % count}:
        raise BadGeometry(plane.name, f"corner {a + 1} lies on that edge", "Choose another edge.")


def _require_outline(plane: RoofPlane) -> None:
    outline = plane.outline
    corners = sketch_m(outline.corners)
    _require_ring(plane.name, corners)
    _require_few(plane.name, "corners", len(corners), MOST_CORNERS)
    _require_few(plane.name, "readings", len(outline.readings), MOST_READINGS)
    if len(outline.edges) != len(corners):
        raise BadGeometry(
            plane.name,
            f"{len(outline.edges)} edges for {len(corners)} corners",
            "Give each edge its kind.",
        )
    for row in outline.readings:
        require_places(plane, row.kind, row.at)
        if (row.kind in LENGTHS) is (row.taped is None):
            raise BadGeometry(
                plane.name,
                f"{reading_name(outline, row.kind, row.at)} is a length without a reading, "
                "or a mark with one",
                "Type the reading again.",
            )
    for reading in used_readings(outline):
        if abs(reading.value_m) > LONGEST_EDGE_M:
            raise OutOfRange(
                f"{plane.name}, {reading.kind.value.replace('_', ' ')} in metres",
                reading.value_m,
                f"at most {LONGEST_EDGE_M:g}",
                "Read the tape again.",
            )
    if (long := too_long(outline)) is not None and long.reading.taped is not None:
        raise BadGeometry(
            f"{plane.name}, {reading_name(outline, long.reading.kind, long.reading.at)}",
            f"it reads {long.reading.taped.typed}, but by the other readings its ends are at "
            f"most {long.way_round_m:.2f} m apart",
            "Read it again, or the sides between its ends: so they cannot close.",
        )
    try:
        made = corners_m(plane)
    except BadGeometry as error:
        raise replace(error, field=plane.name) from None
    if crosses_itself(made):
        raise BadGeometry(
            plane.name, "these readings make its sides cross", "Read the last one again."
        )


def _require_ring(name: str, corners: FloatArray) -> None:
    if len(corners) < 3 or crosses_itself(corners):
        raise BadGeometry(
            name, "its sides cross or it has fewer than three corners", "Draw it again."
        )


def _require_few(name: str, what: str, count: int, most: int) -> None:
    if count > most:
        raise OutOfRange(f"{name}, {what}", count, f"at most {most}", "Take some out.")


def _require_sizes(obstruction: Obstruction) -> None:
    for name in ("width", "depth", "height"):
        _require_size(f"{obstruction.name}, {name}", getattr(obstruction, name))
    if not 0 <= obstruction.clearance.value_m <= 5:
        raise OutOfRange(
            f"{obstruction.name}, clearance in metres",
            obstruction.clearance.value_m,
            "between 0 and 5",
        )


def _require_structure(plane: RoofPlane) -> None:
    spacings = (
        "seam_spacing", "rib_spacing", "rib_height", "cover_width", "rafter_spacing",
        "rafter_span", "purlin_spacing",
    )  # fmt: skip
    for name in spacings:
        taped: Taped | None = getattr(plane.structure, name)
        if taped is not None:
            _require_size(f"{plane.name}, {name.replace('_', ' ')}", taped)
    for name in ("first_rafter", "first_purlin", "first_rib"):
        first: Taped | None = getattr(plane.structure, name)
        if first is not None and not 0 <= first.value_m <= 20:
            raise OutOfRange(
                f"{plane.name}, {name.replace('_', ' ')} in metres", first.value_m, "0 to 20"
            )


def _require_size(name: str, taped: Taped) -> None:
    if not 0 < taped.value_m <= 20:
        raise OutOfRange(f"{name} in metres", taped.value_m, "more than 0 and at most 20")
