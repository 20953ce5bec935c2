"""What snow, wind and weight put on one mount: a screen against typed limits, no proof of a roof.

Clauses are those of ASCE 7-16 and of NDS 2018, from memory.
"""

import math
from collections.abc import Sequence
from itertools import pairwise

from ridge_tally.core.errors import OutsideModelRange
from ridge_tally.core.units import M_PER_FT, M_PER_IN

N_PER_LBF = 4.4482216
# Exponent and gradient height in feet by exposure (table 26.11-1).
PROFILES = {"B": (7.0, 1200.0), "C": (9.5, 900.0), "D": (11.5, 700.0)}
DIRECTIONALITY = 0.85
LEAST_HEIGHT_FT, LEAST_HEIGHT_B_FT, HIGHEST_FT = 15.0, 30.0, 60.0
# Slopes to which nothing slides off, by how warm the roof is; all of it from 70 degrees on.
HOLDS_TO_DEG = {1.0: 30.0, 1.1: 37.5, 1.2: 45.0}
ALL_OFF_DEG = 70.0


def velocity_pressure_pa(
    wind_m_per_s: float, exposure: str, height_m: float, elevation_m: float
) -> float:
    """Return the velocity pressure at the mean roof height, Pa.

    Raises
    ------
    OutsideModelRange
        Above 60 ft.

    Notes
    -----
    q = 0.613 Kz Kd Ke V², Kz = 2.01 (z / zg)^(2 / a) with z at least 15 ft, 30 ft in exposure B
    (components and cladding), Ke = exp(-0.0000362 z_g) with z_g in feet; Kzt = 1.
    Source: ASCE 7-16, 26.10 and 26.11, from memory.
    """
    height_ft = height_m / M_PER_FT
    if height_ft > HIGHEST_FT:
        raise OutsideModelRange(
            "Roof height",
            f"{height_ft:.0f} ft is above the {HIGHEST_FT:g} ft this formula serves",
            "Ask an engineer.",
        )
    alpha, gradient_ft = PROFILES[exposure]
    least = LEAST_HEIGHT_B_FT if exposure == "B" else LEAST_HEIGHT_FT
    kz: float = 2.01 * (max(height_ft, least) / gradient_ft) ** (2 / alpha)
    ke: float = math.exp(-0.0000362 * elevation_m / M_PER_FT)
    return 0.613 * kz * DIRECTIONALITY * ke * wind_m_per_s**2


def flat_roof_snow_pa(ground_pa: float, thermal: float) -> float:
    """Return the snow on a flat roof: 0.7 Ce Ct Is pg with Ce = Is = 1, Pa (ASCE 7-16, 7.3)."""
    return 0.7 * thermal * ground_pa


def sloped_snow_frac(slope_deg: float, thermal: float) -> float:
    """Return Cs of a surface that is not slippery: 1 to a slope by Ct, 0 from 70 degrees (7.4)."""
    holds = HOLDS_TO_DEG[thermal]
    if slope_deg <= holds:
        return 1.0
    return max(0.0, (ALL_OFF_DEG - slope_deg) / (ALL_OFF_DEG - holds))


def array_area_factor(area_m2: float) -> float:
    """Return gamma_a of a rooftop array parallel to the roof: 0.8 to 10 sq ft, 0.4 from 100 on.

    Log-linear between.  Source: ASCE 7-16, figure 29.4-8, from memory.
    """
    area_ft2 = area_m2 / M_PER_FT**2
    return min(0.8, max(0.4, 1.2 - 0.4 * math.log10(max(area_ft2, 1e-9))))


def tributary_m(from_m: float, to_m: float, mounts_m: Sequence[float]) -> tuple[float, ...]:
    """Return the length of rail each mount carries: half of both spans, a bare end whole.

    Their sum is the rail.  Source: statics; a continuous rail really loads the first inner mount
    by some tenth or more over it.
    """
    middles = [(a + b) / 2 for a, b in pairwise(mounts_m)]
    edges = [from_m, *middles, to_m]
    return tuple(b - a for a, b in pairwise(edges))


def rail_shares(height_m: float, places_m: Sequence[float]) -> tuple[float, ...]:
    """Return the share of a module's load on each rail under it; their sum is one.

    Parameters
    ----------
    places_m : sequence of float
        Where the rails lie, from the module's lower edge, ascending: one, two or more.

    Notes
    -----
    Two rails by statics of a stiff module; of more, each carries half-way to its neighbours and out
    to the module's edge.
    """
    if len(places_m) == 2:
        low = (places_m[1] - height_m / 2) / (places_m[1] - places_m[0])
        return low, 1.0 - low
    return tuple(part / height_m for part in tributary_m(0.0, height_m, places_m))


def withdrawal_n_per_m(gravity: float, diameter_m: float) -> float:
    """Return what a metre of lag thread in the side of wood withstands, before any factor, N/m.

    Notes
    -----
    W = 1800 G^1.5 D^0.75 pounds per inch, D in inches.  Source: NDS, 12.2.1, from memory.
    """
    pounds_per_inch = 1800 * gravity**1.5 * (diameter_m / M_PER_IN) ** 0.75
    return float(pounds_per_inch) * N_PER_LBF / M_PER_IN
