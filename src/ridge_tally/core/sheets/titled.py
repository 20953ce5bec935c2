"""The frame and the title block of a sheet."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from ridge_tally.core.sheets.flow import LEAD, wrapped
from ridge_tally.core.sheets.paper import Box, Ground
from ridge_tally.core.sheets.scene import Item, Layer, Line, Scene, Text

# What to be careful of on the sheets that send somebody up or near live parts; common practice, no source.
ALOFT = "Work at height: tie off. Modules make voltage in any light."
LIVE = "Modules make voltage in any light; never open a connector under load. Two sources feed the house."
CAUTIONS = {
    "G-2": LIVE, "A-1": ALOFT, "A-2": f"{ALOFT} Never open a connector under load.", "E-1": LIVE,
    "E-3": LIVE, "E-4": LIVE, "S-1": ALOFT, "S-2": ALOFT, "Q-1": f"{ALOFT} Never open a connector under load.",
    "W-1": ALOFT, "T-1": LIVE,
}  # fmt: skip
NOT_REVIEWED = "Not for construction until reviewed by a licensed person"


@dataclass(frozen=True, slots=True)
class IssueRow:
    """A row of the revision table."""

    number: str
    day: str
    what: str
    who: str


@dataclass(frozen=True, slots=True)
class TitleFacts:
    """What the title block of every sheet of a set says; ``reviewed``: by whom and when, or nothing."""

    firm: str
    job: str
    place: str
    system: str
    revision: str
    reviewed: str
    people: str = ""
    issues: tuple[IssueRow, ...] = ()


@dataclass(frozen=True, slots=True)
class SheetHead:
    """A sheet's number, its title and its scale."""

    number: str
    title: str
    scale: str = "None"


def part_number(number: str, n: int, count: int) -> str:
    """Return the number of the n-th sheet from 1 of so many that share one: ``E-3.2``."""
    return number if count == 1 else f"{number}.{n}"


def sheet(ground: Ground, facts: TitleFacts, head: SheetHead, items: Iterable[Item]) -> Scene:
    """Return a sheet with its frame, its title block and what is drawn on it."""
    drawn = [*_outline(ground), *_block(ground, facts, head), *items]
    return Scene(
        f"{head.number} {head.title}", ground.width, ground.height, ground.frame, tuple(drawn)
    )


def _rect(box: Box) -> Line:
    left, top, right, bottom = box
    corners = ((left, top), (right, top), (right, bottom), (left, bottom))
    return Line(Layer.FRAME, corners, closed=True)


def _outline(ground: Ground) -> list[Item]:
    left, top, right, bottom = ground.title
    divide = ((left, top), (left, bottom)) if ground.large else ((left, top), (right, top))
    return [_rect(ground.frame), Line(Layer.FRAME, divide)]


def _block(ground: Ground, facts: TitleFacts, head: SheetHead) -> list[Item]:
    return _at_right(ground, facts, head) if ground.large else _at_foot(ground, facts, head)


def _set(
    items: list[Item], x: float, y: float, width: float, words: str, size: float, *,
    bold: bool = False, most: int = 9,
) -> float:  # fmt: skip
    """Set words on lines below each other, so many at most; return where the next may stand."""
    lines = wrapped(words, width, size, bold=bold) if words else []
    if len(lines) > most:
        lines = [*lines[: most - 1], lines[most - 1][:-1] + "…"]
    for line in lines:
        y += size * LEAD
        items.append(Text((x, y), line, size, bold=bold))
    return y


def _at_right(ground: Ground, facts: TitleFacts, head: SheetHead) -> list[Item]:
    left, top, right, bottom = ground.title
    items: list[Item] = []
    x, wide = left + 3, right - left - 6
    y = _set(items, x, top + 3, wide, facts.firm, 3.4, bold=True, most=2) + 3
    y = _set(items, x, y, wide, facts.job, 3.4, bold=True, most=3) + 1
    y = _set(items, x, y, wide, facts.place, 2.6, most=3) + 3
    y = _set(items, x, y, wide, facts.system, 2.6, most=6) + 3
    y = _set(items, x, y, wide, _caution(head), 2.5, bold=True, most=5) + 4
    y = _issues(items, facts, (x, y, right - 3, bottom - 62))
    foot = bottom - 58
    items.append(Line(Layer.FRAME, ((left, foot), (right, foot))))
    at = _set(items, x, foot + 1, wide, facts.reviewed or NOT_REVIEWED, 2.6, bold=True, most=4)
    at = _set(items, x, at + 1, wide, facts.people, 2.4, most=3)
    at = _set(items, x, at + 1, wide, f"Revision of the job: {facts.revision}", 2.5, most=2)
    at = _set(items, x, at + 1, wide, f"Scale: {head.scale}", 2.5, most=2)
    _set(items, x, at + 2, wide, head.title, 3.6, bold=True, most=2)
    items.append(Text((right - 3, bottom - 4), head.number, 8.0, "end", bold=True))
    return items


def _caution(head: SheetHead) -> str:
    return CAUTIONS.get(head.number.partition(".")[0], "")


def _at_foot(ground: Ground, facts: TitleFacts, head: SheetHead) -> list[Item]:
    left, top, right, bottom = ground.title
    columns = (left, left + 66, left + 122, left + 182, right)
    items: list[Item] = [Line(Layer.FRAME, ((x, top), (x, bottom))) for x in columns[1:-1]]
    wide = [b - a - 5 for a, b in pairwise(columns)]
    y = _set(items, columns[0] + 2.5, top + 1, wide[0], facts.firm, 2.8, bold=True, most=1)
    y = _set(items, columns[0] + 2.5, y + 0.5, wide[0], facts.job, 2.8, bold=True, most=2)
    _set(items, columns[0] + 2.5, y + 0.5, wide[0], facts.place, 2.4, most=2)
    y = _set(items, columns[1] + 2.5, top + 1, wide[1], facts.system, 2.3, most=5)
    _set(items, columns[1] + 2.5, y + 0.6, wide[1], _caution(head), 2.3, bold=True, most=3)
    y = _set(
        items, columns[2] + 2.5, top + 1, wide[2], facts.reviewed or NOT_REVIEWED, 2.4,
        bold=True, most=2,
    )  # fmt: skip
    y = _set(items, columns[2] + 2.5, y, wide[2], facts.people, 2.3, most=2)
    _issues(items, facts, (columns[2] + 2.5, y + 1, columns[3] - 2.5, bottom - 1))
    y = _set(items, columns[3] + 2.5, top + 1, wide[3], head.title, 3.2, bold=True, most=2)
    y = _set(items, columns[3] + 2.5, y + 0.5, wide[3], f"Scale: {head.scale}", 2.4, most=1)
    _set(items, columns[3] + 2.5, y, wide[3] - 18, f"Revision: {facts.revision}", 2.4, most=2)
    items.append(Text((right - 3, bottom - 2.5), head.number, 7.0, "end", bold=True))
    return items


def _issues(items: list[Item], facts: TitleFacts, box: Box) -> float:
    """Set the newest rows of the revision table that there is room for."""
    left, y, right, bottom = box
    size = 2.3
    fits = max(0, int((bottom - y) / (size * LEAD)) - 1)
    for row in facts.issues[-fits:] if fits else ():
        told = f"{row.number}  {row.day}  {row.what}, {row.who}"
        y = _set(items, left, y, right - left, told, size, most=1)
    return y
