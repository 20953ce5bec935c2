"""Which planes stand where they are drawn: measured, placed, and none through another."""

from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import RoofPlane, Survey
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.survey.polygon import encloses
from ridge_tally.core.survey.site_frame import axes, to_site

FloatArray = NDArray[np.float64]
# Points this far apart are looked at; planes nearer in height than the other go through each
# other, further apart one stands over the other, as a dormer does.
STEP_M, THROUGH_M = 0.25, 0.3
# Less is a mitre's or a tape's slack.
LEAST_OVERLAP_M2 = 0.5


def is_unmeasured(plane: RoofPlane) -> bool:
    """Return whether nobody has typed a reading of a plane's outline yet."""
    return all(r.taped is None for r in plane.outline.readings)


def shades_others(plane: RoofPlane, survey: Survey) -> bool:
    """Return whether a plane's roof and walls throw shade: somebody measured and placed it.

    One alone is what the site is drawn about.
    """
    return len(survey.planes) == 1 or (plane.at_given and not is_unmeasured(plane))


@dataclass(frozen=True, slots=True)
class Overlap:
    """Two planes that go through each other on the site plan, and over how much of it."""

    plane_id: PlaneId
    other_id: PlaneId
    area_m2: float


def overlaps(survey: Survey) -> tuple[Overlap, ...]:
    """Return the planes that lie through each other; uprights and unplaced ones take no part."""
    drawn = [p for p in survey.planes if p.at_given and p.slope_deg < 80.0]
    found = []
    for one, other in combinations(drawn, 2):
        area_m2 = _through_m2(one, other)
        if area_m2 >= LEAST_OVERLAP_M2:
            found.append(Overlap(one.id, other.id, area_m2))
    return tuple(found)


def _through_m2(one: RoofPlane, other: RoofPlane) -> float:
    mine, theirs = (to_site(p, corners_m(p)) for p in (one, other))
    low = np.maximum(mine[:, :2].min(axis=0), theirs[:, :2].min(axis=0))
    high = np.minimum(mine[:, :2].max(axis=0), theirs[:, :2].max(axis=0))
    if (high - low <= STEP_M).any():
        return 0.0
    across = [np.arange(a + STEP_M / 2, b, STEP_M) for a, b in zip(low, high, strict=True)]
    points = np.stack(np.meshgrid(*across), axis=-1).reshape(-1, 2)
    east, north = points.T
    both = encloses(mine[:, :2], east, north) & encloses(theirs[:, :2], east, north)
    apart_m = _height_m(one, mine, points) - _height_m(other, theirs, points)
    return float(np.sum(both & (np.abs(apart_m) < THROUGH_M)) * STEP_M**2)


def _height_m(plane: RoofPlane, corners: FloatArray, points: FloatArray) -> FloatArray:
    """Return (n,): how high a plane, as a face without end, lies over points of the site."""
    normal = np.cross(*axes(plane.azimuth_deg, plane.slope_deg))
    off = points - corners[0, :2]
    return np.asarray(corners[0, 2] - off @ normal[:2] / normal[2])
