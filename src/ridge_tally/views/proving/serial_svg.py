"""Where each sticker is on the roof, drawn: the grid of each plane with its numbers."""

from html import escape

from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.proving import Carries
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.serials import serial_map

PX_PER_M, PAD_PX, HEAD_PX, LAST_LETTERS = 60.0, 12.0, 22.0, 8


def serial_svg(design: Design) -> str:
    """Return the serial numbers of the modules as SVG, plane below plane, true to scale.

    A number longer than eight letters stands with its last ones, and whole in its title.
    """
    cells = {c.place: c for c in serial_map(design, design.job.proving, Carries.MODULE).cells}
    parts, top, wide = [], PAD_PX, 0.0
    for laid in design.arrays:
        lay, modules = lay_of(laid), present_of(laid.array)
        if not modules:
            continue
        corners = [
            (m.x_m, m.y_m, m.x_m + lay.width_m(m.orientation), m.y_m + lay.height_m(m.orientation))
            for m in modules
        ]
        left, high = min(c[0] for c in corners), max(c[3] for c in corners)
        parts.append(
            f'<text x="{PAD_PX}" y="{top + 12:.1f}" font-size="13">{escape(laid.plane.name)}, seen from '
            "outside, the eave below</text>"
        )
        top += HEAD_PX
        for module, (x0, y0, x1, y1) in zip(modules, corners, strict=True):
            cell = cells[module.id]
            x, y = PAD_PX + (x0 - left) * PX_PER_M, top + (high - y1) * PX_PER_M
            w, h = (x1 - x0) * PX_PER_M, (y1 - y0) * PX_PER_M
            told = cell.text[-LAST_LETTERS:] or "–"
            parts.append(
                f"<g><title>{escape(cell.plane)} row {cell.row} place {cell.column}: "
                f"{escape(cell.text or 'no sticker')}</title>"
                f'<rect x="{x:.1f}" y="{y:.1f}" width="{w:.1f}" height="{h:.1f}" fill="none" stroke="#1d2b2c"/>'
                f'<text x="{x + w / 2:.1f}" y="{y + h / 2 - 4:.1f}" font-size="10" text-anchor="middle">'
                f"{cell.row}.{cell.column}</text>"
                f'<text x="{x + w / 2:.1f}" y="{y + h / 2 + 9:.1f}" font-size="9" text-anchor="middle">'
                f"{escape(told)}</text></g>"
            )
            wide = max(wide, x + w)
        top += (high - min(c[1] for c in corners)) * PX_PER_M + PAD_PX
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide + PAD_PX:.0f}" height="{top:.0f}" '
        f'font-family="sans-serif" fill="#1d2b2c">{"".join(parts)}</svg>'
    )
