"""The conductors of a circuit: the smallest that passes every test, or what a person chose."""

from dataclasses import dataclass, replace

from ridge_tally.core.build.circuits.sums import drop_v, lost_w
from ridge_tally.core.job.document import CodePack
from ridge_tally.core.job.wiring import CircuitChoice, choice_of
from ridge_tally.core.working import number_of
from ridge_tally.rules.build.circuits.circuits import Circuit, CircuitKind, circuits_of
from ridge_tally.rules.build.circuits.wire import (
    Carries,
    Wire,
    at_terminals_a,
    carries,
    earth_size,
    insulations,
    largest_breaker_a,
    ohm_per_km,
    size_meant,
    sizes,
    usual_insulation,
)
from ridge_tally.rules.design import Design
from ridge_tally.rules.standard_sizes import next_breaker_a


@dataclass(frozen=True, slots=True)
class Tested:
    """A size on a circuit: what it carries at its worst place, its breaker, what it drops.

    ``lost_frac``: of what the circuit brings at its rating; ``None`` without a length.
    """

    size: str
    carries: Carries
    protected_a: float
    drop_frac: float | None
    lost_frac: float | None
    passes: bool


@dataclass(frozen=True, slots=True)
class Sized:
    """A circuit with its conductors; ``used`` is ``None`` where nothing of the table passes.

    ``tried``: sizes from the thinnest to one above what is used; ``least`` the smallest that passes; ``asked``: why
    nothing was sized.  ``breaker_a``: the device before it.
    """

    circuit: Circuit
    wire: Wire
    choice: CircuitChoice
    length_m: float | None
    continuous: float
    tried: tuple[Tested, ...]
    least: Tested | None
    used: Tested | None
    breaker_a: float | None
    earth: str
    asked: str

    @property
    def larger(self) -> Tested | None:
        """The next size up, where there is one."""
        if self.used is None:
            return None
        at = self.tried.index(self.used) + 1
        return self.tried[at] if at < len(self.tried) else None


def circuits_sized(design: Design) -> tuple[Sized, ...]:
    """Return every circuit of an option with its conductors."""
    return tuple(_sized(design, c) for c in circuits_of(design))


def _sized(design: Design, circuit: Circuit) -> Sized:
    wiring, pack = design.option.wiring, design.job.site.code_pack
    choice = choice_of(wiring, circuit.id)
    # What was chosen under another family is none of this one's sizes.
    choice = replace(choice, size=size_meant(pack, choice.size))
    # In mm² modules’ cables are of one kind whatever the house’s are.
    chosen = None if circuit.dc and pack is not CodePack.US else wiring.insulation
    if chosen not in insulations(pack):
        chosen = None
    insulation = chosen or usual_insulation(pack, dc=circuit.dc)
    wire = Wire(pack, insulation, circuit.dc, circuit.loaded, circuit.beside, wiring.terminals_degc)
    length_m = _length_m(circuit, choice)
    continuous = design.rules.family.continuous_factor
    breaker = _breaker(design, circuit, choice, continuous)
    hottest = number_of(design.hottest_air)
    tried: list[Tested] = []
    for size in sizes(wire):
        if _enough(tried, choice.size):
            break
        worst = carries(wire, size, circuit.legs, hottest)
        if worst is not None:
            tried.append(_tested(wire, circuit, size, worst, continuous, breaker, length_m))
    least = next((t for t in tried if t.passes), None)
    used = least
    if choice.size:
        used = next((t for t in tried if t.size == choice.size), None)
    return Sized(
        circuit, wire, choice, length_m, continuous, tuple(tried), least, used, breaker,
        "" if used is None else earth_size(wire, used.size, _before(design, circuit, breaker)),
        _asked(circuit, tried),
    )  # fmt: skip


def _enough(tried: list[Tested], chosen: str) -> bool:
    """Whether the smallest that passes, what was chosen, and one above both were tried."""
    above = tried[:-1]
    return any(t.passes for t in above) and (not chosen or any(t.size == chosen for t in above))


def _asked(circuit: Circuit, tried: list[Tested]) -> str:
    if tried:
        return ""
    return next(
        (leg.asked for leg in circuit.legs if leg.asked), "Draw its way, or type its length."
    )


