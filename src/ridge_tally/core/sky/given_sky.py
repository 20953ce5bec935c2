"""A sky somebody names, or whose light somebody measured, over a day: what comes down, split."""

from enum import StrEnum

import numpy as np
from numpy.typing import NDArray
from pvlib import clearsky, irradiance

from ridge_tally.core.sky.sun import SunPath, pressure_at_hpa
from ridge_tally.core.sky.weather_year import WeatherYear, day_of

FloatArray = NDArray[np.float64]


class Sky(StrEnum):
    """How the sky looks."""

    CLEAR = "clear"
    HAZY = "hazy"
    OVERCAST = "overcast"


# Aerosol optical depth at 700 nm, and water, cm: clean and thick air; ordinary values, from memory.
AEROSOL = {Sky.CLEAR: 0.08, Sky.HAZY: 0.35, Sky.OVERCAST: 0.15}
WATER_CM = {Sky.CLEAR: 1.0, Sky.HAZY: 2.5, Sky.OVERCAST: 2.0}
# What a closed cloud lets through of a clear sky's light; common practice, no source.
OVERCAST_FRAC = 0.22
# The brightest a sky is, over a clear one, where clouds beside the sun throw light as well.
MOST_FRAC = 1.3


def given_sky(
    sky: Sky,
    time: NDArray[np.datetime64],
    sun: SunPath,
    elevation_m: float,
    air_degc: FloatArray,
    wind_m_per_s: FloatArray,
    frac: FloatArray | float | None = None,
) -> WeatherYear:
    """Return the light of moments under a sky.

    Parameters
    ----------
    time : (n,) datetime64
    sun : SunPath
        At those moments.
    elevation_m : float
        Of the site.
    air_degc, wind_m_per_s : (n,) float
    frac : float or (n,) float, optional
        Of the clear sky's light on the level; its beam and the rest are then told apart by it.

    Notes
    -----
    Clear and hazy: Ineichen 2008 (simplified Solis); by a share of the clear sky's light: Erbs et
    al. 1982; both in the reference library.  Overcast: no beam.
    """
    up = 90 - sun.zenith_deg
    with np.errstate(all="ignore"):
        solis = clearsky.simplified_solis(
            up, AEROSOL[sky], WATER_CM[sky], pressure_at_hpa(elevation_m) * 100
        )
    ghi, dni, dhi = (
        np.where(up > 0, np.nan_to_num(np.asarray(solis[name], float)), 0.0)
        for name in ("ghi", "dni", "dhi")
    )
    if frac is not None:
        ghi = ghi * frac
        split = irradiance.erbs(ghi, sun.zenith_deg, day_of(time) + 1)
        dni, dhi = np.nan_to_num(split["dni"]), np.nan_to_num(split["dhi"])
    elif sky is Sky.OVERCAST:
        ghi = ghi * OVERCAST_FRAC
        dni, dhi = np.zeros_like(ghi), ghi
    return WeatherYear(time, ghi, dni, dhi, air_degc, wind_m_per_s, f"a {sky.value} sky", True)
