"""The firm's own equipment: typed, read from files, taken away; all of it kept or nothing."""

from collections.abc import Mapping
from dataclasses import dataclass

from ridge_tally.catalogue.shelf import written
from ridge_tally.core.equipment import AnySheet, kind_of
from ridge_tally.core.errors import FormatError
from ridge_tally.formats.equipment_fields import SheetKind
from ridge_tally.formats.equipment_file import (
    OWN,
    RowProblem,
    read_equipment,
    sound_sheet,
    write_equipment,
)
from ridge_tally.services.workspace import Forgotten, Workspace
from ridge_tally.store import equipment as store
from ridge_tally.store.database import transaction

MOST_OWN = 20_000
PROBLEMS_TOLD = 100


@dataclass(frozen=True, slots=True)
class TakenIn:
    """What came of a file: how many datasheets are new, renewed, left out, and why."""

    added: int
    renewed: int
    left_out: int
    problems: tuple[RowProblem, ...]


def keep_typed(workspace: Workspace, kind: SheetKind, texts: Mapping[str, str]) -> AnySheet:
    """Keep a datasheet typed column by column, in the place of an own one of the same name.

    Raises
    ------
    MissingDatum, NotUnderstood, OutOfRange, FormatError
        Naming the figure; nothing is kept then.
    """
    sheet = sound_sheet(kind, texts)
    _keep(workspace, (sheet,), "the form")
    return sheet


def take_in_equipment(workspace: Workspace, content: bytes, file: str) -> TakenIn:
    """Keep the sound datasheets of a file in one go.

    Raises
    ------
    FormatError
        If the file as a whole cannot be read; nothing is kept then.
    """
    read = read_equipment(content, file)
    there = {s.id for kind in SheetKind for s in workspace.desk.shelf.of_kind(kind.value)}
    renewed = sum(s.id in there for s in read.sheets)
    _keep(workspace, read.sheets, file)
    return TakenIn(
        added=len(read.sheets) - renewed,
        renewed=renewed,
        left_out=sum(p.place != "line 1" for p in read.problems),
        problems=read.problems[:PROBLEMS_TOLD],
    )


def remove_own(workspace: Workspace, kind: SheetKind, sheet_id: str) -> None:
    """Take an own datasheet off the shelf; jobs that use it keep their copy.

    Raises
    ------
    NotFound
        If there is none; a sample cannot be taken away.
    """
    with transaction(workspace.sessions) as session:
        store.remove_document(session, kind.value, sheet_id)
    workspace.forget(Forgotten.SHELF)


def own_equipment_file(workspace: Workspace) -> str:
    """Return all own datasheets as a file that another shelf takes."""
    shelf = workspace.desk.shelf
    sheets = (s for kind in SheetKind for s in shelf.of_kind(kind.value) if s.id.startswith(OWN))
    return write_equipment(tuple(sheets))


def _keep(workspace: Workspace, sheets: tuple[AnySheet, ...], file: str) -> None:
    rows = [(kind_of(s), str(s.id), written(s)) for s in sheets]
    with transaction(workspace.sessions) as session:
        store.keep_documents(session, rows, workspace.clock())
        if store.count_documents(session) > MOST_OWN:
            raise FormatError(
                file,
                "",
                f"the shelf would hold more than {MOST_OWN} own datasheets",
                "Take only what you use. Nothing was taken over.",
            )
    workspace.forget(Forgotten.SHELF)
