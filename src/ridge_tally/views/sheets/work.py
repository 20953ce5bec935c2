"""The plan of work as it is shown: a row a step, the days held, what is amiss; and as calendar days."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.work import Hold, WorkStep
from ridge_tally.formats.calendar_file import CalendarDay
from ridge_tally.rules.design import Design
from ridge_tally.rules.sheets.packet import bought_early
from ridge_tally.rules.sheets.work import OUTDOORS, TITLES, StepPlanned, work_planned
from ridge_tally.studies.array.seasonal_tilt import tilt_days


@dataclass(frozen=True, slots=True)
class StepRow:
    """A step with its days; ``told``: where its length comes from; ``slack`` in working days.

    ``outdoors``: days that are held put it off; ``held``: by how many they did.
    """

    step: WorkStep
    title: str
    from_day: date
    to_day: date
    days: int
    told: str
    outdoors: bool
    held: int
    done: bool
    slack: int
    amiss: str


@dataclass(frozen=True, slots=True)
class WorkView:
    """``begins``: the first day, today where nobody said when; ``ends``: the day it is switched on."""

    rows: tuple[StepRow, ...]
    begins: date
    begins_typed: bool
    ends: date
    holds: tuple[Hold, ...]
    amiss: tuple[str, ...]


def work_view(design: Design, today: date) -> WorkView:
    """Return the plan of work of an option."""
    steps = work_planned(design, today)
    paper = design.job.paperwork
    early = bought_early(paper)
    return WorkView(
        rows=tuple(_row(s) for s in steps),
        begins=min(s.booked.from_day for s in steps),
        begins_typed=paper.work.begins is not None,
        ends=steps[-1].booked.to_day,
        holds=paper.work.holds,
        amiss=(early,) if early else (),
    )


def _row(planned: StepPlanned) -> StepRow:
    one = planned.booked
    return StepRow(
        one.step, TITLES[one.step], one.from_day, one.to_day, planned.task.days, planned.told,
        one.step in OUTDOORS, one.held, one.done, one.slack, planned.amiss,
    )  # fmt: skip


def work_days(design: Design, view: WorkView, job_id: str) -> Iterator[CalendarDay]:
    """Yield the days of a job for a calendar: its steps, its holds, its changes of tilt each year."""
    for row in view.rows:
        words = f"{design.job.name}: {row.title.lower()}{' (done)' if row.done else ''}"
        yield CalendarDay(f"{job_id}-{row.step.value}", words, row.told, row.from_day, row.to_day)
    for hold in view.holds:
        yield CalendarDay(
            f"{job_id}-hold-{hold.from_day.isoformat()}", f"{design.job.name}: held, {hold.why}",
            "Nothing is done outdoors.", hold.from_day, hold.to_day,
        )  # fmt: skip
    for laid in design.arrays:
        if laid.array.table is not None and laid.array.table.seasons:
            try:
                found = tilt_days(design, laid.plane.id)
            except RidgeTallyError:
                # A roof that still bears a table's seasons has none of its own.
                continue
            for day in found:
                yield CalendarDay(
                    f"{job_id}-{day.id}", day.words, day.told, day.from_day, day.to_day, yearly=True
                )
