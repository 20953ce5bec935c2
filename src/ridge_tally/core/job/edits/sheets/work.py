"""The edits of the plan of work, as data."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.work import WorkStep


class WorkField(StrEnum):
    """What is said of the work as a whole."""

    BEGINS = "begins"
    PEOPLE = "people"
    HOURS_A_DAY = "hours_a_day"
    SATURDAYS = "saturdays"


class StepField(StrEnum):
    """What is said of one step."""

    DAYS = "days"
    NOT_BEFORE = "not_before"
    DONE_ON = "done_on"


@dataclass(frozen=True, slots=True)
class SetWorkField:
    """Saturdays: ``yes`` or nothing."""

    field: WorkField
    typed: str
    kind: Literal["set-work-field"] = "set-work-field"


@dataclass(frozen=True, slots=True)
class SetStepField:
    """Nothing typed takes what was said off again."""

    step: WorkStep
    field: StepField
    typed: str
    kind: Literal["set-step-field"] = "set-step-field"


@dataclass(frozen=True, slots=True)
class HoldDays:
    """Days as they are typed; one day where the last is left out."""

    from_day: str
    to_day: str
    why: str
    kind: Literal["hold-days"] = "hold-days"


@dataclass(frozen=True, slots=True)
class DropHold:
    """By its place from 0."""

    at: int
    kind: Literal["drop-hold"] = "drop-hold"


WorkEdit = SetWorkField | SetStepField | HoldDays | DropHold
