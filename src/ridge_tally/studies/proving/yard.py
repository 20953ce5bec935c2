"""The practice yard of a job: simulated readings of a faulty system, and the debrief of a search."""

from collections.abc import Sequence
from dataclasses import dataclass

from ridge_tally.core.job.proving import FaultReading, Practice
from ridge_tally.core.nominal_year import DECEMBER_21, JUNE_21
from ridge_tally.core.proving.faults import Fault, Planted, candidates, planted
from ridge_tally.core.proving.practice import (
    Line,
    Score,
    efficient_line,
    planted_by,
    scored,
    speaks_against,
)
from ridge_tally.core.proving.rig import Bench, Lit, Probe, Rig, Value
from ridge_tally.core.proving.weighing import Read
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.diagnosis import much_told, place_of, value_told, where_told
from ridge_tally.rules.proving.tables import (
    RefusedTest,
    costs,
    fault_rows,
    priors,
    refused_tests,
    test_rows,
)
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.moment import Asked, day_under
from ridge_tally.simulators.instruments import shown
from ridge_tally.studies.proving.hunt import EXTRA, CanRead, can_read, test_named
from ridge_tally.studies.proving.rig import rig_at

# The yard's clear noon: of the half year that has the sun.
NOON = 12 * 60
UNSAFE = "unsafe:"
SOUND = "healthy"


@dataclass(frozen=True, slots=True)
class ReadingTaken:
    """A reading of the practice: what it showed, what a sound system would, and what it settled.

    ``ruled_out``: causes it speaks against, told when the verdict is given.
    """

    reading: str
    place: str
    title: str
    shown: str
    due: str
    minutes: float
    risk: float
    unsafe: str
    ruled_out: int


@dataclass(frozen=True, slots=True)
class Named:
    """A verdict that can be given: its code with its place, and in words."""

    code: str
    words: str


@dataclass(frozen=True, slots=True)
class ParStep:
    """A reading of the efficient line."""

    title: str
    minutes: float
    risk: float


@dataclass(frozen=True, slots=True)
class Debrief:
    """A search scored, what was planted, and the efficient line."""

    points: float
    right: bool
    guessed: bool
    told: str
    lines: tuple[Line, ...]
    planted: tuple[str, ...]
    mends: tuple[str, ...]
    par: tuple[ParStep, ...]


@dataclass(frozen=True, slots=True)
class YardView:
    """A practice as it stands; ``light_told``: the yard's moment; ``debrief`` once there is a verdict."""

    seed: int
    moment: str
    can_read: tuple[CanRead, ...]
    refused: tuple[RefusedTest, ...]
    taken: tuple[ReadingTaken, ...]
    minutes: float
    risk: float
    verdicts: tuple[Named, ...]
    debrief: Debrief | None


def yard_rig(desk: Desk, design: Design) -> tuple[Rig, Lit]:
    """Return a design on the yard's clear noon.

    Raises
    ------
    MissingDatum
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    day = JUNE_21 if design.job.site.latitude_deg >= 0 else DECEMBER_21
    return rig_at(day_under(desk, design, Asked(day, NOON), whole=False))


def yard_view(desk: Desk, design: Design, practice: Practice) -> YardView:
    """Return a practice as it stands, scored once there is a verdict; raises as ``yard_rig`` does."""
    rig, lit = yard_rig(desk, design)
    truth = planted_by(rig, lit, practice.seed)
    reads, unsafe = _reads(rig, lit, truth, practice)
    taken = tuple(_taken(rig, lit, truth, practice, n) for n in range(len(practice.taken)))
    debrief = None
    if practice.verdict or unsafe:
        debrief = desk.hunts.get(
            ("yard", rig, lit, practice),
            lambda: _debrief(rig, lit, truth, practice, reads, unsafe),
        )
    return YardView(
        seed=practice.seed,
        moment="a clear noon; "
        + "; ".join(
            f"{p} {g:.0f} W/m², cells {c:.0f} °C"
            for p, g, c in zip(rig.planes, lit.light_w_per_m2, lit.cell_degc, strict=True)
        ),
        can_read=tuple(c for c in can_read(rig) if c.reading not in EXTRA),
        refused=refused_tests(),
        taken=taken,
        minutes=sum(t.minutes for t in taken),
        risk=sum(t.risk for t in taken),
        verdicts=tuple(verdicts(rig)),
        debrief=debrief,
    )


def verdicts(rig: Rig) -> list[Named]:
    """Return every verdict that can be given of a system, one of each fault and place."""
    found = {SOUND: "nothing wrong"}
    for one in candidates(rig):
        if one.fault is not Fault.HEALTHY:
            words = f"{where_told(rig, one)}{fault_rows()[one.fault].title}"
            found.setdefault(code_of(one), words)
    return [Named(code, words) for code, words in found.items()]


def code_of(one: Planted) -> str:
    """Return a fault's code with its place: ``module-missing@1``."""
    other = f"-{one.other}" if one.fault in (Fault.SWAPPED, Fault.THREADED) else ""
    return f"{one.fault.value}@{one.at}{other}"


