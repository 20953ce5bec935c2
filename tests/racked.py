"""The sample's south roof racked, and what its tests ask of it."""

from dataclasses import replace

from jobs import FULL, SHELF, option_a, unracked
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.build.racking import (
    ChooseMounting,
    DesignLoadField,
    RackingField,
    SetDesignLoad,
    SetRackingField,
    SetRunOn,
)
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.mounting_sheet import MountingId
from ridge_tally.core.working import Check
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.rules.build.checks import build_checks
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.design import Design

SOUTH = PlaneId("south")
A = option_a(FULL).id
FOOT = MountingId("sample-flashed-foot")
LOADS = (
    SetDesignLoad(DesignLoadField.WIND, "115 mph", "county"),
    SetDesignLoad(DesignLoadField.SNOW, "30 psf", "county"),
)
BARE = unracked(FULL)
RACKED = apply_edits(BARE, [ChooseMounting(A, SOUTH, FOOT), *LOADS], SHELF)
MOUNTED = apply_edit(RACKED, SetRunOn(A, SOUTH, on=True), SHELF)


def design_of(job: Job) -> Design:
    return design_for(job, option_a(job))


def plane_of(job: Job) -> RackedPlane:
    (found,) = racked_planes(design_of(job))
    return found


def check_of(job: Job, rule_id: str) -> Check:
    return next(c for c in build_checks(design_of(job)) if c.rule_id == rule_id)


def typed(job: Job, field: RackingField, text: str) -> Job:
    return apply_edit(job, SetRackingField(A, SOUTH, field, text), SHELF)


def with_sheet(job: Job, **change: object) -> Job:
    (sheet,) = job.equipment.mountings
    changed = replace(sheet, **change)  # type: ignore[arg-type]
    return replace(job, equipment=replace(job.equipment, mountings=(changed,)))
