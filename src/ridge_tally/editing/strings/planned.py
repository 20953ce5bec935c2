"""An option's strings planned and threaded anew where nobody locked them."""

from dataclasses import replace

from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.option import ModuleString, Option
from ridge_tally.core.strings.automatic import automatic_plan
from ridge_tally.core.strings.plans import PlanLoad
from ridge_tally.core.strings.thread import thread_strings
from ridge_tally.editing.design import design_for
from ridge_tally.rules.strings.plans import plan_space


def thread_option(job: Job, option: Option) -> Option:
    """Return the option with its strings planned and threaded anew, but for locked ones.

    A locked string keeps its order and its tracker, without modules that are gone; no other
    string is planned onto its tracker.
    """
    design = design_for(job, option)
    strings = _locked(option, len(design.trackers))
    wired = {m for s in strings for m in s.module_ids}
    space = plan_space(design, strings)
    plan = automatic_plan(space.ground, option.series_wish)
    free = {a.plane_id: [m for m in a.modules if m.id not in wired] for a in option.arrays}
    for index, part in enumerate(space.parts):
        loads = sorted((ld for ld in plan if ld.plane_index == index), key=_tracker_number)
        strings += thread_strings(free[part.plane_id], tuple(loads), strings)
    # By tag, so that a string keeps its place and its colour whoever else is wired.
    ordered = sorted(strings, key=lambda s: (len(s.tag), s.tag))
    there = set(present_ids(option))
    fitted = tuple(m for m in option.electronics.fitted if m in there)
    electronics = replace(option.electronics, fitted=fitted)
    return replace(option, strings=tuple(ordered), electronics=electronics)


def _tracker_number(load: PlanLoad) -> int:
    return load.tracker_number


def _locked(option: Option, trackers: int) -> tuple[ModuleString, ...]:
    """Return the locked strings, without modules that are gone; none of trackers that are gone."""
    there = set(present_ids(option))
    kept = (
        replace(s, module_ids=tuple(m for m in s.module_ids if m in there))
        for s in option.strings
        if s.locked and s.tracker_number <= trackers
    )
    return tuple(s for s in kept if s.module_ids)
