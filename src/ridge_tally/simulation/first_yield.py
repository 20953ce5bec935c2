"""The first guess of a yield: a share of the light on the glass, before anything is simulated."""

from ridge_tally.core.job.document import Job
from ridge_tally.core.sky.plane_irradiance import light_parts
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sun import sun_path
from ridge_tally.core.sky.weather_year import month_of
from ridge_tally.core.sun.shading import Glass
from ridge_tally.rules import tables
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.weather import weather_key, weather_of


def monthly_guess(desk: Desk, job: Job, glass: Glass) -> tuple[float, ...]:
    """Return kWh for each kW and month: a share of the light on a glass."""
    location = location_of(job.site)

    def compute() -> tuple[float, ...]:
        weather = weather_of(desk, job)
        light = light_parts(
            weather, sun_path(weather.time, location), glass.slope_deg, glass.azimuth_deg
        )
        months = month_of(weather.time)
        share = tables.load("first-yield").number("performance_frac")
        return tuple(
            float(light.poa_w_per_m2[months == month].sum()) / 1000 * share for month in range(12)
        )

    key = (weather_key(job), glass)
    return desk.guesses.get(key, compute)
