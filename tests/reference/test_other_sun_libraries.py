"""The sun's place against two other libraries: ephem (VSOP 87, own code) and astral (NOAA)."""

import math
from datetime import UTC, datetime, timedelta

import astral
import astral.sun
import ephem
import numpy as np
import pytest

from ridge_tally.core.sky.sun import Location, pressure_at_hpa, sun_path

PLACES = (
    Location(39.742476, -105.1786, 1830.14, 0.0),
    Location(55.3, -131.6, 10.0, 0.0),
    Location(-42.4, 146.9, 300.0, 0.0),
    Location(2.0, 35.0, 600.0, 0.0),
)
FIRST = datetime(2025, 1, 3, 1, 20, tzinfo=UTC)
MOMENTS = [FIRST + timedelta(days=29 * i, hours=3.7 * i) for i in range(24)]


def ours(place: Location, at: datetime, air_degc: float) -> tuple[float, float]:
    time = np.array([np.datetime64(at.replace(tzinfo=None), "s")])
    sun = sun_path(time, place, air_degc)
    return 90 - float(sun.zenith_deg[0]), float(sun.azimuth_deg[0])


def turned(one_deg: float, other_deg: float) -> float:
    return abs((one_deg - other_deg + 180) % 360 - 180)


@pytest.mark.parametrize("place", PLACES, ids=lambda p: f"{p.latitude_deg:g}")
def test_ephem_agrees_to_a_hundredth_of_a_degree(place: Location) -> None:
    compared = 0
    for at in MOMENTS:
        elevation, azimuth = ours(place, at, 12.0)
        if elevation < 8 or elevation > 85:
            # Refraction of other models parts near the horizon; bearings do overhead.
            continue
        observer = ephem.Observer()
        observer.lat, observer.lon = str(place.latitude_deg), str(place.longitude_deg)
        observer.elevation = place.elevation_m
        observer.pressure, observer.temp = pressure_at_hpa(place.elevation_m), 12.0
        observer.date = at.replace(tzinfo=None)
        sun = ephem.Sun(observer)
        assert math.degrees(sun.alt) == pytest.approx(elevation, abs=0.01)
        assert turned(math.degrees(sun.az), azimuth) < 0.01
        compared += 1
    assert compared >= 4


@pytest.mark.parametrize("place", PLACES, ids=lambda p: f"{p.latitude_deg:g}")
def test_astral_agrees_to_a_hundredth_of_a_degree(place: Location) -> None:
    # Its formulas are NOAA's short ones, good to about 0.01 deg themselves.
    observer = astral.Observer(place.latitude_deg, place.longitude_deg, place.elevation_m)
    compared = 0
    for at in MOMENTS:
        elevation, azimuth = ours(place, at, 12.0)
        if elevation < 8 or elevation > 85:
            continue
        true = astral.sun.elevation(observer, at, with_refraction=False)
        # Saemundsson's refraction, from memory, scaled by the pressure of the place.
        lift = 1.02 / math.tan(math.radians(true + 10.3 / (true + 5.11))) / 60
        lift *= pressure_at_hpa(place.elevation_m) / 1010 * 283 / 285
        assert true + lift == pytest.approx(elevation, abs=0.01)
        # As seen in the sky: a degree of bearing shrinks with the height.
        aside = turned(astral.sun.azimuth(observer, at), azimuth) * math.cos(math.radians(true))
        assert aside < 0.01
        compared += 1
    assert compared >= 4
