"""What goes over the wire: pydantic envelopes around the core's and the services' values."""

from datetime import datetime
from enum import StrEnum
from typing import Annotated, Generic, TypeVar

from pydantic import BaseModel, ConfigDict, Field

from ridge_tally.catalogue.tariffs import SampleTariff
from ridge_tally.core.equipment import (
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    OptimizerSheet,
)
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.survey.planes import PlaneShape
from ridge_tally.core.job.grid import GridRules
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.units import LengthUnit
from ridge_tally.formats.equipment_fields import SheetKind
from ridge_tally.rules.array.setbacks import SetbackPack
from ridge_tally.services.papers import DiagramFormat
from ridge_tally.services.sample_jobs import Sample
from ridge_tally.studies.array.exact_count import Arrangement
from ridge_tally.studies.array.layouts import Proof
from ridge_tally.studies.strings.plans import Objective


class Wire(BaseModel):
    """Strict at the edge: no unknown fields; NaN leaves as null."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, ser_json_inf_nan="null")


Value = TypeVar("Value")
# Exact in every program, and within what the database counts to.
Count = Annotated[int, Field(ge=0, le=2**53 - 1)]


class Found(Wire, Generic[Value]):
    """What was asked for."""

    found: Value


class Running(Wire, Generic[Value]):
    """What a study has found so far, whether it goes on, and why it ended without finding."""

    found: Value | None
    running: bool
    problem: str


class Problem(Wire):
    """An error in the person's words; ``code`` is stable, ``field`` names the place."""

    code: str
    message: str
    field: str = ""
    kept_job_id: str = ""


class JobPath(Wire):
    """A job."""

    job_id: str


class RevisionPath(Wire):
    """One revision of a job."""

    job_id: str
    revision: Count


class OptionPath(RevisionPath):
    """One option at one revision of a job."""

    option_id: str


class DiagramPath(OptionPath):
    """A sheet of an option's one-line diagram, from 1, in a format."""

    sheet: int
    kind: DiagramFormat


class PlanePath(OptionPath):
    """One plane as an option sees it."""

    plane_id: str


class RevisionQuery(Wire):
    """Which revision; the newest without one."""

    revision: Count | None = None


class NewJob(Wire):
    """Name and unit of a job to be made, and the shape of the plane it begins with."""

    name: str
    unit: LengthUnit
    begins: PlaneShape = PlaneShape.GABLE


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
    archived: bool


class Archived(Wire):
    """Whether a job is put away."""

    archived: bool


class SamplePath(Wire):
    """Which sample a job begins with."""

    sample: Sample


class JobList(Wire):
    """All jobs that are not deleted, newest change first."""

    jobs: list[JobListEntry]


class PlansQuery(Wire):
    """What stands before the other merits of a plan; nothing more than the usual order."""

    first: Objective | None = None


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
    RACKING = "racking"
    CIRCUITS = "circuits"
    MONEY = "money"
    SURE = "how-sure"
    MOVES = "next-moves"
    LATER = "now-or-later"
    PLAN_SET = "plan-set"


class StudyPath(OptionPath):
    """A study of an option."""

    study: Study


class Weighed(Wire):
    """What a year is weighed by: ``year``, ``winter``, ``mornings``, hours such as ``16-21``."""

    by: str = ""


class ComparedQuery(Wire):
    """Options to lay over each other: ``a,b,a@12``; empty: all of this revision."""

    picked: str = ""


class RowsLightQuery(Wire):
    """The share of light rows may take from each other, as typed; empty: not asked."""

    most_loss: str = ""


class SplitQuery(Wire):
    """A tilt and a DC:AC in the place of the design's."""

    tilt_deg: float | None = Field(None, ge=0, le=90)
    ratio: float | None = Field(None, ge=0.3, le=5)


class KindPath(Wire):
    """A kind of equipment."""

    kind: SheetKind


class HashPath(Wire):
    """A kept file by its hash."""

    sha256: str


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


class SheetTyped(Wire):
    """A datasheet typed column by column."""

    texts: dict[str, str]


class SheetGone(Wire):
    """Which datasheet was taken away."""

    sheet_id: str


class TypedPlan(Wire):
    """A plan in words."""

    typed: str


class Stopped(Wire):
    """What went on for an option goes on no longer."""

    option_id: str


class OwnPointQuery(Wire):
    """Ids of the modules with add-on optimizers, by commas; left out, the darkest are taken."""

    helped: str | None = None


class PlaceQuery(Wire):
    """What was typed of a place's name."""

    typed: str


class PlaceFound(Wire):
    """A place of the shipped list."""

    title: str
    latitude_deg: float
    longitude_deg: float


class ProofAnswer(Wire):
    """How the proof of a plane's layouts stands."""

    proof: Proof | None
    running: bool
    cancelled: bool
    problem: str


class ExactlyQuery(Wire):
    """How many modules, and how they are arranged."""

    modules: int = Field(ge=1, le=500)
    arrangement: Arrangement = Arrangement.TOGETHER


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
    mountings: list[MountingSheet]
    climates: list[ClimateChoice]
    grid_packs: list[GridRules]
    tariffs: list[SampleTariff]
    setback_packs: list[SetbackPack]


class TrimQuery(Wire):
    """Which tree, house or pole, and by how much it is lowered, as typed."""

    shade_id: str
    typed: str


class SunPathsQuery(Wire):
    """Which module's sky, the middle of the plane without one; a day to draw besides."""

    module_id: str = ""
    day: int | None = None


class ShadeHoursQuery(Wire):
    """Which module; the whole array without one."""

    module_id: str = ""


class SunDayQuery(Wire):
    """The day of the year, 0 for the first of January."""

    day: int


class AtMeterQuery(Wire):
    """The number of an owner of shade, as the report of shade has it."""

    number: Count


class Deleted(Wire):
    """What was deleted; ``restore`` brings it back."""

    job_id: str
