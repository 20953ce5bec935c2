"""Faults as changes of a built system: what hangs otherwise than drawn, and what holds it back."""

from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import reduce

from ridge_tally.core.proving.rig import Hung, Inverter, Look, Part, Rig


class Fault(StrEnum):
    """A cause by its stable code."""

    HEALTHY = "healthy"
    MODULE_MISSING = "module-missing"
    MODULE_EXTRA = "module-extra"
    MODULE_TURNED = "module-turned-round"
    BYPASS_SHORTED = "bypass-diode-shorted"
    POLARITY = "polarity-reversed"
    PARTED = "connector-open"
    JOINT = "resistive-joint"
    LEAD = "resistance-in-leads"
    EARTH = "earth-fault"
    WET = "wet-insulation"
    FUSE = "fuse-blown"
    SWITCH_OFF = "dc-switch-off"
    INPUT_WEAK = "input-weak"
    OVERRUN = "tracker-overrun"
    SWAPPED = "strings-swapped"
    THREADED = "threaded-otherwise"
    SHADE = "module-shaded"
    DULL_STRING = "string-in-less-light"
    WEAK_MODULE = "module-weak"
    WRONG_MODULE = "wrong-module"
    UNPAIRED = "optimizer-unpaired"
    SOILING = "soiling"
    SNOW = "snow"
    BREAKER_OFF = "ac-breaker-off"
    GRID_HIGH = "grid-high"
    DERATING = "derating-hot"
    EXPORT = "export-limited"
    SETTING = "setting-holds-back"
    CLOCK = "clock-wrong"
    UNIT = "unit-wrong"
    LIGHT_METER = "light-meter-off"
    THERMOMETER = "thermometer-off"


# What is a property of the light, the weather or an instrument, and holds for every string.
COMMON = frozenset(
    {
        Fault.SOILING, Fault.SNOW, Fault.DERATING, Fault.EXPORT, Fault.SETTING, Fault.CLOCK,
        Fault.UNIT, Fault.LIGHT_METER, Fault.THERMOMETER, Fault.WET, Fault.GRID_HIGH,
        Fault.BREAKER_OFF,
    }
)  # fmt: skip
OF_INPUT = frozenset({Fault.OVERRUN, Fault.INPUT_WEAK, Fault.SWITCH_OFF})
# Two of these are met together often enough to be thought of: one of the light or the whole, one of a string.
WITH_ANOTHER = (Fault.SOILING, Fault.LIGHT_METER, Fault.DERATING, Fault.WET)


@dataclass(frozen=True, slots=True)
class Planted:
    """One fault: of which string or plane, from 0, of which other, and how much of it.

    ``much``: modules, substrings, ohm, a share of light or of power, kelvin or hours, as the fault has it.
    """

    fault: Fault
    at: int = 0
    other: int = 0
    much: float = 1.0


# How much of each is looked for; ordinary ranges, common practice, no source.
SIZES: dict[Fault, tuple[float, ...]] = {
    Fault.MODULE_MISSING: (1.0, 2.0),
    Fault.BYPASS_SHORTED: (1.0, 2.0),
    Fault.JOINT: (0.6, 1.0, 1.5, 2.0, 3.0, 4.5),
    Fault.LEAD: (1.0, 2.0, 3.0, 4.5),
    Fault.SHADE: (0.15, 0.35, 0.6),
    Fault.DULL_STRING: (0.92, 0.85, 0.78, 0.7, 0.6, 0.5, 0.4),
    Fault.WEAK_MODULE: (0.6, 0.75, 0.85),
    Fault.WRONG_MODULE: (0.82,),
    Fault.SOILING: (0.95, 0.91, 0.87, 0.82, 0.75, 0.65),
    Fault.SNOW: (0.25, 0.5, 0.75),
    Fault.WET: (0.12, 0.3, 0.6),
    Fault.INPUT_WEAK: (0.4, 0.55, 0.7),
    Fault.DERATING: (0.2, 0.35, 0.5, 0.65, 0.8),
    Fault.EXPORT: (0.1, 0.25, 0.4, 0.55, 0.7),
    Fault.SETTING: (0.3, 0.5, 0.7),
    Fault.GRID_HIGH: (1.115,),
    Fault.CLOCK: (-1.0, 1.0),
    Fault.UNIT: (1e-3, 1e3, 60.0, 1 / 60),
    Fault.LIGHT_METER: (0.82, 0.9, 1.1, 1.2),
    Fault.THERMOMETER: (-12.0, -7.0, 7.0, 12.0),
}
# What snow lets through.
UNDER_SNOW_FRAC = 0.04
# A module of another type has this share of the current and of the voltage.
OTHER_V_FRAC = 0.82


