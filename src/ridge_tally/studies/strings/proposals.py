"""Ways out of a design's troubles as edits, before anybody has judged what they give."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import pairwise, permutations

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import MicroinverterSheet, OptimizerKind, OptimizerSheet
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import present_ids, strings_on, with_option
from ridge_tally.core.job.edits.any_edit import RemedyStep, TakeRemedy
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics, FitOptimizers
from ridge_tally.core.job.edits.strings.inverters import AddInverter, ChooseInverter
from ridge_tally.core.job.edits.strings.threading import (
    JoinStrings,
    MoveString,
    PlanAnew,
    PlannedString,
    UsePlan,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import Option
from ridge_tally.core.strings.thread import serpentine
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for, design_in
from ridge_tally.editing.strings.inverters import with_sheet
from ridge_tally.rules.design import Design
from ridge_tally.rules.option_document import MOST_INVERTERS
from ridge_tally.rules.strings.limits import held_span
from ridge_tally.simulation.array_light import light_kept_frac
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.strings.own_point import darker_ids, unfit
from ridge_tally.studies.strings.plans import best_plans, is_so

# So many of the best plans are proposed, and so many modules fewer at most.
PLANS, MOST_FEWER = 3, 6


class RemedyKind(StrEnum):
    """The ways out, in the order practice tries them."""

    SPLIT = "split"
    OTHER_LENGTH = "other-length"
    IN_SERIES = "in-series"
    ADD_ON = "add-on-optimizers"
    SYSTEM = "system-optimizers"
    MICRO = "microinverters"
    INVERTER = "another-inverter"
    SECOND_INVERTER = "second-inverter"
    FEWER = "fewer-modules"
    PLAIN = "strings-alone"


@dataclass(frozen=True, slots=True)
class Proposal:
    """A way out: what it is called, the edits that make it, and its strings where they are planned."""

    kind: RemedyKind
    title: str
    steps: tuple[RemedyStep, ...]
    plan: str = ""

    def edit(self, option: Option) -> TakeRemedy:
        """Return it as one edit of an option."""
        return TakeRemedy(option.id, self.title, self.steps)


def proposals(desk: Desk, design: Design) -> Iterator[Proposal]:
    """Yield every way out there is for an option, whatever its troubles are."""
    if design.microinverter is None:
        yield from _split(design)
        yield from _in_series(design)
        yield from _other_lengths(design)
    yield from at_modules(desk, design)
    if design.microinverter is None:
        yield from _other_inverters(design, desk.shelf)
        yield from _fewer(desk, design)


def _split(design: Design) -> Iterator[Proposal]:
    """Each string that shares a tracker, to every other tracker."""
    option = design.option
    for tracker in design.trackers:
        mates = strings_on(option, tracker.number)
        if len(mates) < 2:
            continue
        for string in mates:
            for other in design.trackers:
                if other.number == tracker.number:
                    continue
                there = ", ".join(s.tag for s in strings_on(option, other.number))
                where = f"beside {there}" if there else "which is free"
                yield Proposal(
                    RemedyKind.SPLIT,
                    f"{_named(design, string.module_ids, string.tag)} to tracker "
                    f"{other.number}, {where}",
                    (MoveString(option.id, string.tag, other.number),),
                )


def _named(design: Design, module_ids: tuple[PlacedId, ...], tag: str) -> str:
    """Return a string with the planes it lies on: ``B (South-west roof)``."""
    return f"{tag} ({design.planes_under(module_ids)})"


def _in_series(design: Design) -> Iterator[Proposal]:
    option = design.option
    for tracker in design.trackers:
        for one, other in permutations(strings_on(option, tracker.number), 2):
            if one.tag < other.tag:
                together = len(one.module_ids) + len(other.module_ids)
                yield Proposal(
                    RemedyKind.IN_SERIES,
                    f"{one.tag} and {other.tag} in series: one string of {together}",
                    (JoinStrings(option.id, one.tag, other.tag),),
                )


def _other_lengths(design: Design) -> Iterator[Proposal]:
    for told, plan in best_plans(design, PLANS):
        if not is_so(design.option, plan):
            yield Proposal(RemedyKind.OTHER_LENGTH, told, (plan,))


def at_modules(desk: Desk, design: Design) -> Iterator[Proposal]:
    """Yield optimizers on the few dark or odd modules, on all, or a microinverter at each."""
    option, shelf = design.option, desk.shelf
    there = option.electronics.optimizer_id or option.electronics.microinverter_id
    if option.strings and design.microinverter is None and design.system is None:
        few = _few(desk, design)
        for unit in shelf.optimizers if few else ():
            if unit.kind is OptimizerKind.ADD_ON and not unfit(design, unit):
                yield Proposal(
                    RemedyKind.ADD_ON,
                    f"{len(few)} add-on optimizer{'s' if len(few) > 1 else ''} on "
                    "the dark or odd modules",
                    (
                        ChooseElectronics(option.id, Architecture.ADD_ON, unit.id),
                        FitOptimizers(option.id, few, on=True),
                    ),
                )
                break
    units: tuple[OptimizerSheet | MicroinverterSheet, ...] = (
        *shelf.optimizers,
        *shelf.microinverters,
    )
    for each in units:
        if each.id != there and not unfit(design, each):
            yield from _on_all(design, each, shelf)
    if there is not None:
        plain = ChooseElectronics(option.id, Architecture.STRINGS)
        yield Proposal(
            RemedyKind.PLAIN, "No module electronics, strings alone", (plain, PlanAnew(option.id))
        )


def _on_all(
    design: Design, unit: OptimizerSheet | MicroinverterSheet, shelf: Shelf
) -> Iterator[Proposal]:
    job, option = design.job, design.option
    if isinstance(unit, MicroinverterSheet):
        choose = ChooseElectronics(option.id, Architecture.MICRO, unit.id)
        yield Proposal(RemedyKind.MICRO, unit.name, (choose,))
    elif unit.kind is OptimizerKind.SYSTEM:
        choose = ChooseElectronics(option.id, Architecture.SYSTEM, unit.id)
        chosen = apply_edit(job, choose, shelf)
        held = design_in(chosen, option.id)
        plan = next((plan for _, plan in best_plans(held, 1)), None) or _across_planes(held)
        steps = (choose, PlanAnew(option.id) if plan is None else plan)
        yield Proposal(RemedyKind.SYSTEM, f"{unit.name} on every module", steps)


def _across_planes(design: Design) -> UsePlan | None:
    """Return strings held at a voltage over planes one after another: each module has its point."""
    span = held_span(design, design.module)
    ids = [m.id for a in design.option.arrays for m in serpentine(present_of(a))]
    if span is None or not ids:
        return None
    fewest, most = span
    count = -(-len(ids) // most)
    if len(ids) // count < fewest or count > len(design.trackers):
        return None
    ends = [len(ids) * n // count for n in range(count + 1)]
    strings = tuple(
        PlannedString(n, tuple(ids[start:end]))
        for n, (start, end) in enumerate(pairwise(ends), start=1)
    )
    return UsePlan(design.option.id, strings)


def _few(desk: Desk, design: Design) -> tuple[PlacedId, ...]:
    """Return the modules darker than their string, and those of the plane it has fewest of."""
    option = design.option
    dark = set(darker_ids(option, light_kept_frac(desk, design)))
    home = {m.id: a.plane_id for a in option.arrays for m in a.modules}
    odd: set[PlacedId] = set()
    for string in option.strings:
        planes = Counter(home[m] for m in string.module_ids)
        if len(planes) > 1:
            most = planes.most_common(1)[0][0]
            odd |= {m for m in string.module_ids if home[m] != most}
    return tuple(m for m in present_ids(option) if m in dark | odd)


def _other_inverters(design: Design, shelf: Shelf) -> Iterator[Proposal]:
    """Every inverter of the shelf with its best plan, alone, and beside what hangs there."""
    job, option, phases = design.job, design.option, design.job.survey.service.phases
    for sheet in shelf.inverters:
        if sheet.phases > phases:
            continue
        alone = replace(option, inverter_id=sheet.id, more_inverters=(), strings=())
        plan = _best(design_for(with_option(with_sheet(job, sheet), alone), alone))
        if plan is not None and option.inverter_id != sheet.id:
            choose = ChooseInverter(option.id, sheet.id)
            yield Proposal(RemedyKind.INVERTER, sheet.name, (choose, plan[1]), plan[0])
        if len(option.more_inverters) + 1 < MOST_INVERTERS:
            more = replace(option, more_inverters=(*option.more_inverters, sheet.id), strings=())
            plan = _best(design_for(with_option(with_sheet(job, sheet), more), more))
            if plan is not None:
                add = AddInverter(option.id, sheet.id)
                beside = f"{sheet.name} beside it"
                yield Proposal(RemedyKind.SECOND_INVERTER, beside, (add, plan[1]), plan[0])


def _best(design: Design) -> tuple[str, UsePlan] | None:
    return next(iter(best_plans(design, 1)), None)


def _fewer(desk: Desk, design: Design) -> Iterator[Proposal]:
    """The darkest modules off, of all or of one plane, as few as let the rest be strung legally."""
    job, option = design.job, design.option
    if not present_ids(option) or _best(design) is not None:
        return
    light = light_kept_frac(desk, design)
    groups = [present_ids(option), *(tuple(m.id for m in present_of(a)) for a in option.arrays)]
    for count in range(1, MOST_FEWER + 1):
        for group in groups:
            off = tuple(sorted(group, key=lambda m: light[m])[:count])
            if count >= len(group):
                continue
            toggle = ToggleModules(option.id, off)
            fewer = apply_edit(job, toggle, desk.shelf)
            plan = _best(design_in(fewer, option.id))
            if plan is not None:
                title = f"{count} module{'s' if count > 1 else ''} fewer"
                yield Proposal(RemedyKind.FEWER, title, (toggle, plan[1]), plan[0])
                return
