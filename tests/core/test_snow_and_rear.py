"""Snow and the back of the modules: the papers' formulas by hand, and what must hold."""

import numpy as np
import pytest

from ridge_tally.core.sky.stand_in_year import stand_in_year
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sun.rear import RearView, rear_w_per_m2
from ridge_tally.core.sun.snow import SnowMonths, snow_lost_frac
from ridge_tally.simulators.weather_service import normals_at

FALL_CM = np.array([60.0, 50, 30, 5, 0, 0, 0, 0, 0, 5, 20, 50])
AIR_DEGC = np.array([-6.0, -5, 0, 5, 10, 15, 18, 17, 12, 7, 1, -4])
POA_WH = np.array([90e3, 110e3, 150e3, 170e3, 180e3, 190e3, 200e3, 180e3, 160e3, 130e3, 90e3, 80e3])
SITE = Location(45.0, -100.0, 500.0, -6.0)


def by_hand(month: int, tilt_deg: float, slant_m: float, lower_m: float) -> float:
    """Townsend and Powers 2011, equations 1 to 3, inches, kelvin and kWh; coefficients from memory."""

    def effective(m: int) -> float:
        fall, count = FALL_CM[m] / 2.54, np.ceil(FALL_CM[m] / 8.0)
        return 0.5 * fall * (1 + 1 / count) if count else 0.0

    snow = effective(month) * 2 / 3 + effective(month - 1) / 3
    slant, lower = slant_m * 39.37, lower_m * 39.37
    cosine = np.cos(np.radians(tilt_deg))
    piled = slant * snow * cosine / max(lower**2 - snow**2, 0.1) * 2 * np.tan(np.radians(40))
    ground = 1 - 0.51 * np.exp(-piled)
    kelvin, kwh = AIR_DEGC[month] + 273.15, POA_WH[month] / 1000
    return 5.7e4 * snow * cosine**2 * ground * 0.75 / kelvin**2 / kwh**0.67


def lost(tilt_deg: float, lower_m: float = 3.0) -> np.ndarray:
    return snow_lost_frac(SnowMonths(FALL_CM, AIR_DEGC, 75.0, 8.0), tilt_deg, POA_WH, 3.4, lower_m)


@pytest.mark.parametrize("month", [0, 2, 10])
@pytest.mark.parametrize(("tilt", "lower"), [(20.0, 3.0), (40.0, 0.5)])
def test_snow_takes_what_the_formula_says(month: int, tilt: float, lower: float) -> None:
    assert lost(tilt, lower)[month] == pytest.approx(
        min(1, by_hand(month, tilt, 3.4, lower)), rel=1e-3
    )


def test_steeper_and_higher_glass_sheds_more_and_summer_has_none() -> None:
    flat, steep = lost(15.0), lost(45.0)
    assert (steep[:3] < flat[:3]).all()
    assert (lost(30.0, 3.0)[:3] <= lost(30.0, 0.3)[:3]).all()
    # A month feels the snow of the one before: May that of April, June none.
    assert (flat[5:9] == 0).all()


def test_a_dark_month_loses_nothing_more() -> None:
    months = SnowMonths(FALL_CM, AIR_DEGC, 75.0, 8.0)
    assert snow_lost_frac(months, 30.0, np.zeros(12), 3.4, 3.0).tolist() == [0.0] * 12


WEATHER = stand_in_year(normals_at("inland-four-seasons", SITE.latitude_deg), SITE)
SUN = sun_path(WEATHER.time, SITE)


def rear(tilt: float = 30.0, pitch: float = 60.0, middle: float = 6.0, back: float = 0.2) -> float:
    return float(rear_w_per_m2(WEATHER, SUN, RearView(tilt, 180.0, 2.0, pitch, middle), back).sum())


@pytest.mark.parametrize("tilt", [20.0, 35.0])
@pytest.mark.parametrize("back", [0.2, 0.6])
def test_high_and_alone_the_back_sees_ground_and_sky_by_its_view_factors(tilt, back) -> None:
    # Without shadow: reflected light times (1 + cos b) / 2, sky times (1 - cos b) / 2, and what
    # beam strikes the back itself, by the angle of incidence.
    cosine = np.cos(np.radians(tilt))
    z, a = np.radians(SUN.zenith_deg), np.radians(SUN.azimuth_deg)
    behind = -(np.cos(z) * cosine + np.sin(z) * np.sin(np.radians(tilt)) * np.cos(a - np.pi))
    beam = (WEATHER.dni_w_per_m2 * np.maximum(behind, 0) * (SUN.zenith_deg < 90)).sum()
    ground = back * WEATHER.ghi_w_per_m2.sum() * (1 + cosine) / 2
    sky = WEATHER.dhi_w_per_m2.sum() * (1 - cosine) / 2
    assert rear(tilt, back=back) == pytest.approx(ground + sky + beam, rel=0.06)


def test_closer_rows_and_darker_ground_give_less() -> None:
    whole = rear()
    assert rear(pitch=4.0) < whole
    assert rear(pitch=2.4) < rear(pitch=4.0)
    assert rear(back=0.6) > 1.8 * whole
