"""The light an option's arrays live on: after shade, dirt and snow, and with what the back gets."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.lay import Place
from ridge_tally.core.array.tables import columns_of, raised, tiers_of
from ridge_tally.core.energy.lit import HeatLoss, StringIrradiance
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.array import Mounting, PlacedModule, PlaneArray, in_lines, present_of
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sky.plane_irradiance import share_of
from ridge_tally.core.sky.weather_year import WeatherYear, by_step
from ridge_tally.core.sun.rear import RearView, rear_w_per_m2
from ridge_tally.core.sun.shading import (
    QUICK,
    STAND_OFF_M,
    ModuleLight,
    Resolution,
    reach_by_hour,
    substring_light,
)
from ridge_tally.core.sun.snow import SnowMonths, snow_lost_frac
from ridge_tally.core.sun.spliced import (
    parts_while,
    spliced_light,
    spliced_parts,
    spliced_passing,
)
from ridge_tally.core.survey.outline import require_closed
from ridge_tally.core.survey.site_frame import eave_height_m
from ridge_tally.editing.array.tilt_positions import at_tilt, stances_of
from ridge_tally.editing.design import design_for
from ridge_tally.rules import tables
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.site_sky import (
    SiteSky,
    Spots,
    Turned,
    module_lights,
    monthly_wh,
    site_sky,
    turned,
)
from ridge_tally.simulation.weather import mean_air_degc, snowfall_cm, soiling_frac

FloatArray = NDArray[np.float64]
# The view-factor model of the back knows level ground only.
LEVEL_WITHIN_DEG = 10.0


@dataclass(frozen=True, slots=True)
class ArrayLight:
    """An array's modules with their light, and by month what else changes it.

    ``snow_frac`` and ``soiling_frac`` (12,) are shares lost of what shade leaves;
    ``rear_w_per_m2`` (n,) is what the back turns into power as the front would.
    """

    laid: LaidArray
    modules: tuple[PlacedModule, ...]
    lights: tuple[ModuleLight, ...]
    on_free: Turned
    snow_frac: FloatArray
    soiling_frac: FloatArray
    rear_w_per_m2: FloatArray
    rear_told: str


def array_lights(
    desk: Desk,
    design: Design,
    resolution: Resolution = QUICK,
    without: int | None = None,
) -> tuple[SiteSky, tuple[ArrayLight, ...]]:
    """Return the light on each array that has modules, as if one owner were not there.

    Tables that are tilted with the seasons have the light of each tilt on its own days.

    Raises
    ------
    MissingDatum
        If a plane of the array does not close.
    """
    sky = site_sky(desk, design, without)
    arrays = [a for a in design.arrays if present_of(a.array)]
    for laid in arrays:
        require_closed(laid.plane)
    held = _held(desk, design, sky, without)
    return sky, tuple(
        _over_year(design.job, held, a, present_of(a.array), resolution) for a in arrays
    )


def light_at(desk: Desk, design: Design, laid: LaidArray, places: Sequence[Place]) -> ArrayLight:
    """Return the light on modules that might stand at places of an array; they shade nobody.

    On tables a place is that of a column's lowest module, and each has all of the column's.

    Raises
    ------
    MissingDatum
        If the plane does not close yet.
    """
    require_closed(laid.plane)
    lay = lay_of(laid)
    might = tuple(
        PlacedModule(PlacedId(f"might-{n}"), p.x_m, p.y_m, p.orientation, present=True, tier=tier)
        for n, (p, tier) in enumerate(tiers_of(lay, places))
    )
    held = _held(desk, design, site_sky(desk, design))
    beside = replace(laid.array, modules=(*laid.array.modules, *might))
    return _over_year(design.job, held, replace(laid, array=beside), might, QUICK)


@dataclass(frozen=True, slots=True)
class _Held:
    """The sky over an option in each way it stands in the year, and the steps' numbers of them."""

    sky: SiteSky
    skies: tuple[SiteSky, ...]
    tilts: tuple[dict[PlaneId, float], ...]
    which: NDArray[np.int64]


