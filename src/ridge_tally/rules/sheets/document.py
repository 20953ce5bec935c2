"""What must hold of the title block and the issues before they are printed."""

import re

from ridge_tally.core.errors import BadGeometry, FormatError, OutOfRange
from ridge_tally.core.job.packet import Packet, WantedBy
from ridge_tally.core.job.paperwork import Paperwork
from ridge_tally.core.job.work import WorkPlan
from ridge_tally.core.sheets.sets import SHEETS, SetName
from ridge_tally.rules.distinct import require_distinct

MOST_ISSUES, MOST_SETS, LONGEST_NAME = 200, 30, 120
MOST_WANTED, MOST_FILES, MOST_PAGES, MOST_LINES, LONGEST_LINE = 60, 12, 300, 400, 1000
MOST_HOLDS, MOST_PEOPLE, MOST_DAYS, MOST_KW = 200, 20, 400, 10_000.0
# Plans of work are of this time; a day far off it is a slip.
YEARS = (2000, 2100)
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
    for packet in paper.packets:
        _require_sound_packet(packet)
    require_distinct("packets", [p.to.value for p in paper.packets])
    _require_sound_log(paper)
    _require_sound_work(paper.work)
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


def _require_sound_packet(packet: Packet) -> None:
    if len(packet.wanted) > MOST_WANTED:
        raise OutOfRange("What they want, lines", len(packet.wanted), f"at most {MOST_WANTED}")
    require_distinct("wishes", [w.id for w in packet.wanted])
    for one in packet.wanted:
        if not 0 < len(one.words) <= LONGEST_NAME * 2 or not 0 < len(one.id) <= LONGEST_NAME:
            raise OutOfRange("What they want, letters", len(one.words), f"1 to {LONGEST_NAME * 2}")
        if one.by is WantedBy.SHEET and one.sheet not in SHEETS:
            raise BadGeometry(
                one.words, f"there is no sheet {one.sheet}", f"Choose of {', '.join(SHEETS)}."
            )
        if len(one.files) > MOST_FILES:
            raise OutOfRange(f"{one.words}, files", len(one.files), f"at most {MOST_FILES}")
        for n, kept in enumerate(one.files):
            if not _HASH.fullmatch(kept.sha256):
                raise FormatError(
                    "job", f"{one.id}.files.{n}", "it is no file of this job", "Leave it out."
                )
            if not 1 <= kept.pages <= MOST_PAGES:
                raise OutOfRange(f"{kept.file}, pages", kept.pages, f"1 to {MOST_PAGES}")


def _require_sound_log(paper: Paperwork) -> None:
    if len(paper.log) > MOST_LINES:
        raise OutOfRange("Lines of the log", len(paper.log), f"at most {MOST_LINES}")
    for line in paper.log:
        if len(line.words) > LONGEST_LINE:
            raise OutOfRange("Log, letters in a line", len(line.words), f"at most {LONGEST_LINE}")
        if line.limit_kw is not None and not 0 <= line.limit_kw <= MOST_KW:
            raise OutOfRange("Limit, kW", line.limit_kw, f"0 to {MOST_KW:g}")


def _require_sound_work(work: WorkPlan) -> None:
    if not 1 <= work.people <= MOST_PEOPLE:
        raise OutOfRange("People", work.people, f"1 to {MOST_PEOPLE}")
    if not 1 <= work.hours_a_day <= 16:
        raise OutOfRange("Hours a day", work.hours_a_day, "1 to 16")
    if len(work.holds) > MOST_HOLDS:
        raise OutOfRange("Days held, lines", len(work.holds), f"at most {MOST_HOLDS}")
    require_distinct("steps of the work", [s.step.value for s in work.steps])
    for one in work.steps:
        if one.days is not None and not 0 <= one.days <= MOST_DAYS:
            raise OutOfRange("Working days", one.days, f"0 to {MOST_DAYS}")
    held = [d for h in work.holds for d in (h.from_day, h.to_day)]
    typed = [d for s in work.steps for d in (s.not_before, s.done_on)]
    for day in (work.begins, *held, *typed):
        if day is not None and not YEARS[0] <= day.year <= YEARS[1]:
            raise OutOfRange("Year", day.year, f"{YEARS[0]} to {YEARS[1]}")
    for hold in work.holds:
        if hold.to_day < hold.from_day or (hold.to_day - hold.from_day).days > MOST_DAYS:
            raise BadGeometry(
                "Days held", f"from {hold.from_day} to {hold.to_day}",
                f"At most {MOST_DAYS} days, the first one first.",
            )  # fmt: skip
