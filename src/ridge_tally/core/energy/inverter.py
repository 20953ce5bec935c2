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


@dataclass(frozen=True, slots=True)
class AcPower:
    """n hours of AC power in W: what it would be without a limit, and at the meter."""

    unlimited_w: FloatArray
    delivered_w: FloatArray


def ac_power(dc_w: FloatArray, sheet: InverterSheet) -> AcPower:
    """Return AC power for (n,) DC power; a dark inverter draws its night watts.

    Notes
    -----
    Pac = Pdc - (c0 + c1 p + c2 p²) rating.  No derating by heat or altitude here.
    """
    curve = loss_curve(sheet.efficiency)
    p = dc_w / sheet.p_ac_w
    loss_frac = curve.own_frac + curve.linear_frac * p + curve.square_frac * p**2
    gross_w = dc_w - loss_frac * sheet.p_ac_w
    unlimited_w = np.where(gross_w > 0, gross_w, -sheet.night_w)
    return AcPower(unlimited_w, np.minimum(unlimited_w, sheet.p_ac_w))
