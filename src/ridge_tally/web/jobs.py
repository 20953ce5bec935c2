"""Routes of jobs: thin, one service call each."""

from flask import Response, current_app
from flask_openapi import APIBlueprint

from ridge_tally.formats.job_file import SUFFIX
from ridge_tally.services import jobs
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.jobs import JobId
from ridge_tally.web.models import (
    Deleted,
    EditRequest,
    JobAnswer,
    JobList,
    JobListEntry,
    JobPath,
    NewJob,
    RevisionPath,
    RevisionQuery,
    SceneAnswer,
    StepRequest,
)
from ridge_tally.web.sent_file import sent_file

bp = APIBlueprint("jobs", __name__, url_prefix="/api/jobs")
OTHER_PROGRAM = "api"
# Where fine years run, followed by the job, the option and the revision.
FINE_YEAR = "fine year"


def workspace() -> Workspace:
    """Return the app's workspace."""
    found: Workspace = current_app.extensions["ridge-tally"]
    return found


@bp.get("", operation_id="list_jobs", responses={200: JobList})
def get_jobs() -> JobList:
    """All jobs, newest change first."""
    entries = jobs.list_jobs(workspace())
    return JobList(
        jobs=[
            JobListEntry(id=e.id, name=e.name, revision=e.head, saved_at=e.saved_at)
            for e in entries
        ]
    )


@bp.post("", operation_id="create_job", responses={201: JobAnswer})
def post_job(body: NewJob) -> tuple[JobAnswer, int]:
    """A new job with one plane to measure over."""
    return JobAnswer(state=jobs.create_job(workspace(), body.name, body.unit, OTHER_PROGRAM)), 201


@bp.post("/import", operation_id="import_job", responses={201: JobAnswer})
def post_import() -> tuple[JobAnswer, int]:
    """A job from a job file sent as the body; its name comes percent-encoded in X-File-Name."""
    return JobAnswer(state=jobs.import_job(workspace(), *sent_file("job file"), "import")), 201


@bp.get("/<job_id>", operation_id="open_job", responses={200: JobAnswer})
def get_job(path: JobPath, query: RevisionQuery) -> JobAnswer:
    """A job at its newest or a named revision."""
    return JobAnswer(state=jobs.open_job(workspace(), JobId(path.job_id), query.revision))


@bp.post("/<job_id>/edits", operation_id="save_edit", responses={200: JobAnswer})
def post_edit(path: JobPath, body: EditRequest) -> JobAnswer:
    """Apply an edit and save; answers with the new revision and its fast checks."""
    job_id = JobId(path.job_id)
    # Whatever goes on for the job as it was leaves the machine to the new one.
    workspace().runs.forget(FINE_YEAR, path.job_id)
    return JobAnswer(state=jobs.save_edit(workspace(), job_id, body.parent, body.edit, body.author))


@bp.post("/<job_id>/undo", operation_id="undo", responses={200: JobAnswer})
def post_undo(path: JobPath, body: StepRequest) -> JobAnswer:
    """Step back one revision."""
    return JobAnswer(state=jobs.undo(workspace(), JobId(path.job_id), body.from_revision))


@bp.post("/<job_id>/redo", operation_id="redo", responses={200: JobAnswer})
def post_redo(path: JobPath, body: StepRequest) -> JobAnswer:
    """Step forward again."""
    return JobAnswer(state=jobs.redo(workspace(), JobId(path.job_id), body.from_revision))


@bp.post("/<job_id>/duplicate", operation_id="duplicate_job", responses={201: JobAnswer})
def post_duplicate(path: JobPath) -> tuple[JobAnswer, int]:
    """A copy under a name of its own."""
    return JobAnswer(state=jobs.duplicate_job(workspace(), JobId(path.job_id), OTHER_PROGRAM)), 201


@bp.delete("/<job_id>", operation_id="delete_job", responses={200: Deleted})
def delete_job(path: JobPath) -> Deleted:
    """Take a job off the list; it can be restored."""
    jobs.delete_job(workspace(), JobId(path.job_id))
    return Deleted(job_id=path.job_id)


@bp.post("/<job_id>/restore", operation_id="restore_job", responses={200: JobAnswer})
def post_restore(path: JobPath) -> JobAnswer:
    """Bring a deleted job back."""
    return JobAnswer(state=jobs.restore_job(workspace(), JobId(path.job_id)))


@bp.get(
    "/<job_id>/revisions/<int:revision>/scene",
    operation_id="site_scene",
    responses={200: SceneAnswer},
)
def get_scene(path: RevisionPath) -> SceneAnswer:
    """The site of a revision as solids."""
    return SceneAnswer(scene=jobs.site_scene(workspace(), JobId(path.job_id), path.revision))


@bp.get("/<job_id>/file", operation_id="export_job")
def get_file(path: JobPath) -> Response:
    """The job file as a download; a zip when pictures go along."""
    content, suffix = jobs.export_job(workspace(), JobId(path.job_id))
    headers = {"Content-Disposition": f'attachment; filename="{path.job_id}{suffix}"'}
    kind = "application/json" if suffix == SUFFIX else "application/zip"
    return Response(content, mimetype=kind, headers=headers)
