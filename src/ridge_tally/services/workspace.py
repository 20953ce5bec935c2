"""What every use case works with: sessions, the clock, pictures, runs and the desk of the studies."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime
from pathlib import Path

from sqlalchemy.orm import Session, sessionmaker

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.services.aside import Aside
from ridge_tally.services.runs import Runs
from ridge_tally.simulation.desk import Desk, OwnRows
from ridge_tally.simulation.remembered import Remembered
from ridge_tally.store.database import PICTURES, open_database, reading
from ridge_tally.store.equipment import own_documents


@dataclass(frozen=True, slots=True)
class Workspace:
    """Handed to every use case; holds no state of a request.  ``pictures`` is their folder."""

    sessions: sessionmaker[Session]
    clock: Callable[[], datetime]
    pictures: Path
    desk: Desk
    runs: Runs = field(default_factory=Runs)
    aside: Aside = field(default_factory=Aside)
    # Documents by their stored text, as last read or written.
    documents: Remembered = field(default_factory=lambda: Remembered(24))


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