def _held(
    desk: Desk,
    design: Design,
    sky: SiteSky,
    without: int | None = None,
) -> _Held:
    stances = stances_of(design)
    which = by_step(stances.by_day, len(sky.hours.month))
    tilts = tuple({a.plane_id: a.leg_tilt_deg for a in o.arrays} for o in stances.options)
    if len(stances.options) == 1:
        return _Held(sky, (sky,), tilts, which)
    skies = tuple(
        site_sky(
            desk, design_for(design.job, stance), without,
            days=tuple((stances.by_day == number).tolist()),
        )
        for number, stance in enumerate(stances.options)
    )  # fmt: skip
    return _Held(sky, skies, tilts, which)


def _over_year(
    job: Job,
    held: _Held,
    laid: LaidArray,
    modules: tuple[PlacedModule, ...],
    resolution: Resolution,
) -> ArrayLight:
    """Return the light of a year on modules of an array, in each way they stand on its own days."""
    if len(held.skies) == 1:
        return _lit(job, laid, modules, held.sky, resolution)
    array = laid.array
    ids, ways = {m.id for m in modules}, []
    for sky, tilts in zip(held.skies, held.tilts, strict=True):
        tilt_deg = tilts.get(array.plane_id, array.leg_tilt_deg)
        there = at_tilt(laid, tilt_deg) if array.table else array
        mine = tuple(m for m in there.modules if m.id in ids)
        ways.append(_lit(job, replace(laid, array=there), mine, sky, resolution))
    return replace(_spliced(held, ways), laid=laid, modules=modules)


def _spliced(held: _Held, ways: Sequence[ArrayLight]) -> ArrayLight:
    """Return the light of an array in a year, from its light in each way it stands."""
    sky, which = held.sky, held.which
    parts = [parts_while(w.on_free.parts, which == n) for n, w in enumerate(ways)]
    whole = spliced_parts([w.on_free.parts for w in ways], which)
    by_month = np.array([monthly_wh(p.poa_w_per_m2, sky.hours) for p in parts])
    free = by_month.sum(axis=0)
    share = np.divide(by_month, free, out=np.zeros_like(by_month), where=free > 0)
    return replace(
        ways[0],
        lights=tuple(
            spliced_light(lights, which, sky.hours)
            for lights in zip(*(w.lights for w in ways), strict=True)
        ),
        on_free=Turned(
            whole,
            spliced_passing([w.on_free.passed for w in ways], which),
            free,
            np.choose(which[:, None], [w.on_free.turn for w in ways]),
        ),
        snow_frac=np.sum([w.snow_frac for w in ways] * share, axis=0),
        rear_w_per_m2=np.choose(which, [w.rear_w_per_m2 for w in ways]),
    )


def light_kept_frac(desk: Desk, design: Design) -> dict[PlacedId, float]:
    """Return the share of its free light that shade leaves each module over the year."""
    _, arrays = array_lights(desk, design)
    return {
        module.id: 1 - float(light.lost.sum() / max(lit.on_free.free_wh_per_m2.sum(), 1e-9))
        for lit in arrays
        for module, light in zip(lit.modules, lit.lights, strict=True)
    }


def light_left_wh_per_m2(desk: Desk, design: Design) -> dict[PlacedId, float]:
    """Return the light of the year that shade leaves on each module."""
    _, arrays = array_lights(desk, design)
    return {
        module.id: float(lit.on_free.free_wh_per_m2.sum() - light.lost.sum())
        for lit in arrays
        for module, light in zip(lit.modules, lit.lights, strict=True)
    }


def _lit(
    job: Job,
    laid: LaidArray,
    modules: tuple[PlacedModule, ...],
    sky: SiteSky,
    resolution: Resolution,
) -> ArrayLight:
    array, sheet = laid.array, laid.module
    spots = spots_over(laid, modules, resolution)
    on_free = turned(sky, spots.glass)
    rear, rear_told = _rear(sheet, spots, array, sky)
    return ArrayLight(
        laid=laid,
        modules=modules,
        lights=module_lights(sky, spots),
        on_free=on_free,
        snow_frac=snow_frac(job, sky.weather, on_free.free_wh_per_m2, _slope(spots, array)),
        soiling_frac=soiling_frac(job),
        rear_w_per_m2=rear,
        rear_told=rear_told,
    )


