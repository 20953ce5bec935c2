"""What makes two years differ: nothing is left over, and a step alone takes all of it."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.energy.difference import differences
from ridge_tally.core.energy.waterfall import Step, waterfall

STEPS = (Step.SUNLIGHT, Step.SHADE, Step.HEAT, Step.LIMIT)


def year(*after: float):
    return waterfall(tuple(zip(STEPS, after, strict=True)))


def test_a_step_that_alone_differs_takes_all_of_the_difference() -> None:
    base, other = year(1000, 900, 810, 810), year(1000, 900, 810, 729)
    told = {d.step: d.kwh for d in differences(base, other)}
    assert told[Step.LIMIT] == pytest.approx(-81)
    assert told[Step.SHADE] == pytest.approx(0)


def test_two_steps_share_by_their_ratios() -> None:
    # By hand: shade keeps 0.8 instead of 0.9, sunlight is 1200 instead of 1000; the years are
    # 900 and 960, their logarithmic mean 60 / ln(960/900) = 929.68.
    told = {
        d.step: d.kwh for d in differences(year(1000, 900, 900, 900), year(1200, 960, 960, 960))
    }
    assert told[Step.SUNLIGHT] == pytest.approx(929.68 * math.log(1.2), rel=1e-4)
    assert told[Step.SHADE] == pytest.approx(929.68 * math.log(0.8 / 0.9), rel=1e-4)


@given(st.lists(st.tuples(st.floats(0.3, 1.2), st.floats(0.3, 1.2)), min_size=4, max_size=4))
def test_nothing_is_left_over(factors: list[tuple[float, float]]) -> None:
    def after(which: int):
        left, found = 1000.0, []
        for pair in factors:
            left *= pair[which]
            found.append(left)
        return year(*found)

    base, other = after(0), after(1)
    whole = sum(d.kwh for d in differences(base, other))
    assert whole == pytest.approx(other[-1].after_kwh - base[-1].after_kwh, abs=1e-6)


def test_a_step_one_year_does_not_have_counts_as_taking_nothing() -> None:
    base = waterfall(((Step.SUNLIGHT, 1000.0), (Step.HEAT, 900.0)))
    other = waterfall(((Step.SUNLIGHT, 1000.0), (Step.HEAT, 900.0), (Step.EXPORT, 850.0)))
    told = {d.step: d.kwh for d in differences(base, other)}
    assert told[Step.EXPORT] == pytest.approx(-50)


def test_a_year_with_nothing_left_is_not_shared_out() -> None:
    assert differences(year(1000, 900, 0, 0), year(1000, 900, 800, 700)) == ()
