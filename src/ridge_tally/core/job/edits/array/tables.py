"""The edits of ground tables, as data; lengths and angles travel as typed."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.array import Position
from ridge_tally.core.job.ids import OptionId, PlaneId


class TableField(StrEnum):
    """A figure of the tables of a ground array."""

    ROWS = "rows"
    CLEARANCE = "clearance"
    ALONG = "along"
    APART = "apart"


@dataclass(frozen=True, slots=True)
class SetTableField:
    """One figure of the tables; ``lay_anew``: other tables may lay every module anew."""

    option_id: OptionId
    plane_id: PlaneId
    field: TableField
    typed: str
    lay_anew: bool = False
    kind: Literal["set-table-field"] = "set-table-field"


@dataclass(frozen=True, slots=True)
class SetSeasons:
    """Tilts a ground array is changed between, its posts staying; one stays all year."""

    option_id: OptionId
    plane_id: PlaneId
    positions: tuple[Position, ...]
    kind: Literal["set-seasons"] = "set-seasons"


class SeasonField(StrEnum):
    """A figure of one of the tilts of the year."""

    FROM_DAY = "from_day"
    TILT = "tilt"


@dataclass(frozen=True, slots=True)
class SetSeasonField:
    """One figure of a tilt of the year, numbered from 1 in the order of the year."""

    option_id: OptionId
    plane_id: PlaneId
    number: int
    field: SeasonField
    typed: str
    kind: Literal["set-season-field"] = "set-season-field"


@dataclass(frozen=True, slots=True)
class SpaceRows:
    """Rows as far apart as leaves them the shortest day's sun from 9 to 15 h."""

    option_id: OptionId
    plane_id: PlaneId
    kind: Literal["space-rows"] = "space-rows"


@dataclass(frozen=True, slots=True)
class FillBays:
    """Every bay left free gets its module."""

    option_id: OptionId
    kind: Literal["fill-bays"] = "fill-bays"


TableEdit = SetTableField | SetSeasons | SetSeasonField | SpaceRows | FillBays
