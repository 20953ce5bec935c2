"""The sun's way over a day: where it rises and sets, how long it is up, where it stands by the hour."""

from dataclasses import dataclass

import numpy as np

from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import moments_of_day

# The sun's upper limb stands on the horizon when its middle, as refracted, is this far below.
LIMB_DEG = -0.2667
STEP_MIN = 2
DRAWN_EVERY_MIN = 10


@dataclass(frozen=True, slots=True)
class SunSpot:
    """Where the sun stands at a minute of the day, local standard time, degrees."""

    minute: int
    azimuth_deg: float
    elevation_deg: float


@dataclass(frozen=True, slots=True)
class DayPath:
    """One day: ``spots`` while the sun is up; rise and set are ``None`` where it does neither."""

    day: int
    spots: tuple[SunSpot, ...]
    rise: SunSpot | None
    set: SunSpot | None
    day_length_h: float


def day_path(day: int, location: Location) -> DayPath:
    """Return the sun's path on a day of the year, 0 for the first of January.

    Notes
    -----
    Rise and set by the upper limb with mean refraction, to the minute.
    """
    minutes = np.arange(0, 24 * 60 + 1, STEP_MIN)
    sun = sun_path(moments_of_day(day, minutes), location)
    elevation = 90.0 - sun.zenith_deg
    above = elevation - LIMB_DEG
    up = above > 0
    rises = np.nonzero(~up[:-1] & up[1:])[0]
    sets = np.nonzero(up[:-1] & ~up[1:])[0]

    def crossing(i: int) -> SunSpot:
        share = above[i] / (above[i] - above[i + 1])
        turn = (sun.azimuth_deg[i + 1] - sun.azimuth_deg[i] + 180) % 360 - 180
        return SunSpot(
            round(float(minutes[i] + share * STEP_MIN)),
            float((sun.azimuth_deg[i] + share * turn) % 360),
            0.0,
        )

    drawn = up & (minutes % DRAWN_EVERY_MIN == 0)
    return DayPath(
        day=day,
        spots=tuple(
            SunSpot(int(m), float(a), float(e))
            for m, a, e in zip(
                minutes[drawn], sun.azimuth_deg[drawn], elevation[drawn], strict=True
            )
        ),
        rise=crossing(int(rises[0])) if len(rises) else None,
        set=crossing(int(sets[-1])) if len(sets) else None,
        day_length_h=float(up[:-1].sum() * STEP_MIN / 60),
    )
