"""Applying the edits of Sheets: title block and sets, packets and their log, the plan of work."""

from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import PaperworkEdit
from ridge_tally.core.job.edits.sheets.packet import PacketEdit
from ridge_tally.core.job.edits.sheets.work import WorkEdit
from ridge_tally.editing.sheets.packet import packet_changed
from ridge_tally.editing.sheets.paperwork import titles_changed
from ridge_tally.editing.sheets.work import work_changed


def paperwork_changed(job: Job, edit: PaperworkEdit) -> Job:
    """Return the job with its papers changed; raises as the edits of each do."""
    if isinstance(edit, PacketEdit):
        return packet_changed(job, edit)
    if isinstance(edit, WorkEdit):
        return work_changed(job, edit)
    return titles_changed(job, edit)
