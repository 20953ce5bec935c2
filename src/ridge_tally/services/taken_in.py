"""Files taken in before a job uses them: metered use, measured power, weather."""

from dataclasses import dataclass
from hashlib import sha256

import numpy as np

from ridge_tally.core.job.bench import PowerFileRef
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.household import LoadFileRef
from ridge_tally.core.job.proving import ProductionFile
from ridge_tally.core.job.weather import WeatherFileRef
from ridge_tally.core.loading.measured_day import judged
from ridge_tally.formats.load_file import LoadFile, read_load
from ridge_tally.formats.power_file import read_power
from ridge_tally.formats.production_file import read_production
from ridge_tally.formats.weather_file import read_weather
from ridge_tally.rules.design import Design
from ridge_tally.services.workspace import Forgotten, Workspace
from ridge_tally.simulation.kept import METER_SUFFIX, WEATHER_SUFFIX
from ridge_tally.store.files import keep_file
from ridge_tally.studies.proving.production import terms_of
from ridge_tally.views.brief.report import brief_report
from ridge_tally.views.sun.weather import FileTold, file_told


def take_in_power(workspace: Workspace, job: Job, content: bytes, file: str) -> PowerFileRef:
    """Keep a file of measured power and return what a job names it by, its clearest day chosen.

    Raises
    ------
    FormatError, StorageFailed
        If it is no such table, or cannot be written; nothing is kept then.
    """
    days = read_power(content, file, month_first=month_first(job))
    digest = sha256(content).hexdigest()
    keep_file(workspace.desk.meter_files, digest, content, METER_SUFFIX)
    best = min(days, key=lambda d: (judged(d.power_w).roughness, -float(d.power_w.sum())))
    return PowerFileRef(digest, file, best.day)


def take_in_production(
    workspace: Workspace, design: Design, content: bytes, file: str
) -> ProductionFile:
    """Keep a gateway's log of an option and return what a job names it by.

    Raises
    ------
    FormatError, StorageFailed
        If it is no such log, or cannot be written; nothing is kept then.
    """
    log = read_production(content, file, terms_of(design))
    digest = sha256(content).hexdigest()
    if keep_file(workspace.desk.meter_files, digest, content, METER_SUFFIX):
        workspace.forget(Forgotten.FILES)
    return ProductionFile(digest, file, log.column)


def take_in_weather(workspace: Workspace, job: Job, content: bytes, file: str) -> FileTold:
    """Keep a weather file and return what it is; the job still has the weather it had.

    Raises
    ------
    FormatError, OutOfRange, StorageFailed
        If it is no hourly year, or cannot be written; nothing is kept then.
    """
    found = read_weather(content, file)
    digest = sha256(content).hexdigest()
    if keep_file(workspace.desk.weather_files, digest, content, WEATHER_SUFFIX):
        workspace.forget(Forgotten.FILES)
    at = found.location
    ref = WeatherFileRef(
        digest, file, found.place, at.latitude_deg, at.longitude_deg, at.elevation_m
    )
    return file_told(job, found, ref)


# A file further from the bills than this is likely of another house or another meter; our own line.
FAR_FRAC = 0.25


@dataclass(frozen=True, slots=True)
class LoadFileTold:
    """A file of metered use: its year, its highest hour, and what was put right in it."""

    ref: LoadFileRef
    most_kw: float
    holes: int
    notes: tuple[str, ...]


def take_in_load(workspace: Workspace, job: Job, content: bytes, file: str) -> LoadFileTold:
    """Keep a file of metered use and return what it is; the job still has the load it had.

    Raises
    ------
    FormatError, StorageFailed
        If it is no year of use, or cannot be written; nothing is kept then.
    """
    found = read_load(content, file, job.site.utc_offset_h, month_first=month_first(job))
    digest = sha256(content).hexdigest()
    if keep_file(workspace.desk.meter_files, digest, content, METER_SUFFIX):
        workspace.forget(Forgotten.FILES)
    ref = LoadFileRef(digest, file, found.first_day, found.energy_kwh)
    return LoadFileTold(
        ref, float(np.max(found.power_w)) / 1000, found.holes, (*found.notes, *_against(job, found))
    )


def _against(job: Job, found: LoadFile) -> tuple[str, ...]:
    usage = brief_report(job).usage
    if usage is None or usage.energy_kwh <= 0:
        return ()
    off = found.energy_kwh / usage.energy_kwh - 1
    if abs(off) <= FAR_FRAC:
        return ()
    way = "more" if off > 0 else "less"
    return (
        f"It comes to {found.energy_kwh:.0f} kWh a year, {abs(off) * 100:.0f} % {way} than the bills: "
        "another house, another meter, or another unit",
    )
