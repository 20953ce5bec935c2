"""What the core computes for an option, remembered by the content it depends on."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.diode_fit import DiodeModel, fit_diode
from ridge_tally.core.energy.waterfall import Stage
from ridge_tally.core.energy.year import (
    NOT_INCLUDED,
    DcLosses,
    HeatLoss,
    LitString,
    LoadedTracker,
    Plant,
    YearResult,
    loaded_tracker,
    simulate_year,
)
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.array import Mounting
from ridge_tally.core.job.document import (
    Job,
    ModuleString,
    Option,
    inverter_sheet_of,
    module_sheet_of,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.weather import Monthly
from ridge_tally.core.loading.clipped_day import LimitCost, LoadingDay, limit_costs, loading_days
from ridge_tally.core.loading.clipping import ClipCalendar, clip_calendar
from ridge_tally.core.sky.minutes import beam_quantiles
from ridge_tally.core.sky.sun import sun_path
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.rules import tables
from ridge_tally.services.array_light import array_lights, lit_string
from ridge_tally.services.weather import location_of, weather_doubts, weather_key, weather_of
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulators.weather_service import climate

FloatArray = NDArray[np.float64]
# No zone's standard time is further from its sun than this.
MOST_CLOCK_OFF_H = 3.0


@dataclass(frozen=True, slots=True)
class DiodeNote:
    """Which fit served and how well it meets the datasheet."""

    fitted_by: str
    worst_point_frac: float
    beta_error_frac: float
    gamma_error_per_degc: float | None
    warning: str


@dataclass(frozen=True, slots=True)
class YearReport:
    """The year of an option, for people and programs.

    ``doubts`` are sentences on what the figure rests on that nobody measured.
    """

    option_id: str
    energy_kwh: float
    specific_kwh_per_kw: float
    clipped_kwh: float
    clipped_frac: float
    clipped_hours: int
    clipped_most_kwh: float
    tracker_loss_kwh: float
    monthly_kwh: tuple[float, ...]
    stages: tuple[Stage, ...]
    limit_kw: float
    days: tuple[LoadingDay, ...]
    limits: tuple[LimitCost, ...]
    calendar: ClipCalendar
    weather: str
    stand_in_weather: bool
    doubts: tuple[str, ...]
    diode: DiodeNote


@dataclass(frozen=True, slots=True)
class Supposed:
    """What a year is worked out for besides what is there.

    ``without``: the number of an owner of shade that is thought away.  ``darkest``: the darkest
    cells of each substring rule it, instead of the mean of its light.
    """

    without: int | None = None
    darkest: bool = False


AS_IT_IS = Supposed()


@dataclass(frozen=True, slots=True)
class ShadeBand:
    """The year's energy if the darkest cells of each substring ruled it, kWh: at least so much."""

    energy_least_kwh: float


def shade_band(workspace: Workspace, job: Job, option: Option) -> ShadeBand:
    """Return what the year comes to at least.

    The year takes each substring on its mean light: true of soft shade and of shade across both
    halves of a half-cut module; a hard edge over few cells is nearer to the darkest.

    Raises
    ------
    MissingDatum
        When no module is in a string.
    """
    require_strings(option)
    return ShadeBand(hourly_year(workspace, job, option, Supposed(darkest=True)).energy_kwh)


def require_strings(option: Option) -> None:
    """Raise MissingDatum while no module is in a string."""
    if not option.strings:
        raise MissingDatum(
            "string", f"Option {option.name}", "Fill the roof and the strings follow by themselves."
        )


def year_report(workspace: Workspace, job: Job, option: Option) -> YearReport:
    """Return the simulated year of an option.

    Raises
    ------
    MissingDatum
        When no module is in a string, or a datasheet lacks what the model needs.
    """
    require_strings(option)
    year, weather = _year(workspace, job, option)
    module = module_sheet_of(job, option)
    inverter = inverter_sheet_of(job, option)
    strung = sum(len(s.module_ids) for s in option.strings)
    return YearReport(
        option_id=option.id,
        energy_kwh=year.energy_kwh,
        specific_kwh_per_kw=year.energy_kwh / (strung * module.p_max_w / 1000),
        clipped_kwh=year.clipped_kwh,
        clipped_frac=year.clipped_frac,
        clipped_hours=year.clipped_hours,
        clipped_most_kwh=year.clipped_most_kwh,
        tracker_loss_kwh=year.tracker_loss_kwh,
        monthly_kwh=year.monthly_kwh,
        stages=year.stages,
        limit_kw=inverter.p_ac_w / 1000,
        days=tuple(loading_days(year, weather, job.site.latitude_deg)),
        limits=tuple(limit_costs(year)),
        calendar=clip_calendar(year, weather),
        weather=weather.name,
        stand_in_weather=weather.stand_in,
        doubts=_doubts(job, weather),
        diode=_diode_note(fit_diode(module)),
    )


def hourly_year(
    workspace: Workspace, job: Job, option: Option, supposed: Supposed = AS_IT_IS
) -> YearResult:
    """Return the hours themselves, as things are or as they are supposed to be."""
    return _year(workspace, job, option, supposed)[0]


def _year(
    workspace: Workspace, job: Job, option: Option, supposed: Supposed = AS_IT_IS
) -> tuple[YearResult, WeatherYear]:
    weather = weather_of(workspace, job)
    key = (
        weather_key(job),
        job.survey,
        option.arrays,
        option.strings,
        module_sheet_of(job, option),
        inverter_sheet_of(job, option),
        supposed,
    )
    year = workspace.years.get(
        key, lambda: simulate_year(plant_of(workspace, job, option, supposed), weather)
    )
    return year, weather


