"""How much array an inverter should carry: by adding modules, best light first, and by its size."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import (
    Job,
    Option,
    module_sheet_of,
    option_of,
    present_ids,
    strung_count,
    with_option,
)
from ridge_tally.core.job.edits.any_edit import RemedyStep, TakeRemedy
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.strings.threading import PlanAnew
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.loading.weights import WHOLE_YEAR, Weighing, counted
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.working import LimitKind
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.brief.wishes import roofs_left_free
from ridge_tally.rules.design import dc_watts
from ridge_tally.rules.strings.plans import plan_space, why_no_plan
from ridge_tally.simulation.array_light import light_left_wh_per_m2
from ridge_tally.simulation.batteries import told as told_of
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import house_load
from ridge_tally.simulation.need import next_kwh_price_cents
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import hourly_year, require_strings
from ridge_tally.studies.loading.household import House, house_of, lived
from ridge_tally.studies.loading.sized import sized_to
from ridge_tally.studies.parts import PAYS_YEARS, price_of
from ridge_tally.studies.standing import Broken, forbids, keeps_all, standing_of

FloatArray = NDArray[np.float64]
LEAST_RATIO, MOST_RATIO = 0.8, 2.2
# So many sizes of each kind are looked at.
MOST_POINTS, SIZES = 30, 29
# How many sizes are told together, and how much of the work they are.
AT_ONCE, SIZES_FRAC = 5, 0.3
# The sweet spot ends where the next module gives less than this of what an early one gives; our
# own line.
STILL_WORTH_FRAC = 0.9
SCHOOLS = (
    (
        1.0,
        "one to one: an old rule; for hot or high sites with cool clear sky, and for later modules",
    ),
    (1.2, "usual: real arrays rarely pass 80 to 85 % of their laboratory watts"),
    (1.33, "as far as a common rebate stands behind"),
    (1.5, "east-west roofs, low pay at noon, capped export, cheap modules"),
    (2.0, "a battery on the DC side, or a hard export cap, where the maker permits it"),
)


@dataclass(frozen=True, slots=True)
class SweepPoint:
    """A size looked at; ``energy_kwh`` weighed as asked, ``None`` where nothing legal holds it.

    ``next_kwh``: what each module since the point before adds.  ``broken``: limits not kept, of
    all kinds but notes; ``noted``: thresholds of the grid it passes.  ``now``: the design as it is.  ``edit`` makes it so.

    ``held_kwh``: what the export limit keeps back.  ``own_use_kwh``: what the house takes of it,
    ``None`` while no use is known.  ``with_battery_kwh``: ``energy_kwh`` with the option's battery,
    so weighed too: what it takes of the clipped, less what its conversions lose.
    """

    modules: int
    dc_kw: float
    ac_kw: float
    ratio: float
    energy_kwh: float | None
    clipped_kwh: float | None
    clipped_frac: float | None
    next_kwh: float | None
    held_kwh: float | None
    own_use_kwh: float | None
    with_battery_kwh: float | None
    broken: tuple[Broken, ...]
    noted: tuple[Broken, ...]
    problem: str
    now: bool
    edit: TakeRemedy | None

    @property
    def stopped(self) -> bool:
        """Whether a Stop stands before it, or no legal plan holds it."""
        return self.energy_kwh is None or any(b.kind is LimitKind.STOP for b in self.broken)

    @property
    def kept(self) -> bool:
        """Whether no Stop and no Outside limit is broken."""
        return self.energy_kwh is not None and keeps_all(self.broken)


@dataclass(frozen=True, slots=True)
class SchoolView:
    """A school's loading here: what such an inverter gives on this array, and why the school is."""

    ratio: float
    ac_kw: float
    energy_kwh: float
    clipped_frac: float
    why: str


@dataclass(frozen=True, slots=True)
class SweepReport:
    """The sweeps so far.  ``by_modules``: modules, best light first, on the inverter there is.
    ``by_size``: an inverter of other sizes, its curve the same, under the strings there are.

    ``sweet`` and ``sweet_money``: places in ``by_modules``; ``largest_kept`` the largest that keeps
    every Stop and Outside.  ``battery``: the option's, in words.  ``told``: which, and why.
    """

    weighed: str
    battery: str
    by_modules: tuple[SweepPoint, ...]
    by_size: tuple[SweepPoint, ...]
    schools: tuple[SchoolView, ...]
    sweet: int | None
    sweet_money: int | None
    largest_kept: int | None
    told: tuple[str, ...]
    done_frac: float


@dataclass(frozen=True, slots=True)
class _Roof:
    """The job with every free plane filled and every place taken, its modules by their light."""

    job: Job
    fills: tuple[FillPlane, ...]
    by_light: tuple[PlacedId, ...]


