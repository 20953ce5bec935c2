"""How a design stands with its electrical limits, to be held against another one."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ridge_tally.core.sheets.working_lines import value_and_limit
from ridge_tally.core.working import Check, Family, LimitKind, Verdict
from ridge_tally.rules.design import Design
from ridge_tally.rules.report import KINDS, all_checks

ELECTRICAL = (Family.STRINGS, Family.OPTIMIZER, Family.MICRO, Family.LOADING, Family.GRID)
# Thresholds that cost weeks, a limiter or energy, and are told as notes.
GRID_NOTES = ("grid.quick-approval", "grid.export")
COLD = ("strings.cold-voltage", "micro.cold-voltage", "optimizer.circuit-voltage")


@dataclass(frozen=True, slots=True)
class Broken:
    """A limit that is not kept: what, of what kind, and by how much."""

    rule_id: str
    subject: str
    kind: LimitKind
    told: str


def keeps_all(broken: Iterable[Broken]) -> bool:
    """Whether no Stop and no Outside limit is among what is broken."""
    return not any(stops_and_outside(broken))


def forbids(broken: Broken) -> bool:
    """Whether it is a Stop or an Outside limit."""
    return broken.kind in (LimitKind.STOP, LimitKind.OUTSIDE)


def stops_and_outside(broken: Iterable[Broken]) -> tuple[int, int]:
    """Return how many Stops and how many Outside limits are broken: what ranks before energy."""
    kinds = [b.kind for b in broken]
    return kinds.count(LimitKind.STOP), kinds.count(LimitKind.OUTSIDE)


@dataclass(frozen=True, slots=True)
class RuleStatus:
    """A design as its rules find it: what is broken, by rule and subject.

    ``cold``: the string or unit nearest to its cold-voltage limit, value of limit.
    ``margin_frac``: the least margin under a Stop.  ``noted``: thresholds of the grid that are
    passed and break nothing.  ``unchecked``: the Stops that could not be judged, by title.
    """

    broken: Mapping[tuple[str, str], Broken]
    cold: str
    margin_frac: float
    noted: tuple[Broken, ...]
    unchecked: tuple[str, ...]

    @property
    def not_checked(self) -> str:
        """In words what could not be judged; nothing where all was."""
        return f"not checked: {', '.join(self.unchecked)}" if self.unchecked else ""

    def count(self, kind: LimitKind) -> int:
        """Return how many limits of a kind are broken."""
        return sum(b.kind is kind for b in self.broken.values())


def standing_of(design: Design) -> RuleStatus:
    """Return which electrical limits of an option are not kept."""
    checks = all_checks(design)
    broken = {
        (c.rule_id, c.subject): Broken(c.rule_id, c.subject, c.kind, _told(c))
        for c in checks
        if c.verdict is Verdict.BROKEN and c.kind in KINDS[:3] and c.family in ELECTRICAL
    }
    cold = [c for c in checks if c.rule_id in COLD]
    nearest = min(cold, key=lambda c: 1.0 if c.margin_frac is None else c.margin_frac, default=None)
    stops = [
        c.margin_frac for c in checks if c.kind is LimitKind.STOP and c.margin_frac is not None
    ]
    noted = tuple(
        Broken(c.rule_id, c.subject, c.kind, _told(c))
        for c in checks
        if c.verdict is Verdict.BROKEN and c.kind is LimitKind.NOTE and c.rule_id in GRID_NOTES
    )
    unchecked = dict.fromkeys(
        c.title for c in checks if c.kind is LimitKind.STOP and c.verdict is Verdict.NOT_CHECKED
    )
    cold_told = "" if nearest is None else _against(nearest)
    return RuleStatus(broken, cold_told, min(stops, default=0.0), noted, tuple(unchecked))


def _told(check: Check) -> str:
    return f"{check.title}, {check.subject}: {_against(check)}"


def _against(check: Check) -> str:
    value, limit = value_and_limit(check)
    return f"{value} of {limit}"
