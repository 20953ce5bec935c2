"""Posts under tables on sloping ground, and the legs of a table that is tilted with the seasons."""

import math
from dataclasses import dataclass

from ridge_tally.core.job.array import GroundTable

# How far a table hangs over its end posts, in spans; common practice, no source.
END_SPANS = 0.2


@dataclass(frozen=True, slots=True)
class Legs:
    """A table on a front and a back row of posts, at one tilt.

    ``front_m`` and ``back_m``: from the ground (level across the table) to the glass where the
    posts meet it; ``lowest_m`` the lower edge over the ground.
    """

    front_m: float
    back_m: float
    lowest_m: float


@dataclass(frozen=True, slots=True)
class Post:
    """A post: where it stands on the plane, and its length from the ground to the glass.

    ``table``: its number from 1; ``back``: of the upper row.
    """

    table: int
    x_m: float
    y_m: float
    back: bool
    height_m: float


def posts_apart_m(table: GroundTable, slant_m: float) -> float:
    """Return how far apart up the glass front and back posts stand: no further than it is long."""
    return min(table.apart.value_m, slant_m)


def overhang_m(slant_m: float, apart_m: float) -> float:
    """Return how far the glass reaches beyond its posts, below and above alike."""
    return max(0.0, (slant_m - apart_m) / 2)


def hinge_m(slant_m: float, apart_m: float, clearance_m: float, steepest_deg: float) -> float:
    """Return how high the front posts hold the glass so that at the steepest it clears the ground.

    Notes
    -----
    h = clearance + overhang * sin(steepest): tilted about the front posts, the lower edge sinks.
    """
    return clearance_m + overhang_m(slant_m, apart_m) * math.sin(math.radians(steepest_deg))


def legs(slant_m: float, apart_m: float, hinge: float, tilt_deg: float) -> Legs:
    """Return a table's legs at a tilt about its front posts.

    Notes
    -----
    back = hinge + apart * sin(tilt); lowest = hinge - overhang * sin(tilt).
    """
    sine = math.sin(math.radians(tilt_deg))
    over = overhang_m(slant_m, apart_m)
    return Legs(hinge, hinge + apart_m * sine, hinge - over * sine)


def lift_m(apart_m: float, from_deg: float, to_deg: float) -> float:
    """Return how far the back legs grow from one tilt to another; below 0 where they shrink."""
    return apart_m * (math.sin(math.radians(to_deg)) - math.sin(math.radians(from_deg)))


def posts_along(width_m: float, most_apart_m: float) -> tuple[float, ...]:
    """Return where posts stand along a table, metres from its left edge: as few as keep the span.

    Both ends overhang by ``END_SPANS`` of a span: the beam then bends alike over posts and
    between them.
    """
    spans = 1
    while width_m / (spans + 2 * END_SPANS) > most_apart_m * (1 + 1e-9):
        spans += 1
    span = width_m / (spans + 2 * END_SPANS)
    return tuple(END_SPANS * span + i * span for i in range(spans + 1))
