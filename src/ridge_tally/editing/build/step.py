"""Applying the edits of Build: racking, and circuits."""

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import BuildEdit
from ridge_tally.core.job.edits.build.circuits import CircuitEdit
from ridge_tally.editing.build.circuits import circuits_changed
from ridge_tally.editing.build.racking import racking_changed


def build_changed(job: Job, edit: BuildEdit, shelf: Shelf) -> Job:
    """Return the job after an edit of Build; raises as the handlers of its files do."""
    if isinstance(edit, CircuitEdit):
        return circuits_changed(job, edit)
    return racking_changed(job, edit, shelf)
