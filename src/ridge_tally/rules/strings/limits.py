"""How many in series, and how many strings, each tracker takes: what strings are planned on.

Uses the planning minimum, so that a plan can be drawn before anybody typed one; the cold check
still answers "not checked" then.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ridge_tally.core.equipment import InverterSheet, ModuleSheet
from ridge_tally.core.job.array import mounting_of
from ridge_tally.core.job.code_rules import VoltageMethod
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.strings.voltage import (
    STC_CELL_DEGC,
    fewest_in_series,
    most_in_series,
    string_voltage_v,
)
from ridge_tally.core.working import Given, number_of
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design, vmp_coefficient
from ridge_tally.rules.practice import Practice, practice

SHEET = "module datasheet"
# Less headroom than this under the voltage limit is worth a word; common practice, no source.
MOST_HELD = 60


@dataclass(frozen=True, slots=True)
class PlanningVoltages:
    """A module's open voltage at the coldest, and both its voltages at the hottest cell."""

    cold_open_v: float
    hot_mp_v: float
    hot_open_v: float


def cold_limit(
    design: Design, inverter: InverterSheet, modules: Sequence[ModuleSheet]
) -> tuple[Given, bool]:
    """Return the smallest DC voltage ceiling, the others named, and whether all are known."""
    systems = [m.max_system_v for m in modules]
    known_systems = [v for v in systems if v is not None]
    system_v = min(known_systems) if len(known_systems) == len(systems) else None
    code = "code, dwelling" if design.job.site.dwelling else "code"
    if design.job.site.own_rules.ceiling_v is not None:
        code = "code as held here"
    ceilings = {
        "inverter input": inverter.v_dc_max_v,
        "module": system_v,
        code: design.rules.ceiling_v,
    }
    known = {name: v for name, v in ceilings.items() if v is not None}
    lowest = min(known, key=lambda name: known[name])
    others = ", ".join(
        f"{name} {v:g} V" if v is not None else f"{name} not given"
        for name, v in ceilings.items()
        if name != lowest
    )
    limit = Given("v_max", f"{lowest} limit", known[lowest], "V", f"{lowest}; {others}")
    return limit, len(known) == len(ceilings)


def table_factor(design: Design) -> Given:
    """Return the table's factor at the coldest air.

    Without a value where the air is colder than the table goes, or nobody typed it.
    """
    table, at = tables.load("voltage-table"), design.coldest.value
    factor = None
    if at is not None:
        # The colder row counts between two.
        rows = [(float(low), float(f)) for low, f in table.rows if float(low) <= at]
        factor = max(rows)[1] if rows else None
        if at >= STC_CELL_DEGC:
            # Where it is never colder than in the laboratory nothing is added.
            factor = 1.0
    return Given("f", "factor of the table", factor, "", table.source.document)


def planning_voltages(design: Design, module: ModuleSheet) -> PlanningVoltages:
    """Return what strings of a module are planned on.

    Without a coefficient nothing may be planned on it: a cautious crystalline one is taken.
    """
    rules = design.rules
    told = module.beta_voc_frac_per_degc
    cautious = practice(Practice.CAUTIOUS_FRAC_PER_DEGC)
    beta = cautious if told is None else told
    gamma = vmp_coefficient(module).value
    gamma = cautious if gamma is None else gamma
    t_hot = design.hottest_cell.value
    assert t_hot is not None
    cold_v = string_voltage_v(1, module.voc_v, beta, design.coldest_planning_degc)
    stands_in = told is None and rules.family.table_without_coefficient
    if rules.voltage_method is VoltageMethod.TABLE or stands_in:
        factor = table_factor(design).value
        cold_v = cold_v if factor is None else module.voc_v * factor
    aged = 1 - rules.voltage_ageing_frac
    return PlanningVoltages(
        cold_v,
        string_voltage_v(1, module.vmp_v, gamma, t_hot) * aged,
        string_voltage_v(1, module.voc_v, beta, t_hot) * aged,
    )


