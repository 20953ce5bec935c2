"""What shade, snow, dirt and the back of the modules each come to at the meter."""

from dataclasses import dataclass

from ridge_tally.core.energy.waterfall import Step
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.scenario import Scenario
from ridge_tally.simulation.year import hourly_year, require_year

# In the order in which light meets them.
STEPS = (Step.SHADE, Step.SNOW, Step.DIRT, Step.BACK)


@dataclass(frozen=True, slots=True)
class LossAtMeter:
    """What a step of the light changes at the meter, kWh a year: less below 0, more above."""

    step: Step
    kwh: float


def losses_at_meter(desk: Desk, design: Design) -> tuple[LossAtMeter, ...]:
    """Return for each step the year as it is less the year without it alone.

    They do not add up to what all of them together take: what shade keeps off cannot be dirtied,
    and what would be clipped is not missed.

    Raises
    ------
    MissingDatum
        While no module is in a string.
    """
    require_year(design)
    as_it_is = hourly_year(desk, design)
    there = {s.step for s in as_it_is.stages if abs(s.change_kwh) > 0}

    def change(step: Step) -> float:
        if step not in there:
            return 0.0
        without = hourly_year(desk, design, Scenario(free_of=frozenset({step})))
        return as_it_is.energy_kwh - without.energy_kwh

    return tuple(LossAtMeter(step, change(step)) for step in STEPS)
