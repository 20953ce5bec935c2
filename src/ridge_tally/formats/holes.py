"""Holes in an hourly year, filled from the days beside them."""

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
# Ten days: a year with more holes than this is none.
MOST_HOLES = 240


def filled(column: FloatArray, holes: NDArray[np.bool_]) -> FloatArray:
    """Return hours with each hole the mean of the same hour a day before and after."""
    out = column.copy()
    for i in np.nonzero(holes)[0]:
        for days in range(1, 30):
            beside = [(i + s * 24 * days) % len(column) for s in (-1, 1)]
            whole = [column[j] for j in beside if not holes[j]]
            if whole:
                out[i] = float(np.mean(whole))
                break
    return out
