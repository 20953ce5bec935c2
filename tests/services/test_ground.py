"""Kiln Yard: laid out, spaced, shaded, strung, simulated, its seasonal tilt judged; bad input in words."""

import math
from dataclasses import replace
from pathlib import Path

import pytest

from jobs import SAMPLE, SHELF, workspace_in
from ridge_tally.core.errors import BadGeometry, NotUnderstood, OutOfRange, RidgeTallyError
from ridge_tally.core.job.array_edits import (
    ArrayField,
    FillBays,
    SetArrayField,
    SetTableField,
    SpaceRows,
    TableField,
)
from ridge_tally.core.job.document import Job, option_of, present_ids
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.survey import SitePoint
from ridge_tally.core.job.survey_edits import (
    AddLotLine,
    AddPlane,
    GroundField,
    PlaneField,
    PlaneShape,
    SetGroundField,
    SetPlaneField,
    SetTrenchRoute,
)
from ridge_tally.core.working import Verdict
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.rules.report import all_checks
from ridge_tally.services.demo_kiln import YARD, kiln_yard
from ridge_tally.services.editing import apply_edit, design_for
from ridge_tally.services.evaluation import hourly_year
from ridge_tally.services.ground_mount import GroundReport, ground_report
from ridge_tally.services.seasonal_tilt import SeasonalTilt, calendar_of, seasonal_tilt
from ridge_tally.services.workspace import Workspace

A = OptionId("a")
KILN = kiln_yard(SHELF)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return workspace_in(Path(tmp_path_factory.mktemp("ground")))


@pytest.fixture(scope="module")
def seasons(workspace: Workspace) -> SeasonalTilt:
    return seasonal_tilt(workspace, KILN, KILN.options[0], YARD)


def report(workspace: Workspace, job: Job = KILN, loss: float | None = None) -> GroundReport:
    return ground_report(workspace, job, option_of(job, A), YARD, loss)


def verdicts(job: Job) -> dict[str, Verdict]:
    checks = all_checks(design_for(job, option_of(job, A)))
    return {
        c.rule_id: c.verdict
        for c in checks
        if c.rule_id.startswith(("ground.", "array.row-spacing"))
    }


def test_posts_reach_the_glass_over_the_ground_they_stand_on(workspace: Workspace) -> None:
    told = report(workspace)
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
    told = report(workspace)
    assert told.gap_m == pytest.approx(told.solstice_gap_m, abs=0.011)
    assert told.loss_frac == pytest.approx(0.0008, abs=0.0006)
    losses = [p.loss_frac for p in told.curve]
    assert losses == sorted(losses, reverse=True)
    lands = [p.land_m2 for p in told.curve]
    assert lands == sorted(lands)
    assert verdicts(KILN)["array.row-spacing"] is Verdict.KEPT


def test_rows_near_each_other_cost_what_rays_from_these_modules_say(workspace: Workspace) -> None:
    close = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "0.5 m"), SHELF)
    bare = replace(close, survey=replace(close.survey, shade_sources=()))
    told = report(workspace, bare)
    assert told.loss_frac is not None
    assert told.cast_frac is not None
    # Rays add the sky light that rows hide, and leave out the ends the sun reaches past.
    assert told.loss_frac < told.cast_frac < 3 * told.loss_frac
    assert verdicts(close)["array.row-spacing"] is Verdict.BROKEN
    less = hourly_year(workspace, close, option_of(close, A)).energy_kwh / len(
        present_ids(option_of(close, A))
    )
    free = hourly_year(workspace, KILN, KILN.options[0]).energy_kwh / 24
    assert less < 0.97 * free


def test_a_gap_for_a_loss_takes_that_loss(workspace: Workspace) -> None:
    asked = report(workspace, loss=0.01).asked_gap_m
    assert asked is not None
    job = apply_edit(
        KILN, SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, f"{asked:.3f} m"), SHELF
    )
    # The share of rows that stand behind another changes when one more row fits the closer gap:
    # the loss of a row that has one before it is what the gap decides.
    rows_asked, rows_got = len(report(workspace).tables), len(report(workspace, job).tables)
    behind = [(rows - 1) / rows for rows in (rows_asked, rows_got)]
    got = report(workspace, job).loss_frac
    assert got is not None
    assert got / behind[1] == pytest.approx(0.01 / behind[0], abs=5e-4)


