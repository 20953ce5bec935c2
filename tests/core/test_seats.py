"""Seams, ribs and purlins under a plane, and which module edges a bracket can take hold of."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jobs import SAMPLE
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.seats import SeatLines, Side, seated, shifts_m
from ridge_tally.core.job.array import Orientation
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.survey import Covering, Structure
from ridge_tally.core.survey.framing import framing_lines

CORNERS = np.array([[0.0, 0.0], [4.0, 0.0], [4.0, 3.0], [0.0, 3.0]])
LAY = Lay(long_m=2.0, short_m=1.0, gap_in_row_m=0.02, gap_between_rows_m=0.02)
PORTRAIT = Orientation.PORTRAIT


def metres(value: float) -> Taped:
    return Taped(value, f"{value} m")


def lines_under(**read: object):
    plane = replace(SAMPLE.survey.planes[0], structure=Structure(**read))
    return framing_lines(plane, CORNERS)


def test_ribs_are_counted_anew_on_every_sheet() -> None:
    # By hand: sheets of 1.0 m with ribs at 0, 0.3, 0.6 (0.9 lies under the next lap).
    found = lines_under(
        covering=Covering.RIBBED_METAL, rib_spacing=metres(0.3), cover_width=metres(0.95),
        first_rib=metres(0.1),
    )  # fmt: skip
    assert found.laps_x_m == (0.1, 1.05, 2.0, 2.95, 3.9)
    assert found.ribs_x_m[:6] == (0.1, 0.4, 0.7, 1.05, 1.35, 1.65)


@pytest.mark.parametrize("covers", [3, 4, 5])
def test_a_cover_of_whole_steps_leaves_ribs_even(covers: int) -> None:
    even = lines_under(
        covering=Covering.RIBBED_METAL, rib_spacing=metres(0.2), cover_width=metres(0.2 * covers)
    )
    assert even.ribs_x_m == pytest.approx([0.2 * i for i in range(21)])


def test_seams_rafters_and_purlins_begin_where_they_were_read() -> None:
    found = lines_under(
        covering=Covering.STANDING_SEAM, seam_spacing=metres(0.5), first_rib=metres(0.25),
        rafter_spacing=metres(1.5), first_rafter=metres(0.4), purlin_spacing=metres(0.9),
    )  # fmt: skip
    assert found.ribs_x_m == (0.25, 0.75, 1.25, 1.75, 2.25, 2.75, 3.25, 3.75)
    assert found.rafters_x_m == (0.4, 1.9, 3.4)
    # A purlin nobody found the first of has no place.
    assert found.purlins_y_m == ()


@pytest.mark.parametrize(
    ("lines", "place", "held_by"),
    [
        # Seams 0.45 m apart cross each lower and upper edge twice, one in each half.
        (SeatLines((0.2, 0.65), (), crossings=False), (0.0, 0.0), (Side.LOWER, Side.UPPER)),
        # Both in the left half: it would tip.
        (SeatLines((0.1, 0.4), (), crossings=False), (0.0, 0.0), ()),
        # A seam under either long edge.
        (SeatLines((0.01, 1.02), (), crossings=False), (0.0, 0.0), (Side.LEFT, Side.RIGHT)),
        # 40 mm aside is out of reach.
        (SeatLines((0.04, 1.04), (), crossings=False), (0.0, 0.0), ()),
        # Purlins: under the long edges at 0.5 and 1.5 m of their 2 m.
        (SeatLines((), (0.5, 1.5), crossings=False), (0.0, 0.0), (Side.LEFT, Side.RIGHT)),
        # Through a ribbed sheet: only where a rib crosses a purlin.
        (SeatLines((0.2, 0.7), (0.5, 1.5), crossings=True), (0.0, 0.0), ()),
        (SeatLines((0.0, 1.0), (0.5, 1.5), crossings=True), (0.0, 0.0), (Side.LEFT, Side.RIGHT)),
        (SeatLines((0.2, 0.7), (0.0, 2.0), crossings=True), (0.0, 0.0), (Side.LOWER, Side.UPPER)),
    ],
)
def test_a_module_hangs_on_two_seats_at_either_side(
    lines: SeatLines, place: tuple[float, float], held_by: tuple[Side, ...]
) -> None:
    assert seated(lines, LAY, Place(*place, PORTRAIT), 0.03).held_by == held_by


@given(
    st.lists(st.floats(0, 6), min_size=1, max_size=6),
    st.lists(st.floats(0, 6), min_size=1, max_size=6),
)
def test_every_shift_puts_an_edge_within_reach_of_a_line(
    edges: list[float], lines: list[float]
) -> None:
    found = shifts_m(edges, lines, 1.0, 0.03)
    assert found[0] == 0.0
    assert [abs(s) for s in found] == sorted(abs(s) for s in found)
    for shift in found[1:]:
        assert min(abs(e + shift - line) for e in edges for line in lines) < 0.03 + 1e-5


def test_two_edges_meet_their_lines_half_way() -> None:
    # By hand: 0.373 wants 27 mm to 0.4, 1.411 wants −11 mm to 1.4: 8 mm leave either 19 mm off.
    assert 0.008 in [round(s, 6) for s in shifts_m([0.373, 1.411], [0.4, 1.4], 0.2, 0.03)]
