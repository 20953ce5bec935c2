"""Stands in for a weather service: monthly normals by climate type, no network."""

import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from types import MappingProxyType

from ridge_tally.core.errors import NotFound
from ridge_tally.core.sky.stand_in_year import MonthlyNormals


@dataclass(frozen=True, slots=True)
class Climate:
    """A climate type with monthly normals and stand-in design temperatures."""

    id: str
    title: str
    normals: MonthlyNormals
    coldest_degc: float
    hottest_degc: float


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
        found[key] = Climate(key, row["title"], normals, row["coldest_degc"], row["hottest_degc"])
    return MappingProxyType(found)


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
