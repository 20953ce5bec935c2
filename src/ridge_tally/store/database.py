"""Opening the database: one file in a data folder, write-ahead log, migrated to the newest.

Who writes takes the database's write lock before reading anything, so that a number or an id
chosen from what was read is still free when it is stored.
"""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session, sessionmaker

from ridge_tally.core.errors import StorageFailed

FILE_NAME = "ridge-tally.db"
PICTURES = "pictures"
# A writer waits so long for those before it: hundreds of saves at once.
BUSY_MS = 60_000
_WRITING = {"writing": True}


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
    event.listen(engine, "begin", _begin)
    try:
        _migrate(engine)
    except DatabaseError as error:
        raise StorageFailed(f"{folder / FILE_NAME} did not open ({error.orig})") from None
    return sessionmaker(engine, expire_on_commit=False)


def _prepare(connection: sqlite3.Connection, _record: object) -> None:
    # Transactions are begun by ``_begin``: the driver would begin them at the first write only.
    connection.isolation_level = None
    cursor = connection.cursor()
    for pragma in (
        "journal_mode=WAL",
        "foreign_keys=ON",
        f"busy_timeout={BUSY_MS}",
        "synchronous=FULL",
    ):
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()


def _begin(connection: Connection) -> None:
    writing = connection.get_execution_options().get("writing", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")


def _migrate(engine: Engine) -> None:
    config = Config()
    config.set_main_option("script_location", "ridge_tally.store:migrations")
    with engine.connect().execution_options(**_WRITING) as connection, connection.begin():
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


@contextmanager
def reading(sessions: sessionmaker[Session]) -> Iterator[Session]:
    """Yield a session that sees one moment of the database; it waits for nobody.

    Raises
    ------
    StorageFailed
        If the database refuses.
    """
    with _told(), sessions.begin() as session:
        yield session


@contextmanager
def transaction(sessions: sessionmaker[Session]) -> Iterator[Session]:
    """Yield a session that alone may write; commit at the end or leave nothing behind.

    Raises
    ------
    StorageFailed
        If the database refuses, as with a full disk; all of the transaction is undone.
    """
    with _told(), sessions.begin() as session:
        session.connection(execution_options=_WRITING)
        yield session


@contextmanager
def _told() -> Iterator[None]:
    try:
        yield
    except DatabaseError as error:
        raise StorageFailed(str(error.orig)) from error
