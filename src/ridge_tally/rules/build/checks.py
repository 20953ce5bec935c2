"""What racking is held to: screened against typed and makers' limits, never a proof that it holds."""

from collections.abc import Iterator

from ridge_tally.core.working import (
    Check,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    check,
)
from ridge_tally.rules.build.fit import fit_checks
from ridge_tally.rules.build.forces import force_checks
from ridge_tally.rules.build.racked import RackedPlane, RackedRun, weight_kg
from ridge_tally.rules.build.racking import blocks_of, racked_planes
from ridge_tally.rules.build.sources import GEOMETRY, SHEET, TYPED
from ridge_tally.rules.build.trench import trench_checks
from ridge_tally.rules.design import Design
from ridge_tally.rules.equipment.sheet import GROUND

# 5 psf: past it an engineer looks at the roof.
HEAVIEST_KG_PER_M2 = 24.4
WEIGHT = Source("added weight on a roof", "5 psf", SourceStatus.COMMON_PRACTICE)


def build_checks(design: Design) -> tuple[Check, ...]:
    """Return the checks of each plane that has its mounting system; none where nobody chose one."""
    return tuple(
        c
        for plane in racked_planes(design)
        if plane.sheet is not None
        for c in _checks(design, plane)
    )


def _checks(design: Design, plane: RackedPlane) -> Iterator[Check]:
    yield _covering(plane)
    yield _mounted(plane)
    if plane.asked:
        return
    yield _clear(plane)
    if plane.no_plan is not None:
        return
    yield _span(plane)
    yield _bare_end(plane)
    if plane.sheet is not None and plane.sheet.longest_run_m is not None:
        yield _longest_run(plane, plane.sheet.longest_run_m)
    yield from _clamp_zone(plane)
    yield from fit_checks(design, plane)
    yield from trench_checks(design.job, plane)
    weight = weight_kg(plane)
    if weight is not None and plane.ground is None:
        yield _weight(plane, weight)
        yield from force_checks(design.job, plane)


def made_for(plane: RackedPlane) -> bool | None:
    """Return whether a plane's system is made for what it lies on; ``None`` while that is not known."""
    roof = plane.laid.plane
    covering = roof.structure.covering
    if plane.sheet is None or (roof.ground is None and covering is None):
        return None
    surface = GROUND if covering is None or roof.ground is not None else covering.value
    return surface in plane.sheet.coverings


def _covering(plane: RackedPlane) -> Check:
    sheet, made = plane.sheet, made_for(plane)
    assert sheet is not None
    fits = None if made is None else float(made)
    return check(
        rule_id="build.covering",
        title="Made for this roof",
        subject=plane.laid.plane.name,
        kind=LimitKind.STOP,
        formula="fits",
        givens=(
            Given("fits", "covering is one it is made for (1) or not (0)", fits, "", "survey"),
        ),
        value=fits,
        symbol="fits",
        unit="",
        relation=">=",
        limit=Given("fits_least", "is one it is made for", 1.0, "", sheet.name),
        source=SHEET,
        reason="Not checked: what the roof is covered with. Survey, “Structure”, or Build, “What I found”."
        if fits is None
        else "",
        graded=False,
    )


def _mounted(plane: RackedPlane) -> Check:
    return _none_of(
        plane,
        "build.mounted",
        "Rails without mounts",
        Given(
            "n_bare",
            "rails no set of mounts can hold",
            None if plane.asked else float(sum(not r.mounts_m for r in plane.runs)),
            "",
            "Build",
        ),
        reason=f"Not checked. {plane.asked[0]}" if plane.asked else "",
    )


def _clear(plane: RackedPlane) -> Check:
    """A rail breaks before what stands on the roof; a pin, a run-on or an overhang may not see it."""
    blocks = blocks_of(plane.laid.plane, up_slope=plane.up_slope)
    through = sum(
        any(b.crosses(r.run.across_m, r.run.from_m, r.run.to_m) for b in blocks) for r in plane.runs
    )
    count = Given("n_through", "rails through an obstruction", float(through), "", "Build")
    return _none_of(plane, "build.clear", "Rails into what stands there", count)


def _none_of(plane: RackedPlane, rule_id: str, title: str, count: Given, reason: str = "") -> Check:
    """Return the check that there is none of something on a plane."""
    return check(
        rule_id=rule_id,
        title=title,
        subject=plane.laid.plane.name,
        kind=LimitKind.STOP,
        formula=count.symbol,
        givens=(count,),
        value=count.value,
        symbol=count.symbol,
        unit="",
        relation="<=",
        limit=Given("n_most", count.label, 0.0, "", "geometry"),
        source=GEOMETRY,
        reason=reason,
        graded=False,
    )


def _limit_source(plane: RackedPlane, *, typed: bool) -> tuple[Source, str]:
    if typed:
        return TYPED, "typed"
    return SHEET, "" if plane.sheet is None else plane.sheet.name


