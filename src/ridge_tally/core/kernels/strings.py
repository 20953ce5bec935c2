"""Compiled: what a tracker draws from strings whose substrings do not get the same light.

A substring is the part of a module under one bypass diode.  Substrings in series share one
current, strings in parallel one voltage.
"""

import math
from typing import Any

import numba
import numpy as np

from ridge_tally.core.kernels.diode import (
    BYPASS_V,
    STC_K,
    best_point,
    diode_terms,
    levels_of_light,
    string_v,
    voltage_at,
)

compiled = numba.njit(cache=True, nogil=True)


# Light this even is taken as one.
EVEN_FRAC = 0.01

# Below this light the diode equations are ill-conditioned and the yield is nothing.
DARK_W_PER_M2 = 1.0

# Levels whose staircase power lies this far below the best one's are not searched.
WORTH_FRAC = 0.88

# About where a level's diodes stand at its peak, as a share of where they open.
NEAR_PEAK = 0.88

CURRENTS, VOLTAGES = 96, 128

# No limit at all, volts or amperes.
BOUNDLESS = 1e9


@compiled
def _rise(k: int, vd: float, found: int, counts: Any, terms: Any, held: Any) -> Any:
    """Return current, power and how power grows with current where level k has a diode voltage.

    Only level k and brighter ones carry: the others are bypassed.  ``held`` keeps their diode
    voltages from one look to the next, so that one or two steps of Newton do.
    """
    light, saturation, series, shunt, a = (
        terms[k, 0], terms[k, 1], terms[k, 2], terms[k, 3], terms[k, 4],
    )  # fmt: skip
    grown = saturation * math.exp(vd / a)
    current = light - (grown - saturation) - vd * shunt
    dimmer = 0.0
    for j in range(k + 1, found):
        dimmer += counts[j]
    # Level k unclipped: its bypass is a stretch further on.
    volts = counts[k] * (vd - current * series) - dimmer * BYPASS_V
    slope = -counts[k] * (1.0 / (grown / a + shunt) + series)
    for j in range(k):
        light, saturation, series, shunt, a = (
            terms[j, 0], terms[j, 1], terms[j, 2], terms[j, 3], terms[j, 4],
        )  # fmt: skip
        u = held[j]
        for _ in range(6):
            grown = saturation * math.exp(u / a)
            step = (light - (grown - saturation) - u * shunt - current) / (grown / a + shunt)
            # A long step upwards would overflow, downwards it is safe.
            step = min(step, 2.0 * a)
            u += step
            if abs(step) < 1e-5:
                break
        held[j] = u
        volts += counts[j] * (u - current * series)
        slope -= counts[j] * (1.0 / (grown / a + shunt) + series)
    return current, current * volts, volts + current * slope


@compiled
def _highest(k: int, found: int, counts: Any, terms: Any, held: Any) -> Any:
    """Return current and power where level k's stretch peaks, by secants on dP/dI.

    Power has one maximum in a level's stretch; over the level's diode voltage its slope is
    close to straight.
    """
    a = terms[k, 4]
    opens = a * math.log(terms[k, 0] / terms[k, 1] + 1.0)
    low, high = 0.0, opens
    vd = opens * NEAR_PEAK
    i, p, rise = _rise(k, vd, found, counts, terms, held)
    best_i, best_p = i, p
    # Power rises with current at high diode voltages, falls at low ones.
    before_vd, before = vd, rise
    vd = vd - 0.5 * a if rise > 0.0 else vd + 0.5 * a
    for _ in range(12):
        i, p, rise = _rise(k, vd, found, counts, terms, held)
        if p > best_p:
            best_i, best_p = i, p
        if rise > 0.0:
            high = min(high, vd)
        else:
            low = max(low, vd)
        if abs(vd - before_vd) < 1e-4 * a or rise == before:
            break
        to = vd - rise * (vd - before_vd) / (rise - before)
        if not low < to < high:
            to = (low + high) / 2.0
        before_vd, before, vd = vd, rise, to
    return best_i, best_p


@compiled
def _current_at(volts: float, most: float, found: int, counts: Any, terms: Any) -> float:
    """Return the current at which a string stands at a voltage; 0 where it never reaches it."""
    if string_v(0.0, found, counts, terms) <= volts:
        return 0.0
    low, high = 0.0, most
    for _ in range(40):
        middle = (low + high) / 2
        if string_v(middle, found, counts, terms) > volts:
            low = middle
        else:
            high = middle
    return low


