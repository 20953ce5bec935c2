"""The drawn sheets of a plan set: the site, the layout and the strings of every plane."""

from collections.abc import Iterator

import numpy as np

from ridge_tally.core.array.tables import raised
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sheets.flow import BODY, Block, Table, Words, flowed
from ridge_tally.core.sheets.paper import Box, Ground
from ridge_tally.core.sheets.plan_drawing import Thread
from ridge_tally.core.sheets.plane_sheet import draw_plane
from ridge_tally.core.sheets.scene import Item, Layer, Line, Scene
from ridge_tally.core.sheets.site_sheet import SiteMark, SiteShape, draw_site
from ridge_tally.core.sheets.titled import SheetHead, TitleFacts, sheet
from ridge_tally.core.sun.shading import glass_corners_m
from ridge_tally.core.survey.outline import corners_m, is_closed
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.units import format_length
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.rules.build.circuits.legs import legs_of
from ridge_tally.rules.design import Design
from ridge_tally.views.option import OptionReport
from ridge_tally.views.sheets.design import threads_of

GEAR = (("M", "utility meter", "meter"), ("P", "main panel", "panel"), ("D", "AC disconnect", "disconnect"), ("I", "inverter", "inverter"))  # fmt: skip
SIDE_MM, SMALL_SIDE_MM = 92.0, 84.0
CAUTION = (
    "Work at height: tie off. Modules make voltage in any light; never open a connector under load."
)


def _parted(ground: Ground) -> tuple[Box, Box]:
    """Return the box of a drawing and that of the words beside it."""
    left, top, right, bottom = ground.free
    side = SIDE_MM if ground.large else SMALL_SIDE_MM
    return (left, top, right - side - 4, bottom), (right - side, top, right, bottom)


def _with_words(
    ground: Ground, facts: TitleFacts, head: SheetHead, items: tuple[Item, ...], words: list[Block]
) -> Iterator[Scene]:
    """Yield the drawing with its words beside it; what does not fit follows on sheets of its own."""
    _, side = _parted(ground)
    pages = flowed([*words, Words(CAUTION, bold=True)], side)
    divide = Line(Layer.TABLE, ((side[0] - 2, side[1]), (side[0] - 2, side[3])))
    yield sheet(ground, facts, head, (*items, divide, *pages[0]))
    for more in pages[1:]:
        yield sheet(ground, facts, SheetHead(head.number, f"{head.title}, continued"), more)


def site_sheets(design: Design, ground: Ground, facts: TitleFacts) -> Iterator[Scene]:
    """Yield the site plan: planes, modules, lot lines, gear and the ways of cables."""
    job, unit = design.job, design.job.unit
    survey, service = job.survey, job.survey.service
    shapes = [
        SiteShape(Layer.LOT, [(p.east_m, p.north_m) for p in lot.points], f"lot {lot.id}",
                  closed=lot.closed, dashed=True)
        for lot in survey.lot_lines
    ]  # fmt: skip
    shapes += [
        SiteShape(Layer.ROOF, _flat(to_site(plane, corners_m(plane))), f"plane {plane.id}")
        for plane in survey.planes
        if is_closed(plane)
    ]
    for laid in design.arrays:
        if is_closed(laid.plane):
            shapes += [SiteShape(Layer.MODULE, ring, "modules") for ring in _glass(laid)]
    legs = legs_of(design)
    on_dc = {leg.id for c in circuits_sized(design) if c.circuit.dc for leg in c.circuit.legs}
    for leg in legs:
        points = [(p.east_m, p.north_m) for piece in leg.pieces for p in piece.points]
        layer = Layer.DC if leg.id in on_dc else Layer.AC
        shapes.append(SiteShape(layer, points, leg.name, closed=False, dashed=not leg.taken))
    marks = [
        SiteMark(letter, at, "gear")
        for letter, _, field in GEAR
        if (at := getattr(service, field)) is not None
    ]
    box, _ = _parted(ground)
    drawn = draw_site(shapes, marks, box, unit)
    there = {m.letter for m in marks}
    gear = tuple(
        (letter, name if letter in there else f"{name}: place not given")
        for letter, name, _ in GEAR
    )
    ways = tuple(
        (leg.name, "length not known" if leg.length_m is None else format_length(leg.length_m, unit),
         "as drawn" if leg.taken else "proposed, not taken yet")
        for leg in legs
    )  # fmt: skip
    words: list[Block] = [
        Table("Gear", ("Mark", "What"), gear, (12, 70), tuple("gear" for _ in gear)),
        Table("Ways of cables", ("From, to", "Length", "Way"), ways, (44, 22, 28), tuple("ways" for _ in ways)),
        Words("Outlines from the survey; lot lines only where somebody gave them. North is true."),
    ]  # fmt: skip
    if not survey.lot_lines:
        words.append(Words("No lot line is given: distances to the boundary are not shown."))
    yield from _with_words(
        ground, facts, SheetHead("G-2", "Site plan", drawn.scale.name), drawn.items, words
    )


