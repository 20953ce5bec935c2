"""Applying the edits of what is wanted of a job, what goes along, what was sent and answered."""

from dataclasses import replace

from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import BadGeometry, MissingDatum
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.sheets.packet import (
    ClearPractice,
    DropFromLog,
    DropWanted,
    KeepWanted,
    PacketEdit,
    RecordPractice,
    RestoreWanted,
    WriteToLog,
)
from ridge_tally.core.job.packet import LogEntry, LogKind, Packet
from ridge_tally.core.units import one_line, parse_number
from ridge_tally.editing.rows import row_of, with_row, without_at
from ridge_tally.rules.sheets.packet import packet_of


def packet_changed(job: Job, edit: PacketEdit) -> Job:
    """Return the job with another wish, file or line of the log.

    Raises
    ------
    NotUnderstood
        If a day or a limit cannot be read.
    NotFound, MissingDatum, BadGeometry
        If there is no such wish or line; a limit without its kW; a line that is no practice.
    """
    paper = job.paperwork
    if isinstance(edit, KeepWanted | DropWanted | RestoreWanted):
        others = tuple(p for p in paper.packets if p.to is not edit.to)
        own = () if isinstance(edit, RestoreWanted) else (_wanted(packet_of(job, edit.to), edit),)
        return replace(job, paperwork=replace(paper, packets=(*others, *own)))
    return replace(job, paperwork=replace(paper, log=_logged(job, edit)))


def _wanted(packet: Packet, edit: KeepWanted | DropWanted) -> Packet:
    if isinstance(edit, DropWanted):
        gone = row_of(packet.wanted, edit.wanted_id, "wish")
        return replace(packet, wanted=tuple(w for w in packet.wanted if w is not gone))
    words = one_line(edit.wanted.words, "What they want", "what it is called")
    kept = replace(edit.wanted, words=words)
    if any(w.id == kept.id for w in packet.wanted):
        return replace(packet, wanted=with_row(packet.wanted, kept))
    return replace(packet, wanted=(*packet.wanted, kept))


def _logged(
    job: Job, edit: WriteToLog | RecordPractice | DropFromLog | ClearPractice
) -> tuple[LogEntry, ...]:
    log = job.paperwork.log
    match edit:
        case WriteToLog():
            return _in_order((*log, _typed(job, edit)))
        case RecordPractice():
            if any(not e.practice for e in edit.entries):
                raise BadGeometry(
                    "Practice", "a line is no practice", "Write it to the log itself."
                )
            return _in_order((*log, *edit.entries))
        case DropFromLog():
            return without_at(log, edit.at, "line of the log")
        case ClearPractice():
            return tuple(e for e in log if not e.practice)


def _in_order(entries: tuple[LogEntry, ...]) -> tuple[LogEntry, ...]:
    """Return lines by their days; those of one day as they were written."""
    return tuple(sorted(entries, key=lambda e: e.day))


def _typed(job: Job, edit: WriteToLog) -> LogEntry:
    day = parse_day(edit.day, "Day", month_first=month_first(job))
    limit = None
    if edit.what is LogKind.LIMITED:
        if not edit.limit.strip():
            raise MissingDatum(
                "limit, kW", "An approval with a limit", "Type how many kW may be sent out."
            )
        typed = edit.limit.lower().removesuffix("kw")
        limit = parse_number(typed, "Limit", "kW such as 5")
    return LogEntry(edit.to, edit.what, day, " ".join(edit.words.split()), limit)
