"""Compiled: what inverters give, step by step, as heat and limits allow.

The cabinet remembers: how warm it is depends on what was converted before.
"""

import math
from typing import Any

import numba
import numpy as np

compiled = numba.njit(cache=True, nogil=True)


@compiled
def lost_w(dc_w: float, terms: Any, rating_w: float) -> float:
    """Return what conversion turns to heat: (own + linear p + square p²) times the rating."""
    p = dc_w / rating_w
    lost: float = (terms[0] + terms[1] * p + terms[2] * p * p) * rating_w
    return lost


@compiled
def dc_for(ac_w: float, terms: Any, rating_w: float) -> float:
    """Return the DC power that gives an AC power."""
    free = 1.0 - terms[1]
    wanted = ac_w / rating_w + terms[0]
    if terms[2] < 1e-12:
        p = wanted / free
    else:
        p = (free - math.sqrt(max(free * free - 4.0 * terms[2] * wanted, 0.0))) / (2.0 * terms[2])
    found: float = p * rating_w
    return found


@compiled
def _terms_at(volts: float, curve_v: Any, curves: Any, terms: Any) -> None:
    """Fill in the loss terms between the curves of two voltages; the nearest one's outside."""
    last = len(curve_v) - 1
    k = 0
    while k < last - 1 and volts > curve_v[k + 1]:
        k += 1
    if last == 0:
        share = 0.0
    else:
        share = (volts - curve_v[k]) / (curve_v[k + 1] - curve_v[k])
        share = min(1.0, max(0.0, share))
    for j in range(3):
        high = curves[min(k + 1, last), j]
        terms[j] = curves[k, j] + share * (high - curves[k, j])


@compiled
def _power_at(air: float, air_points: Any, power_points: Any) -> float:
    """Return the share of the rating a derating curve allows."""
    last = len(air_points) - 1
    if air <= air_points[0]:
        return float(power_points[0])
    for k in range(last):
        if air <= air_points[k + 1]:
            share = (air - air_points[k]) / (air_points[k + 1] - air_points[k])
            return float(power_points[k] + share * (power_points[k + 1] - power_points[k]))
    return float(power_points[last])


@compiled
def _ac_for_loss(lost: float, terms: Any, rating_w: float) -> float:
    """Return the AC power that turns so much to heat; the rating where loss knows no load."""
    wanted = terms[0] - lost / rating_w
    if terms[1] < 1e-9 and terms[2] < 1e-9:
        return rating_w
    if terms[2] < 1e-9:
        p = -wanted / terms[1]
    else:
        p = (math.sqrt(max(terms[1] ** 2 - 4.0 * terms[2] * wanted, 0.0)) - terms[1]) / (
            2.0 * terms[2]
        )
    found: float = max(p * rating_w - lost, 0.0)
    return found


@compiled
def _allowed_w(
    air: float, heat_w: float, kept: float, terms: Any, rating_w: float, airs: Any, powers: Any
) -> float:
    """Return the AC power the cabinet allows in a step.

    The sheet's curve is of settled cabinets: in this air it stands as warm as it may at the
    curve's power.  One that is not so warm yet may give more until it is, by the step's end.
    ``heat_w``: what it has settled to so far, as the loss that would hold it there; ``kept``:
    the share of its distance from a new loss that is left after the step.
    """
    settled_w = _power_at(air, airs, powers) * rating_w
    most_w = lost_w(dc_for(settled_w, terms, rating_w), terms, rating_w)
    if heat_w >= most_w:
        return settled_w
    lost = (most_w - heat_w * kept) / (1.0 - kept)
    return max(settled_w, _ac_for_loss(lost, terms, rating_w))


@compiled
def given_year(
    dc_w: Any,
    volts: Any,
    air_degc: Any,
    curve_v: Any,
    curves: Any,
    rating_w: float,
    night_w: float,
    airs: Any,
    powers: Any,
    k_per_w: float,
    steps_per_lag: float,
    direct_frac: Any,
    beam: Any,
) -> Any:
    """Return what u inverters of one kind give in n steps, summed.

    Parameters
    ----------
    dc_w : (u, n) float
        What the sun offers each.
    volts, air_degc : (n,) float
        DC voltage, and the air around the cabinets.
    curve_v, curves : (c,) and (c, 3) float
        Loss terms by voltage; see ``lost_w``.
    airs, powers : (d,) float
        Derating curve, °C and shares of the rating; empty: none.
    k_per_w : float
        How far a settled cabinet stands above the air for each watt lost.
    steps_per_lag : float
        The lag of the cabinet in steps.
    direct_frac : (n,) float
        The share of each step's power that comes and goes with the beam.
    beam : (n, q) float
        The beam over its mean in equal parts of each step.

    Returns
    -------
    unlimited, rated, given, cabinet, limited : (n,) float
        AC power without any limit, at the rating and as the heat allows, W, night draw negative;
        the warmest cabinet, °C; the share of the time that the inverter longest at its rating is.
    """
    units, steps = dc_w.shape
    unlimited, rated, given = np.zeros(steps), np.zeros(steps), np.zeros(steps)
    cabinet, limited, parts = air_degc.copy(), np.zeros(steps), beam.shape[1]
    terms = np.empty(3)
    kept = math.exp(-1.0 / steps_per_lag)
    for u in range(units):
        heat = 0.0
        for n in range(steps):
            _terms_at(volts[n], curve_v, curves, terms)
            dc = dc_w[u, n]
            gross = dc - lost_w(dc, terms, rating_w)
            if gross <= 0.0:
                heat *= kept
                unlimited[n] -= night_w
                rated[n] -= night_w
                given[n] -= night_w
                continue
            capped, long = 0.0, 0
            for q in range(parts):
                part = gross * (1.0 + direct_frac[n] * (beam[n, q] - 1.0))
                if part > rating_w:
                    part = rating_w
                    long += 1
                capped += part / parts
            limited[n] = max(limited[n], long / parts)
            taken = dc
            if long == 0:
                capped = gross
            else:
                taken = dc_for(capped, terms, rating_w)
            out = capped
            if len(airs) > 0:
                allowed = _allowed_w(air_degc[n], heat, kept, terms, rating_w, airs, powers)
                if out > allowed:
                    out = allowed
                    taken = dc_for(out, terms, rating_w)
            loss = lost_w(taken, terms, rating_w)
            heat = loss + (heat - loss) * kept
            unlimited[n] += gross
            rated[n] += capped
            given[n] += out
            cabinet[n] = max(cabinet[n], air_degc[n] + k_per_w * heat)
    return unlimited, rated, given, cabinet, limited


def warm() -> None:
    """Compile every kernel once, or load it from the cache."""
    one, curves = np.full((1, 2), 500.0), np.array([[0.01, 0.01, 0.01]])
    points = np.array([40.0, 60.0])
    limits = (points, points / 60, 0.1, 4.0)
    given_year(one, one[0], one[0], points[:1], curves, 400.0, 1.0, *limits, one[0], one.T.copy())
