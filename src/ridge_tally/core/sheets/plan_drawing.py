"""The plan of one roof plane as SVG: outline by edge kind, dimensions, modules, threads.

Drawn in millimetres of paper; y up the slope becomes y down the page.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape

import numpy as np

from ridge_tally.core.array.posts import END_SPANS, Post
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.array import PlaneArray
from ridge_tally.core.job.document import ModuleString, module_footprint_m
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


def plan_svg(
    plane: RoofPlane,
    array: PlaneArray | None,
    strings: tuple[ModuleString, ...],
    module: ModuleSheet,
    unit: LengthUnit,
    width_mm: float,
    posts: Sequence[Post] = (),
) -> str:
    """Return the plan as an SVG element `width_mm` wide, to scale.

    Parameters
    ----------
    plane, array, strings, module, posts
        What is drawn; without an array only the roof.  Posts with the lengths of each table's
        end ones.
    unit : LengthUnit
        Of the figures in the dimension lines.
    width_mm : float
        Paper width.
    """
    corners = corners_m(plane)
    low_m, high_m = corners.min(axis=0), corners.max(axis=0)
    scale = (width_mm - 2 * MARGIN_MM) / float(high_m[0] - low_m[0])
    frame = Frame(scale, float(low_m[0]), float(high_m[1]))
    height_mm = 2 * MARGIN_MM + float(high_m[1] - low_m[1]) * scale
    parts = [*_outline(frame, plane), *_dimensions(frame, plane, unit)]
    if array is not None:
        parts += _modules(frame, array, module)
        parts += _threads(frame, array, strings, module)
        parts += _posts(frame, posts, unit)
    parts += _obstructions(frame, plane)
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


def _dimensions(frame: Frame, plane: RoofPlane, unit: LengthUnit) -> list[str]:
    """Return every side's length, standing off outside the outline."""
    corners = corners_m(plane)
    paper = [(frame.x(x), frame.y(y)) for x, y in corners]
    parts = []
    for i in range(len(corners)):
        after = (i + 1) % len(corners)
        length_m = float(np.hypot(*(corners[after] - corners[i])))
        parts += _dimension(*_stood_off(paper[i], paper[after]), format_length(length_m, unit))
    return parts


def _stood_off(a: tuple[float, float], b: tuple[float, float]) -> tuple[float, float, float, float]:
    """Return a side moved outwards on paper: to the right of its run, as y points down."""
    run_x, run_y = b[0] - a[0], b[1] - a[1]
    length = float(np.hypot(run_x, run_y)) or 1.0
    off_x, off_y = -run_y / length * OFF_MM, run_x / length * OFF_MM
    return a[0] + off_x, a[1] + off_y, b[0] + off_x, b[1] + off_y


def _dimension(x1: float, y1: float, x2: float, y2: float, figure: str) -> list[str]:
    """A dimension line with slashes at its ends and the figure in the line, read along it."""
    middle_x, middle_y = (x1 + x2) / 2, (y1 + y2) / 2
    run_x, run_y = x2 - x1, y2 - y1
    length = float(np.hypot(run_x, run_y)) or 1.0
    angle = float(np.degrees(np.arctan2(run_y, run_x)))
    # Figures are read from below or from the right, never upside down.
    angle = angle - 180 if angle > 90 else angle + 180 if angle <= -90 else angle
    half = min(len(figure) * 0.85 + 1.5, length / 2)
    gap_x, gap_y = run_x / length * half, run_y / length * half
    slashes = [_line(x - 1, y + 1, x + 1, y - 1, INK, 0.3) for x, y in ((x1, y1), (x2, y2))]
    return [
        _line(x1, y1, middle_x - gap_x, middle_y - gap_y, INK, 0.18),
        _line(middle_x + gap_x, middle_y + gap_y, x2, y2, INK, 0.18),
        *slashes,
        f'<text x="{middle_x:.2f}" y="{middle_y + 1.2:.2f}" font-size="3.6" fill="{INK}" '
        f'text-anchor="middle" transform="rotate({angle:.1f} {middle_x:.2f} {middle_y:.2f})">'
        f"{escape(figure)}</text>",
    ]


def _modules(frame: Frame, array: PlaneArray, module: ModuleSheet) -> list[str]:
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
    return parts


def _posts(frame: Frame, posts: Sequence[Post], unit: LengthUnit) -> list[str]:
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
                parts += _on_white(at_x, at_y, anchor, format_length(end.height_m, unit))
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
    frame: Frame, array: PlaneArray, strings: tuple[ModuleString, ...], module: ModuleSheet
) -> list[str]:
    size = {
        m.id: module_footprint_m(module, m.orientation, array.leg_tilt_deg) for m in array.modules
    }
    centre = {m.id: (m.x_m + size[m.id][0] / 2, m.y_m + size[m.id][1] / 2) for m in array.modules}
    parts = []
    for index, string in enumerate(strings):
        points = [centre[i] for i in string.module_ids if i in centre]
        paper = [(frame.x(x), frame.y(y)) for x, y in points]
        stroke, dash = THREADS[index % len(THREADS)]
        path = " ".join(f"{x:.2f},{y:.2f}" for x, y in paper)
        parts.append(
            f'<polyline points="{path}" stroke="{stroke}" stroke-width="0.5" '
            f'stroke-dasharray="{dash}"/>'
        )
        for number, (x, y) in enumerate(paper, start=1):
            parts.append(
                f'<circle cx="{x:.2f}" cy="{y:.2f}" r="2.5" fill="white" stroke="{stroke}" stroke-width="0.35"/>'
            )
            parts.append(
                f'<text x="{x:.2f}" y="{y + 0.85:.2f}" font-size="2.3" font-weight="600" '
                f'fill="{stroke}" text-anchor="middle">{string.tag}{number}</text>'
            )
    return parts


def _obstructions(frame: Frame, plane: RoofPlane) -> list[str]:
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
        parts.append(
            f'<text x="{x + width / 2:.2f}" y="{y - 1.2:.2f}" font-size="2.6" fill="{INK}" '
            f'text-anchor="middle">{escape(obstruction.name)}</text>'
        )
    return parts
