"""A drawing as DXF R2010 in millimetres: named layers, lines, circles, arcs and texts."""

from io import StringIO

import ezdxf
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment

from ridge_tally.core.sheets.scene import CAP_FRAC, Arc, Circle, Layer, Line, Scene, Text

# Colour by index and line weight in hundredths of a millimetre; on the layer, not on its things.
LAYERS = {
    Layer.DC: (30, 50),
    Layer.AC: (5, 50),
    Layer.GROUND: (3, 35),
    Layer.EQUIPMENT: (7, 35),
    Layer.SYMBOL: (7, 25),
    Layer.BUS: (7, 100),
    Layer.TEXT: (7, 25),
    Layer.ROOF: (7, 50),
    Layer.OBSTACLE: (7, 35),
    Layer.FRAMING: (8, 18),
    Layer.MODULE_BELOW: (8, 18),
    Layer.MODULE: (7, 35),
    Layer.STRING: (30, 50),
    Layer.RAIL: (7, 35),
    Layer.MOUNT: (7, 25),
    Layer.DIMENSION: (7, 18),
    Layer.SETBACK: (1, 25),
    Layer.HATCH: (1, 13),
    Layer.LOT: (8, 35),
    Layer.CLOUD: (1, 50),
    Layer.FRAME: (7, 50),
    Layer.TABLE: (8, 18),
}
ALIGNED = {
    "start": TextEntityAlignment.LEFT,
    "middle": TextEntityAlignment.CENTER,
    "end": TextEntityAlignment.RIGHT,
}
MILLIMETRES = 4
NARROW = 0.85


def scene_dxf(scene: Scene) -> str:
    """Return the sheet as a DXF R2010 text; y runs upwards there."""
    drawing = ezdxf.new("R2010", setup=["linetypes"])
    drawing.header["$INSUNITS"] = MILLIMETRES
    drawing.header["$MEASUREMENT"] = 1
    drawing.header["$LTSCALE"] = 6.0
    for layer, (colour, weight) in LAYERS.items():
        drawing.layers.add(layer.value, color=colour, lineweight=weight)
    _draw(drawing, scene)
    # The same sheet is the same file, whenever it is written.
    out = StringIO()
    drawing.write(out)
    return out.getvalue()


def _draw(drawing: Drawing, scene: Scene) -> None:
    space, high = drawing.modelspace(), scene.height
    for item in scene.items:
        look: dict[str, object] = {"layer": item.layer.value}
        if isinstance(item, Line):
            if item.dashed:
                look["linetype"] = "DASHED"
            points = [(x, high - y) for x, y in item.points]
            if len(points) == 2 and not item.closed:
                space.add_line(points[0], points[1], dxfattribs=look)
            else:
                space.add_lwpolyline(points, close=item.closed, dxfattribs=look)
        elif isinstance(item, Circle):
            x, y = item.centre
            if item.filled:
                hatch = space.add_hatch(color=7, dxfattribs=look)
                hatch.paths.add_edge_path().add_arc((x, high - y), item.radius, 0, 360)
            else:
                space.add_circle((x, high - y), item.radius, dxfattribs=look)
        elif isinstance(item, Arc):
            x, y = item.centre
            # What runs clockwise down the paper runs anticlockwise up the drawing.
            space.add_arc((x, high - y), item.radius, -item.to_deg, -item.from_deg, dxfattribs=look)
        else:
            _write(space, item, high, look)


def _write(space: object, item: Text, high: float, look: dict[str, object]) -> None:
    text = space.add_text(  # type: ignore[attr-defined]
        item.words, height=item.size * CAP_FRAC, dxfattribs={**look, "width": NARROW}
    )
    x, y = item.at
    text.set_placement((x, high - y), align=ALIGNED[item.anchor])
