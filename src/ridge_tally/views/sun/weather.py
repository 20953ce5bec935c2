"""The weather of a job for the screen: months, what was typed over them, and the file behind it."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.weather import Monthly, WeatherFileRef
from ridge_tally.core.sky.site import located, location_of
from ridge_tally.core.sky.sun import apart_km
from ridge_tally.core.sky.weather_year import WeatherYear, day_of, month_of
from ridge_tally.editing.sun.normals import normals_of
from ridge_tally.formats.weather_file import Gap, WeatherFile
from ridge_tally.rules import tables
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.weather import (
    kept_weather,
    reflected_frac,
    snowfall_cm,
    soiling_frac,
    weather_of,
)
from ridge_tally.views.sun.weather_caveats import weather_caveats

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class FileTold:
    """A weather file: where it was read and how far off, its true label, and what was mended.

    ``label_min`` are the minutes from its label to the middle of the hour it means, as found by
    the closure of its three irradiances; ``rms_w_per_m2`` how well they close along
    ``tried_min``.
    """

    ref: WeatherFileRef
    written_as: str
    away_km: float
    higher_m: float | None
    label_min: int | None
    label_at_edge: bool
    tried_min: tuple[int, ...]
    rms_w_per_m2: tuple[float, ...]
    gaps: tuple[Gap, ...]
    notes: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class WeatherMonth:
    """A month: light on the level, kWh/m², air in °C, and what dirt, snow and the ground do."""

    ghi_kwh_per_m2: float
    dni_kwh_per_m2: float
    dhi_kwh_per_m2: float
    clearness_frac: float | None
    mean_degc: float
    max_degc: float
    min_degc: float
    wind_m_per_s: float
    reflection_frac: float
    soiling_frac: float
    snowfall_cm: float


@dataclass(frozen=True, slots=True)
class WeatherReport:
    """The weather year of a job; ``typed`` names the quantities somebody typed over.

    ``lowest_degc``: the year's coldest hour.  It is a typical year's, no extreme: it passes no
    voltage limit.
    """

    name: str
    stand_in: bool
    caveats: tuple[str, ...]
    file: FileTold | None
    months: tuple[WeatherMonth, ...]
    typed: tuple[Monthly, ...]
    snow_told: str
    lowest_degc: float


def weather_report(desk: Desk, job: Job) -> WeatherReport:
    """Return the weather year of a job by month, with what it rests on."""
    year = weather_of(desk, job)
    found = kept_weather(desk, job)
    ref = job.weather.file
    source = tables.load("snow-cover").source
    return WeatherReport(
        name=year.name,
        stand_in=year.stand_in,
        caveats=weather_caveats(job, year),
        file=None if found is None or ref is None else file_told(job, found, ref),
        months=_months(job, year),
        typed=tuple(m.quantity for m in job.weather.months),
        snow_told=f"{source.document} ({source.status.value.replace('-', ' ')})",
        lowest_degc=float(year.air_degc.min()),
    )


def file_told(job: Job, found: WeatherFile, ref: WeatherFileRef) -> FileTold:
    """Return what there is to tell of a weather file at a job's site."""
    closure, site = found.closure, job.site
    return FileTold(
        ref=ref,
        written_as=found.written_as.value,
        away_km=apart_km(location_of(site), located(ref)),
        higher_m=None if site.elevation_m is None else ref.elevation_m - site.elevation_m,
        label_min=None if closure is None else closure.offset_min,
        label_at_edge=closure is not None and closure.edge,
        tried_min=() if closure is None else closure.offsets_min,
        rms_w_per_m2=() if closure is None else closure.rms_w_per_m2,
        gaps=found.gaps,
        notes=found.notes,
    )


def _months(job: Job, year: WeatherYear) -> tuple[WeatherMonth, ...]:
    month = month_of(year.time)
    day = day_of(year.time)
    highest = np.full(365, -np.inf)
    lowest = np.full(365, np.inf)
    np.maximum.at(highest, day, year.air_degc)
    np.minimum.at(lowest, day, year.air_degc)
    month_of_day = np.array([month[day == d][0] for d in range(365)])
    reflected, soiled, snow = reflected_frac(job, year), soiling_frac(job), snowfall_cm(job)
    clearness = normals_of(job).clearness_frac if year.stand_in else (None,) * 12

    def of_days(values: FloatArray, m: int) -> float:
        return float(values[month_of_day == m].mean())

    return tuple(
        WeatherMonth(
            float(year.ghi_w_per_m2[month == m].sum() / 1000),
            float(year.dni_w_per_m2[month == m].sum() / 1000),
            float(year.dhi_w_per_m2[month == m].sum() / 1000),
            clearness[m],
            float(year.air_degc[month == m].mean()),
            of_days(highest, m),
            of_days(lowest, m),
            float(year.wind_m_per_s[month == m].mean()),
            float(reflected[m]),
            float(soiled[m]),
            float(snow[m]),
        )
        for m in range(12)
    )
