"""What a family asks for beside conductors: switches, shutdown, surge, residual current, earthing; labels."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.job.service import SourceBreaker
from ridge_tally.core.working import Source, number_of
from ridge_tally.rules import tables
from ridge_tally.rules.build.circuits.circuits import CircuitKind
from ridge_tally.rules.build.circuits.conductors import Sized
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.busbar import service_volts
from ridge_tally.rules.strings.limits import planning_voltages
from ridge_tally.rules.strings.safety import strings_on_buildings


@dataclass(frozen=True, slots=True)
class Ratings:
    """What gear of this design is rated for at least; ``None`` where nobody knows."""

    ac_a: float | None
    ac_v: float
    breaker_a: float | None
    dc_v: float | None
    dc_a: float | None
    battery_kw: float | None


@dataclass(frozen=True, slots=True)
class Asked:
    """A piece of gear a family asks for: where it goes, its rating, who confirms it on site."""

    item: str
    place: str
    rating: str
    told: str
    source: Source
    confirm: str


@dataclass(frozen=True, slots=True)
class Label:
    """A label: its lines, where it goes, its colour and the height of its letters, mm."""

    lines: tuple[str, ...]
    place: str
    colour: str
    letters_mm: float
    source: Source


def last_circuit(sized: tuple[Sized, ...]) -> Sized | None:
    """Return the circuit that joins the house: the collector, else the one inverter's output."""
    kinds = (CircuitKind.COLLECTOR, CircuitKind.INVERTER)
    for kind in kinds:
        found = next((c for c in sized if c.circuit.kind is kind), None)
        if found is not None:
            return found
    return None


def ratings_of(design: Design, sized: tuple[Sized, ...]) -> Ratings:
    """Return what switches and labels of a design must bear."""
    last = last_circuit(sized)
    strings = design.option.strings if design.microinverter is None else ()
    volts = [
        sum(planning_voltages(design, design.sheets[m]).cold_open_v for m in s.module_ids)
        for s in strings
    ]
    if design.system is not None and design.system.string_v is not None:
        volts = [design.system.string_v]
    dc_a = max((c.circuit.most_a for c in sized if c.circuit.dc), default=None)
    battery = design.option.battery
    return Ratings(
        ac_a=None if last is None else last.circuit.most_a,
        ac_v=number_of(service_volts(design)),
        breaker_a=None if last is None else last.breaker_a,
        dc_v=float(math.ceil(max(volts))) if volts else None,
        dc_a=dc_a,
        battery_kw=None if battery is None else battery.power_kw,
    )


def _applies(design: Design, where: str) -> bool:
    service = design.job.survey.service
    strings = bool(design.option.strings) and design.microinverter is None
    return {
        "always": True,
        "strings": strings,
        "building": bool(strings_on_buildings(design)) if strings else _on_a_building(design),
        "switch": service.disconnect is not None or service.disconnect_within is not None,
        "opposite": service.source_breaker in (SourceBreaker.OPPOSITE_END, SourceBreaker.NOT_SAID),
        "battery": design.option.battery is not None,
    }[where]


def _on_a_building(design: Design) -> bool:
    return any(
        laid.array.modules and laid.plane.ground is None and not laid.plane.open_below
        for laid in design.arrays
    )


def _rows(design: Design, table_id: str) -> Iterator[tuple[dict[str, str], Source]]:
    """Yield the rows of a table that a family asks of a design, each with its clause."""
    table, pack = tables.load(table_id), design.job.site.code_pack.value
    for row in table.rows:
        cells = {name: str(cell) for name, cell in zip(table.columns, row, strict=True)}
        if cells["pack"] == pack and _applies(design, cells["where_asked"]):
            yield cells, Source(cells["clause"], "", table.source.status)


def gear_asked(design: Design, ratings: Ratings) -> tuple[Asked, ...]:
    """Return what the family asks for, as far as it applies to a design with circuits."""
    told = {
        "": "",
        "ac": "rating not known"
        if ratings.breaker_a is None
        else f"{ratings.breaker_a:g} A at {ratings.ac_v:g} V AC at least",
        "dc": "rating not known"
        if ratings.dc_v is None or ratings.dc_a is None
        else f"{ratings.dc_v:g} V DC, {ratings.dc_a:.1f} A at least",
    }
    return tuple(
        Asked(row["item"], row["place"], told[row["rating"]], row["told"], source, row["confirm"])
        for row, source in _rows(design, "gear-asked")
    )


def labels_of(design: Design, ratings: Ratings) -> tuple[Label, ...]:
    """Return the labels and placards of a design with circuits."""

    def figure(value: float | None, digits: int = 0) -> str:
        return "____" if value is None else f"{value:.{digits}f}"

    fields = {
        "ac_a": figure(ratings.ac_a, 1),
        "ac_v": figure(ratings.ac_v),
        "breaker_a": figure(ratings.breaker_a),
        "dc_v": figure(ratings.dc_v),
        "dc_a": figure(ratings.dc_a, 1),
        "battery_kw": figure(ratings.battery_kw, 1),
    }
    return tuple(
        Label(
            tuple(row["text"].format(**fields).split("|")),
            row["place"],
            row["colour"],
            float(row["letters_mm"]),
            source,
        )
        for row, source in _rows(design, "labels")
    )
