"""What the tables say of causes and of tests: how often, what mends, minutes, risk, how."""

from dataclasses import dataclass
from functools import cache

from ridge_tally.core.proving.faults import Fault
from ridge_tally.core.proving.next_test import Cost
from ridge_tally.core.proving.rig import Kind
from ridge_tally.rules import tables


@dataclass(frozen=True, slots=True)
class FaultRow:
    """A cause in words; ``often`` beside the others; ``minutes`` to mend."""

    fault: Fault
    title: str
    often: float
    mend: str
    minutes: float


@dataclass(frozen=True, slots=True)
class ReadingRow:
    """A reading in words, what it costs and how it is taken."""

    kind: Kind
    title: str
    unit: str
    cost: Cost
    how: str


@dataclass(frozen=True, slots=True)
class RefusedTest:
    """A test nobody should make, why, and what tells the same."""

    test: str
    title: str
    why: str
    instead: str


@cache
def fault_rows() -> dict[Fault, FaultRow]:
    """Return every cause by its code."""
    rows = tables.load("faults").rows
    return {
        Fault(str(code)): FaultRow(
            Fault(str(code)), str(title), float(often), str(mend), float(minutes)
        )
        for code, title, often, mend, minutes in rows
    }


@cache
def test_rows() -> dict[Kind, ReadingRow]:
    """Return every reading that can be taken, by its kind."""
    rows = tables.load("tests-of-strings").rows
    return {
        Kind(str(kind)): ReadingRow(
            Kind(str(kind)), str(title), str(unit), Cost(float(minutes), float(risk)), str(how)
        )
        for kind, title, unit, minutes, risk, how in rows
    }


@cache
def refused_tests() -> tuple[RefusedTest, ...]:
    """Return the tests that are refused, each with what to do instead."""
    return tuple(RefusedTest(*(str(c) for c in row)) for row in tables.load("tests-refused").rows)


@cache
def priors() -> dict[Fault, float]:
    """Return how often each cause is met, as weights."""
    return {fault: row.often for fault, row in fault_rows().items()}


@cache
def costs() -> dict[Kind, Cost]:
    """Return what each reading costs."""
    return {kind: row.cost for kind, row in test_rows().items()}
