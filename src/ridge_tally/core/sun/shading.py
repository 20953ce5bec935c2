"""How much of each hour's light reaches each substring of a module."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.job.array import Orientation
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.kernels.dome import skies
from ridge_tally.core.kernels.dome_light import beam_sums, beam_through, sky_sums
from ridge_tally.core.sky.plane_irradiance import GlassPassing, LightParts
from ridge_tally.core.sky.sun import SunPath
from ridge_tally.core.sky.weather_year import hour_of, month_of, step_h
from ridge_tally.core.sun.occluders import MOST_OWNERS, Occluders, OwnerKind
from ridge_tally.core.survey.site_frame import axes, to_site

FloatArray = NDArray[np.float64]
WordArray = NDArray[np.uint64]
# Modules stand this far off the roof; common practice, no source.
STAND_OFF_M = 0.12


@dataclass(frozen=True, slots=True)
class Resolution:
    """Cells of the sky and sample points: along a substring, and across it."""

    name: str
    rows: int
    along: int
    across: int


# Errors of both against exact polygon shadows: see the design page of the engine, section 1.
QUICK = Resolution("quick", 45, 4, 1)
FINE = Resolution("fine", 90, 8, 2)


@dataclass(frozen=True, slots=True)
class Passing:
    """What crowns let through: in leaf, and bare."""

    in_leaf_frac: float
    bare_frac: float


@dataclass(frozen=True, slots=True)
class Glass:
    """The face modules turn to the sky: degrees, azimuth true; steeper than the plane on legs."""

    slope_deg: float
    azimuth_deg: float


@dataclass(frozen=True, slots=True)
class ModuleLight:
    """What shade leaves and takes of a year's light on one module; losses in Wh/m².

    ``reach`` (s, m): the share of the beam that reaches each substring at each of the m hours
    with the sun up; ``reach_least`` the same where the darkest cells of a substring rule it.
    ``sky_open_frac`` (s, k): the share of the free plane's sky light that does; ``sky_number`` (n,)
    says which of them holds at each hour, as a rule its month's.  ``lost`` (12, 24): by month and hour.  ``alone`` and ``only`` (o, 12), by
    owner and month: what returns when the owner alone goes, and what it takes if nobody else
    stood there.
    """

    reach: NDArray[np.float32]
    reach_least: NDArray[np.float32]
    sky_open_frac: FloatArray
    sky_number: NDArray[np.int64]
    lost: FloatArray
    alone: FloatArray
    only: FloatArray


@dataclass(frozen=True, slots=True)
class Hours:
    """The hours of a year: the sun, month and hour of the day of each, and which see the sun.

    Or equal parts of hours.
    """

    sun: SunPath
    month: NDArray[np.int64]
    hour: NDArray[np.int64]
    up: NDArray[np.bool_]

    @property
    def step_h(self) -> float:
        """Hours in a step."""
        return step_h(len(self.month))


def hours_of(time: NDArray[np.datetime64], sun: SunPath) -> Hours:
    """Return the hours of a year from their (n,) moments and the sun's places."""
    month = np.asarray(month_of(time), dtype=np.int64)
    return Hours(sun, month, hour_of(time), sun.zenith_deg < 90)


def glass_of(plane: RoofPlane, leg_tilt_deg: float) -> Glass:
    """Return the face of modules on a plane."""
    return Glass(plane.slope_deg + leg_tilt_deg, plane.azimuth_deg)


def sample_points_m(
    plane: RoofPlane, lay: Lay, place: Place, substrings: int, resolution: Resolution
) -> FloatArray:
    """Return (s, k, 3) site points of a module's substrings, metres, on its glass.

    Notes
    -----
    Substrings are strips along the long side, side by side across the short one.
    """
    width_m = lay.width_m(place.orientation)
    across = (np.arange(substrings * resolution.across) + 0.5) / (substrings * resolution.across)
    along = (np.arange(resolution.along) + 0.5) / resolution.along
    upright = place.orientation is Orientation.PORTRAIT
    short, long = np.meshgrid(across, along, indexing="ij")
    glass_m = lay.glass_m(place.orientation)
    x, y = (short * width_m, long * glass_m) if upright else (long * width_m, short * glass_m)
    flat = np.column_stack([x.ravel(), y.ravel()])
    return _on_glass(plane, lay, place, flat).reshape(substrings, -1, 3)


