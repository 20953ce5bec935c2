"""The drawn sheets of a plan set: the site, the layout and the strings of every plane."""

from collections.abc import Iterable, Iterator, Sequence
from itertools import pairwise
from math import atan2, degrees, dist

from ridge_tally.core.array.blockers import setback_m
from ridge_tally.core.array.tables import raised
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.survey import RoofPlane, Survey
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.job.wiring import Lie
from ridge_tally.core.sheets.drawn import Drawn
from ridge_tally.core.sheets.flat_plan import FlatPlan, Gear, Note, Shape, Side, flat
from ridge_tally.core.sheets.flat_sheet import draw_flat
from ridge_tally.core.sheets.flow import BODY, Block, Table, Words, flowed
from ridge_tally.core.sheets.paper import Box, Ground
from ridge_tally.core.sheets.plan_drawing import Thread
from ridge_tally.core.sheets.plane_sheet import layout_plan, string_plan
from ridge_tally.core.sheets.scene import Item, Layer, Line, Text
from ridge_tally.core.sheets.titled import SheetHead, TitleFacts, part_number, sheet
from ridge_tally.core.sun.shading import glass_corners_m
from ridge_tally.core.survey.outline import corners_m, is_closed
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.rules.array.checks import lay_of, standing
from ridge_tally.rules.array.setbacks import setback_packs
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.rules.build.circuits.legs import legs_of
from ridge_tally.rules.design import Design
from ridge_tally.views.option import OptionReport
from ridge_tally.views.sheets.design import threads_of

GEAR = (("M", "utility meter", "meter"), ("P", "main panel", "panel"), ("D", "AC disconnect", "disconnect"), ("I", "inverter", "inverter"))  # fmt: skip
# A side of a lot shorter than this, on a curve say, has no bearing of its own.
SHORT_SIDE_M = 1.5
SIDE_MM, SMALL_SIDE_MM = 92.0, 68.0


def parted(ground: Ground) -> tuple[Box, Box]:
    """Return the box of a drawing and that of the words beside it."""
    left, top, right, bottom = ground.free
    side = SIDE_MM if ground.large else SMALL_SIDE_MM
    return (left, top, right - side - 4, bottom), (right - side, top, right, bottom)


def beside(
    ground: Ground, items: Iterable[Item], words: Iterable[Block]
) -> Iterator[Iterable[Item]]:
    """Yield a drawing with words beside it behind a line, then what of them did not fit."""
    _, side = parted(ground)
    pages = flowed(words, side)
    divide = Line(Layer.TABLE, ((side[0] - 2, side[1]), (side[0] - 2, side[3])))
    yield (*items, divide, *pages[0])
    yield from pages[1:]


def _with_words(
    ground: Ground,
    facts: TitleFacts,
    head: SheetHead,
    items: tuple[Item, ...],
    words: list[Block],
    plan: FlatPlan,
) -> Iterator[Drawn]:
    """Yield the drawing with its words beside it; what does not fit follows on sheets of its own."""
    first, *rest = beside(ground, items, words)
    yield Drawn(sheet(ground, facts, head, first), plan)
    for more in rest:
        yield Drawn(sheet(ground, facts, SheetHead(head.number, f"{head.title}, continued"), more))


def site_sheets(design: Design, ground: Ground, facts: TitleFacts) -> Iterator[Drawn]:
    """Yield the site plan: planes, modules, lot lines, gear and the ways of cables."""
    unit, survey = design.job.unit, design.job.survey
    plan, legs = site_plan(design), legs_of(design)
    box, _ = parted(ground)
    drawn = draw_flat(plan, box, unit)
    there = {g.letter for g in plan.gear}
    gear = tuple(
        (letter, name if letter in there else f"{name}: place not given")
        for letter, name, _ in GEAR
    )
    ways = tuple(
        (leg.name, "length not known" if leg.length_m is None else format_length(leg.length_m, unit),
         ", ".join(dict.fromkeys(p.segment.lie.value for p in leg.pieces))
         + ("" if leg.taken else "; proposed, not taken yet"))
        for leg in legs
    )  # fmt: skip
    words: list[Block] = [
        Table("Gear", ("Mark", "What"), gear, (12, 70), tuple("gear" for _ in gear)),
        Table("Ways of cables; dashed in a trench", ("From, to", "Length", "Lies"), ways, (44, 22, 28), tuple("ways" for _ in ways)),
        Words("Outlines from the survey; lot lines only where somebody gave them. North is true."),
    ]  # fmt: skip
    if not survey.lot_lines:
        words.append(Words("No lot line is given: distances to the boundary are not shown."))
    yield from _with_words(
        ground, facts, SheetHead("G-2", "Site plan", drawn.scale.name), drawn.items, words, plan
    )


