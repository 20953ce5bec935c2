"""Posts and legs by hand: heights over sloping ground, the lift of a seasonal change."""

import math
from itertools import pairwise

import pytest

from ridge_tally.core.array.posts import hinge_m, legs, lift_m, overhang_m, posts_along


def test_legs_of_a_table_by_hand() -> None:
    # Glass of 3.4 m on posts 2.0 m apart: 0.7 m over at each end.  At 60° the lower edge is to
    # clear 0.5 m: the front posts hold it at 0.5 + 0.7 sin 60° = 1.106 m.
    assert overhang_m(3.4, 2.0) == pytest.approx(0.7)
    hinge = hinge_m(3.4, 2.0, 0.5, 60.0)
    assert hinge == pytest.approx(1.1062, abs=1e-4)
    winter, summer = legs(3.4, 2.0, hinge, 60.0), legs(3.4, 2.0, hinge, 15.0)
    assert winter.lowest_m == pytest.approx(0.5)
    assert winter.back_m == pytest.approx(1.1062 + 2 * 0.8660, abs=1e-3)
    assert summer.back_m == pytest.approx(1.1062 + 2 * 0.2588, abs=1e-3)
    assert lift_m(2.0, 15.0, 60.0) == pytest.approx(winter.back_m - summer.back_m)
    assert lift_m(2.0, 60.0, 15.0) == -lift_m(2.0, 15.0, 60.0)


@pytest.mark.parametrize(
    ("width_m", "apart_m", "posts"),
    # By hand: 7 m at 2.5 m want three spans of 7 / 3.4 = 2.06 m; 3.4 m is one span of 2.43 m.
    [(7.0, 2.5, 4), (3.4, 2.5, 2), (14.0, 2.5, 7)],
)
def test_posts_stand_as_few_as_keep_the_span(width_m: float, apart_m: float, posts: int) -> None:
    found = posts_along(width_m, apart_m)
    assert len(found) == posts
    spans = [b - a for a, b in pairwise(found)]
    assert max(spans) <= apart_m + 1e-9
    assert max(spans) == pytest.approx(min(spans))
    assert found[0] == pytest.approx(width_m - found[-1])
    assert math.isclose(found[0], 0.2 * spans[0])
