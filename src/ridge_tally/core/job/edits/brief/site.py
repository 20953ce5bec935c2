"""The edits of where the house stands and which rules hold there, as data."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.code_rules import CodeRuleField
from ridge_tally.core.job.document import CodePack, ColdSchool


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
    """Where the house stands in words; no ``climate_id`` leaves the climate to be guessed."""

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


SiteEdit = SetSiteField | SetColdSchool | SetCodeRule | SetPlace | SetCoordinates | PickPlace
