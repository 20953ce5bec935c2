"""What a house needs in a year, by its bills and the loads to come, and what a kWh is worth to it."""

from dataclasses import dataclass

from ridge_tally.core.brief.bills import (
    ReadBill,
    Usage,
    read_bills,
    usage_of_bills,
    usage_of_year,
)
from ridge_tally.core.brief.loads import LoadYear, heating_shares, load_year
from ridge_tally.core.job.brief import HeatPumpLoad, Load
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.grid import small_unit
from ridge_tally.editing.sun.normals import normals_of
from ridge_tally.rules import tables


@dataclass(frozen=True, slots=True)
class Need:
    """A house's use in a year; ``usage`` and ``energy_kwh`` are ``None`` where nobody gave any.

    ``loads`` are those to come, in the order of the brief; ``energy_kwh`` is the use with them.
    """

    bills: tuple[ReadBill, ...]
    usage: Usage | None
    loads: tuple[tuple[Load, LoadYear], ...]
    energy_kwh: float | None
    monthly_kwh: tuple[float, ...]


def need_of(job: Job) -> Need:
    """Return what the house needs; it never fails on what was typed."""
    brief, southern = job.brief, job.site.latitude_deg < 0
    tariff = brief.grid.tariff if brief.grid is not None else None
    bills = read_bills(brief.bills, tariff, month_first=month_first(job))
    usage = usage_of_bills(bills, southern=southern)
    if usage is None and brief.use_kwh_per_year is not None:
        usage = usage_of_year(brief.use_kwh_per_year)
    loads = _loads(job)
    parts = [year.monthly_kwh for _, year in loads]
    parts += [usage.monthly_kwh] if usage is not None else []
    return Need(
        bills,
        usage,
        loads,
        None if usage is None else usage.energy_kwh + sum(year.energy_kwh for _, year in loads),
        tuple(sum(month) for month in zip(*parts, strict=True)) or (0.0,) * 12,
    )


def _loads(job: Job) -> tuple[tuple[Load, LoadYear], ...]:
    table = tables.load("fuel-energy")
    heating = heating_shares(normals_of(job).mean_degc)
    found = []
    for load in job.brief.loads:
        kwh_per_unit, unit = 0.0, ""
        if isinstance(load, HeatPumpLoad):
            kwh_per_unit = table.number("kwh_per_unit", fuel=load.fuel.value)
            unit = table.text("unit", fuel=load.fuel.value)
        found.append((load, load_year(load, heating, kwh_per_unit, unit)))
    return tuple(found)


def bills_include_old_array(job: Job, usage: Usage | None) -> bool | None:
    """Return whether the bills are already less what an old array made; ``None``: cannot tell.

    They are when every old array was built in a year before the first bill; without bills
    the typed figure is taken as what was bought.
    """
    arrays = job.brief.already.arrays
    if usage is None or usage.first_day is None or not arrays:
        return bool(arrays)
    latest = max(a.built_year for a in arrays)
    if latest == usage.first_day.year:
        return None
    return latest < usage.first_day.year


def small_money(job: Job) -> str:
    """Return what prices of a kWh are typed and told in: cents, pence."""
    grid = job.brief.grid
    return small_unit(grid.currency if grid is not None else "")
