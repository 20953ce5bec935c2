"""The tables, the notes and the title strip of a one-line diagram."""

from ridge_tally.core.sheets.flow import wrapped
from ridge_tally.core.sheets.one_line.places import STRIP, cut
from ridge_tally.core.sheets.one_line.spec import OneLine, TableRow
from ridge_tally.core.sheets.scene import CHAR_FRAC, Item, Layer, Line, Text

# How much of the sheet's foot the tables take.
TABLE_TOP = 92.0
ROW, HEAD = 4.4, 5.6
SIZE, NAME = 2.5, 3.4
CIRCUIT_WIDTHS = (9.0, 38.0, 34.0, 20.0, 26.0, 22.0, 16.0, 18.0, 18.0)
EQUIPMENT_WIDTHS = (9.0, 82.0, 12.0)


def draw_tables(
    spec: OneLine,
    height: float,
    frame: tuple[float, float, float, float],
    page: tuple[int, int],
) -> list[Item]:
    """Return the frame, the circuits, the equipment, what is not known, and the title."""
    left, top, right, bottom = frame
    items: list[Item] = [_rect(left, top, right - left, bottom - top, Layer.FRAME)]
    strip = right - STRIP
    items.append(Line(Layer.FRAME, ((strip, top), (strip, bottom))))
    y = height - frame[1] - TABLE_TOP + 6
    x = left + 5
    room = strip - 5 - x
    circuits = sum(CIRCUIT_WIDTHS)
    scale = min(1.0, (room - 6) / (circuits + sum(EQUIPMENT_WIDTHS)))
    wide = [w * scale for w in CIRCUIT_WIDTHS]
    items += _table("Circuits", spec.circuits_head, spec.circuits, wide, x, y, bottom - 4)
    other = [w * scale for w in EQUIPMENT_WIDTHS]
    items += _table(
        "Equipment",
        ("No.", "What", "Pieces"),
        spec.equipment,
        other,
        x + sum(wide) + 6,
        y,
        bottom - 4,
    )
    items += _strip(spec, strip, top, right, bottom, page)
    return items


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
) -> list[Item]:
    """Return a table; rows there is no room for are told in its last line."""
    items: list[Item] = [Text((x, y + 3.2), name, NAME, bold=True)]
    y += 5
    fits = int((bottom - y - HEAD) / ROW)
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
    return items


def _cut(words: str, wide: float) -> str:
    return cut(words, int((wide - 1.6) / (SIZE * CHAR_FRAC)))


def _strip(
    spec: OneLine, x: float, top: float, right: float, bottom: float, page: tuple[int, int]
) -> list[Item]:
    """Return the title strip: what this is and of what, notes, what is not known, the sheet's number."""
    items: list[Item] = []
    wide, y = right - x - 6, top + 7.0
    for size, words, bold in (
        (4.2, "One-line diagram", True),
        (3.2, spec.title, True),
        (SIZE, spec.place, False),
    ):
        # Of a name without end so much as leaves room for what is not known.
        for line in wrapped(words, wide, size, bold=bold)[:4]:
            items.append(Text((x + 3, y), line, size, bold=bold))
            y += size * 1.35
        y += 1
    y = _paragraphs(items, "Notes", spec.notes, x, y + 3, wide, bottom - 66)
    _paragraphs(items, "Not known, not checked", spec.unknown, x, y + 3, wide, bottom - 31)
    foot = bottom - 27
    items.append(Line(Layer.FRAME, ((x, foot), (right, foot))))
    items.append(Text((x + 3, foot + 5), "Scale: none", SIZE))
    items.append(Text((x + 3, foot + 9.5), "Drawn by design data; to be", SIZE))
    items.append(Text((x + 3, foot + 13), "reviewed by licensed practice.", SIZE))
    number = "E-1" if page[1] == 1 else f"E-1.{page[0]}"
    items.append(Text((right - 3, bottom - 4), number, 7.0, "end", bold=True))
    return items


def _paragraphs(
    items: list[Item],
    name: str,
    paragraphs: tuple[str, ...],
    x: float,
    y: float,
    wide: float,
    bottom: float,
) -> float:
    if not paragraphs:
        return y
    items.append(Text((x + 3, y), name, NAME, bold=True))
    y += 4.6
    for n, words in enumerate(paragraphs):
        lines = wrapped(words, wide - 3, SIZE)
        if y + len(lines) * 3.3 > bottom:
            items.append(Text((x + 3, y), f"and {len(paragraphs) - n} more under Build", SIZE))
            return y + 3.4
        items.append(Text((x + 3, y), "·", SIZE, bold=True))
        for line in lines:
            items.append(Text((x + 5.5, y), line, SIZE))
            y += 3.3
        y += 0.9
    return y
