"""The year's energy if hard edges of shade ruled it: what it comes to at least."""

from dataclasses import dataclass

from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.scenario import Scenario
from ridge_tally.simulation.year import hourly_year, require_year


@dataclass(frozen=True, slots=True)
class ShadeBand:
    """The year's energy if the darkest cells of each substring ruled it, kWh: at least so much."""

    energy_least_kwh: float


def shade_band(desk: Desk, design: Design) -> ShadeBand:
    """Return what the year comes to at least.

    The year takes each substring on its mean light: true of soft shade and of shade across both
    halves of a half-cut module; a hard edge over few cells is nearer to the darkest.

    Raises
    ------
    MissingDatum
        When no module is in a string.
    """
    require_year(design)
    return ShadeBand(hourly_year(desk, design, Scenario(darkest=True)).energy_kwh)
