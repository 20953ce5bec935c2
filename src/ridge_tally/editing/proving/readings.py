"""Applying the edits of records, tests, searches, practice and production files."""

from dataclasses import replace
from typing import Any

from ridge_tally.core.errors import BadGeometry, MissingDatum
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.proving.readings import (
    AddReading,
    BeginPractice,
    DropProduction,
    DropReading,
    DropRecord,
    DropTest,
    EndPractice,
    GiveVerdict,
    NewHunt,
    ReadingEdit,
    SetHuntField,
    TakeReading,
    UseProduction,
    WriteRecord,
    WriteTests,
)
from ridge_tally.core.job.proving import (
    FaultHunt,
    FaultReading,
    Practice,
    ProofRow,
    ProvingLog,
    Record,
)
from ridge_tally.core.units import one_line
from ridge_tally.editing.proving.built import day_of
from ridge_tally.editing.rows import without_at


def readings_changed(job: Job, edit: ReadingEdit) -> ProvingLog:  # noqa: PLR0911 - one return an edit
    """Return the job's log with another record, reading or file; readings stay as they are typed.

    Raises
    ------
    NotUnderstood
        If a day cannot be read.
    NotFound, MissingDatum, BadGeometry
        If there is no such row, nothing was typed, or a practice is over.
    """
    log = job.proving
    match edit:
        case WriteRecord():
            return replace(log, records=(*log.records, _record(job, edit)))
        case DropRecord():
            return replace(log, records=without_at(log.records, edit.at, "record"))
        case WriteTests():
            return replace(log, tests=(*log.tests, *_tests(job, edit)))
        case DropTest():
            return replace(log, tests=without_at(log.tests, edit.at, "reading"))
        case UseProduction():
            others = tuple(f for f in log.production if f.sha256 != edit.file.sha256)
            return replace(log, production=(*others, edit.file))
        case DropProduction():
            return replace(log, production=without_at(log.production, edit.at, "file"))
        case BeginPractice() | TakeReading() | GiveVerdict() | EndPractice():
            return replace(log, practice=_practised(log, edit))
        case _:
            return replace(log, hunt=_hunted(log.hunt, edit))


def _record(job: Job, edit: WriteRecord) -> Record:
    return Record(
        slot=edit.slot,
        typed=_line(edit.typed, "Reading"),
        fine=edit.fine,
        tool=_line(edit.tool, "Tool"),
        who=_line(edit.who, "Who"),
        day=day_of(job, edit.day),
        note=_line(edit.note, "Note"),
        picture=edit.picture,
    )


def _tests(job: Job, edit: WriteTests) -> tuple[ProofRow, ...]:
    day, common = day_of(job, edit.day), _line(edit.who, "Who")
    rows = tuple(
        ProofRow(
            step=edit.step,
            place=place,
            typed=_line(typed, "Reading"),
            light=_line(edit.light, "Light"),
            back=_line(edit.back, "Back of a module"),
            time=_line(edit.time, "Time"),
            day=day,
            who=common,
            meter=_line(edit.meter, "Meter"),
            practice=edit.practice,
        )
        for place, typed in zip(edit.places, edit.typed, strict=False)
        if typed.strip()
    )
    if not rows:
        raise MissingDatum("reading", "This step", "Type what the meter shows.")
    return rows


def _hunted(hunt: FaultHunt, edit: SetHuntField | AddReading | DropReading | NewHunt) -> FaultHunt:
    match edit:
        case SetHuntField():
            typed = _line(edit.typed, edit.field.value.capitalize())
            changed: dict[str, Any] = {edit.field.value: typed}
            return replace(hunt, **changed)
        case AddReading():
            typed = _line(edit.typed, "Reading")
            if not typed:
                raise MissingDatum("reading", "This test", "Type what the instrument shows.")
            one = FaultReading(edit.reading, edit.place, typed, edit.practice)
            return replace(hunt, readings=(*hunt.readings, one))
        case DropReading():
            return replace(hunt, readings=without_at(hunt.readings, edit.at, "reading"))
        case NewHunt():
            return FaultHunt()


def _practised(
    log: ProvingLog, edit: BeginPractice | TakeReading | GiveVerdict | EndPractice
) -> Practice | None:
    if isinstance(edit, BeginPractice):
        return Practice(edit.seed)
    if isinstance(edit, EndPractice):
        return None
    practice = log.practice
    if practice is None:
        raise MissingDatum("practice", "This job", "Begin one first.")
    if practice.verdict:
        raise BadGeometry("Practice", "it has its verdict already", "Begin another.")
    if isinstance(edit, GiveVerdict):
        return replace(practice, verdict=_line(edit.verdict, "Verdict"))
    one = FaultReading(edit.reading, edit.place, "", practice=True)
    return replace(practice, taken=(*practice.taken, one))


def _line(typed: str, field: str) -> str:
    return one_line(typed, field, "a line of text")
