"""Plans asked in words: legal, or the first gate in one sentence with its numbers."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jobs import FULL, SHELF, option_a, with_inverter
from ridge_tally.core.equipment import TrackerSheet
from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.strings.plans import PlanLoad
from ridge_tally.demo.juniper_survey import GARAGE_WEST
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.strings.asked_plan import why_not
from ridge_tally.rules.strings.plans import plan_space
from ridge_tally.studies.strings.asked_plan import parsed, plan_verdict, told_plan

TWICE = with_inverter(
    FULL, trackers=tuple(TrackerSheet(120.0, 520.0, 30.0, 40.0, 2) for _ in range(2))
)


def told(typed: str, job: Job = TWICE) -> str:
    return plan_verdict(design_for(job, option_a(job)), typed).told


@pytest.mark.parametrize(
    ("typed", "answer"),
    [
        ("14 on 1, 14 on 2", "Legal: one of 10."),
        ("2 × 7 on 1; 2x7 @ tracker 2", "Legal: one of 10."),
        # By hand: 15 x 37.3 x (1 + 0.0027 x 53) = 639.6 V; 3 x 1.25 x 13.84 = 51.9 A.
        (
            "15 on 1, 13 on 2",
            "15 in series on tracker 1: 640 V on a −28 °C morning, the inverter input limit is 600 V.",
        ),
        (
            "3 × 5 on 1, 13 on 2",
            "3 in parallel on tracker 1: 51.9 A short-circuited (1.25 × Isc each), the input takes "
            "40 A.",
        ),
        (
            "10 on 1, 8 on 1, 10 on 2",
            "Strings of 8 and 10 in parallel on tracker 1: the longer pushes current back through "
            "the shorter; paralleled strings are equally long.",
        ),
        (
            "4 on 1, 12 on 2, 12 on 2",
            "4 in series on tracker 1: 109 V with cells at 61 °C, the tracker needs 120 V.",
        ),
        ("14 on 1, 13 on 2", "It strings 27 of the 28 modules on South roof."),
        ("2 × 14 on 1, 14 on 2", "It wants 42 modules on South roof; there are 28."),
        ("14 on 1, 14 on 3", "There is no tracker 3: the inverter has 2."),
    ],
)
def test_an_answer_in_one_sentence(typed: str, answer: str) -> None:
    assert told(typed) == answer


def test_currents_and_terminals_have_their_own_sentences() -> None:
    weak = with_inverter(
        FULL, trackers=tuple(TrackerSheet(120.0, 520.0, 16.0, 40.0, 2) for _ in range(2))
    )
    assert told("2 × 7 on 1, 14 on 2", weak) == (
        "2 in parallel on tracker 1: 26.0 A at work, the input takes 16 A and clips the rest."
    )
    assert "1 pair(s) of terminals" in told(
        "2 × 7 on 1, 14 on 2",
        with_inverter(FULL, trackers=tuple(replace(t, inputs=1) for t in TWICE_TRACKERS)),
    )
    slow = with_inverter(FULL, v_start_v=480.0)
    assert "opens at 471 V" in told("14 on 1, 14 on 2", slow)


TWICE_TRACKERS = TWICE.equipment.inverters[0].trackers


def test_every_plan_listed_is_answered_as_legal_on_two_planes() -> None:
    job = apply_edit(TWICE, FillPlane("a", GARAGE_WEST, Ways.PORTRAIT), SHELF)
    design = design_for(job, option_a(job))
    space = plan_space(design)
    plans = space.plans()
    assert plans.total > 0
    assert {why_not(design, space, plan) for plan in plans.plans} == {""}


# What people call planes: with commas, colons, figures, one the beginning of another, one twice.
NAMES = st.one_of(
    st.sampled_from(
        [
            "South",
            "South dormer",
            "Roof, north",
            "Barn: east",
            "14 on 1",
            "14 on 1, 14 on 2: low",
            "2",
        ]
    ),
    st.text(min_size=1, max_size=30).map(lambda t: " ".join(t.split())).filter(bool),
)


@settings(max_examples=80)
@given(st.lists(NAMES, min_size=1, max_size=3), st.data())
def test_the_app_s_own_plan_is_understood_whatever_planes_are_called(
    names: list[str], data: st.DataObject
) -> None:
    space = plan_space(design_for(TWICE, option_a(TWICE)))
    part = space.parts[0]
    named = replace(space, parts=tuple(replace(part, name=n) for n in names))
    loads = st.builds(
        PlanLoad, st.integers(1, 4), st.just(0), st.integers(1, 20), st.integers(1, 3)
    )
    plan = tuple(
        replace(load, plane_index=i)
        for i in range(len(names))
        for load in data.draw(st.lists(loads, min_size=1, max_size=3))
    )
    assert parsed(told_plan(plan, named), named) == plan


@pytest.mark.parametrize(
    ("typed", "match"),
    [
        ("", "14 on 1"),
        ("fourteen on one", "14 on 1"),
        ("0 on 1", "14 on 1"),
        ("Moon: 14 on 1", "South roof"),
    ],
)
def test_what_is_no_plan_says_what_one_looks_like(typed: str, match: str) -> None:
    with pytest.raises(NotUnderstood, match=match):
        told(typed)
