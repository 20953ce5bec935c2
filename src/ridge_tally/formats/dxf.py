"""What every DXF R2010 of ours has: millimetres, layers by discipline, the same text for the same drawing."""

from io import StringIO

import ezdxf
from ezdxf.document import Drawing

from ridge_tally.core.sheets.scene import Layer

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
MILLIMETRES = 4
# Neither the day nor a made-up identity goes into a file.
ezdxf.options.write_fixed_meta_data_for_testing = True


def new_drawing(*, dash_scale: float) -> Drawing:
    """Return an empty drawing in millimetres with every layer; dashes are that much longer than usual."""
    drawing = ezdxf.new("R2010", setup=["linetypes"])
    drawing.header["$INSUNITS"] = MILLIMETRES
    drawing.header["$MEASUREMENT"] = 1
    drawing.header["$LTSCALE"] = dash_scale
    for layer, (colour, weight) in LAYERS.items():
        drawing.layers.add(layer.value, color=colour, lineweight=weight)
    return drawing


def dxf_text(drawing: Drawing) -> str:
    """Return a drawing as text; the same drawing is the same text, whenever it is written."""
    out = StringIO()
    drawing.write(out)
    return out.getvalue()
