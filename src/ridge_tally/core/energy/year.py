"""The year of an option: from light on its substrings to energy at the meter, hour by hour.

No derating or export limit yet: ``NOT_INCLUDED`` says so wherever the figures go.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import temperature

from ridge_tally.core.energy.diode_fit import DiodeModel
from ridge_tally.core.energy.inverter import clipped_by_minutes_w, unlimited_ac_w
from ridge_tally.core.energy.waterfall import Stage, Step, waterfall
from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.kernels import strings as kernel
from ridge_tally.core.sky.weather_year import WeatherYear, month_of

FloatArray = NDArray[np.float64]
NOT_INCLUDED = ("no derating of the inverter by heat or altitude",)


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
class LitString:
    """A string on its tracker, with the light on it.

    ``reaching_w_per_m2`` (m, n) is what reaches the cells of its m substrings, module by module,
    front and back, after shade, dirt and snow; ``warming_w_per_m2`` (n,) what falls on its glass
    and heats it; ``direct_frac`` (n,) is the beam's share of its light.
    ``on_glass`` holds, in W/m² (n,), the mean light of its modules as it is left
    by each step from the free sky to the cells.
    """

    tracker_index: int
    modules: int
    reaching_w_per_m2: FloatArray
    warming_w_per_m2: FloatArray
    direct_frac: FloatArray
    on_glass: tuple[tuple[Step, FloatArray], ...]
    heat: HeatLoss


@dataclass(frozen=True, slots=True, eq=False)
class LoadedTracker:
    """Strings on one tracker and where they would stand without its limits; (n,) W and V.

    ``cool_w`` and ``own_w``: all substrings each at its own best, at 25 °C and as warm as they
    are.  ``free_w`` at ``volts_v``: the strings' best together; ``opens_v``: where they open.
    """

    index: int
    strings: tuple[LitString, ...]
    light_w_per_m2: FloatArray
    starts: NDArray[np.int64]
    cells_degc: FloatArray
    ref: FloatArray
    cool_w: FloatArray
    own_w: FloatArray
    free_w: FloatArray
    volts_v: FloatArray
    opens_v: FloatArray
    even: NDArray[np.bool_]


@dataclass(frozen=True, slots=True, eq=False)
class Plant:
    """What the year needs to know of an option."""

    module_w: float
    inverter: InverterSheet
    trackers: tuple[LoadedTracker, ...]
    losses: DcLosses
    beam_quantiles: FloatArray


@dataclass(frozen=True, slots=True)
class YearResult:
    """(8760,) hours in W, and twelve months in kWh.

    ``dc_w`` is what the trackers could take; ``ac_unlimited_w`` what the inverter would give
    without its AC limit; ``ac_w`` what reaches the meter (night draw negative), every hour taken
    as even.  ``direct_frac`` and ``beam_quantiles`` say how far its minutes may differ.
    """

    dc_w: FloatArray
    ac_unlimited_w: FloatArray
    ac_w: FloatArray
    tracker_dc_w: tuple[FloatArray, ...]
    monthly_kwh: tuple[float, ...]
    stages: tuple[Stage, ...]
    limit_w: float
    direct_frac: FloatArray
    beam_quantiles: FloatArray

    @property
    def clipped_most_kwh(self) -> float:
        """What the limit would cut if in every hour the sun came and went as under broken cloud.

        The year lies between this and ``clipped_kwh``, which takes every hour as even.
        """
        cut = clipped_by_minutes_w(
            self.ac_unlimited_w, self.direct_frac, self.beam_quantiles, self.limit_w
        )
        return float(cut.sum() / 1000)

    @property
    def energy_kwh(self) -> float:
        """Energy at the meter in the year."""
        return float(self.ac_w.sum() / 1000)

    @property
    def tracker_loss_kwh(self) -> float:
        """What the trackers' windows, currents and start voltages cost."""
        return -next(s.change_kwh for s in self.stages if s.step is Step.TRACKER)

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


def diode_reference(diode: DiodeModel, substrings: int) -> FloatArray:
    """Return (7,): the module's diode as the kernels take it."""
    return np.array(
        [
            diode.light_current_a,
            diode.saturation_current_a,
            diode.series_ohm,
            diode.shunt_ohm,
            diode.thermal_v,
            diode.alpha_isc_a_per_degc,
            float(substrings),
        ]
    )


def cell_degc(warming_w_per_m2: FloatArray, weather: WeatherYear, heat: HeatLoss) -> FloatArray:
    """Return (n,) cell temperature: Faiman 2008."""
    return np.asarray(
        temperature.faiman(
            warming_w_per_m2,
            weather.air_degc,
            weather.wind_m_per_s,
            heat.constant_w_per_m2k,
            heat.per_wind_w_per_m2k_per_m_per_s,
        )
    )


