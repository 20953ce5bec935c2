"""The plan taken while nobody chose one: the best of those that are listed for a person.

Where no plan strings everything within the window, shorter strings are taken, and where the
trackers have no room, as few modules as possible are left out.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import product

from ridge_tally.core.strings.plans import Plan, PlanLoad, Plans, TrackerClass, legal_plans

# So many plans of a list are weighed against each other; lists begin with the longest strings.
MOST_WEIGHED = 2000


@dataclass(frozen=True, slots=True)
class PlanInputs:
    """What an automatic plan stands on.

    ``counts`` and ``kinds`` are those of the planes, as for ``legal_plans``.
    ``overrun_from``: by tracker (from 1) and plane, so many strings ask more current than it
    takes.  ``unit_of``: by tracker, the number of its inverter from 0; ``unit_ac_w``: the rating
    of each, ``unit_dc_w``: what hangs on each already; ``module_w``: of a module of each plane.
    """

    counts: tuple[int, ...]
    kinds: tuple[int, ...]
    classes: tuple[TrackerClass, ...]
    overrun_from: tuple[tuple[int, ...], ...]
    unit_of: tuple[int, ...]
    unit_ac_w: tuple[float, ...]
    unit_dc_w: tuple[float, ...]
    module_w: tuple[float, ...]


@lru_cache(maxsize=256)
def automatic_plan(ground: PlanInputs, series_wish: int | None = None) -> Plan:
    """Return the plan that strings most modules, then is simplest to wire.

    Ranked by: fewest modules left out, no string over the voltage limit unless wished, fewest
    strings shorter than the window needs, planes on trackers of their own, fewest strings off the
    wished length, fewest trackers asked for more current than they take, no inverter without a
    string, fewest different lengths, fewest strings, inverters loaded alike, most even spread over
    the trackers.  A wished length above the longest is honoured, so that its check can show why
    it is too many.

    Returns
    -------
    plan : tuple of PlanLoad
        Empty when there is nothing to string or no tracker takes a string.
    """
    if not any(ground.counts) or not ground.classes:
        return ()
    wished = _stretched(ground.classes, series_wish or 0)
    short = tuple(replace(c, spans=tuple((1, high) for _, high in c.spans)) for c in wished)
    for classes, apart in ((wished, True), (wished, False), (short, True)):
        found = legal_plans(ground.counts, classes, ground.kinds, apart=apart, most=MOST_WEIGHED)
        if found.total:
            return _best(found, ground, series_wish)
    return _with_fewest_left_out(ground, (wished, short), series_wish)


def _stretched(classes: Sequence[TrackerClass], longest: int) -> tuple[TrackerClass, ...]:
    """Return classes that take strings of a wished length, too."""
    return tuple(
        replace(
            c, spans=tuple((min(low, max(high, 1)), max(high, longest)) for low, high in c.spans)
        )
        for c in classes
    )


def _with_fewest_left_out(
    ground: PlanInputs, ways: Sequence[tuple[TrackerClass, ...]], series_wish: int | None
) -> Plan:
    """Return the best of the ways to give trackers to planes, each strung as far as it can be."""
    best: tuple[tuple[float, ...], Plan] | None = None
    strung: dict[tuple[int, tuple[tuple[int, ...], ...]], Plan] = {}
    for shares in _shares(ways[0], len(ground.counts)):
        plan: Plan = ()
        for plane, share in enumerate(shares):
            if (plane, share) not in strung:
                strung[plane, share] = _one_plane(ground, ways, plane, share, series_wish)
            plan += strung[plane, share]
        rank = _rank(plan, ground, series_wish)
        if best is None or rank < best[0]:
            best = rank, plan
    return () if best is None else best[1]


def _shares(
    classes: Sequence[TrackerClass], planes: int
) -> Iterator[tuple[tuple[tuple[int, ...], ...], ...]]:
    """Yield, plane by plane, the numbers of its trackers of each class; alike ones go in order."""
    for chosen in product(*(_splits(len(c.numbers), planes) for c in classes)):
        shares: list[list[tuple[int, ...]]] = [[] for _ in range(planes)]
        for split, trackers in zip(chosen, classes, strict=True):
            start = 0
            for plane, taken in enumerate(split):
                shares[plane].append(trackers.numbers[start : start + taken])
                start += taken
        yield tuple(tuple(share) for share in shares)


def _splits(total: int, parts: int) -> Iterator[tuple[int, ...]]:
    """Yield every way to split a whole into that many parts, none left over; the first's most first."""
    if parts == 1:
        yield (total,)
        return
    for first in range(total, -1, -1):
        for rest in _splits(total - first, parts - 1):
            yield (first, *rest)


