"""An option's array on a plane."""

from dataclasses import replace

from ridge_tally.core.job.array import (
    PlaneArray,
    empty_array,
)
from ridge_tally.core.job.document import (
    Option,
)
from ridge_tally.core.job.ids import PlaneId


def array_of(option: Option, plane_id: PlaneId) -> PlaneArray:
    """Return the option's array on a plane, an empty one where it has none."""
    found = (a for a in option.arrays if a.plane_id == plane_id)
    return next(found, empty_array(plane_id))


def with_array(option: Option, array: PlaneArray) -> Option:
    """Return the option with that array on its plane."""
    if all(a.plane_id != array.plane_id for a in option.arrays):
        return replace(option, arrays=(*option.arrays, array))
    arrays = tuple(array if a.plane_id == array.plane_id else a for a in option.arrays)
    return replace(option, arrays=arrays)
