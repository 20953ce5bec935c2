"""The plan of work of an option: how long each step takes, what it waits for, when it is done."""

import math
from dataclasses import dataclass
from datetime import date

from ridge_tally.core.job.packet import Addressee, LogKind
from ridge_tally.core.job.paperwork import Paperwork
from ridge_tally.core.job.work import StepTyped, WorkStep
from ridge_tally.core.number_format import spaced
from ridge_tally.core.work.booked import Booked, Task, booked
from ridge_tally.rules import tables
from ridge_tally.rules.build.hours import crew_hours
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.design import Design
from ridge_tally.rules.sheets.packet import standing_of

TITLES = {
    WorkStep.SURVEY: "Survey on site",
    WorkStep.DRAWN: "Design and plan set",
    WorkStep.SENT: "Packet sent",
    WorkStep.APPROVED: "Approval",
    WorkStep.ORDERED: "Equipment ordered",
    WorkStep.DELIVERED: "Delivery",
    WorkStep.ROOF: "On the roof",
    WorkStep.WIRING: "Wiring and inverter",
    WorkStep.INSPECTION: "Inspection",
    WorkStep.METER: "Utility’s meter",
    WorkStep.ON: "Switching on",
}
AFTER = {
    WorkStep.DRAWN: (WorkStep.SURVEY,),
    WorkStep.SENT: (WorkStep.DRAWN,),
    WorkStep.APPROVED: (WorkStep.SENT,),
    WorkStep.ORDERED: (WorkStep.APPROVED,),
    WorkStep.DELIVERED: (WorkStep.ORDERED,),
    WorkStep.ROOF: (WorkStep.DELIVERED, WorkStep.APPROVED),
    WorkStep.WIRING: (WorkStep.ROOF,),
    WorkStep.INSPECTION: (WorkStep.WIRING,),
    WorkStep.METER: (WorkStep.INSPECTION,),
    WorkStep.ON: (WorkStep.METER,),
}
OUTDOORS = frozenset({WorkStep.SURVEY, WorkStep.ROOF})
# A table's hours are of a crew of two.
TABLE_PEOPLE = 2


@dataclass(frozen=True, slots=True)
class StepPlanned:
    """A step with its length, why it is that long, and what is amiss with it; empty if nothing."""

    task: Task
    booked: Booked
    told: str
    amiss: str


def work_planned(design: Design, today: date) -> tuple[StepPlanned, ...]:
    """Return the steps of a job with their days; those already done by their own.

    Parameters
    ----------
    today : date
        The job begins then where nobody said when.
    """
    paper = design.job.paperwork
    work = paper.work
    said = {s.step: s for s in work.steps}
    typed = {step: said.get(step, StepTyped(step)) for step in WorkStep}
    lengths = {step: _length(design, typed[step]) for step in WorkStep}
    tasks = [
        Task(
            step,
            lengths[step][0],
            AFTER.get(step, ()),
            step in OUTDOORS,
            typed[step].not_before,
            typed[step].done_on or _known_day(paper, step),
        )
        for step in WorkStep
    ]
    made = booked(tasks, work.begins or today, work.holds, saturdays=work.saturdays)
    by = {b.step: b for b in made}
    return tuple(
        StepPlanned(task, by[task.step], lengths[task.step][1], _amiss(task, by, today))
        for task in tasks
    )


def _length(design: Design, typed: StepTyped) -> tuple[int, str]:
    """Return the working days of a step and where they come from."""
    step, work = typed.step, design.job.paperwork.work
    if typed.days is not None:
        return typed.days, "typed"
    if step is WorkStep.ROOF:
        hours = sum(r.hours for r in crew_hours(design, racked_planes(design)))
        if hours > 0:
            each = hours * TABLE_PEOPLE / work.people
            days = math.ceil(each / work.hours_a_day - 1e-9)
            people = f"{work.people} people"
            return days, f"{spaced(hours, 1)} h of two, {people} at {work.hours_a_day:g} h a day"
    if step is WorkStep.APPROVED:
        weeks = _route_weeks(design)
        if weeks is not None:
            return math.ceil(weeks * 5 - 1e-9), f"{weeks:g} weeks, the grid rules in the Brief"
    usual = tables.load("work-days").number("value", step=step.value)
    return int(usual), "usual, no source"


def _route_weeks(design: Design) -> float | None:
    """Return the longest wait of the ways to an approval that the Brief names."""
    grid = design.job.brief.grid
    weeks = [r.weeks for r in grid.routes if r.weeks is not None] if grid else []
    return max(weeks, default=None)


def _known_day(paper: Paperwork, step: WorkStep) -> date | None:
    """Return the day a step was done, by what the log and the title block say of it."""
    real = [e for e in paper.log if not e.practice]
    if step is WorkStep.ORDERED:
        return paper.ordered_on
    if step is WorkStep.SENT:
        return next((e.day for e in real if e.kind is LogKind.SENT), None)
    if step is WorkStep.APPROVED:
        stands = [standing_of(paper, to) for to in Addressee]
        last = [s.last.day for s in stands if s.agreed and s.last is not None]
        return max(last) if len(last) == len(stands) else None
    return None


def _amiss(task: Task, by: dict[WorkStep, Booked], today: date) -> str:
    one = by[task.step]
    for before in task.after:
        # What is done before what it waits for is done, is done at one's own risk.
        if one.done and one.to_day < by[before].to_day:
            return f"done before “{TITLES[before].lower()}”"
    if not one.done and one.to_day < today:
        return "overdue: was it done?"
    return ""
