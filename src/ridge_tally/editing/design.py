"""The shared numbers of an option's rules, at its climate's temperatures."""

from ridge_tally.core.job.document import (
    Job,
    Option,
)
from ridge_tally.rules.design import Design, design_of
from ridge_tally.simulators.weather_service import climate


def design_for(job: Job, option: Option) -> Design:
    """Return the rules' shared numbers, with the climate's stand-in temperatures."""
    stand_in = climate(job.site.climate_id)
    return design_of(job, option, stand_in.coldest_degc, stand_in.hottest_degc)
