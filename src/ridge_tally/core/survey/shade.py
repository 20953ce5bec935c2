"""Trees, houses and poles: where they stand and how high, as given or as sighted; the horizon."""

import math
import re
from dataclasses import replace

from ridge_tally.core.errors import BadGeometry, NotUnderstood, OutOfRange
from ridge_tally.core.job.places import SitePoint, Taped
from ridge_tally.core.job.survey import HorizonPoint, ShadeSource, Sighting
from ridge_tally.core.units import parse_number

MOST_HORIZON_POINTS = 400
_PAIR = "pairs such as “120, 4.5”: bearing, then elevation, in degrees"


def sighted_at(sighting: Sighting) -> SitePoint:
    """Return the site point a bearing and distance lead to."""
    bearing = math.radians(sighting.bearing_deg)
    reach = sighting.distance.value_m
    return SitePoint(
        sighting.station.east_m + reach * math.sin(bearing),
        sighting.station.north_m + reach * math.cos(bearing),
    )


def source_at(source: ShadeSource) -> SitePoint:
    """Return where a shade source's middle stands."""
    return source.at if source.sighting is None else sighted_at(source.sighting)


def source_height_m(source: ShadeSource) -> float | None:
    """Return how high it is, as given or by the angle to its top; ``None`` until measured.

    Notes
    -----
    h = d tan(a) + eye: d the level distance, a the angle up from the eye.
    """
    sighting = source.sighting
    if source.height is None and sighting and sighting.top_deg is not None and sighting.eye:
        rise = math.tan(math.radians(sighting.top_deg))
        return sighting.distance.value_m * rise + sighting.eye.value_m
    return source.height.value_m if source.height else None


def lowered(source: ShadeSource, to_m: float) -> ShadeSource:
    """Return a shade source cut down to a height, metres."""
    return replace(source, height=Taped(to_m, f"{to_m:.2f} m"))


def parse_horizon(typed: str) -> tuple[HorizonPoint, ...]:
    """Return bearing and elevation pairs of lines or CSV text, by rising bearing.

    A first line of words is a heading.  Commas, semicolons, tabs or spaces part the pair.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry
        Naming the line; two heights at one bearing are none.
    """
    points: dict[float, HorizonPoint] = {}
    for number, line in enumerate(typed.lstrip("\ufeff").splitlines(), start=1):
        cells = _cells(line)
        if not cells or (number == 1 and not re.search(r"\d", line)):
            continue
        field = f"Horizon, line {number}"
        if len(cells) != 2:
            raise NotUnderstood(field, line.strip()[:60], _PAIR)
        bearing, elevation = (parse_number(cell, field, _PAIR) for cell in cells)
        if not 0 <= bearing <= 360:
            raise OutOfRange(f"{field}, bearing in degrees", bearing, "between 0 and 360")
        if not -10 <= elevation < 90:
            raise OutOfRange(
                f"{field}, elevation in degrees", elevation, "at least −10 and below 90"
            )
        before = points.get(bearing % 360)
        if before is not None and before.elevation_deg != elevation:
            raise BadGeometry(
                f"{field}, bearing {bearing:g}°",
                f"it is {elevation:g}° high here and {before.elevation_deg:g}° in an earlier line",
                "Keep one of the two.",
            )
        points[bearing % 360] = HorizonPoint(bearing % 360, elevation)
        if len(points) > MOST_HORIZON_POINTS:
            raise OutOfRange("Horizon points", len(points), f"at most {MOST_HORIZON_POINTS}")
    return tuple(points[b] for b in sorted(points))


def _cells(line: str) -> list[str]:
    text = line.strip()
    delimiter = next((mark for mark in (";", "\t", ",") if mark in text), None)
    if delimiter is None:
        return text.split()
    return [cell.strip(' "') for cell in text.split(delimiter)]
