"""The job document: what a person gave or decided, and nothing computed.

The whole document is frozen; an edit makes a new one.  ``formats.job_file`` wraps
these classes for JSON, validation and the published schema; there is no second model.
"""

import math
from dataclasses import dataclass, field, replace
from datetime import date
from enum import StrEnum

from ridge_tally.core.equipment import (
    InverterId,
    InverterSheet,
    MicroinverterSheet,
    ModuleId,
    ModuleSheet,
    OptimizerSheet,
    TrackerSheet,
    sheet_among,
)
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.architecture import Architecture, Electronics
from ridge_tally.core.job.array import Orientation, PlaneArray
from ridge_tally.core.job.battery import Battery
from ridge_tally.core.job.bench import Bench
from ridge_tally.core.job.brief import Brief
from ridge_tally.core.job.code_rules import OwnRules, Safety
from ridge_tally.core.job.ids import OptionId, PlacedId, PlaneId
from ridge_tally.core.job.survey import RoofPlane, Survey
from ridge_tally.core.job.weather import JobWeather
from ridge_tally.core.job.wiring import JunctionBox
from ridge_tally.core.units import LengthUnit

DOCUMENT_VERSION = 9


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
    which of the first two holds, or a fixed one.  ``own_rules`` is held otherwise than the family's.
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


@dataclass(frozen=True, slots=True)
class Equipment:
    """Copies of the datasheets this job uses, so that the job file stands alone."""

    modules: tuple[ModuleSheet, ...]
    inverters: tuple[InverterSheet, ...]
    optimizers: tuple[OptimizerSheet, ...] = ()
    microinverters: tuple[MicroinverterSheet, ...] = ()


@dataclass(frozen=True, slots=True)
class ModuleString:
    """Modules in series, in wiring order from the positive end, on one tracker (from 1).

    ``locked``: wired so by a person; planning leaves it alone.
    """

    tag: str
    tracker_number: int
    module_ids: tuple[PlacedId, ...]
    locked: bool = False


@dataclass(frozen=True, slots=True)
class Option:
    """One design for this survey; trackers are numbered through from ``inverter_id`` on."""

    id: OptionId
    name: str
    module_id: ModuleId
    inverter_id: InverterId
    arrays: tuple[PlaneArray, ...] = ()
    series_wish: int | None = None
    strings: tuple[ModuleString, ...] = ()
    more_inverters: tuple[InverterId, ...] = ()
    boxes: tuple[JunctionBox, ...] = ()
    safety: Safety = field(default_factory=Safety)
    electronics: Electronics = field(default_factory=Electronics)
    battery: Battery | None = None


@dataclass(frozen=True, slots=True)
class TrackerInput:
    """An MPPT input of an option: its number, and its inverter with that one's number, from 1."""

    number: int
    unit_number: int
    sheet: TrackerSheet
    inverter: InverterSheet


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
    version: int = field(default=DOCUMENT_VERSION)


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


def module_sheet_of(job: Job, option: Option) -> ModuleSheet:
    """Return the datasheet of the option's module.

    Raises
    ------
    NotFound
        If the job carries no such datasheet.
    """
    return _module_sheet(job, option.module_id)


def module_on(job: Job, option: Option, plane_id: PlaneId) -> ModuleSheet:
    """Return the datasheet of the modules on a plane: the option's, but for a plane of its own.

    Raises
    ------
    NotFound
        If the job carries no such datasheet.
    """
    own = next((a.module_id for a in option.arrays if a.plane_id == plane_id), None)
    return _module_sheet(job, own or option.module_id)


def module_sheets(job: Job, option: Option) -> dict[PlacedId, ModuleSheet]:
    """Return the datasheet of every module laid."""
    found: dict[PlacedId, ModuleSheet] = {}
    for array in option.arrays:
        sheet = module_on(job, option, array.plane_id)
        found.update((m.id, sheet) for m in array.modules)
    return found


def sheets_on_planes(job: Job, option: Option) -> tuple[ModuleSheet, ...]:
    """Return the datasheet of each array, in their order."""
    return tuple(module_on(job, option, a.plane_id) for a in option.arrays)


def _module_sheet(job: Job, module_id: ModuleId) -> ModuleSheet:
    return sheet_among(job.equipment.modules, module_id, "module datasheet")


def inverter_sheets_of(job: Job, option: Option) -> tuple[InverterSheet, ...]:
    """Return the datasheets of the option's inverters, one for each that hangs there.

    Raises
    ------
    NotFound
        If the job carries no such datasheet.
    """
    return tuple(
        sheet_among(job.equipment.inverters, i, "inverter datasheet")
        for i in (option.inverter_id, *option.more_inverters)
    )


def optimizer_sheet_of(job: Job, option: Option) -> OptimizerSheet | None:
    """Return the datasheet of the option's optimizers; ``None`` where it has none.

    Raises
    ------
    NotFound
        If the job carries no such datasheet.
    """
    wanted = option.electronics.optimizer_id
    if wanted is None:
        return None
    return sheet_among(job.equipment.optimizers, wanted, "optimizer datasheet")


def microinverter_sheet_of(job: Job, option: Option) -> MicroinverterSheet | None:
    """Return the datasheet of the option's microinverters; ``None`` where it has none.

    Raises
    ------
    NotFound
        If the job carries no such datasheet.
    """
    wanted = option.electronics.microinverter_id
    if wanted is None:
        return None
    return sheet_among(job.equipment.microinverters, wanted, "microinverter datasheet")


def tracker_inputs(inverters: tuple[InverterSheet, ...]) -> tuple[TrackerInput, ...]:
    """Return the inputs of inverters, numbered through."""
    owners = [(u, t, i) for u, i in enumerate(inverters, start=1) for t in i.trackers]
    return tuple(TrackerInput(n, *owner) for n, owner in enumerate(owners, start=1))


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


def taking_part(option: Option) -> tuple[PlacedId, ...]:
    """Return the modules that reach the grid: those in strings, or all with inverters of their own."""
    if option.electronics.architecture is Architecture.MICRO:
        return present_ids(option)
    return tuple(m for s in option.strings for m in s.module_ids)


def strung_count(option: Option) -> int:
    """Return how many modules reach the grid."""
    return len(taking_part(option))


def strung_w(job: Job, option: Option) -> float:
    """Return what the modules that reach the grid are rated at together, W."""
    sheets = module_sheets(job, option)
    return sum(sheets[m].p_max_w for m in taking_part(option))


def present_ids(option: Option) -> tuple[PlacedId, ...]:
    """Return the ids of the modules that are there, plane by plane."""
    return tuple(m.id for array in option.arrays for m in array.modules if m.present)
