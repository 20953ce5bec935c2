"""Which string plans a design allows, and in one sentence why others are not legal."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.strings.automatic import PlanInputs
from ridge_tally.core.strings.plans import Plans, TrackerClass, legal_plans
from ridge_tally.core.working import Given, LimitKind, degc_text, number_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.strings.limits import (
    bright_cloud_factor,
    cold_limit,
    held_span,
    longest_on,
    modules_of,
    overrun_from,
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
    """A plane with modules of a type: what is strung apart from the others."""

    plane_id: PlaneId
    name: str
    modules: int
    sheet: ModuleSheet


@dataclass(frozen=True, slots=True)
class PlanSpace:
    """What plans are made of.

    ``tight_from``: the length from which a string has less headroom than wanted, by tracker and
    part; ``centre_v``: the middle of each tracker's window.
    """

    parts: tuple[PlanePart, ...]
    classes: tuple[TrackerClass, ...]
    ground: PlanInputs
    trackers: int
    tight_from: tuple[tuple[int, ...], ...]
    centre_v: tuple[float, ...]

    @property
    def counts(self) -> tuple[int, ...]:
        """Modules on each plane."""
        return tuple(part.modules for part in self.parts)

    @property
    def kinds(self) -> tuple[int, ...]:
        """The type of module on each plane, by number."""
        sheets = [part.sheet for part in self.parts]
        return tuple(sheets.index(sheet) for sheet in sheets)

    @property
    def vmp_v(self) -> tuple[float, ...]:
        """The maximum-power voltage of a module on each plane."""
        return tuple(part.sheet.vmp_v for part in self.parts)

    def plans(self, counts: tuple[int, ...] | None = None) -> Plans:
        """Return every legal plan, of other counts of modules on the planes where they are given."""
        return legal_plans(self.counts if counts is None else counts, self.classes, self.kinds)

    def span(self, part: int) -> tuple[int, int]:
        """Return the shortest and longest string of a plane on any tracker."""
        spans = [c.spans[part] for c in self.classes]
        return min(low for low, _ in spans), max(high for _, high in spans)


@dataclass(frozen=True, slots=True)
class LengthTold:
    """Whether so many in series may be wired: the kind of limit they break, or none."""

    modules_in_series: int
    breaks: LimitKind | None
    told: str


def plan_space(design: Design, held: Sequence[ModuleString] = ()) -> PlanSpace:
    """Return what the plans of a design are made of; strings that are ``held`` stay as they are."""
    wired = {m for s in held for m in s.module_ids}
    taken = {s.tracker_number for s in held}
    trackers = tuple(t for t in design.trackers if t.number not in taken)
    free = [(a, sum(m.id not in wired for m in present_of(a.array))) for a in design.arrays]
    parts = tuple(
        PlanePart(a.plane.id, a.plane.name, count, a.module) for a, count in free if count
    )
    sheets = [part.sheet for part in parts] or [design.module]

    classes = _classes(design, trackers, sheets)
    return PlanSpace(
        parts=parts,
        classes=classes,
        ground=_ground(design, parts, classes, held),
        trackers=len(design.trackers),
        tight_from=tuple(
            tuple(
                longest_on(design, sheet, t, practice(Practice.HEADROOM_FRAC)) + 1
                for sheet in sheets
            )
            for t in design.trackers
        ),
        centre_v=tuple((t.sheet.v_min_v + t.sheet.v_max_v) / 2 for t in design.trackers),
    )


def _classes(
    design: Design, trackers: Sequence[TrackerInput], sheets: Sequence[ModuleSheet]
) -> tuple[TrackerClass, ...]:
    """Return the trackers in classes; those of another inverter or with other limits differ."""

    def limits(tracker: TrackerInput) -> tuple[tuple[tuple[int, int], ...], tuple[int, ...]]:
        spans = (
            (shortest_on(design, sheet, tracker), longest_on(design, sheet, tracker))
            for sheet in sheets
        )
        return tuple(spans), tuple(strings_max(design, sheet, tracker) for sheet in sheets)

    alike: dict[object, list[int]] = {}
    legal = {t.number: limits(t) for t in trackers}
    for tracker in sorted(trackers, key=lambda t: (legal[t.number], t.number)):
        key = (legal[tracker.number], tracker.unit_number, tracker.sheet)
        alike.setdefault(key, []).append(tracker.number)
    return tuple(TrackerClass(tuple(n), *legal[n[0]]) for n in alike.values())


def _ground(
    design: Design,
    parts: tuple[PlanePart, ...],
    classes: tuple[TrackerClass, ...],
    held: Sequence[ModuleString],
) -> PlanInputs:
    units = [t.unit_number - 1 for t in design.trackers]
    there_w = [0.0] * len(design.inverters)
    for string in held:
        watts = sum(design.sheets[m].p_max_w for m in string.module_ids)
        there_w[units[string.tracker_number - 1]] += watts
    sheets = tuple(part.sheet for part in parts)
    return PlanInputs(
        counts=tuple(part.modules for part in parts),
        kinds=tuple(sheets.index(sheet) for sheet in sheets),
        classes=classes,
        overrun_from=tuple(
            tuple(overrun_from(design, sheet, tracker) for sheet in sheets)
            for tracker in design.trackers
        ),
        unit_of=tuple(units),
        unit_ac_w=tuple(i.p_ac_w for i in design.inverters),
        unit_dc_w=tuple(there_w),
        module_w=tuple(sheet.p_max_w for sheet in sheets),
    )


def length_told(design: Design, sheet: ModuleSheet, modules_in_series: int) -> LengthTold:
    """Return whether so many of a module may be wired in series here, with its numbers."""
    held = held_span(design, sheet)
    if held is not None:
        return _held_told(held, modules_in_series)
    n, volts = modules_in_series, planning_voltages(design, sheet)
    # Of several inverters the one that takes the longest strings is told.
    ceiling = _highest_ceiling(design, sheet)
    cold_v, hot_v, open_v = n * volts.cold_open_v, n * volts.hot_mp_v, n * volts.hot_open_v
    guessed = "" if design.coldest.value is not None else " (stand-in by climate)"
    at_cold = f"on a {degc_text(design.coldest_planning_degc)} morning{guessed}"
    at_hot = f"with cells at {degc_text(design.hottest_cell.value or 0)}"
    lowest_v = min(t.sheet.v_min_v for t in design.trackers)
    start_v = min(i.v_start_v for i in design.inverters)
    if cold_v > number_of(ceiling) * (1 + 1e-9):
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


def _held_told(span: tuple[int, int], n: int) -> LengthTold:
    """Return whether so many optimizers may stand in a string the inverter holds."""
    fewest, most = span
    if n > most:
        return LengthTold(n, LimitKind.STOP, f"{n} in a string: its maker takes {most} at most")
    if n < fewest:
        return LengthTold(n, LimitKind.STOP, f"{n} in a string: its maker wants {fewest} at least")
    return LengthTold(n, None, f"{n} in a string fit, held at one voltage")


def _highest_ceiling(design: Design, sheet: ModuleSheet) -> Given:
    return max((cold_limit(design, i, (sheet,))[0] for i in design.inverters), key=number_of)


@dataclass(frozen=True, slots=True)
class LengthsTold:
    """What each length in series of a module comes to."""

    module: str
    lengths: tuple[LengthTold, ...]


def lengths_told(design: Design) -> tuple[LengthsTold, ...]:
    """Return for each type every length from one module to a few past the last that fits."""
    found = []
    for sheet in modules_of(design):
        longest = max(longest_on(design, sheet, t) for t in design.trackers)
        lengths = (length_told(design, sheet, n) for n in range(1, longest + BEYOND + 1))
        found.append(LengthsTold(sheet.name, tuple(lengths)))
    return tuple(found)


def why_no_plan(design: Design, space: PlanSpace) -> str:
    """Return in a sentence why no plan is legal: the first gate that fails, with its numbers.

    Stops come first, then the window, each plane's count, the trackers, their combination.
    """
    if not space.parts:
        return "No module is laid: there is nothing to string."
    for index, part in enumerate(space.parts):
        told = _why_no_string(design, space, index, part)
        if told:
            return told
    room = sum(len(c.numbers) * max(c.strings_max) for c in space.classes)
    needed = sum(-(-part.modules // space.span(i)[1]) for i, part in enumerate(space.parts))
    longest = max(space.span(i)[1] for i, _ in enumerate(space.parts))
    if needed > room:
        return (
            f"{_modules(sum(space.counts))} need at least {needed} strings of up to {longest}; "
            f"the inverter takes {room}."
        )
    return _why_no_combination(space)


def _why_no_string(design: Design, space: PlanSpace, index: int, part: PlanePart) -> str:
    """Return why the modules of a plane make no strings at all; empty where they do."""
    sheet, inputs = part.sheet, [t.sheet for t in design.trackers]
    factor = min(bright_cloud_factor(design, i) for i in design.inverters)
    factor *= rear_gain(design, sheet)
    one_a = factor * sheet.isc_a
    limits = [t.isc_max_a for t in inputs if t.isc_max_a is not None]
    # Optimizers pass on their own current, whatever the module could.
    if design.system is None and len(limits) == len(inputs) and one_a > max(limits) * (1 + 1e-9):
        return (
            f"One string alone is {one_a:.1f} A short-circuited ({factor:g} × Isc); "
            f"no input takes more than {max(limits):g} A."
        )
    ceiling, (shortest, longest) = _highest_ceiling(design, sheet), space.span(index)
    at_cold = degc_text(design.coldest_planning_degc)
    if longest < 1:
        return f"One module alone is over {ceiling.value:g} V at {at_cold}."
    if shortest > longest and design.system is not None:
        return f"A string wants {shortest} optimizers at least and takes {longest} at most."
    if shortest > longest:
        return (
            f"Needs at least {shortest} modules in series to start and track with cells at "
            f"{degc_text(design.hottest_cell.value or 0)}, but only {longest} stay under "
            f"{ceiling.value:g} V at {at_cold}."
        )
    if not _splits(part.modules, shortest, longest):
        near = _nearest(part.modules, lambda n: _splits(n, shortest, longest))
        return (
            f"{_modules(part.modules)} on {part.name} cannot be split into strings of "
            f"{shortest} to {longest}{_would(near)}."
        )
    return ""


def _why_no_combination(space: PlanSpace) -> str:
    """Return that nothing fits together, and which counts nearby would."""
    told = " + ".join(f"{part.modules} on {part.name}" for part in space.parts)
    spans = [space.span(i) for i, _ in enumerate(space.parts)]
    shortest, longest = min(low for low, _ in spans), max(high for _, high in spans)
    none = (
        f"No combination of strings of {shortest} to {longest} on {space.trackers} tracker(s) "
        f"holds exactly {told}"
    )
    for at, part in enumerate(space.parts):
        before, after = space.counts[:at], space.counts[at + 1 :]
        near = _nearest(
            part.modules,
            lambda n, b=before, a=after: space.plans((*b, n, *a)).total > 0,  # type: ignore[misc]
        )
        if near:
            where = f" on {part.name}" if len(space.parts) > 1 else ""
            return f"{none}; {' or '.join(map(str, near))}{where} would fit."
    return f"{none}."


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
