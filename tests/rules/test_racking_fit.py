"""What frames, sides, heat and slope are held to; a third rail; what the firm has; what is trimmed."""

from dataclasses import replace

import pytest

from jobs import SHELF
from racked import MOUNTED, RACKED, SOUTH, A, check_of, design_of, plane_of, with_sheet
from ridge_tally.core.build.racking.growth import growth_m
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import Orientation
from ridge_tally.core.job.brief import StockItem, StockKind
from ridge_tally.core.job.document import Job, with_option
from ridge_tally.core.job.edits.build.racking import (
    DesignLoadField,
    RackingField,
    SetDesignLoad,
    SetRackingField,
    SetRailsARow,
)
from ridge_tally.core.mounting_sheet import RailLay, RailMetal
from ridge_tally.core.survey.taping import drawn_length
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.rules.build.beyond import left_to_an_engineer
from ridge_tally.rules.build.fit import clamped_short, fit_checks
from ridge_tally.rules.build.mount_loads import plane_loads
from ridge_tally.rules.build.parts import part_rows
from ridge_tally.rules.build.racked import trims_m
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.build.sawing import sawn
from ridge_tally.rules.document import require_sound


def framed(height_m: float | None) -> Job:
    modules = tuple(replace(m, frame_m=height_m) for m in MOUNTED.equipment.modules)
    return replace(MOUNTED, equipment=replace(MOUNTED.equipment, modules=modules))


@pytest.mark.parametrize(
    ("frame_m", "least", "most"),
    [
        (0.0299, Verdict.BROKEN, Verdict.KEPT),
        (0.030, Verdict.KEPT, Verdict.KEPT),
        (0.046, Verdict.KEPT, Verdict.KEPT),
        (0.0461, Verdict.KEPT, Verdict.BROKEN),
        (None, Verdict.NOT_CHECKED, Verdict.NOT_CHECKED),
    ],
)
def test_a_frame_at_inside_and_past_what_the_clamps_hold(
    frame_m: float | None, least: Verdict, most: Verdict
) -> None:
    job = framed(frame_m)
    assert check_of(job, "build.frame-least").verdict is least
    assert check_of(job, "build.frame-most").verdict is most


def fit_of(job: Job, rule_id: str) -> Check | None:
    """A check of what fits, whether mounts could be placed or not."""
    found = fit_checks(design_of(job), plane_of(job))
    return next((c for c in found if c.rule_id == rule_id), None)


def laid(job: Job, orientation: Orientation) -> Job:
    """The job with every module of its first option turned, wherever that puts it."""
    option = job.options[0]
    arrays = tuple(
        replace(a, modules=tuple(replace(m, orientation=orientation) for m in a.modules))
        for a in option.arrays
    )
    return with_option(job, replace(option, arrays=arrays))


@pytest.mark.parametrize(
    ("rails", "orientation", "short"),
    [
        (RailLay.TWO, Orientation.PORTRAIT, False),
        (RailLay.TWO, Orientation.LANDSCAPE, True),
        (RailLay.SHARED, Orientation.PORTRAIT, True),
        (RailLay.SHARED, Orientation.LANDSCAPE, False),
        (RailLay.UP_SLOPE, Orientation.PORTRAIT, True),
        (RailLay.UP_SLOPE, Orientation.LANDSCAPE, False),
    ],
)
def test_clamps_grip_the_sides_a_rail_crosses(
    rails: RailLay, orientation: Orientation, *, short: bool
) -> None:
    plane = plane_of(laid(MOUNTED, orientation))
    assert plane.sheet is not None
    turned = replace(
        plane, sheet=replace(plane.sheet, rails=rails), up_slope=rails is RailLay.UP_SLOPE
    )
    assert clamped_short(turned) == (28 if short else 0)


@pytest.mark.parametrize(
    ("rated", "verdict"),
    [(True, Verdict.KEPT), (False, Verdict.BROKEN), (None, Verdict.NOT_CHECKED)],
)
def test_short_sides_are_clamped_only_where_the_maker_says_so(
    rated: bool | None, verdict: Verdict
) -> None:
    job = with_sheet(laid(MOUNTED, Orientation.LANDSCAPE), short_sides=rated)
    found = fit_of(job, "build.short-sides")
    assert found is not None
    assert found.verdict is verdict
    assert fit_of(with_sheet(MOUNTED, short_sides=rated), "build.short-sides") is None


