"""Where routes stand: at which job, revision, option and plane."""

from collections.abc import Callable

from flask import current_app, request

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.editing.design import design_in
from ridge_tally.rules.design import Design
from ridge_tally.services.jobs import load_job
from ridge_tally.services.papers import SetAt
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.jobs import JobId
from ridge_tally.web.models import OptionPath, PlanePath, RevisionPath

# Where the server tells that; see its ``channel_request_lookahead``.
GONE = "waitress.client_disconnected"
REVISION = "/jobs/<job_id>/revisions/<int:revision>"
OPTION = f"{REVISION}/options/<option_id>"
PLANE = f"{OPTION}/planes/<plane_id>"


def workspace() -> Workspace:
    """Return the app's workspace."""
    found: Workspace = current_app.extensions["ridge-tally"]
    return found


def given_up() -> Callable[[], bool]:
    """Return what tells whether whoever sent the request of this thread has gone away."""
    told: Callable[[], bool] | None = request.environ.get(GONE)
    return told or (lambda: False)


def job_at(path: RevisionPath) -> Job:
    """Return the job at the revision asked for."""
    return load_job(workspace(), JobId(path.job_id), path.revision)


def design_at(path: OptionPath) -> Design:
    """Return the option asked for, resolved, of the job at its revision."""
    return design_in(job_at(path), OptionId(path.option_id))


def set_at(path: OptionPath) -> SetAt:
    """Return which option of which revision is asked for."""
    return SetAt(JobId(path.job_id), path.revision, OptionId(path.option_id))


def plane_at(path: PlanePath) -> tuple[Design, PlaneId]:
    """Return the option asked for, resolved, and which plane of it."""
    return design_at(path), PlaneId(path.plane_id)
