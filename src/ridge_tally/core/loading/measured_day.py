"""An array made of one test module's measured day: per watt, mirrored, multiplied, summed, cut."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import kwh_of

FloatArray = NDArray[np.float64]
DAY_H = 24.0
# Our own lines: how much more than one rise and one fall a clear day's curve may go, and how long
# it may stay within half a per cent of its top before it looks cut off.
CLEAR_ROUGHNESS, FLAT_H, NEAR_TOP_FRAC = 0.1, 1.6, 0.995


@dataclass(frozen=True, slots=True)
class DayJudged:
    """How fit a measured day is for the bench.

    ``roughness``: what the curve goes up and down beyond one rise and one fall, as a share of
    them.  ``flat_h``: hours within half a per cent of its top.
    """

    roughness: float
    flat_h: float

    @property
    def clear(self) -> bool:
        """Whether no cloud is seen in it."""
        return self.roughness <= CLEAR_ROUGHNESS

    @property
    def limited(self) -> bool:
        """Whether its top looks cut off by an inverter's limit."""
        return self.flat_h > FLAT_H


@dataclass(frozen=True, slots=True, eq=False)
class BenchSum:
    """(n,) kW of what was summed, and of it what a limit lets through."""

    whole_kw: FloatArray
    given_kw: FloatArray
    step_h: float

    @property
    def whole_kwh(self) -> float:
        """The day's energy without the limit."""
        return kwh_of(self.whole_kw * 1000, self.step_h)

    @property
    def clipped_kwh(self) -> float:
        """What the limit cuts off the day."""
        return kwh_of((self.whole_kw - self.given_kw) * 1000, self.step_h)


def judged(power_w: FloatArray) -> DayJudged:
    """Return how fit a day's equal steps from midnight are.

    Notes
    -----
    A clear day's curve rises once and falls once: the sum of its steps is twice its top.
    """
    top = float(power_w.max())
    if top <= 0:
        return DayJudged(np.inf, 0.0)
    way = float(np.abs(np.diff(power_w, prepend=0.0, append=0.0)).sum())
    flat = float((power_w >= NEAR_TOP_FRAC * top).sum()) * DAY_H / len(power_w)
    return DayJudged(way / (2 * top) - 1.0, flat)


def moved(power: FloatArray, by_h: float) -> FloatArray:
    """Return a day's steps as if its clock had been so many hours later; what leaves it is gone."""
    middles = _middles_h(len(power))
    return np.asarray(np.interp(middles - by_h, middles, power, left=0.0, right=0.0))


def mirrored(power: FloatArray, noon_h: float) -> FloatArray:
    """Return a day's steps mirrored about solar noon: what a module facing the other way gives.

    Parameters
    ----------
    noon_h : float
        Hour of the day, in the same clock, at which the sun stands highest.

    Notes
    -----
    True of two modules of one tilt, as far east as the other is west of the sun's noon, in air
    as clear and as warm in the morning as in the afternoon: hot afternoons give a little less.
    """
    middles = _middles_h(len(power))
    return np.asarray(np.interp(2 * noon_h - middles, middles, power, left=0.0, right=0.0))


def summed(
    per_w: FloatArray,
    terms: tuple[tuple[float, bool], ...],
    noon_h: float,
    limit_kw: float | None,
) -> BenchSum:
    """Return the sum of so many watts of modules each, mirrored where they face the other way.

    Parameters
    ----------
    per_w : (n,) float
        Measured W for each W of the test module's rating.
    """
    other = mirrored(per_w, noon_h)
    whole = np.zeros(len(per_w))
    for watts, turned in terms:
        whole += (other if turned else per_w) * watts / 1000
    given = whole if limit_kw is None else np.minimum(whole, limit_kw)
    return BenchSum(whole, given, DAY_H / len(per_w))


def _middles_h(steps: int) -> FloatArray:
    return (np.arange(steps) + 0.5) * DAY_H / steps
