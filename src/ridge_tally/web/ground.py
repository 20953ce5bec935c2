"""Routes of ground arrays and metal roofs: spacing, seasons; where brackets sit."""

from flask import Response
from flask_openapi import APIBlueprint

from ridge_tally.core.brief.typed import parse_share_frac
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.studies.array.brackets import seat_report
from ridge_tally.studies.array.rows_light import rows_light
from ridge_tally.studies.array.seasonal_tilt import calendar_of, seasonal_tilt
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    PlanePath,
    RowsLightAnswer,
    RowsLightQuery,
    SeasonsAnswer,
    SeatsAnswer,
)
from ridge_tally.web.options import PLANE, option_at

bp = APIBlueprint("ground", __name__, url_prefix="/api")


@bp.get(f"{PLANE}/rows-light", operation_id="rows_light", responses={200: RowsLightAnswer})
def get_rows_light(path: PlanePath, query: RowsLightQuery) -> RowsLightAnswer:
    """What rows take of each other's light at their gap and at others; the gap for a typed loss."""
    asked = parse_share_frac(query.most_loss, "Light rows take") if query.most_loss else None
    light = rows_light(workspace().desk, *option_at(path), PlaneId(path.plane_id), asked)
    return RowsLightAnswer(light=light)


@bp.get(f"{PLANE}/brackets", operation_id="bracket_seats", responses={200: SeatsAnswer})
def get_brackets(path: PlanePath) -> SeatsAnswer:
    """Where brackets can sit under the modules of a metal roof or a carport."""
    return SeatsAnswer(seats=seat_report(*option_at(path), PlaneId(path.plane_id)))


@bp.get(f"{PLANE}/seasons", operation_id="seasonal_tilt", responses={200: SeasonsAnswer})
def get_seasons(path: PlanePath) -> SeasonsAnswer:
    """What other tilts and tilts changed with the seasons are worth."""
    study = seasonal_tilt(workspace().desk, *option_at(path), PlaneId(path.plane_id))
    return SeasonsAnswer(study=study)


@bp.get(f"{PLANE}/seasons.ics", operation_id="seasonal_calendar")
def get_calendar(path: PlanePath) -> Response:
    """The changes of the tilt as a calendar file."""
    headers = {"Content-Disposition": f'attachment; filename="{path.job_id}-tilt.ics"'}
    return Response(
        calendar_of(*option_at(path), PlaneId(path.plane_id)),
        mimetype="text/calendar",
        headers=headers,
    )