def held_span(design: Design, module: ModuleSheet) -> tuple[int, int] | None:
    """Return fewest and most optimizers in a string an inverter holds; ``None`` for plain strings.

    Where a sheet is silent: as many as reach the voltage, and as the plan can hold.
    """
    unit = design.system
    if unit is None:
        return None
    reach = 1 if unit.string_v is None else math.ceil(unit.string_v / unit.v_out_max_v)
    most = MOST_HELD if unit.most_in_string is None else unit.most_in_string
    if unit.most_string_w is not None:
        most = min(most, int(unit.most_string_w * (1 + 1e-9) // module.p_max_w))
    return (reach if unit.least_in_string is None else unit.least_in_string), most


def shortest_on(design: Design, module: ModuleSheet, tracker: TrackerInput) -> int:
    """Return the fewest modules in series that start and track at the hottest."""
    held = held_span(design, module)
    if held is not None:
        return held[0]
    volts = planning_voltages(design, module)
    return max(
        fewest_in_series(volts.hot_mp_v, tracker.sheet.v_min_v),
        fewest_in_series(volts.hot_open_v, tracker.inverter.v_start_v),
    )


def longest_on(
    design: Design, module: ModuleSheet, tracker: TrackerInput, room_frac: float = 0.0
) -> int:
    """Return the most modules in series under the ceiling at the coldest, a share of it spared."""
    held = held_span(design, module)
    if held is not None:
        return held[1]
    ceiling, _ = cold_limit(design, tracker.inverter, (module,))
    volts = planning_voltages(design, module)
    return most_in_series(volts.cold_open_v, number_of(ceiling) * (1 - room_frac))


def strings_max(design: Design, module: ModuleSheet, tracker: TrackerInput) -> int:
    """Return how many strings of a type a tracker takes by terminals and currents."""
    sheet = tracker.sheet
    if design.system is not None:
        return sheet.inputs
    short_a = (
        bright_cloud_factor(design, tracker.inverter) * rear_gain(design, module) * module.isc_a
    )
    by_terminals = sheet.inputs
    by_short_circuit = (
        by_terminals
        if sheet.isc_max_a is None
        else math.floor(sheet.isc_max_a * (1 + 1e-9) / short_a)
    )
    # A second string is not planned onto a tracker it would overrun; the first one may.
    by_operating = max(1, overrun_from(design, module, tracker) - 1)
    return max(0, min(by_terminals, by_short_circuit, by_operating))


def overrun_from(design: Design, module: ModuleSheet, tracker: TrackerInput) -> int:
    """Return how many strings of a type ask more current of a tracker than it takes."""
    at_work_a = rear_gain(design, module) * module.imp_a
    return math.floor(tracker.sheet.i_max_a * (1 + 1e-9) / at_work_a) + 1


def modules_of(design: Design) -> tuple[ModuleSheet, ...]:
    """Return the types there are, the option's own while nothing is laid."""
    laid = (a.module for a in design.arrays if a.array.modules)
    return tuple(dict.fromkeys(laid)) or (design.module,)


@dataclass(frozen=True, slots=True)
class SeriesLimits:
    """``series_min`` keeps the hot string in its window (costs energy below it), ``series_max`` the
    cold one under its voltage limit (a Stop above it)."""

    series_min: int
    series_max: int


def series_limits(design: Design, *modules: ModuleSheet) -> SeriesLimits:
    """Return the counts in series that are legal on every tracker for some types.

    Without any named, for all the types there are.
    """
    trackers, sheets = design.trackers, modules or modules_of(design)
    return SeriesLimits(
        series_min=max(shortest_on(design, m, t) for m in sheets for t in trackers),
        series_max=min(longest_on(design, m, t) for m in sheets for t in trackers),
    )


def bright_cloud_factor(design: Design, inverter: InverterSheet) -> float:
    """Return the factor on Isc; none where the inverter's limit is meant without."""
    return 1.0 if inverter.bare_isc else design.rules.bright_cloud_factor


def rear_gain(design: Design, module: ModuleSheet) -> float:
    """Return what rear light makes of a two-sided module's currents; 1 for others."""
    if module.bifacial_frac is None:
        return 1.0
    table = tables.load("rear-gain")
    mountings = [
        mounting_of(a)
        for a in design.option.arrays
        if (a.module_id or design.module.id) == module.id
    ]
    gains = (table.number("factor", mounting=m.value) for m in mountings)
    return max(gains, default=1.0)
