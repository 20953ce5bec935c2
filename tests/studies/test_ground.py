"""Kiln Yard: laid out, spaced, shaded, strung, simulated, its seasonal tilt judged; bad input in words."""

import math
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from jobs import SAMPLE, SHELF, warm_workspace_in
from ridge_tally.core.array.tables import columns_of
from ridge_tally.core.errors import (
    AnswerWanted,
    BadGeometry,
    MissingDatum,
    NotFound,
    NotUnderstood,
    OutOfRange,
    RidgeTallyError,
)
from ridge_tally.core.job.array import PlaneArray, Position
from ridge_tally.core.job.document import Job, option_of, plane_of, present_ids
from ridge_tally.core.job.edits.array.fills import ArrayField, SetArrayField
from ridge_tally.core.job.edits.array.tables import (
    FillBays,
    SeasonField,
    SetSeasonField,
    SetSeasons,
    SetTableField,
    SpaceRows,
    TableField,
)
from ridge_tally.core.job.edits.survey.planes import (
    AddPlane,
    GroundField,
    PlaneField,
    PlaneShape,
    SetGroundField,
    SetPlaneField,
    SetTrenchRoute,
)
from ridge_tally.core.job.edits.survey.surroundings import AddLotLine
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.steps import WorkStep
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.survey.site_frame import to_site
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import LimitKind, Verdict
from ridge_tally.demo.kiln_yard import YARD, kiln_yard
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.array.tilt_positions import stances_of
from ridge_tally.editing.design import design_for, design_in
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.array.trenches import Trench, trench_of
from ridge_tally.rules.report import all_checks
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.array.exact_count import Arrangement, exactly
from ridge_tally.studies.array.ground_layout import GroundLayout, ground_layout
from ridge_tally.studies.array.rows_light import RowsLight, rows_light
from ridge_tally.studies.array.seasonal_tilt import SeasonalTilt, calendar_of, seasonal_tilt
from ridge_tally.studies.sun.shade import shade_report

A = OptionId("a")
KILN = kiln_yard(SHELF)
TWO = apply_edit(KILN, SetTableField(A, YARD, TableField.ROWS, "2", lay_anew=True), SHELF)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("ground")))


@pytest.fixture(scope="module")
def seasons(workspace: Workspace) -> SeasonalTilt:
    return seasonal_tilt(workspace.desk, design_for(KILN, KILN.options[0]), YARD)


def layout(job: Job = KILN) -> GroundLayout:
    design = design_in(job, A)
    found = ground_layout(design, design.on(YARD))
    assert found is not None
    return found


def light(workspace: Workspace, job: Job = KILN, loss: float | None = None) -> RowsLight:
    return rows_light(workspace.desk, design_in(job, A), YARD, loss)


def verdicts(job: Job) -> dict[str, Verdict]:
    checks = all_checks(design_in(job, A))
    return {
        c.rule_id: c.verdict
        for c in checks
        if c.rule_id.startswith(("ground.", "array.row-spacing"))
    }


def test_posts_reach_the_glass_over_the_ground_they_stand_on() -> None:
    told = layout()
    assert (told.modules, told.bays, len(told.tables)) == (24, 3, 3)
    # Two rows of five posts under each table: 9.5 m at 2.5 m want four spans.
    assert len(told.posts) == 3 * 10
    first = [p for p in told.posts if p.table == 1]
    # By hand: glass of 2.094 m on posts 1.2 m apart reaches 0.447 m beyond them; at 30° the front
    # posts meet it 0.22 m above the lower edge, the back ones 0.6 m above those.
    front, back = (
        next(p for p in first if p.back is b and p.x_m == first[0].x_m) for b in (False, True)
    )
    falls = math.tan(math.radians(4)) * math.cos(math.radians(16))
    rise = 1.2 * math.sin(math.radians(30))
    run = 1.2 * math.cos(math.radians(30))
    assert back.height_m - front.height_m == pytest.approx(rise - run * falls, abs=1e-3)
    assert told.shortest_post_m == min(p.height_m for p in told.posts)