def planted(rig: Rig, one: Planted) -> Rig:
    """Return a system with a fault in it; what it cannot have leaves it as it is."""
    return _PLANT[one.fault](rig, one)


def with_faults(rig: Rig, faults: Iterable[Planted]) -> Rig:
    """Return a system with several faults in it, one after the other."""
    return reduce(planted, faults, rig)


def candidates(rig: Rig) -> Iterator[Planted]:
    """Yield the single faults a system can have, each in the sizes that are looked for."""
    yield Planted(Fault.HEALTHY)
    for fault in Fault:
        sizes = SIZES.get(fault, (1.0,))
        for at, other in _places(rig, fault):
            for much in sizes:
                yield Planted(fault, at, other, much)


def _places(rig: Rig, fault: Fault) -> Iterator[tuple[int, int]]:
    """Yield where a fault can sit: a string, plane or input, and another one."""
    strings, count = rig.strings, range(len(rig.strings))
    pairs = ((a, b) for a in count for b in count if a != b)
    if fault is Fault.THREADED:
        yield from pairs
    elif fault is Fault.SWAPPED:
        yield from (
            (a, b) for a, b in pairs if a < b and strings[a].in_series != strings[b].in_series
        )
    elif fault in (Fault.SOILING, Fault.SNOW):
        yield from ((n, 0) for n in range(len(rig.planes)))
    elif fault is Fault.EARTH:
        for n, s in enumerate(strings):
            yield from ((n, after) for after in sorted({1, s.in_series // 2, s.in_series - 1}))
    elif fault in OF_INPUT:
        on = Counter(s.input for s in strings)
        yield from ((n, 0) for n in sorted(on) if on[n] > 1 or fault is not Fault.OVERRUN)
    elif fault in COMMON:
        yield 0, 0
    elif fault is not Fault.HEALTHY:
        waits = fault is Fault.UNPAIRED
        yield from ((n, 0) for n, s in enumerate(strings) if not waits or s.safe_v is not None)


def places_of(one: Planted) -> tuple[int, ...]:
    """Return the strings a fault sits in; none where it is of the light, the inverter or a meter."""
    if one.fault in COMMON or one.fault in OF_INPUT or one.fault is Fault.HEALTHY:
        return ()
    if one.fault in (Fault.SWAPPED, Fault.THREADED):
        return one.at, one.other
    return (one.at,)


def _grown(one: Hung, modules: float) -> Hung:
    """Return a string with so many modules more, as its first are."""
    first = one.parts[0]
    per = first.sheet.bypass_diodes
    parts = (replace(first, substrings=first.substrings + modules * per), *one.parts[1:])
    return replace(one, parts=parts, in_series=one.in_series + round(modules))


def _otherwise(one: Hung, substrings: float, **changes: object) -> Hung:
    """Return a string with some of its substrings otherwise than the rest."""
    first = one.parts[0]
    rest = replace(first, substrings=first.substrings - substrings)
    part = replace(first, substrings=substrings, **changes)  # type: ignore[arg-type]
    return replace(one, parts=(rest, *one.parts[1:], part))


def _set(rig: Rig, at: int, hung: Hung) -> Rig:
    return replace(rig, strings=(*rig.strings[:at], hung, *rig.strings[at + 1 :]))


def _module(rig: Rig, one: Planted, **changes: object) -> Rig:
    hung = rig.strings[one.at]
    per = float(hung.parts[0].sheet.bypass_diodes)
    return _set(rig, one.at, _otherwise(hung, per, **changes))


def _turned(rig: Rig, one: Planted) -> Rig:
    hung = rig.strings[one.at]
    first = hung.parts[0]
    per = first.sheet.bypass_diodes
    rest = replace(first, substrings=first.substrings - per)
    parts = (rest, *hung.parts[1:], replace(first, substrings=-float(per)))
    return _set(rig, one.at, replace(hung, parts=parts))


def _bridged(rig: Rig, one: Planted) -> Rig:
    hung = rig.strings[one.at]
    first = hung.parts[0]
    parts = (replace(first, substrings=first.substrings - one.much), *hung.parts[1:])
    return _set(rig, one.at, replace(hung, parts=parts, bridged=True))


def _swapped(rig: Rig, one: Planted) -> Rig:
    """The leads of two strings change places: each is found under the other's name."""
    a, b = rig.strings[one.at], rig.strings[one.other]
    under_a = replace(b, name=a.name, input=a.input, drawn=a.in_series)
    under_b = replace(a, name=b.name, input=b.input, drawn=b.in_series)
    return _set(_set(rig, one.at, under_a), one.other, under_b)


def _threaded(rig: Rig, one: Planted) -> Rig:
    less, more = rig.strings[one.at], rig.strings[one.other]
    return _set(_set(rig, one.at, _grown(less, -1)), one.other, _grown(more, 1))


def _wrong_module(rig: Rig, one: Planted) -> Rig:
    sheet = rig.strings[one.at].parts[0].sheet
    other = replace(
        sheet,
        name=f"{sheet.name}, another type",
        isc_a=sheet.isc_a * one.much,
        imp_a=sheet.imp_a * one.much,
        voc_v=sheet.voc_v * OTHER_V_FRAC,
        vmp_v=sheet.vmp_v * OTHER_V_FRAC,
        p_max_w=sheet.p_max_w * one.much * OTHER_V_FRAC,
    )
    return _module(rig, one, sheet=other)


def _on_plane(rig: Rig, plane: int, changed: Callable[[Hung], Hung], look: Look) -> Rig:
    strings = tuple(
        changed(s) if any(p.plane == plane for p in s.parts) else s for s in rig.strings
    )
    looks = (*rig.looks[:plane], look, *rig.looks[plane + 1 :])
    return replace(rig, strings=strings, looks=looks)


def _soiled(rig: Rig, one: Planted) -> Rig:
    def changed(hung: Hung) -> Hung:
        def part(p: Part) -> Part:
            if p.plane != one.at:
                return p
            return replace(p, light_frac=p.light_frac * one.much)

        return replace(hung, parts=tuple(part(p) for p in hung.parts))

    return _on_plane(rig, one.at, changed, Look.DIRTY)


def _snowed(rig: Rig, one: Planted) -> Rig:
    def changed(hung: Hung) -> Hung:
        covered = round(hung.parts[0].substrings * one.much)
        return _otherwise(hung, float(covered), light_frac=UNDER_SNOW_FRAC)

    return _on_plane(rig, one.at, changed, Look.SNOW)


def _dulled(rig: Rig, one: Planted) -> Rig:
    hung = rig.strings[one.at]
    parts = tuple(replace(p, light_frac=p.light_frac * one.much) for p in hung.parts)
    return rig.with_string(one.at, parts=parts, dull=True)


def _shaded(rig: Rig, one: Planted) -> Rig:
    plane = rig.strings[one.at].parts[0].plane
    shaded = _module(rig, one, light_frac=rig.strings[one.at].parts[0].light_frac * one.much)
    return replace(shaded, looks=(*rig.looks[:plane], Look.SHADE, *rig.looks[plane + 1 :]))


def _input(rig: Rig, at: int, **changes: object) -> Rig:
    changed = replace(rig.inputs[at], **changes)  # type: ignore[arg-type]
    return replace(rig, inputs=(*rig.inputs[:at], changed, *rig.inputs[at + 1 :]))


def _weak_input(rig: Rig, one: Planted) -> Rig:
    """An input that takes a share of the current its strings would give at a full sun."""
    amps = sum(s.parts[0].sheet.imp_a for s in rig.strings if s.input == one.at)
    return _input(rig, one.at, i_max_a=amps * one.much, weak=True)


def _overrun(rig: Rig, one: Planted) -> Rig:
    """Strings side by side bring more than the input takes: it takes one string's current and a quarter."""
    amps = max((s.parts[0].sheet.imp_a for s in rig.strings if s.input == one.at), default=0.0)
    return _input(rig, one.at, i_max_a=amps * 1.25, weak=True)


def _inverter(rig: Rig, **changes: object) -> Rig:
    return replace(rig, inverter=replace(rig.inverter, **changes))  # type: ignore[arg-type]


def _meters(rig: Rig, **changes: object) -> Rig:
    return replace(rig, instruments=replace(rig.instruments, **changes))  # type: ignore[arg-type]


def _rating(inverter: Inverter) -> float:
    return inverter.p_ac_w or 0.0


_PLANT: dict[Fault, Callable[[Rig, Planted], Rig]] = {
    Fault.HEALTHY: lambda rig, _: rig,
    Fault.MODULE_MISSING: lambda rig, p: _set(rig, p.at, _grown(rig.strings[p.at], -p.much)),
    Fault.MODULE_EXTRA: lambda rig, p: _set(rig, p.at, _grown(rig.strings[p.at], p.much)),
    Fault.MODULE_TURNED: _turned,
    Fault.BYPASS_SHORTED: _bridged,
    Fault.POLARITY: lambda rig, p: rig.with_string(p.at, flipped=True),
    Fault.PARTED: lambda rig, p: rig.with_string(p.at, parted=True),
    Fault.JOINT: lambda rig, p: rig.with_string(p.at, joint_ohm=p.much),
    Fault.LEAD: lambda rig, p: rig.with_string(p.at, lead_ohm=p.much),
    Fault.EARTH: lambda rig, p: rig.with_string(p.at, earth_after=p.other, earth_mohm=0.02),
    Fault.WET: lambda rig, p: _inverter(rig, wet_mohm=p.much),
    Fault.FUSE: lambda rig, p: rig.with_string(p.at, fuse_open=True),
    Fault.SWITCH_OFF: lambda rig, p: _input(rig, p.at, on=False),
    Fault.INPUT_WEAK: _weak_input,
    Fault.OVERRUN: _overrun,
    Fault.SWAPPED: _swapped,
    Fault.THREADED: _threaded,
    Fault.SHADE: _shaded,
    Fault.DULL_STRING: _dulled,
    Fault.WEAK_MODULE: lambda rig, p: _module(rig, p, light_frac=p.much),
    Fault.WRONG_MODULE: _wrong_module,
    Fault.UNPAIRED: lambda rig, p: rig.with_string(p.at, unpaired=1),
    Fault.SOILING: _soiled,
    Fault.SNOW: _snowed,
    Fault.BREAKER_OFF: lambda rig, _: _inverter(rig, breaker_on=False),
    Fault.GRID_HIGH: lambda rig, p: _inverter(rig, grid_frac=p.much),
    Fault.DERATING: lambda rig, p: _inverter(rig, heat_frac=p.much),
    Fault.EXPORT: lambda rig, p: _inverter(rig, export_w=_rating(rig.inverter) * p.much),
    Fault.SETTING: lambda rig, p: _inverter(rig, set_frac=p.much),
    Fault.CLOCK: lambda rig, p: _meters(rig, clock_h=p.much),
    Fault.UNIT: lambda rig, p: _meters(rig, unit_frac=p.much),
    Fault.LIGHT_METER: lambda rig, p: _meters(rig, light_frac=p.much),
    Fault.THERMOMETER: lambda rig, p: _meters(rig, cell_k=p.much),
}
