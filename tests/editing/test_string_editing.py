"""Strings by hand: threaded, cut, joined, moved, locked; the rest planned around them."""

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotFound, OutOfRange
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.any_edit import StringEdit
from ridge_tally.core.job.edits.array.modules import RemoveModules
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.edits.strings.threading import (
    CutString,
    JoinStrings,
    LockString,
    MoveString,
    PlanAnew,
    PlannedString,
    ReverseString,
    ThreadString,
    UsePlan,
)
from ridge_tally.core.job.option import ModuleString
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.formats.job_file import read_job, write_job

IDS = present_ids(option_a(SAMPLE))


def edited(*steps: StringEdit, job: Job = SAMPLE) -> tuple[ModuleString, ...]:
    return option_a(apply_edits(job, steps, SHELF)).strings


def told(found: tuple[ModuleString, ...]) -> list[tuple[str, int, int, bool]]:
    return [(s.tag, s.tracker_number, len(s.module_ids), s.locked) for s in found]


def wired(found: tuple[ModuleString, ...]) -> set[str]:
    return {m for s in found for m in s.module_ids}


def test_modules_threaded_by_hand_keep_their_order_and_the_rest_is_planned_around_them() -> None:
    mine = IDS[5:0:-1] + IDS[10:13]
    found = edited(ThreadString("a", 2, mine))
    by_hand = next(s for s in found if s.module_ids == mine)
    assert (by_hand.tracker_number, by_hand.locked) == (2, True)
    # What stood on that tracker stays there; the rest is planned for the other, none twice.
    assert {s.tracker_number for s in found if not s.locked} == {1}
    assert sum(len(s.module_ids) for s in found) == len(wired(found))


def test_a_module_leaves_the_string_it_was_in() -> None:
    first = option_a(SAMPLE).strings[0]
    found = edited(
        LockString("a", "A", True),
        LockString("a", "B", True),
        ThreadString("a", 2, first.module_ids[:3]),
    )
    assert told(found) == [("A", 1, 11, True), ("B", 2, 14, True), ("C", 2, 3, True)]


def test_cut_and_joined_again_a_string_is_as_it_was() -> None:
    whole = option_a(SAMPLE).strings[0]
    cut = edited(CutString("a", "A", whole.module_ids[9]))
    assert [len(s.module_ids) for s in cut if s.locked] == [9, 5]
    tags = [s.tag for s in cut if s.locked]
    joined = edited(CutString("a", "A", whole.module_ids[9]), JoinStrings("a", *tags))
    assert joined[0].module_ids == whole.module_ids
    turned = edited(ReverseString("a", "A"))
    assert turned[0].module_ids == whole.module_ids[::-1]


def test_moved_to_a_tracker_both_strings_stay_there() -> None:
    found = edited(MoveString("a", "A", 2))
    assert told(found) == [("A", 2, 14, True), ("B", 2, 14, True)]
    # Planned anew it is as the planner has it.
    assert edited(MoveString("a", "A", 2), PlanAnew("a")) == option_a(SAMPLE).strings


def test_a_plan_is_used_as_it_stands_and_survives_the_job_file() -> None:
    shares = ((1, IDS[:10]), (1, IDS[10:20]), (2, IDS[20:]))
    plan = UsePlan("a", tuple(PlannedString(*s) for s in shares))
    job = apply_edit(SAMPLE, plan, SHELF)
    assert told(option_a(job).strings) == [
        ("A", 1, 10, True), ("B", 1, 10, True), ("C", 2, 8, True),
    ]  # fmt: skip
    assert read_job(write_job(job)) == job


def test_a_locked_string_loses_a_module_that_is_taken_off_and_goes_with_its_tracker() -> None:
    locked = apply_edit(FULL, LockString("a", "A", True), SHELF)
    gone = option_a(locked).strings[0].module_ids[0]
    fewer = apply_edit(locked, RemoveModules("a", (gone,)), SHELF)
    assert len(option_a(fewer).strings[0].module_ids) == 13
    on_two = apply_edit(FULL, LockString("a", "B", True), SHELF)
    one = apply_edit(on_two, ChooseInverter("a", "sample-i3"), SHELF)
    assert {s.tracker_number for s in option_a(one).strings} == {1}


@pytest.mark.parametrize(
    ("edit", "error", "match"),
    [
        (ThreadString("a", 1, ()), MissingDatum, "wiring order"),
        (ThreadString("a", 1, ("south-99",)), NotFound, "south-99"),
        (ThreadString("a", 1, (IDS[0], IDS[0])), BadGeometry, "twice"),
        (ThreadString("a", 7, (IDS[0],)), OutOfRange, "between 1 and 2"),
        (MoveString("a", "Q", 1), NotFound, "Q"),
        (CutString("a", "A", option_a(SAMPLE).strings[0].module_ids[0]), BadGeometry, "later"),
        (CutString("a", "A", option_a(SAMPLE).strings[1].module_ids[0]), NotFound, "string A"),
        (JoinStrings("a", "A", "A"), BadGeometry, "follow itself"),
        (
            UsePlan("a", (PlannedString(1, (IDS[0], "south-99")),)),
            BadGeometry,
            "the array has changed",
        ),
    ],
)  # fmt: skip
def test_what_cannot_be_wired_is_refused_by_name_and_nothing_changes(edit, error, match) -> None:
    with pytest.raises(error, match=match):
        apply_edit(SAMPLE, edit, SHELF)