def test_aluminium_grows_by_what_a_handbook_says() -> None:
    # 10 m over 50 K: 11.8 mm of aluminium, 5.9 mm of steel; coefficients from memory.
    assert growth_m(10, 50, RailMetal.ALUMINIUM) == pytest.approx(0.0118)
    assert growth_m(10, 50, RailMetal.STEEL) == pytest.approx(0.00585)


@pytest.mark.parametrize(
    ("over_m", "verdict"), [(1e-3, Verdict.KEPT), (1e-5, Verdict.KEPT), (-1e-5, Verdict.BROKEN)]
)
def test_a_gap_between_runs_at_inside_and_past_what_they_grow(
    over_m: float, verdict: Verdict
) -> None:
    def gap(gap_m: float) -> Check:
        found = fit_of(with_sheet(RACKED, longest_run_m=7.0, run_gap_m=gap_m), "build.growth")
        assert found is not None
        return found

    # Rows broken into runs of some 6 m; a wider gap leaves them shorter, by microns of growth.
    needed = gap(0.02).value.value
    assert needed is not None
    assert gap(needed + over_m).verdict is verdict
    assert fit_of(with_sheet(RACKED, longest_run_m=None), "build.growth") is None


def test_the_push_down_the_roof_at_inside_and_past_its_limit() -> None:
    slide = check_of(MOUNTED, "build.slide")
    assert slide.kind is LimitKind.STOP
    worst = max(m.slide_n or 0.0 for m in plane_loads(MOUNTED, plane_of(MOUNTED)).mounts)
    assert slide.value.value == worst
    for limit, verdict in (
        (worst + 1, Verdict.KEPT),
        (worst, Verdict.KEPT),
        (worst - 1, Verdict.BROKEN),
        (None, Verdict.NOT_CHECKED),
    ):
        assert check_of(with_sheet(MOUNTED, slide_limit_n=limit), "build.slide").verdict is verdict
    no_snow = replace(
        MOUNTED,
        design_loads=replace(MOUNTED.design_loads, ground_snow_pa=None),
    )
    typed = apply_edit(no_snow, SetRackingField(A, SOUTH, RackingField.SPAN, "4'"), SHELF)
    assert "ground snow" in check_of(typed, "build.slide").reason


def test_a_third_rail_lies_between_the_two_and_takes_its_share() -> None:
    before, job = plane_of(MOUNTED), apply_edit(MOUNTED, SetRailsARow(A, SOUTH, 3), SHELF)
    after = plane_of(job)
    lines = sorted({r.run.across_m for r in after.runs})
    assert len(lines) == len({r.run.across_m for r in before.runs}) * 3 // 2
    low, middle, high = lines[:3]
    assert middle == pytest.approx((low + high) / 2)
    # Together they carry what two did.
    area = [
        sum(m.area_m2 for m in plane_loads(j, p).mounts)
        for j, p in ((MOUNTED, before), (job, after))
    ]
    assert area[1] == pytest.approx(area[0], rel=0.02)
    pushed = [
        max(m.slide_n or 0.0 for m in plane_loads(j, p).mounts)
        for j, p in ((MOUNTED, before), (job, after))
    ]
    assert pushed[1] < pushed[0]


def parts_with(*stock: StockItem) -> dict[str, tuple[int, int, int]]:
    job = replace(MOUNTED, brief=replace(MOUNTED.brief, stock=stock))
    design = design_of(job)
    planes = racked_planes(design)
    rows = part_rows(job, planes, next(sawn(design, planes)))
    return {r.name: (r.count + r.spares, r.on_shelf, r.buy) for r in rows}


def test_what_the_firm_s_shelf_holds_is_not_bought_again() -> None:
    rail = "Rail 14' 0\", Sample flashed foot, two rails"
    bare = parts_with()
    assert all(there == 0 and buy == needed for needed, there, buy in bare.values())
    clamps, *_ = bare["Mid clamp"]
    some = parts_with(
        StockItem(StockKind.RAIL, rail.upper(), "", 5),
        StockItem(StockKind.PART, "x1", "mid clamp", clamps - 1),
        StockItem(StockKind.PART, "End clamp", "", 10_000),
        # A module of that name is none.
        StockItem(StockKind.MODULE, "End cap", "", 10_000),
    )
    assert some["Mid clamp"] == (clamps, clamps - 1, 1)
    assert some["End clamp"][1:] == (some["End clamp"][0], 0)
    assert some["End cap"][1] == 0
    needed, there, buy = some[rail]
    assert there == 5
    assert buy == needed - 5


