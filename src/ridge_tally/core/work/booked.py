"""Steps of work booked one after another on working days, round the days that are held."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from ridge_tally.core.job.work import Hold, WorkStep

MONDAY_TO_FRIDAY, TO_SATURDAY = "1111100", "1111110"


@dataclass(frozen=True, slots=True)
class Task:
    """A step to book: working ``days`` long, ``after`` others, outdoors or not.

    ``not_before``: a day it does not begin before; ``done_on``: when it was done, which holds
    whatever the plan says.
    """

    step: WorkStep
    days: int
    after: tuple[WorkStep, ...] = ()
    outdoors: bool = False
    not_before: date | None = None
    done_on: date | None = None


@dataclass(frozen=True, slots=True)
class Booked:
    """A step with its days, the last included; ``held``: working days it lost to holds on the way.

    ``slack``: working days it may slip before what follows slips with it.
    """

    step: WorkStep
    from_day: date
    to_day: date
    held: int
    done: bool
    slack: int = 0


def booked(
    tasks: Sequence[Task], begins: date, holds: Iterable[Hold], *, saturdays: bool
) -> tuple[Booked, ...]:
    """Return steps in the order given, each as early as what it follows lets it.

    Parameters
    ----------
    tasks : sequence of Task
        Each after those it follows.
    holds : iterable of Hold
        Days on which nothing is done outdoors.

    Notes
    -----
    The forward pass of the critical path method; a step of no days is done the day it can be.
    """
    week = TO_SATURDAY if saturdays else MONDAY_TO_FRIDAY
    free = _days(holds)
    found: dict[WorkStep, Booked] = {}
    for task in tasks:
        earliest = max([begins, *(_next(found[s].to_day, week) for s in task.after)])
        earliest = max(earliest, task.not_before or earliest)
        found[task.step] = _placed(task, earliest, week, free)
    return tuple(_with_slack(list(found.values()), tasks, week))


def _placed(task: Task, earliest: date, week: str, free: np.ndarray) -> Booked:
    off = free if task.outdoors else free[:0]
    first = np.busday_offset(earliest, 0, roll="forward", weekmask=week, holidays=off)
    last = np.busday_offset(first, max(task.days - 1, 0), weekmask=week, holidays=off)
    plain = np.busday_offset(
        np.busday_offset(earliest, 0, roll="forward", weekmask=week),
        max(task.days - 1, 0), weekmask=week,
    )  # fmt: skip
    held = int(np.busday_count(plain, last, weekmask=week))
    if task.done_on is None:
        return Booked(task.step, _day(first), _day(last), held, done=False)
    begun = np.busday_offset(
        task.done_on, -max(task.days - 1, 0), roll="backward", weekmask=week, holidays=off
    )
    return Booked(task.step, min(_day(begun), task.done_on), task.done_on, 0, done=True)


def _with_slack(found: list[Booked], tasks: Sequence[Task], week: str) -> Iterable[Booked]:
    """Yield steps with the working days between their end and what follows first."""
    by = {b.step: b for b in found}
    for one in found:
        following = [by[t.step].from_day for t in tasks if one.step in t.after]
        if not following or one.done:
            yield one
            continue
        apart = int(np.busday_count(_next(one.to_day, week), min(following), weekmask=week))
        yield Booked(one.step, one.from_day, one.to_day, one.held, one.done, max(0, apart))


def _next(day: date, week: str) -> date:
    return _day(np.busday_offset(np.datetime64(day) + 1, 0, roll="forward", weekmask=week))


def _days(holds: Iterable[Hold]) -> np.ndarray:
    runs = [np.arange(np.datetime64(h.from_day), np.datetime64(h.to_day) + 1) for h in holds]
    return np.concatenate(runs) if runs else np.array([], dtype="datetime64[D]")


def _day(day: np.datetime64) -> date:
    found = day.astype(object)
    assert isinstance(found, date)
    return found
