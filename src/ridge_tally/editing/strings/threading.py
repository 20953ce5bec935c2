"""Strings by hand: a plan taken, modules threaded, strings cut, joined, moved and locked."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.core.errors import BadGeometry, MissingDatum, NotFound, OutOfRange
from ridge_tally.core.job.document import Job, option_of, present_ids, with_option
from ridge_tally.core.job.edits.strings.threading import (
    CutString,
    JoinStrings,
    LockString,
    MoveString,
    PlanAnew,
    ReverseString,
    ThreadEdit,
    ThreadString,
    UsePlan,
    WishSeriesLength,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import ModuleString, Option
from ridge_tally.core.job.system import inverter_sheets_of, tracker_inputs
from ridge_tally.core.strings.thread import free_tag

MOST_IN_SERIES = 60


def threading_changed(job: Job, edit: ThreadEdit) -> Job:
    """Return the job after an edit of strings; what was touched by hand is locked.

    Raises
    ------
    NotFound, OutOfRange, MissingDatum, BadGeometry
        If a string, module or tracker is not there, or the edit leaves nothing of a string.
    """
    option = option_of(job, edit.option_id)
    if isinstance(edit, WishSeriesLength):
        return with_option(job, _wished(option, edit.modules_in_series))
    match edit:
        case UsePlan():
            strings = planned_strings(option, edit)
        case ThreadString():
            strings = _threaded(option, edit)
        case MoveString():
            strings = _with(
                option, replace(_found(option, edit.tag), tracker_number=edit.tracker_number)
            )
        case CutString():
            strings = _cut(option, edit)
        case JoinStrings():
            strings = _joined(option, edit)
        case ReverseString():
            string = _found(option, edit.tag)
            strings = _with(option, replace(string, module_ids=string.module_ids[::-1]))
        case LockString():
            strings = _with(option, _found(option, edit.tag), locked=edit.on)
        case PlanAnew():
            strings = ()
        case _:
            assert_never(edit)
    if isinstance(edit, ThreadString | MoveString):
        # Who joins others on a tracker means them to stay there.
        strings = tuple(
            replace(s, locked=True) if s.tracker_number == edit.tracker_number else s
            for s in strings
        )
    _require_trackers(strings, len(tracker_inputs(inverter_sheets_of(job, option))))
    return with_option(job, replace(option, strings=strings))


def _require_trackers(strings: tuple[ModuleString, ...], trackers: int) -> None:
    for string in strings:
        if not 1 <= string.tracker_number <= trackers:
            raise OutOfRange(
                f"Tracker of string {string.tag}",
                string.tracker_number,
                f"between 1 and {trackers}",
            )


def _wished(option: Option, wish: int | None) -> Option:
    if wish is not None and not 1 <= wish <= MOST_IN_SERIES:
        raise BadGeometry(
            "Modules in series",
            f"{wish} cannot be wired",
            f"Type 1 to {MOST_IN_SERIES}, or leave it empty.",
        )
    return replace(option, series_wish=wish)


def _found(option: Option, tag: str) -> ModuleString:
    for string in option.strings:
        if string.tag == tag:
            return string
    raise NotFound("string", tag)


def _with(
    option: Option, changed: ModuleString, *, locked: bool = True
) -> tuple[ModuleString, ...]:
    """Return the strings with one of them changed, locked or not."""
    return tuple(
        replace(changed, locked=locked) if s.tag == changed.tag else s for s in option.strings
    )


def planned_strings(option: Option, plan: UsePlan) -> tuple[ModuleString, ...]:
    """Return the strings of a plan, locked as it has them.

    Raises
    ------
    BadGeometry
        If a module of the plan is not there any more, or stands in two strings.
    """
    there, strings = set(present_ids(option)), list[ModuleString]()
    for planned in plan.strings:
        if not planned.module_ids or not there.issuperset(planned.module_ids):
            raise BadGeometry(
                "Plan",
                "it strings modules that are not there, or one of them twice",
                "Ask for the plans again: the array has changed.",
            )
        there -= set(planned.module_ids)
        tag = free_tag(s.tag for s in strings)
        strings.append(ModuleString(tag, planned.tracker_number, planned.module_ids, locked=True))
    return tuple(strings)


def _threaded(option: Option, edit: ThreadString) -> tuple[ModuleString, ...]:
    there, wanted = set(present_ids(option)), edit.module_ids
    if not wanted:
        raise MissingDatum("module", "The new string", "Click the modules in wiring order.")
    for module_id in wanted:
        if module_id not in there:
            raise NotFound("module", module_id)
    if len(set(wanted)) != len(wanted):
        raise BadGeometry("String", "a module stands in it twice", "Click each module once.")
    strings = _without(option.strings, set(wanted))
    tag = free_tag(s.tag for s in strings)
    return (*strings, ModuleString(tag, edit.tracker_number, wanted, locked=True))


def _without(strings: tuple[ModuleString, ...], taken: set[PlacedId]) -> tuple[ModuleString, ...]:
    """Return strings without some modules; those left empty are gone."""
    rest = (
        replace(s, module_ids=tuple(m for m in s.module_ids if m not in taken)) for s in strings
    )
    return tuple(s for s in rest if s.module_ids)


def _cut(option: Option, edit: CutString) -> tuple[ModuleString, ...]:
    string = _found(option, edit.tag)
    if edit.from_id not in string.module_ids:
        raise NotFound(f"module of string {edit.tag}:", edit.from_id)
    at = string.module_ids.index(edit.from_id)
    if at == 0:
        raise BadGeometry(
            f"String {edit.tag}", "cut before its first module nothing is left of it",
            "Cut it at a later module.",
        )  # fmt: skip
    first = replace(string, module_ids=string.module_ids[:at])
    tag = free_tag(s.tag for s in option.strings)
    second = ModuleString(tag, string.tracker_number, string.module_ids[at:], locked=True)
    return (*_with(option, first), second)


def _joined(option: Option, edit: JoinStrings) -> tuple[ModuleString, ...]:
    first, second = _found(option, edit.tag), _found(option, edit.other_tag)
    if first.tag == second.tag:
        raise BadGeometry(f"String {first.tag}", "it cannot follow itself", "Choose another one.")
    whole = replace(first, module_ids=first.module_ids + second.module_ids)
    return tuple(s for s in _with(option, whole) if s.tag != second.tag)