def glass_corners_m(plane: RoofPlane, lay: Lay, place: Place) -> FloatArray:
    """Return (4, 3) site corners of a module's glass, metres."""
    width_m, glass_m = lay.width_m(place.orientation), lay.glass_m(place.orientation)
    flat = np.array([[0.0, 0.0], [width_m, 0.0], [width_m, glass_m], [0.0, glass_m]])
    return _on_glass(plane, lay, place, flat)


def _on_glass(plane: RoofPlane, lay: Lay, place: Place, flat_m: FloatArray) -> FloatArray:
    """Return (n, 3) site points of (n, 2) points on the glass, from its lower left corner."""
    foot = to_site(plane, np.array([[place.x_m, place.y_m]]))
    normal = np.cross(*axes(plane.azimuth_deg, plane.slope_deg))
    off = np.array([0.0, 0.0, place.up_m]) if place.up_m else STAND_OFF_M * normal
    face = glass_of(plane, lay.leg_tilt_deg)
    return np.asarray(foot + off + flat_m @ axes(face.azimuth_deg, face.slope_deg))


def cell_groups(resolution: Resolution, *, half_cut: bool) -> NDArray[np.int64]:
    """Return (k,): which cells in series each point of a substring lies on.

    A half-cut substring is two halves side by side along the module: shade on one leaves the
    other its current.
    """
    along = np.arange(resolution.along) * (2 if half_cut else 0) // resolution.along
    return np.tile(along, resolution.across).astype(np.int64)


def skies_over(
    occluders: Occluders, glass: Glass, points_m: FloatArray, weights: FloatArray
) -> WordArray:
    """Return the (n, rows, 4 rows) words of the sky over points on the glass.

    Parameters
    ----------
    points_m : (n, 3) float
    weights : (rows, 4 rows) float
        What ``cell_weights`` returns: cells that weigh nothing lie behind the plane.
    """
    rows = weights.shape[0]
    bearing = (np.arange(4 * rows) + 0.5) * 90 / rows
    horizon = np.interp(bearing, np.arange(360.0), occluders.horizon_deg, period=360.0)
    numbers = [i for i, o in enumerate(occluders.owners) if o.kind is OwnerKind.HORIZON]
    words: WordArray = skies(
        np.ascontiguousarray(points_m),
        occluders.corners_m,
        occluders.starts,
        occluders.normals,
        occluders.drops,
        occluders.face_owners,
        occluders.own_m,
        occluders.rounds_m,
        occluders.shapes,
        occluders.round_owners,
        np.radians(horizon),
        numbers[0] if numbers else -1,
        np.cross(*axes(glass.azimuth_deg, glass.slope_deg)),
        weights > 0,
    )
    return words


def passes_of(occluders: Occluders, passing: Passing) -> FloatArray:
    """Return the (12, 64) share of light each owner lets through, by month."""
    passes = np.zeros((12, MOST_OWNERS))
    for number, owner in enumerate(occluders.owners):
        if owner.kind is OwnerKind.TREE:
            passes[:, number] = passing.in_leaf_frac
            passes[list(owner.leafless_months), number] = passing.bare_frac
    return passes


def cell_weights(glass: Glass, rows: int) -> FloatArray:
    """Return (rows, 4 rows): cosine of incidence on the glass times the cell's solid angle.

    Notes
    -----
    They sum to π (1 + cos slope) / 2.
    """
    edges = np.radians(np.linspace(0.0, 90.0, rows + 1))
    solid = np.diff(np.sin(edges)) * (np.pi / 2 / rows)
    elevation = (edges[:-1] + edges[1:]) / 2
    azimuth = np.radians((np.arange(4 * rows) + 0.5) * 90 / rows)
    slope, facing = np.radians(glass.slope_deg), np.radians(glass.azimuth_deg)
    cosine = np.sin(elevation)[:, None] * np.cos(slope) + np.cos(elevation)[:, None] * np.sin(
        slope
    ) * np.cos(azimuth - facing)
    return np.asarray(np.maximum(cosine, 0.0) * solid[:, None])


