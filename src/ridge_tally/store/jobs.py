"""Jobs and revisions as frozen values.  Every function takes a session and never commits."""

import re
import unicodedata
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import NewType

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from ridge_tally.core.errors import Conflict, NotFound
from ridge_tally.store.rows import JobRow, RevisionRow, YearRow

JobId = NewType("JobId", str)


@dataclass(frozen=True, slots=True)
class JobEntry:
    """A job in the list."""

    id: JobId
    name: str
    head: int
    saved_at: datetime
    archived: bool


@dataclass(frozen=True, slots=True)
class StoredYear:
    """What an option of a revision makes in a year."""

    revision: int
    energy_kwh: float


@dataclass(frozen=True, slots=True)
class Revision:
    """A stored document and its place in the history."""

    job_id: JobId
    number: int
    parent: int | None
    name: str
    document: str
    what: str
    author: str
    saved_at: datetime


@dataclass(frozen=True, slots=True)
class NewRevision:
    """What is to be stored as the next revision."""

    document: str
    name: str
    what: str
    author: str
    saved_at: datetime


def list_jobs(session: Session) -> tuple[JobEntry, ...]:
    """Return the jobs that are not deleted, newest change first."""
    rows = session.execute(
        select(JobRow.id, RevisionRow.name, JobRow.head, RevisionRow.saved_at, JobRow.archived_at)
        .join(RevisionRow, (RevisionRow.job_id == JobRow.id) & (RevisionRow.number == JobRow.head))
        .where(JobRow.deleted_at.is_(None))
        .order_by(RevisionRow.saved_at.desc(), JobRow.id)
    )
    return tuple(
        JobEntry(JobId(i), name, head, _utc(at), archived is not None)
        for i, name, head, at, archived in rows
    )


def add_job(session: Session, first: NewRevision) -> Revision:
    """Store a new job with its first revision; its id is made from its name."""
    job_id = _free_id(session, first.name)
    session.add(JobRow(id=job_id, head=1, deleted_at=None))
    session.flush()
    return _add(session, job_id, 1, None, first)


def head_of(session: Session, job_id: JobId) -> Revision:
    """Return the newest revision of a job; NotFound if it is not there or deleted."""
    return revision_of(session, job_id, _job(session, job_id).head)


def revision_of(session: Session, job_id: JobId, number: int) -> Revision:
    """Return one revision; NotFound if the job or the revision is not there."""
    row = session.scalar(
        select(RevisionRow)
        .join(JobRow, JobRow.id == RevisionRow.job_id)
        .where(JobRow.id == job_id, JobRow.deleted_at.is_(None), RevisionRow.number == number)
    )
    if row is None:
        _job(session, job_id)
        raise NotFound(f"revision of {job_id}", str(number))
    return _value(row)


def add_revision(session: Session, job_id: JobId, parent: int, new: NewRevision) -> Revision:
    """Store the document as the revision after `parent`; Conflict if another save came first.

    The head moves in one statement that names the head it read, so that of two saves from
    the same revision exactly one succeeds.
    """
    newest = select(func.max(RevisionRow.number)).where(RevisionRow.job_id == job_id)
    number = session.scalar(
        update(JobRow)
        .where(JobRow.id == job_id, JobRow.head == parent, JobRow.deleted_at.is_(None))
        .values(head=newest.scalar_subquery() + 1)
        .returning(JobRow.head)
        .execution_options(synchronize_session=False)
    )
    if number is None:
        _job(session, job_id)
        raise _conflict(session, job_id, parent)
    return _add(session, job_id, number, parent, new)


def step_back(session: Session, job_id: JobId, from_revision: int) -> Revision:
    """Move the head to its parent; Conflict if the head is another by now."""
    here = _require_head(session, job_id, from_revision)
    if here.parent is None:
        raise NotFound("earlier revision of", job_id)
    return _move(session, job_id, from_revision, here.parent)


