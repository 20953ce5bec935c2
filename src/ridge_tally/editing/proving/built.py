"""Applying the edits of what was built and of its serial numbers."""

from dataclasses import replace
from datetime import date

from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotFound, NotUnderstood
from ridge_tally.core.job.document import Job, month_first, option_of, present_ids
from ridge_tally.core.job.edits.proving.built import (
    BuiltEdit,
    DropSiteNote,
    MarkBuilt,
    NoteSiteChange,
    SetCorner,
    SetSerialPattern,
    SetSerials,
    SetUnitPort,
    SwapSerials,
    UnmarkBuilt,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.proving import (
    Built,
    Carries,
    ProvingLog,
    Serial,
    SerialPattern,
    SiteNote,
)
from ridge_tally.core.units import one_line
from ridge_tally.editing.rows import without_at

PORTS = ("A", "B")


def built_changed(job: Job, edit: BuiltEdit) -> ProvingLog:  # noqa: PLR0911 - one return an edit
    """Return the job's log with another built option, note or sticker.

    Raises
    ------
    NotUnderstood
        If a day cannot be read, or a port is neither A nor B.
    NotFound, MissingDatum, BadGeometry
        If nothing is built or there, or more stickers are given than places.
    """
    log = job.proving
    match edit:
        case MarkBuilt():
            return replace(log, built=_built(job, edit))
        case UnmarkBuilt():
            return replace(log, built=None)
        case NoteSiteChange():
            words = one_line(edit.words, "What was changed", "why it is not as drawn")
            if not words:
                raise MissingDatum("words", "The note", "Say what is otherwise, and why.")
            note = SiteNote(day_of(job, edit.day), _who(edit.who), words)
            built = _standing(log)
            return replace(log, built=replace(built, notes=(*built.notes, note)))
        case DropSiteNote():
            built = _standing(log)
            notes = without_at(built.notes, edit.at, "note of the site")
            return replace(log, built=replace(built, notes=notes))
        case SetCorner():
            return replace(log, corner=edit.corner)
        case SetSerialPattern():
            others = tuple(p for p in log.patterns if p.carries is not edit.carries)
            typed = one_line(edit.pattern, "Pattern", "# for a digit, @ for a letter")
            own = (SerialPattern(edit.carries, typed),) if typed else ()
            return replace(log, patterns=(*others, *own))
        case _:
            return replace(log, serials=_stuck(job, log, edit))


def _stuck(
    job: Job, log: ProvingLog, edit: SetSerials | SwapSerials | SetUnitPort
) -> tuple[Serial, ...]:
    match edit:
        case SetSerials():
            return _set(job, log, edit)
        case SwapSerials():
            return _swapped(log, edit)
        case SetUnitPort():
            if edit.port not in PORTS:
                raise NotUnderstood("Port", edit.port, "A or B")
            found = _found(log, Carries.UNIT, edit.place)
            if found is None:
                raise NotFound("serial number", edit.place)
            return _with(log.serials, replace(found, first_port=edit.port))


def day_of(job: Job, typed: str) -> date:
    """Return a day as it was typed; NotUnderstood if it is none."""
    return parse_day(typed, "Day", month_first=month_first(job))


def _who(typed: str) -> str:
    return one_line(typed, "Who", "a name")


def _built(job: Job, edit: MarkBuilt) -> Built:
    option = option_of(job, edit.option_id)
    if not present_ids(option):
        raise MissingDatum("module", f"Option {option.name}", "Lay some in the Array step first.")
    old = job.proving.built
    if old is not None and old.option_id != edit.option_id:
        raise BadGeometry(
            "Built",
            f"option “{old.drawn.name}” is marked built already",
            "Take that mark off first.",
        )
    return Built(option.id, edit.revision, day_of(job, edit.day), _who(edit.who), option)


def _standing(log: ProvingLog) -> Built:
    if log.built is None:
        raise MissingDatum("built option", "This job", "Mark the option that was built first.")
    return log.built


def _set(job: Job, log: ProvingLog, edit: SetSerials) -> tuple[Serial, ...]:
    if len(edit.texts) > len(edit.places):
        raise BadGeometry(
            "Serial numbers",
            f"{len(edit.texts)} are more than the {len(edit.places)} places left from here",
            "Begin at an earlier cell, or paste fewer.",
        )
    there = {m for o in job.options for m in present_ids(o)}
    serials = log.serials
    for place, typed in zip(edit.places, edit.texts, strict=False):
        if place not in there:
            raise NotFound("module", place)
        text = one_line(typed, "Serial number", "what the sticker says")
        old = _found(log, edit.carries, place)
        kept = tuple(s for s in serials if not (s.carries is edit.carries and s.place == place))
        port = old.first_port if old else ""
        serials = (*kept, Serial(edit.carries, place, text, port)) if text else kept
    return serials


def _swapped(log: ProvingLog, edit: SwapSerials) -> tuple[Serial, ...]:
    one, other = _found(log, edit.carries, edit.one), _found(log, edit.carries, edit.other)
    if one is None and other is None:
        raise NotFound("serial number", f"{edit.one}, {edit.other}")
    moved = {id(one): edit.other, id(other): edit.one}
    return tuple(replace(s, place=moved[id(s)]) if id(s) in moved else s for s in log.serials)


def _found(log: ProvingLog, carries: Carries, place: PlacedId) -> Serial | None:
    return next((s for s in log.serials if s.carries is carries and s.place == place), None)


def _with(serials: tuple[Serial, ...], changed: Serial) -> tuple[Serial, ...]:
    return tuple(
        changed if (s.carries, s.place) == (changed.carries, changed.place) else s for s in serials
    )
