"""The symbols of a one-line diagram in two families, each round a point, millimetres."""

from dataclasses import dataclass, field

from ridge_tally.core.sheets.one_line.spec import Symbols
from ridge_tally.core.sheets.scene import Anchor, Arc, Circle, Item, Layer, Line, Point, Text

LABEL, SMALL = 2.6, 2.3
BUBBLE_R = 2.9


@dataclass
class Pen:
    """Collects the items of a drawing; one family of symbols for all of it."""

    symbols: Symbols
    items: list[Item] = field(default_factory=list)

    def line(self, layer: Layer, *points: Point, part: str = "", net: str = "",
             dashed: bool = False, closed: bool = False) -> None:  # fmt: skip
        """Draw straight pieces."""
        self.items.append(Line(layer, points, part, net, dashed, closed))

    def text(self, x: float, y: float, words: str, size: float = LABEL, anchor: Anchor = "start",
             part: str = "", *, bold: bool = False) -> None:  # fmt: skip
        """Write a line of words on a base line."""
        if words:
            self.items.append(Text((x, y), words, size, anchor, part, bold))

    def box(self, x: float, y: float, wide: float, high: float, part: str = "",
            layer: Layer = Layer.EQUIPMENT) -> None:  # fmt: skip
        """Draw a rectangle from its upper left corner."""
        corners = ((x, y), (x + wide, y), (x + wide, y + high), (x, y + high))
        self.line(layer, *corners, part=part, closed=True)

    def dot(self, x: float, y: float) -> None:
        """Mark that conductors are joined."""
        self.items.append(Circle(Layer.SYMBOL, (x, y), 0.7, filled=True))

    def bubble(self, x: float, y: float, mark: str, part: str) -> None:
        """Write a circuit's mark in a circle."""
        self.items.append(Circle(Layer.SYMBOL, (x, y), BUBBLE_R, part))
        self.text(x, y + SMALL * 0.36, mark, SMALL, "middle", part)

    def wire(self, layer: Layer, net: str, *points: Point, part: str = "") -> None:
        """Draw a conductor."""
        self.line(layer, *points, part=part, net=net)

    def marked_wire(self, layer: Layer, net: str, x1: float, x2: float, y: float, mark: str,
                    part: str) -> None:  # fmt: skip
        """Draw a level conductor, cut round its circuit's mark in the middle."""
        if x2 - x1 < 2 * BUBBLE_R + 1 or not mark:
            self.wire(layer, net, (x1, y), (x2, y), part=part)
            return
        mid = (x1 + x2) / 2
        self.wire(layer, net, (x1, y), (mid - BUBBLE_R, y), part=part)
        self.wire(layer, net, (mid + BUBBLE_R, y), (x2, y), part=part)
        self.bubble(mid, y, mark, part)

    def module(self, x: float, y: float, part: str) -> None:
        """A module: a rectangle with a triangle at its lit end; ``x, y`` the left middle."""
        self.box(x, y - 3, 7, 6, part, Layer.SYMBOL)
        self.line(Layer.SYMBOL, (x, y - 3), (x + 3, y), (x, y + 3), part=part)

    def converter(self, x: float, y: float, size: float, left: str, right: str, part: str) -> None:
        """A converter: a square with a diagonal, what goes in and what comes out; ``x, y`` its middle."""
        half = size / 2
        self.box(x - half, y - half, size, size, part, Layer.SYMBOL)
        self.line(Layer.SYMBOL, (x - half, y + half), (x + half, y - half), part=part)
        letter = size * 0.36
        self._sign(x - size * 0.24, y - size * 0.24, letter, left, part)
        self._sign(x + size * 0.24, y + size * 0.24, letter, right, part)

    def _sign(self, x: float, y: float, size: float, sign: str, part: str) -> None:
        half = size / 2
        if sign == "=":
            self.line(
                Layer.SYMBOL, (x - half, y - size * 0.2), (x + half, y - size * 0.2), part=part
            )
            self.line(
                Layer.SYMBOL, (x - half, y + size * 0.2), (x + half, y + size * 0.2), part=part
            )
            return
        quarter = size / 4
        self.items.append(Arc(Layer.SYMBOL, (x - quarter, y), quarter, 180, 360, part))
        self.items.append(Arc(Layer.SYMBOL, (x + quarter, y), quarter, 0, 180, part))

    def breaker(self, x: float, y: float, layer: Layer, net: str, part: str) -> float:
        """A breaker in a level conductor from ``x``; return where it ends."""
        if self.symbols is Symbols.NORTH_AMERICAN:
            for at in (x + 0.6, x + 6.4):
                self.items.append(Circle(Layer.SYMBOL, (at, y), 0.6, part))
            self.items.append(Arc(Layer.SYMBOL, (x + 3.5, y + 1.2), 3.4, 215, 325, part))
            return x + 7
        self.wire(layer, net, (x, y), (x + 1.5, y), part=part)
        self.line(Layer.SYMBOL, (x + 0.8, y - 0.8), (x + 2.4, y + 0.8), part=part)
        self.line(Layer.SYMBOL, (x + 0.8, y + 0.8), (x + 2.4, y - 0.8), part=part)
        self.line(Layer.SYMBOL, (x + 5.5, y), (x + 1.8, y - 2.2), part=part)
        self.wire(layer, net, (x + 5.5, y), (x + 7, y), part=part)
        return x + 7

    def fuse(self, x: float, y: float, part: str, net: str) -> float:
        """A fuse in a level conductor from ``x``: a rectangle with the line through."""
        self.wire(Layer.DC, net, (x, y), (x + 6, y), part=part)
        self.box(x + 0.6, y - 1.1, 4.8, 2.2, part, Layer.SYMBOL)
        return x + 6

    def switch(self, x: float, y: float, part: str) -> None:
        """A switch's blade over a level conductor from ``x``, 9 mm long."""
        if self.symbols is Symbols.NORTH_AMERICAN:
            for at in (x + 0.7, x + 8.3):
                self.items.append(Circle(Layer.SYMBOL, (at, y), 0.7, part))
            self.line(Layer.SYMBOL, (x + 1.3, y - 0.4), (x + 7.6, y - 3.2), part=part)
            return
        self.line(Layer.SYMBOL, (x, y), (x + 1.8, y), part=part)
        self.line(Layer.SYMBOL, (x + 1.8, y - 1.1), (x + 1.8, y + 1.1), part=part)
        self.line(Layer.SYMBOL, (x + 7, y), (x + 2, y - 2.8), part=part)
        self.line(Layer.SYMBOL, (x + 7, y), (x + 9, y), part=part)

    def meter(self, x: float, y: float, part: str) -> None:
        """A meter round a point."""
        self.items.append(Circle(Layer.EQUIPMENT, (x, y), 5, part))
        self.text(x, y + SMALL * 0.36, "kWh", SMALL, "middle", part)

    def earth(self, x: float, y: float) -> None:
        """The electrode below a point: three bars, each shorter."""
        self.line(Layer.GROUND, (x, y), (x, y + 3))
        for n, half in enumerate((3.0, 2.0, 1.0)):
            self.line(Layer.GROUND, (x - half, y + 3 + n * 1.1), (x + half, y + 3 + n * 1.1))
