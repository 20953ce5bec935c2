"""Modules held against their siblings of the same light."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
# Own lines: light so alike makes siblings; further off than this is odd, or a fault.
LIKE_LIGHT_FRAC, LEAST_SIBLINGS = 0.03, 3
LOOK_FRAC, ACT_FRAC, DEVIATIONS = 0.05, 0.10, 4.0


@dataclass(frozen=True, slots=True, eq=False)
class BesideSiblings:
    """(m,): kWh of each by its light over the same of its siblings; how many they are.

    NaN where a module has no siblings.  ``odd`` is 0 for fine, 1 for a look, 2 to act.
    """

    ratio: FloatArray
    siblings: NDArray[np.int64]
    odd: NDArray[np.int64]


def beside_siblings(
    made_kwh: FloatArray, light: FloatArray, group: NDArray[np.int64]
) -> BesideSiblings:
    """Return modules beside those of their own group whose light differs by at most 3 %.

    Parameters
    ----------
    made_kwh : (m,) float
        Over the steps that all have readings of.
    light : (m,) float
        What reaches the cells of each meanwhile, in any unit.
    group : (m,) int
        The array each lies on.
    """
    per_light = made_kwh / np.maximum(light, 1e-9)
    many = len(made_kwh)
    ratio, count = np.full(many, np.nan), np.zeros(many, np.int64)
    odd = np.zeros(many, np.int64)
    for m in range(many):
        alike = (group == group[m]) & (np.abs(light / max(light[m], 1e-9) - 1) <= LIKE_LIGHT_FRAC)
        alike[m] = False
        count[m] = int(alike.sum())
        if count[m] < LEAST_SIBLINGS or not np.isfinite(per_light[m]):
            continue
        others = per_light[alike & np.isfinite(per_light)]
        if len(others) < LEAST_SIBLINGS:
            continue
        middle = float(np.median(others))
        scatter = 1.4826 * float(np.median(np.abs(others / middle - 1)))
        ratio[m] = per_light[m] / middle
        off = abs(ratio[m] - 1)
        if off > max(LOOK_FRAC, DEVIATIONS * scatter):
            odd[m] = 2 if off > ACT_FRAC else 1
    return BesideSiblings(ratio, count, odd)
