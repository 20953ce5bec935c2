"""Where mounts go under rails: on the supports there are, within span and cantilever, spread well.

A rail runs from 0 to its length; supports are what it may be fixed to, along it.  Everything here
is geometry: what a rail carries is the maker's, typed.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.racking import MountAim

# Two supports nearer than this are one; a limit passed by less is kept.
SAME_M = 1e-6
# Ways of one rail that are weighed against every way of its neighbour; past it, one after another.
MOST_WAYS = 1_500
# Of the supports a span reaches so many of the farthest are weighed for the next mount.
FARTHEST = 12
MOST_SWEEPS = 6
NEVER = float("inf")


@dataclass(frozen=True, slots=True)
class SpanZone:
    """A stretch of a rail and the longest span that may touch it."""

    from_m: float
    to_m: float
    limit_m: float


@dataclass(frozen=True, slots=True)
class RailLine:
    """A rail with what it may be fixed to.

    ``supports_m`` ascend.  ``cantilever_m``: the longest bare end, ``right_cantilever_m`` that of
    the right end where it is another; ``cantilever_frac``: as a share of the actual span beside it
    too, where the maker says so.  ``pinned``: places in
    ``supports_m`` a mount must stand on.
    """

    length_m: float
    supports_m: tuple[float, ...]
    zones: tuple[SpanZone, ...]
    cantilever_m: float
    cantilever_frac: float | None = None
    least_mounts: int = 2
    pinned: frozenset[int] = frozenset()
    right_cantilever_m: float | None = None

    @property
    def right_m(self) -> float:
        """How long its right end may be bare."""
        given = self.right_cantilever_m
        return self.cantilever_m if given is None else given


@dataclass(frozen=True, slots=True)
class MountPlan:
    """``rails``: for each rail the places in its supports, ascending.

    ``shared``: supports two neighbouring rails both stand on, summed over neighbours.  ``proven``:
    nothing better by the aim exists.
    """

    rails: tuple[tuple[int, ...], ...]
    shared: int
    proven: bool


@dataclass(frozen=True, slots=True)
class Hole:
    """A stretch without a support that is wider than a span may be."""

    rail: int
    from_m: float
    to_m: float
    limit_m: float


@dataclass(frozen=True, slots=True)
class BareEnd:
    """An end of a rail with no support near enough; ``nearest_m`` from that end, if there is one."""

    rail: int
    end: Literal["left", "right"]
    nearest_m: float | None
    limit_m: float


@dataclass(frozen=True, slots=True)
class NoPlan:
    """Why a rail cannot be mounted: its holes, its bare ends, or too few supports (``short_of``)."""

    holes: tuple[Hole, ...]
    ends: tuple[BareEnd, ...]
    short_of: tuple[int, ...]


def plan_mounts(
    rails: Sequence[RailLine], aim: MountAim = MountAim.FEWEST, *, stagger: bool = True
) -> MountPlan | NoPlan:
    """Return where the mounts of neighbouring rails go, or why they cannot.

    Parameters
    ----------
    rails : sequence of RailLine
        From the eave up: each is the neighbour of the one after it.
    stagger : bool
        Whether neighbours keep off each other's supports; the most even spans decide in any case.

    Returns
    -------
    MountPlan or NoPlan
        By ``FEWEST``: least mounts, then least shared, then the least sum of squared spans.  By
        ``SPREAD`` a rail may take one mount more: least shared, then least mounts, then even.

    Notes
    -----
    Exact while every rail has at most ``MOST_WAYS`` ways of its least count, of a span's supports the
    ``FARTHEST``; past that each rail
    is laid against its neighbours as they lie, until none gets better.  Source: geometry.
    """
    lines = [_Line(rail) for rail in rails]
    amiss = [_why_not(n, line) for n, line in enumerate(lines) if line.least is None]
    if amiss:
        return NoPlan(
            tuple(h for one in amiss for h in one.holes),
            tuple(e for one in amiss for e in one.ends),
            tuple(s for one in amiss for s in one.short_of),
        )
    positions = _numbered(rails)
    proven = True
    if not stagger or len(lines) == 1:
        found = [line.best(line.least or 0, np.zeros(len(line.at))) for line in lines]
    else:
        extra = 1 if aim is MountAim.SPREAD else 0
        if all(line.count_of_ways(extra) <= MOST_WAYS for line in lines):
            found = _together(lines, positions, aim, extra)
        else:
            found, proven = _one_by_one(lines, positions, extra), False
    shared = sum(
        len({below[i] for i in a} & {above[i] for i in b})
        for (a, below), (b, above) in pairwise(zip(found, positions, strict=True))
    )
    return MountPlan(tuple(found), shared, proven)


def _numbered(rails: Sequence[RailLine]) -> list[list[int]]:
    """Return for each support of each rail the number of its line: the same for all rails over it."""
    known: list[float] = []
    for at in sorted(x for rail in rails for x in rail.supports_m):
        if not known or at - known[-1] > SAME_M:
            known.append(at)
    lines = np.array(known)
    return [[int(np.abs(lines - x).argmin()) for x in rail.supports_m] for rail in rails]


class _Line:
    """A rail with which support may follow which, and how many more it takes from there."""

    def __init__(self, rail: RailLine) -> None:
        self.rail = rail
        self.at = rail.supports_m
        self._completions: dict[tuple[int, int, int], int] = {}

    def limit_m(self, left_m: float, right_m: float) -> float:
        """Return the longest span allowed between two places: every zone it touches counts."""
        touched = (
            z.limit_m
            for z in self.rail.zones
            if left_m < z.to_m - SAME_M and right_m > z.from_m + SAME_M
        )
        return min(touched, default=NEVER)

    @cached_property
    def following(self) -> list[list[int]]:
        """For each support those a next mount may stand on: within the span, no pin passed over."""
        found: list[list[int]] = []
        for i, left in enumerate(self.at):
            mine: list[int] = []
            for j in range(i + 1, len(self.at)):
                if self.at[j] - left > self.limit_m(left, self.at[j]) + SAME_M:
                    break
                mine.append(j)
                if j in self.rail.pinned:
                    break
            found.append(mine[-FARTHEST:])
        return found

    @cached_property
    def starts(self) -> list[int]:
        """Supports the first mount may stand on."""
        first_pin = min(self.rail.pinned, default=len(self.at))
        near = [
            i
            for i, x in enumerate(self.at)
            if x <= self.rail.cantilever_m + SAME_M and i <= first_pin
        ]
        return near[-FARTHEST:]

    def _begins(self, i: int, j: int) -> bool:
        frac = self.rail.cantilever_frac
        return frac is None or self.at[i] <= frac * (self.at[j] - self.at[i]) + SAME_M

    def _ends(self, i: int, j: int) -> bool:
        """Return whether the rail may end after mounts on two supports, the later the last."""
        bare = self.rail.length_m - self.at[j]
        if bare > self.rail.right_m + SAME_M or j < max(self.rail.pinned, default=-1):
            return False
        frac = self.rail.cantilever_frac
        return frac is None or bare <= frac * (self.at[j] - self.at[i]) + SAME_M

    def pairs(self) -> list[tuple[int, int]]:
        """Return the first two mounts there may be."""
        return [(i, j) for i in self.starts for j in self.following[i] if self._begins(i, j)]

    def ways(self, i: int, j: int, more: int) -> int:
        """Return how many ways lead from two mounts to the end with exactly so many more."""
        key = (i, j, more)
        known = self._completions.get(key)
        if known is None:
            known = (
                int(self._ends(i, j))
                if more == 0
                else sum(self.ways(j, k, more - 1) for k in self.following[j])
            )
            self._completions[key] = known
        return known

    @cached_property
    def least(self) -> int | None:
        """The least count of mounts that does; ``None`` where none does."""
        begun = self.pairs()
        for count in range(max(self.rail.least_mounts, 2), len(self.at) + 1):
            if any(self.ways(i, j, count - 2) for i, j in begun):
                return count
        return None

    def counts(self, extra: int) -> range:
        """Return the counts that are weighed: the least and so many more."""
        assert self.least is not None
        return range(self.least, min(self.least + extra, len(self.at)) + 1)

    def count_of_ways(self, extra: int) -> int:
        """Return how many placements have one of these counts."""
        begun = self.pairs()
        return sum(self.ways(i, j, c - 2) for c in self.counts(extra) for i, j in begun)

    def placements(self, extra: int) -> list[tuple[int, ...]]:
        """Return every placement of these counts."""
        found: list[tuple[int, ...]] = []

        def walk(path: tuple[int, ...], more: int) -> None:
            if more == 0:
                found.append(path)
                return
            for k in self.following[path[-1]]:
                if self.ways(path[-1], k, more - 1):
                    walk((*path, k), more - 1)

        for count in self.counts(extra):
            for i, j in self.pairs():
                if self.ways(i, j, count - 2):
                    walk((i, j), count - 2)
        return found

    def evenness(self, path: Sequence[int]) -> float:
        """Return the sum of squared spans as a share of the squared length: at most 1."""
        spans = (self.at[b] - self.at[a] for a, b in pairwise(path))
        return sum(s * s for s in spans) / self.rail.length_m**2

    def best(self, count: int, price: NDArray[np.float64]) -> tuple[int, ...]:
        """Return the placement of that count cheapest by the price of its supports, then most even."""
        known: dict[tuple[int, int, int], tuple[float, tuple[int, ...]]] = {}

        def from_pair(i: int, j: int, more: int) -> tuple[float, tuple[int, ...]]:
            key = (i, j, more)
            if key not in known:
                if more == 0:
                    known[key] = (0.0, ()) if self._ends(i, j) else (NEVER, ())
                else:
                    known[key] = min(
                        (
                            (
                                price[k] + self.evenness((j, k)) + rest,
                                (k, *tail),
                            )
                            for k in self.following[j]
                            if self.ways(j, k, more - 1)
                            for rest, tail in (from_pair(j, k, more - 1),)
                        ),
                        default=(NEVER, ()),
                    )
            return known[key]

        cost, path = min(
            (price[i] + price[j] + self.evenness((i, j)) + rest, (i, j, *tail))
            for i, j in self.pairs()
            if self.ways(i, j, count - 2)
            for rest, tail in (from_pair(i, j, count - 2),)
        )
        assert cost < NEVER
        return path


def _together(
    lines: list[_Line], positions: list[list[int]], aim: MountAim, extra: int
) -> list[tuple[int, ...]]:
    """Return the best of all placements of all rails: along the rails, neighbour by neighbour."""
    ways = [line.placements(extra) for line in lines]
    most = 1 + max(p for numbers in positions for p in numbers)
    stands = [_matrix(w, n, most) for w, n in zip(ways, positions, strict=True)]
    # Evenness of all rails together stays below 1; a mount, then a shared support, outweighs it.
    per_mount = 1.0 if aim is MountAim.SPREAD else 1.0 + most
    per_shared = 1.0 if aim is MountAim.FEWEST else 1.0 + sum(w.shape[1] for w in stands)
    alone = [
        np.array([per_mount * len(p) + line.evenness(p) / len(lines) for p in placed])
        for line, placed in zip(lines, ways, strict=True)
    ]
    total, came_from = alone[0], list[NDArray[np.intp]]()
    for below, above, mine in zip(stands, stands[1:], alone[1:], strict=False):
        through = total[:, None] + per_shared * (below @ above.T)
        came_from.append(through.argmin(axis=0))
        total = through.min(axis=0) + mine
    chosen = [int(total.argmin())]
    for back in reversed(came_from):
        chosen.append(int(back[chosen[-1]]))
    return [placed[k] for placed, k in zip(ways, reversed(chosen), strict=True)]


def _matrix(placed: list[tuple[int, ...]], numbers: list[int], most: int) -> NDArray[np.float64]:
    found = np.zeros((len(placed), most))
    for row, path in enumerate(placed):
        found[row, [numbers[i] for i in path]] = 1.0
    return found


def _one_by_one(
    lines: list[_Line], positions: list[list[int]], extra: int
) -> list[tuple[int, ...]]:
    """Return each rail laid against its neighbours as they lie, again until none gets better."""
    taken: list[set[int]] = [set() for _ in lines]
    found: list[tuple[int, ...]] = [() for _ in lines]
    for _ in range(MOST_SWEEPS):
        before = list(found)
        for n, line in enumerate(lines):
            beside = [taken[k] for k in (n - 1, n + 1) if 0 <= k < len(lines)]
            price = np.array([float(sum(p in b for b in beside)) for p in positions[n]])
            tried = [line.best(count, price) for count in line.counts(extra)]
            found[n] = min(
                tried, key=lambda p: (sum(price[i] for i in p), len(p), line.evenness(p))
            )
            taken[n] = {positions[n][i] for i in found[n]}
        if found == before:
            break
    return found


def _why_not(number: int, line: _Line) -> NoPlan:
    rail, at = line.rail, line.at
    holes = tuple(
        Hole(number, a, b, line.limit_m(a, b))
        for a, b in pairwise(at)
        if b - a > line.limit_m(a, b) + SAME_M
        # Not where the rail need not stand on what lies beyond.
        and b > rail.cantilever_m + SAME_M
        and rail.length_m - a > rail.right_m + SAME_M
    )
    left = at[0] if at else None
    right = rail.length_m - at[-1] if at else None
    sides: tuple[tuple[Literal["left", "right"], float | None, float], ...]
    sides = (("left", left, rail.cantilever_m), ("right", right, rail.right_m))
    ends = tuple(
        BareEnd(number, end, bare, limit)
        for end, bare, limit in sides
        if bare is None or bare > limit + SAME_M
    )
    return NoPlan(holes, ends, () if holes or ends else (number,))
