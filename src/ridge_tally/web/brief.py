"""Routes of the brief: the target, the printed page, places."""

from flask import Response

from ridge_tally.catalogue.gazetteer import find_places
from ridge_tally.core.job.ids import OptionId
from ridge_tally.services.papers import brief_pdf
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.brief.target import TargetReport, target_report
from ridge_tally.web.at import OPTION, design_at, given_up, workspace
from ridge_tally.web.models import (
    Found,
    OptionPath,
    PlaceFound,
    PlaceQuery,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out

bp = Routes("brief", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/target", operation_id="option_target", responses={200: Found[TargetReport]})
def get_target(path: OptionPath) -> Found[TargetReport]:
    """The target, the ceilings in its way, the yield it rests on and the approval routes."""
    here, design = workspace(), design_at(path)
    report = here.aside.do(lambda: target_report(here.desk, design), given_up())
    return Found[TargetReport](found=report)


@bp.get(f"{OPTION}/brief.pdf", operation_id="brief_sheet")
def get_brief(path: OptionPath) -> Response:
    """The one-page brief as PDF."""
    pdf = brief_pdf(workspace(), JobId(path.job_id), path.revision, OptionId(path.option_id))
    name = f"{path.job_id}-brief-r{path.revision}.pdf"
    return handed_out(pdf, "application/pdf", name, shown=True)


@bp.get("/places", operation_id="places", responses={200: Found[list[PlaceFound]]})
def get_places(query: PlaceQuery) -> Found[list[PlaceFound]]:
    """Places whose words begin as typed."""
    found = [
        PlaceFound(title=p.title, latitude_deg=p.latitude_deg, longitude_deg=p.longitude_deg)
        for p in find_places(query.typed)
    ]
    return Found[list[PlaceFound]](found=found)
