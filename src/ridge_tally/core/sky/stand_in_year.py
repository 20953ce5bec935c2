"""A stand-in typical year drawn from monthly normals, the same for the same seed.

Days: a clearness distribution solved for each month's mean, drawn stratified, ordered by
a first-order autoregression.  Hours: an autoregressive draw around a mean that falls with
air mass, scaled back so that each day and month keeps its clearness.  Beam and diffuse: a
correlation with the hour's clearness and a guard at low sun.  Temperature: a four-harmonic
day between the month's mean maximum and minimum.

Sources, all from memory: Bendt et al. 1981 (daily distribution); Graham, Hollands and
Huget 1988 (day to day); Aguiar and Collares-Pereira 1992 (hours); Erbs, Klein and Duffie
1982 (split); Erbs et al. 1983 (temperature day).  Daily clearness comes out some 20 per
cent more spread than real files: a stand-in, never a forecast.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq

from ridge_tally.core.sky.sun import Location
from ridge_tally.core.sky.weather_year import WeatherYear, hour_middles

FloatArray = NDArray[np.float64]
SOLAR_CONSTANT_W_PER_M2 = 1361.0
DAYS_IN_MONTH = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
LOWEST_CLEARNESS = 0.05
HIGHEST_HOURLY_CLEARNESS = 0.86
SUBSTEPS = 12


@dataclass(frozen=True, slots=True)
class MonthlyNormals:
    """Twelve values each, January first: clearness, mean, maximum and minimum air, wind."""

    name: str
    clearness_frac: tuple[float, ...]
    mean_degc: tuple[float, ...]
    max_degc: tuple[float, ...]
    min_degc: tuple[float, ...]
    wind_m_per_s: tuple[float, ...]


def stand_in_year(normals: MonthlyNormals, location: Location, seed: int = 1) -> WeatherYear:
    """Return a synthetic year whose months have these normals.

    Parameters
    ----------
    normals : MonthlyNormals
        Clearness is the month's horizontal light over that outside the atmosphere.
    location : Location
        Sets the sun's course.
    seed : int
        Same seed, same year.

    Returns
    -------
    year : WeatherYear
        8760 hours with ``stand_in`` set.  Months whose sun never rises are dark.
    """
    draw = np.random.default_rng(seed)
    sine, outside = _hourly_sun(location)
    day_outside = outside.sum(axis=1)
    clearness = _daily_clearness(normals.clearness_frac, day_outside, draw)
    hourly = _hourly_clearness(clearness, sine, outside, draw)
    ghi = hourly * outside
    dni, dhi = _split(ghi, hourly, sine)
    return WeatherYear(
        time=hour_middles(),
        ghi_w_per_m2=ghi.ravel(),
        dni_w_per_m2=dni.ravel(),
        dhi_w_per_m2=dhi.ravel(),
        air_degc=_temperature(normals, clearness, location, draw).ravel(),
        wind_m_per_s=_wind(normals).ravel(),
        name=normals.name,
        stand_in=True,
    )


def _by_day(monthly: tuple[float, ...]) -> FloatArray:
    return np.repeat(np.array(monthly, dtype=float), DAYS_IN_MONTH)


def _month_slices() -> list[slice]:
    ends = np.cumsum(DAYS_IN_MONTH)
    return [slice(int(e - n), int(e)) for e, n in zip(ends, DAYS_IN_MONTH, strict=True)]


def _hourly_sun(location: Location) -> tuple[FloatArray, FloatArray]:
    """Return (365, 24) hour-mean sine of elevation and extraterrestrial horizontal W/m²."""
    # The declination of local noon, not of midnight in Greenwich: up to a day's change.
    day = np.arange(365) + (12 - location.utc_offset_h) / 24
    angle = 2 * np.pi * day / 365
    # Spencer 1971: declination, equation of time (minutes) and distance factor.
    declination = (
        0.006918 - 0.399912 * np.cos(angle) + 0.070257 * np.sin(angle)
        - 0.006758 * np.cos(2 * angle) + 0.000907 * np.sin(2 * angle)
        - 0.002697 * np.cos(3 * angle) + 0.00148 * np.sin(3 * angle)
    )  # fmt: skip
    equation_min = 229.18 * (
        0.000075 + 0.001868 * np.cos(angle) - 0.032077 * np.sin(angle)
        - 0.014615 * np.cos(2 * angle) - 0.040849 * np.sin(2 * angle)
    )  # fmt: skip
    distance = (
        1.00011 + 0.034221 * np.cos(angle) + 0.00128 * np.sin(angle)
        + 0.000719 * np.cos(2 * angle) + 0.000077 * np.sin(2 * angle)
    )  # fmt: skip
    clock = (np.arange(24 * SUBSTEPS) + 0.5) / SUBSTEPS
    shift_h = location.longitude_deg / 15 - location.utc_offset_h
    hour_angle = np.radians(15 * (clock[None] + shift_h + equation_min[:, None] / 60 - 12))
    latitude = np.radians(location.latitude_deg)
    sine = np.sin(latitude) * np.sin(declination)[:, None] + np.cos(latitude) * np.cos(declination)[
        :, None
    ] * np.cos(hour_angle)
    hourly = np.maximum(sine, 0.0).reshape(365, 24, SUBSTEPS).mean(axis=2)
    return hourly, SOLAR_CONSTANT_W_PER_M2 * distance[:, None] * hourly


def _ar1(count: int, phi: float, draw: np.random.Generator) -> FloatArray:
    noise = draw.standard_normal(count)
    series = np.empty(count)
    series[0] = noise[0]
    for i in range(1, count):
        series[i] = phi * series[i - 1] + np.sqrt(1 - phi**2) * noise[i]
    return series


def _daily_clearness(
    monthly: tuple[float, ...], day_outside: FloatArray, draw: np.random.Generator
) -> FloatArray:
    """Return (365,) daily clearness; weighted by the light outside it gives the month's."""
    order = _ar1(365, 0.29, draw)
    days = np.zeros(365)
    for month, span in enumerate(_month_slices()):
        weight, wanted = day_outside[span], monthly[month]
        if weight.sum() <= 0:
            continue
        values = _stratified(wanted, DAYS_IN_MONTH[month])
        ranked = np.empty_like(values)
        ranked[np.argsort(order[span])] = np.sort(values)
        for _ in range(20):
            ranked *= wanted * weight.sum() / (ranked * weight).sum()
            ranked = np.clip(ranked, LOWEST_CLEARNESS / 2, HIGHEST_HOURLY_CLEARNESS - 0.02)
        days[span] = ranked
    return days


