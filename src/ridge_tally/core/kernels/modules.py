"""Compiled: modules each at a point of their own, and strings in which some of them are.

An add-on optimizer lets its module give all it has to a string that carries more current than
the module can; at less current it passes the module's own point on.  Its efficiency counts
always.
"""

from typing import Any

import numba
import numpy as np

from ridge_tally.core.kernels.diode import (
    STC_K,
    best_point,
    diode_terms,
    levels_of_light,
    string_v,
    voltage_at,
)
from ridge_tally.core.kernels.strings import (
    BOUNDLESS,
    BYPASS_V,
    DARK_W_PER_M2,
    EVEN_FRAC,
    best_of_string,
    in_parallel,
    own_power,
    single_string,
)

compiled = numba.njit(cache=True, nogil=True)
# Currents at which strings on one voltage are looked at; those at which a string alone is, and
# once more between the neighbours of its best.
POINTS, ALONE, CLOSE = 192, 64, 40


@compiled
def own_points(
    light: Any,
    per: int,
    cell_degc: Any,
    ref: Any,
    v_min: float,
    v_max: float,
    i_max: float,
    v_start: float,
) -> Any:
    """Return what converters of one module each take of m modules, at n moments.

    Parameters
    ----------
    light : (m * per, n) float
        Irradiance that reaches the cells of each substring, W/m², module by module.
    per : int
        Substrings of a module.
    cell_degc : (m, n) float
    ref : (7,) float
        See ``strings.diode_terms``.
    v_min, v_max, i_max, v_start : float
        What a converter tracks and takes, and the voltage it starts at.

    Returns
    -------
    cool, own : (n,) float
        All substrings each at its own best, at 25 °C and as warm as they are, W.
    best, taken, volts : (m, n) float
        Each module's best and what its converter takes of it, W, and at which voltage.
    """
    modules, moments = light.shape[0] // per, light.shape[1]
    cool, own = np.zeros(moments), np.zeros(moments)
    best, taken = np.zeros((modules, moments)), np.zeros((modules, moments))
    volts = np.zeros((modules, moments))
    mine, counts, terms = np.empty(per), np.empty(per), np.empty((per, 5))
    for m in range(modules):
        for n in range(moments):
            brightest, dullest, total = 0.0, 1e30, 0.0
            for k in range(per):
                e = light[m * per + k, n]
                mine[k] = e
                brightest, dullest, total = max(brightest, e), min(dullest, e), total + e
            if brightest <= DARK_W_PER_M2:
                continue
            heat = cell_degc[m, n]
            if brightest - dullest < EVEN_FRAC * brightest:
                one = diode_terms(total / per, heat, ref)
                v, i = best_point(one)
                best[m, n] = v * i * per
                own[n] += v * i * per
                opens = voltage_at(0.0, one) * per
                v25, i25 = best_point(diode_terms(total / per, STC_K - 273.15, ref))
                cool[n] += v25 * i25 * per
                if v_min <= v * per <= v_max and i <= i_max:
                    taken[m, n], volts[m, n] = v * i * per, v * per
                else:
                    _, taken[m, n], volts[m, n], _ = single_string(
                        mine, heat, ref, v_min, v_max, i_max
                    )
            else:
                own[n] += own_power(mine, heat, ref, counts, terms)
                cool[n] += own_power(mine, STC_K - 273.15, ref, counts, terms)
                best[m, n], taken[m, n], volts[m, n], opens = single_string(
                    mine, heat, ref, v_min, v_max, i_max
                )
            if opens < v_start:
                taken[m, n], volts[m, n] = 0.0, 0.0
    return cool, own, best, taken, volts


@compiled
def _module_curve(
    light: Any,
    cell_degc: float,
    ref: Any,
    amps: Any,
    kept_frac: float,
    p_max: float,
    i_out_max: float,
    volts: Any,
) -> None:
    """Add to ``volts`` what a module with an add-on optimizer gives at each current."""
    counts, terms = np.empty(len(light)), np.empty((len(light), 5))
    found = levels_of_light(light, cell_degc, ref, counts, terms)
    i_best, p_best = best_of_string(0.0, terms[0, 0], found, counts, terms)
    p_best = min(p_best, p_max)
    for k in range(len(amps)):
        i = amps[k]
        straight = string_v(i, found, counts, terms)
        if straight > 0.0:
            straight *= kept_frac
        if i <= i_best or p_best <= 0.0:
            volts[k] += straight
        elif i > i_out_max:
            volts[k] -= BYPASS_V
        else:
            volts[k] += max(straight, kept_frac * p_best / i)


