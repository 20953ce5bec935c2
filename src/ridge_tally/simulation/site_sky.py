"""The sky over a job's arrays, remembered module by module: what moves is looked at anew, alone."""

import os
from collections.abc import Hashable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from itertools import count

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.tables import raised
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sky.passing_beam import PassingBeam, turning
from ridge_tally.core.sky.plane_irradiance import (
    GlassPassing,
    LightParts,
    glass_passing,
    light_parts,
)
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sun import sun_path
from ridge_tally.core.sky.weather_year import WeatherYear, by_step
from ridge_tally.core.sun.occluders import Occluders, occluders_of, with_rows
from ridge_tally.core.sun.shading import (
    Glass,
    Hours,
    ModuleLight,
    Passing,
    Resolution,
    WordArray,
    cell_groups,
    cell_weights,
    glass_corners_m,
    glass_of,
    hours_of,
    module_light,
    passes_of,
    sample_points_m,
    skies_over,
)
from ridge_tally.core.sun.spliced import parts_while
from ridge_tally.rules import tables
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.remembered import Remembered
from ridge_tally.simulation.weather import (
    passing_beam_of,
    reflected_frac,
    weather_key,
    weather_of,
)

FloatArray = NDArray[np.float64]
_NUMBERS = count()
# So few are looked at faster than threads are begun.
FEW = 2


@dataclass(frozen=True, slots=True)
class Turned:
    """A year's light on a free glass, what passes it, and its months' sums, (12,).

    ``turn`` (n, 4): the beam on it in each quarter of an hour over its mean.
    """

    parts: LightParts
    passed: GlassPassing
    free_wh_per_m2: FloatArray
    turn: FloatArray


@dataclass(frozen=True, slots=True)
class SiteSky:
    """What stands around, the year's hours, and the light worked out so far.

    ``held`` (n,): the steps at which the arrays stand so; ``None`` for all of them.
    """

    occluders: Occluders
    passing: Passing
    passes: FloatArray
    weather: WeatherYear
    beam: PassingBeam
    hours: Hours
    reflected_frac: FloatArray
    held: NDArray[np.bool_] | None = None
    number: int = field(default_factory=lambda: next(_NUMBERS))
    turned: Remembered = field(default_factory=lambda: Remembered(32))
    lights: Remembered = field(default_factory=lambda: Remembered(768))

    @property
    def owners(self) -> int:
        """How many can stand in the light."""
        return len(self.occluders.owners)


def site_sky(
    desk: Desk,
    design: Design,
    without: int | None = None,
    *,
    days: tuple[bool, ...] | None = None,
) -> SiteSky:
    """Return the sky over the arrays of an option; rows on legs stand in it themselves.

    ``without`` is the number of an owner that is thought away; ``days`` (365) are those on which
    the arrays stand so.
    """
    on_legs = tuple(a for a in design.arrays if a.array.leg_tilt_deg > 0)
    key = (design.job.survey, weather_key(design.job), on_legs, without, days)
    return desk.skies.get(key, lambda: _sky(desk, design, on_legs, without, days))


def _sky(
    desk: Desk,
    design: Design,
    on_legs: tuple[LaidArray, ...],
    without: int | None,
    days: tuple[bool, ...] | None,
) -> SiteSky:
    occluders = occluders_of(design.job.survey)
    for laid in on_legs:
        plane, lay = laid.plane, lay_of(laid)
        places = raised(plane, laid.array, lay, present_of(laid.array))
        corners = np.array([glass_corners_m(plane, lay, p) for p in places]).reshape(-1, 4, 3)
        occluders = with_rows(occluders, f"rows on {plane.name}", corners)
    weather = weather_of(desk, design.job)
    passing = crown_passing()
    passes = passes_of(occluders, passing)
    if without is not None:
        passes[:, without] = 1.0
    hours = hours_of(weather.time, sun_path(weather.time, location_of(design.job.site)))
    return SiteSky(
        occluders,
        passing,
        passes,
        weather,
        passing_beam_of(desk, design.job),
        hours,
        reflected_frac(design.job, weather),
        None if days is None else by_step(np.array(days), len(weather.time)),
    )


