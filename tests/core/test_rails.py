"""Rail lines under rows of modules, and clamps counted against the closed forms of the trade."""

from dataclasses import replace
from itertools import pairwise

import pytest

from ridge_tally.core.build.racking.hardware import clamps_of, spares_of
from ridge_tally.core.build.racking.rails import (
    Block,
    Held,
    RailRules,
    beside_each_other,
    rail_runs,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.mounting_sheet import RailLay

W, H, GAP = 1.134, 1.722, 0.02


def rules(lay: RailLay = RailLay.TWO, **change: float | None) -> RailRules:
    values = {
        "offset_frac": 0.2, "offset_m": None, "bridged_m": 1.2, "overhang_m": 0.05,
        "longest_run_m": None, "run_gap_m": 0.0, "short_m": 0.0,
    }  # fmt: skip
    supports = tuple(0.19 * n for n in range(60)) if lay is RailLay.SHORT else ()
    return RailRules(lay, **{**values, **change}, supports_m=supports)  # type: ignore[arg-type]


def row(count: int, left: float = 0.0, low: float = 0.0, skip: tuple[int, ...] = ()) -> list[Held]:
    return [
        Held(PlacedId(f"m{low:g}-{n}"), x, x + W, low, low + H)
        for n in range(count)
        if n not in skip
        for x in (left + n * (W + GAP),)
    ]


@pytest.mark.parametrize("count", [1, 2, 7, 14])
def test_a_rail_is_as_long_as_its_row_and_its_overhangs(count: int) -> None:
    runs = rail_runs(row(count), rules())
    # By hand: n w + (n - 1) g + 2 o, on two lines a fifth of the module in.
    assert [r.length_m for r in runs] == pytest.approx([count * W + (count - 1) * GAP + 0.1] * 2)
    assert [r.across_m for r in runs] == pytest.approx([0.2 * H, 0.8 * H])


@pytest.mark.parametrize(("bridged", "runs"), [(1.17, 4), (1.174, 2), (1.18, 2)])
def test_a_rail_runs_on_through_a_gap_it_may_bridge(bridged: float, runs: int) -> None:
    # A module left out leaves w + 2 g = 1.174 m.
    assert len(rail_runs(row(6, skip=(3,)), rules(bridged_m=bridged))) == runs


# By hand: of 7 modules of 1.134 m, 20 mm apart, the halves hold 4 and 3: 4.64 m with their end.
@pytest.mark.parametrize(
    ("longest", "runs"), [(8.158, 1), (8.157, 2), (4.7, 2), (4.13, 3), (1.2, 7)]
)
def test_a_long_run_is_broken_at_joints_into_even_ones(longest: float, runs: int) -> None:
    # 7 modules: 8.058 and two overhangs of 0.05 are 8.158 m.
    made = [
        r for r in rail_runs(row(7), rules(longest_run_m=longest, run_gap_m=0.012)) if not r.line
    ]
    assert len(made) == runs
    assert sum(len(r.held) for r in made) == 7
    assert all(r.length_m <= longest + 1e-9 for r in made)
    joints = {n * (W + GAP) - GAP / 2 for n in range(1, 7)}
    for a, b in pairwise(made):
        assert b.from_m - a.to_m == pytest.approx(0.012)
        assert min(abs((a.to_m + b.from_m) / 2 - j) for j in joints) < 1e-9
        # No module over the break.
        assert not set(a.held) & set(b.held)


@pytest.mark.parametrize(("columns", "rows"), [(1, 1), (5, 1), (4, 2), (6, 3)])
def test_shared_rails_and_their_clamps_by_the_closed_form(columns: int, rows: int) -> None:
    stacked = [m for r in range(rows) for m in row(columns, low=r * (H + GAP))]
    runs = rail_runs(stacked, rules(RailLay.SHARED))
    assert len(runs) == rows + 1
    by_row = [[columns] if len(r.held) == columns else [columns, columns] for r in runs]
    clamps = clamps_of(by_row, shared=True)
    assert (clamps.end, clamps.mid) == (4 * columns, 2 * columns * (rows - 1))


def test_clamps_of_segments_by_the_closed_form() -> None:
    # Two rails a row; segments of 5, 3 and 1: mid 2 × (4 + 2 + 0), end 4 each.
    clamps = clamps_of([[5], [5], [3], [3], [1], [1]], shared=False)
    assert (clamps.mid, clamps.end) == (12, 12)


@pytest.mark.parametrize(("count", "spares"), [(0, 0), (1, 1), (20, 1), (21, 2), (40, 2), (41, 3)])
def test_spares_are_a_twentieth_rounded_up_and_at_least_one(count: int, spares: int) -> None:
    assert spares_of(count) == spares


def test_short_rails_lie_over_the_pair_of_ribs_nearest_to_each_joint() -> None:
    runs = rail_runs(row(3), rules(RailLay.SHORT, short_m=0.35))
    lower = [r for r in runs if r.line == 0]
    # Two ends and two joints on each line.
    assert [len(r.held) for r in lower] == [1, 2, 2, 1]
    for run, at in zip(lower, (0.0, W + GAP / 2, 2 * W + 1.5 * GAP, 3 * W + 2 * GAP), strict=True):
        middle = (run.from_m + run.to_m) / 2
        assert abs(middle - at) <= 0.19 / 2 + 1e-9 or at < 0.095
        assert run.length_m == pytest.approx(0.35)


def test_only_runs_over_the_same_stretch_stand_beside_each_other() -> None:
    runs = rail_runs([*row(3), *row(3, left=6.0), *row(2, low=2.0)], rules())
    groups = beside_each_other(runs)
    spans = [{(round(runs[n].from_m, 2), runs[n].line) for n in g} for g in groups]
    assert [len(g) for g in spans] == [4, 2]
    assert sorted(n for g in groups for n in g) == list(range(len(runs)))


@pytest.mark.parametrize(
    ("low", "high", "runs"),
    # In the gap of a module left out: on the lower line, beside it, on both lines.
    [(0.3, 0.4, 3), (0.345, 0.4, 2), (0.2, 1.5, 4)],
)
def test_a_rail_breaks_before_what_stands_in_its_way(low: float, high: float, runs: int) -> None:
    # Lines at 0.344 and 1.378 m; the gap is from 3.442 to 4.616 m.
    block = Block(3.9, 4.2, low, high)
    made = rail_runs(row(6, skip=(3,)), replace(rules(bridged_m=1.2), blocks=(block,)))
    assert len(made) == runs
    assert not any(block.crosses(r.across_m, r.from_m, r.to_m) for r in made)
