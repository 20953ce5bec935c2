"""An option in the light of moments that belong to no weather year: a day somebody names, or a log's."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.inverter import AcYear, ac_year, summed
from ridge_tally.core.energy.lit import DcOutput, StringIrradiance
from ridge_tally.core.energy.trackers import (
    LoadedTracker,
    Taken,
    drawn_as_taken,
    loaded_tracker,
    taken,
)
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import kept_frac
from ridge_tally.core.job.document import strings_by_tracker
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.sky.plane_irradiance import glass_passing, light_parts
from ridge_tally.core.sky.sun import SunPath
from ridge_tally.core.sky.weather_year import WeatherYear, hour_of, month_of
from ridge_tally.core.sun.shading import hours_of, reach_at
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import ArrayLight, array_lights, spots_over
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.plant import (
    Group,
    ac_sides,
    drawn_at_modules,
    has_own_points,
    helpers_of,
    lit_groups,
    losses_of,
    own_point_of,
)
from ridge_tally.simulation.scenario import OwnPoint
from ridge_tally.simulation.site_sky import SiteSky, Turned, module_words
from ridge_tally.simulation.weather import weather_of

FloatArray = NDArray[np.float64]
MONTHS = 12


@dataclass(frozen=True, slots=True)
class Scene:
    """The light of (n,) moments on an option, and how warm its cells are."""

    design: Design
    sky: SiteSky
    weather: WeatherYear
    arrays: tuple[ArrayLight, ...]

    @property
    def number(self) -> dict[PlacedId, int]:
        """The array each module lies on, from 0."""
        return {m.id: n for n, a in enumerate(self.arrays) for m in a.modules}

    def lit(self, groups: Sequence[Group]) -> tuple[StringIrradiance, ...]:
        """Return groups of modules with their light; snow is what somebody sees, not a mean."""
        return lit_groups(self.sky, self.arrays, groups, free_of=frozenset({Step.SNOW}))

    def on_array(self, at: int) -> StringIrradiance:
        """Return all modules of an array with their light."""
        return self.lit([(0, tuple(m.id for m in self.arrays[at].modules))])[0]


@dataclass(frozen=True, slots=True, eq=False)
class TrackerAtWork:
    """A tracker's strings with their light, and what it takes of them."""

    strings: tuple[ModuleString, ...]
    loaded: LoadedTracker
    took: Taken


@dataclass(frozen=True, slots=True, eq=False)
class AtWork:
    """What (n,) moments give: the DC side, each tracker with what it takes, and the AC side.

    ``trackers``: nothing where every module has a converter of its own.
    """

    drawn: DcOutput
    trackers: tuple[TrackerAtWork, ...]
    ac: AcYear
    rated_w: float


def scene_under(desk: Desk, design: Design, weather: WeatherYear, sun: SunPath) -> Scene:
    """Return an option under the light of moments; ``sun`` at them."""
    sky, lit = array_lights(desk, design)
    words = [module_words(desk, sky, spots_over(one.laid, one.modules)) for one in lit]
    there = replace(sky, weather=weather, hours=hours_of(weather.time, sun), held=None)
    arrays = (_shaded(there, relit(there, one), seen) for one, seen in zip(lit, words, strict=True))
    return Scene(design, there, weather, tuple(arrays))


def relit(sky: SiteSky, one: ArrayLight) -> ArrayLight:
    """Return an array in the light of other moments, its shade not looked at yet."""
    laid = one.laid
    tilt = laid.plane.slope_deg + laid.array.leg_tilt_deg
    facing, month = laid.plane.azimuth_deg, sky.hours.month
    parts = light_parts(sky.weather, sky.hours.sun, tilt, facing, sky.reflected_frac[month])
    passed = glass_passing(sky.hours.sun, tilt, facing)
    steps = len(month)
    free = Turned(parts, passed, np.zeros(12), np.ones((steps, 4)))
    return replace(one, on_free=free, rear_w_per_m2=np.zeros(steps))


def _shaded(sky: SiteSky, one: ArrayLight, words: Sequence[NDArray[np.uint64]]) -> ArrayLight:
    """Return an array with what stands before the sun at each moment."""
    hours, per = sky.hours, one.laid.module.bypass_diodes
    up = hours.up
    azimuth, elevation = hours.sun.azimuth_deg[up], 90 - hours.sun.zenith_deg[up]
    lights = []
    for seen, word in zip(one.lights, words, strict=True):
        reach = reach_at(word, per, azimuth, elevation, hours.month[up], sky.passes)
        # Tables tilted with the seasons hold one way on a day: its months come first.
        open_frac = seen.sky_open_frac[:, :MONTHS]
        lights.append(
            replace(
                seen, reach=reach, reach_least=reach, sky_number=hours.month,
                sky_open_frac=open_frac,
            )
        )  # fmt: skip
    return replace(one, lights=tuple(lights))


def usual_air(
    desk: Desk, design: Design, time: NDArray[np.datetime64]
) -> tuple[FloatArray, FloatArray]:
    """Return (n,) air, °C, and wind, m/s, of moments: their months' means of the hour."""
    year = weather_of(desk, design.job)
    at = month_of(year.time) * 24 + hour_of(year.time)
    counts = np.bincount(at, minlength=MONTHS * 24)
    month = month_of(time)
    clock_h = (time - time.astype("datetime64[D]")).astype("timedelta64[s]").astype(float) / 3600
    middles = np.arange(24) + 0.5

    def usual(of: FloatArray) -> FloatArray:
        by_hour = (np.bincount(at, of, minlength=MONTHS * 24) / counts).reshape(MONTHS, 24)
        out = np.zeros(len(time))
        for one in np.unique(month):
            mine = month == one
            out[mine] = np.interp(clock_h[mine], middles, by_hour[one], period=24.0)
        return out

    return usual(year.air_degc), usual(year.wind_m_per_s)


def at_work(scene: Scene, step_h: float) -> AtWork:
    """Return what an option gives in steps of so many hours.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If a datasheet lacks what the model needs or contradicts itself.
    """
    design, weather = scene.design, scene.weather
    own = own_point_of(design)
    trackers: tuple[TrackerAtWork, ...] = ()
    if has_own_points(own):
        drawn = drawn_at_modules(design, own, scene.lit, weather)
    else:
        trackers = tuple(_trackers(scene, own))
        pairs = [(t.loaded, t.took) for t in trackers]
        drawn = drawn_as_taken(pairs, design.trackers, len(weather.time))
    kept = kept_frac(losses_of(design.module, own.unit if own else None), 1)
    sides = ac_sides(design, own)
    ac = summed(
        [
            ac_year(b.units_w * kept, b.volts_v, weather.air_degc, side, step_h)
            for b, side in zip(drawn.banks, sides, strict=True)
        ]
    )
    rated = sum(s.rating_w * len(b.units_w) for b, s in zip(drawn.banks, sides, strict=True))
    return AtWork(drawn, trackers, ac, rated)


def _trackers(scene: Scene, own: OwnPoint | None) -> Iterator[TrackerAtWork]:
    for index, strings in strings_by_tracker(scene.design.option).items():
        lights = scene.lit([(index, s.module_ids) for s in strings])
        wired = tuple(s.module_ids for s in strings)
        loaded = replace(
            loaded_tracker(index, lights, scene.weather), helpers=helpers_of(own, wired)
        )
        yield TrackerAtWork(tuple(strings), loaded, taken(loaded, scene.design.trackers[index]))
