"""Every sample job with its pictures, stored in a workspace."""

from datetime import date
from enum import StrEnum

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.loading.bench import UsePowerFile
from ridge_tally.core.job.edits.survey.surroundings import MoveTrace, ScaleTrace, SetTrace
from ridge_tally.core.job.system import system_of
from ridge_tally.core.sky.site import location_of
from ridge_tally.demo.juniper_bench import juniper_bench
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.demo.lagoon_plat import NORTH_EAST, SOUTH_WEST, lagoon_plat, plat_point
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.demo.tollgate import tollgate
from ridge_tally.editing.apply import apply_edits
from ridge_tally.services.jobs import JobState, store_job
from ridge_tally.services.kept_files import take_in
from ridge_tally.services.taken_in import take_in_power
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulators.meters import module_day_csv

MEASURED_ON = date(2026, 11, 20)


class Sample(StrEnum):
    """The sample jobs, by what each shows."""

    JUNIPER_BENCH = "juniper-bench"
    LAGOON_ROAD = "lagoon-road"
    KILN_YARD = "kiln-yard"
    MILL_TERRACE = "mill-terrace"
    TOLLGATE = "tollgate"


def store_samples(workspace: Workspace, author: str) -> None:
    """Store the sample jobs; the last one stored stands first in the list."""
    for sample in reversed(Sample):
        store_sample(workspace, sample, author)


def store_sample(workspace: Workspace, sample: Sample, author: str) -> JobState:
    """Store a sample job, or one more of it, and return it."""
    shelf = workspace.desk.shelf
    match sample:
        case Sample.JUNIPER_BENCH:
            job = juniper_bench(shelf)
        case Sample.LAGOON_ROAD:
            job = _with_measured_day(workspace, _with_plat(workspace, lagoon_road(shelf)))
        case Sample.KILN_YARD:
            job = kiln_yard(shelf)
        case Sample.MILL_TERRACE:
            job = mill_terrace(shelf)
        case Sample.TOLLGATE:
            job = tollgate(shelf)
    return store_job(workspace, job, "sample job", author)


def _with_measured_day(workspace: Workspace, job: Job) -> Job:
    """Return the job with a test module's day on its bench, as the simulated logger wrote it."""
    laid = system_of(job, job.options[0]).arrays[0]
    plane, module = laid.plane, laid.module
    text = module_day_csv(
        MEASURED_ON, location_of(job.site), plane.slope_deg, plane.azimuth_deg, module.p_max_w
    )
    ref = take_in_power(workspace, job, text.encode(), "simulated-logger.csv")
    return apply_edits(job, (UsePowerFile(ref, f"{module.p_max_w:g}"),), workspace.desk.shelf)


def _with_plat(workspace: Workspace, job: Job) -> Job:
    """Return the job with its plat under the site plan, scaled by the lot's long side."""
    picture = take_in(workspace, lagoon_plat(), "plat.png")
    first = plat_point(SOUTH_WEST.east_m, SOUTH_WEST.north_m)
    second = plat_point(NORTH_EAST.east_m, SOUTH_WEST.north_m)
    steps = (
        SetTrace(picture),
        ScaleTrace(first, second, "41.00 m"),
        MoveTrace(SOUTH_WEST),
    )
    return apply_edits(job, steps, workspace.desk.shelf)