def test_rows_as_far_apart_as_the_shortest_day_asks_hardly_shade_each_other(
    workspace: Workspace,
) -> None:
    told, lost = layout(), light(workspace)
    assert told.gap_m == pytest.approx(told.solstice_gap_m, abs=0.011)
    assert lost.loss_frac == pytest.approx(0.0008, abs=0.0006)
    losses = [p.loss_frac for p in lost.curve]
    assert losses == sorted(losses, reverse=True)
    lands = [p.land_m2 for p in lost.curve]
    assert lands == sorted(lands)
    assert verdicts(KILN)["array.row-spacing"] is Verdict.KEPT


def test_rows_near_each_other_cost_what_rays_from_these_modules_say(workspace: Workspace) -> None:
    close = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "0.5 m"), SHELF)
    bare = replace(close, survey=replace(close.survey, shade_sources=()))
    told = light(workspace, bare)
    assert told.loss_frac is not None
    assert told.cast_frac is not None
    # Rays add the sky light that rows hide, and leave out the ends the sun reaches past.
    assert told.loss_frac < told.cast_frac < 3 * told.loss_frac
    assert verdicts(close)["array.row-spacing"] is Verdict.BROKEN
    less = hourly_year(workspace.desk, design_in(close, A)).energy_kwh / len(
        present_ids(option_of(close, A))
    )
    free = hourly_year(workspace.desk, design_for(KILN, KILN.options[0])).energy_kwh / 24
    assert less < 0.97 * free


def test_a_gap_for_a_loss_takes_that_loss(workspace: Workspace) -> None:
    asked = light(workspace, loss=0.01).asked_gap_m
    assert asked is not None
    job = apply_edit(
        KILN, SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, f"{asked:.3f} m"), SHELF
    )
    # The share of rows that stand behind another changes when one more row fits the closer gap:
    # the loss of a row that has one before it is what the gap decides.
    rows_asked, rows_got = len(layout().tables), len(layout(job).tables)
    behind = [(rows - 1) / rows for rows in (rows_asked, rows_got)]
    got = light(workspace, job).loss_frac
    assert got is not None
    assert got / behind[1] == pytest.approx(0.01 / behind[0], abs=5e-4)


def test_steeper_tables_are_spaced_and_bays_are_filled() -> None:
    steep = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.LEG_TILT, "45"), SHELF)
    assert verdicts(steep)["array.row-spacing"] is Verdict.BROKEN
    spaced = apply_edit(steep, SpaceRows(A, YARD), SHELF)
    assert verdicts(spaced)["array.row-spacing"] is Verdict.KEPT
    full = apply_edit(KILN, FillBays(A), SHELF)
    assert len(present_ids(option_of(full, A))) == 27
    assert layout(full).bays == 0


def stands(job: Job) -> list[tuple[str, bool]]:
    """Return what stands in the yard, in order: its id and whether it is there."""
    (array,) = option_of(job, A).arrays
    return [(m.id, m.present) for m in array.modules]


@pytest.mark.parametrize(
    "edit",
    [
        SetArrayField(A, YARD, ArrayField.LEG_TILT, "20"),
        SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "0.5 m"),
        SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "4 m"),
        SetArrayField(A, YARD, ArrayField.GAP_IN_ROW, "40 mm"),
        SpaceRows(A, YARD),
        SetTableField(A, YARD, TableField.CLEARANCE, "0.9"),
        SetTableField(A, YARD, TableField.ALONG, "3"),
        SetTableField(A, YARD, TableField.APART, "0.8"),
    ],
    ids=lambda e: getattr(e, "typed", e.kind),
)
@pytest.mark.parametrize("start", [KILN, TWO], ids=["one tier", "two tiers"])
def test_tilt_spacing_and_posts_keep_modules_and_bays_in_their_places(
    start: Job, edit: SetArrayField | SetTableField | SpaceRows
) -> None:
    changed = apply_edit(start, edit, SHELF)
    assert stands(changed) == stands(start)
    # Of a column each module begins one glass and one gap further up the tilted glass.
    laid = design_in(changed, A).on(YARD)
    glass_m = laid.module.long_m + laid.array.gap_in_row.value_m
    up_m = glass_m * math.cos(math.radians(laid.array.leg_tilt_deg))
    for _, column in columns_of(lay_of(laid), laid.array.modules):
        assert [m.y_m - column[0].y_m for m in column] == pytest.approx(
            [up_m * m.tier for m in column], abs=2e-5
        )


