"""The edits of a household's day, as data; figures travel as typed."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.household import DayShape, LoadFileRef


@dataclass(frozen=True, slots=True)
class SetDayShape:
    shape: DayShape
    kind: Literal["set-day-shape"] = "set-day-shape"


@dataclass(frozen=True, slots=True)
class UseLoadFile:
    """Metered hours in the place of the bills."""

    file: LoadFileRef
    kind: Literal["use-load-file"] = "use-load-file"


@dataclass(frozen=True, slots=True)
class ForgetLoadFile:
    """Back to the bills and a shape."""

    kind: Literal["forget-load-file"] = "forget-load-file"


@dataclass(frozen=True, slots=True)
class SetPaidEvents:
    """Days a year, hours such as ``17-20`` and cents a kWh; no days: none."""

    days: str
    hours: str
    cents: str
    kind: Literal["set-paid-events"] = "set-paid-events"


HouseholdEdit = SetDayShape | UseLoadFile | ForgetLoadFile | SetPaidEvents
