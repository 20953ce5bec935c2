"""A day under a sky somebody names: what each string, tracker and array should read, moment by moment.

The same light, glass, shade, diode, trackers and inverter as the year; only the sky is given.
"""

from collections import Counter
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from pvlib.irradiance import aoi

from ridge_tally.core.energy.inverter import AcYear
from ridge_tally.core.energy.lit import DcOutput, StringIrradiance, cell_degc
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import OptimizerSheet
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.kernels.hung import string_points
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.core.sky.given_sky import MOST_FRAC, Sky, given_sky
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sun import SunPath, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear, moments_of_day
from ridge_tally.core.sun.shading import hours_of
from ridge_tally.editing.array.tilt_positions import held_on
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import array_lights
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.lit_moments import AtWork, Scene, at_work, relit, scene_under, usual_air
from ridge_tally.simulation.plant import has_own_points, own_point_of
from ridge_tally.simulation.scenario import OwnPoint
from ridge_tally.simulation.year import require_year

FloatArray = NDArray[np.float64]
STEP_MIN = 15
DAY_MIN = 24 * 60
# So many skies are looked through for one that was measured.
FRACS = 66
# Below this the sun lights nothing that is measured.
LOWEST_DEG = 2.0


@dataclass(frozen=True, slots=True)
class Asked:
    """A moment and its sky.

    ``day`` from 0 for the first of January, ``minute`` of standard time.  ``measured_w_per_m2``:
    on the array of that number, from 0.  ``air_degc``, ``cell_degc``: measured, or the model's.
    """

    day: int
    minute: int
    sky: Sky = Sky.CLEAR
    measured_w_per_m2: float | None = None
    measured_on: int = 0
    air_degc: float | None = None
    cell_degc: float | None = None


@dataclass(frozen=True, slots=True, eq=False)
class ArrayDay:
    """An array over the day, (n,): W/m² on its glass and in its cells, °C, degrees off square, W."""

    name: str
    modules: int
    rated_w: float
    on_glass_w_per_m2: FloatArray
    in_cells_w_per_m2: FloatArray
    free_w_per_m2: FloatArray
    cell_degc: FloatArray
    incidence_deg: FloatArray
    dc_w: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class StringDay:
    """A string over the day, (n,): V open, A joined, V and A at work; light on its substrings (m, n).

    ``arrays``: the numbers of the arrays its modules lie on, module by module.
    """

    string: ModuleString
    light: StringIrradiance
    arrays: tuple[int, ...]
    cell_degc: FloatArray
    voc_v: FloatArray
    isc_a: FloatArray
    volts_v: FloatArray
    amps_a: FloatArray


@dataclass(frozen=True, slots=True, eq=False)
class DayUnder:
    """A day under a sky, (n,) each; ``now``: the number of the moment that was asked for."""

    design: Design
    minutes: NDArray[np.int64]
    now: int
    sun: SunPath
    weather: WeatherYear
    arrays: tuple[ArrayDay, ...]
    strings: tuple[StringDay, ...]
    drawn: DcOutput
    ac: AcYear
    rated_w: float

    @property
    def up(self) -> bool:
        """Whether there is enough sun at the moment for a reading."""
        return bool(self.sun.zenith_deg[self.now] < 90 - LOWEST_DEG)


@dataclass(frozen=True, slots=True)
class _At:
    """The moments of a day, and which of them is asked for."""

    minutes: NDArray[np.int64]
    now: int
    sun: SunPath


def day_under(desk: Desk, design: Design, asked: Asked, *, whole: bool = True) -> DayUnder:
    """Return a day of an option under a sky, or its one moment alone.

    Of a moment alone the inverter's cabinet is as warm as the air: nothing went before.

    Raises
    ------
    OutOfRange
        If there is no such day or minute, or nothing comes down that could have been measured.
    MissingDatum
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    if not 0 <= asked.day < DAYS:
        raise OutOfRange("Day of the year", asked.day, f"between 0 and {DAYS - 1}")
    if not 0 <= asked.minute < DAY_MIN:
        raise OutOfRange("Minute of the day", asked.minute, f"between 0 and {DAY_MIN - 1}")
    require_year(design)
    held = design_for(design.job, held_on(design, asked.day))
    steps = np.arange(0, DAY_MIN, STEP_MIN) if whole else np.zeros(0, np.int64)
    minutes = np.union1d(steps, [asked.minute]).astype(np.int64)
    now = int(np.searchsorted(minutes, asked.minute))
    time = moments_of_day(asked.day, minutes)
    at = _At(minutes, now, sun_path(time, location_of(held.job.site)))
    frac = _frac_measured(desk, held, asked, at)
    air, wind = _air_of_day(desk, held, asked, at, time)
    above_sea_m = held.job.site.elevation_m or 0.0
    weather = given_sky(asked.sky, time, at.sun, above_sea_m, air, wind, frac)
    return _worked_out(scene_under(desk, held, weather, at.sun), asked, at)


def _air_of_day(
    desk: Desk, design: Design, asked: Asked, at: _At, time: NDArray[np.datetime64]
) -> tuple[FloatArray, FloatArray]:
    """Return (n,) air and wind: the month's mean of each hour, or the air that was measured."""
    air, wind = usual_air(desk, design, time)
    if asked.air_degc is not None:
        air = air + (asked.air_degc - air[at.now])
    return air, wind


