"""Stands in for a weather service: monthly normals by climate type, no network."""

import math
import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from types import MappingProxyType

from ridge_tally.core.errors import NotFound
from ridge_tally.core.sky.stand_in_year import MonthlyNormals

# Places this far apart in latitude, in height, or by so many doublings of the way to the sea are as
# unlike as each other; our own judgement, no source.
ALIKE_DEG, ALIKE_M, ALIKE_DOUBLINGS = 8.0, 700.0, 2.0


@dataclass(frozen=True, slots=True)
class Climate:
    """A climate type with monthly normals and stand-in design temperatures.

    ``coldest_from_degc`` and ``coldest_to_degc``: between them lies the coldest air of towns to
    which the type is guessed; ``typical``: degrees from the equator, metres up, km from the sea.
    """

    id: str
    title: str
    normals: MonthlyNormals
    coldest_degc: float
    hottest_degc: float
    coldest_from_degc: float
    coldest_to_degc: float
    typical: tuple[float, float, float]


@cache
def climates() -> MappingProxyType[str, Climate]:
    """Return the shipped climate types by id, northern months."""
    text = files("ridge_tally.simulators").joinpath("data/climates.toml").read_text("utf-8")
    table = tomllib.loads(text)
    found = {}
    for key, row in table.items():
        if not isinstance(row, dict):
            continue
        normals = MonthlyNormals(
            name=f"stand-in, {row['title'].lower()}",
            clearness_frac=tuple(row["clearness_frac"]),
            mean_degc=tuple(row["mean_degc"]),
            max_degc=tuple(row["max_degc"]),
            min_degc=tuple(row["min_degc"]),
            wind_m_per_s=tuple(row["wind_m_per_s"]),
        )
        latitude_deg, elevation_m, sea_km = row["typical"]
        found[key] = Climate(
            key,
            row["title"],
            normals,
            row["coldest_degc"],
            row["hottest_degc"],
            row["coldest_from_degc"],
            row["coldest_to_degc"],
            (latitude_deg, elevation_m, sea_km),
        )
    return MappingProxyType(found)


def nearest_climate(latitude_deg: float, elevation_m: float, sea_km: float) -> Climate:
    """Return the type whose typical place is most like one; a guess, marked wherever it serves."""

    def unlike(one: Climate) -> float:
        degrees, metres, km = one.typical
        return math.hypot(
            (abs(latitude_deg) - degrees) / ALIKE_DEG,
            (elevation_m - metres) / ALIKE_M,
            math.log2(max(sea_km, 10.0) / km) / ALIKE_DOUBLINGS,
        )

    return min(climates().values(), key=unlike)


def climate(climate_id: str) -> Climate:
    """Return a climate type.

    Raises
    ------
    NotFound
        If none has that id.
    """
    try:
        return climates()[climate_id]
    except KeyError:
        raise NotFound("climate type", climate_id) from None


def normals_at(climate_id: str, latitude_deg: float) -> MonthlyNormals:
    """Return the monthly normals of a climate type, turned by half a year in the south.

    Raises
    ------
    NotFound
        If no climate type has that id.
    """
    normals = climate(climate_id).normals
    return normals if latitude_deg >= 0 else _turned(normals)


def _turned(normals: MonthlyNormals) -> MonthlyNormals:
    def half_a_year(values: tuple[float, ...]) -> tuple[float, ...]:
        return values[6:] + values[:6]

    return MonthlyNormals(
        normals.name,
        half_a_year(normals.clearness_frac),
        half_a_year(normals.mean_degc),
        half_a_year(normals.max_degc),
        half_a_year(normals.min_degc),
        half_a_year(normals.wind_m_per_s),
    )
