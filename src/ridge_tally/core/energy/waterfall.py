"""From sunlight to meter, step by step: what each takes, so that the last is what is left."""

from dataclasses import dataclass
from enum import StrEnum


class Step(StrEnum):
    """Where energy stands after a step; the first is where it begins."""

    SUNLIGHT = "sunlight"
    SHADE = "shade"
    SNOW = "snow"
    DIRT = "dirt"
    GLASS = "glass"
    BACK = "back"
    LOW_LIGHT = "low-light"
    HEAT = "heat"
    UNEVEN = "uneven"
    OPTIMIZERS = "optimizers"
    TRACKER = "tracker"
    MISMATCH = "mismatch"
    AGE = "age"
    WIRING = "wiring"
    CONVERSION = "conversion"
    NIGHT = "night"
    LIMIT = "limit"
    HOT = "hot"
    AC_WIRING = "ac-wiring"
    EXPORT = "export"
    OUTAGE = "outage"


@dataclass(frozen=True, slots=True)
class Stage:
    """A step with what is left after it and what it changed, kWh a year.

    ``share_frac`` is the change as a share of what came in; 0 where nothing did.
    """

    step: Step
    after_kwh: float
    change_kwh: float
    share_frac: float


def waterfall(after_kwh: tuple[tuple[Step, float], ...]) -> tuple[Stage, ...]:
    """Return the stages of energies in order, each told by what it changed."""
    stages = []
    before = None
    for step, after in after_kwh:
        change = 0.0 if before is None else after - before
        share = change / before if before else 0.0
        stages.append(Stage(step, after, change, share))
        before = after
    return tuple(stages)
