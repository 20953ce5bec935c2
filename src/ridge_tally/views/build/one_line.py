"""The one-line diagram of a design: its facts in words, laid out, and looked through for faults."""

from dataclasses import dataclass

from ridge_tally.core.equipment import OptimizerKind
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.document import CodePack, battery_joined, strings_on
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.service import SourceBreaker
from ridge_tally.core.job.wiring import Lie
from ridge_tally.core.sheets.one_line.layout import one_line_sheets
from ridge_tally.core.sheets.one_line.spec import (
    AtModule,
    Beside,
    Group,
    OneLine,
    Panel,
    Row,
    Symbols,
    TableRow,
)
from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.scene import Scene
from ridge_tally.core.sheets.scene_lint import Hit, lint
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.core.sheets.titled import TitleFacts
from ridge_tally.core.strings.parts import modules_in
from ridge_tally.core.units import format_length
from ridge_tally.core.working import Verdict, number_of
from ridge_tally.rules.build.circuits.checks import circuit_checks
from ridge_tally.rules.build.circuits.circuits import CircuitKind
from ridge_tally.rules.build.circuits.conductors import Sized, circuits_sized
from ridge_tally.rules.build.circuits.conduits import conduit_told, drawn_in
from ridge_tally.rules.build.circuits.gear import last_circuit, ratings_of
from ridge_tally.rules.build.circuits.takeoff import INSULATIONS
from ridge_tally.rules.build.circuits.wire import size_told
from ridge_tally.rules.design import Design
from ridge_tally.rules.loading.busbar import service_volts
from ridge_tally.rules.strings.microinverters import branches, on_fullest_phase

HEAD = ("Mark", "Circuit", "Conductors", "To earth", "Conduit", "Most current", "Breaker",
        "Length", "Drop")  # fmt: skip
