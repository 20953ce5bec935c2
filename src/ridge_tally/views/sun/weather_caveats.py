"""What makes a job's weather less than measured on its site."""

from ridge_tally.core.job.document import Job, Site
from ridge_tally.core.sky.site import located, location_of
from ridge_tally.core.sky.sun import apart_km
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.core.working import degc_text
from ridge_tally.simulators.weather_service import climate

# How far a year's light where a climate is guessed may be from the climate's; from memory.
LIGHT_OFF_FRAC = 0.15


def guessed_climate(site: Site) -> str:
    """Return that a site's climate is a guess from its place, with its figures and their range."""
    guess = climate(site.climate_id)
    coldest, low, high = (
        degc_text(v) for v in (guess.coldest_degc, guess.coldest_from_degc, guess.coldest_to_degc)
    )
    place = "its place" if site.place else "a place nobody has given"
    return (
        f"Climate guessed from {place}, “{guess.title.lower()}”: coldest air {coldest}, "
        f"there between {low} and {high}; a year's light within {LIGHT_OFF_FRAC * 100:.0f} % or so. "
        "Choose a weather file or the climate"
    )


def weather_caveats(job: Job, year: WeatherYear) -> tuple[str, ...]:
    """Return what makes the weather less than measured here, in sentences."""
    ref = job.weather.file
    found = []
    if year.stand_in:
        found.append(f"Weather is a {year.name} climate, drawn, not measured")
        if not job.site.climate_given:
            found.append(guessed_climate(job.site))
    if ref is not None and year.stand_in:
        found.append(f"The weather file {ref.file} is not kept here: choose it again")
    if ref is not None and not year.stand_in:
        away_km = apart_km(location_of(job.site), located(ref))
        found.append(f"Weather was measured at {ref.place}, {away_km:.0f} km from the site")
    return tuple(found)
