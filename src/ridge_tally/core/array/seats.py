"""Where brackets can sit under module edges: on seams, on ribs over purlins, on beams.

A bracket holds a module's frame at its edge, so an edge is of use only where such a line runs
under it.  Seams and ribs (x) take one anywhere along them; where a sheet is screwed through to
purlins (y), only where a rib crosses one.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise

from ridge_tally.core.array.lay import Lay, Place

# How far aside of its line a bracket's foot still takes a frame; common practice, no source.
USUAL_REACH_M = 0.03


class Side(StrEnum):
    """An edge of a module, seen from outside."""

    LEFT = "left"
    RIGHT = "right"
    LOWER = "lower"
    UPPER = "upper"


OPPOSITE = ((Side.LOWER, Side.UPPER), (Side.LEFT, Side.RIGHT))


@dataclass(frozen=True, slots=True)
class SeatLines:
    """What takes brackets: lines by x, by y, or, with ``crossings``, only where both meet."""

    xs_m: tuple[float, ...]
    ys_m: tuple[float, ...]
    crossings: bool


@dataclass(frozen=True, slots=True)
class Seat:
    """A spot under an edge where a bracket can sit, metres on the plane."""

    side: Side
    x_m: float
    y_m: float


@dataclass(frozen=True, slots=True)
class Seated:
    """A module's seats, and the pair of opposite edges that can carry it; ``()`` for none.

    An edge carries with a seat in each of its halves: a module hangs on two at either side.
    """

    seats: tuple[Seat, ...]
    held_by: tuple[Side, ...]


def seated(lines: SeatLines, lay: Lay, place: Place, reach_m: float) -> Seated:
    """Return where brackets can sit under the edges of one module."""
    right = place.x_m + lay.width_m(place.orientation)
    upper = place.y_m + lay.height_m(place.orientation)
    box = (place.x_m, place.y_m, right, upper)
    seats = tuple(s for side in Side for s in _on_side(lines, side, box, reach_m))
    carries = {side: _in_both_halves(seats, side, box) for side in Side}
    held = next((pair for pair in OPPOSITE if all(carries[s] for s in pair)), ())
    return Seated(seats, held)


def near(at_m: float, lines_m: Sequence[float], reach_m: float) -> bool:
    """Return whether one of the lines runs within reach."""
    return any(abs(line - at_m) <= reach_m + 1e-9 for line in lines_m)


def _on_side(
    lines: SeatLines, side: Side, box: tuple[float, float, float, float], reach_m: float
) -> Iterator[Seat]:
    left, lower, right, upper = box
    if side in (Side.LEFT, Side.RIGHT):
        x = left if side is Side.LEFT else right
        along = near(x, lines.xs_m, reach_m)
        crossed = [y for y in lines.ys_m if lower <= y <= upper]
        for y in _seats(lower, upper, crossed, along=along, crossings=lines.crossings):
            yield Seat(side, x, y)
    else:
        y = lower if side is Side.LOWER else upper
        along = near(y, lines.ys_m, reach_m)
        crossed = [x for x in lines.xs_m if left <= x <= right]
        for x in _seats(left, right, crossed, along=along, crossings=lines.crossings):
            yield Seat(side, x, y)


def _seats(
    low: float, high: float, crossed: list[float], *, along: bool, crossings: bool
) -> list[float]:
    """Return seats along an edge: of lines across it, and of the one that runs along it."""
    if crossings:
        return crossed if along else []
    # Along a line a bracket sits anywhere: at the quarters, where frames are most often held.
    quarters = [low + (high - low) / 4, high - (high - low) / 4]
    return sorted({*crossed, *(quarters if along else ())})


def _in_both_halves(
    seats: Sequence[Seat], side: Side, box: tuple[float, float, float, float]
) -> bool:
    upright = side in (Side.LEFT, Side.RIGHT)
    middle = (box[1] + box[3]) / 2 if upright else (box[0] + box[2]) / 2
    at = [s.y_m if upright else s.x_m for s in seats if s.side is side]
    return any(a < middle for a in at) and any(a > middle for a in at)


def shifts_m(
    edges_m: Sequence[float], lines_m: Sequence[float], most_m: float, reach_m: float
) -> list[float]:
    """Return shifts worth trying, none among them, nearest first.

    Each puts an edge on a line, or two edges that would want shifts less than twice the reach
    apart as near to theirs as each other.
    """
    exact = sorted(
        {round(line - e, 6) for e in edges_m for line in lines_m if abs(line - e) <= most_m}
    )
    between = [(a + b) / 2 for a, b in pairwise(exact) if b - a <= 2 * reach_m]
    return sorted({0.0, *exact, *between}, key=abs)
