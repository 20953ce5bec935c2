"""A plan as DXF R2010 in the world's own millimetres: what lies on the roof, with true dimensions."""

from math import dist

from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts import Modelspace

from ridge_tally.core.array.strips import Patch
from ridge_tally.core.sheets.flat_plan import Flat, FlatPlan, Running
from ridge_tally.core.sheets.scene import Layer
from ridge_tally.formats.dxf import dxf_text, new_drawing

MM = 1000.0
# Heights of letters, circles and steps between dimensions, millimetres of the world: 2.5 mm at 1:50.
LETTERS, SPOT, STEP, OFF = 125.0, 40.0, 320.0, 450.0
STYLE, DIMENSION = "RUNNING", {"layer": Layer.DIMENSION.value}
# Colours of strings by index, in their turn, beside their numbers.
HUES = (30, 5, 3, 6, 40, 134, 1, 170)


def flat_dxf(plan: FlatPlan) -> str:
    """Return a plan as a DXF text: x and y as measured, y up, each dimension an entity of its own."""
    drawing = new_drawing(dash_scale=300.0)
    _with_style(drawing)
    space = drawing.modelspace()
    _shapes(space, plan)
    for patch in plan.patches:
        _hatch(space, patch)
    for note in plan.notes:
        left, low, right, high = note.box
        _write(space, note.words, ((left + right) / 2, (low + high) / 2), note.layer)
    for gear in plan.gear:
        space.add_circle(_mm(gear.at), SPOT, dxfattribs={"layer": Layer.EQUIPMENT.value})
        _write(space, gear.letter, (gear.at[0] + 0.2, gear.at[1] + 0.2), Layer.EQUIPMENT)
    for side in plan.sides:
        if dist(side.begin, side.end) > 0:
            # Corners run anticlockwise: what is to the right of a side is outside.
            space.add_aligned_dim(
                _mm(side.begin), _mm(side.end), -OFF, text=side.words, dimstyle=STYLE,
                dxfattribs=DIMENSION,
            ).render()  # fmt: skip
    for running in plan.runnings:
        _run(space, running, _lowest(plan))
    return dxf_text(drawing)


def _shapes(space: Modelspace, plan: FlatPlan) -> None:
    for shape in plan.shapes:
        look: dict[str, object] = {"layer": shape.layer.value}
        if shape.dashed:
            look["linetype"] = "DASHED"
        if shape.hue:
            look["color"] = HUES[(shape.hue - 1) % len(HUES)]
        if len(shape.ring) > 1:
            space.add_lwpolyline([_mm(p) for p in shape.ring], close=shape.closed, dxfattribs=look)
    for spot in plan.spots:
        space.add_circle(_mm(spot.at), SPOT, dxfattribs={"layer": spot.layer.value})


def _hatch(space: Modelspace, patch: Patch) -> None:
    hatch = space.add_hatch(dxfattribs={"layer": Layer.HATCH.value})
    hatch.set_pattern_fill("ANSI31", scale=25.0)
    for ring, flags in ((patch.outer, 1), *((hole, 16) for hole in patch.holes)):
        hatch.paths.add_polyline_path([_mm(p) for p in ring], is_closed=True, flags=flags)
    for way in patch.inner:
        space.add_lwpolyline([_mm(p) for p in way], dxfattribs={"layer": Layer.SETBACK.value})


def _mm(place: Flat) -> Flat:
    return place[0] * MM, place[1] * MM


def _lowest(plan: FlatPlan) -> Flat:
    points = [p for s in plan.shapes for p in s.ring]
    return min(p[0] for p in points), min(p[1] for p in points)


def _with_style(drawing: Drawing) -> None:
    style = drawing.dimstyles.new(STYLE)
    style.dxf.dimtxt = LETTERS
    style.dxf.dimasz = LETTERS / 2
    style.dxf.dimtsz = LETTERS / 2
    style.dxf.dimexe = LETTERS / 2
    style.dxf.dimexo = LETTERS
    style.dxf.dimgap = LETTERS / 4
    style.dxf.dimtad = 1
    style.dxf.dimdec = 0


def _run(space: Modelspace, running: Running, low: Flat) -> None:
    """Draw each length from the datum on a line of its own, the longest outermost."""
    datum = running.marks_m[0]
    for n, (mark, words) in enumerate(zip(running.marks_m[1:], running.words[1:], strict=True)):
        off = OFF + STEP * (n + 2)
        if running.along_x:
            ends, base, angle = ((datum, 0.0), (mark, 0.0)), (0.0, low[1] * MM - off), 0
        else:
            ends, base, angle = ((0.0, datum), (0.0, mark)), (low[0] * MM - off, 0.0), 90
        space.add_linear_dim(
            base, _mm(ends[0]), _mm(ends[1]), angle=angle, text=words, dimstyle=STYLE,
            dxfattribs=DIMENSION,
        ).render()  # fmt: skip


def _write(space: Modelspace, words: str, at: Flat, layer: Layer) -> None:
    text = space.add_text(words, height=LETTERS, dxfattribs={"layer": layer.value, "width": 0.85})
    text.set_placement(_mm(at), align=TextEntityAlignment.MIDDLE_CENTER)
