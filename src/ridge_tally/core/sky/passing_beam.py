"""How the beam comes and goes within an hour: with the sun's height, and behind passing clouds.

A limit cuts bright minutes and gives nothing back in dark ones, so a mean of an hour clips too
little.  Under broken cloud an hour's beam is made of minutes near a clear sky's and minutes near
none: their share of the clear beam is taken to follow a beta distribution with the hour's own mean
and a fixed part of the variance that sun or cloud alone, full or none, would have.

What a clear sky is, the year says itself: month by month and by the sun's height, the beam that
all but its clearest hours stay below.  Haze that lies over every day dims that, and is no cloud.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import clearsky
from scipy.special import betaincinv

from ridge_tally.core.sky.sun import SunPath, pressure_at_hpa
from ridge_tally.core.sky.weather_year import WeatherYear, month_of

FloatArray = NDArray[np.float64]
QUARTERS = 4
# So many equally likely states of the cloud an hour is looked at in.
STATES = 10
# Tuned on a month of measured minutes under broken cloud, the only measured ones it saw, and on no
# hazy year; see tests/reference/test_minutes.py for what it was then held against.
VARIANCE_SHARE = 0.61
# Sun or cloud almost alone: the most a limit may cut.
MOST_VARIANCE_SHARE = 0.9
# An hour with so much of the clear beam has no cloud before the sun.
CLEAR_SHARE = 0.95
# The clear beam is passed by so few of the hours of its month and height.
ENVELOPE_QUANTILE = 0.95
ENVELOPE_BOUNDS = (0.2, 1.3)
# Sines of the sun's height about which hours are taken together, and how many make an envelope.
HEIGHTS = np.array([0.08, 0.2, 0.35, 0.5, 0.65, 0.8, 0.95])
ENOUGH, LEAST = 10, 5
# An ordinary clear sky, of which the envelope is a multiple: aerosol at 700 nm and water in
# centimetres; from memory.
AEROSOL, WATER_CM = 0.1, 1.5
LEAST_BEAM_W_PER_M2 = 5.0
# Shares of the clear beam that are told apart.
SHARES = 100


@dataclass(frozen=True, slots=True, eq=False)
class PassingBeam:
    """The beam within each hour.

    ``sun``: at the quarters' middles, (4 n,); ``clear_w_per_m2`` (n, 4): a clear sky's beam then.
    ``cloud`` and ``cloud_most`` (n, s): the beam in each state of the cloud over the hour's mean,
    as it most likely is, and as sun and cloud almost alone would have it.
    """

    sun: SunPath
    clear_w_per_m2: FloatArray
    cloud: FloatArray
    cloud_most: FloatArray


def quarter_middles(hours: NDArray[np.datetime64]) -> NDArray[np.datetime64]:
    """Return the (4 n,) middles of the quarters of hours given by their (n,) middles."""
    seconds = (np.arange(QUARTERS) * 900 - 1350).astype("timedelta64[s]")
    return np.asarray((hours[:, None] + seconds).ravel())


def passing_beam(hourly: WeatherYear, sun: SunPath, elevation_m: float) -> PassingBeam:
    """Return how the beam comes and goes within each hour of a year.

    Parameters
    ----------
    hourly : WeatherYear
        Any number of hours; of a few days the envelope is an ordinary clear sky's.
    sun : SunPath
        The sun at ``quarter_middles``.
    elevation_m : float
        Of the site.

    Notes
    -----
    Clear sky: Ineichen 2008 (simplified Solis), in the reference library.
    """
    sine = np.maximum(np.cos(np.radians(sun.zenith_deg)), 0.0).reshape(-1, QUARTERS)
    clear = _solis(sine, elevation_m)
    up = np.asarray((sine > 0).all(axis=1))
    share = _clear_share(hourly, sine.mean(axis=1), clear.mean(axis=1), up)
    return PassingBeam(
        sun, clear, _states(share, VARIANCE_SHARE), _states(share, MOST_VARIANCE_SHARE)
    )


def turning(passing: PassingBeam, tilt_deg: float, azimuth_deg: float) -> FloatArray:
    """Return (n, 4): the beam on a glass in each quarter of an hour over its mean, as if clear."""
    zenith, azimuth = np.radians(passing.sun.zenith_deg), np.radians(passing.sun.azimuth_deg)
    tilt = np.radians(tilt_deg)
    facing = np.cos(zenith) * np.cos(tilt) + np.sin(zenith) * np.sin(tilt) * np.cos(
        azimuth - np.radians(azimuth_deg)
    )
    beam = np.maximum(facing, 0.0).reshape(-1, QUARTERS) * passing.clear_w_per_m2
    mean = beam.mean(axis=1, keepdims=True)
    return np.asarray(np.divide(beam, mean, out=np.ones_like(beam), where=mean > 0))


def within_hour(turn: FloatArray, cloud: FloatArray) -> FloatArray:
    """Return (n, 4 s): the beam in each quarter and state of the cloud over the hour's mean."""
    return np.asarray((turn[:, :, None] * cloud[:, None, :]).reshape(len(turn), -1))


