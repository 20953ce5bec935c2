"""Planes nobody measured or placed throw no shade; planes that go through each other are told."""

import pytest

from jobs import FULL, SAMPLE, SHELF
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.edits.survey.planes import AddOtherSide, AddPlane, MovePlane, PlaneShape
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import ReadingKind
from ridge_tally.core.sun.occluders import OwnerKind, occluders_of
from ridge_tally.core.survey.standing import overlaps
from ridge_tally.demo.kiln_yard import kiln_yard
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.editing.apply import apply_edits
from ridge_tally.views.survey.report import survey_report

NEW = PlaneId("plane-1")
PLACED = MovePlane(NEW, 30.0, -4.0)
READ = SetReading(NEW, ReadingKind.SIDE, (0,), "9 m")


def roofs_that_shade(job: Job) -> set[str]:
    owners = occluders_of(job.survey).owners
    return {o.owner_id for o in owners if o.kind is OwnerKind.ROOF}


@pytest.mark.parametrize(
    ("placed", "read", "throws"),
    [(False, False, False), (True, False, False), (False, True, False), (True, True, True)],
)
def test_a_plane_throws_shade_once_it_is_measured_and_placed(
    placed: bool, read: bool, throws: bool
) -> None:
    steps: list[Edit] = [AddPlane(PlaneShape.GABLE)]
    steps += [PLACED] * placed + [READ] * read
    job = apply_edits(SAMPLE, steps, SHELF)
    assert (NEW in roofs_that_shade(job)) is throws
    told = " ".join(item.text for item in survey_report(job).to_measure)
    assert ("its place on the site" in told) is not placed


def test_the_other_side_of_a_placed_plane_is_placed_by_it() -> None:
    job = apply_edits(SAMPLE, [AddOtherSide(SAMPLE.survey.planes[0].id)], SHELF)
    assert all(p.at_given for p in job.survey.planes)
    assert job.survey.planes[1].id in roofs_that_shade(job)


@pytest.mark.parametrize(
    "job", [FULL, lagoon_road(SHELF), kiln_yard(SHELF), mill_terrace(SHELF)], ids=lambda j: j.name
)
def test_no_sample_s_planes_go_through_each_other(job: Job) -> None:
    # Dormers stand over a roof, ridges and valleys meet: neither is an overlap.
    assert overlaps(job.survey) == ()


def test_planes_laid_through_each_other_are_told_with_how_much() -> None:
    (south,) = SAMPLE.survey.planes
    job = apply_edits(SAMPLE, [AddOtherSide(south.id)], SHELF)
    other = job.survey.planes[1]
    # Pushed 2 m over the ridge: by hand the faces cross near the middle of the strip they share,
    # and lie within 0.3 m of each other on 0.3 m / tan 26.6° either way of that line.
    pushed = MovePlane(other.id, other.at.east_m, other.at.north_m - 2.0)
    (found,) = overlaps(apply_edits(job, [pushed], SHELF).survey)
    assert found.area_m2 > 5.0
    (doubt,) = [
        i.text
        for i in survey_report(apply_edits(job, [pushed], SHELF)).to_measure
        if "go through each other" in i.text
    ]
    assert f"{found.area_m2:.1f} m²" in doubt or "sq ft" in doubt
