"""What a design's year spares a house: the difference of two years of bills, for every study that asks."""

from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.job.document import battery_joined
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import house_load
from ridge_tally.studies.loading.household import house_of, lived
from ridge_tally.studies.money.house_bills import saved_cents


def saved_of(desk: Desk, design: Design, year: YearResult) -> int | None:
    """Return what a year's bills are less by; ``None`` while no use or no tariff is known."""
    load = house_load(desk, design.job)
    if load is None or design.job.brief.grid is None:
        return None
    there = lived(design, house_of(desk, design.job, load), year, battery_joined(design.option))
    return saved_cents(desk, design.job, load, there)
