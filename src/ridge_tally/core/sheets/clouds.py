"""What of a sheet is new against an earlier issue of it, and the clouds drawn round that."""

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from ridge_tally.core.sheets.scene import (
    Arc,
    Box,
    Circle,
    Item,
    Layer,
    Line,
    Point,
    Scene,
    Text,
    boxes_meet,
    item_box,
    lies_in,
)

# A cloud's arcs, how far it stands off what it is round, and what is nearer than this shares one, mm.
ARC_MM, OFF_MM, NEAR_MM = 4.0, 1.5, 6.0
# What reaches over the edge of a sheet’s free area by less than this belongs to it, mm.
EDGE_MM = 1.0
# What moved by less than this on paper stayed where it was, mm.
SAME_MM = 0.5
# Ruled by tables and frames: their rows tell what changed.
_RULED = frozenset({Layer.TABLE, Layer.FRAME, Layer.HATCH, Layer.CLOUD})


@dataclass(frozen=True, slots=True)
class SheetMarks:
    """What stood on an issued sheet: its words, and what was drawn by layer and place."""

    words: tuple[str, ...]
    drawn: tuple[str, ...]


def marks_of(scene: Scene, area: Box) -> SheetMarks:
    """Return what a sheet holds inside an area, as it is compared with a later one."""
    within = [i for i in scene.items if lies_in(item_box(i), area, EDGE_MM)]
    return SheetMarks(
        tuple(i.words for i in within if isinstance(i, Text)),
        tuple(_key(i) for i in within if not isinstance(i, Text) and i.layer not in _RULED),
    )


def changed_boxes(scene: Scene, area: Box, words: Counter[str], drawn: Counter[str]) -> list[Box]:
    """Return boxes round what stands on a sheet and did not before, or was drawn elsewhere, merged.

    What was taken away from a table leaves no box: the list of changes tells it.

    Parameters
    ----------
    words, drawn : Counter of str
        What stood there; what is found again is taken out, so that a table's pages share the words
        of all of them.
    """
    boxes = []
    for item in scene.items:
        box = item_box(item)
        if not lies_in(box, area, EDGE_MM):
            continue
        if isinstance(item, Text):
            seen, key = words, item.words
        elif item.layer in _RULED:
            continue
        else:
            seen, key = drawn, _key(item)
        if seen[key] > 0:
            seen[key] -= 1
        else:
            boxes.append(box)
    # Lines that are gone leave their place: nobody would see that something was there.
    boxes += [_place(key) for key, left in drawn.items() if left > 0]
    return merged(boxes)


def merged(boxes: Iterable[Box]) -> list[Box]:
    """Return boxes with those that are near each other made one."""
    found: list[Box] = []
    for box in boxes:
        one = box
        while True:
            near = next((b for b in found if boxes_meet(one, b, NEAR_MM)), None)
            if near is None:
                break
            found.remove(near)
            one = (
                min(one[0], near[0]),
                min(one[1], near[1]),
                max(one[2], near[2]),
                max(one[3], near[3]),
            )
        found.append(one)
    return found


def clouds(boxes: Sequence[Box], number: int, frame: Box) -> list[Item]:
    """Return a cloud round each box, with the number of the coming issue in a triangle at its corner."""
    items: list[Item] = []
    room = ARC_MM / 2 + 0.5
    for box in boxes:
        left, top = max(box[0] - OFF_MM, frame[0] + room), max(box[1] - OFF_MM, frame[1] + room)
        right, bottom = min(box[2] + OFF_MM, frame[2] - room), min(box[3] + OFF_MM, frame[3] - room)
        corners = ((left, top), (right, top), (right, bottom), (left, bottom), (left, top))
        for a, b in pairwise(corners):
            items += _arcs(a, b)
        x, y = min(right + 4.5, frame[2] - 3.5), max(top - 2.5, frame[1] + 4.5)
        items += [
            Line(Layer.CLOUD, ((x - 2.8, y + 1.8), (x + 2.8, y + 1.8), (x, y - 3)), closed=True),
            Text((x, y + 1.1), str(number), 2.5, "middle", bold=True, layer=Layer.CLOUD),
        ]
    return items


def _arcs(a: Point, b: Point) -> list[Item]:
    """Return arcs from one corner to the next, bulging outwards: clockwise on paper."""
    long = math.dist(a, b)
    count = max(1, round(long / ARC_MM))
    radius = max(long / count / 2, 0.2)
    turn = math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]))
    steps = [(n + 0.5) / count for n in range(count)]
    return [
        Arc(Layer.CLOUD, (a[0] + (b[0] - a[0]) * s, a[1] + (b[1] - a[1]) * s), radius,
            turn + 180, turn + 360)
        for s in steps
    ]  # fmt: skip


def _key(item: Item) -> str:
    """Return a drawn thing by its layer, its look and where it lies, to half a millimetre."""
    if isinstance(item, Line):
        points, more = item.points, f"{item.dashed:d}{item.hue}"
    elif isinstance(item, Circle | Arc):
        points, more = (item.centre,), f"{item.radius:.1f}"
    else:
        points, more = (item.at,), item.words
    places = " ".join(f"{round(x / SAME_MM)},{round(y / SAME_MM)}" for x, y in points)
    box = " ".join(f"{v:.1f}" for v in item_box(item))
    return f"{item.layer.value}|{more}|{places}|{box}"


def _place(key: str) -> Box:
    left, top, right, bottom = (float(v) for v in key.rsplit("|", 1)[1].split(" "))
    return left, top, right, bottom
