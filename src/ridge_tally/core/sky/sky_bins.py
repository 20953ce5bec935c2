"""A year's light by where in the sky it comes from, so that any plane's sum takes milliseconds."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import atmosphere, iam, irradiance

from ridge_tally.core.sky.plane_irradiance import GRASS_ALBEDO_FRAC
from ridge_tally.core.sky.sun import SunPath
from ridge_tally.core.sky.weather_year import WeatherYear, day_of

FloatArray = NDArray[np.float64]
BIN_DEG = 2.5
# Perez's circumsolar light is spread over at least this much of the sun's height.
LOWEST_COS = np.cos(np.radians(85.0))
HALF_TILT_DEG = 45.0


@dataclass(frozen=True, slots=True)
class SkyBins:
    """Energies of a year, Wh/m².

    ``from_sun`` (b,): beam and circumsolar light on a plane facing it, by bins of the sun's place
    with middles ``zenith_deg`` and ``azimuth_deg`` (b,).  ``isotropic``, ``horizon`` and
    ``ground``: of the even sky, the band at the horizon, and all light on level ground.
    """

    zenith_deg: FloatArray
    azimuth_deg: FloatArray
    from_sun_wh_per_m2: FloatArray
    isotropic_wh_per_m2: float
    horizon_wh_per_m2: float
    ground_wh_per_m2: float


def sky_bins(weather: WeatherYear, sun: SunPath, counted: NDArray[np.bool_]) -> SkyBins:
    """Return the light of the steps that count, by where it comes from.

    Notes
    -----
    Sky diffuse as Perez et al. 1990: its brightness coefficients do not depend on the plane, so
    that only geometry is left for each.
    """
    zenith, azimuth, hours = sun.zenith_deg, sun.azimuth_deg, weather.step_h
    extra = irradiance.get_extra_radiation(day_of(weather.time) + 1)
    mass = np.nan_to_num(atmosphere.get_relative_airmass(np.minimum(zenith, 90.0)), nan=38.0)
    dhi, dni = weather.dhi_w_per_m2, weather.dni_w_per_m2
    parts = irradiance.perez(
        HALF_TILT_DEG, 180.0, dhi, dni, extra, zenith, azimuth, mass, return_components=True
    )
    half = (1 + np.cos(np.radians(HALF_TILT_DEG))) / 2
    isotropic = np.nan_to_num(np.asarray(parts["poa_isotropic"])) / half
    horizon = np.nan_to_num(np.asarray(parts["poa_horizon"])) / np.sin(np.radians(HALF_TILT_DEG))
    around_sun = np.maximum(dhi - isotropic, 0.0) / np.maximum(
        np.cos(np.radians(zenith)), LOWEST_COS
    )
    facing = np.where(zenith < 90, dni, 0.0) + around_sun
    lit = counted & (facing > 0) & (zenith < 90)
    rows = (zenith[lit] / BIN_DEG).astype(np.int64)
    columns = (azimuth[lit] % 360 / BIN_DEG).astype(np.int64)
    wide = int(360 / BIN_DEG)
    sums = np.bincount(rows * wide + columns, weights=facing[lit] * hours)
    used = np.nonzero(sums)[0]
    return SkyBins(
        zenith_deg=np.asarray((used // wide + 0.5) * BIN_DEG, np.float64),
        azimuth_deg=np.asarray((used % wide + 0.5) * BIN_DEG, np.float64),
        from_sun_wh_per_m2=np.asarray(sums[used], np.float64),
        isotropic_wh_per_m2=float(isotropic[counted].sum() * hours),
        horizon_wh_per_m2=float(horizon[counted].sum() * hours),
        ground_wh_per_m2=float(weather.ghi_w_per_m2[counted].sum() * hours),
    )


def behind_glass_wh_per_m2(
    bins: SkyBins,
    tilts_deg: FloatArray,
    azimuths_deg: FloatArray,
    albedo_frac: float = GRASS_ALBEDO_FRAC,
) -> FloatArray:
    """Return (p,): the light that passes the glass of free planes in the time binned."""
    tilts = np.asarray(tilts_deg, float)
    azimuths = np.asarray(azimuths_deg, float)
    tilt, turned = np.radians(tilts), np.radians(azimuths)
    zenith, around = np.radians(bins.zenith_deg), np.radians(bins.azimuth_deg)
    cosine = np.cos(zenith)[None] * np.cos(tilt)[:, None] + np.sin(zenith)[None] * np.sin(tilt)[
        :, None
    ] * np.cos(around[None] - turned[:, None])
    degrees = np.degrees(np.arccos(np.clip(cosine, -1.0, 1.0)))
    # The glass is looked up by the degree: a sheet's passing bends little between.
    passing = np.asarray(iam.physical(np.arange(0.0, 181.0)))
    through = np.interp(degrees, np.arange(0.0, 181.0), passing)
    direct = (np.maximum(cosine, 0.0) * through) @ bins.from_sun_wh_per_m2
    steps = np.arange(0.0, 91.0, 5.0)
    glass = [iam.marion_diffuse("physical", float(t)) for t in steps]
    sky = np.interp(tilts, steps, [float(g["sky"]) for g in glass])
    ground = np.interp(tilts, steps, [float(np.nan_to_num(g["ground"])) for g in glass])
    seen = (1 + np.cos(tilt)) / 2
    diffuse = bins.isotropic_wh_per_m2 * seen + bins.horizon_wh_per_m2 * np.sin(tilt)
    below = bins.ground_wh_per_m2 * albedo_frac * (1 - np.cos(tilt)) / 2
    return np.asarray(direct + diffuse * sky + below * ground)
