"""What the core computes for an option, remembered by the content it depends on."""

from dataclasses import dataclass

import numpy as np

from ridge_tally.core.energy.diode_fit import DiodeModel, fit_diode, gap_off_frac
from ridge_tally.core.energy.waterfall import Stage, Step
from ridge_tally.core.energy.year import YearResult, clipping_band_kwh
from ridge_tally.core.equipment import InverterSheet, MicroinverterSheet
from ridge_tally.core.errors import MissingDatum, OutsideModelRange
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import present_ids, strings_on, strung_count
from ridge_tally.core.job.system import strung_w
from ridge_tally.core.job.weather import Monthly
from ridge_tally.core.loading.at_work import AtWork, at_work
from ridge_tally.core.loading.clipped_day import LimitCost, LoadingDay, limit_costs, loading_days
from ridge_tally.core.loading.clipping import ClipCalendar, clip_calendar
from ridge_tally.core.number_format import signed
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.core.strings.voltage import STC_CELL_DEGC
from ridge_tally.core.survey.standing import shades_others
from ridge_tally.core.units import format_altitude
from ridge_tally.rules import tables
from ridge_tally.rules.design import Design
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import HouseLoad, house_load
from ridge_tally.simulation.plant import wires_at_rating
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import require_year, simulated, yearly_kwh_by_age
from ridge_tally.simulators.weather_service import climate
from ridge_tally.views.sun.weather_caveats import weather_caveats

# No zone's standard time is further from its sun than this.
# A coefficient this much apart is told, and at a cell as warm as on a good day.
TOLD_FROM_PER_DEGC, WARM_DEGC = 1e-4, 50.0
MOST_CLOCK_OFF_H = 3.0