def loaded_tracker(
    index: int,
    strings: Sequence[LitString],
    diode: DiodeModel,
    substrings: int,
    weather: WeatherYear,
) -> LoadedTracker:
    """Return strings on a tracker, worked out as far as its own limits do not count.

    Notes
    -----
    Substrings by the single diode of De Soto et al. 2006, a bypass diode over each; strings on
    one current, parallel strings on one voltage.  See ``core.kernels.strings``.
    """
    light = np.ascontiguousarray(np.concatenate([s.reaching_w_per_m2 for s in strings]))
    starts = np.cumsum([0, *(len(s.reaching_w_per_m2) for s in strings)])
    cells = np.array([cell_degc(s.warming_w_per_m2, weather, s.heat) for s in strings])
    ref = diode_reference(diode, substrings)
    free = kernel.free_year(light, starts, cells, ref)
    return LoadedTracker(index, tuple(strings), light, starts, cells, ref, *free)


def taken_w(tracker: LoadedTracker, inverter: InverterSheet) -> FloatArray:
    """Return (n,) W: what the tracker draws at the best point its window and current allow.

    Nothing where the strings open below the window or the start voltage.
    """
    sheet = inverter.trackers[tracker.index]
    taken, _ = kernel.limited_year(
        tracker.light_w_per_m2, tracker.starts, tracker.cells_degc, tracker.ref, tracker.free_w,
        tracker.volts_v, tracker.opens_v, tracker.even, sheet.v_min_v, sheet.v_max_v,
        sheet.i_max_a, inverter.v_start_v,
    )  # fmt: skip
    return np.asarray(taken)


def simulate_year(plant: Plant, weather: WeatherYear) -> YearResult:
    """Return the hourly year of a plant.

    Parameters
    ----------
    plant : Plant
        Without a tracker loaded the year is the inverter's night draw.
    weather : WeatherYear
        The same hours as the strings' light.
    """
    none = np.zeros(len(weather.time))
    kept = plant.losses.kept_power_frac
    taken = {t.index: taken_w(t, plant.inverter) for t in plant.trackers}
    tracker_dc = tuple(
        taken[i] * kept if i in taken else none for i in range(len(plant.inverter.trackers))
    )
    dc_w = np.sum(tracker_dc, axis=0) if tracker_dc else none
    unlimited = unlimited_ac_w(dc_w, plant.inverter)
    direct = _direct_frac(plant, taken, none)
    delivered = np.minimum(unlimited, plant.inverter.p_ac_w)
    monthly = np.bincount(month_of(weather.time), weights=delivered, minlength=12) / 1000
    return YearResult(
        dc_w=dc_w,
        ac_unlimited_w=unlimited,
        ac_w=delivered,
        tracker_dc_w=tracker_dc,
        monthly_kwh=tuple(float(m) for m in monthly),
        stages=_stages(plant, sum(taken.values(), none), dc_w, unlimited, delivered),
        limit_w=plant.inverter.p_ac_w,
        direct_frac=direct,
        beam_quantiles=plant.beam_quantiles,
    )


def _direct_frac(plant: Plant, taken: dict[int, FloatArray], none: FloatArray) -> FloatArray:
    """Return (n,): the share of the power that comes and goes with the beam."""
    weighed, whole = none.copy(), none.copy()
    for tracker in plant.trackers:
        modules = sum(s.modules for s in tracker.strings)
        share = sum((s.direct_frac * s.modules for s in tracker.strings), none) / modules
        weighed += share * taken[tracker.index]
        whole += taken[tracker.index]
    return np.divide(weighed, whole, out=none.copy(), where=whole > 0)


def _stages(
    plant: Plant,
    drawn_w: FloatArray,
    dc_w: FloatArray,
    unlimited_w: FloatArray,
    delivered_w: FloatArray,
) -> tuple[Stage, ...]:
    """Return the waterfall; light counts as what modules of their rating make of it."""

    def kwh(power_w: FloatArray | float) -> float:
        return float(np.sum(power_w)) / 1000

    light: dict[Step, float] = {}
    for string in (s for t in plant.trackers for s in t.strings):
        for step, w_per_m2 in string.on_glass:
            made = kwh(w_per_m2) / 1000 * plant.module_w * string.modules
            light[step] = light.get(step, 0.0) + made
    taken = kwh(drawn_w)
    after_mismatch = taken * (1 - plant.losses.mismatch_frac)
    by_day = np.maximum(unlimited_w, 0.0)
    return waterfall(
        (
            *light.items(),
            (Step.LOW_LIGHT, sum(kwh(t.cool_w) for t in plant.trackers)),
            (Step.HEAT, sum(kwh(t.own_w) for t in plant.trackers)),
            (Step.UNEVEN, sum(kwh(t.free_w) for t in plant.trackers)),
            (Step.TRACKER, taken),
            (Step.MISMATCH, after_mismatch),
            (Step.WIRING, kwh(dc_w)),
            (Step.CONVERSION, kwh(by_day)),
            (Step.NIGHT, kwh(unlimited_w)),
            (Step.LIMIT, kwh(delivered_w)),
        )
    )
