"""The year's use against the array's energy, month by month, as an SVG."""

from ridge_tally.core.nominal_year import MONTH_NAMES

INK, MUTED, USE, ARRAY = "#1d2b2c", "#566465", "#9fb4b0", "#8f4a1b"
FACE = 'font-family="Barlow Semi Condensed" font-size="2.7"'


def need_svg(
    need_kwh: tuple[float, ...], array_kwh: tuple[float, ...], array_title: str, width_mm: float
) -> str:
    """Return twelve bars of use with a step line of the array's energy over them.

    Parameters
    ----------
    need_kwh, array_kwh : (12,) tuple of float
        kWh for each month; all zero where nobody knows.
    array_title : str
        Words for the line; must hold no markup.
    width_mm : float
        Width; the height is 46 mm.
    """
    height, foot, head = 46.0, 40.0, 8.0
    highest = max(*need_kwh, *array_kwh, 1.0)
    slot = width_mm / 12

    def y(kwh: float) -> float:
        return foot - max(0.0, kwh) / highest * (foot - head)

    parts = []
    for month, name in enumerate(MONTH_NAMES):
        left, use, made = month * slot, need_kwh[month], array_kwh[month]
        middle = left + slot / 2
        parts.append(
            f'<rect x="{left + 1.2:.2f}" y="{y(use):.2f}" width="{slot - 2.4:.2f}" '
            f'height="{foot - y(use):.2f}" fill="{USE}"/>'
            f'<line x1="{left:.2f}" x2="{left + slot:.2f}" y1="{y(made):.2f}" y2="{y(made):.2f}" '
            f'stroke="{ARRAY}" stroke-width="0.7"/>'
            f'<text x="{middle:.2f}" y="{foot - 1:.2f}" text-anchor="middle" fill="{INK}" {FACE}>'
            f"{use:.0f}</text>"
            f'<text x="{middle:.2f}" y="{foot + 3.6:.2f}" text-anchor="middle" fill="{MUTED}" {FACE}>'
            f"{name}</text>"
        )
    title = (
        f'<text x="0" y="3" fill="{MUTED}" {FACE}>kWh a month: bars the use with loads to come, '
        f"lines the array ({array_title})</text>"
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width_mm}mm" height="{height}mm" '
        f'viewBox="0 0 {width_mm} {height}">{title}{"".join(parts)}</svg>'
    )
