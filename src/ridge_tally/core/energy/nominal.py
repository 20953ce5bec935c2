"""What a module gives in the field: its datasheet's nominal watts, or its diode's at such light."""

from dataclasses import dataclass

from pvlib import pvsystem

from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.equipment import ModuleSheet, Origin, origin_of

# IEC 61215's nominal operating conditions, from memory: light, air and wind; and what a cell
# comes to in them where a sheet is silent (common practice, no source).
NOMINAL_W_PER_M2, NOMINAL_AIR_DEGC, NOMINAL_WIND_M_PER_S = 800.0, 20.0, 1.0
USUAL_CELL_DEGC = 45.0


@dataclass(frozen=True, slots=True)
class NominalWatts:
    """A module's nominal watts with the cell temperature they hold at, and where both are from."""

    p_w: float
    cell_degc: float
    origin: Origin
    cell_origin: Origin


def nominal_watts(sheet: ModuleSheet) -> NominalWatts:
    """Return what a module gives at 800 W/m², 20 °C air and 1 m/s of wind.

    Raises
    ------
    MissingDatum, OutsideModelRange
        If its sheet names no such watts and no diode model can be made of it.
    """
    told = sheet.nominal
    cell_degc, cell_origin = USUAL_CELL_DEGC, Origin.ESTIMATED
    if told is not None and told.cell_degc is not None:
        cell_degc, cell_origin = told.cell_degc, origin_of(sheet, "nominal")
    if told is not None and told.p_w is not None:
        return NominalWatts(told.p_w, cell_degc, origin_of(sheet, "nominal"), cell_origin)
    return NominalWatts(
        watts_at(sheet, NOMINAL_W_PER_M2, cell_degc), cell_degc, Origin.COMPUTED, cell_origin
    )


def watts_at(sheet: ModuleSheet, light_w_per_m2: float, cell_degc: float) -> float:
    """Return a module's best watts at a light and a cell temperature, by its diode.

    Raises
    ------
    MissingDatum, OutsideModelRange
        As ``fit_diode``.
    """
    model = fit_diode(sheet)
    at = pvsystem.calcparams_desoto(
        light_w_per_m2,
        cell_degc,
        model.alpha_isc_a_per_degc,
        model.thermal_v,
        model.light_current_a,
        model.saturation_current_a,
        model.shunt_ohm,
        model.series_ohm,
        EgRef=model.gap_ev,
    )
    return float(pvsystem.singlediode(*at)["p_mp"])
