"""What utility and authority want to see of a job, what was attached, and what was sent and answered."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum


class Addressee(StrEnum):
    """Who has to agree."""

    UTILITY = "utility"
    AUTHORITY = "authority"


class WantedBy(StrEnum):
    """What settles a wish: a sheet of the set, a file, the licensed person's name, or a tick."""

    SHEET = "sheet"
    FILE = "file"
    REVIEW = "review"
    TICK = "tick"


@dataclass(frozen=True, slots=True)
class AttachedFile:
    """A PDF that goes along, kept under its hash; ``file``: what it was called."""

    sha256: str
    file: str
    pages: int


@dataclass(frozen=True, slots=True)
class Wanted:
    """Something they want; ``done``: ticked by hand; ``sheet``: which one settles it."""

    id: str
    words: str
    by: WantedBy
    sheet: str = ""
    done: bool = False
    files: tuple[AttachedFile, ...] = ()


@dataclass(frozen=True, slots=True)
class Packet:
    """What one of them wants, as this job's person has it."""

    to: Addressee
    wanted: tuple[Wanted, ...]


class LogKind(StrEnum):
    """What happened between the job and whoever has to agree."""

    SENT = "sent"
    QUERY = "query"
    ANSWER = "answer"
    APPROVED = "approved"
    LIMITED = "limited"
    DELAYED = "delayed"
    REFUSED = "refused"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class LogEntry:
    """A line of the approval log; ``limit_kw``: of what may be sent out, where they limit it.

    ``practice``: said by the simulated portal, and no approval of anything.
    """

    to: Addressee
    kind: LogKind
    day: date
    words: str
    limit_kw: float | None = None
    practice: bool = False
