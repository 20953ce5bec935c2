"""How modules are to be laid on a plane, and a module where it lies."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from itertools import count

from ridge_tally.core.job.array import Orientation


@dataclass(frozen=True, slots=True)
class Lay:
    """A module's size, the gaps it keeps, and what its rows must look like.

    ``shortest_run``: each run of touching modules in a row has at least so many.
    ``axis_m``: the x about which every row is to be its own mirror image; ``None`` for any.
    ``leg_tilt_deg``: how much steeper than the plane legs hold the modules.  ``tiers``: module
    rows on each table; a place is then that of its lowest module, and a row one of tables.
    """

    long_m: float
    short_m: float
    gap_in_row_m: float
    gap_between_rows_m: float
    shortest_run: int = 1
    axis_m: float | None = None
    leg_tilt_deg: float = 0.0
    tiers: int = 1

    def width_m(self, orientation: Orientation) -> float:
        """Return the width along the eave."""
        return self.short_m if orientation is Orientation.PORTRAIT else self.long_m

    def height_m(self, orientation: Orientation) -> float:
        """Return what the plane sees of the height: on legs less than the glass is long."""
        return self.table_m(orientation) * math.cos(math.radians(self.leg_tilt_deg))

    def tier_m(self, orientation: Orientation) -> float:
        """Return how far up the glass one tier of a table begins above the one below."""
        return self.glass_m(orientation) + self.gap_in_row_m

    def table_m(self, orientation: Orientation) -> float:
        """Return the height of all of a table's glass."""
        return self.tiers * self.tier_m(orientation) - self.gap_in_row_m

    def glass_m(self, orientation: Orientation) -> float:
        """Return the height of the glass itself."""
        return self.long_m if orientation is Orientation.PORTRAIT else self.short_m

    def pitch_m(self, orientation: Orientation) -> float:
        """Return the width and the gap beside it."""
        return self.width_m(orientation) + self.gap_in_row_m


@dataclass(frozen=True, slots=True)
class Place:
    """A module's lower left corner on its plane, metres, and the way round it lies.

    ``up_m``: how high posts hold that corner over the ground; 0 on a roof.
    """

    x_m: float
    y_m: float
    orientation: Orientation
    up_m: float = 0.0


@dataclass(frozen=True, slots=True)
class Fill:
    """Where the modules go, row by row from the eave, and a count no such layout can pass."""

    places: tuple[Place, ...]
    at_most: int

    @property
    def count(self) -> int:
        """How many modules are placed."""
        return len(self.places)

    @property
    def proven(self) -> bool:
        """Whether no layout of this kind holds more."""
        return self.count == self.at_most


def after_steps(most: int) -> Callable[[], bool]:
    """Return what tells that it was asked more often than that: so much work, on any machine."""
    asked = count(1)
    return lambda: next(asked) > most


def never() -> bool:
    """Return that it goes on: searches ask it where nobody waits."""
    return False
