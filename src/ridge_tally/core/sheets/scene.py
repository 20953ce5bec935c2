"""A drawing as data: lines, circles, arcs and texts on layers, millimetres of paper, y downwards.

``part`` names what an item belongs to (``inverter 1``), ``net`` the conductor a line is.
"""

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

Point = tuple[float, float]
Anchor = Literal["start", "middle", "end"]
# A semi-condensed sans serif: the mean width of a character, and where capitals end, over the size.
CHAR_FRAC, CAP_FRAC = 0.5, 0.72


class Layer(StrEnum):
    """Layers by discipline; widths and colours go with them."""

    DC = "E-DC"
    AC = "E-AC"
    GROUND = "E-GRND"
    EQUIPMENT = "E-EQPM"
    SYMBOL = "E-SYMB"
    BUS = "E-BUS"
    TEXT = "E-TEXT"
    ROOF = "A-ROOF-OTLN"
    OBSTACLE = "A-ROOF-OBST"
    FRAMING = "S-FRAM"
    MODULE_BELOW = "A-PV-MODL-BELW"
    MODULE = "A-PV-MODL"
    STRING = "A-PV-STRG"
    RAIL = "A-PV-RAIL"
    MOUNT = "A-PV-MNT"
    DIMENSION = "A-ANNO-DIMS"
    SETBACK = "A-ANNO-SETB"
    HATCH = "A-ANNO-SETB-PATT"
    LOT = "C-PROP"
    CLOUD = "G-ANNO-REVC"
    FRAME = "G-FRAM"
    TABLE = "G-TABL"


@dataclass(frozen=True, slots=True)
class Line:
    """Straight pieces through points; ``closed`` joins the last to the first.

    ``hue``: one of the strings' colours by number from 1; 0 for its layer's.
    """

    layer: Layer
    points: tuple[Point, ...]
    part: str = ""
    net: str = ""
    dashed: bool = False
    closed: bool = False
    hue: int = 0


@dataclass(frozen=True, slots=True)
class Circle:
    """A circle; ``filled`` for a dot."""

    layer: Layer
    centre: Point
    radius: float
    part: str = ""
    filled: bool = False


@dataclass(frozen=True, slots=True)
class Arc:
    """A piece of a circle, clockwise on paper from one angle to another, degrees from the right."""

    layer: Layer
    centre: Point
    radius: float
    from_deg: float
    to_deg: float
    part: str = ""
    net: str = ""


@dataclass(frozen=True, slots=True)
class Text:
    """A line of words; ``at`` is on its base line, ``size`` that of the font, millimetres."""

    at: Point
    words: str
    size: float = 2.6
    anchor: Anchor = "start"
    part: str = ""
    bold: bool = False
    layer: Layer = Layer.TEXT


Item = Line | Circle | Arc | Text


@dataclass(frozen=True, slots=True)
class Scene:
    """A sheet of paper with its items; ``frame`` is left, top, right, bottom of what may be drawn on."""

    title: str
    width: float
    height: float
    frame: tuple[float, float, float, float]
    items: tuple[Item, ...]


def along(arc: Arc, steps: int) -> list[Point]:
    """Return points along an arc, so many steps apart."""
    turn, (x, y), r = arc.to_deg - arc.from_deg, arc.centre, arc.radius
    angles = [math.radians(arc.from_deg + turn * n / steps) for n in range(steps + 1)]
    return [(x + r * math.cos(a), y + r * math.sin(a)) for a in angles]


Box = tuple[float, float, float, float]


def item_box(item: Item) -> Box:
    """Return left, top, right, bottom of an item, mm; of an arc those of its whole circle."""
    if isinstance(item, Text):
        return text_box(item)
    if isinstance(item, Circle | Arc):
        (x, y), r = item.centre, item.radius
        return x - r, y - r, x + r, y + r
    xs, ys = zip(*item.points, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def lies_in(box: Box, area: Box, give: float) -> bool:
    """Whether a box lies in an area, or over its edge by no more than ``give``, mm."""
    return (
        box[0] >= area[0] - give
        and box[1] >= area[1] - give
        and box[2] <= area[2] + give
        and box[3] <= area[3] + give
    )


def boxes_meet(a: Box, b: Box, apart: float = 0.0) -> bool:
    """Whether two boxes overlap, or lie nearer to each other than ``apart``, mm."""
    return (
        a[0] - apart < b[2] and b[0] - apart < a[2] and a[1] - apart < b[3] and b[1] - apart < a[3]
    )


def text_width(text: Text) -> float:
    """Return about how wide a text is, mm."""
    wide = CHAR_FRAC * (1.06 if text.bold else 1.0)
    return len(text.words) * text.size * wide


def text_box(text: Text) -> tuple[float, float, float, float]:
    """Return left, top, right, bottom of a text, mm."""
    x, y = text.at
    width = text_width(text)
    left = {"start": x, "middle": x - width / 2, "end": x - width}[text.anchor]
    return left, y - text.size * CAP_FRAC, left + width, y + text.size * 0.18
