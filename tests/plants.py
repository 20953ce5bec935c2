"""Plants of a few even strings, for tests of the year."""

import numpy as np

from ridge_tally.core.energy.inverter import ac_side
from ridge_tally.core.energy.trackers import LoadedTracker, drawn_by_strings
from ridge_tally.core.energy.year import Losses, Plant
from ridge_tally.core.equipment import InverterSheet, TrackerSheet, Warming
from ridge_tally.core.job.system import tracker_inputs
from ridge_tally.core.sky.weather_year import WeatherYear

# A cabinet that settles in forty minutes, 25 K above the air at its rating.
USUAL = Warming(25.0, 40.0)
# A tracker that stands in nobody's way.
WIDE = TrackerSheet(1.0, 5000.0, 1e6, None, 4)


def string_plant(
    trackers: tuple[LoadedTracker, ...],
    inverter: InverterSheet,
    weather: WeatherYear,
    losses: Losses | None = None,
    cloud: np.ndarray | None = None,
) -> Plant:
    """Strings on a string inverter."""
    return Plant(
        drawn_by_strings(trackers, tracker_inputs((inverter,)), len(weather.time)),
        (ac_side(inverter, USUAL),),
        losses or Losses(),
        cloud=cloud,
    )
