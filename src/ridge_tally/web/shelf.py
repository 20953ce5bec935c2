"""Routes of the shelf: looked through, typed onto, filled from files."""

from flask import Response
from flask_openapi import APIBlueprint

from ridge_tally.formats.equipment_fields import COLUMNS
from ridge_tally.formats.equipment_file import table_heading
from ridge_tally.services.own_equipment import (
    keep_typed,
    own_equipment_file,
    remove_own,
    take_in_equipment,
)
from ridge_tally.views.shelf import ShelfQuestion, sheet_view, shelf_page
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    ColumnsAnswer,
    KindPath,
    SheetAnswer,
    SheetGone,
    SheetPath,
    SheetTyped,
    ShelfAsked,
    ShelfPageAnswer,
    TakenInAnswer,
)
from ridge_tally.web.sent_file import sent_file

bp = APIBlueprint("shelf", __name__, url_prefix="/api/equipment")


@bp.get("/<kind>", operation_id="shelf_page", responses={200: ShelfPageAnswer})
def get_page(path: KindPath, query: ShelfAsked) -> ShelfPageAnswer:
    """A page of the datasheets of a kind, filtered and sorted."""
    asked = ShelfQuestion(**query.model_dump())
    return ShelfPageAnswer(page=shelf_page(workspace().desk.shelf, path.kind, asked))


@bp.get("/<kind>/columns", operation_id="sheet_columns", responses={200: ColumnsAnswer})
def get_columns(path: KindPath) -> ColumnsAnswer:
    """What a datasheet of a kind is typed in."""
    return ColumnsAnswer(columns=list(COLUMNS[path.kind]))


@bp.get("/<kind>/table.csv", operation_id="empty_table")
def get_table(path: KindPath) -> Response:
    """An empty table with its heading."""
    name = f"{path.kind.value}s.csv"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(table_heading(path.kind), mimetype="text/csv", headers=headers)


@bp.get("/<kind>/sheets/<sheet_id>", operation_id="sheet", responses={200: SheetAnswer})
def get_sheet(path: SheetPath) -> SheetAnswer:
    """A datasheet value by value, each with where it is from."""
    return SheetAnswer(sheet=sheet_view(workspace().desk.shelf, path.kind, path.sheet_id))


@bp.post("/<kind>/sheets", operation_id="type_sheet", responses={201: SheetAnswer})
def post_sheet(path: KindPath, body: SheetTyped) -> tuple[SheetAnswer, int]:
    """Keep a typed datasheet."""
    sheet = keep_typed(workspace(), path.kind, body.texts)
    return SheetAnswer(sheet=sheet_view(workspace().desk.shelf, path.kind, sheet.id)), 201


@bp.delete("/<kind>/sheets/<sheet_id>", operation_id="remove_sheet", responses={200: SheetGone})
def delete_sheet(path: SheetPath) -> SheetGone:
    """Take an own datasheet off the shelf."""
    remove_own(workspace(), path.kind, path.sheet_id)
    return SheetGone(sheet_id=path.sheet_id)


@bp.post("/file", operation_id="take_equipment", responses={200: TakenInAnswer})
def post_file() -> TakenInAnswer:
    """Take in a table or JSON file sent as the body; its name comes percent-encoded."""
    return TakenInAnswer(taken=take_in_equipment(workspace(), *sent_file("equipment file")))


@bp.get("/file", operation_id="own_equipment")
def get_file() -> Response:
    """All own datasheets as a file."""
    headers = {"Content-Disposition": 'attachment; filename="own.ridgetally-equipment.json"'}
    return Response(own_equipment_file(workspace()), mimetype="application/json", headers=headers)
