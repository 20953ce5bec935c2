"""The edits of what the sheets say of people, and of sets that left the house, as data."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from ridge_tally.core.job.paperwork import Issue


class PaperworkField(StrEnum):
    """A name or a day in the title block."""

    FIRM = "firm"
    DRAWN_BY = "drawn_by"
    CHECKED_BY = "checked_by"
    REVIEWED_BY = "reviewed_by"
    REVIEWED_ON = "reviewed_on"
    ORDERED_ON = "ordered_on"


@dataclass(frozen=True, slots=True)
class SetPaperworkField:
    field: PaperworkField
    typed: str
    kind: Literal["set-paperwork-field"] = "set-paperwork-field"


@dataclass(frozen=True, slots=True)
class RecordIssue:
    """A set that was frozen; its number follows the last one's."""

    issue: Issue
    kind: Literal["record-issue"] = "record-issue"


@dataclass(frozen=True, slots=True)
class KeepSet:
    """A person's own set, new or in the place of one of the same name."""

    name: str
    sheets: tuple[str, ...]
    kind: Literal["keep-set"] = "keep-set"


@dataclass(frozen=True, slots=True)
class DropSet:
    name: str
    kind: Literal["drop-set"] = "drop-set"


TitleEdit = SetPaperworkField | RecordIssue | KeepSet | DropSet
