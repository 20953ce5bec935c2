"""What goes over the wire: pydantic envelopes around the core's and the services' values."""

from datetime import datetime
from enum import StrEnum
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ridge_tally.core.equipment import (
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    OptimizerSheet,
)
from ridge_tally.core.job.bench import PowerFileRef
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.grid import GridRules
from ridge_tally.core.job.survey import Picture
from ridge_tally.core.survey.scene import Scene
from ridge_tally.core.units import LengthUnit
from ridge_tally.formats.equipment_fields import Column, SheetKind
from ridge_tally.formats.sheet_pdf import SheetContent
from ridge_tally.rules.array.setbacks import SetbackPack
from ridge_tally.services.jobs import Earlier, JobState
from ridge_tally.services.own_equipment import TakenIn
from ridge_tally.services.taken_in import LoadFileTold
from ridge_tally.studies.array.brackets import SeatReport
from ridge_tally.studies.array.layouts import Alternative, Proof
from ridge_tally.studies.array.module_choice import ModuleChoice
from ridge_tally.studies.array.one_more import OneMore
from ridge_tally.studies.array.rows_light import RowsLight
from ridge_tally.studies.array.seasonal_tilt import SeasonalTilt
from ridge_tally.studies.array.worst_modules import WorstModules
from ridge_tally.studies.brief.target import TargetReport
from ridge_tally.studies.loading.bench import BenchView
from ridge_tally.studies.loading.household import HouseReport
from ridge_tally.studies.loading.options_compared import OptionsCompared
from ridge_tally.studies.loading.sweep import SweepReport
from ridge_tally.studies.loading.what_to_buy import WhatToBuy
from ridge_tally.studies.loading.which import Which
from ridge_tally.studies.strings.asked_plan import PlanVerdict
from ridge_tally.studies.strings.comparison import Comparison
from ridge_tally.studies.strings.own_point import OwnPointReport
from ridge_tally.studies.strings.pairing import PairingStudy
from ridge_tally.studies.strings.plans import InverterPlans, Objective, PlansReport
from ridge_tally.studies.strings.remedies import RemediesReport
from ridge_tally.studies.strings.tracker_currents import SharedTracker
from ridge_tally.studies.strings.tracker_losses import TrackerLosses
from ridge_tally.studies.sun.angles import AngleMap, SplitStudy
from ridge_tally.studies.sun.losses_at_meter import LossAtMeter
from ridge_tally.studies.sun.shade import AtMeter, ShadeHours, ShadeReport, Trimmed
from ridge_tally.studies.sun.shade_band import ShadeBand
from ridge_tally.studies.sun.sun_day import SunDay
from ridge_tally.studies.sun.sun_paths import SunPaths
from ridge_tally.views.loading.year import YearReport
from ridge_tally.views.shelf import SheetView, ShelfPage
from ridge_tally.views.sun.weather import FileTold, WeatherReport


class Wire(BaseModel):
    """Strict at the edge: no unknown fields; NaN leaves as null."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, ser_json_inf_nan="null")


# Exact in every program, and within what the database counts to.
Count = Annotated[int, Field(ge=0, le=2**53 - 1)]


class Problem(Wire):
    """An error in the person's words; ``code`` is stable, ``field`` names the place."""

    code: str
    message: str
    field: str = ""
    kept_job_id: str = ""


class JobPath(Wire):
    """A job."""

    job_id: str


class OptionPath(Wire):
    """One option at one revision of a job."""

    job_id: str
    revision: Count
    option_id: str


class PlanePath(OptionPath):
    """One plane as an option sees it."""

    plane_id: str


class RevisionQuery(Wire):
    """Which revision; the newest without one."""

    revision: Count | None = None


class NewJob(Wire):
    """Name and unit of a job to be made."""

    name: str
    unit: LengthUnit


class EditRequest(Wire):
    """An edit, the revision it was made on and the tab it came from."""

    parent: Count
    author: str
    edit: Annotated[Edit, Field(discriminator="kind")]


class StepRequest(Wire):
    """The revision from which to undo or redo."""

    from_revision: Count


class JobListEntry(Wire):
    """A job in the list."""

    id: str
    name: str
    revision: int
    saved_at: datetime


class JobList(Wire):
    """All jobs that are not deleted, newest change first."""

    jobs: list[JobListEntry]


class JobAnswer(Wire):
    """A job at a revision with the fast report of each option."""

    state: JobState


class YearAnswer(Wire):
    """The simulated year of an option."""

    year: YearReport


class FineYearAnswer(Wire):
    """How the year by quarters of an hour stands; no year until it is done."""

    year: YearReport | None
    done_frac: float
    running: bool
    problem: str


