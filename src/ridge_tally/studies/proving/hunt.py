"""A search for a fault: readings in the order they were taken, what each ruled out, what to read next."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ridge_tally.core.brief.typed import parse_choice, parse_day_of_year
from ridge_tally.core.errors import NotFound, NotUnderstood, RidgeTallyError
from ridge_tally.core.job.document import month_first
from ridge_tally.core.job.proving import FaultHunt, FaultReading
from ridge_tally.core.nominal_year import JUNE_21
from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.next_test import tests_of
from ridge_tally.core.proving.rig import (
    OF_PLANE,
    OF_STRING,
    Display,
    Kind,
    Lit,
    Look,
    Probe,
    Rig,
    Warmth,
)
from ridge_tally.core.proving.weighing import Read
from ridge_tally.core.sky.given_sky import Sky
from ridge_tally.core.units import parse_number
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.diagnosis import Diagnosis, diagnosed, place_of
from ridge_tally.rules.proving.tables import ReadingRow, RefusedTest, refused_tests, test_rows
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.moment import Asked, day_under
from ridge_tally.studies.proving.at_moment import parse_minute
from ridge_tally.studies.proving.rig import rig_at

# A search begins at a summer noon until somebody says when it is.
NOON = 12 * 60
# What words a reading may be, where it is no number.
WORDS: dict[Kind, tuple[str, ...]] = {
    Kind.LOOK: tuple(Look),
    Kind.WARMTH: tuple(Warmth),
    Kind.DISPLAY: tuple(Display),
    Kind.SETTING: ("as ordered", "otherwise"),
    Kind.SWAP: ("string", "input", "none"),
}
EXTRA = {
    Kind.LIGHT: ("light in the plane", "W/m²"),
    Kind.CELL: ("cells, or the back of a module and 3 K for each 1000 W/m²", "°C"),
}


@dataclass(frozen=True, slots=True)
class CanRead:
    """A reading that can be taken: of what, in which unit or words, what it costs, and how."""

    reading: Kind
    place: str
    title: str
    unit: str
    words: tuple[str, ...]
    minutes: float
    risk: float
    how: str


@dataclass(frozen=True, slots=True)
class TrailStep:
    """A reading of the search: as typed, whether it could be read, and what stands after it."""

    reading: str
    place: str
    title: str
    typed: str
    unit: str
    practice: bool
    problem: str
    told: str
    ruled_out: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class HuntView:
    """A search as it stands; ``light_w_per_m2`` and ``cell_degc``: of each plane by the model."""

    moment: str
    problem: str
    planes: tuple[str, ...]
    light_w_per_m2: tuple[float, ...]
    cell_degc: tuple[float, ...]
    can_read: tuple[CanRead, ...]
    trail: tuple[TrailStep, ...]
    diagnosis: Diagnosis | None
    refused: tuple[RefusedTest, ...]
    found: str


def asked_of(design: Design, hunt: FaultHunt) -> Asked:
    """Return the moment of a search; NotUnderstood if its day, hour or sky is none."""
    first = month_first(design.job)
    day = parse_day_of_year(hunt.day, "Day", month_first=first) if hunt.day else JUNE_21
    minute = parse_minute(hunt.time) if hunt.time else NOON
    return Asked(day, minute, parse_choice(Sky, hunt.sky or Sky.CLEAR.value, "Sky"))


def hunt_view(desk: Desk, design: Design, hunt: FaultHunt) -> HuntView:
    """Return a search as it stands.

    Raises
    ------
    MissingDatum
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    problem = ""
    try:
        asked = asked_of(design, hunt)
    except RidgeTallyError as error:
        problem, asked = str(error), Asked(JUNE_21, NOON)
    day = day_under(desk, design, asked, whole=False)
    rig, lit = rig_at(day)
    trail, diagnosis = _trail(desk, rig, lit, hunt.readings)
    hour, minute = divmod(asked.minute, 60)
    return HuntView(
        moment=f"{hour:02d}:{minute:02d} standard time, {asked.sky.value}",
        problem=problem or ("" if day.up else "The sun is down then: no reading says anything."),
        planes=rig.planes,
        light_w_per_m2=lit.light_w_per_m2,
        cell_degc=lit.cell_degc,
        can_read=tuple(can_read(rig)),
        trail=trail,
        diagnosis=diagnosis,
        refused=refused_tests(),
        found=hunt.found,
    )


