"""What copper does to a circuit: its resistance when warm, the voltage along it, the power it takes."""

import math

import numpy as np
from numpy.typing import NDArray

# Copper's resistance rises by so much of its value at 20 °C with each kelvin (IEC 60228).
ALPHA_PER_K = 0.00393


def warm_ohm_per_km(ohm_per_km_20: float, conductor_degc: float) -> float:
    """Return a conductor's resistance at its own temperature, ohm/km."""
    return ohm_per_km_20 * (1 + ALPHA_PER_K * (conductor_degc - 20))


def way_back(phases: int) -> float:
    """Return how many conductors' length the voltage of one phase is dropped along.

    Out and back on a circuit of two; a balanced three-phase circuit has no current in its neutral.
    """
    return 1.0 if phases == 3 else 2.0


def drop_v(length_m: float, amps: float, ohm_per_km: float, phases: int = 1) -> float:
    """Return the drop (or rise) of a phase's voltage along a circuit, V."""
    return way_back(phases) * length_m / 1000 * ohm_per_km * amps


def lost_w(length_m: float, amps: float, ohm_per_km: float, phases: int = 1) -> float:
    """Return the power that all its conductors take, W."""
    carrying = 3 if phases == 3 else 2
    return carrying * length_m / 1000 * ohm_per_km * amps**2


def conductors_mm2(outer_mm: float) -> float:
    """Return the area of a round wire over its insulation, mm²."""
    return math.pi / 4 * outer_mm**2


def squares_over_rating(power_w: NDArray[np.float64], rated_w: float) -> float:
    """Return how many steps at the rating lose as much in a conductor as (n,) powers do.

    What a conductor takes goes with the square of what flows; 0 without a rating.
    """
    return float(np.square(power_w).sum()) / rated_w**2 if rated_w else 0.0
