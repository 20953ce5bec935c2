"""What the survey makes of readings: closing, doubts, what is still to measure."""

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a
from ridge_tally.core.errors import BadGeometry, OutOfRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import SurveyEdit
from ridge_tally.core.job.edits.survey.obstructions import AddObstruction, SetOffsetMode
from ridge_tally.core.job.edits.survey.outlines import (
    AddCorner,
    LeaveOutReading,
    MarkOutline,
    MoveCorner,
    RemoveCorner,
    SetReading,
    SketchOutline,
    StartShape,
)
from ridge_tally.core.job.edits.survey.planes import AddPlane, PlaneField, PlaneShape, SetPlaneField
from ridge_tally.core.job.places import PlanePoint
from ridge_tally.core.job.survey import ObstructionKind, OffsetMode, ReadingKind
from ridge_tally.core.survey.taping import small_length_text
from ridge_tally.core.units import LengthUnit
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.views.option import option_report
from ridge_tally.views.step_state import StepState
from ridge_tally.views.survey.drawings import Closing, EdgeState, PlaneSurvey
from ridge_tally.views.survey.report import survey_report

SIDE, DIAGONAL = ReadingKind.SIDE, ReadingKind.DIAGONAL


def after(*steps: SurveyEdit, job: Job = SAMPLE) -> Job:
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return job


def side(edge: int, typed: str) -> SetReading:
    return SetReading("south", SIDE, (edge,), typed)


def first(*steps: SurveyEdit, job: Job = SAMPLE) -> PlaneSurvey:
    return survey_report(after(*steps, job=job)).planes[0]


SQUARES_ONLY = after(StartShape("south", PlaneShape.GABLE))


def test_two_lengths_close_a_square_gable_and_nothing_checks_them() -> None:
    blank = survey_report(SQUARES_ONLY)
    assert (blank.planes[0].closing, blank.planes[0].unmeasured) == (Closing.OPEN, True)
    assert {e.state for e in blank.planes[0].edges} == {EdgeState.LOOSE}
    half = first(side(0, "12 m"), job=SQUARES_ONLY)
    assert half.to_close == (
        "One more measurement fixes corners 3 and 4: a side, or diagonal 1–3 or 2–4."
    )
    assert [(p.a, p.b) for p in half.would_fix] == [(0, 2), (1, 3)]
    whole = first(side(0, "12 m"), side(3, "6 m"), job=SQUARES_ONLY)
    assert whole.closing is Closing.UNCHECKED
    assert "one more reading would check it" in whole.closing_text
    assert [e.state for e in whole.edges] == [
        EdgeState.TAPED, EdgeState.RECKONED, EdgeState.RECKONED, EdgeState.TAPED,
    ]  # fmt: skip
    assert whole.area_m2 == pytest.approx(72)


def test_a_walk_that_misses_says_by_how_much() -> None:
    # 40' 0 1/8" of ridge over 40' of eave: an eighth of an inch in 122' 6 1/8".
    south = first()
    assert south.closing is Closing.GOOD
    assert south.closing_text.replace("\u00a0", " ") == 'misses by 1/8", 1 : 11800'


def test_a_wrong_rake_is_named_with_what_it_should_have_read() -> None:
    job = after(side(1, "20' 8\""))
    seen = survey_report(job).planes[0]
    suspect = next(r for r in seen.readings if r.suspect)
    assert suspect.name == "right rake"
    assert suspect.predicted_text.startswith("21' 3")
    assert seen.edges[1].state is EdgeState.SUSPECT
    assert "Right rake reads 20' 8\"; if the corners are square" in seen.doubt
    assert option_report(design_for(job, option_a(job))).steps["survey"] is StepState.LOOK
    out = first(LeaveOutReading("south", SIDE, (1,), out=True), job=job)
    assert (out.doubt, out.closing) == ("", Closing.GOOD)


def test_readings_that_contradict_each_other_name_the_odd_one_out() -> None:
    job = SQUARES_ONLY
    corners = ((0, 2), (1, 3))
    job = after(
        *(MarkOutline("south", ReadingKind.RIGHT_ANGLE, (c,), on=False) for c in range(4)),
        side(0, "8 m"), side(1, "6 m"), side(2, "8 m"), side(3, "6.3 m"),
        *(SetReading("south", DIAGONAL, pair, "10 m") for pair in corners),
        job=job,
    )  # fmt: skip
    seen = survey_report(job).planes[0]
    # With one reading to spare all tie: none is blamed, but it is said that they do not fit.
    assert not any(r.suspect for r in seen.readings)
    assert seen.doubt.startswith("These readings do not fit together")


