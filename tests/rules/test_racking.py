"""Racking of a whole design: limits at, inside and past their edge, and what planner and saw agree on."""

from dataclasses import replace
from itertools import pairwise

import pytest

from jobs import SHELF, option_a
from racked import (
    BARE,
    FOOT,
    MOUNTED,
    RACKED,
    SOUTH,
    A,
    check_of,
    design_of,
    plane_of,
    typed,
    with_sheet,
)
from ridge_tally.core.build.racking.cutting import CutPlan
from ridge_tally.core.job.edits.build.racking import (
    ChooseMounting,
    DesignLoadField,
    PinMount,
    RackingEdit,
    RackingField,
    SetBlocking,
    SetCrewRate,
    SetDesignLoad,
    SetMountAim,
    SetOffcuts,
    SetRackingField,
    SetRunOn,
)
from ridge_tally.core.job.edits.survey.obstructions import (
    SetFoundRafters,
    SetStructure,
    StructureField,
)
from ridge_tally.core.job.edits.survey.planes import RemovePlane
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.racking import CrewTask, MountAim
from ridge_tally.core.mounting_sheet import MountingId, MountingSheet, SpanLimit, StockLength
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.rules.build.checks import build_checks
from ridge_tally.rules.build.hours import crew_hours
from ridge_tally.rules.build.racking import EDGE_ZONE_M, racked_planes
from ridge_tally.rules.build.sawing import costly_rules, sawn
from ridge_tally.rules.build.span_limits import span_limit_m
from ridge_tally.studies.build.mends import mends_of


def test_nothing_is_checked_until_a_system_is_chosen() -> None:
    assert build_checks(design_of(BARE)) == ()
    (plane,) = racked_planes(design_of(BARE))
    assert plane.asked == ("South roof: choose a mounting system.",)


def test_what_is_not_known_is_asked_and_never_passed() -> None:
    bare = apply_edit(BARE, ChooseMounting(A, SOUTH, FOOT), SHELF)
    assert "wind and ground snow not known" in plane_of(bare).asked[0]
    mounted = check_of(bare, "build.mounted")
    assert (mounted.verdict, mounted.kind) == (Verdict.NOT_CHECKED, LimitKind.STOP)
    assert "wind and ground snow" in mounted.reason
    # Wind past the last row of the table: nobody reads off it.
    storm = apply_edit(RACKED, SetDesignLoad(DesignLoadField.WIND, "150 mph", ""), SHELF)
    assert "ends below this wind" in plane_of(storm).asked[0]
    # A typed span is a span; the wind is whoever's typed it.
    assert plane_of(typed(storm, RackingField.SPAN, "4'")).asked == ()


@pytest.mark.parametrize(
    ("wind", "snow", "span"),
    [(41.9, 499, 1.8), (42, 500, 1.8), (42.1, 500, 1.2), (42, 501, 1.1), (54, 1500, 1.0),
     (54.1, 1500, None), (54, 1501, None)],
)  # fmt: skip
def test_the_maker_s_table_at_inside_and_past_its_rows(
    wind: float, snow: float, span: float | None
) -> None:
    rows = [(42, 500, 1.8), (54, 500, 1.2), (42, 1500, 1.1), (54, 1500, 1.0)]
    table = tuple(SpanLimit(w, s, at_edge=False, span_m=m) for w, s, m in rows)
    sheet: MountingSheet = replace(SHELF.mounting(FOOT), spans=table)
    job = replace(
        RACKED,
        design_loads=replace(RACKED.design_loads, wind_m_per_s=wind, ground_snow_pa=snow),
    )
    choice = plane_of(RACKED).choice
    assert span_limit_m(sheet, choice, job.design_loads, at_edge=False) == span


