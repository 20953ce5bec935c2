"""Tilts changed with the seasons: which angles, from which day, and what they are worth."""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.array import Position
from ridge_tally.core.nominal_year import DAYS

FloatArray = NDArray[np.float64]
# Days on which a change may fall: every so many; nobody loosens a table to the day.
STEP_DAYS = 5


@dataclass(frozen=True, slots=True)
class Positions:
    """Positions in the order of the year, and the energy of the year with them."""

    positions: tuple[Position, ...]
    energy_kwh: float


def best_positions(
    daily_kwh: FloatArray, tilts_deg: FloatArray, count: int, step_days: int = STEP_DAYS
) -> Positions:
    """Return the best so many tilts and the days they begin.

    Parameters
    ----------
    daily_kwh : (t, 365) float
        Energy of each day at each tilt.
    tilts_deg : (t,) float
    count : int
        1 for a tilt that stays.

    Notes
    -----
    Exact on days every ``step_days``: for each first change day a dynamic programme over the
    days after it, each span at its best tilt.
    """
    if count == 1:
        whole = daily_kwh.sum(axis=1)
        best = int(np.argmax(whole))
        return Positions((Position(0, float(tilts_deg[best])),), float(whole[best]))
    days = np.arange(0, DAYS, step_days)
    twice = np.concatenate([daily_kwh, daily_kwh], axis=1)
    sums = np.concatenate([np.zeros((len(tilts_deg), 1)), np.cumsum(twice, axis=1)], axis=1)
    found: Positions | None = None
    for number in range(len(days)):
        start = int(days[number])
        # Edges of a year that begins on that day.
        later = days[number:]
        edges = np.concatenate([later, days[:number] + DAYS, [start + DAYS]])
        at = sums[:, edges]
        n = len(edges)
        spans = at[:, None, :] - at[:, :, None]
        value, which = spans.max(axis=0), spans.argmax(axis=0)
        value[np.tril_indices(n)] = -np.inf
        best = value[0].copy()
        cuts: list[NDArray[np.int64]] = []
        for _ in range(count - 1):
            through = best[:, None] + value
            cuts.append(through.argmax(axis=0))
            best = through.max(axis=0)
        if found is None or best[-1] > found.energy_kwh:
            marks = [n - 1]
            for cut in reversed(cuts):
                marks.append(int(cut[marks[-1]]))
            marks.append(0)
            marks.reverse()
            positions = [
                Position(int(edges[a]) % DAYS, float(tilts_deg[which[a, b]]))
                for a, b in pairwise(marks)
            ]
            found = Positions(tuple(sorted(positions, key=lambda p: p.from_day)), float(best[-1]))
    assert found is not None
    return found