def test_rows_moved_past_the_boundary_are_a_stop_and_none_is_taken_away() -> None:
    wide = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "9 m"), SHELF)
    assert stands(wide) == stands(KILN)
    broken = [c for c in all_checks(design_in(wide, A)) if c.verdict is Verdict.BROKEN]
    assert any(c.kind is LimitKind.STOP and c.step is WorkStep.ARRAY for c in broken)


def test_other_tables_hold_as_many_modules_and_bays() -> None:
    (was,), (array,) = option_of(KILN, A).arrays, option_of(TWO, A).arrays
    assert sum(m.present for m in array.modules) == sum(m.present for m in was.modules)
    # 24 modules and 3 bays: 27 take 14 columns of two.
    assert len(array.modules) == 28


def test_so_many_on_two_tiers_make_what_their_year_is_or_are_refused(workspace: Workspace) -> None:
    design = design_in(TWO, A)
    (best, *_) = exactly(workspace.desk, design, YARD, 14, Arrangement.LIGHT)
    assert (best.count, len(best.places)) == (14, 7)
    (one, *_) = exactly(workspace.desk, design_in(KILN, A), YARD, 14, Arrangement.LIGHT)
    # As many modules at the same tilt, however many stand on a table, make about as much.
    assert best.energy_kwh == pytest.approx(one.energy_kwh, rel=0.05)
    with pytest.raises(OutOfRange, match="reads 13, but it must be 12 or 14"):
        exactly(workspace.desk, design, YARD, 13, Arrangement.LIGHT)


def test_a_job_in_feet_is_told_in_feet() -> None:
    feet = replace(taken((95, 15.0), (250, 50.0)), unit=LengthUnit.FOOT)
    told = layout(feet)
    # By hand, to the eighth of an inch: 2.094 m are 82.44 in, and 82.44 sin 50° = 63.15 in.
    assert told.spacing_sum.startswith("H = 6' 10 1/2\" · sin 50° = 5' 3 1/8\"")
    for words in (told.spacing_sum, told.on_sheet, calendar_of(design_in(feet, A), YARD)):
        assert " m;" not in words
        assert " m " not in words
    assert "Back legs 4' 1" in calendar_of(design_in(feet, A), YARD)


def test_snow_and_the_lot_line_are_held() -> None:
    assert verdicts(KILN)["ground.clearance"] is Verdict.KEPT
    deep = apply_edit(KILN, SetGroundField(YARD, GroundField.SNOW_DEPTH, "0.8"), SHELF)
    assert verdicts(deep)["ground.clearance"] is Verdict.BROKEN
    assert verdicts(KILN)["ground.lot-line"] is Verdict.KEPT
    crossed = apply_edit(
        KILN, AddLotLine((SitePoint(6.0, -30.0), SitePoint(6.0, 30.0)), closed=False), SHELF
    )
    assert verdicts(crossed)["ground.lot-line"] is Verdict.BROKEN
    assert layout(crossed).lot_m == 0.0


@pytest.mark.parametrize(
    ("field", "typed", "says"),
    [
        (GroundField.SNOW_DEPTH, "0.8", "Snow lies 0.80 m deep and the front edge is 0.60 m"),
        (GroundField.LOT_DISTANCE, "6", "from the lot line, which wants 6.00 m"),
        (GroundField.FALL, "30", ""),
    ],
)
def test_the_drawing_says_what_the_ground_forbids(
    field: GroundField, typed: str, says: str
) -> None:
    assert layout().told == ()
    told = layout(apply_edit(KILN, SetGroundField(YARD, field, typed), SHELF)).told
    assert [says in sentence for sentence in told] == ([True] if says else [])


