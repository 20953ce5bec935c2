"""Rules of trackers: the currents of their strings, terminals, and strings that are alike."""

from ridge_tally.core.job.document import TrackerInput, strings_on
from ridge_tally.core.working import (
    Check,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    check,
    shown,
)
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design
from ridge_tally.rules.string_limits import SHEET, bright_cloud_factor, rear_gain

MAKER = Source("inverter datasheet", "", SourceStatus.DATASHEET)
UNUSED = Source("inputs without a string", "", SourceStatus.COMMON_PRACTICE)
INPUT = "inverter datasheet"
BRIGHT_W_PER_M2 = 1000.0


def tracker_checks(design: Design) -> tuple[Check, ...]:
    """Return every check of the trackers that carry strings, and of those that carry none."""
    checks: list[Check] = []
    for tracker in design.trackers:
        lengths = [len(s.module_ids) for s in strings_on(design.option, tracker.number)]
        if lengths:
            checks += [
                _operating_current(design, tracker, len(lengths)),
                _short_circuit_current(design, tracker, len(lengths)),
                _terminals(tracker, len(lengths)),
                *_watts(design, tracker, sum(lengths)),
            ]
        if len(lengths) > 1:
            checks.append(_equal_lengths(design, tracker, lengths))
    return (*checks, *_unused(design))


def _operating_current(design: Design, tracker: TrackerInput, strings: int) -> Check:
    """Operating current above the tracker's is clipped: energy and heat, not damage."""
    formula, rear, gain = _rear(design)
    value = strings * gain * design.module.imp_a
    most = tracker.sheet.i_max_a
    return check(
        rule_id="strings.operating-current",
        title="Operating current",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.COSTS,
        formula=f"k{formula} * imp",
        givens=(_strings(strings), *rear, Given("imp", "Imp", design.module.imp_a, "A", SHEET)),
        value=value,
        symbol="i_op",
        unit="A",
        relation="<=",
        limit=Given("i_max", "largest operating current", most, "A", INPUT),
        source=MAKER,
        reached_at=_over_above(most, value),
    )


def _short_circuit_current(design: Design, tracker: TrackerInput, strings: int) -> Check:
    """Short-circuit current with its bright-cloud factor must not exceed the input's."""
    factor = bright_cloud_factor(design, tracker.inverter)
    source = MAKER if tracker.inverter.bare_isc else design.rules.bright_cloud
    formula, rear, gain = _rear(design)
    limit_a, bare_a = tracker.sheet.isc_max_a, strings * gain * design.module.isc_a
    return check(
        rule_id="strings.short-circuit-current",
        title="Short circuit",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.STOP,
        formula=f"f * k{formula} * isc",
        givens=(
            Given("f", "bright-cloud factor", factor, "", source.document),
            _strings(strings),
            *rear,
            Given("isc", "Isc", design.module.isc_a, "A", SHEET),
        ),
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
        title="Terminals",
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


def _watts(design: Design, tracker: TrackerInput, modules: int) -> tuple[Check, ...]:
    """Watts of one input, where the sheet limits them: most sheets do not."""
    most = tracker.sheet.p_max_w
    if most is None:
        return ()
    return (
        check(
            rule_id="strings.tracker-watts",
            title="Maker's DC watts",
            subject=f"tracker {tracker.number}",
            kind=LimitKind.OUTSIDE,
            formula="n * p_max",
            givens=(
                Given("n", "modules on it", float(modules), "", "this design"),
                Given("p_max", "Pmax", design.module.p_max_w, "W", SHEET),
            ),
            value=modules * design.module.p_max_w,
            symbol="p_dc",
            unit="W",
            relation="<=",
            limit=Given("p_in", "most watts of the input", most, "W", INPUT),
            source=MAKER,
            reached_at=over_from(most, design.module.p_max_w, "W"),
        ),
    )


def over_from(limit: float, each: float, unit: str) -> str:
    """Return from how many modules on a sum over them is more than its limit."""
    return f"over {shown(limit, 5)} {unit} from {int(limit * (1 + 1e-9) / each) + 1} modules"


def _equal_lengths(design: Design, tracker: TrackerInput, lengths: list[int]) -> Check:
    """Strings in parallel are equally long, or the longer feeds the shorter.

    Judged by voltage: the practice may tolerate strings that are a few per cent apart.
    """
    longest, shortest, rules = max(lengths), min(lengths), design.rules
    return check(
        rule_id="strings.equal-lengths",
        title="Equal strings",
        subject=f"tracker {tracker.number}",
        kind=LimitKind.STOP,
        formula="(n_long - n_short) / n_long * 100",
        givens=(
            Given("n_long", "longest", float(longest), "", "this design"),
            Given("n_short", "shortest", float(shortest), "", "this design"),
        ),
        value=(longest - shortest) / longest * 100,
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


def _rear(design: Design) -> tuple[str, tuple[Given, ...], float]:
    """Return the rear side's part of a current: nothing where the module has one side."""
    gain = rear_gain(design)
    if design.module.bifacial_frac is None:
        return "", (), 1.0
    origin = tables.load("rear-gain").source.document
    return " * r", (Given("r", "gain by rear light", gain, "", origin),), gain


def _strings(strings: int) -> Given:
    return Given("k", "strings in parallel", float(strings), "", "this design")
