"""What was due of an option in the steps of a gateway's log, under its measured light or a cloudless sky."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import cell_degc
from ridge_tally.core.job.document import strings_by_tracker
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.core.proving.logged.clock import Off, clock_off, put_right
from ridge_tally.core.proving.logged.steps import DueSteps
from ridge_tally.core.sky.given_sky import MOST_FRAC, Sky, given_sky
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sun import SunPath, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.core.sun.shading import hours_of
from ridge_tally.editing.array.tilt_positions import stances_of
from ridge_tally.editing.design import design_for
from ridge_tally.formats.production_file import DAY_MIN, ProductionLog
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import array_lights
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.lit_moments import Scene, at_work, relit, scene_under, usual_air
from ridge_tally.simulation.plant import has_own_points, own_point_of
from ridge_tally.simulation.year import require_year

FloatArray = NDArray[np.float64]
FINE_MIN, FINE_MIN_OF_DAYS = 15, 30
LOWEST_DEG = 1.0
# So many skies are looked through for each step's light.
FRACS = 18
# What a usual cloudless sky lets through of a clean one's light; common practice, no source.
USUAL_CLEAR_FRAC = 0.95


@dataclass(frozen=True, slots=True, eq=False)
class LoggedDue:
    """A log beside what was due, its clock put right.

    ``shares``: of each tracker, or array behind microinverters: how many strings, or units, and
    its part (d, p) of what all make.  ``offs``: what was put right in the clock.  ``unlit``: steps
    by day without a reading of the light.  ``module_light`` and ``module_kwh``: of each
    module the log names, in its order, what reaches its cells and what it made while all of them
    are logged; empty without such.
    """

    steps: DueSteps
    shares: tuple[tuple[int, FloatArray], ...]
    offs: tuple[Off, ...]
    unlit: int
    light_on: str
    module_light: FloatArray
    module_kwh: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class _Fine:
    """The moments a log's steps are worked out at: of (d, p) steps, ``per`` each."""

    time: NDArray[np.datetime64]
    sun: SunPath
    up: NDArray[np.bool_]
    days: int
    per_day: int
    per: int

    def means(self, values: FloatArray) -> FloatArray:
        """Return (d, p) means of steps from (n,) of their moments, the moments with sun given."""
        whole = np.zeros(len(self.time))
        whole[self.up] = values
        return np.asarray(whole.reshape(self.days, self.per_day, self.per).mean(axis=2))

    def spread(self, steps: FloatArray) -> FloatArray:
        """Return (n,) at the moments with sun from (d, p) steps."""
        return np.repeat(steps.ravel(), self.per)[self.up]


@dataclass(frozen=True, slots=True, eq=False)
class _Measured:
    """What was measured beside the power, (d, p) each, its clock right; nothing where it was not.

    ``plane``: the array the light was measured on; nothing: on the level.
    """

    light: FloatArray | None
    air: FloatArray | None
    cell: FloatArray | None
    plane: int | None


