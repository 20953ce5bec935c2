"""Mounts under rails: held by a solver of its own and by a checker that shares no code.

The solver is HiGHS by way of scipy: a flow of mounts along each rail, with a variable for each
support two rails may share.
"""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from ridge_tally.core.build.racking.mounts import (
    MountPlan,
    NoPlan,
    RailLine,
    SpanZone,
    plan_mounts,
)
from ridge_tally.core.job.racking import MountAim

INCH_M = 0.0254


def rail(
    length: float,
    supports: list[float],
    span: float,
    bare: float,
    *,
    frac: float | None = None,
    pinned: tuple[int, ...] = (),
) -> RailLine:
    zones = (SpanZone(0.0, length, span),)
    return RailLine(length, tuple(supports), zones, bare, frac, 2, frozenset(pinned))


def every(first: float, step: float, length: float) -> list[float]:
    return [first + step * n for n in range(int((length - first) / step + 1e-9) + 1)]


def holds(line: RailLine, at: tuple[int, ...]) -> bool:
    """The rules in words: enough mounts, in order, no span and no bare end past its limit."""
    x = [line.supports_m[i] for i in at]
    ends = (x[0], line.length_m - x[-1])
    spans = [b - a for a, b in pairwise(x)]
    ok = len(x) >= line.least_mounts and all(s > 0 for s in spans)
    ok = ok and all(e <= line.cantilever_m + 1e-6 for e in ends)
    if line.cantilever_frac is not None:
        beside = (spans[0], spans[-1])
        ok = ok and all(
            e <= line.cantilever_frac * s + 1e-6 for e, s in zip(ends, beside, strict=True)
        )
    for a, b in pairwise(x):
        for zone in line.zones:
            if a < zone.to_m - 1e-6 and b > zone.from_m + 1e-6:
                ok = ok and b - a <= zone.limit_m + 1e-6
    return ok and line.pinned <= set(at)


def least_by_solver(rails: list[RailLine]) -> tuple[int, int] | None:
    """Return the fewest mounts, then the fewest supports neighbours share; supports alike for all."""
    arcs: list[tuple[int, int, int]] = []
    for r, line in enumerate(rails):
        x = line.supports_m
        n = len(x)
        arcs += [(r, -1, i) for i in range(n) if x[i] <= line.cantilever_m + 1e-6]
        arcs += [(r, i, n) for i in range(n) if line.length_m - x[i] <= line.cantilever_m + 1e-6]
        arcs += [
            (r, i, j)
            for i in range(n)
            for j in range(i + 1, n)
            if x[j] - x[i] <= line.zones[0].limit_m + 1e-6
        ]
    shares = [(r, i) for r in range(len(rails) - 1) for i in range(len(rails[0].supports_m))]
    size = len(arcs) + len(shares)
    rows, low, high = [], [], []

    def row(terms: dict[int, float], least: float, most: float) -> None:
        line = np.zeros(size)
        for k, value in terms.items():
            line[k] = value
        rows.append(line)
        low.append(least)
        high.append(most)

    def into(r: int, i: int) -> list[int]:
        return [k for k, a in enumerate(arcs) if a[0] == r and a[2] == i]

    for r, line in enumerate(rails):
        n = len(line.supports_m)
        row({k: 1.0 for k, a in enumerate(arcs) if a[:2] == (r, -1)}, 1, 1)
        for i in range(n):
            terms = dict.fromkeys(into(r, i), 1.0)
            terms |= {k: -1.0 for k, a in enumerate(arcs) if a[0] == r and a[1] == i}
            row(terms, 0, 0)
        row({k: 1.0 for k, a in enumerate(arcs) if a[0] == r and 0 <= a[2] < n}, 2, n)
    for s, (r, i) in enumerate(shares):
        terms = dict.fromkeys([*into(r, i), *into(r + 1, i)], 1.0)
        row(terms | {len(arcs) + s: -1.0}, -np.inf, 1)
    mounts = np.array(
        [float(a[2] < len(rails[a[0]].supports_m)) for a in arcs] + [0.0] * len(shares)
    )
    shared = np.array([0.0] * len(arcs) + [1.0] * len(shares))
    found = milp(
        mounts * 100 + shared,
        constraints=LinearConstraint(np.array(rows), low, high),
        integrality=np.ones(size),
        bounds=Bounds(0, 1),
        options={"mip_rel_gap": 0.0},
    )
    if not found.success:
        return None
    return round(mounts @ found.x), round(shared @ found.x)


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.integers(0, 59), min_size=6, max_size=20, unique=True).map(sorted),
    st.lists(st.integers(0, 59), min_size=6, max_size=20, unique=True).map(sorted),
    st.sampled_from([8, 12, 17]),
    st.sampled_from([4, 7]),
)
def test_each_rail_has_as_few_as_the_solver_finds(
    first: list[int], second: list[int], span: int, bare: int
) -> None:
    rails = [rail(60, [float(x) for x in s], span, bare) for s in (first, second)]
    plan = plan_mounts(rails)
    # Each rail on supports of its own: the solver is asked for each by itself.
    wanted = [least_by_solver([one]) for one in rails]
    if None in wanted:
        assert isinstance(plan, NoPlan)
        return
    assert isinstance(plan, MountPlan)
    assert [len(r) for r in plan.rails] == [w[0] for w in wanted if w]
    assert all(holds(line, at) for line, at in zip(rails, plan.rails, strict=True))


