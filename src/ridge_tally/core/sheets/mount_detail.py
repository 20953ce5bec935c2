"""How a mount sits on what carries it, as a section not to scale: common practice, no source.

Each detail is drawn in millimetres of paper about its own corner, y upwards, with what its parts
are called; the maker's manual decides.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ridge_tally.core.mounting_sheet import MountBase, MountingSheet
from ridge_tally.core.sheets.flow import BODY, wrapped
from ridge_tally.core.sheets.paper import Box
from ridge_tally.core.sheets.scene import Item, Layer, Line, Point, Text
from ridge_tally.core.units import LengthUnit, format_length

# How high a detail is without its words, and where its words begin.
HIGH_MM, WORDS_MM = 58.0, 72.0
TITLE_MM, LINE_MM, AFTER_MM = 3.2, 3.4, 0.8


# A way with its layer; whether it is dashed, as what is hidden is.
Way = tuple[Layer, tuple[Point, ...], bool]


@dataclass(frozen=True, slots=True)
class Callout:
    """What a spot of a detail is."""

    at: Point
    words: str


@dataclass(frozen=True, slots=True)
class Detail:
    """A section by its ways, and what its spots are."""

    title: str
    ways: tuple[Way, ...]
    callouts: tuple[Callout, ...]


_Drawn = tuple[list[Way], list[Callout]]


def _rect(left: float, low: float, right: float, high: float) -> tuple[Point, ...]:
    return ((left, low), (right, low), (right, high), (left, high), (left, low))


def _small(length_m: float, unit: LengthUnit) -> str:
    """Return a length of a fitting: inches to the sixteenth, or millimetres."""
    return format_length(length_m, unit) if unit is LengthUnit.FOOT else f"{length_m * 1000:.0f} mm"


def _on_rail(low: float, torque: str) -> _Drawn:
    """Return the rail, the module and its clamp over a mount whose head is at a height."""
    rail = (24.0, low, 32.0, low + 9)
    ways = [
        (Layer.RAIL, _rect(*rail), False),
        (Layer.RAIL, ((26, low + 9), (26, low + 6), (30, low + 6), (30, low + 9)), False),
        (Layer.MODULE, _rect(2, low + 9, 60, low + 15), False),
        (Layer.MODULE, ((2, low + 13.6), (60, low + 13.6)), False),
    ]
    callouts = [
        Callout((58, low + 14.3), "module, its frame on the rail"),
        Callout((32, low + 4), f"rail; {torque}"),
    ]
    return ways, callouts


def mount_detail(sheet: MountingSheet, covering: str, unit: LengthUnit) -> Detail:
    """Return the section of a mount of that system on that covering."""
    nm = sheet.torque_mount_nm
    torque = "its bolt to the maker’s torque" if nm is None else f"its bolt to {nm:g} N·m"
    makers = {
        MountBase.RAFTER: _hook if "tile" in covering else _flashed,
        MountBase.SEAM: _seam,
        MountBase.RIB: _rib,
        MountBase.PURLIN: _purlin,
        MountBase.PILE: _pile,
    }
    ways, callouts = makers[sheet.base](sheet, unit, torque)
    return Detail(f"{sheet.name}: mount", tuple(ways), tuple(callouts))


def _lag(sheet: MountingSheet, unit: LengthUnit) -> str:
    if not sheet.lags:
        return "fixing as the maker says"
    told = f"{sheet.lags} lag{'s' if sheet.lags > 1 else ''} a mount"
    if sheet.lag_diameter_m:
        told += f", {_small(sheet.lag_diameter_m, unit)}"
    if sheet.thread_m:
        told += f", {_small(sheet.thread_m, unit)} of thread in the wood"
    return f"{told}; pilot hole at the middle of the rafter"


def _rafter() -> list[Way]:
    rafter = _rect(21, 0, 35, 20)
    return [
        (Layer.ROOF, rafter, False),
        (Layer.OBSTACLE, ((21, 0), (35, 20)), False),
        (Layer.OBSTACLE, ((21, 20), (35, 0)), False),
        (Layer.ROOF, _rect(0, 20, 62, 23.5), False),
    ]


def _flashed(sheet: MountingSheet, unit: LengthUnit, torque: str) -> _Drawn:
    ways = _rafter()
    for n in range(4):
        ways.append(
            (Layer.OBSTACLE, ((15.5 * n, 23.5), (15.5 * n, 25), (15.5 * n + 15.5, 23.8)), False)
        )
    ways += [
        (Layer.MOUNT, ((13, 25.6), (20, 26), (36, 26), (52, 25.6)), False),
        (Layer.MOUNT, _rect(23, 26, 33, 28), False),
        (Layer.MOUNT, _rect(26.5, 28, 29.5, 37), False),
        (Layer.MOUNT, ((28, 28), (28, 8)), True),
    ]
    more, told = _on_rail(37, torque)
    return ways + more, [
        *told,
        Callout((29.5, 33), "foot over the middle of its rafter"),
        Callout(
            (50, 25.8),
            "flashing: its upper edge under the course above, sealed under and round the bolt; photograph before it is covered",
        ),
        Callout((61, 21.8), "covering and sheathing"),
        Callout((28, 14), _lag(sheet, unit)),
        Callout((35, 5), "rafter: species, size and span are an engineer’s"),
    ]


def _hook(sheet: MountingSheet, unit: LengthUnit, torque: str) -> _Drawn:
    ways = _rafter()
    for n in range(3):
        x = 20.0 * n
        ways.append(
            (Layer.OBSTACLE, ((x, 29), (x + 4, 31.5), (x + 14, 30.5), (x + 22, 27.5)), False)
        )
    ways += [
        (Layer.OBSTACLE, _rect(3, 23.5, 8, 26.5), False),
        (Layer.OBSTACLE, _rect(44, 23.5, 49, 26.5), False),
        (Layer.MOUNT, _rect(21, 23.5, 35, 25), False),
        (Layer.MOUNT, ((33, 25), (33, 27), (42, 27), (42, 35), (28, 35), (28, 37)), False),
        (Layer.MOUNT, ((25, 25), (25, 8)), True),
    ]
    more, told = _on_rail(37, torque)
    return ways + more, [
        *told,
        Callout(
            (42, 33),
            "hook: its arm clear of the tile below, a groove ground in the tile above where it needs one",
        ),
        Callout((59, 29), "tiles on battens; broken ones replaced the same day"),
        Callout((35, 24.3), "base plate beside the batten, on its rafter"),
        Callout((25, 12), _lag(sheet, unit)),
        Callout((35, 5), "rafter: species, size and span are an engineer’s"),
    ]


def _seam(_sheet: MountingSheet, _unit: LengthUnit, torque: str) -> _Drawn:
    ways = [
        (Layer.ROOF, ((0, 14), (27.4, 14), (27.4, 24), (28.6, 24), (28.6, 14), (62, 14)), False),
        (Layer.OBSTACLE, ((0, 11.5), (62, 11.5)), False),
        (Layer.MOUNT, _rect(22, 19, 34, 31), False),
        (Layer.MOUNT, ((27.0, 19), (27.0, 25), (29.0, 25), (29.0, 19)), False),
        (Layer.MOUNT, ((34, 21.5), (37, 21.5)), False),
        (Layer.MOUNT, ((37, 20.3), (37, 22.7)), False),
    ]
    more, told = _on_rail(31, torque)
    return ways + more, [
        *told,
        Callout((34, 28), "clamp over the whole seam; made for this profile"),
        Callout(
            (37, 21.5),
            "set screws to the clamp maker’s torque, tried on a fixed sample; round tips, no hole",
        ),
        Callout((28.6, 16), "standing seam"),
        Callout((60, 14), "panel: its clips and deck carry, an engineer’s"),
    ]


def _rib(_sheet: MountingSheet, _unit: LengthUnit, torque: str) -> _Drawn:
    ways = [
        (Layer.ROOF, ((0, 12), (17, 12), (22, 22), (34, 22), (39, 12), (62, 12)), False),
        (Layer.OBSTACLE, _rect(0, 5, 62, 12), False),
        (Layer.MOUNT, ((17.5, 15), (20.8, 23), (35.2, 23), (38.5, 15)), False),
        (Layer.MOUNT, _rect(26, 23, 30, 31), False),
        (Layer.MOUNT, ((16, 19.5), (22.4, 17.0)), False),
        (Layer.MOUNT, ((40, 19.5), (33.6, 17.0)), False),
    ]
    more, told = _on_rail(31, torque)
    return ways + more, [
        *told,
        Callout((35.2, 23), "bracket made for this rib, butyl under it"),
        Callout(
            (40, 19.5),
            "screws with washers through the rib’s flanks, both sides; shavings off the roof",
        ),
        Callout((60, 12), "sheet: gauge and profile as the bracket’s maker asks"),
        Callout((60, 7), "purlin or deck below, an engineer’s"),
    ]


def _purlin(_sheet: MountingSheet, _unit: LengthUnit, torque: str) -> _Drawn:
    ways = [
        (Layer.ROOF, ((34, 6), (34, 3), (22, 3), (22, 27), (34, 27), (34, 24)), False),
        (Layer.MOUNT, ((30, 27), (38, 27), (38, 22), (32, 22), (32, 25.4)), False),
        (Layer.MOUNT, ((36, 29), (36, 19)), True),
        (Layer.MOUNT, _rect(24, 27, 32, 29), False),
    ]
    more, told = _on_rail(29, torque)
    return ways + more, [
        *told,
        Callout((38, 24), "clamp round the whole flange; look at each from below"),
        Callout((36, 20), "bolt, to the maker’s torque"),
        Callout((34, 4), "purlin: size, gauge and span are an engineer’s"),
    ]


def _pile(_sheet: MountingSheet, _unit: LengthUnit, torque: str) -> _Drawn:
    ways = [
        (Layer.ROOF, ((0, 16), (62, 16)), False),
        (Layer.OBSTACLE, ((3, 14), (6, 16), (3, 16)), False),
        (Layer.OBSTACLE, ((50, 14), (53, 16), (50, 16)), False),
        (Layer.MOUNT, _rect(26, 16, 30, 33), False),
        (Layer.MOUNT, ((26, 16), (26, 0)), True),
        (Layer.MOUNT, ((30, 16), (30, 0)), True),
        (Layer.MOUNT, _rect(22, 31, 34, 34), False),
        (Layer.RAIL, _rect(24, 34, 32, 41), False),
    ]
    more, told = _on_rail(41, torque)
    return ways + more, [
        *told,
        Callout((32, 37), "beam, level before rails and modules"),
        Callout((34, 32.5), "head of the pile"),
        Callout((30, 22), "pile, plumb; cut off above its head"),
        Callout((60, 16), "grade: ask for buried lines before driving"),
        Callout((30, 6), "depth: soil, frost and pull-out are an engineer’s"),
    ]


def clamp_detail(sheet: MountingSheet, unit: LengthUnit) -> Detail:
    """Return the section of a mid clamp between two modules and an end clamp beside the last."""

    def to(nm: float | None) -> str:
        return "to the maker’s torque" if nm is None else f"to {nm:g} N·m"

    ways = [
        (Layer.RAIL, _rect(0, 8, 62, 15), False),
        (Layer.MODULE, _rect(-2, 15, 19, 30), False),
        (Layer.MODULE, _rect(22, 15, 48, 30), False),
        (Layer.MOUNT, ((16.5, 30), (16.5, 31.5), (24.5, 31.5), (24.5, 30)), False),
        (Layer.MOUNT, ((20.5, 34), (20.5, 12)), False),
        (Layer.MOUNT, _rect(19, 31.5, 22, 33.5), False),
    ]
    gap = _small(sheet.clamp_gap_m, unit)
    over = _small(sheet.overhang_m, unit)
    if sheet.hidden_clamps:
        end = "end clamp hidden under the frame"
        ways.append((Layer.MOUNT, ((44, 15), (44, 18), (47, 18), (47, 12)), True))
    else:
        end = f"end clamp {to(sheet.torque_end_nm)}; rail {over} past the frame"
        ways += [
            (Layer.MOUNT, ((45.5, 30), (45.5, 31.5), (52, 31.5), (52, 15)), False),
            (Layer.MOUNT, ((50, 33), (50, 12)), False),
        ]
    low, high = (f"{frac * 100:g}" for frac in (sheet.clamp_from_frac, sheet.clamp_to_frac))
    return Detail(
        f"{sheet.name}: clamps",
        tuple(ways),
        (
            Callout((22, 32.5), f"mid clamp {to(sheet.torque_mid_nm)}; modules {gap} apart"),
            Callout((52, 25), end),
            Callout((48, 20), f"frame; clamps between {low} and {high} % of its long side"),
            Callout((61, 11), "rail, bonded to the frames as the maker says"),
        ),
    )


def draw_detail(detail: Detail, area: Box, part: str = "mounting") -> Iterator[Item]:
    """Yield a detail in an area at least ``HIGH_MM`` high, its words on the right with lines to them."""
    left, top, right, _ = area
    yield Text((left, top + TITLE_MM * 1.3), detail.title, TITLE_MM, bold=True, part=part)
    yield Text((left, top + TITLE_MM * 1.3 + 3.4), "Not to scale", BODY, part=part)
    foot = top + 10 + HIGH_MM

    def at(p: Point) -> Point:
        return left + 3 + p[0], foot - p[1]

    for layer, way, dashed in detail.ways:
        yield Line(layer, tuple(map(at, way)), part, dashed=dashed)
    x = left + WORDS_MM
    told = [
        (at(c.at), wrapped(c.words, right - x, BODY))
        for c in sorted(detail.callouts, key=lambda c: -c.at[1])
    ]
    y, left_high = top + 14.0, sum(_high(lines) for _, lines in told) - 4
    for spot, lines in told:
        y = max(y, min(spot[1], foot - left_high))
        left_high -= _high(lines)
        yield Line(Layer.DIMENSION, (spot, (x - 3, y - 0.9), (x - 1, y - 0.9)), part)
        for line in lines:
            yield Text((x, y), line, BODY, part=part)
            y += LINE_MM
        y += AFTER_MM


def _high(lines: Sequence[str]) -> float:
    """Return how high the words of a callout stand, with the room below them."""
    return len(lines) * LINE_MM + AFTER_MM
