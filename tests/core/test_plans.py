"""Every legal plan, against brute force over every assignment of every tracker."""

from itertools import product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridge_tally.core.strings.plans import (
    MOST_LISTED,
    Plan,
    PlanLoad,
    TrackerClass,
    legal_plans,
    merits_of,
)


def by_brute_force(
    counts: tuple[int, ...], classes: list[TrackerClass], kinds: tuple[int, ...]
) -> int:
    """How many plans there are: every tracker given every load, alike ones told apart by none."""
    found = set()
    loads = []
    for trackers in classes:
        each = [None]
        for series in range(1, 13):
            for strings in product(range(max(trackers.strings_max) + 1), repeat=len(counts)):
                used = [p for p, many in enumerate(strings) if many]
                fits = all(low <= series <= high for low, high in (trackers.spans[p] for p in used))
                alike = len({kinds[p] for p in used}) == 1
                most = min((trackers.strings_of(p) for p in used), default=0)
                if used and fits and alike and sum(strings) <= most:
                    each.append((series, strings))
        loads += [each] * len(trackers.numbers)
    sizes = [len(c.numbers) for c in classes]
    for chosen in product(*loads):
        strung = [0] * len(counts)
        for load in chosen:
            if load:
                for plane, strings in enumerate(load[1]):
                    strung[plane] += load[0] * strings
        if tuple(strung) == counts:
            start, key = 0, []
            for size in sizes:
                key.append(tuple(sorted(str(c) for c in chosen[start : start + size])))
                start += size
            found.add(tuple(key))
    return len(found)


def strung(plan: Plan, planes: int) -> tuple[int, ...]:
    return tuple(
        sum(ld.modules_in_series * ld.strings for ld in plan if ld.plane_index == p)
        for p in range(planes)
    )


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.integers(1, 12), min_size=1, max_size=2),
    st.lists(
        st.tuples(st.integers(1, 2), st.integers(2, 4), st.integers(0, 3), st.integers(1, 2)),
        min_size=1,
        max_size=2,
    ),
    st.integers(0, 2),
    st.booleans(),
)
def test_the_list_is_whole_and_has_nothing_twice(
    counts: list[int], shapes: list[tuple[int, int, int, int]], longer: int, types: bool
) -> None:
    classes, number = [], 1
    for many, shortest, more, strings in shapes:
        # A tracker may take fewer strings of a type with more current.
        fewer = max(1, strings - int(types))
        numbers = tuple(range(number, number + many))
        # The second plane's modules may be of another type: of less voltage, so more in series.
        spans = ((shortest, shortest + more), (shortest + longer, shortest + more + longer))
        classes.append(TrackerClass(numbers, spans[: len(counts)], (strings, fewer)[: len(counts)]))
        number += many
    kinds = (0, int(types))[: len(counts)]
    found = legal_plans(tuple(counts), classes, kinds)
    assert found.total == by_brute_force(tuple(counts), classes, kinds)
    assert len(found.plans) == len(set(found.plans)) == found.total
    for plan in found.plans:
        assert strung(plan, len(counts)) == tuple(counts)
        for trackers in classes:
            mine = [ld for ld in plan if ld.tracker_number in trackers.numbers]
            for n in trackers.numbers:
                loads = [ld for ld in mine if ld.tracker_number == n]
                assert all(ld.strings <= trackers.strings_of(ld.plane_index) for ld in loads)
                assert len({ld.modules_in_series for ld in loads}) <= 1


def test_twenty_eight_on_two_trackers_have_the_plans_counted_by_hand() -> None:
    # By hand: one string each of 5 to 14 on two alike trackers: only 14 and 14 make 28.
    found = legal_plans((28,), [TrackerClass((1, 2), ((5, 14),), (1,))])
    assert found.plans == ((PlanLoad(1, 0, 14, 1), PlanLoad(2, 0, 14, 1)),)
    # With two strings on each also 2 x 7 + 14, 2 x 8 + 12, 2 x 9 + 10, 2 x 10 + 8, 2 x 11 + 6,
    # 2 x 14 alone and pairs of pairs: 7 + 7, 8 + 6, 9 + 5.
    assert legal_plans((28,), [TrackerClass((1, 2), ((5, 14),), (2,))]).total == 10


@pytest.mark.parametrize(("counts", "classes"), [((), ()), ((0,), ()), ((5,), ())])
def test_nothing_to_string_or_nowhere_has_no_plan(counts, classes) -> None:
    assert legal_plans(counts, classes).total == 0


def test_a_large_inverter_s_plans_are_counted_whole_and_listed_up_to_a_bound() -> None:
    six = [TrackerClass((1, 2, 3, 4, 5, 6), ((4, 14),), (2,))]
    found = legal_plans((16, 14, 10), six)
    assert found.total > 1000
    assert len(found.plans) == min(found.total, MOST_LISTED)


def test_merits_by_hand() -> None:
    plan = (PlanLoad(1, 0, 14, 1), PlanLoad(1, 1, 14, 1), PlanLoad(2, 0, 8, 1))
    found = merits_of(plan, ((14, 14), (9, 9), (9, 9)), (30.0, 30.0), (320.0,) * 3)
    assert (found.tight_strings, found.mixed_trackers) == (2, 1)
    assert (found.strings, found.lengths, found.unused_trackers) == (3, 2, 1)
    # 14 x 30 is 100 V above the middle, twice; 8 x 30 is 80 V below it.
    assert found.off_centre_v == pytest.approx(280.0)
