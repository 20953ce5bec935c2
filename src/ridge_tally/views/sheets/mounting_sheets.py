"""The mounting sheets: rails and mounts on each plane, sections of mount and clamp, their tables."""

from collections.abc import Iterable, Iterator
from itertools import pairwise

from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.sheets.drawn import Drawn
from ridge_tally.core.sheets.flat_plan import FlatPlan, Note, Shape, Spot
from ridge_tally.core.sheets.flat_sheet import draw_flat
from ridge_tally.core.sheets.flow import Block, Table, Words, flowed
from ridge_tally.core.sheets.mount_detail import HIGH_MM, clamp_detail, draw_detail, mount_detail
from ridge_tally.core.sheets.paper import Box, Ground
from ridge_tally.core.sheets.plane_sheet import bare_plan, module_boxes, module_shapes
from ridge_tally.core.sheets.scene import Item, Layer
from ridge_tally.core.sheets.titled import SheetHead, TitleFacts, part_number, sheet
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.design import Design
from ridge_tally.views.build.plane import CAUTIONS, PlaneRackingView, RunView
from ridge_tally.views.sheets.set_drawings import beside, parted

NUMBER = "S-1"
NOTHING_HOLDS = "Nothing structural is said to hold: loads are screened on S-2, the roof and its framing are an engineer’s."
_Page = tuple[str, str, Iterable[Item], FlatPlan | None]


def mounting_sheets(
    design: Design, planes: tuple[RackedPlane, ...], views: tuple[PlaneRackingView, ...],
    ground: Ground, facts: TitleFacts,
) -> Iterator[Drawn]:  # fmt: skip
    """Yield the rails and mounts of every plane, the details of each system, and the tables."""
    unit = design.job.unit
    pages: list[_Page] = []
    for plane, view in zip(planes, views, strict=True):
        if view.runs and is_closed(plane.laid.plane):
            pages += _planned(plane, view, ground, unit)
    *full, last = _details(planes, ground, unit)
    pages += [("Details", "None", items, None) for items, _ in full]
    tables = flowed(_tables(planes, views, unit), ground.free, begun=last)
    title = "Details, rails and torques" if last[0] else "Mounting"
    pages += [(title, "None", items, None) for items in tables]
    for n, (title, scale, items, plan) in enumerate(pages, start=1):
        head = SheetHead(part_number(NUMBER, n, len(pages)), title, scale)
        yield Drawn(sheet(ground, facts, head, items), plan)


def _planned(
    plane: RackedPlane, view: PlaneRackingView, ground: Ground, unit: LengthUnit
) -> Iterator[_Page]:
    area, _ = parted(ground)
    plan = mounting_plan(plane, view, unit)
    drawn = draw_flat(plan, area, unit)
    first, *rest = beside(ground, drawn.items, _told(view, unit))
    title = f"Rails and mounts, {view.name}"
    yield title, drawn.scale.name, first, plan
    yield from ((f"{title}, continued", "None", more, None) for more in rest)


def mounting_plan(plane: RackedPlane, view: PlaneRackingView, unit: LengthUnit) -> FlatPlan:
    """Return a plane with its modules, its rails by name, its mounts, and what they stand on."""
    bare = bare_plan(plane.laid.plane, unit)
    shapes = [*bare.shapes, *module_shapes(module_boxes(plane.laid), Layer.MODULE_BELOW)]
    shapes += _supports(view, plane.laid.plane)
    notes, spots = list(bare.notes), []

    def at(along: float, across: float) -> tuple[float, float]:
        return (across, along) if view.up_slope else (along, across)

    for run in view.runs:
        way = (at(run.from_m, run.across_m), at(run.to_m, run.across_m))
        shapes.append(Shape(Layer.RAIL, way, "mounting", closed=False))
        spots += [Spot(at(m.at_m, run.across_m), "mounting") for m in run.mounts]
        end = way[0]
        notes.append(
            Note(run.name, (end[0], end[1], end[0], end[1]), "mounting", bold=True, beside=True)
        )
    if view.ground is not None:
        spots += [Spot((p.x_m, p.y_m), "mounting") for p in view.ground.piles]
    return FlatPlan(tuple(shapes), tuple(spots), tuple(notes), bare.sides, north_deg=bare.north_deg)


def _supports(view: PlaneRackingView, plane: RoofPlane) -> Iterator[Shape]:
    """Yield what mounts stand on, as thin lines the height of the modules."""
    if view.ground is not None or len(view.supports_m) < 2:
        return
    from_m, to_m = (view.left_m, view.right_m) if view.up_slope else (view.bottom_m, view.top_m)
    for place in view.supports_m:
        ends = (
            ((from_m, place), (to_m, place)) if view.up_slope else ((place, from_m), (place, to_m))
        )
        yield Shape(Layer.FRAMING, ends, f"plane {plane.id}", closed=False, dashed=True)


