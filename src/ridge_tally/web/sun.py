"""Routes of the sun on an option: what shade takes, and what trimming gives back."""

from flask_openapi import APIBlueprint

from ridge_tally.core.job.ids import PlacedId, PlaneId, ShadeId
from ridge_tally.core.units import parse_length_m
from ridge_tally.services.shade import shade_report, trimmed
from ridge_tally.services.sun_paths import sun_paths
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    OptionPath,
    PlanePath,
    ShadeAnswer,
    SunPathsAnswer,
    SunPathsQuery,
    TrimmedAnswer,
    TrimQuery,
)
from ridge_tally.web.options import OPTION, PLANE, option_at

bp = APIBlueprint("sun", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/shade", operation_id="option_shade", responses={200: ShadeAnswer})
def get_shade(path: OptionPath) -> ShadeAnswer:
    """What shade takes of the light on each module in a year, and who throws it."""
    return ShadeAnswer(shade=shade_report(workspace(), *option_at(path)))


@bp.get(f"{OPTION}/trimmed", operation_id="trimmed", responses={200: TrimmedAnswer})
def get_trimmed(path: OptionPath, query: TrimQuery) -> TrimmedAnswer:
    """What an obstacle lowered by a typed length gives back."""
    job, option = option_at(path)
    by_m = parse_length_m(query.typed, job.unit, "Lower by")
    return TrimmedAnswer(trimmed=trimmed(workspace(), job, option, ShadeId(query.shade_id), by_m))


@bp.get(f"{PLANE}/sun-paths", operation_id="sun_paths", responses={200: SunPathsAnswer})
def get_sun_paths(path: PlanePath, query: SunPathsQuery) -> SunPathsAnswer:
    """The sun's paths and the sky that is taken, over a module or the middle of a plane."""
    job, option = option_at(path)
    module_id = PlacedId(query.module_id) if query.module_id else None
    return SunPathsAnswer(paths=sun_paths(job, option, PlaneId(path.plane_id), module_id))
