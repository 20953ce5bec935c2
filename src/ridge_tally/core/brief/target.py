"""How many modules reach a target, and how many fit under a ceiling."""

import math
from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.working import RELATIVE_TOLERANCE, Given, LimitKind, Source


class CeilingKind(StrEnum):
    """What may end the count."""

    ROOF = "roof"
    PURSE = "purse"
    SIZE_CAP = "size-cap"
    INVERTER_CAP = "inverter-cap"
    BUSBAR = "busbar"
    REBATE = "rebate"


@dataclass(frozen=True, slots=True)
class Ceiling:
    """The most modules that one limit leaves room for.

    ``value`` is the sum of ``formula`` before it is cut to whole modules; ``modules`` is
    ``None`` when a number is missing, and ``reason`` says which.  ``exact`` is not set where
    a limit on AC power was turned into modules by a DC:AC ratio that is only taken.
    """

    kind: CeilingKind
    title: str
    limit_kind: LimitKind
    formula: str
    givens: tuple[Given, ...]
    value: Given
    modules: int | None
    source: Source
    exact: bool
    reason: str = ""


def modules_reaching(count: float) -> int:
    """Return the whole modules that reach a fractional count: 20.0 takes 20, 20.01 takes 21."""
    return math.ceil(count - RELATIVE_TOLERANCE * abs(count))


def modules_within(count: float) -> int:
    """Return the whole modules within a fractional count, never below 0."""
    return max(0, math.floor(count + RELATIVE_TOLERANCE * abs(count)))


def ceiling(
    kind: CeilingKind,
    title: str,
    limit_kind: LimitKind,
    formula: str,
    givens: tuple[Given, ...],
    value: float | None,
    source: Source,
    *,
    exact: bool = True,
) -> Ceiling:
    """Return a ceiling cut to whole modules; without a value it says what is missing."""
    missing = [g.label for g in givens if g.value is None]
    return Ceiling(
        kind=kind,
        title=title,
        limit_kind=limit_kind,
        formula=formula,
        givens=givens,
        value=Given("n_most", title, value, "modules", "formula"),
        modules=None if value is None else modules_within(value),
        source=source,
        exact=exact,
        reason=f"{' and '.join(missing)} not given" if missing else "",
    )


def binding_ceiling(ceilings: tuple[Ceiling, ...]) -> Ceiling | None:
    """Return the lowest known ceiling, the first of equals; ``None`` when none is known."""
    known = [c for c in ceilings if c.modules is not None]
    return min(known, key=lambda c: c.modules if c.modules is not None else 0, default=None)
