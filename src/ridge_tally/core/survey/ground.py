"""The lie of a piece of ground: how high it is at a point, how steep along a direction."""

import math

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.survey import GroundArea, RoofPlane

FloatArray = NDArray[np.float64]


def rise_m(ground: GroundArea, away_m: FloatArray) -> FloatArray:
    """Return (n,): how much higher the ground is at points than where they are measured from.

    Parameters
    ----------
    away_m : (n, 2) float
        Metres east and north.
    """
    falls = math.radians(ground.falls_to_deg)
    down = away_m @ np.array([math.sin(falls), math.cos(falls)])
    return np.asarray(-down * math.tan(math.radians(ground.slope_deg)))


def rise_behind(ground: GroundArea, facing_deg: float) -> float:
    """Return how much the ground rises for each metre behind a row that faces a true azimuth."""
    turned = math.radians(ground.falls_to_deg - facing_deg)
    return math.tan(math.radians(ground.slope_deg)) * math.cos(turned)


def ground_of_plane(plane: RoofPlane) -> GroundArea:
    """Return a plane's ground; BadGeometry where it is a roof."""
    if plane.ground is None:
        raise BadGeometry(plane.name, "it is no ground area", "Add a ground area in Survey.")
    return plane.ground
