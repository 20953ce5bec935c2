"""Where the sun of a site, or of a weather file, is reckoned for."""

from ridge_tally.core.job.document import Site
from ridge_tally.core.job.weather import WeatherFileRef
from ridge_tally.core.sky.sun import Location


def location_of(site: Site) -> Location:
    """Return where the sun is reckoned for: at sea level while nobody gave an elevation."""
    elevation_m = site.elevation_m or 0.0
    return Location(site.latitude_deg, site.longitude_deg, elevation_m, site.utc_offset_h)


def located(file: WeatherFileRef, utc_offset_h: float = 0.0) -> Location:
    """Return where a weather file was measured."""
    return Location(file.latitude_deg, file.longitude_deg, file.elevation_m, utc_offset_h)
