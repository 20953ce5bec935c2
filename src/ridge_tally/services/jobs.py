"""Use cases on jobs: open, create, change, undo, copy, delete, export, import."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import date, datetime

from ridge_tally.core.errors import Conflict, FormatError, NotFound, NotWorkedOut
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.survey.planes import PlaneShape
from ridge_tally.core.survey.scene import Scene, scene_of
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.blank_job import blank_job
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.describe import describe_edit
from ridge_tally.formats import job_bundle
from ridge_tally.formats.job_bundle import is_bundle, read_bundle, write_bundle
from ridge_tally.formats.job_file import SUFFIX, JobFile, read_job, stored_job, write_job
from ridge_tally.rules.document import require_sound
from ridge_tally.services.figures import Figures, figures_of
from ridge_tally.services.kept_files import packed_with, unpacked
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulators.weather_service import climate
from ridge_tally.store import jobs as store
from ridge_tally.store.database import reading, transaction
from ridge_tally.store.jobs import JobEntry, JobId, NewRevision, Revision
from ridge_tally.views.brief.report import BriefReport
from ridge_tally.views.option import OptionReport
from ridge_tally.views.survey.drawings import SurveyReport

# So many steps back are offered to be held against.
MOST_EARLIER = 30
RETRY = "Choose a climate type there is, or export the job again. Nothing was imported."


@dataclass(frozen=True, slots=True)
class JobState:
    """A job at one revision with the fast report of each option.

    ``problem`` says what of it could not be worked out; such a part is missing.
    """

    job_id: str
    revision: int
    is_newest: bool
    saved_at: datetime
    undo: str
    redo: bool
    job: Job
    problem: str
    brief: BriefReport | None
    survey: SurveyReport | None
    reports: tuple[OptionReport, ...]


@dataclass(frozen=True, slots=True)
class Earlier:
    """A revision, what was done next, and when it was saved."""

    revision: int
    before: str
    saved_at: datetime


def site_scene(workspace: Workspace, job_id: JobId, revision: int) -> Scene:
    """Return the site of a revision as solids, to be looked at."""
    return scene_of(load_job(workspace, job_id, revision).survey)


def list_jobs(workspace: Workspace) -> tuple[JobEntry, ...]:
    """Return the jobs that are not deleted, newest change first."""
    with reading(workspace.sessions) as session:
        return store.list_jobs(session)


def open_job(workspace: Workspace, job_id: JobId, revision: int | None = None) -> JobState:
    """Return a job at its newest or at a named revision; NotFound if it is not there."""
    with reading(workspace.sessions) as session:
        head = store.head_of(session, job_id)
        found = head if revision is None else store.revision_of(session, job_id, revision)
        later = store.next_of(session, job_id, found.number) is not None
    job = _document(workspace, found)
    return _state(found, job, figures_of(job), later=later, is_newest=found.number == head.number)


def load_job(workspace: Workspace, job_id: JobId, revision: int | None = None) -> Job:
    """Return a job's document alone, without the reports; NotFound if it is not there."""
    with reading(workspace.sessions) as session:
        if revision is None:
            return _document(workspace, store.head_of(session, job_id))
        return _document(workspace, store.revision_of(session, job_id, revision))


def saved_on(workspace: Workspace, job_id: JobId, revision: int) -> date:
    """Return the day a revision was saved, UTC; NotFound if it is not there."""
    with reading(workspace.sessions) as session:
        return store.revision_of(session, job_id, revision).saved_at.date()


def earlier(workspace: Workspace, job_id: JobId, revision: int) -> tuple[Earlier, ...]:
    """Return the revisions a job's revision came from, newest first; NotFound if it is not there."""
    found: list[Earlier] = []
    with reading(workspace.sessions) as session:
        here = store.revision_of(session, job_id, revision)
        while here.parent is not None and len(found) < MOST_EARLIER:
            before = store.revision_of(session, job_id, here.parent)
            found.append(Earlier(before.number, here.what, before.saved_at))
            here = before
    return tuple(found)


def create_job(
    workspace: Workspace,
    name: str,
    unit: LengthUnit,
    author: str,
    begins: PlaneShape = PlaneShape.GABLE,
) -> JobState:
    """Store a new job with one plane to be measured over, and return it."""
    day = workspace.clock().date()
    job = blank_job(workspace.desk.shelf, name.strip(), unit, day, begins)
    return store_job(workspace, job, "create job", author)


def store_job(workspace: Workspace, job: Job, what: str, author: str) -> JobState:
    """Store a document as a new job.

    Raises
    ------
    OutOfRange, BadGeometry, MissingDatum, NotFound, NotWorkedOut
        If the document contradicts itself or cannot be worked out; nothing is stored then.
    """
    require_sound(job)
    climate(job.site.climate_id)
    figures = figures_of(job)
    if figures.problem:
        raise NotWorkedOut(what, figures.problem)
    return _stored(workspace, job, figures, what, author)


def _stored(workspace: Workspace, job: Job, figures: Figures, what: str, author: str) -> JobState:
    """Store a document as a new job whatever can be worked out of it, and return it."""
    with transaction(workspace.sessions) as session:
        first = store.add_job(session, _new(workspace, job, what, author))
    return _state(first, job, figures, later=False, is_newest=True)