def _frac_measured(desk: Desk, held: Design, asked: Asked, at: _At) -> float | None:
    """Return the share of the clear sky's light at which an array gets what was measured on it."""
    measured = asked.measured_w_per_m2
    if measured is None:
        return None
    sky, lit = array_lights(desk, held)
    sun, now = at.sun, at.now
    if not 0 <= asked.measured_on < len(lit):
        raise OutOfRange("Array measured on", asked.measured_on + 1, f"between 1 and {len(lit)}")
    fracs = np.linspace(0.0, MOST_FRAC, FRACS)
    alike = np.ones(FRACS)
    time = moments_of_day(asked.day, np.full(FRACS, asked.minute, np.int64))
    same = SunPath(alike * sun.zenith_deg[now], alike * sun.azimuth_deg[now])
    weather = given_sky(
        asked.sky, time, same, held.job.site.elevation_m or 0.0, alike * 20, alike, fracs
    )
    there = replace(sky, weather=weather, hours=hours_of(time, same))
    on_plane = relit(there, lit[asked.measured_on]).on_free.parts.poa_w_per_m2
    if measured > on_plane[-1] * 1.02:
        raise OutOfRange(
            "Light, W/m²", measured,
            f"at most {on_plane[-1]:.0f}: no sky sends more at that moment",
            "Check the day, the hour and the unit.",
        )  # fmt: skip
    # Thinner cloud, more light: nearly always rising, and held so where the split is not.
    return float(np.interp(measured, np.maximum.accumulate(on_plane), fracs))


def _worked_out(scene: Scene, asked: Asked, at: _At) -> DayUnder:
    design = scene.design
    scene = _as_warm(scene, asked, at.now)
    work = at_work(scene, STEP_MIN / 60)
    own = own_point_of(design)
    if has_own_points(own):
        strings = _held_strings(scene, own, work.drawn)
    else:
        strings = _strings(scene, work)
    return DayUnder(
        design, at.minutes, at.now, at.sun, scene.weather,
        _array_days(scene, at.sun, work.drawn, strings), strings, work.drawn, work.ac, work.rated_w,
    )  # fmt: skip


def _as_warm(scene: Scene, asked: Asked, now: int) -> Scene:
    """Return the day with its air such that cells are as warm as they were measured at the moment."""
    if asked.cell_degc is None or not scene.arrays:
        return scene
    light = scene.on_array(min(asked.measured_on, len(scene.arrays) - 1))
    cells = cell_degc(light.warming_w_per_m2, scene.weather, light.heat)
    air = scene.weather.air_degc + (asked.cell_degc - cells[now])
    return replace(scene, weather=replace(scene.weather, air_degc=air))


def _strings(scene: Scene, work: AtWork) -> tuple[StringDay, ...]:
    """Return strings on their trackers, each with its own voltage and current."""
    days, number = [], scene.number
    for one in work.trackers:
        loaded, took = one.loaded, one.took
        for k, (string, light) in enumerate(zip(one.strings, loaded.strings, strict=True)):
            first, end = loaded.starts[k], loaded.starts[k + 1]
            opens, shorted, amps = string_points(
                light.reaching_w_per_m2, loaded.cells_degc[k], loaded.refs,
                loaded.types[first:end], took.volts_v,
            )  # fmt: skip
            days.append(
                StringDay(
                    string, light, tuple(number[m] for m in string.module_ids),
                    loaded.cells_degc[k], opens, shorted, took.volts_v, amps,
                )
            )  # fmt: skip
    order = {s.tag: n for n, s in enumerate(scene.design.option.strings)}
    return tuple(sorted(days, key=lambda d: order[d.string.tag]))


def _held_strings(scene: Scene, own: OwnPoint, drawn: DcOutput) -> tuple[StringDay, ...]:
    """Return strings of optimizers at the voltage their inverter holds; none behind microinverters."""
    if not isinstance(own.unit, OptimizerSheet):
        return ()
    strings, number = scene.design.option.strings, scene.number
    steps = len(scene.weather.time)
    volts, none = np.full(steps, own.unit.string_v or 0.0), np.zeros(steps)
    on: Counter[int] = Counter()
    for s in strings:
        on[s.tracker_number] += len(s.module_ids)
    lights = scene.lit([(s.tracker_number - 1, s.module_ids) for s in strings])
    return tuple(
        StringDay(
            s, light, tuple(number[m] for m in s.module_ids),
            cell_degc(light.warming_w_per_m2, scene.weather, light.heat), none, none, volts,
            drawn.sources_w[s.tracker_number - 1] * len(s.module_ids) / on[s.tracker_number]
            / max(float(volts[0]), 1.0),
        )
        for s, light in zip(strings, lights, strict=True)
    )  # fmt: skip


def _array_days(
    scene: Scene, sun: SunPath, drawn: DcOutput, strings: tuple[StringDay, ...]
) -> tuple[ArrayDay, ...]:
    days = []
    for n, one in enumerate(scene.arrays):
        light = scene.on_array(n)
        on_glass = dict(light.on_glass)
        laid = one.laid
        tilt = laid.plane.slope_deg + laid.array.leg_tilt_deg
        if strings:
            dc = np.sum(
                [s.volts_v * s.amps_a * s.arrays.count(n) / len(s.arrays) for s in strings], axis=0
            )
        else:
            dc = drawn.sources_w[n]
        strung = sum(s.arrays.count(n) for s in strings) if strings else len(one.modules)
        days.append(
            ArrayDay(
                laid.plane.name, strung, strung * laid.module.p_max_w, on_glass[Step.SHADE],
                on_glass[Step.BACK], on_glass[Step.SUNLIGHT],
                cell_degc(light.warming_w_per_m2, scene.weather, light.heat),
                np.asarray(aoi(tilt, laid.plane.azimuth_deg, sun.zenith_deg, sun.azimuth_deg)),
                np.asarray(dc),
            )
        )  # fmt: skip
    return tuple(days)