def test_every_mount_stands_on_a_rafter_within_span_and_bare_end() -> None:
    plane = plane_of(MOUNTED)
    assert plane.no_plan is None
    rafters = [0.2794 + 0.6096 * n for n in range(20)]
    for r in plane.runs:
        assert all(min(abs(x - f) for f in rafters) < 1e-3 for x in r.mounts_m)
        assert all(s <= limit + 1e-6 for s, limit in zip(r.spans_m, r.limits_m, strict=True))
        assert all(b <= m + 1e-6 for b, m in zip(r.bare_ends_m, r.bare_limits_m, strict=True))
    # By hand: within 3 ft of the eave no span is over 32", so that every rafter at 24" is taken.
    eave = next(r for r in plane.runs if r.run.line == 0)
    assert eave.run.across_m < EDGE_ZONE_M
    assert len(eave.mounts_m) == 20


def test_sticks_hold_every_rail_to_the_tenth_of_a_millimetre() -> None:
    design = design_of(MOUNTED)
    planes = racked_planes(design)
    *_, (sawing,) = sawn(design, planes)
    plan = sawing.plan
    assert isinstance(plan, CutPlan)
    cut = sum(p.length for s in plan.sticks for p in s.pieces)
    laid = sum(round(r.run.length_m * 10_000) for r in planes[0].runs)
    assert cut == laid


def test_offcuts_at_hand_come_off_what_is_bought() -> None:
    offcuts = apply_edit(MOUNTED, SetOffcuts(A, "12'; 12'"), SHELF)
    bought = []
    for job in (MOUNTED, offcuts):
        design = design_of(job)
        *_, (sawing,) = sawn(design, racked_planes(design))
        assert isinstance(sawing.plan, CutPlan)
        bought.append(sawing.plan.cost)
    assert bought[1] < bought[0]


@pytest.mark.parametrize(("span", "verdict"), [("2'", Verdict.KEPT), ("4'", Verdict.KEPT)])
def test_a_typed_span_is_the_limit_everywhere(span: str, verdict: Verdict) -> None:
    check = check_of(typed(MOUNTED, RackingField.SPAN, span), "build.span")
    assert check.verdict is verdict
    assert check.limit.origin == "typed"


def test_a_span_shorter_than_the_rafters_are_apart_cannot_be_mounted() -> None:
    plane = plane_of(typed(MOUNTED, RackingField.SPAN, '23 1/2"'))
    assert plane.no_plan is not None
    assert plane.no_plan.holes
    mounted = check_of(typed(MOUNTED, RackingField.SPAN, '23 1/2"'), "build.mounted")
    assert mounted.verdict is Verdict.BROKEN
    assert mounted.value.value == len(plane.runs)


@pytest.mark.parametrize(
    ("typed_in", "broken"),
    # The sheet's zone is 12.5 to 25 % of 1.722 m: 215.25 to 430.5 mm.
    [("215 mm", "build.clamp-from"), ("216 mm", ""), ("430 mm", ""), ("431 mm", "build.clamp-to")],
)
def test_a_typed_rail_at_the_edges_of_the_clamp_zone(typed_in: str, broken: str) -> None:
    job = typed(MOUNTED, RackingField.RAIL_OFFSET, typed_in)
    off = [c.rule_id for c in build_checks(design_of(job)) if c.verdict is Verdict.BROKEN]
    assert off == ([broken] if broken else [])


@pytest.mark.parametrize(("longest", "runs"), [(11.68, 1), (11.65, 2), (6.0, 2)])
def test_runs_longer_than_may_be_are_broken_their_ends_run_on_included(
    longest: float, runs: int
) -> None:
    # The lowest row: 10 modules, 11.62 m, its ends on rafters 1 and 20: 11.67 m.  Where a rail is
    # broken a rafter lies 0.33 m off: half of the span at the eave, 0.41 m, reaches it.
    job = with_sheet(MOUNTED, longest_run_m=longest, cantilever_frac=0.5)
    plane = plane_of(job)
    eave = [r.run for r in plane.runs if r.run.line == 0]
    assert len(eave) == runs
    assert all(a.to_m <= b.from_m for a, b in pairwise(eave))
    check = check_of(job, "build.run")
    assert check.verdict is Verdict.KEPT
    assert number(check) <= longest


