"""A revision's printed pages: the design sheet of an option, and the brief."""

from enum import StrEnum

from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.editing.design import design_in
from ridge_tally.formats.scene_dxf import scene_dxf
from ridge_tally.formats.sheet_pdf import SheetContent, write_brief_pdf, write_sheet_pdf
from ridge_tally.rules.design import Design
from ridge_tally.services.jobs import load_job
from ridge_tally.services.workspace import Workspace
from ridge_tally.store.jobs import JobId
from ridge_tally.views.brief.sheet import brief_content
from ridge_tally.views.build.one_line import one_line
from ridge_tally.views.sheets.design import Stamp, sheet_content


def design_sheet(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> SheetContent:
    """Return what the sheet of an option says, on screen and on paper; NotFound if it is not there."""
    return sheet_content(workspace.desk, *_at(workspace, job_id, revision, option_id))


def design_sheet_pdf(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> bytes:
    """Return the PDF of the sheet of an option; NotFound if it is not there."""
    return write_sheet_pdf(design_sheet(workspace, job_id, revision, option_id))


def brief_pdf(workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId) -> bytes:
    """Return the PDF of a job's brief with the target of one option; NotFound if it is not there."""
    content = brief_content(workspace.desk, *_at(workspace, job_id, revision, option_id))
    return write_brief_pdf(content)


class DiagramFormat(StrEnum):
    """The open formats a diagram leaves in."""

    SVG = "svg"
    DXF = "dxf"


def diagram_file(design: Design, sheet: int, kind: DiagramFormat) -> str | None:
    """Return a sheet of the one-line diagram, numbered from 1; ``None`` if there is no such one."""
    sheets = one_line(design)
    if not 1 <= sheet <= len(sheets):
        return None
    scene = sheets[sheet - 1].scene
    return scene_svg(scene) if kind is DiagramFormat.SVG else scene_dxf(scene)


def _at(
    workspace: Workspace, job_id: JobId, revision: int, option_id: OptionId
) -> tuple[Design, Stamp]:
    job = load_job(workspace, job_id, revision)
    return design_in(job, option_id), Stamp(revision, workspace.clock().date())
