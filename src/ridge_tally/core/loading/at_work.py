"""How hard an inverter works: hours and energy by load, and how many sizes do at their best."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.inverter import InverterModel, efficiency_at
from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.year import YearResult

FloatArray = NDArray[np.float64]
BANDS = 10
# An inverter is at its best within this of its highest efficiency; our own line.
NEAR_BEST_FRAC = 0.003
# Sizes looked at beside the one there is, as shares of it.
SIZES = (0.6, 0.8, 1.0, 1.2, 1.5)


@dataclass(frozen=True, slots=True)
class LoadBand:
    """Load between two shares of the rating: hours a year, kWh, and the efficiency there."""

    from_frac: float
    to_frac: float
    hours: float
    kwh: float
    efficiency_frac: float
    best: bool


@dataclass(frozen=True, slots=True)
class SizeAtWork:
    """An inverter of another size with the same curve: hours at its best, and what it keeps.

    ``efficiency_frac`` is of the year's energy before any limit.
    """

    size_frac: float
    rating_kw: float
    best_hours: float
    efficiency_frac: float


@dataclass(frozen=True, slots=True)
class AtWork:
    """The year of an inverter by load, and of other sizes of it."""

    bands: tuple[LoadBand, ...]
    best_from_frac: float
    best_to_frac: float
    sizes: tuple[SizeAtWork, ...]


def at_work(year: YearResult, side: InverterModel) -> AtWork:
    """Return how hard a year's inverters work; several of them are taken as alike."""
    loads = np.linspace(0.01, 1.0, 100)
    curve = efficiency_at(loads, side)
    near = loads[curve >= curve.max() - NEAR_BEST_FRAC]
    edges = np.linspace(0.0, 1.0, BANDS + 1)
    load = np.clip(year.ac_rated_w / year.limit_w, 0.0, 1.0)
    works = load > 0
    which = np.minimum((load * BANDS).astype(np.int64), BANDS - 1)
    bands = []
    for k in range(BANDS):
        mine = works & (which == k)
        middle = efficiency_at(np.array([(edges[k] + edges[k + 1]) / 2]), side)[0]
        bands.append(
            LoadBand(
                float(edges[k]),
                float(edges[k + 1]),
                float(mine.sum()) * year.hours,
                kwh_of(year.ac_rated_w[mine], year.hours),
                float(middle),
                bool(near[0] < edges[k + 1] and near[-1] > edges[k]),
            )
        )
    return AtWork(
        tuple(bands),
        float(near[0]),
        float(near[-1]),
        tuple(_of_size(year, size, loads, curve, near) for size in SIZES),
    )


def _of_size(
    year: YearResult, size: float, loads: FloatArray, curve: FloatArray, near: FloatArray
) -> SizeAtWork:
    """Return another size of the same inverter, its own limit cutting what it cuts."""
    rating_w = year.limit_w * size
    dc_load = loads / curve
    load = np.interp(year.dc_w / rating_w, dc_load, loads, left=0.0)
    offered = np.minimum(year.dc_w, rating_w * dc_load[-1])
    works = load > 0
    best = works & (load >= near[0]) & (load <= near[-1])
    made, taken = load[works].sum() * rating_w, offered[works].sum()
    return SizeAtWork(
        size,
        rating_w / 1000,
        float(best.sum()) * year.hours,
        float(made / taken) if taken > 0 else 0.0,
    )
