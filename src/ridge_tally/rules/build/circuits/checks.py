"""What every circuit is held to: its current, its conductors warm and at terminals, its breaker, its drop."""

from collections.abc import Iterator

from ridge_tally.core.build.circuits.sums import way_back
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.document import CodePack, battery_joined
from ridge_tally.core.job.edits.build.circuits import CircuitField, SetCircuit
from ridge_tally.core.units import format_length
from ridge_tally.core.working import Check, Fix, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules import tables
from ridge_tally.rules.build.circuits.circuits import CircuitKind
from ridge_tally.rules.build.circuits.conductors import Sized, Tested, chains
from ridge_tally.rules.build.circuits.conduits import conduit_checks
from ridge_tally.rules.build.circuits.wire import (
    TERMINALS,
    ampacity_source,
    at_terminals_a,
    ohm_per_km,
    ohm_source,
    size_told,
)
from ridge_tally.rules.design import Design

TERMINAL = Source("NEC 690.8(B)(1), 110.14(C)", "2023", SourceStatus.FROM_MEMORY)
PROTECTION = {
    CodePack.US: Source("NEC 240.4(B) and (D)", "2023", SourceStatus.FROM_MEMORY),
    CodePack.IEC: Source("IEC 60364-4-43, 433.1", "", SourceStatus.FROM_MEMORY),
    CodePack.UK: Source("BS 7671 433.1.1", "", SourceStatus.FROM_MEMORY),
    CodePack.AU_NZ: Source("AS/NZS 3000 2.5.3", "", SourceStatus.FROM_MEMORY),
}
# Elsewhere one clause holds for breaker and conductor.
DEVICE = PROTECTION | {
    CodePack.US: Source("NEC 705.28, 705.30, 240.6(A)", "2023", SourceStatus.FROM_MEMORY)
}
MAKER = Source("inverter datasheet", "", SourceStatus.DATASHEET)
BATTERY_MAKER = Source("battery manual", "", SourceStatus.DATASHEET)
INTERRUPTING = {
    CodePack.US: Source("NEC 110.9", "2023", SourceStatus.FROM_MEMORY),
    CodePack.IEC: Source("IEC 60364-4-43, 434.5", "", SourceStatus.FROM_MEMORY),
    CodePack.UK: Source("BS 7671 434.5.1", "", SourceStatus.FROM_MEMORY),
    CodePack.AU_NZ: Source("AS/NZS 3000 2.5.4", "", SourceStatus.FROM_MEMORY),
}


def circuit_checks(design: Design, sized: tuple[Sized, ...]) -> tuple[Check, ...]:
    """Return the checks of every circuit, sized, from the modules to where it joins."""
    found: list[Check] = []
    for one in sized:
        found += _conductor(design, one)
        found += _breaker(design, one)
        found += _drop(design, one)
    if sized:
        found += conduit_checks(design, sized)
        found += _drop_together(design, sized)
        found += _interrupting(design)
    found += _battery_on_dc(design)
    return tuple(found)


def _continuous(one: Sized) -> tuple[str, tuple[Given, ...], float]:
    """Return what flows without end as a formula, its givens, and what it comes to, A."""
    circuit = one.circuit
    factor = Given("c", "continuous current", one.continuous, "", "code")
    return (
        f"c * ({circuit.formula})",
        (factor, *circuit.givens),
        one.continuous * circuit.most_a,
    )


def _proposed(design: Design, one: Sized) -> tuple[Fix, ...]:
    """Return the way out of conductors or a breaker a person chose: what is proposed."""
    option, circuit = design.option.id, one.circuit
    fixes = []
    if one.choice.size and one.least is not None:
        told = size_told(design.job.site.code_pack, one.least.size)
        fixes.append(
            Fix(f"{circuit.name}: {told}", SetCircuit(option, circuit.id, CircuitField.SIZE, ""))
        )
    if one.choice.breaker_a is not None:
        fixes.append(
            Fix(f"{circuit.name}: next standard breaker",
                SetCircuit(option, circuit.id, CircuitField.BREAKER, ""))
        )  # fmt: skip
    return tuple(fixes)


