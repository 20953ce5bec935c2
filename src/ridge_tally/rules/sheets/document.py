"""What must hold of the title block and the issues before they are printed."""

import re

from ridge_tally.core.errors import BadGeometry, FormatError, OutOfRange
from ridge_tally.core.job.paperwork import Paperwork
from ridge_tally.core.sheets.sets import SHEETS, SetName
from ridge_tally.rules.distinct import require_distinct

MOST_ISSUES, MOST_SETS, LONGEST_NAME = 200, 30, 120
_HASH = re.compile(r"[0-9a-f]{64}")


def require_sound_paperwork(paper: Paperwork) -> None:
    """Raise on the first thing that cannot be.

    Raises
    ------
    OutOfRange, FormatError
        Naming the field, the value and what to do.
    """
    for name, text in (
        ("Installer", paper.firm),
        ("Drawn by", paper.drawn_by),
        ("Checked by", paper.checked_by),
        ("Reviewed by, licensed", paper.reviewed_by),
        *((f"Issue {i.number}", i.what + i.who) for i in paper.issues),
    ):
        if len(text) > LONGEST_NAME * 2:
            raise OutOfRange(f"{name}, letters", len(text), f"at most {LONGEST_NAME * 2}")
    if len(paper.issues) > MOST_ISSUES:
        raise OutOfRange("Issues", len(paper.issues), f"at most {MOST_ISSUES}")
    _require_sound_sets(paper)
    for n, issue in enumerate(paper.issues, start=1):
        if issue.number != n or not _HASH.fullmatch(issue.sha256):
            raise FormatError(
                "job", f"paperwork.issues.{n - 1}", "it is no issue of this job", "Leave it out."
            )


def _require_sound_sets(paper: Paperwork) -> None:
    if len(paper.sets) > MOST_SETS:
        raise OutOfRange("Sets of sheets", len(paper.sets), f"at most {MOST_SETS}")
    require_distinct("sets of sheets", [s.name for s in paper.sets])
    for one in paper.sets:
        if one.name in set(SetName):
            raise BadGeometry(
                "Name of the set", f"“{one.name}” is a set that ships", "Give it another name."
            )
        if not 0 < len(one.name) <= LONGEST_NAME:
            raise OutOfRange("Name of the set, letters", len(one.name), f"1 to {LONGEST_NAME}")
        unknown = [n for n in one.sheets if n not in SHEETS]
        if unknown or not one.sheets:
            told = f"there is no sheet {unknown[0]}" if unknown else "no sheet is chosen"
            raise BadGeometry(f"Set “{one.name}”", told, f"Choose of {', '.join(SHEETS)}.")
