"""Single-diode parameters from a datasheet: a cascade of fits that reports which one served.

1. The reference library's De Soto solve, started from its explicit solution.
2. Where that does not reproduce the datasheet, a nested solve: for a given ideality the
   conditions at short circuit, open circuit and maximum power are linear in light current,
   saturation current and shunt conductance; dP/dV = 0 gives the series resistance by a
   bracketed root; the ideality is the one whose Voc falls most nearly as the datasheet says.

Either way the band gap of the model is then set so that Voc falls with heat exactly as on the
datasheet: silicon's own where its figures agree, an apparent one where they do not.
"""

import math
import warnings
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from pvlib import pvsystem
from pvlib.ivtools import sdm
from scipy.optimize import brentq

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.errors import MissingDatum, OutsideModelRange

BOLTZMANN_EV_PER_K = 8.617333262e-5
STC_K = 298.15
# Silicon's band gap and how it falls with heat: De Soto et al. 2006.
GAP_EV, GAP_PER_K = 1.121, -0.0002677
EXACT_FRAC = 1e-3
# A gap this near silicon's own needs no other fit.
LIKE_SILICON_FRAC = 0.1


@dataclass(frozen=True, slots=True)
class DiodeModel:
    """The five parameters at STC of one module, its gap, and how well they meet its datasheet.

    ``gap_ev``: the band gap that lets Voc fall with heat as on the datasheet; silicon has 1.121.
    ``worst_point_frac`` is the largest relative error of Voc, Isc, Vmp and Imp;
    ``beta_error_frac`` that of the Voc coefficient.  ``gamma_error_per_degc`` is the model's
    power coefficient minus the datasheet's, a fraction per °C.
    """

    light_current_a: float
    saturation_current_a: float
    series_ohm: float
    shunt_ohm: float
    thermal_v: float
    gap_ev: float
    alpha_isc_a_per_degc: float
    fitted_by: str
    worst_point_frac: float
    beta_error_frac: float
    gamma_error_per_degc: float
    vmp_coefficient_frac_per_degc: float


@lru_cache(maxsize=128)
def fit_diode(sheet: ModuleSheet) -> DiodeModel:
    """Return single-diode parameters for the datasheet.

    Raises
    ------
    MissingDatum
        If the Voc or Isc coefficient is not on the datasheet.
    OutsideModelRange
        If no parameters reproduce the four points, as with contradictory figures.
    """
    for name, value in (
        ("voltage coefficient", sheet.beta_voc_frac_per_degc),
        ("current coefficient", sheet.alpha_isc_frac_per_degc),
    ):
        if value is None:
            raise MissingDatum(
                name, sheet.name, "Without it no year can be simulated; add it from the datasheet."
            )
    good: list[DiodeModel] = []
    for fit in (_solved, _nested):
        try:
            with np.errstate(all="ignore"):
                model = fit(sheet)
        except (ArithmeticError, ValueError, RuntimeError):
            # Figures no curve has lead a solver out of its numbers: this fit does not serve.
            continue
        # What is not a number meets nothing.
        if model is None or not model.worst_point_frac < EXACT_FRAC:
            continue
        if gap_off_frac(model) < LIKE_SILICON_FRAC:
            return model
        good.append(model)
    if not good:
        raise OutsideModelRange(
            f"{sheet.name}: Voc, Isc, Vmp and Imp",
            "no diode curve passes through them",
            "Compare the four figures with the datasheet.",
        )
    return min(good, key=gap_off_frac)


def gap_off_frac(model: DiodeModel) -> float:
    """Return how far a model's band gap is from silicon's, as a share of it."""
    return abs(model.gap_ev / GAP_EV - 1)


def _solved(sheet: ModuleSheet) -> DiodeModel | None:
    alpha_a, beta_v = _absolute(sheet)
    points = {
        "v_mp": sheet.vmp_v, "i_mp": sheet.imp_a, "v_oc": sheet.voc_v, "i_sc": sheet.isc_a,
        "alpha_sc": alpha_a, "beta_voc": beta_v,
    }  # fmt: skip
    with warnings.catch_warnings(), np.errstate(all="ignore"):
        warnings.simplefilter("ignore")
        start = sdm.fit_desoto_batzelis(**points)
        guess = {
            "IL_0": start["I_L_ref"], "Io_0": start["I_o_ref"], "Rs_0": start["R_s"],
            "Rsh_0": start["R_sh_ref"], "a_0": start["a_ref"],
        }  # fmt: skip
        found, _ = sdm.fit_desoto(**points, cells_in_series=sheet.cells_in_series,
                                  init_guess=guess)  # fmt: skip
    values = [found[k] for k in ("I_L_ref", "I_o_ref", "R_s", "R_sh_ref", "a_ref")]
    if not all(math.isfinite(v) and v > 0 for v in values):
        return None
    return _measured(sheet, tuple(float(v) for v in values), "solved from the datasheet")


def _absolute(sheet: ModuleSheet) -> tuple[float, float]:
    """Return alpha in A/°C and beta in V/°C."""
    alpha, beta = sheet.alpha_isc_frac_per_degc, sheet.beta_voc_frac_per_degc
    assert alpha is not None
    assert beta is not None
    return alpha * sheet.isc_a, beta * sheet.voc_v


