"""The circuits of an option: what each carries, along which legs, at how many volts."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import groupby

from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.document import CodePack, battery_joined, strings_on
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.loading.phases import shared_out
from ridge_tally.core.working import Given, number_of
from ridge_tally.rules.build.circuits.legs import (
    BATTERY_LEG,
    DISCONNECT_LEG,
    JOIN_LEG,
    PANEL_LEG,
    Leg,
    array_leg_id,
    legs_of,
)
from ridge_tally.rules.design import Design, makes_ac
from ridge_tally.rules.loading.ac_sources import phases_of
from ridge_tally.rules.loading.busbar import service_volts
from ridge_tally.rules.strings.limits import rear_gain
from ridge_tally.rules.strings.microinverters import UNIT, branches, on_fullest_phase, unit_amps

SHEET, INVERTER = "module datasheet", "inverter datasheet"
THREE = 3


class CircuitKind(StrEnum):
    """What a circuit is."""

    STRING = "string"
    COMBINED = "combined"
    BRANCH = "branch"
    INVERTER = "inverter"
    COLLECTOR = "collector"
    BATTERY = "battery"


DC = frozenset({CircuitKind.STRING, CircuitKind.COMBINED})


@dataclass(frozen=True, slots=True)
class Circuit:
    """Circuits that are alike: so many of them along the same legs, with the same current.

    ``formula`` and ``givens`` make ``most_a``, the largest current there is; ``run_a`` flows at
    the rating, at ``volts``; ``made_w`` is what one brings then.  ``loaded``: conductors of one
    that carry current; ``neutral_beside``: a neutral lies beside them, not counted among them.
    ``beside``: circuits that lie in the same conduit, these among them.
    """

    id: str
    kind: CircuitKind
    name: str
    tags: tuple[str, ...]
    legs: tuple[Leg, ...]
    phases: int
    volts: float
    formula: str
    givens: tuple[Given, ...]
    most_a: float
    run_a: float
    made_w: float
    breaker_most_a: float | None = None
    fixed_breaker_a: float | None = None
    neutral_beside: bool = False
    beside: int = 1

    @property
    def dc(self) -> bool:
        """Whether direct current flows in it."""
        return self.kind in DC

    @property
    def loaded(self) -> int:
        """How many of its conductors carry current."""
        return THREE if self.phases == THREE else 2

    @property
    def conductors(self) -> int:
        """How many conductors one has, that to earth left out."""
        return self.loaded + self.neutral_beside

    @property
    def count(self) -> int:
        """How many are alike."""
        return max(1, len(self.tags))


def circuits_of(design: Design) -> tuple[Circuit, ...]:
    """Return the circuits of an option from the modules to where it joins; none of an empty one."""
    legs = {leg.id: leg for leg in legs_of(design)}
    if design.microinverter is not None:
        found = sorted(_branches(design, legs), key=lambda c: int(c.tags[0]))
    else:
        order = {s.tag: n for n, s in enumerate(design.option.strings)}
        # What is joined before the inverter is no string's own.
        found = sorted(_strings(design, legs), key=lambda c: order.get(c.tags[0], -1))
    if found and makes_ac(design):
        found += _ac(design, legs)
    found += _battery(design, legs)
    beside: dict[str, int] = {}
    for c in found:
        if c.kind in DC or c.kind is CircuitKind.BRANCH:
            for leg in c.legs:
                beside[leg.id] = beside.get(leg.id, 0) + c.count
    return tuple(
        replace(
            c,
            neutral_beside=_neutral_beside(design, c),
            beside=max((beside.get(leg.id, 1) for leg in c.legs), default=1),
        )
        for c in found
    )


def _neutral_beside(design: Design, circuit: Circuit) -> bool:
    """Return whether a neutral goes along to the house that bears no load in balance.

    Of one phase and neutral, the neutral is one of the two that are loaded.
    """
    if circuit.dc or circuit.kind is CircuitKind.BRANCH:
        return False
    return circuit.phases == THREE or design.job.site.code_pack is CodePack.US


def _lies_on(design: Design, string: ModuleString) -> str:
    """Return the leg of a string: of the plane its first module lies on."""
    first = string.module_ids[0]
    return next(
        array_leg_id(laid)
        for laid in design.arrays
        if any(m.id == first for m in laid.array.modules)
    )


def _strings(design: Design, legs: dict[str, Leg]) -> Iterator[Circuit]:
    """Yield the strings by leg and kind; those joined before the inverter as one on its input."""
    single: list[tuple[str, ModuleString]] = []
    for tracker in design.trackers:
        mine = strings_on(design.option, tracker.number)
        if len(mine) <= tracker.sheet.inputs:
            single += [(_lies_on(design, s), s) for s in mine]
            continue
        one = _one(design, mine[0])
        yield Circuit(
            id=f"tracker {tracker.number}",
            kind=CircuitKind.COMBINED,
            name=f"Tracker {tracker.number}, {len(mine)} strings joined",
            tags=(f"tracker {tracker.number}",),
            legs=(legs[_lies_on(design, mine[0])],),
            phases=1,
            volts=one.volts,
            formula=f"k * {one.formula}",
            givens=(
                Given("k", "strings joined", float(len(mine)), "", "this design"),
                *one.givens,
            ),
            most_a=len(mine) * one.most_a,
            run_a=len(mine) * one.run_a,
            made_w=len(mine) * one.made_w,
        )

    def alike(item: tuple[str, ModuleString]) -> tuple[str, float, int]:
        leg_id, string = item
        return leg_id, _one(design, string).most_a, len(string.module_ids)

    seen: dict[str, int] = {}
    for (leg_id, _, _), group in groupby(sorted(single, key=alike), key=alike):
        strings = [s for _, s in group]
        one, tags = _one(design, strings[0]), tuple(s.tag for s in strings)
        seen[leg_id] = seen.get(leg_id, 0) + 1
        yield Circuit(
            id=f"strings {leg_id}" + (f" {seen[leg_id]}" if seen[leg_id] > 1 else ""),
            kind=CircuitKind.STRING,
            name=("String " if len(tags) == 1 else "Strings ") + ", ".join(tags),
            tags=tags,
            legs=(legs[leg_id],),
            phases=1,
            volts=one.volts,
            formula=one.formula,
            givens=one.givens,
            most_a=one.most_a,
            run_a=one.run_a,
            made_w=one.made_w,
        )


@dataclass(frozen=True, slots=True)
class _OneString:
    volts: float
    formula: str
    givens: tuple[Given, ...]
    most_a: float
    run_a: float
    made_w: float


def _one(design: Design, string: ModuleString) -> _OneString:
    sheets = [design.sheets[m] for m in string.module_ids]
    made_w = sum(s.p_max_w for s in sheets)
    unit = design.system
    if unit is not None and unit.string_v:
        out = Given(
            "i_out", "most an optimizer gives", unit.i_out_max_a, "A", "optimizer datasheet"
        )
        return _OneString(
            unit.string_v, "i_out", (out,), unit.i_out_max_a, made_w / unit.string_v, made_w
        )
    strongest = max(sheets, key=lambda s: rear_gain(design, s) * s.isc_a)
    gain = rear_gain(design, strongest)
    factor = design.rules.bright_cloud_factor
    givens = [
        Given("f", "factor on Isc", factor, "", design.rules.bright_cloud.document),
        Given("isc", "Isc", strongest.isc_a, "A", SHEET),
    ]
    if strongest.bifacial_frac is not None:
        givens.insert(1, Given("r", "gain by rear light", gain, "", "rear light by mounting"))
    return _OneString(
        volts=sum(s.vmp_v for s in sheets),
        formula=" * ".join(g.symbol for g in givens),
        givens=tuple(givens),
        most_a=factor * gain * strongest.isc_a,
        run_a=min(s.imp_a for s in sheets),
        made_w=made_w,
    )


def _branches(design: Design, legs: dict[str, Leg]) -> Iterator[Circuit]:
    unit = design.microinverter
    if unit is None:
        return
    lies = {m.id: array_leg_id(a) for a in design.arrays for m in a.array.modules}
    found = branches(design, unit)
    keyed = sorted(found, key=lambda b: (lies[b.units[0][0]], len(b.units)))
    seen: dict[str, int] = {}
    for (leg_id, units), group in groupby(keyed, lambda b: (lies[b.units[0][0]], len(b.units))):
        tags = tuple(str(b.number) for b in group)
        seen[leg_id] = seen.get(leg_id, 0) + 1
        amps = unit_amps(unit)
        yield Circuit(
            id=f"branches {leg_id}" + (f" {seen[leg_id]}" if seen[leg_id] > 1 else ""),
            kind=CircuitKind.BRANCH,
            name=("Branch " if len(tags) == 1 else "Branches ") + ", ".join(tags),
            tags=tags,
            legs=(legs[leg_id],),
            phases=1,
            volts=unit.ac_v,
            formula="n * i_unit",
            givens=(
                Given("n", "units on it", float(units), "", "this design"),
                Given("i_unit", "a unit’s current", amps, "A", UNIT),
            ),
            most_a=units * amps,
            run_a=units * amps,
            made_w=units * (unit.va_continuous or unit.p_ac_w),
            fixed_breaker_a=design.rules.family.branch_breaker_a,
        )


def _output(design: Design, sheet: InverterSheet) -> tuple[str, tuple[Given, ...], float]:
    """Return an inverter's output current: as printed, else its rating over its phases' volts."""
    if sheet.ac_a is not None:
        printed = Given("i_out", "rated output current", sheet.ac_a, "A", INVERTER)
        return "i_out", (printed,), sheet.ac_a
    volts, phases = service_volts(design), phases_of(sheet)
    givens = (
        Given("p", "rated AC power", sheet.p_ac_w, "W", INVERTER),
        Given("n_ph", "phases it feeds", float(phases), "", INVERTER),
        volts,
    )
    return "p / n_ph / u", givens, sheet.p_ac_w / phases / number_of(volts)


def _ac(design: Design, legs: dict[str, Leg]) -> Iterator[Circuit]:
    """Yield inverter outputs and, where several or branches join, what they come to together."""
    onward = tuple(legs[i] for i in (DISCONNECT_LEG, PANEL_LEG) if i in legs)
    volts = number_of(service_volts(design))
    if design.microinverter is not None:
        circuits = branches(design, design.microinverter)
        three = design.job.survey.service.phases == THREE
        joined = on_fullest_phase(design, circuits)
        yield Circuit(
            "collector", CircuitKind.COLLECTOR, "Combiner output", (), onward, THREE if three else 1,
            volts if three else design.microinverter.ac_v, "i_all", (joined,),
            number_of(joined), number_of(joined),
            sum(b.amps for b in circuits) * design.microinverter.ac_v,
        )  # fmt: skip
        return
    makers = [i for i in design.inverters if not i.dc_only]
    several = len(design.inverters) > 1
    for number, sheet in enumerate(design.inverters, start=1):
        if sheet.dc_only:
            continue
        formula, givens, amps = _output(design, sheet)
        yield Circuit(
            f"inverter {number}", CircuitKind.INVERTER,
            f"Inverter {number} output" if several else "Inverter output",
            (), (legs[JOIN_LEG],) if several else onward, phases_of(sheet), volts, formula, givens, amps, amps,
            sheet.p_ac_w, sheet.breaker_most_a,
        )  # fmt: skip
    if several:
        amps, told = _together_a(design, makers)
        each = Given("i_all", told, amps, "A", INVERTER)
        yield Circuit(
            "collector", CircuitKind.COLLECTOR, "Inverters together", (), onward,
            THREE if design.job.survey.service.phases == THREE else 1, volts, "i_all", (each,),
            amps, amps, sum(i.p_ac_w for i in makers),
        )  # fmt: skip


def _together_a(design: Design, makers: list[InverterSheet]) -> tuple[float, str]:
    """Return the current of all inverters on the phase that has most of it, and in words."""
    phases = design.job.survey.service.phases
    outputs = [(_output(design, sheet)[2] * phases_of(sheet), phases_of(sheet)) for sheet in makers]
    told = "inverter outputs together"
    return max(
        shared_out(outputs, phases)
    ), told if phases == 1 else f"{told}, on the fullest phase"


def _battery(design: Design, legs: dict[str, Leg]) -> Iterator[Circuit]:
    """Yield the circuit of a battery's own inverter; what a DC one takes its maker says."""
    battery = battery_joined(design.option)
    if battery is None or battery.coupling is not Coupling.AC:
        return
    volts = service_volts(design)
    power = Given("p_batt", "power of its inverter", battery.power_kw, "kW", "this option")
    amps = battery.power_kw * 1000 / number_of(volts)
    yield Circuit(
        "battery", CircuitKind.BATTERY, "Battery inverter output", (), (legs[BATTERY_LEG],), 1,
        number_of(volts), "p_batt * 1000 / u", (power, volts), amps, amps,
        battery.power_kw * 1000,
    )  # fmt: skip
