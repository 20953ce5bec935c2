"""The plan of one roof plane as SVG: outline by edge kind, dimensions, modules, threads.

Drawn in millimetres of paper; y up the slope becomes y down the page.
"""

from dataclasses import dataclass
from html import escape

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.job.document import (
    ROUND_KINDS,
    ModuleString,
    PlaneArray,
    RoofPlane,
    module_footprint_m,
)
from ridge_tally.core.survey.outline import corners_m, obstruction_box
from ridge_tally.core.units import LengthUnit, format_length

INK, COPPER, PALE = "#1d2b2c", "#8f4a1b", "#dfe7e6"
THREADS = (
    ("#1f6f63", ""),
    ("#8f4a1b", "2 1"),
    ("#5a4a8a", "0.6 0.8"),
    ("#7d5200", "3 0.8 0.6 0.8"),
)
MARGIN_MM = 14.0


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
) -> str:
    """Return the plan as an SVG element `width_mm` wide, to scale.

    Parameters
    ----------
    plane, array, strings, module
        What is drawn; without an array only the roof.
    unit : LengthUnit
        Of the figures in the dimension lines.
    width_mm : float
        Paper width.
    """
    corners = corners_m(plane.outline)
    low_m, high_m = corners.min(axis=0), corners.max(axis=0)
    scale = (width_mm - 2 * MARGIN_MM) / float(high_m[0] - low_m[0])
    frame = Frame(scale, float(low_m[0]), float(high_m[1]))
    height_mm = 2 * MARGIN_MM + float(high_m[1] - low_m[1]) * scale
    parts = [*_outline(frame, plane), *_dimensions(frame, plane, unit)]
    if array is not None:
        parts += _modules(frame, array, module)
        parts += _threads(frame, array, strings, module)
    parts += _obstructions(frame, plane)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width_mm:.1f}mm" '
        f'height="{height_mm:.1f}mm" viewBox="0 0 {width_mm:.2f} {height_mm:.2f}" '
        f'font-family="Barlow Semi Condensed" fill="none">{"".join(parts)}</svg>'
    )


def _line(x1: float, y1: float, x2: float, y2: float, stroke: str, width: float) -> str:
    return (
        f'<line x1="{x1:.2f}" y1="{y1:.2f}" x2="{x2:.2f}" y2="{y2:.2f}" '
        f'stroke="{stroke}" stroke-width="{width}"/>'
    )


def _outline(frame: Frame, plane: RoofPlane) -> list[str]:
    points = [(frame.x(x), frame.y(y)) for x, y in corners_m(plane.outline)]
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = points
    return [
        _line(x0, y0, x1, y1, INK, 0.35),
        _line(x0, y0 + 0.8, x1, y1 + 0.8, INK, 0.35),
        _line(x1, y1, x2, y2, INK, 0.35),
        _line(x2, y2, x3, y3, COPPER, 0.9),
        _line(x3, y3, x0, y0, INK, 0.35),
    ]


def _dimensions(frame: Frame, plane: RoofPlane, unit: LengthUnit) -> list[str]:
    (x0, y0), (x1, _), (x2, y2), (x3, _) = corners_m(plane.outline)
    outline = plane.outline
    below, left = frame.y(y0) + 8, frame.x(min(x0, x3)) - 8
    return [
        *_dimension(frame.x(x0), below, frame.x(x1), below, format_length(outline.eave.value_m, unit)),
        *_dimension(
            frame.x(x3), frame.y(y2) - 7, frame.x(x2), frame.y(y2) - 7,
            format_length(outline.ridge.value_m, unit),
        ),
        *_dimension(left, frame.y(y2), left, frame.y(y0), format_length(outline.height.value_m, unit)),
    ]  # fmt: skip


def _dimension(x1: float, y1: float, x2: float, y2: float, figure: str) -> list[str]:
    """A dimension line with slashes at its ends and the figure in the line."""
    upright = x1 == x2
    middle_x, middle_y = (x1 + x2) / 2, (y1 + y2) / 2
    turn = f' transform="rotate(-90 {middle_x:.2f} {middle_y:.2f})"' if upright else ""
    half = len(figure) * 0.85 + 1.5
    gap_x, gap_y = (0.0, half) if upright else (half, 0.0)
    slashes = [_line(x - 1, y + 1, x + 1, y - 1, INK, 0.3) for x, y in ((x1, y1), (x2, y2))]
    return [
        _line(x1, y1, middle_x - gap_x, middle_y - gap_y, INK, 0.18),
        _line(middle_x + gap_x, middle_y + gap_y, x2, y2, INK, 0.18),
        *slashes,
        f'<text x="{middle_x:.2f}" y="{middle_y + 1.2:.2f}" font-size="3.6" fill="{INK}" '
        f'text-anchor="middle"{turn}>{escape(figure)}</text>',
    ]


def _modules(frame: Frame, array: PlaneArray, module: ModuleSheet) -> list[str]:
    width_m, height_m = module_footprint_m(module, array.orientation)
    return [
        f'<rect x="{frame.x(m.x_m):.2f}" y="{frame.y(m.y_m + height_m):.2f}" '
        f'width="{width_m * frame.mm_per_m:.2f}" height="{height_m * frame.mm_per_m:.2f}" '
        f'fill="{PALE}" stroke="{INK}" stroke-width="0.2"/>'
        for m in array.modules
        if m.present
    ]


def _threads(
    frame: Frame, array: PlaneArray, strings: tuple[ModuleString, ...], module: ModuleSheet
) -> list[str]:
    width_m, height_m = module_footprint_m(module, array.orientation)
    centre = {m.id: (m.x_m + width_m / 2, m.y_m + height_m / 2) for m in array.modules}
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
        box = obstruction_box(obstruction)
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
