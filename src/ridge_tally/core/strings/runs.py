"""Leads from module to module, and home runs from a string's ends to a box on its plane."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import hypot

from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.ids import BoxId, PlacedId, PlaneId
from ridge_tally.core.job.system import System
from ridge_tally.core.job.wiring import JunctionBox

# What loops and clips take of the two leads that join modules; common practice, no source.
TAKEN_M = 0.2


@dataclass(frozen=True, slots=True)
class Spot:
    """The middle of a module on its plane."""

    plane_id: PlaneId
    x_m: float
    y_m: float


@dataclass(frozen=True, slots=True)
class HomeRun:
    """A conductor from one end of a string to its box, along rails and down the slope."""

    tag: str
    positive: bool
    module_id: PlacedId
    box_id: BoxId
    length_m: float


def spots_of(system: System) -> dict[PlacedId, Spot]:
    """Return where the middle of each module of an option is."""
    spots = {}
    for laid in system.arrays:
        array = laid.array
        for m in array.modules:
            width_m, height_m = module_footprint_m(laid.module, m.orientation, array.leg_tilt_deg)
            spots[m.id] = Spot(array.plane_id, m.x_m + width_m / 2, m.y_m + height_m / 2)
    return spots


def steps_m(module_ids: Sequence[PlacedId], spots: Mapping[PlacedId, Spot]) -> list[float | None]:
    """Return how far each module of a string is from the next, middle to middle.

    ``None`` from one plane to another: the way over an edge is nobody's straight line.
    """
    pairs = pairwise(spots[m] for m in module_ids)
    return [
        hypot(a.x_m - b.x_m, a.y_m - b.y_m) if a.plane_id == b.plane_id else None for a, b in pairs
    ]


def home_run(
    tag: str,
    module_id: PlacedId,
    *,
    positive: bool,
    spots: Mapping[PlacedId, Spot],
    boxes: Sequence[JunctionBox],
) -> HomeRun | None:
    """Return an end's way to the nearest box of its plane; ``None`` where there is no box."""
    at = spots[module_id]
    runs = [
        HomeRun(tag, positive, module_id, b.id, abs(b.x_m - at.x_m) + abs(b.y_m - at.y_m))
        for b in boxes
        if b.plane_id == at.plane_id
    ]
    return min(runs, key=lambda run: run.length_m, default=None)


def home_runs(
    strings: Sequence[tuple[str, Sequence[PlacedId]]],
    spots: Mapping[PlacedId, Spot],
    boxes: Sequence[JunctionBox],
) -> tuple[HomeRun, ...]:
    """Return the home runs of tagged strings, positive end first; ends without a box are left out."""
    found = []
    for tag, ids in strings:
        for positive, module_id in ((True, ids[0]), (False, ids[-1])):
            run = home_run(tag, module_id, positive=positive, spots=spots, boxes=boxes)
            found += [] if run is None else [run]
    return tuple(found)
