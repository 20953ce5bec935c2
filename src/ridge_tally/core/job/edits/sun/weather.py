"""The edits of a job's weather, as data; figures travel as typed."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.weather import Monthly, WeatherFileRef


@dataclass(frozen=True, slots=True)
class UseWeatherFile:
    """``far_is_meant`` where somebody was told how far off it was measured, and wants it so."""

    file: WeatherFileRef
    far_is_meant: bool = False
    kind: Literal["use-weather-file"] = "use-weather-file"


@dataclass(frozen=True, slots=True)
class ForgetWeatherFile:
    """Back to the climate's stand-in."""

    kind: Literal["forget-weather-file"] = "forget-weather-file"


@dataclass(frozen=True, slots=True)
class SetMonthly:
    """A month's value as typed, 0 for January; all months without one."""

    quantity: Monthly
    month: int | None
    typed: str
    kind: Literal["set-monthly"] = "set-monthly"


@dataclass(frozen=True, slots=True)
class ResetMonthly:
    """What was typed of a quantity is forgotten."""

    quantity: Monthly
    kind: Literal["reset-monthly"] = "reset-monthly"


WeatherEdit = UseWeatherFile | ForgetWeatherFile | SetMonthly | ResetMonthly
