"""What meters should read on a string at a measured light and cell temperature, and how sure that is.

The module's own fitted diode says the reading; the band is the root of the sum of squares of what
the meter, the light meter and the thermometer may be off by.
"""

from collections.abc import Callable
from dataclasses import dataclass
from math import expm1, hypot, isnan

from scipy.optimize import brentq

from ridge_tally.core.energy.lit import diode_of
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.kernels.diode import best_point, diode_terms, voltage_at

# Where readings are worth something; common practice, no source.
LEAST_LIGHT, MOST_LIGHT = 50.0, 1500.0
COLDEST_DEGC, HOTTEST_DEGC = -40.0, 110.0
MOST_IN_SERIES = 100


@dataclass(frozen=True, slots=True)
class MeterErrors:
    """How far off instruments may be, as fractions, and a thermometer in kelvin; usual, no source."""

    volts_frac: float = 0.01
    amps_frac: float = 0.01
    light_frac: float = 0.05
    cell_k: float = 2.0


@dataclass(frozen=True, slots=True)
class Reading:
    """What an instrument should show, V or A, and how far from it is no news."""

    due: float
    band: float


@dataclass(frozen=True, slots=True)
class StringDue:
    """A string's open voltage, short-circuit current, and its point of most power."""

    voc_v: Reading
    isc_a: Reading
    vmp_v: Reading
    imp_a: Reading


@dataclass(frozen=True, slots=True)
class _At:
    voc_v: float
    isc_a: float
    vmp_v: float
    imp_a: float


def string_due(
    sheet: ModuleSheet,
    in_series: int,
    light_w_per_m2: float,
    cell_degc: float,
    errors: MeterErrors | None = None,
) -> StringDue:
    """Return what a string of equal modules, lit alike, should read.

    Parameters
    ----------
    light_w_per_m2 : float
        On the plane of the modules, as their cells see it.
    cell_degc : float
        Of the cells, not of their backs.

    Raises
    ------
    OutOfRange
        If the count, the light or the temperature is none a string is measured at.
    MissingDatum, OutsideModelRange
        If the datasheet lacks what the model needs or contradicts itself.
    """
    _require("Modules in series", float(in_series), 1, MOST_IN_SERIES)
    _require("Light, W/m²", light_w_per_m2, LEAST_LIGHT, MOST_LIGHT)
    _require("Cell temperature, °C", cell_degc, COLDEST_DEGC, HOTTEST_DEGC)
    off = errors or MeterErrors()
    here = _at(sheet, in_series, light_w_per_m2, cell_degc)
    brighter = _at(sheet, in_series, light_w_per_m2 * (1 + off.light_frac), cell_degc)
    warmer = _at(sheet, in_series, light_w_per_m2, cell_degc + off.cell_k)

    def reading(of: Callable[[_At], float], meter_frac: float) -> Reading:
        due = of(here)
        return Reading(due, hypot(due * meter_frac, of(brighter) - due, of(warmer) - due))

    return StringDue(
        voc_v=reading(lambda a: a.voc_v, off.volts_frac),
        isc_a=reading(lambda a: a.isc_a, off.amps_frac),
        vmp_v=reading(lambda a: a.vmp_v, off.volts_frac),
        imp_a=reading(lambda a: a.imp_a, off.amps_frac),
    )


def modules_short(due_v: float, read_v: float, in_series: int) -> float:
    """Return by how many modules a string's voltage is short: 1 for one missing, 2 for one turned round."""
    return (due_v - read_v) / (due_v / in_series)


# How far from a whole count of substrings a deficit may lie to be called one, in modules.
NEAR_MODULES = 0.12


def deficit_told(short: float, band: float, substrings: int) -> str:
    """Return what a deficit of open voltage, in modules, looks like; ``band`` in modules.

    What lies within the band is no news; what lies near no count of substrings is told as it is.
    """
    if abs(short) <= band:
        return "as it should be"
    if short < 0:
        return (
            f"{-short:.2f} of a module too much: one more than drawn, or colder cells than measured"
        )
    each = 1 / substrings
    count = round(short / each)
    if count == 0 or abs(short - count * each) > max(NEAR_MODULES, band):
        return f"{short:.2f} of a module short: light, heat or a joint; measure again"
    if count % substrings:
        parts = "one substring" if count == 1 else f"{count} substrings"
        return f"{parts} short: a bypass diode, or shade on it"
    modules = count // substrings
    told = {1: "one module short", 2: "two modules short, or one turned round"}
    return told.get(modules, f"{modules} modules short")


def _at(sheet: ModuleSheet, in_series: int, light_w_per_m2: float, cell_degc: float) -> _At:
    terms = diode_terms(light_w_per_m2, cell_degc, diode_of(sheet))
    substrings = in_series * sheet.bypass_diodes
    vmp, imp = best_point(terms)
    isc = brentq(lambda amps: _left_over(amps, terms), 0.5 * terms[0], terms[0])
    return _At(substrings * voltage_at(0.0, terms), isc, substrings * vmp, imp)


def _left_over(amps: float, terms: tuple[float, ...]) -> float:
    """Return the current a substring makes more than that with its ends joined, A."""
    light, saturation, series, shunt, a = terms
    # Its diode stands at I Rs where its ends stand at nothing.
    vd = amps * series
    return light - saturation * expm1(vd / a) - vd * shunt - amps


def _require(name: str, value: float, least: float, most: float) -> None:
    if isnan(value) or not least <= value <= most:
        raise OutOfRange(name, value, f"{least:g} to {most:g}")