def test_ground_steeper_than_its_tables_is_told() -> None:
    flat = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.LEG_TILT, "10"), SHELF)
    steep = apply_edit(flat, SetGroundField(YARD, GroundField.FALL, "15"), SHELF)
    assert any("more than the tables' 10°" in sentence for sentence in layout(steep).told)


def trench_in(job: Job, plane_id: PlaneId = YARD) -> Trench | None:
    return trench_of(job.survey.service, design_in(job, A).on(plane_id))


def test_the_trench_turns_where_it_is_told_to() -> None:
    straight = trench_in(KILN)
    assert straight is not None
    bent = apply_edit(KILN, SetTrenchRoute(YARD, (SitePoint(0.0, 12.0),)), SHELF)
    longer = trench_in(bent)
    assert longer is not None
    # By hand, the last leg: from (0, 12) to the panel at (-7.6, 2.4) are 12.24 m.
    assert longer.length_m > max(straight.length_m, 12.24)
    first, turn, panel = longer.points
    assert (turn, panel) == (SitePoint(0.0, 12.0), SitePoint(-7.6, 2.4))
    leg = math.hypot(first.east_m - 0.0, first.north_m - 12.0)
    assert longer.length_m == pytest.approx(leg + 12.244, abs=1e-3)
    bare = replace(KILN, options=tuple(replace(o, arrays=()) for o in KILN.options))
    from_area = trench_in(bare)
    assert from_area is not None
    corners = to_site(plane_of(KILN, YARD), corners_m(plane_of(KILN, YARD)))[:, :2]
    begin = from_area.points[0]
    assert np.hypot(*(corners - [begin.east_m, begin.north_m]).T).min() < 1e-9
    assert trench_in(KILN, PlaneId("shed")) is None


def test_the_seasons_are_worth_what_their_days_and_tilts_say(seasons: SeasonalTilt) -> None:
    fixed, two, four = seasons.plans
    assert fixed.energy_kwh == max(seasons.by_tilt_kwh)
    assert fixed.energy_kwh < two.energy_kwh < four.energy_kwh
    summer, winter = sorted(two.stands, key=lambda s: s.tilt_deg)
    # Flat from spring, steep from autumn; common practice, no source: latitude less and plus 15°.
    assert 60 < summer.from_day < 130
    assert 220 < winter.from_day < 300
    assert summer.tilt_deg < 43 < winter.tilt_deg
    # By hand: posts 1.2 m apart.
    lift = 1.2 * (math.sin(math.radians(winter.tilt_deg)) - math.sin(math.radians(summer.tilt_deg)))
    assert winter.lift_m == pytest.approx(lift)
    assert winter.lowest_m >= 0.6 - 1e-9


def year_kwh(workspace: Workspace, job: Job) -> float:
    return hourly_year(workspace.desk, design_in(job, A)).energy_kwh


def taken(*positions: tuple[int, float], job: Job = KILN) -> Job:
    return apply_edit(job, SetSeasons(A, YARD, tuple(Position(*p) for p in positions)), SHELF)


def array_of_yard(job: Job) -> PlaneArray:
    return next(a for a in option_of(job, A).arrays if a.plane_id == YARD)


def test_seasons_taken_move_the_year_by_what_the_study_says(
    workspace: Workspace, seasons: SeasonalTilt
) -> None:
    """Long rows by the reference library against rays over each module at each tilt."""
    stays = taken((0, seasons.plans[0].stands[0].tilt_deg))
    for plan in seasons.plans[1:]:
        job = apply_edit(KILN, SetSeasons(A, YARD, plan.positions), SHELF)
        gain = year_kwh(workspace, job) - year_kwh(workspace, stays)
        assert gain == pytest.approx(plan.over_best_kwh, rel=0.06)
        again = seasonal_tilt(workspace.desk, design_in(job, A), YARD)
        assert again.now.energy_kwh == pytest.approx(plan.energy_kwh, rel=1e-3)
        assert read_job(write_job(job)) == job


