"""A year of hours made into quarters of an hour and minutes: how the beam comes and goes.

Under broken cloud an hour's mean of the beam is made of minutes near the clear sky's and minutes
near none.  Their share of the clear beam is taken to follow a beta distribution with the hour's
own mean and half the variance that sun or cloud alone, full or none, would have; cloud and sun
keep for some minutes.  Haze and thin cloud dim the beam evenly instead: over a whole year this
is more coming and going than there is, not less.
"""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from pvlib import clearsky
from scipy.special import betaincinv

from ridge_tally.core.sky.sun import SunPath, pressure_at_hpa
from ridge_tally.core.sky.weather_year import WeatherYear

FloatArray = NDArray[np.float64]
MINUTES, QUARTERS = 60, 4
PER_QUARTER = MINUTES // QUARTERS
# Against a month of measured minutes under broken cloud it is 0.36 to 0.59; see the tests.
VARIANCE_SHARE = 0.5
# How much of a minute's cloud is there a minute later; see the same tests.
KEPT_BY_MINUTE = 0.95
# Any number: the same hours give the same minutes, on every machine.
SEED = 20_251
# An ordinary clear sky: aerosol at 700 nm and water in centimetres; from memory.
AEROSOL, WATER_CM = 0.1, 1.5
LEAST_BEAM_W_PER_M2 = 5.0
# Shares of the clear beam that are told apart.
SHARES = 100


@dataclass(frozen=True, slots=True, eq=False)
class FineYear:
    """A year in quarters of an hour, and (n, 15) the beam of each one's minutes over its mean."""

    weather: WeatherYear
    minute_beam: FloatArray


def quarter_middles(hours: NDArray[np.datetime64]) -> NDArray[np.datetime64]:
    """Return the (4 n,) middles of the quarters of hours given by their (n,) middles."""
    seconds = (np.arange(QUARTERS) * 900 - 1350).astype("timedelta64[s]")
    return np.asarray((hours[:, None] + seconds).ravel())


def fine_year(hourly: WeatherYear, sun: SunPath, elevation_m: float) -> FineYear:
    """Return hours as quarters whose beam comes and goes, each hour's means kept.

    Parameters
    ----------
    hourly : WeatherYear
        Any number of hours, one after another.
    sun : SunPath
        The sun at ``quarter_middles``.
    elevation_m : float
        Of the site.

    Notes
    -----
    The beam keeps its mean over each hour; the sky's light goes with the height of the sun, the
    air in straight lines from hour to hour.  Clear sky: Ineichen 2008 (simplified Solis), in the
    reference library.
    """
    hours = len(hourly.time)
    height = np.maximum(np.cos(np.radians(sun.zenith_deg)), 0.0).reshape(hours, QUARTERS)
    up = np.repeat(height > 0, PER_QUARTER, axis=1)
    beam = _minutes(_clear_share(hourly, height, elevation_m)) * up
    mean = beam.mean(axis=1, keepdims=True)
    beam = np.divide(beam, mean, out=np.ones_like(beam), where=mean > 0)
    quarters = beam.reshape(hours, QUARTERS, PER_QUARTER)
    of_quarter = quarters.mean(axis=2)
    dni = hourly.dni_w_per_m2[:, None] * of_quarter
    wide = height.mean(axis=1, keepdims=True)
    dhi = hourly.dhi_w_per_m2[:, None] * np.divide(
        height, wide, out=np.ones_like(height), where=wide > 0
    )
    at = np.arange(hours)
    between = (at[:, None] + (np.arange(QUARTERS) - 1.5) / QUARTERS).ravel()
    fine = replace(
        hourly,
        time=quarter_middles(hourly.time),
        ghi_w_per_m2=(dni * height + dhi).ravel(),
        dni_w_per_m2=dni.ravel(),
        dhi_w_per_m2=dhi.ravel(),
        air_degc=np.interp(between, at, hourly.air_degc, period=hours),
        wind_m_per_s=np.repeat(hourly.wind_m_per_s, QUARTERS),
    )
    inside = np.divide(
        quarters, of_quarter[..., None], out=np.ones_like(quarters), where=of_quarter[..., None] > 0
    )
    return FineYear(fine, inside.reshape(-1, PER_QUARTER))


def _clear_share(hourly: WeatherYear, height: FloatArray, elevation_m: float) -> FloatArray:
    """Return (n,): each hour's beam as a share of a clear sky's; 1 where it is clear or dark."""
    sine = np.where(height > 0, height, 0.0).mean(axis=1)
    with np.errstate(all="ignore"):
        sky = clearsky.simplified_solis(
            np.degrees(np.arcsin(np.clip(sine, 0, 1))),
            AEROSOL,
            WATER_CM,
            pressure_at_hpa(elevation_m) * 100,
        )
    clear = np.nan_to_num(np.asarray(sky["dni"], dtype=float)) * (height > 0).mean(axis=1)
    share = np.divide(
        hourly.dni_w_per_m2, clear, out=np.ones_like(clear), where=clear > LEAST_BEAM_W_PER_M2
    )
    even = (share <= 0.01) | (share >= 0.995) | (hourly.dni_w_per_m2 <= LEAST_BEAM_W_PER_M2)
    return np.where(even, 1.0, share)


def _minutes(share: FloatArray) -> FloatArray:
    """Return (n, 60): the share of the clear beam by the minute, of hours given by their mean.

    An hour's minutes are the quantiles of its distribution, in the order in which a chain that
    remembers puts them: their spread is the same in every hour of that mean.
    """
    random = np.random.default_rng(SEED)
    chain = np.empty((len(share), MINUTES))
    shocks = random.standard_normal(chain.shape) * np.sqrt(1 - KEPT_BY_MINUTE**2)
    last = random.standard_normal(len(share))
    for minute in range(MINUTES):
        last = KEPT_BY_MINUTE * last + shocks[:, minute]
        chain[:, minute] = last
    ranks = chain.argsort(axis=1).argsort(axis=1)
    # A beta distribution of mean b and variance c b (1 - b) has a + b = (1 - c) / c.
    whole = (1 - VARIANCE_SHARE) / VARIANCE_SHARE
    mean = (np.arange(SHARES) + 0.5)[:, None] / SHARES
    at = (np.arange(MINUTES) + 0.5)[None] / MINUTES
    table = betaincinv(mean * whole, (1 - mean) * whole, at)
    table *= mean / table.mean(axis=1, keepdims=True)
    row = np.minimum((share * SHARES).astype(np.int64), SHARES - 1)
    found = np.take_along_axis(table[row], ranks, axis=1)
    return np.where((share >= 1.0)[:, None], 1.0, found)
