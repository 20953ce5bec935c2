"""How modules reach the grid: strings alone, with optimizers, or an inverter at each."""

from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.equipment import MicroinverterId, OptimizerId
from ridge_tally.core.job.ids import PlacedId


class Architecture(StrEnum):
    """The kinds of electronics between a module and the grid."""

    STRINGS = "strings"
    ADD_ON = "add-on-optimizers"
    SYSTEM = "system-optimizers"
    MICRO = "microinverters"


@dataclass(frozen=True, slots=True)
class Electronics:
    """What stands at the modules: nothing, a kind of optimizer, or a kind of microinverter.

    ``fitted``: the modules with an add-on optimizer; a system has one at every module.
    """

    architecture: Architecture = Architecture.STRINGS
    optimizer_id: OptimizerId | None = None
    microinverter_id: MicroinverterId | None = None
    fitted: tuple[PlacedId, ...] = ()
