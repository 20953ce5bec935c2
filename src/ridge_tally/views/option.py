"""The fast part of an option's Tally: counts, checks with their sums, tracker windows."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from ridge_tally.core.array.legal import Shortfall
from ridge_tally.core.job.array import PlacedModule
from ridge_tally.core.job.document import Job, present_ids, strings_on, strung_count
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.wiring import JunctionBox
from ridge_tally.core.sheets.working_lines import WorkingLines, value_and_limit, working_lines
from ridge_tally.core.steps import WorkStep
from ridge_tally.core.strings.runs import HomeRun, home_runs, spots_of
from ridge_tally.core.strings.voltage import STC_CELL_DEGC
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.survey.standing import is_unmeasured
from ridge_tally.core.survey.taping import small_size_text
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import Check, Family, LimitKind, Verdict, number_of
from ridge_tally.rules.array.checks import Clearances, standing
from ridge_tally.rules.array.trenches import Trench, trench_of
from ridge_tally.rules.brief.wishes import roofs_left_free
from ridge_tally.rules.build.racked import rail_length_m, weight_kg
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.design import Alike, Design, alike, dc_ac_ratio, dc_watts, makes_ac
from ridge_tally.rules.report import all_checks
from ridge_tally.rules.strings.leads import reach_m
from ridge_tally.rules.strings.limits import cold_limit, rear_gain, series_limits
from ridge_tally.rules.strings.microinverters import Branch, branches
from ridge_tally.rules.survey.checks import is_settled
from ridge_tally.studies.array.ground_layout import GroundLayout, ground_layout
from ridge_tally.studies.stock import ToBuy, to_buy
from ridge_tally.views.next_move import NextMove, next_move
from ridge_tally.views.rules import RulesView, rules_view
from ridge_tally.views.step_state import StepState


@dataclass(frozen=True, slots=True)
class CheckView:
    """A check with the texts every reader shows alike; ``key`` names it within the option.

    ``on_sheet``: whether a sheet shows it: notes and how well a survey closes only where they do not.
    """

    key: str
    check: Check
    lines: WorkingLines
    value_text: str
    limit_text: str
    on_sheet: bool


@dataclass(frozen=True, slots=True)
class TrackerView:
    """One tracker's voltage window and what its strings reach; ``None`` where not known.

    ``i_hot_a``: operating current at the hottest cells in full sun.  ``planes``: names of those
    its strings lie on.  ``held_v``: where the inverter holds its strings, carrying ``held_a``.  ``inverter``: which of several it belongs to, empty where there is one.
    """

    number: int
    inverter: str
    strings: tuple[str, ...]
    modules_in_series: int
    v_min_v: float
    v_max_v: float
    v_start_v: float
    v_limit_v: float
    v_hot_v: float | None
    v_cold_v: float | None
    planes: tuple[str, ...]
    i_operating_a: float
    i_hot_a: float | None
    i_operating_max_a: float
    i_short_a: float
    i_short_max_a: float | None
    held_v: float | None
    held_a: float | None


@dataclass(frozen=True, slots=True)
class ModuleTrouble:
    """A module that does not keep a distance, and which; ``impossible`` where it lies on something."""

    module_id: PlacedId
    told: str
    impossible: bool
    kept_because: str


@dataclass(frozen=True, slots=True)
class PlaneView:
    """A plane as an option uses it: what no longer fits on it, why it is to stay free.

    ``path_edge`` is the edge its access path runs along; ``ground`` how tables stand.
    """

    plane_id: PlaneId
    misplaced: tuple[str, ...]
    troubles: tuple[ModuleTrouble, ...]
    path_edge: int | None
    note: str
    ground: GroundLayout | None
    trench: Trench | None


@dataclass(frozen=True, slots=True)
class BoxView:
    """A box with the conductors that come into it and the cable they take."""

    box: JunctionBox
    runs: tuple[HomeRun, ...]
    length_m: float


@dataclass(frozen=True, slots=True)
class AtModules:
    """What stands at the modules: how many of which unit, and the branches of microinverters."""

    unit: str
    count: int
    branches: tuple[Branch, ...]


@dataclass(frozen=True, slots=True)
class RackingCount:
    """Mounts and rail of all racked planes, and what they weigh with their modules by area."""

    mounts: int
    rail_m: float
    kg_per_m2: float | None


@dataclass(frozen=True, slots=True)
class OptionReport:
    """Everything of an option that follows an edit at once.

    ``makes_ac``: not with a generic DC input alone.  ``dc_ac_ratio``: ``None`` while nothing makes AC.  ``modules_told``: each type with its count.  ``lead_reach_m``: how far apart modules joined by their own leads may be.
    """

    option_id: str
    modules: int
    modules_told: tuple[str, ...]
    modules_strung: int
    p_dc_w: float
    p_ac_w: float
    makes_ac: bool
    dc_ac_ratio: float | None
    racking: RackingCount | None
    series_min: int
    series_max: int
    checks: tuple[CheckView, ...]
    broken_stops: int
    unchecked_stops: int
    trackers: tuple[TrackerView, ...]
    inverters: tuple[str, ...]
    boxes: tuple[BoxView, ...]
    lead_reach_m: float | None
    at_modules: AtModules
    planes: tuple[PlaneView, ...]
    to_buy: tuple[ToBuy, ...]
    rules: RulesView
    steps: dict[WorkStep, StepState]
    next_move: NextMove | None


def option_report(design: Design) -> OptionReport:
    """Return the fast report of an option: no year, nothing compiled, no lock."""
    checks = all_checks(design)
    limits = series_limits(design)
    modules = len(present_ids(design.option))
    p_dc_w = dc_watts(design)[2]
    return OptionReport(
        option_id=design.option.id,
        modules=modules,
        modules_told=_modules_told(design),
        modules_strung=strung_count(design.option),
        p_dc_w=p_dc_w,
        p_ac_w=design.p_ac_w,
        makes_ac=makes_ac(design),
        dc_ac_ratio=dc_ac_ratio(design),
        racking=_racking(design),
        series_min=limits.series_min,
        series_max=limits.series_max,
        checks=tuple(check_view(c) for c in checks),
        broken_stops=sum(c.kind is LimitKind.STOP and c.verdict is Verdict.BROKEN for c in checks),
        unchecked_stops=sum(
            c.kind is LimitKind.STOP and c.verdict is Verdict.NOT_CHECKED for c in checks
        ),
        trackers=_trackers(design, checks),
        inverters=()
        if design.microinverter is not None
        else tuple(i.name for i in design.inverters),
        boxes=_boxes(design),
        lead_reach_m=reach_m(design),
        at_modules=_at_modules(design),
        planes=_planes(design),
        to_buy=to_buy(design),
        rules=rules_view(design.job.site),
        steps=_steps(design, checks),
        next_move=next_move(design, checks),
    )


def _racking(design: Design) -> RackingCount | None:
    """Return what the racking of all planes comes to; nothing while none has its mounts."""
    planes = [p for p in racked_planes(design) if p.mounts]
    if not planes:
        return None
    weights = [weight_kg(p) for p in planes]
    area = sum(p.modules_area_m2 for p in planes)
    known = [w for w in weights if w is not None]
    return RackingCount(
        mounts=sum(p.mounts for p in planes),
        rail_m=sum(map(rail_length_m, planes)),
        kg_per_m2=sum(known) / area if area and len(known) == len(weights) else None,
    )


def _modules_told(design: Design) -> tuple[str, ...]:
    """Return how many modules of which type there are: ``28 × Sample module 405 W``."""
    groups = alike(design, present_ids(design.option)) or (Alike(0, design.module, ""),)
    return tuple(f"{g.count} × {g.sheet.name}" for g in groups)


@lru_cache(maxsize=2048)
def check_view(check: Check) -> CheckView:
    """Return a check with its texts."""
    value, limit = value_and_limit(check)
    return CheckView(
        key=f"{check.rule_id} {check.subject}",
        check=check,
        lines=working_lines(check),
        value_text=value,
        limit_text=limit,
        on_sheet=check.verdict is not Verdict.KEPT
        or not (check.kind is LimitKind.NOTE or check.family is Family.SURVEY),
    )


def _trackers(design: Design, checks: tuple[Check, ...]) -> tuple[TrackerView, ...]:
    value_of = {(c.rule_id, c.subject): c.value.value for c in checks}
    views, several = [], len(design.inverters) > 1
    if design.microinverter is not None:
        return ()
    for tracker in design.trackers:
        number, sheet = tracker.number, tracker.sheet
        mine = strings_on(design.option, number)
        wired = [design.sheets[m] for s in mine for m in s.module_ids] or [design.module]
        ceiling, _ = cold_limit(design, tracker.inverter, wired)
        longest = max(mine, key=lambda s: len(s.module_ids), default=None)
        shortest = min(mine, key=lambda s: len(s.module_ids), default=None)
        subject = f"tracker {number}"
        views.append(
            TrackerView(
                number=number,
                inverter=f"inverter {tracker.unit_number}" if several else "",
                strings=tuple(s.tag for s in mine),
                modules_in_series=len(longest.module_ids) if longest else 0,
                v_min_v=sheet.v_min_v,
                v_max_v=sheet.v_max_v,
                v_start_v=tracker.inverter.v_start_v,
                v_limit_v=number_of(ceiling),
                v_hot_v=value_of.get(("strings.hot-window", f"string {shortest.tag}"))
                if shortest
                else None,
                v_cold_v=value_of.get(("strings.cold-voltage", f"string {longest.tag}"))
                if longest
                else None,
                planes=_planes_of(design, mine),
                i_hot_a=_hot_a(design, mine),
                i_operating_a=value_of.get(("strings.operating-current", subject)) or 0.0,
                i_operating_max_a=sheet.i_max_a,
                i_short_a=value_of.get(("strings.short-circuit-current", subject)) or 0.0,
                i_short_max_a=sheet.isc_max_a,
                held_v=None if design.system is None else design.system.string_v,
                held_a=value_of.get(("optimizer.tracker-current", subject)),
            )
        )
    return tuple(views)


def _at_modules(design: Design) -> AtModules:
    if design.microinverter is not None:
        circuits = branches(design, design.microinverter)
        return AtModules(design.microinverter.name, sum(len(b.units) for b in circuits), circuits)
    if design.optimizer is not None:
        return AtModules(design.optimizer.name, len(design.fitted), ())
    return AtModules("", 0, ())


def _boxes(design: Design) -> tuple[BoxView, ...]:
    option = design.option
    strings = [(s.tag, s.module_ids) for s in option.strings if design.microinverter is None]
    runs = home_runs(strings, spots_of(design), option.boxes) if option.boxes else ()
    views = []
    for box in option.boxes:
        mine = tuple(r for r in runs if r.box_id == box.id)
        views.append(BoxView(box, mine, sum((r.length_m for r in mine), start=0.0)))
    return tuple(views)


def _planes_of(design: Design, strings: tuple[ModuleString, ...]) -> tuple[str, ...]:
    """Return the names of the planes some strings lie on."""
    wired = {m for s in strings for m in s.module_ids}
    return tuple(a.plane.name for a in design.arrays if any(m.id in wired for m in a.array.modules))


def _hot_a(design: Design, strings: tuple[ModuleString, ...]) -> float | None:
    """Return the operating current of strings at the hottest cells, by the current coefficient."""
    hot, amps = design.hottest_cell.value, 0.0
    for string in strings:
        sheet = max((design.sheets[m] for m in string.module_ids), key=lambda s: s.imp_a)
        alpha = sheet.alpha_isc_frac_per_degc
        if alpha is None or hot is None:
            return None
        amps += rear_gain(design, sheet) * sheet.imp_a * (1 + alpha * (hot - STC_CELL_DEGC))
    return amps


def _planes(design: Design) -> tuple[PlaneView, ...]:
    views = []
    free = roofs_left_free(design.job)
    for plane in design.job.survey.planes:
        laid = design.on(plane.id)
        stands = standing(laid) if is_closed(plane) else Clearances({}, None)
        views.append(
            PlaneView(
                plane_id=plane.id,
                misplaced=stands.off(laid.array.modules),
                troubles=tuple(
                    _trouble(m, stands.short_of[m.id], design.job.unit)
                    for m in laid.array.modules
                    if m.id in stands.short_of
                ),
                path_edge=stands.path_edge,
                note=f"{plane.name}: {free[plane.id]}" if plane.id in free else "",
                ground=ground_layout(design, laid),
                trench=trench_of(design.job.survey.service, laid),
            )
        )
    return tuple(views)


def _trouble(module: PlacedModule, short: tuple[Shortfall, ...], unit: LengthUnit) -> ModuleTrouble:
    told = "; ".join(_short_told(s, unit) for s in short)
    impossible = any(s.impossible for s in short)
    return ModuleTrouble(module.id, told, impossible, module.kept_because)


def _short_told(short: Shortfall, unit: LengthUnit) -> str:
    if short.impossible:
        return f"lies across {short.owner.name}"
    by, wants = (small_size_text(m, unit) for m in (short.short_m, short.wants_m))
    return f"{by} too close to {short.owner.name}, which wants {wants}"


def _steps(design: Design, checks: tuple[Check, ...]) -> dict[WorkStep, StepState]:
    """Return how each step stands that an option has a part in; the brief has its own report."""
    begun = bool(present_ids(design.option))
    found = {
        step: _state(begun, [c for c in checks if c.step is step])
        for step in (WorkStep.ARRAY, WorkStep.SUN, WorkStep.STRINGS, WorkStep.LOADING)
    }
    built = [c for c in checks if c.step is WorkStep.BUILD]
    return {
        WorkStep.SURVEY: _survey_state(
            design.job, [c for c in checks if c.step is WorkStep.SURVEY]
        ),
        **found,
        WorkStep.BUILD: _state(bool(built), built),
        WorkStep.MONEY: _money_state(design.job),
        WorkStep.SHEETS: _state(begun, checks),
        WorkStep.PROVING: StepState.NOT_BEGUN,
    }


def _money_state(job: Job) -> StepState:
    """Settled once there is a tariff and a price of any kind; what has none is told in the step."""
    brief = job.brief
    priced = job.money.prices or job.money.lines or brief.target.price_cents_per_w is not None
    if not priced:
        return StepState.NOT_BEGUN
    return StepState.LOOK if brief.grid is None else StepState.SETTLED


def _survey_state(job: Job, checks: list[Check]) -> StepState:
    """Settled once every plane closes and its readings fit; not begun while none is read."""
    planes = job.survey.planes
    if all(is_unmeasured(p) for p in planes):
        return StepState.NOT_BEGUN
    told = _state(True, checks)
    return (
        StepState.LOOK
        if told is StepState.SETTLED and not all(is_settled(p) for p in planes)
        else told
    )


def _state(begun: bool, checks: Iterable[Check]) -> StepState:
    if not begun:
        return StepState.NOT_BEGUN
    off = [c for c in checks if c.verdict is not Verdict.KEPT]
    if any(c.kind is LimitKind.STOP and c.verdict is Verdict.BROKEN for c in off):
        return StepState.STOP
    return StepState.LOOK if any(c.kind is not LimitKind.NOTE for c in off) else StepState.SETTLED
