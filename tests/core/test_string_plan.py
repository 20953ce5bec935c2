"""Planning and threading strings: against brute force, and by properties."""

from itertools import product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridge_tally.core.job.array import Orientation, PlacedModule
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.strings.automatic import PlanInputs, automatic_plan
from ridge_tally.core.strings.plans import Plan, TrackerClass, legal_plans
from ridge_tally.core.strings.thread import (
    Routing,
    serpentine,
    thread_strings,
)
from ridge_tally.core.strings.voltage import fewest_in_series, most_in_series


def ground(
    counts: tuple[int, ...],
    spans: tuple[tuple[int, int], ...],
    strings_max: tuple[int, ...],
    *,
    overrun_from: tuple[int, ...] = (),
    unit_of: tuple[int, ...] = (),
) -> PlanInputs:
    """Trackers that take so many strings each, by inverter; those that take alike are alike."""
    many = len(strings_max)
    unit_of, overrun_from = unit_of or (0,) * many, overrun_from or (9,) * many
    alike: dict[object, list[int]] = {}
    for number, key in enumerate(zip(strings_max, unit_of, overrun_from, strict=True), start=1):
        alike.setdefault(key, []).append(number)
    return PlanInputs(
        counts=counts,
        kinds=(0,) * len(counts),
        classes=tuple(
            TrackerClass(tuple(n), spans, (strings_max[n[0] - 1],)) for n in alike.values()
        ),
        overrun_from=tuple((o,) * len(counts) for o in overrun_from),
        unit_of=unit_of,
        unit_ac_w=(5000.0,) * (max(unit_of) + 1),
        unit_dc_w=(0.0,) * (max(unit_of) + 1),
        module_w=(400.0,) * len(counts),
    )


def strung(plan: Plan, planes: int = 1) -> list[int]:
    return [
        sum(ld.modules_in_series * ld.strings for ld in plan if ld.plane_index == p)
        for p in range(planes)
    ]


def most_strung_by_brute_force(modules: int, span: tuple[int, int], strings_max: list[int]) -> int:
    lengths = range(span[0], span[1] + 1)
    per_tracker = [
        [0, *(s * k for s in lengths for k in range(1, most + 1))] for most in strings_max
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
def test_as_many_are_strung_as_by_any_legal_plan(modules, shortest, more, strings_max) -> None:
    span = (shortest, shortest + more)
    plan = automatic_plan(ground((modules,), (span,), tuple(strings_max)))
    assert most_strung_by_brute_force(modules, span, strings_max) <= strung(plan)[0] <= modules
    assert all(load.modules_in_series <= span[1] for load in plan)
    assert len({load.tracker_number for load in plan}) == len(plan)
    for load in plan:
        assert load.strings <= strings_max[load.tracker_number - 1]


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.integers(1, 16), min_size=1, max_size=2),
    st.lists(st.integers(1, 2), min_size=1, max_size=3),
    st.integers(3, 6),
)
def test_what_has_a_legal_plan_is_never_left_out(counts, strings_max, shortest) -> None:
    asked = ground(tuple(counts), ((shortest, shortest + 5),), tuple(strings_max))
    plan = automatic_plan(asked)
    if legal_plans(asked.counts, asked.classes).total:
        assert strung(plan, len(counts)) == counts
        assert all(shortest <= ld.modules_in_series <= shortest + 5 for ld in plan)


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
    plan = automatic_plan(ground((modules,), ((5, 14),), (1, 1)), wish)
    assert sorted((load.modules_in_series for load in plan), reverse=True) == lengths


def test_modules_beyond_all_trackers_are_left_out_and_the_rest_is_strung() -> None:
    assert strung(automatic_plan(ground((33,), ((5, 14),), (1, 1)))) == [28]


def test_planes_share_a_tracker_rather_than_leave_modules_out() -> None:
    # Nine and nine on one tracker of two inputs: two strings of nine side by side.
    plan = automatic_plan(ground((9, 9), ((5, 14),), (2,)))
    assert strung(plan, 2) == [9, 9]
    # With a tracker to spare each plane has its own.
    plan = automatic_plan(ground((9, 9), ((5, 14),), (2, 2)))
    assert {ld.tracker_number for ld in plan if ld.plane_index == 0} == {1}
    assert {ld.tracker_number for ld in plan if ld.plane_index == 1} == {2}


def test_every_inverter_has_strings_and_both_are_loaded_alike() -> None:
    plan = automatic_plan(ground((28,), ((5, 14),), (1, 1, 1, 1), unit_of=(0, 0, 1, 1)))
    by_unit = [
        sum(ld.modules_in_series for ld in plan if (ld.tracker_number > 2) is b)
        for b in (False, True)
    ]
    assert by_unit == [14, 14]


def test_a_string_goes_to_the_tracker_that_takes_its_current() -> None:
    # The first tracker would be overrun by one string, the second takes it.
    plan = automatic_plan(ground((10,), ((5, 14),), (1, 1), overrun_from=(1, 2)))
    assert [ld.tracker_number for ld in plan] == [2]


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
    strings = thread_strings(modules, automatic_plan(ground((4,), ((2, 2),), (1, 1))))
    assert [s.tag for s in strings] == ["A", "B"]
    threaded = [m for s in strings for m in s.module_ids]
    assert sorted(threaded) == sorted(m.id for m in modules if m.present)


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
    plan = automatic_plan(ground(counts, ((5, 14),), strings_max))
    done = strung(plan, len(counts))
    assert sorted(done) == sorted(expected)
    assert all(d <= count for d, count in zip(done, counts, strict=True))


@settings(deadline=None)
@given(
    st.lists(st.integers(0, 26), min_size=2, max_size=3),
    st.lists(st.integers(1, 2), min_size=1, max_size=3),
)
def test_no_tracker_has_more_strings_than_it_takes_nor_of_two_lengths(counts, strings_max) -> None:
    plan = automatic_plan(ground(tuple(counts), ((5, 14),), tuple(strings_max)))
    for number, most in enumerate(strings_max, start=1):
        mine = [ld for ld in plan if ld.tracker_number == number]
        assert sum(ld.strings for ld in mine) <= most
        assert len({ld.modules_in_series for ld in mine}) <= 1


def test_where_not_all_can_be_strung_the_plane_filled_first_is() -> None:
    assert strung(automatic_plan(ground((28, 30), ((5, 14),), (1, 1))), 2) == [28, 0]


def test_modules_a_hair_apart_are_one_row_wherever_they_stand() -> None:
    # 0.2 mm apart across 1.025 m, where a grid of 5 cm has an edge.
    heights = [1.0249, 1.0251, 1.0249, 1.0251]
    modules = [
        PlacedModule(PlacedId(str(x)), float(x), y, P, present=True) for x, y in enumerate(heights)
    ]
    assert [m.id for m in serpentine(modules)] == ["0", "1", "2", "3"]


def test_threads_run_by_columns_from_the_left_every_second_one_upwards() -> None:
    ordered = serpentine((*row(0.0, [0, 1, 2]), *row(1.8, [0, 1, 2])), Routing.COLUMNS)
    assert [(m.x_m, m.y_m) for m in ordered] == [
        (0, 1.8), (0, 0.0), (1, 0.0), (1, 1.8), (2, 1.8), (2, 0.0),
    ]  # fmt: skip


def test_each_plane_keeps_its_own_lengths() -> None:
    # Modules of more volts on the second plane: at most 11 in series there.
    plan = automatic_plan(ground((14, 11), ((5, 14), (4, 11)), (1, 1)))
    assert [(ld.plane_index, ld.modules_in_series) for ld in plan] == [(0, 14), (1, 11)]
