"""What an option costs: parts from the design, work by the crew's hours, the firm's own lines."""

import math
from collections.abc import Iterator
from dataclasses import replace

from ridge_tally.core.equipment import Origin, origin_of
from ridge_tally.core.job.money import LineKind
from ridge_tally.core.money.cost import Costed
from ridge_tally.core.strings.parts import converters, modules_in
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.rules.build.circuits.conduits import drawn_in
from ridge_tally.rules.build.circuits.takeoff import taken_off, untaken
from ridge_tally.rules.build.hours import crew_hours
from ridge_tally.rules.build.parts import part_rows
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.build.sawing import Sawing
from ridge_tally.rules.design import Design, dc_watts
from ridge_tally.simulation.batteries import told as battery_told
from ridge_tally.studies.parts import bill_of

SHEET, SAMPLE, OWN = "datasheet", "sample price", "typed here"
# The rates of the racking are those of a crew of two.
CREW = 2
EACH_JOB = "Work each job takes"


def costed(design: Design, sawings: tuple[Sawing, ...]) -> tuple[Costed, ...]:
    """Return every line of what an option costs the firm, its rails cut so.

    Own prices stand in the place of the sheets'.
    """
    own = {p.name: p.cents for p in design.job.money.prices}
    return tuple(
        replace(line, each_cents=own[line.name], origin=OWN) if line.name in own else line
        for line in _lines(design, sawings)
    )


def _lines(design: Design, sawings: tuple[Sawing, ...]) -> Iterator[Costed]:
    yield from _equipment(design)
    planes = racked_planes(design)
    yield from _racking(design, planes, sawings)
    yield from _wiring(design)
    yield from _work(design, planes)
    for line in design.job.money.lines:
        yield Costed(line.name, line.kind, line.count, "pcs", line.cents, OWN)


def _equipment(design: Design) -> Iterator[Costed]:
    modules = {sheet.id for sheet, _ in modules_in(design)}
    inverters = {sheet.id for sheet, _ in converters(design)}
    for part in bill_of(design).parts:
        kind = LineKind.ELECTRONICS
        if part.sheet.id in modules:
            kind = LineKind.MODULES
        elif part.sheet.id in inverters:
            kind = LineKind.INVERTERS
        sample = origin_of(part.sheet, "price_cents") is Origin.SAMPLE
        origin = SAMPLE if sample else SHEET
        yield Costed(part.sheet.name, kind, part.count, "pcs", part.price_cents, origin)
    battery = design.option.battery
    if battery is not None:
        name = f"Battery {battery_told(battery)}"
        yield Costed(name, LineKind.BATTERY, 1, "pcs", battery.price_cents, "Loading")


def _racking(
    design: Design, planes: tuple[RackedPlane, ...], sawings: tuple[Sawing, ...]
) -> Iterator[Costed]:
    unracked = [p.laid.plane.name for p in planes if p.sheet is None or not p.mounts]
    sample = any(
        p.sheet is not None and origin_of(p.sheet, "stock") is Origin.SAMPLE for p in planes
    )
    for row in part_rows(design.job, planes, sawings):
        needed = row.count + row.spares
        # What comes in boxes is bought whole; what lies on the shelf cost the firm the same.
        box = row.box or 1
        count = math.ceil(needed / box) * box
        yield Costed(
            row.name, LineKind.RACKING, count, "pcs", row.price_cents, SAMPLE if sample else SHEET
        )
    if unracked:
        name = f"Racking of {', '.join(unracked)}"
        yield Costed(name, LineKind.RACKING, 1, "set", None, "no mounts in Build yet")


def _wiring(design: Design) -> Iterator[Costed]:
    sized = circuits_sized(design)
    for taken in taken_off(design, sized, drawn_in(design, sized)):
        yield Costed(taken.name, LineKind.WIRING, taken.count, taken.unit, None, "no price typed")
    for name in untaken(sized):
        yield Costed(f"Cable, {name}", LineKind.WIRING, 1, "set", None, "length not known")


def _work(design: Design, planes: tuple[RackedPlane, ...]) -> Iterator[Costed]:
    work = design.job.money.work
    hour = work.cents_per_h
    origin = "no hour's price typed" if hour is None else "estimate of hours, hour typed here"
    rows = crew_hours(design, planes)
    if rows:
        hours = CREW * sum(r.hours for r in rows)
        yield Costed("Crew on the racking", LineKind.LABOUR, round(hours, 1), "h", hour, origin)
    kw = dc_watts(design)[2] / 1000
    electrical = round(work.electrical_h_per_kw * kw, 1)
    yield Costed("Electrical work", LineKind.LABOUR, electrical, "h", hour, origin)
    yield Costed(EACH_JOB, LineKind.LABOUR, work.each_job_h, "h", hour, origin)
