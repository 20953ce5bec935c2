"""Light on tilted planes against the reference library's own chain, on its real typical years,
and against what practitioners expect of a clear day.

The two TMY3 files travel with the reference library.  The chain here is the one its
documentation shows: its own solar position at mid-hour, its own air mass and extraterrestrial
light, ``get_total_irradiance`` with the model of Perez et al. 1990.
"""

from importlib.resources import files

import numpy as np
import pandas as pd
import pytest
from pvlib import atmosphere, clearsky, iotools, irradiance, solarposition

from ridge_tally.core.sky.plane_irradiance import plane_light
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.formats.weather_file import read_weather

SHIPPED = files("pvlib").joinpath("data")
FILES = ("723170TYA.CSV", "703165TY.csv")
CLEAR_AT_40 = Location(40.0, -105.0, 0.0, -7.0)


def by_the_library(name: str, tilt: float, azimuth: float) -> float:
    data, meta = iotools.read_tmy3(SHIPPED.joinpath(name), coerce_year=1999, map_variables=True)
    at = data.index - pd.Timedelta("30min")
    sun = solarposition.get_solarposition(
        at, meta["latitude"], meta["longitude"], meta["altitude"], temperature=12.0
    )
    total = irradiance.get_total_irradiance(
        tilt, azimuth, sun["apparent_zenith"].to_numpy(), sun["azimuth"].to_numpy(),
        data["dni"].to_numpy(), data["ghi"].to_numpy(), data["dhi"].to_numpy(),
        dni_extra=irradiance.get_extra_radiation(at).to_numpy(),
        airmass=atmosphere.get_relative_airmass(sun["apparent_zenith"]).to_numpy(),
        albedo=0.2, model="perez",
    )  # fmt: skip
    return float(np.nansum(total["poa_global"]) / 1000)


@pytest.mark.parametrize("name", FILES)
@pytest.mark.parametrize(("tilt", "azimuth"), [(30, 180), (30, 270), (15, 90), (60, 180)])
def test_a_year_on_a_plane_is_the_library_s(name: str, tilt: float, azimuth: float) -> None:
    found = read_weather(SHIPPED.joinpath(name).read_bytes(), name)
    sun = sun_path(found.year.time, found.location)
    ours = plane_light(found.year, sun, tilt, azimuth).poa_w_per_m2.sum() / 1000
    assert ours == pytest.approx(by_the_library(name, tilt, azimuth), rel=3e-3)


def clear_day(day: str) -> WeatherYear:
    """A day without clouds in steps of 5 minutes: Ineichen and Perez 2002, Linke turbidity 3."""
    start = np.datetime64(day, "s")
    time = start + (np.arange(288) * 300 + 150).astype("timedelta64[s]")
    sun = sun_path(time, CLEAR_AT_40)
    mass = atmosphere.get_relative_airmass(np.minimum(sun.zenith_deg, 90.0))
    with np.errstate(divide="ignore", invalid="ignore"):
        sky = clearsky.ineichen(sun.zenith_deg, np.nan_to_num(mass, nan=38.0), 3.0)
    none = np.zeros(len(time))
    return WeatherYear(
        time, np.asarray(sky["ghi"]), np.asarray(sky["dni"]), np.asarray(sky["dhi"]),
        none, none, "clear", True,
    )  # fmt: skip


def day_sum(weather: WeatherYear, tilt: float, azimuth: float) -> float:
    sun = sun_path(weather.time, CLEAR_AT_40)
    return float(plane_light(weather, sun, tilt, azimuth).poa_w_per_m2.sum())


def test_south_south_west_and_west_near_the_equinox() -> None:
    # Common practice, no source: 1 : 0.92 : 0.75 on a clear day at 40° N, here at a tilt of 30°.
    weather = clear_day("2025-03-21")
    south, south_west, west = (day_sum(weather, 30, a) for a in (180, 225, 270))
    assert south_west / south == pytest.approx(0.92, abs=0.05)
    assert west / south == pytest.approx(0.75, abs=0.05)


@pytest.mark.parametrize("tilt", [27, 30])
def test_a_west_roof_has_half_of_south_at_midwinter(tilt: float) -> None:
    # Common practice, no source.
    weather = clear_day("2025-12-21")
    assert day_sum(weather, tilt, 270) / day_sum(weather, tilt, 180) == pytest.approx(0.5, abs=0.07)


def test_the_southern_mirror_gets_the_same_light() -> None:
    # Half a year on, the sun of 40° S walks the north as that of 40° N the south.
    north = clear_day("2025-06-21")
    south_sun = sun_path(north.time + np.timedelta64(183, "D"), Location(-40.0, -105.0, 0.0, -7.0))
    north_sun = sun_path(north.time, CLEAR_AT_40)
    for one, other in ((180.0, 0.0), (90.0, 90.0)):
        a = plane_light(north, north_sun, 30, one).poa_w_per_m2.sum()
        b = plane_light(north, south_sun, 30, other).poa_w_per_m2.sum()
        assert b == pytest.approx(a, rel=0.02)