def _stratified(mean: float, count: int) -> FloatArray:
    low = LOWEST_CLEARNESS
    high = 0.6313 + 0.267 * mean - 11.9 * (mean - 0.75) ** 8
    high = max(high, mean + 0.02)

    def mean_of(gamma: float) -> float:
        if abs(gamma) < 1e-6:
            return (low + high) / 2
        top, bottom = np.exp(gamma * (high - low)), 1.0
        return float((high * top - low * bottom) / (top - bottom) - 1 / gamma)

    gamma = brentq(lambda g: mean_of(g) - mean, -300, 300)
    share = (np.arange(count) + 0.5) / count
    if abs(gamma) < 1e-6:
        return low + share * (high - low)
    result: FloatArray = low + np.log1p(share * np.expm1(gamma * (high - low))) / gamma
    return result


def _hourly_clearness(
    daily: FloatArray, sine: FloatArray, outside: FloatArray, draw: np.random.Generator
) -> FloatArray:
    k = daily[:, None]
    lam = -0.19 + 1.12 * k + 0.24 * np.exp(-8 * k)
    eps = 0.32 - 1.6 * (k - 0.5) ** 2
    kappa = 0.19 + 2.27 * k**2 - 2.51 * k**3
    up = sine > 0
    safe = np.where(up, np.maximum(sine, 0.01), 1.0)
    mean = lam + eps * np.exp(-kappa / safe)
    spread = (
        0.14
        * np.exp(-20 * (k - 0.35) ** 2)
        * np.exp((3 * (k - 0.45) ** 2 + 16 * k**5) * (1 - safe))
    )
    phi = 0.38 + 0.06 * np.cos(7.4 * daily - 2.5)
    noise = draw.standard_normal((365, 24))
    state = noise[:, 0]
    hourly = np.zeros((365, 24))
    for hour in range(24):
        state = phi * state + np.sqrt(1 - phi**2) * noise[:, hour]
        hourly[:, hour] = mean[:, hour] + spread[:, hour] * state
    hourly = np.where(up, np.clip(hourly, 0.01, HIGHEST_HOURLY_CLEARNESS), 0.0)
    wanted = daily * outside.sum(axis=1)
    for _ in range(40):
        have = (hourly * outside).sum(axis=1)
        factor = np.divide(wanted, have, out=np.ones_like(have), where=have > 0)
        hourly = np.minimum(hourly * factor[:, None], HIGHEST_HOURLY_CLEARNESS)
    return hourly


