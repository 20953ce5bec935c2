"""Which module an option or one of its planes is laid with."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.equipment import ModuleId
from ridge_tally.core.job.ids import OptionId, PlaneId


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


KindEdit = ChooseModule | ChoosePlaneModule
