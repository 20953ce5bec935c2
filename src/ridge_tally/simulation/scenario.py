"""What a year is worked out for besides what is there."""

from dataclasses import dataclass

from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import (
    MicroinverterSheet,
    OptimizerSheet,
)
from ridge_tally.core.job.ids import PlacedId


@dataclass(frozen=True, slots=True)
class OwnPoint:
    """Converters at modules: optimizers at those named, or one kind of unit at all of them."""

    unit: OptimizerSheet | MicroinverterSheet
    module_ids: tuple[PlacedId, ...] = ()


@dataclass(frozen=True, slots=True)
class Scenario:
    """What a year is worked out for besides what is there.

    ``without``: the number of an owner of shade that is thought away.  ``darkest``: the darkest
    cells of each substring rule it, instead of the mean of its light.  ``free_of``: steps of the
    light that are thought away.  ``own_point``: converters at the modules, in the place of what
    the option has there; ``strung``: none there.
    """

    without: int | None = None
    darkest: bool = False
    free_of: frozenset[Step] = frozenset()
    own_point: OwnPoint | None = None
    strung: bool = False


AS_IT_IS = Scenario()
