"""Microinverters over a plane, and the branch circuits they are joined on."""

import math

from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.system import System
from ridge_tally.core.strings.runs import TAKEN_M, spots_of, steps_m
from ridge_tally.core.strings.thread import serpentine

Unit = tuple[PlacedId, ...]
# Where a sheet is silent; common practice, no source.
USUAL_LEAD_M = 1.0


def units_by_plane(system: System, inputs: int) -> tuple[tuple[Unit, ...], ...]:
    """Return the units of each array, each with the modules on its inputs, row by row.

    A unit never serves two planes, nor modules its leads do not reach from one to the next; some
    inputs are left over there.
    """
    spots = spots_of(system)
    planes = []
    for laid in system.arrays:
        lead_m = laid.module.lead_m or USUAL_LEAD_M
        units: list[Unit] = []
        for m in serpentine(present_of(laid.array)):
            last = units[-1] if units else ()
            near = last and (steps_m((last[-1], m.id), spots)[0] or 0.0) <= 2 * lead_m - TAKEN_M
            if last and near and len(last) < inputs:
                units[-1] = (*last, m.id)
            else:
                units.append((m.id,))
        planes.append(tuple(units))
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