def number(check: Check) -> float:
    assert check.value.value is not None
    return check.value.value


@pytest.mark.parametrize(
    ("covering", "verdict"),
    [("shingle", Verdict.KEPT), ("tile", Verdict.BROKEN), ("", Verdict.NOT_CHECKED)],
)
def test_a_system_is_made_for_the_roof_or_a_stop(covering: str, verdict: Verdict) -> None:
    job = apply_edit(MOUNTED, SetStructure(SOUTH, StructureField.COVERING, covering), SHELF)
    check = check_of(job, "build.covering")
    assert (check.verdict, check.kind) == (verdict, LimitKind.STOP)


@pytest.mark.parametrize(
    ("extra_kg", "verdict"),
    [(-0.01, Verdict.KEPT), (0.0, Verdict.KEPT), (0.01, Verdict.BROKEN)],
)
def test_added_weight_at_the_line_past_which_an_engineer_looks(
    extra_kg: float, verdict: Verdict
) -> None:
    # Mounts made so heavy that the sum comes to 24.4 kg/m²; by hand from the sheet's figures.
    plane = plane_of(MOUNTED)
    module = plane.laid.module
    area = 28 * module.long_m * module.short_m
    rails = sum(r.run.length_m for r in plane.runs) * 0.95
    mounts = sum(len(r.mounts_m) for r in plane.runs)
    each = (24.4 * area - rails - 28 * module.mass_kg) / mounts + extra_kg
    assert check_of(with_sheet(MOUNTED, mount_kg=each), "build.weight").verdict is verdict


LOADED = apply_edits(
    MOUNTED,
    [
        SetDesignLoad(DesignLoadField.EXPOSURE, "C", "map"),
        SetDesignLoad(DesignLoadField.ROOF_HEIGHT, "12'", "taped"),
        SetDesignLoad(DesignLoadField.GCP_FIELD, "-1.8", "own table"),
        SetDesignLoad(DesignLoadField.GCP_EDGE, "-2.5", "own table"),
        SetDesignLoad(DesignLoadField.WOOD, "0.50", "grader"),
    ],
    SHELF,
)


def test_the_pull_on_the_worst_mount_is_the_one_reckoned_by_hand() -> None:
    # 115 mph, Kz 0.85 (exposure C to 15 ft), Kd 0.85, at 2150 m e^(-0.0000362 × 7054) = 0.775:
    # 0.00256 × 0.85 × 0.85 × 0.775 × 115² = 19.0 psf.  4 ft of rail and half a module, 2.82 ft:
    # 11.3 sq ft, factor 1.2 - 0.4 lg 11.3 = 0.779.  Pull 19.0 × 1.8 × 1.5 × 0.779 × 11.3 = 451 lb;
    # 2.65 psf hold 29.9 lb.  0.6 × 451 - 0.6 × 29.9 × cos 26.57° = 254 lb.
    check = check_of(LOADED, "build.uplift")
    assert number(check) * 0.2248089 == pytest.approx(254, abs=3)
    # 0.50: 266 lb an inch, 2.5 in of thread, 1.6 for wind: 1064 lb.
    assert number(check_of(LOADED, "build.withdrawal")) == pytest.approx(254 / 1064, abs=0.004)


@pytest.mark.parametrize(
    ("room_n", "verdict"), [(-0.1, Verdict.BROKEN), (0.0, Verdict.KEPT), (0.1, Verdict.KEPT)]
)
def test_pull_at_what_a_mount_may_be_pulled_with(room_n: float, verdict: Verdict) -> None:
    pull = number(check_of(LOADED, "build.uplift"))
    check = check_of(with_sheet(LOADED, mount_limit_n=pull + room_n), "build.uplift")
    assert (check.verdict, check.kind) == (verdict, LimitKind.STOP)


