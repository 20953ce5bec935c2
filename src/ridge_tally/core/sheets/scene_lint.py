"""What is wrong with a drawing: texts over texts and lines, crossings without a hop, things off the sheet."""

import math
from dataclasses import dataclass
from itertools import combinations, pairwise

from ridge_tally.core.sheets.scene import (
    Arc,
    Box,
    Circle,
    Item,
    Line,
    Point,
    Scene,
    Text,
    along,
    boxes_meet,
    item_box,
    lies_in,
    text_box,
)

# What touches by less is not seen.
SEEN_MM = 0.15
# Points along an arc are near enough to each other for a letter to be hit.
ARC_STEPS = 12


@dataclass(frozen=True, slots=True)
class Hit:
    """A fault with what it is between, and where, millimetres from the upper left corner."""

    kind: str
    told: str
    at: Point


def lint(scene: Scene) -> tuple[Hit, ...]:
    """Return the faults of a drawing; a drawing with one is not issued."""
    texts = [i for i in scene.items if isinstance(i, Text)]
    lines = [i for i in scene.items if isinstance(i, Line)]
    rounds = [i for i in scene.items if isinstance(i, Circle | Arc)]
    return (
        *_off_frame(scene),
        *_text_over_text(texts),
        *_text_over_line(texts, lines),
        *_text_over_round(texts, rounds),
        *_crossings(lines),
        *_slanted(lines),
        *_through_rounds(lines, rounds),
    )


def _off_frame(scene: Scene) -> list[Hit]:
    found = []
    for item in scene.items:
        box = item_box(item)
        if not lies_in(box, scene.frame, SEEN_MM):
            found.append(Hit("off the frame", _named(item), (box[0], box[1])))
    return found


def _named(item: Item) -> str:
    if isinstance(item, Text):
        return item.words
    if isinstance(item, Line):
        return item.part or item.net or "a line"
    return item.part or "a circle"


def _text_over_text(texts: list[Text]) -> list[Hit]:
    boxed = [(t, text_box(t)) for t in texts]
    return [
        Hit("text over text", f"“{a.words}” and “{b.words}”", a.at)
        for (a, box_a), (b, box_b) in combinations(boxed, 2)
        if boxes_meet(box_a, box_b, -SEEN_MM)
    ]


def segments(line: Line) -> list[tuple[Point, Point]]:
    """Return the straight pieces of a line."""
    points = (*line.points, line.points[0]) if line.closed else line.points
    return list(pairwise(points))


def crosses_box(a: Point, b: Point, box: Box) -> bool:
    """Whether a straight piece runs through a box (Liang and Barsky's clipping)."""
    left, top, right, bottom = (
        box[0] + SEEN_MM,
        box[1] + SEEN_MM,
        box[2] - SEEN_MM,
        box[3] - SEEN_MM,
    )
    if left >= right or top >= bottom:
        return False
    dx, dy = b[0] - a[0], b[1] - a[1]
    low, high = 0.0, 1.0
    for p, q in (
        (-dx, a[0] - left), (dx, right - a[0]), (-dy, a[1] - top), (dy, bottom - a[1]),
    ):  # fmt: skip
        if p == 0:
            if q < 0:
                return False
            continue
        t = q / p
        low, high = (max(low, t), high) if p < 0 else (low, min(high, t))
        if low > high:
            return False
    return True


def _text_over_line(texts: list[Text], lines: list[Line]) -> list[Hit]:
    pieces = [(line, s) for line in lines for s in segments(line)]
    return [
        Hit("text over line", f"“{t.words}” and {line.part or line.net or 'a line'}", t.at)
        for t, box in [(t, text_box(t)) for t in texts]
        for line, (a, b) in pieces
        if crosses_box(a, b, box)
    ]


def _text_over_round(texts: list[Text], rounds: list[Circle | Arc]) -> list[Hit]:
    found = []
    for text in texts:
        box = text_box(text)
        for item in rounds:
            (x, y), r = item.centre, item.radius
            if isinstance(item, Arc):
                if any(_within(p, box) for p in along(item, ARC_STEPS)):
                    found.append(Hit("text over arc", f"“{text.words}”", text.at))
                continue
            near = math.hypot(x - min(max(x, box[0]), box[2]), y - min(max(y, box[1]), box[3]))
            far = max(math.hypot(x - cx, y - cy) for cx in box[::2] for cy in box[1::2])
            # Within a circle, as a bubble's letter is, is not over it.
            if near < r - SEEN_MM and far > r + SEEN_MM:
                found.append(Hit("text over arc", f"“{text.words}”", text.at))
    return found


def _within(point: Point, box: Box) -> bool:
    return box[0] < point[0] < box[2] and box[1] < point[1] < box[3]


def _crossings(lines: list[Line]) -> list[Hit]:
    """Two conductors that cross where neither ends: without a hop they look joined."""
    nets = [(line, s) for line in lines if line.net for s in segments(line)]
    return [
        Hit("crossing without a hop", f"{a.net} and {b.net}", p)
        for (a, s), (b, t) in combinations(nets, 2)
        if a.net != b.net and (p := _meet(s, t)) is not None
    ]


def _meet(s: tuple[Point, Point], t: tuple[Point, Point]) -> Point | None:
    (ax, ay), (bx, by) = s
    (cx, cy), (dx, dy) = t
    det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
    if abs(det) < 1e-12:
        return None
    u = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det
    v = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / det
    inner = 0.01
    if inner < u < 1 - inner and inner < v < 1 - inner:
        return ax + u * (bx - ax), ay + u * (by - ay)
    return None


def _slanted(lines: list[Line]) -> list[Hit]:
    return [
        Hit("a conductor aslant", line.net, a)
        for line in lines
        if line.net
        for a, b in segments(line)
        if abs(a[0] - b[0]) > SEEN_MM and abs(a[1] - b[1]) > SEEN_MM
    ]


def _through_rounds(lines: list[Line], rounds: list[Circle | Arc]) -> list[Hit]:
    """A conductor through a bubble hides its letter."""
    bubbles = [r for r in rounds if isinstance(r, Circle) and not r.filled]
    found = []
    for line in lines:
        if not line.net:
            continue
        for a, b in segments(line):
            for bubble in bubbles:
                x, y = bubble.centre
                inner = bubble.radius * 0.7
                if crosses_box(a, b, (x - inner, y - inner, x + inner, y + inner)):
                    found.append(Hit("a conductor through a circle", line.net, bubble.centre))
    return found
