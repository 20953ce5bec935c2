"""The tables and the notes of a one-line diagram: at the foot of a large sheet, or on sheets of their own."""

from ridge_tally.core.sheets.flow import Block, Table, Words, flowed, wrapped
from ridge_tally.core.sheets.one_line.places import cut
from ridge_tally.core.sheets.one_line.spec import OneLine, TableRow
from ridge_tally.core.sheets.paper import Box
from ridge_tally.core.sheets.scene import CHAR_FRAC, Item, Layer, Line, Text

# How much of the sheet's foot the tables take.
TABLES_HIGH = 84.0
ROW, HEAD = 4.4, 5.6
SIZE, NAME = 2.5, 3.4
CIRCUIT_WIDTHS = (9.0, 38.0, 34.0, 20.0, 26.0, 22.0, 16.0, 18.0, 18.0)
EQUIPMENT_HEAD, EQUIPMENT_WIDTHS = ("No.", "What", "Pieces"), (9.0, 82.0, 12.0)
NOTES, UNKNOWN = "Notes", "Not known, not checked"


def draw_tables(spec: OneLine, box: Box) -> tuple[list[Item], bool]:
    """Return the circuits, the equipment, the notes and what is not known; and whether that is all of it."""
    left, y, right, bottom = box
    y += 2
    circuits = sum(CIRCUIT_WIDTHS)
    scale = min(1.0, (right - left - 6) / (circuits + sum(EQUIPMENT_WIDTHS)))
    wide = [w * scale for w in CIRCUIT_WIDTHS]
    items, _ = _table("Circuits", spec.circuits_head, spec.circuits, wide, left, y, bottom)
    other = [w * scale for w in EQUIPMENT_WIDTHS]
    x = left + sum(wide) + 6
    half = y + (bottom - y) / 2
    more, y = _table("Equipment", EQUIPMENT_HEAD, spec.equipment, other, x, y, half)
    items += more
    whole = True
    for name, paragraphs in ((UNKNOWN, spec.unknown), (NOTES, spec.notes)):
        y, all_of_it = _paragraphs(items, name, paragraphs, x, y + 5, right - x, bottom)
        whole = whole and all_of_it
    return items, whole and len(spec.circuits) <= _fits(box[1] + 2, bottom)


def told_apart(spec: OneLine, box: Box, *, tables: bool) -> list[list[Item]]:
    """Return sheets of what stands beside the diagram, whole; with the tables or only what is told."""
    blocks: list[Block] = []
    blocks.append(_as_block("Circuits", spec.circuits_head, spec.circuits, CIRCUIT_WIDTHS))
    if tables:
        blocks.append(_as_block("Equipment", EQUIPMENT_HEAD, spec.equipment, EQUIPMENT_WIDTHS))
    for name, paragraphs in ((UNKNOWN, spec.unknown), (NOTES, spec.notes)):
        if paragraphs:
            blocks.append(Words(name, NAME, bold=True))
            blocks += [Words(f"·  {words}") for words in paragraphs]
    return flowed(blocks, box)


def _as_block(
    name: str, head: tuple[str, ...], rows: tuple[TableRow, ...], widths: tuple[float, ...]
) -> Table:
    return Table(name, head, tuple(r.cells for r in rows), widths, tuple(r.part for r in rows))


def _fits(y: float, bottom: float) -> int:
    """Return how many rows a table holds whose name stands at y."""
    return max(1, int((bottom - y - 5 - HEAD) / ROW))


def _rect(x: float, y: float, wide: float, high: float, layer: Layer) -> Line:
    return Line(layer, ((x, y), (x + wide, y), (x + wide, y + high), (x, y + high)), closed=True)


def _table(
    name: str,
    head: tuple[str, ...],
    rows: tuple[TableRow, ...],
    widths: list[float],
    x: float,
    y: float,
    bottom: float,
) -> tuple[list[Item], float]:
    """Return a table and where it ends; rows there is no room for are told in its last line."""
    items: list[Item] = [Text((x, y + 3.2), name, NAME, bold=True)]
    fits = _fits(y, bottom)
    y += 5
    shown = rows if len(rows) <= fits else rows[: fits - 1]
    whole = sum(widths)
    high = HEAD + ROW * (len(shown) + (1 if len(shown) < len(rows) else 0))
    items.append(_rect(x, y, whole, high, Layer.TABLE))
    items.append(Line(Layer.TABLE, ((x, y + HEAD), (x + whole, y + HEAD))))
    at = x
    for n, (wide, words) in enumerate(zip(widths, head, strict=False)):
        if n:
            items.append(Line(Layer.TABLE, ((at, y), (at, y + HEAD + ROW * len(shown)))))
        items.append(Text((at + 1, y + 3.9), _cut(words, wide), SIZE, bold=True))
        at += wide
    for n, row in enumerate(shown):
        base, at = y + HEAD + n * ROW + 3.2, x
        for wide, words in zip(widths, row.cells, strict=False):
            if words:
                items.append(Text((at + 1, base), _cut(words, wide), SIZE, part=row.part))
            at += wide
    if len(shown) < len(rows):
        more = f"and {len(rows) - len(shown)} more: see the calculations"
        items.append(Text((x + 1, y + HEAD + len(shown) * ROW + 3.2), more, SIZE))
    return items, y + high


def _cut(words: str, wide: float) -> str:
    return cut(words, int((wide - 1.6) / (SIZE * CHAR_FRAC)))


def _paragraphs(
    items: list[Item],
    name: str,
    paragraphs: tuple[str, ...],
    x: float,
    y: float,
    wide: float,
    bottom: float,
) -> tuple[float, bool]:
    """Set paragraphs below their name; return where they end and whether all of them stand there."""
    if not paragraphs:
        return y - 5, True
    if y + 9 > bottom:
        return y, False
    items.append(Text((x, y), name, NAME, bold=True))
    y += 4.6
    for n, words in enumerate(paragraphs):
        lines = wrapped(words, wide - 3, SIZE)
        if y + len(lines) * 3.3 > bottom - 3.4:
            items.append(Text((x, y), f"and {len(paragraphs) - n} more on the next sheet", SIZE))
            return y, False
        items.append(Text((x, y), "·", SIZE, bold=True))
        for line in lines:
            items.append(Text((x + 2.5, y), line, SIZE))
            y += 3.3
        y += 0.6
    return y, True