def can_read(rig: Rig) -> Iterator[CanRead]:
    """Yield every reading that can be taken of a system."""
    for plane in rig.planes:
        for kind, (title, unit) in EXTRA.items():
            yield CanRead(kind, plane, title, unit, (), 2.0, 0.0, _EXTRA_HOW)
    for test in tests_of(rig, fused=True):
        row = test_rows().get(test.kind)
        if row is not None:
            yield _can_read(rig, test, row)


_EXTRA_HOW = "In the plane of the modules, unshaded, at the moment of the other readings."


def _can_read(rig: Rig, test: Probe, row: ReadingRow) -> CanRead:
    return CanRead(
        test.kind, place_of(rig, test), row.title, row.unit, WORDS.get(test.kind, ()),
        row.cost.minutes, row.cost.risk, row.how,
    )  # fmt: skip


def test_named(rig: Rig, reading: str, place: str) -> Probe:
    """Return the test of a reading's name and place; NotFound if the system has none such."""
    try:
        kind = Kind(reading)
    except ValueError:
        raise NotFound("reading", reading) from None
    names = [""]
    if kind in OF_STRING:
        names = [s.name for s in rig.strings]
    elif kind in OF_PLANE:
        names = list(rig.planes)
    if place not in names:
        raise NotFound("string or array", place)
    return Probe(kind, names.index(place))


def read_of(rig: Rig, one: FaultReading) -> Read:
    """Return a reading as it is weighed.

    Raises
    ------
    NotFound, NotUnderstood
        If it is of nothing there is, or neither a number nor one of its words.
    """
    test = test_named(rig, one.reading, one.place)
    words = WORDS.get(test.kind)
    if words is not None:
        folded = {str(w).casefold(): str(w) for w in words}
        found = folded.get(one.typed.strip().casefold())
        if found is None:
            raise NotUnderstood(test_rows()[test.kind].title, one.typed, " or ".join(words))
        return Read(test, found)
    title, unit = _titled(test.kind)
    return Read(test, parse_number(one.typed, title, f"a number in {unit}"))


def _trail(
    desk: Desk, rig: Rig, lit: Lit, readings: Sequence[FaultReading]
) -> tuple[tuple[TrailStep, ...], Diagnosis | None]:
    steps: list[TrailStep] = []
    reads: list[Read] = []
    last: Diagnosis | None = None
    for one in readings:
        title, unit = _titled(one.reading)
        problem, told = "", ""
        out: tuple[str, ...] = ()
        try:
            reads.append(read_of(rig, one))
        except RidgeTallyError as error:
            problem = str(error)
        else:
            now = _weighed(desk, rig, lit, tuple(reads))
            told, out = now.told, _ruled_out(last, now)
            last = now
        steps.append(
            TrailStep(
                one.reading, one.place, title, one.typed, unit, one.practice, problem, told, out
            )
        )
    return tuple(steps), last


def _titled(reading: str) -> tuple[str, str]:
    """Return a reading's title and unit; its own name where it is none that can be taken."""
    if reading not in set(Kind):
        return reading, ""
    row = test_rows().get(Kind(reading))
    return (row.title, row.unit) if row else EXTRA[Kind(reading)]


def _weighed(desk: Desk, rig: Rig, lit: Lit, reads: tuple[Read, ...]) -> Diagnosis:
    """Return what readings point to, remembered by the system and the moment they are of."""
    fused = len(rig.strings) > len(rig.inputs)
    return desk.hunts.get(
        ("hunt", rig, lit, reads),
        lambda: diagnosed(rig, reads, MeterErrors(), lit, fused=fused),
    )


def _ruled_out(before: Diagnosis | None, now: Diagnosis) -> tuple[str, ...]:
    """Return the causes that a reading took off the list."""
    if before is None:
        return ()
    left = {(c.code, c.where) for c in now.causes}
    return tuple(
        f"{c.where}{c.title}"
        for c in before.causes
        if (c.code, c.where) not in left and c.code != "healthy"
    )[:5]
