"""Standard time and places of known towns.

Source: the IANA time zone database (zone names and standard offsets) and the towns'
positions as any atlas gives them, to a tenth of a degree, from memory.
"""

import pytest

from ridge_tally.catalogue.gazetteer import find_places, zone_at
from ridge_tally.core.errors import BadGeometry


@pytest.mark.parametrize(
    ("name", "country", "latitude", "longitude", "zone", "offset_h"),
    [
        ("Denver", "United States", 39.7, -105.0, "America/Denver", -7.0),
        ("Phoenix", "United States", 33.4, -112.1, "America/Phoenix", -7.0),
        ("Madrid", "Spain", 40.4, -3.7, "Europe/Madrid", 1.0),
        ("Lisbon", "Portugal", 38.7, -9.1, "Europe/Lisbon", 0.0),
        ("Dublin", "Ireland", 53.3, -6.2, "Europe/Dublin", 0.0),
        ("Hobart", "Australia", -42.9, 147.3, "Australia/Hobart", 10.0),
        ("Adelaide", "Australia", -34.9, 138.6, "Australia/Adelaide", 9.5),
        ("Kathmandu", "Nepal", 27.7, 85.3, "Asia/Kathmandu", 5.75),
        ("Santiago", "Chile", -33.5, -70.6, "America/Santiago", -4.0),
    ],
)
def test_towns(
    name: str, country: str, latitude: float, longitude: float, zone: str, offset_h: float
) -> None:
    place = next(p for p in find_places(f"{name} {country}") if p.name == name)
    assert (place.latitude_deg, place.longitude_deg) == pytest.approx(
        (latitude, longitude), abs=0.1
    )
    found = zone_at(place.latitude_deg, place.longitude_deg)
    assert (found.name, found.utc_offset_h) == (zone, offset_h)


@pytest.mark.parametrize(("latitude", "longitude"), [(36.2, -35.6), (0.0, 0.0), (-50.0, 90.0)])
def test_the_open_sea_is_told(latitude: float, longitude: float) -> None:
    with pytest.raises(BadGeometry, match=r"open sea.*Check the signs"):
        zone_at(latitude, longitude)


def test_searching_ignores_case_and_accents_and_takes_the_region() -> None:
    assert find_places("malaga")[0].title == "Málaga, Spain"
    assert find_places("santa fe new mexico")[0].title == "Santa Fe, New Mexico, United States"
    assert find_places("SPRINGFIELD mis")[0].region == "Missouri"
    assert find_places("zzzz") == ()
    assert find_places("  ") == ()