def spots_over(
    laid: LaidArray, modules: tuple[PlacedModule, ...], resolution: Resolution = QUICK
) -> Spots:
    """Return where modules of an array stand, parted as their shade is looked at."""
    plane, sheet, lay = laid.plane, laid.module, lay_of(laid)
    places = raised(plane, laid.array, lay, modules)
    return Spots(plane, lay, places, sheet.bypass_diodes, resolution, sheet.half_cut)


@dataclass(frozen=True, slots=True)
class Slope:
    """What snow lies on: its tilt, its length up the slope, its lower edge over what snow slides to.

    ``brushed``: somebody takes the snow off.
    """

    tilt_deg: float
    slant_m: float
    lower_edge_m: float
    brushed: bool = False


def snow_frac(job: Job, year: WeatherYear, free_wh_per_m2: FloatArray, slope: Slope) -> FloatArray:
    """Return (12,): what snow takes; nothing where none is typed, or somebody brushes it off."""
    fall = snowfall_cm(job)
    if slope.brushed or not fall.any():
        return np.zeros(12)
    table = tables.load("snow-cover")
    months = SnowMonths(
        fall,
        mean_air_degc(year),
        table.number("value", quantity="relative humidity, %"),
        table.number("value", quantity="snow of one fall, cm"),
    )
    return snow_lost_frac(months, slope.tilt_deg, free_wh_per_m2, slope.slant_m, slope.lower_edge_m)


def _slope(spots: Spots, array: PlaneArray) -> Slope:
    """Return the slope that snow lies on over some places of an array."""
    lay = spots.lay
    lowest_m = min(p.y_m for p in spots.places)
    if lay.leg_tilt_deg > 0:
        # Each row slides by itself, onto the roof before its foot.
        slant_m = max(lay.table_m(p.orientation) for p in spots.places)
        lower_m = _lower_edge_m(array)
    else:
        slant_m = max(p.y_m + lay.height_m(p.orientation) for p in spots.places) - lowest_m
        rise = np.sin(np.radians(spots.plane.slope_deg))
        lower_m = eave_height_m(spots.plane) + lowest_m * rise
    return Slope(spots.glass.slope_deg, slant_m, lower_m, array.brushed)


def slope_of(laid: LaidArray) -> Slope:
    """Return the slope that snow lies on, over the modules of an array that has any."""
    plane, array, lay = laid.plane, laid.array, lay_of(laid)
    places = raised(plane, array, lay, present_of(array))
    return _slope(Spots(plane, lay, places, laid.module.bypass_diodes, QUICK), array)


def _lower_edge_m(array: PlaneArray) -> float:
    """Return how high the lower edge of rows on legs is over what they stand on."""
    return array.table.clearance.value_m if array.table else STAND_OFF_M


def _rear(
    sheet: ModuleSheet, spots: Spots, array: PlaneArray, sky: SiteSky
) -> tuple[FloatArray, str]:
    """Return (n,): what the back adds, W/m² as of the front, and in words why so."""
    nothing = np.zeros(len(sky.weather.time))
    if sheet.bifacial_frac is None:
        return nothing, "the datasheet names no bifaciality"
    lay, plane = spots.lay, spots.plane
    if array.mounting is not Mounting.OPEN_RACK or lay.leg_tilt_deg == 0:
        return nothing, "the back lies close to the roof and gets no light worth counting"
    lies_deg = plane.slope_deg if plane.ground is None else plane.ground.slope_deg
    if lies_deg > LEVEL_WITHIN_DEG:
        return nothing, f"the model of the back holds to {LEVEL_WITHIN_DEG:g}° of slope only"
    fronts = columns_of(lay, present_of(array))
    lines = in_lines(fronts, lambda c: c[0].y_m, lambda c: c[0].x_m)
    rows_m = [line[0][0].y_m for line in lines]
    slant_m = max(lay.table_m(p.orientation) for p in spots.places)
    steps = np.diff(rows_m)
    # Rows as far apart as they are in the mean; one alone sees ten of its own lengths.
    pitch_m = float(steps.mean()) if len(steps) else 10 * slant_m
    middle_m = _lower_edge_m(array) + slant_m / 2 * float(np.sin(np.radians(lay.leg_tilt_deg)))
    view = RearView(lay.leg_tilt_deg, spots.glass.azimuth_deg, slant_m, pitch_m, middle_m)
    reflected = sky.reflected_frac[sky.hours.month]
    gained = rear_w_per_m2(sky.weather, sky.hours.sun, view, reflected) * sheet.bifacial_frac
    return gained, f"bifaciality {sheet.bifacial_frac * 100:g} %, no shade of legs and rails"


