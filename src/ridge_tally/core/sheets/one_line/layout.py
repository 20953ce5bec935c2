"""A one-line diagram laid out on paper: columns from the sun to the grid, a row a string.

Common practice of such drawings, our own arrangement: one straight line a circuit, marks instead of
words on it, and a table underneath.
"""

from collections.abc import Sequence
from dataclasses import replace

from ridge_tally.core.sheets.one_line.house import House
from ridge_tally.core.sheets.one_line.places import (
    COLLECTOR,
    FLAG_PITCH,
    FOOT,
    HEAD,
    INVERTER,
    JUNCTION,
    LEAST_GAP,
    METER,
    MOST_GAP,
    MOST_ROWS,
    PANEL,
    PANEL_HIGH,
    PITCH_LEAST,
    PITCH_MOST,
    RISE,
    SERVICE,
    SOURCE,
    SWITCH,
    SWITCH_DC,
    UTILITY,
    Columns,
    Placed,
)
from ridge_tally.core.sheets.one_line.sources import Sources
from ridge_tally.core.sheets.one_line.spec import Group, OneLine, Row
from ridge_tally.core.sheets.one_line.symbols import Pen
from ridge_tally.core.sheets.one_line.tables import TABLES_HIGH, draw_tables, told_apart
from ridge_tally.core.sheets.paper import INSET_MM, LARGE, Box, Ground, SheetPaper, ground_of
from ridge_tally.core.sheets.scene import Item, Scene
from ridge_tally.core.sheets.scene_lint import lint
from ridge_tally.core.sheets.titled import SheetHead, TitleFacts, part_number, sheet

NUMBER, TITLE = "E-1", "One-line diagram"


def one_line_sheets(spec: OneLine, facts: TitleFacts, paper: SheetPaper) -> tuple[Scene, ...]:
    """Return the diagram's sheets: one where it fits, else the sources first, the house last.

    Equal strings of a group stand as one row where there are too many.  On large paper the tables
    stand below the diagram, on small paper on sheets of their own; a diagram too broad for small
    paper is drawn on the next larger of its kind.
    """
    found = _sheets(spec, facts, ground_of(paper))
    if paper not in LARGE or not any(lint(one) for one in found):
        return found
    return _sheets(spec, facts, ground_of(LARGE[paper]))


def _sheets(spec: OneLine, facts: TitleFacts, ground: Ground) -> tuple[Scene, ...]:
    left, top, right, bottom = ground.free
    low = bottom - TABLES_HIGH if ground.large else bottom
    drawn = _diagrams(spec, (left, top, right, low))
    if ground.large:
        foot, whole = draw_tables(spec, (left, low, right, bottom))
        drawn = [(name, [*items, *foot]) for name, items in drawn]
        # What the foot has no room for is told whole on a sheet of its own.
        pages = [] if whole else told_apart(spec, ground.free, tables=False)
    else:
        pages = told_apart(spec, ground.free, tables=True)
    named = [*drawn, *(("One-line: circuits, notes", items) for items in pages)]
    return tuple(
        sheet(ground, facts, SheetHead(part_number(NUMBER, n, len(named)), name), items)
        for n, (name, items) in enumerate(named, start=1)
    )


def _diagrams(spec: OneLine, box: Box) -> list[tuple[str, list[Item]]]:
    """Return the diagram in pieces that stand in a box, each with its title."""
    folded = spec
    if _rows(spec.groups) > MOST_ROWS:
        folded = replace(spec, groups=tuple(_folded(g) for g in spec.groups))
    whole = _Sheet(folded, box, folded.groups, house=True)
    if _fits(folded.groups, box) and whole.is_broad_enough():
        items = whole.drawn()
        left, top, right, bottom = box
        frame = (left - INSET_MM, top - INSET_MM, right + INSET_MM, bottom)
        if not lint(Scene("", right, bottom, frame, tuple(items))):
            return [(TITLE, items)]
    pages: list[list[Group]] = [[]]
    for group in folded.groups:
        if pages[-1] and not _fits((*pages[-1], group), box):
            pages.append([])
        pages[-1].append(group)
    count = len(pages) + 1
    sheets = [
        (f"{TITLE}, sheet {n} of {count}",
         _Sheet(folded, box, tuple(p), house=False, last=f"{NUMBER}.{count}").drawn())
        for n, p in enumerate(pages, start=1)
    ]  # fmt: skip
    flags = tuple(
        replace(g, rows=(), sheet=f"{NUMBER}.{n}", joined=False, box="", fuse="", dc_switch="",
                battery=())
        for n, p in enumerate(pages, start=1)
        for g in p
    )  # fmt: skip
    last = _Sheet(folded, box, flags, house=True).drawn()
    return [*sheets, (f"{TITLE}, sheet {count} of {count}", last)]


def _rows(groups: Sequence[Group]) -> int:
    return sum(max(1, len(g.rows)) for g in groups)


