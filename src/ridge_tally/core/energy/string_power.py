"""Operating points of equal strings on one tracker, hour by hour."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import pvsystem, singlediode

from ridge_tally.core.energy.diode_fit import DiodeModel
from ridge_tally.core.equipment import TrackerSheet

FloatArray = NDArray[np.float64]
# Below this light the diode equations are ill-conditioned and the yield is nothing.
LEAST_LIGHT_W_PER_M2 = 1.0


@dataclass(frozen=True, slots=True)
class ModuleHours:
    """n hours of one module at its own maximum-power point, and the diode terms behind it."""

    lit: NDArray[np.bool_]
    terms: tuple[FloatArray, FloatArray, FloatArray, FloatArray, FloatArray]
    vmp_v: FloatArray
    imp_a: FloatArray
    voc_v: FloatArray


def module_hours(
    diode: DiodeModel, effective_w_per_m2: FloatArray, cell_degc: FloatArray
) -> ModuleHours:
    """Return a module's maximum-power point over (n,) hours; zero where it is dark.

    Notes
    -----
    De Soto et al. 2006 for the parameters at each light and temperature; the point where
    dP/dV = 0 by Newton's method on the diode voltage (Bishop 1988), in the reference library.
    ``terms`` and ``voc_v`` hold lit hours only.
    """
    lit = effective_w_per_m2 > LEAST_LIGHT_W_PER_M2
    terms = pvsystem.calcparams_desoto(
        effective_w_per_m2[lit], cell_degc[lit], diode.alpha_isc_a_per_degc, diode.thermal_v,
        diode.light_current_a, diode.saturation_current_a, diode.shunt_ohm, diode.series_ohm,
    )  # fmt: skip
    shape = cell_degc[lit].shape
    light, saturation, series, shunt, thermal = (
        np.broadcast_to(np.asarray(term, dtype=float), shape) for term in terms
    )
    all_terms = (light, saturation, series, shunt, thermal)
    current, voltage, _ = singlediode.bishop88_mpp(*all_terms, method="newton")
    voc = singlediode.bishop88_v_from_i(np.zeros_like(light), *all_terms, method="newton")
    vmp_v, imp_a = np.zeros(len(lit)), np.zeros(len(lit))
    vmp_v[lit], imp_a[lit] = voltage, current
    return ModuleHours(lit, all_terms, vmp_v, imp_a, voc)


@dataclass(frozen=True, slots=True)
class TrackerHours:
    """n hours at one tracker, W: what the modules could give, and what the tracker takes."""

    available_w: FloatArray
    taken_w: FloatArray


def tracker_hours(
    module: ModuleHours,
    modules_in_series: int,
    strings: int,
    tracker: TrackerSheet,
    v_start_v: float,
) -> TrackerHours:
    """Return the DC power of `strings` equal strings of `modules_in_series` on one tracker.

    The tracker runs at the maximum-power point unless that lies outside its voltage range
    (then at the edge of the range) or above its current (then higher in voltage, at the
    current it takes).  A string that opens below the start voltage, or below the range,
    gives nothing in that hour.
    """
    available = module.vmp_v * module.imp_a * modules_in_series * strings
    lit = module.lit
    vmp, imp = module.vmp_v[lit], module.imp_a[lit]
    voltage = np.clip(vmp, tracker.v_min_v / modules_in_series, tracker.v_max_v / modules_in_series)
    current = imp.copy()
    off_peak = voltage != vmp
    if off_peak.any():
        at = tuple(t[off_peak] for t in module.terms)
        solved = singlediode.bishop88_i_from_v(voltage[off_peak], *at, method="newton")
        current[off_peak] = np.maximum(solved, 0.0)
    ceiling_a = tracker.i_max_a / strings
    over = current > ceiling_a
    if over.any():
        at = tuple(t[over] for t in module.terms)
        current[over] = ceiling_a
        voltage[over] = singlediode.bishop88_v_from_i(current[over], *at, method="newton")
    opens = module.voc_v * modules_in_series
    running = opens >= max(v_start_v, tracker.v_min_v)
    taken = np.zeros_like(available)
    taken[lit] = np.where(running, voltage * current, 0.0) * modules_in_series * strings
    return TrackerHours(available, taken)
