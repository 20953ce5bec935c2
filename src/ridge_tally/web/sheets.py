"""Routes of the design sheet, on screen and as PDF."""

from flask import Response

from ridge_tally.core.job.ids import OptionId
from ridge_tally.formats.sheet_pdf import SheetContent
from ridge_tally.services.papers import design_sheet, design_sheet_pdf
from ridge_tally.store.jobs import JobId
from ridge_tally.web.at import OPTION, workspace
from ridge_tally.web.models import (
    Found,
    OptionPath,
)
from ridge_tally.web.routes import Routes

bp = Routes("sheets", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/sheet", operation_id="sheet_content", responses={200: Found[SheetContent]})
def get_sheet_content(path: OptionPath) -> Found[SheetContent]:
    """What the sheet says, as it is printed."""
    at = JobId(path.job_id), path.revision, OptionId(path.option_id)
    return Found[SheetContent](found=design_sheet(workspace(), *at))


@bp.get(f"{OPTION}/sheet.pdf", operation_id="option_sheet")
def get_sheet(path: OptionPath) -> Response:
    """The one-page sheet as PDF."""
    pdf = design_sheet_pdf(workspace(), JobId(path.job_id), path.revision, OptionId(path.option_id))
    name = f"{path.job_id}-{path.option_id}-r{path.revision}.pdf"
    headers = {"Content-Disposition": f'inline; filename="{name}"'}
    return Response(pdf, mimetype="application/pdf", headers=headers)