def _flat(points: np.ndarray) -> list[tuple[float, float]]:
    return [(float(p[0]), float(p[1])) for p in points]


def _glass(laid: LaidArray) -> Iterator[list[tuple[float, float]]]:
    lay = lay_of(laid)
    for place in raised(laid.plane, laid.array, lay, present_of(laid.array)):
        yield _flat(glass_corners_m(laid.plane, lay, place))


def layout_sheets(design: Design, ground: Ground, facts: TitleFacts) -> Iterator[Scene]:
    """Yield the layout of every plane that holds modules, numbered, with its running dimensions."""
    yield from _plane_sheets(design, ground, facts, "A-1", "Layout", ())


def string_sheets(
    design: Design, report: OptionReport, ground: Ground, facts: TitleFacts
) -> Iterator[Scene]:
    """Yield the strings of every plane by colour, dash and number."""
    yield from _plane_sheets(
        design, ground, facts, "A-2", "Strings", threads_of(design.option, report)
    )


def _plane_sheets(
    design: Design, ground: Ground, facts: TitleFacts, number: str, title: str,
    threads: tuple[Thread, ...],
) -> Iterator[Scene]:  # fmt: skip
    laid = [a for a in design.arrays if present_of(a.array) and is_closed(a.plane)]
    for n, one in enumerate(laid, start=1):
        here = {m.id for m in present_of(one.array)}
        mine = tuple(t for t in threads if any(m in here for m, _ in t.modules))
        if number == "A-2" and not mine:
            continue
        box, _ = _parted(ground)
        drawn = draw_plane(one.plane, one.array, one.module, mine, box, design.job.unit)
        name = number if len(laid) == 1 else f"{number}.{n}"
        head = SheetHead(name, f"{title}, {one.plane.name}", drawn.scale.name)
        words = _string_words(design, mine, here) if mine else _layout_words(design, one)
        yield from _with_words(ground, facts, head, drawn.items, words)


def _layout_words(design: Design, laid: LaidArray) -> list[Block]:
    unit, plane = design.job.unit, laid.plane
    there = present_of(laid.array)
    rows: dict[float, list[tuple[int, float, float, float]]] = {}
    for n, m in enumerate(there, start=1):
        wide, high = module_footprint_m(laid.module, m.orientation, laid.array.leg_tilt_deg)
        rows.setdefault(round(m.y_m, 3), []).append((n, m.x_m, m.x_m + wide, m.y_m + high))
    table = tuple(
        (
            f"{min(r[0] for r in row)} to {max(r[0] for r in row)}",
            format_length(y, unit),
            format_length(max(r[3] for r in row), unit),
            format_length(min(r[1] for r in row), unit),
            format_length(max(r[2] for r in row), unit),
        )
        for y, row in sorted(rows.items())
    )
    slope = plane.slope_typed or "not measured"
    return [
        Words(plane.name, 3.5, bold=True),
        Words(f"{len(there)} × {laid.module.name}. Slope {slope}, facing {plane.azimuth_deg:.0f}° true."),
        Table(
            "Rows, from the plane’s lower left corner",
            ("Modules", "Lower edge", "Upper edge", "Left edge", "Right edge"),
            table, (18, 20, 20, 20, 20), tuple(f"plane {plane.id}" for _ in table),
        ),
        Words("Lengths up the slope and along the eave, running from one corner.", BODY),
    ]  # fmt: skip


def _string_words(design: Design, threads: tuple[Thread, ...], here: set[PlacedId]) -> list[Block]:
    rows = []
    trackers = {s.tag: s.tracker_number for s in design.option.strings}
    for t in threads:
        tag = t.modules[0][1].rstrip("0123456789").rstrip(".") or str(t.number + 1)
        mine = [label for m, label in t.modules if m in here]
        tracker = "" if tag not in trackers else f"tracker {trackers[tag]}"
        rows.append(
            (
                tag,
                f"{mine[0]} to {mine[-1]}",
                str(len(mine)),
                tracker,
                "dashed" if t.number % 2 else "full",
            )
        )
    return [
        Table(
            "Strings on this plane", ("String", "Modules", "Count", "To", "Line"), tuple(rows),
            (14, 28, 14, 24, 16), tuple(f"string {r[0]}" for r in rows),
        ),
        Words("The first of a string is its positive end, the last its negative one, as threaded."),
    ]  # fmt: skip
