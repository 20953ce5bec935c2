"""Outlines of planes: closing, areas by hand, offsets as taped, impossible planes named."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon

from jobs import SAMPLE
from ridge_tally.core.errors import BadGeometry, MissingDatum, OutOfRange
from ridge_tally.core.job.places import PlanePoint
from ridge_tally.core.job.survey import (
    EdgeKind,
    LengthBasis,
    OffsetMode,
    Outline,
    ReadingKind,
    TapeReading,
)
from ridge_tally.core.survey.outline import (
    adjusted_outline,
    corners_m,
    left_offset_m,
    place_m,
    require_closed,
    what_would_close,
)
from ridge_tally.core.survey.polygon import area_m2, contains, crosses_itself
from ridge_tally.core.survey.possible import require_possible
from ridge_tally.core.survey.taping import drawn_length
from ridge_tally.core.units import LengthUnit

PLANE = SAMPLE.survey.planes[0]
SIDE, OFFSET, ALONG = ReadingKind.SIDE, ReadingKind.OFFSET, ReadingKind.ALONG


def taped(value_m: float):
    return drawn_length(value_m, LengthUnit.METRE)


def reading(kind: ReadingKind, *at: int, m: float | None = None) -> TapeReading:
    return TapeReading(kind, at, None if m is None else taped(m))


def trapezoid(eave: float, ridge: float, height: float, inset: float) -> Outline:
    corners = ((0.0, 0.0), (eave, 0.0), (inset + ridge, height), (inset, height))
    return Outline(
        tuple(PlanePoint(x, y) for x, y in corners),
        (EdgeKind.EAVE, EdgeKind.HIP, EdgeKind.RIDGE, EdgeKind.HIP),
        (
            reading(SIDE, 0, m=eave),
            reading(SIDE, 2, m=ridge),
            reading(OFFSET, 3, 0, m=height),
            reading(ALONG, 3, 0, m=inset),
            reading(ReadingKind.PARALLEL, 0, 2),
        ),
    )


HIP = replace(PLANE, outline=trapezoid(12.0, 6.0, 5.0, 2.0), obstructions=())


def test_area_of_a_trapezoid_is_mean_side_times_height() -> None:
    assert area_m2(corners_m(HIP)) == pytest.approx((12 + 6) / 2 * 5)


def test_lengths_from_a_plan_are_longer_up_the_slope_only() -> None:
    # 6:12 is 26.565°, cosine 0.894427.
    flat = replace(HIP, lengths=LengthBasis.PLAN, slope_deg=math.degrees(math.atan(0.5)))
    corners = corners_m(flat)
    assert corners[1] == pytest.approx([12.0, 0.0])
    assert corners[3] == pytest.approx([2.0, 5 / 0.894427], abs=1e-5)


def test_a_plane_without_its_last_reading_is_open_and_says_what_would_close_it() -> None:
    open_ = replace(HIP.outline, readings=HIP.outline.readings[:-2])
    adjusted = adjusted_outline(open_)
    assert adjusted.missing == 2
    assert "corners 3 and 4" in what_would_close(adjusted)
    with pytest.raises(MissingDatum, match="closed outline"):
        require_closed(replace(HIP, outline=open_))


# On a left hip that leans in by 2 m in 5 m up: at 2.5 m up the edge stands 1 m in.
@pytest.mark.parametrize(
    ("mode", "left_m", "x_m"),
    [
        (OffsetMode.CORNER, 3.0, 3.0),
        (OffsetMode.EDGE, 3.0, 4.0),
        (OffsetMode.SQUARE, 3.0, 1 + 3 * math.hypot(2, 5) / 5),
    ],
)
def test_a_left_offset_lands_where_its_tape_was_held(
    mode: OffsetMode, left_m: float, x_m: float
) -> None:
    vent = replace(PLANE.obstructions[1], offsets=mode, left=taped(left_m), bottom=taped(2.5))
    assert place_m(HIP, vent).x_m == pytest.approx(x_m, abs=1e-6)
    assert left_offset_m(HIP, mode, PlanePoint(x_m, 2.5)) == pytest.approx(left_m, abs=1e-6)


polygons = st.lists(
    st.tuples(st.floats(-9, 9), st.floats(-9, 9)), min_size=3, max_size=7, unique=True
)


@given(polygons, st.floats(-10, 10), st.floats(-10, 10))
def test_what_lies_inside_agrees_with_a_geometry_library(points, x: float, y: float) -> None:
    ring = np.array(points, dtype=float)
    theirs = Polygon(points)
    if not theirs.is_valid or theirs.area < 1e-3:
        return
    assert not crosses_itself(ring)
    assert abs(area_m2(ring)) == pytest.approx(theirs.area, rel=1e-9)
    if theirs.exterior.distance(Point(x, y)) > 1e-6:
        ours = contains(ring, np.array([x]), np.array([y]))[0]
        assert ours == theirs.contains(Point(x, y))


def test_a_bow_tie_crosses_itself() -> None:
    assert crosses_itself(np.array([[0, 0], [4, 4], [4, 0], [0, 4]], dtype=float))


def side_of(length_m: float, edge: int = 0) -> Outline:
    outline = PLANE.outline
    rows = [r for r in outline.readings if (r.kind, r.at) != (SIDE, (edge,))]
    return replace(outline, readings=(*rows, reading(SIDE, edge, m=length_m)))


@pytest.mark.parametrize(
    ("change", "error", "says"),
    [
        ({"slope_deg": 95.0}, OutOfRange, "slope in degrees reads 95"),
        ({"azimuth_deg": 400.0}, OutOfRange, "azimuth in degrees reads 400"),
        ({"outline": side_of(-3.0)}, OutOfRange, "length in metres reads -3"),
        ({"outline": side_of(0.0, 3)}, OutOfRange, "length in metres reads 0"),
        ({"outline": side_of(500.0)}, OutOfRange, "side in metres reads 500"),
        (
            {"outline": replace(PLANE.outline, edges=PLANE.outline.edges[:3])},
            BadGeometry,
            "3 edges for 4 corners",
        ),
        (
            {"outline": replace(PLANE.outline, corners=PLANE.outline.corners[:2])},
            BadGeometry,
            "fewer than three corners",
        ),
        (
            {"slope_deg": 85.0, "lengths": LengthBasis.PLAN},
            OutOfRange,
            "at most 80 while its lengths come from a plan",
        ),
    ],
)
def test_an_impossible_plane_is_refused_by_name(change, error, says) -> None:
    with pytest.raises(error, match=says):
        require_possible(replace(PLANE, **change))


@pytest.mark.parametrize(
    ("field", "value_m", "says"),
    [("width", -0.1, "width in metres"), ("clearance", 9.0, "clearance")],
)
def test_an_impossible_obstruction_is_refused_by_name(
    field: str, value_m: float, says: str
) -> None:
    chimney = replace(PLANE.obstructions[0], **{field: taped(value_m)})
    with pytest.raises((OutOfRange, BadGeometry), match=f"Chimney.*{says}"):
        require_possible(replace(PLANE, obstructions=(chimney,)))
