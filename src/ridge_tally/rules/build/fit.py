"""Whether modules and rails are such as the mounting system is made for: frames, sides, heat."""

from collections.abc import Iterator
from itertools import pairwise

from ridge_tally.core.build.racking.growth import GROWTH_PER_K, growth_m
from ridge_tally.core.job.array import Orientation, present_of
from ridge_tally.core.mounting_sheet import MountingSheet, RailLay
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.sources import SHEET
from ridge_tally.rules.design import Design

HEAT = Source("length by heat", "handbook coefficients, from memory", SourceStatus.FROM_MEMORY)
# Between runs past what they grow; common practice, no source.
CLEAR_M = 0.003
# Runs of a line nearer than this were one run, broken because it was too long.
BROKEN_M = 0.1


def fit_checks(design: Design, plane: RackedPlane) -> Iterator[Check]:
    """Yield what frames, clamped sides and gaps between runs are held to; none without a system."""
    sheet = plane.sheet
    if sheet is None:
        return
    yield from _frames(plane, sheet)
    yield from _short_sides(plane, sheet)
    yield from _growth(design, plane, sheet)


def _frames(plane: RackedPlane, sheet: MountingSheet) -> Iterator[Check]:
    module = plane.laid.module
    missing = "" if module.frame_m else f"Not checked: {module.name} has no height of its frame."
    sides = (
        ("build.frame-least", "Thinnest frame its clamps hold", ">=", sheet.frame_least_m),
        ("build.frame-most", "Thickest frame its clamps hold", "<=", sheet.frame_most_m),
    )
    for rule_id, title, relation, limit_m in sides:
        if limit_m is None:
            continue
        yield check(
            rule_id=rule_id,
            title=title,
            subject=plane.laid.plane.name,
            kind=LimitKind.OUTSIDE,
            formula="h_frame",
            givens=(Given("h_frame", "height of the frame", module.frame_m, "m", module.name),),
            value=module.frame_m,
            symbol="h_frame",
            unit="m",
            relation=">=" if relation == ">=" else "<=",
            limit=Given("h_clamp", title.lower(), limit_m, "m", sheet.name),
            source=SHEET,
            reason=missing,
            graded=False,
        )


def clamped_short(plane: RackedPlane) -> int:
    """Return how many modules clamps hold by their short sides.

    Clamps grip the sides a rail crosses; over a shared rail those along it.
    """
    if plane.sheet is None:
        return 0
    along_rails = plane.sheet.rails is RailLay.SHARED
    # Of a module on end, rails along the eave cross the long sides.
    crosses_long = Orientation.LANDSCAPE if plane.up_slope else Orientation.PORTRAIT
    return sum((m.orientation is crosses_long) == along_rails for m in present_of(plane.laid.array))


def _short_sides(plane: RackedPlane, sheet: MountingSheet) -> Iterator[Check]:
    count = clamped_short(plane)
    if count == 0 or plane.ground is not None:
        return
    yield check(
        rule_id="build.short-sides",
        title="Modules clamped by their short sides",
        subject=plane.laid.plane.name,
        kind=LimitKind.OUTSIDE,
        formula="n_short",
        givens=(Given("n_short", "modules held by short sides", float(count), "", "Build"),),
        value=float(count),
        symbol="n_short",
        unit="",
        relation="<=",
        limit=Given(
            "n_rated",
            "that may be",
            None if sheet.short_sides is None else float(count if sheet.short_sides else 0),
            "",
            sheet.name,
        ),
        source=SHEET,
        reason=f"Not checked: {sheet.name} does not say whether short sides may be clamped."
        if sheet.short_sides is None
        else "",
        graded=False,
    )


def _growth(design: Design, plane: RackedPlane, sheet: MountingSheet) -> Iterator[Check]:
    """The gap between two runs of a line that was broken, against what they grow by."""
    runs = sorted((r.run for r in plane.runs), key=lambda r: (r.line, r.from_m))
    broken = [
        (a, b)
        for a, b in pairwise(runs)
        if a.line == b.line and b.from_m - a.to_m < BROKEN_M and sheet.rails is not RailLay.SHORT
    ]
    if not broken:
        return
    left, right = max(broken, key=lambda pair: pair[0].length_m + pair[1].length_m)
    # Each is held near its middle: half of either grows into the gap.
    length = (left.length_m + right.length_m) / 2
    hot, cold = design.hottest_cell, design.coldest
    grown = None
    if hot.value is not None and cold.value is not None:
        grown = growth_m(length, hot.value - cold.value, sheet.rail_metal)
    yield check(
        rule_id="build.growth",
        title="Gap between runs of rail",
        subject=plane.laid.plane.name,
        kind=LimitKind.OUTSIDE,
        formula="alpha * l * (t_hot - t_cold) + c",
        givens=(
            Given("alpha", f"growth of {sheet.rail_metal}", GROWTH_PER_K[sheet.rail_metal], "1/K",
                  "handbooks, from memory"),
            Given("l", "half of both runs", length, "m", "Build"),
            Given("t_hot", "rail, no hotter than the cells over it", hot.value, "°C", hot.origin),
            Given("t_cold", "coldest air", cold.value, "°C", cold.origin),
            Given("c", "left beside it", CLEAR_M, "m", "common practice"),
        ),
        value=None if grown is None else grown + CLEAR_M,
        symbol="g_least",
        unit="m",
        relation="<=",
        limit=Given("g", "gap there is", right.from_m - left.to_m, "m", "Build"),
        source=HEAT,
    )  # fmt: skip
