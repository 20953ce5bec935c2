"""Routes of sun and shade: what each module gets, who takes it, weather, angles."""

from ridge_tally.core.job.ids import PlacedId, ShadeId
from ridge_tally.core.loading.weights import parse_weighing
from ridge_tally.core.units import parse_length_m
from ridge_tally.services.taken_in import take_in_weather
from ridge_tally.studies.array.worst_modules import WorstModules, worst_modules
from ridge_tally.studies.sun.angles import AngleMap, SplitStudy, angle_map, split_study
from ridge_tally.studies.sun.losses_at_meter import LossAtMeter, losses_at_meter
from ridge_tally.studies.sun.shade import (
    AtMeter,
    ShadeHours,
    ShadeReport,
    Trimmed,
    at_meter,
    shade_hours,
    shade_report,
    trimmed,
)
from ridge_tally.studies.sun.shade_band import ShadeBand, shade_band
from ridge_tally.studies.sun.sun_day import SunDay, sun_day
from ridge_tally.studies.sun.sun_paths import SunPaths, sun_paths
from ridge_tally.views.sun.weather import FileTold, WeatherReport, weather_report
from ridge_tally.web.at import (
    OPTION,
    PLANE,
    REVISION,
    design_at,
    given_up,
    job_at,
    plane_at,
    workspace,
)
from ridge_tally.web.models import (
    AtMeterQuery,
    Found,
    OptionPath,
    PlanePath,
    RevisionPath,
    ShadeHoursQuery,
    SplitQuery,
    SunDayQuery,
    SunPathsQuery,
    TrimQuery,
    Weighed,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import sent_file

bp = Routes("sun", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/shade", operation_id="option_shade", responses={200: Found[ShadeReport]})
def get_shade(path: OptionPath) -> Found[ShadeReport]:
    """What shade takes of the light on each module in a year, and who throws it."""
    here, design = workspace(), design_at(path)
    report = here.aside.do(lambda: shade_report(here.desk, design), given_up())
    return Found[ShadeReport](found=report)


@bp.get(f"{OPTION}/trimmed", operation_id="trimmed", responses={200: Found[Trimmed]})
def get_trimmed(path: OptionPath, query: TrimQuery) -> Found[Trimmed]:
    """What an obstacle lowered by a typed length gives back."""
    design = design_at(path)
    by_m = parse_length_m(query.typed, design.job.unit, "Lower by")
    return Found[Trimmed](found=trimmed(workspace().desk, design, ShadeId(query.shade_id), by_m))


@bp.get(f"{PLANE}/sun-paths", operation_id="sun_paths", responses={200: Found[SunPaths]})
def get_sun_paths(path: PlanePath, query: SunPathsQuery) -> Found[SunPaths]:
    """The sun's paths and the sky that is taken, over a module or the middle of a plane."""
    design, plane_id = plane_at(path)
    module_id = PlacedId(query.module_id) if query.module_id else None
    paths = sun_paths(workspace().desk, design, plane_id, module_id, query.day)
    return Found[SunPaths](found=paths)


@bp.get(f"{OPTION}/shade-hours", operation_id="shade_hours", responses={200: Found[ShadeHours]})
def get_shade_hours(path: OptionPath, query: ShadeHoursQuery) -> Found[ShadeHours]:
    """What shade takes by month and hour, of a module or of the whole array."""
    module_id = PlacedId(query.module_id) if query.module_id else None
    return Found[ShadeHours](found=shade_hours(workspace().desk, design_at(path), module_id))


@bp.get(f"{OPTION}/sun-day", operation_id="sun_day", responses={200: Found[SunDay]})
def get_sun_day(path: OptionPath, query: SunDayQuery) -> Found[SunDay]:
    """Shadows and the light on each module through a day."""
    return Found[SunDay](found=sun_day(workspace().desk, design_at(path), query.day))


@bp.get(
    f"{OPTION}/worst-modules", operation_id="worst_modules", responses={200: Found[WorstModules]}
)
def get_worst_modules(path: OptionPath) -> Found[WorstModules]:
    """What moving the modules with least light would give."""
    return Found[WorstModules](found=worst_modules(workspace().desk, design_at(path)))


@bp.get(f"{OPTION}/at-meter", operation_id="at_meter", responses={200: Found[AtMeter]})
def get_at_meter(path: OptionPath, query: AtMeterQuery) -> Found[AtMeter]:
    """What an owner of shade costs at the meter in a year."""
    return Found[AtMeter](found=at_meter(workspace().desk, design_at(path), query.number))


@bp.get(
    f"{OPTION}/losses-at-meter",
    operation_id="losses_at_meter",
    responses={200: Found[list[LossAtMeter]]},
)
def get_losses_at_meter(path: OptionPath) -> Found[list[LossAtMeter]]:
    """What shade, snow, dirt and the modules' backs each come to at the meter in a year."""
    return Found[list[LossAtMeter]](found=list(losses_at_meter(workspace().desk, design_at(path))))


WEATHER = f"{REVISION}/weather"


@bp.get(WEATHER, operation_id="job_weather", responses={200: Found[WeatherReport]})
def get_weather(path: RevisionPath) -> Found[WeatherReport]:
    """The weather year of a job, by month."""
    job = job_at(path)
    return Found[WeatherReport](found=weather_report(workspace().desk, job))


@bp.post(WEATHER, operation_id="take_weather", responses={201: Found[FileTold]})
def post_weather(path: RevisionPath) -> tuple[Found[FileTold], int]:
    """Keep the weather file sent as the body and tell what it is; its name comes encoded."""
    job = job_at(path)
    return Found[FileTold](found=take_in_weather(workspace(), job, *sent_file("weather file"))), 201


@bp.get(f"{OPTION}/shade-band", operation_id="shade_band", responses={200: Found[ShadeBand]})
def get_shade_band(path: OptionPath) -> Found[ShadeBand]:
    """What the year comes to at least, the darkest cells of each substring ruling it."""
    return Found[ShadeBand](found=shade_band(workspace().desk, design_at(path)))


@bp.get(f"{OPTION}/angles", operation_id="angle_map", responses={200: Found[AngleMap]})
def get_angles(path: OptionPath, query: Weighed) -> Found[AngleMap]:
    """What every tilt and azimuth gets of this site's weather, the site's planes marked."""
    return Found[AngleMap](
        found=angle_map(workspace().desk, design_at(path), parse_weighing(query.by))
    )


@bp.get(f"{OPTION}/split", operation_id="split_study", responses={200: Found[SplitStudy]})
def get_split(path: OptionPath, query: SplitQuery) -> Found[SplitStudy]:
    """Half the modules turned each way, by an angle from none to a quarter turn."""
    here, design = workspace(), design_at(path)
    return Found[SplitStudy](found=split_study(here.desk, design, query.tilt_deg, query.ratio))
