"""Own datasheets as kind and document.  Every function takes a session and never commits."""

from collections.abc import Iterable
from datetime import datetime

from sqlalchemy import delete, func, select
from sqlalchemy.dialects.sqlite import insert
from sqlalchemy.orm import Session

from ridge_tally.core.errors import NotFound
from ridge_tally.store.rows import EquipmentRow


def own_documents(session: Session) -> tuple[tuple[str, str, str], ...]:
    """Return (kind, id, document) of every own datasheet, in the order they were first kept."""
    rows = session.execute(
        select(EquipmentRow.kind, EquipmentRow.id, EquipmentRow.document).order_by(
            EquipmentRow.saved_at, EquipmentRow.id
        )
    )
    return tuple((kind, sheet_id, document) for kind, sheet_id, document in rows)


def keep_documents(
    session: Session, documents: Iterable[tuple[str, str, str]], saved_at: datetime
) -> None:
    """Store (kind, id, document), in the place of what had that id."""
    values = [
        {"kind": kind, "id": sheet_id, "document": document, "saved_at": saved_at}
        for kind, sheet_id, document in documents
    ]
    if not values:
        return
    statement = insert(EquipmentRow)
    session.execute(
        statement.on_conflict_do_update(
            index_elements=["kind", "id"], set_={"document": statement.excluded.document}
        ),
        values,
    )


def count_documents(session: Session) -> int:
    """Return how many own datasheets are kept."""
    return session.scalar(select(func.count()).select_from(EquipmentRow)) or 0


def remove_document(session: Session, kind: str, sheet_id: str) -> None:
    """Take an own datasheet away; NotFound if there is none."""
    gone = session.execute(
        delete(EquipmentRow).where(EquipmentRow.kind == kind, EquipmentRow.id == sheet_id)
    )
    if not gone.rowcount:  # type: ignore[attr-defined]
        raise NotFound(f"own {kind}", sheet_id)