UNKNOWN = "not known"


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet of the diagram with what its lint found; it is not issued with a hit."""

    scene: Scene
    hits: tuple[Hit, ...]


def one_line(design: Design, facts: TitleFacts) -> tuple[Sheet, ...]:
    """Return the diagram of an option on large paper; no sheet while nothing is wired."""
    large = SheetPaper.TABLOID if design.job.site.code_pack is CodePack.US else SheetPaper.A3
    return tuple(Sheet(s, lint(s)) for s in one_line_scenes(design, facts, large))


def one_line_scenes(design: Design, facts: TitleFacts, paper: SheetPaper) -> tuple[Scene, ...]:
    """Return the sheets of the diagram on that paper; none while nothing is wired."""
    sized = circuits_sized(design)
    return one_line_sheets(_facts(design, sized), facts, paper) if sized else ()


@dataclass(frozen=True, slots=True)
class DiagramSheet:
    """A sheet as SVG with its faults in words."""

    title: str
    svg: str
    hits: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class PartHeld:
    """A part of the diagram and the subjects of the checks that hold it."""

    part: str
    subjects: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class DiagramView:
    """The diagram for a screen; ``parts`` says which checks hold a part, by its name."""

    sheets: tuple[DiagramSheet, ...]
    parts: tuple[PartHeld, ...]


def diagram_view(design: Design, facts: TitleFacts) -> DiagramView:
    """Return the diagram of an option for a screen."""
    sized = circuits_sized(design)
    sheets = tuple(
        DiagramSheet(
            s.scene.title, scene_svg(s.scene),
            tuple(f"{h.kind}: {h.told}" for h in s.hits),
        )
        for s in one_line(design, facts)
    )  # fmt: skip
    return DiagramView(sheets, _parts(design, sized))


def _parts(design: Design, sized: tuple[Sized, ...]) -> tuple[PartHeld, ...]:
    """Return for each part of the diagram the subjects of the checks that hold it."""
    found: dict[str, list[str]] = {}
    for c in sized:
        for tag in c.circuit.tags:
            for part in (f"string {tag}", f"branch {tag}"):
                found.setdefault(part, []).append(c.circuit.name)
        found.setdefault(f"circuit {c.circuit.id}", []).append(c.circuit.name)
        found.setdefault(c.circuit.id, []).append(c.circuit.name)
        found.setdefault("disconnect", [])
        if c.circuit.kind in (CircuitKind.COLLECTOR, CircuitKind.INVERTER):
            found["disconnect"].append(c.circuit.name)
    for s in design.option.strings:
        found.setdefault(f"string {s.tag}", []).append(f"string {s.tag}")
    for t in design.trackers:
        found.setdefault(f"inverter {t.unit_number}", []).append(f"tracker {t.number}")
    found.setdefault("panel", []).extend(("main panel", "panel"))
    return tuple(PartHeld(part, tuple(dict.fromkeys(names))) for part, names in found.items())


def one_line_facts(design: Design) -> OneLine:
    """Return what the diagram of an option shows."""
    return _facts(design, circuits_sized(design))


def _facts(design: Design, sized: tuple[Sized, ...]) -> OneLine:
    marks = {c.circuit.id: f"C{n}" for n, c in enumerate(sized, start=1)}
    numbers = _Numbers()
    groups = _groups(design, sized, marks, numbers)
    service, ratings = design.job.survey.service, ratings_of(design, sized)
    last = last_circuit(sized)
    switch: tuple[str, ...] = ()
    switch_number = ""
    if service.disconnect is not None or service.disconnect_within is not None:
        rated = "rating not known" if ratings.breaker_a is None else f"{ratings.breaker_a:g} A"
        switch = ("AC disconnect", f"{rated}, {ratings.ac_v:g} V, lockable")
        switch_number = numbers.of("AC disconnect, lockable", 1)
    panels = _panels(design, last, numbers)
    battery = battery_joined(design.option)
    if battery is not None:
        numbers.of(f"Battery of {battery.usable_kwh:g} kWh, {battery.power_kw:g} kW", 1)
    return OneLine(
        symbols=Symbols.NORTH_AMERICAN
        if design.job.site.code_pack is CodePack.US
        else Symbols.INTERNATIONAL,
        groups=groups,
        collector=any(c.circuit.kind is CircuitKind.COLLECTOR for c in sized),
        chain_mark="" if last is None else marks[last.circuit.id],
        switch=switch,
        switch_number=switch_number,
        meter=design.option.wiring.meter,
        panels=panels,
        line_side=service.source_breaker is SourceBreaker.LINE_SIDE,
        beside=_beside(design, sized, marks),
        utility=("Utility", _service_told(design)),
        circuits_head=HEAD,
        circuits=_circuit_rows(design, sized, marks),
        equipment=numbers.rows(),
        notes=_notes(design, sized),
        unknown=_unknown(design, sized),
    )


class _Numbers:
    """The equipment list as it grows: what is alike shares a line."""

    def __init__(self) -> None:
        self._rows: dict[str, int] = {}

    def of(self, what: str, pieces: int) -> str:
        """Return the number of a thing, counting so many more of it."""
        self._rows[what] = self._rows.get(what, 0) + pieces
        return str(list(self._rows).index(what) + 1)

    def rows(self) -> tuple[TableRow, ...]:
        """Return the list."""
        return tuple(
            TableRow((str(n), what, str(many)))
            for n, (what, many) in enumerate(self._rows.items(), start=1)
        )


def _groups(
    design: Design, sized: tuple[Sized, ...], marks: dict[str, str], numbers: _Numbers
) -> tuple[Group, ...]:
    for module, count in modules_in(design):
        numbers.of(module.name, count)
    if design.microinverter is not None:
        return (_micro_group(design, sized, marks, numbers),)
    found = []
    for n, sheet in enumerate(design.inverters, start=1):
        output = next((c for c in sized if c.circuit.id == f"inverter {n}"), None)
        rows, joined = _string_rows(design, sized, marks, n)
        battery = battery_joined(design.option)
        on_dc = battery is not None and battery.coupling is Coupling.DC and n == 1
        told = [sheet.name]
        if sheet.dc_only:
            told.append("DC input, makes no AC")
        else:
            amps = "" if output is None else f", {output.circuit.most_a:.1f} A"
            told.append(f"{sheet.p_ac_w / 1000:.2f} kW AC{amps}")
        fuse = design.option.safety.string_fuse_a
        found.append(
            Group(
                name=f"Inverter {n}" if len(design.inverters) > 1 else "Inverter",
                told=tuple(told),
                part=f"inverter {n}",
                number=numbers.of(sheet.name, 1),
                rows=rows,
                out_mark="" if output is None else marks[output.circuit.id],
                joined=joined,
                box=_box(design, n),
                fuse="" if fuse is None or not joined else f"{fuse:g} A gPV each",
                breaker=_breaker_told(output),
                battery=(
                    "Battery, DC-coupled",
                    f"{battery.usable_kwh:g} kWh, {battery.power_kw:g} kW",
                )
                if on_dc and battery is not None
                else (),
            )
        )
    if design.optimizer is not None:
        numbers.of(design.optimizer.name, len(design.fitted))
    return tuple(found)


def _box(design: Design, unit: int) -> str:
    """Return the box that strings of an inverter pass: one was placed, or they go under ground."""
    ids = {
        m
        for t in design.trackers
        if t.unit_number == unit
        for s in strings_on(design.option, t.number)
        for m in s.module_ids
    }
    planes = {
        a.plane.id: a.plane for a in design.arrays if any(m.id in ids for m in a.array.modules)
    }
    if any(p.ground is not None for p in planes.values()):
        return "Box at the array"
    return "Roof box" if any(b.plane_id in planes for b in design.option.boxes) else ""


def _breaker_told(one: Sized | None) -> str:
    if one is None or one.breaker_a is None:
        return "breaker ?"
    return f"{one.breaker_a:g} A"


def _string_rows(
    design: Design, sized: tuple[Sized, ...], marks: dict[str, str], unit: int
) -> tuple[tuple[Row, ...], bool]:
    by_tag = {t: c for c in sized if c.circuit.kind is CircuitKind.STRING for t in c.circuit.tags}
    joins = {c.circuit.id: c for c in sized if c.circuit.kind is CircuitKind.COMBINED}
    rows, joined = list[Row](), False
    for tracker in design.trackers:
        if tracker.unit_number != unit:
            continue
        for string in strings_on(design.option, tracker.number):
            box = joins.get(f"tracker {tracker.number}")
            joined = joined or box is not None
            one = box or by_tag.get(string.tag)
            rows.append(
                Row(
                    tags=string.tag,
                    told=_string_told(design, string),
                    port=f"T{tracker.number}",
                    mark="" if one is None else marks[one.circuit.id],
                    part=f"string {string.tag}",
                    at_module=_at_module(design, string),
                )
            )
    return tuple(rows), joined


def _string_told(design: Design, string: ModuleString) -> tuple[str, ...]:
    sheets = [design.sheets[m] for m in string.module_ids]
    watts = {s.p_max_w for s in sheets}
    each = f"{watts.pop():g} W" if len(watts) == 1 else "mixed"
    voc = sum(s.voc_v for s in sheets)
    told = f"Voc {voc:.0f} V, Isc {max(s.isc_a for s in sheets):.1f} A"
    if design.system is not None and design.system.string_v:
        told = f"held at {design.system.string_v:g} V"
    return f"{len(sheets)} × {each}", told


def _at_module(design: Design, string: ModuleString) -> AtModule:
    unit = design.optimizer
    if unit is None:
        return AtModule.NOTHING
    if unit.kind is OptimizerKind.SYSTEM:
        return AtModule.OPTIMIZER
    return AtModule.SOME if set(design.fitted) & set(string.module_ids) else AtModule.NOTHING


def _micro_group(
    design: Design, sized: tuple[Sized, ...], marks: dict[str, str], numbers: _Numbers
) -> Group:
    unit = design.microinverter
    assert unit is not None
    by_tag = {t: c for c in sized if c.circuit.kind is CircuitKind.BRANCH for t in c.circuit.tags}
    circuits = branches(design, unit)
    numbers.of(unit.name, sum(len(b.units) for b in circuits))
    rows = tuple(
        Row(
            tags=str(b.number),
            told=(f"{len(b.units)} × {unit.p_ac_w:g} W", f"{b.amps:.1f} A at {unit.ac_v:g} V"),
            port="",
            mark=marks[by_tag[str(b.number)].circuit.id],
            part=f"branch {b.number}",
            at_module=AtModule.MICRO,
        )
        for b in circuits
    )
    last, joined = last_circuit(sized), on_fullest_phase(design, circuits)
    shared = "together" if design.job.survey.service.phases == 1 else "a phase at most"
    return Group(
        name="Combiner",
        told=("Breaker for each branch", f"{number_of(joined):.1f} A {shared}"),
        part="collector",
        number=numbers.of("Combiner of branches", 1),
        rows=rows,
        out_mark="" if last is None else marks[last.circuit.id],
        micro=True,
        box="Roof box",
        breaker=f"{design.rules.family.branch_breaker_a:g} A",
    )


def _service_told(design: Design) -> str:
    service, volts = design.job.survey.service, service_volts(design)
    phases = "split phase" if design.job.site.code_pack is CodePack.US else "1 phase"
    return f"{volts.value:g} V, {phases if service.phases == 1 else '3 phases'}"


def _panels(design: Design, last: Sized | None, numbers: _Numbers) -> tuple[Panel, ...]:
    service = design.job.survey.service

    def amps(value: float | None) -> str:
        return "not known" if value is None else f"{value:g} A"

    joined = "before the main" if service.source_breaker is SourceBreaker.LINE_SIDE else ""
    source = joined or (_breaker_told(last) if last is not None else "breaker ?")
    # Before the main breaker no board lies between.
    between = () if joined else service.subpanels
    found = [
        Panel(
            s.name, f"Bus {amps(s.busbar_a)}", amps(s.main_breaker_a),
            source if n == 0 else f"feeder {amps(between[n - 1].feeder_a)}",
            f"panel {s.name}", numbers.of(f"Board {s.name}", 1),
        )
        for n, s in enumerate(between)
    ]  # fmt: skip
    feeder = between[-1].feeder_a if between else None
    found.append(
        Panel(
            "Main panel",
            f"Bus {amps(service.busbar_a)}",
            amps(service.main_breaker_a),
            f"feeder {amps(feeder)}" if between else source,
            "panel",
            numbers.of("Main panel, as it is", 1),
        )
    )
    return tuple(found)


def _beside(design: Design, sized: tuple[Sized, ...], marks: dict[str, str]) -> tuple[Beside, ...]:
    found = []
    battery = battery_joined(design.option)
    if battery is not None and battery.coupling is Coupling.AC:
        one = next((c for c in sized if c.circuit.kind is CircuitKind.BATTERY), None)
        found.append(
            Beside(
                "Battery, AC-coupled",
                (
                    f"{battery.usable_kwh:g} kWh, {battery.power_kw:g} kW",
                    f"{'' if one is None else marks[one.circuit.id]}, {_breaker_told(one)}",
                ),
                "battery",
            )
        )
    for array in design.job.brief.already.arrays:
        told = f"{array.p_dc_kw:g} kW DC, {array.p_ac_kw:g} kW AC"
        found.append(Beside(array.name, (told, "already there"), "existing"))
    return tuple(found)


def _circuit_rows(
    design: Design, sized: tuple[Sized, ...], marks: dict[str, str]
) -> tuple[TableRow, ...]:
    pack, unit = design.job.site.code_pack, design.job.unit
    conduits = {d.leg.id: d.size for d in drawn_in(design, sized)}
    rows = []
    for c in sized:
        used, circuit = c.used, c.circuit
        largest = [conduits[x.id] for x in circuit.legs if conduits.get(x.id)]
        rows.append(
            TableRow(
                (
                    marks[circuit.id],
                    circuit.name,
                    UNKNOWN
                    if used is None
                    else f"{circuit.count * circuit.conductors} × "
                    f"{size_told(pack, used.size)} {INSULATIONS[c.wire.insulation]}",
                    size_told(pack, c.earth) if c.earth else "",
                    conduit_told(design, largest[-1]) if largest else UNKNOWN,
                    f"{circuit.most_a:.1f} A",
                    "" if circuit.dc else _breaker_told(c),
                    UNKNOWN if c.length_m is None else format_length(c.length_m, unit),
                    "" if used is None or used.drop_frac is None
                    else f"{used.drop_frac * 100:.2f} %",
                ),
                f"circuit {circuit.id}",
            )
        )  # fmt: skip
    return tuple(rows)


def _notes(design: Design, sized: tuple[Sized, ...]) -> tuple[str, ...]:
    us = design.job.site.code_pack is CodePack.US
    notes = [
        "Crossing lines are not joined; a dot joins.",
        "Each module: a box with a triangle. A square with a diagonal changes the current’s kind.",
        "Sizes by the tables of the family, from memory: check against the edition in force.",
        "Modules are live in any light. Isolate AC first, then DC; prove dead.",
    ]
    if us and design.microinverter is None:
        notes.append("Ungrounded array; ground-fault protection in the inverter.")
    fitted = set(design.fitted)
    for string in design.option.strings:
        some = len(fitted & set(string.module_ids))
        if 0 < some < len(string.module_ids):
            notes.append(
                f"String {string.tag}: optimizers on {some} of its {len(string.module_ids)} modules."
            )
    for leg in dict.fromkeys(leg for c in sized for leg in c.circuit.legs):
        buried = [p.length_m or 0.0 for p in leg.pieces if p.segment.lie is Lie.BURIED]
        if buried:
            length = format_length(sum(buried), design.job.unit)
            notes.append(f"{leg.name}: {length} in a trench; least cover under Build, Circuits.")
    return tuple(notes)


def _unknown(design: Design, sized: tuple[Sized, ...]) -> tuple[str, ...]:
    """Return what stands open or broken in the circuits, each in a few words."""
    found: dict[str, None] = {}
    for c in circuit_checks(design, sized):
        if c.verdict is Verdict.BROKEN:
            found[f"Broken: {c.title}, {c.subject}"] = None
        elif c.verdict is Verdict.NOT_CHECKED:
            found[f"{c.title}, {c.subject}"] = None
    service = design.job.survey.service
    if service.busbar_a is None:
        found["Busbar of the main panel"] = None
    if service.main_breaker_a is None:
        found["Main breaker"] = None
    return tuple(found)
