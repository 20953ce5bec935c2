"""Planes on the site: where their points lie, how they meet, what the first gives the next.

Site coordinates are metres east, north and up.  Facing a plane of azimuth A from outside,
its x runs towards bearing A - 90, its y up the slope towards A + 180.
"""

import math
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import EdgeKind, RoofPlane
from ridge_tally.core.survey.ground import rise_m
from ridge_tally.core.survey.outline import corners_m

FloatArray = NDArray[np.float64]
# How high an eave is drawn until somebody measures it; a guess that the screen says aloud.
GUESSED_EAVE_M = 2.7
# Edges further apart than this were not meant to meet; nearer than the other, they do.
MEANT_TO_MEET_M, MEETS_WITHIN_M = 0.6, 0.08
SHARED_EDGES = frozenset({EdgeKind.RIDGE, EdgeKind.HIP, EdgeKind.VALLEY})


@dataclass(frozen=True, slots=True)
class Meeting:
    """Two edges that were meant to meet, and how far apart their ends are at most, metres."""

    plane_id: PlaneId
    edge: int
    other_id: PlaneId
    other_edge: int
    apart_m: float


def eave_height_m(plane: RoofPlane) -> float:
    """Return how high the plane's eave is, guessed until it is measured."""
    return plane.eave_height.value_m if plane.eave_height else GUESSED_EAVE_M


def axes(azimuth_deg: float, slope_deg: float) -> FloatArray:
    """Return (2, 3): the plane's x and y as unit steps east, north and up."""
    a, s = math.radians(azimuth_deg), math.radians(slope_deg)
    return np.array(
        [
            [-math.cos(a), math.sin(a), 0.0],
            [-math.sin(a) * math.cos(s), -math.cos(a) * math.cos(s), math.sin(s)],
        ]
    )


def to_site(plane: RoofPlane, points_m: FloatArray) -> FloatArray:
    """Return (n, 3) site coordinates of (n, 2) points of a plane, metres; of the ground itself."""
    origin = np.array([plane.at.east_m, plane.at.north_m, eave_height_m(plane)])
    placed = np.asarray(origin + points_m @ axes(plane.azimuth_deg, plane.slope_deg))
    if plane.ground is not None:
        placed[:, 2] += rise_m(plane.ground, placed[:, :2] - origin[:2])
    return placed


def edge_ends(plane: RoofPlane, edge: int) -> FloatArray:
    """Return (2, 3): where an edge begins and ends on the site."""
    corners = corners_m(plane)
    return to_site(plane, corners[[edge, (edge + 1) % len(corners)]])


def joined_at(
    plane: RoofPlane, edge: int, other: RoofPlane, other_edge: int
) -> tuple[SitePoint, float]:
    """Return where the plane's first corner and eave go so that the edges' middles meet.

    Raises
    ------
    BadGeometry
        If that would put the eave underground.
    """
    shift = edge_ends(other, other_edge).mean(axis=0) - edge_ends(plane, edge).mean(axis=0)
    height_m = eave_height_m(plane) + float(shift[2])
    if height_m < 0:
        raise BadGeometry(
            plane.name,
            f"joined there its eave would lie {-height_m:.2f} m under ground",
            "Type the other plane's eave height first, or choose other edges.",
        )
    east, north = plane.at.east_m + float(shift[0]), plane.at.north_m + float(shift[1])
    return SitePoint(round(east, 4), round(north, 4)), round(height_m, 4)


def azimuth_of_eave_deg(left: SitePoint, right: SitePoint) -> float:
    """Return the true azimuth of a plane whose eave runs, seen from outside, left to right.

    Raises
    ------
    BadGeometry
        If the two points are one.
    """
    east, north = right.east_m - left.east_m, right.north_m - left.north_m
    if math.hypot(east, north) < 0.05:
        raise BadGeometry("Eave on the site plan", "both ends are one point", "Click two corners.")
    return (math.degrees(math.atan2(east, north)) + 90) % 360


def meetings(planes: tuple[RoofPlane, ...]) -> tuple[Meeting, ...]:
    """Return the ridges, hips and valleys of two planes that lie near one another."""
    ends = [
        (plane, edge, edge_ends(plane, edge))
        for plane in planes
        for edge, kind in enumerate(plane.outline.edges)
        if kind in SHARED_EDGES
    ]
    found = []
    for (a, edge_a, at_a), (b, edge_b, at_b) in combinations(ends, 2):
        if a.id == b.id or a.outline.edges[edge_a] is not b.outline.edges[edge_b]:
            continue
        # Seen from the two sides, a shared edge runs opposite ways.
        apart_m = float(np.linalg.norm(at_a - at_b[::-1], axis=1).max())
        if apart_m <= MEANT_TO_MEET_M:
            found.append(Meeting(a.id, edge_a, b.id, edge_b, apart_m))
    return tuple(found)
