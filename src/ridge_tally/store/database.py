"""Opening the database: one file in a data folder, write-ahead log, migrated to the newest."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session, sessionmaker

from ridge_tally.core.errors import StorageFailed

FILE_NAME = "ridge-tally.db"
PICTURES = "pictures"
BUSY_MS = 5000


def open_database(folder: Path) -> sessionmaker[Session]:
    """Return sessions on the database in `folder`, made and migrated if need be.

    Raises
    ------
    StorageFailed
        If the folder cannot be written or the file is no database.
    """
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise StorageFailed(f"the folder {folder} cannot be made ({error.strerror})") from None
    engine = create_engine(f"sqlite:///{folder / FILE_NAME}")
    event.listen(engine, "connect", _prepare)
    try:
        _migrate(engine)
    except DatabaseError as error:
        raise StorageFailed(f"{folder / FILE_NAME} did not open ({error.orig})") from None
    return sessionmaker(engine, expire_on_commit=False)


def _prepare(connection: sqlite3.Connection, _record: object) -> None:
    cursor = connection.cursor()
    for pragma in (
        "journal_mode=WAL",
        "foreign_keys=ON",
        f"busy_timeout={BUSY_MS}",
        "synchronous=FULL",
    ):
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()


def _migrate(engine: Engine) -> None:
    config = Config()
    config.set_main_option("script_location", "ridge_tally.store:migrations")
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


@contextmanager
def transaction(sessions: sessionmaker[Session]) -> Iterator[Session]:
    """Yield a session; commit at the end or leave nothing behind.

    Raises
    ------
    StorageFailed
        If the database refuses, as with a full disk; all of the transaction is undone.
    """
    try:
        with sessions.begin() as session:
            yield session
    except DatabaseError as error:
        raise StorageFailed(str(error.orig)) from error
