"""Where routes stand: at which job, revision, option and plane."""

from flask import current_app

from ridge_tally.core.job.document import Job, Option, option_of
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.services.jobs import load_job
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.jobs import JobId
from ridge_tally.web.models import OptionPath, PlanePath, RevisionPath

REVISION = "/jobs/<job_id>/revisions/<int:revision>"
OPTION = f"{REVISION}/options/<option_id>"
PLANE = f"{OPTION}/planes/<plane_id>"


def workspace() -> Workspace:
    """Return the app's workspace."""
    found: Workspace = current_app.extensions["ridge-tally"]
    return found


def job_at(path: RevisionPath) -> Job:
    """Return the job at the revision asked for."""
    return load_job(workspace(), JobId(path.job_id), path.revision)


def option_at(path: OptionPath) -> tuple[Job, Option]:
    """Return the job at the revision asked for, and the option of it."""
    job = job_at(path)
    return job, option_of(job, OptionId(path.option_id))


def plane_at(path: PlanePath) -> tuple[Job, Option, PlaneId]:
    """Return the job at the revision asked for, its option, and which plane."""
    return *option_at(path), PlaneId(path.plane_id)
