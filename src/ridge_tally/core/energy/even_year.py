"""The DC year of modules all in one light, from a table of their diode: for studies of planes."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from pvlib import pvsystem, temperature
from scipy.ndimage import map_coordinates

from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.lit import HeatLoss
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.sky.plane_irradiance import PlaneLight
from ridge_tally.core.sky.weather_year import WeatherYear

FloatArray = NDArray[np.float64]
LIGHT_STEP_W_PER_M2, MOST_LIGHT_W_PER_M2 = 25.0, 1600.0
COLDEST_DEGC, HOTTEST_DEGC, CELL_STEP_K = -50.0, 110.0, 2.5


@dataclass(frozen=True, slots=True, eq=False)
class PowerTable:
    """Best power of a module over its rating, by light (rows) and cell temperature (columns)."""

    power_frac: FloatArray


@lru_cache(maxsize=32)
def power_table(sheet: ModuleSheet) -> PowerTable:
    """Return a module's table; raises as ``fit_diode``."""
    model = fit_diode(sheet)
    light = np.arange(0.0, MOST_LIGHT_W_PER_M2 + 1, LIGHT_STEP_W_PER_M2)
    cells = np.arange(COLDEST_DEGC, HOTTEST_DEGC + 1, CELL_STEP_K)
    grid_light, grid_cell = np.meshgrid(light[1:], cells, indexing="ij")
    at = pvsystem.calcparams_desoto(
        grid_light.ravel(), grid_cell.ravel(), model.alpha_isc_a_per_degc, model.thermal_v,
        model.light_current_a, model.saturation_current_a, model.shunt_ohm, model.series_ohm,
        EgRef=model.gap_ev,
    )  # fmt: skip
    power = np.asarray(pvsystem.max_power_point(*at, method="newton")["p_mp"])
    table = np.zeros((len(light), len(cells)))
    table[1:] = power.reshape(grid_light.shape) / sheet.p_max_w
    return PowerTable(table)


def even_power_frac(
    table: PowerTable, light: PlaneLight, weather: WeatherYear, heat: HeatLoss
) -> FloatArray:
    """Return (n,): power over the rating of modules that all get a plane's free light.

    Notes
    -----
    Cells by Faiman 2008; the diode's table read between its points.
    """
    cell = temperature.faiman(
        light.poa_w_per_m2,
        weather.air_degc,
        weather.wind_m_per_s,
        heat.constant_w_per_m2k,
        heat.per_wind_w_per_m2k_per_m_per_s,
    )
    rows = np.clip(light.effective_w_per_m2 / LIGHT_STEP_W_PER_M2, 0, len(table.power_frac) - 1)
    columns = np.clip((np.asarray(cell) - COLDEST_DEGC) / CELL_STEP_K, 0, None)
    return np.asarray(map_coordinates(table.power_frac, [rows, columns], order=1, mode="nearest"))
