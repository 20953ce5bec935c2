"""The target of an option: need, yield, count, ceilings, approval routes.

Asked for beside the year, since the true yield replaces the first guess once modules are
strung.
"""

from contextlib import suppress
from dataclasses import dataclass

import numpy as np

from ridge_tally.core.brief.target import Ceiling, CeilingKind, binding_ceiling
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.brief import TargetKind
from ridge_tally.core.job.document import Job, array_of, present_ids
from ridge_tally.core.job.grid import GridRules, RouteKind
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import strung_w
from ridge_tally.core.loading.clipped_day import clipped_kwh_at
from ridge_tally.core.sheets.working_lines import sum_lines
from ridge_tally.core.strings.parts import ac_makers, counted_names
from ridge_tally.core.sun.shading import glass_of
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.working import Given, LimitKind, number_of
from ridge_tally.editing.design import design_for
from ridge_tally.rules import tables
from ridge_tally.rules.brief.ceilings import Figures, TargetCount, ceilings, target_count
from ridge_tally.rules.brief.wishes import roofs_left_free
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.ac_sources import existing_ac, phases_used, whole_ac
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.first_yield import monthly_guess
from ridge_tally.simulation.need import Need, bills_include_old_array, need_of
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import hourly_year, require_year
from ridge_tally.studies.array.layouts import most_modules
from ridge_tally.studies.money.saved import lost_behind_cents

TARGET_TITLES = {
    TargetKind.NET_ZERO: "Net zero over the year",
    TargetKind.SHARE: "A share of the use",
    TargetKind.BUDGET: "What the budget buys",
    TargetKind.ROOF: "As much as the roof takes",
    TargetKind.REBATE: "As much as the rebate pays",
}


@dataclass(frozen=True, slots=True)
class SumView:
    """A sum in two lines, with its inputs and where they come from."""

    symbols: str
    numbers: str
    givens: tuple[Given, ...]


@dataclass(frozen=True, slots=True)
class CeilingView:
    """A ceiling with its sum; ``modules`` is ``None`` when ``reason`` says what is missing.

    ``passed`` when the design itself has more modules than an exact ceiling.
    """

    kind: CeilingKind
    title: str
    limit_kind: LimitKind
    modules: int | None
    value: float | None
    sum: SumView
    source: str
    source_status: str
    reason: str
    passed: bool


@dataclass(frozen=True, slots=True)
class RouteView:
    """One route for one inverter: open or not, and what staying small for it would cost.

    ``lost_kwh`` is what the array loses in the year behind a limit of the route; ``None``
    before a year can be simulated or where nothing limits.
    """

    kind: RouteKind
    open: bool
    limit_kw: float | None
    weeks: float | None
    fee_cents: int | None
    notice: str
    imposed_export_kw: float | None
    lost_kwh: float | None
    lost_cents: int | None
    export_lost_kwh: float | None


@dataclass(frozen=True, slots=True)
class InverterRoutes:
    """The routes of one inverter in play."""

    option_id: str
    inverter: str
    p_ac_kw: float
    routes: tuple[RouteView, ...]


@dataclass(frozen=True, slots=True)
class TargetReport:
    """The target of an option and what ends the count first.

    ``modules_now`` are those of the design; ``against_need_frac`` the energy of the strung
    array over the need.  ``binding`` is the lowest known ceiling; ``spare`` its modules less
    the target's (negative: short).  ``told`` is all of it in one sentence.
    """

    option_id: str
    title: str
    need_kwh: float | None
    target_kwh: float | None
    target_modules: int | None
    target_dc_kw: float | None
    target_sum: SumView
    target_value: float | None
    target_reason: str
    net_zero_modules: float | None
    module_w: float
    yield_kwh_per_kw: float
    yield_origin: str
    yield_simulated: bool
    monthly_kwh: tuple[float, ...]
    monthly_title: str
    modules_now: int
    energy_kwh: float | None
    against_need_frac: float | None
    ceilings: tuple[CeilingView, ...]
    binding: CeilingKind | None
    spare: int | None
    told: str
    routes: tuple[InverterRoutes, ...]


@dataclass(frozen=True, slots=True)
class _Yield:
    given: Given
    monthly_kwh_per_kw: tuple[float, ...]
    simulated: bool
    energy_kwh: float | None


