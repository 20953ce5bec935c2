"""A brief that cannot be is refused with field, value and what is allowed."""

from dataclasses import replace

import pytest

from jobs import SAMPLE, SHELF
from ridge_tally.core.errors import BadGeometry, NotFound, OutOfRange, RidgeTallyError
from ridge_tally.core.job.brief import BillRow, Brief, HeatPumpLoad, OtherLoad
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.brief.needs import AddExisting
from ridge_tally.core.job.grid import RateTier
from ridge_tally.core.job.ids import BillId, LoadId
from ridge_tally.core.job.service import Service
from ridge_tally.editing.apply import apply_edit
from ridge_tally.rules.document import require_sound

BRIEF = SAMPLE.brief
GRID = BRIEF.grid
assert GRID is not None
WITH_OLD = apply_edit(SAMPLE, AddExisting(), SHELF).brief
(OLD,) = WITH_OLD.already.arrays
LOAD = LoadId("load9")
PUMP = HeatPumpLoad(LOAD, "pump", "gas-kwh", 9000, 0.9, 3.0)
OTHER = OtherLoad(LOAD, "pool", 1800, 5, 9)


def job_with(**change: object) -> Job:
    return replace(SAMPLE, brief=replace(BRIEF, **change))


def grid_with(**change: object) -> Job:
    return job_with(grid=replace(GRID, **change))


def route_with(**change: object) -> Job:
    return grid_with(routes=(replace(GRID.routes[0], **change), GRID.routes[1]))


def old_with(**change: object) -> Job:
    return job_with(already=replace(WITH_OLD.already, arrays=(replace(OLD, **change),)))


def test_the_sample_and_an_empty_brief_are_sound() -> None:
    require_sound(SAMPLE)
    require_sound(replace(SAMPLE, brief=Brief()))


@pytest.mark.parametrize(
    ("job", "error", "says"),
    [
        (job_with(bills=tuple(BillRow(BillId(f"b{i}"), "", "", "", "") for i in range(13))), BadGeometry, "13 rows"),
        (job_with(use_kwh_per_year=-1.0), OutOfRange, "Use in a year, kWh reads -1"),
        (job_with(target=replace(BRIEF.target, share_frac=9.0)), OutOfRange, "Share of the use reads 9"),
        (job_with(target=replace(BRIEF.target, budget_cents=-5)), OutOfRange, "Budget"),
        (job_with(target=replace(BRIEF.target, price_cents_per_w=0.1)), OutOfRange, "Price of a watt"),
        (job_with(target=replace(BRIEF.target, yield_kwh_per_kw=90.0)), OutOfRange, "Yield"),
        (job_with(wishes=replace(BRIEF.wishes, growth_modules=-1)), OutOfRange, "grow by reads -1"),
        (job_with(wishes=replace(BRIEF.wishes, no_go_planes=("attic",))), NotFound, "attic"),
        (job_with(already=replace(BRIEF.already, battery_kwh=-2.0)), OutOfRange, "Battery, kWh"),
        (job_with(already=replace(BRIEF.already, generator_kw=900.0)), OutOfRange, "Generator"),
        (job_with(loads=(replace(PUMP, seasonal_cop=0.5),)), OutOfRange, "pump, seasonal COP"),
        (job_with(loads=(replace(PUMP, burner_efficiency_frac=3.0),)), OutOfRange, "pump, burner"),
        (job_with(loads=(replace(OTHER, last_month=13),)), OutOfRange, "pool, last month reads 13"),
        (job_with(loads=(replace(OTHER, name=""),)), OutOfRange, "name of Load"),
        (old_with(p_dc_kw=0.0), OutOfRange, "Old array, DC kW"),
        (old_with(built_year=1900), OutOfRange, "Old array, built in reads 1900"),
        (old_with(plane_ids=("attic",)), NotFound, "attic"),
        (grid_with(ac_cap_kw_per_phase=0.0), OutOfRange, "Inverter cap for a phase"),
        (grid_with(export_limit_kw=-1.0), OutOfRange, "Export limit"),
        (grid_with(volts_per_phase_v=12.0), OutOfRange, "Volts of a phase"),
        (grid_with(tariff=replace(GRID.tariff, tax_frac=1.5)), OutOfRange, "Tax reads 1.5"),
        (grid_with(tariff=replace(GRID.tariff, tiers=())), BadGeometry, "last one open"),
        (grid_with(tariff=replace(GRID.tariff, tiers=(RateTier(500.0, 12.0),))), BadGeometry, "has an end"),
        (grid_with(rebate=replace(GRID.rebate, most_dc_ac_ratio=0.1)), OutOfRange, "DC over AC"),
        (route_with(weeks=-1.0), OutOfRange, "notify route, weeks"),
        (route_with(imposed_export_kw=-1.0), OutOfRange, "notify route, imposed export"),
        (replace(SAMPLE, survey=replace(SAMPLE.survey, service=Service(phases=5))), OutOfRange, "Phases reads 5"),
        (replace(SAMPLE, survey=replace(SAMPLE.survey, service=Service(busbar_a=3.0))), OutOfRange, "Busbar"),
    ],
)  # fmt: skip
def test_refusals(job: Job, error: type[RidgeTallyError], says: str) -> None:
    with pytest.raises(error, match=says):
        require_sound(job)
