"""A one-line diagram laid out on paper: columns from the sun to the grid, a row a string.

Common practice of such drawings, our own arrangement: one straight line a circuit, marks instead of
words on it, and a table underneath.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ridge_tally.core.sheets.one_line.spec import AtModule, Group, OneLine, Row
from ridge_tally.core.sheets.one_line.symbols import LABEL, SMALL, Pen
from ridge_tally.core.sheets.one_line.tables import TABLE_TOP, draw_tables
from ridge_tally.core.sheets.scene import Arc, Layer, Point, Scene
from ridge_tally.core.sheets.scene_lint import lint

# A3 and tabloid, millimetres; both hold what is drawn here.
PAPER = {"A3": (420.0, 297.0), "Tabloid": (431.8, 279.4)}
BORDER, BINDING, STRIP = 10.0, 15.0, 60.0
SOURCE, JUNCTION, SWITCH_DC, INVERTER, COLLECTOR = 40.0, 17.0, 17.0, 32.0, 24.0
METER, SWITCH, PANEL, SERVICE, UTILITY = 12.0, 24.0, 36.0, 12.0, 14.0
MOST_GAP, LEAST_GAP = 24.0, 9.0
HEAD, FOOT = 12.0, 15.0
PITCH_MOST, PITCH_LEAST, FLAG_PITCH = 22.0, 9.6, 12.0
# More rows than this do not stand on one sheet.
MOST_ROWS = 12
RISE, PANEL_HIGH = 24.0, 42.0
MOST_BESIDE = 3


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
        replace(g, rows=(), sheet=n, joined=False, fuse="", dc_switch="", battery=())
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


@dataclass
class _Placed:
    """A group's rows and where its output leaves."""

    group: Group
    rows_y: list[float]
    top: float
    bottom: float
    out: Point = (0.0, 0.0)

    @property
    def middle(self) -> float:
        return (self.rows_y[0] + self.rows_y[-1]) / 2


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
        for one in placed:
            self._group(one, columns)
        low = max(p.bottom + FOOT + (16 if p.group.battery else 0) for p in placed)
        chain_y = sum(p.middle for p in placed) / len(placed)
        ground_y = min(self.bottom - 8, max(low + 4, chain_y + 22))
        self._ground(placed, columns, ground_y)
        if self.house:
            self._house(placed, columns, ground_y)
        else:
            for one in placed:
                self._off_sheet(one)
        frame = (BINDING, BORDER, self.width - BORDER, self.height - BORDER)
        self.pen.items += draw_tables(self.spec, self.width, self.height, frame, self.page)
        title = "One-line diagram"
        if self.page[1] > 1:
            title += f", sheet {self.page[0]} of {self.page[1]}"
        return Scene(title, self.width, self.height, frame, tuple(self.pen.items))

    # --- where things stand

    def _placed(self) -> list[_Placed]:
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
            found.append(_Placed(group, rows_y, y + HEAD, bottom))
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

    def _columns(self) -> dict[str, tuple[float, float]]:
        spec = self.spec
        wide: list[tuple[str, float]] = []
        if any(g.rows for g in self.groups):
            wide.append(("source", SOURCE))
        if any(g.joined or g.micro for g in self.groups):
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

    # --- the sources

    def _group(self, one: _Placed, columns: dict[str, tuple[float, float]]) -> None:
        group, pen = one.group, self.pen
        inv_x, inv_right = columns["inverter"]
        layer = Layer.AC if group.micro else Layer.DC
        enters = inv_x
        if "switch_dc" in columns and group.dc_switch:
            enters = columns["switch_dc"][0]
        box_x = columns.get("junction", (0.0, 0.0))[0]
        boxed = (group.joined or group.micro) and bool(group.rows)
        for row, y in zip(group.rows, one.rows_y, strict=True) if group.rows else ():
            end = self._row(row, y, columns["source"][0], group)
            self._to_inverter(one, row, y, end, box_x if boxed else enters, columns)
        if boxed:
            self._junction(one, columns, enters)
        if "switch_dc" in columns and group.dc_switch:
            self._dc_switch(one, columns)
        pen.box(inv_x, one.top, INVERTER, one.bottom - one.top, group.part)
        pen.text(inv_x, one.top - 5.2, f"{group.number}  {group.name}", LABEL, part=group.part,
                 bold=True)  # fmt: skip
        pen.text(
            inv_x,
            one.top - 1.6,
            _cut(group.told[0] if group.told else "", 33),
            SMALL,
            part=group.part,
        )
        for n, words in enumerate(group.told[1:]):
            pen.text(inv_x, one.bottom + 3.4 + n * 3, words, SMALL, part=group.part)
        mid = one.middle
        if group.micro:
            self._branch_bus(one, inv_x, inv_right)
        else:
            self._inside(one, inv_x, layer)
            pen.converter(inv_x + 21, mid, 9, "=", "~", group.part)
            pen.wire(Layer.AC, f"out {group.part}", (inv_x + 25.5, mid), (inv_right, mid))
        one.out = (inv_right, mid)
        if group.battery:
            self._dc_battery(one, inv_x)

    def _row(self, row: Row, y: float, x: float, group: Group) -> float:
        """Draw a string or branch; return where its conductor begins."""
        pen = self.pen
        high = 8.6
        pen.box(x, y - high / 2, SOURCE, high, row.part)
        pen.module(x + 1, y, row.part)
        told = row.told[0]
        tags = row.tags if row.times == 1 else f"{row.times} × {row.tags}"
        most = int((SOURCE - 10 - (8 if row.at_module else 0)) / (SMALL * 0.5))
        pen.text(x + 9, y - 0.7, _cut(f"{tags}: {told}", most), SMALL, part=row.part, bold=False)
        pen.text(x + 9, y + 2.9, _cut(row.told[1] if len(row.told) > 1 else "", most), SMALL,
                 part=row.part)  # fmt: skip
        if row.at_module:
            out = "~" if row.at_module is AtModule.MICRO else "="
            pen.converter(x + SOURCE - 4.2, y, 6.4, "=", out, row.part)
        if group.micro:
            # The trunk's end cap.
            pen.line(Layer.SYMBOL, (x - 2.4, y - 1.6), (x - 2.4, y + 1.6), part=row.part)
            pen.line(Layer.AC, (x - 2.4, y), (x, y), part=row.part)
        return x + SOURCE

    def _to_inverter(self, one: _Placed, row: Row, y: float, start: float, end: float,
                     columns: dict[str, tuple[float, float]]) -> None:  # fmt: skip
        group = one.group
        layer = Layer.AC if group.micro else Layer.DC
        self.pen.marked_wire(layer, f"row {row.part} {row.tags}", start, end, y, row.mark, row.part)
        if not group.micro and not group.joined and "switch_dc" not in columns and row.port:
            # The inverter's own inlet is named inside its box.
            self.pen.text(columns["inverter"][0] + 1, y - 0.7, row.port, SMALL, part=group.part)

    def _junction(self, one: _Placed, columns: dict[str, tuple[float, float]],
                  enters: float) -> None:  # fmt: skip
        group, pen = one.group, self.pen
        x, right = columns["junction"]
        high = one.bottom - one.top
        pen.box(x, one.top, JUNCTION, high, f"box {group.part}")
        pen.text(x, one.top - 1.6, "Roof box" if group.micro else "Box", SMALL)
        if group.micro:
            for row, y in zip(group.rows, one.rows_y, strict=True):
                net = f"row {row.part} {row.tags} on"
                pen.wire(Layer.AC, net, (x, y), (right, y), part=row.part)
                pen.wire(Layer.AC, net, (right, y), (columns["inverter"][0], y), part=row.part)
            return
        ports: dict[str, list[tuple[Row, float]]] = {}
        for row, y in zip(group.rows, one.rows_y, strict=True):
            ports.setdefault(row.port, []).append((row, y))
        join = right - 3
        for port, rows in ports.items():
            ys = [y for _, y in rows]
            net = f"joined {group.part} {port}"
            for row, y in rows:
                at = x
                if group.fuse:
                    at = pen.fuse(x + 2, y, row.part, net)
                    pen.wire(Layer.DC, net, (x, y), (x + 2, y))
                pen.wire(Layer.DC, net, (at, y), (join, y))
            mid = (ys[0] + ys[-1]) / 2
            if len(ys) > 1:
                pen.wire(Layer.DC, net, (join, ys[0]), (join, ys[-1]))
                pen.dot(join, mid)
            pen.wire(Layer.DC, net, (join, mid), (enters, mid))
            pen.text(columns["inverter"][0] + 1, mid - 0.7, port, SMALL, part=group.part)
        if group.fuse:
            pen.text(x + 2.6, one.bottom + 3.4, group.fuse, SMALL, part=f"box {group.part}")

    def _dc_switch(self, one: _Placed, columns: dict[str, tuple[float, float]]) -> None:
        group, pen = one.group, self.pen
        x, _ = columns["switch_dc"]
        pen.box(x, one.top, SWITCH_DC, one.bottom - one.top, f"dc switch {group.part}")
        pen.text(x, one.top - 1.6, "DC switch", SMALL)
        pen.text(x + 2.6, one.bottom + 3.4, group.dc_switch, SMALL, part=f"dc switch {group.part}")
        ys = one.rows_y if not group.joined else [one.middle]
        for y in ys:
            net = f"switched {group.part} {y:.1f}"
            pen.wire(Layer.DC, net, (x, y), (x + 4, y))
            pen.switch(x + 4, y, f"dc switch {group.part}")
            pen.wire(Layer.DC, net, (x + 13, y), (columns["inverter"][0], y))

    def _inside(self, one: _Placed, x: float, layer: Layer) -> None:
        """Lead the inputs to the converter on an inner rail."""
        group, pen, mid = one.group, self.pen, one.middle
        ys = one.rows_y
        if group.joined:
            ports: dict[str, list[float]] = {}
            for row, y in zip(group.rows, one.rows_y, strict=True):
                ports.setdefault(row.port, []).append(y)
            ys = [(p[0] + p[-1]) / 2 for p in ports.values()]
        net, rail = f"in {group.part}", x + 9
        if not group.rows:
            words = f"sheet {group.sheet}" if group.sheet else "no string"
            pen.text(x + 1, mid - 0.9, words, SMALL, part=group.part)
            pen.wire(layer, net, (x, mid), (x + 16.5, mid), part=group.part)
            return
        for y in ys:
            pen.wire(layer, net, (x, y), (rail, y), part=group.part)
        if len(ys) > 1:
            pen.wire(layer, net, (rail, ys[0]), (rail, ys[-1]), part=group.part)
        pen.wire(layer, net, (rail, mid), (x + 16.5, mid), part=group.part)

    def _branch_bus(self, one: _Placed, x: float, right: float) -> None:
        """Branches come to a bus by a breaker each; one conductor leaves."""
        group, pen, mid = one.group, self.pen, one.middle
        bus = x + 22
        net = f"out {group.part}"
        ys = one.rows_y
        for n, y in enumerate(ys if group.rows else []):
            at = pen.breaker(x + 5, y, Layer.AC, f"branch {n} {group.part}", group.part)
            pen.wire(Layer.AC, f"branch {n} {group.part}", (x, y), (x + 5, y), part=group.part)
            pen.wire(Layer.AC, net, (at, y), (bus, y), part=group.part)
            pen.text(x + 5, y - 3.2, group.breaker, SMALL, part=group.part)
        pen.line(Layer.BUS, (bus, ys[0] - 2), (bus, ys[-1] + 2), part=group.part)
        pen.wire(Layer.AC, net, (bus, mid), (right, mid), part=group.part)

    def _dc_battery(self, one: _Placed, x: float) -> None:
        group, pen = one.group, self.pen
        top = one.bottom + 5 + 3 * max(0, len(group.told) - 1)
        net = f"battery {group.part}"
        at = x + 26
        pen.wire(Layer.DC, net, (at, one.bottom), (at, top), part=f"battery {group.part}")
        pen.box(x, top, INVERTER, 9, f"battery {group.part}")
        for n, words in enumerate(group.battery[:2]):
            pen.text(x + 1.5, top + 3.6 + n * 3.4, words, SMALL, part=f"battery {group.part}")

    def _off_sheet(self, one: _Placed) -> None:
        pen, (x, y) = self.pen, one.out
        pen.marked_wire(Layer.AC, f"off {one.group.part}", x, x + 22, y, one.group.out_mark,
                        one.group.part)  # fmt: skip
        flag = ((x + 22, y - 3), (x + 44, y - 3), (x + 47, y), (x + 44, y + 3), (x + 22, y + 3))
        pen.line(Layer.SYMBOL, *flag, closed=True)
        pen.text(x + 23.5, y + 0.9, f"to sheet {self.page[1]}", SMALL)

    # --- the house

    def _house(self, placed: list[_Placed], columns: dict[str, tuple[float, float]],
               ground_y: float) -> None:  # fmt: skip
        spec, pen = self.spec, self.pen
        chain_y = sum(p.middle for p in placed) / len(placed)
        x, mark = self._collected(placed, columns, chain_y)
        if "meter" in columns:
            at, right = columns["meter"]
            pen.marked_wire(Layer.AC, "chain a", x, at, chain_y, mark, "meter")
            pen.meter((at + right) / 2, chain_y, "production meter")
            pen.text((at + right) / 2, chain_y - 7, "Production meter", SMALL, "middle")
            x, mark = right, ""
        if "switch" in columns:
            at, right = columns["switch"]
            pen.marked_wire(Layer.AC, "chain b", x, at, chain_y, mark, "disconnect")
            self._ac_switch(at, chain_y, ground_y)
            x, mark = right, mark or spec.chain_mark
        self._panels(columns, chain_y, x, mark, ground_y)

    def _collected(self, placed: list[_Placed], columns: dict[str, tuple[float, float]],
                   chain_y: float) -> tuple[float, str]:  # fmt: skip
        """Bring the outputs together; return where the chain goes on and its mark."""
        spec, pen = self.spec, self.pen
        if "collector" not in columns:
            one = placed[0]
            return one.out[0], one.group.out_mark if not spec.collector else spec.chain_mark
        x, right = columns["collector"]
        top = min(p.middle for p in placed) - 7
        bottom = max(p.middle for p in placed) + 7
        pen.box(x, top, COLLECTOR, bottom - top, "collector")
        pen.text(x, top - 1.6, "AC combiner", LABEL, part="collector", bold=True)
        bus = x + 15
        pen.line(Layer.BUS, (bus, top + 3), (bus, bottom - 3), part="collector")
        for one in placed:
            y, net = one.middle, f"out {one.group.part} on"
            pen.marked_wire(Layer.AC, net, one.out[0], x, y, one.group.out_mark, one.group.part)
            pen.wire(Layer.AC, net, (x, y), (x + 3, y), part=one.group.part)
            at = pen.breaker(x + 3, y, Layer.AC, net, one.group.part)
            pen.wire(Layer.AC, net, (at, y), (bus, y), part=one.group.part)
            pen.text(x + 2, y + 4.6, one.group.breaker, SMALL, part=one.group.part)
        pen.wire(Layer.AC, "collected", (bus, chain_y), (right, chain_y), part="collector")
        return right, spec.chain_mark

    def _ac_switch(self, x: float, y: float, ground_y: float) -> None:
        spec, pen = self.spec, self.pen
        pen.box(x, y - 8, SWITCH, 13, "disconnect")
        pen.wire(Layer.AC, "switch in", (x, y), (x + 7.5, y), part="disconnect")
        pen.switch(x + 7.5, y, "disconnect")
        pen.wire(Layer.AC, "switch out", (x + 16.5, y), (x + SWITCH, y), part="disconnect")
        pen.line(Layer.GROUND, (x + 4, y + 5), (x + 4, ground_y), dashed=True,
                 net="ground disconnect")  # fmt: skip
        pen.text(x, y - 13.2, f"{spec.switch_number}  {spec.switch[0]}", LABEL, part="disconnect",
                 bold=True)  # fmt: skip
        for n, words in enumerate(spec.switch[1:3]):
            pen.text(x, y - 9.8 if n == 0 else y + 8.4, words, SMALL, part="disconnect")

    def _panels(self, columns: dict[str, tuple[float, float]], chain_y: float, x: float, mark: str,
                ground_y: float) -> None:  # fmt: skip
        spec, pen = self.spec, self.pen
        # Joined before the main breaker, the chain runs below the panel and up beyond it.
        y = chain_y if not spec.line_side else chain_y - 16
        last = len(spec.panels) - 1
        for n, panel in enumerate(spec.panels):
            left, right = columns[f"panel{n}"]
            if spec.line_side:
                out_y = y - RISE
            else:
                net = f"to panel {n}"
                pen.marked_wire(Layer.AC, net, x, left, y, mark, panel.part)
                out_y = y - RISE
            bottom = y + 9 if not spec.line_side else y + 4
            top = bottom - PANEL_HIGH
            pen.box(left, top, PANEL, PANEL_HIGH, panel.part)
            pen.text(left, top - 5.2, f"{panel.number}  {panel.name}", LABEL, part=panel.part,
                     bold=True)  # fmt: skip
            pen.text(left, top - 1.6, panel.bus, SMALL, part=panel.part)
            bus = left + 17
            pen.line(Layer.BUS, (bus, top + 2), (bus, bottom - 4), part=panel.part)
            self._main_breaker(panel.main, panel.part, bus, right, out_y, n)
            for load_y in (out_y + 9, out_y + 15):
                pen.line(Layer.AC, (bus, load_y), (bus + 9, load_y), part=panel.part)
            pen.text(bus + 10, out_y + 12.8, "loads", SMALL, part=panel.part)
            if not spec.line_side:
                net = f"source {n}"
                pen.wire(Layer.AC, net, (left, y), (left + 4, y), part=panel.part)
                at = pen.breaker(left + 4, y, Layer.AC, net, panel.part)
                pen.wire(Layer.AC, net, (at, y), (bus, y), part=panel.part)
                pen.text(left + 2, y + 4.8, panel.source, SMALL, part=panel.part)
            # To ground from the panel's lower left corner.
            pen.line(Layer.GROUND, (left + 4, bottom), (left + 4, ground_y), dashed=True,
                     net=f"ground {panel.part}")  # fmt: skip
            if n == last:
                self._beside(top, bus)
            x, y, mark = right, out_y, ""
        self._service(columns, chain_y, x, y, mark, ground_y)

    def _main_breaker(self, told: str, part: str, bus: float, right: float, y: float,
                      n: int) -> None:  # fmt: skip
        pen, net = self.pen, f"main {n}"
        pen.wire(Layer.AC, net, (bus, y), (bus + 5, y), part=part)
        at = pen.breaker(bus + 5, y, Layer.AC, net, part)
        pen.wire(Layer.AC, net, (at, y), (right, y), part=part)
        pen.text(bus + 2, y + 4.8, told, SMALL, part=part)

    def _beside(self, top: float, bus: float) -> None:
        """What else feeds the panel hangs above it, and comes in right of its bus."""
        spec, pen = self.spec, self.pen
        wide, shown = 42.0, spec.beside[:MOST_BESIDE]
        for n, beside in enumerate(shown):
            x = bus + 2 + (n - 0.5 * (len(shown) - 1)) * (wide + 3) - wide / 2 + 8
            box_top = max(self.top, top - 32)
            pen.box(x, box_top, wide, 12, beside.part)
            pen.text(x + 1.5, box_top + 4, _cut(beside.name, 32), SMALL, part=beside.part)
            for k, words in enumerate(beside.told[:2]):
                pen.text(x + 1.5, box_top + 7.2 + 3.2 * k, _cut(words, 32), SMALL, part=beside.part)
            # The leftmost comes in highest, so that none crosses another.
            down, level, turn = bus + 8 + 4 * n, top + 3 + 2.4 * n, box_top + 15
            mid = x + wide / 2
            net = f"beside {n} {beside.part}"
            pen.wire(Layer.AC, net, (mid, box_top + 12), (mid, turn), (down, turn), (down, level),
                     (bus, level), part=beside.part)  # fmt: skip

    def _service(self, columns: dict[str, tuple[float, float]], chain_y: float, x: float, y: float,
                 mark: str, ground_y: float) -> None:  # fmt: skip
        spec, pen = self.spec, self.pen
        at, right = columns["service"]
        if spec.line_side:
            tap = (x + at) / 2
            begin = self._chain_end(columns)
            pen.marked_wire(Layer.AC, "tap", begin, columns["panel0"][0], chain_y, spec.chain_mark,
                            "panel")  # fmt: skip
            # Over the panel's conductor to ground the chain hops.
            hop = columns["panel0"][0] + 4
            pen.wire(Layer.AC, "tap", (columns["panel0"][0], chain_y), (hop - 1.5, chain_y))
            pen.items.append(_hop(hop, chain_y))
            pen.wire(Layer.AC, "tap", (hop + 1.5, chain_y), (tap, chain_y), (tap, y), part="panel")
            pen.dot(tap, y)
        pen.wire(Layer.AC, "service", (x, y), (at, y), part="service")
        pen.meter((at + right) / 2, y, "meter")
        pen.text((at + right) / 2, y - 6.6, "Meter", SMALL, "middle", "meter")
        u_x, u_right = columns["utility"]
        pen.wire(Layer.AC, "supply", (right, y), (u_x + 3, y), part="service")
        pen.line(Layer.SYMBOL, (u_x + 3, y - 4), (u_x + 3, y + 4))
        pen.line(Layer.SYMBOL, (u_x + 5, y - 4), (u_x + 5, y + 4))
        for n, words in enumerate(spec.utility[:3]):
            pen.text(u_right, y + 8.4 + 3.2 * n, words, SMALL, "end", "service")
        pen.earth(columns["panel0"][0] + 4, ground_y)

    def _chain_end(self, columns: dict[str, tuple[float, float]]) -> float:
        for name in ("switch", "meter", "collector", "inverter"):
            if name in columns:
                return columns[name][1]
        return self.left

    # --- to ground

    def _ground(self, placed: list[_Placed], columns: dict[str, tuple[float, float]],
                ground_y: float) -> None:  # fmt: skip
        pen, rail = self.pen, self.left
        first = None
        for one in placed:
            if not one.group.rows:
                continue
            y = one.bottom + FOOT - 4
            drops = [columns["source"][0] + 3]
            if one.group.joined or one.group.micro:
                drops.append(columns["junction"][0] + 1.2)
            if one.group.dc_switch:
                drops.append(columns["switch_dc"][0] + 1.2)
            for n, x in enumerate(drops):
                low = one.rows_y[-1] + 4.3 if n == 0 else one.bottom
                pen.line(
                    Layer.GROUND, (x, low), (x, y), dashed=True, net=f"ground {one.group.part}"
                )
            x = columns["inverter"][0] + 29
            y_box = one.bottom
            if one.group.battery:
                x = columns["inverter"][0] - 2
                pen.line(
                    Layer.GROUND, (rail, y), (x, y), dashed=True, net=f"ground {one.group.part}"
                )
            else:
                pen.line(Layer.GROUND, (x, y_box), (x, y), dashed=True,
                         net=f"ground {one.group.part}")  # fmt: skip
                pen.line(Layer.GROUND, (rail, y), (x, y), dashed=True,
                         net=f"ground {one.group.part}")  # fmt: skip
            first = y if first is None else min(first, y)
        if first is None:
            return
        pen.line(Layer.GROUND, (rail, first), (rail, ground_y), dashed=True, net="ground rail")
        if self.house:
            end = columns[f"panel{len(self.spec.panels) - 1}"][0] + 4
            pen.line(
                Layer.GROUND, (rail, ground_y), (end, ground_y), dashed=True, net="ground rail"
            )
        else:
            pen.earth(rail, ground_y)


def _hop(x: float, y: float) -> Arc:
    return Arc(Layer.AC, (x, y), 1.5, 180, 360, net="tap")


def _cut(words: str, most: int) -> str:
    return words if len(words) <= most else words[: max(1, most - 1)].rstrip() + "…"
