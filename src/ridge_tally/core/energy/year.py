"""The year of an option: from light on the plane to energy at the meter, hour by hour.

No shade, snow, derating or export limit yet: ``NOT_INCLUDED`` says so wherever the
figures go.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import temperature

from ridge_tally.core.energy.diode_fit import DiodeModel
from ridge_tally.core.energy.inverter import ac_power
from ridge_tally.core.energy.string_power import module_hours, tracker_hours
from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.sky.plane_irradiance import plane_light
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear, month_of

FloatArray = NDArray[np.float64]
NOT_INCLUDED = (
    "no shade from trees, chimneys or neighbours",
    "no snow cover",
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
    """Fractions lost on the DC side besides what is simulated."""

    soiling_frac: float
    mismatch_frac: float
    wiring_frac: float

    @property
    def kept_power_frac(self) -> float:
        """What is left of the power; soiling is taken from the light before it."""
        return (1 - self.mismatch_frac) * (1 - self.wiring_frac)


@dataclass(frozen=True, slots=True)
class StringGroup:
    """Equal strings on one tracker, all on one plane."""

    tracker_index: int
    modules_in_series: int
    strings: int
    tilt_deg: float
    azimuth_deg: float


@dataclass(frozen=True, slots=True)
class Plant:
    """What the year needs to know of an option."""

    location: Location
    diode: DiodeModel
    inverter: InverterSheet
    groups: tuple[StringGroup, ...]
    heat: HeatLoss
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
        8760 hours at the plant's location.

    Notes
    -----
    Light: ``plane_light``.  Cells: Faiman 2008.  Modules: single diode.  Trackers: at the
    maximum-power point inside their window and current.  Inverter: loss quadratic, AC limit.
    """
    sun = sun_path(weather.time, plant.location)
    planes = {}
    for key in {(g.tilt_deg, g.azimuth_deg) for g in plant.groups}:
        light = plane_light(weather, sun, *key)
        cell_degc = temperature.faiman(
            light.poa_w_per_m2, weather.air_degc, weather.wind_m_per_s,
            plant.heat.constant_w_per_m2k, plant.heat.per_wind_w_per_m2k_per_m_per_s,
        )  # fmt: skip
        effective = light.effective_w_per_m2 * (1 - plant.losses.soiling_frac)
        planes[key] = module_hours(plant.diode, effective, cell_degc)
    available_w = np.zeros(len(weather.time))
    taken_w = np.zeros(len(weather.time))
    for group in plant.groups:
        hours = tracker_hours(
            planes[group.tilt_deg, group.azimuth_deg],
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
