"""The legal string plans of an option, ranked, and every inverter of the shelf with its best."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.job.document import present_ids, strung_count
from ridge_tally.core.job.edits.strings.threading import UsePlan
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import ModuleString, Option
from ridge_tally.core.strings.plans import Merits, Plan, Plans, merits_of
from ridge_tally.core.strings.thread import Routing
from ridge_tally.editing.design import design_in
from ridge_tally.editing.strings.threading import planned_strings, threading_changed
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.plans import (
    LengthsTold,
    PlanSpace,
    lengths_told,
    plan_space,
    why_no_plan,
)
from ridge_tally.simulation.array_light import light_kept_frac
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.strings.asked_plan import told_plan
from ridge_tally.studies.strings.wiring import Threads, Wiring, loom_of, threaded

# So many plans are shown, and for so many of them a year is worked out.
SHOWN, WITH_YEAR = 12, 4

# By the year itself, so many of the best by the rest are looked at; by home runs, so many threaded.
BY_YEAR, BY_RUNS = 12, 1000

# Less than this share of a year is no reason to run threads another way.
LEAST_GAIN_FRAC = 0.001


class Objective(StrEnum):
    """What a person may put before everything else."""

    ENERGY = "energy"
    HEADROOM = "headroom"
    OWN_TRACKERS = "own-trackers"
    FEWEST_STRINGS = "fewest-strings"
    HOME_RUNS = "home-runs"
    MIDDLE = "middle"
    ALL_TRACKERS = "all-trackers"


@dataclass(frozen=True, slots=True)
class PlanView:
    """A plan with its merits; ``energy_kwh`` by the hour where a year was worked out.

    ``woven``: how its threads run, the best way where there is a year.  ``home_run_m``: cable from
    all ends to their boxes, ``None`` while a plane has none.  ``longest_step_m``: from one module
    to the next.  ``current``: the strings there are stand exactly so.
    """

    told: str
    woven: str
    merits: Merits
    energy_kwh: float | None
    home_run_m: float | None
    longest_step_m: float
    current: bool
    edit: UsePlan


@dataclass(frozen=True, slots=True)
class PlansReport:
    """Legal plans, best first; ``why_none`` where there is none.

    ``held_up``: what locked strings leave no place for, and what to do.  ``lengths``: every length of every
    type with its verdict, whatever the count of modules.
    """

    total: int
    plans: tuple[PlanView, ...]
    why_none: str
    held_up: str
    lengths: tuple[LengthsTold, ...]
    ranked_by: str


@dataclass(frozen=True, slots=True)
class Judged:
    """A plan of counts with its merits."""

    plan: Plan
    merits: Merits


# What counts after the wish, in this order; each the smaller the better.
ORDER = {
    Objective.OWN_TRACKERS: lambda m: m.mixed_trackers,
    Objective.HEADROOM: lambda m: m.tight_strings,
    Objective.FEWEST_STRINGS: lambda m: m.strings,
    Objective.MIDDLE: lambda m: m.off_centre_v,
    Objective.ALL_TRACKERS: lambda m: m.unused_trackers,
}

TITLES = {
    Objective.ENERGY: f"the year of the {BY_YEAR} that are best by the rest",
    Objective.OWN_TRACKERS: "planes on trackers of their own",
    Objective.HEADROOM: "strings with headroom under the voltage limit",
    Objective.FEWEST_STRINGS: "fewest strings",
    Objective.HOME_RUNS: "shortest home runs, row by row",
    Objective.MIDDLE: "strings near the middle of their window",
    Objective.ALL_TRACKERS: "no tracker unused",
}


def plans_report(
    desk: Desk,
    design: Design,
    first: Objective | None = None,
    shown: int = SHOWN,
) -> PlansReport:
    """Return the legal plans of an option, ranked by simple merits one after another.

    ``first`` is put before the others.  Unless that is the energy, the order is not one of
    energy: a year is worked out for the first few only, and told beside them.  ``shown``: so many
    at most.
    """
    space = plan_space(design)
    plans = space.plans()
    loom = loom_of(design)
    order = [o for o in (first, *(o for o in ORDER if o is not first)) if o is not None]
    ranked = ranked_plans(plans, space, [o for o in order if o in ORDER])
    if first is Objective.HOME_RUNS:
        ranked = sorted(ranked[:BY_RUNS], key=lambda j: _run_m(loom, space, j.plan))
    by_year = first is Objective.ENERGY
    years = BY_YEAR if by_year else WITH_YEAR
    light = light_kept_frac(desk, design) if plans.total else {}
    views = [
        _view(desk, design, loom, space, judged, light if number < years else None)
        for number, judged in enumerate(ranked[: years if by_year else shown])
    ]
    if by_year:
        views.sort(key=lambda v: -(v.energy_kwh or 0.0))
    return PlansReport(
        total=plans.total,
        plans=tuple(views),
        why_none="" if plans.total else why_no_plan(design, space),
        held_up=_held_up(design.option),
        lengths=lengths_told(design),
        ranked_by=", then ".join(TITLES[o] for o in order),
    )


def best_plans(design: Design, most: int) -> tuple[tuple[str, UsePlan], ...]:
    """Return the first legal plans of a design, threaded row by row, each with its words."""
    space, loom = plan_space(design), loom_of(design)
    ranked = ranked_plans(space.plans(), space, list(ORDER))[:most]
    return tuple(
        (
            told_plan(judged.plan, space),
            UsePlan(design.option.id, threaded(loom, space, judged.plan, Routing.ROWS, {}).strings),
        )
        for judged in ranked
    )


def _view(
    desk: Desk,
    design: Design,
    loom: Wiring,
    space: PlanSpace,
    judged: Judged,
    light: Mapping[PlacedId, float] | None,
) -> PlanView:
    """Return a plan as it is shown; with the light of the modules, its years in each weave."""
    told = told_plan(judged.plan, space)
    best, energy = threaded(loom, space, judged.plan, Routing.ROWS, {}), None
    if light is not None:
        energy = _energy_kwh(desk, design, best)
        for weave in (Routing.COLUMNS, Routing.LIGHT, Routing.DARK):
            other = threaded(loom, space, judged.plan, weave, light)
            kwh = _energy_kwh(desk, design, other)
            # Row by row unless another way gives more than a crew would notice.
            if kwh > energy * (1 + LEAST_GAIN_FRAC):
                best, energy = other, kwh
    edit = UsePlan(design.option.id, best.strings)
    return PlanView(
        told=told,
        woven=best.woven,
        merits=judged.merits,
        energy_kwh=energy,
        home_run_m=best.home_run_m,
        longest_step_m=best.longest_step_m,
        current=is_so(design.option, edit),
        edit=edit,
    )


def _run_m(loom: Wiring, space: PlanSpace, plan: Plan) -> float:
    return threaded(loom, space, plan, Routing.ROWS, {}).home_run_m or 0.0


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


def ranked_plans(plans: Plans, space: PlanSpace, order: list[Objective]) -> list[Judged]:
    judged = [
        Judged(plan, merits_of(plan, space.tight_from, space.vmp_v, space.centre_v))
        for plan in plans.plans
    ]

    def rank(item: Judged) -> tuple[float, ...]:
        return (*(float(ORDER[o](item.merits)) for o in order), float(item.merits.lengths))

    return sorted(judged, key=rank)


def is_so(option: Option, plan: UsePlan) -> bool:
    """Whether the strings there are hold the plan's modules on its trackers."""

    def held(strings: tuple[ModuleString, ...]) -> list[tuple[int, tuple[str, ...]]]:
        return sorted((s.tracker_number, tuple(sorted(s.module_ids))) for s in strings)

    return held(option.strings) == held(planned_strings(option, plan))


def _energy_kwh(desk: Desk, design: Design, threads: Threads) -> float:
    changed = threading_changed(design.job, UsePlan(design.option.id, threads.strings))
    return hourly_year(desk, design_in(changed, design.option.id)).energy_kwh
