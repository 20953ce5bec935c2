"""Rails from sticks: re-checked by code of its own, and against a solver where the case is small."""

from itertools import pairwise, product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from ridge_tally.core.build.racking.cutting import (
    CutLine,
    CutPlan,
    CutRules,
    NoCut,
    Stock,
    cut_plans,
)

FREE = CutRules(kerf=0, least_piece=1, splice_frac=0.5, clear=0, least_mounts=0)


def best(lines: list[CutLine], stock: list[Stock], rules: CutRules) -> CutPlan:
    *_, plan = cut_plans(lines, stock, rules)
    assert isinstance(plan, CutPlan)
    return plan


def require_legal(plan: CutPlan, lines: list[CutLine], stock: list[Stock], rules: CutRules) -> None:
    """Every stick and every splice by the rules, from the pieces alone."""
    lengths = {s.length for s in stock}
    pieces: dict[int, list[tuple[int, int, int]]] = {}
    for number, stick in enumerate(plan.sticks):
        assert stick.length in lengths
        sizes = [p.length for p in stick.pieces]
        assert sum(sizes) + rules.kerf * (len(sizes) - 1) <= stick.length
        for p in stick.pieces:
            pieces.setdefault(p.line, []).append((p.start, p.start + p.length, number))
            if not rules.reuse:
                assert {q.line for q in stick.pieces} == {p.line}
    assert sorted(pieces) == list(range(len(lines)))
    for n, line in enumerate(lines):
        mine = sorted(pieces[n])
        assert mine[0][0] == 0
        assert mine[-1][1] == line.length
        assert all(a[1] == b[0] for a, b in pairwise(mine))
        if len(mine) > 1:
            for start, end, _ in mine:
                assert end - start >= rules.least_piece
                assert sum(start < m < end for m in line.mounts) >= rules.least_mounts
        spans = []
        for _, cut, _ in mine[:-1]:
            span = next(k for k, (a, b) in enumerate(pairwise(line.mounts)) if a < cut < b)
            a, b = line.mounts[span], line.mounts[span + 1]
            assert min(cut - a, b - cut) <= rules.splice_frac * (b - a)
            assert min(cut - a, b - cut) >= rules.clear
            spans.append(span)
        assert len(set(spans)) == len(spans)
    bought = {s.length: s.cost or 0 for s in stock}
    assert plan.cost == sum(bought[s.length] for s in plan.sticks if s.bought)
    assert plan.splices == sum(len(p) - 1 for p in pieces.values())


def even(length: int, first: int, step: int) -> CutLine:
    return CutLine(length, tuple(range(first, length, step)))


def least_sticks_by_solver(lengths: list[int], stick: int, kerf: int) -> int:
    """Return the fewest sticks for lines that are cut whole: bins, by HiGHS."""
    n = len(lengths)
    size = n * n + n
    rows, low, high = [], [], []
    for i in range(n):
        line = np.zeros(size)
        line[[i * n + b for b in range(n)]] = 1
        rows.append(line)
        low.append(1)
        high.append(1)
    for b in range(n):
        line = np.zeros(size)
        for i, length in enumerate(lengths):
            line[i * n + b] = length + kerf
        line[n * n + b] = -(stick + kerf)
        rows.append(line)
        low.append(-np.inf)
        high.append(0)
    cost = np.concatenate([np.zeros(n * n), np.ones(n)])
    found = milp(
        cost,
        constraints=LinearConstraint(np.array(rows), low, high),
        integrality=np.ones(size),
        bounds=Bounds(0, 1),
    )
    return round(found.fun)


