"""Which file applies which edits of the survey."""

from typing import assert_never

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import SurveyEdit
from ridge_tally.core.job.edits.survey.obstructions import ObstructionEdit
from ridge_tally.core.job.edits.survey.outlines import OutlineEdit
from ridge_tally.core.job.edits.survey.planes import PlaneEdit
from ridge_tally.core.job.edits.survey.surroundings import SurroundingsEdit
from ridge_tally.editing.survey.obstructions import plane_parts_changed
from ridge_tally.editing.survey.outlines import outline_changed
from ridge_tally.editing.survey.planes import planes_changed
from ridge_tally.editing.survey.surroundings import surroundings_changed


def survey_changed(job: Job, edit: SurveyEdit) -> Job:
    """Return the job after an edit of the survey.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound, FormatError
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    if isinstance(edit, PlaneEdit):
        return planes_changed(job, edit)
    if isinstance(edit, OutlineEdit):
        return outline_changed(job, edit)
    if isinstance(edit, ObstructionEdit):
        return plane_parts_changed(job, edit)
    if isinstance(edit, SurroundingsEdit):
        return surroundings_changed(job, edit)
    assert_never(edit)