# A model whose gap is further from silicon's stands on figures that hardly agree; our own line.
FAR_GAP_FRAC = 0.25


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

    ``clipped_kwh`` has the sun's way and passing clouds within each hour; ``clipped_hourly_kwh``
    is what even hours would clip, ``clipped_most_kwh`` what hours of sun and cloud almost alone
    would.  ``by_age_kwh``: the first year and each later one.  ``faults``: sentences on what
    takes no part.  ``caveats``: on what the figure rests on that nobody measured.
    """

    option_id: str
    energy_kwh: float
    specific_kwh_per_kw: float
    clipped_kwh: float
    clipped_frac: float
    clipped_hours: float
    clipped_hourly_kwh: float
    clipped_most_kwh: float
    tracker_loss_kwh: float
    hot_loss_kwh: float | None
    cabinet_most_degc: float
    export_loss_kwh: float | None
    monthly_kwh: tuple[float, ...]
    by_age_kwh: tuple[float, ...]
    stages: tuple[Stage, ...]
    limit_kw: float
    days: tuple[LoadingDay, ...]
    limits: tuple[LimitCost, ...]
    calendar: ClipCalendar
    at_work: AtWork
    weather: str
    stand_in_weather: bool
    faults: tuple[str, ...]
    caveats: tuple[str, ...]
    diode: DiodeNote


def year_report(desk: Desk, design: Design) -> YearReport:
    """Return the simulated year of an option.

    Raises
    ------
    MissingDatum
        When no module is in a string, or a datasheet lacks what the model needs.
    """
    require_year(design)
    year, plant = simulated(desk, design)
    weather = weather_of(desk, design.job)
    least_kwh, most_kwh = clipping_band_kwh(plant, weather)
    module = design.module
    derates = any(s.step is Step.HOT for s in year.stages)
    exports = any(s.step is Step.EXPORT for s in year.stages)
    return YearReport(
        option_id=design.option.id,
        energy_kwh=year.energy_kwh,
        specific_kwh_per_kw=year.energy_kwh / (strung_w(design) / 1000),
        clipped_kwh=year.clipped_kwh,
        clipped_frac=year.clipped_frac,
        clipped_hours=year.clipped_hours,
        clipped_hourly_kwh=least_kwh,
        clipped_most_kwh=most_kwh,
        tracker_loss_kwh=year.lost_kwh(Step.TRACKER),
        hot_loss_kwh=year.lost_kwh(Step.HOT) if derates else None,
        cabinet_most_degc=float(year.cabinet_degc.max()),
        export_loss_kwh=year.lost_kwh(Step.EXPORT) if exports else None,
        monthly_kwh=year.monthly_kwh,
        by_age_kwh=yearly_kwh_by_age(desk, design),
        stages=year.stages,
        limit_kw=year.limit_w / 1000,
        days=tuple(loading_days(year, weather, design.job.site.latitude_deg)),
        limits=limit_costs(year),
        calendar=clip_calendar(year, weather),
        at_work=at_work(year, plant.sides[0]),
        weather=weather.name,
        stand_in_weather=weather.stand_in,
        faults=_faults(design, year),
        caveats=_caveats(design, weather, house_load(desk, design.job)),
        diode=_diode_note(fit_diode(module)),
    )


def _faults(design: Design, year: YearResult) -> tuple[str, ...]:
    """Return what takes no part in the year, in sentences."""
    found = []
    loose = len(present_ids(design.option)) - strung_count(design.option)
    if loose:
        are = (
            "module is in no string and gives"
            if loose == 1
            else "modules are in no string and give"
        )
        found.append(f"{loose} {are} nothing: string them, or take them off the roof")
    if design.option.electronics.architecture is Architecture.MICRO:
        return tuple(found)
    for tracker, power_w in zip(design.trackers, year.tracker_dc_w, strict=False):
        tags, window = [s.tag for s in strings_on(design.option, tracker.number)], tracker.sheet
        if tags and not np.any(power_w > 0):
            found.append(
                f"Tracker {tracker.number} never runs all year: {', '.join(tags)} stays outside "
                f"its {window.v_min_v:g} to {window.v_max_v:g} V, start "
                f"{tracker.inverter.v_start_v:g} V. "
                "Put more or fewer modules in series"
            )
    return tuple(found)


def _caveats(design: Design, weather: WeatherYear, load: HouseLoad | None) -> tuple[str, ...]:
    caveats = list(weather_caveats(design.job, weather))
    caveats.append(
        "By the hour; clipping is that of the minutes within each, their clouds reckoned from the "
        "hour’s share of a clear sky"
    )
    typed = {m.quantity for m in design.job.weather.months}
    module = design.module
    wires = wires_at_rating(design)
    known = {
        "soiling": Monthly.SOILING in typed,
        "ageing in the first year": module.first_year_loss_frac is not None,
        "ageing in each later year": module.yearly_loss_frac is not None,
        "DC wiring": wires.dc_frac is not None or design.microinverter is not None,
        "AC wiring": wires.ac_frac is not None,
    }
    shares = ", ".join(
        f"{loss} {float(share) * 100:g} %"
        for loss, share in tables.load("usual-losses").rows
        if not known.get(str(loss), False)
    )
    caveats.append(f"Usual allowances taken off: {shares}")
    caveats += [
        f"{side} wires by the ways and conductors of Build: {frac * 100:.2f} % at the rating"
        for side, frac in (("DC", wires.dc_frac), ("AC", wires.ac_frac))
        if frac is not None
    ]
    caveats.append(_told_heat(design))
    caveats += _told_diodes(design)
    thin_m = practice(Practice.THIN_AIR_M)
    if (design.job.site.elevation_m or 0.0) > thin_m:
        height = format_altitude(thin_m, design.job.unit)
        caveats.append(f"Many inverters derate above {height}: thin air is not in the year")
    if design.job.brief.grid and design.job.brief.grid.export_limit_kw is not None:
        told = "no household load entered" if load is None else f"the house’s use: {load.origin}"
        caveats.append(f"What is held back at the export limit is reckoned with {told}")
    if Monthly.SNOWFALL in typed:
        caveats.append("Snow by a published monthly model; its falls and humidity are estimated")
    else:
        caveats.append("No snow: no month's snowfall is typed")
    for unsure in design.job.survey.planes:
        if not shades_others(unsure, design.job.survey):
            what = "has no place on the site plan" if not unsure.at_given else "is not measured"
            caveats.append(f"{unsure.name} {what}: its roof and walls throw no shade")
    caveats.append("Cell heating by mounting is estimated, crown transmittance from memory")
    site = design.job.site
    if not site.place:
        caveats.append(
            f"No place is given: the sun is reckoned for {site.latitude_deg:g}° latitude, "
            f"{site.longitude_deg:g}° longitude"
        )
    if site.elevation_m is None:
        caveats.append("No elevation is given: sea level is taken")
    clock_off_h = abs(site.longitude_deg / 15 - site.utc_offset_h)
    if clock_off_h > MOST_CLOCK_OFF_H:
        caveats.append(
            f"Longitude and hours from UTC disagree by {clock_off_h:.1f} h: east and west are mixed up"
        )
    if site.hottest.value_degc is None:
        hottest = climate(site.climate_id).hottest_degc
        caveats.append(f"Hottest air is the climate's stand-in, {hottest:g} °C")
    return tuple(caveats)


def _told_diodes(design: Design) -> list[str]:
    """Return for each type whose diode loses less with heat than its sheet says, by how much."""
    found = []
    for sheet in dict.fromkeys(design.sheets.values()):
        try:
            error = fit_diode(sheet).gamma_error_per_degc
        except (MissingDatum, OutsideModelRange):
            continue
        # NaN where the sheet prints no power coefficient.
        if error > TOLD_FROM_PER_DEGC:
            found.append(
                f"The diode of {sheet.name} loses {error * 100:.2f} %/°C less with heat than its "
                f"sheet says: with cells at {WARM_DEGC:g} °C the year has "
                f"{error * (WARM_DEGC - STC_CELL_DEGC) * 100:.1f} % too much"
            )
    return found


def _told_heat(design: Design) -> str:
    micro = design.microinverter
    inverters: tuple[InverterSheet | MicroinverterSheet, ...] = design.inverters
    if micro is not None:
        inverters = (micro,)
    for inverter in inverters:
        if not inverter.derating:
            return f"{inverter.name} names no derating by heat: none is taken off"
    if any(inverter.warming is None for inverter in inverters):
        return "The inverter's derating is its datasheet's; how fast its cabinet warms is estimated"
    return "The inverter's derating and warming are its datasheet's; it hangs in the shade"


def _diode_note(model: DiodeModel) -> DiodeNote:
    gamma = model.gamma_error_per_degc
    known_gamma = None if gamma != gamma else gamma  # noqa: PLR0124 - NaN means not on the sheet
    warnings = []
    if gap_off_frac(model) > FAR_GAP_FRAC:
        warnings.append(
            f"its figures agree only with a band gap of {model.gap_ev:.2f} eV, silicon has 1.12"
        )
    if known_gamma is not None and abs(known_gamma) > 0.0003:
        warnings.append(f"its power coefficient is off by {signed(known_gamma * 100, 2)} %/°C")
    return DiodeNote(
        model.fitted_by,
        model.worst_point_frac,
        model.beta_error_frac,
        known_gamma,
        f"The diode model of this module: {' and '.join(warnings)}" if warnings else "",
    )
