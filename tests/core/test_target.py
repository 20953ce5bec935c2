"""Counts at exact and just-over figures."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.brief.target import modules_reaching, modules_within


@pytest.mark.parametrize(
    ("fraction", "reach", "within"),
    [
        (20.0, 20, 20),
        (20.0 + 1e-12, 20, 20),
        (20.0 - 1e-12, 20, 20),
        (20.01, 21, 20),
        (19.99, 20, 19),
        (0.3, 1, 0),
        (0.0, 0, 0),
        (-2.5, -2, 0),
        (0.1 * 3 / 0.1, 3, 3),
    ],
)
def test_counts(fraction: float, reach: int, within: int) -> None:
    assert modules_reaching(fraction) == reach
    assert modules_within(fraction) == within


@given(st.integers(1, 500), st.floats(0.3, 0.7))
def test_a_whole_number_of_modules_is_never_moved_by_rounding(count: int, p_kw: float) -> None:
    energy = count * p_kw * 1800.0
    assert modules_reaching(energy * 1000 / (1800.0 * (p_kw * 1000))) == count
    assert modules_within(energy * 1000 / (1800.0 * (p_kw * 1000))) == count