@pytest.mark.parametrize(
    ("shape", "sides", "diagonal", "says"),
    [
        ("hip-end", ("8 m", "3 m", "3 m"), "", "eave: it reads 8 m, but .* at most 6.00 m apart"),
        ("gable", ("8 m", "3 m", "20 m", "3 m"), "", "ridge: it reads 20 m, .* most 14.00 m"),
        ("hip", ("12 m", "5 m", "5 m", "5 m"), "30 m", "diagonal 1–3: it reads 30 m"),
        ("hip", ("12 m", "5 m", "9 m", "5 m"), "4 m", "eave: it reads 12 m, .* most 9.00 m"),
    ],
)
def test_sides_that_cannot_close_are_refused_at_the_field(shape, sides, diagonal, says) -> None:
    steps = [StartShape("south", PlaneShape(shape))]
    steps += [side(i, typed) for i, typed in enumerate(sides)]
    if diagonal:
        steps.append(SetReading("south", DIAGONAL, (0, 2), diagonal))
    with pytest.raises(BadGeometry, match=f"South roof, {says}"):
        after(*steps)


def test_every_reading_is_shown_as_read_and_as_it_fits() -> None:
    rows = {r.name: r for r in first().readings if r.typed}
    assert (rows["ridge"].typed, rows["ridge"].fits_text) == ("40' 0 1/8\"", "40' 1/8\"")
    assert rows["diagonal 1–3"].residual_text == '+1/16"'


@pytest.mark.parametrize(
    ("length_m", "unit", "text"),
    [
        (0.0004, LengthUnit.METRE, "0 mm"),
        (-0.0123, LengthUnit.METRE, "−12 mm"),
        (0.0254, LengthUnit.FOOT, '+1"'),
        (-0.0287, LengthUnit.FOOT, '−1 1/8"'),
        (0.0005, LengthUnit.FOOT, '0"'),
    ],
)
def test_small_lengths_have_a_sign_unless_they_are_nothing(length_m, unit, text) -> None:
    assert small_length_text(length_m, unit) == text


def test_guesses_are_still_to_measure_until_they_are_given() -> None:
    blank = after(AddPlane())
    told = "\n".join(i.text for i in survey_report(blank).to_measure)
    assert "Roof plane 2: slope, azimuth, eave height (drawn as a guess)." in told
    given = after(
        SetPlaneField("plane-1", PlaneField.SLOPE, "7' 6\" over 15'"),
        SetPlaneField("plane-1", PlaneField.AZIMUTH, "90"),
        SetPlaneField("plane-1", PlaneField.EAVE_HEIGHT, "8'"),
        job=blank,
    )
    assert "guess" not in "\n".join(i.text for i in survey_report(given).to_measure)


def test_an_obstruction_left_beside_a_shorter_roof_is_told() -> None:
    job = after(side(2, ""), side(1, ""), SetReading("south", DIAGONAL, (0, 2), ""), side(3, "14'"))
    told = [i.text for i in survey_report(job).to_measure if i.doubt]
    assert "South roof: Chimney lies off the plane: check its offsets." in told


def test_sketches_are_clicked_in_either_sense_and_set_right() -> None:
    # An L clicked clockwise from its top; the eave is the lowest side that runs across.
    clicked = ((0, 8.2), (6.1, 7.9), (5.9, 4.1), (11.2, 3.8), (10.9, 0.1), (0.1, 0.0))
    job = after(SketchOutline("south", tuple(PlanePoint(float(x), float(y)) for x, y in clicked)))
    outline = job.survey.planes[0].outline
    assert [e.value for e in outline.edges] == ["eave", "rake", "ridge", "rake", "ridge", "rake"]
    assert outline.corners[0].x_m < outline.corners[1].x_m
    assert sum(r.kind is ReadingKind.RIGHT_ANGLE for r in outline.readings) == 6
    with pytest.raises(BadGeometry, match="crosses itself"):
        after(
            SketchOutline(
                "south",
                tuple(PlanePoint(float(x), float(y)) for x, y in ((0, 0), (4, 4), (4, 0), (0, 4))),
            )
        )


