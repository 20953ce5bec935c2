"""A check that shows its working: formula, inputs, result, limit, verdict, source.

The formula is a Python arithmetic expression over the symbols of its givens, so that
anybody, and a property test, can do the sum again.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType
from typing import Literal

from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.steps import WorkStep

RELATIVE_TOLERANCE = 1e-9
Relation = Literal["<=", ">="]


class LimitKind(StrEnum):
    """What breaking a limit means; the four are never merged."""

    STOP = "stop"
    OUTSIDE = "outside"
    COSTS = "costs"
    NOTE = "note"


class Family(StrEnum):
    """Rules of one subject; a rule's id begins with its family's."""

    SURVEY = "survey"
    ARRAY = "array"
    GROUND = "ground"
    WISH = "wish"
    STRINGS = "strings"
    OPTIMIZER = "optimizer"
    MICRO = "micro"
    SAFETY = "safety"
    LOADING = "loading"
    GRID = "grid"
    BUILD = "build"
    WIRING = "wiring"


# Where a family's limits are met by changing the design.
STEP_OF: Mapping[Family, WorkStep] = MappingProxyType(
    {
        Family.SURVEY: WorkStep.SURVEY,
        Family.ARRAY: WorkStep.ARRAY,
        Family.GROUND: WorkStep.ARRAY,
        Family.WISH: WorkStep.ARRAY,
        Family.STRINGS: WorkStep.STRINGS,
        Family.OPTIMIZER: WorkStep.STRINGS,
        Family.MICRO: WorkStep.STRINGS,
        Family.SAFETY: WorkStep.STRINGS,
        Family.LOADING: WorkStep.LOADING,
        Family.GRID: WorkStep.LOADING,
        Family.BUILD: WorkStep.BUILD,
        Family.WIRING: WorkStep.BUILD,
    }
)


class Verdict(StrEnum):
    """Kept, broken, or not checked because a number is missing."""

    KEPT = "kept"
    BROKEN = "broken"
    NOT_CHECKED = "not-checked"


class SourceStatus(StrEnum):
    """How far a source has been verified."""

    FROM_MEMORY = "from-memory"
    COMMON_PRACTICE = "common-practice"
    DATASHEET = "datasheet"
    GEOMETRY = "geometry"
    BRIEF = "brief"
    SAMPLE = "sample"
    TYPED = "typed"


@dataclass(frozen=True, slots=True)
class Source:
    """Where a rule or a limit comes from."""

    document: str
    clause: str
    status: SourceStatus


@dataclass(frozen=True, slots=True)
class Given:
    """One number of a sum, with the symbol it has there; ``None`` when nobody gave it."""

    symbol: str
    label: str
    value: float | None
    unit: str
    origin: str


def number_of(given: Given) -> float:
    """Return the number of a given that is always there, such as a datasheet's power."""
    assert given.value is not None, given.label
    return given.value


@dataclass(frozen=True, slots=True)
class Fix:
    """One way out that can be applied from the working."""

    label: str
    edit: Edit


@dataclass(frozen=True, slots=True)
class Check:
    """One rule applied to one subject, of a family of rules and a step of the work.

    ``reached_at`` says in words where the limit would be met; ``reason`` why a check was
    not made.  ``margin_frac`` is the distance to the limit over the limit, negative when
    broken, ``None`` when not checked or for a yes-or-no rule.
    """

    rule_id: str
    family: Family
    step: WorkStep
    title: str
    subject: str
    kind: LimitKind
    formula: str
    givens: tuple[Given, ...]
    value: Given
    relation: Relation
    limit: Given
    source: Source
    verdict: Verdict
    margin_frac: float | None
    reached_at: str = ""
    reason: str = ""
    fixes: tuple[Fix, ...] = ()


def bracketed(formula: str) -> str:
    """Return a formula as a factor: in brackets where it is a sum."""
    return f"({formula})" if "+" in formula else formula


def verdict_of(value: float | None, relation: Relation, limit: float | None) -> Verdict:
    """Return whether ``value relation limit`` holds, to a relative tolerance of 1e-9."""
    if value is None or limit is None:
        return Verdict.NOT_CHECKED
    slack = RELATIVE_TOLERANCE * abs(limit)
    kept = value <= limit + slack if relation == "<=" else value >= limit - slack
    return Verdict.KEPT if kept else Verdict.BROKEN


def margin_of(value: float | None, relation: Relation, limit: float | None) -> float | None:
    """Return the distance to the limit as a fraction of it; negative when broken.

    ``None`` without a value or a limit, and for a limit of zero, which has no fraction.
    """
    if value is None or not limit:
        return None
    return (limit - value if relation == "<=" else value - limit) / abs(limit)


def check(
    *,
    rule_id: str,
    title: str,
    subject: str,
    kind: LimitKind,
    formula: str,
    givens: tuple[Given, ...],
    value: float | None,
    symbol: str,
    unit: str,
    relation: Relation,
    limit: Given,
    source: Source,
    reached_at: str = "",
    reason: str = "",
    fixes: tuple[Fix, ...] = (),
    graded: bool = True,
) -> Check:
    """Return the check with its verdict and margin worked out.

    A yes-or-no rule (terminals, equal lengths) is not ``graded``: it has no margin to rank it
    by.  ``value`` comes from a function of the core, not from the formula text; a property test
    holds the two together.  Without a ``reason`` of its own, a check that lacks a number
    says which.
    """
    missing = [g.label for g in (*givens, limit) if g.value is None]
    if missing and not reason:
        reason = f"Not checked: {' and '.join(missing)} not given."
    verdict = verdict_of(value, relation, limit.value)
    family = Family(rule_id.partition(".")[0])
    return Check(
        rule_id=rule_id,
        family=family,
        step=STEP_OF[family],
        title=title,
        subject=subject,
        kind=kind,
        formula=formula,
        givens=givens,
        value=Given(symbol, title, value, unit, "formula"),
        relation=relation,
        limit=limit,
        source=source,
        verdict=verdict,
        margin_frac=margin_of(value, relation, limit.value) if graded else None,
        reached_at=reached_at,
        reason=reason if verdict is Verdict.NOT_CHECKED else "",
        fixes=fixes if verdict is not Verdict.KEPT else (),
    )


def shown(value: float, digits: int = 3) -> str:
    """Return the number for people: about `digits` significant, no exponent, true minus."""
    if value == 0:
        return "0"
    places = max(0, digits - 1 - math.floor(math.log10(abs(value))))
    text = f"{value:,.{min(places, 6)}f}".replace(",", " ")
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return text.replace("-", "−")


def degc_text(value: float) -> str:
    """Return a temperature for people, with a true minus."""
    return f"{value:g} °C".replace("-", "−")


def shown_against(value: float, limit: float, relation: Relation) -> tuple[str, str]:
    """Return value and limit rounded for display so that rounding never changes the verdict."""
    wanted = verdict_of(value, relation, limit)
    for digits in range(3, 12):
        left, right = shown(value, digits), shown(limit, max(digits, 4))
        if verdict_of(_number(left), relation, _number(right)) is wanted:
            return left, right
    return repr(value), repr(limit)


def _number(text: str) -> float:
    return float(text.replace(" ", "").replace("−", "-"))
