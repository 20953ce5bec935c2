"""Tilts changed with the seasons, against every choice tried one by one."""

from itertools import combinations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from ridge_tally.core.sun.seasons import best_positions

STEP = 73
TILTS = np.array([10.0, 30.0, 60.0])


def by_trying(daily: np.ndarray, count: int) -> float:
    """The best energy over every choice of change days, each span at its best tilt."""
    days, best = list(range(0, 365, STEP)), -np.inf
    for chosen in combinations(days, count):
        ends = [*chosen[1:], chosen[0] + 365]
        twice = np.concatenate([daily, daily], axis=1)
        spans = [twice[:, a:b].sum(axis=1).max() for a, b in zip(chosen, ends, strict=True)]
        best = max(best, sum(spans))
    return float(best)


@settings(max_examples=40, deadline=None)
@given(arrays(np.float64, (3, 5), elements=st.floats(0, 50)), st.sampled_from([1, 2, 4]))
def test_it_is_the_best_of_all(by_fifth: np.ndarray, count: int) -> None:
    daily = np.repeat(by_fifth, STEP, axis=1)
    found = best_positions(daily, TILTS, count, STEP)
    wanted = daily.sum(axis=1).max() if count == 1 else by_trying(daily, count)
    assert found.energy_kwh == pytest.approx(wanted)
    assert len(found.positions) == count
    # The days and tilts told give the energy told.
    starts = [p.from_day for p in found.positions]
    total = 0.0
    for day in range(365):
        held = [p for p in found.positions if p.from_day <= day]
        at = held[-1] if held else found.positions[-1]
        total += daily[list(TILTS).index(at.tilt_deg), day]
    assert total == pytest.approx(found.energy_kwh)
    assert starts == sorted(starts)


def test_two_positions_of_a_year_made_of_two_halves() -> None:
    # Steep is best for the 180 days from day 270 on, flat for the others.
    steep = np.array([(day - 270) % 365 < 180 for day in range(365)])
    daily = np.stack([np.where(steep, 1.0, 3.0), np.full(365, 1.5), np.where(steep, 3.0, 1.0)])
    found = best_positions(daily, TILTS, 2)
    assert [(p.from_day, p.tilt_deg) for p in found.positions] == [(85, 10.0), (270, 60.0)]
    assert found.energy_kwh == pytest.approx(3.0 * 365)
