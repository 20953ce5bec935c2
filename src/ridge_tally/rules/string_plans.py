"""Which string plans a design allows, and in one sentence why others are not legal."""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import groupby

from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import TrackerInput, plane_of
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.strings.plans import TrackerClass, legal_plans
from ridge_tally.core.working import LimitKind, degc_text, number_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.string_limits import (
    HEADROOM_FRAC,
    bright_cloud_factor,
    cold_limit,
    longest_on,
    planning_voltages,
    rear_gain,
    shortest_on,
    strings_max,
)

# How far from a count nearest ones that fit are looked for.
NEAREST = 6
# Lengths told beyond the last that fits.
BEYOND = 2


@dataclass(frozen=True, slots=True)
class PlanePart:
    """A plane with modules: what is strung apart from the others."""

    plane_id: PlaneId
    name: str
    modules: int


@dataclass(frozen=True, slots=True)
class PlanSpace:
    """What plans are made of.

    ``tight_from``: the length from which a string has less headroom than wanted, by tracker;
    ``centre_v``: the middle of each tracker's window.
    """

    parts: tuple[PlanePart, ...]
    classes: tuple[TrackerClass, ...]
    trackers: int
    tight_from: tuple[int, ...]
    centre_v: tuple[float, ...]

    @property
    def counts(self) -> tuple[int, ...]:
        """Modules on each plane."""
        return tuple(part.modules for part in self.parts)


@dataclass(frozen=True, slots=True)
class LengthTold:
    """Whether so many in series may be wired: the kind of limit they break, or none."""

    modules_in_series: int
    breaks: LimitKind | None
    told: str


def plan_space(design: Design) -> PlanSpace:
    """Return what the plans of a design are made of."""
    job, trackers = design.job, design.trackers
    parts = tuple(
        PlanePart(a.plane_id, plane_of(job, a.plane_id).name, len(present_of(a)))
        for a in design.option.arrays
        if present_of(a)
    )
    volts = planning_voltages(design)

    def alike(tracker: TrackerInput) -> tuple[int, int, int]:
        longest = longest_on(design, volts, tracker)
        return shortest_on(volts, tracker), longest, strings_max(design, tracker)

    classes = tuple(
        TrackerClass(tuple(t.number for t in same), shortest, longest, most)
        for (shortest, longest, most), same in groupby(sorted(trackers, key=alike), key=alike)
    )
    return PlanSpace(
        parts=parts,
        classes=classes,
        trackers=len(trackers),
        tight_from=tuple(longest_on(design, volts, t, HEADROOM_FRAC) + 1 for t in trackers),
        centre_v=tuple((t.sheet.v_min_v + t.sheet.v_max_v) / 2 for t in trackers),
    )


def length_told(design: Design, modules_in_series: int) -> LengthTold:
    """Return whether a string of that length may be wired to this inverter, with its numbers."""
    n, volts = modules_in_series, planning_voltages(design)
    # Of several inverters the one that takes the longest strings is told.
    ceiling = max((cold_limit(design, i)[0] for i in design.inverters), key=number_of)
    assert ceiling.value is not None
    cold_v, hot_v, open_v = n * volts.cold_open_v, n * volts.hot_mp_v, n * volts.hot_open_v
    guessed = "" if design.coldest.value is not None else " (stand-in by climate)"
    at_cold = f"on a {degc_text(design.coldest_planning_degc)} morning{guessed}"
    at_hot = f"with cells at {degc_text(design.hottest_cell.value or 0)}"
    lowest_v = min(t.sheet.v_min_v for t in design.trackers)
    start_v = min(i.v_start_v for i in design.inverters)
    if cold_v > ceiling.value * (1 + 1e-9):
        told = (
            f"{n} in series: {cold_v:.0f} V {at_cold}, the {ceiling.label} is {ceiling.value:g} V"
        )
        return LengthTold(n, LimitKind.STOP, told)
    if hot_v < lowest_v * (1 - 1e-9):
        told = f"{n} in series: {hot_v:.0f} V {at_hot}, the tracker needs {lowest_v:g} V"
        return LengthTold(n, LimitKind.COSTS, told)
    if open_v < start_v * (1 - 1e-9):
        told = (
            f"{n} in series: opens at {open_v:.0f} V {at_hot}, the inverter starts at {start_v:g} V"
        )
        return LengthTold(n, LimitKind.COSTS, told)
    told = f"{n} in series fit: {cold_v:.0f} V {at_cold}, {hot_v:.0f} V {at_hot}"
    return LengthTold(n, None, told)


