"""Plane-of-array light by an independent route.

Perez, Ineichen, Seals, Michalsky and Stewart 1990, Solar Energy 44(5), table 1 (all sites),
coded here from the paper's equations with vectors instead of the library's angles; the
coefficients are from memory and agree with the library to the last digit it prints.
"""

import numpy as np
import pytest

from ridge_tally.core.sky.plane_irradiance import plane_light
from ridge_tally.core.sky.stand_in_year import stand_in_year
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.simulators.weather_service import normals_at

BINS = [1.065, 1.23, 1.5, 1.95, 2.8, 4.5, 6.2]
F1 = [
    (-0.008, 0.588, -0.062), (0.130, 0.683, -0.151), (0.330, 0.487, -0.221), (0.568, 0.187, -0.295),
    (0.873, -0.392, -0.362), (1.132, -1.237, -0.412), (1.060, -1.600, -0.359), (0.678, -0.327, -0.250),
]  # fmt: skip
F2 = [
    (-0.060, 0.072, -0.022), (-0.019, 0.066, -0.029), (0.055, -0.064, -0.026), (0.109, -0.152, -0.014),
    (0.226, -0.462, 0.001), (0.288, -0.823, 0.056), (0.264, -1.127, 0.131), (0.156, -1.377, 0.251),
]  # fmt: skip
HIGH_DESERT = Location(36.2, -105.6, 2150.0, -7.0)


@pytest.fixture(scope="module")
def weather() -> WeatherYear:
    return stand_in_year(normals_at("high-desert", HIGH_DESERT.latitude_deg), HIGH_DESERT)


def unit(zenith_deg: np.ndarray, azimuth_deg: np.ndarray) -> np.ndarray:
    z, a = np.radians(zenith_deg), np.radians(azimuth_deg)
    return np.stack([np.sin(z) * np.sin(a), np.sin(z) * np.cos(a), np.cos(z)], axis=-1)


def perez_by_hand(weather: WeatherYear, tilt_deg: float, azimuth_deg: float) -> np.ndarray:
    sun = sun_path(weather.time, HIGH_DESERT)
    toward = unit(sun.zenith_deg, sun.azimuth_deg)
    normal = unit(np.array(tilt_deg), np.array(azimuth_deg))
    cosine = toward @ normal
    zenith = np.radians(sun.zenith_deg)
    day = (weather.time.astype("datetime64[D]") - weather.time.astype("datetime64[Y]")).astype(int)
    # Spencer 1971 for the distance to the sun, solar constant 1366.1 as in the library.
    b = 2 * np.pi * day / 365
    extra = 1366.1 * (1.00011 + 0.034221 * np.cos(b) + 0.00128 * np.sin(b)
                      + 0.000719 * np.cos(2 * b) + 7.7e-05 * np.sin(2 * b))  # fmt: skip
    # Kasten and Young 1989 for air mass.
    degrees = np.minimum(sun.zenith_deg, 89.9)
    mass = 1 / (np.cos(np.radians(degrees)) + 0.50572 * (96.07995 - degrees) ** -1.6364)
    dhi, dni = weather.dhi_w_per_m2, weather.dni_w_per_m2
    with np.errstate(divide="ignore", invalid="ignore"):
        k = 1.041 * zenith**3
        epsilon = ((dhi + dni) / dhi + k) / (1 + k)
    delta = dhi * mass / extra
    bin_of = np.digitize(np.nan_to_num(epsilon, nan=1.0), BINS)
    f1c, f2c = np.array(F1)[bin_of], np.array(F2)[bin_of]
    f1 = np.maximum(f1c[:, 0] + f1c[:, 1] * delta + f1c[:, 2] * zenith, 0)
    f2 = f2c[:, 0] + f2c[:, 1] * delta + f2c[:, 2] * zenith
    tilt = np.radians(tilt_deg)
    a, c = np.maximum(cosine, 0), np.maximum(np.cos(zenith), np.cos(np.radians(85)))
    sky = dhi * ((1 - f1) * (1 + np.cos(tilt)) / 2 + f1 * a / c + f2 * np.sin(tilt))
    beam = np.where(sun.zenith_deg < 90, dni * np.maximum(cosine, 0), 0)
    return beam + np.maximum(sky, 0) + weather.ghi_w_per_m2 * 0.2 * (1 - np.cos(tilt)) / 2


@pytest.mark.parametrize(("tilt", "azimuth"), [(26.6, 176.0), (30.0, 266.0), (60.0, 90.0)])
def test_plane_light_equals_the_model_coded_from_the_paper(
    weather: WeatherYear, tilt: float, azimuth: float
) -> None:
    ours = plane_light(weather, sun_path(weather.time, HIGH_DESERT), tilt, azimuth).poa_w_per_m2
    theirs = perez_by_hand(weather, tilt, azimuth)
    high = sun_path(weather.time, HIGH_DESERT).zenith_deg < 85
    assert ours.sum() == pytest.approx(theirs.sum(), rel=2e-3)
    assert np.abs(ours - theirs)[high].max() < 8


def test_a_level_plane_receives_what_falls_on_the_ground(weather: WeatherYear) -> None:
    sun = sun_path(weather.time, HIGH_DESERT)
    level = plane_light(weather, sun, 0.0, 180.0).poa_w_per_m2
    # Beam uses the sun at mid-hour, the weather the hour's mean height: they differ at dawn.
    assert level.sum() == pytest.approx(weather.ghi_w_per_m2.sum(), rel=5e-3)


def test_glass_takes_a_few_per_cent_and_never_adds(weather: WeatherYear) -> None:
    light = plane_light(weather, sun_path(weather.time, HIGH_DESERT), 26.6, 176.0)
    assert (light.effective_w_per_m2 <= light.poa_w_per_m2 + 1e-9).all()
    kept = light.effective_w_per_m2.sum() / light.poa_w_per_m2.sum()
    assert 0.95 < kept < 0.99
