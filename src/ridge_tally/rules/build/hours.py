"""Crew hours for the racking: counts over stated rates, an estimate that is typed over."""

from dataclasses import dataclass

from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.racking import CrewTask
from ridge_tally.core.units import M_PER_FT, LengthUnit
from ridge_tally.rules import tables
from ridge_tally.rules.build.racked import RackedPlane, rail_length_m
from ridge_tally.rules.design import Design

# A roof nobody looked at is reckoned as the commonest.
USUAL_COVERING = "shingle"


@dataclass(frozen=True, slots=True)
class HoursRow:
    """A task: how much of it, what is done in an hour, the hours; ``typed``: the rate is the firm's."""

    task: CrewTask
    what: str
    amount: float
    per_hour: float
    hours: float
    typed: bool


def crew_hours(design: Design, planes: tuple[RackedPlane, ...]) -> tuple[HoursRow, ...]:
    """Return the hours of a crew of two, task by task; none while no plane has its mounts."""
    ready = [p for p in planes if p.mounts]
    if not ready:
        return ()
    amounts: list[tuple[CrewTask, str, str, float]] = []
    for plane in ready:
        mounts = float(plane.mounts)
        covering = plane.laid.plane.structure.covering
        on = USUAL_COVERING if covering is None else covering.value
        if plane.ground is not None:
            amounts.append((CrewTask.PILES, "ground", f"Piles, {plane.laid.plane.name}", mounts))
        else:
            amounts.append((CrewTask.MOUNTS, on, f"Mounts, {plane.laid.plane.name}", mounts))
    feet = design.job.unit is LengthUnit.FOOT
    each_m = M_PER_FT if feet else 1.0
    rails = "Rails, feet" if feet else "Rails, metres"
    amounts.append((CrewTask.RAILS, "any", rails, sum(map(rail_length_m, ready)) / each_m))
    modules = sum(len(present_of(p.laid.array)) for p in ready)
    amounts.append((CrewTask.MODULES, "any", "Modules", float(modules)))
    own = {r.task: r.per_hour for r in design.option.racking.rates}
    table = tables.load("crew-rates")
    rows = []
    for task, on, what, amount in amounts:
        rate = own.get(task)
        per_hour = table.number("value", task=task.value, on=on) if rate is None else rate
        if task is CrewTask.RAILS:
            per_hour /= each_m
        rows.append(HoursRow(task, what, amount, per_hour, amount / per_hour, rate is not None))
    return tuple(rows)