@settings(max_examples=30, deadline=None)
@given(st.lists(st.integers(300, 3900), min_size=2, max_size=6), st.sampled_from([0, 3, 30]))
def test_whole_lines_take_as_few_sticks_as_the_solver_finds(lengths: list[int], kerf: int) -> None:
    # No span to splice in: each line is one piece.
    lines = [CutLine(length, (length // 2,)) for length in lengths]
    rules = CutRules(kerf, 1, 0.5, 0, 0)
    plan = best(lines, [Stock(4000, 10)], rules)
    require_legal(plan, lines, [Stock(4000, 10)], rules)
    assert len(plan.sticks) == least_sticks_by_solver(lengths, 4000, kerf)


@settings(max_examples=40, deadline=None)
@given(
    st.lists(
        st.tuples(st.integers(1500, 11_000), st.integers(50, 400), st.sampled_from([800, 1100])),
        min_size=1,
        max_size=6,
    ),
    st.sampled_from([(4267,), (3300, 4200), (3300, 4200, 5500)]),
    st.sampled_from([0.25, 1 / 3, 0.5]),
    st.sampled_from([1, 2]),
    st.booleans(),
)
def test_every_plan_keeps_every_rule(
    drawn: list[tuple[int, int, int]],
    sold: tuple[int, ...],
    frac: float,
    on_each: int,
    reuse: bool,
) -> None:
    lines = [even(length, first, step) for length, first, step in drawn]
    stock = [Stock(length, length // 100, at_hand=k % 2) for k, length in enumerate(sold)]
    rules = CutRules(3, 600, frac, 80, on_each, reuse)
    bounds = set()
    for plan in cut_plans(lines, stock, rules, tries=90):
        if isinstance(plan, CutPlan):
            require_legal(plan, lines, stock, rules)
            assert plan.cost >= plan.bound
            bounds.add(plan.bound)
    assert len(bounds) <= 1


def test_two_lines_of_a_stick_and_a_half_take_three_sticks_and_four_under_the_rules() -> None:
    # By hand: 3 sticks hold 2 × 1.5; where splices may not be in the middle half of a span, or
    # offcuts serve only their own line, the fourth is needed.
    lines = [even(6000, 500, 1250), even(6000, 500, 1250)]
    stock = [Stock(4000, 1)]
    assert len(best(lines, stock, FREE).sticks) == 3
    own = CutRules(0, 1, 0.5, 0, 0, reuse=False)
    assert len(best(lines, stock, own).sticks) == 4
    plan = best(lines, stock, FREE)
    assert plan.proven
    assert plan.least_sticks == 3


def test_of_several_lengths_the_cheapest_set_is_found() -> None:
    lines = [
        CutLine(2900, (200, 1000, 1900, 2700)),
        CutLine(2900, (200, 1000, 1900, 2700)),
        CutLine(4900, (300, 1400, 2500, 3600, 4600)),
    ]
    stock = [Stock(4200, 10), Stock(3300, 8)]
    rules = CutRules(3, 600, 0.33, 100, 1)
    plan = best(lines, stock, rules)
    require_legal(plan, lines, stock, rules)
    # Every set of sticks as long as the lines, counted out.
    sets = [
        10 * a + 8 * b
        for a, b in product(range(4), range(5))
        if 4200 * a + 3300 * b >= sum(line.length for line in lines)
    ]
    assert plan.cost == plan.bound == min(sets) == 26
    assert plan.splices == 2


def test_offcuts_at_hand_are_used_before_sticks_are_bought() -> None:
    lines = [even(2000, 200, 800), even(3500, 200, 800)]
    stock = [Stock(4267, 10), Stock(2100, None, at_hand=1)]
    plan = best(lines, stock, FREE)
    assert [s.length for s in plan.sticks if not s.bought] == [2100]
    assert plan.cost == 10


@pytest.mark.parametrize(("kerf", "sticks"), [(0, 1), (3, 1), (4, 2)])
def test_the_saw_takes_its_width_of_every_cut(kerf: int, sticks: int) -> None:
    lines = [CutLine(1000, (500,)), CutLine(2997, (1500,))]
    assert len(best(lines, [Stock(4000, 1)], CutRules(kerf, 1, 0.5, 0, 0)).sticks) == sticks


@pytest.mark.parametrize(("least", "made"), [(599, True), (600, True), (601, False)])
def test_the_least_piece_at_its_limit(least: int, made: bool) -> None:
    # The only place for a splice is at 4000: it leaves a piece of 600.
    line = CutLine(4600, (3950, 4050))
    *_, plan = cut_plans([line], [Stock(4000, 1)], CutRules(0, least, 0.5, 50, 0))
    assert isinstance(plan, CutPlan) is made


def test_a_rail_of_one_piece_is_never_spliced() -> None:
    lines = [CutLine(3000, (500, 2500), whole=True) for _ in range(3)]
    plan = best(lines, [Stock(4000, 1)], FREE)
    assert (len(plan.sticks), plan.splices) == (3, 0)
    *_, none = cut_plans([CutLine(4500, (500, 2500), whole=True)], [Stock(4000, 1)], FREE)
    assert none == NoCut(0, 4000)


@pytest.mark.parametrize(("splice", "sticks", "splices"), [(0, 2, 1), (60, 2, 1), (101, 3, 0)])
def test_a_splice_is_weighed_against_a_stick(splice: int, sticks: int, splices: int) -> None:
    # Three of 2600 from 4000: two sticks and a splice, or three sticks at 100 each.
    lines = [even(2600, 300, 500) for _ in range(3)]
    rules = CutRules(0, 1, 0.5, 0, 0, splice_cost=splice)
    plan = best(lines, [Stock(4000, 100)], rules)
    assert (len(plan.sticks), plan.splices) == (sticks, splices)
    assert plan.cost == sticks * 100 + splices * splice


def test_a_line_nobody_can_make_says_how_far_a_piece_reaches() -> None:
    line = CutLine(9000, (4400, 4600))
    *_, plan = cut_plans([line], [Stock(4000, 1)], CutRules(0, 600, 0.5, 0, 0))
    assert plan == NoCut(0, 4000)