def loading_sweep(
    desk: Desk, job: Job, option: Option, weighing: Weighing = WHOLE_YEAR
) -> Iterator[SweepReport]:
    """Yield the sweep as it grows: inverter sizes first, then modules from few to many.

    Each point is a full hourly year of the design it stands for.

    Raises
    ------
    MissingDatum
        While no module is in a string, or a datasheet lacks what the year needs.
    """
    require_strings(option)
    weather, cents = weather_of(desk, job), price_of(module_sheet_of(job, option))
    load = house_load(desk, job)
    house = None if load is None else house_of(desk, job, load)
    scale = _Scale(job, weather, weighing, house)
    battery = "" if option.battery is None else told_of(option.battery)
    sizes: list[SweepPoint] = []
    schools: list[SchoolView] = []
    points: list[SweepPoint] = []

    def report(done: float, *, whole: bool = False) -> SweepReport:
        sweet, money, kept = _sweet(points), _sweet_money(job, points, cents), _largest_kept(points)
        return SweepReport(
            weighing.title, battery, tuple(points), tuple(sizes), tuple(schools), sweet, money, kept,
            (*_told(points, sweet, money, kept, cents), *_house_told(points, sizes, battery))
            if whole
            else (),
            done,
        )  # fmt: skip

    yield report(0.0)
    for number, ratio in enumerate(ratios := _ratios(job, option), start=1):
        sizes.append(_of_size(desk, job, option, scale, ratio))
        if number % AT_ONCE == 0:
            yield report(SIZES_FRAC * number / len(ratios))
    schools += [_school(desk, job, option, scale, r, why) for r, why in SCHOOLS]
    yield report(SIZES_FRAC)
    roof = _roof(desk, job, option)
    counts = _counts(job, option, roof)
    for number, count in enumerate(counts, start=1):
        before = points[-1] if points else None
        points.append(_of_count(desk, job, option, roof, scale, count, before))
        yield report(SIZES_FRAC + (1 - SIZES_FRAC) * number / len(counts))
    if _largest_kept(points) is None:
        points[:0] = _under_the_caps(desk, job, option, roof, scale, points[0].modules)
    yield report(1.0, whole=True)


@dataclass(frozen=True, slots=True)
class _Lived:
    """What a house makes of a year, kWh; see ``SweepPoint``."""

    held_kwh: float | None
    own_use_kwh: float | None
    with_battery_kwh: float | None


NOT_LIVED = _Lived(None, None, None)


@dataclass(frozen=True, slots=True)
class _Scale:
    """What a year's steps count for."""

    job: Job
    weather: WeatherYear
    weighing: Weighing
    house: House | None

    def kwh(self, year: YearResult) -> float:
        """Return the weighed energy of a year."""
        return self._weighed(year.ac_w, year.hours)

    def lived(self, job: Job, option: Option, year: YearResult) -> _Lived:
        """Return what the house makes of a year."""
        if self.house is None:
            return _Lived(year.lost_kwh(Step.EXPORT), None, None)
        alone = lived(job, option, self.house, year, None)
        own, stored = kwh_of(alone.own_use_w, alone.hours), None
        if option.battery is not None:
            with_it = lived(job, option, self.house, year, option.battery)
            # The night draw is load there and less energy here.
            useful = with_it.useful_w - np.maximum(-year.before_export_w, 0.0)
            stored = self._weighed(useful, with_it.hours)
        return _Lived(kwh_of(alone.held_w, alone.hours), own, stored)

    def _weighed(self, power_w: FloatArray, hours: float) -> float:
        southern = self.job.site.latitude_deg < 0
        mine = counted(self.weather.time, self.weighing, southern=southern)
        return kwh_of(power_w[mine], hours)


def _ratios(job: Job, option: Option) -> list[float]:
    design = design_for(job, option)
    now = dc_watts(design)[2] / design.p_ac_w
    return sorted({*np.linspace(LEAST_RATIO, MOST_RATIO, SIZES).round(3).tolist(), now})


def _sized(job: Job, option: Option, ratio: float) -> Job:
    """Return the job with what makes its AC scaled so that the array loads it so much."""
    return sized_to(job, option, dc_watts(design_for(job, option))[2] / ratio)


def _of_size(desk: Desk, job: Job, option: Option, scale: _Scale, ratio: float) -> SweepPoint:
    sized = _sized(job, option, ratio)
    design, year = design_for(sized, option), hourly_year(desk, sized, option)
    now = abs(design.p_ac_w / design_for(job, option).p_ac_w - 1) < 1e-9
    house, standing = scale.lived(sized, option, year), standing_of(sized, option)
    return SweepPoint(
        modules=len(present_ids(option)),
        dc_kw=dc_watts(design)[2] / 1000,
        ac_kw=design.p_ac_w / 1000,
        ratio=ratio,
        energy_kwh=scale.kwh(year),
        clipped_kwh=year.clipped_kwh,
        clipped_frac=year.clipped_frac,
        next_kwh=None,
        held_kwh=house.held_kwh,
        own_use_kwh=house.own_use_kwh,
        with_battery_kwh=house.with_battery_kwh,
        broken=tuple(standing.broken.values()),
        noted=standing.noted,
        problem="",
        now=now,
        edit=None,
    )


