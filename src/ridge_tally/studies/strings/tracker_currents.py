"""The currents of strings that share a tracker, hour by hour: when their sum passes its limit."""

from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import strings_on
from ridge_tally.core.sky.weather_year import step_h
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.plant import trackers_of

HOURS = 24


@dataclass(frozen=True, slots=True)
class StringCurrent:
    """A string's current at its own best through a day, A, from midnight on."""

    tag: str
    planes: str
    amps: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class SharedTracker:
    """A tracker with several strings on the day its limit bites most, or it carries most.

    ``day_of_year`` counts from 0.  ``together_a``: what they carry at their common best, before
    the limit.  ``over_hours`` and ``most_a`` of the whole year.
    """

    number: int
    limit_a: float
    over_hours: float
    most_a: float
    day_of_year: int
    together_a: tuple[float, ...]
    strings: tuple[StringCurrent, ...]


def shared_trackers(desk: Desk, design: Design) -> tuple[SharedTracker, ...]:
    """Return the trackers that more than one string shares; none where modules stand alone.

    Raises
    ------
    MissingDatum, OutOfRange
        If a datasheet lacks what the model needs.
    """
    if design.option.electronics.architecture in (Architecture.SYSTEM, Architecture.MICRO):
        return ()
    found = []
    loaded = {t.index: t for t in trackers_of(desk, design)}
    for at in design.trackers:
        strings = strings_on(design.option, at.number)
        if len(strings) < 2:
            continue
        alone = replace(
            design.option,
            strings=tuple(replace(s, tracker_number=n) for n, s in enumerate(strings, start=1)),
        )
        each = {t.index: t.free_a for t in trackers_of(desk, design_for(design.job, alone))}
        together, limit_a = loaded[at.number - 1].free_a, at.sheet.i_max_a
        days = together.reshape(-1, HOURS)
        over = np.maximum(days - limit_a, 0.0).sum(axis=1)
        day = int(np.argmax(over if over.any() else days.max(axis=1)))
        hours = slice(day * HOURS, (day + 1) * HOURS)
        found.append(
            SharedTracker(
                number=at.number,
                limit_a=limit_a,
                over_hours=float((together > limit_a).sum()) * step_h(len(together)),
                most_a=float(together.max()),
                day_of_year=day,
                together_a=tuple(together[hours].tolist()),
                strings=tuple(
                    StringCurrent(
                        s.tag,
                        design.planes_under(s.module_ids),
                        tuple(each[n][hours].tolist()),
                    )
                    for n, s in enumerate(strings)
                ),
            )
        )
    return tuple(found)
