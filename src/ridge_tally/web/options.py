"""Routes of one option at one revision: its year, its sheet."""

from flask import Response
from flask_openapi import APIBlueprint

from ridge_tally.catalogue.gazetteer import find_places
from ridge_tally.catalogue.grid_packs import grid_packs
from ridge_tally.core.job.document import Job, Option, option_of
from ridge_tally.core.job.ids import OptionId
from ridge_tally.rules.array.setbacks import setback_packs
from ridge_tally.services.jobs import load_job
from ridge_tally.services.papers import brief_pdf, design_sheet, design_sheet_pdf
from ridge_tally.simulators.weather_service import climates
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.brief.target import target_report
from ridge_tally.studies.strings.own_point import helped_ids, own_point_report
from ridge_tally.studies.sun.shade_band import shade_band
from ridge_tally.views.loading.year import fine_steps, year_report
from ridge_tally.web.jobs import FINE_YEAR, workspace
from ridge_tally.web.models import (
    ClimateChoice,
    FineYearAnswer,
    OptionPath,
    OwnPointAnswer,
    OwnPointQuery,
    PlaceFound,
    PlaceQuery,
    PlacesAnswer,
    ShadeBandAnswer,
    SheetContentAnswer,
    ShelfAnswer,
    TargetAnswer,
    YearAnswer,
)

OPTION = "/jobs/<job_id>/revisions/<int:revision>/options/<option_id>"
PLANE = f"{OPTION}/planes/<plane_id>"
# So many of a kind are offered in a list of choices; all of them stand on the shelf itself.
MOST_PICKED = 300
bp = APIBlueprint("options", __name__, url_prefix="/api")


def option_at(path: OptionPath) -> tuple[Job, Option]:
    """Return the job at the revision asked for, and the option of it."""
    job = load_job(workspace(), JobId(path.job_id), path.revision)
    return job, option_of(job, OptionId(path.option_id))


@bp.get(f"{OPTION}/year", operation_id="option_year", responses={200: YearAnswer})
def get_year(path: OptionPath) -> YearAnswer:
    """The simulated year, the days that show the limit, and what other limits would clip."""
    return YearAnswer(year=year_report(workspace().desk, *option_at(path)))


@bp.get(f"{OPTION}/year/fine", operation_id="fine_year", responses={200: FineYearAnswer})
def get_fine_year(path: OptionPath) -> FineYearAnswer:
    """How the year by quarters of an hour stands; begun if it is not going on yet."""
    here, (job, option) = workspace(), option_at(path)
    place = (FINE_YEAR, path.job_id, path.option_id, path.revision)
    seen = here.runs.look(place, None, lambda: fine_steps(here.desk, job, option))
    step = seen.step
    return FineYearAnswer(
        year=step.year if step else None,
        done_frac=step.done_frac if step else 0.0,
        running=seen.running,
        problem=seen.problem,
    )


@bp.get(f"{OPTION}/own-point", operation_id="own_point", responses={200: OwnPointAnswer})
def get_own_point(path: OptionPath, query: OwnPointQuery) -> OwnPointAnswer:
    """The year with optimizers on some modules or all, and with microinverters."""
    helped = helped_ids(query.helped)
    return OwnPointAnswer(report=own_point_report(workspace().desk, *option_at(path), helped))


@bp.get(f"{OPTION}/shade-band", operation_id="shade_band", responses={200: ShadeBandAnswer})
def get_shade_band(path: OptionPath) -> ShadeBandAnswer:
    """What the year comes to at least, the darkest cells of each substring ruling it."""
    return ShadeBandAnswer(band=shade_band(workspace().desk, *option_at(path)))


@bp.get(f"{OPTION}/target", operation_id="option_target", responses={200: TargetAnswer})
def get_target(path: OptionPath) -> TargetAnswer:
    """The target, the ceilings in its way, the yield it rests on and the approval routes."""
    return TargetAnswer(target=target_report(workspace().desk, *option_at(path)))


@bp.get(f"{OPTION}/sheet", operation_id="sheet_content", responses={200: SheetContentAnswer})
def get_sheet_content(path: OptionPath) -> SheetContentAnswer:
    """What the sheet says, as it is printed."""
    at = JobId(path.job_id), path.revision, OptionId(path.option_id)
    return SheetContentAnswer(content=design_sheet(workspace(), *at))


@bp.get(f"{OPTION}/sheet.pdf", operation_id="option_sheet")
def get_sheet(path: OptionPath) -> Response:
    """The one-page sheet as PDF."""
    pdf = design_sheet_pdf(workspace(), JobId(path.job_id), path.revision, OptionId(path.option_id))
    name = f"{path.job_id}-{path.option_id}-r{path.revision}.pdf"
    headers = {"Content-Disposition": f'inline; filename="{name}"'}
    return Response(pdf, mimetype="application/pdf", headers=headers)


@bp.get(f"{OPTION}/brief.pdf", operation_id="brief_sheet")
def get_brief(path: OptionPath) -> Response:
    """The one-page brief as PDF."""
    pdf = brief_pdf(workspace(), JobId(path.job_id), path.revision, OptionId(path.option_id))
    headers = {
        "Content-Disposition": f'inline; filename="{path.job_id}-brief-r{path.revision}.pdf"'
    }
    return Response(pdf, mimetype="application/pdf", headers=headers)


@bp.get("/places", operation_id="places", responses={200: PlacesAnswer})
def get_places(query: PlaceQuery) -> PlacesAnswer:
    """Places whose words begin as typed."""
    found = [
        PlaceFound(title=p.title, latitude_deg=p.latitude_deg, longitude_deg=p.longitude_deg)
        for p in find_places(query.typed)
    ]
    return PlacesAnswer(places=found)


@bp.get("/shelf", operation_id="shelf", responses={200: ShelfAnswer})
def get_shelf() -> ShelfAnswer:
    """Equipment and climate types to choose from."""
    shelf = workspace().desk.shelf
    choices = [
        ClimateChoice(
            id=c.id, title=c.title, coldest_degc=c.coldest_degc, hottest_degc=c.hottest_degc
        )
        for c in climates().values()
    ]
    return ShelfAnswer(
        modules=list(shelf.modules[:MOST_PICKED]),
        inverters=list(shelf.inverters[:MOST_PICKED]),
        optimizers=list(shelf.optimizers[:MOST_PICKED]),
        microinverters=list(shelf.microinverters[:MOST_PICKED]),
        climates=choices,
        grid_packs=list(grid_packs().values()),
        setback_packs=list(setback_packs().values()),
    )
