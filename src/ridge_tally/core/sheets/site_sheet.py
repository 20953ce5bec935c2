"""The site drawn to scale for a sheet: planes, modules, lot lines, gear, ways of cables, north."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.sheets.flow import BODY
from ridge_tally.core.sheets.paper import Box
from ridge_tally.core.sheets.scale import Scale, largest, scale_bar
from ridge_tally.core.sheets.scene import Circle, Item, Layer, Line, Point, Text
from ridge_tally.core.sheets.scene_lint import crosses_box, segments
from ridge_tally.core.units import LengthUnit

MARGIN_MM, BUBBLE_MM = 12.0, 2.6
# How far off its place a letter may stand.
REACHES_MM = (7.0, 10.0, 14.0, 19.0, 25.0, 32.0)
Ring = Sequence[tuple[float, float]]


@dataclass(frozen=True, slots=True)
class SiteShape:
    """Something flat on the site, corners east and north in metres; ``closed`` or a way."""

    layer: Layer
    ring: Ring
    part: str = ""
    closed: bool = True
    dashed: bool = False


@dataclass(frozen=True, slots=True)
class SiteMark:
    """A piece of gear by its letter."""

    letter: str
    at: SitePoint
    part: str = ""


@dataclass(frozen=True, slots=True)
class SiteDrawing:
    """The items and the scale they came out at."""

    items: tuple[Item, ...]
    scale: Scale


def draw_site(
    shapes: Sequence[SiteShape], marks: Sequence[SiteMark], box: Box, unit: LengthUnit
) -> SiteDrawing:
    """Return the site to the largest usual scale in a box, north upwards."""
    points = [p for s in shapes for p in s.ring] + [(m.at.east_m, m.at.north_m) for m in marks]
    west, south = (min((p[k] for p in points), default=0.0) for k in (0, 1))
    east, north = (max((p[k] for p in points), default=1.0) for k in (0, 1))
    inner = (box[0] + MARGIN_MM, box[1] + MARGIN_MM, box[2] - MARGIN_MM, box[3] - 14)
    scale = largest(east - west, north - south, inner, unit)
    k = scale.mm_per_m
    x0 = (inner[0] + inner[2] - (east - west) * k) / 2 - west * k
    y0 = (inner[1] + inner[3] + (north - south) * k) / 2 + south * k

    def at(p: tuple[float, float]) -> Point:
        return x0 + p[0] * k, y0 - p[1] * k

    items: list[Item] = [
        Line(s.layer, tuple(at(p) for p in s.ring), s.part, closed=s.closed, dashed=s.dashed)
        for s in shapes
        if len(s.ring) > 1
    ]
    for mark in marks:
        items += _marked(mark, at((mark.at.east_m, mark.at.north_m)), items, inner)
    items += scale_bar(scale, unit, box[0] + 4, box[3] - 1)
    return SiteDrawing((*items, *_north(box[2] - 8, box[1] + 16)), scale)


def _north(x: float, y: float) -> tuple[Item, ...]:
    return (
        Line(Layer.SYMBOL, ((x, y), (x, y - 11))),
        Line(Layer.SYMBOL, ((x - 2, y - 7), (x, y - 11), (x + 2, y - 7))),
        Text((x, y - 12), "N", 3.2, "middle", bold=True),
    )


def _marked(mark: SiteMark, at: Point, items: Sequence[Item], inner: Box) -> tuple[Item, ...]:
    """Return a letter in a bubble, as near to its place as it lies on nothing, with a line to it."""
    spots = [
        (at[0] + reach * math.cos(turn), at[1] + reach * math.sin(turn))
        for reach in REACHES_MM
        for turn in (math.radians(45 * n) for n in range(8))
    ]
    x, y = next((s for s in spots if _free(s, items, inner)), spots[0])
    part, reach = mark.part or "gear", math.hypot(x - at[0], y - at[1])
    edge = (x - (x - at[0]) * BUBBLE_MM / reach, y - (y - at[1]) * BUBBLE_MM / reach)
    return (
        Circle(Layer.EQUIPMENT, at, 0.6, part, filled=True),
        Line(Layer.DIMENSION, (at, edge), part),
        Circle(Layer.EQUIPMENT, (x, y), BUBBLE_MM, part),
        Text((x, y + 0.9), mark.letter, BODY, "middle", part, bold=True),
    )


def _free(at: Point, items: Sequence[Item], inner: Box) -> bool:
    r = BUBBLE_MM + 0.4
    box = (at[0] - r, at[1] - r, at[0] + r, at[1] + r)
    if box[0] < inner[0] or box[1] < inner[1] or box[2] > inner[2] or box[3] > inner[3]:
        return False
    for item in items:
        if isinstance(item, Line) and any(crosses_box(a, b, box) for a, b in segments(item)):
            return False
        if isinstance(item, Circle) and math.dist(item.centre, at) < r + item.radius:
            return False
    return True