def duplicate_job(workspace: Workspace, job_id: JobId, author: str) -> JobState:
    """Store a copy of a job's newest revision under a name of its own."""
    job = load_job(workspace, job_id)
    copy = replace(job, name=f"{job.name[:70]} (copy)")
    return _stored(workspace, copy, figures_of(copy), f"copy of {job_id}", author)


def save_edit(
    workspace: Workspace, job_id: JobId, parent: int, edit: Edit, author: str
) -> JobState:
    """Apply an edit to the revision the person saw and store the result after it.

    Raises
    ------
    Conflict
        If another save came first; this one is kept as a job of its own, named in the error.
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound, NotWorkedOut
        If the edit cannot be, or what it makes cannot be worked out; nothing is stored then.
    """
    with reading(workspace.sessions) as session:
        seen = _document(workspace, store.revision_of(session, job_id, parent))
    job, what = apply_edit(seen, edit, workspace.desk.shelf), describe_edit(edit)
    figures = figures_of(job)
    if figures.problem and not figures_of(seen).problem:
        raise NotWorkedOut(what, figures.problem)
    new = _new(workspace, job, what, author)
    try:
        with transaction(workspace.sessions) as session:
            saved = store.add_revision(session, job_id, parent, new)
    except Conflict as conflict:
        newest = open_job(workspace, job_id)
        if newest.job == job:
            # Sent again because the answer was lost on its way: it is saved already.
            return newest
        raise _kept_beside(workspace, job, figures, conflict, author) from None
    return _state(saved, job, figures, later=False, is_newest=True)


def _kept_beside(
    workspace: Workspace, job: Job, figures: Figures, conflict: Conflict, author: str
) -> Conflict:
    """Store the losing side as a sibling job and return the conflict that names it."""
    name = f"{job.name[:50]} (other tab, {workspace.clock():%H:%M:%S} UTC)"
    kept = replace(job, name=name)
    sibling = _stored(workspace, kept, figures, "kept from a conflict", author)
    return replace(conflict, kept_as=name, kept_job_id=sibling.job_id)


def undo(workspace: Workspace, job_id: JobId, from_revision: int) -> JobState:
    """Step back to the revision before; Conflict if the job has moved on elsewhere."""
    return _step(workspace, job_id, from_revision, store.step_back)


def redo(workspace: Workspace, job_id: JobId, from_revision: int) -> JobState:
    """Step forward again; Conflict if the job has moved on elsewhere."""
    return _step(workspace, job_id, from_revision, store.step_forward)


def _step(
    workspace: Workspace,
    job_id: JobId,
    from_revision: int,
    move: Callable[..., Revision],
) -> JobState:
    with transaction(workspace.sessions) as session:
        found = move(session, job_id, from_revision)
        later = store.next_of(session, job_id, found.number) is not None
    job = _document(workspace, found)
    return _state(found, job, figures_of(job), later=later, is_newest=True)


def delete_job(workspace: Workspace, job_id: JobId) -> None:
    """Take a job off the list; ``restore_job`` brings it back whole."""
    with transaction(workspace.sessions) as session:
        store.head_of(session, job_id)
        store.set_deleted(session, job_id, workspace.clock())


def restore_job(workspace: Workspace, job_id: JobId) -> JobState:
    """Bring a deleted job back."""
    with transaction(workspace.sessions) as session:
        store.set_deleted(session, job_id, None)
    return open_job(workspace, job_id)


def export_job(
    workspace: Workspace, job_id: JobId, revision: int | None = None
) -> tuple[bytes, str]:
    """Return the job file of a revision, the newest if none is named, and its suffix: a zip with files."""
    job = load_job(workspace, job_id, revision)
    text, files = write_job(job), packed_with(workspace, job)
    if not files:
        return text.encode(), SUFFIX
    return write_bundle(text, files), job_bundle.SUFFIX


def import_job(workspace: Workspace, content: bytes, file: str, author: str) -> JobState:
    """Store the job of a job file, or of a zip with its files, as a new job.

    Raises
    ------
    FormatError
        With the place and the problem; nothing is stored then.
    """
    files: dict[str, bytes] = {}
    if is_bundle(content):
        content, files = read_bundle(content, file)
    job = read_job(content, file)
    try:
        climate(job.site.climate_id)
    except NotFound as error:
        raise FormatError(file, "job.site.climate_id", str(error).rstrip("."), RETRY) from None
    unpacked(workspace, files, file)
    return store_job(workspace, job, f"import of {file}"[:120], author)


def _new(workspace: Workspace, job: Job, what: str, author: str) -> NewRevision:
    document = JobFile(job=job).model_dump_json()
    # The next edit begins from it: what it leaves alone stays the same thing.
    workspace.documents.get(document, lambda: job)
    return NewRevision(document, job.name, what[:120], author[:64], workspace.clock())


def _document(workspace: Workspace, revision: Revision) -> Job:
    return workspace.documents.get(revision.document, lambda: stored_job(revision.document))


def _state(
    revision: Revision, job: Job, figures: Figures, *, later: bool, is_newest: bool
) -> JobState:
    return JobState(
        job_id=revision.job_id,
        revision=revision.number,
        is_newest=is_newest,
        saved_at=revision.saved_at,
        undo=revision.what if revision.parent is not None else "",
        redo=later,
        job=job,
        problem=figures.problem,
        brief=figures.brief,
        survey=figures.survey,
        reports=figures.reports,
    )