@compiled
def best_of_string(low: float, high: float, found: int, counts: Any, terms: Any) -> Any:
    """Return current and power of a string's best point between two currents.

    Between the light currents of two levels the power has one maximum; levels whose staircase
    lies far below the best are passed over.
    """
    scores, held = np.empty(found), np.empty(found)
    dimmer, volts, best_score = counts[:found].sum(), 0.0, 0.0
    for k in range(found):
        held[k] = terms[k, 4] * math.log(terms[k, 0] / terms[k, 1] + 1.0) * NEAR_PEAK
        dimmer -= counts[k]
        volts += counts[k] * held[k]
        scores[k] = terms[k, 0] * (volts - dimmer * BYPASS_V)
        best_score = max(best_score, scores[k])
    best_i, best_p = low, low * string_v(low, found, counts, terms)
    # A look at each stretch about where it peaks, then a search of the two that promise most.
    first, second, first_p, second_p = -1, -1, -1.0, -1.0
    for k in range(found):
        if scores[k] < WORTH_FRAC * best_score:
            continue
        foot = terms[k + 1, 0] if k + 1 < found else 0.0
        if min(high, terms[k, 0]) <= max(low, foot):
            continue
        _, seen, _ = _rise(k, held[k], found, counts, terms, held)
        if seen > first_p:
            second, second_p = first, first_p
            first, first_p = k, seen
        elif seen > second_p:
            second, second_p = k, seen
    for k in (first, second):
        if k < 0:
            continue
        foot = terms[k + 1, 0] if k + 1 < found else 0.0
        i, p = _highest(k, found, counts, terms, held)
        inside = min(max(i, low, foot), high, terms[k, 0])
        if inside != i:
            i, p = inside, inside * string_v(inside, found, counts, terms)
        if p > best_p:
            best_i, best_p = i, p
    end = high * string_v(high, found, counts, terms)
    return (high, end) if end > best_p else (best_i, best_p)


@compiled
def single_string(
    light: Any, cell_degc: float, ref: Any, v_min: float, v_max: float, i_max: float
) -> Any:
    """Return free power, taken power, voltage and open voltage of one string on a tracker."""
    counts, terms = np.empty(len(light)), np.empty((len(light), 5))
    found = levels_of_light(light, cell_degc, ref, counts, terms)
    most = terms[0, 0]
    i, free = best_of_string(0.0, most, found, counts, terms)
    v = free / i if i > 0 else 0.0
    opens = string_v(0.0, found, counts, terms)
    if v_min <= v <= v_max and i <= i_max:
        return free, free, v, opens
    if opens <= v_min:
        return free, 0.0, 0.0, opens
    least = _current_at(v_max, most, found, counts, terms)
    top = min(i_max, _current_at(v_min, most, found, counts, terms))
    if top <= least:
        return free, 0.0, 0.0, opens
    i, taken = best_of_string(least, top, found, counts, terms)
    return free, taken, taken / i if i > 0 else 0.0, opens


