"""Commissioning in its safe order: what each reading should be, what was read, and where to stop."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.proving import ProofRow, ProofStep, ProvingLog
from ridge_tally.core.units import parse_number
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.slots import SlotKind, SlotState, slots_seen
from ridge_tally.studies.proving.string_tests import Judged, Outcome, StringJudge

# Bond from frame to electrode, ohm; common practice, no source.
BOND_OHM = 1.0
# Test voltage and least insulation by a string's class, V and Mohm: IEC 62446-1, from memory.
INSULATION_CLASSES = ((120.0, 250.0, 0.5), (500.0, 500.0, 1.0), (1e9, 1000.0, 1.0))
AC_LOW_FRAC, AC_HIGH_FRAC = -0.12, 0.10


@dataclass(frozen=True, slots=True)
class RowDue:
    """A reading of commissioning: the newest that was typed, and how it comes out.

    ``at``: where that stands among the readings of the log.
    """

    place: str
    title: str
    unit: str
    came_out: Judged
    typed: str
    at: int | None
    who: str
    practice: bool


@dataclass(frozen=True, slots=True)
class StepDue:
    """A step: how it is done, its readings, and whether those before it let it begin.

    ``blocked``: what has to be mended first.
    """

    step: ProofStep
    title: str
    how: str
    wants_light: bool
    rows: tuple[RowDue, ...]
    outcome: Outcome
    blocked: str


@dataclass(frozen=True, slots=True)
class Commissioning:
    """All steps in order, and how far it is."""

    steps: tuple[StepDue, ...]
    told: str


TITLES: dict[ProofStep, tuple[str, str]] = {
    ProofStep.LOOK: ("Look", "Before any meter: leads, connectors, labels, flashings. Tied off."),
    ProofStep.BOND: ("Bond to earth", "Frame to rail to electrode, end to end: 1 Ω at most. Nothing live."),
    ProofStep.POLARITY: ("Polarity", "Every string by itself, before anything is joined. Wrong: mark it, leave it open, never close a switch on it."),
    ProofStep.VOC: ("Open voltage", "Switch open, a meter rated for the cold voltage, all strings within a minute; light and back of a module written down."),
    ProofStep.ISC: ("Short-circuit current", "Only with a rated test switch or tester. Never by pulling a connector or joining leads. Steady light over 400 W/m²."),
    ProofStep.INSULATION: ("Insulation", "Isolated, surge devices out, hands off, discharge after. Repeat dry if dew makes it low."),
    ProofStep.FUNCTION: ("Function", "Switches, loss of grid stops it at once, it waits before it returns; rapid shutdown where it is asked for."),
    ProofStep.AC: ("AC side", "By a qualified person: volts, then AC on, then DC on, then the power against the model."),
}  # fmt: skip
FUNCTIONS = (
    ("switches", "every switch and isolator works"),
    ("grid loss", "loss of grid stops it at once"),
    ("return", "it waits before it feeds in again"),
    ("shutdown", "rapid shutdown, where it is asked for"),
)
YES = frozenset({"yes", "y", "ok", "pass", "works", "good", "+", "right"})
NO = frozenset({"no", "n", "fail", "fails", "bad", "-", "wrong", "reversed"})


def commissioning(design: Design, ac_v: float) -> Commissioning:
    """Return the steps of a design's commissioning with what its log holds."""
    log = design.job.proving
    steps: list[StepDue] = []
    blocked = ""
    for step in ProofStep:
        rows = tuple(_ROWS[step](design, log, ac_v))
        outcome = _whole(rows)
        title, how = TITLES[step]
        wants = step in (ProofStep.VOC, ProofStep.ISC)
        steps.append(StepDue(step, title, how, wants, rows, outcome, blocked))
        if not blocked and outcome is Outcome.FAIL:
            failed = next(r for r in rows if r.came_out.outcome is Outcome.FAIL)
            blocked = f"{title} failed at {failed.title}: mend it and read again first."
        elif not blocked and outcome is Outcome.OPEN:
            blocked = f"{title} comes first."
    return Commissioning(tuple(steps), _told(steps))


def _told(steps: Sequence[StepDue]) -> str:
    failed = next((s for s in steps if s.outcome is Outcome.FAIL), None)
    if failed is not None:
        return f"Stop: {failed.title.lower()} failed. Nothing further until it is mended."
    to_do = next((s for s in steps if s.outcome is Outcome.OPEN), None)
    if to_do is not None:
        done = sum(s.outcome is not Outcome.OPEN for s in steps)
        return f"Next: {to_do.title.lower()}. {done} of {len(steps)} steps done."
    looked = [s.title.lower() for s in steps if s.outcome is Outcome.LOOK]
    return (
        f"All read; look again at {', '.join(looked)}." if looked else "All steps read and passed."
    )


def _whole(rows: Sequence[RowDue]) -> Outcome:
    found = {r.came_out.outcome for r in rows}
    for outcome in (Outcome.FAIL, Outcome.UNREAD, Outcome.OPEN, Outcome.LOOK):
        if outcome in found:
            return Outcome.OPEN if outcome is Outcome.UNREAD else outcome
    return Outcome.PASSED


def _newest(log: ProvingLog, step: ProofStep, place: str) -> tuple[int, ProofRow] | None:
    found = [(n, r) for n, r in enumerate(log.tests) if r.step is step and r.place == place]
    return found[-1] if found else None


