"""Rules of trackers: the currents of their strings, terminals, and strings that are alike."""

from string import ascii_lowercase

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.document import strings_on
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.working import (
    Check,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    bracketed,
    check,
    shown,
)
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design, watts_of
from ridge_tally.rules.strings.limits import SHEET, bright_cloud_factor, rear_gain

MAKER = Source("inverter datasheet", "", SourceStatus.DATASHEET)
UNUSED = Source("inputs without a string", "", SourceStatus.COMMON_PRACTICE)
INPUT = "inverter datasheet"
BRIGHT_W_PER_M2 = 1000.0


def tracker_checks(design: Design) -> tuple[Check, ...]:
    """Return every check of the trackers that carry strings, and of those that carry none."""
    checks: list[Check] = []
    for tracker in design.trackers:
        strings = strings_on(design.option, tracker.number)
        if strings:
            checks += [
                _operating_current(design, tracker, strings),
                _short_circuit_current(design, tracker, strings),
                _terminals(tracker, len(strings)),
                *_watts(design, tracker, strings),
            ]
        if len(strings) > 1:
            checks.append(_equal_voltages(design, tracker, strings))
    return (*checks, *_unused(design))


def held_tracker_checks(design: Design) -> tuple[Check, ...]:
    """Return what holds of inputs whose strings the inverter holds at one voltage."""
    checks: list[Check] = []
    for tracker in design.trackers:
        strings = strings_on(design.option, tracker.number)
        if strings:
            checks += [_terminals(tracker, len(strings)), *_watts(design, tracker, strings)]
    return (*checks, *_unused(design))


def current_sum(
    design: Design, strings: tuple[ModuleString, ...], which: str
) -> tuple[str, tuple[Given, ...], float]:
    """Return formula, givens and amperes of strings in parallel, ``which`` being Imp or Isc.

    A string of several types counts with the largest of them: where bypass diodes conduct it
    carries that.  Two-sided modules add what their back gets.
    """
    by_type: dict[ModuleSheet, int] = {}
    for string in strings:
        sheets = [design.sheets[m] for m in string.module_ids]
        most = max(sheets, key=lambda s: rear_gain(design, s) * _amps(s, which))
        by_type[most] = by_type.get(most, 0) + 1
    terms, givens, amps = [], list[Given](), 0.0
    for index, (sheet, count) in enumerate(by_type.items()):
        suffix = f"_{ascii_lowercase[index]}" if index else ""
        gain, each = rear_gain(design, sheet), _amps(sheet, which)
        rear = sheet.bifacial_frac is not None
        symbol = which.lower()
        terms.append(f"k{suffix} * {f'r{suffix} * ' if rear else ''}{symbol}{suffix}")
        givens.append(Given(f"k{suffix}", "strings in parallel", float(count), "", "this design"))
        if rear:
            origin = tables.load("rear-gain").source.document
            givens.append(Given(f"r{suffix}", "gain by rear light", gain, "", origin))
        givens.append(Given(f"{symbol}{suffix}", which, each, "A", SHEET))
        amps += count * gain * each
    return " + ".join(terms), tuple(givens), amps


def _amps(sheet: ModuleSheet, which: str) -> float:
    return sheet.imp_a if which == "Imp" else sheet.isc_a


def _operating_current(
    design: Design, tracker: TrackerInput, strings: tuple[ModuleString, ...]
) -> Check:
    """Operating current above the tracker's is clipped: energy and heat, not damage."""
    formula, givens, value = current_sum(design, strings, "Imp")
    most = tracker.sheet.i_max_a
    return check(
        rule_id="strings.operating-current",
        title="Operating current",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.COSTS,
        formula=formula,
        givens=givens,
        value=value,
        symbol="i_op",
        unit="A",
        relation="<=",
        limit=Given("i_max", "largest operating current", most, "A", INPUT),
        source=MAKER,
        reached_at=_over_above(most, value),
    )


def _short_circuit_current(
    design: Design, tracker: TrackerInput, strings: tuple[ModuleString, ...]
) -> Check:
    """Short-circuit current with its bright-cloud factor must not exceed the input's."""
    factor = bright_cloud_factor(design, tracker.inverter)
    source = MAKER if tracker.inverter.bare_isc else design.rules.bright_cloud
    formula, givens, bare_a = current_sum(design, strings, "Isc")
    limit_a = tracker.sheet.isc_max_a
    return check(
        rule_id="strings.short-circuit-current",
        title="Short circuit",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.STOP,
        formula=f"f * {bracketed(formula)}",
        givens=(Given("f", "bright-cloud factor", factor, "", source.document), *givens),
        value=factor * bare_a,
        symbol="i_sc",
        unit="A",
        relation="<=",
        limit=Given("i_sc_max", "largest short-circuit current", limit_a, "A", INPUT),
        source=source,
        reached_at="" if limit_a is None else _over_above(limit_a, bare_a),
        reason=""
        if limit_a is not None
        else "Not checked: the datasheet gives no short-circuit limit for this input; ask the "
        "maker. A largest input current alone is the operating limit.",
    )


