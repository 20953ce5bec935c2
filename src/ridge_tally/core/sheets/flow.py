"""Paragraphs and tables set on sheets one after another; a table goes on over the page with its head."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from ridge_tally.core.sheets.paper import Box
from ridge_tally.core.sheets.scene import CHAR_FRAC, Item, Layer, Line, Text

BODY, HEADING = 2.5, 3.5
LEAD, PAD, BETWEEN = 1.32, 1.2, 1.1


@dataclass(frozen=True, slots=True)
class Words:
    """A paragraph; ``bold`` and larger for a heading."""

    words: str
    size: float = BODY
    bold: bool = False
    part: str = ""


@dataclass(frozen=True, slots=True)
class Table:
    """A table with its title; ``shares`` of the width; ``parts`` name what a row's click leads to."""

    title: str
    head: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    shares: tuple[float, ...]
    parts: tuple[str, ...] = ()
    blank_mm: float = 0.0


Block = Words | Table


def wrapped(words: str, width: float, size: float, *, bold: bool = False) -> list[str]:
    """Return words on lines no wider than that; a word that is itself wider is broken."""
    most = max(1, int(width / (size * CHAR_FRAC * (1.12 if bold else 1.0))))
    lines, line = [], ""
    for word in words.split():
        rest = word
        if line and len(line) + 1 + len(rest) > most:
            lines.append(line)
            line = ""
        while len(rest) > most:
            lines.append(rest[:most])
            rest = rest[most:]
        line = f"{line} {rest}".strip()
    return [*lines, line] if line or not lines else lines


def flowed(
    blocks: Iterable[Block], area: Box, begun: tuple[list[Item], float] | None = None
) -> list[list[Item]]:
    """Return the items of as many pages as the blocks take; at least one.

    ``begun``: what stands on the first page already, and how far down it reaches, mm.
    """
    setter = _Setter(area)
    if begun is not None:
        setter.pages[0], setter.y = list(begun[0]), begun[1]
    for block in blocks:
        if isinstance(block, Words):
            setter.paragraph(block)
        else:
            setter.table(block)
    return setter.pages


class _Setter:
    def __init__(self, area: Box) -> None:
        self.left, self.top, self.right, self.bottom = area
        self.pages: list[list[Item]] = [[]]
        self.y = self.top

    def _room(self, high: float) -> bool:
        return self.y + high <= self.bottom

    def _turn(self) -> None:
        if self.pages[-1]:
            self.pages.append([])
        self.y = self.top

    def paragraph(self, block: Words) -> None:
        step = block.size * LEAD
        for line in wrapped(block.words, self.right - self.left, block.size, bold=block.bold):
            # A heading at the foot of a page goes with what it heads.
            if not self._room(step + (6 * BODY if block.bold else 0)):
                self._turn()
            self.y += step
            self.pages[-1].append(
                Text((self.left, self.y), line, block.size, bold=block.bold, part=block.part)
            )
        self.y += 0.9

    def table(self, table: Table) -> None:
        if not table.rows:
            return
        whole = self.right - self.left
        widths = [whole * share / sum(table.shares) for share in table.shares]
        head = _Row(table.head, widths, bold=True) if any(table.head) else None
        rows = [_Row(r, widths, least=table.blank_mm) for r in table.rows]
        titled = HEADING * LEAD + 1.5 if table.title else 0.0
        if not self._room(titled + (head.high if head else 0.0) + rows[0].high):
            self._turn()
        if table.title:
            self.paragraph(Words(table.title, HEADING, bold=True))
        self._begin(head)
        parts = table.parts or ("",) * len(rows)
        for row, part in zip(rows, parts, strict=True):
            if not self._room(row.high):
                self._rule()
                self._turn()
                self._begin(head)
            self.pages[-1] += row.drawn(self.left, self.y, part)
            self.y += row.high
            self._rule()
        self.y += 3.0

    def _begin(self, head: "_Row | None") -> None:
        self._rule()
        if head is None:
            return
        self.pages[-1] += head.drawn(self.left, self.y, "")
        self.y += head.high
        self._rule()

    def _rule(self) -> None:
        ends = ((self.left, self.y), (self.right, self.y))
        if self.pages[-1] and self.pages[-1][-1] == Line(Layer.TABLE, ends):
            return
        self.pages[-1].append(Line(Layer.TABLE, ends))


class _Row:
    def __init__(
        self, cells: Sequence[str], widths: list[float], *, bold: bool = False, least: float = 0.0
    ) -> None:
        self.widths, self.bold = widths, bold
        self.lines = [
            wrapped(c, w - 2 * PAD, BODY, bold=bold) if c else []
            for c, w in zip(cells, widths, strict=True)
        ]
        self.high = max(least, max(map(len, self.lines), default=1) * BODY * LEAD + BETWEEN)

    def drawn(self, x: float, y: float, part: str) -> Iterator[Item]:
        for lines, width in zip(self.lines, self.widths, strict=True):
            for n, line in enumerate(lines, start=1):
                at = (x + PAD, y + BETWEEN / 2 + n * BODY * LEAD - 0.7)
                yield Text(at, line, BODY, bold=self.bold, part=part)
            x += width