def lengths_told(design: Design) -> tuple[LengthTold, ...]:
    """Return every length from one module to a few past the last that fits."""
    longest = max(c.series_max for c in plan_space(design).classes)
    return tuple(length_told(design, n) for n in range(1, longest + BEYOND + 1))


def why_no_plan(design: Design, space: PlanSpace) -> str:  # noqa: PLR0911 - one return a gate
    """Return in a sentence why no plan is legal: the first gate that fails, with its numbers.

    Stops come first, then the window, each plane's count, the trackers, their combination.
    """
    inputs = [t.sheet for t in design.trackers]
    factor = min(bright_cloud_factor(design, i) for i in design.inverters)
    one_a = factor * rear_gain(design) * design.module.isc_a
    if not space.parts:
        return "No module is laid: there is nothing to string."
    limits = [t.isc_max_a for t in inputs if t.isc_max_a is not None]
    if len(limits) == len(inputs) and one_a > max(limits) * (1 + 1e-9):
        return (
            f"One string alone is {one_a:.1f} A short-circuited ({factor * rear_gain(design):g} × Isc); "
            f"no input takes more than {max(limits):g} A."
        )
    ceiling = max((cold_limit(design, i)[0] for i in design.inverters), key=number_of)
    shortest = min(c.series_min for c in space.classes)
    longest = max(c.series_max for c in space.classes)
    at_cold = degc_text(design.coldest_planning_degc)
    if longest < 1:
        return f"One module alone is over {ceiling.value:g} V at {at_cold}."
    if shortest > longest:
        return (
            f"Needs at least {shortest} modules in series to start and track with cells at "
            f"{degc_text(design.hottest_cell.value or 0)}, but only {longest} stay under "
            f"{ceiling.value:g} V at {at_cold}."
        )
    for part in space.parts:
        if not _splits(part.modules, shortest, longest):
            near = _nearest(part.modules, lambda n: _splits(n, shortest, longest))
            return (
                f"{_modules(part.modules)} on {part.name} cannot be split into strings of "
                f"{shortest} to {longest}{_would(near)}."
            )
    room = sum(len(c.numbers) * c.strings_max for c in space.classes)
    needed = sum(-(-part.modules // longest) for part in space.parts)
    if needed > room:
        return (
            f"{_modules(sum(space.counts))} need at least {needed} strings of up to {longest}; "
            f"the inverter takes {room}."
        )
    return _why_no_combination(space, shortest, longest)


def _why_no_combination(space: PlanSpace, shortest: int, longest: int) -> str:
    """Return that nothing fits together, and which counts nearby would."""
    told = " + ".join(f"{part.modules} on {part.name}" for part in space.parts)
    for at, part in enumerate(space.parts):
        before, after = space.counts[:at], space.counts[at + 1 :]
        near = _nearest(
            part.modules,
            lambda n, b=before, a=after: legal_plans((*b, n, *a), space.classes).total > 0,  # type: ignore[misc]
        )
        if near:
            where = f" on {part.name}" if len(space.parts) > 1 else ""
            return (
                f"No combination of strings of {shortest} to {longest} on {space.trackers} "
                f"tracker(s) holds exactly {told}; {' or '.join(map(str, near))}{where} would fit."
            )
    return (
        f"No combination of strings of {shortest} to {longest} on {space.trackers} tracker(s) "
        f"holds exactly {told}."
    )


def _splits(modules: int, shortest: int, longest: int) -> bool:
    """Whether a count is a sum of lengths allowed."""
    return any(k * shortest <= modules <= k * longest for k in range(1, modules + 1))


def _nearest(modules: int, fits: Callable[[int], bool]) -> tuple[int, ...]:
    """Return the nearest smaller and larger count that fit, none further than some."""
    down = next((n for n in range(modules - 1, max(0, modules - NEAREST) - 1, -1) if fits(n)), None)
    up = next((n for n in range(modules + 1, modules + NEAREST + 1) if fits(n)), None)
    return tuple(n for n in (down, up) if n)


def _would(near: tuple[int, ...]) -> str:
    return f"; {' or '.join(map(str, near))} would" if near else ""


def _modules(count: int) -> str:
    return "1 module" if count == 1 else f"{count} modules"
