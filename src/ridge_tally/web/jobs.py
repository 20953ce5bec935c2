"""Routes of jobs: thin, one service call each."""

from flask import Response

from ridge_tally.core.survey.scene import Scene
from ridge_tally.formats.job_file import SUFFIX
from ridge_tally.services import cards, jobs
from ridge_tally.services.jobs import JobState
from ridge_tally.services.sample_jobs import store_sample
from ridge_tally.store.jobs import JobId
from ridge_tally.views.card import JobCard
from ridge_tally.web.at import workspace
from ridge_tally.web.models import (
    Archived,
    Deleted,
    EditRequest,
    Found,
    JobList,
    JobListEntry,
    JobPath,
    NewJob,
    RevisionPath,
    RevisionQuery,
    SamplePath,
    StepRequest,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out, sent_file

bp = Routes("jobs", __name__, url_prefix="/api/jobs")
OTHER_PROGRAM = "api"


@bp.get("", operation_id="list_jobs", responses={200: JobList})
def get_jobs() -> JobList:
    """All jobs, newest change first."""
    entries = jobs.list_jobs(workspace())
    return JobList(
        jobs=[
            JobListEntry(
                id=e.id,
                name=e.name,
                revision=e.head,
                saved_at=e.saved_at,
                archived=e.archived,
            )
            for e in entries
        ]
    )


@bp.post("", operation_id="create_job", responses={201: Found[JobState]})
def post_job(body: NewJob) -> tuple[Found[JobState], int]:
    """A new job with one plane to measure over."""
    return Found[JobState](
        found=jobs.create_job(workspace(), body.name, body.unit, OTHER_PROGRAM, body.begins)
    ), 201


@bp.post("/import", operation_id="import_job", responses={201: Found[JobState]})
def post_import() -> tuple[Found[JobState], int]:
    """A job from a job file sent as the body; its name comes percent-encoded in X-File-Name."""
    return Found[JobState](
        found=jobs.import_job(workspace(), *sent_file("job file"), "import")
    ), 201


@bp.post("/samples/<sample>", operation_id="begin_with_sample", responses={201: Found[JobState]})
def post_sample(path: SamplePath) -> tuple[Found[JobState], int]:
    """A job of one's own that begins as one of the samples."""
    return Found[JobState](found=store_sample(workspace(), path.sample, OTHER_PROGRAM)), 201


@bp.get("/<job_id>/card", operation_id="job_card", responses={200: Found[JobCard]})
def get_card(path: JobPath) -> Found[JobCard]:
    """What the list of jobs shows of one."""
    return Found[JobCard](found=cards.job_card(workspace(), JobId(path.job_id)))


@bp.post("/<job_id>/archive", operation_id="archive_job", responses={200: Archived})
def post_archive(path: JobPath, body: Archived) -> Archived:
    """Put a job into the archive, or take it out again; it stays as it is."""
    cards.archive_job(workspace(), JobId(path.job_id), away=body.archived)
    return body


@bp.get("/<job_id>", operation_id="open_job", responses={200: Found[JobState]})
def get_job(path: JobPath, query: RevisionQuery) -> Found[JobState]:
    """A job at its newest or a named revision."""
    return Found[JobState](found=jobs.open_job(workspace(), JobId(path.job_id), query.revision))


@bp.post("/<job_id>/edits", operation_id="save_edit", responses={200: Found[JobState]})
def post_edit(path: JobPath, body: EditRequest) -> Found[JobState]:
    """Apply an edit and save; answers with the new revision and its fast checks."""
    job_id = JobId(path.job_id)
    return Found[JobState](
        found=jobs.save_edit(workspace(), job_id, body.parent, body.edit, body.author)
    )


@bp.post("/<job_id>/undo", operation_id="undo", responses={200: Found[JobState]})
def post_undo(path: JobPath, body: StepRequest) -> Found[JobState]:
    """Step back one revision."""
    return Found[JobState](found=jobs.undo(workspace(), JobId(path.job_id), body.from_revision))


@bp.post("/<job_id>/redo", operation_id="redo", responses={200: Found[JobState]})
def post_redo(path: JobPath, body: StepRequest) -> Found[JobState]:
    """Step forward again."""
    return Found[JobState](found=jobs.redo(workspace(), JobId(path.job_id), body.from_revision))


@bp.post("/<job_id>/duplicate", operation_id="duplicate_job", responses={201: Found[JobState]})
def post_duplicate(path: JobPath) -> tuple[Found[JobState], int]:
    """A copy under a name of its own."""
    return Found[JobState](
        found=jobs.duplicate_job(workspace(), JobId(path.job_id), OTHER_PROGRAM)
    ), 201


@bp.delete("/<job_id>", operation_id="delete_job", responses={200: Deleted})
def delete_job(path: JobPath) -> Deleted:
    """Take a job off the list; it can be restored."""
    jobs.delete_job(workspace(), JobId(path.job_id))
    return Deleted(job_id=path.job_id)


@bp.post("/<job_id>/restore", operation_id="restore_job", responses={200: Found[JobState]})
def post_restore(path: JobPath) -> Found[JobState]:
    """Bring a deleted job back."""
    return Found[JobState](found=jobs.restore_job(workspace(), JobId(path.job_id)))


@bp.get(
    "/<job_id>/revisions/<int:revision>/scene",
    operation_id="site_scene",
    responses={200: Found[Scene]},
)
def get_scene(path: RevisionPath) -> Found[Scene]:
    """The site of a revision as solids."""
    return Found[Scene](found=jobs.site_scene(workspace(), JobId(path.job_id), path.revision))


@bp.get("/<job_id>/file", operation_id="export_job")
def get_file(path: JobPath) -> Response:
    """The job file as a download; a zip when pictures go along."""
    content, suffix = jobs.export_job(workspace(), JobId(path.job_id))
    kind = "application/json" if suffix == SUFFIX else "application/zip"
    return handed_out(content, kind, f"{path.job_id}{suffix}")
