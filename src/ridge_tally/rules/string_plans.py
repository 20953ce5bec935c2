"""Which string plans a design allows, and in one sentence why others are not legal."""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import groupby

from ridge_tally.core.equipment import TrackerSheet
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import plane_of
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.strings.plans import TrackerClass, legal_plans
from ridge_tally.core.strings.voltage import most_in_series
from ridge_tally.core.working import LimitKind
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings import (
    bright_cloud_factor,
    cold_limit,
    planning_voltages,
    shortest_on,
    strings_max,
)

# Less headroom than this under the voltage limit is worth a word; common practice, no source.
HEADROOM_FRAC = 0.02
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

    ``tight_from``: the length from which a string has less headroom than wanted;
    ``centre_v``: the middle of each tracker's window.
    """

    parts: tuple[PlanePart, ...]
    classes: tuple[TrackerClass, ...]
    trackers: int
    tight_from: int
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
    job, inverter = design.job, design.inverter
    parts = tuple(
        PlanePart(a.plane_id, plane_of(job, a.plane_id).name, len(present_of(a)))
        for a in design.option.arrays
        if present_of(a)
    )
    volts, (ceiling, _) = planning_voltages(design), cold_limit(design)
    assert ceiling.value is not None
    longest = most_in_series(volts.cold_open_v, ceiling.value)

    def alike(numbered: tuple[int, TrackerSheet]) -> tuple[int, int]:
        tracker = numbered[1]
        return shortest_on(design, volts, tracker), strings_max(design, tracker)

    ordered = sorted(enumerate(inverter.trackers, start=1), key=alike)
    classes = tuple(
        TrackerClass(tuple(number for number, _ in same), shortest, longest, most)
        for (shortest, most), same in groupby(ordered, key=alike)
    )
    return PlanSpace(
        parts=parts,
        classes=classes,
        trackers=len(inverter.trackers),
        tight_from=most_in_series(volts.cold_open_v, ceiling.value * (1 - HEADROOM_FRAC)) + 1,
        centre_v=tuple((t.v_min_v + t.v_max_v) / 2 for t in inverter.trackers),
    )


def length_told(design: Design, modules_in_series: int) -> LengthTold:
    """Return whether a string of that length may be wired to this inverter, with its numbers."""
    n, volts = modules_in_series, planning_voltages(design)
    ceiling, _ = cold_limit(design)
    assert ceiling.value is not None
    cold_v, hot_v, open_v = n * volts.cold_open_v, n * volts.hot_mp_v, n * volts.hot_open_v
    guessed = "" if design.coldest.value is not None else " (stand-in by climate)"
    at_cold = f"on a {_degc(design.coldest_planning_degc)} morning{guessed}"
    at_hot = f"with cells at {_degc(design.hottest_cell.value or 0)}"
    lowest_v = min(t.v_min_v for t in design.inverter.trackers)
    start_v = design.inverter.v_start_v
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
    inverter, factor = design.inverter, bright_cloud_factor(design)[0]
    one_a = factor * design.module.isc_a
    if not space.parts:
        return "No module is laid: there is nothing to string."
    limits = [t.isc_max_a for t in inverter.trackers if t.isc_max_a is not None]
    if len(limits) == len(inverter.trackers) and one_a > max(limits) * (1 + 1e-9):
        return (
            f"One string alone is {one_a:.1f} A short-circuited ({factor:g} × Isc); "
            f"no input takes more than {max(limits):g} A."
        )
    ceiling, _ = cold_limit(design)
    shortest = min(c.series_min for c in space.classes)
    longest = max(c.series_max for c in space.classes)
    at_cold = _degc(design.coldest_planning_degc)
    if longest < 1:
        return f"One module alone is over {ceiling.value:g} V at {at_cold}."
    if shortest > longest:
        return (
            f"Needs at least {shortest} modules in series to start and track with cells at "
            f"{_degc(design.hottest_cell.value or 0)}, but only {longest} stay under "
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


def _degc(value: float) -> str:
    return f"{value:g} °C".replace("-", "−")