def plant_of(
    workspace: Workspace, job: Job, option: Option, supposed: Supposed = AS_IT_IS
) -> Plant:
    """Return what the year needs to know of an option.

    Raises
    ------
    MissingDatum
        If the module's datasheet lacks a coefficient the diode model needs.
    """
    losses, sheet = tables.load("dc-losses"), module_sheet_of(job, option)
    return Plant(
        module_w=sheet.p_max_w,
        inverter=inverter_sheet_of(job, option),
        trackers=_trackers(workspace, job, option, supposed),
        losses=DcLosses(
            losses.number("share_frac", loss="mismatch"),
            losses.number("share_frac", loss="wiring"),
        ),
        beam_quantiles=_minutes(workspace, job),
    )


def _minutes(workspace: Workspace, job: Job) -> FloatArray:
    """Return how the beam comes and goes inside each hour of the job's weather."""
    location = location_of(job.site)

    def compute() -> FloatArray:
        weather = weather_of(workspace, job)
        return beam_quantiles(weather, sun_path(weather.time, location), location.elevation_m)

    return workspace.weather.get(("minutes", weather_key(job)), compute)


def _trackers(
    workspace: Workspace, job: Job, option: Option, supposed: Supposed
) -> tuple[LoadedTracker, ...]:
    """Return the trackers with their strings' light, remembered whatever inverter they are on."""
    sheet, weather = module_sheet_of(job, option), weather_of(workspace, job)
    diode = fit_diode(sheet)
    by_tracker: dict[int, list[ModuleString]] = {}
    for string in option.strings:
        by_tracker.setdefault(string.tracker_number - 1, []).append(string)

    def load(item: tuple[int, list[ModuleString]]) -> LoadedTracker:
        index, strings = item
        wired = tuple(s.module_ids for s in strings)
        key = (index, wired, weather_key(job), job.survey, option.arrays, sheet, supposed)
        return workspace.loaded.get(
            key,
            lambda: loaded_tracker(
                index,
                _lit_strings(workspace, job, option, wired, index, supposed),
                diode,
                sheet.bypass_diodes,
                weather,
            ),
        )

    # The kernels let go of the interpreter, so that both cores work.
    with ThreadPoolExecutor() as pool:
        return tuple(pool.map(load, by_tracker.items()))


def _lit_strings(
    workspace: Workspace,
    job: Job,
    option: Option,
    wired: tuple[tuple[PlacedId, ...], ...],
    tracker_index: int,
    supposed: Supposed,
) -> tuple[LitString, ...]:
    """Return strings with the light on each of their substrings."""
    sky, arrays = array_lights(workspace, job, option, without=supposed.without)
    lit = {m.id: (a, x) for a in arrays for m, x in zip(a.modules, a.lights, strict=True)}
    return tuple(
        lit_string(
            [lit[m] for m in ids],
            sky,
            tracker_index,
            heat_loss(lit[ids[0]][0].array.mounting),
            darkest=supposed.darkest,
        )
        for ids in wired
    )


def heat_loss(mounting: Mounting) -> HeatLoss:
    """Return how a mounting cools its modules."""
    table = tables.load("heat-loss")
    return HeatLoss(
        table.number("constant_w_per_m2k", mounting=mounting.value),
        table.number("per_wind_w_per_m2k_per_m_per_s", mounting=mounting.value),
    )


def _doubts(job: Job, weather: WeatherYear) -> tuple[str, ...]:
    doubts = list(weather_doubts(job, weather))
    doubts.append(
        "Clipping is worked out on hourly means, which understate it; the most is what sun and "
        "cloud by turns in every hour would clip"
    )
    doubts.append("Not included: " + "; ".join(NOT_INCLUDED))
    typed = {m.quantity for m in job.weather.months}
    kept = tables.load("dc-losses")
    shares = ", ".join(
        f"{loss} {float(share) * 100:g} %"
        for loss, share in kept.rows
        if not (loss == "soiling" and Monthly.SOILING in typed)
    )
    doubts.append(f"Usual allowances taken off: {shares}")
    if Monthly.SNOWFALL in typed:
        doubts.append("Snow by a published monthly model; its falls and humidity are estimated")
    else:
        doubts.append("No snow: no month's snowfall is typed")
    doubts.append("Cell heating by mounting is estimated, crowns let light through from memory")
    site = job.site
    if not site.place:
        doubts.append(
            f"No place is given: the sun is reckoned for {site.latitude_deg:g}° latitude, "
            f"{site.longitude_deg:g}° longitude"
        )
    if site.elevation_m is None:
        doubts.append("No elevation is given: sea level is taken")
    clock_off_h = abs(site.longitude_deg / 15 - site.utc_offset_h)
    if clock_off_h > MOST_CLOCK_OFF_H:
        doubts.append(
            f"Longitude and hours from UTC disagree by {clock_off_h:.1f} h: east and west are mixed up"
        )
    if site.hottest.value_degc is None:
        hottest = climate(site.climate_id).hottest_degc
        doubts.append(f"Hottest air is the climate's stand-in, {hottest:g} °C")
    return tuple(doubts)


def _diode_note(model: DiodeModel) -> DiodeNote:
    gamma = model.gamma_error_per_degc
    known_gamma = None if gamma != gamma else gamma  # noqa: PLR0124 - NaN means not on the sheet
    warnings = []
    if model.beta_error_frac > 0.02:
        warnings.append(f"Voc coefficient off by {model.beta_error_frac * 100:.0f} %")
    if known_gamma is not None and abs(known_gamma) > 0.0003:
        warnings.append(f"power coefficient off by {known_gamma * 100:+.2f} %/°C")
    return DiodeNote(
        model.fitted_by,
        model.worst_point_frac,
        model.beta_error_frac,
        known_gamma,
        f"The diode model of this module has its {' and its '.join(warnings)}" if warnings else "",
    )
