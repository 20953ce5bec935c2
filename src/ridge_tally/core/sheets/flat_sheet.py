"""A plan drawn to the largest usual scale on a sheet: what is told stands where nothing else is."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shapely import LineString, MultiLineString, Polygon, box, get_parts, unary_union

from ridge_tally.core.array.strips import Patch
from ridge_tally.core.sheets.flat_plan import Flat, FlatPlan, Gear, Note, Running, Side
from ridge_tally.core.sheets.flow import BODY
from ridge_tally.core.sheets.paper import Box
from ridge_tally.core.sheets.scale import Scale, largest, scale_bar
from ridge_tally.core.sheets.scene import (
    CAP_FRAC,
    Anchor,
    Circle,
    Item,
    Layer,
    Line,
    Point,
    Text,
    boxes_meet,
    item_box,
    text_box,
)
from ridge_tally.core.sheets.scene_lint import crosses_box, segments
from ridge_tally.core.units import LengthUnit

# What figures take round the plan, the bar and the running lengths below it, mm.
ROUND_MM, TOP_MM, FOOT_MM = 16.0, 10.0, 13.0
RUNNING_LEFT_MM, RUNNING_FOOT_MM = 28.0, 26.0
SMALL = 2.3
BUBBLE_MM, SPOT_MM = 2.6, 0.7
# How far off its place a letter may stand.
REACHES_MM = (7.0, 10.0, 14.0, 19.0, 25.0, 32.0)
HATCH_MM, TICK_MM = 2.4, 0.9


@dataclass(frozen=True, slots=True)
class FlatDrawing:
    """The items of a plan and the scale they came out at."""

    items: tuple[Item, ...]
    scale: Scale


def draw_flat(plan: FlatPlan, area: Box, unit: LengthUnit) -> FlatDrawing:
    """Return a plan to the largest usual scale in an area, with its bar and where north is."""
    paper = _Paper(plan, area, unit)
    for shape in plan.shapes:
        if len(shape.ring) > 1:
            paper.items.append(
                Line(shape.layer, tuple(map(paper.at, shape.ring)), shape.part,
                     closed=shape.closed, dashed=shape.dashed, hue=shape.hue)
            )  # fmt: skip
    for spot in plan.spots:
        paper.items.append(Circle(spot.layer, paper.at(spot.at), SPOT_MM, spot.part, filled=True))
    for patch in plan.patches:
        for way in patch.inner:
            paper.items.append(Line(Layer.SETBACK, tuple(map(paper.at, way)), "strip"))
    paper.compass(plan.north_deg, (area[2] - 9, area[1] + 9))
    for one in plan.gear:
        paper.gear(one)
    # What stands within its thing first; then what may move.
    for note in sorted(plan.notes, key=lambda n: n.beside):
        paper.note(note)
    for running in plan.runnings:
        paper.running(running)
    for side in plan.sides:
        paper.side(side)
    hatches = paper.hatched(plan.patches)
    bar = scale_bar(paper.scale, unit, area[0] + 4, area[3] - 1)
    return FlatDrawing((*hatches, *paper.items, *bar), paper.scale)


class _Paper:
    """Metres on paper, y downwards; and what stands there, so that the next word stands free."""

    def __init__(self, plan: FlatPlan, area: Box, unit: LengthUnit) -> None:
        points = [p for s in plan.shapes for p in s.ring] + [g.at for g in plan.gear]
        xs, ys = [p[0] for p in points] or [0.0, 1.0], [p[1] for p in points] or [0.0, 1.0]
        self.left_m, self.right_m, self.low_m, self.high_m = min(xs), max(xs), min(ys), max(ys)
        up = any(not r.along_x for r in plan.runnings)
        along = any(r.along_x for r in plan.runnings)
        inner = (
            area[0] + (RUNNING_LEFT_MM if up else ROUND_MM),
            area[1] + TOP_MM,
            area[2] - ROUND_MM,
            area[3] - (RUNNING_FOOT_MM if along else FOOT_MM),
        )
        wide_m, high_m = self.right_m - self.left_m, self.high_m - self.low_m
        self.area = area
        self.scale = largest(wide_m, high_m, inner, unit)
        k = self.scale.mm_per_m
        self.x0 = (inner[0] + inner[2] - wide_m * k) / 2 - self.left_m * k
        self.y0 = (inner[1] + inner[3] + high_m * k) / 2 + self.low_m * k
        self.items: list[Item] = []
        self.boxes: list[Box] = []

    def at(self, place: Flat) -> Point:
        return self.x0 + place[0] * self.scale.mm_per_m, self.y0 - place[1] * self.scale.mm_per_m

    def _tell(
        self, spots: Sequence[Point], words: str, anchor: Anchor, size: float, part: str,
        *, bold: bool = False, layer: Layer = Layer.TEXT,
    ) -> bool:  # fmt: skip
        """Set words at the first spot where they lie on nothing; leave them where there is none."""
        for spot in spots:
            text = Text(spot, words, size, anchor, part, bold, layer)
            place = text_box(text)
            if self._free(place):
                self.items.append(text)
                self.boxes.append(place)
                return True
        return False

    def _free(self, place: Box) -> bool:
        left, top, right, bottom = self.area
        if place[0] < left or place[1] < top or place[2] > right or place[3] > bottom - 6:
            return False
        if any(boxes_meet(place, b) for b in self.boxes):
            return False
        for item in self.items:
            if isinstance(item, Line):
                if any(crosses_box(a, b, place) for a, b in segments(item)):
                    return False
            elif isinstance(item, Circle) and boxes_meet(place, item_box(item), 0.2):
                return False
        return True

    def note(self, note: Note) -> None:
        left, bottom, right, top = note.box
        (x0, y0), (x1, y1) = self.at((left, top)), self.at((right, bottom))
        x, y = (x0 + x1) / 2, (y0 + y1) / 2
        centre = [(x, y + 0.8), (x, y + 3.6), (x, y - 2.2)]
        if not note.beside:
            # The way of a string takes a module's middle: its number keeps to the left.
            aside = x0 + 0.34 * (x1 - x0)
            spots = [*centre, (aside, y + 3.4), (aside, y - 1.4), (aside, y + 0.8)]
            self._tell(spots, note.words, "middle", SMALL, note.part, bold=note.bold)
            return
        half = len(note.words) * 0.6
        spots = [
            centre[0], (x, y1 + 2.6), (x, y0 - 0.8), (x1 + 1 + half, y + 0.8), (x0 - 1 - half, y + 0.8),
            (x1 + half, y1 + 2.6), (x0 - half, y1 + 2.6), (x1 + half, y0 - 0.8), (x0 - half, y0 - 0.8),
            (x, y1 + 5.4), (x, y0 - 3.6),
        ]  # fmt: skip
        self._tell(spots, note.words, "middle", SMALL, note.part, layer=note.layer)

    def side(self, side: Side) -> None:
        a, b = side.begin, side.end
        x, y = self.at(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2))
        mid_x, mid_y = (self.left_m + self.right_m) / 2, (self.low_m + self.high_m) / 2
        right, up = (a[0] + b[0]) / 2 >= mid_x, (a[1] + b[1]) / 2 >= mid_y
        told = f"{side.name} {side.words}".strip()
        if abs(a[1] - b[1]) > abs(a[0] - b[0]):
            anchor: Anchor = "start" if right else "end"
            off = 2.0 if right else -2.0
            slides = [0.8, *(0.8 + s * d for d in (4, 8, 12, 16, 24) for s in (1, -1))]
            spots = [(x + off * k, y + j) for k in (1, 2, 4, 7) for j in slides]
            self._tell(spots, told, anchor, BODY, "")
            return
        off = -1.4 if up else 1.4 + BODY * CAP_FRAC
        step = -3.2 if up else 3.2
        spots = [(x + i, y + off + step * k) for k in (0, 1, 2, 5) for i in (0, 12, -12, 24, -24)]
        self._tell(spots, told, "middle", BODY, "")

    def running(self, running: Running) -> None:
        """Draw a line beside the plan with a tick at each mark and the length from the datum at it."""
        level = (
            self.at((0, self.low_m))[1] + 7.5 if running.along_x
            else self.at((self.left_m, 0))[0] - 5.0
        )  # fmt: skip
        marks = [
            self.at((m, 0))[0] if running.along_x else self.at((0, m))[1] for m in running.marks_m
        ]
        turned = (lambda p: p) if running.along_x else (lambda p: (p[1], p[0]))
        layer = Layer.DIMENSION
        self.items.append(
            Line(layer, (turned((marks[0], level)), turned((marks[-1], level))), "running")
        )
        last: list[float] = []
        for mark, words in zip(marks, running.words, strict=True):
            x, y = turned((mark, level))
            self.items.append(
                Line(layer, ((x - TICK_MM, y + TICK_MM), (x + TICK_MM, y - TICK_MM)), "running")
            )
            if running.along_x:
                below = [(x, y + 1.6 + SMALL * CAP_FRAC + 2.9 * k) for k in range(4)]
                self._tell(below, words, "middle", SMALL, "running", layer=layer)
                continue
            # Upwards the next is as near as two lines of words; what is nearer moves on.
            free = min([y + 0.8, *(at - 2.8 for at in last[-1:])])
            last.append(free)
            self._tell([(x - 1.8, free)], words, "end", SMALL, "running", layer=layer)

    def compass(self, north_deg: float, at: Point) -> None:
        """Draw where north is, its letter beyond the tip."""
        turn = math.radians(north_deg)
        ahead, across = (math.sin(turn), -math.cos(turn)), (math.cos(turn), math.sin(turn))

        def point(along: float, aside: float) -> Point:
            return (
                at[0] + along * ahead[0] + aside * across[0],
                at[1] + along * ahead[1] + aside * across[1],
            )

        tip = point(5, 0)
        self.items += [
            Line(Layer.SYMBOL, (point(-5, 0), tip)),
            Line(Layer.SYMBOL, (point(1.6, -1.8), tip, point(1.6, 1.8))),
        ]
        x, y = point(7.4, 0)
        text = Text((x, y + 1.1), "N", 3.2, "middle", bold=True)
        self.items.append(text)
        self.boxes.append(text_box(text))

    def gear(self, one: Gear) -> None:
        """Draw a letter in a bubble, as near to its place as it lies on nothing, with a line to it."""
        at = self.at(one.at)
        spots = [
            (at[0] + reach * math.cos(turn), at[1] + reach * math.sin(turn))
            for reach in REACHES_MM
            for turn in (math.radians(45 * n) for n in range(8))
        ]
        x, y = next((s for s in spots if self._bubble_free(s)), spots[0])
        part, reach = one.part or "gear", math.hypot(x - at[0], y - at[1])
        edge = (x - (x - at[0]) * BUBBLE_MM / reach, y - (y - at[1]) * BUBBLE_MM / reach)
        text = Text((x, y + 0.9), one.letter, BODY, "middle", part, bold=True)
        self.items += [
            Circle(Layer.EQUIPMENT, at, 0.6, part, filled=True),
            Line(Layer.DIMENSION, (at, edge), part),
            Circle(Layer.EQUIPMENT, (x, y), BUBBLE_MM, part),
            text,
        ]
        self.boxes.append(text_box(text))

    def _bubble_free(self, at: Point) -> bool:
        r = BUBBLE_MM + 0.4
        return self._free((at[0] - r, at[1] - r, at[0] + r, at[1] + r)) and not any(
            isinstance(i, Circle) and math.dist(i.centre, at) < r + i.radius for i in self.items
        )

    def hatched(self, patches: Sequence[Patch]) -> list[Item]:
        """Return the slanted lines of patches, cut out round every word."""
        words = unary_union(
            [box(b[0] - 0.6, b[1] - 0.6, b[2] + 0.6, b[3] + 0.6) for b in self.boxes]
        )
        found: list[Item] = []
        for patch in patches:
            piece = Polygon(
                [self.at(p) for p in patch.outer], [[self.at(p) for p in h] for h in patch.holes]
            )
            left, top, right, bottom = piece.bounds
            begin = math.floor((left + top) / HATCH_MM) * HATCH_MM
            count = int((right + bottom - begin) / HATCH_MM) + 1
            lines = MultiLineString([
                ((begin + n * HATCH_MM - top, top), (begin + n * HATCH_MM - bottom, bottom))
                for n in range(count)
            ])  # fmt: skip
            for line in get_parts(lines.intersection(piece.difference(words))):
                if isinstance(line, LineString) and line.length > 0.3:
                    a, b = line.coords
                    found.append(Line(Layer.HATCH, (a, b), "strip"))
        return found
