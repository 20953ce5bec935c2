"""The year of an option: from light on its strings to energy at the meter, hour by hour.

No derating or export limit yet, and light even along each string: ``NOT_INCLUDED`` says so
wherever the figures go.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import temperature

from ridge_tally.core.energy.diode_fit import DiodeModel
from ridge_tally.core.energy.inverter import ac_power
from ridge_tally.core.energy.string_power import module_hours, tracker_hours
from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.sky.weather_year import WeatherYear, month_of

FloatArray = NDArray[np.float64]
NOT_INCLUDED = (
    "what uneven shade inside a string costs beyond its share of the light",
    "no derating of the inverter by heat or altitude",
    "clipping on hourly means, which understates it",
)


@dataclass(frozen=True, slots=True)
class HeatLoss:
    """Faiman's two heat-loss factors of a mounting: W/m²K and W/m²K per m/s of wind."""

    constant_w_per_m2k: float
    per_wind_w_per_m2k_per_m_per_s: float


@dataclass(frozen=True, slots=True)
class DcLosses:
    """Fractions of the power lost on the DC side besides what is simulated."""

    mismatch_frac: float
    wiring_frac: float

    @property
    def kept_power_frac(self) -> float:
        """What is left of the power."""
        return (1 - self.mismatch_frac) * (1 - self.wiring_frac)


@dataclass(frozen=True, slots=True, eq=False)
class StringGroup:
    """Equal strings on one tracker in the same light.

    ``warming_w_per_m2`` (n,) is what falls on the glass and heats it, ``effective_w_per_m2``
    (n,) what reaches the cells, front and back, after shade, dirt and snow.
    """

    tracker_index: int
    modules_in_series: int
    strings: int
    warming_w_per_m2: FloatArray
    effective_w_per_m2: FloatArray
    heat: HeatLoss


@dataclass(frozen=True, slots=True, eq=False)
class Plant:
    """What the year needs to know of an option."""

    diode: DiodeModel
    inverter: InverterSheet
    groups: tuple[StringGroup, ...]
    losses: DcLosses


@dataclass(frozen=True, slots=True)
class YearResult:
    """(8760,) hours in W, and twelve months in kWh.

    ``dc_w`` is what the trackers could take; ``ac_unlimited_w`` what the inverter would give
    without its AC limit; ``ac_w`` what reaches the meter (night draw negative).
    """

    dc_w: FloatArray
    ac_unlimited_w: FloatArray
    ac_w: FloatArray
    monthly_kwh: tuple[float, ...]
    tracker_loss_kwh: float

    @property
    def energy_kwh(self) -> float:
        """Energy at the meter in the year."""
        return float(self.ac_w.sum() / 1000)

    @property
    def clipped_w(self) -> FloatArray:
        """What the AC limit cuts off, hour by hour."""
        return self.ac_unlimited_w - self.ac_w

    @property
    def clipped_kwh(self) -> float:
        """What the AC limit cuts off in the year."""
        return float(self.clipped_w.sum() / 1000)

    @property
    def clipped_frac(self) -> float:
        """Share of the unlimited energy that is cut off."""
        whole = float(np.maximum(self.ac_unlimited_w, 0).sum())
        return float(self.clipped_w.sum()) / whole if whole > 0 else 0.0

    @property
    def clipped_hours(self) -> int:
        """Hours of the year at the limit."""
        return int((self.clipped_w > 0).sum())


def simulate_year(plant: Plant, weather: WeatherYear) -> YearResult:
    """Return the hourly year of a plant.

    Parameters
    ----------
    plant : Plant
        At least one string group; without one the year is the inverter's night draw.
    weather : WeatherYear
        The same hours as the groups' light.

    Notes
    -----
    Cells: Faiman 2008.  Modules: single diode.  Trackers: at the maximum-power point inside
    their window and current.  Inverter: loss quadratic, AC limit.
    """
    available_w = np.zeros(len(weather.time))
    taken_w = np.zeros(len(weather.time))
    for group in plant.groups:
        cell_degc = temperature.faiman(
            group.warming_w_per_m2, weather.air_degc, weather.wind_m_per_s,
            group.heat.constant_w_per_m2k, group.heat.per_wind_w_per_m2k_per_m_per_s,
        )  # fmt: skip
        hours = tracker_hours(
            module_hours(plant.diode, group.effective_w_per_m2, cell_degc),
            group.modules_in_series,
            group.strings,
            plant.inverter.trackers[group.tracker_index],
            plant.inverter.v_start_v,
        )
        available_w += hours.available_w
        taken_w += hours.taken_w
    dc_w = taken_w * plant.losses.kept_power_frac
    ac = ac_power(dc_w, plant.inverter)
    monthly = np.bincount(month_of(weather.time), weights=ac.delivered_w, minlength=12) / 1000
    return YearResult(
        dc_w=dc_w,
        ac_unlimited_w=ac.unlimited_w,
        ac_w=ac.delivered_w,
        monthly_kwh=tuple(float(m) for m in monthly),
        tracker_loss_kwh=float((available_w - taken_w).sum() / 1000),
    )