def _school(
    desk: Desk, job: Job, option: Option, scale: _Scale, ratio: float, why: str
) -> SchoolView:
    sized = _sized(job, option, ratio)
    year = hourly_year(desk, sized, option)
    ac_kw = design_for(sized, option).p_ac_w / 1000
    return SchoolView(ratio, ac_kw, scale.kwh(year), year.clipped_frac, why)


def _roof(desk: Desk, job: Job, option: Option) -> _Roof:
    """Return every place there is: the design's, its bays, and fills of planes still free."""
    taken, laid = roofs_left_free(job), {a.plane_id for a in option.arrays if a.modules}
    fills: list[FillPlane] = []
    full = job
    for plane in job.survey.planes:
        if plane.id in taken or plane.id in laid or not is_closed(plane):
            continue
        fill = FillPlane(option.id, plane.id, Ways.MIXED)
        try:
            full = apply_edit(full, fill, desk.shelf)
        except RidgeTallyError:
            continue
        fills.append(fill)
    whole = option_of(full, option.id)
    arrays = tuple(
        replace(a, modules=tuple(replace(m, present=True) for m in a.modules)) for a in whole.arrays
    )
    full = with_option(full, replace(whole, arrays=arrays))
    kept = light_left_wh_per_m2(desk, full, option_of(full, option.id))
    return _Roof(full, tuple(fills), tuple(sorted(kept, key=lambda m: -kept[m])))


def _counts(job: Job, option: Option, roof: _Roof) -> list[int]:
    """Return the counts looked at, the design's own among them."""
    design = design_for(job, option)
    each_w = dc_watts(design)[2] / max(1, len(present_ids(option)))
    least = max(1, math.ceil(LEAST_RATIO * design.p_ac_w / each_w))
    most = min(len(roof.by_light), math.floor(MOST_RATIO * design.p_ac_w / each_w))
    now = len(present_ids(option))
    if most < least:
        return [now]
    step = max(1, math.ceil((most - least + 1) / MOST_POINTS))
    return sorted({*range(least, most + 1, step), now})


def _of_count(
    desk: Desk,
    job: Job,
    option: Option,
    roof: _Roof,
    scale: _Scale,
    count: int,
    before: SweepPoint | None,
) -> SweepPoint:
    now = count == len(present_ids(option))
    edit = None if now else _edit_for(option, roof, count)
    changed = job if edit is None else apply_edit(job, edit, desk.shelf)
    laid = option_of(changed, option.id)
    design = design_for(changed, laid)
    dc_w, problem = dc_watts(design)[2], ""
    energy = clipped = frac = None
    house, standing = NOT_LIVED, standing_of(changed, laid)
    if strung_count(laid) < count:
        problem = why_no_plan(design, plan_space(design)) or "No legal plan holds them all."
    else:
        year = hourly_year(desk, changed, laid)
        energy, clipped, frac = scale.kwh(year), year.clipped_kwh, year.clipped_frac
        house = scale.lived(changed, laid, year)
    next_kwh = None
    if before is not None and before.energy_kwh is not None and energy is not None:
        next_kwh = (energy - before.energy_kwh) / (count - before.modules)
    return SweepPoint(
        modules=count,
        dc_kw=dc_w / 1000,
        ac_kw=design.p_ac_w / 1000,
        ratio=dc_w / design.p_ac_w,
        energy_kwh=energy,
        clipped_kwh=clipped,
        clipped_frac=frac,
        next_kwh=next_kwh,
        held_kwh=house.held_kwh,
        own_use_kwh=house.own_use_kwh,
        with_battery_kwh=house.with_battery_kwh,
        broken=tuple(standing.broken.values()),
        noted=standing.noted,
        problem=problem,
        now=now,
        edit=edit,
    )


def _under_the_caps(
    desk: Desk, job: Job, option: Option, roof: _Roof, scale: _Scale, below: int
) -> list[SweepPoint]:
    """Return the most modules under every cap where that is fewer than the sweep goes down to.

    Nothing where not even one module is.
    """
    for count in range(below - 1, 0, -1):
        changed = apply_edit(job, _edit_for(option, roof, count), desk.shelf)
        laid = option_of(changed, option.id)
        if strung_count(laid) == count and keeps_all(standing_of(changed, laid).broken.values()):
            return [_of_count(desk, job, option, roof, scale, count, None)]
    return []


