"""Which file applies which edits of the brief."""

from typing import assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import BriefEdit
from ridge_tally.core.job.edits.brief.bills import BillEdit
from ridge_tally.core.job.edits.brief.grid import GridEdit
from ridge_tally.core.job.edits.brief.needs import NeedEdit
from ridge_tally.core.job.edits.brief.site import SiteEdit
from ridge_tally.editing.brief.bills import bills_changed
from ridge_tally.editing.brief.grid import grid_changed
from ridge_tally.editing.brief.needs import needs_changed
from ridge_tally.editing.brief.site import site_changed


def brief_changed(job: Job, edit: BriefEdit, shelf: Shelf) -> Job:
    """Return the job after an edit of the brief.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound, FormatError
        Naming the field, the value and the remedy; the job given in is untouched.
    """
    if isinstance(edit, SiteEdit):
        return site_changed(job, edit)
    if isinstance(edit, BillEdit):
        return bills_changed(job, edit)
    if isinstance(edit, GridEdit):
        return grid_changed(job, edit)
    if isinstance(edit, NeedEdit):
        return needs_changed(job, edit, shelf)
    assert_never(edit)
