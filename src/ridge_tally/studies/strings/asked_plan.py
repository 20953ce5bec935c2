"""A plan typed in words, ``14 on 1, 2 × 7 on 2``, and the answer in one sentence."""

import re
from dataclasses import dataclass

from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.strings.plans import Plan, PlanLoad
from ridge_tally.core.units import one_line
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.asked_plan import why_not
from ridge_tally.rules.strings.plans import PlanSpace, plan_space

FIELD = "Plan"
LOOKS_LIKE = (
    "strings such as “14 on 1, 2 × 7 on 2”, with “South: ” before it where there are several planes"
)
_LOAD = re.compile(
    r"(?:(\d{1,4}) ?[x×*] ?)?(\d{1,4}) ?(?:on|@) ?(?:tracker ?)?(\d{1,4})", re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class PlanVerdict:
    """Whether a plan is legal, in a sentence."""

    legal: bool
    told: str


def plan_verdict(design: Design, typed: str) -> PlanVerdict:
    """Return whether a typed plan is legal, or the first gate it does not pass.

    Raises
    ------
    NotUnderstood
        Naming what a plan looks like.
    """
    space = plan_space(design)
    plan = _parsed(typed, space)
    told = why_not(design, space, plan)
    if told:
        return PlanVerdict(legal=False, told=told)
    total = space.plans().total
    return PlanVerdict(legal=True, told=f"Legal: one of {total}." if total > 1 else "Legal.")


def _parsed(typed: str, space: PlanSpace) -> Plan:
    loads: list[PlanLoad] = []
    plane = 0 if len(space.parts) == 1 else None
    for part in re.split(r"[,;]", one_line(typed, FIELD, LOOKS_LIKE)):
        name, colon, rest = part.rpartition(":")
        if colon:
            plane = _plane(name.strip(), space, typed)
        found = _LOAD.fullmatch(rest.strip())
        if found is None or plane is None:
            raise NotUnderstood(FIELD, typed, LOOKS_LIKE)
        strings, length, tracker = found.groups()
        loads.append(PlanLoad(int(tracker), plane, int(length), int(strings or 1)))
    if any(ld.strings < 1 or ld.modules_in_series < 1 for ld in loads):
        raise NotUnderstood(FIELD, typed, LOOKS_LIKE)
    return tuple(loads)


def _plane(name: str, space: PlanSpace, typed: str) -> int:
    """Return the plane whose name begins so."""
    mine = [
        i
        for i, part in enumerate(space.parts)
        if name and part.name.lower().startswith(name.lower())
    ]
    if len(mine) != 1:
        known = ", ".join(part.name for part in space.parts)
        raise NotUnderstood(FIELD, typed, f"one of the planes {known} before the colon")
    return mine[0]
