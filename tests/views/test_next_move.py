"""The next move: from an empty job, one thing after the other, until every Stop is checked and kept."""

from datetime import date

from jobs import FULL, SAMPLE, SHELF, option_a
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.brief.needs import ServiceField, SetServiceField
from ridge_tally.core.job.edits.brief.site import SetCoordinates, SetSiteField, SiteField
from ridge_tally.core.job.edits.strings.threading import WishSeriesLength
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import (
    AddPlane,
    MovePlane,
    PlaneField,
    PlaneShape,
    SetPlaneField,
)
from ridge_tally.core.job.survey import ReadingKind
from ridge_tally.core.steps import WorkStep
from ridge_tally.core.units import LengthUnit
from ridge_tally.core.working import LimitKind, Verdict
from ridge_tally.demo.blank_job import blank_job
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.views.next_move import NextMove
from ridge_tally.views.option import option_report

EMPTY = blank_job(SHELF, "Larch End", LengthUnit.METRE, date(2026, 11, 30))
(PLANE,) = (p.id for p in EMPTY.survey.planes)


def side(number: int, typed: str, plane_id: str = PLANE) -> SetReading:
    return SetReading(plane_id, ReadingKind.SIDE, (number,), typed)


def move(job: Job) -> NextMove | None:
    return option_report(design_for(job, option_a(job))).next_move


def said(job: Job) -> tuple[WorkStep, str]:
    found = move(job)
    assert found is not None
    return found.step, found.told


def test_from_nothing_to_a_checked_design_one_thing_after_the_other() -> None:
    job = EMPTY
    told = []
    for edits in (
        [SetCoordinates("50.1, 8.7")],
        [side(0, "11"), side(3, "5.2")],
        [SetPlaneField(PLANE, PlaneField.SLOPE, "35")],
        [SetPlaneField(PLANE, PlaneField.AZIMUTH, "180")],
        None,
        [SetSiteField(SiteField.COLDEST, "-16")],
    ):
        step, text = said(job)
        told.append((step, text.split(":")[0]))
        at_hand = move(job)
        assert at_hand is not None
        job = apply_edits(job, edits or [at_hand.edit], SHELF)
    assert [step for step, _ in told] == [
        WorkStep.BRIEF, WorkStep.SURVEY, WorkStep.SURVEY, WorkStep.SURVEY, WorkStep.ARRAY,
        WorkStep.STRINGS,
    ]  # fmt: skip
    assert [text for _, text in told] == [
        "Say where the house stands",
        "Roof plane 1",
        "Roof plane 1",
        "Roof plane 1",
        "Roof plane 1 is measured and holds no module yet.",
        "Type the coldest air of the site",
    ]
    left = move(job)
    checks = [v.check for v in option_report(design_for(job, option_a(job))).checks]
    open_stops = [c for c in checks if c.kind is LimitKind.STOP and c.verdict is not Verdict.KEPT]
    assert (left is None) is (not open_stops)
    if left is not None:
        assert open_stops[0].title in left.told


def test_a_finished_design_asks_for_nothing() -> None:
    assert move(SAMPLE) is None


def test_a_broken_stop_comes_before_what_is_not_checked() -> None:
    cold = apply_edit(SAMPLE, SetSiteField(SiteField.COLDEST, ""), SHELF)
    assert said(cold)[1].startswith("Type the coldest air")
    assert said(apply_edit(cold, SetServiceField(ServiceField.MAIN_BREAKER, ""), SHELF))[
        1
    ].startswith("Type the coldest air")
    long = apply_edit(SAMPLE, WishSeriesLength("a", 15), SHELF)
    step, told = said(long)
    assert step is WorkStep.STRINGS
    assert told.startswith("Cold Voc, string A: the limit is passed")


def test_of_several_planes_each_is_measured_and_placed() -> None:
    job = apply_edit(FULL, AddPlane(PlaneShape.SHED), SHELF)
    new = job.survey.planes[-1]
    assert said(job) == (
        WorkStep.SURVEY,
        f"{new.name}: type its tape readings into the drawing, the eave first.",
    )
    taped = apply_edits(
        job,
        [
            side(0, "12'", new.id),
            side(3, "8'", new.id),
            SetPlaneField(new.id, PlaneField.SLOPE, "4/12"),
            SetPlaneField(new.id, PlaneField.AZIMUTH, "90"),
        ],
        SHELF,
    )
    assert said(taped)[1].startswith(f"Place {new.name} on the site")
    assert move(apply_edit(taped, MovePlane(new.id, 30.0, 0.0), SHELF)) is None
