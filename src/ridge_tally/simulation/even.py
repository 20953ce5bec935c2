"""The year of modules all in one light, by the same chain to the meter: for studies of planes.

A studied array stands free of trees and houses; dirt, snow and what the ground throws back are
those of the job, and its losses, its limits and its night draw those of every simulated year.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.even_year import even_power_frac, power_table
from ridge_tally.core.energy.inverter import InverterModel, ac_side
from ridge_tally.core.energy.lit import Bank, DcOutput, Direct, HeatLoss, kwh_of
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import Losses, Plant, YearResult, simulate_year
from ridge_tally.core.equipment import ModuleSheet, of_size
from ridge_tally.core.job.document import Job
from ridge_tally.core.sky.plane_irradiance import PlaneLight
from ridge_tally.core.sky.weather_year import WeatherYear, month_of
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.rules.design import Design, require_ac
from ridge_tally.simulation.array_light import Slope, snow_frac
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.plant import exported, losses_of, own_point_of, usual_warming
from ridge_tally.simulation.weather import passing_beam_of, soiling_frac, weather_of

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class EvenArray:
    """An array of one kind of module in one light, on an inverter of its own."""

    sheet: ModuleSheet
    heat: HeatLoss
    losses: Losses
    side: InverterModel


def even_array(design: Design, sheet: ModuleSheet, heat: HeatLoss, ac_w: float) -> EvenArray:
    """Return an array of a type of module on what makes an option's AC, of another size.

    Raises
    ------
    MissingDatum
        If nothing makes AC, or a datasheet lacks what the year needs.
    """
    require_ac(design)
    (maker, _), *_ = ac_makers(design)
    sized = of_size(maker, ac_w)
    own = own_point_of(design)
    losses = losses_of(sheet, own.unit if own else None)
    return EvenArray(sheet, heat, losses, ac_side(sized, usual_warming()))


def covered(job: Job, weather: WeatherYear, light: PlaneLight, slope: Slope) -> PlaneLight:
    """Return a plane's light after snow and dirt."""
    month = month_of(weather.time)
    free = np.asarray(np.bincount(month, light.poa_w_per_m2, minlength=12) * weather.step_h)
    kept = (1 - snow_frac(job, weather, free, slope)) * (1 - soiling_frac(job))
    poa, effective = light.poa_w_per_m2 * kept[month], light.effective_w_per_m2 * kept[month]
    return PlaneLight(poa, effective, light.direct_frac)


def power_frac(array: EvenArray, light: PlaneLight, weather: WeatherYear) -> FloatArray:
    """Return (n,): what modules in a light give over their rating."""
    return even_power_frac(power_table(array.sheet), light, weather, array.heat)


def even_year(
    desk: Desk, job: Job, array: EvenArray, offered_w: FloatArray, direct: Direct
) -> YearResult:
    """Return the year of modules that offer (n,) W together, by the hour."""
    weather, beam = weather_of(desk, job), passing_beam_of(desk, job)
    volts = np.full(len(offered_w), float(array.side.curve_v[len(array.side.curve_v) // 2]))
    drawn = DcOutput(
        banks=(Bank(offered_w[None], volts),),
        sources_w=(offered_w,),
        direct=direct,
        left=((Step.SUNLIGHT, kwh_of(offered_w, weather.step_h)),),
    )
    export_w, house_w = exported(desk, job, len(weather.time))
    plant = Plant(
        drawn, (array.side,), array.losses, export_w, house_w, beam.cloud, beam.cloud_most
    )
    return simulate_year(plant, weather)
