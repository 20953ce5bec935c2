"""Counts of a plan turned into threads over the roof, with their cables."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from ridge_tally.core.job.array import PlacedModule, present_of
from ridge_tally.core.job.edits.strings.threading import PlannedString
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.strings.plans import Plan
from ridge_tally.core.strings.runs import Spot, home_runs, spots_of, steps_m
from ridge_tally.core.strings.thread import Routing, leapfrogged, shared_out
from ridge_tally.rules.design import Design
from ridge_tally.rules.strings.leads import reach_m
from ridge_tally.rules.strings.plans import (
    PlanSpace,
)

# Less cable than this is no reason to jump every second module.
LEAST_SAVED_M = 2.0

WEAVES = {
    Routing.ROWS: "row by row",
    Routing.COLUMNS: "column by column",
    Routing.LIGHT: "like light together",
    Routing.DARK: "like light together",
}


@dataclass(frozen=True, slots=True)
class Threads:
    """A plan as strings of modules, how they are shared out, and their cables."""

    strings: tuple[PlannedString, ...]
    woven: str
    home_run_m: float | None
    longest_step_m: float


@dataclass(frozen=True, slots=True)
class Wiring:
    """What turns counts into threads: modules by plane with their places, and what leads reach."""

    option: Option
    modules: Mapping[PlaneId, tuple[PlacedModule, ...]]
    spots: Mapping[PlacedId, Spot]
    reach_m: float | None


def loom_of(design: Design) -> Wiring:
    """Return what turns counts of a design into threads."""
    option = design.option
    return Wiring(
        option,
        {a.plane_id: present_of(a) for a in option.arrays},
        spots_of(design),
        reach_m(design),
    )


def threaded(
    loom: Wiring, space: PlanSpace, plan: Plan, weave: Routing, light: Mapping[PlacedId, float]
) -> Threads:
    """Return a plan's strings; each leaps every second module where that saves cable.

    A leap is only taken as far as the module's own leads reach.
    """
    strings: list[PlannedString] = []
    for index, part in enumerate(space.parts):
        loads = [ld for ld in plan if ld.plane_index == index for _ in range(ld.strings)]
        lengths = [ld.modules_in_series for ld in loads]
        ids = shared_out(loom.modules[part.plane_id], lengths, weave, light)
        strings += [PlannedString(ld.tracker_number, i) for ld, i in zip(loads, ids, strict=True)]
    leapt = [replace(s, module_ids=leapfrogged(s.module_ids)) for s in strings]
    straight_m, leapt_m = _runs_m(loom, strings), _runs_m(loom, leapt)
    woven = WEAVES[weave]
    saved_m = 0.0 if straight_m is None or leapt_m is None else straight_m - leapt_m
    # Ends side by side want one run for both, and no way back over the roof.
    if saved_m > LEAST_SAVED_M and all(_reached(loom, s) for s in leapt):
        strings, straight_m, woven = leapt, leapt_m, f"{woven}, every second one back"
    return Threads(
        tuple(strings),
        woven,
        straight_m,
        max((_longest_step_m(loom, s) for s in strings), default=0.0),
    )


def _reached(loom: Wiring, string: PlannedString) -> bool:
    steps, reach = steps_m(string.module_ids, loom.spots), loom.reach_m
    return reach is not None and all(s is not None and s <= reach * (1 + 1e-9) for s in steps)


def _longest_step_m(loom: Wiring, string: PlannedString) -> float:
    return max((s or 0.0 for s in steps_m(string.module_ids, loom.spots)), default=0.0)


def _runs_m(loom: Wiring, strings: list[PlannedString]) -> float | None:
    """Return the home runs of strings; ``None`` while an end has no box on its plane."""
    tagged = [("", s.module_ids) for s in strings]
    runs = home_runs(tagged, loom.spots, loom.option.boxes)
    return sum(r.length_m for r in runs) if len(runs) == 2 * len(strings) else None