def _conductor(design: Design, one: Sized) -> Iterator[Check]:
    """The largest current against what the conductor carries where it is warmest."""
    circuit, wire = one.circuit, one.wire
    pack = design.job.site.code_pack
    used = one.used
    tested = used or (one.tried[-1] if one.tried else None)
    told = "" if tested is None else size_told(pack, tested.size)
    reason = f"Not checked: its way is not known. {one.asked}" if tested is None else ""
    at = "" if tested is None else tested.carries.place
    limit = Given(
        "i_z",
        f"{told} carries at its worst place" if tested else "what its conductor carries",
        None if tested is None else tested.carries.amps,
        "A",
        ""
        if tested is None
        else f"{tested.carries.bare_a:g} A × {tested.carries.warm:g} (heat) × "
        f"{tested.carries.bundled:g} (together); {at}",
    )
    largest = " no conductor of the table is large enough" if used is None and tested else ""
    yield check(
        rule_id="wiring.conductor",
        title="Conductor where it is warmest",
        subject=circuit.name,
        kind=LimitKind.STOP,
        formula=circuit.formula,
        givens=circuit.givens,
        value=None if tested is None else circuit.most_a,
        symbol="i_most",
        unit="A",
        relation="<=",
        limit=limit,
        source=ampacity_source(wire),
        reached_at=f"{told}: {at}{largest}" if tested else "",
        reason=reason,
        fixes=_proposed(design, one),
    )
    if wire.us and tested is not None:
        formula, givens, continuous_a = _continuous(one)
        yield check(
            rule_id="wiring.terminals",
            title="Conductor at its terminals",
            subject=circuit.name,
            kind=LimitKind.STOP,
            formula=formula,
            givens=givens,
            value=continuous_a,
            symbol="i_cont",
            unit="A",
            relation="<=",
            limit=Given(
                "i_term",
                f"{told} at {wire.terminals_degc} °C terminals",
                at_terminals_a(wire, tested.size),
                "A",
                f"NEC table 310.16, {wire.terminals_degc} °C column",
            ),
            source=TERMINAL,
            reached_at=""
            if wire.terminals_degc == TERMINALS[1]
            else "terminals marked 75 °C carry more: say it under Build, Circuits",
            fixes=_proposed(design, one),
        )


def _breaker(design: Design, one: Sized) -> Iterator[Check]:
    """The breaker bears the current without end, the maker allows it, and the conductor is guarded."""
    circuit, pack = one.circuit, design.job.site.code_pack
    if circuit.dc:
        return
    formula, givens, continuous_a = _continuous(one)
    rated = Given("i_n", "breaker", one.breaker_a, "A", "next standard size"
                  if one.choice.breaker_a is None and circuit.fixed_breaker_a is None
                  else "this design")  # fmt: skip
    yield check(
        rule_id="wiring.breaker",
        title="Breaker bears the current",
        subject=circuit.name,
        kind=LimitKind.STOP,
        formula=formula,
        givens=givens,
        value=continuous_a,
        symbol="i_cont",
        unit="A",
        relation="<=",
        limit=rated,
        source=DEVICE[pack],
        reason="" if one.breaker_a is not None
        else "Not checked: no standard breaker of the table is so large. Share the sources out.",
        fixes=_proposed(design, one),
    )  # fmt: skip
    if circuit.breaker_most_a is not None or circuit.kind is CircuitKind.INVERTER:
        yield check(
            rule_id="wiring.breaker-most",
            title="Maker's largest breaker",
            subject=circuit.name,
            kind=LimitKind.STOP,
            formula="i_n",
            givens=(rated,),
            value=one.breaker_a,
            symbol="i_n",
            unit="A",
            relation="<=",
            limit=Given("i_max", "largest breaker", circuit.breaker_most_a, "A", "inverter datasheet"),
            source=MAKER,
            reason="" if circuit.breaker_most_a is not None
            else "Not checked: the datasheet names no largest breaker; ask the maker and type it there.",
            graded=False,
            fixes=_proposed(design, one),
        )  # fmt: skip
    if one.used is not None and one.breaker_a is not None:
        told = size_told(pack, one.used.size)
        small = one.wire.us and one.used.protected_a < one.breaker_a
        yield check(
            rule_id="wiring.protected",
            title="Breaker guards the conductor",
            subject=circuit.name,
            kind=LimitKind.STOP,
            formula="i_n",
            givens=(rated,),
            value=one.breaker_a,
            symbol="i_n",
            unit="A",
            relation="<=",
            limit=Given("i_guard", f"largest breaker that guards {told}", one.used.protected_a, "A",
                        f"carries {one.used.carries.amps:.1f} A at its worst place"),
            source=PROTECTION[pack],
            reached_at="a small conductor has its own limit" if small else "",
            graded=False,
            fixes=_proposed(design, one),
        )  # fmt: skip


def _limits(design: Design) -> tuple[float, float, float, Source]:
    table, pack = tables.load("drop-limits"), design.job.site.code_pack.value
    source = Source(table.text("clause", pack=pack), "", table.source.status)
    return (
        table.number("dc", pack=pack),
        table.number("ac", pack=pack),
        table.number("ac_rule", pack=pack),
        source,
    )


