"""The practice yard: faults planted by a number, and how a search is scored against an efficient one."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import inf

import numpy as np

from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.faults import (
    COMMON,
    Fault,
    Planted,
    candidates,
    places_of,
    with_faults,
)
from ridge_tally.core.proving.next_test import Cost, tests_of, worth_taking
from ridge_tally.core.proving.rig import Bench, Kind, Lit, Probe, Rig, Value
from ridge_tally.core.proving.weighing import (
    EXPLAINED,
    SURE,
    Given,
    Read,
    Weighed,
    Weighing,
    scaled,
    sigma_of,
)

# Of ten systems so many have two faults; one in so many has none.
TWO_IN_TEN, SOUND_ONE_IN = 3, 12
# What a reading past par, a minute past par, and a point of risk past par cost; our own scale.
A_READING, A_MINUTE, A_RISK = 3.0, 0.5, 4.0
UNSAFE, WRONG, HALF_RIGHT = 40.0, 25.0, 12.0
FULL = 100.0
# A fault shows itself when a reading is off by so many deviations.
SHOWS = 4.0
MOST_STEPS = 12
# So many draws are made for faults that show themselves by some reading.
DRAWS = 60
# The number of the first system: a module threaded into the other string, and its last plane soiled.
FIRST_SEED = 0


def _first_faults(rig: Rig) -> tuple[Planted, ...]:
    last = len(rig.planes) - 1
    return Planted(Fault.THREADED, 0, 1), Planted(Fault.SOILING, last, 0, 0.82)


def planted_by(rig: Rig, lit: Lit, seed: int) -> tuple[Planted, ...]:
    """Return the faults a number plants: none, one or two, of unlike places, each to be seen."""
    if seed == FIRST_SEED and len(rig.strings) > 1:
        return _first_faults(rig)
    rng = np.random.default_rng(seed)
    if rng.integers(SOUND_ONE_IN) == 0:
        return ()
    many = 2 if rng.integers(10) < TWO_IN_TEN else 1
    kinds: dict[Fault, list[Planted]] = {}
    for one in candidates(rig):
        if one.fault is not Fault.HEALTHY:
            kinds.setdefault(one.fault, []).append(one)
    found: tuple[Planted, ...] = ()
    names = list(kinds)
    for _ in range(DRAWS):
        sizes = kinds[names[rng.integers(len(names))]]
        one = sizes[rng.integers(len(sizes))]
        if not _beside(found, one) or not _shows(rig, lit, found, one):
            continue
        found = (*found, one)
        if len(found) == many:
            break
    return found


def _beside(found: Sequence[Planted], one: Planted) -> bool:
    """Return whether a fault can be told beside those there: one of a string, one of the light."""
    for other in found:
        same = set(places_of(one)) & set(places_of(other))
        if same or one.fault is other.fault or (one.fault in COMMON) == (other.fault in COMMON):
            return False
    return True


def _shows(rig: Rig, lit: Lit, found: tuple[Planted, ...], one: Planted) -> bool:
    """Return whether a fault is seen by some reading beside those there, and they beside it."""
    pairs = [(found, (*found, one)), ((one,), (*found, one))][: 2 if found else 1]
    return all(_told_apart(rig, lit, a, b, SHOWS) for a, b in pairs)


def _told_apart(
    rig: Rig, lit: Lit, one: tuple[Planted, ...], other: tuple[Planted, ...], by: float
) -> bool:
    """Return whether some instrument tells two sets of faults apart by so many deviations."""
    a, b = (Bench(with_faults(rig, faults), lit) for faults in (one, other))
    return any(_apart(test, a.read(test), b.read(test)) > by for test in tests_of(rig, fused=True))


def _apart(test: Probe, one: Value, other: Value) -> float:
    """Return how many deviations of the first two readings lie apart; words are alike or not."""
    if isinstance(one, str) or isinstance(other, str):
        return 0.0 if one == other else inf
    sigma = sigma_of(test.kind, one, MeterErrors())
    return abs(scaled(test.kind, one) - scaled(test.kind, other)) / sigma


@dataclass(frozen=True, slots=True)
class Par:
    """The reading an efficient search takes next, for its minutes and risk."""

    test: Probe
    cost: Cost


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a score: what for, and points, nothing or less."""

    words: str
    points: float


@dataclass(frozen=True, slots=True)
class Score:
    """A search scored: what is left of a hundred, and why.

    ``guessed``: the verdict is right, but the readings taken do not carry it.
    """

    points: float
    lines: tuple[Line, ...]
    right: bool
    guessed: bool


Meter = Callable[[Probe, int], Value]