def _length_m(circuit: Circuit, choice: CircuitChoice) -> float | None:
    if choice.length is not None:
        return choice.length.value_m
    lengths = [leg.length_m for leg in circuit.legs]
    known = [m for m in lengths if m is not None]
    return sum(known) if lengths and len(known) == len(lengths) else None


def _breaker(
    design: Design, circuit: Circuit, choice: CircuitChoice, continuous: float
) -> float | None:
    """Return a circuit's breaker, A: chosen, the family's own, or the next size; none on DC."""
    if circuit.dc:
        return None
    return (
        choice.breaker_a
        or circuit.fixed_breaker_a
        or next_breaker_a(design.job.site.code_pack, continuous * circuit.most_a)
    )


def _before(design: Design, circuit: Circuit, breaker_a: float | None) -> float | None:
    """Return the device the conductor to earth is chosen by: the breaker, or a string's fuse.

    Without one, the rating a fuse of so much current would have (NEC 690.45, 690.9(B)).
    """
    if not circuit.dc:
        return breaker_a
    fitted = design.option.safety.string_fuse_a
    if fitted is not None and circuit.kind is CircuitKind.STRING:
        return fitted
    return next_breaker_a(CodePack.US, 1.25 * circuit.most_a)


def _tested(
    wire: Wire,
    circuit: Circuit,
    size: str,
    worst: Carries,
    continuous: float,
    breaker_a: float | None,
    length_m: float | None,
) -> Tested:
    ohm = ohm_per_km(wire, size)
    drop = lost = None
    if length_m is not None:
        drop = drop_v(length_m, circuit.run_a, ohm, circuit.phases) / circuit.volts
        lost = lost_w(length_m, circuit.run_a, ohm, circuit.phases) / circuit.made_w
    protected = largest_breaker_a(wire, size, worst.amps)
    slack = 1 + 1e-9
    passes = circuit.most_a <= worst.amps * slack
    if wire.us:
        passes = passes and continuous * circuit.most_a <= at_terminals_a(wire, size) * slack
    if breaker_a is not None:
        passes = passes and breaker_a <= protected * slack
    return Tested(size, worst, protected, drop, lost, passes)


@dataclass(frozen=True, slots=True)
class LostAtRating:
    """The share of the rated power that each side's conductors take at it.

    ``None`` until every way of that side was taken by a person and every length is known.
    """

    dc_frac: float | None = None
    ac_frac: float | None = None


def lost_at_rating(design: Design) -> LostAtRating:
    """Return what an option's conductors take at the rating.

    While nobody took a way or typed a length nothing is sized for it: every year asks.
    """
    wiring = design.option.wiring
    if not wiring.routes and all(c.length is None for c in wiring.choices):
        return LostAtRating()
    return lost_by(circuits_sized(design))


def lost_by(sized: tuple[Sized, ...]) -> LostAtRating:
    """Return what circuits that are sized take at the rating."""
    counted = [c for c in sized if c.circuit.kind is not CircuitKind.BATTERY]
    return LostAtRating(
        _lost_frac([c for c in counted if c.circuit.dc]),
        _lost_frac([c for c in counted if not c.circuit.dc]),
    )


def _lost_frac(circuits: list[Sized]) -> float | None:
    """Return what circuits of one side lose over what the first of them bring.

    Branches, inverters and what they are collected on carry the same power one after another.
    """
    made: dict[CircuitKind, float] = {}
    lost = 0.0
    for c in circuits:
        if c.used is None or c.used.lost_frac is None or not _is_taken(c):
            return None
        brought_w = c.circuit.count * c.circuit.made_w
        lost += brought_w * c.used.lost_frac
        # Strings joined or not are beside each other.
        stage = CircuitKind.STRING if c.circuit.dc else c.circuit.kind
        made[stage] = made.get(stage, 0.0) + brought_w
    return lost / max(made.values()) if made else None


def _is_taken(sized: Sized) -> bool:
    return sized.choice.length is not None or all(leg.taken for leg in sized.circuit.legs)


def chains(sized: tuple[Sized, ...]) -> tuple[tuple[Sized, ...], ...]:
    """Return for each source on the AC side its circuits one after another to where it joins."""
    last = tuple(c for c in sized if c.circuit.kind is CircuitKind.COLLECTOR)
    first = (CircuitKind.INVERTER, CircuitKind.BRANCH)
    return tuple((c, *last) for c in sized if c.circuit.kind in first)
