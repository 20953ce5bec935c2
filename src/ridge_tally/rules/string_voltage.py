"""Rules of a string's voltage: the coldest morning first, then the window at the hottest cell."""

import math

from ridge_tally.core.job.code_rules import VoltageMethod
from ridge_tally.core.job.document import ColdSchool, ModuleString, TrackerInput
from ridge_tally.core.job.edits import WishSeriesLength
from ridge_tally.core.strings.voltage import string_voltage_v, temperature_at_voltage_degc
from ridge_tally.core.working import (
    Check,
    Fix,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    check,
    degc_text,
    verdict_of,
)
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design
from ridge_tally.rules.string_limits import (
    HEADROOM_FRAC,
    SHEET,
    cold_limit,
    string_limits,
    table_factor,
)

MAKER = Source("inverter datasheet", "", SourceStatus.DATASHEET)
STRICTER = Source("record low instead of the mean of yearly lows", "", SourceStatus.COMMON_PRACTICE)
HEADROOM = Source("room under the limit", "", SourceStatus.COMMON_PRACTICE)
INPUT = "inverter datasheet"
# No cell on a roof gets hotter; from memory.
HOTTEST_TOLD_DEGC = 100.0


def voltage_checks(design: Design, string: ModuleString) -> tuple[Check, ...]:
    """Return every check of one string's voltage."""
    tracker = design.trackers[string.tracker_number - 1]
    cold = cold_voltage(design, string, tracker)
    return (
        cold,
        *_headroom(string, cold),
        *_record_low(design, string, tracker),
        *_by_the_table(design, string, tracker),
        _hot_window(design, string, tracker),
        _start_voltage(design, string, tracker),
        _cold_window(design, string, tracker),
    )


def cold_voltage(design: Design, string: ModuleString, tracker: TrackerInput) -> Check:
    """Open-circuit voltage on the coldest morning must not exceed the lowest DC ceiling.

    No cell rise is added: Voc peaks at dawn, when the cell is as cold as the air.
    """
    count = len(string.module_ids)
    formula, givens, value = voltage_sum(count, _voc(design), _beta(design), design.coldest)
    source, factor = design.rules.method, _chosen_factor(design)
    if factor is not None:
        formula, givens, value = _table_sum(design, count, factor)
        source = tables.load("voltage-table").source
    limit, all_known = cold_limit(design, tracker.inverter)
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
        reached_at="" if factor else _over_below(count, _voc(design), _beta(design), limit),
        reason=reason,
        fixes=_shorter(design, count),
    )


def _headroom(string: ModuleString, cold: Check) -> tuple[Check, ...]:
    """A string a hair under its limit asks for a second look at how cold it gets."""
    value, limit = cold.value.value, cold.limit.value
    if value is None or limit is None or value > limit:
        return ()
    return (
        check(
            rule_id="strings.headroom",
            title="Headroom",
            subject=f"string {string.tag}",
            kind=LimitKind.NOTE,
            formula="(v_max - v_cold) / v_max * 100",
            givens=(
                Given("v_max", cold.limit.label, limit, "V", cold.limit.origin),
                Given("v_cold", "cold Voc", value, "V", "check of the cold Voc"),
            ),
            value=(limit - value) / limit * 100,
            symbol="room",
            unit="%",
            relation=">=",
            limit=Given("least", "room wanted", HEADROOM_FRAC * 100, "%", "common practice"),
            source=HEADROOM,
            reached_at="look up the site's record low too",
            graded=False,
        ),
    )


def _wanted_cold(design: Design) -> str:
    strict = design.job.site.cold_school is ColdSchool.RECORD_LOW
    return "record low" if strict else "extreme minimum temperature"


def _chosen_factor(design: Design) -> Given | None:
    """Return the table's factor where the table is the method or must stand in."""
    rules, beta = design.rules, design.module.beta_voc_frac_per_degc
    stands_in = beta is None and rules.family.table_without_coefficient
    if rules.voltage_method is VoltageMethod.TABLE or stands_in:
        return table_factor(design)
    return None


def _table_sum(
    design: Design, count: int, factor: Given
) -> tuple[str, tuple[Given, ...], float | None]:
    value = None if factor.value is None else count * design.module.voc_v * factor.value
    return "n * voc * f", (_count(count), _voc(design), factor), value


def _record_low(design: Design, string: ModuleString, tracker: TrackerInput) -> tuple[Check, ...]:
    """The stricter school: the same voltage at the lowest air ever read, once it is typed."""
    low = design.job.site.record_low
    if low.value_degc is None or design.job.site.cold_school is not ColdSchool.YEARLY_LOWS:
        return ()
    count, limit = len(string.module_ids), cold_limit(design, tracker.inverter)[0]
    at = Given("t_low", "record low", low.value_degc, "°C", low.source)
    formula, givens, value = voltage_sum(count, _voc(design), _beta(design), at)
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
            limit=limit,
            source=STRICTER,
            reached_at=_over_below(count, _voc(design), _beta(design), limit),
            fixes=_shorter(design, count),
        ),
    )