def _solis(sine: FloatArray, elevation_m: float) -> FloatArray:
    with np.errstate(all="ignore"):
        sky = clearsky.simplified_solis(
            np.degrees(np.arcsin(np.clip(sine, 0, 1))).ravel(),
            AEROSOL,
            WATER_CM,
            pressure_at_hpa(elevation_m) * 100,
        )
    found = np.nan_to_num(np.asarray(sky["dni"], dtype=float)).reshape(sine.shape)
    return np.asarray(np.where(sine > 0, found, 0.0))


def _clear_share(
    hourly: WeatherYear, sine: FloatArray, clear: FloatArray, up: NDArray[np.bool_]
) -> FloatArray:
    """Return (n,): each hour's beam as a share of the year's own clear beam then, at most 1."""
    lit = clear > LEAST_BEAM_W_PER_M2
    share = np.divide(hourly.dni_w_per_m2, clear, out=np.zeros_like(clear), where=lit)
    month, height = month_of(hourly.time), _height_of(sine)
    envelope = np.ones_like(share)
    for m in np.unique(month):
        mine, near = month == m, np.isin((month - m) % 12, (0, 1, 11))
        at, tops = [], []
        for h in range(len(HEIGHTS)):
            here = (height == h) & up & lit
            pool = here & mine if (here & mine).sum() >= ENOUGH else here & near
            if pool.sum() >= LEAST:
                at.append(float(sine[pool].mean()))
                tops.append(float(np.quantile(share[pool], ENVELOPE_QUANTILE)))
        if at:
            envelope[mine] = np.interp(sine[mine], at, tops)
    return np.asarray(np.minimum(share / np.clip(envelope, *ENVELOPE_BOUNDS), 1.0))


def _height_of(sine: FloatArray) -> NDArray[np.int64]:
    """Return (n,): which of the heights each is nearest to."""
    return np.searchsorted((HEIGHTS[1:] + HEIGHTS[:-1]) / 2, sine)


def _states(share: FloatArray, variance_share: float) -> FloatArray:
    """Return (n, s): the beam in each state over the hour's mean, of hours given by their share."""
    # A beta distribution of mean b and variance c b (1 - b) has a + b = (1 - c) / c.
    whole = (1 - variance_share) / variance_share
    mean = (np.arange(SHARES) + 0.5)[:, None] / SHARES
    # Finer quantiles, averaged: the ends of the distribution weigh as much as they should.
    fine = 6 * STATES
    at = (np.arange(fine) + 0.5)[None] / fine
    table = betaincinv(mean * whole, (1 - mean) * whole, at)
    table = table.reshape(SHARES, STATES, -1).mean(axis=2)
    table /= table.mean(axis=1, keepdims=True)
    clouded = np.minimum(share / CLEAR_SHARE, 1.0)
    row = np.minimum((clouded * SHARES).astype(np.int64), SHARES - 1)
    even = (share >= CLEAR_SHARE) | (share <= 0.01)
    return np.asarray(np.where(even[:, None], 1.0, table[row]))
