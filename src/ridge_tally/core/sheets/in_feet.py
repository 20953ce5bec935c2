"""A check in the units of a job in feet: every length of its sum is one in feet.

The sum stays as it is: it adds lengths to lengths, or multiplies one with what is by the metre.
"""

from dataclasses import replace

from ridge_tally.core.units import M_PER_FT
from ridge_tally.core.working import Check, Given

# A square metre's kilograms as pounds on a square foot; kilograms and square metres with them.
PSF_PER_KG_M2 = 0.2048161
LB_PER_N = 0.2248089
PER_METRIC = {
    "m": ("ft", 1 / M_PER_FT),
    "ohm/m": ("ohm/ft", M_PER_FT),
    "N": ("lb", LB_PER_N),
    "Pa": ("psf", LB_PER_N * M_PER_FT**2),
    "N/m": ("lb/ft", LB_PER_N * M_PER_FT),
    "kg": ("lb", PSF_PER_KG_M2 / M_PER_FT**2),
    "m²": ("sq ft", 1 / M_PER_FT**2),
    "kg/m²": ("psf", PSF_PER_KG_M2),
}


def in_feet(check: Check) -> Check:
    """Return the check with its lengths in feet; the same check where it has none."""
    every = (*check.givens, check.value, check.limit)
    if all(given.unit not in PER_METRIC for given in every):
        return check
    return replace(
        check,
        givens=tuple(_in_feet(given) for given in check.givens),
        value=_in_feet(check.value),
        limit=_in_feet(check.limit),
    )


def _in_feet(given: Given) -> Given:
    if given.unit not in PER_METRIC:
        return given
    unit, factor = PER_METRIC[given.unit]
    value = None if given.value is None else given.value * factor
    return replace(given, value=value, unit=unit)