@compiled
def _parallel(
    light: Any,
    starts: Any,
    cell_degc: Any,
    ref: Any,
    v_min: float,
    v_max: float,
    i_max: float,
) -> Any:
    """Return the same of several strings on one voltage, from tables of their curves."""
    strings = len(starts) - 1
    volts = np.empty((strings, CURRENTS))
    amps = np.empty((strings, CURRENTS))
    for s in range(strings):
        mine = light[starts[s] : starts[s + 1]]
        counts, terms = np.empty(len(mine)), np.empty((len(mine), 5))
        found = levels_of_light(mine, cell_degc[s], ref, counts, terms)
        # Close together where the curve bends: just below each level's light current.
        each = max(2, CURRENTS // found)
        for k in range(CURRENTS):
            level = max(0, found - 1 - k // each)
            foot = terms[level + 1, 0] if level + 1 < found else 0.0
            inside = min(1.0, (k - (found - 1 - level) * each + 1.0) / each)
            amps[s, k] = foot + (terms[level, 0] - foot) * (1.0 - (1.0 - inside) ** 2)
        amps[s, 0] = 0.0
        for k in range(CURRENTS):
            volts[s, k] = string_v(amps[s, k], found, counts, terms)
    return in_parallel(volts, amps, v_min, v_max, i_max)


@compiled
def in_parallel(volts: Any, amps: Any, v_min: float, v_max: float, i_max: float) -> Any:
    """Return free and taken power, voltage and open voltage of strings on one voltage.

    ``volts`` and ``amps`` (s, k): each string's curve, voltage falling as current grows.
    """
    strings, points = volts.shape
    opens = volts[:, 0].max()
    free, taken, at = 0.0, 0.0, 0.0
    sums, grid = np.empty(VOLTAGES), np.empty(VOLTAGES)
    for n in range(VOLTAGES):
        v = opens * (0.2 + 0.8 * n / (VOLTAGES - 1.0))
        total = 0.0
        for s in range(strings):
            # Voltage falls along the table: the last current still above v.
            low, high = 0, points - 1
            if volts[s, 0] <= v:
                continue
            while high - low > 1:
                middle = (low + high) // 2
                if volts[s, middle] > v:
                    low = middle
                else:
                    high = middle
            span = volts[s, low] - volts[s, high]
            share = (volts[s, low] - v) / span if span > 1e-12 else 0.0
            total += amps[s, low] + min(1.0, share) * (amps[s, high] - amps[s, low])
        sums[n], grid[n] = total, v
        free = max(free, total * v)
        if v_min <= v <= v_max and total <= i_max and total * v > taken:
            taken, at = total * v, v
    # A parabola through the top point and its neighbours.
    for n in range(1, VOLTAGES - 1):
        a, b, c = sums[n - 1] * grid[n - 1], sums[n] * grid[n], sums[n + 1] * grid[n + 1]
        bend = a - 2.0 * b + c
        if b >= a and b >= c and bend < 0:
            lift = -((a - c) ** 2) / (8.0 * bend)
            free = max(free, b + lift)
            inside = v_min <= grid[n - 1] and grid[n + 1] <= v_max and sums[n - 1] <= i_max
            if inside and b + lift > taken:
                taken, at = b + lift, grid[n]
    # Between two points of the table the current's limit is met exactly.
    for n in range(1, VOLTAGES):
        if sums[n - 1] > i_max >= sums[n] and sums[n - 1] > sums[n]:
            share = (sums[n - 1] - i_max) / (sums[n - 1] - sums[n])
            v = grid[n - 1] + share * (grid[n] - grid[n - 1])
            if v_min <= v <= v_max and i_max * v > taken:
                taken, at = i_max * v, v
    return free, taken, at, opens


@compiled
def own_power(light: Any, cell_degc: float, ref: Any, counts: Any, terms: Any) -> float:
    """Return the sum of a string's substrings each at its own best, W, level by level."""
    found = levels_of_light(light, cell_degc, ref, counts, terms)
    total = 0.0
    for k in range(found):
        if terms[k, 0] > DARK_W_PER_M2 / 1000.0 * ref[0]:
            one = (terms[k, 0], terms[k, 1], terms[k, 2], terms[k, 3], terms[k, 4])
            v, i = best_point(one)
            total += counts[k] * v * i
    return total


@compiled
def free_year(light: Any, starts: Any, cell_degc: Any, ref: Any) -> Any:
    """Return where strings on one tracker would stand without its limits, at n moments.

    Parameters
    ----------
    light : (m, n) float
        Irradiance that reaches the cells of each substring, W/m², string by string.
    starts : (s + 1,) int
        Where each string's substrings begin.
    cell_degc : (s, n) float
    ref : (7,) float
        See ``diode_terms``.

    Returns
    -------
    cool, own, free : (n,) float
        All substrings each at its own best, at 25 °C and as warm as they are, and the strings'
        best together, W.
    volts, opens : (n,) float
        The voltage of that best, and the highest at which any of the strings opens.
    even : (n,) bool
        Whether all substrings get the same light: then one stands for all.
    """
    moments, strings = light.shape[1], len(starts) - 1
    cool, own, free = np.zeros(moments), np.zeros(moments), np.zeros(moments)
    counts, terms = np.empty(light.shape[0]), np.empty((light.shape[0], 5))
    volts, opens = np.zeros(moments), np.zeros(moments)
    even = np.zeros(moments, np.bool_)
    column, cells = np.empty(light.shape[0]), np.empty(strings)
    alike = _alike(starts)
    for n in range(moments):
        brightest, dullest, total = 0.0, 1e30, 0.0
        for m in range(light.shape[0]):
            e = light[m, n]
            column[m] = e
            brightest, dullest, total = max(brightest, e), min(dullest, e), total + e
        if brightest <= DARK_W_PER_M2:
            continue
        even_heat = True
        for s in range(strings):
            cells[s] = cell_degc[s, n]
            if abs(cells[s] - cells[0]) > 0.5:
                even_heat = False
        if alike and even_heat and brightest - dullest < EVEN_FRAC * brightest:
            series = (starts[1] - starts[0]) * 1.0
            one = diode_terms(total / light.shape[0], cells[0], ref)
            v, i = best_point(one)
            free[n] = own[n] = v * i * light.shape[0]
            volts[n], opens[n] = v * series, voltage_at(0.0, one) * series
            even[n] = True
            v, i = best_point(diode_terms(total / light.shape[0], STC_K - 273.15, ref))
            cool[n] = v * i * light.shape[0]
            continue
        for s in range(strings):
            mine = column[starts[s] : starts[s + 1]]
            own[n] += own_power(mine, cells[s], ref, counts, terms)
            cool[n] += own_power(mine, STC_K - 273.15, ref, counts, terms)
        if strings == 1:
            free[n], _, volts[n], opens[n] = single_string(
                column, cells[0], ref, 0.0, BOUNDLESS, BOUNDLESS
            )
        else:
            free[n], _, volts[n], opens[n] = _parallel(
                column, starts, cells, ref, 0.0, BOUNDLESS, BOUNDLESS
            )
    return cool, own, free, volts, opens, even


@compiled
def _alike(starts: Any) -> bool:
    """Whether all strings are as long as the first."""
    for s in range(1, len(starts) - 1):
        if starts[s + 1] - starts[s] != starts[1] - starts[0]:
            return False
    return True


@compiled
def limited_year(
    light: Any,
    starts: Any,
    cell_degc: Any,
    ref: Any,
    free: Any,
    volts: Any,
    opens: Any,
    even: Any,
    v_min: float,
    v_max: float,
    i_max: float,
    v_start: float,
) -> Any:
    """Return what a tracker draws within its limits: (n,) W each, and at which voltage.

    Parameters
    ----------
    free, volts, opens, even : (n,)
        What ``free_year`` returned; only moments beyond a limit are looked at again.
    v_min, v_max, i_max : float
        The tracker's window and the current it takes, volts and amperes.
    v_start : float
        Strings that open lower than this draw nothing.
    """
    strings = len(starts) - 1
    taken, at = free.copy(), volts.copy()
    cells = np.empty(strings)
    for n in range(len(free)):
        if free[n] <= 0.0:
            continue
        if opens[n] < max(v_start, v_min):
            taken[n], at[n] = 0.0, 0.0
            continue
        if v_min <= volts[n] <= v_max and free[n] <= i_max * volts[n]:
            continue
        for s in range(strings):
            cells[s] = cell_degc[s, n]
        column = light[:, n].copy()
        if even[n]:
            one = np.full(starts[1] - starts[0], column.mean())
            _, power, at[n], _ = single_string(one, cells[0], ref, v_min, v_max, i_max / strings)
            taken[n] = power * strings
        elif strings == 1:
            _, taken[n], at[n], _ = single_string(column, cells[0], ref, v_min, v_max, i_max)
        else:
            _, taken[n], at[n], _ = _parallel(column, starts, cells, ref, v_min, v_max, i_max)
    return taken, at


def warm() -> None:
    """Compile every kernel once, or load it from the cache."""
    ref = np.array([10.0, 1e-10, 0.3, 400.0, 1.8, 0.005, 3.0, 1.121])
    light = np.array([[900.0, 600.0], [900.0, 300.0], [900.0, 600.0], [900.0, 500.0]])
    cells = np.full((2, 2), 40.0)
    for starts in (np.array([0, 4]), np.array([0, 2, 4])):
        heat = cells[: len(starts) - 1]
        _, _, free, volts, opens, even = free_year(light, starts, heat, ref)
        limits = (10.0, 100.0, 20.0, 5.0)
        limited_year(light, starts, heat, ref, free, volts, opens, even, *limits)
