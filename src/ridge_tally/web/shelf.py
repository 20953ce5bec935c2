"""Routes of the shelf: looked through, typed onto, filled from files."""

from flask import Response

from ridge_tally.catalogue.grid_packs import grid_packs
from ridge_tally.catalogue.tariffs import sample_tariffs
from ridge_tally.formats.equipment_fields import COLUMNS
from ridge_tally.formats.equipment_file import table_heading
from ridge_tally.formats.equipment_row import Column
from ridge_tally.rules.array.setbacks import setback_packs
from ridge_tally.services.own_equipment import (
    TakenIn,
    keep_typed,
    own_equipment_file,
    remove_own,
    take_in_equipment,
)
from ridge_tally.simulators.weather_service import climates
from ridge_tally.views.shelf import SheetView, ShelfPage, ShelfQuestion, sheet_view, shelf_page
from ridge_tally.web.at import workspace
from ridge_tally.web.models import (
    ClimateChoice,
    Found,
    KindPath,
    SheetGone,
    SheetPath,
    SheetTyped,
    ShelfAnswer,
    ShelfAsked,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import handed_out, sent_file

bp = Routes("shelf", __name__, url_prefix="/api")


@bp.get("/equipment/<kind>", operation_id="shelf_page", responses={200: Found[ShelfPage]})
def get_page(path: KindPath, query: ShelfAsked) -> Found[ShelfPage]:
    """A page of the datasheets of a kind, filtered and sorted."""
    asked = ShelfQuestion(**query.model_dump())
    return Found[ShelfPage](found=shelf_page(workspace().desk.shelf, path.kind, asked))


@bp.get(
    "/equipment/<kind>/columns", operation_id="sheet_columns", responses={200: Found[list[Column]]}
)
def get_columns(path: KindPath) -> Found[list[Column]]:
    """What a datasheet of a kind is typed in."""
    return Found[list[Column]](found=list(COLUMNS[path.kind]))


@bp.get("/equipment/<kind>/table.csv", operation_id="empty_table")
def get_table(path: KindPath) -> Response:
    """An empty table with its heading."""
    name = f"{path.kind.value}s.csv"
    return handed_out(table_heading(path.kind), "text/csv", name)


@bp.get(
    "/equipment/<kind>/sheets/<sheet_id>", operation_id="sheet", responses={200: Found[SheetView]}
)
def get_sheet(path: SheetPath) -> Found[SheetView]:
    """A datasheet value by value, each with where it is from."""
    return Found[SheetView](found=sheet_view(workspace().desk.shelf, path.kind, path.sheet_id))


@bp.post("/equipment/<kind>/sheets", operation_id="type_sheet", responses={201: Found[SheetView]})
def post_sheet(path: KindPath, body: SheetTyped) -> tuple[Found[SheetView], int]:
    """Keep a typed datasheet."""
    sheet = keep_typed(workspace(), path.kind, body.texts)
    return Found[SheetView](found=sheet_view(workspace().desk.shelf, path.kind, sheet.id)), 201


@bp.delete(
    "/equipment/<kind>/sheets/<sheet_id>", operation_id="remove_sheet", responses={200: SheetGone}
)
def delete_sheet(path: SheetPath) -> SheetGone:
    """Take an own datasheet off the shelf."""
    remove_own(workspace(), path.kind, path.sheet_id)
    return SheetGone(sheet_id=path.sheet_id)


@bp.post("/equipment/file", operation_id="take_equipment", responses={200: Found[TakenIn]})
def post_file() -> Found[TakenIn]:
    """Take in a table or JSON file sent as the body; its name comes percent-encoded."""
    return Found[TakenIn](found=take_in_equipment(workspace(), *sent_file("equipment file")))


@bp.get("/equipment/file", operation_id="own_equipment")
def get_file() -> Response:
    """All own datasheets as a file."""
    content = own_equipment_file(workspace())
    return handed_out(content, "application/json", "own.ridgetally-equipment.json")


# So many of a kind are offered in a list of choices; all of them stand on the shelf itself.
MOST_PICKED = 300


@bp.get("/shelf", operation_id="shelf", responses={200: ShelfAnswer})
def get_shelf() -> ShelfAnswer:
    """Equipment and climate types to choose from."""
    shelf = workspace().desk.shelf
    choices = [
        ClimateChoice(
            id=c.id, title=c.title, coldest_degc=c.coldest_degc, hottest_degc=c.hottest_degc
        )
        for c in climates().values()
    ]
    return ShelfAnswer(
        modules=list(shelf.modules[:MOST_PICKED]),
        inverters=list(shelf.inverters[:MOST_PICKED]),
        optimizers=list(shelf.optimizers[:MOST_PICKED]),
        microinverters=list(shelf.microinverters[:MOST_PICKED]),
        mountings=list(shelf.mountings[:MOST_PICKED]),
        climates=choices,
        grid_packs=list(grid_packs().values()),
        tariffs=list(sample_tariffs().values()),
        setback_packs=list(setback_packs().values()),
    )
