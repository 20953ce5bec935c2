"""Which module belongs to which string, and in what wiring order."""

from collections.abc import Iterable
from itertools import count, groupby

from ridge_tally.core.job.array import PlacedModule
from ridge_tally.core.job.document import ModuleString
from ridge_tally.core.job.string_edits import Weave
from ridge_tally.core.strings.plan import TrackerLoad

ROW_TOLERANCE_M = 0.05


def serpentine(
    modules: tuple[PlacedModule, ...], weave: Weave = Weave.ROWS
) -> tuple[PlacedModule, ...]:
    """Return the present modules row by row from the top, every second row reversed.

    Or column by column from the left.  Leads then reach from each module to the next without
    crossing the roof.
    """

    def line_of(m: PlacedModule) -> float:
        return -m.y_m if weave is Weave.ROWS else m.x_m

    def along(m: PlacedModule) -> float:
        return m.x_m if weave is Weave.ROWS else -m.y_m

    present = sorted((m for m in modules if m.present), key=lambda m: (line_of(m), along(m)))
    ordered: list[PlacedModule] = []
    lines = groupby(present, key=lambda m: round(line_of(m) / ROW_TOLERANCE_M))
    for number, (_, line) in enumerate(lines):
        run = sorted(line, key=along)
        ordered.extend(run if number % 2 == 0 else reversed(run))
    return tuple(ordered)


def thread_strings(
    modules: tuple[PlacedModule, ...],
    plan: tuple[TrackerLoad, ...],
    there: tuple[ModuleString, ...] = (),
) -> tuple[ModuleString, ...]:
    """Return the plan's strings with modules in wiring order, tagged A, B, C …

    Modules beyond the plan's count stay without a string; tags of strings that are ``there``
    are not given again.
    """
    ordered = [m.id for m in serpentine(modules)]
    strings: list[ModuleString] = []
    start = 0
    for load in plan:
        for _ in range(load.strings):
            ids = tuple(ordered[start : start + load.modules_in_series])
            tag = free_tag(s.tag for s in (*there, *strings))
            strings.append(ModuleString(tag, load.tracker_number, ids))
            start += load.modules_in_series
    return tuple(strings)


def free_tag(taken: Iterable[str]) -> str:
    """Return the first of A, B, C … that no string has."""
    names = set(taken)
    return next(tag for tag in map(_tag, count()) if tag not in names)


def _tag(index: int) -> str:
    letter = chr(ord("A") + index % 26)
    return letter if index < 26 else f"{letter}{index // 26 + 1}"
