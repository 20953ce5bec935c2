"""What a one-line diagram shows, as plain facts with their words; nothing of paper."""

from dataclasses import dataclass
from enum import StrEnum


class Symbols(StrEnum):
    """The family of symbols: North America's, or the international one."""

    NORTH_AMERICAN = "north-american"
    INTERNATIONAL = "international"


class AtModule(StrEnum):
    """What stands at each module of a row."""

    NOTHING = ""
    SOME = "some"
    OPTIMIZER = "optimizer"
    MICRO = "micro"


@dataclass(frozen=True, slots=True)
class Row:
    """A string or branch, or ``times`` of them alike; ``mark`` is that of its circuit.

    ``port``: the input it comes to; strings of one port that are ``joined`` meet in a box before.
    """

    tags: str
    told: tuple[str, ...]
    port: str
    mark: str
    part: str
    at_module: AtModule = AtModule.NOTHING
    times: int = 1


@dataclass(frozen=True, slots=True)
class Group:
    """What shares an inverter, or a combiner of branches: its rows, and the ``box`` they pass by name.

    ``fuse``: told where every string has one; ``joined``: whether they meet in a box; ``out_mark``
    that of its output.  ``battery``: told where one hangs on its DC side.
    ``sheet``: which one its rows stand on, empty for this.
    """

    name: str
    told: tuple[str, ...]
    part: str
    number: str
    rows: tuple[Row, ...]
    out_mark: str
    joined: bool = False
    fuse: str = ""
    micro: bool = False
    breaker: str = ""
    battery: tuple[str, ...] = ()
    dc_switch: str = ""
    sheet: str = ""
    box: str = ""

    @property
    def boxed(self) -> bool:
        """Whether its rows pass a box on their way."""
        return self.joined or self.box != ""


@dataclass(frozen=True, slots=True)
class Panel:
    """A board: its name, its main breaker and bus as told, and the breaker the sources come in by."""

    name: str
    bus: str
    main: str
    source: str
    part: str
    number: str


@dataclass(frozen=True, slots=True)
class Beside:
    """What else feeds the last panel: a battery's inverter, an array that is there already."""

    name: str
    told: tuple[str, ...]
    part: str


@dataclass(frozen=True, slots=True)
class TableRow:
    """A row of the table of circuits or of equipment."""

    cells: tuple[str, ...]
    part: str = ""


@dataclass(frozen=True, slots=True)
class OneLine:
    """A diagram: its groups from the sun, what comes after them, its tables and its words.

    ``switch``: the AC disconnect as told, empty without one; ``line_side``: joined before the main
    breaker.  ``chain_mark``: the circuit from the collector on.  ``unknown``: what is not known or not
    checked, one line each.
    """

    symbols: Symbols
    groups: tuple[Group, ...]
    collector: bool
    chain_mark: str
    switch: tuple[str, ...]
    switch_number: str
    meter: bool
    panels: tuple[Panel, ...]
    line_side: bool
    beside: tuple[Beside, ...]
    utility: tuple[str, ...]
    circuits_head: tuple[str, ...]
    circuits: tuple[TableRow, ...]
    equipment: tuple[TableRow, ...]
    notes: tuple[str, ...]
    unknown: tuple[str, ...]
