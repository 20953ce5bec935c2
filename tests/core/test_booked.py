"""Days of work: schedules worked by hand on the calendar of December 2026, and what holds of any."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.job.work import Hold, WorkStep
from ridge_tally.core.work.booked import Booked, Task, booked

A, B, C = WorkStep.SURVEY, WorkStep.DRAWN, WorkStep.ROOF
# 1 December 2026 is a Tuesday.
TUESDAY = date(2026, 12, 1)


def day(n: int) -> date:
    return date(2026, 12, n)


def of(found: tuple[Booked, ...], step: WorkStep) -> tuple[int, int]:
    one = next(b for b in found if b.step is step)
    return (one.from_day - TUESDAY).days + 1, (one.to_day - TUESDAY).days + 1


@pytest.mark.parametrize(
    ("tasks", "holds", "saturdays", "days"),
    [
        # One day, then four: Wednesday to the Monday after.
        ((Task(A, 1), Task(B, 4, (A,))), (), False, {A: (1, 1), B: (2, 7)}),
        # Saturdays are worked: two to five.
        ((Task(A, 1), Task(B, 4, (A,))), (), True, {A: (1, 1), B: (2, 5)}),
        # The roof waits for two days of wind; the desk does not.
        ((Task(C, 3, outdoors=True), Task(B, 3)), (Hold(day(2), day(3), "wind"),), False, {C: (1, 7), B: (1, 3)}),
        # A hold over the weekend costs one working day only.
        ((Task(C, 4, outdoors=True),), (Hold(day(4), day(6), "rain"),), False, {C: (1, 7)}),
        # Begins on a held day: the day after; the hold's last day is held, the next is not.
        ((Task(C, 1, outdoors=True),), (Hold(day(1), day(1), "ice"),), False, {C: (2, 2)}),
        # Not before a Saturday is the Monday.
        ((Task(A, 1, not_before=day(5)),), (), False, {A: (7, 7)}),
        # Done later than planned: what follows begins after that.
        ((Task(A, 1, done_on=day(10)), Task(B, 1, (A,))), (), False, {A: (10, 10), B: (11, 11)}),
        # No working day at all: a milestone, on the day it can be.
        ((Task(A, 1), Task(B, 0, (A,))), (), False, {A: (1, 1), B: (2, 2)}),
    ],
)  # fmt: skip
def test_schedules_worked_by_hand(tasks, holds, saturdays, days) -> None:
    found = booked(tasks, TUESDAY, holds, saturdays=saturdays)
    assert {step: of(found, step) for step in days} == days


def test_days_lost_to_holds_and_slack_are_counted() -> None:
    tasks = (
        Task(A, 1), Task(B, 5, (A,)), Task(C, 1, (A,), outdoors=True), Task(WorkStep.ON, 1, (B, C)),
    )  # fmt: skip
    found = booked(tasks, TUESDAY, (Hold(day(2), day(2), "wind"),), saturdays=False)
    # B runs from the 2nd to the 8th; C on the 3rd: it may slip by the 4th, the 7th and the 8th.
    assert [(b.held, b.slack) for b in found] == [(0, 0), (0, 0), (1, 3), (0, 0)]


@given(
    lengths=st.lists(st.integers(0, 12), min_size=2, max_size=6),
    begin=st.dates(date(2026, 1, 1), date(2030, 1, 1)),
    held=st.lists(st.tuples(st.integers(0, 60), st.integers(0, 9)), max_size=4),
    saturdays=st.booleans(),
)
def test_nothing_begins_before_what_it_waits_for_or_on_a_day_off(
    lengths, begin, held, saturdays
) -> None:
    steps = list(WorkStep)[: len(lengths)]
    holds = [Hold(begin + timedelta(a), begin + timedelta(a + b), "wind") for a, b in held]
    tasks = [
        Task(s, n, (steps[k - 1],) if k else (), outdoors=True)
        for k, (s, n) in enumerate(zip(steps, lengths, strict=True))
    ]
    found = booked(tasks, begin, holds, saturdays=saturdays)
    off = {
        h.from_day + timedelta(n) for h in holds for n in range((h.to_day - h.from_day).days + 1)
    }
    last = begin - timedelta(1)
    for one, length in zip(found, lengths, strict=True):
        assert one.from_day > last
        span = [one.from_day + timedelta(n) for n in range((one.to_day - one.from_day).days + 1)]
        worked = [d for d in span if d.weekday() < (6 if saturdays else 5) and d not in off]
        assert len(worked) == max(length, 1)
        assert one.from_day == worked[0]
        assert one.to_day == worked[-1]
        last = one.to_day
