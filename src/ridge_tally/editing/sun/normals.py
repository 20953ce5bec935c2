"""The months a site's stand-in weather is drawn from: the climate's, and what was typed over them."""

from dataclasses import replace

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.weather import Monthly, typed_months
from ridge_tally.core.sky.stand_in_year import MonthlyNormals
from ridge_tally.simulators.weather_service import normals_at

NORMALS = {
    Monthly.CLEARNESS: "clearness_frac",
    Monthly.MEAN_AIR: "mean_degc",
    Monthly.MAX_AIR: "max_degc",
    Monthly.MIN_AIR: "min_degc",
    Monthly.WIND: "wind_m_per_s",
}


def normals_of(job: Job) -> MonthlyNormals:
    """Return the months the stand-in is drawn from: the climate's, and what was typed over them."""
    normals = normals_at(job.site.climate_id, job.site.latitude_deg)
    typed = {
        name: values
        for quantity, name in NORMALS.items()
        if (values := typed_months(job.weather, quantity)) is not None
    }
    if not typed:
        return normals
    return replace(normals, **typed, name=f"{normals.name}, months typed over")