def logged_due(desk: Desk, design: Design, log: ProductionLog) -> LoggedDue:
    """Return what was due in each step of a log.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    require_year(design)
    fine = _fine(design, log.first_day, log.days, log.step_min)
    ways = _ways(design, fine)
    plane = int(np.argmax(_watts(design)))
    light, air, cell = log.light_w_per_m2, log.air_degc, log.cell_degc
    step_h = log.step_min / 60
    if light is None:
        at = _Measured(None, air, cell, plane)
        scenes = [_scene(desk, one, fine, mine, at) for one, mine in ways]
        steps, shares = _worked(design, log, fine, ways, scenes)
        offs = clock_off(log.power_w, steps.due_w, step_h, log.first_day)
    else:
        # A log's light goes by the log's clock, and no fault of the array shapes it.
        on = None if log.level_light else plane
        offs = clock_off(light, _cloudless(desk, ways, fine, on), step_h, log.first_day)
        at = _Measured(
            put_right(light, offs, step_h),
            None if air is None else put_right(air, offs, step_h),
            None if cell is None else put_right(cell, offs, step_h),
            on,
        )
        scenes = [_scene(desk, one, fine, mine, at) for one, mine in ways]
        steps, shares = _worked(design, log, fine, ways, scenes)
    made, unlit = put_right(log.power_w, offs, step_h), 0
    if at.light is not None:
        dark = np.isnan(at.light) & (steps.free_w > 0.02 * steps.rated_w)
        unlit = int((dark & np.isfinite(made)).sum())
        made = np.where(dark, np.nan, made)
    steps = replace(steps, made_w=made)
    # Arrays without modules have no light: the scene's own numbers count.
    light_on = scenes[0].arrays[plane].laid.plane.name
    by_module = _by_module(log, fine, ways, scenes, steps, offs)
    return LoggedDue(steps, shares, offs, unlit, light_on, *by_module)


def cloudless_light(
    desk: Desk, design: Design, first_day: date, days: int, step_min: int
) -> FloatArray:
    """Return the light (d, p), W/m², of a cloudless sky in the plane of the largest array."""
    fine = _fine(design, first_day, days, step_min)
    return _cloudless(desk, _ways(design, fine), fine, int(np.argmax(_watts(design))))


def _fine(design: Design, first_day: date, days: int, step_min: int) -> _Fine:
    minutes = FINE_MIN_OF_DAYS if step_min == DAY_MIN else min(FINE_MIN, step_min)
    per_day = DAY_MIN // step_min
    per = step_min // minutes
    count = days * per_day * per
    first = np.datetime64(first_day, "s") + np.timedelta64(minutes * 30, "s")
    time = first + np.arange(count) * np.timedelta64(minutes * 60, "s")
    sun = sun_path(time, location_of(design.job.site))
    up = sun.zenith_deg < 90 - LOWEST_DEG
    there = SunPath(sun.zenith_deg[up], sun.azimuth_deg[up])
    return _Fine(time, there, up, days, per_day, per)


def _ways(design: Design, fine: _Fine) -> list[tuple[Design, NDArray[np.bool_]]]:
    """Return the design as it stands on the days, with which of the lit moments are its."""
    stances = stances_of(design)
    lit = fine.time[fine.up]
    of_year = (lit.astype("datetime64[D]") - lit.astype("datetime64[Y]")).astype(np.int64)
    way = stances.by_day[np.minimum(of_year, DAYS - 1)]
    if len(stances.options) == 1:
        return [(design, np.ones(len(lit), bool))]
    return [
        (design_for(design.job, option), way == n)
        for n, option in enumerate(stances.options)
        if np.any(way == n)
    ]


def _of(sun: SunPath, mine: NDArray[np.bool_]) -> SunPath:
    return SunPath(sun.zenith_deg[mine], sun.azimuth_deg[mine])


def _sky(
    design: Design, fine: _Fine, mine: NDArray[np.bool_], frac: FloatArray | float | None,
    air: FloatArray, wind: FloatArray,
) -> WeatherYear:  # fmt: skip
    above_m = design.job.site.elevation_m or 0.0
    time, sun = fine.time[fine.up][mine], _of(fine.sun, mine)
    return given_sky(Sky.CLEAR, time, sun, above_m, air, wind, frac)


def _free(desk: Desk, design: Design, weather: WeatherYear, sun: SunPath, plane: int) -> FloatArray:
    """Return (n,) light in an array's plane with nothing before it."""
    sky, lit = array_lights(desk, design)
    there = replace(sky, weather=weather, hours=hours_of(weather.time, sun))
    return relit(there, lit[plane]).on_free.parts.poa_w_per_m2


