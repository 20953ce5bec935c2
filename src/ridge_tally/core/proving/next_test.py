"""Which reading to take next: what it would settle, for its minutes and its risk."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import exp

from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.faults import with_faults
from ridge_tally.core.proving.rig import OF_PLANE, OF_STRING, Bench, Kind, Probe, Rig, Value
from ridge_tally.core.proving.weighing import RIGHTLY_SEEN, Cause, scaled, sigma_of

# A point of risk weighs as much as so many minutes; our own line.
MINUTES_A_RISK = 6.0
# Causes below this share of the first's chance are not worth a walk; so many are looked at.
WORTH_CHANCE, MOST_CAUSES = 0.002, 40
# What settles less than this is not worth taking.
WORTH_SETTLING = 0.01


# What can be read of modules with converters of their own.
HELD_READS = frozenset({Kind.POWER, Kind.COUNT, Kind.V_AT_WORK, Kind.I_AT_WORK})


@dataclass(frozen=True, slots=True)
class Cost:
    """What a reading takes: minutes, and its risk in points."""

    minutes: float
    risk: float

    @property
    def whole(self) -> float:
        """Minutes with the risk weighed in."""
        return self.minutes + MINUTES_A_RISK * self.risk


@dataclass(frozen=True, slots=True)
class Worth:
    """A reading with what it settles: the chance that it tells two causes apart, 0 to 1."""

    test: Probe
    settles: float
    cost: Cost
    due: tuple[Value, ...]


def tests_of(rig: Rig, *, fused: bool) -> Iterator[Probe]:
    """Yield every reading that can be taken of a system."""
    for kind in Kind:
        if kind in OF_STRING:
            yield from (
                Probe(kind, n) for n in range(len(rig.strings)) if _can(rig, kind, n, fused)
            )
        elif kind in OF_PLANE:
            yield from (Probe(kind, n) for n in range(len(rig.planes)))
        elif kind is not Kind.AC_W or rig.inverter.p_ac_w is not None:
            yield Probe(kind)


def _can(rig: Rig, kind: Kind, at: int, fused: bool) -> bool:
    """Return whether a reading can be taken of a string."""
    if kind is Kind.V_FUSED:
        return fused
    if kind is Kind.SWAP:
        return len(rig.strings) > 1
    one = rig.strings[at]
    if one.held_v is None:
        return True
    return kind in HELD_READS or (kind is Kind.VOC and one.safe_v is not None)


def worth_taking(
    rig: Rig,
    causes: Sequence[Cause],
    tests: Iterable[Probe],
    costs: Mapping[Kind, Cost],
    errors: MeterErrors | None = None,
) -> tuple[Worth, ...]:
    """Return readings that settle something, the best for its cost first.

    Two causes are told apart as far as what they say of a reading lies apart, in its deviations
    (Bhattacharyya's coefficient of two normal distributions).
    """
    errors = errors or MeterErrors()
    least = WORTH_CHANCE * causes[0].chance
    likely = [c for c in causes[:MOST_CAUSES] if c.chance > least]
    whole = sum(c.chance for c in likely)
    benches = [(c.chance / whole, Bench(with_faults(rig, c.faults), c.lit)) for c in likely]
    found = []
    for test in tests:
        cost = costs.get(test.kind)
        if cost is None:
            continue
        due = [(chance, bench.read(test)) for chance, bench in benches]
        settles = sum(
            a * b * 2 * (1 - _overlap(test.kind, x, y, errors))
            for n, (a, x) in enumerate(due)
            for b, y in due[n + 1 :]
        )
        if settles > WORTH_SETTLING:
            found.append(Worth(test, settles, cost, tuple(v for _, v in due)))
    return tuple(sorted(found, key=lambda w: -w.settles / w.cost.whole))


def _overlap(kind: Kind, one: Value, other: Value, errors: MeterErrors) -> float:
    """Return how far a reading cannot tell two values apart, 1 for not at all."""
    if isinstance(one, str) or isinstance(other, str):
        missed = RIGHTLY_SEEN * (1 - RIGHTLY_SEEN)
        return 1.0 if one == other else float(2 * missed**0.5)
    sigma = max(sigma_of(kind, one, errors), sigma_of(kind, other, errors))
    apart = scaled(kind, one) - scaled(kind, other)
    return exp(-(apart**2) / (8 * sigma * sigma))
