"""When a weather file's hours really are: the label that makes its three irradiances agree.

Global light is beam on the level plus diffuse: GHI = DNI sin(el) + DHI.  With the sun
reckoned at the wrong minute the two sides part, most of all morning and evening; the
offset at which they agree best is the file's own.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.sky.sun import Location, TimeArray, sun_path

FloatArray = NDArray[np.float64]
SCANNED_MIN = tuple(range(-60, 61, 10))
# Dusk says nothing: the sun's half hours below the horizon close with any label.
LEAST_GHI_W_PER_M2 = 20.0


@dataclass(frozen=True, slots=True)
class Closure:
    """Minutes from the label to the middle of the hour, and how well the file closes there.

    ``rms_w_per_m2`` runs along ``offsets_min``; ``edge`` where the best lies at its end, so
    that the true label may be further off still.
    """

    offset_min: int
    best_rms_w_per_m2: float
    offsets_min: tuple[int, ...]
    rms_w_per_m2: tuple[float, ...]
    edge: bool


def scan_closure(
    label: TimeArray,
    location: Location,
    ghi_w_per_m2: FloatArray,
    dni_w_per_m2: FloatArray,
    dhi_w_per_m2: FloatArray,
) -> Closure | None:
    """Return the offset at which the hours close best; ``None`` where nothing can be compared.

    Parameters
    ----------
    label : (n,) datetime64
        As the file writes them, in its standard time.
    ghi_w_per_m2, dni_w_per_m2, dhi_w_per_m2 : (n,) float
        NaN where missing.

    Notes
    -----
    Where the diffuse was itself worked out from the other two at some minute, the scan finds
    that minute.
    """
    known = np.isfinite(ghi_w_per_m2) & np.isfinite(dni_w_per_m2) & np.isfinite(dhi_w_per_m2)
    known &= ghi_w_per_m2 > LEAST_GHI_W_PER_M2
    if not known.any() or not (dni_w_per_m2[known] > 0).any():
        return None
    rms = []
    for minutes in SCANNED_MIN:
        at = label[known] + np.timedelta64(minutes * 60, "s")
        up = np.cos(np.radians(sun_path(at, location).zenith_deg))
        off = ghi_w_per_m2[known] - dni_w_per_m2[known] * np.maximum(up, 0) - dhi_w_per_m2[known]
        rms.append(float(np.sqrt(np.mean(off**2))))
    best = int(np.argmin(rms))
    return Closure(SCANNED_MIN[best], rms[best], SCANNED_MIN, tuple(rms), best in (0, len(rms) - 1))
