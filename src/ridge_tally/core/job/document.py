"""The job document: what a person gave or decided, and nothing computed.

The whole document is frozen; an edit makes a new one.  ``formats.job_file`` wraps
these classes for JSON, validation and the published schema; there is no second model.
"""

import math
from dataclasses import dataclass, field, fields, replace
from datetime import date
from enum import StrEnum

from ridge_tally.core.equipment import (
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    OptimizerSheet,
)
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.array import Orientation, PlaneArray, empty_array
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.bench import Bench
from ridge_tally.core.job.brief import Brief
from ridge_tally.core.job.code_rules import OwnRules
from ridge_tally.core.job.ids import OptionId, PlacedId, PlaneId
from ridge_tally.core.job.money import Money
from ridge_tally.core.job.option import ModuleString, Option
from ridge_tally.core.job.paperwork import Paperwork
from ridge_tally.core.job.proving import ProvingLog
from ridge_tally.core.job.racking import DesignLoads
from ridge_tally.core.job.survey import RoofPlane, Survey
from ridge_tally.core.job.weather import JobWeather
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.units import LengthUnit

DOCUMENT_VERSION = 10


class CodePack(StrEnum):
    """The family of electrical rules a job is held to."""

    US = "us"
    IEC = "iec"
    AU_NZ = "au-nz"
    UK = "uk"


class ColdSchool(StrEnum):
    """Which coldest air strings are held to: a site's, the stricter one, or one for every site."""

    YEARLY_LOWS = "yearly-lows"
    RECORD_LOW = "record-low"
    FIXED = "fixed"


@dataclass(frozen=True, slots=True)
class DesignTemperature:
    """An outdoor design temperature and where it came from; ``None`` until somebody types it."""

    value_degc: float | None
    source: str


@dataclass(frozen=True, slots=True)
class Site:
    """Where the house stands and which rules hold there.

    ``elevation_m`` is ``None`` until somebody gives it.  ``coldest`` is the extreme annual
    mean minimum, ``record_low`` the lowest ever read, ``hottest`` the 2 % high; ``cold_school`` says
    which of the first two holds, or a fixed one.  ``climate_given`` is false while the climate
    type is guessed from the place.  ``own_rules`` is held otherwise than the family's.
    """

    place: str
    latitude_deg: float
    longitude_deg: float
    elevation_m: float | None
    utc_offset_h: float
    climate_id: str
    code_pack: CodePack
    dwelling: bool
    coldest: DesignTemperature
    hottest: DesignTemperature
    record_low: DesignTemperature = DesignTemperature(None, "")
    cold_school: ColdSchool = ColdSchool.YEARLY_LOWS
    own_rules: OwnRules = field(default_factory=OwnRules)
    time_zone: str = ""
    survey_day: date | None = None
    climate_given: bool = True


@dataclass(frozen=True, slots=True)
class Equipment:
    """Copies of the datasheets this job uses, so that the job file stands alone."""

    modules: tuple[ModuleSheet, ...]
    inverters: tuple[InverterSheet, ...]
    optimizers: tuple[OptimizerSheet, ...] = ()
    microinverters: tuple[MicroinverterSheet, ...] = ()
    mountings: tuple[MountingSheet, ...] = ()


@dataclass(frozen=True, slots=True)
class Job:
    """One house: brief, survey, equipment and the options drawn for it."""

    name: str
    unit: LengthUnit
    site: Site
    survey: Survey
    equipment: Equipment
    options: tuple[Option, ...]
    brief: Brief = field(default_factory=Brief)
    weather: JobWeather = field(default_factory=JobWeather)
    bench: Bench | None = None
    design_loads: DesignLoads = field(default_factory=DesignLoads)
    money: Money = field(default_factory=Money)
    paperwork: Paperwork = field(default_factory=Paperwork)
    proving: ProvingLog = field(default_factory=ProvingLog)
    version: int = field(default=DOCUMENT_VERSION)


