"""Loads on mounts against values printed in the standards, as remembered, and worked by hand.

Sources: ASCE 7-16 table 26.10-1 (Kz), 7.3 and 7.4 (snow); NDS 2018 table 12.2A (lag withdrawal,
pounds per inch).  All from memory: the document was not at hand.
"""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.build.racking.loads import (
    array_area_factor,
    flat_roof_snow_pa,
    rail_shares,
    sloped_snow_frac,
    tributary_m,
    velocity_pressure_pa,
    withdrawal_n_per_m,
)
from ridge_tally.core.errors import OutsideModelRange

PSF, FT, IN, LB = 47.880259, 0.3048, 0.0254, 4.4482216


@pytest.mark.parametrize(
    ("exposure", "height_ft", "kz"),
    [("B", 15, 0.70), ("B", 30, 0.70), ("B", 40, 0.76), ("B", 60, 0.85),
     ("C", 15, 0.85), ("C", 20, 0.90), ("C", 30, 0.98), ("C", 60, 1.13),
     ("D", 15, 1.03), ("D", 30, 1.16), ("D", 60, 1.31)],
)  # fmt: skip
def test_exposure_factors_of_the_table(exposure: str, height_ft: float, kz: float) -> None:
    # The table's last digit is cut in places, not rounded.
    pressure = velocity_pressure_pa(50.0, exposure, height_ft * FT, 0.0)
    assert pressure / (0.613 * 0.85 * 2500) == pytest.approx(kz, abs=0.008)


def test_a_velocity_pressure_worked_by_hand() -> None:
    # 115 mph, exposure B, 20 ft, sea level: 0.00256 × 0.70 × 0.85 × 115² = 20.1 psf.
    assert velocity_pressure_pa(115 * 0.44704, "B", 20 * FT, 0.0) / PSF == pytest.approx(
        20.1, abs=0.1
    )


@pytest.mark.parametrize(("height_ft", "told"), [(60.0, True), (60.1, False)])
def test_above_sixty_feet_another_method_is_needed(height_ft: float, told: bool) -> None:
    if told:
        assert velocity_pressure_pa(50.0, "C", height_ft * FT, 0.0) > 0
        return
    with pytest.raises(OutsideModelRange):
        velocity_pressure_pa(50.0, "C", height_ft * FT, 0.0)


@pytest.mark.parametrize(
    ("thermal", "slope_deg", "frac"),
    [(1.0, 30, 1.0), (1.0, 50, 0.5), (1.0, 70, 0.0), (1.1, 37.5, 1.0), (1.2, 45, 1.0),
     (1.2, 57.5, 0.5), (1.2, 70, 0.0), (1.2, 80, 0.0)],
)  # fmt: skip
def test_snow_slides_off_by_slope(thermal: float, slope_deg: float, frac: float) -> None:
    assert sloped_snow_frac(slope_deg, thermal) == pytest.approx(frac)


def test_flat_roof_snow_worked_by_hand() -> None:
    # 30 psf on a cold roof: 0.7 × 1.2 × 30 = 25.2 psf.
    assert flat_roof_snow_pa(30 * PSF, 1.2) / PSF == pytest.approx(25.2)


@pytest.mark.parametrize(
    ("area_ft2", "factor"), [(5, 0.8), (10, 0.8), (31.6, 0.6), (100, 0.4), (200, 0.4)]
)
def test_the_area_factor_of_an_array(area_ft2: float, factor: float) -> None:
    assert array_area_factor(area_ft2 * FT**2) == pytest.approx(factor, abs=0.001)


@pytest.mark.parametrize(
    ("gravity", "pounds"), [(0.55, 307), (0.50, 266), (0.43, 212), (0.42, 205)]
)
def test_withdrawal_of_a_five_sixteenths_lag(gravity: float, pounds: float) -> None:
    assert withdrawal_n_per_m(gravity, 0.3125 * IN) * IN / LB == pytest.approx(pounds, abs=0.5)


@given(
    st.lists(st.floats(0.1, 9.9), min_size=2, max_size=12, unique=True).map(sorted),
    st.floats(50.0, 500.0),
)
def test_what_mounts_carry_is_the_rail_and_its_first_moment_is_whole(
    mounts: list[float], per_m: float
) -> None:
    shares = tributary_m(0.0, 10.0, mounts)
    # Forces: all of the rail, once.
    assert math.fsum(shares) * per_m == pytest.approx(10.0 * per_m)
    assert all(s > 0 for s in shares)


@given(st.floats(0.8, 2.4), st.floats(0.1, 0.3), st.floats(0.7, 0.9))
def test_two_rails_carry_a_module_in_force_and_moment(
    height: float, low: float, high: float
) -> None:
    a, b = rail_shares(height, [low * height, high * height])
    assert a + b == pytest.approx(1.0)
    # Moment about the lower edge: the module's middle.
    assert a * low * height + b * high * height == pytest.approx(height / 2)


def test_a_third_rail_carries_half_way_to_its_neighbours() -> None:
    # 1.8 m with rails at 0.4, 0.9 and 1.4 m: strips of 0.65, 0.5 and 0.65 m, by hand.
    assert rail_shares(1.8, [0.4, 0.9, 1.4]) == pytest.approx((0.65 / 1.8, 0.5 / 1.8, 0.65 / 1.8))
