"""Rules of a string's voltage: the coldest morning first, then the window at the hottest cell."""

import math
from dataclasses import dataclass, replace
from enum import Enum

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.code_rules import VoltageMethod
from ridge_tally.core.job.document import ColdSchool
from ridge_tally.core.job.edits.strings.threading import WishSeriesLength
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.strings.voltage import string_voltage_v, temperature_at_voltage_degc
from ridge_tally.core.working import (
    Check,
    Fix,
    Given,
    LimitKind,
    Relation,
    Source,
    SourceStatus,
    bracketed,
    check,
    degc_text,
    number_of,
    verdict_of,
)
from ridge_tally.rules import tables
from ridge_tally.rules.design import Alike, Design, alike, hottest_on, vmp_coefficient
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.strings.limits import (
    SHEET,
    cold_limit,
    series_limits,
    table_factor,
)

MAKER = Source("inverter datasheet", "", SourceStatus.DATASHEET)
STRICTER = Source("record low instead of the mean of yearly lows", "", SourceStatus.COMMON_PRACTICE)
HEADROOM = Source("room under the limit", "", SourceStatus.COMMON_PRACTICE)
INPUT = "inverter datasheet"
# No cell on a roof gets hotter, no air on earth was ever colder; from memory.
HOTTEST_TOLD_DEGC, COLDEST_TOLD_DEGC = 100.0, -90.0


class Which(Enum):
    """The voltage of an open string, or of one at its maximum power."""

    OPEN = "open"
    PEAK = "peak"


OPEN, PEAK = Which.OPEN, Which.PEAK


@dataclass(frozen=True, slots=True)
class Wired:
    """A string with its modules by type, and its tracker."""

    string: ModuleString
    groups: tuple[Alike, ...]
    tracker: TrackerInput

    @property
    def sheets(self) -> tuple[ModuleSheet, ...]:
        """The types of its modules."""
        return tuple(g.sheet for g in self.groups)


def voltage_checks(design: Design, string: ModuleString) -> tuple[Check, ...]:
    """Return every check of one string's voltage."""
    tracker = design.trackers[string.tracker_number - 1]
    wired = Wired(string, alike(design, string.module_ids), tracker)
    cold = _cold_voltage(design, wired)
    return (
        cold,
        *_headroom(string, cold),
        *_record_low(design, wired),
        *_by_the_table(design, wired),
        _hot_window(design, wired),
        _start_voltage(design, wired),
        _cold_window(design, wired),
    )


def _cold_voltage(design: Design, wired: Wired) -> Check:
    """Open-circuit voltage on the coldest morning must not exceed the lowest DC ceiling.

    No cell rise is added: Voc peaks at dawn, when the cell is as cold as the air.
    """
    formula, givens, value = _sum_at(wired.groups, OPEN, design.coldest)
    source, factor = design.rules.method, _chosen_factor(design, wired)
    if factor is not None:
        formula, givens, value = _table_sum(wired.groups, factor)
        source = tables.load("voltage-table").source
    limit, all_known = cold_limit(design, wired.tracker.inverter, wired.sheets)
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
        subject=f"string {wired.string.tag}",
        kind=LimitKind.STOP,
        formula=formula,
        givens=givens,
        value=value,
        symbol="v_cold",
        unit="V",
        relation="<=",
        limit=limit,
        source=source,
        reached_at="" if factor else _over_below(wired.groups, OPEN, limit),
        reason=reason,
        fixes=_shorter(design, wired),
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
            limit=Given(
                "least",
                "room wanted",
                practice(Practice.HEADROOM_FRAC) * 100,
                "%",
                "common practice",
            ),
            source=HEADROOM,
            reached_at="look up the site's record low too",
            graded=False,
        ),
    )


def _wanted_cold(design: Design) -> str:
    strict = design.job.site.cold_school is ColdSchool.RECORD_LOW
    return "record low" if strict else "extreme minimum temperature"


def _chosen_factor(design: Design, wired: Wired) -> Given | None:
    """Return the table's factor where the table is the method or must stand in."""
    rules = design.rules
    unknown = any(s.beta_voc_frac_per_degc is None for s in wired.sheets)
    stands_in = unknown and rules.family.table_without_coefficient
    if rules.voltage_method is VoltageMethod.TABLE or stands_in:
        return table_factor(design)
    return None


