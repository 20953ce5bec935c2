"""What a design's year spares a house: the difference of two years of bills, for every study that asks."""

from dataclasses import replace

import numpy as np

from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.loading.house import Sun
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import house_load
from ridge_tally.studies.loading.household import house_of, lived_on, sun_of
from ridge_tally.studies.money.house_bills import battery_billed, bills_with, bills_without


def bills_cents(desk: Desk, design: Design, year: YearResult) -> tuple[int, int] | None:
    """Return a year's bills without an array and with it; ``None`` while no use or tariff is known."""
    return _bills_cents(desk, design, sun_of(year))


def saved_of(desk: Desk, design: Design, year: YearResult) -> int | None:
    """Return what a year's bills are less by; ``None`` while no use or no tariff is known."""
    both = bills_cents(desk, design, year)
    return None if both is None else both[0] - both[1]


def lost_behind_cents(desk: Desk, design: Design, year: YearResult, limit_w: float) -> int | None:
    """Return what bills are more by where the inverters together give no more than a limit."""
    sun = sun_of(year)
    held = replace(sun, made_w=np.minimum(sun.made_w, limit_w), limit_w=min(sun.limit_w, limit_w))
    free, behind = _bills_cents(desk, design, sun), _bills_cents(desk, design, held)
    return None if free is None or behind is None else behind[1] - free[1]


def _bills_cents(desk: Desk, design: Design, sun: Sun) -> tuple[int, int] | None:
    job, grid, load = design.job, design.job.brief.grid, house_load(desk, design.job)
    if load is None or grid is None:
        return None
    there = lived_on(design, house_of(desk, job, load), sun, battery_billed(design))
    return bills_without(desk, job, grid, load).year_cents, bills_with(job, grid, there).year_cents
