"""How much rails grow with heat."""

from ridge_tally.core.mounting_sheet import RailMetal

# Handbook coefficients of common alloys, from memory.
GROWTH_PER_K = {RailMetal.ALUMINIUM: 23.6e-6, RailMetal.STEEL: 11.7e-6}


def growth_m(length_m: float, warmer_k: float, metal: RailMetal) -> float:
    """Return how much longer a rail gets.  Source: alpha L dT."""
    return GROWTH_PER_K[metal] * length_m * warmer_k