def _split(
    ghi: FloatArray, clearness: FloatArray, sine: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Return beam normal and diffuse horizontal; closure ghi = dni sin(h) + dhi holds."""
    k = clearness
    diffuse_frac = np.where(
        k <= 0.22,
        1 - 0.09 * k,
        np.where(
            k <= 0.80,
            0.9511 - 0.1604 * k + 4.388 * k**2 - 16.638 * k**3 + 12.336 * k**4,
            0.165,
        ),
    )
    dhi = diffuse_frac * ghi
    safe = np.where(sine > 0, sine, 1.0)
    dni = (ghi - dhi) / safe
    # A clear atmosphere passes about 0.75 ** (m ** 0.678) of the beam (Meinel, from memory);
    # a tenth above it is the guard against low-sun spikes, and below 3 degrees all is diffuse.
    air_mass = 1 / np.maximum(safe, 0.05)
    ceiling = 1.1 * SOLAR_CONSTANT_W_PER_M2 * 0.75 ** (air_mass**0.678)
    dni = np.where(sine > np.sin(np.radians(3.0)), np.minimum(dni, ceiling), 0.0)
    return dni, ghi - dni * sine


def _temperature(
    normals: MonthlyNormals, clearness: FloatArray, location: Location, draw: np.random.Generator
) -> FloatArray:
    anomaly = 3.0 * _ar1(365, 0.7, draw)
    mean, span = np.empty(365), np.empty(365)
    for month, days in enumerate(_month_slices()):
        mean[days] = normals.mean_degc[month] + anomaly[days] - anomaly[days].mean()
        middle = max(clearness[days].mean(), 1e-6)
        swing = 1 + 0.6 * (clearness[days] - middle) / middle
        span[days] = (normals.max_degc[month] - normals.min_degc[month]) * swing / swing.mean()
    solar_h = np.arange(24) + 0.5 + location.longitude_deg / 15 - location.utc_offset_h
    tau = 2 * np.pi * (solar_h - 1) / 24
    shape = (
        0.4632 * np.cos(tau - 3.805) + 0.0984 * np.cos(2 * tau - 0.360)
        + 0.0168 * np.cos(3 * tau - 0.822) + 0.0138 * np.cos(4 * tau - 3.513)
    )  # fmt: skip
    shape = shape - shape.mean()
    shape /= shape.max() - shape.min()
    return np.asarray(mean[:, None] + span[:, None] * shape[None])


def _wind(normals: MonthlyNormals) -> FloatArray:
    day = 1 + 0.3 * np.cos(2 * np.pi * (np.arange(24) + 0.5 - 14) / 24)
    return _by_day(normals.wind_m_per_s)[:, None] * day[None]
