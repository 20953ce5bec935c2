"""The picture under the site plan: from its pixels to the site and back."""

import math

from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.job.survey import PicturePoint, Trace


def metres_per_px(trace: Trace) -> float:
    """Return the picture's scale, from its two points a known way apart."""
    a, b = trace.first, trace.second
    return trace.distance.value_m / math.hypot(b.x_px - a.x_px, b.y_px - a.y_px)


def site_of(trace: Trace, point: PicturePoint) -> SitePoint:
    """Return where a point of the picture lies on the site.

    Notes
    -----
    With right r and up u in metres from the first point and the picture turned clockwise by t:
    east = r cos t + u sin t, north = u cos t - r sin t.
    """
    scale, turn = metres_per_px(trace), math.radians(trace.turned_deg)
    right = (point.x_px - trace.first.x_px) * scale
    up = (trace.first.y_px - point.y_px) * scale
    return SitePoint(
        trace.at.east_m + right * math.cos(turn) + up * math.sin(turn),
        trace.at.north_m + up * math.cos(turn) - right * math.sin(turn),
    )