def crown_passing() -> Passing:
    """Return what crowns let through."""
    table = tables.load("crown-passing")
    return Passing(
        table.number("passes_frac", leaf="in-leaf"), table.number("passes_frac", leaf="bare")
    )


def turned(sky: SiteSky, glass: Glass) -> Turned:
    """Return the light of a free glass."""

    def compute() -> Turned:
        parts = light_parts(
            sky.weather,
            sky.hours.sun,
            glass.slope_deg,
            glass.azimuth_deg,
            sky.reflected_frac[sky.hours.month],
        )
        passed = glass_passing(sky.hours.sun, glass.slope_deg, glass.azimuth_deg)
        turn = turning(sky.beam, glass.slope_deg, glass.azimuth_deg)
        return Turned(parts, passed, monthly_wh(parts.poa_w_per_m2, sky.hours), turn)

    return sky.turned.get(glass, compute)


def monthly_wh(power_w: FloatArray, hours: Hours) -> FloatArray:
    """Return (12,): the sums of each month of (n,) powers."""
    return np.bincount(hours.month, power_w, minlength=12).astype(np.float64) * hours.step_h


@dataclass(frozen=True, slots=True)
class Spots:
    """Places on a plane whose sky is looked at, and into how many substrings each is parted."""

    plane: RoofPlane
    lay: Lay
    places: tuple[Place, ...]
    substrings: int
    resolution: Resolution
    half_cut: bool = False

    @property
    def glass(self) -> Glass:
        """The face of the modules there."""
        return glass_of(self.plane, self.lay.leg_tilt_deg)

    def key(self, place: Place) -> Hashable:
        """Return what the sky over one of the places depends on, besides the site."""
        lay = self.lay
        size = (lay.long_m, lay.short_m, lay.leg_tilt_deg)
        return self.plane.id, size, place, self.substrings, self.resolution, self.half_cut


def module_lights(sky: SiteSky, spots: Spots) -> tuple[ModuleLight, ...]:
    """Return the light on each place; those looked at before are not looked at again."""
    parts = turned(sky, spots.glass).parts
    if sky.held is not None:
        parts = parts_while(parts, sky.held)
    weights = cell_weights(spots.glass, spots.resolution.rows)

    def look(place: Place) -> ModuleLight:
        return sky.lights.get(
            spots.key(place),
            lambda: module_light(
                _words(sky, spots, place, weights),
                spots.substrings,
                cell_groups(spots.resolution, half_cut=spots.half_cut),
                sky.hours,
                parts,
                weights,
                sky.passes,
                sky.owners,
            ),
        )

    new = [p for p in spots.places if spots.key(p) not in sky.lights]
    if len(new) > FEW:
        # The kernels let go of the interpreter, so that every core works.
        with ThreadPoolExecutor(os.cpu_count()) as pool:
            list(pool.map(look, new))
    return tuple(look(place) for place in spots.places)


def module_words(desk: Desk, sky: SiteSky, spots: Spots) -> tuple[WordArray, ...]:
    """Return the words of the sky over each place, the newest of them remembered."""
    weights = cell_weights(spots.glass, spots.resolution.rows)
    return tuple(
        desk.words.get(
            (sky.number, spots.key(p)),
            lambda p=p: _words(sky, spots, p, weights),  # type: ignore[misc]
        )
        for p in spots.places
    )


def _words(sky: SiteSky, spots: Spots, place: Place, weights: FloatArray) -> WordArray:
    points = sample_points_m(spots.plane, spots.lay, place, spots.substrings, spots.resolution)
    return skies_over(sky.occluders, spots.glass, points.reshape(-1, 3), weights)
