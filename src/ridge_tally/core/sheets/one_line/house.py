"""The right of a one-line diagram: what comes after the sources, from the collector to the utility."""

from ridge_tally.core.sheets.one_line.places import (
    COLLECTOR,
    FOOT,
    MOST_BESIDE,
    PANEL,
    PANEL_HIGH,
    RISE,
    SWITCH,
    Columns,
    Placed,
    cut,
)
from ridge_tally.core.sheets.one_line.spec import OneLine
from ridge_tally.core.sheets.one_line.symbols import LABEL, SMALL, Pen
from ridge_tally.core.sheets.scene import Arc, Layer, Point


class House:
    """Draws the AC chain, the boards and what hangs beside them, and all ways to ground."""

    def __init__(self, spec: OneLine, pen: Pen, columns: Columns, left: float, top: float) -> None:
        self.spec, self.pen, self.columns = spec, pen, columns
        self.left, self.top = left, top

    def draw(self, placed: list[Placed], ground_y: float) -> None:
        """Draw what comes after the sources."""
        columns = self.columns
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

    def _collected(self, placed: list[Placed], columns: Columns,
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

    def _panels(self, columns: Columns, chain_y: float, x: float, mark: str,
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
            pen.text(x + 1.5, box_top + 4, cut(beside.name, 32), SMALL, part=beside.part)
            for k, words in enumerate(beside.told[:2]):
                pen.text(x + 1.5, box_top + 7.2 + 3.2 * k, cut(words, 32), SMALL, part=beside.part)
            # The leftmost comes in highest, so that none crosses another.
            down, level, turn = bus + 8 + 4 * n, top + 3 + 2.4 * n, box_top + 15
            mid = x + wide / 2
            net = f"beside {n} {beside.part}"
            pen.wire(Layer.AC, net, (mid, box_top + 12), (mid, turn), (down, turn), (down, level),
                     (bus, level), part=beside.part)  # fmt: skip

    def _service(self, columns: Columns, chain_y: float, x: float, y: float,
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
        # The electrode is the service’s own: at the main panel, the last of the boards.
        pen.earth(columns[f"panel{len(spec.panels) - 1}"][0] + 4, ground_y)

    def _chain_end(self, columns: Columns) -> float:
        for name in ("switch", "meter", "collector", "inverter"):
            if name in columns:
                return columns[name][1]
        return self.left

    def ground(self, placed: list[Placed], ground_y: float, *, house: bool) -> None:
        """Draw what is led to earth: each group's own line, a rail, one electrode.

        What hangs lowest is led to the electrode's line itself.
        """
        columns, pen = self.columns, self.pen
        grounded = [one for one in placed if one.group.rows]
        if not grounded:
            return
        lowest = placed[-1] if grounded[-1] is placed[-1] and not placed[-1].group.battery else None
        levels = []
        for one in grounded:
            net = f"ground {one.group.part}"
            y = ground_y if one is lowest else one.bottom + FOOT - 4
            drops = [columns["source"][0] + 3]
            if one.group.boxed:
                drops.append(columns["junction"][0] + 1.2)
            if one.group.dc_switch:
                drops.append(columns["switch_dc"][0] + 1.2)
            for n, x in enumerate(drops):
                low = one.rows_y[-1] + 4.3 if n == 0 else one.bottom
                pen.line(Layer.GROUND, (x, low), (x, y), dashed=True, net=net)
            inverter_x = columns["inverter"][0]
            end = inverter_x + 29
            down: tuple[Point, ...] = ((end, one.bottom), (end, y))
            if one.group.battery:
                # The battery hangs below: its line passes it by, and leads it to earth too.
                end = inverter_x
                down = ((end, one.bottom - 2), (end - 4, one.bottom - 2), (end - 4, y))
            pen.line(Layer.GROUND, *down, dashed=True, net=net)
            if one is not lowest:
                levels.append(y)
                pen.line(Layer.GROUND, (self.left, y), (end, y), dashed=True, net=net)
        # Without a rail beside them, the line begins where the first is led down.
        begin = self.left if levels or not house else columns["source"][0] + 3
        if levels:
            pen.line(Layer.GROUND, (self.left, levels[0]), (self.left, ground_y), dashed=True,
                     net="ground rail")  # fmt: skip
        end = columns["inverter"][0] + 29
        if house:
            end = columns[f"panel{len(self.spec.panels) - 1}"][0] + 4
        if house or lowest is not None:
            pen.line(Layer.GROUND, (begin, ground_y), (end, ground_y), dashed=True,
                     net="ground rail")  # fmt: skip
        if not house:
            pen.earth(self.left, ground_y)


def _hop(x: float, y: float) -> Arc:
    return Arc(Layer.AC, (x, y), 1.5, 180, 360, net="tap")
