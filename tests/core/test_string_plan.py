"""Planning and threading strings: against brute force, and by properties."""

from itertools import product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridge_tally.core.job.array import Orientation, PlacedModule
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.strings.plan import StringLimits, plan_planes, plan_strings
from ridge_tally.core.strings.thread import (
    Weave,
    serpentine,
    thread_strings,
)
from ridge_tally.core.strings.voltage import fewest_in_series, most_in_series


def most_strung_by_brute_force(modules: int, limits: StringLimits) -> int:
    lengths = range(limits.series_min, limits.series_max + 1)
    per_tracker = [
        [0, *(s * k for s in lengths for k in range(1, most + 1))] for most in limits.strings_max
    ]
    sums = [sum(choice) for choice in product(*per_tracker)]
    return max(total for total in sums if total <= modules)


@settings(max_examples=150)
@given(
    st.integers(0, 40),
    st.integers(2, 9),
    st.integers(0, 8),
    st.lists(st.integers(0, 2), min_size=1, max_size=3),
)
def test_plan_strings_as_many_as_any_legal_plan(modules, shortest, more, strings_max) -> None:
    limits = StringLimits(shortest, shortest + more, tuple(strings_max))
    plan = plan_strings(modules, limits)
    strung = sum(load.modules_in_series * load.strings for load in plan)
    assert strung >= most_strung_by_brute_force(modules, limits)
    assert strung <= modules
    assert all(load.modules_in_series <= limits.series_max for load in plan)
    assert len({load.tracker_number for load in plan}) == len(plan)
    for load in plan:
        assert load.strings <= limits.strings_max[load.tracker_number - 1]


@pytest.mark.parametrize(
    ("modules", "wish", "lengths"),
    [
        (28, None, [14, 14]),
        (27, None, [14, 13]),
        (28, 15, [15, 13]),
        (12, None, [12]),
        (3, None, [3]),
    ],
)
def test_plans_a_crew_would_draw(modules: int, wish: int | None, lengths: list[int]) -> None:
    plan = plan_strings(modules, StringLimits(5, 14, (1, 1)), wish)
    assert sorted((load.modules_in_series for load in plan), reverse=True) == lengths


def test_modules_beyond_all_trackers_are_left_out_and_the_rest_is_strung() -> None:
    plan = plan_strings(33, StringLimits(5, 14, (1, 1)))
    assert sum(load.modules_in_series for load in plan) == 28


def test_exactly_at_the_limit_is_legal() -> None:
    # 30.0 on 30 passes: never round before a limit test, relative tolerance 1e-9.
    assert most_in_series(0.1 * 3, 0.9) == 3
    assert fewest_in_series(0.1 * 3, 0.9) == 3
    assert most_in_series(43.0, 600.0) == 13
    assert fewest_in_series(28.0, 120.0) == 5


P = Orientation.PORTRAIT


def row(y_m: float, xs: list[float]) -> tuple[PlacedModule, ...]:
    return tuple(PlacedModule(PlacedId(f"{x}/{y_m}"), x, y_m, P, present=True) for x in xs)


def test_threads_run_back_and_forth_without_a_jump() -> None:
    ordered = serpentine((*row(0.0, [0, 1, 2]), *row(1.8, [0, 1, 2])))
    assert [(m.x_m, m.y_m) for m in ordered] == [
        (0, 1.8),
        (1, 1.8),
        (2, 1.8),
        (2, 0),
        (1, 0),
        (0, 0),
    ]


def test_every_module_is_threaded_once_and_absent_ones_never() -> None:
    modules = (*row(0.0, [0, 1, 2, 3]), PlacedModule(PlacedId("gone"), 4, 0, P, present=False))
    strings = thread_strings(modules, plan_strings(4, StringLimits(2, 2, (1, 1))))
    assert [s.tag for s in strings] == ["A", "B"]
    threaded = [m for s in strings for m in s.module_ids]
    assert sorted(threaded) == sorted(m.id for m in modules if m.present)


def strung(plans) -> list[int]:
    return [sum(ld.modules_in_series * ld.strings for ld in plan) for plan in plans]


@pytest.mark.parametrize(
    ("counts", "strings_max", "expected"),
    [
        ((14, 9), (1, 1), [14, 9]),
        ((9, 14), (1, 1), [9, 14]),
        ((20, 8), (1, 1, 1), [20, 8]),
        ((12, 10, 8), (1, 1, 1), [12, 10, 8]),
        ((10, 10), (1,), [10, 0]),
        ((28,), (2, 1), [28]),
        ((0, 9), (1, 1), [0, 9]),
        ((24, 7), (2, 1), [24, 7]),
    ],
)
def test_planes_share_the_trackers_so_that_most_modules_are_strung(
    counts, strings_max, expected
) -> None:
    plans = plan_planes(counts, [StringLimits(5, 14, strings_max)] * len(counts))
    assert sorted(strung(plans)) == sorted(expected)
    assert all(done <= count for done, count in zip(strung(plans), counts, strict=True))


@given(
    st.lists(st.integers(0, 26), min_size=2, max_size=3),
    st.lists(st.integers(1, 2), min_size=1, max_size=3),
)
def test_no_tracker_takes_two_planes_and_none_more_than_it_may(counts, strings_max) -> None:
    plans = plan_planes(tuple(counts), [StringLimits(5, 14, tuple(strings_max))] * len(counts))
    used = [load.tracker_number for plan in plans for load in plan]
    assert len(set(used)) == len(used)
    for load in (ld for plan in plans for ld in plan):
        assert load.strings <= strings_max[load.tracker_number - 1]


def test_where_not_all_can_be_strung_the_plane_filled_first_is() -> None:
    plans = plan_planes((28, 30), [StringLimits(5, 14, (1, 1))] * 2)
    assert strung(plans) == [28, 0]


def test_one_plane_is_planned_as_before() -> None:
    limits = StringLimits(5, 14, (1, 1))
    assert plan_planes((23,), [limits]) == (plan_strings(23, limits),)


def test_threads_run_by_columns_from_the_left_every_second_one_upwards() -> None:
    ordered = serpentine((*row(0.0, [0, 1, 2]), *row(1.8, [0, 1, 2])), Weave.COLUMNS)
    assert [(m.x_m, m.y_m) for m in ordered] == [
        (0, 1.8), (0, 0.0), (1, 0.0), (1, 1.8), (2, 1.8), (2, 0.0),
    ]  # fmt: skip


def test_each_plane_keeps_its_own_lengths() -> None:
    # Modules of more volts on the second plane: at most 11 in series there.
    plans = plan_planes((14, 11), [StringLimits(5, 14, (1, 1)), StringLimits(4, 11, (1, 1))])
    assert [[load.modules_in_series for load in plan] for plan in plans] == [[14], [11]]
