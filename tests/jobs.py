"""The sample job and a workspace on a temporary folder, for tests above the core."""

from dataclasses import fields, replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

from ridge_tally.catalogue.shelf import Shelf, sample_shelf
from ridge_tally.core.equipment import InverterSheet, ModuleSheet
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.survey.planes import RemovePlane
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.racking import DesignLoads, Racking
from ridge_tally.demo.juniper_bench import juniper_bench
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.strings.planned import thread_option
from ridge_tally.services.workspace import Workspace, workspace_at
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.remembered import Remembered

SHELF = sample_shelf()
FULL = juniper_bench(SHELF)


def only_first_plane(job: Job) -> Job:
    """The job as if only its first plane had been measured."""
    for plane in job.survey.planes[1:]:
        job = apply_edit(job, RemovePlane(plane.id), SHELF)
    return job


def unracked(job: Job) -> Job:
    """The job as it was before anybody chose a mounting system."""
    options = tuple(replace(o, racking=Racking()) for o in job.options)
    equipment = replace(job.equipment, mountings=())
    return replace(job, design_loads=DesignLoads(), options=options, equipment=equipment)


SAMPLE = only_first_plane(FULL)
EPOCH = datetime(2026, 3, 1, 9, 0, tzinfo=UTC)


# What one test has worked out another need not: results are remembered by all they depend on.
WORKED_OUT = Desk(
    SHELF,
    lambda: (),
    Path(),
    years=Remembered(300),
    weather=Remembered(100),
    guesses=Remembered(300),
    shades=Remembered(150),
    fills=Remembered(500),
)


def workspace_in(folder: Path, shelf: Shelf = SHELF) -> Workspace:
    """A workspace whose clock moves on a second at each look, and that remembers nothing yet."""
    ticks = iter(range(10_000))
    return workspace_at(folder, lambda: EPOCH + timedelta(seconds=next(ticks)), shelf)


def warm_workspace_in(folder: Path, shelf: Shelf = SHELF) -> Workspace:
    """The same, with the results of tests before; for jobs that have no file kept beside them."""
    workspace = workspace_in(folder, shelf)
    memories = {
        f.name: getattr(WORKED_OUT, f.name)
        for f in fields(Desk)
        if f.type is Remembered and f.name != "own"
    }
    return replace(workspace, desk=replace(workspace.desk, **memories))


def with_module(job: Job, **change: object) -> Job:
    """The job with its module's datasheet changed, strings threaded anew."""
    module: ModuleSheet = replace(job.equipment.modules[0], **change)
    job = replace(job, equipment=replace(job.equipment, modules=(module,)))
    return replace(job, options=tuple(thread_option(job, o) for o in job.options))


def with_inverter(job: Job, **change: object) -> Job:
    """The job with its inverter's datasheet changed, strings as they were."""
    inverter: InverterSheet = replace(job.equipment.inverters[0], **change)
    return replace(job, equipment=replace(job.equipment, inverters=(inverter,)))


def option_a(job: Job) -> Option:
    """The first option."""
    return job.options[0]
