"""How much of each hour's light reaches each substring of each module."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.job.array import Orientation
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.kernels import dome
from ridge_tally.core.sky.plane_irradiance import LightParts
from ridge_tally.core.sky.sun import SunPath
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
class Taken:
    """What shade takes of a plane's light, Wh/m².

    ``lost`` (m, 12): of each module, by month.  ``alone`` and ``only`` (o, 12), by owner, the
    mean over the modules: what returns when the owner alone goes, and what it takes if nobody
    else stood there.
    """

    lost: FloatArray
    alone: FloatArray
    only: FloatArray


def sample_points_m(
    plane: RoofPlane, lay: Lay, place: Place, substrings: int, resolution: Resolution
) -> FloatArray:
    """Return (s, k, 3) site points of a module's substrings, metres, on its glass.

    Notes
    -----
    Substrings are strips along the long side, side by side across the short one.
    """
    width_m, height_m = lay.width_m(place.orientation), lay.height_m(place.orientation)
    across = (np.arange(substrings * resolution.across) + 0.5) / (substrings * resolution.across)
    along = (np.arange(resolution.along) + 0.5) / resolution.along
    upright = place.orientation is Orientation.PORTRAIT
    short, long = np.meshgrid(across, along, indexing="ij")
    x, y = (short * width_m, long * height_m) if upright else (long * width_m, short * height_m)
    flat = np.column_stack([place.x_m + x.ravel(), place.y_m + y.ravel()])
    normal = np.cross(*axes(plane.azimuth_deg, plane.slope_deg))
    return (to_site(plane, flat) + STAND_OFF_M * normal).reshape(substrings, -1, 3)


def skies_over(
    occluders: Occluders, plane: RoofPlane, points_m: FloatArray, weights: FloatArray
) -> WordArray:
    """Return the (n, rows, 4 rows) words of the sky over points on a plane.

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
    words: WordArray = dome.skies(
        np.ascontiguousarray(points_m),
        occluders.corners_m,
        occluders.starts,
        occluders.normals,
        occluders.drops,
        occluders.face_owners,
        occluders.rounds_m,
        occluders.crowns,
        occluders.round_owners,
        np.radians(horizon),
        numbers[0] if numbers else -1,
        np.cross(*axes(plane.azimuth_deg, plane.slope_deg)),
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


def cell_weights(plane: RoofPlane, rows: int) -> FloatArray:
    """Return (rows, 4 rows): cosine of incidence on the plane times the cell's solid angle.

    Notes
    -----
    They sum to π (1 + cos slope) / 2.
    """
    edges = np.radians(np.linspace(0.0, 90.0, rows + 1))
    solid = np.diff(np.sin(edges)) * (np.pi / 2 / rows)
    elevation = (edges[:-1] + edges[1:]) / 2
    azimuth = np.radians((np.arange(4 * rows) + 0.5) * 90 / rows)
    slope, facing = np.radians(plane.slope_deg), np.radians(plane.azimuth_deg)
    cosine = np.sin(elevation)[:, None] * np.cos(slope) + np.cos(elevation)[:, None] * np.sin(
        slope
    ) * np.cos(azimuth - facing)
    return np.asarray(np.maximum(cosine, 0.0) * solid[:, None])


def taken(
    sky: WordArray,
    modules: int,
    sun: SunPath,
    month: NDArray[np.int64],
    parts: LightParts,
    weights: FloatArray,
    passes: FloatArray,
    owners: int,
) -> Taken:
    """Return what shade takes of the light on a plane's modules in a year.

    Parameters
    ----------
    sky : (n, rows, 4 rows) uint64
        Skies over the points of the modules, module by module, alike many for each.
    sun, month, parts
        All hours of the year.

    Notes
    -----
    Beam and the light around the sun follow the sun's own place in the sky; the rest of the
    sky's light follows the part of the sky that is open; the ground's is taken as open.
    """
    up = sun.zenith_deg < 90
    direct = (parts.beam_w_per_m2 + parts.circumsolar_w_per_m2)[up]
    lost, alone, only = dome.beam_sums(
        sky,
        np.radians(sun.azimuth_deg[up]),
        np.radians(90.0 - sun.zenith_deg[up]),
        month[up],
        direct,
        passes,
        owners,
    )
    # Months alike are counted once: most skies have a leafy season and a bare one.
    seasons, season_of = np.unique(passes, axis=0, return_inverse=True)
    season_of = season_of.ravel()
    wide_lost, wide_alone, wide_only = dome.sky_sums(
        sky, weights, np.ascontiguousarray(seasons), owners
    )
    wide = np.bincount(month, parts.isotropic_w_per_m2 + parts.horizon_w_per_m2, minlength=12)
    points = len(sky)
    by_point = lost + wide_lost[:, season_of] * wide
    return Taken(
        by_point.reshape(modules, -1, 12).mean(axis=1),
        (alone + wide_alone[:, season_of] * wide) / points,
        (only + wide_only[:, season_of] * wide) / points,
    )
