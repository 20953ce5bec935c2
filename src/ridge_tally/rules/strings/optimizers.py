"""Rules of optimizers: each one's input, and strings of them that an inverter holds at a voltage."""

from dataclasses import dataclass

from ridge_tally.core.equipment import ModuleSheet, OptimizerKind, OptimizerSheet
from ridge_tally.core.job.document import strings_on
from ridge_tally.core.job.edits.strings.threading import PlanAnew
from ridge_tally.core.job.option import ModuleString
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
    number_of,
    shown,
)
from ridge_tally.rules.code import SHUTDOWN_OUTSIDE
from ridge_tally.rules.design import Design, watts_of
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.strings.module_inputs import ModuleInput, module_input_checks, module_watts

MAKER = Source("optimizer datasheet", "", SourceStatus.DATASHEET)
MARGIN = Source("two units may fail and the string still runs", "", SourceStatus.COMMON_PRACTICE)
INVERTER = Source("inverter datasheet", "", SourceStatus.DATASHEET)
UNIT = "optimizer datasheet"


def optimizer_checks(design: Design, unit: OptimizerSheet) -> tuple[Check, ...]:
    """Return the checks of each type of module on an optimizer, and of a system's strings."""
    sheets = dict.fromkeys(design.sheets[m] for m in design.fitted)
    found = [c for sheet in sheets for c in input_checks(design, unit, sheet)]
    if unit.kind is OptimizerKind.SYSTEM:
        for string in design.option.strings:
            found += _string_checks(design, unit, string)
        for tracker in design.trackers:
            strings = strings_on(design.option, tracker.number)
            if strings:
                found.append(_tracker_current(design, unit, tracker.number, strings))
    return tuple(found)


def input_checks(design: Design, unit: OptimizerSheet, sheet: ModuleSheet) -> tuple[Check, ...]:
    """One module on one optimizer: it never sees more than the module's own voltage and current."""
    at = ModuleInput(
        "optimizer", "Optimizer", unit.v_in_max_v, unit.v_in_min_v, unit.i_in_max_a, MAKER
    )
    most = at.limit("p_in", "the most it takes", unit.p_max_w, "W")
    return (
        *module_input_checks(design, sheet, at),
        module_watts("optimizer.watts", "Optimizer, watts", sheet, LimitKind.STOP, most, MAKER),
    )


@dataclass(frozen=True, slots=True)
class _Held:
    """A string whose voltage the inverter holds, with the givens its checks share."""

    design: Design
    unit: OptimizerSheet
    string: ModuleString

    @property
    def subject(self) -> str:
        return f"string {self.string.tag}"

    @property
    def units(self) -> Given:
        count = float(len(self.string.module_ids))
        return Given("n", "optimizers in the string", count, "", "this design")

    @property
    def volts(self) -> Given:
        return Given("v_string", "voltage the inverter holds", self.unit.string_v, "V", UNIT)


def _string_checks(design: Design, unit: OptimizerSheet, string: ModuleString) -> tuple[Check, ...]:
    """A string whose voltage the inverter holds: its count, watts, current and safe voltage."""
    held = _Held(design, unit, string)
    return (
        *_counts(held),
        _watts(held),
        _current(held),
        _circuit_voltage(held),
        *_left_over(held),
    )


def _counts(held: _Held) -> tuple[Check, ...]:
    least, most = _count(held.unit.least_in_string), _count(held.unit.most_in_string)
    n = number_of(held.units)
    spare = None if least is None or most is None else min(n - least, most - n)

    def counted(rule: str, title: str, relation: Relation, limit: Given) -> Check:
        return check(
            rule_id=rule,
            title=title,
            subject=held.subject,
            kind=LimitKind.STOP,
            formula="n",
            givens=(held.units,),
            value=n,
            symbol="n",
            unit="",
            relation=relation,
            limit=limit,
            source=MAKER,
            graded=False,
            fixes=(Fix("Plan the strings anew", PlanAnew(held.design.option.id)),),
        )

    fewest = Given("least", "fewest in a string", least, "", UNIT)
    largest = Given("most", "most in a string", most, "", UNIT)
    may_fail = practice(Practice.SPARE_OPTIMIZERS)
    return (
        counted("optimizer.fewest", "Optimizers at least", ">=", fewest),
        counted("optimizer.most", "Optimizers at most", "<=", largest),
        check(
            rule_id="optimizer.spare",
            title="Optimizers to spare",
            subject=held.subject,
            kind=LimitKind.NOTE,
            formula="spare",
            givens=(Given("spare", "units from the nearer end of its range", spare, "", UNIT),),
            value=spare,
            symbol="spare",
            unit="",
            relation=">=",
            limit=Given("wanted", "units that may fail", may_fail, "", "common practice"),
            source=MARGIN,
            graded=False,
        ),
    )


