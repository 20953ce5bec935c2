"""Which file applies which edits of arrays."""

from typing import assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import ArrayEdit
from ridge_tally.core.job.edits.array.fills import FillEdit
from ridge_tally.core.job.edits.array.kinds import KindEdit
from ridge_tally.core.job.edits.array.modules import ModuleEdit
from ridge_tally.core.job.edits.array.tables import TableEdit
from ridge_tally.editing.array.fills import fills_changed
from ridge_tally.editing.array.kinds import kinds_changed
from ridge_tally.editing.array.modules import modules_changed
from ridge_tally.editing.array.tables import tables_changed


def array_changed(job: Job, edit: ArrayEdit, shelf: Shelf) -> Job:
    """Return the job after an edit of arrays.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound, FormatError
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    if isinstance(edit, KindEdit):
        return kinds_changed(job, edit, shelf)
    if isinstance(edit, FillEdit):
        return fills_changed(job, edit)
    if isinstance(edit, ModuleEdit):
        return modules_changed(job, edit)
    if isinstance(edit, TableEdit):
        return tables_changed(job, edit)
    assert_never(edit)
