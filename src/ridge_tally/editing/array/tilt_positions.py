"""The ways an option stands in the course of a year: its ground tables tilted with the seasons."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.stances import positions_of, tilt_by_day, tilted
from ridge_tally.core.job.array import PlaneArray
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import LaidArray, System
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.rules.array.checks import lay_of


@dataclass(frozen=True, slots=True)
class TiltPositions:
    """Options that differ in the tilt of their tables alone; ``by_day`` (365,) numbers them."""

    options: tuple[Option, ...]
    by_day: NDArray[np.int64]


def stances_of(system: System) -> TiltPositions:
    """Return the ways an option stands; the option itself where no tilt is changed."""
    option = system.option
    changed = [tilt_by_day(positions_of(a)) for a in option.arrays if _changes(a)]
    tilts = np.array(changed).reshape(-1, DAYS)
    if not len(tilts):
        return TiltPositions((option,), np.zeros(DAYS, dtype=np.int64))
    ways, by_day = np.unique(tilts, axis=1, return_inverse=True)
    options = tuple(_held(system, way.tolist()) for way in ways.T)
    return TiltPositions(options, np.asarray(by_day, dtype=np.int64).ravel())


def held_on(system: System, day: int) -> Option:
    """Return an option as it stands on a day of the year."""
    stances = stances_of(system)
    return stances.options[int(stances.by_day[day])]


def _changes(array: PlaneArray) -> bool:
    return len(positions_of(array)) > 1


def _held(system: System, tilts_deg: list[float]) -> Option:
    tilts = iter(tilts_deg)
    return replace(
        system.option,
        arrays=tuple(
            at_tilt(laid, next(tilts)) if _changes(laid.array) else laid.array
            for laid in system.arrays
        ),
    )


def at_tilt(laid: LaidArray, tilt_deg: float) -> PlaneArray:
    """Return a ground array held at a tilt."""
    return tilted(laid.plane, laid.array, lay_of(laid), tilt_deg)
