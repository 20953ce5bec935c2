"""Routes of ground arrays and metal roofs: tables, posts, spacing, seasons; where brackets sit."""

from flask import Response
from flask_openapi import APIBlueprint

from ridge_tally.core.brief.typed import parse_share_frac
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.services.bracket_seats import seat_report
from ridge_tally.services.ground_mount import ground_report
from ridge_tally.services.seasonal_tilt import calendar_of, seasonal_tilt
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    GroundAnswer,
    GroundQuery,
    PlanePath,
    SeasonsAnswer,
    SeatsAnswer,
)
from ridge_tally.web.options import PLANE, option_at

bp = APIBlueprint("ground", __name__, url_prefix="/api")


@bp.get(f"{PLANE}/ground", operation_id="ground_mount", responses={200: GroundAnswer})
def get_ground(path: PlanePath, query: GroundQuery) -> GroundAnswer:
    """Tables, posts, rows apart and what nearer ones cost; the gap for a typed loss."""
    asked = parse_share_frac(query.most_loss, "Light rows take") if query.most_loss else None
    report = ground_report(workspace(), *option_at(path), PlaneId(path.plane_id), asked)
    return GroundAnswer(ground=report)


@bp.get(f"{PLANE}/brackets", operation_id="bracket_seats", responses={200: SeatsAnswer})
def get_brackets(path: PlanePath) -> SeatsAnswer:
    """Where brackets can sit under the modules of a metal roof or a carport."""
    return SeatsAnswer(seats=seat_report(*option_at(path), PlaneId(path.plane_id)))


@bp.get(f"{PLANE}/seasons", operation_id="seasonal_tilt", responses={200: SeasonsAnswer})
def get_seasons(path: PlanePath) -> SeasonsAnswer:
    """What other tilts and tilts changed with the seasons are worth."""
    study = seasonal_tilt(workspace(), *option_at(path), PlaneId(path.plane_id))
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
