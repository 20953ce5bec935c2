"""The simulated year of an option, remembered by what it depends on."""

from ridge_tally.core.energy.year import Plant, YearResult, energy_by_age_kwh, simulate_year
from ridge_tally.core.errors import MissingDatum, RidgeTallyError
from ridge_tally.core.job.document import taking_part
from ridge_tally.rules.design import Design, require_ac
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import load_key
from ridge_tally.simulation.plant import own_point_of, plant_of, wires_at_rating
from ridge_tally.simulation.scenario import AS_IT_IS, Scenario
from ridge_tally.simulation.weather import weather_key, weather_of


def require_strings(design: Design) -> None:
    """Raise MissingDatum while no module is in a string."""
    if not taking_part(design.option):
        raise MissingDatum(
            "string",
            f"Option {design.option.name}",
            "Fill the roof and the strings follow by themselves.",
        )


def require_year(design: Design) -> None:
    """Raise MissingDatum while there can be no year: no module in a string, or nothing makes AC."""
    require_strings(design)
    require_ac(design)


def hourly_year(desk: Desk, design: Design, scenario: Scenario = AS_IT_IS) -> YearResult:
    """Return the steps themselves, as things are or as a scenario has them."""
    return simulated(desk, design, scenario)[0]


def year_or_problem(desk: Desk, design: Design) -> tuple[YearResult | None, str]:
    """Return the hourly year, or nothing and why there is none."""
    try:
        return hourly_year(desk, design), ""
    except RidgeTallyError as error:
        return None, str(error)


def _key(design: Design, scenario: Scenario) -> tuple[object, ...]:
    export_kw = design.job.brief.grid.export_limit_kw if design.job.brief.grid else None
    return (
        weather_key(design.job),
        design.job.survey,
        design.option.arrays,
        design.option.strings,
        own_point_of(design, scenario),
        design.array_sheets,
        design.inverters,
        None if export_kw is None else (export_kw, load_key(design.job)),
        wires_at_rating(design, scenario),
        scenario,
    )


def simulated(
    desk: Desk, design: Design, scenario: Scenario = AS_IT_IS
) -> tuple[YearResult, Plant]:
    """Return the year and what it was worked out for."""

    if scenario.own_point is None:
        require_ac(design)

    def compute() -> tuple[YearResult, Plant]:
        plant = plant_of(desk, design, scenario)
        return simulate_year(plant, weather_of(desk, design.job)), plant

    return desk.years.get(_key(design, scenario), compute)


def yearly_kwh_by_age(desk: Desk, design: Design) -> tuple[float, ...]:
    """Return the kWh of the first year and of each later one, by the hour."""
    _, plant = simulated(desk, design)
    return desk.years.get(
        ("by age", *_key(design, AS_IT_IS)),
        lambda: energy_by_age_kwh(plant, weather_of(desk, design.job)),
    )
