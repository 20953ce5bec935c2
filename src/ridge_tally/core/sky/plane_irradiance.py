"""Light on a tilted plane, split by where it comes from."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from pvlib import atmosphere, iam, irradiance

from ridge_tally.core.sky.sun import SunPath
from ridge_tally.core.sky.weather_year import WeatherYear, day_of

FloatArray = NDArray[np.float64]
GRASS_ALBEDO_FRAC = 0.2


@dataclass(frozen=True, slots=True)
class PlaneLight:
    """n hours on one plane, W/m²: what falls on the glass, and what passes it to the cells.

    ``direct_frac`` (n,): the beam's share of what falls.
    """

    poa_w_per_m2: FloatArray
    effective_w_per_m2: FloatArray
    direct_frac: FloatArray


@dataclass(frozen=True, slots=True)
class GlassPassing:
    """Shares the glass lets through: (n,) of the beam, and of the sky's and the ground's light.

    The latter two are (n,) as well where the glass is turned in the course of the year.
    """

    beam_frac: FloatArray
    sky_frac: FloatArray | float
    ground_frac: FloatArray | float


@dataclass(frozen=True, slots=True)
class LightParts:
    """n hours on one free plane, W/m², by where the light comes from."""

    beam_w_per_m2: FloatArray
    circumsolar_w_per_m2: FloatArray
    isotropic_w_per_m2: FloatArray
    horizon_w_per_m2: FloatArray
    ground_w_per_m2: FloatArray

    @property
    def poa_w_per_m2(self) -> FloatArray:
        """All of it."""
        sky = self.circumsolar_w_per_m2 + self.isotropic_w_per_m2 + self.horizon_w_per_m2
        return self.beam_w_per_m2 + sky + self.ground_w_per_m2


def plane_light(
    weather: WeatherYear,
    sun: SunPath,
    tilt_deg: float,
    azimuth_deg: float,
    albedo_frac: FloatArray | float = GRASS_ALBEDO_FRAC,
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
    albedo_frac : float or (n,) float
        Reflection of the ground.

    Notes
    -----
    Sky diffuse: Perez et al. 1990, all-sites coefficients; ground isotropic.  Glass:
    refraction and absorption of one sheet (De Soto et al. 2006) for the beam, the same
    integrated over sky and ground (Marion 2017) for the diffuse.  Hours with the sun below
    the horizon keep their diffuse light only.
    """
    parts = light_parts(weather, sun, tilt_deg, azimuth_deg, albedo_frac)
    passed = glass_passing(sun, tilt_deg, azimuth_deg)
    sky = parts.circumsolar_w_per_m2 + parts.isotropic_w_per_m2 + parts.horizon_w_per_m2
    effective = (
        parts.beam_w_per_m2 * passed.beam_frac
        + sky * passed.sky_frac
        + parts.ground_w_per_m2 * passed.ground_frac
    )
    whole = parts.poa_w_per_m2
    return PlaneLight(whole, effective, share_of(parts.beam_w_per_m2, whole))


def share_of(part: FloatArray, whole: FloatArray) -> FloatArray:
    """Return (n,): a part's share of a whole, 0 where there is none."""
    return np.clip(np.divide(part, whole, out=np.zeros_like(whole), where=whole > 0), 0.0, 1.0)


def glass_passing(sun: SunPath, tilt_deg: float, azimuth_deg: float) -> GlassPassing:
    """Return what one sheet of glass lets through to the cells; see ``plane_light``."""
    incidence = irradiance.aoi(tilt_deg, azimuth_deg, sun.zenith_deg, sun.azimuth_deg)
    return GlassPassing(np.asarray(iam.physical(incidence)), *_diffuse_passing(tilt_deg))


@lru_cache(maxsize=256)
def _diffuse_passing(tilt_deg: float) -> tuple[float, float]:
    """Return what passes of the sky's and the ground's light; an integral that takes a while."""
    diffuse = iam.marion_diffuse("physical", tilt_deg)
    return float(diffuse["sky"]), float(np.nan_to_num(diffuse["ground"]))


def light_parts(
    weather: WeatherYear,
    sun: SunPath,
    tilt_deg: float,
    azimuth_deg: float,
    albedo_frac: FloatArray | float = GRASS_ALBEDO_FRAC,
) -> LightParts:
    """Return the light on a free plane by where it comes from; parameters as ``plane_light``."""
    zenith, azimuth = sun.zenith_deg, sun.azimuth_deg
    extra = irradiance.get_extra_radiation(day_of(weather.time) + 1)
    mass = np.nan_to_num(atmosphere.get_relative_airmass(np.minimum(zenith, 90.0)), nan=38.0)
    sky = irradiance.perez(
        tilt_deg, azimuth_deg, weather.dhi_w_per_m2, weather.dni_w_per_m2,
        extra, zenith, azimuth, mass, return_components=True,
    )  # fmt: skip
    incidence = irradiance.aoi(tilt_deg, azimuth_deg, zenith, azimuth)
    above = zenith < 90
    beam = np.where(
        above, weather.dni_w_per_m2 * np.maximum(np.cos(np.radians(incidence)), 0.0), 0.0
    )
    ground = weather.ghi_w_per_m2 * albedo_frac * (1 - np.cos(np.radians(tilt_deg))) / 2
    # The model is undefined without diffuse light: no light, no diffuse.  Its isotropic part is
    # what is left of a total that is never negative.
    total, circumsolar, horizon = (
        np.nan_to_num(np.asarray(sky[name]))
        for name in ("poa_sky_diffuse", "poa_circumsolar", "poa_horizon")
    )
    return LightParts(
        beam_w_per_m2=beam,
        circumsolar_w_per_m2=circumsolar,
        isotropic_w_per_m2=total - circumsolar - horizon,
        horizon_w_per_m2=horizon,
        ground_w_per_m2=ground,
    )