def step_forward(session: Session, job_id: JobId, from_revision: int) -> Revision:
    """Move the head to its newest child; Conflict if the head is another by now."""
    _require_head(session, job_id, from_revision)
    child = next_of(session, job_id, from_revision)
    if child is None:
        raise NotFound("later revision of", job_id)
    return _move(session, job_id, from_revision, child)


def next_of(session: Session, job_id: JobId, number: int) -> int | None:
    """Return the newest revision made from this one, if any."""
    return session.scalar(
        select(func.max(RevisionRow.number)).where(
            RevisionRow.job_id == job_id, RevisionRow.parent == number
        )
    )


def set_deleted(session: Session, job_id: JobId, at: datetime | None) -> None:
    """Mark a job as deleted at a time, or as not deleted; NotFound if it never was."""
    row = session.get(JobRow, job_id)
    if row is None:
        raise NotFound("job", job_id)
    row.deleted_at = at


def set_archived(session: Session, job_id: JobId, at: datetime | None) -> None:
    """Put a job into the archive at a time, or take it out; NotFound if it is not there."""
    _job(session, job_id).archived_at = at


def keep_year(
    session: Session, job_id: JobId, revision: int, option_id: str, energy_kwh: float
) -> None:
    """Keep what an option of a revision makes in a year; NotFound if the job is not there."""
    _job(session, job_id)
    session.merge(
        YearRow(job_id=job_id, revision=revision, option_id=option_id, energy_kwh=energy_kwh)
    )


def year_of(session: Session, job_id: JobId, revision: int, option_id: str) -> StoredYear | None:
    """Return the year kept of an option: that of a revision, else of the last before it."""
    row = session.scalar(
        select(YearRow)
        .where(
            YearRow.job_id == job_id,
            YearRow.option_id == option_id,
            YearRow.revision <= revision,
        )
        .order_by(YearRow.revision.desc())
        .limit(1)
    )
    return None if row is None else StoredYear(row.revision, row.energy_kwh)


def _require_head(session: Session, job_id: JobId, number: int) -> Revision:
    if _job(session, job_id).head != number:
        raise _conflict(session, job_id, number)
    return revision_of(session, job_id, number)


def _move(session: Session, job_id: JobId, head: int, to: int) -> Revision:
    target = revision_of(session, job_id, to)
    moved = session.execute(
        update(JobRow)
        .where(JobRow.id == job_id, JobRow.head == head)
        .values(head=to)
        .returning(JobRow.id)
        .execution_options(synchronize_session=False)
    ).one_or_none()
    if moved is None:
        raise _conflict(session, job_id, head)
    return target


def _conflict(session: Session, job_id: JobId, parent: int) -> Conflict:
    head = head_of(session, job_id)
    return Conflict(head.name, parent, head.number)


def _job(session: Session, job_id: JobId) -> JobRow:
    row = session.get(JobRow, job_id, populate_existing=True)
    if row is None or row.deleted_at is not None:
        raise NotFound("job", job_id)
    return row


def _add(
    session: Session, job_id: JobId, number: int, parent: int | None, new: NewRevision
) -> Revision:
    row = RevisionRow(
        job_id=job_id,
        number=number,
        parent=parent,
        name=new.name,
        document=new.document,
        what=new.what,
        author=new.author,
        saved_at=new.saved_at,
    )
    session.add(row)
    session.flush()
    return _value(row)


def _value(row: RevisionRow) -> Revision:
    return Revision(
        job_id=JobId(row.job_id),
        number=row.number,
        parent=row.parent,
        name=row.name,
        document=row.document,
        what=row.what,
        author=row.author,
        saved_at=_utc(row.saved_at),
    )


def _utc(at: datetime) -> datetime:
    # SQLite keeps no zone; every time in it is UTC.
    return at.replace(tzinfo=UTC)


def _free_id(session: Session, name: str) -> JobId:
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    stem = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:60] or "job"
    taken = set(session.scalars(select(JobRow.id).where(JobRow.id.startswith(stem))))
    number = 1
    candidate = stem
    while candidate in taken:
        number += 1
        candidate = f"{stem}-{number}"
    return JobId(candidate)