@pytest.mark.parametrize("shape", list(PlaneShape))
def test_every_starting_shape_waits_for_its_readings_and_crosses_nowhere(shape) -> None:
    seen = first(StartShape("south", shape))
    assert seen.closing is Closing.OPEN
    assert seen.area_m2 > 0
    assert len(seen.edges) == len(seen.corners)


def test_a_corner_is_added_and_taken_out_with_what_spoke_of_it() -> None:
    job = after(AddCorner("south", 0))
    outline = job.survey.planes[0].outline
    assert len(outline.corners) == 5
    # The divided eave's own length is gone; the others name their edges as moved.
    assert {r.at for r in outline.readings if r.kind is SIDE} == {(2,), (3,), (4,)}
    back = after(RemoveCorner("south", 2), job=job).survey.planes[0].outline
    assert len(back.corners) == 4
    with pytest.raises(BadGeometry, match="begins or ends the eave"):
        after(RemoveCorner("south", 0))
    triangle = after(StartShape("south", PlaneShape.HIP_END))
    with pytest.raises(BadGeometry, match="fewest"):
        after(RemoveCorner("south", 2), job=triangle)


def test_a_plane_begun_again_as_a_carport_stands_on_posts() -> None:
    carport = after(StartShape("south", PlaneShape.CARPORT))
    assert carport.survey.planes[0].open_below
    roof = apply_edit(carport, StartShape("south", PlaneShape.GABLE), SHELF)
    assert not roof.survey.planes[0].open_below


def test_a_loose_corner_stays_where_it_is_put_and_a_fixed_one_comes_back() -> None:
    loose = first(side(0, "12 m"), MoveCorner("south", 2, 11.0, 5.0), job=SQUARES_ONLY)
    assert loose.corners[2].loose
    # Its corners are drawn square: it may move up and down only.
    assert loose.corners[2].y_m != pytest.approx(
        first(side(0, "12 m"), job=SQUARES_ONLY).corners[2].y_m
    )
    fixed = first(MoveCorner("south", 2, 11.0, 5.0))
    assert fixed.corners[2].x_m == pytest.approx(first().corners[2].x_m, abs=1e-6)


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (SetReading("south", DIAGONAL, (0, 1), "9'"), BadGeometry, "joined by a side"),
        (
            SetReading("south", ReadingKind.OFFSET, (0, 0), "9'"),
            BadGeometry,
            "lies on that edge",
        ),
        (SetReading("south", SIDE, (7,), "9'"), OutOfRange, "1 to 4"),
        (
            SetReading("south", ReadingKind.PARALLEL, (0, 2), "9'"),
            BadGeometry,
            "has no length",
        ),
        (MarkOutline("south", SIDE, (0,), on=True), BadGeometry, "typed, not marked"),
    ],
)
def test_readings_of_nothing_are_refused(edit, error, says) -> None:
    with pytest.raises(error, match=says):
        after(edit)


def test_five_hundred_obstructions_are_too_many_and_the_limit_is_named() -> None:
    job = SAMPLE
    for i in range(96):
        job = after(
            AddObstruction("south", ObstructionKind.VENT, 0.5 + 0.1 * (i % 90), 1.0), job=job
        )
    with pytest.raises(BadGeometry, match="at most 100 obstructions"):
        after(AddObstruction("south", ObstructionKind.VENT, 1.0, 1.0), job=job)


def test_how_an_offset_was_taped_is_kept_with_its_reading() -> None:
    job = after(SetOffsetMode("south", "o1", OffsetMode.SQUARE))
    chimney = job.survey.planes[0].obstructions[0]
    assert (chimney.offsets, chimney.left.typed) == (OffsetMode.SQUARE, "23' 6\"")


def test_both_sample_jobs_are_surveyed_to_the_end() -> None:
    for job in (FULL, lagoon_road(SHELF)):
        report = survey_report(job)
        assert all(p.closing is not Closing.OPEN for p in report.planes)
        assert [item.text for item in report.to_measure if item.doubt] == []
        assert option_report(design_for(job, option_a(job))).steps["survey"] is StepState.SETTLED
        assert job.survey.horizon
        assert job.survey.lot_lines
        assert job.survey.shade_sources