def faults_named(rig: Rig, verdict: str) -> tuple[Planted, ...]:
    """Return the faults of a verdict's codes, joined by a plus; those unknown are left out."""
    known: dict[str, Planted] = {}
    for one in candidates(rig):
        known.setdefault(code_of(one), one)
    codes = [code.strip() for code in verdict.split("+")]
    return tuple(known[c] for c in codes if c in known and known[c].fault is not Fault.HEALTHY)


def _reads(
    rig: Rig, lit: Lit, truth: tuple[Planted, ...], practice: Practice
) -> tuple[list[Read], list[str]]:
    reads, unsafe = [], []
    names = {r.test: r.title for r in refused_tests()}
    for turn, one in enumerate(practice.taken):
        if one.reading.startswith(UNSAFE):
            name = one.reading.removeprefix(UNSAFE)
            unsafe.append(names.get(name, name))
            continue
        test = test_named(rig, one.reading, one.place)
        reads.append(Read(test, shown(rig, lit, truth, test, practice.seed, turn)))
    return reads, unsafe


def _taken(
    rig: Rig, lit: Lit, truth: tuple[Planted, ...], practice: Practice, turn: int
) -> ReadingTaken:
    one: FaultReading = practice.taken[turn]
    if one.reading.startswith(UNSAFE):
        name = one.reading.removeprefix(UNSAFE)
        row = next((r for r in refused_tests() if r.test == name), None)
        told = f"{row.why}. Instead: {row.instead}" if row else name
        return ReadingTaken(one.reading, "", row.title if row else name, "", "", 0, 0, told, 0)
    test = test_named(rig, one.reading, one.place)
    row_of = test_rows()[test.kind]
    read = shown(rig, lit, truth, test, practice.seed, turn)
    due = Bench(rig, lit).read(test)
    return ReadingTaken(
        one.reading, one.place, row_of.title, value_told(read, row_of.unit),
        value_told(due, row_of.unit), row_of.cost.minutes, row_of.cost.risk, "",
        _spoken_against(rig, lit, test, read),
    )  # fmt: skip


def _spoken_against(rig: Rig, lit: Lit, test: Probe, read: Value) -> int:
    """Return how many causes a reading speaks against, by itself."""
    return sum(
        speaks_against(Bench(planted(rig, one), lit).read(test), read, test)
        for one in candidates(rig)
    )


def _debrief(
    rig: Rig,
    lit: Lit,
    truth: tuple[Planted, ...],
    practice: Practice,
    reads: Sequence[Read],
    unsafe: Sequence[str],
) -> Debrief:
    seed = practice.seed
    par = efficient_line(
        rig, lit, truth, lambda test, n: shown(rig, lit, truth, test, seed, n), priors(), costs()
    )
    named = faults_named(rig, practice.verdict)
    score: Score = scored(
        rig, lit, truth, reads, unsafe, named, par, priors(), costs(), given=bool(practice.verdict)
    )
    rows = fault_rows()
    told = tuple(f"{where_told(rig, p)}{rows[p.fault].title}{much_told(p)}" for p in truth)
    return Debrief(
        points=round(score.points, 1),
        right=score.right,
        guessed=score.guessed,
        told=_score_told(score, unsafe),
        lines=tuple(line for line in score.lines if line.points < 0),
        planted=told or ("nothing: the system was sound",),
        mends=tuple(rows[p.fault].mend for p in truth),
        par=tuple(
            ParStep(
                f"{place_of(rig, p.test)} {test_rows()[p.test.kind].title}".strip(),
                p.cost.minutes, p.cost.risk,
            )
            for p in par
        ),
    )  # fmt: skip


def _score_told(score: Score, unsafe: Sequence[str]) -> str:
    if unsafe:
        return "Stopped: that test hurts people or gear. No points."
    if score.guessed:
        return "Right, but no reading you took carries it: no points for a guess."
    return f"{score.points:.0f} of 100: {'right' if score.right else 'not what was planted'}."
