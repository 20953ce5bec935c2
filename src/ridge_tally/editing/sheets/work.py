"""Applying the edits of the plan of work."""

from dataclasses import replace
from datetime import date
from typing import Any

from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.sheets.work import (
    DropHold,
    HoldDays,
    SetStepField,
    SetWorkField,
    StepField,
    WorkEdit,
    WorkField,
)
from ridge_tally.core.job.work import Hold, StepTyped, WorkPlan
from ridge_tally.core.units import one_line, parse_number, whole
from ridge_tally.editing.rows import without_at


def work_changed(job: Job, edit: WorkEdit) -> Job:
    """Return the job with its plan of work changed.

    Raises
    ------
    NotUnderstood
        If a day or a number cannot be read.
    NotFound, BadGeometry
        If there is no such hold; if one ends before it begins.
    """
    return replace(job, paperwork=replace(job.paperwork, work=_planned(job, edit)))


def _planned(job: Job, edit: WorkEdit) -> WorkPlan:
    work = job.paperwork.work
    match edit:
        case SetWorkField():
            return _with_field(job, work, edit)
        case SetStepField():
            old = next((s for s in work.steps if s.step is edit.step), StepTyped(edit.step))
            typed: Any = _of_step(job, edit)
            new = replace(old, **{edit.field.value: typed})
            others = tuple(s for s in work.steps if s.step is not edit.step)
            return replace(work, steps=others if new == StepTyped(edit.step) else (*others, new))
        case HoldDays():
            begin = _day(job, edit.from_day, "First day held")
            end = _day(job, edit.to_day, "Last day held") if edit.to_day.strip() else begin
            if end < begin:
                raise BadGeometry(
                    "Days held", f"they end on {end.isoformat()}, before {begin.isoformat()}",
                    "Type the first day first.",
                )  # fmt: skip
            why = one_line(edit.why, "Why", "wind, rain, a feast")
            holds = sorted((*work.holds, Hold(begin, end, why)), key=lambda h: h.from_day)
            return replace(work, holds=tuple(holds))
        case DropHold():
            return replace(work, holds=without_at(work.holds, edit.at, "days held"))


def _with_field(job: Job, work: WorkPlan, edit: SetWorkField) -> WorkPlan:
    typed = edit.typed.strip()
    match edit.field:
        case WorkField.BEGINS:
            return replace(work, begins=_day(job, typed, "Begins") if typed else None)
        case WorkField.PEOPLE:
            people = _count(typed or "2", "People", "how many, such as 2")
            return replace(work, people=people)
        case WorkField.HOURS_A_DAY:
            return replace(
                work, hours_a_day=parse_number(typed or "7", "Hours a day", "hours such as 7")
            )
        case WorkField.SATURDAYS:
            return replace(work, saturdays=bool(typed))


def _of_step(job: Job, edit: SetStepField) -> date | int | None:
    typed = edit.typed.strip()
    if not typed:
        return None
    if edit.field is StepField.DAYS:
        return _count(typed, "Working days", "days such as 3")
    name = "Not before" if edit.field is StepField.NOT_BEFORE else "Done on"
    return _day(job, typed, name)


def _count(typed: str, name: str, expected: str) -> int:
    return whole(parse_number(typed, name, expected), name, typed, expected)


def _day(job: Job, typed: str, name: str) -> date:
    return parse_day(typed, name, month_first=month_first(job))