class SheetContentAnswer(Wire):
    """What the sheet of an option says."""

    content: SheetContent


class PlansQuery(Wire):
    """What stands before the other merits of a plan; nothing more than the usual order."""

    first: Objective | None = None


class PlansAnswer(Wire):
    """The legal string plans of an option."""

    report: PlansReport


class InverterPlansAnswer(Wire):
    """Inverters with their best plans, as far as they are looked at."""

    plans: InverterPlans | None
    running: bool
    problem: str


class Study(StrEnum):
    """The studies that go on beside the requests."""

    REMEDIES = "remedies"
    COMPARISON = "comparison"
    PAIRING = "pairing"
    MODULES = "module-choice"
    INVERTERS = "inverter-plans"
    SWEEP = "loading-sweep"
    WHAT_TO_BUY = "what-to-buy"
    WHICH = "which"


class StudyPath(OptionPath):
    """A study of an option."""

    study: Study


class RemediesAnswer(Wire):
    """Ways out as far as they are judged."""

    report: RemediesReport | None
    running: bool
    problem: str


class SharedTrackersAnswer(Wire):
    """Trackers several strings share, hour by hour on their hardest day."""

    trackers: list[SharedTracker]


class ComparisonAnswer(Wire):
    """The ways to the grid as far as they are compared."""

    comparison: Comparison | None
    running: bool
    problem: str


class PairingAnswer(Wire):
    """A module against every microinverter, as far as it is worked out."""

    study: PairingStudy | None
    running: bool
    problem: str


class ModuleChoiceAnswer(Wire):
    """Every module on this roof, as far as they are laid."""

    choice: ModuleChoice | None
    running: bool
    problem: str


class Weighed(Wire):
    """What a year is weighed by: ``year``, ``winter``, ``mornings``, hours such as ``16-21``."""

    by: str = ""


class SweepAnswer(Wire):
    """The loading sweep as far as it is worked out."""

    sweep: SweepReport | None
    running: bool
    problem: str


class WhatToBuyAnswer(Wire):
    """What to buy as far as it is looked at."""

    choice: WhatToBuy | None
    running: bool
    problem: str


class WhichAnswer(Wire):
    """Which inverter, how many modules and which way, as far as it is worked out."""

    which: Which | None
    running: bool
    problem: str


class HouseAnswer(Wire):
    """A house on its own sun."""

    house: HouseReport


class LoadFileAnswer(Wire):
    """A file of metered use as it was read."""

    file: LoadFileTold


class ComparedQuery(Wire):
    """Options to lay over each other: ``a,b,a@12``; empty: all of this revision."""

    picked: str = ""


class ComparedAnswer(Wire):
    """Options over a year, side by side."""

    compared: OptionsCompared


class EarlierAnswer(Wire):
    """The revisions a job came from, newest first."""

    revisions: list[Earlier]


class BenchAnswer(Wire):
    """What lies on the measured-curve bench."""

    bench: BenchView


class PowerFileAnswer(Wire):
    """A file of measured power as it was read."""

    file: PowerFileRef


class RowsLightQuery(Wire):
    """The share of light rows may take from each other, as typed; empty: not asked."""

    most_loss: str = ""


class RowsLightAnswer(Wire):
    """What rows take of each other's light."""

    light: RowsLight


class SeatsAnswer(Wire):
    """Modules over seams, ribs or beams."""

    seats: SeatReport


class SeasonsAnswer(Wire):
    """Tilts changed with the seasons."""

    study: SeasonalTilt


class AngleMapAnswer(Wire):
    """Every tilt and azimuth on this site's weather."""

    angles: AngleMap


class SplitQuery(Wire):
    """A tilt and a DC:AC in the place of the design's."""

    tilt_deg: float | None = Field(None, ge=0, le=90)
    ratio: float | None = Field(None, ge=0.3, le=5)


class SplitAnswer(Wire):
    """An array split by angles."""

    study: SplitStudy


class KindPath(Wire):
    """A kind of equipment."""

    kind: SheetKind


class SheetPath(Wire):
    """A datasheet of the shelf."""

    kind: SheetKind
    sheet_id: str


class ShelfAsked(Wire):
    """Words of the name; a column to sort by, and between which figures of it."""

    words: str = ""
    sort: str = ""
    down: bool = False
    least: float | None = None
    most: float | None = None
    start: Count = 0


class ShelfPageAnswer(Wire):
    """A page of the shelf."""

    page: ShelfPage


class SheetAnswer(Wire):
    """A datasheet value by value."""

    sheet: SheetView


class SheetTyped(Wire):
    """A datasheet typed column by column."""

    texts: dict[str, str]