def test_what_two_weeks_late_cost_is_what_the_later_days_give_less(
    workspace: Workspace, seasons: SeasonalTilt
) -> None:
    fixed, two, _ = seasons.plans
    assert fixed.late_kwh == pytest.approx(0)
    late = [(p.from_day + 14, p.tilt_deg) for p in two.positions]
    on_time = apply_edit(KILN, SetSeasons(A, YARD, two.positions), SHELF)
    less = year_kwh(workspace, on_time) - year_kwh(workspace, taken(*late))
    assert two.late_kwh == pytest.approx(less, rel=0.15)


def test_each_tilt_gives_on_its_own_days_what_it_gives_all_year_on_them(
    workspace: Workspace,
) -> None:
    job = taken((100, 20.0), (260, 55.0))
    ways = stances_of(design_in(job, A))
    assert [int((ways.by_day == n).sum()) for n in range(2)] == [160, 205]
    daily = hourly_year(workspace.desk, design_in(job, A)).ac_w.reshape(365, 24).sum(axis=1)
    for number, stance in enumerate(ways.options):
        alone = (
            hourly_year(workspace.desk, design_for(job, stance)).ac_w.reshape(365, 24).sum(axis=1)
        )
        mine = ways.by_day == number
        assert daily[mine] == pytest.approx(alone[mine], rel=1e-6, abs=0.1)


def test_two_tilts_alike_are_one_tilt(workspace: Workspace) -> None:
    once = year_kwh(workspace, KILN)
    assert year_kwh(workspace, taken((80, 30.0), (260, 30.0))) == once
    nearly = taken((80, 30.0 - 1e-7), (260, 30.0))
    assert year_kwh(workspace, nearly) == pytest.approx(once, rel=1e-7)
    both = (shade_report(workspace.desk, design_in(j, A)) for j in (nearly, KILN))
    free, lost = zip(*((s.monthly_free_kwh, s.monthly_lost_kwh) for s in both), strict=True)
    assert free[0] == pytest.approx(free[1])
    assert lost[0] == pytest.approx(lost[1])


def test_a_table_turns_about_its_front_posts() -> None:
    """By hand: 2.094 m of glass on posts 1.2 m apart reaches 0.447 m beyond them."""
    flat, steep = array_of_yard(KILN), array_of_yard(taken((100, 30.0), (260, 60.0)))
    turned = math.cos(math.radians(30)) - math.cos(math.radians(60))
    assert steep.leg_tilt_deg == 60
    for before, after in zip(flat.modules, steep.modules, strict=True):
        assert after.y_m - before.y_m == pytest.approx(0.447 * turned, abs=1e-4)
    # The pitch of the rows stays, the gap grows by what the table grows shorter, in whole cm.
    wider = steep.gap_between_rows.value_m - flat.gap_between_rows.value_m
    assert wider == pytest.approx(2.094 * turned, abs=0.011)
    assert steep.table is not None
    assert steep.table.clearance.value_m == 0.6


def test_the_flattest_tilt_is_held_to_the_rows_and_to_the_lot_line() -> None:
    job = taken((100, 10.0), (260, 60.0))
    assert verdicts(job)["ground.swing"] is Verdict.KEPT
    close = apply_edit(job, SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "0.8 m"), SHELF)
    # By hand: 0.8 + 2.094 (cos 60° - cos 10°) = -0.22 m.
    assert array_of_yard(close).table == array_of_yard(job).table
    assert verdicts(close)["ground.swing"] is Verdict.BROKEN
    steep = apply_edit(job, SetArrayField(A, YARD, ArrayField.LEG_TILT, "60"), SHELF)
    assert "ground.swing" not in verdicts(steep)
    away, alone = layout(job).lot_m, layout(steep).lot_m
    assert away is not None
    assert alone is not None
    assert away < alone


def test_a_day_and_a_tilt_of_the_year_are_typed() -> None:
    job = taken((95, 15.0), (250, 50.0))
    job = apply_edit(job, SetSeasonField(A, YARD, 1, SeasonField.FROM_DAY, "20 Mar"), SHELF)
    job = apply_edit(job, SetSeasonField(A, YARD, 2, SeasonField.TILT, "55°"), SHELF)
    table = array_of_yard(job).table
    assert table is not None
    assert table.seasons == (Position(78, 15.0), Position(250, 55.0))
    assert array_of_yard(job).leg_tilt_deg == 55.0