@pytest.mark.parametrize(("longer", "verdict"), [(0.999, Verdict.BROKEN), (1.001, Verdict.KEPT)])
def test_threads_at_what_the_wood_is_reckoned_with(longer: float, verdict: Verdict) -> None:
    use = number(check_of(LOADED, "build.withdrawal"))
    job = with_sheet(LOADED, thread_m=0.0635 * use * longer)
    assert check_of(job, "build.withdrawal").verdict is verdict


def test_a_pull_nobody_can_reckon_is_not_checked_and_says_what_is_missing() -> None:
    for field, missing in (
        (DesignLoadField.GCP_EDGE, "GCp at the edge"),
        (DesignLoadField.EXPOSURE, "exposure"),
    ):
        check = check_of(apply_edit(LOADED, SetDesignLoad(field, "", ""), SHELF), "build.uplift")
        assert check.verdict is Verdict.NOT_CHECKED
        assert missing in check.reason
    # Above 60 ft the formula serves no longer: the job opens all the same.
    high = apply_edit(LOADED, SetDesignLoad(DesignLoadField.ROOF_HEIGHT, "61'", ""), SHELF)
    assert "engineer" in check_of(high, "build.uplift").reason


def test_a_mount_pinned_stays_and_all_limits_are_kept_round_it() -> None:
    rail = next(r for r in plane_of(MOUNTED).runs if r.run.line == 2)
    free = next(
        x
        for x in plane_of(MOUNTED).supports_m[1:-1]
        if all(abs(x - m) > 0.01 for m in rail.mounts_m)
    )
    pinned = apply_edit(MOUNTED, PinMount(A, SOUTH, 2, free), SHELF)
    after = next(r for r in plane_of(pinned).runs if r.run.line == 2)
    assert min(abs(free - m) for m in after.mounts_m) < 1e-6
    assert check_of(pinned, "build.span").verdict is Verdict.KEPT
    let_go = apply_edit(pinned, PinMount(A, SOUTH, 2, None, free), SHELF)
    assert plane_of(let_go).runs == plane_of(MOUNTED).runs


def test_rafters_as_found_take_the_place_of_even_spacing() -> None:
    found = "; ".join(f'{11 + 24 * n + (1 if n == 7 else 0)}"' for n in range(20)) + " x; 40'"
    job = apply_edit(MOUNTED, SetFoundRafters(SOUTH, found), SHELF)
    plane = plane_of(job)
    assert len(plane.supports_m) == 20
    # 11 + 7 × 24 + 1 in.
    assert plane.supports_m[7] == pytest.approx(180 * 0.0254, abs=1e-4)
    assert plane.unusable_m == (pytest.approx((11 + 24 * 19) * 0.0254, abs=1e-4),)


def test_best_spread_shares_no_more_supports_than_the_fewest() -> None:
    spread = apply_edit(MOUNTED, SetMountAim(A, MountAim.SPREAD), SHELF)
    assert plane_of(spread).shared <= plane_of(MOUNTED).shared


def test_each_way_out_of_a_bare_end_mounts_every_rail() -> None:
    plane = plane_of(RACKED)
    assert plane.no_plan is not None
    mends = mends_of(design_of(RACKED), SHELF, plane)
    kinds = {type(m.edit) for m in mends}
    assert SetRunOn in kinds
    assert SetBlocking in kinds
    # A longer span is the maker's to allow: told, never taken.
    assert [
        m.told.startswith("A rail and mounts that may span") for m in mends if m.edit is None
    ] == [True]
    for mend in (m for m in mends if m.edit is not None):
        assert mend.edit is not None
        after = plane_of(apply_edit(RACKED, mend.edit, SHELF))
        assert after.no_plan is None, mend.told
        assert after.asked == ()


