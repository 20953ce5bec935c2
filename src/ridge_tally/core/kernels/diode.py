"""Compiled: one diode, and a string's substrings sorted into levels of light."""

import math
from typing import Any

import numba
import numpy as np

compiled = numba.njit(cache=True, nogil=True)
BOLTZMANN_EV_PER_K = 8.617332478e-05

STC_K = 298.15

# How a band gap falls with heat: De Soto et al. 2006.
GAP_PER_K = -0.0002677

# What a conducting bypass diode costs; common practice for Schottky diodes, no source.
BYPASS_V = 0.5
# Substrings nearer than this share of the brightest count as one level of light.
LEVELS = 200


@compiled
def diode_terms(light: float, cell_degc: float, ref: Any) -> Any:
    """Return light current, saturation current, series ohm, shunt siemens and a of a substring.

    ``ref``: light current, saturation current, series ohm, shunt ohm, a of the module at
    standard conditions, A/°C of the short-circuit current, substrings in the module, gap in eV.
    """
    kelvin = cell_degc + 273.15
    warm = kelvin / STC_K
    gap = ref[7] * (1.0 + GAP_PER_K * (kelvin - STC_K))
    rise = ref[7] / (BOLTZMANN_EV_PER_K * STC_K) - gap / (BOLTZMANN_EV_PER_K * kelvin)
    parts = ref[6]
    light_a = light / 1000.0 * (ref[0] + ref[5] * (kelvin - STC_K))
    saturation_a = ref[1] * warm * warm * warm * math.exp(rise)
    shunt_s = light / 1000.0 / ref[3] * parts
    return light_a, saturation_a, ref[2] / parts, shunt_s, ref[4] * warm / parts


@compiled
def voltage_at(current: float, terms: Any) -> float:
    """Return a substring's voltage at a current, its bypass diode conducting where it must."""
    light, saturation, series, shunt, a = terms
    if current >= light:
        return -BYPASS_V
    vd = a * math.log((light - current) / saturation + 1.0)
    for _ in range(8):
        grown = saturation * math.exp(vd / a)
        off = light - (grown - saturation) - vd * shunt - current
        step = off / (grown / a + shunt)
        vd += step
        if abs(step) < 1e-7:
            break
    volts: float = max(vd - current * series, -BYPASS_V)
    return volts


@compiled
def best_point(terms: Any) -> Any:
    """Return voltage and current of a substring's own maximum-power point.

    By Newton's method on the diode voltage, as in Bishop 1988: dP/dvd = 0.
    """
    light, saturation, series, shunt, a = terms
    vd = a * math.log(light / saturation + 1.0) * 0.85
    for _ in range(30):
        grown = saturation * math.exp(vd / a)
        i = light - (grown - saturation) - vd * shunt
        di, d2i = -grown / a - shunt, -grown / (a * a)
        v, dv, d2v = vd - i * series, 1.0 - di * series, -d2i * series
        first = dv * i + v * di
        second = d2v * i + 2.0 * dv * di + v * d2i
        step = -first / second
        # A long first step would leave the knee.
        step = max(-2.0 * a, min(2.0 * a, step))
        vd += step
        if abs(step) < 1e-8:
            break
    i = light - saturation * math.expm1(vd / a) - vd * shunt
    return vd - i * series, i


@compiled
def levels_of_light(light: Any, cell_degc: float, ref: Any, counts: Any, terms: Any) -> int:
    """Sort a string's substrings into levels of light, brightest first; return how many."""
    brightest = 1e-6
    for e in light:
        brightest = max(brightest, e)
    sums = np.zeros(LEVELS + 1)
    many = np.zeros(LEVELS + 1)
    for e in light:
        k = round(e / brightest * LEVELS)
        sums[k] += e
        many[k] += 1.0
    found = 0
    for k in range(LEVELS, -1, -1):
        if many[k] > 0.0:
            counts[found] = many[k]
            mean = sums[k] / many[k]
            one = diode_terms(max(mean, 1e-6), cell_degc, ref)
            for j in range(5):
                terms[found, j] = one[j]
            found += 1
    return found


@compiled
def string_v(current: float, found: int, counts: Any, terms: Any) -> float:
    """Return the voltage of a string at a current."""
    total = 0.0
    for k in range(found):
        one = (terms[k, 0], terms[k, 1], terms[k, 2], terms[k, 3], terms[k, 4])
        total += counts[k] * voltage_at(current, one)
    return total
