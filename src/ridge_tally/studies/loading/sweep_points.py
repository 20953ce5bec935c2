"""What a count of modules, or a size of inverter, comes to: a full year of the design it makes."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import YearResult
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import Ways, present_of
from ridge_tally.core.job.document import (
    Job,
    array_of,
    battery_joined,
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
from ridge_tally.core.job.option import Option
from ridge_tally.core.loading.weights import Weighing, counted
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.working import LimitKind
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.rules.brief.wishes import roofs_left_free
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.rules.strings.plans import plan_space, why_no_plan
from ridge_tally.simulation.array_light import light_left_wh_per_m2
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.loading.household import SelfConsumption, lived
from ridge_tally.studies.loading.sized import sized_to
from ridge_tally.studies.money.house_bills import saved_cents
from ridge_tally.studies.rule_status import Broken, keeps_all, standing_of

FloatArray = NDArray[np.float64]
LEAST_RATIO, MOST_RATIO = 0.8, 2.2
# So many sizes of each kind are looked at.
MOST_POINTS, SIZES = 30, 29


@dataclass(frozen=True, slots=True)
class SweepPoint:
    """A size looked at; ``energy_kwh`` weighed as asked, ``None`` where nothing legal holds it.

    ``next_kwh``: what each module since the point before adds.  ``broken``: limits not kept, of
    all kinds but notes; ``noted``: thresholds of the grid it passes.  ``now``: the design as it is.  ``edit`` makes it so.

    ``held_kwh``: what the export limit keeps back.  ``own_use_kwh``: what the house takes of it,
    ``None`` while no use is known.  ``with_battery_kwh``: ``energy_kwh`` with the option's battery,
    so weighed too: what it takes of the clipped, less what its conversions lose.  ``saved_cents``:
    what a year's bills are less by, whatever the year is weighed by.
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
    saved_cents: int | None
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
class SweptRoof:
    """The job with every free plane filled and every place taken, its modules by their light."""

    job: Job
    fills: tuple[FillPlane, ...]
    by_light: tuple[PlacedId, ...]


@dataclass(frozen=True, slots=True)
class _Lived:
    """What a house makes of a year, kWh; see ``SweepPoint``."""

    held_kwh: float | None
    own_use_kwh: float | None
    with_battery_kwh: float | None
    saved_cents: int | None


NOT_LIVED = _Lived(None, None, None, None)


@dataclass(frozen=True, slots=True)
class Scale:
    """What a year's steps count for."""

    desk: Desk
    job: Job
    weather: WeatherYear
    weighing: Weighing
    house: SelfConsumption | None

    def kwh(self, year: YearResult) -> float:
        """Return the weighed energy of a year."""
        return self._weighed(year.ac_w, year.hours)

    def lived(self, design: Design, year: YearResult) -> _Lived:
        """Return what the house makes of a year."""
        if self.house is None:
            return _Lived(year.lost_kwh(Step.EXPORT), None, None, None)
        alone = lived(design, self.house, year, None)
        own, stored = kwh_of(alone.own_use_w, alone.hours), None
        saved = saved_cents(self.desk, self.job, self.house.load, alone)
        if design.option.battery is not None:
            with_it = lived(design, self.house, year, battery_joined(design.option))
            # The night draw is load there and less energy here.
            useful = with_it.useful_w - np.maximum(-year.before_export_w, 0.0)
            stored = self._weighed(useful, with_it.hours)
            saved = saved_cents(self.desk, self.job, self.house.load, with_it)
        return _Lived(kwh_of(alone.held_w, alone.hours), own, stored, saved)

    def _weighed(self, power_w: FloatArray, hours: float) -> float:
        southern = self.job.site.latitude_deg < 0
        mine = counted(self.weather.time, self.weighing, southern=southern)
        return kwh_of(power_w[mine], hours)


def ratios_tried(design: Design) -> list[float]:
    now = dc_watts(design)[2] / design.p_ac_w
    return sorted({*np.linspace(LEAST_RATIO, MOST_RATIO, SIZES).round(3).tolist(), now})


def sized_to_ratio(design: Design, ratio: float) -> Design:
    """Return the design with what makes its AC scaled so that the array loads it so much."""
    return sized_to(design, dc_watts(design)[2] / ratio)


def point_of_size(desk: Desk, design: Design, scale: Scale, ratio: float) -> SweepPoint:
    sized = sized_to_ratio(design, ratio)
    year = hourly_year(desk, sized)
    now = abs(sized.p_ac_w / design.p_ac_w - 1) < 1e-9
    house, standing = scale.lived(sized, year), standing_of(sized)
    return SweepPoint(
        modules=len(present_ids(design.option)),
        dc_kw=dc_watts(sized)[2] / 1000,
        ac_kw=sized.p_ac_w / 1000,
        ratio=ratio,
        energy_kwh=scale.kwh(year),
        clipped_kwh=year.clipped_kwh,
        clipped_frac=year.clipped_frac,
        next_kwh=None,
        held_kwh=house.held_kwh,
        own_use_kwh=house.own_use_kwh,
        with_battery_kwh=house.with_battery_kwh,
        saved_cents=house.saved_cents,
        broken=tuple(standing.broken.values()),
        noted=standing.noted,
        problem="",
        now=now,
        edit=None,
    )


