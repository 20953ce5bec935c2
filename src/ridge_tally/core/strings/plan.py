"""How many modules in series and how many strings each tracker gets.

A plan is counts only; which modules belong to which string is decided by threading.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import product


@dataclass(frozen=True, slots=True)
class StringLimits:
    """Plain numbers that the rules derived for one module on one inverter.

    ``series_min`` keeps the hot string in its window (costs energy below it);
    ``series_max`` keeps the cold string under its voltage limit (a Stop above it).
    ``strings_max`` is, per tracker, how many strings may be paralleled.
    """

    series_min: int
    series_max: int
    strings_max: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class TrackerLoad:
    """Equal strings on one tracker (numbered from 1)."""

    tracker_number: int
    modules_in_series: int
    strings: int


@lru_cache(maxsize=256)
def plan_strings(
    modules: int, limits: StringLimits, series_wish: int | None = None
) -> tuple[TrackerLoad, ...]:
    """Return the plan that strings most modules, then is simplest to wire.

    Ranked by: fewest modules left out, no string over the voltage limit unless wished,
    fewest strings shorter than the window needs, fewest strings off the wished length, fewest different lengths, fewest strings, most
    even spread over the trackers.  A wished length above ``series_max`` is honoured, so
    that its check can show why it is too many.

    Parameters
    ----------
    modules : int
        Modules to string, all on one plane.
    limits : StringLimits
        See there.
    series_wish : int, optional
        Modules in series the person asked for.

    Returns
    -------
    loads : tuple of TrackerLoad
        Empty when there is nothing to string or no tracker takes a string.
    """
    longest = max(limits.series_max, series_wish or 0)
    if modules == 0 or longest < 1:
        return ()
    first_legal = max(1, min(limits.series_min, longest))
    for shortest in (first_legal, 1):
        plans = _plans(modules, shortest, longest, limits.strings_max)
        best = min(plans, key=lambda plan: _rank(plan, modules, limits, series_wish), default=())
        strung = sum(load.modules_in_series * load.strings for load in best)
        if strung == modules:
            return best
    # Nothing strings them all: keep the plan within the window that strings the most.
    plans = _plans(modules, first_legal, longest, limits.strings_max)
    return min(plans, key=lambda plan: _rank(plan, modules, limits, series_wish), default=best)


def plan_planes(
    counts: tuple[int, ...], limits: Sequence[StringLimits], series_wish: int | None = None
) -> tuple[tuple[TrackerLoad, ...], ...]:
    """Return a plan for each plane, no tracker shared between two.

    Every way of giving whole trackers to planes is tried (alike ones are interchangeable); the
    best leaves fewest modules out, then is ranked as ``plan_strings`` ranks, summed over planes.

    Parameters
    ----------
    counts : tuple of int
        Modules to string on each plane.
    limits, series_wish
        As for ``plan_strings``, plane by plane; the wish holds on each.
    """
    if len(counts) == 1:
        return (plan_strings(counts[0], limits[0], series_wish),)
    best: tuple[tuple[TrackerLoad, ...], ...] = tuple(() for _ in counts)
    best_rank: tuple[int, ...] | None = None
    for shares in _shared_out(limits[0].strings_max, len(counts)):
        plans = tuple(
            _on_trackers(count, share, own, series_wish)
            for count, share, own in zip(counts, shares, limits, strict=True)
        )
        ranks = [
            _rank(plan, count, own, series_wish) if plan else (count, 0, 0, 0, 0, 0, 0)
            for plan, count, own in zip(plans, counts, limits, strict=True)
        ]
        # Equal so far: the plane that was filled first is strung first.
        left_out = tuple(rank[0] for rank in ranks)
        rank = (*(sum(place) for place in zip(*ranks, strict=True)), *left_out)
        if best_rank is None or rank < best_rank:
            best, best_rank = plans, rank
    return best


def _shared_out(strings_max: tuple[int, ...], planes: int) -> Iterator[tuple[tuple[int, ...], ...]]:
    """Yield, for each plane, the indices of its trackers; alike trackers go in order."""
    classes: dict[int, list[int]] = {}
    for index, most in enumerate(strings_max):
        classes.setdefault(most, []).append(index)
    ways = [list(_splits(len(alike), planes)) for alike in classes.values()]
    for chosen in product(*ways):
        shares: list[list[int]] = [[] for _ in range(planes)]
        for split, alike in zip(chosen, classes.values(), strict=True):
            start = 0
            for plane, taken in enumerate(split):
                shares[plane] += alike[start : start + taken]
                start += taken
        yield tuple(tuple(sorted(share)) for share in shares)


def _splits(total: int, parts: int) -> Iterator[tuple[int, ...]]:
    """Yield every way to split a whole into that many parts, none left over."""
    if parts == 1:
        yield (total,)
        return
    for first in range(total + 1):
        for rest in _splits(total - first, parts - 1):
            yield (first, *rest)


def _on_trackers(
    count: int, trackers: tuple[int, ...], limits: StringLimits, series_wish: int | None
) -> tuple[TrackerLoad, ...]:
    """Return the plan of one plane on some of the trackers, with their own numbers."""
    own = StringLimits(
        limits.series_min, limits.series_max, tuple(limits.strings_max[i] for i in trackers)
    )
    return tuple(
        replace(load, tracker_number=trackers[load.tracker_number - 1] + 1)
        for load in plan_strings(count, own, series_wish)
    )


def _plans(
    modules: int, shortest: int, longest: int, strings_max: tuple[int, ...]
) -> Iterator[tuple[TrackerLoad, ...]]:
    """Yield plans with at most `modules`; equal neighbours are kept in falling order."""

    def extend(
        index: int, left: int, built: tuple[TrackerLoad, ...], ceiling: tuple[int, int]
    ) -> Iterator[tuple[TrackerLoad, ...]]:
        if built:
            yield built
        if index == len(strings_max) or left < shortest:
            return
        same_as_before = index > 0 and strings_max[index] == strings_max[index - 1]
        for strings in range(strings_max[index], 0, -1):
            for series in range(min(longest, left // strings), shortest - 1, -1):
                load = (series * strings, series)
                if same_as_before and built and load > ceiling:
                    continue
                step = TrackerLoad(index + 1, series, strings)
                yield from extend(index + 1, left - series * strings, (*built, step), load)
        # A tracker may stay empty; among alike ones the empty ones are always the last.
        others = (i for i in range(index, len(strings_max)) if strings_max[i] != strings_max[index])
        following = next(others, None)
        if following is not None:
            yield from extend(following, left, built, (0, 0))

    yield from extend(0, modules, (), (0, 0))


def _rank(
    plan: tuple[TrackerLoad, ...], modules: int, limits: StringLimits, series_wish: int | None
) -> tuple[int, ...]:
    counts = [load.modules_in_series * load.strings for load in plan]
    lengths = {load.modules_in_series for load in plan}
    short = sum(ld.strings for ld in plan if ld.modules_in_series < limits.series_min)
    over = sum(
        ld.strings
        for ld in plan
        if ld.modules_in_series > limits.series_max and ld.modules_in_series != series_wish
    )
    off_wish = sum(ld.strings for ld in plan if ld.modules_in_series != series_wish)
    return (
        modules - sum(counts),
        over,
        short,
        off_wish if series_wish else 0,
        len(lengths),
        sum(load.strings for load in plan),
        max(counts) - min(counts),
    )
