"""The currents of strings that share a tracker, hour by hour: when their sum passes its limit."""

from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import (
    Job,
    Option,
    inverter_sheets_of,
    plane_of,
    strings_on,
    tracker_inputs,
)
from ridge_tally.core.sky.weather_year import step_h
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


def shared_trackers(desk: Desk, job: Job, option: Option) -> tuple[SharedTracker, ...]:
    """Return the trackers that more than one string shares; none where modules stand alone.

    Raises
    ------
    MissingDatum, OutOfRange
        If a datasheet lacks what the model needs.
    """
    if option.electronics.architecture in (Architecture.SYSTEM, Architecture.MICRO):
        return ()
    inputs = tracker_inputs(inverter_sheets_of(job, option))
    found = []
    loaded = {t.index: t for t in trackers_of(desk, job, option)}
    for at in inputs:
        strings = strings_on(option, at.number)
        if len(strings) < 2:
            continue
        alone = replace(
            option,
            strings=tuple(replace(s, tracker_number=n) for n, s in enumerate(strings, start=1)),
        )
        each = {t.index: t.free_a for t in trackers_of(desk, job, alone)}
        together, limit_a = loaded[at.number - 1].free_a, at.sheet.i_max_a
        days = together.reshape(-1, HOURS)
        over = np.maximum(days - limit_a, 0.0).sum(axis=1)
        day = int(np.argmax(over if over.any() else days.max(axis=1)))
        hours = slice(day * HOURS, (day + 1) * HOURS)
        home = {m.id: a.plane_id for a in option.arrays for m in a.modules}
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
                        " and ".join(
                            dict.fromkeys(plane_of(job, home[m]).name for m in s.module_ids)
                        ),
                        tuple(each[n][hours].tolist()),
                    )
                    for n, s in enumerate(strings)
                ),
            )
        )
    return tuple(found)
