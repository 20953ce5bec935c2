"""The edits of what is wanted, attached, sent and answered, as data."""

from dataclasses import dataclass
from typing import Literal

from ridge_tally.core.job.packet import Addressee, LogEntry, LogKind, Wanted


@dataclass(frozen=True, slots=True)
class KeepWanted:
    """A wish, new or in the place of the one with its id."""

    to: Addressee
    wanted: Wanted
    kind: Literal["keep-wanted"] = "keep-wanted"


@dataclass(frozen=True, slots=True)
class DropWanted:
    to: Addressee
    wanted_id: str
    kind: Literal["drop-wanted"] = "drop-wanted"


@dataclass(frozen=True, slots=True)
class RestoreWanted:
    """The list as the family of rules has it; files that were attached go with the old one."""

    to: Addressee
    kind: Literal["restore-wanted"] = "restore-wanted"


@dataclass(frozen=True, slots=True)
class WriteToLog:
    """A line as it is typed: the day, what happened, in words, a limit where there is one."""

    to: Addressee
    what: LogKind
    day: str
    words: str
    limit: str = ""
    kind: Literal["write-to-log"] = "write-to-log"


@dataclass(frozen=True, slots=True)
class RecordPractice:
    """What the simulated portal took and said."""

    entries: tuple[LogEntry, ...]
    kind: Literal["record-practice"] = "record-practice"


@dataclass(frozen=True, slots=True)
class DropFromLog:
    """Takes a line off, by its place from 0."""

    at: int
    kind: Literal["drop-from-log"] = "drop-from-log"


@dataclass(frozen=True, slots=True)
class ClearPractice:
    """Takes every line of the simulated portal off."""

    kind: Literal["clear-practice"] = "clear-practice"


PacketEdit = (
    KeepWanted
    | DropWanted
    | RestoreWanted
    | WriteToLog
    | RecordPractice
    | DropFromLog
    | ClearPractice
)