def _cloudless(
    desk: Desk, ways: list[tuple[Design, NDArray[np.bool_]]], fine: _Fine, plane: int | None
) -> FloatArray:
    """Return the light (d, p) of a cloudless sky in an array's plane, or on the level."""
    out = np.zeros(len(fine.sun.zenith_deg))
    for one, mine in ways:
        some = np.full(int(mine.sum()), 20.0)
        weather = _sky(one, fine, mine, None, some, some)
        if plane is None:
            out[mine] = weather.ghi_w_per_m2
        else:
            out[mine] = _free(desk, one, weather, _of(fine.sun, mine), plane)
    return fine.means(out)


def _watts(design: Design) -> list[float]:
    return [
        laid.module.p_max_w * sum(m.present for m in laid.array.modules)
        for laid in design.arrays
        if any(m.present for m in laid.array.modules)
    ]


def _scene(
    desk: Desk, design: Design, fine: _Fine, mine: NDArray[np.bool_], at: _Measured
) -> Scene:
    time, sun = fine.time[fine.up][mine], _of(fine.sun, mine)
    usual, wind = usual_air(desk, design, time)
    if at.air is not None:
        told = fine.spread(at.air)[mine]
        usual = np.where(np.isfinite(told), told, usual)
    frac = None
    if at.light is not None:
        told = fine.spread(np.where(np.isfinite(at.light), at.light, 0.0))[mine]
        frac = _fracs(desk, design, fine, mine, told, at.plane)
    weather = _sky(design, fine, mine, frac, usual, wind)
    scene = scene_under(desk, design, weather, sun)
    if at.cell is None:
        return scene
    on = scene.on_array(at.plane or 0)
    warmer = fine.spread(at.cell)[mine] - cell_degc(on.warming_w_per_m2, weather, on.heat)
    air = usual + np.where(np.isfinite(warmer), warmer, 0.0)
    return replace(scene, weather=replace(weather, air_degc=air))


def _fracs(
    desk: Desk, design: Design, fine: _Fine, mine: NDArray[np.bool_], light: FloatArray,
    plane: int | None,
) -> FloatArray:  # fmt: skip
    """Return the shares (n,) of the clear sky's light that give what was measured.

    ``plane``: the array it was measured on; nothing: on the level.
    """
    sun, n = _of(fine.sun, mine), len(light)
    some = np.full(n, 20.0)
    if plane is None:
        level = _sky(design, fine, mine, None, some, some).ghi_w_per_m2
        return np.clip(light / np.maximum(level, 1.0), 0.0, MOST_FRAC)
    fracs = np.linspace(0.0, MOST_FRAC, FRACS)
    table = np.zeros((FRACS, n))
    for k, frac in enumerate(fracs[1:], 1):
        weather = _sky(design, fine, mine, np.full(n, frac), some, some)
        table[k] = _free(desk, design, weather, sun, plane)
    table = np.maximum.accumulate(table, axis=0)
    above = np.clip((table < light).sum(axis=0), 1, FRACS - 1)
    at = np.arange(n)
    low, high = table[above - 1, at], table[above, at]
    within = np.clip((light - low) / np.maximum(high - low, 1e-9), 0.0, 1.0)
    return np.asarray(fracs[above - 1] + within * (fracs[1] - fracs[0]))


