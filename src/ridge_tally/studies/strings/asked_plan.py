"""A plan typed in words, ``14 on 1, 2 × 7 on 2``, and the answer in one sentence."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from ridge_tally.core.errors import NotUnderstood
from ridge_tally.core.strings.plans import Plan, PlanLoad
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.asked_plan import why_not
from ridge_tally.rules.strings.plans import PlanSpace, plan_space

FIELD = "Plan"
# A plan of many planes, each with a long name.
LONGEST = 4000
LOOKS_LIKE = (
    "strings such as “14 on 1, 2 × 7 on 2”, with “South: ” before it where there are several planes"
)
_COLON, _ENDS = re.compile(r" ?: ?"), re.compile(r" ?(?:[,;]|$)")
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
    plan = parsed(typed, space)
    told = why_not(design, space, plan)
    if told:
        return PlanVerdict(legal=False, told=told)
    total = space.plans().total
    return PlanVerdict(legal=True, told=f"Legal: one of {total}." if total > 1 else "Legal.")


def told_plan(plan: Plan, space: PlanSpace) -> str:
    """Return a plan in words: ``South roof: 14 on tracker 1, 2 × 7 on tracker 2``.

    Typed as it stands it is understood as the same plan, whatever the planes are called.
    """
    names, by_plane = _names(space), dict[int, list[str]]()
    for ld in plan:
        count = (
            f"{ld.strings} × {ld.modules_in_series}"
            if ld.strings > 1
            else f"{ld.modules_in_series}"
        )
        by_plane.setdefault(ld.plane_index, []).append(f"{count} on tracker {ld.tracker_number}")
    return "; ".join(f"{names[p]}: {', '.join(loads)}" for p, loads in sorted(by_plane.items()))


def _names(space: PlanSpace) -> tuple[str, ...]:
    """Return what the planes are called here: those of one name are numbered."""
    given = [part.name for part in space.parts]
    return tuple(
        f"{name} ({given[: i + 1].count(name)})" if given.count(name) > 1 else name
        for i, name in enumerate(given)
    )


def parsed(typed: str, space: PlanSpace) -> Plan:
    """Return the plan that a text means; NotUnderstood if it means none."""
    if len(typed) > LONGEST:
        raise NotUnderstood(FIELD, typed[:60] + "…", LOOKS_LIKE)
    text, names = " ".join(typed.split()), _names(space)
    loads: list[PlanLoad] = []
    plane = 0 if len(space.parts) == 1 else None
    at = 0
    while at < len(text):
        # What begins like strings may still be a plane's name.
        named = _named_whole(text, at, names)
        if named is None and text[at] in ",; ":
            at += 1
            continue
        found = None if named else _LOAD.match(text, at)
        if found is None:
            plane, at = named or _named_in_part(text, at, names, typed)
            continue
        if plane is None or not _ENDS.match(text, found.end()):
            raise NotUnderstood(FIELD, typed, LOOKS_LIKE)
        strings, length, tracker = found.groups()
        loads.append(PlanLoad(int(tracker), plane, int(length), int(strings or 1)))
        at = found.end()
    if not loads or any(ld.strings < 1 or ld.modules_in_series < 1 for ld in loads):
        raise NotUnderstood(FIELD, typed, LOOKS_LIKE)
    return tuple(loads)


def _named_whole(text: str, at: int, names: Sequence[str]) -> tuple[int, int] | None:
    """Return the plane whose whole name and a colon stand there, and where they end."""
    for i in sorted(range(len(names)), key=lambda i: -len(names[i])):
        name = names[i]
        if text[at : at + len(name)].lower() == name.lower():
            colon = _COLON.match(text, at + len(name))
            if colon:
                return i, colon.end()
    return None


def _named_in_part(text: str, at: int, names: Sequence[str], typed: str) -> tuple[int, int]:
    """Return the one plane whose name begins as the text does before its colon."""
    begun, colon, _ = text[at:].partition(":")
    if not colon:
        raise NotUnderstood(FIELD, typed, LOOKS_LIKE)
    word = begun.strip().lower()
    mine = [i for i, name in enumerate(names) if word and name.lower().startswith(word)]
    if len(mine) != 1:
        raise NotUnderstood(FIELD, typed, f"one of the planes {', '.join(names)} before the colon")
    return mine[0], at + len(begun) + 1
