"""The racking of a design: rails, mounts and sticks, by its sheets and by what was typed."""

from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise

from ridge_tally.core.build.racking.mounts import (
    MountPlan,
    NoPlan,
    RailLine,
    SpanZone,
    plan_mounts,
)
from ridge_tally.core.build.racking.rails import (
    Block,
    RailRules,
    RailRun,
    beside_each_other,
    rail_runs,
)
from ridge_tally.core.equipment import sheet_among
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.racking import DesignLoads, MountAim, PlaneRacking, racking_on
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.mounting_sheet import MountBase, MountingSheet, RailLay
from ridge_tally.core.survey.framing import FramingLines, framing_lines
from ridge_tally.core.survey.outline import corners_m, obstruction_box
from ridge_tally.rules.build.on_ground import racked_on_ground
from ridge_tally.rules.build.racked import RackedPlane, RackedRun, held_of
from ridge_tally.rules.build.span_limits import (
    bare_end_m,
    rail_overhang_m,
    span_limit_m,
    span_missing,
)
from ridge_tally.rules.design import Design

# Wind zone at the edges of a roof: at least 3 ft (ASCE 7-16, 30.2; from memory).
EDGE_ZONE_M = 0.9144
SAME_SUPPORT_M = 0.005


def racked_planes(design: Design) -> tuple[RackedPlane, ...]:
    """Return the racking of each plane that carries modules, in the order of the arrays."""
    racking, loads = design.option.racking, design.job.design_loads
    found = []
    for laid in design.arrays:
        if not present_of(laid.array):
            continue
        choice = racking_on(racking, laid.plane.id)
        sheet = None
        if choice.mounting_id is not None:
            sheet = sheet_among(
                design.job.equipment.mountings, choice.mounting_id, "mounting datasheet"
            )
        found.append(_racked(laid, choice, sheet, loads, racking.aim))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class _Bed:
    """What the rails of a plane lie on and are held to; ``asked``: what is not known of it yet."""

    plane: RoofPlane
    sheet: MountingSheet
    choice: PlaneRacking
    up_slope: bool
    supports_m: tuple[float, ...]
    unusable_m: tuple[float, ...]
    blocks: tuple[Block, ...]
    field_m: float
    edge_m: float
    asked: tuple[str, ...]


def _bed(laid: LaidArray, choice: PlaneRacking, sheet: MountingSheet, loads: DesignLoads) -> _Bed:
    plane, up_slope = laid.plane, sheet.rails is RailLay.UP_SLOPE
    supports, unusable, missing = _supports(plane, sheet, framing_lines(plane, corners_m(plane)))
    field, edge = (span_limit_m(sheet, choice, loads, at_edge=at) for at in (False, True))
    return _Bed(
        plane=plane,
        sheet=sheet,
        choice=choice,
        up_slope=up_slope,
        supports_m=tuple(sorted({*supports, *choice.blocking_m})) if supports else supports,
        unusable_m=unusable,
        blocks=blocks_of(plane, up_slope=up_slope),
        # Until the span is known a rail ends where its modules do.
        field_m=sheet.clamp_gap_m * 2 if field is None else field,
        edge_m=edge or 0.0,
        asked=tuple(
            filter(None, (missing, span_missing(plane, sheet, loads, {False: field, True: edge})))
        ),
    )


def blocks_of(plane: RoofPlane, *, up_slope: bool) -> tuple[Block, ...]:
    """Return what stands on a plane as its rails see it."""
    boxes = (obstruction_box(plane, o) for o in plane.obstructions)
    sides = ((b.left_m, b.right_m, b.bottom_m, b.top_m) for b in boxes)
    return tuple(
        Block(y0, y1, x0, x1) if up_slope else Block(x0, x1, y0, y1) for x0, x1, y0, y1 in sides
    )


def _without_mounts(
    laid: LaidArray,
    bed: _Bed,
    runs: tuple[RailRun, ...],
    *,
    asked: tuple[str, ...] = (),
    none: NoPlan | None = None,
) -> RackedPlane:
    bare = tuple(RackedRun(run, (), (), (0.0, 0.0)) for run in runs)
    return RackedPlane(
        laid, bed.choice, bed.sheet, bed.up_slope, bed.supports_m, bed.unusable_m, bare,
        0, False, asked, none,
    )  # fmt: skip