def _one_plane(
    ground: PlanInputs,
    ways: Sequence[tuple[TrackerClass, ...]],
    plane: int,
    share: tuple[tuple[int, ...], ...],
    series_wish: int | None,
) -> Plan:
    """Return what a share of the trackers strings of one plane: all of it, or the most it can."""
    mine = tuple(
        tuple(replace(c, numbers=n) for c, n in zip(classes, share, strict=True) if n)
        for classes in ways
    )
    only = [0] * len(ground.counts)
    for count in range(ground.counts[plane], 0, -1):
        # All of a plane in shorter strings rather than not; part of it in legal ones only.
        for classes in mine if count == ground.counts[plane] else mine[:1]:
            only[plane] = count
            found = legal_plans(tuple(only), classes, ground.kinds, most=MOST_WEIGHED)
            if found.total:
                return _best(found, ground, series_wish)
    return ()


def _best(found: Plans, ground: PlanInputs, series_wish: int | None) -> Plan:
    return min(found.plans, key=lambda plan: _rank(plan, ground, series_wish))


def _rank(plan: Plan, ground: PlanInputs, series_wish: int | None) -> tuple[float, ...]:
    by_plane = [[ld for ld in plan if ld.plane_index == p] for p in range(len(ground.counts))]
    by_tracker: dict[int, list[PlanLoad]] = {}
    for load in plan:
        by_tracker.setdefault(load.tracker_number, []).append(load)
    span_of = {n: c.spans for c in ground.classes for n in c.numbers}
    over = short = 0
    for ld in plan:
        spans = span_of[ld.tracker_number]
        low, high = spans[ld.plane_index if len(spans) > 1 else 0]
        short += ld.strings * (ld.modules_in_series < low)
        over += ld.strings * (ld.modules_in_series > high and ld.modules_in_series != series_wish)
    left_out = tuple(
        count - sum(ld.modules_in_series * ld.strings for ld in mine)
        for count, mine in zip(ground.counts, by_plane, strict=True)
    )
    loadings = _loadings(plan, ground)
    return (
        sum(left_out),
        over,
        short,
        sum(len(loads) > 1 for loads in by_tracker.values()),
        sum(ld.strings for ld in plan if ld.modules_in_series != series_wish) if series_wish else 0,
        sum(_overrun(n, loads, ground) for n, loads in by_tracker.items()),
        loadings.count(0.0),
        sum(len({ld.modules_in_series for ld in mine}) for mine in by_plane),
        sum(ld.strings for ld in plan),
        round(max(loadings) - min(loadings), 9),
        sum(_uneven(mine) for mine in by_plane),
        *left_out,
        *_order(by_tracker, len(ground.unit_of)),
    )


def _order(by_tracker: dict[int, list[PlanLoad]], trackers: int) -> Iterator[int]:
    """Yield what puts more and longer strings on the first trackers, of the first planes."""
    for number in range(1, trackers + 1):
        loads = by_tracker.get(number, [])
        yield -sum(ld.strings for ld in loads)
        yield -max((ld.modules_in_series for ld in loads), default=0)
        yield min((ld.plane_index for ld in loads), default=0)


def _overrun(tracker_number: int, loads: Sequence[PlanLoad], ground: PlanInputs) -> bool:
    limits = ground.overrun_from[tracker_number - 1]
    return sum(ld.strings for ld in loads) >= min(limits[ld.plane_index] for ld in loads)


def _uneven(loads: Sequence[PlanLoad]) -> int:
    """Return by how many modules the fullest of a plane's trackers has more than the emptiest."""
    counts = [ld.modules_in_series * ld.strings for ld in loads]
    return max(counts, default=0) - min(counts, default=0)


def _loadings(plan: Plan, ground: PlanInputs) -> list[float]:
    """Return DC watts over rated AC watts of each inverter."""
    watts = list(ground.unit_dc_w)
    for ld in plan:
        share_w = ld.modules_in_series * ld.strings * ground.module_w[ld.plane_index]
        watts[ground.unit_of[ld.tracker_number - 1]] += share_w
    return [dc_w / ac_w for dc_w, ac_w in zip(watts, ground.unit_ac_w, strict=True)]
