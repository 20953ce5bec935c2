"""The plan of work as a person has it: when it begins, how long steps take, days that are held."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum


class WorkStep(StrEnum):
    """The steps of a job from the first visit to switching on, in their order."""

    SURVEY = "survey"
    DRAWN = "drawn"
    SENT = "sent"
    APPROVED = "approved"
    ORDERED = "ordered"
    DELIVERED = "delivered"
    ROOF = "roof"
    WIRING = "wiring"
    INSPECTION = "inspection"
    METER = "meter"
    ON = "on"


@dataclass(frozen=True, slots=True)
class StepTyped:
    """What a person says of a step: working days, a day it does not begin before, when it was done."""

    step: WorkStep
    days: int | None = None
    not_before: date | None = None
    done_on: date | None = None


@dataclass(frozen=True, slots=True)
class Hold:
    """Days on which nobody works outdoors, the last included, and why: weather, a feast, the crew."""

    from_day: date
    to_day: date
    why: str


@dataclass(frozen=True, slots=True)
class WorkPlan:
    """When the job begins, and what is not as usual; crew hours are those of two people."""

    begins: date | None = None
    steps: tuple[StepTyped, ...] = ()
    holds: tuple[Hold, ...] = ()
    people: int = 2
    hours_a_day: float = 7.0
    saturdays: bool = False