def _span(plane: RackedPlane) -> Check:
    """The span nearest to its limit; the planner keeps all, what was pinned may not."""
    spans = (
        (r, n, span, limit)
        for r in plane.runs
        for n, (span, limit) in enumerate(zip(r.spans_m, r.limits_m, strict=True))
    )
    run, at, span, limit = max(spans, key=lambda s: s[2] / s[3])
    source, origin = _limit_source(plane, typed=plane.choice.span is not None)
    return check(
        rule_id="build.span",
        title="Span between mounts",
        subject=plane.laid.plane.name,
        kind=LimitKind.OUTSIDE,
        formula="x_right - x_left",
        givens=(
            Given("x_right", "mount to the right", run.mounts_m[at + 1], "m", "Build"),
            Given("x_left", "mount to the left", run.mounts_m[at], "m", "Build"),
        ),
        value=span,
        symbol="span",
        unit="m",
        relation="<=",
        limit=Given("span_most", "longest span there", limit, "m", origin),
        source=source,
    )


def _bare_end(plane: RackedPlane) -> Check:
    ends = ((r, k, r.bare_ends_m[k], r.bare_limits_m[k]) for r in plane.runs for k in (0, 1))

    def share(end: tuple[RackedRun, int, float, float]) -> float:
        return end[2] / end[3] if end[3] > 0 else float("inf")

    run, side, bare, limit = max(ends, key=share)
    outer, inner = (
        (run.mounts_m[0], run.run.from_m) if side == 0 else (run.run.to_m, run.mounts_m[-1])
    )
    source, origin = _limit_source(plane, typed=plane.choice.bare_end is not None)
    return check(
        rule_id="build.bare-end",
        title="Bare end of a rail",
        subject=plane.laid.plane.name,
        kind=LimitKind.OUTSIDE,
        formula="x_far - x_near",
        givens=(
            Given("x_far", "end or mount to the right", outer, "m", "Build"),
            Given("x_near", "mount or end to the left", inner, "m", "Build"),
        ),
        value=bare,
        symbol="bare",
        unit="m",
        relation="<=",
        limit=Given("bare_most", "longest bare end there", limit, "m", origin),
        source=source,
    )


def _longest_run(plane: RackedPlane, most_m: float) -> Check:
    run = max((r.run for r in plane.runs), key=lambda r: r.length_m)
    return check(
        rule_id="build.run",
        title="Run of rail",
        subject=plane.laid.plane.name,
        kind=LimitKind.OUTSIDE,
        formula="x_to - x_from",
        givens=(
            Given("x_to", "end of the longest run", run.to_m, "m", "Build"),
            Given("x_from", "its start", run.from_m, "m", "Build"),
        ),
        value=run.length_m,
        symbol="run",
        unit="m",
        relation="<=",
        limit=Given(
            "run_most", "longest run", most_m, "m", plane.sheet.name if plane.sheet else ""
        ),
        source=SHEET,
    )


def _clamp_zone(plane: RackedPlane) -> Iterator[Check]:
    """A typed place of the rail; the middle of the zone is in it by itself."""
    offset, sheet = plane.choice.rail_offset, plane.sheet
    if offset is None or sheet is None:
        return
    long_m = plane.laid.module.long_m
    sides = (
        ("build.clamp-from", "Rail in the clamp zone, from the edge", ">=", sheet.clamp_from_frac),
        ("build.clamp-to", "Rail in the clamp zone, to the middle", "<=", sheet.clamp_to_frac),
    )
    for rule_id, title, relation, frac in sides:
        yield check(
            rule_id=rule_id,
            title=title,
            subject=plane.laid.plane.name,
            kind=LimitKind.OUTSIDE,
            formula="d_rail",
            givens=(Given("d_rail", "rail from the module's edge", offset.value_m, "m", "typed"),),
            value=offset.value_m,
            symbol="d_rail",
            unit="m",
            relation=">=" if relation == ">=" else "<=",
            limit=Given(
                "d_zone", f"{frac * 100:g} % of the long side", frac * long_m, "m", sheet.name
            ),
            source=SHEET,
        )


def _weight(plane: RackedPlane, weight: float) -> Check:
    return check(
        rule_id="build.weight",
        title="Added weight",
        subject=plane.laid.plane.name,
        kind=LimitKind.OUTSIDE,
        formula="m_all / a_all",
        givens=(
            Given("m_all", "modules, rails and mounts", weight, "kg", "datasheets"),
            Given("a_all", "area of the modules", plane.modules_area_m2, "m²", "datasheet"),
        ),
        value=weight / plane.modules_area_m2,
        symbol="m_area",
        unit="kg/m²",
        relation="<=",
        limit=Given(
            "m_most", "past which an engineer looks", HEAVIEST_KG_PER_M2, "kg/m²", "practice"
        ),
        source=WEIGHT,
    )
