"""A sheet with the plan that it draws to scale, where it draws one."""

from dataclasses import dataclass

from ridge_tally.core.sheets.flat_plan import FlatPlan
from ridge_tally.core.sheets.scene import Scene


@dataclass(frozen=True, slots=True)
class Drawn:
    """A sheet; ``plan`` is in metres and is what a drawing file keeps true."""

    scene: Scene
    plan: FlatPlan | None = None