def efficient_line(
    rig: Rig,
    lit: Lit,
    truth: tuple[Planted, ...],
    meter: Meter,
    priors: Mapping[Fault, float],
    costs: Mapping[Kind, Cost],
) -> tuple[Par, ...]:
    """Return the readings of a greedy search: each settles most for its cost; it is par, not proven least.

    Parameters
    ----------
    meter
        What an instrument shows at a test, taken as the n-th.
    """
    reads: list[Read] = []
    line: list[Par] = []
    for turn in range(MOST_STEPS):
        weighed = Weighing(Given(rig, tuple(reads), priors, lit=lit)).weighed()
        if reads and _done(rig, lit, truth, weighed):
            break
        taken = {r.test for r in reads}
        left = (t for t in tests_of(rig, fused=True) if t not in taken)
        causes = sorted((*weighed.causes, *weighed.silent), key=lambda c: -c.chance)
        worth = worth_taking(rig, causes, left, costs)
        if not worth:
            break
        line.append(Par(worth[0].test, worth[0].cost))
        reads.append(Read(worth[0].test, meter(worth[0].test, turn)))
    return tuple(line)


def _done(rig: Rig, lit: Lit, truth: tuple[Planted, ...], weighed: Weighed) -> bool:
    """Return whether readings name what was planted; a sound system, when little else is left."""
    first = weighed.causes[0]
    silent = sum(c.chance for c in weighed.silent) if not truth else 0.0
    named = tuple(p for p in first.faults if p.fault is not Fault.HEALTHY)
    sure = first.fits and first.chance / (1 + silent) >= SURE
    return sure and same_readings(rig, lit, truth, named)


def scored(
    rig: Rig,
    lit: Lit,
    truth: tuple[Planted, ...],
    readings: Sequence[Read],
    unsafe: Sequence[str],
    verdict: tuple[Planted, ...],
    par: tuple[Par, ...],
    priors: Mapping[Fault, float],
    costs: Mapping[Kind, Cost],
    *,
    given: bool = True,
) -> Score:
    """Return how a search is scored: readings, minutes and risk against par, and its verdict.

    ``given``: whether there is a verdict at all.
    """
    lines: list[Line] = []
    minutes = sum(costs[r.test.kind].minutes for r in readings)
    risk = sum(costs[r.test.kind].risk for r in readings)
    par_min, par_risk = sum(p.cost.minutes for p in par), sum(p.cost.risk for p in par)
    over = (
        (f"{len(readings)} readings, par {len(par)}", A_READING * (len(readings) - len(par))),
        (f"{minutes:.0f} minutes, par {par_min:.0f}", A_MINUTE * (minutes - par_min)),
        (f"risk {risk:.0f}, par {par_risk:.0f}", A_RISK * (risk - par_risk)),
    )
    lines += [Line(words, -max(0.0, points)) for words, points in over]
    lines += [Line(f"unsafe: {name}", -UNSAFE) for name in unsafe]
    right = given and same_readings(rig, lit, truth, verdict)
    near = _near(truth, verdict)
    guessed = right and not _carried(rig, lit, readings, verdict, priors)
    if guessed:
        lines.append(Line("right, but the readings taken do not carry it: a guess", -FULL))
    elif not right:
        words = "the right place, another cause" if near else "another cause was planted"
        lines.append(Line(words, -HALF_RIGHT if near else -WRONG))
    points = max(0.0, FULL + sum(line.points for line in lines))
    return Score(0.0 if unsafe else points, tuple(lines), right, guessed)


def speaks_against(due: Value, read: Value, test: Probe) -> bool:
    """Return whether a reading is none of a cause that would show something else."""
    return _apart(test, due, read) > EXPLAINED


def same_readings(rig: Rig, lit: Lit, one: tuple[Planted, ...], other: tuple[Planted, ...]) -> bool:
    """Return whether no instrument tells two sets of faults apart: then either name is right.

    How much of each there is does not count, nor where along a string.
    """
    return _names(one) == _names(other) or not _told_apart(rig, lit, one, other, 1.0)


def _names(faults: Sequence[Planted]) -> set[tuple[Fault, frozenset[int]]]:
    return {(p.fault, frozenset(places_of(p)) or frozenset({p.at})) for p in faults}


def _near(truth: Sequence[Planted], verdict: Sequence[Planted]) -> bool:
    """Return whether a verdict names a place or a kind of what was planted."""
    places = {n for p in truth for n in places_of(p)}
    named = {n for p in verdict for n in places_of(p)}
    kinds = {p.fault for p in truth} & {p.fault for p in verdict}
    return bool(places & named or kinds)


def _carried(
    rig: Rig,
    lit: Lit,
    readings: Sequence[Read],
    verdict: tuple[Planted, ...],
    priors: Mapping[Fault, float],
) -> bool:
    """Return whether the readings make a verdict likelier than all others together."""
    if not readings:
        return False
    weighed = Weighing(Given(rig, tuple(readings), priors, lit=lit)).weighed()
    silent = 1 + sum(c.chance for c in weighed.silent)
    chance = sum(
        c.chance / silent
        for c in weighed.causes
        if same_readings(
            rig, lit, tuple(p for p in c.faults if p.fault is not Fault.HEALTHY), verdict
        )
    )
    return chance > 0.5
