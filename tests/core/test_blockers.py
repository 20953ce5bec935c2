"""Free gaps of a band: by hand, and against buffered segments of an independent library."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, box

from ridge_tally.core.array.blockers import BlockerKind, LayoutRegion, Owner, free_bands
from ridge_tally.core.survey.outline import Box

SQUARE = np.array([[0, 0], [10, 0], [10, 6], [0, 6]], dtype=float)


def ground(capsules: list[list[float]], solids: tuple[np.ndarray, ...] = ()) -> LayoutRegion:
    edges = [[*SQUARE[i], *SQUARE[(i + 1) % 4], 0.3] for i in range(4)]
    owners = tuple(Owner(BlockerKind.EDGE, str(i), "") for i in range(len(edges + capsules)))
    return LayoutRegion(
        (SQUARE,), np.array(edges + capsules), owners, np.zeros(len(owners)), solids
    )


def gaps(where: LayoutRegion, bottom: float, top: float) -> list[tuple[float, float]]:
    return free_bands(where, np.array([bottom]), np.array([top])).gaps(0)


def test_an_empty_roof_leaves_one_gap_between_its_rakes() -> None:
    assert gaps(ground([]), 1.0, 2.7) == [(pytest.approx(0.3), pytest.approx(9.7))]


def test_a_band_inside_the_eave_strip_is_not_free() -> None:
    assert gaps(ground([]), 0.1, 1.8) == []


def test_a_vent_takes_its_chord_at_the_height_of_the_band() -> None:
    # A disc of 0.5 m at height 2.0; the band ends 0.3 m below it: half chord 0.4 m.
    low, high = gaps(ground([[5, 2, 5, 2, 0.5]]), 0.5, 1.7)
    assert (low[1], high[0]) == (pytest.approx(4.6), pytest.approx(5.4))


def test_a_band_through_a_large_box_is_not_free_inside_it() -> None:
    sides = [[3, 1, 7, 1, 0.1], [7, 1, 7, 5, 0.1], [7, 5, 3, 5, 0.1], [3, 5, 3, 1, 0.1]]
    found = gaps(ground(sides, (Box(3, 1, 7, 5).ring(),)), 2.0, 3.0)
    assert [(round(a, 6), round(b, 6)) for a, b in found] == [(0.3, 2.9), (7.1, 9.7)]


@settings(max_examples=80)
@given(
    st.tuples(st.floats(1, 9), st.floats(1, 5), st.floats(1, 9), st.floats(1, 5)),
    st.floats(0.05, 0.8),
    st.floats(0.4, 4.0),
)
def test_a_capsule_blocks_what_its_buffer_covers(segment, radius: float, bottom: float) -> None:
    where = ground([[*segment, radius]])
    top = bottom + 1.5
    line = LineString([segment[:2], segment[2:]])
    covered = line.buffer(radius, quad_segs=256).intersection(box(-1, bottom, 11, top))
    found = gaps(where, bottom, top)
    if covered.is_empty:
        return
    left, _, right, _ = covered.bounds
    for a, b in found:
        assert b <= left + 2e-3 or a >= right - 2e-3
    ends = {round(x, 2) for gap in found for x in gap}
    if left > 0.35 and bottom > 0.31 and top < 5.69:
        assert any(abs(end - left) < 0.02 for end in ends)
