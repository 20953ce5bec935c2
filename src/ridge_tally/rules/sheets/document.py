"""What must hold of the title block and the issues before they are printed."""

import re

from ridge_tally.core.errors import FormatError, OutOfRange
from ridge_tally.core.job.paperwork import Paperwork

MOST_ISSUES, LONGEST_NAME = 200, 120
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
    for n, issue in enumerate(paper.issues, start=1):
        if issue.number != n or not _HASH.fullmatch(issue.sha256):
            raise FormatError(
                "job", f"paperwork.issues.{n - 1}", "it is no issue of this job", "Leave it out."
            )
