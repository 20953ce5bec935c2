"""What feeds the house's wires, together and phase by phase: inverters, a battery's own, old arrays."""

from dataclasses import dataclass

from ridge_tally.core.equipment import InverterSheet, MicroinverterSheet
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.document import battery_joined
from ridge_tally.core.loading.phases import shared_out
from ridge_tally.core.strings.parts import ac_makers
from ridge_tally.core.working import Given, number_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.microinverters import branches


@dataclass(frozen=True, slots=True)
class AcPower:
    """AC power as a rule adds it up: its formula, what goes in, and what it comes to, kW."""

    formula: str
    givens: tuple[Given, ...]
    kw: float


def existing_ac(design: Design) -> Given:
    """Return the AC power that is already there."""
    arrays = design.job.brief.already.arrays
    return Given("p_old", "AC power already there", sum(a.p_ac_kw for a in arrays), "kW", "brief")


def ac_kw(design: Design) -> Given:
    """Return the AC power of what turns the array's DC into it."""
    return Given("p_ac", "inverter AC power", design.p_ac_w / 1000, "kW", "inverter datasheet")


def battery_ac(design: Design) -> Given | None:
    """Return the power of a battery's own inverter; ``None`` where it has none on the AC side."""
    battery = battery_joined(design.option)
    if battery is None or battery.coupling is not Coupling.AC:
        return None
    return Given("p_batt", "battery's inverter", battery.power_kw, "kW", "battery of this option")


def whole_ac(design: Design) -> AcPower:
    """Return all AC power of the house together."""
    battery = battery_ac(design)
    givens = (ac_kw(design), *(() if battery is None else (battery,)), existing_ac(design))
    return AcPower(" + ".join(g.symbol for g in givens), givens, sum(number_of(g) for g in givens))


def on_fullest_phase(design: Design) -> AcPower:
    """Return the AC power on the phase of the service that has most of it.

    Sources of one phase are shared out as evenly as they go, the largest first; arrays that are
    already there count evenly, as nobody says how they are joined.
    """
    phases = design.job.survey.service.phases
    if phases == 1:
        return whole_ac(design)
    fullest = Given(
        "p_phase",
        "AC power on its fullest phase",
        max(_by_phase(design)),
        "kW",
        _spread_told(design),
    )
    old = existing_ac(design)
    count = Given("phases", "phases of the service", float(phases), "", "survey")
    return AcPower(
        "p_phase + p_old / phases",
        (fullest, old, count),
        number_of(fullest) + number_of(old) / phases,
    )


def phases_of(sheet: InverterSheet | MicroinverterSheet) -> int:
    """Return how many phases a unit feeds; a microinverter feeds one."""
    return sheet.phases if isinstance(sheet, InverterSheet) else 1


def apart_kw(design: Design) -> float:
    """Return how much more the new sources put on the fullest phase than on the emptiest, kW."""
    by_phase = _by_phase(design)
    return max(by_phase) - min(by_phase)


def phases_used(design: Design) -> float:
    """Return over how many phases' worth the new sources are spread: 1 where all are on one."""
    by_phase = _by_phase(design)
    fullest = max(by_phase)
    return sum(by_phase) / fullest if fullest > 0 else float(len(by_phase))


def _by_phase(design: Design) -> list[float]:
    """Return kW on each phase of the service by what is new."""
    return shared_out(_sources(design), design.job.survey.service.phases)


def _sources(design: Design) -> list[tuple[float, int]]:
    """Return kW and phases of each unit that is new; a branch of microinverters is one."""
    unit = design.microinverter
    found = []
    if unit is not None:
        found = [(len(b.units) * unit.p_ac_w / 1000, 1) for b in branches(design, unit)]
    else:
        for sheet, count in ac_makers(design):
            found += [(sheet.p_ac_w / 1000, phases_of(sheet))] * count
    battery = battery_ac(design)
    if battery is not None:
        found.append((number_of(battery), 1))
    return found


def _spread_told(design: Design) -> str:
    one = sum(own == 1 for _, own in _sources(design))
    if one == 0:
        return "datasheets, over all phases"
    what = f"{one} of one phase" if design.microinverter is None else f"branches, {one} of them"
    return f"datasheets; {what}, shared out over {design.job.survey.service.phases}"