def test_clamps_are_bought_by_the_whole_box() -> None:
    design = design_of(with_sheet(MOUNTED, box_of=20))
    planes = racked_planes(design)
    row = next(
        r
        for r in part_rows(design.job, planes, next(sawn(design, planes)))
        if r.name == "Mid clamp"
    )
    # 48 and 3 spares: three boxes of 20 at 2.60 each, by hand.
    assert (row.buy, row.boxes, row.cents) == (51, 3, 15_600)


def test_a_rail_that_ran_on_is_trimmed_to_its_overhang_last() -> None:
    plane = plane_of(MOUNTED)
    before = plane_of(RACKED)
    for n, run in enumerate(plane.runs):
        left, right = trims_m(plane, n)
        assert left == pytest.approx(before.runs[n].run.from_m - run.run.from_m, abs=0.011)
        assert right == pytest.approx(run.run.to_m - before.runs[n].run.to_m, abs=0.011)
    assert any(sum(trims_m(plane, n)) for n in range(len(plane.runs)))
    assert all(trims_m(before, n) == (0.0, 0.0) for n in range(len(before.runs)))


def test_what_nothing_here_judges_is_named() -> None:
    told = " ".join(left_to_an_engineer(plane_of(MOUNTED)))
    assert "Drifted" in told
    assert "Lags pulled and pushed at once" in told
    assert "tile" not in told


@pytest.mark.parametrize(
    ("cap_n", "limit_n", "said"),
    [(None, 1780.0, "Sample flashed foot, two rails"), (1779.0, 1779.0, "city of the sample"),
     (1780.0, 1780.0, "Sample flashed foot, two rails"), (5000.0, 1780.0, "Sample flashed foot, two rails")],
)  # fmt: skip
def test_the_lower_of_maker_s_and_city_s_limit_holds_a_mount(
    cap_n: float | None, limit_n: float, said: str
) -> None:
    typed = "" if cap_n is None else f"{cap_n} N"
    edit = SetDesignLoad(DesignLoadField.MOUNT_CAP, typed, "city of the sample")
    limit = check_of(apply_edit(MOUNTED, edit, SHELF), "build.uplift").limit
    assert (limit.value, limit.origin) == (limit_n, said)


def test_tilted_modules_leave_the_formula_for_the_wind() -> None:
    option = MOUNTED.options[0]
    arrays = tuple(replace(a, leg_tilt_deg=5.0) for a in option.arrays)
    tilted = with_option(MOUNTED, replace(option, arrays=arrays))
    loads = plane_loads(tilted, plane_of(tilted))
    assert all(m.uplift_n is None for m in loads.mounts)
    assert "engineer" in loads.asked[0]


@pytest.mark.parametrize(
    ("change", "named"),
    [
        ({"wind_m_per_s": -5.0}, "Wind"),
        ({"ground_snow_pa": 1e9}, "Ground snow"),
        ({"gcp_edge": 2.0}, "GCp"),
        ({"wood_gravity": 0.0}, "gravity"),
        ({"mount_cap_n": 0.0}, "limit for a mount"),
    ],
)
def test_a_document_with_a_load_that_cannot_be_is_refused(
    change: dict[str, float], named: str
) -> None:
    loads = replace(MOUNTED.design_loads, **change)  # type: ignore[arg-type]
    with pytest.raises(OutOfRange, match=named):
        require_sound(replace(MOUNTED, design_loads=loads))


def test_a_document_with_a_span_of_nothing_is_refused() -> None:
    option = MOUNTED.options[0]
    (plane,) = option.racking.planes
    nothing = replace(plane, span=drawn_length(0.0, LengthUnit.METRE))
    racking = replace(option.racking, planes=(nothing,))
    with pytest.raises(OutOfRange, match="Longest span"):
        require_sound(with_option(MOUNTED, replace(option, racking=racking)))
