"""From DC to AC: a loss curve through the datasheet's efficiencies, and the AC limit."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.equipment import EfficiencyPoint, InverterSheet
from ridge_tally.core.errors import MissingDatum, OutOfRange

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class LossCurve:
    """loss / rating = own + linear p + square p², p = DC power / AC rating."""

    own_frac: float
    linear_frac: float
    square_frac: float


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
    fitted = np.linalg.lstsq(terms / dc[:, None], (dc - load) / dc, rcond=None)[0]
    return LossCurve(*(float(max(value, 0.0)) for value in fitted))


def unlimited_ac_w(dc_w: FloatArray, sheet: InverterSheet) -> FloatArray:
    """Return AC power for (n,) DC power as if there were no AC limit; dark, the night watts.

    Notes
    -----
    Pac = Pdc - (c0 + c1 p + c2 p²) rating.  No derating by heat or altitude here.
    """
    curve = loss_curve(sheet.efficiency)
    p = dc_w / sheet.p_ac_w
    loss_frac = curve.own_frac + curve.linear_frac * p + curve.square_frac * p**2
    gross_w = dc_w - loss_frac * sheet.p_ac_w
    return np.where(gross_w > 0, gross_w, -sheet.night_w)


def clipped_by_minutes_w(
    unlimited_w: FloatArray, direct_frac: FloatArray, beam: FloatArray, limit_w: float
) -> FloatArray:
    """Return (n,): what a limit cuts off hours whose minutes differ.

    Parameters
    ----------
    unlimited_w, direct_frac : (n,) float
        AC power of the hour's mean, and the beam's share of its light.
    beam : (n, q) float
        The beam of the hour's minutes over its mean; see ``core.sky.minutes``.
    """
    cut = np.zeros(len(unlimited_w))
    # No minute is brighter than this over the hour.
    reach = unlimited_w * (1 + direct_frac * (beam[:, -1] - 1))
    near = reach > limit_w
    minutes = unlimited_w[near, None] * (1 + direct_frac[near, None] * (beam[near] - 1))
    cut[near] = np.maximum(minutes - limit_w, 0.0).mean(axis=1)
    return cut
