"""What a module is worth by where it lies, read off a map; and how plain an array's outline is."""

from dataclasses import dataclass

import numpy as np
from scipy.ndimage import map_coordinates

from ridge_tally.core.array.blockers import FloatArray
from ridge_tally.core.array.choose import neighbours
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.job.array import Orientation

# Ends of runs above each other nearer than this are one chalk line.
SAME_END_M = 0.005


@dataclass(frozen=True, slots=True)
class WorthMap:
    """Yearly worth of a module with its middle at the nodes of a lattice; linear between them.

    ``left_m`` and ``low_m`` are those of the first node, ``step_m`` along x and y; ``worth``
    (rows, columns), in any unit.
    """

    left_m: float
    low_m: float
    step_m: tuple[float, float]
    worth: FloatArray

    def at(
        self, lay: Lay, orientation: Orientation, x_m: FloatArray, y_m: FloatArray
    ) -> FloatArray:
        """Return what modules are worth by their lower left corners, of any one shape."""
        column = (x_m + lay.width_m(orientation) / 2 - self.left_m) / self.step_m[0]
        row = (y_m + lay.height_m(orientation) / 2 - self.low_m) / self.step_m[1]
        at = np.broadcast_arrays(row, column)
        return np.asarray(map_coordinates(self.worth, at, order=1, mode="nearest"))


def corners(lay: Lay, places: tuple[Place, ...]) -> int:
    """Return how many corners the outline of the modules has: 4 for a rectangle.

    Notes
    -----
    Each run has four; where one stands on another and they end alike, two of them go.
    """
    beside, above = neighbours(lay, places)
    runs = len(places) - len(beside)
    ends = [0, 0]
    left = set(range(len(places))) - {int(j) for _, j in beside}
    right = set(range(len(places))) - {int(i) for i, _ in beside}
    for low, high in above.tolist():
        one, other = places[low], places[high]
        widths = lay.width_m(one.orientation), lay.width_m(other.orientation)
        ends[0] += {low, high} <= left and abs(one.x_m - other.x_m) < SAME_END_M
        off_m = one.x_m + widths[0] - other.x_m - widths[1]
        ends[1] += {low, high} <= right and abs(off_m) < SAME_END_M
    return 4 * runs - 2 * sum(ends)
