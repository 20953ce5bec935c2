"""Routes of one option at one revision: its year, its alternatives, its sheet."""

from flask import Response
from flask_openapi import APIBlueprint

from ridge_tally.core.job.document import OptionId, PlaneId, option_of
from ridge_tally.services.evaluation import alternatives, year_report
from ridge_tally.services.jobs import load_job
from ridge_tally.services.sheets import option_sheet
from ridge_tally.simulators.weather_service import climates
from ridge_tally.store.jobs import JobId
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    AlternativesAnswer,
    ClimateChoice,
    OptionPath,
    PlanePath,
    ShelfAnswer,
    YearAnswer,
)

OPTION = "/jobs/<job_id>/revisions/<int:revision>/options/<option_id>"
bp = APIBlueprint("options", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/year", operation_id="option_year", responses={200: YearAnswer})
def get_year(path: OptionPath) -> YearAnswer:
    """The simulated year, the days that show the limit, and what other limits would clip."""
    job = load_job(workspace(), JobId(path.job_id), path.revision)
    option = option_of(job, OptionId(path.option_id))
    return YearAnswer(year=year_report(workspace(), job, option))


@bp.get(
    f"{OPTION}/planes/<plane_id>/alternatives",
    operation_id="plane_alternatives",
    responses={200: AlternativesAnswer},
)
def get_alternatives(path: PlanePath) -> AlternativesAnswer:
    """The fills of a plane, most modules first."""
    job = load_job(workspace(), JobId(path.job_id), path.revision)
    option = option_of(job, OptionId(path.option_id))
    found = alternatives(workspace(), job, option, PlaneId(path.plane_id))
    return AlternativesAnswer(alternatives=list(found))


@bp.get(f"{OPTION}/sheet.pdf", operation_id="option_sheet")
def get_sheet(path: OptionPath) -> Response:
    """The one-page sheet as PDF."""
    pdf = option_sheet(workspace(), JobId(path.job_id), path.revision, OptionId(path.option_id))
    name = f"{path.job_id}-{path.option_id}-r{path.revision}.pdf"
    headers = {"Content-Disposition": f'inline; filename="{name}"'}
    return Response(pdf, mimetype="application/pdf", headers=headers)


@bp.get("/shelf", operation_id="shelf", responses={200: ShelfAnswer})
def get_shelf() -> ShelfAnswer:
    """Equipment and climate types to choose from."""
    shelf = workspace().shelf
    choices = [
        ClimateChoice(
            id=c.id, title=c.title, coldest_degc=c.coldest_degc, hottest_degc=c.hottest_degc
        )
        for c in climates().values()
    ]
    return ShelfAnswer(
        modules=list(shelf.modules), inverters=list(shelf.inverters), climates=choices
    )