def test_steeper_tables_are_spaced_anew_and_bays_are_filled(workspace: Workspace) -> None:
    steep = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.LEG_TILT, "45"), SHELF)
    assert verdicts(steep)["array.row-spacing"] is Verdict.BROKEN
    spaced = apply_edit(steep, SpaceRows(A, YARD), SHELF)
    assert verdicts(spaced)["array.row-spacing"] is Verdict.KEPT
    # Closer rows hold a fourth table; as many bays are left as before, at its end.
    close = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "0.5 m"), SHELF)
    assert (report(workspace, close).bays, len(report(workspace, close).tables)) == (3, 5)
    full = apply_edit(KILN, FillBays(A), SHELF)
    assert len(present_ids(option_of(full, A))) == 27
    assert report(workspace, full).bays == 0


def test_snow_and_the_lot_line_are_held(workspace: Workspace) -> None:
    assert verdicts(KILN)["ground.clearance"] is Verdict.KEPT
    deep = apply_edit(KILN, SetGroundField(YARD, GroundField.SNOW_DEPTH, "0.8"), SHELF)
    assert verdicts(deep)["ground.clearance"] is Verdict.BROKEN
    assert verdicts(KILN)["ground.lot-line"] is Verdict.KEPT
    crossed = apply_edit(
        KILN, AddLotLine((SitePoint(6.0, -30.0), SitePoint(6.0, 30.0)), closed=False), SHELF
    )
    assert verdicts(crossed)["ground.lot-line"] is Verdict.BROKEN
    assert report(workspace, crossed).lot_m == 0.0


@pytest.mark.parametrize(
    ("field", "typed", "says"),
    [
        (GroundField.SNOW_DEPTH, "0.8", "Snow lies 0.80 m deep and the front edge is 0.60 m"),
        (GroundField.LOT_DISTANCE, "6", "from the lot line, which wants 6.00 m"),
        (GroundField.FALL, "30", ""),
    ],
)
def test_the_drawing_says_what_the_ground_forbids(
    workspace: Workspace, field: GroundField, typed: str, says: str
) -> None:
    assert report(workspace).told == ()
    told = report(workspace, apply_edit(KILN, SetGroundField(YARD, field, typed), SHELF)).told
    assert [says in sentence for sentence in told] == ([True] if says else [])


def test_ground_steeper_than_its_tables_is_told(workspace: Workspace) -> None:
    flat = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.LEG_TILT, "10"), SHELF)
    steep = apply_edit(flat, SetGroundField(YARD, GroundField.FALL, "15"), SHELF)
    assert any(
        "more than the tables' 10°" in sentence for sentence in report(workspace, steep).told
    )


def test_the_trench_turns_where_it_is_told_to(workspace: Workspace) -> None:
    straight = report(workspace).trench_m
    assert straight is not None
    bent = apply_edit(KILN, SetTrenchRoute(YARD, (SitePoint(0.0, 12.0),)), SHELF)
    longer = report(workspace, bent).trench_m
    assert longer is not None
    # By hand, the last leg: from (0, 12) to the panel at (-7.6, 2.4) are 12.24 m.
    assert longer > max(straight, 12.24)


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


def test_the_calendar_repeats_each_change_yearly(seasons: SeasonalTilt) -> None:
    text = calendar_of(KILN, seasons, 2)
    lines = text.split("\r\n")
    assert lines[0] == "BEGIN:VCALENDAR"
    assert text.endswith("END:VCALENDAR\r\n")
    assert lines.count("RRULE:FREQ=YEARLY") == text.count("BEGIN:VEVENT") == 2
    assert max(len(line.encode()) for line in lines) <= 75
    with pytest.raises(OutOfRange, match="Positions a year reads 3"):
        calendar_of(KILN, seasons, 3)


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
        (SetTableField(A, YARD, TableField.CLEARANCE, "9"), OutOfRange, "Front edge over"),
        (SetArrayField(A, YARD, ArrayField.GAP_BETWEEN_ROWS, "-1"), RidgeTallyError, "row"),
        (SetArrayField(A, YARD, ArrayField.LEG_TILT, "80"), OutOfRange, "between 0 and 75"),
    ],
)
def test_what_cannot_be_is_refused_in_words(
    edit: object, error: type[RidgeTallyError], says: str
) -> None:
    with pytest.raises(error, match=says):
        apply_edit(KILN, edit, SHELF)