def _edit_for(option: Option, roof: _Roof, count: int) -> TakeRemedy:
    """Return the edit that leaves the best-lit so many modules, planned anew."""
    wanted, places = set(roof.by_light[:count]), option_of(roof.job, option.id).arrays
    home = {m.id: a.plane_id for a in places for m in a.modules}
    # A fill lays all of its plane; only planes that keep a module are filled.
    kept = {home[m] for m in wanted}
    fills = tuple(f for f in roof.fills if f.plane_id in kept)
    filled = {f.plane_id for f in fills}
    skipped = {f.plane_id for f in roof.fills} - filled
    there = set(present_ids(option))
    laid = there | {m for m, plane_id in home.items() if plane_id in filled}
    toggled = tuple(
        m for m in roof.by_light if home[m] not in skipped and (m in wanted) != (m in laid)
    )
    toggles = (ToggleModules(option.id, toggled),) if toggled else ()
    steps: tuple[RemedyStep, ...] = (*fills, *toggles, PlanAnew(option.id))
    return TakeRemedy(option.id, f"{count} modules", steps)


def _sweet(points: Sequence[SweepPoint]) -> int | None:
    """Return the last point whose modules still give nearly what early ones do."""
    gains = [p.next_kwh for p in points if p.next_kwh is not None]
    if not gains:
        return None
    early, found = max(gains[: max(1, len(gains) // 3)]), None
    for i, point in enumerate(points):
        if not point.kept:
            continue
        if point.next_kwh is None or point.next_kwh >= STILL_WORTH_FRAC * early:
            found = i
    return found


def _sweet_money(job: Job, points: Sequence[SweepPoint], cents: int | None) -> int | None:
    """Return the last point whose modules pay themselves back; ``None`` without prices."""
    kwh_cents = next_kwh_price_cents(job)
    if cents is None or kwh_cents is None:
        return None
    found = None
    for i, point in enumerate(points):
        pays = point.next_kwh is None or point.next_kwh * kwh_cents * PAYS_YEARS >= cents
        if point.kept and pays:
            found = i
    return found


def _largest_kept(points: Sequence[SweepPoint]) -> int | None:
    return max((i for i, p in enumerate(points) if p.kept), default=None)


def _told(
    points: Sequence[SweepPoint],
    sweet: int | None,
    money: int | None,
    kept: int | None,
    cents: int | None,
) -> tuple[str, ...]:
    found = []
    if sweet is not None:
        p = points[sweet]
        found.append(
            f"By energy: {p.modules} modules, DC:AC {p.ratio:.2f}, clipping "
            f"{(p.clipped_frac or 0) * 100:.1f} %; up to there the next module still gives "
            f"{STILL_WORTH_FRAC * 100:.0f} % of what an early one does."
        )
    if money is not None:
        p = points[money]
        found.append(
            f"By money: {p.modules} modules, DC:AC {p.ratio:.2f}; the last one, at "
            f"{(cents or 0) / 100:.0f}, is paid back within {PAYS_YEARS:.0f} years."
        )
    elif sweet is not None:
        found.append("By money: a price of the module or a tariff is missing.")
    if kept is None and points:
        least = points[0]
        forbidden = [b.told for b in least.broken if forbids(b)]
        why = least.problem.rstrip(".") or "; ".join(forbidden[:2])
        found.append(f"No count keeps every Stop and Outside limit: at {least.modules}, {why}.")
    if kept is not None:
        p = points[kept]
        above = next(iter(points[kept + 1 :]), None)
        wall = ""
        if above is not None:
            wall = above.problem.rstrip(".") or next((b.told for b in above.broken), "")
        found.append(
            f"The largest that keeps every Stop and Outside limit: {p.modules} modules"
            + (
                f"; at {above.modules}: {wall}"
                if above is not None and wall
                else ", all there is room for"
            )
            + "."
        )
    return tuple(found)


def _house_told(
    points: Sequence[SweepPoint], sizes: Sequence[SweepPoint], battery: str
) -> tuple[str, ...]:
    """Return what the export limit and the battery do along the sweep."""
    found = []
    held = [p for p in points if (p.held_kwh or 0.0) >= 1]
    if held:
        first, last = held[0], held[-1]
        found.append(
            f"The export limit keeps back {first.held_kwh:.0f} kWh a year at {first.modules} modules"
            + (f", {last.held_kwh:.0f} at {last.modules}." if last is not first else ".")
        )
    if battery:
        gains = [p for p in sizes if (p.with_battery_kwh or 0.0) > (p.energy_kwh or math.inf)]
        found.append(
            f"The battery ({battery}) takes back more than its conversions lose from DC:AC "
            f"{gains[0].ratio:.2f} on."
            if gains
            else f"At no size here does the battery ({battery}) take back more than its conversions "
            "lose: it moves energy, it makes none."
        )
    return tuple(found)
