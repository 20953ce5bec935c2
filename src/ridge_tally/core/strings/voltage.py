"""Voltages of modules in series, and the counts at which they meet a limit.

Temperatures in °C, coefficients as fractions per °C relative to the 25 °C value.
Source of the linear coefficient method: common practice; NEC 690.7(A)(1) names it
(clause from memory).
"""

import math

STC_CELL_DEGC = 25.0


def string_voltage_v(
    modules_in_series: int, module_v: float, coefficient_frac_per_degc: float, cell_degc: float
) -> float:
    """Return a string's voltage at a cell temperature, in volts.

    ``module_v`` is Voc or Vmp at 25 °C, the coefficient that of the same voltage.
    """
    change = coefficient_frac_per_degc * (cell_degc - STC_CELL_DEGC)
    return modules_in_series * module_v * (1 + change)


def temperature_at_voltage_degc(
    modules_in_series: int, voc_v: float, beta_voc_frac_per_degc: float, limit_v: float
) -> float:
    """Return the cell temperature at which the string's Voc meets `limit_v`, in °C.

    T = 25 + (limit / (n Voc) - 1) / beta; NaN when beta is zero.
    """
    if beta_voc_frac_per_degc == 0:
        return math.nan
    ratio = limit_v / (modules_in_series * voc_v)
    return STC_CELL_DEGC + (ratio - 1) / beta_voc_frac_per_degc


def most_in_series(module_v: float, limit_v: float) -> int:
    """Return how many modules of `module_v` stay at or under `limit_v` (tolerance 1e-9)."""
    return math.floor(limit_v * (1 + 1e-9) / module_v)


def fewest_in_series(module_v: float, needed_v: float) -> int:
    """Return how many modules of `module_v` reach at least `needed_v` (tolerance 1e-9)."""
    return math.ceil(needed_v * (1 - 1e-9) / module_v)