def _table_sum(
    groups: tuple[Alike, ...], factor: Given
) -> tuple[str, tuple[Given, ...], float | None]:
    terms = [f"n{g.suffix} * voc{g.suffix}" for g in groups]
    givens = tuple(x for g in groups for x in (_count(g), _volts(g, OPEN)))
    formula = f"{bracketed(' + '.join(terms))} * f"
    whole_v = sum(g.count * g.sheet.voc_v for g in groups)
    return formula, (*givens, factor), None if factor.value is None else whole_v * factor.value


def _record_low(design: Design, wired: Wired) -> tuple[Check, ...]:
    """The stricter school: the same voltage at the lowest air ever read, once it is typed."""
    low = design.job.site.record_low
    if low.value_degc is None or design.job.site.cold_school is not ColdSchool.YEARLY_LOWS:
        return ()
    at = Given("t_low", "record low", low.value_degc, "°C", low.source)
    limit = cold_limit(design, wired.tracker.inverter, wired.sheets)[0]
    fixes = _shorter(design, wired)
    held = Held("strings.record-low", "Voc at the record low", LimitKind.NOTE, "v_low", STRICTER)
    return (_against(wired, held, OPEN, at, "<=", limit, fixes),)


def _by_the_table(design: Design, wired: Wired) -> tuple[Check, ...]:
    """What the family's table says where the coefficient decides: the two may differ."""
    family = design.rules.family
    if not family.table_without_coefficient or _chosen_factor(design, wired) is not None:
        return ()
    formula, givens, value = _table_sum(wired.groups, table_factor(design))
    return (
        check(
            rule_id="strings.by-the-table",
            title="Cold Voc (table method)",
            subject=f"string {wired.string.tag}",
            kind=LimitKind.NOTE,
            formula=formula,
            givens=givens,
            value=value,
            symbol="v_table",
            unit="V",
            relation="<=",
            limit=cold_limit(design, wired.tracker.inverter, wired.sheets)[0],
            source=tables.load("voltage-table").source,
            reached_at="the datasheet's coefficient decides",
        ),
    )


def _shorter(design: Design, wired: Wired) -> tuple[Fix, ...]:
    longest = series_limits(design, *wired.sheets).series_max
    if not 0 < longest < len(wired.string.module_ids):
        return ()
    return (Fix(f"Make it {longest}", WishSeriesLength(design.option.id, longest)),)


def _hot_window(design: Design, wired: Wired) -> Check:
    """Maximum-power voltage at the hottest cell should stay above the tracker's lowest."""
    limits = series_limits(design, *wired.sheets)
    needed = limits.series_min
    fixes: tuple[Fix, ...] = ()
    if len(wired.string.module_ids) < needed <= limits.series_max:
        fixes = (Fix(f"Make it {needed}", WishSeriesLength(design.option.id, needed)),)
    lowest_v = wired.tracker.sheet.v_min_v
    limit = Given("v_low", "lowest tracking voltage", lowest_v, "V", INPUT)
    held = Held("strings.hot-window", "Hot Vmp", LimitKind.COSTS, "v_hot", MAKER)
    hot = hottest_on(design, wired.string.module_ids)
    return _against(wired, held, PEAK, hot, ">=", limit, fixes, _aged(design))


def _start_voltage(design: Design, wired: Wired) -> Check:
    """Open-circuit voltage at the hottest cell should still start the inverter."""
    limit = Given("v_start", "start voltage", wired.tracker.inverter.v_start_v, "V", INPUT)
    held = Held("strings.start-voltage", "Hot start", LimitKind.COSTS, "v_open", MAKER)
    hot = hottest_on(design, wired.string.module_ids)
    return _against(wired, held, OPEN, hot, ">=", limit, ageing=_aged(design))


def _aged(design: Design) -> Given | None:
    """Return what age is to take off hot voltages; ``None`` where nothing is stated."""
    frac = design.rules.voltage_ageing_frac
    if frac == 0:
        return None
    return Given("d", "ageing of voltages", frac, "", design.rules.ageing.document)


def _cold_window(design: Design, wired: Wired) -> Check:
    """Maximum-power voltage on a cold bright day may leave the tracking range: no damage."""
    highest_v = wired.tracker.sheet.v_max_v
    limit = Given("v_high", "highest tracking voltage", highest_v, "V", INPUT)
    held = Held("strings.cold-window", "Cold Vmp", LimitKind.NOTE, "v_bright", MAKER)
    return _against(wired, held, PEAK, design.coldest, "<=", limit)