def site_plan(design: Design) -> FlatPlan:
    """Return the site: planes, modules, lot lines with their bearings, gear and the ways of cables."""
    unit, survey = design.job.unit, design.job.survey
    service = survey.service
    shapes = [
        Shape(Layer.ROOF, flat(to_site(plane, corners_m(plane))), f"plane {plane.id}")
        for plane in survey.planes
        if is_closed(plane)
    ]
    for laid in design.arrays:
        if is_closed(laid.plane):
            shapes += [Shape(Layer.MODULE, ring, "modules") for ring in _glass(laid)]
    on_dc = {leg.id for c in circuits_sized(design) if c.circuit.dc for leg in c.circuit.legs}
    for leg in legs_of(design):
        layer = Layer.DC if leg.id in on_dc else Layer.AC
        for piece in leg.pieces:
            points = [(p.east_m, p.north_m) for p in piece.points]
            shapes.append(Shape(layer, points, leg.name, closed=False,
                                dashed=piece.segment.lie is Lie.BURIED))  # fmt: skip
    lots = list(_lots(survey, unit))
    shapes += [shape for shape, _ in lots]
    gear_there = tuple(
        Gear(letter, (at.east_m, at.north_m), "gear")
        for letter, _, field in GEAR
        if (at := getattr(service, field)) is not None
    )
    return FlatPlan(
        tuple(shapes),
        notes=tuple(_named(survey)),
        sides=tuple(side for _, sides in lots for side in sides),
        gear=gear_there,
    )


# Lower than this a sketch of the site says nothing.
SKETCH_MM = 70.0


def with_sketch(design: Design, area: Box, items: Sequence[Item]) -> list[Item]:
    """Return a sheet's items with a small plan of the site below them, where there is room for one."""
    low = max((i.at[1] for i in items if isinstance(i, Text)), default=area[1]) + 8
    if area[3] - low < SKETCH_MM:
        return list(items)
    middle = (area[0] + area[2]) / 2
    drawn = draw_flat(site_plan(design), (area[0], low, middle + 40, area[3]), design.job.unit)
    return [*items, *drawn.items]


def _lots(survey: Survey, unit: LengthUnit) -> Iterator[tuple[Shape, list[Side]]]:
    """Yield each lot line with the bearing and the length of its sides."""
    for lot in survey.lot_lines:
        ring = [(p.east_m, p.north_m) for p in lot.points]
        ends = list(pairwise([*ring, ring[0]] if lot.closed else ring))
        sides = [
            Side(a, b, bearing_told(a, b), format_length(dist(a, b), unit))
            for a, b in ends
            if dist(a, b) > SHORT_SIDE_M
        ]
        yield Shape(Layer.LOT, ring, f"lot {lot.id}", closed=lot.closed, dashed=True), sides


def bearing_told(a: tuple[float, float], b: tuple[float, float]) -> str:
    """Return the bearing of a line by quadrant, from north or south to east or west: ``N 45°30′ E``."""
    east, north = b[0] - a[0], b[1] - a[1]
    minutes = round(degrees(atan2(abs(east), abs(north))) * 60)
    if minutes in (0, 90 * 60):
        return "due " + (
            ("N" if north > 0 else "S") if minutes == 0 else ("E" if east > 0 else "W")
        )
    ns, ew = "N" if north >= 0 else "S", "E" if east >= 0 else "W"
    return f"{ns} {minutes // 60}°{minutes % 60:02d}′ {ew}"


def _named(survey: Survey) -> Iterator[Note]:
    """Yield the name of each plane, beside it."""
    for plane in survey.planes:
        if is_closed(plane):
            ring = to_site(plane, corners_m(plane))
            (west, south), (east, north) = ring[:, :2].min(axis=0), ring[:, :2].max(axis=0)
            box = (float(west), float(south), float(east), float(north))
            yield Note(plane.name, box, f"plane {plane.id}", beside=True)


def _glass(laid: LaidArray) -> Iterator[list[tuple[float, float]]]:
    lay = lay_of(laid)
    for place in raised(laid.plane, laid.array, lay, present_of(laid.array)):
        yield flat(glass_corners_m(laid.plane, lay, place))


