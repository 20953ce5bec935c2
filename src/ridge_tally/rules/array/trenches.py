"""The trench from a ground array to the panel: where it runs and how long it is."""

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from ridge_tally.core.array.tables import tables_of
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.service import Service
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.survey.outline import corners_m, is_closed
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.array.ground import rings_of, rows_of


@dataclass(frozen=True, slots=True)
class Trench:
    """From the corner of the nearest table by its turns to the panel, metres on the site.

    From the area's own nearest corner while no table stands on it.
    """

    points: tuple[SitePoint, ...]
    length_m: float


def trench_of(service: Service, laid: LaidArray) -> Trench | None:
    """Return the trench of a ground area; ``None`` on roofs and while the panel is nowhere."""
    panel, plane = service.panel, laid.plane
    if panel is None or plane.ground is None or not is_closed(plane):
        return None
    rings = rings_of(plane, rows_of(laid), tables_of(plane, laid.array, lay_of(laid)))
    corners = np.concatenate(rings or [to_site(plane, corners_m(plane))[:, :2]])
    route = [*plane.ground.trench_route, panel]

    def away_m(corner: np.ndarray) -> float:
        return math.hypot(corner[0] - route[0].east_m, corner[1] - route[0].north_m)

    nearest = min(corners, key=away_m)
    points = (SitePoint(float(nearest[0]), float(nearest[1])), *route)
    length_m = sum(
        math.hypot(b.east_m - a.east_m, b.north_m - a.north_m) for a, b in pairwise(points)
    )
    return Trench(points, length_m)
