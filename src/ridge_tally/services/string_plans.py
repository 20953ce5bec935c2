"""The legal string plans of an option, ranked, and every inverter of the shelf with its best."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum

from ridge_tally.core.equipment import InverterId, InverterSheet
from ridge_tally.core.job.document import (
    Job,
    ModuleString,
    Option,
    option_of,
    present_ids,
    strung_count,
    with_option,
)
from ridge_tally.core.job.string_edits import PlannedStrings, UsePlan, Weave
from ridge_tally.core.strings.plans import Merits, Plan, Plans, legal_plans, merits_of
from ridge_tally.rules.string_plans import (
    LengthTold,
    PlanSpace,
    lengths_told,
    plan_space,
    why_no_plan,
)
from ridge_tally.services.editing import design_for
from ridge_tally.services.evaluation import hourly_year
from ridge_tally.services.string_editing import planned_strings, string_changed
from ridge_tally.services.workspace import Workspace

# So many plans are shown, and for so many of them a year is worked out.
SHOWN, WITH_YEAR = 12, 4
# Less than this share of a year is no reason to run threads another way.
LEAST_GAIN_FRAC = 0.001
WEAVES = {Weave.ROWS: "row by row", Weave.COLUMNS: "column by column"}


class Objective(StrEnum):
    """What a person may put before everything else."""

    HEADROOM = "headroom"
    OWN_TRACKERS = "own-trackers"
    FEWEST_STRINGS = "fewest-strings"
    MIDDLE = "middle"
    ALL_TRACKERS = "all-trackers"


@dataclass(frozen=True, slots=True)
class PlanView:
    """A plan with its merits; ``energy_kwh`` by the hour where a year was worked out.

    ``woven``: how its threads run, the better of two ways where there is a year.
    ``current``: the strings there are stand exactly so.
    """

    loads: tuple[PlannedStrings, ...]
    told: str
    woven: str
    merits: Merits
    energy_kwh: float | None
    current: bool
    edit: UsePlan


@dataclass(frozen=True, slots=True)
class PlansReport:
    """Legal plans, best first; ``why_none`` where there is none.

    ``held_up``: what locked strings leave no place for, and what to do.  ``lengths``: every length with its verdict, whatever the count of modules.
    """

    total: int
    plans: tuple[PlanView, ...]
    why_none: str
    held_up: str
    lengths: tuple[LengthTold, ...]
    ranked_by: str


@dataclass(frozen=True, slots=True)
class InverterPlan:
    """An inverter with the best of its plans for this array, or why it has none."""

    inverter_id: InverterId
    name: str
    p_ac_w: float
    loading: float
    total: int
    told: str
    legal: bool


@dataclass(frozen=True, slots=True)
class InverterPlans:
    """Inverters looked at so far, of how many."""

    found: tuple[InverterPlan, ...]
    of: int


ORDER = {
    Objective.OWN_TRACKERS: lambda m: m.mixed_trackers,
    Objective.HEADROOM: lambda m: m.tight_strings,
    Objective.FEWEST_STRINGS: lambda m: m.strings,
    Objective.MIDDLE: lambda m: m.off_centre_v,
    Objective.ALL_TRACKERS: lambda m: m.unused_trackers,
}
TITLES = {
    Objective.OWN_TRACKERS: "planes on trackers of their own",
    Objective.HEADROOM: "strings with headroom under the voltage limit",
    Objective.FEWEST_STRINGS: "fewest strings",
    Objective.MIDDLE: "strings near the middle of their window",
    Objective.ALL_TRACKERS: "no tracker unused",
}


def plans_report(
    workspace: Workspace, job: Job, option: Option, first: Objective | None = None
) -> PlansReport:
    """Return the legal plans of an option, ranked by simple merits one after another.

    ``first`` is put before the others.  The order is not one of energy: a year is worked out for
    the first few only, and told beside them.
    """
    design = design_for(job, option)
    space = plan_space(design)
    plans = legal_plans(space.counts, space.classes)
    order = [first, *(o for o in ORDER if o is not first)] if first else list(ORDER)
    views = []
    for number, (plan, merits) in enumerate(
        _ranked(plans, space, design.module.vmp_v, order)[:SHOWN]
    ):
        edit = UsePlan(option.id, _loads(plan, space))
        energy = None
        if number < WITH_YEAR:
            ways = [replace(edit, weave=weave) for weave in Weave]
            years = [_energy_kwh(workspace, job, way) for way in ways]
            # Row by row unless the other way gives more than a crew would notice.
            better = years[1] > years[0] * (1 + LEAST_GAIN_FRAC)
            edit, energy = (ways[1], years[1]) if better else (ways[0], years[0])
        views.append(
            PlanView(
                edit.loads,
                _told(plan, space),
                WEAVES[edit.weave],
                merits,
                energy,
                _is_so(option, edit),
                edit,
            )
        )
    return PlansReport(
        total=plans.total,
        plans=tuple(views),
        why_none="" if plans.total else why_no_plan(design, space),
        held_up=_held_up(option),
        lengths=lengths_told(design),
        ranked_by=", then ".join(TITLES[o] for o in order),
    )


def _held_up(option: Option) -> str:
    """Return which modules locked strings leave in no string; nothing where all are wired."""
    locked = [s.tag for s in option.strings if s.locked]
    loose = len(present_ids(option)) - strung_count(option)
    if not locked or loose == 0:
        return ""
    which = "1 module" if loose == 1 else f"{loose} modules"
    return (
        f"Locked as they are, {', '.join(locked)} leave no legal place for {which}: unlock or move "
        "one of them, thread the rest by hand, or use a plan below."
    )


def inverter_plans(
    job: Job, option: Option, inverters: tuple[InverterSheet, ...]
) -> Iterator[InverterPlans]:
    """Yield each inverter with its best plan as it is found, or with why it has none."""
    found: list[InverterPlan] = []
    yield InverterPlans((), len(inverters))
    for sheet in inverters:
        found.append(_on(job, option, sheet))
        yield InverterPlans(tuple(found), len(inverters))


def _on(job: Job, option: Option, sheet: InverterSheet) -> InverterPlan:
    others = tuple(i for i in job.equipment.inverters if i.id != sheet.id)
    equipment = replace(job.equipment, inverters=(*others, sheet))
    changed = with_option(replace(job, equipment=equipment), replace(option, inverter_id=sheet.id))
    design = design_for(changed, option_of(changed, option.id))
    space = plan_space(design)
    plans = legal_plans(space.counts, space.classes)
    if plans.total:
        best = _ranked(plans, space, design.module.vmp_v, list(ORDER))[0][0]
        told = _told(best, space)
    else:
        told = why_no_plan(design, space)
    dc_w = sum(space.counts) * design.module.p_max_w
    return InverterPlan(
        sheet.id, sheet.name, sheet.p_ac_w, dc_w / sheet.p_ac_w, plans.total, told, plans.total > 0
    )


def _ranked(
    plans: Plans, space: PlanSpace, vmp_v: float, order: list[Objective]
) -> list[tuple[Plan, Merits]]:
    judged = [
        (plan, merits_of(plan, space.trackers, space.tight_from, vmp_v, space.centre_v))
        for plan in plans.plans
    ]

    def rank(item: tuple[Plan, Merits]) -> tuple[float, ...]:
        return (*(float(ORDER[o](item[1])) for o in order), float(item[1].lengths))

    return sorted(judged, key=rank)


def _loads(plan: Plan, space: PlanSpace) -> tuple[PlannedStrings, ...]:
    return tuple(
        PlannedStrings(
            space.parts[ld.plane_index].plane_id,
            ld.tracker_number,
            ld.modules_in_series,
            ld.strings,
        )
        for ld in plan
    )


def _told(plan: Plan, space: PlanSpace) -> str:
    """Return a plan in words: ``South roof: 14 on tracker 1, 2 × 7 on tracker 2``."""
    by_plane: dict[int, list[str]] = {}
    for ld in plan:
        count = (
            f"{ld.strings} × {ld.modules_in_series}"
            if ld.strings > 1
            else f"{ld.modules_in_series}"
        )
        by_plane.setdefault(ld.plane_index, []).append(f"{count} on tracker {ld.tracker_number}")
    return "; ".join(
        f"{space.parts[p].name}: {', '.join(loads)}" for p, loads in sorted(by_plane.items())
    )


def _is_so(option: Option, plan: UsePlan) -> bool:
    """Whether the strings there are hold the plan's modules on its trackers."""

    def held(strings: tuple[ModuleString, ...]) -> list[tuple[int, tuple[str, ...]]]:
        return sorted((s.tracker_number, tuple(sorted(s.module_ids))) for s in strings)

    return held(option.strings) == held(planned_strings(option, plan))


def _energy_kwh(workspace: Workspace, job: Job, plan: UsePlan) -> float:
    changed = string_changed(job, plan)
    return hourly_year(workspace, changed, option_of(changed, plan.option_id)).energy_kwh
