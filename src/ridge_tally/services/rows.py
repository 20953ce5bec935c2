"""Rows of a document that are added, changed and bounded alike."""

from typing import Any

from ridge_tally.core.errors import BadGeometry


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
