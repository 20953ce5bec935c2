"""The fast part of the brief: bills read, the need by months, place, stock."""

from dataclasses import dataclass

from ridge_tally.catalogue.gazetteer import MAGNETIC_MODEL, site_declination_deg
from ridge_tally.core.brief.bills import (
    ReadBill,
    Usage,
    read_bills,
    usage_of_bills,
    usage_of_year,
)
from ridge_tally.core.brief.loads import LoadYear, heating_shares, load_year
from ridge_tally.core.brief.tariff import next_kwh_cents, write_tiers
from ridge_tally.core.equipment import kind_of
from ridge_tally.core.job.brief import HeatPumpLoad, StockKind
from ridge_tally.core.job.document import (
    Job,
    Option,
    month_first,
)
from ridge_tally.core.job.grid import GridRules, Metering, SizeCapKind
from ridge_tally.core.spoken import spaced
from ridge_tally.core.strings.parts import parts_of
from ridge_tally.core.units import L_PER_US_GALLON, LengthUnit
from ridge_tally.editing.sun.normals import normals_of
from ridge_tally.rules import tables
from ridge_tally.services.step_state import StepState


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

    ``need_kwh`` is the use with the loads to come.  ``grid_warnings`` are sentences on grid
    rules that contradict what is there.
    """

    bills: tuple[ReadBill, ...]
    usage: Usage | None
    loads: tuple[LoadView, ...]
    need_kwh: float | None
    monthly_need_kwh: tuple[float, ...]
    tiers_typed: str
    grid_warnings: tuple[str, ...]
    declination_deg: float | None
    declination_model: str
    doubts: tuple[str, ...]
    step: StepState


@dataclass(frozen=True, slots=True)
class ToBuy:
    """What an option needs of a thing, and what the shelf holds of it."""

    kind: StockKind
    name: str
    needed: int
    on_shelf: int


def brief_report(job: Job) -> BriefReport:
    """Return the fast report of a job's brief; it never fails on what was typed."""
    brief, site = job.brief, job.site
    tariff = brief.grid.tariff if brief.grid is not None else None
    bills = read_bills(brief.bills, tariff, month_first=month_first(job))
    usage = usage_of_bills(bills, southern=site.latitude_deg < 0)
    if usage is None and brief.use_kwh_per_year is not None:
        usage = usage_of_year(brief.use_kwh_per_year)
    loads = _loads(job)
    need = None if usage is None else usage.energy_kwh + sum(x.energy_kwh for x in loads)
    parts = [x.monthly_kwh for x in loads] + ([usage.monthly_kwh] if usage is not None else [])
    return BriefReport(
        bills=bills,
        usage=usage,
        loads=loads,
        need_kwh=need,
        monthly_need_kwh=tuple(sum(month) for month in zip(*parts, strict=True)) or (0.0,) * 12,
        tiers_typed=write_tiers(tariff.tiers) if tariff else "",
        grid_warnings=_grid_warnings(job, brief.grid) if brief.grid else (),
        declination_deg=site_declination_deg(site),
        declination_model=MAGNETIC_MODEL,
        doubts=_doubts(job, usage),
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


def _loads(job: Job) -> tuple[LoadView, ...]:
    table = tables.load("fuel-energy")
    heating = heating_shares(normals_of(job).mean_degc)
    views = []
    for load in job.brief.loads:
        kwh_per_unit, unit = 0.0, ""
        if isinstance(load, HeatPumpLoad):
            kwh_per_unit = table.number("kwh_per_unit", fuel=load.fuel.value)
            unit = table.text("unit", fuel=load.fuel.value)
        year = load_year(load, heating, kwh_per_unit, unit)
        views.append(LoadView(load.id, year.energy_kwh, year.monthly_kwh, _displaced(job, year)))
    return tuple(views)


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


def next_kwh_price_cents(job: Job) -> float | None:
    """Return what the next kWh costs the house; ``None`` without a tariff."""
    grid, need = job.brief.grid, brief_report(job).need_kwh
    return None if grid is None else next_kwh_cents(grid.tariff, (need or 0.0) / 12, 30)


def sent_kwh_price_cents(job: Job) -> float | None:
    """Return what a kWh sent out is worth: the next one bought under net metering, else its pay.

    ``None`` without a tariff.
    """
    grid = job.brief.grid
    if grid is None:
        return None
    if grid.metering is Metering.NET:
        return next_kwh_price_cents(job)
    return 0.0 if grid.metering is Metering.UNPAID else grid.export_cents_per_kwh


def bills_include_old_array(job: Job, usage: Usage | None) -> bool | None:
    """Return whether the bills are already less what an old array made; ``None``: cannot tell.

    They are when every old array was built in a year before the first bill; without bills
    the typed figure is taken as what was bought.
    """
    arrays = job.brief.already.arrays
    if usage is None or usage.first_day is None or not arrays:
        return bool(arrays)
    latest = max(a.built_year for a in arrays)
    if latest == usage.first_day.year:
        return None
    return latest < usage.first_day.year


def _doubts(job: Job, usage: Usage | None) -> tuple[str, ...]:
    site, found = job.site, []
    if not site.place:
        found.append("No place is given yet")
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


def to_buy(job: Job, option: Option) -> tuple[ToBuy, ...]:
    """Return what the option needs beside what the shelf holds; nothing without a stock list."""
    if not job.brief.stock:
        return ()
    return tuple(
        ToBuy(kind, sheet.name, needed, on_shelf(job, kind, sheet.id))
        for sheet, needed in parts_of(job, option)
        for kind in (StockKind(kind_of(sheet)),)
    )


def on_shelf(job: Job, kind: StockKind, item_id: str) -> int:
    """Return how many of a thing the stock list holds."""
    return sum(s.count for s in job.brief.stock if s.kind is kind and s.item_id == item_id)