def _fits(groups: Sequence[Group], box: Box) -> bool:
    """Return whether groups stand one below the other in a box, their rows as near as they go."""
    batteries = sum(16 for g in groups if g.battery)
    rows = _rows(groups)
    high = rows * PITCH_LEAST + len(groups) * (HEAD + FOOT) + batteries
    return rows <= MOST_ROWS and high <= box[3] - box[1] - 26


def _folded(group: Group) -> Group:
    """Return a group with its equal rows as one each."""
    found: dict[tuple[object, ...], Row] = {}
    for row in group.rows:
        key = (row.told, row.mark, row.at_module)
        first = found.get(key)
        if first is None:
            found[key] = row
        else:
            found[key] = replace(
                first, tags=f"{first.tags}, {row.tags}", times=first.times + row.times, port=""
            )
    return replace(group, rows=tuple(found.values()))


class _Sheet:
    """One sheet as it is drawn."""

    def __init__(
        self, spec: OneLine, box: Box, groups: tuple[Group, ...], *, house: bool, last: str = ""
    ) -> None:
        self.spec, self.groups, self.house, self.last = spec, groups, house, last
        self.pen = Pen(spec.symbols)
        self.left, self.top, self.right, self.bottom = box

    def is_broad_enough(self) -> bool:
        """Return whether all columns stand beside each other."""
        return max(right for _, right in self._columns().values()) <= self.right + INSET_MM

    def drawn(self) -> list[Item]:
        """Return what is drawn."""
        placed = self._placed()
        columns = self._columns()
        sources = Sources(self.pen, columns)
        for one in placed:
            sources.draw(one)
        low = max(p.bottom + FOOT + (16 if p.group.battery else 0) for p in placed)
        chain_y = sum(p.middle for p in placed) / len(placed)
        ground_y = min(self.bottom - 8, max(low + 4, chain_y + 22))
        house = House(self.spec, self.pen, columns, self.left, self.top)
        house.ground(placed, ground_y, house=self.house)
        if self.house:
            house.draw(placed, ground_y)
        else:
            for one in placed:
                sources.off_sheet(one, self.last)
        return self.pen.items

    # --- where things stand

    def _placed(self) -> list[Placed]:
        # Room above the first group for the panel's rise and what feeds it from above.
        start = self.top + 4
        free = self.bottom - 16 - start - len(self.groups) * (HEAD + FOOT)
        rows = _rows(self.groups)
        most = PITCH_MOST if any(g.rows for g in self.groups) else FLAG_PITCH
        pitch = min(most, max(PITCH_LEAST, free / max(1, rows)))
        found, y = [], start
        for group in self.groups:
            count = max(1, len(group.rows))
            first = y + HEAD + pitch / 2
            rows_y = [first + n * pitch for n in range(count)]
            bottom = rows_y[-1] + pitch / 2
            found.append(Placed(group, rows_y, y + HEAD, bottom))
            y = bottom + FOOT + (16 if group.battery else 0)
        # What is little stands in the middle of the height there is.
        spare = self.bottom - 14 - y
        down = min(max(0.0, spare / 2), 60.0)
        if self.house:
            # The panels rise from the chain, and what feeds them hangs above.
            middle = sum(p.middle for p in found) / len(found)
            down = max(down, min(self.top + self._rises() - middle, spare))
        for one in found:
            one.rows_y = [r + down for r in one.rows_y]
            one.top, one.bottom = one.top + down, one.bottom + down
        return found

    def _rises(self) -> float:
        """Return how far above the chain the panels and what hangs above them reach."""
        boards = (
            RISE * (len(self.spec.panels) - 1) + PANEL_HIGH + (20 if self.spec.line_side else 0)
        )
        return boards + (26 if self.spec.beside else 0)

    def _columns(self) -> Columns:
        spec = self.spec
        wide: list[tuple[str, float]] = []
        if any(g.rows for g in self.groups):
            wide.append(("source", SOURCE))
        if any(g.boxed for g in self.groups):
            wide.append(("junction", JUNCTION))
        if any(g.dc_switch for g in self.groups):
            wide.append(("switch_dc", SWITCH_DC))
        wide.append(("inverter", INVERTER))
        if self.house:
            if spec.collector and len(self.groups) > 1:
                wide.append(("collector", COLLECTOR))
            if spec.meter:
                wide.append(("meter", METER))
            if spec.switch:
                wide.append(("switch", SWITCH))
            wide += [(f"panel{n}", PANEL) for n in range(len(spec.panels))]
            wide += [("service", SERVICE), ("utility", UTILITY)]
        room = self.right - self.left - 8 - sum(w for _, w in wide)
        gap = min(MOST_GAP, max(LEAST_GAP, room / max(1, len(wide) - 1)))
        whole = sum(w for _, w in wide) + gap * (len(wide) - 1)
        x = self.left + 8 + max(0.0, (self.right - self.left - 8 - whole) / 2)
        found = {}
        for name, w in wide:
            found[name] = (x, x + w)
            x += w + gap
        return found
