"""The usual scales of drawings, the largest that fits, and its bar."""

from dataclasses import dataclass

from ridge_tally.core.sheets.paper import Box
from ridge_tally.core.sheets.scene import Item, Layer, Line, Text
from ridge_tally.core.units import M_PER_FT, LengthUnit

# As names them who draws by foot and inch, and by metre; common practice, no source.
SCALES = {
    LengthUnit.FOOT: (
        ("1/2\" = 1'", 24), ("3/8\" = 1'", 32), ("1/4\" = 1'", 48), ("3/16\" = 1'", 64),
        ("1/8\" = 1'", 96), ("3/32\" = 1'", 128), ("1/16\" = 1'", 192), ("1\" = 20'", 240),
        ("1\" = 30'", 360), ("1\" = 40'", 480), ("1\" = 60'", 720), ("1\" = 100'", 1200),
    ),
    LengthUnit.METRE: tuple(
        (f"1:{n}", n) for n in (20, 25, 50, 75, 100, 125, 150, 200, 250, 500, 1000, 2000)
    ),
}  # fmt: skip
BARS_M = {
    LengthUnit.FOOT: tuple(n * M_PER_FT for n in (1, 2, 5, 10, 20, 50, 100, 200)),
    LengthUnit.METRE: (0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0),
}
LONGEST_BAR_MM = 45.0


@dataclass(frozen=True, slots=True)
class Scale:
    """A scale by its name; ``ratio`` metres in the world to a metre on paper."""

    name: str
    ratio: int

    @property
    def mm_per_m(self) -> float:
        """Millimetres of paper to a metre."""
        return 1000.0 / self.ratio


def largest(wide_m: float, high_m: float, box: Box, unit: LengthUnit) -> Scale:
    """Return the largest usual scale at which that much fits a box; the smallest where none does."""
    scales = [Scale(name, ratio) for name, ratio in SCALES[unit]]
    fitting = (
        s
        for s in scales
        if wide_m * s.mm_per_m <= box[2] - box[0] and high_m * s.mm_per_m <= box[3] - box[1]
    )
    return next(fitting, scales[-1])


def scale_bar(scale: Scale, unit: LengthUnit, left: float, foot: float) -> list[Item]:
    """Return a bar in two halves with its length: prints are resized, and it with them."""
    fitting = [m for m in BARS_M[unit] if m * scale.mm_per_m <= LONGEST_BAR_MM]
    whole_m = fitting[-1] if fitting else BARS_M[unit][0]
    wide = whole_m * scale.mm_per_m
    told = f"{whole_m / M_PER_FT:g} ft" if unit is LengthUnit.FOOT else f"{whole_m:g} m"
    high = 1.6
    half = left + wide / 2
    return [
        Line(Layer.DIMENSION, ((left, foot - high), (left + wide, foot - high), (left + wide, foot), (left, foot)), closed=True),
        Line(Layer.BUS, ((left + 0.5, foot - high / 2), (half, foot - high / 2))),
        Text((left, foot - high - 1.2), "0", 2.3),
        Text((left + wide, foot - high - 1.2), told, 2.3, "middle"),
    ]  # fmt: skip