def layout_sheets(design: Design, ground: Ground, facts: TitleFacts) -> Iterator[Drawn]:
    """Yield the layout of every plane that holds modules, numbered, with its running lengths."""
    for name, laid in _on_sheets(design, "A-1"):
        edge = standing(laid).path_edge
        plan = layout_plan(laid, lay_of(laid), edge, design.job.unit)
        words = _layout_words(design, laid, free=bool(plan.patches))
        yield from _drawn(design, ground, facts, (name, f"Layout, {laid.plane.name}"), plan, words)


def string_sheets(
    design: Design, report: OptionReport, ground: Ground, facts: TitleFacts
) -> Iterator[Drawn]:
    """Yield the strings of every plane by colour, dash and number."""
    threads = threads_of(design.option, report)
    for name, laid in _on_sheets(design, "A-2"):
        here = {m.id for m in present_of(laid.array)}
        mine = tuple(t for t in threads if any(m in here for m, _ in t.modules))
        if mine:
            plan = string_plan(laid, mine, design.job.unit)
            words = _string_words(design, mine, here)
            head = (name, f"Strings, {laid.plane.name}")
            yield from _drawn(design, ground, facts, head, plan, words)


def _on_sheets(design: Design, number: str) -> Iterator[tuple[str, LaidArray]]:
    """Yield each array on a closed plane with the number of its sheet."""
    laid = [a for a in design.arrays if present_of(a.array) and is_closed(a.plane)]
    for n, one in enumerate(laid, start=1):
        yield part_number(number, n, len(laid)), one


def _drawn(
    design: Design, ground: Ground, facts: TitleFacts, head: tuple[str, str], plan: FlatPlan,
    words: list[Block],
) -> Iterator[Drawn]:  # fmt: skip
    box, _ = parted(ground)
    drawn = draw_flat(plan, box, design.job.unit)
    yield from _with_words(
        ground, facts, SheetHead(*head, drawn.scale.name), drawn.items, words, plan
    )


def _layout_words(design: Design, laid: LaidArray, *, free: bool) -> list[Block]:
    unit, plane = design.job.unit, laid.plane
    there = present_of(laid.array)
    rows: dict[float, list[tuple[int, float, float, float]]] = {}
    for n, m in enumerate(there, start=1):
        wide, high = module_footprint_m(laid.module, m.orientation, laid.array.leg_tilt_deg)
        rows.setdefault(round(m.y_m, 3), []).append((n, m.x_m, m.x_m + wide, m.y_m + high))
    table = tuple(
        (
            f"{min(r[0] for r in row)} to {max(r[0] for r in row)}",
            _from_to(y, max(r[3] for r in row), unit),
            _from_to(min(r[1] for r in row), max(r[2] for r in row), unit),
        )
        for y, row in sorted(rows.items())
    )
    slope = plane.slope_typed or "not measured"
    return [
        Words(plane.name, 3.5, bold=True),
        Words(f"{len(there)} × {laid.module.name}. Slope {slope}, facing {plane.azimuth_deg:.0f}° true."),
        Table(
            "Rows, from the lower left corner", ("Modules", "Up the slope", "Along the eave"),
            table, (18, 34, 34), tuple(f"plane {plane.id}" for _ in table),
        ),
        Words("Lengths up the slope and along the eave, all running from the lower left corner.", BODY),
        *([_strips(plane, unit)] if free else []),
    ]  # fmt: skip


def _from_to(from_m: float, to_m: float, unit: LengthUnit) -> str:
    return f"{format_length(from_m, unit)} to {format_length(to_m, unit)}"


def _strips(plane: RoofPlane, unit: LengthUnit) -> Block:
    """Return what is hatched: the strips that stay free of modules, and by whom that is asked."""
    kinds = dict.fromkeys(plane.outline.edges)
    rows = [
        (kind.value, format_length(wide, unit))
        for kind in kinds
        if (wide := setback_m(plane.setbacks, kind)) > 0
    ]
    if plane.access is not None:
        rows.append(("access path", format_length(plane.access.width.value_m, unit)))
    rows += [(zone.reason or "kept free", "as drawn") for zone in plane.keep_outs]
    pack = setback_packs().get(plane.setback_pack)
    told = "by hand" if pack is None else pack.title
    return Table(
        f"Hatched: kept free ({told})", ("Along", "Width"), tuple(rows), (60, 30),
        tuple("strip" for _ in rows),
    )  # fmt: skip


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
            (18, 26, 16, 22, 16), tuple(f"string {r[0]}" for r in rows),
        ),
        Words("The first of a string is its positive end, the last its negative one, as threaded."),
    ]  # fmt: skip
