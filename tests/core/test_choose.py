"""Exactly N: against every subset counted out, and the properties of a choice."""

from dataclasses import replace
from itertools import combinations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from core.roofs import LAY, chimney, roof
from ridge_tally.core.array.choose import choose, neighbours
from ridge_tally.core.array.fill import fill
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import RowRule, Ways

PLACES = fill(
    chimney(roof(6.5, 4.6), 3.0, 1.2, 3.8, 2.0), LAY, Ways.PORTRAIT, RowRule.ALIGNED
).places


def cuts_of(kept: set[int], pairs: np.ndarray) -> int:
    return sum((i in kept) != (j in kept) for i, j in pairs.tolist())


@settings(max_examples=25)
@given(st.integers(1, len(PLACES)), st.integers(0, 10_000), st.sampled_from([0.0, 3.0, 25.0]))
def test_no_subset_is_worth_more(modules: int, seed: int, price: float) -> None:
    value = np.random.default_rng(seed).uniform(300, 420, len(PLACES)).round()
    found = choose(LAY, PLACES, value, modules, price)
    pairs = np.concatenate(neighbours(LAY, PLACES))
    best = max(
        sum(value[i] for i in kept) - price * cuts_of(set(kept), pairs)
        for kept in combinations(range(len(PLACES)), modules)
    )
    assert len(found.kept) == modules
    assert found.value == pytest.approx(sum(value[i] for i in found.kept))
    assert found.cuts == cuts_of(set(found.kept), pairs)
    assert found.value - price * found.cuts == pytest.approx(best, abs=1e-6)


def shortest_run_of(kept: set[int], beside: list[list[int]]) -> int:
    """The length of the shortest run of kept neighbours in a row."""
    left = [{i} for i in kept]
    for i, j in beside:
        if i in kept and j in kept:
            one, other = (next(run for run in left if k in run) for k in (i, j))
            if one is not other:
                left.remove(other)
                one |= other
    return min(len(run) for run in left)


@settings(max_examples=25)
@given(st.integers(1, 4), st.integers(2, len(PLACES)), st.integers(0, 10_000))
def test_runs_are_as_long_as_asked_and_no_such_subset_is_worth_more(
    shortest: int, modules: int, seed: int
) -> None:
    value = np.random.default_rng(seed).uniform(300, 420, len(PLACES)).round()
    beside = neighbours(LAY, PLACES)[0].tolist()
    sets = [set(kept) for kept in combinations(range(len(PLACES)), modules)]
    legal = [kept for kept in sets if shortest_run_of(kept, beside) >= shortest]
    lay = replace(LAY, shortest_run=shortest)
    if not legal:
        with pytest.raises(OutOfRange, match="Modules wanted"):
            choose(lay, PLACES, value, modules, 0.0)
        return
    found = choose(lay, PLACES, value, modules, 0.0)
    assert shortest_run_of(set(found.kept), beside) >= shortest
    best = max(sum(value[i] for i in kept) for kept in legal)
    assert found.value == pytest.approx(best, abs=1e-6)


def test_keeping_together_costs_no_more_value_than_it_is_worth() -> None:
    value = np.random.default_rng(4).uniform(300, 420, len(PLACES))
    loose, close = (choose(LAY, PLACES, value, 5, price) for price in (0.0, 50.0))
    assert close.cuts <= loose.cuts
    assert loose.value - close.value <= 50.0 * (loose.cuts - close.cuts)


@pytest.mark.parametrize("modules", [0, 99])
def test_more_than_there_are_places_is_refused_with_the_most(modules: int) -> None:
    with pytest.raises(OutOfRange, match=f"Modules wanted reads {modules}.*{len(PLACES)}"):
        choose(LAY, PLACES, np.ones(len(PLACES)), modules, 0.0)
