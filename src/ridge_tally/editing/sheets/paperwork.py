"""Applying the edits of the title block and of issued sets."""

from dataclasses import replace
from typing import Any

from ridge_tally.core.brief.typed import parse_day
from ridge_tally.core.errors import BadGeometry, NotFound
from ridge_tally.core.job.document import Job, month_first
from ridge_tally.core.job.edits.sheets.paperwork import (
    DropSet,
    KeepSet,
    PaperworkField,
    RecordIssue,
    TitleEdit,
)
from ridge_tally.core.job.paperwork import OwnSet
from ridge_tally.core.units import one_line

NAMES = {
    PaperworkField.FIRM: "Installer",
    PaperworkField.DRAWN_BY: "Drawn by",
    PaperworkField.CHECKED_BY: "Checked by",
    PaperworkField.REVIEWED_BY: "Reviewed by, licensed",
    PaperworkField.REVIEWED_ON: "Reviewed on",
    PaperworkField.ORDERED_ON: "Equipment ordered on",
}

DAYS = (PaperworkField.REVIEWED_ON, PaperworkField.ORDERED_ON)


def titles_changed(job: Job, edit: TitleEdit) -> Job:
    """Return the job with another name or day in its title block, or another issue.

    Raises
    ------
    NotUnderstood
        If a day cannot be read.
    BadGeometry, NotFound
        If an issue's number does not follow the last one's; if there is no set of that name.
    """
    paper = job.paperwork
    if isinstance(edit, RecordIssue):
        following = len(paper.issues) + 1
        if edit.issue.number != following:
            raise BadGeometry(
                "Issue", f"it is number {edit.issue.number}, {following} is next", "Issue it anew."
            )
        return replace(job, paperwork=replace(paper, issues=(*paper.issues, edit.issue)))
    if isinstance(edit, KeepSet):
        return replace(job, paperwork=replace(paper, sets=_with_set(paper.sets, edit)))
    if isinstance(edit, DropSet):
        left = tuple(s for s in paper.sets if s.name != edit.name)
        if len(left) == len(paper.sets):
            raise NotFound("set of sheets", edit.name)
        return replace(job, paperwork=replace(paper, sets=left))
    typed: Any = " ".join(edit.typed.split())
    if edit.field in DAYS:
        name = NAMES[edit.field]
        typed = parse_day(typed, name, month_first=month_first(job)) if typed else None
    return replace(job, paperwork=replace(paper, **{edit.field.value: typed}))


def _with_set(sets: tuple[OwnSet, ...], edit: KeepSet) -> tuple[OwnSet, ...]:
    name = one_line(edit.name, "Name of the set", "what the set is for")
    kept = OwnSet(name, tuple(dict.fromkeys(edit.sheets)))
    if any(s.name == name for s in sets):
        return tuple(kept if s.name == name else s for s in sets)
    return (*sets, kept)
