"""An option's strings planned and threaded anew where nobody locked them."""

from dataclasses import replace

from ridge_tally.core.job.document import (
    Job,
    ModuleString,
    Option,
    module_on,
    present_ids,
)
from ridge_tally.core.strings.plan import StringLimits, plan_planes
from ridge_tally.core.strings.thread import thread_strings
from ridge_tally.editing.design import design_for
from ridge_tally.rules.strings.limits import string_limits


def thread_option(job: Job, option: Option) -> Option:
    """Return the option with its strings planned and threaded anew, but for locked ones.

    A locked string keeps its order and its tracker, without modules that are gone; no other
    string is planned onto its tracker.
    """
    design = design_for(job, option)
    strings = _locked(option, len(design.trackers))
    wired = {m for s in strings for m in s.module_ids}
    free = {
        a.plane_id: tuple(m for m in a.modules if m.present and m.id not in wired)
        for a in option.arrays
    }
    free = {plane_id: modules for plane_id, modules in free.items() if modules}
    if free:
        taken = {s.tracker_number for s in strings}
        limits = [
            _with_room(string_limits(design, module_on(job, option, plane_id)), taken)
            for plane_id in free
        ]
        counts = tuple(len(modules) for modules in free.values())
        plans = plan_planes(counts, limits, option.series_wish)
        for modules, plan in zip(free.values(), plans, strict=True):
            strings += thread_strings(modules, plan, strings)
    # By tag, so that a string keeps its place and its colour whoever else is wired.
    ordered = sorted(strings, key=lambda s: (len(s.tag), s.tag))
    there = set(present_ids(option))
    fitted = tuple(m for m in option.electronics.fitted if m in there)
    electronics = replace(option.electronics, fitted=fitted)
    return replace(option, strings=tuple(ordered), electronics=electronics)


def _with_room(limits: StringLimits, taken: set[int]) -> StringLimits:
    """Return limits without the trackers that are taken."""
    room = tuple(
        0 if number in taken else most for number, most in enumerate(limits.strings_max, start=1)
    )
    return replace(limits, strings_max=room)


def _locked(option: Option, trackers: int) -> tuple[ModuleString, ...]:
    """Return the locked strings, without modules that are gone; none of trackers that are gone."""
    there = set(present_ids(option))
    kept = (
        replace(s, module_ids=tuple(m for m in s.module_ids if m in there))
        for s in option.strings
        if s.locked and s.tracker_number <= trackers
    )
    return tuple(s for s in kept if s.module_ids)
