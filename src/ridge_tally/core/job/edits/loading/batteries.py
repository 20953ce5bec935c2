"""The edits of an option's battery, as data; figures travel as typed."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.ids import OptionId


@dataclass(frozen=True, slots=True)
class SetBattery:
    """Usable kWh, kW and a price as typed; an empty price is not known."""

    option_id: OptionId
    coupling: Coupling
    usable: str
    power: str
    price: str = ""
    kind: Literal["set-battery"] = "set-battery"


@dataclass(frozen=True, slots=True)
class RemoveBattery:
    option_id: OptionId
    kind: Literal["remove-battery"] = "remove-battery"


BatteryEdit = SetBattery | RemoveBattery
