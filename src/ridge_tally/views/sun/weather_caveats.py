"""What makes a job's weather less than measured on its site."""

from ridge_tally.core.job.document import Job
from ridge_tally.core.sky.site import located, location_of
from ridge_tally.core.sky.sun import apart_km
from ridge_tally.core.sky.weather_year import WeatherYear


def weather_caveats(job: Job, year: WeatherYear) -> tuple[str, ...]:
    """Return what makes the weather less than measured here, in sentences."""
    ref = job.weather.file
    found = []
    if year.stand_in:
        found.append(f"Weather is a {year.name} climate, drawn, not measured")
    if ref is not None and year.stand_in:
        found.append(f"The weather file {ref.file} is not kept here: choose it again")
    if ref is not None and not year.stand_in:
        away_km = apart_km(location_of(job.site), located(ref))
        found.append(f"Weather was measured at {ref.place}, {away_km:.0f} km from the site")
    return tuple(found)