def target_report(desk: Desk, design: Design) -> TargetReport:
    """Return the target of an option with its ceilings; nothing in it is needed to go on."""
    house = need_of(design.job)
    yield_ = _yield(desk, design)
    found = ceilings(design, _figures(desk, design, house, yield_))
    need = Given("need", "use in a year", house.energy_kwh, "kWh", _need_origin(house))
    count = target_count(design, need, yield_.given, found)
    lowest = binding_ceiling(found)
    spare = None
    if lowest is not None and lowest.modules is not None and count.modules is not None:
        spare = lowest.modules - count.modules
    now = len(present_ids(design.option))
    modules = now or count.modules or 0
    kilowatts = modules * design.module.p_max_w / 1000
    energy, need_kwh = yield_.energy_kwh, house.energy_kwh
    return TargetReport(
        option_id=design.option.id,
        title=TARGET_TITLES[design.job.brief.target.kind],
        need_kwh=need_kwh,
        target_kwh=count.energy_kwh,
        target_modules=count.modules,
        target_dc_kw=None
        if count.modules is None
        else count.modules * design.module.p_max_w / 1000,
        target_sum=_sum_view(count.formula, count.givens),
        target_value=count.value,
        target_reason=count.reason,
        net_zero_modules=_net_zero(need_kwh, yield_, design.module.p_max_w),
        module_w=design.module.p_max_w,
        yield_kwh_per_kw=yield_.given.value or 0.0,
        yield_origin=yield_.given.origin,
        yield_simulated=yield_.simulated,
        monthly_kwh=tuple(m * kilowatts for m in yield_.monthly_kwh_per_kw),
        monthly_title=f"{modules} modules" + ("" if now else ", the target"),
        modules_now=now,
        energy_kwh=energy,
        against_need_frac=energy / need_kwh if energy is not None and need_kwh else None,
        ceilings=tuple(_ceiling_view(c, now) for c in found),
        binding=lowest.kind if lowest else None,
        spare=spare,
        told=_told(count, lowest, spare),
        routes=_routes(desk, design.job, design.option, house),
    )


def _net_zero(need_kwh: float | None, yield_: _Yield, p_max_w: float) -> float | None:
    """Return the modules, not cut to whole ones, whose year is the need."""
    if need_kwh is None or not yield_.given.value:
        return None
    return need_kwh * 1000 / (yield_.given.value * p_max_w)


def _need_origin(house: Need) -> str:
    if house.usage is None:
        return ""
    more = f" and {len(house.loads)} load(s) to come" if house.loads else ""
    return house.usage.origin + more


def _yield(desk: Desk, design: Design) -> _Yield:
    """Return the yield: simulated when modules are strung, typed, or the first guess."""
    typed = design.job.brief.target.yield_kwh_per_kw
    year = _year(desk, design)
    if year is not None:
        specific = year.energy_kwh / (strung_w(design) / 1000)
        per_kw = specific / year.energy_kwh if year.energy_kwh else 0.0
        origin = f"simulated for this design, {weather_of(desk, design.job).name}"
        given = Given("y", "yield", specific, "kWh/kW", origin)
        monthly = tuple(m * per_kw for m in year.monthly_kwh)
        return _Yield(given, monthly, simulated=True, energy_kwh=year.energy_kwh)

    def guess(of: RoofPlane) -> tuple[float, ...]:
        return monthly_guess(
            desk, design.job, glass_of(of, array_of(design.option, of.id).leg_tilt_deg)
        )

    plane = max(_free_planes(design.job) or design.job.survey.planes, key=lambda p: sum(guess(p)))
    monthly = guess(plane)
    if typed is not None:
        scale = typed / sum(monthly)
        given = Given("y", "yield", typed, "kWh/kW", "typed in the brief")
        return _Yield(given, tuple(m * scale for m in monthly), simulated=False, energy_kwh=None)
    share = tables.load("first-yield").number("performance_frac")
    weather = weather_of(desk, design.job).name
    origin = f"first guess: {share * 100:g} % of the light on {plane.name}, {weather}, no shade"
    given = Given("y", "yield", sum(monthly), "kWh/kW", origin)
    return _Yield(given, monthly, simulated=False, energy_kwh=None)


def _year(desk: Desk, design: Design) -> YearResult | None:
    """Return the year of an option that has one; the target stands without it too."""
    try:
        require_year(design)
        return hourly_year(desk, design)
    except RidgeTallyError:
        return None


def _free_planes(job: Job) -> tuple[RoofPlane, ...]:
    taken = roofs_left_free(job)
    return tuple(p for p in job.survey.planes if p.id not in taken)


