"""The left of a one-line diagram: strings or branches, their boxes, the inverters they come to."""

from ridge_tally.core.sheets.one_line.places import (
    INVERTER,
    JUNCTION,
    SOURCE,
    SWITCH_DC,
    Columns,
    Placed,
    cut,
)
from ridge_tally.core.sheets.one_line.spec import AtModule, Group, Row
from ridge_tally.core.sheets.one_line.symbols import LABEL, SMALL, Pen
from ridge_tally.core.sheets.scene import Layer


class Sources:
    """Draws groups of rows with what takes them, into one pen."""

    def __init__(self, pen: Pen, columns: Columns) -> None:
        self.pen, self.columns = pen, columns

    def draw(self, one: Placed) -> None:
        """Draw a group; note where its output leaves."""
        columns = self.columns
        group, pen = one.group, self.pen
        inv_x, inv_right = columns["inverter"]
        layer = Layer.AC if group.micro else Layer.DC
        enters = inv_x
        if "switch_dc" in columns and group.dc_switch:
            enters = columns["switch_dc"][0]
        box_x = columns.get("junction", (0.0, 0.0))[0]
        boxed = group.boxed and bool(group.rows)
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
            _short(group.told[0] if group.told else "", 33),
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
        pen.text(x + 9, y - 0.7, cut(f"{tags}: {told}", most), SMALL, part=row.part, bold=False)
        pen.text(x + 9, y + 2.9, cut(row.told[1] if len(row.told) > 1 else "", most), SMALL,
                 part=row.part)  # fmt: skip
        if row.at_module:
            out = "~" if row.at_module is AtModule.MICRO else "="
            pen.converter(x + SOURCE - 4.2, y, 6.4, "=", out, row.part)
        if group.micro:
            # The trunk's end cap.
            pen.line(Layer.SYMBOL, (x - 2.4, y - 1.6), (x - 2.4, y + 1.6), part=row.part)
            pen.line(Layer.AC, (x - 2.4, y), (x, y), part=row.part)
        return x + SOURCE

    def _to_inverter(self, one: Placed, row: Row, y: float, start: float, end: float,
                     columns: Columns) -> None:  # fmt: skip
        group = one.group
        layer = Layer.AC if group.micro else Layer.DC
        self.pen.marked_wire(layer, f"row {row.part} {row.tags}", start, end, y, row.mark, row.part)
        if not group.micro and not group.joined and "switch_dc" not in columns and row.port:
            # The inverter's own inlet is named inside its box.
            self.pen.text(columns["inverter"][0] + 1, y - 0.7, row.port, SMALL, part=group.part)

    def _junction(self, one: Placed, columns: Columns,
                  enters: float) -> None:  # fmt: skip
        group, pen = one.group, self.pen
        x, right = columns["junction"]
        high = one.bottom - one.top
        pen.box(x, one.top, JUNCTION, high, f"box {group.part}")
        pen.text(x, one.top - 1.6, group.box or "Box", SMALL)
        if not group.joined:
            layer = Layer.AC if group.micro else Layer.DC
            for row, y in zip(group.rows, one.rows_y, strict=True):
                net = f"row {row.part} {row.tags} on"
                pen.wire(layer, net, (x, y), (enters, y), part=row.part)
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

    def _dc_switch(self, one: Placed, columns: Columns) -> None:
        group, pen = one.group, self.pen
        x, _ = columns["switch_dc"]
        pen.box(x, one.top, SWITCH_DC, one.bottom - one.top, f"dc switch {group.part}")
        pen.text(x, one.top - 1.6, "DC switch", SMALL)
        pen.text(x + 2.6, one.bottom + 3.4, group.dc_switch, SMALL, part=f"dc switch {group.part}")
        for y in _inlets(one):
            net = f"switched {group.part} {y:.1f}"
            pen.wire(Layer.DC, net, (x, y), (x + 4, y))
            pen.switch(x + 4, y, f"dc switch {group.part}")
            pen.wire(Layer.DC, net, (x + 13, y), (columns["inverter"][0], y))

    def _inside(self, one: Placed, x: float, layer: Layer) -> None:
        """Lead the inputs to the converter on an inner rail."""
        group, pen, mid = one.group, self.pen, one.middle
        ys = _inlets(one)
        net, rail = f"in {group.part}", x + 9
        if not group.rows:
            words = f"from {group.sheet}" if group.sheet else "no string"
            pen.text(x + 1, mid - 0.9, words, SMALL, part=group.part)
            pen.wire(layer, net, (x, mid), (x + 16.5, mid), part=group.part)
            return
        for y in ys:
            pen.wire(layer, net, (x, y), (rail, y), part=group.part)
        if len(ys) > 1:
            pen.wire(layer, net, (rail, ys[0]), (rail, ys[-1]), part=group.part)
        pen.wire(layer, net, (rail, mid), (x + 16.5, mid), part=group.part)

    def _branch_bus(self, one: Placed, x: float, right: float) -> None:
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

    def _dc_battery(self, one: Placed, x: float) -> None:
        group, pen = one.group, self.pen
        top = one.bottom + 5 + 3 * max(0, len(group.told) - 1)
        net = f"battery {group.part}"
        at = x + 26
        pen.wire(Layer.DC, net, (at, one.bottom), (at, top), part=f"battery {group.part}")
        pen.box(x, top, INVERTER, 9, f"battery {group.part}")
        for n, words in enumerate(group.battery[:2]):
            pen.text(x + 1.5, top + 3.6 + n * 3.4, words, SMALL, part=f"battery {group.part}")

    def off_sheet(self, one: Placed, sheet: str) -> None:
        """Lead a group's output to the sheet it goes on at."""
        pen, (x, y) = self.pen, one.out
        pen.marked_wire(Layer.AC, f"off {one.group.part}", x, x + 22, y, one.group.out_mark,
                        one.group.part)  # fmt: skip
        flag = ((x + 22, y - 3), (x + 44, y - 3), (x + 47, y), (x + 44, y + 3), (x + 22, y + 3))
        pen.line(Layer.SYMBOL, *flag, closed=True)
        pen.text(x + 23.5, y + 0.9, f"to {sheet}", SMALL)


def _inlets(one: Placed) -> list[float]:
    """Return where conductors come in: one a row, or one a port where rows are joined before."""
    if not one.group.joined or not one.group.rows:
        return one.rows_y
    ports: dict[str, list[float]] = {}
    for row, y in zip(one.group.rows, one.rows_y, strict=True):
        ports.setdefault(row.port, []).append(y)
    return [(p[0] + p[-1]) / 2 for p in ports.values()]


def _short(name: str, most: int) -> str:
    """Return a name that fits: its first words where it goes on after a comma; the table has all."""
    return name if len(name) <= most else cut(name.split(",", maxsplit=1)[0], most)
