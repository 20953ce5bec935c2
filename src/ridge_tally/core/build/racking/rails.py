"""Rail lines under rows of modules: where each runs, where it is broken, what it holds.

A line runs along the eave (its place across is y) or up the slope (its place across is x).
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from ridge_tally.core.job.array import in_lines
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.mounting_sheet import RailLay

# Rows whose edges lie closer than this can rest on one rail.
STACKED_M = 0.12


@dataclass(frozen=True, slots=True)
class Held:
    """A module as rails see it: from where to where along them, and across them."""

    id: PlacedId
    from_m: float
    to_m: float
    low_m: float
    high_m: float


@dataclass(frozen=True, slots=True)
class Block:
    """What stands on the roof, as rails see it: along them and across them."""

    from_m: float
    to_m: float
    low_m: float
    high_m: float

    def crosses(self, across_m: float, from_m: float, to_m: float) -> bool:
        """Return whether a rail there would run into it."""
        on_line = self.low_m < across_m < self.high_m
        return on_line and from_m < self.to_m and to_m > self.from_m


@dataclass(frozen=True, slots=True)
class RailRules:
    """How lines are made of rows.

    ``offset_frac``: from a module's edge to the rail under it, of its size across the rails.
    ``offset_m`` in its place where it was typed.  ``bridged_m``: the widest gap between modules a
    rail runs on through.  ``overhang_m``: rail past the last module.  Short rails are ``short_m``
    long, each over the two of ``supports_m`` nearest to where modules meet.  With three
    ``rails_a_row`` one lies in the middle of the two.  No rail runs through ``blocks``.
    """

    lay: RailLay
    offset_frac: float
    offset_m: float | None
    bridged_m: float
    overhang_m: float
    longest_run_m: float | None
    run_gap_m: float
    short_m: float = 0.0
    supports_m: tuple[float, ...] = ()
    rails_a_row: int = 2
    blocks: tuple[Block, ...] = ()


@dataclass(frozen=True, slots=True)
class RailRun:
    """A run of rail without a break; ``line``: which line, from 0.  ``held``: modules over it."""

    line: int
    across_m: float
    from_m: float
    to_m: float
    held: tuple[PlacedId, ...]

    @property
    def length_m(self) -> float:
        """How long it is."""
        return self.to_m - self.from_m


def rail_runs(modules: Iterable[Held], rules: RailRules) -> tuple[RailRun, ...]:
    """Return the runs of rail under modules, line by line, each line from its start.

    Notes
    -----
    Two lines a row, or three; with ``SHARED`` one between stacked rows and one at either end; with ``SHORT``
    a piece of either line where modules meet or end.  A row breaks
    where a gap is wider than ``bridged_m``, and into even runs where it is longer than may be, at
    a joint between modules.  Source: geometry.
    """
    rows = [list(row) for row in in_lines(modules, lambda m: m.low_m, lambda m: m.from_m)]
    if rules.lay is RailLay.SHARED:
        lines = _shared(rows)
    else:
        lines = [
            (across, row)
            for row in rows
            for across in _under(min(m.low_m for m in row), max(m.high_m for m in row), rules)
        ]
    runs: list[RailRun] = []
    for number, (across, row) in enumerate(lines):
        blocks = [b for b in rules.blocks if b.low_m < across < b.high_m]
        for stretch in _stretches(row, rules.bridged_m, blocks):
            made = _short if rules.lay is RailLay.SHORT else _runs
            runs += made(number, across, stretch, rules)
    return tuple(runs)


def _under(low_m: float, high_m: float, rules: RailRules) -> tuple[float, ...]:
    """Return where the rails of one row lie."""
    size = high_m - low_m
    offset = rules.offset_frac * size if rules.offset_m is None else rules.offset_m
    middle = ((low_m + high_m) / 2,) if rules.rails_a_row > 2 else ()
    return low_m + offset, *middle, high_m - offset


def _shared(rows: list[list[Held]]) -> list[tuple[float, list[Held]]]:
    """Return lines shared by rows that lie on each other: what each holds is of both."""
    found: list[tuple[float, list[Held]]] = []
    below: list[Held] = []
    for row in rows:
        low = min(m.low_m for m in row)
        top = max((m.high_m for m in below), default=-math.inf)
        if below and low - top <= STACKED_M:
            found.append(((low + top) / 2, [*below, *row]))
        else:
            if below:
                found.append((top, below))
            found.append((low, row))
        below = row
    if below:
        found.append((max(m.high_m for m in below), below))
    return found


def _stretches(row: list[Held], bridged_m: float, blocks: list[Block]) -> list[list[Held]]:
    found: list[list[Held]] = []
    reached = -math.inf
    for module in sorted(row, key=lambda m: m.from_m):
        blocked = any(b.from_m < module.from_m and b.to_m > reached for b in blocks)
        if module.from_m - reached > bridged_m or blocked:
            found.append([])
        found[-1].append(module)
        reached = max(reached, module.to_m)
    return found


def _runs(number: int, across_m: float, stretch: list[Held], rules: RailRules) -> list[RailRun]:
    """Return a stretch in as few even runs as keep the longest; a module alone is never parted."""
    longest = math.inf if rules.longest_run_m is None else rules.longest_run_m
    found: list[RailRun] = []
    for count in range(1, len(stretch) + 1):
        found = _parted(number, across_m, stretch, rules, count)
        if all(r.length_m <= longest + 1e-9 for r in found):
            break
    return found


def _parted(
    number: int, across_m: float, stretch: list[Held], rules: RailRules, count: int
) -> list[RailRun]:
    start = stretch[0].from_m - rules.overhang_m
    end = max(m.to_m for m in stretch) + rules.overhang_m
    places = [start, *_breaks(stretch, start, end, count), end]
    found = []
    for left, right in pairwise(places):
        begins = left if left == start else left + rules.run_gap_m / 2
        ends = right if right == end else right - rules.run_gap_m / 2
        held = tuple(m.id for m in stretch if left - 1e-6 < (m.from_m + m.to_m) / 2 < right)
        found.append(RailRun(number, across_m, begins, ends, held))
    return found


def _short(number: int, across_m: float, stretch: list[Held], rules: RailRules) -> list[RailRun]:
    """Return a short rail where each two modules meet and at either end, over a pair of supports."""
    first, last = stretch[0], max(stretch, key=lambda m: m.to_m)
    places: list[tuple[float, tuple[PlacedId, ...]]] = [(first.from_m, (first.id,))]
    for a, b in pairwise(stretch):
        if b.from_m - a.to_m <= STACKED_M:
            places.append(((a.to_m + b.from_m) / 2, (a.id, b.id)))
        else:
            places += [(a.to_m, (a.id,)), (b.from_m, (b.id,))]
    places.append((last.to_m, (last.id,)))
    found = []
    for at, held in places:
        pairs = [(a + b) / 2 for a, b in pairwise(rules.supports_m)]
        middle = min(pairs, key=lambda m: abs(m - at), default=at)
        # No pair near: it stays where modules meet, and the planner tells what is missing.
        middle = middle if abs(middle - at) <= rules.short_m / 2 else at
        half = rules.short_m / 2
        found.append(RailRun(number, across_m, middle - half, middle + half, held))
    return found


def _breaks(stretch: list[Held], start_m: float, end_m: float, count: int) -> list[float]:
    """Return the joints nearest to even runs."""
    joints = sorted(
        (a.to_m + b.from_m) / 2 for a, b in pairwise(stretch) if b.from_m >= a.to_m - 1e-6
    )
    found: list[float] = []
    for k in range(1, count):
        wanted = start_m + (end_m - start_m) * k / count
        free = [j for j in joints if not found or j > found[-1]]
        if free:
            found.append(min(free, key=lambda j: abs(j - wanted)))
    return found


def beside_each_other(runs: tuple[RailRun, ...]) -> tuple[tuple[int, ...], ...]:
    """Return runs in groups that stand over the same stretch, each group line by line.

    Runs of one group can stand on the same supports; those of two never do.
    """
    groups: list[list[int]] = []
    for n, run in enumerate(runs):
        mine = [g for g in groups if any(_overlap(runs[k], run) for k in g)]
        joined = sorted([k for g in mine for k in g] + [n])
        groups = [g for g in groups if g not in mine] + [joined]
    return tuple(tuple(g) for g in sorted(groups))


def _overlap(a: RailRun, b: RailRun) -> bool:
    return a.from_m < b.to_m and b.from_m < a.to_m
