"""The fast part of the brief: bills read, the need by months, place, stock."""

from dataclasses import dataclass

from ridge_tally.catalogue.gazetteer import MAGNETIC_MODEL, site_declination_deg
from ridge_tally.core.brief.bills import (
    ReadBill,
    Usage,
)
from ridge_tally.core.brief.loads import LoadYear
from ridge_tally.core.brief.tariff import write_tiers
from ridge_tally.core.job.brief import HeatPumpLoad
from ridge_tally.core.job.document import (
    Job,
)
from ridge_tally.core.job.grid import GridRules, SizeCapKind
from ridge_tally.core.number_format import spaced
from ridge_tally.core.units import L_PER_US_GALLON, LengthUnit
from ridge_tally.simulation.need import bills_include_old_array, need_of, small_money
from ridge_tally.views.step_state import StepState
from ridge_tally.views.sun.weather_caveats import guessed_climate


@dataclass(frozen=True, slots=True)
class LoadView:
    """What a load to come adds, and the fuel it displaces in words."""

    id: str
    energy_kwh: float
    monthly_kwh: tuple[float, ...]
    displaced: str


@dataclass(frozen=True, slots=True)
class BriefReport:
    """What follows an edit of the brief at once; ``None`` where nobody gave a number.

    ``need_kwh`` is the use with the loads to come, ``small_money`` what prices of a kWh are typed in.  ``grid_warnings`` are sentences on grid
    rules that contradict what is there.
    """

    bills: tuple[ReadBill, ...]
    usage: Usage | None
    loads: tuple[LoadView, ...]
    need_kwh: float | None
    monthly_need_kwh: tuple[float, ...]
    tiers_typed: str
    small_money: str
    grid_warnings: tuple[str, ...]
    declination_deg: float | None
    declination_model: str
    caveats: tuple[str, ...]
    step: StepState


def brief_report(job: Job) -> BriefReport:
    """Return the fast report of a job's brief; it never fails on what was typed."""
    brief, site, need = job.brief, job.site, need_of(job)
    bills, usage = need.bills, need.usage
    tariff = brief.grid.tariff if brief.grid is not None else None
    return BriefReport(
        bills=bills,
        usage=usage,
        loads=tuple(
            LoadView(load.id, year.energy_kwh, year.monthly_kwh, _displaced(job, year))
            for load, year in need.loads
        ),
        need_kwh=need.energy_kwh,
        monthly_need_kwh=need.monthly_kwh,
        tiers_typed=write_tiers(tariff.tiers) if tariff else "",
        small_money=small_money(job),
        grid_warnings=_grid_warnings(job, brief.grid) if brief.grid else (),
        declination_deg=site_declination_deg(site),
        declination_model=MAGNETIC_MODEL,
        caveats=_caveats(job, usage),
        step=_step(job, bills, usage),
    )


def _step(job: Job, bills: tuple[ReadBill, ...], usage: Usage | None) -> StepState:
    """Begun with a place or a use; settled once place, use and grid rules stand without a fault."""
    brief, site = job.brief, job.site
    if not (site.place or brief.bills or usage):
        return StepState.NOT_BEGUN
    whole = bool(site.place) and usage is not None and brief.grid is not None
    doubtful = any(b.problem for b in bills) or site.coldest.value_degc is None
    warned = brief.grid is not None and bool(_grid_warnings(job, brief.grid))
    return StepState.SETTLED if whole and not doubtful and not warned else StepState.LOOK


def _displaced(job: Job, year: LoadYear) -> str:
    """Return the fuel a load spares in words; a car's in gallons where lengths are in feet."""
    amount, unit = year.displaced_fuel, year.displaced_unit
    if unit == "l of fuel" and job.unit is LengthUnit.FOOT:
        amount, unit = amount / L_PER_US_GALLON, "gal of fuel"
    return f"{spaced(amount)} {unit}" if amount else ""


def _grid_warnings(job: Job, grid: GridRules) -> tuple[str, ...]:
    arrays, phases = job.brief.already.arrays, job.survey.service.phases
    dc_kw, ac_kw = sum(a.p_dc_kw for a in arrays), sum(a.p_ac_kw for a in arrays)
    found = []
    cap = grid.size_cap
    there = {SizeCapKind.DC_KW: dc_kw, SizeCapKind.AC_KW: ac_kw}.get(cap.kind)
    if there is not None and cap.value is not None and cap.value < there:
        found.append(
            f"The size cap of {cap.value:g} kW is below the {there:g} kW already there: "
            "nothing may be added"
        )
    if cap.kind is not SizeCapKind.NONE and cap.value is None:
        found.append("The size cap has no figure yet: it is not held")
    per_phase = grid.ac_cap_kw_per_phase
    if per_phase is not None and per_phase * phases < ac_kw:
        found.append(
            f"The inverter cap of {per_phase * phases:g} kW is below the {ac_kw:g} kW already "
            "there: nothing may be added"
        )
    rebate = grid.rebate
    if rebate is not None and rebate.most_dc_kw is not None and rebate.most_dc_kw < dc_kw:
        found.append(f"The rebate ends at {rebate.most_dc_kw:g} kW; {dc_kw:g} kW are there already")
    return tuple(found)


def _caveats(job: Job, usage: Usage | None) -> tuple[str, ...]:
    site, found = job.site, []
    if not site.place:
        found.append("No place is given yet")
    if not site.climate_given:
        found.append(guessed_climate(site))
    if site.elevation_m is None:
        found.append("No elevation: sea level is taken, and derating by altitude is not known")
    if site.survey_day is None:
        found.append("No day of the survey: the magnetic declination is not known")
    if job.brief.grid is not None and job.brief.grid.sample:
        found.append("The grid rules are an invented sample: type the operator's own")
    if job.brief.already.arrays and bills_include_old_array(job, usage) is None:
        found.append(
            "The old array was built in the year of the first bill: it is taken as new then"
        )
    if any(isinstance(x, HeatPumpLoad) for x in job.brief.loads):
        found.append(
            "Heat is spread by the stand-in climate's mean temperatures; heats of fuels are from memory"
        )
    return tuple(found)
