"""Clipping by the quarter and by the minute against a month of measured minutes.

The baseline station's one-minute file of June 2016 (46.8° N, broken cloud) travels with an
earlier wheel of the reference library, BSD licence, installed for the tests alone.
"""

from pathlib import Path

import numpy as np
import pytest
from pvlib import iotools

from ridge_tally.core.energy.inverter import clipped_by_minutes_w
from ridge_tally.core.sky.fine_weather import FineYear, fine_year, quarter_middles
from ridge_tally.core.sky.plane_irradiance import light_parts
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear

MEASURED = Path(__file__).parents[2] / ".build/measured/pvlib/data/bsrn-lr0100-pay0616.dat"
STATION = Location(46.815, 6.944, 491.0, 0.0)
# What the plane gets at full power; the limit is this over the ratio.
FULL_W_PER_M2 = 1000.0
RATIOS = [1.0, 1.2, 1.35, 1.5, 1.8]


def weather_of(time: np.ndarray, **light: np.ndarray) -> WeatherYear:
    none = np.zeros(len(time))
    return WeatherYear(
        time, light["ghi"], light["dni"], light["dhi"], none, none, "measured", False
    )


def on_the_roof(weather: WeatherYear) -> tuple[np.ndarray, np.ndarray]:
    """Light on a south roof of 30°, and the beam's share of it."""
    parts = light_parts(weather, sun_path(weather.time, STATION), 30.0, 180.0)
    whole = parts.poa_w_per_m2
    return whole, np.divide(parts.beam_w_per_m2, whole, out=np.zeros_like(whole), where=whole > 0)


@pytest.fixture(scope="module")
def measured() -> tuple[np.ndarray, WeatherYear]:
    """Measured minutes on the roof, and the hourly means of the month."""
    data, _ = iotools.read_bsrn(MEASURED)
    time = data.index.tz_localize(None).to_numpy().astype("datetime64[s]") + 30
    light = {
        k: np.maximum(np.nan_to_num(data[k].to_numpy(float)), 0) for k in ("ghi", "dni", "dhi")
    }
    minutes, _ = on_the_roof(weather_of(time, **light))
    hours = {k: v.reshape(-1, 60).mean(axis=1) for k, v in light.items()}
    return minutes, weather_of(time.reshape(-1, 60)[:, 0] + 1770, **hours)


@pytest.fixture(scope="module")
def fine(measured) -> FineYear:
    _, hourly = measured
    sun = sun_path(quarter_middles(hourly.time), STATION)
    return fine_year(hourly, sun, STATION.elevation_m)


def clipped_frac(light: np.ndarray, ratio: float) -> float:
    return float(np.maximum(light - FULL_W_PER_M2 / ratio, 0).sum() / light.sum())


@pytest.mark.parametrize("ratio", RATIOS)
def test_quarters_clip_what_measured_quarters_do(measured, fine, ratio: float) -> None:
    minutes, hourly = measured
    true = clipped_frac(minutes.reshape(-1, 15).mean(axis=1), ratio)
    ours = clipped_frac(on_the_roof(fine.weather)[0], ratio)
    even = clipped_frac(on_the_roof(hourly)[0], ratio)
    # Hourly means lie 0.4 to 1.7 points below.
    assert ours == pytest.approx(true, abs=0.005)
    assert abs(ours - true) < abs(even - true)


@pytest.mark.parametrize("ratio", RATIOS)
def test_minutes_clip_what_measured_minutes_do(measured, fine, ratio: float) -> None:
    minutes, hourly = measured
    light, direct = on_the_roof(fine.weather)
    true = clipped_frac(minutes, ratio)
    limit = FULL_W_PER_M2 / ratio
    ours = clipped_by_minutes_w(light, direct, fine.minute_beam, limit).sum() / light.sum()
    assert clipped_frac(on_the_roof(hourly)[0], ratio) < 0.87 * true
    assert ours == pytest.approx(true, abs=0.006)


def test_each_hour_keeps_its_means_and_the_minutes_are_the_same_every_time(measured, fine) -> None:
    _, hourly = measured
    beam = fine.weather.dni_w_per_m2.reshape(-1, 4)
    up = beam.sum(axis=1) > 0
    assert beam.mean(axis=1)[up] == pytest.approx(hourly.dni_w_per_m2[up])
    wide = fine.weather.dhi_w_per_m2.reshape(-1, 4).mean(axis=1)
    assert wide == pytest.approx(hourly.dhi_w_per_m2)
    assert fine.minute_beam.mean(axis=1) == pytest.approx(np.ones(len(fine.minute_beam)))
    sun = sun_path(quarter_middles(hourly.time), STATION)
    again = fine_year(hourly, sun, STATION.elevation_m)
    assert np.array_equal(again.minute_beam, fine.minute_beam)


def test_the_light_of_a_month_on_the_roof_stays_what_it_was(measured, fine) -> None:
    minutes, _ = measured
    assert on_the_roof(fine.weather)[0].mean() == pytest.approx(minutes.mean(), rel=0.005)


def test_a_clear_hour_stays_even() -> None:
    time = np.array(["2025-06-21T12:30"], "datetime64[s]")
    clear = weather_of(time, ghi=np.array([950.0]), dni=np.array([1100.0]), dhi=np.array([60.0]))
    made = fine_year(clear, sun_path(quarter_middles(time), STATION), STATION.elevation_m)
    assert made.weather.dni_w_per_m2 == pytest.approx(np.full(4, 1100.0))
    assert made.minute_beam == pytest.approx(np.ones((4, 15)))
