"""Every way to string an array on an inverter's trackers, and its simple merits.

A plan is counts only: how many strings of which length of which plane stand on which tracker.
Alike trackers are taken as a class, so that no plan is listed twice.  Plans are built class by
class and option by option; a memoised count of what can still be completed prunes dead ends and
tells how many plans there are.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import islice, product
from operator import sub

# So many are listed at most; the count itself is exact.
MOST_LISTED = 20_000


@dataclass(frozen=True, slots=True)
class TrackerClass:
    """Trackers that are alike: their numbers, strings each takes, and the lengths legal on them.

    ``spans``: fewest and most in series, plane by plane; one stands for all planes.
    ``strings_max``: how many strings one takes, plane by plane; one stands for all.
    """

    numbers: tuple[int, ...]
    spans: tuple[tuple[int, int], ...]
    strings_max: tuple[int, ...]

    @property
    def longest(self) -> int:
        """The longest string of any plane."""
        return max(high for _, high in self.spans)

    def takes(self, plane: int, series: int) -> bool:
        """Return whether strings of a plane may be so long."""
        low, high = self.spans[plane if len(self.spans) > 1 else 0]
        return max(1, low) <= series <= high

    def strings_of(self, plane: int) -> int:
        """Return how many strings of a plane one takes."""
        return self.strings_max[plane if len(self.strings_max) > 1 else 0]

    @property
    def modules_max(self) -> int:
        """No more modules than this stand on one."""
        return self.longest * max(self.strings_max)


@dataclass(frozen=True, slots=True)
class PlanLoad:
    """Equal strings of one plane on one tracker (numbered from 1); planes count from 0."""

    tracker_number: int
    plane_index: int
    modules_in_series: int
    strings: int


Plan = tuple[PlanLoad, ...]
# Length, and strings of each plane.
_Option = tuple[int, tuple[int, ...]]


@dataclass(frozen=True, slots=True)
class Plans:
    """``plans`` in a fixed order, all of them unless ``total`` is more."""

    total: int
    plans: tuple[Plan, ...]


def legal_plans(
    counts: tuple[int, ...],
    classes: Sequence[TrackerClass],
    kinds: tuple[int, ...] = (),
    *,
    apart: bool = False,
    most: int = MOST_LISTED,
) -> Plans:
    """Return every plan that strings all modules within the lengths and strings allowed.

    Parameters
    ----------
    counts : tuple of int
        Modules on each plane.
    classes : sequence of TrackerClass
        Strings in parallel on one tracker are equally long; they may be of several planes.
    kinds : tuple of int
        The type of module on each plane; left out, one for all.  Types are not paralleled.
    apart : bool
        Only plans with each tracker's strings of one plane.
    most : int
        So many are listed at most; the count is exact.
    """
    options = [_options(counts, c, kinds, apart=apart) for c in classes]
    taken = [[tuple(series * k for k in strings) for series, strings in of] for of in options]
    on_one = [c.modules_max for c in classes]
    carried = [len(c.numbers) * most for c, most in zip(classes, on_one, strict=True)]
    # What the classes behind each can carry at most.
    beyond = [sum(carried[i + 1 :]) for i in range(len(classes))]

    def after(at: int) -> tuple[int, int, int]:
        """The state in which the class behind one begins."""
        following = at + 1
        return following, 0, len(classes[following].numbers) if following < len(classes) else 0

    @cache
    def ways(at: int, first: int, trackers: int, left: tuple[int, ...]) -> int:
        """Count how what is left can be strung by options from one on, and later classes."""
        if not any(left):
            return 1
        if at == len(classes):
            return 0
        if sum(left) > trackers * on_one[at] + beyond[at]:
            return 0
        total = ways(*after(at), left)
        if trackers and (at + 1 < len(classes) or _reached(options[at], first, left)):
            for index, rest in _steps(taken[at], first, left):
                total += ways(at, index, trackers - 1, rest)
        return total

    def build(
        at: int, first: int, trackers: int, left: tuple[int, ...], made: tuple[list[_Option], ...]
    ) -> Iterator[Plan]:
        if not any(left):
            yield _plan(made, classes)
            return
        if at == len(classes):
            return
        for index, rest in _steps(taken[at], first, left) if trackers else ():
            if ways(at, index, trackers - 1, rest):
                made[at].append(options[at][index])
                yield from build(at, index, trackers - 1, rest, made)
                made[at].pop()
        if ways(*after(at), left):
            yield from build(*after(at), left, made)

    if not classes or not any(counts):
        return Plans(0, ())
    begin = (0, 0, len(classes[0].numbers), counts)
    made: tuple[list[_Option], ...] = tuple([] for _ in classes)
    return Plans(ways(*begin), tuple(islice(build(*begin, made), most)))


def _options(
    counts: tuple[int, ...], trackers: TrackerClass, kinds: tuple[int, ...], *, apart: bool
) -> list[_Option]:
    """Return what one tracker of a class can carry, plane by plane, longest strings first.

    Those that serve the first plane come first: once they are passed it must be done.
    """
    found: list[_Option] = []
    for series in range(trackers.longest, 0, -1):
        most = [
            min(trackers.strings_of(plane), count // series) if trackers.takes(plane, series) else 0
            for plane, count in enumerate(counts)
        ]
        found += [
            (series, strings)
            for strings in product(*(range(m, -1, -1) for m in most))
            if any(strings)
            and _fit_together(strings, trackers)
            and _of_one_kind(strings, kinds)
            and not (apart and sum(map(bool, strings)) > 1)
        ]
    return sorted(found, key=lambda option: _first_plane(option[1]))


def _fit_together(strings: tuple[int, ...], trackers: TrackerClass) -> bool:
    """Whether a tracker takes so many strings of the planes together."""
    most = min(trackers.strings_of(plane) for plane, many in enumerate(strings) if many)
    return sum(strings) <= most


def _of_one_kind(strings: tuple[int, ...], kinds: tuple[int, ...]) -> bool:
    return len({kind for kind, many in zip(kinds, strings, strict=False) if many}) < 2


def _first_plane(strings: tuple[int, ...]) -> int:
    """Return the first plane that has any."""
    return next(plane for plane, count in enumerate(strings) if count)


def _reached(options: list[_Option], first: int, left: tuple[int, ...]) -> bool:
    """Whether options from one on can still serve the first plane that has modules left."""
    return first < len(options) and _first_plane(options[first][1]) <= _first_plane(left)


def _steps(
    taken: list[tuple[int, ...]], first: int, left: tuple[int, ...]
) -> Iterator[tuple[int, tuple[int, ...]]]:
    """Yield the options from one on that what is left allows, with what is left after them.

    ``taken``: modules of each plane that an option strings.
    """
    for index in range(first, len(taken)):
        for have, wanted in zip(left, taken[index], strict=True):
            if wanted > have:
                break
        else:
            yield index, tuple(map(sub, left, taken[index]))


def _plan(made: tuple[list[_Option], ...], classes: Sequence[TrackerClass]) -> Plan:
    return tuple(
        PlanLoad(number, plane, series, count)
        for options, trackers in zip(made, classes, strict=True)
        for number, (series, strings) in zip(trackers.numbers, options, strict=False)
        for plane, count in enumerate(strings)
        if count
    )


@dataclass(frozen=True, slots=True)
class Merits:
    """What speaks for a plan, the smaller the better.

    ``tight_strings``: strings closer to their voltage limit than the headroom wanted;
    ``mixed_trackers``: trackers with strings of several planes; ``off_centre_v``: volts between
    each string's and the middle of its tracker's window, summed.
    """

    tight_strings: int
    mixed_trackers: int
    strings: int
    lengths: int
    off_centre_v: float
    unused_trackers: int


def merits_of(
    plan: Plan,
    tight_from: Sequence[Sequence[int]],
    vmp_v: Sequence[float],
    centre_v: Sequence[float],
) -> Merits:
    """Return a plan's merits.

    Parameters
    ----------
    tight_from : sequence of sequences of int
        By tracker and plane, the length from which a string has less headroom than wanted.
    vmp_v : sequence of float
        The maximum-power voltage of a module, by plane.
    centre_v : sequence of float
        The middle of each tracker's window.
    """
    by_tracker: dict[int, set[int]] = {}
    for load in plan:
        by_tracker.setdefault(load.tracker_number, set()).add(load.plane_index)
    return Merits(
        tight_strings=sum(
            ld.strings
            for ld in plan
            if ld.modules_in_series >= tight_from[ld.tracker_number - 1][ld.plane_index]
        ),
        mixed_trackers=sum(len(planes) > 1 for planes in by_tracker.values()),
        strings=sum(ld.strings for ld in plan),
        lengths=len({ld.modules_in_series for ld in plan}),
        off_centre_v=sum(
            ld.strings
            * abs(ld.modules_in_series * vmp_v[ld.plane_index] - centre_v[ld.tracker_number - 1])
            for ld in plan
        ),
        unused_trackers=len(centre_v) - len(by_tracker),
    )
