"""A plane drawn to scale for a sheet: outline with its lengths, what stands on it, modules or strings."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.array import PlaneArray, present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.sheets.flow import BODY
from ridge_tally.core.sheets.paper import Box
from ridge_tally.core.sheets.plan_drawing import Thread
from ridge_tally.core.sheets.scale import Scale, largest, scale_bar
from ridge_tally.core.sheets.scene import CAP_FRAC, Anchor, Item, Layer, Line, Point, Text, text_box
from ridge_tally.core.sheets.scene_lint import crosses_box, segments
from ridge_tally.core.survey.outline import Box as PlaneBox
from ridge_tally.core.survey.outline import corners_m, obstruction_box
from ridge_tally.core.units import LengthUnit, format_length

# What figures and the bar take of the box round the plane, mm.
ROUND_MM, FOOT_MM = 14.5, 9.0


@dataclass(frozen=True, slots=True)
class PlaneDrawing:
    """The items of a plane's drawing and the scale it came out at."""

    items: tuple[Item, ...]
    scale: Scale


class _Paper:
    """Plane metres on paper, y downwards; and the texts there are, so that the next stands free."""

    def __init__(self, plane: RoofPlane, box: Box, unit: LengthUnit) -> None:
        corners = corners_m(plane)
        (left, bottom), (right, top) = corners.min(axis=0), corners.max(axis=0)
        inner = (box[0] + ROUND_MM, box[1] + 6, box[2] - ROUND_MM, box[3] - FOOT_MM - 6)
        self.unit = unit
        self.scale = largest(float(right - left), float(top - bottom), inner, unit)
        k = self.scale.mm_per_m
        wide, high = float(right - left) * k, float(top - bottom) * k
        self.x0 = (inner[0] + inner[2] - wide) / 2 - float(left) * k
        self.y0 = (inner[1] + inner[3] + high) / 2 + float(bottom) * k
        self.items: list[Item] = []
        self.boxes: list[Box] = []

    def at(self, x_m: float, y_m: float) -> Point:
        return self.x0 + x_m * self.scale.mm_per_m, self.y0 - y_m * self.scale.mm_per_m

    def rect(self, layer: Layer, box: Box, part: str = "", *, dashed: bool = False) -> None:
        left, bottom, right, top = box
        ring = tuple(
            self.at(*p) for p in ((left, bottom), (right, bottom), (right, top), (left, top))
        )
        self.items.append(Line(layer, ring, part, closed=True, dashed=dashed))

    def tell(self, spots: Sequence[Point], words: str, anchor: Anchor = "middle", size: float = 2.3, part: str = "") -> None:  # fmt: skip
        """Set words at the first spot where they lie on no others and on no line; else leave them."""
        for spot in spots:
            text = Text(spot, words, size, anchor, part)
            box = text_box(text)
            if self._free(box):
                self.items.append(text)
                self.boxes.append(box)
                return

    def _free(self, box: Box) -> bool:
        if any(
            box[0] < b[2] and b[0] < box[2] and box[1] < b[3] and b[1] < box[3] for b in self.boxes
        ):
            return False
        return not any(
            crosses_box(a, b, box)
            for item in self.items
            if isinstance(item, Line)
            for a, b in segments(item)
        )


def draw_plane(
    plane: RoofPlane,
    array: PlaneArray | None,
    module: ModuleSheet,
    threads: Sequence[Thread],
    box: Box,
    unit: LengthUnit,
) -> PlaneDrawing:
    """Return a plane to the largest usual scale in a box.

    Parameters
    ----------
    threads : sequence of Thread
        Strings or branches; without any the modules bear their numbers.
    """
    paper = _Paper(plane, box, unit)
    corners = corners_m(plane)
    ring = tuple(paper.at(float(x), float(y)) for x, y in corners)
    paper.items.append(Line(Layer.ROOF, ring, f"plane {plane.id}", closed=True))
    for thing in plane.obstructions:
        b = obstruction_box(plane, thing)
        paper.rect(
            Layer.OBSTACLE, (b.left_m, b.bottom_m, b.right_m, b.top_m), f"obstruction {thing.id}"
        )
    if array is not None:
        _modules(paper, array, module, threads)
    for thing in plane.obstructions:
        b = obstruction_box(plane, thing)
        (left, top), (right, bottom) = paper.at(b.left_m, b.top_m), paper.at(b.right_m, b.bottom_m)
        middle, name = (left + right) / 2, thing.kind.value.replace("-", " ")
        spots = (
            (middle, (top + bottom) / 2 + 0.8), (middle, bottom + 2.6), (middle, top - 0.8),
            (right + 1.0 + len(name) * 0.6, (top + bottom) / 2),
        )  # fmt: skip
        paper.tell(spots, name, part=f"obstruction {thing.id}")
    _sides(paper, corners, plane)
    items = [*paper.items, *scale_bar(paper.scale, unit, box[0] + 4, box[3] - 1)]
    return PlaneDrawing(tuple(items), paper.scale)