def _drop(design: Design, one: Sized) -> Iterator[Check]:
    """The drop along one circuit at its rating against practice: it costs, and may trip."""
    circuit, used = one.circuit, one.used
    if used is None or circuit.kind is CircuitKind.BATTERY:
        return
    dc, ac, _, source = _limits(design)
    drawn = (
        "as typed"
        if one.choice.length is not None
        else ("as drawn" if all(leg.taken for leg in circuit.legs) else "by the proposed way")
    )
    larger = one.larger
    fixes: tuple[Fix, ...] = ()
    if larger is not None:
        told = size_told(design.job.site.code_pack, larger.size)
        edit = SetCircuit(design.option.id, circuit.id, CircuitField.SIZE, larger.size)
        fixes = (Fix(f"{circuit.name}: {told}", edit),)
    yield check(
        rule_id="wiring.drop-dc" if circuit.dc else "wiring.drop-ac",
        title="Voltage drop" if circuit.dc else "Voltage rise",
        subject=circuit.name,
        kind=LimitKind.COSTS,
        formula="r * i / u * 100",
        givens=(
            _resistance(design, one, used, drawn),
            Given("i", "current at the rating", circuit.run_a, "A", "this design"),
            Given("u", "volts", circuit.volts, "V", "this design"),
        ),
        value=None if used.drop_frac is None else used.drop_frac * 100,
        symbol="drop",
        unit="%",
        relation="<=",
        limit=Given("most", "by practice at most", dc if circuit.dc else ac, "%", source.document),
        source=source,
        reason="" if one.length_m is not None else f"Not checked: its length is not known. {one.asked}",
        fixes=fixes,
    )  # fmt: skip


def _resistance(design: Design, one: Sized, used: Tested, drawn: str) -> Given:
    """Return the resistance the drop is along, told by length and size."""
    length_m, ohm = one.length_m, ohm_per_km(one.wire, used.size)
    told = size_told(design.job.site.code_pack, used.size)
    back = "one way" if way_back(one.circuit.phases) == 1 else "out and back"
    if length_m is None:
        return Given("r", f"{told} {back}", None, "ohm", "length not known")
    value = way_back(one.circuit.phases) * length_m / 1000 * ohm
    length = format_length(length_m, design.job.unit)
    origin = f"{length} {drawn}, {ohm:.3g} ohm/km ({ohm_source(one.wire)})"
    return Given("r", f"{told} {back}", value, "ohm", origin)


def _drop_together(design: Design, sized: tuple[Sized, ...]) -> Iterator[Check]:
    """The rise from the source that has most of it to where it joins against the family's rule."""
    _, _, rule, source = _limits(design)
    if not rule:
        return
    rises = [
        [c.used.drop_frac if c.used is not None else None for c in chain] for chain in chains(sized)
    ]
    if not rises:
        return
    known = [r for r in rises if all(x is not None for x in r)]
    worst = max(known, key=lambda r: sum(x or 0.0 for x in r), default=None)
    complete = len(known) == len(rises) and worst is not None
    parts = worst if complete and worst is not None else []
    givens = tuple(
        Given(f"r{n}", "rise of a circuit in turn", (x or 0.0) * 100, "%", "its own check")
        for n, x in enumerate(parts, start=1)
    ) or (Given("r1", "rise of each circuit in turn", None, "%", ""),)
    yield check(
        rule_id="wiring.rise",
        title="Rise to where it joins",
        subject="AC side",
        kind=LimitKind.OUTSIDE,
        formula=" + ".join(g.symbol for g in givens),
        givens=givens,
        value=sum((x or 0.0) * 100 for x in parts) if parts else None,
        symbol="rise",
        unit="%",
        relation="<=",
        limit=Given("most", "by the rule of the family", rule, "%", source.document),
        source=source,
        reason="" if parts else "Not checked: a circuit's length is not known.",
        reached_at="the service’s own cable comes on top",
    )


def _interrupting(design: Design) -> Iterator[Check]:
    """The new breaker must break what a fault can draw at the panel."""
    wiring = design.option.wiring
    yield check(
        rule_id="wiring.interrupting",
        title="Breaker breaks a fault's current",
        subject="panel",
        kind=LimitKind.STOP,
        formula="i_fault",
        givens=(Given("i_fault", "fault current at the panel", wiring.fault_a, "A", "the utility"),),
        value=wiring.fault_a,
        symbol="i_fault",
        unit="A",
        relation="<=",
        limit=Given("i_breaks", "the new breaker breaks", wiring.interrupts_a, "A", "its label"),
        source=INTERRUPTING[design.job.site.code_pack],
        reason="" if wiring.fault_a is not None and wiring.interrupts_a is not None
        else "Not checked: ask the utility for the fault current, read the breaker's label, and type "
        "both under Build, Circuits.",
    )  # fmt: skip


def _battery_on_dc(design: Design) -> Iterator[Check]:
    """The cable between a battery and an inverter's DC side: its maker's manual sizes it."""
    battery = battery_joined(design.option)
    if battery is None or battery.coupling is not Coupling.DC:
        return
    yield check(
        rule_id="wiring.battery-dc",
        title="Battery’s own cable and fuse",
        subject="battery",
        kind=LimitKind.OUTSIDE,
        formula="p_batt * 1000 / u_batt",
        givens=(
            Given("p_batt", "battery’s power", battery.power_kw, "kW", "this option"),
            Given("u_batt", "its least DC volts", None, "V", "battery manual"),
        ),
        value=None,
        symbol="i_batt",
        unit="A",
        relation="<=",
        limit=Given("i_cable", "what its cable and fuse carry", None, "A", "battery manual"),
        source=BATTERY_MAKER,
        reason="Not checked: the battery’s volts are not in this job. Cable, fuse and switch between "
        "it and the inverter are by its maker’s manual.",
    )
