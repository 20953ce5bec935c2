"""Rules of strings and trackers, in the order a careful designer goes through them."""

import math
from dataclasses import dataclass

from ridge_tally.core.equipment import TrackerSheet
from ridge_tally.core.job.document import CodePack, ColdSchool, ModuleString, strings_on
from ridge_tally.core.job.edits import WishSeriesLength
from ridge_tally.core.strings.plan import StringLimits
from ridge_tally.core.strings.voltage import (
    fewest_in_series,
    most_in_series,
    string_voltage_v,
    temperature_at_voltage_degc,
)
from ridge_tally.core.working import (
    Check,
    Fix,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    check,
    verdict_of,
)
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design

MAKER = Source("inverter datasheet", "", SourceStatus.DATASHEET)
TABLE_METHOD = Source("NEC Table 690.7(A)", "2023", SourceStatus.FROM_MEMORY)
MAX_VOLTAGE = Source("NEC 690.7(A)(1), coefficient method", "2023", SourceStatus.FROM_MEMORY)
STRICTER = Source("record low instead of the mean of yearly lows", "", SourceStatus.COMMON_PRACTICE)
PARALLEL = Source("equal strings on one input", "", SourceStatus.COMMON_PRACTICE)
SHEET = "module datasheet"
INPUT = "inverter datasheet"
CAUTIOUS_FRAC_PER_DEGC = -0.004


def string_checks(design: Design) -> tuple[Check, ...]:
    """Return every string and tracker check of an option, strings first, then trackers."""
    checks: list[Check] = []
    for string in design.option.strings:
        checks += [
            cold_voltage(design, string),
            *record_low_voltage(design, string),
            hot_window(design, string),
            start_voltage(design, string),
            cold_window(design, string),
        ]
    for number, tracker in enumerate(design.inverter.trackers, start=1):
        mine = strings_on(design.option, number)
        if mine:
            checks += [
                operating_current(design, number, tracker, len(mine)),
                short_circuit_current(design, number, tracker, len(mine)),
                terminals(number, tracker, len(mine)),
            ]
        if len(mine) > 1:
            checks.append(equal_lengths(number, [len(s.module_ids) for s in mine]))
    return tuple(checks)


