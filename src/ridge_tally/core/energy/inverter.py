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

    ``cabinet_degc`` is the warmest cabinet's; ``limited_frac`` the share of each step that the
    inverter longest at its rating is.
    """

    unlimited_w: FloatArray
    rated_w: FloatArray
    given_w: FloatArray
    cabinet_degc: FloatArray
    limited_frac: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class Within:
    """How power comes and goes within each step.

    ``direct_frac`` (n,): the share of it that follows the beam; ``beam`` (n, q): the beam over its
    mean in equal parts of the step, see ``core.sky.passing_beam``.
    """

    direct_frac: FloatArray
    beam: FloatArray

    @property
    def coming(self) -> FloatArray:
        """(n, q): power in each part of a step over the step's mean."""
        return np.asarray(1 + self.direct_frac[:, None] * (self.beam - 1))


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
    within: Within | None = None,
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
    within : Within, optional
        How the beam comes and goes within each step; left out, it does not.

    Notes
    -----
    A cabinet settles at the air plus its rise for each watt lost and follows with one lag.  The
    sheet's derating curve is one of settled cabinets: a short peak passes, a day at the limit
    does not.  Where a limit cuts, the trackers draw less; no heat comes of what is not drawn.
    """
    steps = units_w.shape[1]
    direct_frac, beam = np.zeros(steps), np.ones((steps, 1))
    if within is not None:
        direct_frac, beam = within.direct_frac, within.beam
    return AcYear(
        *kernel.given_year(
            units_w, volts_v, air_degc, side.curve_v, side.curves, side.rating_w, side.night_w,
            side.airs_degc, side.powers_frac, side.k_per_w, side.lag_h / hours, direct_frac, beam,
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
        np.max([y.limited_frac for y in years], axis=0),
    )


def efficiency_at(load_frac: FloatArray, side: InverterModel) -> FloatArray:
    """Return the efficiency at AC loads of the rating, 0 at none, on the middle voltage's curve."""
    terms = side.curves[len(side.curves) // 2]
    dc = np.array([kernel.dc_for(float(x), terms, 1.0) for x in load_frac])
    return np.asarray(np.divide(load_frac, dc, out=np.zeros_like(dc), where=dc > 0))
