"""The racking of a design: rails, mounts and sticks, by its sheets and by what was typed."""

from dataclasses import replace
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
    Held,
    RailRules,
    RailRun,
    beside_each_other,
    rail_runs,
)
from ridge_tally.core.equipment import sheet_among
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.racking import DesignLoads, MountAim, PlaneRacking, racking_on
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.mounting_sheet import MountBase, MountingSheet, RailLay
from ridge_tally.core.survey.framing import FramingLines, framing_lines
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.rules.build.on_ground import racked_on_ground
from ridge_tally.rules.build.racked import RackedPlane, RackedRun
from ridge_tally.rules.build.span_limits import bare_end_m, span_limit_m, span_missing
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
    up_slope = sheet.rails is RailLay.UP_SLOPE
    framing = framing_lines(laid.plane, corners_m(laid.plane))
    supports, unusable, missing = _supports(laid.plane, sheet, framing)
    supports = tuple(sorted({*supports, *choice.blocking_m})) if supports else supports
    span = {edge: span_limit_m(sheet, choice, loads, at_edge=edge) for edge in (False, True)}
    asked = tuple(filter(None, (missing, span_missing(laid.plane, sheet, loads, span))))
    rail_rules = _rail_rules(sheet, choice, span[False], supports)
    runs = rail_runs(_held(laid, up_slope=up_slope), rail_rules)
    bare = [RackedRun(run, (), (), (0.0, 0.0)) for run in runs]
    if asked or span[False] is None:
        return RackedPlane(
            laid, choice, sheet, up_slope, supports, unusable, tuple(bare), 0, False, asked, None
        )
    if choice.run_on:
        held, most = _held(laid, up_slope=up_slope), sheet.longest_run_m
        for _ in range(len(held)):
            laid_out = rail_runs(held, replace(rail_rules, longest_run_m=most))
            runs = tuple(
                _run_on(laid.plane, run, laid_out, sheet, choice, supports, span, up_slope)
                for run in laid_out
            )
            # Ends that ran on may have made a run too long: it is broken then.
            over = [
                before.length_m
                for before, run in zip(laid_out, runs, strict=True)
                if sheet.longest_run_m is not None and run.length_m > sheet.longest_run_m
            ]
            if not over:
                break
            most = max(over) - 1e-6
        bare = [RackedRun(run, (), (), (0.0, 0.0)) for run in runs]
    lines = tuple(_line(laid.plane, run, sheet, choice, supports, span, up_slope) for run in runs)
    groups = beside_each_other(runs)
    plans = [_planned(tuple(lines[n] for n in group), aim) for group in groups]
    amiss = [_renumbered(p, g) for p, g in zip(plans, groups, strict=True) if isinstance(p, NoPlan)]
    if amiss:
        none = NoPlan(
            tuple(h for p in amiss for h in p.holes),
            tuple(e for p in amiss for e in p.ends),
            tuple(n for p in amiss for n in p.short_of),
        )
        return RackedPlane(
            laid, choice, sheet, up_slope, supports, unusable, tuple(bare), 0, False, (), none
        )
    made = [p for p in plans if isinstance(p, MountPlan)]
    stands = {
        n: at for p, g in zip(made, groups, strict=True) for n, at in zip(g, p.rails, strict=True)
    }
    racked = tuple(_run(run, lines[n], stands[n]) for n, run in enumerate(runs))
    # Two runs of one line in a group have neighbours that are not next to them in it.
    chained = all(len({runs[n].line for n in g}) == len(g) for g in groups)
    return RackedPlane(
        laid, choice, sheet, up_slope, supports, unusable, racked,
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


def _held(laid: LaidArray, *, up_slope: bool) -> list[Held]:
    found = []
    for m in present_of(laid.array):
        width, height = module_footprint_m(laid.module, m.orientation, laid.array.leg_tilt_deg)
        x, y = (m.x_m, m.x_m + width), (m.y_m, m.y_m + height)
        found.append(Held(m.id, *(*y, *x) if up_slope else (*x, *y)))
    return found


def _rail_rules(
    sheet: MountingSheet,
    choice: PlaneRacking,
    span_m: float | None,
    supports_m: tuple[float, ...],
) -> RailRules:
    return RailRules(
        lay=sheet.rails,
        offset_frac=(sheet.clamp_from_frac + sheet.clamp_to_frac) / 2,
        offset_m=None if choice.rail_offset is None else choice.rail_offset.value_m,
        # Until the span is known a rail ends where its modules do.
        bridged_m=sheet.clamp_gap_m * 2 if span_m is None else span_m,
        overhang_m=sheet.overhang_m if choice.overhang is None else choice.overhang.value_m,
        longest_run_m=sheet.longest_run_m,
        run_gap_m=sheet.run_gap_m or 0.0,
        short_m=sheet.least_piece_m,
        supports_m=supports_m,
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
    missing = "" if lines else f"{plane.name}: where do its {what} lie? Survey, “Under it”."
    return lines, unusable, missing


def _line(
    plane: RoofPlane,
    run: RailRun,
    sheet: MountingSheet,
    choice: PlaneRacking,
    supports_m: tuple[float, ...],
    span: dict[bool, float | None],
    up_slope: bool,
) -> RailLine:
    over = tuple(s - run.from_m for s in supports_m if run.from_m - 1e-9 <= s <= run.to_m + 1e-9)
    zones = _zones(plane, run, span[False] or 0.0, span[True] or 0.0, up_slope=up_slope)
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


def _run_on(
    plane: RoofPlane,
    run: RailRun,
    others: tuple[RailRun, ...],
    sheet: MountingSheet,
    choice: PlaneRacking,
    supports_m: tuple[float, ...],
    span: dict[bool, float | None],
    up_slope: bool,
) -> RailRun:
    """Return a run with its ends on the next support where none is near enough: on the roof still,
    and short of the next run on its line."""
    line = _line(plane, run, sheet, choice, supports_m, span, up_slope)
    along = 1 if up_slope else 0
    corners = corners_m(plane)
    low, high = float(corners[:, along].min()), float(corners[:, along].max())
    start, end = run.from_m, run.to_m
    same = [r for r in others if r.line == run.line and r is not run]
    low = max([low, *(r.to_m for r in same if r.to_m <= start + 1e-6)])
    high = min([high, *(r.from_m for r in same if r.from_m >= end - 1e-6)])
    if not any(s <= line.cantilever_m for s in line.supports_m):
        before = [s for s in supports_m if max(low, start - FARTHEST_ON_M) <= s < start]
        start = max(before[-1] - PAST_SUPPORT_M, low) if before else start
    if not any(run.length_m - s <= line.right_m for s in line.supports_m):
        after = [s for s in supports_m if end < s <= min(high, end + FARTHEST_ON_M)]
        end = min(after[0] + PAST_SUPPORT_M, high) if after else end
    return replace(run, from_m=start, to_m=end)


def _zones(
    plane: RoofPlane, run: RailRun, field_m: float, edge_m: float, *, up_slope: bool
) -> tuple[SpanZone, ...]:
    """Return the wind zones a run lies in: the roof's edges by its extremes, along and across."""
    along, across = (1, 0) if up_slope else (0, 1)
    corners = corners_m(plane)
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
