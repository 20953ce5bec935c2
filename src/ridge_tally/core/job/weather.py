"""The weather a job is reckoned with: a kept file, or months typed over the climate's stand-in."""

from dataclasses import dataclass
from enum import StrEnum

MONTHS = 12


class Monthly(StrEnum):
    """A quantity given month by month."""

    CLEARNESS = "clearness"
    MEAN_AIR = "mean_air"
    MAX_AIR = "max_air"
    MIN_AIR = "min_air"
    WIND = "wind"
    REFLECTION = "reflection"
    SOILING = "soiling"
    SNOWFALL = "snowfall"


@dataclass(frozen=True, slots=True)
class MonthlyValues:
    """Twelve values, January first: fractions, °C, m/s, or centimetres of snow."""

    quantity: Monthly
    values: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class WeatherFileRef:
    """A kept weather file by its content's SHA-256, and where it says it was measured."""

    sha256: str
    file: str
    place: str
    latitude_deg: float
    longitude_deg: float
    elevation_m: float


@dataclass(frozen=True, slots=True)
class JobWeather:
    """``months`` holds what somebody typed; every other quantity is the climate's or usual."""

    file: WeatherFileRef | None = None
    months: tuple[MonthlyValues, ...] = ()


def typed_months(weather: JobWeather, quantity: Monthly) -> tuple[float, ...] | None:
    """Return the twelve values typed for a quantity; ``None`` where nobody did."""
    return next((m.values for m in weather.months if m.quantity is quantity), None)
