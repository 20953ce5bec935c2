"""What lying snow takes of a month's light, by tilt."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib import snow

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class SnowMonths:
    """Twelve months of snow, January first, and what a fall is taken to be."""

    fall_cm: FloatArray
    air_degc: FloatArray
    humidity_percent: float
    one_fall_cm: float


def snow_lost_frac(
    months: SnowMonths,
    tilt_deg: float,
    poa_wh_per_m2: FloatArray,
    slant_m: float,
    lower_edge_m: float,
) -> FloatArray:
    """Return (12,): the share of each month's light that snow on the glass takes.

    Parameters
    ----------
    poa_wh_per_m2 : (12,) float
        Light on the free plane by month.
    slant_m, lower_edge_m : float
        Length of the array up its slope, and the height of its lower edge over what snow
        slides down to.

    Notes
    -----
    Townsend and Powers 2011, 37th IEEE PVSC, in the reference library; one string up the
    slope, snow's angle of repose 40°.  A month without light loses nothing more.
    """
    falls = np.ceil(months.fall_cm / months.one_fall_cm)
    lit = poa_wh_per_m2 > 0
    lost = snow.loss_townsend(
        months.fall_cm,
        falls,
        tilt_deg,
        np.full(12, months.humidity_percent),
        months.air_degc,
        np.where(lit, poa_wh_per_m2, 1.0),
        slant_m,
        lower_edge_m,
    )
    return np.where(lit, np.nan_to_num(np.asarray(lost, dtype=float)), 0.0)
