"""What each tracker loses in a year: to uneven light, to mixing, and to its own limits."""

from dataclasses import dataclass, replace

from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.trackers import LoadedTracker, taken
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import strings_on
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.sky.weather_year import step_h
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.plant import trackers_of

# What tells modules apart that should not share a string or a tracker: plane, string's length.
Sort = tuple[PlaneId, int]


@dataclass(frozen=True, slots=True)
class TrackerLosses:
    """A tracker's year before the inverter, kWh DC, by the hour.

    ``own_kwh``: every part of every module at its own best.  ``uneven_kwh``: lost to one current
    in a string and one voltage on the tracker, of it ``mixed_kwh`` because modules of several
    planes or strings of several lengths share it, ``None`` where they are all of a sort.
    ``limits_kwh``: lost to its window and current, over which it is for ``over_hours``.
    """

    number: int
    own_kwh: float
    uneven_kwh: float
    mixed_kwh: float | None
    limits_kwh: float
    over_hours: float


def tracker_losses(desk: Desk, design: Design) -> tuple[TrackerLosses, ...]:
    """Return what each tracker with strings loses in the year.

    Raises
    ------
    MissingDatum, OutOfRange
        If a datasheet lacks what the model needs.
    """
    if design.option.electronics.architecture in (Architecture.SYSTEM, Architecture.MICRO):
        # Every module has its own point: nothing is lost to the company it keeps.
        return ()
    losses = []
    for loaded in sorted(trackers_of(desk, design), key=lambda t: t.index):
        at = design.trackers[loaded.index]
        hours = step_h(len(loaded.free_w))
        own, free = kwh_of(loaded.own_w, hours), kwh_of(loaded.free_w, hours)
        amps = loaded.free_a
        apart = _apart(desk, design, at.number)
        losses.append(
            TrackerLosses(
                number=at.number,
                own_kwh=own,
                uneven_kwh=own - free,
                mixed_kwh=None
                if apart is None
                else sum(kwh_of(t.free_w, hours) for t in apart) - free,
                limits_kwh=free - kwh_of(taken(loaded, at).power_w, hours),
                over_hours=float((amps > at.sheet.i_max_a).sum()) * hours,
            )
        )
    return tuple(losses)


def _apart(desk: Desk, design: Design, number: int) -> tuple[LoadedTracker, ...] | None:
    """Return a tracker's modules as if each sort had a tracker of its own; ``None`` with one sort."""
    home = {m.id: a.plane_id for a in design.option.arrays for m in a.modules}
    by_sort: dict[Sort, list[tuple[PlacedId, ...]]] = {}
    for string in strings_on(design.option, number):
        length = len(string.module_ids)
        for plane_id in dict.fromkeys(home[m] for m in string.module_ids):
            ids = tuple(m for m in string.module_ids if home[m] == plane_id)
            by_sort.setdefault((plane_id, length), []).append(ids)
    if len(by_sort) < 2:
        return None
    strings = tuple(
        ModuleString(f"{n}.{i}", n, ids)
        for n, mine in enumerate(by_sort.values(), start=1)
        for i, ids in enumerate(mine)
    )
    return trackers_of(desk, design_for(design.job, replace(design.option, strings=strings)))
