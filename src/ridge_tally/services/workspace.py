"""What every use case works with: sessions, the clock, pictures, runs and the desk of the studies."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from enum import StrEnum
from pathlib import Path

from sqlalchemy.orm import Session, sessionmaker

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.services.aside import Aside
from ridge_tally.services.runs import Runs
from ridge_tally.simulation.desk import Desk, OwnRows
from ridge_tally.simulation.remembered import Remembered
from ridge_tally.store.database import PICTURES, open_database, reading
from ridge_tally.store.equipment import own_documents

ISSUED, ATTACHED = "issued", "attached"


class Forgotten(StrEnum):
    """What is read once and kept in mind until somebody changes it."""

    SHELF = "shelf"
    FILES = "files"


def utc_now() -> datetime:
    """Return the time of this machine's clock."""
    return datetime.now(UTC)


@dataclass(frozen=True, slots=True)
class Workspace:
    """Handed to every use case; holds no state of a request.  ``pictures`` is their folder.

    ``minds``: others on the same folder that keep things in mind too, each told what to forget.
    """

    sessions: sessionmaker[Session]
    clock: Callable[[], datetime]
    pictures: Path
    desk: Desk
    runs: Runs = field(default_factory=Runs)
    aside: Aside = field(default_factory=Aside)
    # Documents by their stored text, as last read or written.
    documents: Remembered = field(default_factory=lambda: Remembered(24))
    minds: list[Callable[[Forgotten], None]] = field(default_factory=list)

    @property
    def issued(self) -> Path:
        """The folder of sets that left the house."""
        return self.desk.kept / ISSUED

    @property
    def attached(self) -> Path:
        """The folder of files that go along with packets."""
        return self.desk.kept / ATTACHED

    def forget(self, what: Forgotten) -> None:
        """Forget what an answer has just changed, here and in every other mind."""
        if what is Forgotten.SHELF:
            self.desk.own.clear()
        else:
            self.desk.forget_weather()
        for mind in self.minds:
            mind(what)


def workspace_at(folder: Path, clock: Callable[[], datetime], samples: Shelf) -> Workspace:
    """Return a workspace on a data folder; StorageFailed if it cannot be used.

    Parameters
    ----------
    samples : Shelf
        The shipped equipment; the shelf is that and the firm's own.
    """
    sessions = open_database(folder)

    def own_rows() -> OwnRows:
        with reading(sessions) as session:
            return own_documents(session)

    return Workspace(sessions, clock, folder / PICTURES, Desk(samples, own_rows, folder))
