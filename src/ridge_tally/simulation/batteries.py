"""How a battery joins an option, and what its conversions leave."""

import math
from dataclasses import dataclass

from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.loading.house import BatteryEfficiency
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design, makes_ac
from ridge_tally.rules.practice import Practice, practice


@dataclass(frozen=True, slots=True)
class Conversions:
    """How often energy is converted between the modules and a socket by way of a battery.

    ``kept_frac``: what is left of it then.  ``kept``: of AC that the inverter could have given,
    on the way in and on the way out.
    """

    count: int
    kept_frac: float
    kept: BatteryEfficiency


def conversions(design: Design, coupling: Coupling) -> Conversions:
    """Return what the conversions by way of a battery leave, cells included.

    Notes
    -----
    DC side: charger, then the array's inverter.  AC side: the array's inverter, the charger, the
    battery's inverter.
    """
    table = tables.load("battery-losses")

    def frac(conversion: str) -> float:
        return table.number("kept_frac", conversion=conversion)

    own = inverter_frac(design)
    stored = frac("charger") * frac("cells, in and out")
    if coupling is Coupling.DC:
        # What is taken before the inverter is spared its loss, once.
        return Conversions(2, stored * own, BatteryEfficiency(stored / own, own))
    beside = frac("battery's inverter")
    return Conversions(3, own * stored * beside, BatteryEfficiency(stored, beside))


def inverter_frac(design: Design) -> float:
    """Return the best efficiency of what makes an option's AC."""
    usual = practice(Practice.INVERTER_FRAC)
    best = [
        max((p.efficiency_frac for p in sheet.efficiency), default=usual)
        for sheet, _ in ac_makers(design)
    ]
    return min(best, default=usual)


def takes_dc(design: Design) -> bool:
    """Return whether every inverter's sheet names a battery input on its DC side."""
    if design.option.electronics.architecture is Architecture.MICRO:
        return False
    return makes_ac(design) and all(getattr(s, "battery_ready", None) for s, _ in ac_makers(design))


def told(battery: Battery) -> str:
    """Return a battery in words: ``10 kWh, 5 kW, on the DC side``."""
    where = "on the DC side" if battery.coupling is Coupling.DC else "beside it, on AC"
    return f"{battery.usable_kwh:g} kWh, {battery.power_kw:g} kW, {where}"


def cycles(from_battery_kwh: float, battery: Battery, out_frac: float) -> float:
    """Return how often a year the battery is filled and emptied."""
    if battery.usable_kwh <= 0 or not math.isfinite(out_frac) or out_frac <= 0:
        return 0.0
    return from_battery_kwh / out_frac / battery.usable_kwh