def _over_above(limit_a: float, at_bright_a: float) -> str:
    """Return from which light on a current that grows with it is over its limit."""
    return f"over {limit_a:g} A above {shown(BRIGHT_W_PER_M2 * limit_a / at_bright_a, 4)} W/m²"


def _terminals(tracker: TrackerInput, strings: int) -> Check:
    """Each string needs a terminal of its own; combining ahead needs a rated combiner."""
    return check(
        rule_id="strings.terminals",
        title="Input terminals",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.STOP,
        formula="k",
        givens=(_strings(strings),),
        value=float(strings),
        symbol="k",
        unit="",
        relation="<=",
        limit=Given("inputs", "terminal pairs", float(tracker.sheet.inputs), "", INPUT),
        source=MAKER,
        graded=False,
    )


def _watts(
    design: Design, tracker: TrackerInput, strings: tuple[ModuleString, ...]
) -> tuple[Check, ...]:
    """Watts of one input, where the sheet limits them: most sheets do not."""
    most = tracker.sheet.p_max_w
    if most is None:
        return ()
    ids = [m for s in strings for m in s.module_ids]
    formula, givens, value = watts_of(design, ids, "modules on it")
    return (
        check(
            rule_id="strings.tracker-watts",
            title="Maker's DC watts",
            subject=f"tracker {tracker.number}",
            kind=LimitKind.OUTSIDE,
            formula=formula,
            givens=givens,
            value=value,
            symbol="p_dc",
            unit="W",
            relation="<=",
            limit=Given("p_in", "most watts of the input", most, "W", INPUT),
            source=MAKER,
            reached_at=over_from(most, design.module.p_max_w, "W", value, len(ids)),
        ),
    )


def over_from(limit: float, each: float, unit: str, value: float, count: int) -> str:
    """Return from how many modules on a sum is over its limit, more of one type being added."""
    more = int((limit * (1 + 1e-9) - value) // each) + 1
    return f"over {shown(limit, 5)} {unit} from {max(0, count + more)} modules"


def _equal_voltages(
    design: Design, tracker: TrackerInput, strings: tuple[ModuleString, ...]
) -> Check:
    """Strings in parallel have the same voltage, or the higher feeds the lower.

    Of one type that is the same length.  The practice may tolerate a few per cent.
    """
    rules = design.rules
    volts = {s.tag: sum(design.sheets[m].vmp_v for m in s.module_ids) for s in strings}
    high, low = max(volts.values()), min(volts.values())
    return check(
        rule_id="strings.equal-lengths",
        title="Equal strings",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.STOP,
        formula="(v_high - v_low) / v_high * 100",
        givens=(
            Given("v_high", "highest Vmp of its strings", high, "V", SHEET),
            Given("v_low", "lowest Vmp of its strings", low, "V", SHEET),
        ),
        value=(high - low) / high * 100,
        symbol="apart",
        unit="%",
        relation="<=",
        limit=Given(
            "most",
            "voltages apart at most",
            rules.parallel_apart_frac * 100,
            "%",
            rules.parallel.document,
        ),
        source=rules.parallel,
        graded=False,
    )


def _unused(design: Design) -> tuple[Check, ...]:
    """A tracker without strings: some units want its inputs bridged or set."""
    strung = {s.tracker_number for s in design.option.strings}
    if not strung:
        return ()
    unused = sum(t.number not in strung for t in design.trackers)
    return (
        check(
            rule_id="strings.unused-tracker",
            title="Unused trackers",
            subject="inverter",
            kind=LimitKind.NOTE,
            formula="unused",
            givens=(Given("unused", "trackers without a string", float(unused), "", "design"),),
            value=float(unused),
            symbol="unused",
            unit="",
            relation="<=",
            limit=Given("none", "trackers that may stay empty unasked", 0.0, "", "datasheet"),
            source=UNUSED,
            reached_at="some inverters want unused inputs bridged or set: see its manual",
            graded=False,
        ),
    )


def _strings(strings: int) -> Given:
    return Given("k", "strings in parallel", float(strings), "", "this design")
