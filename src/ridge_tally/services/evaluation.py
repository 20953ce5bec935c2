"""What the core computes for an option, remembered by the content it depends on."""

from dataclasses import dataclass

from ridge_tally.core.energy.diode_fit import DiodeModel, fit_diode
from ridge_tally.core.energy.year import (
    NOT_INCLUDED,
    DcLosses,
    HeatLoss,
    Plant,
    StringGroup,
    YearResult,
    simulate_year,
)
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.document import (
    Job,
    Option,
    Site,
    inverter_sheet_of,
    module_sheet_of,
    plane_of,
)
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.loading.clipped_day import LimitCost, LoadingDay, limit_costs, loading_days
from ridge_tally.core.sky.sun import Location
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.rules import tables
from ridge_tally.rules.design import MOUNTING
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulators.weather_service import climate, typical_year

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
    tracker_loss_kwh: float
    monthly_kwh: tuple[float, ...]
    limit_kw: float
    days: tuple[LoadingDay, ...]
    limits: tuple[LimitCost, ...]
    weather: str
    stand_in_weather: bool
    doubts: tuple[str, ...]
    diode: DiodeNote


def location_of(site: Site) -> Location:
    """Return where the sun is reckoned for: at sea level while nobody gave an elevation."""
    elevation_m = site.elevation_m or 0.0
    return Location(site.latitude_deg, site.longitude_deg, elevation_m, site.utc_offset_h)


def weather_of(workspace: Workspace, job: Job) -> WeatherYear:
    """Return the weather year of a job's site."""
    climate_id, location = job.site.climate_id, location_of(job.site)
    return workspace.weather.get((climate_id, location), lambda: typical_year(climate_id, location))


def year_report(workspace: Workspace, job: Job, option: Option) -> YearReport:
    """Return the simulated year of an option.

    Raises
    ------
    MissingDatum
        When no module is in a string, or a datasheet lacks what the model needs.
    """
    if not option.strings:
        raise MissingDatum(
            "string", f"Option {option.name}", "Fill the roof and the strings follow by themselves."
        )
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
        tracker_loss_kwh=year.tracker_loss_kwh,
        monthly_kwh=year.monthly_kwh,
        limit_kw=inverter.p_ac_w / 1000,
        days=tuple(loading_days(year, weather, job.site.latitude_deg)),
        limits=tuple(limit_costs(year)),
        weather=weather.name,
        stand_in_weather=weather.stand_in,
        doubts=_doubts(job, weather),
        diode=_diode_note(fit_diode(module)),
    )


def hourly_year(workspace: Workspace, job: Job, option: Option) -> YearResult:
    """Return the hours themselves, for a series on request."""
    return _year(workspace, job, option)[0]


def _year(workspace: Workspace, job: Job, option: Option) -> tuple[YearResult, WeatherYear]:
    weather = weather_of(workspace, job)
    plant = plant_of(job, option)
    year = workspace.years.get((plant, job.site.climate_id), lambda: simulate_year(plant, weather))
    return year, weather


def plant_of(job: Job, option: Option) -> Plant:
    """Return what the year needs to know of an option.

    Raises
    ------
    MissingDatum
        If the module's datasheet lacks a coefficient the diode model needs.
    """
    heat = tables.load("heat-loss")
    losses = tables.load("dc-losses")
    return Plant(
        location=location_of(job.site),
        diode=fit_diode(module_sheet_of(job, option)),
        inverter=inverter_sheet_of(job, option),
        groups=_groups(job, option),
        heat=HeatLoss(
            heat.number("constant_w_per_m2k", mounting=MOUNTING),
            heat.number("per_wind_w_per_m2k_per_m_per_s", mounting=MOUNTING),
        ),
        losses=DcLosses(
            losses.number("share_frac", loss="soiling"),
            losses.number("share_frac", loss="mismatch"),
            losses.number("share_frac", loss="wiring"),
        ),
    )


def _groups(job: Job, option: Option) -> tuple[StringGroup, ...]:
    plane_by_module = {m.id: array.plane_id for array in option.arrays for m in array.modules}
    counts: dict[tuple[int, int, PlaneId], int] = {}
    for string in option.strings:
        plane_id = plane_by_module[string.module_ids[0]]
        key = (string.tracker_number - 1, len(string.module_ids), plane_id)
        counts[key] = counts.get(key, 0) + 1
    groups = []
    for (tracker, series, plane_id), strings in counts.items():
        plane = plane_of(job, plane_id)
        groups.append(StringGroup(tracker, series, strings, plane.slope_deg, plane.azimuth_deg))
    return tuple(groups)


def _doubts(job: Job, weather: WeatherYear) -> tuple[str, ...]:
    doubts = []
    if weather.stand_in:
        doubts.append(f"Weather is a {weather.name} climate, drawn, not measured")
    doubts.append("Not included: " + "; ".join(NOT_INCLUDED))
    kept = tables.load("dc-losses")
    shares = ", ".join(f"{loss} {float(share) * 100:g} %" for loss, share in kept.rows)
    doubts.append(f"Usual allowances taken off: {shares}")
    doubts.append("Cell heating of a roof stand-off is estimated")
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