def cold_limit(design: Design) -> tuple[Given, bool]:
    """Return the smallest DC voltage ceiling, the others named, and whether all are known."""
    site = design.job.site
    code_v = tables.load("code-voltage-ceiling").number(
        "ceiling_v", code_pack=site.code_pack.value, dwelling=site.dwelling
    )
    ceilings = {
        "inverter input": design.inverter.v_dc_max_v,
        "module": design.module.max_system_v,
        "code, dwelling" if site.dwelling else "code": code_v,
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


def cold_voltage(design: Design, string: ModuleString) -> Check:
    """Open-circuit voltage on the coldest morning must not exceed the lowest DC ceiling.

    No cell rise is added: Voc peaks at dawn, when the cell is as cold as the air.
    """
    count = len(string.module_ids)
    formula, givens, value = _voltage_sum(count, _voc(design), _beta(design), design.coldest)
    source, factor = MAX_VOLTAGE, table_factor(design)
    if factor is not None:
        formula, source = "n * voc * f", TABLE_METHOD
        givens = (_count(count), _voc(design), factor)
        value = None if factor.value is None else count * design.module.voc_v * factor.value
    limit, all_known = cold_limit(design)
    reason = ""
    if design.coldest.value is None:
        reason = (
            f"Not checked: no {_wanted_cold(design)} is typed for this site. A climate's "
            f"stand-in ({design.coldest_planning_degc:g} °C) is for planning and passes no limit."
        )
    elif value is not None and not all_known and verdict_of(value, "<=", limit.value) == "kept":
        reason = "Not checked: the module's maximum system voltage is not on its datasheet."
        limit = Given(limit.symbol, limit.label, None, "V", limit.origin)
    return check(
        rule_id="strings.cold-voltage",
        title="Cold Voc",
        subject=f"string {string.tag}",
        kind=LimitKind.STOP,
        formula=formula,
        givens=givens,
        value=value,
        symbol="v_cold",
        unit="V",
        relation="<=",
        limit=limit,
        source=source,
        reached_at=_reached_at(design, count),
        reason=reason,
        fixes=_shorter(design, count),
    )


def _wanted_cold(design: Design) -> str:
    strict = design.job.site.cold_school is ColdSchool.RECORD_LOW
    return "record low" if strict else "extreme minimum temperature"


def table_factor(design: Design) -> Given | None:
    """Return the table's factor where it takes the coefficient's place: none on the datasheet, US.

    Its value is ``None`` where the air is colder than the table goes, or nobody typed it.
    """
    site = design.job.site
    if design.module.beta_voc_frac_per_degc is not None or site.code_pack is not CodePack.US:
        return None
    table, at = tables.load("voltage-table"), design.coldest.value
    factor = None
    if at is not None:
        # The colder row counts between two.
        rows = [(float(low), float(f)) for low, f in table.rows if float(low) <= at]
        factor = max(rows)[1] if rows else None
    return Given("f", "factor of the table", factor, "", table.source.document)


def record_low_voltage(design: Design, string: ModuleString) -> tuple[Check, ...]:
    """The stricter school: the same voltage at the lowest air ever read, once it is typed."""
    low = design.job.site.record_low
    if low.value_degc is None or design.job.site.cold_school is not ColdSchool.YEARLY_LOWS:
        return ()
    count = len(string.module_ids)
    at = Given("t_low", "record low", low.value_degc, "°C", low.source)
    formula, givens, value = _voltage_sum(count, _voc(design), _beta(design), at)
    return (
        check(
            rule_id="strings.record-low",
            title="Voc at the record low",
            subject=f"string {string.tag}",
            kind=LimitKind.NOTE,
            formula=formula,
            givens=givens,
            value=value,
            symbol="v_low",
            unit="V",
            relation="<=",
            limit=cold_limit(design)[0],
            source=STRICTER,
            fixes=_shorter(design, count),
        ),
    )


def _reached_at(design: Design, count: int) -> str:
    beta, (limit, _) = _beta(design).value, cold_limit(design)
    if beta is None or limit.value is None:
        return ""
    at = temperature_at_voltage_degc(count, design.module.voc_v, beta, limit.value)
    if math.isnan(at):
        return ""
    # One decimal, rounded to the warm side: the sentence never promises too much cold.
    return f"over {limit.value:g} V below {math.ceil(at * 10) / 10:.1f} °C".replace("-", "−")


def _shorter(design: Design, count: int) -> tuple[Fix, ...]:
    longest = string_limits(design).series_max
    if not 0 < longest < count:
        return ()
    return (Fix(f"Make it {longest}", WishSeriesLength(design.option.id, longest)),)


def hot_window(design: Design, string: ModuleString) -> Check:
    """Maximum-power voltage at the hottest cell should stay above the tracker's lowest."""
    count = len(string.module_ids)
    tracker = design.inverter.trackers[string.tracker_number - 1]
    formula, givens, value = _voltage_sum(
        count, _vmp(design), design.vmp_coefficient, design.hottest_cell
    )
    limits = string_limits(design)
    needed = limits.series_min
    fixes: tuple[Fix, ...] = ()
    if count < needed <= limits.series_max:
        fixes = (Fix(f"Make it {needed}", WishSeriesLength(design.option.id, needed)),)
    return check(
        rule_id="strings.hot-window",
        title="Hot Vmp",
        subject=f"string {string.tag}",
        kind=LimitKind.COSTS,
        formula=formula,
        givens=givens,
        value=value,
        symbol="v_hot",
        unit="V",
        relation=">=",
        limit=Given("v_low", "lowest tracking voltage", tracker.v_min_v, "V", INPUT),
        source=MAKER,
        fixes=fixes,
    )


def start_voltage(design: Design, string: ModuleString) -> Check:
    """Open-circuit voltage at the hottest cell should still start the inverter."""
    formula, givens, value = _voltage_sum(
        len(string.module_ids), _voc(design), _beta(design), design.hottest_cell
    )
    return check(
        rule_id="strings.start-voltage",
        title="Hot start",
        subject=f"string {string.tag}",
        kind=LimitKind.COSTS,
        formula=formula,
        givens=givens,
        value=value,
        symbol="v_open",
        unit="V",
        relation=">=",
        limit=Given("v_start", "start voltage", design.inverter.v_start_v, "V", INPUT),
        source=MAKER,
    )


def cold_window(design: Design, string: ModuleString) -> Check:
    """Maximum-power voltage on a cold bright day may leave the tracking range: no damage."""
    tracker = design.inverter.trackers[string.tracker_number - 1]
    formula, givens, value = _voltage_sum(
        len(string.module_ids), _vmp(design), design.vmp_coefficient, design.coldest
    )
    return check(
        rule_id="strings.cold-window",
        title="Cold Vmp",
        subject=f"string {string.tag}",
        kind=LimitKind.NOTE,
        formula=formula,
        givens=givens,
        value=value,
        symbol="v_bright",
        unit="V",
        relation="<=",
        limit=Given("v_high", "highest tracking voltage", tracker.v_max_v, "V", INPUT),
        source=MAKER,
    )


def operating_current(design: Design, number: int, tracker: TrackerSheet, strings: int) -> Check:
    """Operating current above the tracker's is clipped: energy and heat, not damage."""
    value = strings * design.module.imp_a
    return check(
        rule_id="strings.operating-current",
        title="Operating current",
        subject=f"tracker {number}",
        kind=LimitKind.COSTS,
        formula="k * imp",
        givens=(_strings(strings), Given("imp", "Imp", design.module.imp_a, "A", SHEET)),
        value=value,
        symbol="i_op",
        unit="A",
        relation="<=",
        limit=Given("i_max", "largest operating current", tracker.i_max_a, "A", INPUT),
        source=MAKER,
    )


def short_circuit_current(
    design: Design, number: int, tracker: TrackerSheet, strings: int
) -> Check:
    """Short-circuit current with its bright-cloud factor must not exceed the input's."""
    factor, source = bright_cloud_factor(design)
    return check(
        rule_id="strings.short-circuit-current",
        title="Short circuit",
        subject=f"tracker {number}",
        kind=LimitKind.STOP,
        formula="f * k * isc",
        givens=(
            Given("f", "bright-cloud factor", factor, "", source.document),
            _strings(strings),
            Given("isc", "Isc", design.module.isc_a, "A", SHEET),
        ),
        value=factor * strings * design.module.isc_a,
        symbol="i_sc",
        unit="A",
        relation="<=",
        limit=Given("i_sc_max", "largest short-circuit current", tracker.isc_max_a, "A", INPUT),
        source=source,
        reason=""
        if tracker.isc_max_a is not None
        else "Not checked: the datasheet gives no short-circuit limit for this input; ask the "
        "maker. A largest input current alone is the operating limit.",
    )


def terminals(number: int, tracker: TrackerSheet, strings: int) -> Check:
    """Each string needs a terminal of its own; combining ahead needs a rated combiner."""
    return check(
        rule_id="strings.terminals",
        title="Terminals",
        subject=f"tracker {number}",
        kind=LimitKind.STOP,
        formula="k",
        givens=(_strings(strings),),
        value=float(strings),
        symbol="k",
        unit="",
        relation="<=",
        limit=Given("inputs", "terminal pairs", float(tracker.inputs), "", INPUT),
        source=MAKER,
        graded=False,
    )


def equal_lengths(number: int, lengths: list[int]) -> Check:
    """Strings in parallel on one tracker are equally long, or the longer feeds the shorter."""
    return check(
        rule_id="strings.equal-lengths",
        title="Equal strings",
        subject=f"tracker {number}",
        kind=LimitKind.STOP,
        formula="n_long - n_short",
        givens=(
            Given("n_long", "longest", float(max(lengths)), "", "this design"),
            Given("n_short", "shortest", float(min(lengths)), "", "this design"),
        ),
        value=float(max(lengths) - min(lengths)),
        symbol="difference",
        unit="modules",
        relation="<=",
        limit=Given("none", "difference allowed", 0.0, "modules", "common practice"),
        source=PARALLEL,
        graded=False,
    )


@dataclass(frozen=True, slots=True)
class PlanningVoltages:
    """A module's open voltage at the coldest, and both its voltages at the hottest cell."""

    cold_open_v: float
    hot_mp_v: float
    hot_open_v: float


def planning_voltages(design: Design) -> PlanningVoltages:
    """Return what strings are planned on.

    Without a coefficient nothing may be planned on it: a cautious crystalline one is taken.
    """
    module, beta = design.module, design.module.beta_voc_frac_per_degc
    beta = CAUTIOUS_FRAC_PER_DEGC if beta is None else beta
    gamma = design.vmp_coefficient.value
    gamma = CAUTIOUS_FRAC_PER_DEGC if gamma is None else gamma
    t_hot = design.hottest_cell.value
    assert t_hot is not None
    by_table = table_factor(design)
    cold_v = string_voltage_v(1, module.voc_v, beta, design.coldest_planning_degc)
    if by_table is not None and by_table.value is not None:
        cold_v = module.voc_v * by_table.value
    return PlanningVoltages(
        cold_v,
        string_voltage_v(1, module.vmp_v, gamma, t_hot),
        string_voltage_v(1, module.voc_v, beta, t_hot),
    )


def shortest_on(design: Design, volts: PlanningVoltages, tracker: TrackerSheet) -> int:
    """Return the fewest modules in series that start and track at the hottest."""
    return max(
        fewest_in_series(volts.hot_mp_v, tracker.v_min_v),
        fewest_in_series(volts.hot_open_v, design.inverter.v_start_v),
    )


def string_limits(design: Design) -> StringLimits:
    """Return the counts a planner may use: window at the hottest, ceiling at the coldest.

    Uses the planning minimum, so that a plan can be drawn before anybody typed one; the
    cold check still answers "not checked" then.
    """
    inverter = design.inverter
    ceiling, _ = cold_limit(design)
    volts = planning_voltages(design)
    assert ceiling.value is not None
    return StringLimits(
        series_min=max(shortest_on(design, volts, tracker) for tracker in inverter.trackers),
        series_max=most_in_series(volts.cold_open_v, ceiling.value),
        strings_max=tuple(strings_max(design, tracker) for tracker in inverter.trackers),
    )


def strings_max(design: Design, tracker: TrackerSheet) -> int:
    module = design.module
    factor, _ = bright_cloud_factor(design)
    by_terminals = tracker.inputs
    by_short_circuit = (
        by_terminals
        if tracker.isc_max_a is None
        else math.floor(tracker.isc_max_a * (1 + 1e-9) / (factor * module.isc_a))
    )
    # A second string is not planned onto a tracker it would overrun; the first one may.
    by_operating = max(1, math.floor(tracker.i_max_a * (1 + 1e-9) / module.imp_a))
    return max(0, min(by_terminals, by_short_circuit, by_operating))


def bright_cloud_factor(design: Design) -> tuple[float, Source]:
    table = tables.load("short-circuit-factor")
    return table.number("factor", code_pack=design.job.site.code_pack.value), table.source


def _voltage_sum(
    modules: int, module_v: Given, coefficient: Given, at: Given
) -> tuple[str, tuple[Given, ...], float | None]:
    """Return formula, givens and value of a string's voltage at a temperature."""
    formula = f"n * {module_v.symbol} * (1 + {coefficient.symbol} * ({at.symbol} - 25))"
    givens = (_count(modules), module_v, coefficient, at)
    if module_v.value is None or coefficient.value is None or at.value is None:
        return formula, givens, None
    return formula, givens, string_voltage_v(modules, module_v.value, coefficient.value, at.value)


def _voc(design: Design) -> Given:
    return Given("voc", "Voc", design.module.voc_v, "V", SHEET)


def _vmp(design: Design) -> Given:
    return Given("vmp", "Vmp", design.module.vmp_v, "V", SHEET)


def _beta(design: Design) -> Given:
    return Given("beta", "Voc coefficient", design.module.beta_voc_frac_per_degc, "1/°C", SHEET)


def _count(modules: int) -> Given:
    return Given("n", "modules in series", float(modules), "", "this design")


def _strings(strings: int) -> Given:
    return Given("k", "strings in parallel", float(strings), "", "this design")
