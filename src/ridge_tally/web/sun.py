"""Routes of the sun on an option: weather, shade, a day of shadows, and what helps."""

from flask_openapi import APIBlueprint

from ridge_tally.core.job.ids import PlacedId, PlaneId, ShadeId
from ridge_tally.core.units import parse_length_m
from ridge_tally.services.jobs import load_job
from ridge_tally.services.taken_in import take_in_weather
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.array.worst_modules import worst_modules
from ridge_tally.studies.sun.losses_at_meter import losses_at_meter
from ridge_tally.studies.sun.shade import at_meter, shade_hours, shade_report, trimmed
from ridge_tally.studies.sun.sun_day import sun_day
from ridge_tally.studies.sun.sun_paths import sun_paths
from ridge_tally.views.sun.weather import weather_report
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    AtMeterAnswer,
    AtMeterQuery,
    LossesAnswer,
    OptionPath,
    PlanePath,
    RevisionPath,
    ShadeAnswer,
    ShadeHoursAnswer,
    ShadeHoursQuery,
    SunDayAnswer,
    SunDayQuery,
    SunPathsAnswer,
    SunPathsQuery,
    TrimmedAnswer,
    TrimQuery,
    WeatherAnswer,
    WeatherFileAnswer,
    WorstAnswer,
)
from ridge_tally.web.options import OPTION, PLANE, option_at
from ridge_tally.web.sent_file import sent_file

bp = APIBlueprint("sun", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/shade", operation_id="option_shade", responses={200: ShadeAnswer})
def get_shade(path: OptionPath) -> ShadeAnswer:
    """What shade takes of the light on each module in a year, and who throws it."""
    return ShadeAnswer(shade=shade_report(workspace().desk, *option_at(path)))


@bp.get(f"{OPTION}/trimmed", operation_id="trimmed", responses={200: TrimmedAnswer})
def get_trimmed(path: OptionPath, query: TrimQuery) -> TrimmedAnswer:
    """What an obstacle lowered by a typed length gives back."""
    job, option = option_at(path)
    by_m = parse_length_m(query.typed, job.unit, "Lower by")
    return TrimmedAnswer(
        trimmed=trimmed(workspace().desk, job, option, ShadeId(query.shade_id), by_m)
    )


@bp.get(f"{PLANE}/sun-paths", operation_id="sun_paths", responses={200: SunPathsAnswer})
def get_sun_paths(path: PlanePath, query: SunPathsQuery) -> SunPathsAnswer:
    """The sun's paths and the sky that is taken, over a module or the middle of a plane."""
    job, option = option_at(path)
    module_id = PlacedId(query.module_id) if query.module_id else None
    paths = sun_paths(workspace().desk, job, option, PlaneId(path.plane_id), module_id, query.day)
    return SunPathsAnswer(paths=paths)


@bp.get(f"{OPTION}/shade-hours", operation_id="shade_hours", responses={200: ShadeHoursAnswer})
def get_shade_hours(path: OptionPath, query: ShadeHoursQuery) -> ShadeHoursAnswer:
    """What shade takes by month and hour, of a module or of the whole array."""
    module_id = PlacedId(query.module_id) if query.module_id else None
    return ShadeHoursAnswer(hours=shade_hours(workspace().desk, *option_at(path), module_id))


@bp.get(f"{OPTION}/sun-day", operation_id="sun_day", responses={200: SunDayAnswer})
def get_sun_day(path: OptionPath, query: SunDayQuery) -> SunDayAnswer:
    """Shadows and the light on each module through a day."""
    return SunDayAnswer(sun_day=sun_day(workspace().desk, *option_at(path), query.day))


@bp.get(f"{OPTION}/worst-modules", operation_id="worst_modules", responses={200: WorstAnswer})
def get_worst_modules(path: OptionPath) -> WorstAnswer:
    """What moving the modules with least light would give."""
    return WorstAnswer(worst=worst_modules(workspace().desk, *option_at(path)))


@bp.get(f"{OPTION}/at-meter", operation_id="at_meter", responses={200: AtMeterAnswer})
def get_at_meter(path: OptionPath, query: AtMeterQuery) -> AtMeterAnswer:
    """What an owner of shade costs at the meter in a year."""
    return AtMeterAnswer(cost=at_meter(workspace().desk, *option_at(path), query.number))


@bp.get(f"{OPTION}/losses-at-meter", operation_id="losses_at_meter", responses={200: LossesAnswer})
def get_losses_at_meter(path: OptionPath) -> LossesAnswer:
    """What shade, snow, dirt and the modules' backs each come to at the meter in a year."""
    return LossesAnswer(losses=list(losses_at_meter(workspace().desk, *option_at(path))))


WEATHER = "/jobs/<job_id>/revisions/<int:revision>/weather"


@bp.get(WEATHER, operation_id="job_weather", responses={200: WeatherAnswer})
def get_weather(path: RevisionPath) -> WeatherAnswer:
    """The weather year of a job, by month."""
    job = load_job(workspace(), JobId(path.job_id), path.revision)
    return WeatherAnswer(weather=weather_report(workspace().desk, job))


@bp.post(WEATHER, operation_id="take_weather", responses={201: WeatherFileAnswer})
def post_weather(path: RevisionPath) -> tuple[WeatherFileAnswer, int]:
    """Keep the weather file sent as the body and tell what it is; its name comes encoded."""
    job = load_job(workspace(), JobId(path.job_id), path.revision)
    return WeatherFileAnswer(
        file=take_in_weather(workspace(), job, *sent_file("weather file"))
    ), 201