@pytest.mark.parametrize("missing", [(), (5,), (3, 9), (0, 7), (11,)])
@pytest.mark.parametrize(("step", "span"), [(24, 48), (16, 48), (24, 72), (19.2, 48)])
@pytest.mark.parametrize("rails", [2, 3])
def test_neighbours_share_no_more_than_the_solver_says(
    missing: tuple[int, ...], step: float, span: float, rails: int
) -> None:
    along = [x for n, x in enumerate(every(7, step, 250)) if n not in missing]
    lines = [rail(250, along, span, 30) for _ in range(rails)]
    plan, wanted = plan_mounts(lines), least_by_solver(lines)
    if wanted is None:
        assert isinstance(plan, NoPlan)
        return
    assert isinstance(plan, MountPlan)
    assert plan.proven
    assert (sum(len(r) for r in plan.rails), plan.shared) == wanted
    assert all(holds(line, at) for line, at in zip(lines, plan.rails, strict=True))


@pytest.mark.parametrize(
    ("span", "count"),
    [(47.99, None), (48.0, 6), (48.01, 6)],
)
def test_a_span_at_its_limit_is_kept(span: float, count: int | None) -> None:
    # Rafters 48 apart: every one is needed, and a hair less than 48 carries none.
    plan = plan_mounts([rail(260, every(10, 48, 260), span, 24)])
    assert count == (len(plan.rails[0]) if isinstance(plan, MountPlan) else None)


@pytest.mark.parametrize(("bare", "kept"), [(9.9, False), (10.0, True), (10.1, True)])
def test_a_bare_end_at_its_limit_is_kept(bare: float, kept: bool) -> None:
    plan = plan_mounts([rail(116, every(10, 48, 116), 48, bare)])
    assert isinstance(plan, MountPlan) is kept
    if isinstance(plan, NoPlan):
        assert [(e.end, e.nearest_m) for e in plan.ends] == [("left", 10.0), ("right", 10.0)]


def test_the_stricter_bare_end_goes_by_the_span_beside_it() -> None:
    # 16 bare is a third of 48, and more than a third of the 40 to the next support.
    at = [16.0, 56.0, 96.0, 136.0]
    assert isinstance(plan_mounts([rail(152, at, 48, 16)]), MountPlan)
    assert isinstance(plan_mounts([rail(152, at, 48, 16, frac=1 / 3)]), NoPlan)
    assert isinstance(plan_mounts([rail(152, at, 48, 16, frac=0.4)]), MountPlan)


def test_a_hole_is_named_and_one_nobody_needs_is_not() -> None:
    at = [6.0, 30.0, 54.0, 130.0, 154.0, 190.0]
    plan = plan_mounts([rail(200, at, 48, 12)])
    assert isinstance(plan, NoPlan)
    assert [(h.from_m, h.to_m, h.limit_m) for h in plan.holes] == [(54.0, 130.0, 48.0)]
    # 2 to 60 is wide, but the rail may begin at 60.
    assert isinstance(plan_mounts([rail(150, [2.0, 60.0, 100.0], 48, 60)]), MountPlan)


def test_a_zone_counts_for_every_span_it_touches() -> None:
    line = RailLine(
        5.2,
        tuple(every(0.15, 0.6, 5.2)),
        (SpanZone(0.0, 1.2, 0.9), SpanZone(1.2, 5.2, 1.3)),
        0.42,
    )
    plan = plan_mounts([line])
    assert isinstance(plan, MountPlan)
    # By hand: 150 to 750 and 750 to 1350 stay under 900; then every second rafter.
    assert len(plan.rails[0]) == 6
    assert holds(line, plan.rails[0])


def test_a_pinned_mount_stays_and_the_rest_is_solved_round_it() -> None:
    along = every(7, 24, 250)
    plan = plan_mounts([rail(250, along, 72, 36, pinned=(2,)), rail(250, along, 72, 36)])
    assert isinstance(plan, MountPlan)
    assert 2 in plan.rails[0]
    assert 2 not in plan.rails[1]


def test_best_spread_takes_a_mount_more_where_that_keeps_neighbours_apart() -> None:
    # One rafter out of step: the fewest share; with a mount more a rail they need not.
    along = [x for n, x in enumerate(every(7, 24, 250)) if n != 4]
    lines = [rail(250, along, 72, 36) for _ in range(2)]
    fewest, spread = plan_mounts(lines), plan_mounts(lines, MountAim.SPREAD)
    assert isinstance(fewest, MountPlan)
    assert isinstance(spread, MountPlan)
    assert spread.shared < fewest.shared
    assert sum(map(len, spread.rails)) > sum(map(len, fewest.rails))
    assert all(holds(line, at) for line, at in zip(lines, spread.rails, strict=True))


def test_many_ways_are_laid_one_after_another_and_say_so() -> None:
    along = every(0.1, 0.3, 30.0)
    lines = [rail(30.0, along, 1.35, 0.5) for _ in range(4)]
    plan = plan_mounts(lines)
    assert isinstance(plan, MountPlan)
    assert not plan.proven
    assert all(holds(line, at) for line, at in zip(lines, plan.rails, strict=True))