def _sides(paper: _Paper, corners: object, plane: RoofPlane) -> None:
    """Set the length of each side outside it."""
    points = [(float(x), float(y)) for x, y in corners]  # type: ignore[attr-defined]
    middle_x = sum(x for x, _ in points) / len(points)
    middle_y = sum(y for _, y in points) / len(points)
    for n, (a, b) in enumerate(zip(points, [*points[1:], points[0]], strict=True)):
        length_m = ((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5
        x, y = paper.at((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        right, up = (a[0] + b[0]) / 2 >= middle_x, (a[1] + b[1]) / 2 >= middle_y
        steep = abs(a[1] - b[1]) > abs(a[0] - b[0])
        told = f"{plane.outline.edges[n].value} {format_length(length_m, paper.unit)}"
        if steep:
            anchor: Anchor = "start" if right else "end"
            off = 2.0 if right else -2.0
            spots = tuple((x + off * k, y + j) for k in (1, 2, 4) for j in (0.8, 4, -4, 8, -8))
            paper.tell(spots, told, anchor, BODY)
        else:
            off = -1.4 if up else 1.4 + BODY * CAP_FRAC
            step = -3.2 if up else 3.2
            spots = tuple((x + i, y + off + step * k) for k in (0, 1, 2) for i in (0, 12, -12))
            paper.tell(spots, told, "middle", BODY)


def _modules(
    paper: _Paper, array: PlaneArray, module: ModuleSheet, threads: Sequence[Thread]
) -> None:
    there = present_of(array)
    boxes = {}
    for m in there:
        wide_m, high_m = module_footprint_m(module, m.orientation, array.leg_tilt_deg)
        boxes[m.id] = PlaneBox(m.x_m, m.y_m, m.x_m + wide_m, m.y_m + high_m)
    for m in there:
        b = boxes[m.id]
        paper.rect(Layer.MODULE, (b.left_m, b.bottom_m, b.right_m, b.top_m), f"module {m.id}")
    if not threads:
        for n, m in enumerate(there, start=1):
            b = boxes[m.id]
            x, y = paper.at((b.left_m + b.right_m) / 2, (b.bottom_m + b.top_m) / 2)
            paper.tell(((x, y + 0.8),), str(n), part=f"module {m.id}")
        return
    for thread in threads:
        mine = [(label, boxes[m]) for m, label in thread.modules if m in boxes]
        low = [
            paper.at(b.left_m + 0.7 * (b.right_m - b.left_m), (b.bottom_m + b.top_m) / 2)
            for _, b in mine
        ]
        # Level and upright, as it runs along rows; slanting it would run over numbers.
        way = [low[0]] if low else []
        for (x, _), to in pairwise(low):
            way += [(x, to[1]), to]
        # The way of the string keeps to the right of each module, its number to the left.
        for label, b in mine:
            x, y = paper.at(b.left_m + 0.34 * (b.right_m - b.left_m), (b.bottom_m + b.top_m) / 2)
            paper.items.append(Text((x, y + 3.4), label, 2.3, "middle", bold=True))
        if len(low) > 1:
            dashed = thread.number % 2 == 1
            paper.items.append(
                Line(
                    Layer.STRING,
                    tuple(way),
                    f"string {mine[0][0][0]}",
                    dashed=dashed,
                    hue=thread.number + 1,
                )
            )
