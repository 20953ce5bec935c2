"""Applying the edits of the title block and of issued sets."""

from dataclasses import replace
from typing import Any

from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.sheets.paperwork import (
    PaperworkEdit,
    PaperworkField,
    RecordIssue,
)

NAMES = {
    PaperworkField.FIRM: "Installer",
    PaperworkField.DRAWN_BY: "Drawn by",
    PaperworkField.CHECKED_BY: "Checked by",
    PaperworkField.REVIEWED_BY: "Reviewed by, licensed",
    PaperworkField.REVIEWED_ON: "Reviewed on",
}


def paperwork_changed(job: Job, edit: PaperworkEdit) -> Job:
    """Return the job with another name or day in its title block, or another issue.

    Raises
    ------
    NotUnderstood
        If a day cannot be read.
    BadGeometry
        If an issue's number does not follow the last one's.
    """
    paper = job.paperwork
    if isinstance(edit, RecordIssue):
        following = len(paper.issues) + 1
        if edit.issue.number != following:
            raise BadGeometry(
                "Issue", f"it is number {edit.issue.number}, {following} is next", "Issue it anew."
            )
        return replace(job, paperwork=replace(paper, issues=(*paper.issues, edit.issue)))
    typed: Any = " ".join(edit.typed.split())
    if edit.field is PaperworkField.REVIEWED_ON:
        name = NAMES[edit.field]
        typed = parse_day(typed, name, month_first=month_first(job)) if typed else None
    return replace(job, paperwork=replace(paper, **{edit.field.value: typed}))
