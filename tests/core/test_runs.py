"""Leads and home runs: lengths by hand, and threads that hold every module once."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jobs import FULL, SHELF, option_a
from ridge_tally.core.errors import BadGeometry, NotFound
from ridge_tally.core.job.array import Orientation, PlacedModule
from ridge_tally.core.job.edits.strings.wiring import PlaceBox, RemoveBox
from ridge_tally.core.job.system import system_of
from ridge_tally.core.job.wiring import JunctionBox
from ridge_tally.core.strings.runs import Spot, home_runs, spots_of, steps_m
from ridge_tally.core.strings.thread import Routing, leapfrogged, shared_out
from ridge_tally.core.working import Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.report import all_checks
from ridge_tally.views.option import option_report

ROW = {str(n): Spot("south", 1.2 * n, 2.0) for n in range(6)}


def test_steps_and_home_runs_by_hand() -> None:
    assert steps_m(list("012"), ROW) == pytest.approx([1.2, 1.2])
    assert steps_m(list("053"), ROW) == pytest.approx([6.0, 2.4])
    boxes = (JunctionBox("near", "south", 7.0, 0.5), JunctionBox("far", "south", 40.0, 0.5))
    runs = home_runs([("A", list("012345"))], ROW, boxes)
    # From 0 m: 7 + 1.5; from 6 m: 1 + 1.5; along rails and down, to the nearer box.
    assert [(r.positive, r.box_id, r.length_m) for r in runs] == [
        (True, "near", pytest.approx(8.5)), (False, "near", pytest.approx(2.5)),
    ]  # fmt: skip
    over = {**ROW, "x": Spot("north", 0.0, 0.0)}
    assert steps_m(["0", "x"], over) == [None]
    assert home_runs([("A", ["x"])], over, boxes) == ()


def test_leapt_both_ends_lie_side_by_side() -> None:
    assert leapfrogged(tuple("012345")) == tuple("024531")
    assert leapfrogged(tuple("01234")) == tuple("02431")
    boxes = (JunctionBox("b", "south", 0.0, 0.5),)
    straight, leapt = (
        sum(r.length_m for r in home_runs([("A", ids)], ROW, boxes))
        for ids in (tuple("012345"), leapfrogged(tuple("012345")))
    )
    # 1.5 + 7.5 m, and 1.5 + 2.7 m.
    assert (straight, leapt) == (pytest.approx(9.0), pytest.approx(4.2))


@given(
    st.integers(1, 40).flatmap(
        lambda n: st.tuples(
            st.just(n), st.lists(st.integers(1, n), max_size=4), st.sampled_from(Routing)
        )
    ),
    st.randoms(use_true_random=False),
)
def test_however_shared_out_no_module_is_in_two_strings(asked, random) -> None:
    count, lengths, weave = asked
    modules = [
        PlacedModule(str(n), 1.1 * (n % 7), 1.8 * (n // 7), Orientation.PORTRAIT, present=True)
        for n in range(count)
    ]
    light = {m.id: random.random() for m in modules}
    lengths = [x for i, x in enumerate(lengths) if sum(lengths[: i + 1]) <= count]
    strings = shared_out(modules, lengths, weave, light)
    assert [len(s) for s in strings] == lengths
    taken = [m for s in strings for m in s]
    assert len(set(taken)) == len(taken)
    for string in strings:
        assert sorted(leapfrogged(string)) == sorted(string)
    if weave is Routing.LIGHT and len(strings) > 1:
        assert min(light[m] for m in strings[0]) >= max(light[m] for m in strings[1])


def test_the_sample_s_box_counts_its_conductors_and_measures_its_cable() -> None:
    option = option_a(FULL)
    (view,) = option_report(design_for(FULL, option)).boxes
    assert [f"{r.tag}{'+' if r.positive else '-'}" for r in view.runs] == ["A+", "A-", "B+", "B-"]
    # By hand, box at 11.9 m, 0.3 m: A1 at 0.903, 5.116; A14 at 5.519, 2.761; B1 at 4.365, 2.761;
    # B14 at 11.289, 1.013.
    assert view.length_m == pytest.approx(15.81 + 8.84 + 10.00 + 1.32, abs=0.05)
    moved = apply_edit(FULL, PlaceBox("a", "south", 5.0, 3.0, view.box.id), SHELF)
    assert option_report(design_for(moved, option_a(moved))).boxes[0].length_m < view.length_m
    gone = apply_edit(moved, RemoveBox("a", view.box.id), SHELF)
    assert option_a(gone).boxes == ()


def test_boxes_that_cannot_be_are_refused() -> None:
    with pytest.raises(NotFound, match="box9"):
        apply_edit(FULL, RemoveBox("a", "box9"), SHELF)
    with pytest.raises(NotFound, match="moon"):
        apply_edit(FULL, PlaceBox("a", "moon", 0.0, 0.0), SHELF)
    many = replace(
        option_a(FULL), boxes=tuple(JunctionBox(f"b{n}", "south", 0.0, 0.0) for n in range(20))
    )
    with pytest.raises(BadGeometry, match="at most 20"):
        apply_edit(replace(FULL, options=(many,)), PlaceBox("a", "south", 0.0, 0.0), SHELF)


def test_leads_reach_their_neighbours_and_not_over_the_chimney() -> None:
    found = {
        c.subject: c
        for c in all_checks(design_for(FULL, option_a(FULL)))
        if c.rule_id == "strings.leads"
    }
    # Two leads of 1.2 m less 0.2 m for clips reach 2.2 m; over the chimney it is 3.46 m. The job
    # is in feet: 3.462 / 0.3048 = 11.358 and 2.2 / 0.3048 = 7.218.
    assert found["string A"].value.value == pytest.approx(11.358, abs=0.003)
    assert found["string A"].limit.value == pytest.approx(7.218, abs=0.001)
    assert found["string A"].value.unit == found["string A"].limit.unit == "ft"
    assert found["string A"].verdict is Verdict.BROKEN
    assert found["string A"].reached_at == "an extension behind A5, A8"
    assert found["string B"].verdict is Verdict.KEPT
    assert spots_of(system_of(FULL, option_a(FULL)))["south-1"].plane_id == "south"