def _figures(desk: Desk, design: Design, house: Need, yield_: _Yield) -> Figures:
    job = design.job
    planes = _free_planes(job)
    closed = [p for p in planes if is_closed(p)]
    most = [most_modules(desk, design, p) for p in closed]
    open_ = len(closed) < len(planes)
    names = (", ".join(p.name for p in closed) or "no closed roof") + (
        f"; {len(planes) - len(closed)} not closed yet" if open_ else ""
    )
    arrays = job.brief.already.arrays
    y = yield_.given.value or 0.0
    old_kwh = sum(
        a.energy_kwh_per_year if a.energy_kwh_per_year is not None else a.p_dc_kw * y
        for a in arrays
    )
    past = None if house.usage is None else house.usage.energy_kwh
    origin = "bills"
    if past is not None and arrays and bills_include_old_array(job, house.usage):
        past += old_kwh
        origin = "bills and what the old array made"
    return Figures(
        roof_title="Roof, unmeasured" if open_ else "Roof",
        n_roof=Given(
            "n_roof",
            "most modules proven",
            float(sum(most)) if closed or not planes else None,
            "",
            f"fill of {names}",
        ),
        yield_=yield_.given,
        past_use=Given("use", "past use in a year", past, "kWh", origin),
        old_energy=Given(
            "e_old", "made by what is there", old_kwh, "kWh", "brief" if arrays else "nothing there"
        ),
    )


def _sum_view(formula: str, givens: tuple[Given, ...]) -> SumView:
    symbols, numbers = sum_lines(formula, givens)
    return SumView(symbols, numbers, givens)


def _ceiling_view(item: Ceiling, now: int) -> CeilingView:
    return CeilingView(
        kind=item.kind,
        title=item.title,
        limit_kind=item.limit_kind,
        modules=item.modules,
        value=item.value.value,
        sum=_sum_view(item.formula, item.givens),
        source=item.source.document,
        source_status=item.source.status.value,
        reason=item.reason,
        passed=item.exact and item.modules is not None and now > item.modules,
    )


def _told(count: TargetCount, lowest: Ceiling | None, spare: int | None) -> str:
    if count.modules is None:
        return f"No target yet: {count.reason}"
    wanted = f"The target is {count.modules} modules"
    if lowest is None or spare is None:
        return f"{wanted}; no ceiling is known yet"
    name = lowest.title[0].lower() + lowest.title[1:]
    if spare < 0:
        return f"{wanted}; the {name} ends it at {lowest.modules}, {-spare} short"
    if spare == 0:
        return f"{wanted}, and the {name} ends there too"
    return f"{wanted}; the first ceiling is the {name} at {lowest.modules}, {spare} to spare"


def _routes(desk: Desk, job: Job, in_view: Option, house: Need) -> tuple[InverterRoutes, ...]:
    """Return the approval routes of each inverter in play, that of the option in view first."""
    grid = job.brief.grid
    if grid is None:
        return ()
    by_inverter: dict[tuple[tuple[str, int], ...], Design] = {}
    for option in (in_view, *job.options):
        design = design_for(job, option)
        makers = tuple((sheet.id, n) for sheet, n in ac_makers(design))
        by_inverter.setdefault(makers, design)
    return tuple(_inverter_routes(desk, d, grid) for m, d in by_inverter.items() if m)


def _inverter_routes(desk: Desk, design: Design, grid: GridRules) -> InverterRoutes:
    makers = ac_makers(design)
    old_kw = number_of(existing_ac(design))
    ac_kw = whole_ac(design).kw - old_kw
    # What stands on one phase of three fills that one first.
    used, phases = phases_used(design), design.job.survey.service.phases
    year = None
    with suppress(RidgeTallyError):
        require_year(design)
        year = hourly_year(desk, design)

    def lost_behind_kwh(limit_kw: float | None) -> float | None:
        if year is None or limit_kw is None:
            return None
        limits = np.array([limit_kw * 1000])
        behind = float(clipped_kwh_at(np.maximum(year.parts_w, 0), limits, year.hours)[0])
        return max(0.0, behind - year.clipped_kwh)

    views = []
    for route in grid.routes:
        limit = None if route.most_kw_per_phase is None else route.most_kw_per_phase * used
        room_kw = None if limit is None else max(0.0, limit - old_kw * used / phases)
        lost = lost_behind_kwh(room_kw)
        views.append(
            RouteView(
                kind=route.kind,
                open=room_kw is None or ac_kw <= room_kw * (1 + 1e-9),
                limit_kw=limit,
                weeks=route.weeks,
                fee_cents=route.fee_cents,
                notice=route.notice,
                imposed_export_kw=route.imposed_export_kw,
                lost_kwh=lost,
                lost_cents=(
                    None
                    if year is None or room_kw is None
                    else lost_behind_cents(desk, design, year, room_kw * 1000)
                ),
                export_lost_kwh=lost_behind_kwh(route.imposed_export_kw),
            )
        )
    return InverterRoutes(design.option.id, counted_names(makers), ac_kw, tuple(views))