def _runs_of(laid: LaidArray, bed: _Bed) -> tuple[RailRun, ...]:
    """Return the runs of a plane, ends run on where that was chosen, none longer than may be."""
    held, rules, longest = (
        held_of(laid, up_slope=bed.up_slope),
        _rail_rules(bed),
        bed.sheet.longest_run_m,
    )
    if not bed.choice.run_on:
        return rail_runs(held, rules)
    runs: tuple[RailRun, ...] = ()
    for _ in range(len(held)):
        laid_out = rail_runs(held, rules)
        runs = tuple(_run_on(bed, run, laid_out) for run in laid_out)
        # Ends that ran on may have made a run too long: it is broken then.
        over = [
            before.length_m
            for before, run in zip(laid_out, runs, strict=True)
            if longest is not None and run.length_m > longest
        ]
        if not over:
            break
        rules = replace(rules, longest_run_m=max(over) - 1e-6)
    return runs


# Asked by the checks, by the drawing and by the lists of one revision.
@lru_cache(maxsize=64)
def _racked(
    laid: LaidArray,
    choice: PlaneRacking,
    sheet: MountingSheet | None,
    loads: DesignLoads,
    aim: MountAim,
) -> RackedPlane:
    if sheet is None:
        told = f"{laid.plane.name}: choose a mounting system."
        return RackedPlane(laid, choice, None, False, (), (), (), 0, False, (told,), None)
    if sheet.base is MountBase.PILE:
        return racked_on_ground(laid, choice, sheet, loads)
    bed = _bed(laid, choice, sheet, loads)
    if bed.asked:
        runs = rail_runs(held_of(laid, up_slope=bed.up_slope), _rail_rules(bed))
        return _without_mounts(laid, bed, runs, asked=bed.asked)
    runs = _runs_of(laid, bed)
    lines = tuple(_line(bed, run) for run in runs)
    groups = beside_each_other(runs)
    plans = [_planned(tuple(lines[n] for n in group), aim) for group in groups]
    amiss = [_renumbered(p, g) for p, g in zip(plans, groups, strict=True) if isinstance(p, NoPlan)]
    if amiss:
        none = NoPlan(
            tuple(h for p in amiss for h in p.holes),
            tuple(e for p in amiss for e in p.ends),
            tuple(n for p in amiss for n in p.short_of),
        )
        return _without_mounts(laid, bed, runs, none=none)
    made = [p for p in plans if isinstance(p, MountPlan)]
    stands = {
        n: at for p, g in zip(made, groups, strict=True) for n, at in zip(g, p.rails, strict=True)
    }
    racked = tuple(_run(run, lines[n], stands[n]) for n, run in enumerate(runs))
    # Two runs of one line in a group have neighbours that are not next to them in it.
    chained = all(len({runs[n].line for n in g}) == len(g) for g in groups)
    return RackedPlane(
        laid, choice, sheet, bed.up_slope, bed.supports_m, bed.unusable_m, racked,
        sum(p.shared for p in made), chained and all(p.proven for p in made), (), None,
    )  # fmt: skip


def _renumbered(plan: NoPlan, group: tuple[int, ...]) -> NoPlan:
    return NoPlan(
        tuple(replace(h, rail=group[h.rail]) for h in plan.holes),
        tuple(replace(e, rail=group[e.rail]) for e in plan.ends),
        tuple(group[n] for n in plan.short_of),
    )


@lru_cache(maxsize=256)
def _planned(lines: tuple[RailLine, ...], aim: MountAim) -> MountPlan | NoPlan:
    return plan_mounts(lines, aim)


def _run(run: RailRun, line: RailLine, at: tuple[int, ...]) -> RackedRun:
    mounts = tuple(run.from_m + line.supports_m[i] for i in at)
    limits = tuple(
        min(
            z.limit_m
            for z in line.zones
            if a - run.from_m < z.to_m - 1e-6 and b - run.from_m > z.from_m + 1e-6
        )
        for a, b in pairwise(mounts)
    )
    return RackedRun(run, mounts, limits, (line.cantilever_m, line.right_m))


def _rail_rules(bed: _Bed) -> RailRules:
    sheet, choice = bed.sheet, bed.choice
    return RailRules(
        lay=sheet.rails,
        offset_frac=(sheet.clamp_from_frac + sheet.clamp_to_frac) / 2,
        offset_m=None if choice.rail_offset is None else choice.rail_offset.value_m,
        bridged_m=bed.field_m,
        overhang_m=rail_overhang_m(sheet, choice),
        longest_run_m=sheet.longest_run_m,
        run_gap_m=sheet.run_gap_m or 0.0,
        short_m=sheet.least_piece_m,
        supports_m=bed.supports_m,
        rails_a_row=choice.rails_a_row,
        blocks=bed.blocks,
    )