def _told(view: PlaneRackingView, unit: LengthUnit) -> Iterator[Block]:
    """Yield what is told beside the plan: the system, the spans by zone, the bare ends, what is asked."""
    yield Words(f"{view.name}: {view.mounting}", 3.2, bold=True)
    each = "pile" if view.ground is not None else view.support
    rows = [
        ("Mounts", str(view.mounts)),
        ("On each", each),
        ("Rail in all", format_length(view.rail_m, unit)),
        *_spans(view.runs, unit),
    ]
    if view.edge_m:
        rows.append(("Edge zone, about", format_length(view.edge_m, unit)))
    if view.pulled:
        rows.append(("Pulled most", view.pulled))
    yield Table("", ("", ""), tuple(rows), (40, 50), tuple("mounting" for _ in rows))
    yield Words(
        "Circles: mounts. Letters: rails, as in the tables. Dashed: what the mounts stand on."
    )
    if view.shared:
        yield Words(f"{view.shared} {each}(s) carry two rails’ mounts.")
    for told in (*view.asked, *view.loads_asked):
        yield Words(told, bold=True)


def _spans(runs: tuple[RunView, ...], unit: LengthUnit) -> Iterator[tuple[str, str]]:
    spans = [b.at_m - a.at_m for r in runs for a, b in pairwise(r.mounts)]
    limits = [limit for r in runs for limit in r.limits_m]
    if spans:
        yield "Longest span", format_length(max(spans), unit)
    if limits:
        told = dict.fromkeys(format_length(v, unit) for v in (max(limits), min(limits)))
        yield "Span limit, field; edge" if len(told) > 1 else "Span limit", "; ".join(told)
    ends = [
        end
        for r in runs if r.mounts
        for end in (r.mounts[0].at_m - r.from_m, r.to_m - r.mounts[-1].at_m)
    ]  # fmt: skip
    if ends:
        yield "Longest bare end", format_length(max(ends), unit)


def _details(
    planes: tuple[RackedPlane, ...], ground: Ground, unit: LengthUnit
) -> Iterator[tuple[list[Item], float]]:
    """Yield sheets of sections, two beside each other, and how far down each reaches; at least one."""
    systems: dict[tuple[str, str], MountingSheet] = {}
    for plane in planes:
        if plane.sheet is not None:
            covering = plane.laid.plane.structure.covering
            systems.setdefault((plane.sheet.name, covering.value if covering else ""), plane.sheet)
    drawn = [
        detail
        for (_, covering), one in systems.items()
        for detail in (mount_detail(one, covering, unit), clamp_detail(one, unit))
    ]
    left, top, right, bottom = ground.free
    high, half = HIGH_MM + 16, (right - left) / 2
    rows = max(1, int((bottom - top) / high))
    for first in range(0, max(1, len(drawn)), 2 * rows):
        items: list[Item] = []
        shown = drawn[first : first + 2 * rows]
        for n, detail in enumerate(shown):
            x, y = left + (n % 2) * half, top + (n // 2) * high
            box: Box = (x, y, x + half - 6, y + high)
            items += draw_detail(detail, box)
        yield items, top + -(-len(shown) // 2) * high


def _tables(
    planes: tuple[RackedPlane, ...], views: tuple[PlaneRackingView, ...], unit: LengthUnit
) -> Iterator[Block]:
    """Yield rails, mounts and torques of each plane, cautions, and what is asked."""
    for plane, view in zip(planes, views, strict=True):
        yield Words(f"{view.name}: {view.mounting or 'no mounting system chosen'}", 3.5, bold=True)
        if plane.sheet is None:
            yield Words("Rails and mounts are not planned on this plane.", part="mounting")
            continue
        rows = tuple(
            (
                run.name,
                format_length(run.to_m - run.from_m, unit),
                str(len(run.mounts)),
                ", ".join(format_length(m.at_m - run.from_m, unit) for m in run.mounts),
                f"{format_length(run.bare_left_m, unit)}, {format_length(run.bare_right_m, unit)}",
            )
            for run in view.runs
        )
        yield Table(
            "Rails; mounts run from the left end of each", ("Rail", "Length", "Mounts", "At", "Ends may be bare"),
            rows, (18, 24, 14, 120, 36), tuple("mounting" for _ in rows),
        )  # fmt: skip
        yield _torques(plane.sheet)
        for told in (*CAUTIONS.get(plane.sheet.base, ()), *view.asked, *view.engineer):
            yield Words(told)
    yield Words(NOTHING_HOLDS, bold=True)


def _torques(one: MountingSheet) -> Table:
    rows = tuple(
        (name, "not typed: see the maker’s manual" if nm is None else f"{nm:g} N·m")
        for name, nm in (
            ("Mid clamp", one.torque_mid_nm), ("End clamp", one.torque_end_nm),
            ("Splice", one.torque_splice_nm), ("Mount", one.torque_mount_nm),
        )
    )  # fmt: skip
    return Table("Torques", ("What", "Torque"), rows, (40, 80), ("mounting",) * 4)