class ColumnsAnswer(Wire):
    """What a datasheet of a kind is typed in."""

    columns: list[Column]


class TakenInAnswer(Wire):
    """What came of an equipment file."""

    taken: TakenIn


class SheetGone(Wire):
    """Which datasheet was taken away."""

    sheet_id: str


class TypedPlan(Wire):
    """A plan in words."""

    typed: str


class PlanVerdictAnswer(Wire):
    """Whether the plan is legal."""

    verdict: PlanVerdict


class TrackerLossesAnswer(Wire):
    """What trackers with strings lose."""

    losses: list[TrackerLosses]


class Stopped(Wire):
    """What went on for an option goes on no longer."""

    option_id: str


class OwnPointQuery(Wire):
    """Ids of the modules with add-on optimizers, by commas; left out, the darkest are taken."""

    helped: str | None = None


class OwnPointAnswer(Wire):
    """The year with every module at its own point, and without."""

    report: OwnPointReport


class LossesAnswer(Wire):
    """What steps of the light come to at the meter."""

    losses: list[LossAtMeter]


class ShadeBandAnswer(Wire):
    """What the year comes to at least."""

    band: ShadeBand


class TargetAnswer(Wire):
    """The target of an option."""

    target: TargetReport


class PlaceQuery(Wire):
    """What was typed of a place's name."""

    typed: str


class PlaceFound(Wire):
    """A place of the shipped list."""

    title: str
    latitude_deg: float
    longitude_deg: float


class PlacesAnswer(Wire):
    """Places found, likeliest first."""

    places: list[PlaceFound]


class AlternativesAnswer(Wire):
    """Layouts of a plane that could be applied."""

    alternatives: list[Alternative]


class ProofAnswer(Wire):
    """How the proof of a plane's layouts stands."""

    proof: Proof | None
    running: bool
    cancelled: bool
    problem: str


class ExactlyQuery(Wire):
    """How many modules, and the share of one's year that keeping them together is worth."""

    modules: int = Field(ge=1, le=500)
    give_up_frac: float = Field(default=0.02, ge=0, le=1)


class OneMoreAnswer(Wire):
    """Why not one more module."""

    answer: OneMore


class ClimateChoice(Wire):
    """A climate type to choose from."""

    id: str
    title: str
    coldest_degc: float
    hottest_degc: float


class ShelfAnswer(Wire):
    """Equipment, climates and sample grid rules to choose from."""

    modules: list[ModuleSheet]
    inverters: list[InverterSheet]
    optimizers: list[OptimizerSheet]
    microinverters: list[MicroinverterSheet]
    climates: list[ClimateChoice]
    grid_packs: list[GridRules]
    setback_packs: list[SetbackPack]


class ShadeAnswer(Wire):
    """What shade takes from an option in a year."""

    shade: ShadeReport


class TrimQuery(Wire):
    """Which tree, house or pole, and by how much it is lowered, as typed."""

    shade_id: str
    typed: str


class TrimmedAnswer(Wire):
    """What a lower obstacle gives back."""

    trimmed: Trimmed


class SunPathsQuery(Wire):
    """Which module's sky, the middle of the plane without one; a day to draw besides."""

    module_id: str = ""
    day: int | None = None


class SunPathsAnswer(Wire):
    """The sun's paths over a spot of the array."""

    paths: SunPaths


class ShadeHoursQuery(Wire):
    """Which module; the whole array without one."""

    module_id: str = ""


class ShadeHoursAnswer(Wire):
    """What shade takes by month and hour."""

    hours: ShadeHours


class SunDayQuery(Wire):
    """The day of the year, 0 for the first of January."""

    day: int


class SunDayAnswer(Wire):
    """A day's shadows and what each module gets."""

    sun_day: SunDay


class AtMeterQuery(Wire):
    """The number of an owner of shade, as the report of shade has it."""

    number: Count


class AtMeterAnswer(Wire):
    """What an owner of shade costs at the meter."""

    cost: AtMeter


class WorstAnswer(Wire):
    """What moving the modules with least light would give."""

    worst: WorstModules


class WeatherAnswer(Wire):
    """The weather year of a job."""

    weather: WeatherReport


class WeatherFileAnswer(Wire):
    """A weather file as it was read."""

    file: FileTold


class PicturePath(Wire):
    """A kept picture."""

    sha256: str


class RevisionPath(Wire):
    """One revision of a job."""

    job_id: str
    revision: Count


class SceneAnswer(Wire):
    """The site as solids."""

    scene: Scene


class PictureAnswer(Wire):
    """A picture as a job names it."""

    picture: Picture


class Deleted(Wire):
    """What was deleted; ``restore`` brings it back."""

    job_id: str
