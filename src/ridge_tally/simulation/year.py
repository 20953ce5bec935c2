"""The simulated year of an option, remembered by what it depends on."""

from ridge_tally.core.energy.year import Plant, YearResult, energy_by_age_kwh, simulate_year
from ridge_tally.core.errors import MissingDatum, RidgeTallyError
from ridge_tally.core.job.document import (
    Job,
    Option,
    inverter_sheets_of,
    sheets_on_planes,
    taking_part,
)
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import load_key
from ridge_tally.simulation.plant import own_point_of, plant_of, weather_for
from ridge_tally.simulation.scenario import AS_IT_IS, Scenario
from ridge_tally.simulation.weather import weather_key, weather_of


def require_strings(option: Option) -> None:
    """Raise MissingDatum while no module is in a string."""
    if not taking_part(option):
        raise MissingDatum(
            "string", f"Option {option.name}", "Fill the roof and the strings follow by themselves."
        )


def hourly_year(desk: Desk, job: Job, option: Option, scenario: Scenario = AS_IT_IS) -> YearResult:
    """Return the steps themselves, as things are or as a scenario has them."""
    return simulated(desk, job, option, scenario)[0]


def year_or_problem(desk: Desk, job: Job, option: Option) -> tuple[YearResult | None, str]:
    """Return the hourly year, or nothing and why there is none."""
    try:
        return hourly_year(desk, job, option), ""
    except RidgeTallyError as error:
        return None, str(error)


def _key(job: Job, option: Option, scenario: Scenario) -> tuple[object, ...]:
    export_kw = job.brief.grid.export_limit_kw if job.brief.grid else None
    return (
        weather_key(job),
        job.survey,
        option.arrays,
        option.strings,
        own_point_of(job, option, scenario),
        sheets_on_planes(job, option),
        inverter_sheets_of(job, option),
        None if export_kw is None else (export_kw, load_key(job)),
        scenario,
    )


def simulated(
    desk: Desk, job: Job, option: Option, scenario: Scenario = AS_IT_IS
) -> tuple[YearResult, Plant]:
    """Return the year and what it was worked out for."""

    def compute() -> tuple[YearResult, Plant]:
        plant = plant_of(desk, job, option, scenario)
        return simulate_year(plant, weather_for(desk, job, scenario)), plant

    return desk.years.get(_key(job, option, scenario), compute)


def yearly_kwh_by_age(desk: Desk, job: Job, option: Option) -> tuple[float, ...]:
    """Return the kWh of the first year and of each later one, by the hour."""
    _, plant = simulated(desk, job, option)
    return desk.years.get(
        ("by age", *_key(job, option, AS_IT_IS)),
        lambda: energy_by_age_kwh(plant, weather_of(desk, job)),
    )
