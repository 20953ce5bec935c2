"""When the household uses its energy, as given; and days on which sending out is paid well."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum


class DayShape(StrEnum):
    """How a household's day runs, while nobody metered it by the hour."""

    HOME = "home"
    OUT = "out"
    CAR = "car"
    HEAT_PUMP = "heat-pump"


@dataclass(frozen=True, slots=True)
class LoadFileRef:
    """A kept file of metered use by its content's SHA-256, and what it comes to in a year."""

    sha256: str
    file: str
    first_day: date
    energy_kwh: float


@dataclass(frozen=True, slots=True)
class PaidEvents:
    """A few days a year on which energy sent out in some hours of standard time is paid well."""

    days: int
    from_h: int
    to_h: int
    cents_per_kwh: float


@dataclass(frozen=True, slots=True)
class Household:
    """The day's shape under the bills, or the metered year in their place."""

    shape: DayShape = DayShape.HOME
    load_file: LoadFileRef | None = None
    events: PaidEvents | None = None