def lit_string(
    modules: Sequence[tuple[ArrayLight, ModuleLight]],
    sky: SiteSky,
    tracker_index: int,
    heat: HeatLoss,
    *,
    darkest: bool = False,
    free_of: frozenset[Step] = frozenset(),
) -> StringIrradiance:
    """Return a string of modules, in wiring order, with the light on it.

    ``darkest`` lets the darkest cells of each substring rule it; ``free_of`` thinks steps away.
    """
    month = sky.hours.month
    reaching: list[FloatArray] = []
    left: dict[Step, FloatArray] = {}
    direct, turned_w = np.zeros(len(month)), np.zeros((len(month), 4))
    for lit, seen in modules:
        parts, passed = lit.on_free.parts, lit.on_free.passed
        light = _unshaded(seen) if Step.SHADE in free_of else seen
        falling, through = substring_light(light, sky.hours, parts, passed)
        snow = 1.0 if Step.SNOW in free_of else (1 - lit.snow_frac)[month]
        dirt = 1.0 if Step.DIRT in free_of else (1 - lit.soiling_frac)[month]
        rear = 0.0 if Step.BACK in free_of else lit.rear_w_per_m2
        ruled = through
        if darkest:
            _, ruled = substring_light(light, sky.hours, parts, passed, darkest=True)
        reaching.append(ruled * (snow * dirt) + rear)
        shaded = falling.mean(axis=0)
        mine = parts.beam_w_per_m2 * reach_by_hour(light.reach, sky.hours).mean(axis=0)
        direct += mine
        turned_w += mine[:, None] * lit.on_free.turn
        front = through.mean(axis=0) * snow * dirt
        for step, light_left in (
            (Step.SUNLIGHT, parts.poa_w_per_m2),
            (Step.SHADE, shaded),
            (Step.SNOW, shaded * snow),
            (Step.DIRT, shaded * snow * dirt),
            (Step.GLASS, front),
            (Step.BACK, front + rear),
        ):
            left[step] = left.get(step, 0.0) + light_left / len(modules)
    return StringIrradiance(
        tracker_index=tracker_index,
        sheets=tuple(lit.laid.module for lit, _ in modules),
        reaching_w_per_m2=np.concatenate(reaching),
        warming_w_per_m2=left[Step.DIRT] + (left[Step.BACK] - left[Step.GLASS]),
        direct_frac=share_of(direct / len(modules), left[Step.SHADE]),
        on_glass=tuple(left.items()),
        heat=heat,
        turn=np.divide(
            turned_w, direct[:, None], out=np.ones_like(turned_w), where=direct[:, None] > 0
        ),
    )


def _unshaded(light: ModuleLight) -> ModuleLight:
    return replace(
        light,
        reach=np.ones_like(light.reach),
        reach_least=np.ones_like(light.reach_least),
        sky_open_frac=np.ones_like(light.sky_open_frac),
    )


def require_modules(option: Option) -> None:
    """Raise MissingDatum while no module is laid."""
    if not any(present_of(a) for a in option.arrays):
        raise MissingDatum("module", f"Option {option.name}", "Lay some in the Array step first.")
