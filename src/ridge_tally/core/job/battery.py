"""A battery of an option, as given."""

from dataclasses import dataclass
from enum import StrEnum


class Coupling(StrEnum):
    """Where a battery joins: on the inverter's DC side, or beside it with a converter of its own."""

    DC = "dc"
    AC = "ac"


@dataclass(frozen=True, slots=True)
class Battery:
    """What it holds between full and as empty as its maker lets it be, and its power both ways."""

    coupling: Coupling
    usable_kwh: float
    power_kw: float
    price_cents: int | None = None
