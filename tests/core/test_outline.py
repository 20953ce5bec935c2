"""Outlines: area by hand, impossible planes named."""

from dataclasses import replace

import numpy as np
import pytest

from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.job.document import Taped, Trapezoid
from ridge_tally.core.survey.outline import area_m2, contains, corners_m, require_possible
from ridge_tally.services.demo import juniper_bench

PLANE = juniper_bench(sample_shelf()).survey.planes[0]


def taped(value_m: float) -> Taped:
    return Taped(value_m, f"{value_m}")


def test_area_of_a_trapezoid_is_mean_side_times_height() -> None:
    outline = Trapezoid(taped(12.0), taped(6.0), taped(5.0), taped(2.0))
    assert area_m2(corners_m(outline)) == pytest.approx((12 + 6) / 2 * 5)


def test_points_on_and_off_the_roof() -> None:
    corners = corners_m(Trapezoid(taped(12.0), taped(6.0), taped(5.0), taped(3.0)))
    inside = contains(corners, np.array([6.0, 0.0, 1.0, 12.0]), np.array([2.5, 0.0, 4.0, 5.0]))
    assert inside.tolist() == [True, True, False, False]


@pytest.mark.parametrize(
    ("change", "error", "says"),
    [
        ({"slope_deg": 95.0}, OutOfRange, "slope in degrees reads 95"),
        ({"azimuth_deg": 400.0}, OutOfRange, "azimuth in degrees reads 400"),
        ({"eave": taped(-3.0)}, OutOfRange, "eave in metres reads -3"),
        ({"height": taped(0.0)}, OutOfRange, "height up the slope in metres reads 0"),
        ({"ridge": taped(-2.0)}, BadGeometry, "makes the two rakes cross"),
        ({"ridge_left": taped(500.0)}, OutOfRange, "ridge inset"),
        ({"eave": taped(5.0)}, BadGeometry, "does not lie on the plane"),
    ],
)
def test_an_impossible_plane_is_refused_by_name(change, error, says) -> None:
    of_outline = {k: v for k, v in change.items() if k in Trapezoid.__dataclass_fields__}
    rest = {k: v for k, v in change.items() if k not in of_outline}
    plane = replace(PLANE, outline=replace(PLANE.outline, **of_outline), **rest)
    with pytest.raises(error, match=says):
        require_possible(plane)


@pytest.mark.parametrize(
    ("field", "value_m", "says"),
    [
        ("left", 30.0, "does not lie"),
        ("width", -0.1, "width in metres"),
        ("clearance", 9.0, "clearance"),
    ],
)
def test_an_impossible_obstruction_is_refused_by_name(
    field: str, value_m: float, says: str
) -> None:
    chimney = replace(PLANE.obstructions[0], **{field: taped(value_m)})
    with pytest.raises((OutOfRange, BadGeometry), match=f"Chimney.*{says}"):
        require_possible(replace(PLANE, obstructions=(chimney,)))
