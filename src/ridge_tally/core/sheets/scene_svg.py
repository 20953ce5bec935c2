"""A drawing as SVG: millimetres on paper, one group a layer, parts named for whoever clicks them."""

import math
from html import escape

from ridge_tally.core.sheets.scene import Arc, Circle, Item, Layer, Line, Scene

INK, PALE, EARTH, DC, AC, RED = "#1d2b2c", "#6d7a7b", "#2f6b3a", "#8f4a1b", "#1c4f7a", "#a32015"
# Colours of strings in turn; each has its number beside it, so that a grey print is read as well.
HUES = ("#8f4a1b", "#1c4f7a", "#2f6b3a", "#7a2e6b", "#8a6d00", "#0f6f74", "#a32015", "#4a4f9c")
# Width in mm and colour; a grey print tells them apart by dash, width and mark.
LOOK = {
    Layer.DC: (0.5, DC),
    Layer.AC: (0.5, AC),
    Layer.GROUND: (0.35, EARTH),
    Layer.EQUIPMENT: (0.35, INK),
    Layer.SYMBOL: (0.25, INK),
    Layer.BUS: (1.0, INK),
    Layer.TEXT: (0.25, INK),
    Layer.ROOF: (0.5, INK),
    Layer.OBSTACLE: (0.35, INK),
    Layer.FRAMING: (0.18, PALE),
    Layer.MODULE_BELOW: (0.18, PALE),
    Layer.MODULE: (0.35, INK),
    Layer.STRING: (0.5, DC),
    Layer.RAIL: (0.35, INK),
    Layer.MOUNT: (0.25, INK),
    Layer.DIMENSION: (0.18, INK),
    Layer.SETBACK: (0.25, RED),
    Layer.HATCH: (0.13, RED),
    Layer.LOT: (0.35, PALE),
    Layer.CLOUD: (0.5, RED),
    Layer.FRAME: (0.5, INK),
    Layer.TABLE: (0.18, PALE),
}
DASH = "2.4 1.4"
FONT = "Barlow Semi Condensed, Barlow, sans-serif"


def hue_of(line: Line) -> str:
    """Return the colour of a line: its string's where it has one, else its layer's."""
    return HUES[(line.hue - 1) % len(HUES)] if line.hue else LOOK[line.layer][1]


def scene_svg(scene: Scene) -> str:
    """Return the sheet as an SVG document, 1 user unit a millimetre."""
    layers: dict[Layer, list[str]] = {layer: [] for layer in Layer}
    for item in scene.items:
        layers[item.layer].append(_drawn(item))
    groups = "".join(
        f'<g id="{layer.value}" stroke="{LOOK[layer][1]}" stroke-width="{LOOK[layer][0]:g}" '
        f'fill="none" stroke-linecap="round" stroke-linejoin="round">{"".join(items)}</g>'
        for layer, items in layers.items()
        if items
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{scene.width:g}mm" '
        f'height="{scene.height:g}mm" viewBox="0 0 {scene.width:g} {scene.height:g}" '
        f'font-family="{FONT}"><title>{escape(scene.title)}</title>'
        f'<rect width="{scene.width:g}" height="{scene.height:g}" fill="#fff"/>{groups}</svg>'
    )


def _part(item: Item) -> str:
    return f' data-part="{escape(item.part)}"' if item.part else ""


def _drawn(item: Item) -> str:
    if isinstance(item, Line):
        dash = f' stroke-dasharray="{DASH}"' if item.dashed else ""
        if item.hue:
            dash += f' stroke="{hue_of(item)}"'
        if len(item.points) == 2 and not item.closed:
            (x1, y1), (x2, y2) = item.points
            return f'<path d="M{x1:g} {y1:g}L{x2:g} {y2:g}"{dash}{_part(item)}/>'
        path = "L".join(f"{round(x, 3):g} {round(y, 3):g}" for x, y in item.points)
        return f'<path d="M{path}{"Z" if item.closed else ""}"{dash}{_part(item)}/>'
    if isinstance(item, Circle):
        fill = f' fill="{INK}"' if item.filled else ' fill="#fff"' if item.part else ""
        x, y = item.centre
        return f'<circle cx="{x:g}" cy="{y:g}" r="{item.radius:g}"{fill}{_part(item)}/>'
    if isinstance(item, Arc):
        (x, y), r = item.centre, item.radius
        a, b = math.radians(item.from_deg), math.radians(item.to_deg)
        large = 1 if (item.to_deg - item.from_deg) % 360 > 180 else 0
        return (
            f'<path d="M{x + r * math.cos(a):.3f} {y + r * math.sin(a):.3f}'
            f'A{r:g} {r:g} 0 {large} 1 {x + r * math.cos(b):.3f} {y + r * math.sin(b):.3f}"'
            f"{_part(item)}/>"
        )
    weight = ' font-weight="600"' if item.bold else ""
    anchor = "" if item.anchor == "start" else f' text-anchor="{item.anchor}"'
    return (
        f'<text x="{item.at[0]:.2f}" y="{item.at[1]:.2f}" font-size="{item.size:g}" '
        f'fill="{INK}" stroke="none"{anchor}{weight}{_part(item)}>{escape(item.words)}</text>'
    )
