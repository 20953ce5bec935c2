"""Rows of a document that are added, changed and bounded alike."""

from collections.abc import Iterable
from typing import Any, Protocol, TypeVar

from ridge_tally.core.errors import BadGeometry, NotFound


class Named(Protocol):
    """A row with an id of its own."""

    @property
    def id(self) -> str: ...


Row = TypeVar("Row", bound=Named)


def next_id(stem: str, taken: list[Any]) -> str:
    numbers = [int(i.removeprefix(stem)) for i in taken if i.removeprefix(stem).isdigit()]
    return f"{stem}{max(numbers, default=0) + 1}"


def require_room(what: str, have: int, most: int, wanted: int = 1) -> None:
    if have + wanted > most:
        raise BadGeometry(
            what, f"{have + wanted} rows are more than the {most} kept", "Remove some first."
        )


def with_row(rows: tuple[Any, ...], changed: Any) -> tuple[Any, ...]:
    return tuple(changed if row.id == changed.id else row for row in rows)


def without_at(rows: tuple[Any, ...], at: int, what: str) -> tuple[Any, ...]:
    """Return rows without the one at a place from 0; NotFound, naming what it is, if none is there."""
    if not 0 <= at < len(rows):
        raise NotFound(what, str(at + 1))
    return rows[:at] + rows[at + 1 :]


def row_of(rows: Iterable[Row], row_id: str, what: str) -> Row:
    """Return the row of that id; NotFound, naming what it is, if none has it."""
    for row in rows:
        if row.id == row_id:
            return row
    raise NotFound(what, row_id)
