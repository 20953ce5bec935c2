"""The edits a person can make, as data.

A gesture, a typed length, a command-line call and the fix offered by a check are all
one of these; ``services.editing`` applies them.  Lengths and angles travel as typed, so
that the reader in ``core.units`` is the only one that decides what they mean.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.equipment import InverterId, ModuleId
from ridge_tally.core.job.array_edits import ArrayEdit, FillPlane, ToggleModules
from ridge_tally.core.job.battery_edits import BatteryEdit
from ridge_tally.core.job.bench_edits import BenchEdit
from ridge_tally.core.job.brief_edits import BriefEdit
from ridge_tally.core.job.code_rules import CodeRuleField
from ridge_tally.core.job.document import CodePack, ColdSchool
from ridge_tally.core.job.household_edits import HouseholdEdit
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.string_edits import ElectronicsEdit, InverterEdit, StringEdit, ThreadEdit
from ridge_tally.core.job.survey_edits import SurveyEdit
from ridge_tally.core.job.weather_edits import WeatherEdit
from ridge_tally.core.units import LengthUnit


class SiteField(StrEnum):
    """A number of the site that can be typed over."""

    ELEVATION = "elevation"
    UTC_OFFSET = "utc_offset"
    SURVEY_DAY = "survey_day"
    COLDEST = "coldest"
    RECORD_LOW = "record_low"
    HOTTEST = "hottest"


@dataclass(frozen=True, slots=True)
class SetSiteField:
    field: SiteField
    typed: str
    source: str = ""
    kind: Literal["set-site-field"] = "set-site-field"


@dataclass(frozen=True, slots=True)
class SetColdSchool:
    school: ColdSchool
    kind: Literal["set-cold-school"] = "set-cold-school"


@dataclass(frozen=True, slots=True)
class SetCodeRule:
    """A figure held otherwise than the family's, as typed; empty takes the family's again."""

    field: CodeRuleField
    typed: str
    source: str = ""
    kind: Literal["set-code-rule"] = "set-code-rule"


@dataclass(frozen=True, slots=True)
class SetPlace:
    place: str
    climate_id: str
    code_pack: CodePack
    dwelling: bool
    kind: Literal["set-place"] = "set-place"


@dataclass(frozen=True, slots=True)
class SetCoordinates:
    """Latitude and longitude typed together, so that no half-typed place is ever judged."""

    typed: str
    kind: Literal["set-coordinates"] = "set-coordinates"


@dataclass(frozen=True, slots=True)
class PickPlace:
    """A place of the shipped list."""

    place: str
    latitude_deg: float
    longitude_deg: float
    kind: Literal["pick-place"] = "pick-place"


@dataclass(frozen=True, slots=True)
class RenameJob:
    name: str
    kind: Literal["rename-job"] = "rename-job"


@dataclass(frozen=True, slots=True)
class SetUnit:
    unit: LengthUnit
    kind: Literal["set-unit"] = "set-unit"


@dataclass(frozen=True, slots=True)
class ChooseModule:
    option_id: OptionId
    module_id: ModuleId
    kind: Literal["choose-module"] = "choose-module"


@dataclass(frozen=True, slots=True)
class ChoosePlaneModule:
    """Modules of another type on one plane; ``None`` takes the option's there again."""

    option_id: OptionId
    plane_id: PlaneId
    module_id: ModuleId | None
    kind: Literal["choose-plane-module"] = "choose-plane-module"


@dataclass(frozen=True, slots=True)
class ChooseInverter:
    """One inverter in the place of all there are."""

    option_id: OptionId
    inverter_id: InverterId
    kind: Literal["choose-inverter"] = "choose-inverter"


@dataclass(frozen=True, slots=True)
class WishSeriesLength:
    """Modules in series the person wants; ``None`` lets the planner choose."""

    option_id: OptionId
    modules_in_series: int | None
    kind: Literal["wish-series-length"] = "wish-series-length"


RemedyStep = (
    ThreadEdit
    | InverterEdit
    | ElectronicsEdit
    | ChooseModule
    | ChooseInverter
    | ToggleModules
    | FillPlane
)


@dataclass(frozen=True, slots=True)
class TakeRemedy:
    """Several edits of one option as one: what leads out of a trouble, undone in one go."""

    option_id: OptionId
    told: str
    steps: tuple[RemedyStep, ...]
    kind: Literal["take-remedy"] = "take-remedy"


@dataclass(frozen=True, slots=True)
class CopyOption:
    option_id: OptionId
    name: str
    kind: Literal["copy-option"] = "copy-option"


@dataclass(frozen=True, slots=True)
class RenameOption:
    option_id: OptionId
    name: str
    kind: Literal["rename-option"] = "rename-option"


@dataclass(frozen=True, slots=True)
class RemoveOption:
    option_id: OptionId
    kind: Literal["remove-option"] = "remove-option"


Edit = (
    SetSiteField
    | SetColdSchool
    | SetCodeRule
    | SetPlace
    | SetCoordinates
    | PickPlace
    | RenameJob
    | SetUnit
    | ChooseModule
    | ChoosePlaneModule
    | ChooseInverter
    | WishSeriesLength
    | TakeRemedy
    | CopyOption
    | RenameOption
    | RemoveOption
    | ArrayEdit
    | SurveyEdit
    | BriefEdit
    | HouseholdEdit
    | WeatherEdit
    | StringEdit
    | BatteryEdit
    | BenchEdit
)
