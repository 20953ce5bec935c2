"""The shared numbers of an option's rules, at its climate's temperatures."""

from ridge_tally.core.job.document import Job, option_of
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.option import Option
from ridge_tally.rules.design import Design, design_of
from ridge_tally.simulators.weather_service import climate


def design_for(job: Job, option: Option) -> Design:
    """Return an option resolved, with the climate's stand-in temperatures; NotFound as `design_of`."""
    stand_in = climate(job.site.climate_id)
    return design_of(job, option, stand_in.coldest_degc, stand_in.hottest_degc)


def design_in(job: Job, option_id: OptionId) -> Design:
    """Return the option of a job with that id, resolved; NotFound if it has none."""
    return design_for(job, option_of(job, option_id))