def _watts(held: _Held) -> Check:
    formula, watts, string_w = watts_of(held.design, held.string.module_ids)
    return check(
        rule_id="optimizer.string-watts",
        title="Watts of a string",
        subject=held.subject,
        kind=LimitKind.STOP,
        formula=formula,
        givens=watts,
        value=string_w,
        symbol="p_string",
        unit="W",
        relation="<=",
        limit=Given("p_most", "most watts of a string", held.unit.most_string_w, "W", UNIT),
        source=MAKER,
    )


def _current(held: _Held) -> Check:
    formula, watts, string_w = watts_of(held.design, held.string.module_ids)
    held_v = held.unit.string_v
    return check(
        rule_id="optimizer.string-current",
        title="Current of a string",
        subject=held.subject,
        kind=LimitKind.COSTS,
        formula=f"{bracketed(formula)} / v_string",
        givens=(*watts, held.volts),
        value=None if held_v is None else string_w / held_v,
        symbol="i_string",
        unit="A",
        relation="<=",
        limit=Given("i_out", "an optimizer's largest output", held.unit.i_out_max_a, "A", UNIT),
        source=MAKER,
    )


def _circuit_voltage(held: _Held) -> Check:
    rules, makers_v = held.design.rules, min(i.v_dc_max_v for i in held.design.inverters)
    # The lower of the code's ceiling and what the inverter's own sheet bears.
    by_code = rules.ceiling_v <= makers_v
    limit = (
        Given("v_most", "code's ceiling", rules.ceiling_v, "V", "rules of this job")
        if by_code
        else Given("v_most", "inverter's largest DC voltage", makers_v, "V", "inverter datasheet")
    )
    return check(
        rule_id="optimizer.circuit-voltage",
        title="Circuit voltage",
        subject=held.subject,
        kind=LimitKind.STOP,
        formula="v_string",
        givens=(held.volts,),
        value=held.unit.string_v,
        symbol="v_string",
        unit="V",
        relation="<=",
        limit=limit,
        source=rules.ceiling if by_code else INVERTER,
    )


def _left_over(held: _Held) -> tuple[Check, ...]:
    """What a string still has outside the array when shut down; where the family asks for it."""
    safe_v, most_v = held.unit.safe_v, held.design.rules.family.shutdown_outside_v
    if most_v is None:
        return ()
    left = check(
        rule_id="optimizer.safe-voltage",
        title="Safe voltage",
        subject=held.subject,
        kind=LimitKind.NOTE,
        formula="n * v_safe",
        givens=(held.units, Given("v_safe", "left by each when off", safe_v, "V", UNIT)),
        value=None if safe_v is None else number_of(held.units) * safe_v,
        symbol="v_off",
        unit="V",
        relation="<=",
        limit=Given("v_touch", "outside the array", most_v, "V", "code"),
        source=SHUTDOWN_OUTSIDE,
    )
    return (left,)


def _tracker_current(
    design: Design, unit: OptimizerSheet, number: int, strings: tuple[ModuleString, ...]
) -> Check:
    """Strings held at one voltage, of whatever lengths: their currents add up on an input."""
    ids = [m for s in strings for m in s.module_ids]
    formula, watts, whole_w = watts_of(design, ids)
    held_v = unit.string_v
    most_a = design.trackers[number - 1].sheet.i_max_a
    told = "" if held_v is None else f"over {most_a:g} A from {shown(most_a * held_v, 4)} W"
    return check(
        rule_id="optimizer.tracker-current",
        title="Current of the input",
        subject=f"tracker {number}",
        kind=LimitKind.COSTS,
        formula=f"{bracketed(formula)} / v_string",
        givens=(*watts, Given("v_string", "voltage the inverter holds", held_v, "V", UNIT)),
        value=None if held_v is None else whole_w / held_v,
        symbol="i_in",
        unit="A",
        relation="<=",
        limit=Given("i_max", "largest operating current", most_a, "A", "inverter datasheet"),
        source=MAKER,
        reached_at=told,
    )


def _count(value: int | None) -> float | None:
    return None if value is None else float(value)