def reach_at(
    sky: WordArray,
    substrings: int,
    azimuth_deg: FloatArray,
    elevation_deg: FloatArray,
    month: NDArray[np.int64],
    passes: FloatArray,
) -> NDArray[np.float32]:
    """Return (s, m): the share of the beam that reaches each substring at m moments.

    ``sky`` holds the skies over the points of one module, substring by substring.
    """
    found: NDArray[np.float32] = beam_through(
        sky,
        len(sky) // substrings,
        np.radians(azimuth_deg),
        np.radians(elevation_deg),
        month,
        passes,
    )
    return found


def module_light(
    sky: WordArray,
    substrings: int,
    group_of: NDArray[np.int64],
    hours: Hours,
    parts: LightParts,
    weights: FloatArray,
    passes: FloatArray,
    owners: int,
) -> ModuleLight:
    """Return what shade leaves and takes of the light on a module in a year.

    Parameters
    ----------
    sky : (n, rows, 4 rows) uint64
        Skies over the points of the module, substring by substring.
    group_of : (k,) int
        What ``cell_groups`` returns.
    hours, parts
        All hours of the year.

    Notes
    -----
    Beam and the light around the sun follow the sun's own place in the sky; the rest of the
    sky's light follows the part of the sky that is open; the ground's is taken as open.
    """
    up, month = hours.up, hours.month
    azimuth, elevation = hours.sun.azimuth_deg[up], 90.0 - hours.sun.zenith_deg[up]
    direct = (parts.beam_w_per_m2 + parts.circumsolar_w_per_m2)[up]
    reach, least, alone, only = beam_sums(
        sky,
        group_of,
        np.radians(azimuth),
        np.radians(elevation),
        month[up],
        direct,
        passes,
        owners,
    )
    # Months alike are counted once: most skies have a leafy season and a bare one.
    seasons, season_of = np.unique(passes, axis=0, return_inverse=True)
    season_of = season_of.ravel()
    sky_lost, sky_alone, sky_only = sky_sums(
        sky, len(sky) // substrings, weights, np.ascontiguousarray(seasons), owners
    )
    wide = parts.isotropic_w_per_m2 + parts.horizon_w_per_m2
    by_month = np.bincount(month, wide, minlength=12)
    shaded = wide * sky_lost.mean(axis=0)[season_of][month]
    shaded[up] += direct * (1 - reach.mean(axis=0))
    slots = np.bincount(month * 24 + hours.hour, shaded, minlength=288) * hours.step_h
    return ModuleLight(
        reach=reach,
        reach_least=least,
        sky_open_frac=1 - sky_lost[:, season_of],
        sky_number=month,
        lost=slots.reshape(12, 24).astype(np.float64),
        alone=(alone + sky_alone[:, season_of] * by_month) * (hours.step_h / len(sky)),
        only=(only + sky_only[:, season_of] * by_month) * (hours.step_h / len(sky)),
    )


def sum_of(parts: Iterable[FloatArray]) -> FloatArray:
    """Return the sum of arrays alike in shape."""
    return np.asarray(sum(parts))


def reach_by_hour(reach: NDArray[np.float32], hours: Hours) -> FloatArray:
    """Return (s, n) shares of the beam at all hours of those at the hours with the sun up.

    Around the set sun there is a little light yet, and nothing is known to stand before it.
    """
    whole = np.ones((len(reach), len(hours.month)))
    whole[:, hours.up] = reach
    return whole


def substring_light(
    light: ModuleLight,
    hours: Hours,
    parts: LightParts,
    passed: GlassPassing,
    *,
    darkest: bool = False,
) -> tuple[FloatArray, FloatArray]:
    """Return (s, n) each: light on the glass of each substring, and what reaches its cells, W/m².

    ``darkest`` lets the darkest cells of each substring rule its beam, instead of their mean.
    """
    reach = reach_by_hour(light.reach_least if darkest else light.reach, hours)
    sky_open = light.sky_open_frac[:, light.sky_number]
    beam = parts.beam_w_per_m2 * reach
    sky = parts.circumsolar_w_per_m2 * reach
    sky += (parts.isotropic_w_per_m2 + parts.horizon_w_per_m2) * sky_open
    ground = parts.ground_w_per_m2
    through = beam * passed.beam_frac + sky * passed.sky_frac + ground * passed.ground_frac
    return beam + sky + ground, through