_SHARED = tuple(
    f.name
    for f in fields(Job)
    if f.name not in ("name", "options", "money", "paperwork", "proving")
)


def alike_but_options(job: Job, other: Job) -> bool:
    """Return whether two documents share every part that options rest on: the very same things."""
    return all(getattr(job, part) is getattr(other, part) for part in _SHARED)


def month_first(job: Job) -> bool:
    """Return whether ``3/4/2025`` is the fourth of March: where US rules hold."""
    return job.site.code_pack is CodePack.US


def option_of(job: Job, option_id: OptionId) -> Option:
    """Return the option with that id.

    Raises
    ------
    NotFound
        If the job has none.
    """
    for option in job.options:
        if option.id == option_id:
            return option
    raise NotFound("option", option_id)


def plane_of(job: Job, plane_id: PlaneId) -> RoofPlane:
    """Return the plane with that id.

    Raises
    ------
    NotFound
        If the survey has none.
    """
    for plane in job.survey.planes:
        if plane.id == plane_id:
            return plane
    raise NotFound("roof plane", plane_id)


def array_of(option: Option, plane_id: PlaneId) -> PlaneArray:
    """Return the option's array on a plane, an empty one where it has none."""
    found = (a for a in option.arrays if a.plane_id == plane_id)
    return next(found, empty_array(plane_id))


def with_array(option: Option, array: PlaneArray) -> Option:
    """Return the option with that array on its plane."""
    if all(a.plane_id != array.plane_id for a in option.arrays):
        return replace(option, arrays=(*option.arrays, array))
    arrays = tuple(array if a.plane_id == array.plane_id else a for a in option.arrays)
    return replace(option, arrays=arrays)


def with_option(job: Job, option: Option) -> Job:
    """Return the job with that option in the place of the one with its id."""
    options = tuple(option if old.id == option.id else old for old in job.options)
    return replace(job, options=options)


def with_plane(job: Job, plane: RoofPlane) -> Job:
    """Return the job with that plane in the place of the one with its id."""
    planes = tuple(plane if old.id == plane.id else old for old in job.survey.planes)
    return replace(job, survey=replace(job.survey, planes=planes))


def module_footprint_m(
    sheet: ModuleSheet, orientation: Orientation, leg_tilt_deg: float = 0.0
) -> tuple[float, float]:
    """Return the module's (width along the eave, height up the slope) on its plane, metres."""
    seen = math.cos(math.radians(leg_tilt_deg))
    if orientation is Orientation.PORTRAIT:
        return sheet.short_m, sheet.long_m * seen
    return sheet.long_m, sheet.short_m * seen


def strings_on(option: Option, tracker_number: int) -> tuple[ModuleString, ...]:
    """Return the strings on a tracker, numbered from 1."""
    return tuple(s for s in option.strings if s.tracker_number == tracker_number)


def strings_by_tracker(option: Option) -> dict[int, list[ModuleString]]:
    """Return the strings of each tracker that has any, trackers numbered from 0."""
    found: dict[int, list[ModuleString]] = {}
    for string in option.strings:
        found.setdefault(string.tracker_number - 1, []).append(string)
    return found


def taking_part(option: Option) -> tuple[PlacedId, ...]:
    """Return the modules that reach the grid: those in strings, or all with inverters of their own."""
    if option.electronics.architecture is Architecture.MICRO:
        return present_ids(option)
    return tuple(m for s in option.strings for m in s.module_ids)


def battery_joined(option: Option) -> Battery | None:
    """Return an option's battery as it can join: beside microinverters there is no DC side."""
    battery = option.battery
    if battery is not None and option.electronics.architecture is Architecture.MICRO:
        return replace(battery, coupling=Coupling.AC)
    return battery


def strung_count(option: Option) -> int:
    """Return how many modules reach the grid."""
    return len(taking_part(option))


def present_ids(option: Option) -> tuple[PlacedId, ...]:
    """Return the ids of the modules that are there, plane by plane."""
    return tuple(m.id for array in option.arrays for m in array.modules if m.present)
