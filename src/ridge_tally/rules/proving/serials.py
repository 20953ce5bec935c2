"""Serial numbers in mounting order: the cells that want one, and what is amiss with those there."""

import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.array import PlacedModule, in_lines, present_of
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.proving import Carries, Corner, ProvingLog, Serial
from ridge_tally.core.strings.units import units_by_plane
from ridge_tally.rules.design import Design

RIGHT = (Corner.LOWER_RIGHT, Corner.UPPER_RIGHT)
UPPER = (Corner.UPPER_LEFT, Corner.UPPER_RIGHT)


@dataclass(frozen=True, slots=True)
class Cell:
    """A place for a sticker: of one module, or of a unit over one or two; rows and columns from 1.

    ``ports``: the unit's port of each of its modules, left to right seen from the front.
    """

    carries: Carries
    place: PlacedId
    modules: tuple[PlacedId, ...]
    plane_id: PlaneId
    plane: str
    row: int
    column: int
    text: str
    ports: tuple[str, ...]
    problem: str


@dataclass(frozen=True, slots=True)
class SerialMap:
    """All cells in mounting order, how many are filled, and what is amiss with the whole."""

    carries: Carries
    cells: tuple[Cell, ...]
    filled: int
    pattern: str
    problems: tuple[str, ...]


def carried(design: Design) -> tuple[Carries, ...]:
    """Return what bears stickers in a design."""
    micro = design.option.electronics.architecture is Architecture.MICRO
    units = micro or design.system is not None
    return (Carries.MODULE, Carries.UNIT) if units else (Carries.MODULE,)


def serial_map(design: Design, log: ProvingLog, carries: Carries) -> SerialMap:
    """Return the cells of a kind from the log's corner, row by row, each walked the same way."""
    pattern = next((p.pattern for p in log.patterns if p.carries is carries), "")
    mine = {s.place: s for s in log.serials if s.carries is carries}
    twice = {t for t, n in Counter(s.text.casefold() for s in log.serials).items() if n > 1}
    cells = tuple(_cells(design, log.corner, carries, mine, twice, pattern))
    filled = sum(bool(c.text) for c in cells)
    return SerialMap(
        carries, cells, filled, pattern, tuple(_problems(cells, mine, carries, filled))
    )


def _problems(
    cells: tuple[Cell, ...], mine: dict[PlacedId, Serial], carries: Carries, filled: int
) -> Iterator[str]:
    there = {c.place for c in cells}
    lost = [s.text for p, s in mine.items() if p not in there]
    if lost:
        yield f"{len(lost)} serial numbers lie on no {carries.value} of the design: {', '.join(lost[:3])}"
    gaps = [c for c in cells if not c.text]
    last = max((n for n, c in enumerate(cells) if c.text), default=-1)
    within = [c for c in cells[: max(0, last)] if not c.text]
    if within:
        places = ", ".join(f"{c.plane} row {c.row} place {c.column}" for c in within[:3])
        yield f"{len(within)} cells left out on the way: {places}"
    if gaps and filled:
        yield f"{filled} of {len(cells)} {carries.value}s have their number"
    odd = [c for c in cells if c.problem]
    if odd:
        yield f"{len(odd)} numbers are doubtful: {odd[0].problem}"


def _cells(
    design: Design,
    corner: Corner,
    carries: Carries,
    mine: dict[PlacedId, Serial],
    twice: set[str],
    pattern: str,
) -> Iterator[Cell]:
    units = _units(design) if carries is Carries.UNIT else {}
    for laid in design.arrays:
        for row, line in enumerate(_lines(present_of(laid.array), corner), 1):
            column, done = 0, set[PlacedId]()
            for module in line:
                together = units.get(module.id, (module.id,))
                if module.id in done:
                    continue
                done |= set(together)
                column += 1
                # A unit goes by its first module, wherever the row is begun.
                found = mine.get(together[0])
                text = found.text if found else ""
                yield Cell(
                    carries, together[0], together, laid.plane.id, laid.plane.name, row, column,
                    text, _ports(found, together, carries), _problem(text, twice, pattern),
                )  # fmt: skip


def _ports(
    found: Serial | None, modules: tuple[PlacedId, ...], carries: Carries
) -> tuple[str, ...]:
    if carries is Carries.MODULE or len(modules) < 2:
        return ()
    first = (found.first_port if found else "") or "A"
    return (first, "B" if first == "A" else "A")


def _units(design: Design) -> dict[PlacedId, tuple[PlacedId, ...]]:
    micro = design.microinverter
    if micro is None:
        return {}
    return {m: unit for p in units_by_plane(design, micro.inputs) for unit in p for m in unit}


def _lines(modules: tuple[PlacedModule, ...], corner: Corner) -> list[list[PlacedModule]]:
    lines = in_lines(modules, lambda m: m.y_m, lambda m: m.x_m)
    rows = [list(reversed(line)) if corner in RIGHT else list(line) for line in lines]
    return list(reversed(rows)) if corner in UPPER else rows


def _problem(text: str, twice: set[str], pattern: str) -> str:
    if not text:
        return ""
    if text.casefold() in twice:
        return f"“{text}” is there twice"
    if pattern and not re.fullmatch(_as_regex(pattern), text):
        return f"“{text}” is not as {pattern}"
    return ""


def _as_regex(pattern: str) -> str:
    made = {"#": "[0-9]", "@": "[A-Za-z]"}
    return "".join(made.get(c, re.escape(c)) for c in pattern)