def _supports(
    plane: RoofPlane, sheet: MountingSheet, framing: FramingLines
) -> tuple[tuple[float, ...], tuple[float, ...], str]:
    """Return what mounts may stand on, what they may not, and what is not known of it yet."""
    match sheet.base:
        case MountBase.RAFTER:
            lines, unusable, what = framing.rafters_x_m, framing.unusable_x_m, "rafters"
        case MountBase.SEAM:
            lines, unusable, what = framing.ribs_x_m, (), "seams"
        case MountBase.RIB:
            lines, unusable, what = framing.ribs_x_m, (), "ribs"
        case MountBase.PURLIN:
            lines, unusable, what = framing.purlins_y_m, (), "purlins"
        case MountBase.PILE:
            return (), (), f"{plane.name}: piles stand in the ground, not on a roof."
    missing = (
        "" if lines else f"{plane.name}: where do its {what} lie? Say it under “What I found”."
    )
    return lines, unusable, missing


def _line(bed: _Bed, run: RailRun) -> RailLine:
    sheet, choice = bed.sheet, bed.choice
    over = tuple(
        s - run.from_m for s in bed.supports_m if run.from_m - 1e-9 <= s <= run.to_m + 1e-9
    )
    zones = _zones(bed, run)
    pinned = {
        index
        for pin in choice.pins
        if pin.rail == run.line
        for index, s in enumerate(over)
        if abs(s + run.from_m - pin.at_m) <= SAME_SUPPORT_M
    }
    left, right = (bare_end_m(sheet, choice, z.limit_m) for z in (zones[0], zones[-1]))
    of_actual = sheet.cantilever_frac if sheet.cantilever_of_actual else None
    if choice.bare_end is not None:
        of_actual = None
    return RailLine(run.length_m, over, zones, left, of_actual, 2, frozenset(pinned), right)


# How far an end may run on to the next support, and how far past it.
FARTHEST_ON_M, PAST_SUPPORT_M = 0.6, 0.03


def _run_on(bed: _Bed, run: RailRun, others: tuple[RailRun, ...]) -> RailRun:
    """Return a run with its ends on the next support where none is near enough: on the roof still,
    short of the next run on its line and of what stands there."""
    line, supports_m = _line(bed, run), bed.supports_m
    corners = corners_m(bed.plane)[:, 1 if bed.up_slope else 0]
    low, high = float(corners.min()), float(corners.max())
    start, end = run.from_m, run.to_m
    same = [r for r in others if r.line == run.line and r is not run]
    there = [b for b in bed.blocks if b.low_m < run.across_m < b.high_m]
    in_the_way = [(r.from_m, r.to_m) for r in same] + [(b.from_m, b.to_m) for b in there]
    before_it = [right for _, right in in_the_way if right <= start + 1e-6]
    after_it = [left for left, _ in in_the_way if left >= end - 1e-6]
    low, high = max([low, *before_it]), min([high, *after_it])
    if not any(s <= line.cantilever_m for s in line.supports_m):
        before = [s for s in supports_m if max(low, start - FARTHEST_ON_M) <= s < start]
        start = max(before[-1] - PAST_SUPPORT_M, low) if before else start
    if not any(run.length_m - s <= line.right_m for s in line.supports_m):
        after = [s for s in supports_m if end < s <= min(high, end + FARTHEST_ON_M)]
        end = min(after[0] + PAST_SUPPORT_M, high) if after else end
    return replace(run, from_m=start, to_m=end)


def _zones(bed: _Bed, run: RailRun) -> tuple[SpanZone, ...]:
    """Return the wind zones a run lies in: the roof's edges by its extremes, along and across."""
    along, across = (1, 0) if bed.up_slope else (0, 1)
    field_m, edge_m, corners = bed.field_m, bed.edge_m, corners_m(bed.plane)
    low, high = corners.min(axis=0), corners.max(axis=0)
    length = run.length_m
    if edge_m >= field_m:
        return (SpanZone(0.0, length, field_m),)
    near = run.across_m - low[across] < EDGE_ZONE_M or high[across] - run.across_m < EDGE_ZONE_M
    if near:
        return (SpanZone(0.0, length, edge_m),)
    left = min(max(float(low[along]) + EDGE_ZONE_M - run.from_m, 0.0), length)
    right = min(max(float(high[along]) - EDGE_ZONE_M - run.from_m, left), length)
    zones = (
        SpanZone(0.0, left, edge_m),
        SpanZone(left, right, field_m),
        SpanZone(right, length, edge_m),
    )
    return tuple(z for z in zones if z.to_m - z.from_m > 1e-6)
