"""The firm's stock list: which datasheets lie on the shelf, and how many."""

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.brief.typed import parse_choice
from ridge_tally.core.errors import FormatError, NotFound, NotUnderstood, RidgeTallyError
from ridge_tally.core.job.brief import StockItem, StockKind
from ridge_tally.core.units import parse_number
from ridge_tally.formats.table import read_table

MOST_STOCK = 200


def read_stock(text: str, file: str, shelf: Shelf) -> tuple[StockItem, ...]:
    """Return the lines of a stock list: columns kind, item, count, and name for rails and parts.

    Raises
    ------
    FormatError
        Naming the line: a kind, item or count that cannot be; nothing is taken over then.
    """
    if not text.strip():
        return ()
    lines = read_table(text, file)
    header = [cell.strip().lower() for cell in lines[0]]
    if not {"kind", "item", "count"} <= set(header):
        raise FormatError(
            file, "line 1", "the columns are not headed", "Head them kind,item,count."
        )
    if len(lines) - 1 > MOST_STOCK:
        raise FormatError(
            file, "", f"more than {MOST_STOCK} lines", "Leave out what is not needed."
        )
    items = []
    for number, line in enumerate(lines[1:], start=2):
        row = dict(zip(header, [*line, *[""] * len(header)], strict=False))
        try:
            items.append(_stock_item(row, shelf))
        except RidgeTallyError as error:
            raise FormatError(
                file, f"line {number}", str(error).rstrip("."), "Nothing was taken over."
            ) from None
    return tuple(items)


def _stock_item(row: dict[str, str], shelf: Shelf) -> StockItem:
    kind = parse_choice(StockKind, row["kind"].strip().lower(), "Kind")
    wanted = row["item"].strip()
    count = round(parse_number(row["count"], "Count", "a whole number such as 24"))
    if count < 0:
        raise NotUnderstood("Count", row["count"], "0 or more")
    if kind in (StockKind.RAIL, StockKind.PART):
        return StockItem(kind, wanted, row.get("name", "").strip() or wanted, count)
    for sheet in shelf.of_kind(kind.value):
        if wanted.lower() in (sheet.id.lower(), sheet.name.lower()):
            return StockItem(kind, sheet.id, sheet.name, count)
    raise NotFound(f"datasheet of the {kind.value}", wanted)
