"""How far the ground falls along a table, and what that asks of its beams."""

from dataclasses import dataclass

from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.rules.build.racked import RackedPlane

# Past the first a level beam is stepped or follows the ground, past the second an engineer looks;
# the tallest step between two piles.  Common practice, no source.
STEPPED_FRAC, ENGINEER_FRAC, STEP_M = 0.10, 0.20, 0.3


@dataclass(frozen=True, slots=True)
class Fall:
    """The fall along a table: ``fall_m`` over ``along_m``; ``steps`` a beam of it is made in."""

    table: int
    fall_m: float
    along_m: float
    steps: int

    @property
    def frac(self) -> float:
        """Fall over length."""
        return self.fall_m / self.along_m if self.along_m else 0.0


def falls_of(plane: RackedPlane) -> tuple[Fall, ...]:
    """Return the fall along each table of a ground array, by what its front piles stand out."""
    if plane.ground is None:
        return ()
    found = []
    for table in sorted({p.table for p in plane.ground.posts}):
        front = [p for p in plane.ground.posts if p.table == table and not p.back]
        fall = max(p.height_m for p in front) - min(p.height_m for p in front)
        along = max(p.x_m for p in front) - min(p.x_m for p in front)
        stepped = bool(along) and fall / along > STEPPED_FRAC
        steps = min(len(front) - 1, int(fall / STEP_M - 1e-9) + 1) if stepped else 0
        found.append(Fall(table, fall, along, steps))
    return tuple(found)


def told_of(fall: Fall, unit: LengthUnit) -> str:
    """Return a fall in words with what it asks."""
    head = (
        f"Table {fall.table}: the ground falls {format_length(fall.fall_m, unit)} over "
        f"{format_length(fall.along_m, unit)} ({fall.frac * 100:.0f} %)"
    )
    if fall.frac > ENGINEER_FRAC:
        return f"{head}. So steep is an engineer’s."
    if not fall.steps:
        return f"{head}: one level beam."
    step = format_length(fall.fall_m / fall.steps, unit)
    many = "one step" if fall.steps == 1 else f"{fall.steps} steps"
    return f"{head}: {many} of {step} between piles, or a beam that follows the ground."
