"""What a year is weighed by: all of it, a half of it, or some hours of each day."""

import re
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.sky.weather_year import hour_of, month_of

# April to September: the sunny half in the north, the dark one in the south.
NORTHERN_SUMMER = (3, 4, 5, 6, 7, 8)
NOON = 12


class Season(StrEnum):
    """The parts of a year that are weighed."""

    YEAR = "year"
    WINTER = "winter"
    SUMMER = "summer"
    MORNINGS = "mornings"
    AFTERNOONS = "afternoons"
    HOURS = "hours"


@dataclass(frozen=True, slots=True)
class Weighing:
    """Which steps count; hours from and to (24) of standard time where it is by hours."""

    season: Season = Season.YEAR
    from_h: int = 0
    to_h: int = 24

    @property
    def title(self) -> str:
        """What it is called: ``16 to 21 h``."""
        if self.season is Season.HOURS:
            return f"{self.from_h} to {self.to_h} h"
        return {
            Season.YEAR: "the year",
            Season.WINTER: "winter half",
            Season.SUMMER: "summer half",
            Season.MORNINGS: "mornings",
            Season.AFTERNOONS: "afternoons",
        }[self.season]


WHOLE_YEAR = Weighing()


def parse_weighing(typed: str) -> Weighing:
    """Return what ``year``, ``winter``, ``mornings`` or hours such as ``16-21`` mean.

    Raises
    ------
    NotUnderstood
        If it is none of them.
    """
    text = typed.strip().lower() or Season.YEAR.value
    found = re.fullmatch(r"(\d{1,2})\s*(?:-|–|to)\s*(\d{1,2})\s*h?", text)
    if found and 0 <= int(found[1]) < int(found[2]) <= 24:
        return Weighing(Season.HOURS, int(found[1]), int(found[2]))
    if text not in set(Season) or text == Season.HOURS.value:
        expected = "year, winter, summer, mornings, afternoons, or hours such as 16-21"
        raise NotUnderstood("Weighed by", typed, expected)
    return Weighing(Season(text))


def counted(
    time: NDArray[np.datetime64], weighing: Weighing, *, southern: bool
) -> NDArray[np.bool_]:
    """Return (n,): which steps of a year count."""
    sunny = np.isin(month_of(time), NORTHERN_SUMMER) != southern
    hours = hour_of(time)
    match weighing.season:
        case Season.YEAR:
            return np.ones(len(time), np.bool_)
        case Season.WINTER:
            return np.asarray(~sunny)
        case Season.SUMMER:
            return np.asarray(sunny)
        case Season.MORNINGS:
            return np.asarray(hours < NOON)
        case Season.AFTERNOONS:
            return np.asarray(hours >= NOON)
        case Season.HOURS:
            return np.asarray((hours >= weighing.from_h) & (hours < weighing.to_h))
