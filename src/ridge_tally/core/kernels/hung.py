"""Compiled: a string as it hangs there, modules turned round, weak or bridged among it."""

import math
from typing import Any

import numpy as np

from ridge_tally.core.kernels.diode import compiled, diode_terms, voltage_at

# Points a string's curve is tabled at, dense where it bends.
POINTS = 192
HALVINGS = 48
# Below this light nothing is looked at; light that differs by less is one.
DARK_W_PER_M2, LIKE_FRAC = 5.0, 0.003


@compiled
def hung_v(current: float, parts: Any, joint_ohm: float) -> float:
    """Return a string's voltage at a current, V.

    ``parts`` (k, 6): how many substrings, below nothing where they are turned round, and what
    ``diode_terms`` says of one of them.
    """
    total = -current * joint_ohm
    for k in range(parts.shape[0]):
        one = (parts[k, 1], parts[k, 2], parts[k, 3], parts[k, 4], parts[k, 5])
        if parts[k, 0] >= 0:
            total += parts[k, 0] * voltage_at(current, one)
        else:
            total += parts[k, 0] * voltage_at(-current, one)
    return total


@compiled
def substrings_lit(counts: Any, lights: Any, cells_degc: Any, refs: Any) -> Any:
    """Return (k, 6): ``parts`` of ``hung_v`` for so many substrings in such light, °C and diodes."""
    out = np.empty((len(counts), 6))
    for k in range(len(counts)):
        out[k, 0] = counts[k]
        terms = diode_terms(max(lights[k], 1e-6), cells_degc[k], refs[k])
        for j in range(5):
            out[k, 1 + j] = terms[j]
    return out


@compiled
def shorted_a(parts: Any, joint_ohm: float) -> float:
    """Return the current of a string with its ends joined by a rated tester, A."""
    if hung_v(0.0, parts, joint_ohm) <= 0:
        return 0.0
    low, high = 0.0, 0.0
    for k in range(parts.shape[0]):
        if parts[k, 0] > 0:
            high = max(high, parts[k, 1])
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        if hung_v(middle, parts, joint_ohm) > 0:
            low = middle
        else:
            high = middle
    return 0.5 * (low + high)


@compiled
def curve(parts: Any, joint_ohm: float) -> Any:
    """Return (p,) A and V from open to joined ends; one point of nothing where it never opens."""
    opens, most = hung_v(0.0, parts, joint_ohm), shorted_a(parts, joint_ohm)
    if opens <= 0 or most <= 0:
        return np.zeros(1), np.full(1, opens)
    amps, volts = np.empty(POINTS), np.empty(POINTS)
    for p in range(POINTS):
        amps[p] = most * math.sin(0.5 * math.pi * p / (POINTS - 1))
        volts[p] = hung_v(amps[p], parts, joint_ohm)
    return amps, volts


@compiled
def best_of(parts: Any, joint_ohm: float, v_min: float, v_max: float, i_max: float) -> Any:
    """Return V and A at the most power a window and a current leave; nothing where there is none."""
    amps, volts = curve(parts, joint_ohm)
    best, at = 0.0, 0.0
    top = 0.0
    for p in range(len(amps)):
        if v_min <= volts[p] <= v_max and amps[p] <= i_max:
            top = max(top, amps[p])
            if amps[p] * volts[p] > best:
                best, at = amps[p] * volts[p], amps[p]
    if len(amps) < POINTS or (best <= 0.0 and i_max >= amps[-1]):
        return 0.0, 0.0
    # Golden section between the neighbours of the best point, held to the limits.
    low, high = 0.0, amps[-1]
    for p in range(len(amps)):
        if amps[p] < at:
            low = amps[p]
        if amps[p] > at:
            high = amps[p]
            break
    high = min(high, i_max)
    for _ in range(HALVINGS):
        one, other = low + 0.382 * (high - low), low + 0.618 * (high - low)
        if _power(one, parts, joint_ohm, v_min, v_max) < _power(
            other, parts, joint_ohm, v_min, v_max
        ):
            low = one
        else:
            high = other
    at = 0.5 * (low + high)
    v = hung_v(at, parts, joint_ohm)
    return (v, at) if v > 0 else (0.0, 0.0)


@compiled
def _power(amps: float, parts: Any, joint_ohm: float, v_min: float, v_max: float) -> float:
    v = hung_v(amps, parts, joint_ohm)
    if v < v_min:
        return -amps
    if v > v_max:
        return amps * 1e-9
    return amps * v


@compiled
def amps_at(volts: float, parts: Any, joint_ohm: float) -> float:
    """Return the current a string gives held at a voltage, below nothing where it is driven, A."""
    high = 0.0
    for k in range(parts.shape[0]):
        if parts[k, 0] > 0:
            high = max(high, parts[k, 1])
    low = -2.0 * high - 1.0
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        if hung_v(middle, parts, joint_ohm) > volts:
            low = middle
        else:
            high = middle
    return 0.5 * (low + high)


@compiled
def string_points(light: Any, cells_degc: Any, refs: Any, types: Any, volts: Any) -> Any:
    """Return a string's open voltage, its shorted current and its current at voltages, at n moments.

    Parameters
    ----------
    light : (m, n) float
        What reaches the cells of each substring, W/m².
    cells_degc : (n,) float
    refs : (t, 8) float
        The diode of each type of module.
    types : (m,) int
        Of each substring.
    volts : (n,) float
        It is held at; nothing where it is open.
    """
    many, moments = light.shape
    opens, shorted, amps = np.zeros(moments), np.zeros(moments), np.zeros(moments)
    counts, lights = np.empty(many), np.empty(many)
    kinds = np.empty(many, np.int64)
    for n in range(moments):
        if light[:, n].max() <= DARK_W_PER_M2:
            continue
        # Substrings of one type in like light are one part.
        found = 0
        for m in range(many):
            at = -1
            for k in range(found):
                if kinds[k] == types[m] and abs(lights[k] - light[m, n]) < LIKE_FRAC * lights[k]:
                    at = k
                    break
            if at < 0:
                counts[found], lights[found], kinds[found] = 1.0, light[m, n], types[m]
                found += 1
            else:
                counts[at] += 1.0
        parts = np.empty((found, 6))
        for k in range(found):
            parts[k, 0] = counts[k]
            terms = diode_terms(max(lights[k], 1e-6), cells_degc[n], refs[kinds[k]])
            for j in range(5):
                parts[k, 1 + j] = terms[j]
        opens[n] = hung_v(0.0, parts, 0.0)
        shorted[n] = shorted_a(parts, 0.0)
        if volts[n] > 0:
            amps[n] = max(0.0, amps_at(volts[n], parts, 0.0))
    return opens, shorted, amps


def warm() -> None:
    """Compile every kernel once, or load it from the cache."""
    ref = np.array([10.0, 1e-10, 0.3, 400.0, 1.8, 0.005, 3.0, 1.121])
    parts = substrings_lit(
        np.array([30.0, -3.0]), np.full(2, 800.0), np.full(2, 40.0), np.array([ref, ref])
    )
    best_of(parts, 0.1, 10.0, 1000.0, 20.0)
    amps_at(100.0, parts, 0.1)
    light = np.full((6, 2), 800.0)
    kinds = np.zeros(6, np.int64)
    string_points(light, np.full(2, 40.0), np.array([ref]), kinds, np.full(2, 60.0))
