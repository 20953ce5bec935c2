"""The plan of one roof plane as SVG: outline by edge kind, dimensions, modules, threads.

Drawn in millimetres of paper; y up the slope becomes y down the page.  Words find a place of
their own: a figure that would lie on another moves along its line or off it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape
from itertools import pairwise

import numpy as np

from ridge_tally.core.array.posts import END_SPANS, Post
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.array import PlaneArray
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.survey import ROUND_KINDS, EdgeKind, RoofPlane
from ridge_tally.core.survey.outline import corners_m, obstruction_box
from ridge_tally.core.units import LengthUnit, format_length

INK, COPPER, PALE = "#1d2b2c", "#8f4a1b", "#dfe7e6"
THREADS = (
    ("#1f6f63", ""),
    ("#8f4a1b", "2 1"),
    ("#5a4a8a", "0.6 0.8"),
    ("#7d5200", "3 0.8 0.6 0.8"),
)
MARGIN_MM, OFF_MM = 14.0, 8.0
# Heights of words, and how wide a character is in them, near enough to keep words apart.
FIGURE_MM, TAG_MM, NAME_MM, WIDE = 3.6, 2.3, 2.6, 0.5
# How far outside its edge a figure may stand, the usual place first; inside where nothing else is left.
OFFS_MM = (OFF_MM, 4.0, 12.0)
# Over the roof itself, where there is no room beside it.
INSIDE_OFFS_MM = (-3.5,)
# Between a figure and the words beside it.
CLEAR_MM = 0.6
# How broad a side is drawn at most.
EDGE_MM = 0.9
# Where along its line, from the middle.
ALONG_FRAC = (0.0, -0.25, 0.25, -0.4, 0.4)
# Stroke, width in mm and dash of each kind of edge.
EDGE_STROKES = {
    EdgeKind.EAVE: (INK, 0.35, ""),
    EdgeKind.RAKE: (INK, 0.35, ""),
    EdgeKind.RIDGE: (COPPER, 0.9, ""),
    EdgeKind.HIP: (INK, 0.45, "2.4 1.2"),
    EdgeKind.VALLEY: (INK, 0.45, "0.4 1"),
    EdgeKind.WALL: (INK, 0.8, ""),
    EdgeKind.BOUNDARY: (INK, 0.35, "3 1 0.6 1"),
}


@dataclass(frozen=True, slots=True)
class Thread:
    """What is wired one after another: each module with its label, and which hue and dash it has."""

    number: int
    modules: tuple[tuple[PlacedId, str], ...]


class _Words:
    """The boxes words stand in, so that the next finds a place of its own."""

    def __init__(self) -> None:
        self._boxes: list[tuple[float, float, float, float]] = []

    def is_free(self, x: float, y: float, wide: float, high: float, angle_deg: float = 0.0) -> bool:
        """Return whether words centred there would lie on no others."""
        left, top, right, bottom = self._box(x, y, wide, high, angle_deg)
        return all(
            right <= b[0] or left >= b[2] or bottom <= b[1] or top >= b[3] for b in self._boxes
        )

    def take(self, x: float, y: float, wide: float, high: float, angle_deg: float = 0.0) -> None:
        """Note that words stand there."""
        self._boxes.append(self._box(x, y, wide, high, angle_deg))

    @staticmethod
    def _box(
        x: float, y: float, wide: float, high: float, angle_deg: float
    ) -> tuple[float, float, float, float]:
        turn = np.radians(angle_deg)
        cos, sin = abs(float(np.cos(turn))), abs(float(np.sin(turn)))
        half_x, half_y = (wide * cos + high * sin) / 2, (wide * sin + high * cos) / 2
        return x - half_x, y - half_y, x + half_x, y + half_y


@dataclass(frozen=True, slots=True)
class Frame:
    """Maps plane metres to millimetres of paper."""

    mm_per_m: float
    left_m: float
    top_m: float

    def x(self, x_m: float) -> float:
        """Paper x, mm."""
        return MARGIN_MM + (x_m - self.left_m) * self.mm_per_m

    def y(self, y_m: float) -> float:
        """Paper y, mm, downwards."""
        return MARGIN_MM + (self.top_m - y_m) * self.mm_per_m


def plan_height_mm(plane: RoofPlane, width_mm: float) -> float:
    """Return how high a plan of that width is on paper, mm."""
    (low_x, low_y), (high_x, high_y) = _extent_m(plane)
    return 2 * MARGIN_MM + (high_y - low_y) * (width_mm - 2 * MARGIN_MM) / (high_x - low_x)


def _extent_m(plane: RoofPlane) -> tuple[tuple[float, float], tuple[float, float]]:
    corners = corners_m(plane)
    low, high = corners.min(axis=0), corners.max(axis=0)
    return (float(low[0]), float(low[1])), (float(high[0]), float(high[1]))


def plan_svg(
    plane: RoofPlane,
    array: PlaneArray | None,
    threads: Sequence[Thread],
    module: ModuleSheet,
    unit: LengthUnit,
    width_mm: float,
    posts: Sequence[Post] = (),
    fitted: frozenset[PlacedId] = frozenset(),
) -> str:
    """Return the plan as an SVG element `width_mm` wide, to scale.

    Parameters
    ----------
    plane, array, threads, module, posts
        What is drawn; without an array only the roof.  Posts with the lengths of each table's
        end ones.
    fitted : frozenset of PlacedId
        Modules with an optimizer of their own, marked at a corner.
    unit : LengthUnit
        Of the figures in the dimension lines.
    width_mm : float
        Paper width.
    """
    (left_m, _), (right_m, top_m) = _extent_m(plane)
    frame = Frame((width_mm - 2 * MARGIN_MM) / (right_m - left_m), left_m, top_m)
    height_mm = plan_height_mm(plane, width_mm)
    words = _Words()
    parts = _outline(frame, plane)
    if array is not None:
        parts += _modules(frame, array, module, fitted)
        parts += _threads(frame, array, threads, module, words)
        parts += _posts(frame, posts, unit, words)
    parts += _obstructions(frame, plane, words)
    parts += _dimensions(frame, plane, unit, words, height_mm - 0.6)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width_mm:.1f}mm" '
        f'height="{height_mm:.1f}mm" viewBox="0 0 {width_mm:.2f} {height_mm:.2f}" '
        f'font-family="Barlow Semi Condensed" fill="none">{"".join(parts)}</svg>'
    )


def _line(
    x1: float, y1: float, x2: float, y2: float, stroke: str, width: float, dash: str = ""
) -> str:
    dashed = f' stroke-dasharray="{dash}"' if dash else ""
    return (
        f'<line x1="{x1:.2f}" y1="{y1:.2f}" x2="{x2:.2f}" y2="{y2:.2f}" '
        f'stroke="{stroke}" stroke-width="{width}"{dashed}/>'
    )


def _outline(frame: Frame, plane: RoofPlane) -> list[str]:
    corners = corners_m(plane)
    parts = []
    for i, kind in enumerate(plane.outline.edges):
        (ax, ay), (bx, by) = corners[i], corners[(i + 1) % len(corners)]
        ends = (frame.x(ax), frame.y(ay), frame.x(bx), frame.y(by))
        stroke, width, dash = EDGE_STROKES[kind]
        parts.append(_line(*ends, stroke, width, dash))
        if kind is EdgeKind.EAVE:
            parts.append(_line(ends[0], ends[1] + 0.8, ends[2], ends[3] + 0.8, INK, 0.35))
    return parts


def _dimensions(
    frame: Frame, plane: RoofPlane, unit: LengthUnit, words: _Words, foot_mm: float
) -> list[str]:
    """Return every side's length, standing off outside the outline; the longest choose first.

    A side with no room for its figure has a letter, and the figure stands at the foot.
    """
    corners = corners_m(plane)
    paper = [(frame.x(x), frame.y(y)) for x, y in corners]
    for a, b in pairwise([*paper, paper[0]]):
        # A figure may stand on no side that runs along the paper.
        if min(abs(a[0] - b[0]), abs(a[1] - b[1])) < EDGE_MM:
            wide, high = (max(abs(a[k] - b[k]), EDGE_MM) for k in (0, 1))
            words.take((a[0] + b[0]) / 2, (a[1] + b[1]) / 2, wide, high)
    sides = [(i, (i + 1) % len(corners)) for i in range(len(corners))]
    lengths_m = [float(np.hypot(*(corners[b] - corners[a]))) for a, b in sides]
    parts: list[str] = []
    lettered: list[str] = []
    for i in sorted(range(len(sides)), key=lambda i: -lengths_m[i]):
        ends, figure = (paper[sides[i][0]], paper[sides[i][1]]), format_length(lengths_m[i], unit)
        drawn = _dimension(*ends, figure, words)
        if not drawn:
            letter = "abcdefghijklmnopqrstuvwxyz"[len(lettered) % 26]
            lettered.append(f"{letter} {figure}")
            drawn = _lettered(*ends, letter, words)
        parts += drawn
    if lettered:
        parts.append(
            f'<text x="{MARGIN_MM:.2f}" y="{foot_mm:.2f}" font-size="{NAME_MM}" fill="{INK}">'
            f"{escape(', '.join(lettered))}</text>"
        )
    return parts


def _lettered(
    a: tuple[float, float], b: tuple[float, float], letter: str, words: _Words
) -> list[str]:
    """Return a letter beside a side, where one is free."""
    spots = [
        ((x1 + x2) / 2 + (b[0] - a[0]) * along, (y1 + y2) / 2 + (b[1] - a[1]) * along)
        for off_mm in (1.6, -1.6, 3.0, -3.0)
        for x1, y1, x2, y2 in (_stood_off(a, b, off_mm),)
        for along in ALONG_FRAC
    ]
    x, y = next((s for s in spots if words.is_free(*s, TAG_MM, TAG_MM)), spots[0])
    words.take(x, y, TAG_MM, TAG_MM)
    return [
        f'<text x="{x:.2f}" y="{y + TAG_MM / 3:.2f}" font-size="{NAME_MM}" fill="{INK}" '
        f'font-style="italic" text-anchor="middle">{letter}</text>'
    ]


def _stood_off(
    a: tuple[float, float], b: tuple[float, float], off_mm: float
) -> tuple[float, float, float, float]:
    """Return a side moved outwards on paper: to the right of its run, as y points down."""
    run_x, run_y = b[0] - a[0], b[1] - a[1]
    length = float(np.hypot(run_x, run_y)) or 1.0
    off_x, off_y = -run_y / length * off_mm, run_x / length * off_mm
    return a[0] + off_x, a[1] + off_y, b[0] + off_x, b[1] + off_y


def _dimension(
    a: tuple[float, float], b: tuple[float, float], figure: str, words: _Words
) -> list[str]:
    """A dimension line with slashes at its ends and the figure in the line, read along it.

    Where no place is free at its size the figure is set smaller; nothing where none is free.
    """
    run_x, run_y = b[0] - a[0], b[1] - a[1]
    length = float(np.hypot(run_x, run_y)) or 1.0
    angle = float(np.degrees(np.arctan2(run_y, run_x)))
    # Figures are read from below or from the right, never upside down.
    angle = angle - 180 if angle > 90 else angle + 180 if angle <= -90 else angle
    spots = [
        (off_mm, along, size)
        for offs_mm in (OFFS_MM, INSIDE_OFFS_MM)
        for size in (FIGURE_MM, TAG_MM)
        for off_mm in offs_mm
        for along in ALONG_FRAC
    ]

    def at(spot: tuple[float, float, float]) -> tuple[float, float, float, float]:
        x1, y1, x2, y2 = _stood_off(a, b, spot[0])
        wide = len(figure) * WIDE * spot[2] + 0.8
        high = spot[2] + CLEAR_MM
        return (x1 + x2) / 2 + run_x * spot[1], (y1 + y2) / 2 + run_y * spot[1], wide, high

    found = next((s for s in spots if words.is_free(*at(s), angle)), None)
    if found is None:
        return []
    off_mm, along, size = found
    x, y, wide, high = at((off_mm, along, size))
    words.take(x, y, wide, high, angle)
    x1, y1, x2, y2 = _stood_off(a, b, off_mm)
    half = min(wide / 2 + 0.6, length * (0.5 - abs(along)))
    gap_x, gap_y = run_x / length * half, run_y / length * half
    slashes = [_line(sx - 1, sy + 1, sx + 1, sy - 1, INK, 0.3) for sx, sy in ((x1, y1), (x2, y2))]
    return [
        _line(x1, y1, x - gap_x, y - gap_y, INK, 0.18),
        _line(x + gap_x, y + gap_y, x2, y2, INK, 0.18),
        *slashes,
        f'<text x="{x:.2f}" y="{y + size / 3:.2f}" font-size="{size}" fill="{INK}" '
        f'text-anchor="middle" transform="rotate({angle:.1f} {x:.2f} {y:.2f})">'
        f"{escape(figure)}</text>",
    ]


def _modules(
    frame: Frame, array: PlaneArray, module: ModuleSheet, fitted: frozenset[PlacedId]
) -> list[str]:
    parts = []
    for m in array.modules:
        # A table's beams go on under the bays left for later; on a roof nothing is there.
        bay = not m.present
        if bay and array.table is None:
            continue
        width_m, height_m = module_footprint_m(module, m.orientation, array.leg_tilt_deg)
        # An exception is drawn as one: a heavy dashed edge; a bay as one without a module in it.
        edge = (
            'stroke-width="0.5" stroke-dasharray="1.2 0.7"'
            if m.kept_because or bay
            else 'stroke-width="0.2"'
        )
        parts.append(
            f'<rect x="{frame.x(m.x_m):.2f}" y="{frame.y(m.y_m + height_m):.2f}" '
            f'width="{width_m * frame.mm_per_m:.2f}" height="{height_m * frame.mm_per_m:.2f}" '
            f'fill="{"none" if bay else PALE}" stroke="{INK}" {edge}/>'
        )
        if m.id in fitted:
            parts.append(
                f'<path d="M{frame.x(m.x_m):.2f} {frame.y(m.y_m + height_m):.2f}h2.2l-2.2 2.2z" '
                f'fill="{COPPER}"/>'
            )
    return parts


def _posts(frame: Frame, posts: Sequence[Post], unit: LengthUnit, words: _Words) -> list[str]:
    """Return posts, front ones filled, with the lengths of the end ones beside them."""
    parts = []
    for table in sorted({p.table for p in posts}):
        for back in (False, True):
            row = sorted(
                (p for p in posts if p.table == table and p.back is back), key=lambda p: p.x_m
            )
            parts += [
                f'<circle cx="{frame.x(p.x_m):.2f}" cy="{frame.y(p.y_m):.2f}" r="0.7" '
                f'fill="{"white" if back else INK}" stroke="{INK}" stroke-width="0.25"/>'
                for p in row
            ]
            # Beyond the table's end, which hangs over its last post by a share of a span.
            beyond_mm = (row[1].x_m - row[0].x_m) * END_SPANS * frame.mm_per_m + 0.8
            for end, off_mm, anchor in (
                (row[0], -beyond_mm, "end"),
                (row[-1], beyond_mm, "start"),
            ):
                at_x, at_y = frame.x(end.x_m) + off_mm, frame.y(end.y_m) + 0.8
                figure = format_length(end.height_m, unit)
                wide = len(figure) * 1.05 + 0.4
                words.take(at_x + (-wide if anchor == "end" else wide) / 2, at_y - 0.8, wide, 2.6)
                parts += _on_white(at_x, at_y, anchor, figure)
    return parts


def _on_white(x: float, y: float, anchor: str, figure: str) -> list[str]:
    """Return a small figure with the lines under it taken away."""
    wide = len(figure) * 1.05 + 0.4
    return [
        f'<rect x="{x - (wide if anchor == "end" else 0):.2f}" y="{y - 2.1:.2f}" '
        f'width="{wide:.2f}" height="2.6" fill="white"/>',
        f'<text x="{x:.2f}" y="{y:.2f}" font-size="2.4" fill="{INK}" '
        f'text-anchor="{anchor}">{escape(figure)}</text>',
    ]


def _threads(
    frame: Frame,
    array: PlaneArray,
    threads: Sequence[Thread],
    module: ModuleSheet,
    words: _Words,
) -> list[str]:
    size = {
        m.id: module_footprint_m(module, m.orientation, array.leg_tilt_deg) for m in array.modules
    }
    centre = {m.id: (m.x_m + size[m.id][0] / 2, m.y_m + size[m.id][1] / 2) for m in array.modules}
    parts = []
    for thread in threads:
        mine = [(centre[i], label) for i, label in thread.modules if i in centre]
        paper = [(frame.x(x), frame.y(y)) for (x, y), _ in mine]
        stroke, dash = THREADS[thread.number % len(THREADS)]
        path = " ".join(f"{x:.2f},{y:.2f}" for x, y in paper)
        parts.append(
            f'<polyline points="{path}" stroke="{stroke}" stroke-width="0.5" '
            f'stroke-dasharray="{dash}"/>'
        )
        # On a small plan modules lie so near that their labels would touch.
        tag_mm = min(TAG_MM, 0.42 * _nearest_mm(paper))
        for (x, y), (_, label) in zip(paper, mine, strict=True):
            words.take(x, y, 2.2 * tag_mm, 2.2 * tag_mm)
            parts.append(
                f'<circle cx="{x:.2f}" cy="{y:.2f}" r="{1.1 * tag_mm:.2f}" fill="white" '
                f'stroke="{stroke}" stroke-width="0.35"/>'
            )
            parts.append(
                f'<text x="{x:.2f}" y="{y + tag_mm * 0.37:.2f}" font-size="{tag_mm:.2f}" '
                f'font-weight="600" fill="{stroke}" text-anchor="middle">{escape(label)}</text>'
            )
    return parts


def _nearest_mm(paper: Sequence[tuple[float, float]]) -> float:
    """Return how near two neighbours of a thread come on paper, mm."""
    steps = np.diff(np.array(paper), axis=0)
    return float(np.hypot(*steps.T).min()) if len(steps) else 2 * TAG_MM


def _obstructions(frame: Frame, plane: RoofPlane, words: _Words) -> list[str]:
    parts = []
    for obstruction in plane.obstructions:
        box = obstruction_box(plane, obstruction)
        x, y = frame.x(box.left_m), frame.y(box.top_m)
        width = (box.right_m - box.left_m) * frame.mm_per_m
        height = (box.top_m - box.bottom_m) * frame.mm_per_m
        round_mm = width / 2 if obstruction.kind in ROUND_KINDS else 0.0
        parts.append(
            f'<rect x="{x:.2f}" y="{y:.2f}" width="{width:.2f}" height="{height:.2f}" '
            f'rx="{round_mm:.2f}" fill="{INK}"/>'
        )
        wide = len(obstruction.name) * WIDE * NAME_MM
        at_x, above, below = x + width / 2, y - 2.1, y + height + 2.1
        beside = x + width + wide / 2 + 1.0
        spots = ((at_x, above), (at_x, below), (beside, y + height / 2), (at_x, above - 2.8),
                 (x - wide / 2 - 1.0, y + height / 2), (at_x, below + 2.8))  # fmt: skip
        free = (s for s in spots if words.is_free(*s, wide, NAME_MM))
        name_x, name_y = next(free, (at_x, above))
        words.take(name_x, name_y, wide, NAME_MM)
        parts.append(
            f'<text x="{name_x:.2f}" y="{name_y + 0.9:.2f}" font-size="{NAME_MM}" fill="{INK}" '
            f'text-anchor="middle">{escape(obstruction.name)}</text>'
        )
    return parts
