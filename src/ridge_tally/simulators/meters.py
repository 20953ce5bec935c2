"""Stand-ins for a household's meter and a test module's logger: files as such devices write them."""

from datetime import date, datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import day_of, hour_middles, hour_of

FloatArray = NDArray[np.float64]
LOGGED_EVERY_MIN = 5
# Beam through clear air at the zenith, and its exponent by air mass: Meinel and Meinel, Applied
# Solar Energy (1976), from memory.  A tenth of it more comes from the sky.
CLEAR_FRAC, AIR_MASS_POWER, SKY_FRAC = 0.7, 0.678, 0.1
SOLAR_W_PER_M2 = 1361.0


def meter_year_csv(energy_kwh: float, shares: tuple[float, ...], year: int) -> str:
    """Return a year of hours as an invented meter writes them, kWh by the hour.

    Parameters
    ----------
    energy_kwh : float
        The whole year.
    shares : (24,) float
        A day's shape; days differ by a fixed rhythm of two weeks.
    """
    time = hour_middles()
    rhythm = 1.0 + 0.25 * np.sin(day_of(time) * 2 * np.pi / 14 + hour_of(time) / 5)
    weight = np.array(shares)[hour_of(time)] * rhythm
    kwh = energy_kwh * weight / weight.sum()
    start = datetime(year, 1, 1)  # noqa: DTZ001 - a meter's own clock
    rows = [
        f"{start + timedelta(hours=i):%Y-%m-%d %H:%M},{value:.3f}" for i, value in enumerate(kwh)
    ]
    return "\n".join(("Time,Used kWh", *rows)) + "\n"


def module_day_csv(
    day: date, site: Location, tilt_deg: float, azimuth_deg: float, module_w: float
) -> str:
    """Return a clear day of one unshaded module as an invented logger writes it.

    Notes
    -----
    Beam 1361 * 0.7^(AM^0.678), a tenth of it from the sky; cells 0.03 K above 20 °C for each
    W/m², −0.35 % for each K above 25 °C: enough for practice, no model of the year.
    """
    midnight = np.datetime64(day.isoformat(), "s")
    minutes = np.arange(0, 24 * 60, LOGGED_EVERY_MIN)
    middles = midnight + (minutes * 60 + LOGGED_EVERY_MIN * 30).astype("timedelta64[s]")
    sun = sun_path(middles, site)
    zenith, azimuth = np.radians(sun.zenith_deg), np.radians(sun.azimuth_deg - azimuth_deg)
    up = np.maximum(np.cos(zenith), 0.0)
    air_mass = 1 / np.maximum(up, 0.02)
    beam = np.where(up > 0, SOLAR_W_PER_M2 * CLEAR_FRAC ** (air_mass**AIR_MASS_POWER), 0.0)
    tilt = np.radians(tilt_deg)
    straight = np.cos(tilt) * np.cos(zenith) + np.sin(tilt) * np.sin(zenith) * np.cos(azimuth)
    poa = beam * np.maximum(straight, 0.0) + SKY_FRAC * beam * (1 + np.cos(tilt)) / 2
    power = module_w * poa / 1000 * (1 - 0.0035 * (0.03 * poa - 5.0))
    rows = [
        f"{day.isoformat()} {m // 60:02d}:{m % 60:02d},{max(0.0, p):.1f}"
        for m, p in zip(minutes.tolist(), power.tolist(), strict=True)
    ]
    return "\n".join(("Time,Module power W", *rows)) + "\n"
