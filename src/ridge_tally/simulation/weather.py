"""The weather year of a job: a kept file's, or the climate's stand-in with what was typed over it."""

from collections.abc import Hashable
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.weather import Monthly, typed_months
from ridge_tally.core.sky.passing_beam import PassingBeam, passing_beam, quarter_middles
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.stand_in_year import stand_in_year
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear, hour_middles, month_of
from ridge_tally.editing.sun.normals import normals_of
from ridge_tally.formats.weather_file import WeatherFile, read_weather
from ridge_tally.rules import tables
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.kept import weather_file

FloatArray = NDArray[np.float64]


def weather_key(job: Job) -> Hashable:
    """Return what the weather year of a job depends on, to remember things by."""
    return job.site.climate_id, location_of(job.site), job.weather


def weather_of(desk: Desk, job: Job) -> WeatherYear:
    """Return the weather year of a job's site; the stand-in where its file is not kept here."""
    return desk.weather.get(weather_key(job), lambda: _year(desk, job))


def passing_beam_of(desk: Desk, job: Job) -> PassingBeam:
    """Return how the beam comes and goes within the hours of the same year."""

    def compute() -> PassingBeam:
        hourly, location = weather_of(desk, job), location_of(job.site)
        sun = sun_path(quarter_middles(hourly.time), location)
        return passing_beam(hourly, sun, location.elevation_m)

    return desk.weather.get(("beam", weather_key(job)), compute)


def kept_weather(desk: Desk, job: Job) -> WeatherFile | None:
    """Return the job's weather file as read; ``None`` without one, or where it is not kept here."""
    ref = job.weather.file
    if ref is None:
        return None
    try:
        place = weather_file(desk, ref.sha256)
    except NotFound:
        return None
    return desk.weather.get(
        ("file", ref.sha256), lambda: read_weather(place.read_bytes(), ref.file)
    )


def _year(desk: Desk, job: Job) -> WeatherYear:
    location = location_of(job.site)
    found = kept_weather(desk, job)
    if found is None:
        return stand_in_year(normals_of(job), location)
    return _at_site(found, location)


def _at_site(found: WeatherFile, site: Location) -> WeatherYear:
    """Return a file's hours in the site's standard time, the sun as high as where it was read.

    A file of a place further east has its noon earlier: its hours are moved so that they keep
    their place in the sun's own day.
    """
    there = found.location
    sun_h = (there.longitude_deg - site.longitude_deg) / 15
    shift_s = round((site.utc_offset_h - there.utc_offset_h + sun_h) * 3600)
    start = hour_middles()[0].astype("datetime64[Y]").astype("datetime64[s]")
    year_s = len(found.year.time) * 3600
    seconds = ((found.year.time - start).astype(np.int64) + shift_s) % year_s
    order = np.argsort(seconds, kind="stable")
    year = found.year
    return replace(
        year,
        time=start + seconds[order].astype("timedelta64[s]"),
        ghi_w_per_m2=year.ghi_w_per_m2[order],
        dni_w_per_m2=year.dni_w_per_m2[order],
        dhi_w_per_m2=year.dhi_w_per_m2[order],
        air_degc=year.air_degc[order],
        wind_m_per_s=year.wind_m_per_s[order],
    )


def mean_air_degc(year: WeatherYear) -> FloatArray:
    """Return (12,): mean air by month."""
    month = month_of(year.time)
    return np.array([year.air_degc[month == m].mean() for m in range(12)])


def snowfall_cm(job: Job) -> FloatArray:
    """Return (12,): what falls each month; nothing where nobody typed it."""
    return np.array(typed_months(job.weather, Monthly.SNOWFALL) or (0.0,) * 12)


def soiling_frac(job: Job) -> FloatArray:
    """Return (12,): what dirt takes of each month's light, typed or the usual allowance."""
    usual = tables.load("usual-losses").number("share_frac", loss="soiling")
    return np.array(typed_months(job.weather, Monthly.SOILING) or (usual,) * 12)


def reflected_frac(job: Job, year: WeatherYear) -> FloatArray:
    """Return (12,): what the ground throws back: typed, or bare ground and snow where it lies.

    Notes
    -----
    A month is white when it freezes in the mean and enough snow falls.
    """
    typed = typed_months(job.weather, Monthly.REFLECTION)
    if typed is not None:
        return np.array(typed)
    ground, snow = tables.load("ground-reflection"), tables.load("snow-cover")
    enough = snow.number("value", quantity="fall that whitens the ground for a month, cm")
    white = (snowfall_cm(job) >= enough) & (mean_air_degc(year) <= 0)
    return np.where(
        white,
        ground.number("reflected_frac", ground="snow"),
        ground.number("reflected_frac", ground="bare"),
    )
