"""A day on the site, moment by moment: where shadows lie, and what each module gets."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.survey import RoofPlane, Survey
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.sun import sun_path
from ridge_tally.core.sky.weather_year import moments_of_day, month_of
from ridge_tally.core.sun.occluders import OWN_PLANE_M
from ridge_tally.core.sun.shading import glass_corners_m, reach_at
from ridge_tally.core.sun.shadows import (
    Before,
    Screen,
    Shadow,
    before_screen,
    shadows_on,
    toward_sun,
)
from ridge_tally.core.survey.outline import corners_m, is_closed
from ridge_tally.core.survey.shade import source_at
from ridge_tally.core.survey.site_frame import axes, to_site
from ridge_tally.editing.array.tilt_positions import held_on
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import array_lights, spots_over
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.site_sky import module_words

FloatArray = NDArray[np.float64]
STEP_MIN = 15
# Below this the sun lights nothing that counts, and shadows have no end.
LOWEST_DEG = 1.0
MARGIN_M = 6.0


@dataclass(frozen=True, slots=True)
class PlaneShadows:
    """Shadows on a plane; ``dark`` while the sun stands behind it."""

    plane_id: PlaneId
    dark: bool
    shadows: tuple[Shadow, ...]


@dataclass(frozen=True, slots=True)
class SunMoment:
    """A moment of the day in standard time: the sun, the shadows, and the light on each module.

    ``lit_frac[i][j]`` is the share of the beam that reaches substring j of module i, of none
    while the sun is behind it.
    """

    minute: int
    azimuth_deg: float
    elevation_deg: float
    ground: tuple[Shadow, ...]
    planes: tuple[PlaneShadows, ...]
    lit_frac: tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True)
class ModuleOnSite:
    """A module's glass from above, metres east and north."""

    module_id: PlacedId
    plane_id: PlaneId
    ring: tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True)
class SunDay:
    """A day from sunrise to sunset in steps."""

    day: int
    step_min: int
    utc_offset_h: float
    modules: tuple[ModuleOnSite, ...]
    moments: tuple[SunMoment, ...]


def sun_day(desk: Desk, design: Design, day: int) -> SunDay:
    """Return a day of the year, 0 for the first of January.

    Raises
    ------
    OutOfRange
        If there is no such day.
    MissingDatum
        If a plane of the array does not close.
    """
    if not 0 <= day < DAYS:
        raise OutOfRange("Day of the year", day, f"between 0 and {DAYS - 1}")
    sky, arrays = array_lights(desk, design_for(design.job, held_on(design, day)))
    minutes = np.arange(0, 24 * 60, STEP_MIN)
    time = moments_of_day(day, minutes)
    sun = sun_path(time, location_of(design.job.site))
    up = sun.zenith_deg < 90 - LOWEST_DEG
    azimuth, elevation = sun.azimuth_deg[up], 90 - sun.zenith_deg[up]
    month = np.asarray(month_of(time), dtype=np.int64)[up]
    lit, modules = [], []
    for one in arrays:
        spots = spots_over(one.laid, one.modules)
        face = np.cross(*axes(spots.glass.azimuth_deg, spots.glass.slope_deg))
        before = np.array(
            [toward_sun(a, e) @ face > 0 for a, e in zip(azimuth, elevation, strict=True)]
        )
        for placed, place, words in zip(
            one.modules, spots.places, module_words(desk, sky, spots), strict=True
        ):
            reach = reach_at(words, spots.substrings, azimuth, elevation, month, sky.passes)
            lit.append(np.where(before, reach, 0.0))
            ring = glass_corners_m(spots.plane, spots.lay, place)[:, :2]
            modules.append(ModuleOnSite(placed.id, spots.plane.id, _rounded(ring)))
    planes = tuple(p for p in design.job.survey.planes if is_closed(p))
    level = Screen(np.zeros(3), np.array([0.0, 0.0, 1.0]), _box(design.job.survey, planes))
    ground = before_screen(level, sky.occluders)
    screens = tuple((p, before_screen(_screen(p), sky.occluders)) for p in planes)
    moments = tuple(
        SunMoment(
            minute=int(minute),
            azimuth_deg=float(a),
            elevation_deg=float(e),
            ground=shadows_on(ground, toward_sun(a, e)),
            planes=tuple(_on_plane(p, s, toward_sun(a, e)) for p, s in screens),
            lit_frac=tuple(tuple(round(float(v), 2) for v in x[:, i]) for x in lit),
        )
        for i, (minute, a, e) in enumerate(zip(minutes[up], azimuth, elevation, strict=True))
    )
    return SunDay(day, STEP_MIN, design.job.site.utc_offset_h, tuple(modules), moments)


def _rounded(ring: FloatArray) -> tuple[tuple[float, ...], ...]:
    return tuple((round(float(x), 3), round(float(y), 3)) for x, y in ring)


def _screen(plane: RoofPlane) -> Screen:
    corners = to_site(plane, corners_m(plane))
    normal = np.cross(*axes(plane.azimuth_deg, plane.slope_deg))
    box = (*corners[:, :2].min(axis=0).tolist(), *corners[:, :2].max(axis=0).tolist())
    return Screen(corners[0], normal, box, OWN_PLANE_M)


def _box(survey: Survey, planes: tuple[RoofPlane, ...]) -> tuple[float, float, float, float]:
    """Return what the site plan shows: planes and what stands around, with a margin."""
    points = [to_site(p, corners_m(p))[:, :2] for p in planes]
    points += [
        np.array([[source_at(s).east_m, source_at(s).north_m]]) for s in survey.shade_sources
    ]
    if not points:
        return (-MARGIN_M, -MARGIN_M, MARGIN_M, MARGIN_M)
    every = np.vstack(points)
    low, high = every.min(axis=0) - MARGIN_M, every.max(axis=0) + MARGIN_M
    return float(low[0]), float(low[1]), float(high[0]), float(high[1])


def _on_plane(plane: RoofPlane, before: Before, sun: FloatArray) -> PlaneShadows:
    dark = float(sun @ before.screen.normal) <= 0
    return PlaneShadows(plane.id, dark, () if dark else shadows_on(before, sun))
