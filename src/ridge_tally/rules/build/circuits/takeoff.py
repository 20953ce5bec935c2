"""Wire and gear by the piece: metres with slack, conduit by the stick, breakers, fuses, connectors."""

import math
from collections import Counter, defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.wiring import Insulation
from ridge_tally.core.strings.runs import spots_of, steps_m
from ridge_tally.rules.build.circuits.circuits import CircuitKind
from ridge_tally.rules.build.circuits.conductors import Sized
from ridge_tally.rules.build.circuits.conduits import Drawn, conduit_told
from ridge_tally.rules.build.circuits.wire import size_told
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.microinverters import branches

# Ends, loops and waste on every length; a stick of conduit; a fitting at each turn: common practice.
SLACK, STICK_M = 1.1, {CodePack.US: 3.048}
OTHER_STICK_M = 4.0
INSULATIONS = {
    Insulation.THWN_2: "THWN-2",
    Insulation.XHHW_2: "XHHW-2",
    Insulation.PVC: "PVC 70 °C",
    Insulation.XLPE: "XLPE 90 °C",
}


@dataclass(frozen=True, slots=True)
class Taken:
    """A line of the take-off: how much of what; ``unit`` is ``m`` or ``pcs``."""

    name: str
    count: float
    unit: str
    note: str = ""


def taken_off(
    design: Design, sized: tuple[Sized, ...], drawn: tuple[Drawn, ...]
) -> tuple[Taken, ...]:
    """Return wire, conduit and gear of an option; what has no length yet is left out and told."""
    return (
        *_wire(design, sized),
        *_conduit(design, drawn),
        *_devices(design, sized),
        *_at_modules(design),
    )


def untaken(sized: tuple[Sized, ...]) -> tuple[str, ...]:
    """Return the circuits whose length or size is not known, by name."""
    return tuple(c.circuit.name for c in sized if c.used is None or c.length_m is None)


def _wire(design: Design, sized: tuple[Sized, ...]) -> Iterator[Taken]:
    metres: defaultdict[str, float] = defaultdict(float)
    served: set[str] = set()
    for c in sized:
        if c.used is None or c.length_m is None:
            continue
        pack = design.job.site.code_pack
        kind = _kind(c)
        many = c.circuit.count * c.circuit.conductors
        metres[f"Copper {size_told(pack, c.used.size)}, {kind}"] += many * c.length_m
        if c.earth:
            # One conductor to earth serves all that lie together in a leg.
            for leg in c.circuit.legs:
                if leg.length_m and leg.id not in served:
                    metres[f"Copper {size_told(pack, c.earth)}, to earth"] += leg.length_m
                    served.add(leg.id)
    for name, length in metres.items():
        yield Taken(name, math.ceil(length * SLACK), "m", "10 % for ends and loops")


def _kind(one: Sized) -> str:
    if one.circuit.dc and not one.wire.us:
        return "cable for modules"
    if one.circuit.dc:
        return f"{INSULATIONS[one.wire.insulation]}, DC"
    return INSULATIONS[one.wire.insulation]


def _conduit(design: Design, drawn: tuple[Drawn, ...]) -> Iterator[Taken]:
    stick = STICK_M.get(design.job.site.code_pack, OTHER_STICK_M)
    sticks: Counter[str] = Counter()
    elbows: Counter[str] = Counter()
    boxes = 0
    for leg in drawn:
        if not leg.size or leg.leg.length_m is None:
            continue
        told = conduit_told(design, leg.size)
        sticks[told] += math.ceil(leg.leg.length_m / stick - 1e-9)
        elbows[told] += max(1, len(leg.leg.pieces) - 1) + 1
        boxes += 2
    for told, count in sticks.items():
        yield Taken(f"Conduit {told}, sticks of {stick:g} m", count, "pcs")
    for told, count in elbows.items():
        yield Taken(f"Elbow {told}", count, "pcs", "one a turn, one at the end")
    if boxes:
        yield Taken("Gland or connector into a box", boxes, "pcs", "both ends of every leg")


def _devices(design: Design, sized: tuple[Sized, ...]) -> Iterator[Taken]:
    breakers: Counter[float] = Counter()
    for c in sized:
        if c.breaker_a is not None:
            breakers[c.breaker_a] += c.circuit.count
    poles = {1: "two-pole" if design.job.site.code_pack is CodePack.US else "one-pole with neutral"}
    for rating, count in sorted(breakers.items()):
        phases = max(c.circuit.phases for c in sized if c.breaker_a == rating)
        yield Taken(f"Breaker {rating:g} A, {poles.get(phases, 'three-pole')}", count, "pcs")
    fuse = design.option.safety.string_fuse_a
    joined = [c for c in sized if c.circuit.kind is CircuitKind.COMBINED]
    if fuse is not None and joined:
        many = sum(int(c.circuit.givens[0].value or 0) for c in joined)
        yield Taken(f"Fuse gPV {fuse:g} A with holder", many, "pcs", "one a string")
        yield Taken("Box for joined strings", len(joined), "pcs")
    boxes = len(design.option.boxes)
    if boxes:
        yield Taken("Box on the roof", boxes, "pcs")
    if design.job.survey.service.disconnect is not None and sized:
        yield Taken("AC disconnect, lockable", 1, "pcs")


def _at_modules(design: Design) -> Iterator[Taken]:
    unit = design.microinverter
    if unit is not None:
        circuits = branches(design, unit)
        if not circuits:
            return
        units = sum(len(b.units) for b in circuits)
        drops = sum(b.connectors for b in circuits)
        pitch = unit.trunk_pitch_m
        if pitch is not None:
            yield Taken("Trunk cable", math.ceil(drops * pitch), "m", f"{drops} drops")
        yield Taken("Trunk drop with connector", units, "pcs")
        if drops > units:
            yield Taken("Cap for a drop that is skipped", drops - units, "pcs")
        yield Taken("End cap of a trunk", len(circuits), "pcs")
        return
    strings = design.option.strings
    if strings:
        # Every string's two ends meet home-run cables; where the next module is further, a jumper.
        spots = spots_of(design)
        jumps = sum(step is None for s in strings for step in steps_m(s.module_ids, spots))
        yield Taken(
            "Connectors, mating pairs", 2 * len(strings) + 2 * jumps, "pcs",
            "two a string, two a jumper; one maker and type",
        )  # fmt: skip
