"""Which module belongs to which string, and in what wiring order."""

from collections.abc import Iterable, Mapping, Sequence
from enum import StrEnum
from itertools import count

from ridge_tally.core.job.array import PlacedModule, in_lines
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.strings.plans import Plan


class Routing(StrEnum):
    """How the modules of a plane are shared out to its strings."""

    ROWS = "rows"
    COLUMNS = "columns"
    LIGHT = "light"
    DARK = "dark"


def serpentine(
    modules: Iterable[PlacedModule], weave: Routing = Routing.ROWS
) -> tuple[PlacedModule, ...]:
    """Return the present modules row by row from the top, every second row reversed.

    Or column by column from the left.  Leads then reach from each module to the next without
    crossing the roof.
    """
    down = weave is Routing.COLUMNS

    def line_of(m: PlacedModule) -> float:
        return m.x_m if down else -m.y_m

    def along(m: PlacedModule) -> float:
        return -m.y_m if down else m.x_m

    ordered: list[PlacedModule] = []
    lines = in_lines((m for m in modules if m.present), line_of, along)
    for number, line in enumerate(lines):
        ordered.extend(line if number % 2 == 0 else reversed(line))
    return tuple(ordered)


def shared_out(
    modules: Iterable[PlacedModule],
    lengths: Sequence[int],
    weave: Routing,
    light: Mapping[PlacedId, float],
) -> list[tuple[PlacedId, ...]]:
    """Return modules of one plane as strings of those lengths, each in wiring order.

    Parameters
    ----------
    light : mapping
        What each module gets in a year, in any unit: with ``LIGHT`` the brightest make the first
        string, with ``DARK`` the darkest.
    """
    by_light = weave in (Routing.LIGHT, Routing.DARK)
    if by_light:
        sign = -1 if weave is Routing.LIGHT else 1
        ordered = sorted(
            (m for m in modules if m.present), key=lambda m: (sign * light.get(m.id, 0.0), m.id)
        )
    else:
        ordered = list(serpentine(modules, weave))
    strings, start = [], 0
    for length in lengths:
        mine = ordered[start : start + length]
        inside = serpentine(mine) if by_light else mine
        strings.append(tuple(m.id for m in inside))
        start += length
    return strings


def leapfrogged(module_ids: tuple[PlacedId, ...]) -> tuple[PlacedId, ...]:
    """Return a thread that goes out over every second module and comes back over the others.

    Both its ends are then side by side, and one home run serves them.
    """
    return (*module_ids[::2], *reversed(module_ids[1::2]))


def thread_strings(
    modules: Iterable[PlacedModule],
    plan: Plan,
    there: tuple[ModuleString, ...] = (),
) -> tuple[ModuleString, ...]:
    """Return one plane's strings of a plan with modules in wiring order, tagged A, B, C …

    Modules beyond the plan's count stay without a string; tags of strings that are ``there``
    are not given again.
    """
    numbers = [load.tracker_number for load in plan for _ in range(load.strings)]
    lengths = [load.modules_in_series for load in plan for _ in range(load.strings)]
    strings: list[ModuleString] = []
    for number, ids in zip(numbers, shared_out(modules, lengths, Routing.ROWS, {}), strict=True):
        tag = free_tag(s.tag for s in (*there, *strings))
        strings.append(ModuleString(tag, number, ids))
    return tuple(strings)


def free_tag(taken: Iterable[str]) -> str:
    """Return the first of A, B, C … that no string has."""
    names = set(taken)
    return next(tag for tag in map(_tag, count()) if tag not in names)


def _tag(index: int) -> str:
    letter = chr(ord("A") + index % 26)
    return letter if index < 26 else f"{letter}{index // 26 + 1}"
