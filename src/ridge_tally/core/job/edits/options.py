"""The edits of a job's name, its unit and its list of options."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.units import LengthUnit


@dataclass(frozen=True, slots=True)
class RenameJob:
    name: str
    kind: Literal["rename-job"] = "rename-job"


@dataclass(frozen=True, slots=True)
class SetUnit:
    unit: LengthUnit
    kind: Literal["set-unit"] = "set-unit"


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


OptionEdit = RenameJob | SetUnit | CopyOption | RenameOption | RemoveOption