@compiled
def _alone(volts: Any, amps: Any, v_min: float, v_max: float, i_max: float) -> Any:
    """Return free power and its current, taken power, its current and voltage, of one string."""
    last = len(amps) - 1
    power = volts * amps
    free, i_free, taken, i_taken, at = 0.0, 0.0, 0.0, 0.0, 0.0
    for k in range(last + 1):
        if power[k] > free:
            free, i_free = power[k], amps[k]
        if power[k] > taken and amps[k] <= i_max and v_min <= volts[k] <= v_max:
            taken, i_taken, at = power[k], amps[k], volts[k]
    # Where a limit cuts the curve between two of its points.
    for k in range(last):
        for limit in (v_min, v_max):
            if volts[k] > limit >= volts[k + 1]:
                share = (volts[k] - limit) / (volts[k] - volts[k + 1])
                i = amps[k] + share * (amps[k + 1] - amps[k])
                if i <= i_max and i * limit > taken:
                    taken, i_taken, at = i * limit, i, limit
        if amps[k] <= i_max < amps[k + 1]:
            share = (i_max - amps[k]) / (amps[k + 1] - amps[k])
            v = volts[k] + share * (volts[k + 1] - volts[k])
            if v_min <= v <= v_max and i_max * v > taken:
                taken, i_taken, at = i_max * v, i_max, v
    return free, i_free, taken, i_taken, at


