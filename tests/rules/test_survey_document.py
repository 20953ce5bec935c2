"""A survey that contradicts itself is refused by name, whichever way it came in."""

from dataclasses import replace

import pytest

from jobs import FULL, SAMPLE, SHELF
from ridge_tally.core.errors import BadGeometry, NotFound, OutOfRange, RidgeTallyError
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.brief.needs import AddExisting, RemoveExisting
from ridge_tally.core.job.edits.survey.obstructions import DrawExisting, RemoveObstruction
from ridge_tally.core.job.edits.survey.surroundings import SetShadeField, ShadeField
from ridge_tally.core.job.ids import AttachmentId, ShadeId
from ridge_tally.core.job.places import SitePoint, Taped
from ridge_tally.core.job.survey import (
    Attachment,
    HorizonPoint,
    LotLine,
    Picture,
    PicturePoint,
    ReadingKind,
    TapeReading,
    Trace,
)
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.apply import apply_edit
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.rules.document import require_sound

SURVEY, SOUTH = FULL.survey, FULL.survey.planes[0]
TREE = SURVEY.shade_sources[0]
TRACE = Trace(
    Picture("0" * 64, 800, 600), PicturePoint(0, 0), PicturePoint(800, 0), Taped(40, ""),
    SitePoint(0, 0),
)  # fmt: skip
FAR = SitePoint(9000.0, 0.0)


def with_survey(**change: object) -> Job:
    return replace(FULL, survey=replace(SURVEY, **change))


def with_south(**change: object) -> Job:
    return with_survey(planes=(replace(SOUTH, **change), *SURVEY.planes[1:]))


def with_reading(reading: TapeReading) -> Job:
    outline = SOUTH.outline
    return with_south(outline=replace(outline, readings=(*outline.readings, reading)))


def with_tree(**change: object) -> Job:
    return with_survey(shade_sources=(replace(TREE, **change), *SURVEY.shade_sources[1:]))


def with_structure(**change: object) -> Job:
    return with_south(structure=replace(SOUTH.structure, **change))


@pytest.mark.parametrize(
    ("job", "error", "says"),
    [
        (
            with_reading(TapeReading(ReadingKind.DIAGONAL, (0,), Taped(9, "9"))),
            BadGeometry,
            "2 places",
        ),
        (
            with_reading(TapeReading(ReadingKind.PARALLEL, (1, 1))),
            BadGeometry,
            "parallel to itself",
        ),
        (
            with_reading(TapeReading(ReadingKind.OFFSET, (3, 9), Taped(9, "9"))),
            OutOfRange,
            "1 to 4",
        ),
        (
            with_reading(TapeReading(ReadingKind.ALONG, (1, 0), Taped(9, "9"))),
            BadGeometry,
            "on that edge",
        ),
        (
            with_reading(TapeReading(ReadingKind.DIAGONAL, (1, 3))),
            BadGeometry,
            "length without a reading",
        ),
        (
            with_reading(TapeReading(ReadingKind.ON_LINE, (3, 0), Taped(9, "9"))),
            BadGeometry,
            "mark with one",
        ),
        (with_structure(rib_spacing=Taped(0.0, "0")), OutOfRange, "rib spacing in metres reads 0"),
        (with_structure(first_rafter=Taped(-1.0, "-1")), OutOfRange, "first rafter"),
        (
            with_south(at=FAR),
            OutOfRange,
            "South roof, place on the site, east in metres reads 9000",
        ),
        (with_south(eave_height=Taped(90.0, "90")), OutOfRange, "eave above ground reads 90"),
        (with_tree(at=FAR), OutOfRange, "Cottonwood, east"),
        (with_tree(width=Taped(0.0, "0")), OutOfRange, "Cottonwood, width"),
        (with_tree(first_leaf_month=13), OutOfRange, "month in leaf reads 13"),
        (
            with_tree(sighting=replace(TREE.sighting, top_deg=89.0)),
            OutOfRange,
            "angle to the top in degrees reads 89",
        ),
        (
            with_survey(shade_sources=(TREE, replace(TREE, name="again"))),
            BadGeometry,
            "trees and neighbours: the id “s1” is there twice",
        ),
        (with_survey(horizon=(HorizonPoint(400.0, 3.0),)), OutOfRange, "Horizon, bearing"),
        (with_survey(horizon=(HorizonPoint(40.0, 95.0),)), OutOfRange, "Horizon, elevation"),
        (
            with_survey(lot_lines=(LotLine("lot1", "Fence", (FAR,), closed=False),)),
            BadGeometry,
            "Fence: 1 points",
        ),
        (with_survey(trace=replace(TRACE, second=TRACE.first)), BadGeometry, "two points are one"),
        (
            with_survey(trace=replace(TRACE, distance=Taped(0.0, "0"))),
            OutOfRange,
            "scale, distance",
        ),
        (
            with_survey(trace=replace(TRACE, picture=Picture("0" * 64, 0, 10))),
            OutOfRange,
            "pixels along a side reads 0",
        ),
        (
            with_survey(service=replace(SURVEY.service, meter=FAR)),
            OutOfRange,
            "Meter, east in metres",
        ),
        (
            with_survey(attachments=(Attachment(AttachmentId("n1"), "x", None, "attic"),)),
            NotFound,
            "attic",
        ),
        (
            with_survey(attachments=(Attachment(AttachmentId("n1"), "x", None, "south", "o99"),)),
            NotFound,
            "o99",
        ),
    ],
)
def test_a_survey_that_cannot_be_is_refused_by_name(
    job: Job, error: type[RidgeTallyError], says: str
) -> None:
    with pytest.raises(error, match=says):
        require_sound(job)


def test_full_surveys_travel_whole() -> None:
    for job in (FULL, lagoon_road(SHELF)):
        assert read_job(write_job(job)) == job


def test_a_note_outlives_the_chimney_it_hung_on() -> None:
    job = apply_edit(SAMPLE, RemoveObstruction("south", "o1"), SHELF)
    note = job.survey.attachments[0]
    assert (note.plane_id, note.obstruction_id) == ("south", None)


def test_an_old_array_taken_out_of_the_brief_leaves_no_rows_on_the_roof() -> None:
    job = SAMPLE
    for step in (
        AddExisting(),
        DrawExisting("south", "existing1", 0.5, 0.5),
        RemoveExisting("existing1"),
    ):
        job = apply_edit(job, step, SHELF)
    assert job.survey.planes[0].existing == ()


def test_edits_of_one_tree_leave_the_others_alone() -> None:
    job = apply_edit(FULL, SetShadeField(ShadeId("s2"), ShadeField.HEIGHT, "20'"), SHELF)
    before, after = FULL.survey.shade_sources, job.survey.shade_sources
    assert [a == b for a, b in zip(before, after, strict=True)] == [True, False, True]
