"""Which file applies which edits of strings and what they hang on."""

from typing import assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import StringEdit
from ridge_tally.core.job.edits.strings.electronics import ElectronicsEdit
from ridge_tally.core.job.edits.strings.inverters import InverterEdit
from ridge_tally.core.job.edits.strings.threading import ThreadEdit
from ridge_tally.core.job.edits.strings.wiring import WiringEdit
from ridge_tally.editing.strings.electronics import electronics_changed
from ridge_tally.editing.strings.inverters import inverters_changed
from ridge_tally.editing.strings.threading import threading_changed
from ridge_tally.editing.strings.wiring import wiring_changed


def strings_changed(job: Job, edit: StringEdit, shelf: Shelf) -> Job:
    """Return the job after an edit of strings and what they hang on.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound, FormatError
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    if isinstance(edit, ThreadEdit):
        return threading_changed(job, edit)
    if isinstance(edit, InverterEdit):
        return inverters_changed(job, edit, shelf)
    if isinstance(edit, ElectronicsEdit):
        return electronics_changed(job, edit, shelf)
    if isinstance(edit, WiringEdit):
        return wiring_changed(job, edit)
    assert_never(edit)
