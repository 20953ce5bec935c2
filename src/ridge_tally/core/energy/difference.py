"""Why one year gives more than another: the difference shared out over the steps to the meter."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ridge_tally.core.energy.waterfall import Stage, Step


@dataclass(frozen=True, slots=True)
class StepDifference:
    """What a step makes the other year give more (below 0: less), kWh at the meter."""

    step: Step
    kwh: float


def differences(base: Sequence[Stage], other: Sequence[Stage]) -> tuple[StepDifference, ...]:
    """Return what each step does to the difference of two years; together they are all of it.

    Empty where a year has nothing left after a step, so that no share can be told.

    Notes
    -----
    Each step multiplies what came in; its part is L * ln(ratio of the factors), L the logarithmic
    mean of the two years.  Nothing is left over.  Source: the logarithmic mean Divisia index,
    Ang, Energy Policy 32 (2004) 1131; from memory.
    """
    ends = base[-1].after_kwh, other[-1].after_kwh
    if any(s.after_kwh <= 0 for s in (*base, *other)):
        return ()
    mean = _log_mean(*ends)
    one, two = _factors(base), _factors(other)
    steps = [s for s in Step if s in one or s in two]
    return tuple(
        StepDifference(s, mean * math.log(two.get(s, 1.0) / one.get(s, 1.0))) for s in steps
    )


def _factors(stages: Sequence[Stage]) -> dict[Step, float]:
    """Return what each step multiplies by; the first one is its energy itself."""
    found, before = {}, 1.0
    for stage in stages:
        found[stage.step] = stage.after_kwh / before
        before = stage.after_kwh
    return found


def _log_mean(one: float, two: float) -> float:
    if math.isclose(one, two, rel_tol=1e-12):
        return one
    return (two - one) / math.log(two / one)