def _worked(
    design: Design, log: ProductionLog, fine: _Fine,
    ways: list[tuple[Design, NDArray[np.bool_]]], scenes: list[Scene],
) -> tuple[DueSteps, tuple[tuple[int, FloatArray], ...]]:  # fmt: skip
    n = len(fine.sun.zenith_deg)
    due, free, light, cells, air = (np.zeros(n) for _ in range(5))
    sources = np.zeros((0, n))
    watts, limit = _watts(design), 0.0
    fine_h = log.step_min / 60 / fine.per
    for (_, mine), scene in zip(ways, scenes, strict=True):
        work = at_work(scene, fine_h)
        due[mine] = np.maximum(work.ac.given_w, 0.0)
        free[mine] = np.maximum(work.ac.unlimited_w, 0.0)
        if not len(sources):
            sources = np.zeros((len(work.drawn.sources_w), n))
        sources[:, mine] = np.stack(work.drawn.sources_w)
        planes = [scene.on_array(k) for k in range(len(scene.arrays))]
        light[mine] = np.average(
            [a.on_free.parts.poa_w_per_m2 for a in scene.arrays], axis=0, weights=watts
        )
        warm = [cell_degc(p.warming_w_per_m2, scene.weather, p.heat) for p in planes]
        cells[mine] = np.average(warm, axis=0, weights=watts)
        air[mine] = scene.weather.air_degc
        limit = work.rated_w
    by_sky = USUAL_CLEAR_FRAC if log.light_w_per_m2 is None else 1.0
    lit = fine.means(np.ones(n))

    def steps(of: FloatArray) -> FloatArray:
        """Return means of temperatures over the lit moments alone."""
        return np.where(lit > 0, fine.means(of) / np.maximum(lit, 1e-9), np.nan)

    out = DueSteps(
        made_w=log.power_w,
        due_w=fine.means(due) * by_sky,
        free_w=fine.means(free) * by_sky,
        light_w_per_m2=fine.means(light) * by_sky,
        cell_degc=steps(cells),
        air_degc=np.nan_to_num(steps(air), nan=20.0),
        rated_dc_w=sum(watts),
        limit_w=limit,
        step_h=log.step_min / 60,
        light_measured=log.light_w_per_m2 is not None,
        in_plane=log.light_w_per_m2 is not None and not log.level_light,
    )
    whole = np.maximum(sources.sum(axis=0), 1e-9)
    shares = tuple(
        (count, fine.means(source / whole) / np.maximum(lit, 1e-9))
        for count, source in zip(_counts(design, len(sources)), sources, strict=True)
    )
    return out, shares


def _counts(design: Design, sources: int) -> list[int]:
    """Return how many strings each source has, or modules where each stands alone."""
    own = own_point_of(design)
    if has_own_points(own) and design.microinverter is not None:
        return [
            sum(m.present for m in laid.array.modules)
            for laid in design.arrays
            if any(m.present for m in laid.array.modules)
        ]
    by_tracker = strings_by_tracker(design.option)
    return [len(by_tracker.get(n, ())) for n in range(sources)]


def _by_module(
    log: ProductionLog, fine: _Fine, ways: list[tuple[Design, NDArray[np.bool_]]],
    scenes: list[Scene], steps: DueSteps, offs: tuple[Off, ...],
) -> tuple[FloatArray, FloatArray]:  # fmt: skip
    """Return what reaches the cells of each part of a log, and its kWh, while all are logged."""
    light, kwh = np.zeros(len(log.modules)), np.zeros(len(log.modules))
    if not log.modules:
        return light, kwh
    made = [put_right(watts, offs, steps.step_h) for _, watts in log.modules]
    bright = steps.due_w > 0.15 * steps.rated_w
    logged = bright & np.isfinite(made).all(axis=0)
    for k, watts in enumerate(made):
        kwh[k] = float(watts[logged].sum()) * steps.step_h / 1000
    use = fine.spread(logged.astype(float)) > 0
    for (_, mine), scene in zip(ways, scenes, strict=True):
        for k, lit in enumerate(_lit_parts(log, scene, scene.number)):
            light[k] += float(lit[use[mine]].sum())
    return light, kwh


def _lit_parts(
    log: ProductionLog, scene: Scene, known: dict[PlacedId, int]
) -> Iterator[FloatArray]:
    groups = [(n, tuple(i for i in ids if i in known)) for n, (ids, _) in enumerate(log.modules)]
    there = [g for g in groups if g[1]]
    lit = dict(zip([g[0] for g in there], scene.lit(there), strict=True))
    for n, ids in groups:
        steps = len(scene.weather.time)
        yield lit[n].reaching_w_per_m2.mean(axis=0) * len(ids) if n in lit else np.zeros(steps)