@pytest.mark.parametrize(
    ("typed_in", "hours"),
    # 86 mounts at 8, 66.1 m of rail at 25, 28 modules at 8; then mounts at 10.
    [("", 86 / 8 + 66.13 / 25 + 28 / 8), ("10", 86 / 10 + 66.13 / 25 + 28 / 8)],
)
def test_crew_hours_by_the_usual_rates_and_the_firm_s_own(typed_in: str, hours: float) -> None:
    job = apply_edit(MOUNTED, SetCrewRate(A, CrewTask.MOUNTS, typed_in), SHELF)
    design = design_of(job)
    rows = crew_hours(design, racked_planes(design))
    assert sum(r.hours for r in rows) == pytest.approx(hours, abs=0.02)
    assert [r.typed for r in rows] == [bool(typed_in), False, False]


BAD: list[tuple[RackingEdit | SetFoundRafters, str]] = [
    (SetRackingField(A, SOUTH, RackingField.SPAN, "0"), "Longest span"),
    (SetRackingField(A, SOUTH, RackingField.SPAN, "a lot"), "Longest span"),
    (SetRackingField(A, SOUTH, RackingField.BARE_END, "-1'"), "Longest bare end"),
    (SetRackingField(A, SOUTH, RackingField.OVERHANG, "99'"), "Rail past the last module"),
    (SetDesignLoad(DesignLoadField.WIND, "fast", ""), "Wind"),
    (SetDesignLoad(DesignLoadField.WIND, "900 mph", ""), "Wind"),
    (SetDesignLoad(DesignLoadField.SNOW, "-3 psf", ""), "Ground snow"),
    (SetDesignLoad(DesignLoadField.EXPOSURE, "E", ""), "Exposure"),
    (SetDesignLoad(DesignLoadField.ROOF_HEIGHT, "2\"", ""), "Roof height"),
    (SetOffcuts(A, "; ".join(["2'"] * 10_000)), "lengths, characters"),
    (SetOffcuts(A, "; ".join(["2'"] * 201)), "Pieces of rail at hand"),
    (SetOffcuts(A, "0\""), "A piece of rail"),
    (SetCrewRate(A, CrewTask.MODULES, "0"), "Crew, modules an hour"),
    (ChooseMounting(A, SOUTH, MountingId("none-such")), "none-such"),
    (ChooseMounting(A, PlaneId("no-plane"), FOOT), "no-plane"),
    (PinMount(A, SOUTH, 9_999, 1.0), "Mounts held in place"),
    (SetBlocking(A, SOUTH, tuple(float(n) for n in range(500)), on=True), "Blocking"),
    (SetFoundRafters(SOUTH, "1'; two"), "rafters as found"),
    (SetFoundRafters(SOUTH, "900'"), "rafters as found"),
]  # fmt: skip


@pytest.mark.parametrize(("edit", "named"), BAD)
def test_bad_input_names_the_field(edit: RackingEdit | SetFoundRafters, named: str) -> None:
    with pytest.raises(Exception, match=named):
        apply_edit(RACKED, edit, SHELF)


def test_a_plane_that_goes_takes_its_racking_with_it() -> None:
    gone = apply_edit(MOUNTED, RemovePlane(SOUTH), SHELF)
    assert option_a(gone).racking.planes == ()


def test_a_rail_left_long_into_the_chimney_is_a_stop() -> None:
    # 1' 8" past the last module on either side of the chimney reaches into it.
    assert check_of(MOUNTED, "build.clear").verdict is Verdict.KEPT
    check = check_of(typed(MOUNTED, RackingField.OVERHANG, "4'"), "build.clear")
    assert (check.verdict, check.kind) == (Verdict.BROKEN, LimitKind.STOP)


def test_a_rule_that_costs_a_stick_is_named() -> None:
    # Of one length, splices without a price: no piece under 2 m takes a seventeenth stick.
    one = {"stock": (StockLength(4.2672, 5200),), "splice_cents": 0}
    told = {}
    for least_m in (2.0, 0.6):
        design = design_of(with_sheet(MOUNTED, least_piece_m=least_m, **one))
        planes = racked_planes(design)
        *_, (sawing,) = sawn(design, planes)
        told[least_m] = costly_rules(design, planes, sawing)
    assert told == {2.0: (("the shortest piece", 1),), 0.6: ()}
