"""The ways an option stands in the course of a year: its ground tables tilted with the seasons."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.stances import positions_of, tilt_by_day, tilted
from ridge_tally.core.job.array import PlaneArray
from ridge_tally.core.job.document import Job, Option, plane_of
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.rules.array.checks import lay_in


@dataclass(frozen=True, slots=True)
class TiltPositions:
    """Options that differ in the tilt of their tables alone; ``by_day`` (365,) numbers them."""

    options: tuple[Option, ...]
    by_day: NDArray[np.int64]


def stances_of(job: Job, option: Option) -> TiltPositions:
    """Return the ways an option stands; the option itself where no tilt is changed."""
    changed = [tilt_by_day(positions_of(a)) for a in option.arrays if _changes(a)]
    tilts = np.array(changed).reshape(-1, DAYS)
    if not len(tilts):
        return TiltPositions((option,), np.zeros(DAYS, dtype=np.int64))
    ways, by_day = np.unique(tilts, axis=1, return_inverse=True)
    options = tuple(_held(job, option, way.tolist()) for way in ways.T)
    return TiltPositions(options, np.asarray(by_day, dtype=np.int64).ravel())


def held_on(job: Job, option: Option, day: int) -> Option:
    """Return an option as it stands on a day of the year."""
    stances = stances_of(job, option)
    return stances.options[int(stances.by_day[day])]


def _changes(array: PlaneArray) -> bool:
    return len(positions_of(array)) > 1


def _held(job: Job, option: Option, tilts_deg: list[float]) -> Option:
    tilts = iter(tilts_deg)
    return replace(
        option,
        arrays=tuple(
            at_tilt(job, option, a, next(tilts)) if _changes(a) else a for a in option.arrays
        ),
    )


def at_tilt(job: Job, option: Option, array: PlaneArray, tilt_deg: float) -> PlaneArray:
    """Return a ground array of an option held at a tilt."""
    plane = plane_of(job, array.plane_id)
    return tilted(plane, array, lay_in(job, option, array), tilt_deg)