def _by_the_table(design: Design, string: ModuleString, tracker: TrackerInput) -> tuple[Check, ...]:
    """What the family's table says where the coefficient decides: the two may differ."""
    family = design.rules.family
    if not family.table_without_coefficient or _chosen_factor(design) is not None:
        return ()
    factor = table_factor(design)
    formula, givens, value = _table_sum(design, len(string.module_ids), factor)
    return (
        check(
            rule_id="strings.by-the-table",
            title="Cold Voc by the table",
            subject=f"string {string.tag}",
            kind=LimitKind.NOTE,
            formula=formula,
            givens=givens,
            value=value,
            symbol="v_table",
            unit="V",
            relation="<=",
            limit=cold_limit(design, tracker.inverter)[0],
            source=tables.load("voltage-table").source,
            reached_at="the datasheet's coefficient decides",
        ),
    )


def _shorter(design: Design, count: int) -> tuple[Fix, ...]:
    longest = string_limits(design).series_max
    if not 0 < longest < count:
        return ()
    return (Fix(f"Make it {longest}", WishSeriesLength(design.option.id, longest)),)


def _hot_window(design: Design, string: ModuleString, tracker: TrackerInput) -> Check:
    """Maximum-power voltage at the hottest cell should stay above the tracker's lowest."""
    count, vmp, gamma = len(string.module_ids), _vmp(design), design.vmp_coefficient
    formula, givens, value = voltage_sum(count, vmp, gamma, design.hottest_cell)
    limits = string_limits(design)
    needed = limits.series_min
    fixes: tuple[Fix, ...] = ()
    if count < needed <= limits.series_max:
        fixes = (Fix(f"Make it {needed}", WishSeriesLength(design.option.id, needed)),)
    limit = Given("v_low", "lowest tracking voltage", tracker.sheet.v_min_v, "V", INPUT)
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
        limit=limit,
        source=MAKER,
        reached_at=_under_above(count, vmp, gamma, limit),
        fixes=fixes,
    )


def _start_voltage(design: Design, string: ModuleString, tracker: TrackerInput) -> Check:
    """Open-circuit voltage at the hottest cell should still start the inverter."""
    count, voc, beta = len(string.module_ids), _voc(design), _beta(design)
    formula, givens, value = voltage_sum(count, voc, beta, design.hottest_cell)
    limit = Given("v_start", "start voltage", tracker.inverter.v_start_v, "V", INPUT)
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
        limit=limit,
        source=MAKER,
        reached_at=_under_above(count, voc, beta, limit),
    )


def _cold_window(design: Design, string: ModuleString, tracker: TrackerInput) -> Check:
    """Maximum-power voltage on a cold bright day may leave the tracking range: no damage."""
    count, vmp, gamma = len(string.module_ids), _vmp(design), design.vmp_coefficient
    formula, givens, value = voltage_sum(count, vmp, gamma, design.coldest)
    limit = Given("v_high", "highest tracking voltage", tracker.sheet.v_max_v, "V", INPUT)
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
        limit=limit,
        source=MAKER,
        reached_at=_over_below(count, vmp, gamma, limit),
    )


def _meets_at(count: int, module_v: Given, coefficient: Given, limit: Given) -> float:
    """Return the cell temperature at which a string's voltage is the limit; NaN without one."""
    if module_v.value is None or coefficient.value is None or limit.value is None:
        return math.nan
    return temperature_at_voltage_degc(count, module_v.value, coefficient.value, limit.value)


def _over_below(count: int, module_v: Given, coefficient: Given, limit: Given) -> str:
    at = _meets_at(count, module_v, coefficient, limit)
    # One decimal, rounded to the warm side: the sentence never promises too much cold.
    return "" if math.isnan(at) else f"over {limit.value:g} V below {degc_text(_up(at))}"


def _under_above(count: int, module_v: Given, coefficient: Given, limit: Given) -> str:
    at = _meets_at(count, module_v, coefficient, limit)
    if math.isnan(at):
        return ""
    if at > HOTTEST_TOLD_DEGC:
        return f"not under {limit.value:g} V before {degc_text(HOTTEST_TOLD_DEGC)} cells"
    return f"under {limit.value:g} V above {degc_text(-_up(-at))} cells"


def _up(value: float) -> float:
    return math.ceil(value * 10) / 10


def voltage_sum(
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