@dataclass(frozen=True, slots=True)
class Held:
    """What a voltage is held to: the rule, its kind, the symbol of the result, its source."""

    rule_id: str
    title: str
    kind: LimitKind
    symbol: str
    source: Source


def _against(
    wired: Wired,
    held: Held,
    which: Which,
    at: Given,
    relation: Relation,
    limit: Given,
    fixes: tuple[Fix, ...] = (),
    ageing: Given | None = None,
) -> Check:
    """Return a string's voltage at a temperature, aged if that is stated, against a limit."""
    formula, givens, value = _sum_at(wired.groups, which, at)
    meets, met = _over_below if relation == "<=" else _under_above, limit
    if ageing is not None:
        left = 1 - number_of(ageing)
        formula, givens = f"{bracketed(formula)} * (1 - d)", (*givens, ageing)
        value = None if value is None else value * left
        met = replace(limit, value=None if limit.value is None else limit.value / left)
    return check(
        rule_id=held.rule_id,
        title=held.title,
        subject=f"string {wired.string.tag}",
        kind=held.kind,
        formula=formula,
        givens=givens,
        value=value,
        symbol=held.symbol,
        unit="V",
        relation=relation,
        limit=limit,
        source=held.source,
        reached_at=meets(wired.groups, which, met),
        fixes=fixes,
    )


def _meets_at(groups: tuple[Alike, ...], which: Which, limit: Given) -> float:
    """Return the cell temperature at which a string's voltage is the limit; NaN without one."""
    volts, per_degc = 0.0, 0.0
    for g in groups:
        coefficient = _coefficient(g, which).value
        if coefficient is None or limit.value is None:
            return math.nan
        volts += g.count * number_of(_volts(g, which))
        per_degc += g.count * number_of(_volts(g, which)) * coefficient
    return temperature_at_voltage_degc(1, volts, per_degc / volts, number_of(limit))


def _over_below(groups: tuple[Alike, ...], which: Which, limit: Given) -> str:
    at = _meets_at(groups, which, limit)
    if math.isnan(at):
        return ""
    if at < COLDEST_TOLD_DEGC:
        return f"not over {limit.value:g} V even at {degc_text(COLDEST_TOLD_DEGC)}"
    # One decimal, rounded to the warm side: the sentence never promises too much cold.
    return f"over {limit.value:g} V below {degc_text(_up(at))}"


def _under_above(groups: tuple[Alike, ...], which: Which, limit: Given) -> str:
    at = _meets_at(groups, which, limit)
    if math.isnan(at):
        return ""
    if at > HOTTEST_TOLD_DEGC:
        return f"not under {limit.value:g} V before {degc_text(HOTTEST_TOLD_DEGC)} cells"
    return f"under {limit.value:g} V above {degc_text(-_up(-at))} cells"


def _up(value: float) -> float:
    return math.ceil(value * 10) / 10


def _sum_at(
    groups: tuple[Alike, ...], which: Which, at: Given
) -> tuple[str, tuple[Given, ...], float | None]:
    """Return formula, givens and value of a string's voltage at a temperature, type by type."""
    terms, givens, value = [], list[Given](), 0.0
    known = at.value is not None
    for g in groups:
        n, volts, coefficient = _count(g), _volts(g, which), _coefficient(g, which)
        terms.append(
            f"{n.symbol} * {volts.symbol} * (1 + {coefficient.symbol} * ({at.symbol} - 25))"
        )
        givens += [n, volts, coefficient]
        if coefficient.value is None or at.value is None:
            known = False
        else:
            value += string_voltage_v(g.count, number_of(volts), coefficient.value, at.value)
    return " + ".join(terms), (*givens, at), value if known else None


def _volts(g: Alike, which: Which) -> Given:
    if which is OPEN:
        return Given(f"voc{g.suffix}", "Voc", g.sheet.voc_v, "V", SHEET)
    return Given(f"vmp{g.suffix}", "Vmp", g.sheet.vmp_v, "V", SHEET)


def _coefficient(g: Alike, which: Which) -> Given:
    if which is OPEN:
        beta = g.sheet.beta_voc_frac_per_degc
        return Given(f"beta{g.suffix}", "Voc coefficient", beta, "1/°C", SHEET)
    gamma = vmp_coefficient(g.sheet)
    return replace(gamma, symbol=f"{gamma.symbol}{g.suffix}")


def _count(g: Alike) -> Given:
    return Given(f"n{g.suffix}", "modules in series", float(g.count), "", "this design")
