"""A drawing as DXF R2010 in millimetres: named layers, lines, circles, arcs and texts."""

from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment

from ridge_tally.core.sheets.scene import CAP_FRAC, Arc, Circle, Line, Scene, Text
from ridge_tally.formats.dxf import dxf_text, new_drawing

ALIGNED = {
    "start": TextEntityAlignment.LEFT,
    "middle": TextEntityAlignment.CENTER,
    "end": TextEntityAlignment.RIGHT,
}
NARROW = 0.85


def scene_dxf(scene: Scene) -> str:
    """Return the sheet as a DXF R2010 text; y runs upwards there."""
    drawing = new_drawing(dash_scale=6.0)
    _draw(drawing, scene)
    return dxf_text(drawing)


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