@compiled
def _curve(
    light: Any,
    cell_degc: float,
    refs: Any,
    types: Any,
    per: int,
    fitted: Any,
    kept_frac: float,
    p_max: float,
    i_out_max: float,
    amps: Any,
) -> Any:
    """Return the voltage at each current of a string of which some modules have optimizers."""
    volts = np.zeros(len(amps))
    counts, terms = np.empty(len(light)), np.empty((len(light), 5))
    bare = np.empty(len(light))
    for t in range(len(refs)):
        plain = 0
        for m in range(len(light)):
            if types[m] == t and not fitted[m // per]:
                bare[plain] = light[m]
                plain += 1
        if plain > 0:
            found = levels_of_light(bare[:plain], cell_degc, refs[t], counts, terms)
            for k in range(len(amps)):
                volts[k] += string_v(amps[k], found, counts, terms)
    for m in range(len(light) // per):
        if fitted[m]:
            mine, ref = light[m * per : (m + 1) * per], refs[types[m * per]]
            _module_curve(mine, cell_degc, ref, amps, kept_frac, p_max, i_out_max, volts)
    return volts


@compiled
def _most_a(light: Any, cell_degc: float, refs: Any, types: Any) -> float:
    """Return the light current of the substring that has most."""
    most = 0.0
    for t in range(len(refs)):
        brightest = 0.0
        for m in range(len(light)):
            if types[m] == t:
                brightest = max(brightest, light[m])
        if brightest > 0.0:
            most = max(most, diode_terms(brightest, cell_degc, refs[t])[0])
    return most


@compiled
def helped_year(
    light: Any,
    starts: Any,
    cell_degc: Any,
    refs: Any,
    types: Any,
    per: int,
    fitted: Any,
    kept_frac: float,
    p_max: float,
    i_out_max: float,
    v_min: float,
    v_max: float,
    i_max: float,
    v_start: float,
) -> Any:
    """Return what a tracker takes of strings of which some modules have optimizers.

    Parameters
    ----------
    light, starts, cell_degc
        As ``strings.free_year`` takes them.
    refs : (t, 7) float
        A row of ``strings.diode_terms`` for each type of module.
    types : (m,) int
        The type of each substring.
    per : int
        Substrings of a module, of whatever type.
    fitted : (m,) bool
        Whether each module, string by string, has an optimizer.
    kept_frac, p_max, i_out_max : float
        What an optimizer keeps of the power, the most it takes and the most current it gives.
    v_min, v_max, i_max, v_start : float
        The tracker's window, the current it takes and the voltage it starts at.

    Returns
    -------
    free, taken, volts : (n,) float
        The strings' best together without the tracker's limits and within them, W, and the
        voltage of that.
    """
    strings, moments = len(starts) - 1, light.shape[1]
    free, taken, at = np.zeros(moments), np.zeros(moments), np.zeros(moments)
    points = ALONE if strings == 1 else POINTS
    volts, amps = np.zeros((strings, points)), np.zeros((strings, points))
    unit = (kept_frac, p_max, i_out_max)
    for n in range(moments):
        column = light[:, n].copy()
        if column.max() <= DARK_W_PER_M2:
            continue
        for s in range(strings):
            mine, kinds = column[starts[s] : starts[s + 1]], types[starts[s] : starts[s + 1]]
            own = fitted[starts[s] // per : starts[s + 1] // per]
            cell = cell_degc[s, n]
            most = _most_a(mine, cell, refs, kinds)
            for k in range(points):
                # Closer together towards the bend of the brightest.
                amps[s, k] = most * (1.0 - (1.0 - k / (points - 1.0)) ** 1.6)
            volts[s] = _curve(mine, cell, refs, kinds, per, own, unit[0], unit[1], unit[2], amps[s])
        opens = volts[:, 0].max()
        if strings == 1:
            free[n], i_free, taken[n], i_taken, at[n] = _alone(
                volts[0], amps[0], v_min, v_max, i_max
            )
            # Once more, closely, about the points found.
            for i in (i_free, i_taken):
                k = int(np.searchsorted(amps[0], i))
                near = np.linspace(amps[0, max(0, k - 1)], amps[0, min(points - 1, k + 1)], CLOSE)
                close = _curve(
                    column, cell, refs, types, per, fitted, unit[0], unit[1], unit[2], near
                )
                f, _, t, _, v = _alone(close, near, v_min, v_max, i_max)
                free[n] = max(free[n], f)
                if t > taken[n]:
                    taken[n], at[n] = t, v
                if i_free == i_taken:
                    break
        else:
            free[n], _, _, _ = in_parallel(volts, amps, 0.0, BOUNDLESS, BOUNDLESS)
            _, taken[n], at[n], _ = in_parallel(volts, amps, v_min, v_max, i_max)
        if opens < max(v_start, v_min):
            taken[n], at[n] = 0.0, 0.0
    return free, taken, at


@compiled
def own_year(light: Any, cell_degc: Any, ref: Any) -> Any:
    """Return (n,) W each: substrings of one type each at its own best, at 25 °C and as warm as they are.

    ``light`` (m, n) in W/m², ``cell_degc`` (n,).
    """
    moments = light.shape[1]
    cool, own = np.zeros(moments), np.zeros(moments)
    counts, terms = np.empty(light.shape[0]), np.empty((light.shape[0], 5))
    for n in range(moments):
        column = light[:, n].copy()
        if column.max() <= DARK_W_PER_M2:
            continue
        own[n] = own_power(column, cell_degc[n], ref, counts, terms)
        cool[n] = own_power(column, STC_K - 273.15, ref, counts, terms)
    return cool, own


def warm() -> None:
    """Compile every kernel once, or load it from the cache."""
    ref = np.array([10.0, 1e-10, 0.3, 400.0, 1.8, 0.005, 2.0, 1.121])
    light = np.array([[900.0, 600.0], [900.0, 300.0], [900.0, 600.0], [900.0, 500.0]])
    cells = np.full((2, 2), 40.0)
    limits = (10.0, 100.0, 20.0, 5.0)
    own_points(light, 2, cells, ref, *limits)
    fitted, starts = np.array([True, False]), np.array([0, 4])
    types = np.zeros(4, np.int64)
    unit = (0.99, 500.0, 15.0)
    helped_year(light, starts, cells[:1], ref[None], types, 2, fitted, *unit, *limits)
    own_year(light, cells[0], ref)