def _row(
    found: tuple[int, ProofRow] | None,
    place: str,
    title: str,
    unit: str,
    judged: Callable[[ProofRow], Judged],
) -> RowDue:
    if found is None:
        none = Judged(Outcome.OPEN)
        return RowDue(place, title, unit, none, "", None, "", practice=False)
    at, row = found
    try:
        came_out = judged(row)
    except RidgeTallyError as error:
        came_out = Judged(Outcome.UNREAD, told=str(error))
    return RowDue(place, title, unit, came_out, row.typed, at, row.who, practice=row.practice)


def _said(row: ProofRow) -> Judged:
    """Return how a yes or no comes out."""
    word = row.typed.strip().casefold()
    if word in YES:
        return Judged(Outcome.PASSED)
    if word in NO:
        return Judged(Outcome.FAIL)
    return Judged(Outcome.UNREAD, told=f"“{row.typed}” is neither yes nor no")


def _look(design: Design, log: ProvingLog, _: float) -> Iterator[RowDue]:
    seen = [s for s in slots_seen(design, log) if s.slot.kind is SlotKind.INSPECTION]
    bad = [s.slot.title for s in seen if s.state is SlotState.AMISS]
    left = sum(s.state is SlotState.OPEN for s in seen)
    outcome = Outcome.FAIL if bad else Outcome.OPEN if left else Outcome.PASSED
    told = bad[0] if bad else f"{left} of {len(seen)} in the records are open" if left else ""
    came_out = Judged(outcome, told=told)
    yield RowDue(
        "records", "the records’ inspection list", "", came_out, "", None, "", practice=False
    )


def _bond(_: Design, log: ProvingLog, __: float) -> Iterator[RowDue]:
    def judged(row: ProofRow) -> Judged:
        read = parse_number(row.typed, "Bond", "ohms such as 0.3")
        return Judged(_passed(read <= BOND_OHM), read, BOND_OHM)

    yield _row(_newest(log, ProofStep.BOND, "bond"), "bond", "frame to electrode", "Ω", judged)


def _polarity(design: Design, log: ProvingLog, _: float) -> Iterator[RowDue]:
    def judged(row: ProofRow) -> Judged:
        word = row.typed.strip().casefold()
        if word in YES or word in NO:
            return _said(row)
        read = parse_number(row.typed, f"String {row.place}", "volts with their sign, or yes")
        if read < 0:
            return Judged(Outcome.FAIL, read, told="reversed: mark it and leave it open")
        return Judged(Outcome.PASSED, read)

    for string in design.option.strings:
        found = _newest(log, ProofStep.POLARITY, string.tag)
        yield _row(found, string.tag, f"string {string.tag}", "", judged)


def _electric(step: ProofStep) -> Callable[[Design, ProvingLog, float], Iterator[RowDue]]:
    """Return the rows of volts or amperes of each string."""

    def rows(design: Design, log: ProvingLog, _: float) -> Iterator[RowDue]:
        newest = {s.tag: _newest(log, step, s.tag) for s in design.option.strings}
        judge = StringJudge.of(design, step, [f[1] for f in newest.values() if f])
        for tag, found in newest.items():
            yield _row(found, tag, f"string {tag}", judge.unit, judge.judged)

    return rows


def _insulation(design: Design, log: ProvingLog, _: float) -> Iterator[RowDue]:
    for string in design.option.strings:
        open_v = sum(design.sheets[m].voc_v for m in string.module_ids)
        at_v, least = next((t, m) for most, t, m in INSULATION_CLASSES if open_v < most)
        judged = partial(_insulated, least)
        title = f"string {string.tag}, at {at_v:g} V"
        yield _row(_newest(log, ProofStep.INSULATION, string.tag), string.tag, title, "MΩ", judged)


def _insulated(least_mohm: float, row: ProofRow) -> Judged:
    read = parse_number(row.typed, f"String {row.place}", "Mohm such as 25")
    fine = read >= least_mohm
    told = "" if fine else "dew reads low: again when dry; then look for a pinched lead"
    return Judged(_passed(fine), read, least_mohm, told=told)


def _passed(fine: bool) -> Outcome:
    return Outcome.PASSED if fine else Outcome.FAIL


def _function(_: Design, log: ProvingLog, __: float) -> Iterator[RowDue]:
    for key, words in FUNCTIONS:
        yield _row(_newest(log, ProofStep.FUNCTION, key), key, words, "", _said)


def _ac(_: Design, log: ProvingLog, ac_v: float) -> Iterator[RowDue]:
    def judged(row: ProofRow) -> Judged:
        read = parse_number(row.typed, "AC voltage", f"volts such as {ac_v:.0f}")
        fine = ac_v * (1 + AC_LOW_FRAC) <= read <= ac_v * (1 + AC_HIGH_FRAC)
        return Judged(_passed(fine), read, ac_v, ac_v * AC_HIGH_FRAC)

    yield _row(
        _newest(log, ProofStep.AC, "volts"), "volts", "at the inverter, nothing fed in", "V", judged
    )


_ROWS: dict[ProofStep, Callable[[Design, ProvingLog, float], Iterator[RowDue]]] = {
    ProofStep.LOOK: _look,
    ProofStep.BOND: _bond,
    ProofStep.POLARITY: _polarity,
    ProofStep.VOC: _electric(ProofStep.VOC),
    ProofStep.ISC: _electric(ProofStep.ISC),
    ProofStep.INSULATION: _insulation,
    ProofStep.FUNCTION: _function,
    ProofStep.AC: _ac,
}
