"""Who stands behind a job's sheets, and which sets of them left the house."""

from dataclasses import dataclass, field
from datetime import date

from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.job.packet import LogEntry, Packet
from ridge_tally.core.job.work import WorkPlan


@dataclass(frozen=True, slots=True)
class Issue:
    """A set that left the house: frozen as a file named by its ``sha256``, made of a revision."""

    number: int
    day: date
    name: str
    paper: str
    option_id: OptionId
    revision: int
    what: str
    who: str
    sha256: str


@dataclass(frozen=True, slots=True)
class OwnSet:
    """A person's own choice of sheets, by the first part of their numbers."""

    name: str
    sheets: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Paperwork:
    """What the title block says of people; ``reviewed_on`` with the licensed person's name or not at all.

    ``packets``: what utility and authority want where that is not the usual list; ``ordered_on``:
    when the equipment was bought.
    """

    firm: str = ""
    drawn_by: str = ""
    checked_by: str = ""
    reviewed_by: str = ""
    reviewed_on: date | None = None
    issues: tuple[Issue, ...] = ()
    sets: tuple[OwnSet, ...] = ()
    packets: tuple[Packet, ...] = ()
    log: tuple[LogEntry, ...] = ()
    ordered_on: date | None = None
    work: WorkPlan = field(default_factory=WorkPlan)
