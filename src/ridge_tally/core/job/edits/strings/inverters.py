"""The edits of an option's inverters, as data."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.equipment import InverterId
from ridge_tally.core.job.ids import OptionId


@dataclass(frozen=True, slots=True)
class ChooseInverter:
    """One inverter in the place of all there are."""

    option_id: OptionId
    inverter_id: InverterId
    kind: Literal["choose-inverter"] = "choose-inverter"


@dataclass(frozen=True, slots=True)
class AddInverter:
    """One more inverter beside those there are."""

    option_id: OptionId
    inverter_id: InverterId
    kind: Literal["add-inverter"] = "add-inverter"


@dataclass(frozen=True, slots=True)
class ChangeInverter:
    """Another inverter in the place of one, numbered from 1."""

    option_id: OptionId
    unit_number: int
    inverter_id: InverterId
    kind: Literal["change-inverter"] = "change-inverter"


@dataclass(frozen=True, slots=True)
class RemoveInverter:
    """An inverter, numbered from 1, is taken away; its strings are planned anew."""

    option_id: OptionId
    unit_number: int
    kind: Literal["remove-inverter"] = "remove-inverter"


@dataclass(frozen=True, slots=True)
class UseDcInput:
    """Generic DC input as typed, volts, amperes and watts, in the place of all inverters.

    So the sums of any series-parallel array can be checked; it makes no AC and has no year.
    """

    option_id: OptionId
    most_v: str
    most_a: str
    most_w: str
    strings: str
    kind: Literal["use-dc-input"] = "use-dc-input"


InverterEdit = ChooseInverter | AddInverter | ChangeInverter | RemoveInverter | UseDcInput
