"""A revision's printed pages: the design sheet of an option, and the brief."""

from ridge_tally.core.job.document import Job, Option, option_of
from ridge_tally.core.job.ids import OptionId
from ridge_tally.formats.sheet_pdf import SheetContent, write_brief_pdf, write_sheet_pdf
from ridge_tally.services.jobs import load_job
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.jobs import JobId
from ridge_tally.views.brief.sheet import brief_content
from ridge_tally.views.sheets.design import Stamp, sheet_content


def design_sheet(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> SheetContent:
    """Return what the sheet of an option says, on screen and on paper; NotFound if it is not there."""
    job, option, stamp = _at(workspace, job_id, revision, option_id)
    return sheet_content(workspace.desk, job, option, stamp)


def design_sheet_pdf(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> bytes:
    """Return the PDF of the sheet of an option; NotFound if it is not there."""
    return write_sheet_pdf(design_sheet(workspace, job_id, revision, option_id))


def brief_pdf(workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId) -> bytes:
    """Return the PDF of a job's brief with the target of one option; NotFound if it is not there."""
    job, option, stamp = _at(workspace, job_id, revision, option_id)
    return write_brief_pdf(brief_content(workspace.desk, job, option, stamp))


def _at(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> tuple[Job, Option, Stamp]:
    job = load_job(workspace, job_id, revision)
    return job, option_of(job, option_id), Stamp(revision, workspace.clock().date())
