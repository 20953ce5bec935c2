"""Places by name, time zones and magnetic declination by position: all offline.

Places: GeoNames, CC BY 4.0, towns of 15 000 people and more (``tools/make_places.py``).
Time zones: the polygons of the package tzfpy (simplified; near a border check the hours)
with the rules of tzdata.  Declination: the world magnetic model of the package pygeomag.
"""

import gzip
import math
import unicodedata
from dataclasses import dataclass
from datetime import UTC, date, datetime
from functools import cache
from importlib.resources import files
from zoneinfo import ZoneInfo

from pvlib.location import lookup_altitude
from pygeomag import GeoMag
from tzfpy import get_tz

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.document import Site

MAGNETIC_MODEL = "WMM2025, valid 2025 to 2030"
_MODEL_YEARS = (2025.0, 2030.0)
MOST_FOUND = 12
SEA_RINGS_KM, SEA_BEARINGS = (32.0, 60.0, 120.0, 220.0, 420.0, 820.0), 16
KM_PER_DEG, TERRITORIAL_KM = 111.2, 22.0


@dataclass(frozen=True, slots=True)
class Place:
    """A town: region (only where it is known) and country in words."""

    name: str
    region: str
    country: str
    latitude_deg: float
    longitude_deg: float

    @property
    def title(self) -> str:
        """Name, region and country."""
        return ", ".join(part for part in (self.name, self.region, self.country) if part)


@dataclass(frozen=True, slots=True)
class Zone:
    """A time zone and its standard time, hours from UTC."""

    name: str
    utc_offset_h: float


def find_places(typed: str) -> tuple[Place, ...]:
    """Return up to 12 places whose words begin with the words typed, largest first.

    Accents and case do not matter; a name that is exactly what was typed comes first.
    """
    words = _plain(typed).replace(",", " ").split()
    if not words:
        return ()
    found = []
    for key, place in _places():
        parts = key.split()
        if all(any(part.startswith(word) for part in parts) for word in words):
            found.append(place)
    wanted = " ".join(words)
    found.sort(key=lambda p: not _plain(p.name).startswith(wanted))
    return tuple(found[:MOST_FOUND])


def zone_at(latitude_deg: float, longitude_deg: float) -> Zone:
    """Return the time zone of a position on land.

    Standard time is the least offset of the year 2026, which holds on both hemispheres.

    Raises
    ------
    BadGeometry
        If the position is in the open sea.
    """
    name = get_tz(longitude_deg, latitude_deg)
    if not name or name.startswith("Etc/"):
        raise BadGeometry(
            "Latitude, longitude",
            f"{latitude_deg:g}, {longitude_deg:g} is in the open sea",
            "Check the signs: north and east are plus, south and west minus.",
        )
    zone = ZoneInfo(name)
    offsets = [
        datetime(2026, month, 1, tzinfo=UTC).astimezone(zone).utcoffset() for month in range(1, 13)
    ]
    hours = [offset.total_seconds() / 3600 for offset in offsets if offset is not None]
    return Zone(name, min(hours))


def ground_guess_m(latitude_deg: float, longitude_deg: float) -> float:
    """Return about how high the land lies, from the coarse grid the library pvlib ships."""
    return max(0.0, float(lookup_altitude(latitude_deg, longitude_deg)))


@cache
def sea_km(latitude_deg: float, longitude_deg: float) -> float:
    """Return about how far the open sea is: the nearest ring on which some of it lies.

    A zone of the open sea begins twelve nautical miles off the coast.
    """
    for ring_km in SEA_RINGS_KM:
        for turn in range(SEA_BEARINGS):
            bearing = 2 * math.pi * turn / SEA_BEARINGS
            north_deg = ring_km * math.cos(bearing) / KM_PER_DEG
            shrink = max(0.1, math.cos(math.radians(latitude_deg)))
            east_deg = ring_km * math.sin(bearing) / KM_PER_DEG / shrink
            name = get_tz((longitude_deg + east_deg + 180) % 360 - 180, latitude_deg + north_deg)
            if not name or name.startswith("Etc/"):
                return max(10.0, ring_km - TERRITORIAL_KM)
    return SEA_RINGS_KM[-1] * 1.5


def declination_deg(
    latitude_deg: float, longitude_deg: float, elevation_m: float, day: date
) -> float | None:
    """Return how far magnetic north lies east of true north; ``None`` outside the model's years.

    Source: world magnetic model 2025 (valid 2025.0 to 2030.0), stated error about 0.4°.
    """
    start = date(day.year, 1, 1)
    year = day.year + (day - start).days / ((date(day.year + 1, 1, 1) - start).days)
    if not _MODEL_YEARS[0] <= year <= _MODEL_YEARS[1]:
        return None
    field = _model().calculate(latitude_deg, longitude_deg, elevation_m / 1000, year)
    return float(field.d)


def site_declination_deg(site: Site) -> float | None:
    """Return the declination on the day of the survey; ``None`` without a day or a model for it."""
    if site.survey_day is None:
        return None
    return declination_deg(
        site.latitude_deg, site.longitude_deg, site.elevation_m or 0.0, site.survey_day
    )


@cache
def _model() -> GeoMag:
    return GeoMag(coefficients_file="wmm/WMM_2025.COF")


@cache
def _places() -> tuple[tuple[str, Place], ...]:
    packed = files("ridge_tally.catalogue").joinpath("data/places.tsv.gz").read_bytes()
    found = []
    for line in gzip.decompress(packed).decode().splitlines():
        name, region, country, latitude, longitude = line.split("\t")
        place = Place(name, region, country, float(latitude), float(longitude))
        found.append((_plain(place.title).replace(",", " "), place))
    return tuple(found)


def _plain(text: str) -> str:
    """Return text without case and accents."""
    parts = unicodedata.normalize("NFKD", text.casefold())
    return "".join(c for c in parts if not unicodedata.combining(c))
