"""Magnetic declination against the world magnetic model's published test values.

Source: test values of the World Magnetic Model 2025 (NOAA/NCEI and BGS, report of December
2024), declination to 0.01°, recalled from memory; and IGRF-14 (IAGA, 2024) through the
package ppigrf, an independent model and code: the two differ by less than the stated error
of the first (about 0.4° in middle latitudes).
"""

from datetime import date, datetime

import ppigrf
import pytest

from ridge_tally.catalogue.gazetteer import declination_deg

NOON = datetime(2026, 10, 12, 12)  # noqa: DTZ001 - the package wants a bare time


@pytest.mark.parametrize(
    ("latitude", "longitude", "published_deg"),
    [(80.0, 0.0, 1.28), (0.0, 120.0, -0.16), (-80.0, -120.0, 68.78)],
)
def test_published_values_at_sea_level_2025(
    latitude: float, longitude: float, published_deg: float
) -> None:
    found = declination_deg(latitude, longitude, 0.0, date(2025, 1, 1))
    assert found == pytest.approx(published_deg, abs=0.005)


@pytest.mark.parametrize(
    ("latitude", "longitude", "elevation_m"),
    [(36.2, -105.6, 2150.0), (43.1, -8.2, 300.0), (-42.4, 146.9, 200.0), (51.5, -0.1, 20.0)],
)
def test_an_independent_model_agrees(latitude: float, longitude: float, elevation_m: float) -> None:
    east, north, _ = ppigrf.igrf(longitude, latitude, elevation_m / 1000, NOON)
    other = ppigrf.ppigrf.np.degrees(ppigrf.ppigrf.np.arctan2(east, north)).item()
    found = declination_deg(latitude, longitude, elevation_m, date(2026, 10, 12))
    assert found == pytest.approx(other, abs=0.4)


@pytest.mark.parametrize("day", [date(2024, 12, 31), date(2030, 1, 2)])
def test_outside_its_years_the_model_says_nothing(day: date) -> None:
    assert declination_deg(36.2, -105.6, 0.0, day) is None
