"""The edits of what stands at an option's modules, as data."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.ids import OptionId, PlacedId


@dataclass(frozen=True, slots=True)
class ChooseElectronics:
    """Another way for the modules to reach the grid; the array stays, the rest follows.

    ``unit_id``: the optimizer or microinverter of the shelf; empty for strings alone.
    """

    option_id: OptionId
    architecture: Architecture
    unit_id: str = ""
    kind: Literal["choose-electronics"] = "choose-electronics"


@dataclass(frozen=True, slots=True)
class FitOptimizers:
    """Add-on optimizers on some modules, or off them."""

    option_id: OptionId
    module_ids: tuple[PlacedId, ...]
    on: bool
    kind: Literal["fit-optimizers"] = "fit-optimizers"


ElectronicsEdit = ChooseElectronics | FitOptimizers
