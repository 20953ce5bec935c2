"""Strings with the light on them, and what a DC side makes of it before any inverter."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import temperature

from ridge_tally.core.energy.diode_fit import DiodeModel, fit_diode
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.sky.passing_beam import QUARTERS
from ridge_tally.core.sky.weather_year import WeatherYear

FloatArray = NDArray[np.float64]
# Energies by the step after which they are left, kWh.
Left = tuple[tuple[Step, float], ...]


@dataclass(frozen=True, slots=True)
class HeatLoss:
    """Faiman's two heat-loss factors of a mounting: W/m²K and W/m²K per m/s of wind."""

    constant_w_per_m2k: float
    per_wind_w_per_m2k_per_m_per_s: float


@dataclass(frozen=True, slots=True, eq=False)
class StringIrradiance:
    """Modules that share a tracker or stand on one array, with the light on them.

    ``sheets``: of each module.  ``reaching_w_per_m2`` (m, n) is what reaches the cells of its m
    substrings, module by module, front and back, after shade, dirt and snow;
    ``warming_w_per_m2`` (n,) what falls on its glass and heats it; ``direct_frac`` (n,) is the
    beam's share of its light, ``turn`` (n, 4) how the sun's way past the glass changes that in
    each quarter of an hour, ``None`` where nobody knows.  ``on_glass`` holds, in W/m² (n,), the mean light of its modules as
    it is left by each step from the free sky to the cells.
    """

    tracker_index: int
    sheets: tuple[ModuleSheet, ...]
    reaching_w_per_m2: FloatArray
    warming_w_per_m2: FloatArray
    direct_frac: FloatArray
    on_glass: tuple[tuple[Step, FloatArray], ...]
    heat: HeatLoss
    turn: FloatArray | None = None

    @property
    def modules(self) -> int:
        """How many modules it has."""
        return len(self.sheets)

    @property
    def rating_w(self) -> float:
        """What its modules are rated at together."""
        return sum(sheet.p_max_w for sheet in self.sheets)


@dataclass(frozen=True, slots=True, eq=False)
class Bank:
    """Inverters of one kind: what each takes, ``units_w`` (u, n), at ``volts_v`` (n,), W and V."""

    units_w: FloatArray
    volts_v: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class Direct:
    """The share (n,) of a power that follows the beam, and (n, 4) the beam in each quarter over its mean."""

    frac: FloatArray
    turn: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class DcOutput:
    """What a DC side draws from its light.

    ``banks``: what its inverters take.  ``sources_w``: the same by tracker, or by array where
    every module has its own.  ``direct``: what of it comes and goes with the beam.
    ``left``: kWh of a year after each step.
    """

    banks: tuple[Bank, ...]
    sources_w: tuple[FloatArray, ...]
    direct: Direct
    left: Left

    @property
    def whole_w(self) -> FloatArray:
        """(n,): what all inverters take."""
        return np.asarray(sum(bank.units_w.sum(axis=0) for bank in self.banks))


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


def diode_of(sheet: ModuleSheet) -> FloatArray:
    """Return (7,): a module's diode as the kernels take it.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If its datasheet lacks what the model needs or contradicts itself.
    """
    return diode_reference(fit_diode(sheet), sheet.bypass_diodes)


def diode_reference(diode: DiodeModel, substrings: int) -> FloatArray:
    """Return (8,): a diode of so many substrings as the kernels take it."""
    return np.array(
        [
            diode.light_current_a,
            diode.saturation_current_a,
            diode.series_ohm,
            diode.shunt_ohm,
            diode.thermal_v,
            diode.alpha_isc_a_per_degc,
            float(substrings),
            diode.gap_ev,
        ]
    )


def kwh_of(power_w: FloatArray, hours: float) -> float:
    """Return the energy of powers that are means of so many hours each."""
    return float(np.sum(power_w)) * hours / 1000


def light_left(strings: Sequence[StringIrradiance], hours: float) -> Left:
    """Return the light after each step, as what modules of their rating make of it, kWh."""
    left: dict[Step, float] = {}
    for string in strings:
        for step, w_per_m2 in string.on_glass:
            made = kwh_of(w_per_m2, hours) / 1000 * string.rating_w
            left[step] = left.get(step, 0.0) + made
    return tuple(left.items())


def direct_of(
    groups: Sequence[tuple[Sequence[StringIrradiance], FloatArray]], steps: int
) -> Direct:
    """Return what of some powers comes and goes with the beam, by their strings and W."""
    if not groups:
        return Direct(np.zeros(steps), np.ones((steps, QUARTERS)))
    return joined(
        [
            (
                power_w * string.modules / sum(s.modules for s in strings),
                Direct(
                    string.direct_frac,
                    np.ones((len(power_w), QUARTERS)) if string.turn is None else string.turn,
                ),
            )
            for strings, power_w in groups
            for string in strings
        ]
    )


def joined(parts: Sequence[tuple[FloatArray, Direct]]) -> Direct:
    """Return what comes and goes of several (n,) powers together."""
    whole = np.sum([power_w for power_w, _ in parts], axis=0)
    direct = np.sum([power_w * of.frac for power_w, of in parts], axis=0)
    turned = np.sum([(power_w * of.frac)[:, None] * of.turn for power_w, of in parts], axis=0)
    return Direct(
        np.divide(direct, whole, out=np.zeros_like(whole), where=whole > 0),
        np.divide(turned, direct[:, None], out=np.ones_like(turned), where=direct[:, None] > 0),
    )


def banks_of(
    sources_w: Sequence[FloatArray],
    volts_v: Sequence[FloatArray],
    inputs: Sequence[TrackerInput],
) -> tuple[Bank, ...]:
    """Return what each inverter takes at its inputs, at the mean voltage of them."""
    banks = []
    for unit in sorted({t.unit_number for t in inputs}):
        mine = [i for i, t in enumerate(inputs) if t.unit_number == unit]
        whole = np.sum([sources_w[i] for i in mine], axis=0)
        at = np.sum([sources_w[i] * volts_v[i] for i in mine], axis=0)
        volts = np.divide(at, whole, out=np.zeros_like(whole), where=whole > 0)
        banks.append(Bank(whole[None], volts))
    return tuple(banks)
