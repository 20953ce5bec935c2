"""Microinverters over a plane, and the branch circuits they are joined on."""

import math

from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import Option
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.strings.thread import serpentine

Unit = tuple[PlacedId, ...]


def units_by_plane(option: Option, inputs: int) -> tuple[tuple[Unit, ...], ...]:
    """Return the units of each array, each with the modules on its inputs, row by row.

    A unit never serves two planes; the last of a plane may have inputs left.
    """
    planes = []
    for array in option.arrays:
        ids = [m.id for m in serpentine(present_of(array))]
        planes.append(tuple(tuple(ids[i : i + inputs]) for i in range(0, len(ids), inputs)))
    return tuple(planes)


def branches_of(units: tuple[Unit, ...], most: int) -> tuple[tuple[Unit, ...], ...]:
    """Return units on as few branches as a most allows, as evenly as they go."""
    if not units or most < 1:
        return ()
    many = math.ceil(len(units) / most)
    short, longer = divmod(len(units), many)
    found, start = [], 0
    for branch in range(many):
        size = short + (1 if branch < longer else 0)
        found.append(units[start : start + size])
        start += size
    return tuple(found)


def trunk_rise_v(units: int, unit_a: float, ohm_per_m: float, pitch_m: float) -> float:
    """Return how much the voltage rises along a trunk fed at one end, V.

    Each stretch of the trunk carries the current of all units beyond it: the rises add up to
    n (n + 1) / 2 stretches of one unit's current, there and back.
    """
    return units * (units + 1) / 2 * unit_a * 2 * ohm_per_m * pitch_m