def _nested(sheet: ModuleSheet) -> DiodeModel | None:
    unit_v = sheet.cells_in_series * BOLTZMANN_EV_PER_K * STC_K
    found = []
    for ideality in np.linspace(0.25, 2.2, 40):
        values = _at_ideality(sheet, float(ideality) * unit_v)
        if values is not None:
            found.append((abs(_gap_ev(sheet, values) / GAP_EV - 1), values))
    if not found:
        return None
    return _measured(sheet, min(found)[1], "nested solve from the datasheet")


def _at_ideality(sheet: ModuleSheet, thermal_v: float) -> tuple[float, ...] | None:
    isc, voc, vmp, imp = sheet.isc_a, sheet.voc_v, sheet.vmp_v, sheet.imp_a

    def linear(series_ohm: Any) -> Any:
        """Light current, saturation current and shunt for each resistance: (…, 3)."""
        ones = np.ones_like(series_ohm)
        volts = np.stack([isc * series_ohm, voc * ones, vmp + imp * series_ohm], axis=-1)
        terms = np.stack([np.ones_like(volts), -np.expm1(volts / thermal_v), -volts], axis=-1)
        return np.linalg.solve(terms, np.array([[isc], [0.0], [imp]]))[..., 0]

    def slope(series_ohm: Any) -> Any:
        _, saturation, shunt = np.moveaxis(linear(series_ohm), -1, 0)
        diode = saturation / thermal_v * np.exp((vmp + imp * series_ohm) / thermal_v) + shunt
        return diode / (1 + diode * series_ohm) - imp / vmp

    highest = (voc - vmp) / imp * 0.999
    tried = np.linspace(1e-5, highest, 40)
    slopes = slope(tried)
    for low, high, at_low, at_high in zip(tried, tried[1:], slopes, slopes[1:], strict=False):
        if at_low * at_high > 0:
            continue
        series = float(brentq(slope, low, high, xtol=1e-12))
        light, saturation, shunt = (float(v) for v in linear(np.float64(series)))
        if saturation > 0 and shunt > 0:
            return light, saturation, series, 1 / shunt, thermal_v
    return None


def _measured(sheet: ModuleSheet, values: tuple[float, ...], fitted_by: str) -> DiodeModel | None:
    light, saturation, series, shunt, thermal = values
    alpha_a, beta_v = _absolute(sheet)

    gap_ev = _gap_ev(sheet, values)

    def curve(cell_degc: float) -> dict[str, float]:
        at = pvsystem.calcparams_desoto(
            1000.0, cell_degc, alpha_a, thermal, light, saturation, shunt, series, EgRef=gap_ev
        )
        with np.errstate(all="ignore"):
            return {k: float(v) for k, v in pvsystem.singlediode(*at).items()}

    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        cool, at_stc, warm = curve(20.0), curve(25.0), curve(30.0)
    if not all(math.isfinite(v) for v in at_stc.values()):
        return None
    pairs = (
        ("v_oc", sheet.voc_v),
        ("i_sc", sheet.isc_a),
        ("v_mp", sheet.vmp_v),
        ("i_mp", sheet.imp_a),
    )
    worst = max(abs(at_stc[k] / wanted - 1) for k, wanted in pairs)
    beta = (warm["v_oc"] - cool["v_oc"]) / 10
    gamma = (warm["p_mp"] - cool["p_mp"]) / 10 / at_stc["p_mp"]
    gamma_sheet = sheet.gamma_pmp_frac_per_degc
    return DiodeModel(
        light, saturation, series, shunt, thermal, gap_ev, alpha_a, fitted_by,
        worst_point_frac=worst,
        beta_error_frac=abs(beta / beta_v - 1),
        gamma_error_per_degc=math.nan if gamma_sheet is None else gamma - gamma_sheet,
        vmp_coefficient_frac_per_degc=(warm["v_mp"] - cool["v_mp"]) / 10 / at_stc["v_mp"],
    )  # fmt: skip


def _gap_ev(sheet: ModuleSheet, values: tuple[float, ...]) -> float:
    """Return the gap whose saturation current opens the module where its sheet says at 20 and 30 °C.

    At open circuit light current, diode and shunt balance: the saturation current follows from the
    voltage wanted, and the gap from how it rises with heat.
    """
    light, saturation, _, shunt, thermal = values
    alpha_a, beta_v = _absolute(sheet)
    gaps = []
    for off_k in (-5.0, 5.0):
        kelvin = STC_K + off_k
        volts = sheet.voc_v + beta_v * off_k
        through_a = light + alpha_a * off_k - volts / shunt
        warm = kelvin / STC_K
        wanted_a = through_a / math.expm1(volts / (thermal * warm))
        rise = math.log(wanted_a / saturation / warm**3)
        per_ev = (1 / STC_K - (1 + GAP_PER_K * off_k) / kelvin) / BOLTZMANN_EV_PER_K
        gaps.append(rise / per_ev)
    return sum(gaps) / 2
