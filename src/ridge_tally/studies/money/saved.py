"""What a design's year spares a house: the difference of two years of bills, for every study that asks."""

from ridge_tally.core.energy.year import YearResult
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import house_load
from ridge_tally.studies.loading.household import house_of, lived
from ridge_tally.studies.money.house_bills import battery_billed, bills_with, bills_without


def bills_cents(desk: Desk, design: Design, year: YearResult) -> tuple[int, int] | None:
    """Return a year's bills without an array and with it; ``None`` while no use or tariff is known."""
    job, grid, load = design.job, design.job.brief.grid, house_load(desk, design.job)
    if load is None or grid is None:
        return None
    there = lived(design, house_of(desk, job, load), year, battery_billed(design))
    return bills_without(desk, job, grid, load).year_cents, bills_with(job, grid, there).year_cents


def saved_of(desk: Desk, design: Design, year: YearResult) -> int | None:
    """Return what a year's bills are less by; ``None`` while no use or no tariff is known."""
    both = bills_cents(desk, design, year)
    return None if both is None else both[0] - both[1]
