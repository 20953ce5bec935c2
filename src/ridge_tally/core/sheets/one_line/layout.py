"""A one-line diagram laid out on paper: columns from the sun to the grid, a row a string.

Common practice of such drawings, our own arrangement: one straight line a circuit, marks instead of
words on it, and a table underneath.
"""

from collections.abc import Sequence
from dataclasses import replace

from ridge_tally.core.sheets.one_line.house import House
from ridge_tally.core.sheets.one_line.places import (
    BINDING,
    BORDER,
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
    PAPER,
    PITCH_LEAST,
    PITCH_MOST,
    RISE,
    SERVICE,
    SOURCE,
    STRIP,
    SWITCH,
    SWITCH_DC,
    UTILITY,
    Columns,
    Placed,
)
from ridge_tally.core.sheets.one_line.sources import Sources
from ridge_tally.core.sheets.one_line.spec import Group, OneLine, Row
from ridge_tally.core.sheets.one_line.symbols import Pen
from ridge_tally.core.sheets.one_line.tables import TABLE_TOP, draw_tables
from ridge_tally.core.sheets.scene import Scene
from ridge_tally.core.sheets.scene_lint import lint


def one_line_sheets(spec: OneLine, paper: str = "A3") -> tuple[Scene, ...]:
    """Return the diagram's sheets: one where it fits, else the sources first, the house last.

    Equal strings of a group stand as one row where there are too many.
    """
    folded = spec
    if _rows(spec.groups) > MOST_ROWS:
        folded = replace(spec, groups=tuple(_folded(g) for g in spec.groups))
    if _fits(folded.groups, paper):
        whole = _Sheet(folded, paper, folded.groups, house=True).drawn()
        if not lint(whole):
            return (whole,)
    pages: list[list[Group]] = [[]]
    for group in folded.groups:
        if pages[-1] and not _fits((*pages[-1], group), paper):
            pages.append([])
        pages[-1].append(group)
    count = len(pages) + 1
    sheets = [
        _Sheet(folded, paper, tuple(p), house=False, page=(n, count)).drawn()
        for n, p in enumerate(pages, start=1)
    ]
    flags = tuple(
        replace(g, rows=(), sheet=n, joined=False, box="", fuse="", dc_switch="", battery=())
        for n, p in enumerate(pages, start=1)
        for g in p
    )
    last = _Sheet(folded, paper, flags, house=True, page=(count, count))
    return (*sheets, last.drawn())


def _rows(groups: Sequence[Group]) -> int:
    return sum(max(1, len(g.rows)) for g in groups)


def _fits(groups: Sequence[Group], paper: str) -> bool:
    """Return whether groups stand one below the other on a sheet, their rows as near as they go."""
    high = PAPER[paper][1] - 2 * BORDER - TABLE_TOP - 26
    batteries = sum(16 for g in groups if g.battery)
    rows = _rows(groups)
    return (
        rows <= MOST_ROWS and rows * PITCH_LEAST + len(groups) * (HEAD + FOOT) + batteries <= high
    )


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

    def __init__(self, spec: OneLine, paper: str, groups: tuple[Group, ...], *, house: bool,
                 page: tuple[int, int] = (1, 1)) -> None:  # fmt: skip
        self.spec, self.groups, self.house, self.page = spec, groups, house, page
        self.width, self.height = PAPER[paper]
        self.pen = Pen(spec.symbols)
        self.left, self.top = BINDING + 6, BORDER + 6
        self.right = self.width - BORDER - STRIP - 4
        self.bottom = self.height - BORDER - TABLE_TOP

    def drawn(self) -> Scene:
        """Return the sheet."""
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
                sources.off_sheet(one, self.page[1])
        frame = (BINDING, BORDER, self.width - BORDER, self.height - BORDER)
        self.pen.items += draw_tables(self.spec, self.height, frame, self.page)
        title = "One-line diagram"
        if self.page[1] > 1:
            title += f", sheet {self.page[0]} of {self.page[1]}"
        return Scene(title, self.width, self.height, frame, tuple(self.pen.items))

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
