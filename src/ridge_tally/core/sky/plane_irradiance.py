"""Light on a tilted plane, split by where it comes from."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import atmosphere, iam, irradiance

from ridge_tally.core.sky.sun import SunPath
from ridge_tally.core.sky.weather_year import WeatherYear

FloatArray = NDArray[np.float64]
GRASS_ALBEDO_FRAC = 0.2


@dataclass(frozen=True, slots=True)
class PlaneLight:
    """n hours on one plane, W/m²: what falls on the glass, and what passes it to the cells."""

    poa_w_per_m2: FloatArray
    effective_w_per_m2: FloatArray


def plane_light(
    weather: WeatherYear,
    sun: SunPath,
    tilt_deg: float,
    azimuth_deg: float,
    albedo_frac: float = GRASS_ALBEDO_FRAC,
) -> PlaneLight:
    """Return plane-of-array irradiance and the part that reaches the cells.

    Parameters
    ----------
    weather : WeatherYear
        n hours.
    sun : SunPath
        At the middle of the same n hours.
    tilt_deg, azimuth_deg : float
        The plane; azimuth clockwise from true north.
    albedo_frac : float
        Reflection of the ground.

    Notes
    -----
    Sky diffuse: Perez et al. 1990, all-sites coefficients; ground isotropic.  Glass:
    refraction and absorption of one sheet (De Soto et al. 2006) for the beam, the same
    integrated over sky and ground (Marion 2017) for the diffuse.  Hours with the sun below
    the horizon keep their diffuse light only.
    """
    zenith, azimuth = sun.zenith_deg, sun.azimuth_deg
    day = (weather.time.astype("datetime64[D]") - weather.time.astype("datetime64[Y]")).astype(int)
    extra = irradiance.get_extra_radiation(day + 1)
    mass = np.nan_to_num(atmosphere.get_relative_airmass(np.minimum(zenith, 90.0)), nan=38.0)
    sky = irradiance.perez(
        tilt_deg, azimuth_deg, weather.dhi_w_per_m2, weather.dni_w_per_m2,
        extra, zenith, azimuth, mass,
    )  # fmt: skip
    # The model is undefined without diffuse light: no light, no diffuse.
    sky = np.nan_to_num(sky)
    incidence = irradiance.aoi(tilt_deg, azimuth_deg, zenith, azimuth)
    above = zenith < 90
    beam = np.where(
        above, weather.dni_w_per_m2 * np.maximum(np.cos(np.radians(incidence)), 0.0), 0.0
    )
    ground = weather.ghi_w_per_m2 * albedo_frac * (1 - np.cos(np.radians(tilt_deg))) / 2
    through = iam.physical(incidence)
    diffuse_through = iam.marion_diffuse("physical", tilt_deg)
    effective = (
        beam * through
        + sky * float(diffuse_through["sky"])
        + ground * float(np.nan_to_num(diffuse_through["ground"]))
    )
    return PlaneLight(poa_w_per_m2=beam + sky + ground, effective_w_per_m2=effective)
