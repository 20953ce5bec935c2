"""From DC to AC: losses through the datasheet's efficiencies, the AC limit, and the cabinet's heat."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import nnls

from ridge_tally.core.equipment import (
    EfficiencyPoint,
    InverterSheet,
    MicroinverterSheet,
    Warming,
)
from ridge_tally.core.errors import MissingDatum, OutOfRange
from ridge_tally.core.kernels import inverter as kernel

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class LossCurve:
    """loss / rating = own + linear p + square p², p = DC power / AC rating."""

    own_frac: float
    linear_frac: float
    square_frac: float


@dataclass(frozen=True, slots=True, eq=False)
class InverterModel:
    """An inverter from its DC bus to its AC terminals.

    ``curve_v`` (c,) and ``curves`` (c, 3): loss terms by DC voltage.  ``airs_degc`` and
    ``powers_frac`` (d,): the derating curve, empty without one.  ``k_per_w``: how far a settled
    cabinet stands above the air for each watt lost; it follows by ``lag_h``.
    """

    rating_w: float
    night_w: float
    curve_v: FloatArray
    curves: FloatArray
    airs_degc: FloatArray
    powers_frac: FloatArray
    k_per_w: float
    lag_h: float


@dataclass(frozen=True, slots=True, eq=False)
class AcYear:
    """AC power of n steps, W, night draw negative: without any limit, at the rating, with heat.

    ``cabinet_degc`` is the warmest cabinet's.
    """

    unlimited_w: FloatArray
    rated_w: FloatArray
    given_w: FloatArray
    cabinet_degc: FloatArray


def loss_curve(points: tuple[EfficiencyPoint, ...]) -> LossCurve:
    """Return the loss quadratic that fits the efficiencies best, each point weighted alike.

    Raises
    ------
    MissingDatum
        With fewer than three points.
    OutOfRange
        If an efficiency is not between 0 and 1.
    """
    if len(points) < 3:
        raise MissingDatum(
            "efficiency curve", "This inverter", "Give its efficiency at three loads or more."
        )
    for point in points:
        if not 0 < point.efficiency_frac < 1:
            raise OutOfRange(
                "Inverter efficiency", point.efficiency_frac, "above 0 and below 1 (a fraction)"
            )
    load = np.array([p.load_frac for p in points])
    dc = load / np.array([p.efficiency_frac for p in points])
    terms = np.stack([np.ones_like(dc), dc, dc**2], axis=1)
    fitted, _ = nnls(terms / dc[:, None], (dc - load) / dc)
    return LossCurve(*(float(value) for value in fitted))


def ac_side(sheet: InverterSheet | MicroinverterSheet, usual: Warming) -> InverterModel:
    """Return an inverter as the year takes it.

    Parameters
    ----------
    usual : Warming
        Taken where its own sheet is silent.

    Raises
    ------
    MissingDatum, OutOfRange
        See ``loss_curve``.

    Notes
    -----
    Efficiencies whose points name DC voltages make one curve for each voltage.
    """
    by_volts: dict[float, list[EfficiencyPoint]] = {}
    for point in sheet.efficiency:
        by_volts.setdefault(point.dc_v or 0.0, []).append(point)
    curves = {v: loss_curve(tuple(points)) for v, points in sorted(by_volts.items())}
    if not curves:
        loss_curve(())
    warming = sheet.warming or usual
    rows = np.array([[c.own_frac, c.linear_frac, c.square_frac] for c in curves.values()])
    middle = rows[len(rows) // 2]
    dc_w = kernel.dc_for(sheet.p_ac_w, middle, sheet.p_ac_w)
    lost_w = kernel.lost_w(dc_w, middle, sheet.p_ac_w)
    derating = sorted(sheet.derating, key=lambda p: p.air_degc)
    return InverterModel(
        rating_w=sheet.p_ac_w,
        night_w=sheet.night_w,
        curve_v=np.array(list(curves)),
        curves=rows,
        airs_degc=np.array([p.air_degc for p in derating]),
        powers_frac=np.array([p.power_frac for p in derating]),
        k_per_w=warming.rise_at_rating_k / lost_w if lost_w > 0 else 0.0,
        lag_h=warming.lag_min / 60,
    )


def ac_year(
    units_w: FloatArray,
    volts_v: FloatArray,
    air_degc: FloatArray,
    side: InverterModel,
    hours: float,
) -> AcYear:
    """Return what u inverters of one kind give, summed.

    Parameters
    ----------
    units_w : (u, n) float
        DC power the sun offers each.
    volts_v, air_degc : (n,) float
        DC voltage and the air around the cabinets, which stand in the shade.
    hours : float
        In each step.

    Notes
    -----
    A cabinet settles at the air plus its rise for each watt lost and follows with one lag.  The
    sheet's derating curve is one of settled cabinets: a short peak passes, a day at the limit
    does not.  Where a limit cuts, the trackers draw less; no heat comes of what is not drawn.
    """
    return AcYear(
        *kernel.given_year(
            units_w, volts_v, air_degc, side.curve_v, side.curves, side.rating_w, side.night_w,
            side.airs_degc, side.powers_frac, side.k_per_w, side.lag_h / hours,
        )
    )  # fmt: skip


def summed(years: Sequence[AcYear]) -> AcYear:
    """Return what inverters of several kinds give together, and their warmest cabinet."""
    if len(years) == 1:
        return years[0]
    return AcYear(
        np.sum([y.unlimited_w for y in years], axis=0),
        np.sum([y.rated_w for y in years], axis=0),
        np.sum([y.given_w for y in years], axis=0),
        np.max([y.cabinet_degc for y in years], axis=0),
    )


def efficiency_at(load_frac: FloatArray, side: InverterModel) -> FloatArray:
    """Return the efficiency at AC loads of the rating, 0 at none, on the middle voltage's curve."""
    terms = side.curves[len(side.curves) // 2]
    dc = np.array([kernel.dc_for(float(x), terms, 1.0) for x in load_frac])
    return np.asarray(np.divide(load_frac, dc, out=np.zeros_like(dc), where=dc > 0))


def clipped_by_minutes_w(
    unlimited_w: FloatArray, direct_frac: FloatArray, beam: FloatArray, limit_w: float
) -> FloatArray:
    """Return (n,): what a limit cuts off steps whose minutes differ.

    Parameters
    ----------
    unlimited_w, direct_frac : (n,) float
        AC power of the step's mean, and the beam's share of its light.
    beam : (n, q) float
        The beam of the step's minutes over its mean; see ``core.sky.fine_weather``.
    """
    cut = np.zeros(len(unlimited_w))
    near = unlimited_w * (1 + direct_frac * (beam.max(axis=1) - 1)) > limit_w
    minutes = unlimited_w[near, None] * (1 + direct_frac[near, None] * (beam[near] - 1))
    cut[near] = np.maximum(minutes - limit_w, 0.0).mean(axis=1)
    return cut