def roof_of(desk: Desk, design: Design, *, anew: bool = False) -> SweptRoof:
    """Return every place there is: the design's, its bays, and fills of planes still free.

    ``anew``: planes that hold more than is laid on them are filled anew, too.
    """
    taken = roofs_left_free(design.job)
    laid = {a.plane.id: len(a.array.modules) for a in design.arrays if a.array.modules}
    fills: list[FillPlane] = []
    full = design.job
    for plane in design.job.survey.planes:
        if plane.id in taken or not is_closed(plane) or (plane.id in laid and not anew):
            continue
        fill = FillPlane(design.option.id, plane.id, Ways.MIXED)
        try:
            fuller = apply_edit(full, fill, desk.shelf)
        except RidgeTallyError:
            continue
        array = array_of(option_of(fuller, design.option.id), plane.id)
        if len(array.modules) > laid.get(plane.id, 0):
            full = fuller
            fills.append(fill)
    whole = option_of(full, design.option.id)
    arrays = tuple(
        replace(a, modules=tuple(replace(m, present=True) for m in a.modules)) for a in whole.arrays
    )
    full = with_option(full, replace(whole, arrays=arrays))
    kept = light_left_wh_per_m2(desk, design_in(full, design.option.id))
    return SweptRoof(full, tuple(fills), tuple(sorted(kept, key=lambda m: -kept[m])))


def counts_tried(design: Design, most: int) -> list[int]:
    """Return the counts looked at up to all the roof holds, the design's own among them."""
    each_w = dc_watts(design)[2] / max(1, len(present_ids(design.option)))
    least = max(1, math.ceil(LEAST_RATIO * design.p_ac_w / each_w))
    now = len(present_ids(design.option))
    if most < least:
        return [now]
    step = max(1, math.ceil((most - least + 1) / MOST_POINTS))
    return sorted({*range(least, most + 1, step), now})


def point_of_count(
    desk: Desk,
    design: Design,
    roof: SweptRoof,
    scale: Scale,
    count: int,
    before: SweepPoint | None,
) -> SweepPoint:
    now = count == len(present_ids(design.option))
    edit = None if now else edit_for_count(design.option, roof, count)
    changed = design.job if edit is None else apply_edit(design.job, edit, desk.shelf)
    sized = design_in(changed, design.option.id)
    dc_w, problem = dc_watts(sized)[2], ""
    energy = clipped = frac = None
    house, standing = NOT_LIVED, standing_of(sized)
    if strung_count(sized.option) < count:
        problem = why_no_plan(sized, plan_space(sized)) or "No legal plan holds them all."
    else:
        year = hourly_year(desk, sized)
        energy, clipped, frac = scale.kwh(year), year.clipped_kwh, year.clipped_frac
        house = scale.lived(sized, year)
    next_kwh = None
    if before is not None and before.energy_kwh is not None and energy is not None:
        next_kwh = (energy - before.energy_kwh) / (count - before.modules)
    return SweepPoint(
        modules=count,
        dc_kw=dc_w / 1000,
        ac_kw=sized.p_ac_w / 1000,
        ratio=dc_w / sized.p_ac_w,
        energy_kwh=energy,
        clipped_kwh=clipped,
        clipped_frac=frac,
        next_kwh=next_kwh,
        held_kwh=house.held_kwh,
        own_use_kwh=house.own_use_kwh,
        with_battery_kwh=house.with_battery_kwh,
        saved_cents=house.saved_cents,
        broken=tuple(standing.broken.values()),
        noted=standing.noted,
        problem=problem,
        now=now,
        edit=edit,
    )


def under_the_caps(
    desk: Desk, design: Design, roof: SweptRoof, scale: Scale, below: int
) -> list[SweepPoint]:
    """Return the most modules under every cap where that is fewer than the sweep goes down to.

    Nothing where not even one module is.
    """
    for count in range(below - 1, 0, -1):
        changed = apply_edit(design.job, edit_for_count(design.option, roof, count), desk.shelf)
        sized = design_in(changed, design.option.id)
        kept = keeps_all(standing_of(sized).broken.values())
        if kept and strung_count(sized.option) == count:
            return [point_of_count(desk, design, roof, scale, count, None)]
    return []


def edit_for_count(option: Option, roof: SweptRoof, count: int) -> TakeRemedy:
    """Return the edit that leaves the best-lit so many modules, planned anew."""
    wanted, places = set(roof.by_light[:count]), option_of(roof.job, option.id).arrays
    home = {m.id: a.plane_id for a in places for m in a.modules}
    # A fill lays all of its plane; only planes that keep a module, or have some, are filled.
    kept = {home[m] for m in wanted} | {a.plane_id for a in option.arrays if a.modules}
    fills = tuple(f for f in roof.fills if f.plane_id in kept)
    filled = {f.plane_id for f in fills}
    skipped = {f.plane_id for f in roof.fills} - filled
    there = {m.id for a in option.arrays if a.plane_id not in filled for m in present_of(a)}
    laid = there | {m for m, plane_id in home.items() if plane_id in filled}
    toggled = tuple(
        m for m in roof.by_light if home[m] not in skipped and (m in wanted) != (m in laid)
    )
    toggles = (ToggleModules(option.id, toggled),) if toggled else ()
    steps: tuple[RemedyStep, ...] = (*fills, *toggles, PlanAnew(option.id))
    return TakeRemedy(option.id, f"{count} modules", steps)