def test_the_calendar_repeats_each_change_yearly(seasons: SeasonalTilt) -> None:
    job = apply_edit(KILN, SetSeasons(A, YARD, seasons.plans[1].positions), SHELF)
    text = calendar_of(design_in(job, A), YARD)
    lines = text.split("\r\n")
    assert lines[0] == "BEGIN:VCALENDAR"
    assert text.endswith("END:VCALENDAR\r\n")
    assert lines.count("RRULE:FREQ=YEARLY") == text.count("BEGIN:VEVENT") == 2
    assert max(len(line.encode()) for line in lines) <= 75
    with pytest.raises(MissingDatum, match="Yard has no change of tilt"):
        calendar_of(design_for(KILN, KILN.options[0]), YARD)


def test_the_sheet_tells_posts_bays_and_seasons() -> None:
    told = layout().on_sheet
    assert "3 tables on 30 posts of" in told
    assert "3 bays left for later" in told
    assert "seasons" not in told
    job = taken((95, 15.0), (250, 50.0))
    told = layout(job).on_sheet
    # By hand: hinge 0.6 + 0.447 sin 50° = 0.942 m, and 1.2 sin 15° = 0.311 m above it.
    assert "15° from 6 Apr, back legs 1.25 m; 50° from 8 Sep" in told


def test_a_ground_area_is_added_to_any_job_and_travels_in_its_file() -> None:
    job = apply_edit(SAMPLE, AddPlane(PlaneShape.GROUND), SHELF)
    plane = job.survey.planes[-1]
    assert plane.ground is not None
    assert (plane.slope_deg, plane.azimuth_deg) == (0.0, 180.0)
    for option in job.options:
        array = next(a for a in option.arrays if a.plane_id == plane.id)
        assert (array.leg_tilt_deg, array.modules) == (30.0, ())
        assert array.gap_between_rows.value_m > 1
    assert read_job(write_job(KILN)) == KILN


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (SetPlaneField(YARD, PlaneField.SLOPE, "20"), BadGeometry, "level frame for its rows"),
        (SetGroundField(YARD, GroundField.FALL, "40"), OutOfRange, "ground falls by"),
        (SetGroundField(YARD, GroundField.FALLS_TO, "south"), NotUnderstood, "degrees such as 4"),
        (SetGroundField(YARD, GroundField.TRENCH_DEPTH, "deep"), NotUnderstood, "trench depth"),
        (SetGroundField(PlaneId("shed"), GroundField.FALL, "4"), BadGeometry, "no ground area"),
        (SetTableField(A, YARD, TableField.ROWS, "9"), OutOfRange, "Module rows on a table"),
        (SetTableField(A, YARD, TableField.ROWS, "2"), AnswerWanted, "all 27 places are laid anew"),
        (SetTableField(A, YARD, TableField.CLEARANCE, "9"), OutOfRange, "Front clearance"),
        (SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "-1"), RidgeTallyError, "row"),
        (SetArrayField(A, YARD, ArrayField.LEG_TILT, "80"), OutOfRange, "between 0 and 75"),
        (SetSeasons(A, YARD, ()), OutOfRange, "Positions a year reads 0"),
        (SetSeasons(A, YARD, (Position(0, 80.0),)), OutOfRange, "Tilt in degrees reads 80"),
        (SetSeasons(A, YARD, (Position(365, 8.0),)), OutOfRange, "Day of the change reads 365"),
        (
            SetSeasons(A, YARD, (Position(9, 8.0), Position(9, 40.0))),
            OutOfRange,
            "a day of its own",
        ),
        (SetSeasons(A, PlaneId("shed"), (Position(0, 8.0),)), BadGeometry, "no ground area"),
        (SetSeasonField(A, YARD, 1, SeasonField.TILT, "8"), NotFound, "position of the year"),
    ],
)
def test_what_cannot_be_is_refused_in_words(
    edit: object, error: type[RidgeTallyError], says: str
) -> None:
    with pytest.raises(error, match=says):
        apply_edit(KILN, edit, SHELF)
