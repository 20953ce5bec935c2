"""Where the sun stands: the product's position comes from the reference library's SPA."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import spa

FloatArray = NDArray[np.float64]
TimeArray = NDArray[np.datetime64]

STANDARD_PRESSURE_HPA = 1013.25
REFRACTION_DEG = 0.5667
DELTA_T_S = 69.0
EARTH_RADIUS_KM = 6371.0


@dataclass(frozen=True, slots=True)
class Location:
    """A place and its fixed standard time."""

    latitude_deg: float
    longitude_deg: float
    elevation_m: float
    utc_offset_h: float


def apart_km(one: Location, other: Location) -> float:
    """Return the great-circle distance of two places, kilometres (haversine, mean radius)."""
    a, b = np.radians(one.latitude_deg), np.radians(other.latitude_deg)
    across = np.radians(other.longitude_deg - one.longitude_deg)
    half = np.sin((b - a) / 2) ** 2 + np.cos(a) * np.cos(b) * np.sin(across / 2) ** 2
    return float(2 * EARTH_RADIUS_KM * np.arcsin(np.sqrt(half)))


@dataclass(frozen=True, slots=True)
class SunPath:
    """The sun at n moments: refracted zenith and azimuth clockwise from true north, degrees."""

    zenith_deg: FloatArray
    azimuth_deg: FloatArray


def pressure_at_hpa(elevation_m: float) -> float:
    """Return the standard atmosphere's pressure at a height, in hPa.

    Source: barometric formula of the 1976 standard atmosphere (from memory).
    """
    return float(STANDARD_PRESSURE_HPA * (1 - 2.25577e-5 * elevation_m) ** 5.25588)


def sun_path(time: TimeArray, location: Location, air_degc: float = 12.0) -> SunPath:
    """Return the sun's position at moments in the site's standard time.

    Parameters
    ----------
    time : (n,) datetime64
        Local standard time, never daylight time.
    location : Location
        Latitude positive north, longitude positive east.
    air_degc : float
        For refraction only.

    Returns
    -------
    sun : SunPath
        (n,) each.

    Notes
    -----
    Reda and Andreas, NREL/TP-560-34302 (rev. 2008), as in the reference library.
    """
    utc = time.astype("datetime64[s]").astype(np.int64) - int(location.utc_offset_h * 3600)
    rows = spa.solar_position(
        utc.astype(float),
        location.latitude_deg,
        location.longitude_deg,
        location.elevation_m,
        pressure_at_hpa(location.elevation_m),
        air_degc,
        DELTA_T_S,
        REFRACTION_DEG,
    )
    return SunPath(zenith_deg=rows[0], azimuth_deg=rows[4])
