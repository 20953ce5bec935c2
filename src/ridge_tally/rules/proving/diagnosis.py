"""Readings weighed and told in words: the verdict, its causes, what is normal, what comes next."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.faults import COMMON, Fault, Planted, places_of
from ridge_tally.core.proving.next_test import Worth, tests_of, worth_taking
from ridge_tally.core.proving.rig import OF_PLANE, OF_STRING, Kind, Lit, Probe, Rig, Value
from ridge_tally.core.proving.weighing import (
    LIKELY,
    Cause,
    Explained,
    Given,
    Read,
    Weighed,
    Weighing,
)
from ridge_tally.rules.proving.tables import (
    RefusedTest,
    costs,
    fault_rows,
    priors,
    refused_tests,
    test_rows,
)

# Below this light a current says little, and a curve nothing; common practice, no source.
STEADY_W_PER_M2 = 400.0
# Causes less likely than this are not listed; so many are.
LISTED_CHANCE, MOST_LISTED, MOST_NEXT = 0.005, 8, 4
# Volts a label promises and hot glass takes, told from this share on.
HOT_GLASS_FRAC = 0.02
# With so much left for a cause nobody thought of, none is told.
NOTHING_FITS = 0.5


class FaultVerdict(StrEnum):
    """How readings come out."""

    NORMAL = "normal"
    SURE = "sure"
    LIKELY = "likely"
    OPEN = "open"
    NOTHING_FITS = "nothing-fits"


@dataclass(frozen=True, slots=True)
class ReadingTold:
    """A reading under a cause, in words and numbers; ``band`` is two of its deviations."""

    kind: Kind
    at: str
    title: str
    unit: str
    read: Value
    due: Value
    band: float
    off: float
    told: str


@dataclass(frozen=True, slots=True)
class CauseTold:
    """A cause: its codes joined by a plus, where, how much, how likely, and what mends it."""

    code: str
    title: str
    where: str
    much: str
    chance: float
    fits: bool
    common: bool
    mend: str
    mend_min: float
    readings: tuple[ReadingTold, ...]


@dataclass(frozen=True, slots=True)
class NextTest:
    """A reading to take next: the chance that it settles the matter, minutes, risk, how.

    ``place``: the name of what it is of, nothing for the inverter; ``where``: that in words.
    """

    kind: Kind
    place: str
    title: str
    where: str
    settles: float
    minutes: float
    risk: float
    how: str
    told: str


@dataclass(frozen=True, slots=True)
class Diagnosis:
    """What readings point to.

    ``light_w_per_m2`` and ``cell_degc`` of each plane as the likeliest cause has them;
    ``inferred``: what of it nobody measured.  ``unseen``: causes no reading taken could show.
    """

    verdict: FaultVerdict
    told: str
    causes: tuple[CauseTold, ...]
    other_chance: float
    normal: tuple[str, ...]
    weakens: tuple[str, ...]
    inferred: tuple[str, ...]
    unseen: tuple[str, ...]
    next_tests: tuple[NextTest, ...]
    refused: tuple[RefusedTest, ...]
    light_w_per_m2: tuple[float, ...]
    cell_degc: tuple[float, ...]


def diagnosed(
    rig: Rig,
    readings: Sequence[Read],
    errors: MeterErrors | None = None,
    lit: Lit | None = None,
    *,
    fused: bool = False,
) -> Diagnosis:
    """Return what readings of a system point to, and what to read next.

    Parameters
    ----------
    rig : Rig
        As it is drawn.
    lit : Lit, optional
        What the model says of light and heat, where nobody measured them.
    fused : bool
        Whether strings have fuses of their own.
    """
    errors = errors or MeterErrors()
    given = Given(rig, tuple(readings), priors(), errors, lit)
    weighed = Weighing(given).weighed()
    first = weighed.causes[0]
    listed = [c for c in weighed.causes if c.chance > LISTED_CHANCE * first.chance][:MOST_LISTED]
    taken = {r.test for r in readings}
    left = (t for t in tests_of(rig, fused=fused) if t not in taken)
    causes = tuple(_cause(rig, c) for c in listed)
    next_tests = tuple(
        _next(rig, w) for w in worth_taking(rig, _open(weighed), left, costs(), errors)[:MOST_NEXT]
    )
    verdict = _verdict(weighed, first)
    return Diagnosis(
        verdict=verdict,
        told=_told(verdict, causes, next_tests),
        causes=causes,
        other_chance=weighed.other,
        normal=tuple(_normal(rig, first)) if verdict is not FaultVerdict.NOTHING_FITS else (),
        weakens=tuple(_weakens(rig, readings, first, lit)),
        inferred=tuple(_inferred(rig, readings, first, lit)),
        unseen=tuple(fault_rows()[f].title for f in weighed.unseen),
        next_tests=next_tests,
        refused=refused_tests(),
        light_w_per_m2=first.lit.light_w_per_m2,
        cell_degc=first.lit.cell_degc,
    )


def _open(weighed: Weighed) -> tuple[Cause, ...]:
    """Return the causes a next reading may tell apart: those weighed, and those nothing spoke of."""
    if weighed.other > NOTHING_FITS:
        return weighed.causes
    return tuple(sorted((*weighed.causes, *weighed.silent), key=lambda c: -c.chance))


def _verdict(weighed: Weighed, first: Cause) -> FaultVerdict:
    if weighed.other > NOTHING_FITS:
        return FaultVerdict.NOTHING_FITS
    if first.faults[0].fault is Fault.HEALTHY:
        return FaultVerdict.NORMAL if first.chance >= LIKELY and first.fits else FaultVerdict.OPEN
    if weighed.sure:
        return FaultVerdict.SURE
    return FaultVerdict.LIKELY if first.chance >= LIKELY else FaultVerdict.OPEN


def _told(verdict: FaultVerdict, causes: Sequence[CauseTold], tests: Sequence[NextTest]) -> str:
    then = f" Next: {tests[0].where}{tests[0].title}." if tests else ""
    if not causes or verdict is FaultVerdict.NOTHING_FITS:
        return f"No cause thought of explains all of this: read again, one after the other.{then}"
    first = causes[0]
    named = f"{first.where}{first.title}{first.much}"
    percent = percent_told(first.chance)
    match verdict:
        case FaultVerdict.NORMAL:
            return f"As it should be: every reading lies within its band ({percent})."
        case FaultVerdict.SURE:
            return f"{_upper(named)} ({percent})."
        case FaultVerdict.LIKELY:
            return f"Most likely {named} ({percent}).{then}"
        case _:
            others = " or ".join(f"{c.where}{c.title}" for c in causes[:3])
            return f"Not settled: {others}.{then}"


def percent_told(chance: float) -> str:
    """Return a chance in whole per cent, never 100."""
    return "over 99 %" if chance > 0.99 else f"{round(chance * 100)} %"


def _upper(text: str) -> str:
    return text[:1].upper() + text[1:]


def _cause(rig: Rig, cause: Cause) -> CauseTold:
    rows = fault_rows()
    return CauseTold(
        code="+".join(p.fault.value for p in cause.faults),
        title=" and ".join(
            f"{where_told(rig, p) if n else ''}{rows[p.fault].title}{much_told(p) if n == 0 and len(cause.faults) > 1 else ''}"
            for n, p in enumerate(cause.faults)
        ),
        where=where_told(rig, cause.faults[0]),
        much=much_told(cause.faults[-1]),
        chance=cause.chance,
        fits=cause.fits,
        common=all(p.fault in COMMON for p in cause.faults),
        mend=" ".join(dict.fromkeys(rows[p.fault].mend for p in cause.faults)),
        mend_min=sum(rows[p.fault].minutes for p in cause.faults),
        readings=tuple(reading_told(rig, e) for e in cause.explained),
    )


def where_told(rig: Rig, one: Planted) -> str:
    """Return where a fault sits, with a colon; nothing where it is of the whole."""
    if one.fault in (Fault.SWAPPED, Fault.THREADED):
        return f"strings {rig.strings[one.at].name} and {rig.strings[one.other].name}: "
    if one.fault in (Fault.SWITCH_OFF, Fault.INPUT_WEAK, Fault.OVERRUN):
        return f"input {one.at + 1}: "
    if one.fault in (Fault.SOILING, Fault.SNOW):
        return f"{rig.planes[one.at]}: " if len(rig.planes) > 1 else ""
    places = places_of(one)
    return f"string {rig.strings[places[0]].name}: " if places else ""


def much_told(one: Planted) -> str:
    """Return how much of a fault there is, in words, after a comma."""
    much = one.much
    many = "s" if much != 1 else ""
    said = {
        Fault.MODULE_MISSING: f"{much:.0f} module{many}",
        Fault.MODULE_EXTRA: f"{much:.0f} module{many}",
        Fault.BYPASS_SHORTED: f"{much:.0f} substring{many}",
        **dict.fromkeys((Fault.JOINT, Fault.LEAD), f"about {much:g} Ω"),
        **dict.fromkeys(
            (Fault.SOILING, Fault.DULL_STRING), f"about {100 * (1 - much):.0f} % of the light"
        ),
        Fault.SNOW: f"about {100 * much:.0f} % covered",
        **dict.fromkeys(
            (Fault.DERATING, Fault.SETTING, Fault.EXPORT),
            f"to about {100 * much:.0f} % of its rating",
        ),
        Fault.LIGHT_METER: f"{100 * abs(much - 1):.0f} % too {'much' if much > 1 else 'little'}",
        Fault.THERMOMETER: f"{abs(much):.0f} K too {'warm' if much > 0 else 'cold'}",
        Fault.CLOCK: f"{abs(much):.0f} h {'ahead' if much > 0 else 'behind'}",
    }
    return f", {said[one.fault]}" if one.fault in said else ""


def place_of(rig: Rig, test: Probe) -> str:
    """Return the name of what a test is of: a string's tag, a plane's name, or nothing."""
    if test.kind in OF_STRING:
        return rig.strings[test.at].name
    return rig.planes[test.at] if test.kind in OF_PLANE else ""


def place_told(rig: Rig, test: Probe) -> str:
    """Return what a reading is taken of, in words."""
    place = place_of(rig, test)
    return f"string {place}" if test.kind in OF_STRING else place or "inverter"


def value_told(value: Value, unit: str) -> str:
    """Return a reading with as many places as its size wants."""
    if isinstance(value, str):
        return value
    size = abs(value)
    places = 0 if size >= 100 else 1 if size >= 20 else 2
    return f"{value:.{places}f} {unit}".rstrip()


def reading_told(rig: Rig, e: Explained) -> ReadingTold:
    """Return a reading under a cause in words."""
    row, place = test_rows().get(e.test.kind), place_told(rig, e.test)
    names = {Kind.LIGHT: ("light", "W/m²"), Kind.CELL: ("cell temperature", "°C")}
    title, unit = (row.title, row.unit) if row else names[e.test.kind]
    told = f"{place}: {title} {value_told(e.read, unit)}"
    in_decades = e.test.kind in (Kind.INSULATION, Kind.INSULATION_OF_ALL)
    band = 0.0 if in_decades else 2 * e.sigma
    if e.test.kind not in names:
        told += f", due {value_told(e.due, unit)}"
        if band:
            told += f" ± {value_told(band, unit)}"
    return ReadingTold(e.test.kind, place, title, unit, e.read, e.due, band, round(e.off, 2), told)


def _next(rig: Rig, worth: Worth) -> NextTest:
    row, place = test_rows()[worth.test.kind], place_told(rig, worth.test)
    settles = round(worth.settles, 3)
    return NextTest(
        worth.test.kind,
        place_of(rig, worth.test),
        row.title,
        f"{place}: ",
        settles,
        row.cost.minutes,
        row.cost.risk,
        row.how,
        f"{place}, {row.title}: {row.cost.minutes:.0f} min, risk {row.cost.risk:.0f}",
    )


def _normal(rig: Rig, first: Cause) -> Iterator[str]:
    """Yield what is as it should be, and why it may look odd."""
    odd = {n for p in first.faults for n in places_of(p)}
    for n, one in enumerate(rig.strings):
        mine = [e for e in first.explained if e.test.kind in OF_STRING and e.test.at == n]
        if not mine or n in odd:
            continue
        if all(abs(e.off) <= 2 for e in mine):
            yield f"String {one.name}: {len(mine)} reading{'s' if len(mine) > 1 else ''} within {'their bands' if len(mine) > 1 else 'its band'}."
        opens = next((e for e in mine if e.test.kind is Kind.VOC), None)
        if opens is not None and isinstance(opens.due, float) and abs(opens.off) <= 2:
            label = one.in_series * one.parts[0].sheet.voc_v
            short = label - opens.due
            cell = first.lit.cell_degc[one.parts[0].plane]
            if short > HOT_GLASS_FRAC * label:
                yield (
                    f"String {one.name}: {short:.0f} V under its label’s {label:.0f} V is the "
                    f"glass at {cell:.0f} °C, not a fault."
                )
            elif short < -HOT_GLASS_FRAC * label:
                yield (
                    f"String {one.name}: {-short:.0f} V over its label’s {label:.0f} V is the "
                    f"glass at {cell:.0f} °C; it must still lie under the input’s limit."
                )


def _weakens(rig: Rig, readings: Sequence[Read], first: Cause, lit: Lit | None) -> Iterator[str]:
    kinds = {r.test.kind for r in readings}
    amps = kinds & {Kind.ISC, Kind.I_AT_WORK}
    if Kind.LIGHT not in kinds and amps:
        yield (
            "Nobody measured the light: strings can be held against each other, not against the sun."
            if lit is None
            else "The light is the model’s, not measured: shortfalls common to all strings stay open."
        )
    if Kind.CELL not in kinds and kinds & {Kind.VOC, Kind.V_AT_WORK}:
        yield "Nobody measured the cells: a shortfall of volts common to all strings stays open."
    dark = [
        name
        for name, light in zip(rig.planes, first.lit.light_w_per_m2, strict=True)
        if light < STEADY_W_PER_M2
    ]
    if dark and amps:
        yield (
            f"Little light on {' and '.join(dark)}: below {STEADY_W_PER_M2:.0f} W/m² currents say little."
        )
    if len({s.parts[0].plane for s in rig.strings}) == len(rig.strings) and len(rig.strings) > 1:
        yield "No two strings stand in the same light: there are no siblings to compare."
    elif len(rig.strings) == 1:
        yield "One string alone has no sibling to be compared with."


def _inferred(rig: Rig, readings: Sequence[Read], first: Cause, lit: Lit | None) -> Iterator[str]:
    read = {r.test for r in readings}
    origin = "the readings" if lit is None else "the model and the readings"
    for n, name in enumerate(rig.planes):
        if Probe(Kind.LIGHT, n) not in read:
            yield f"{name}: light {first.lit.light_w_per_m2[n]:.0f} W/m², from {origin}"
        if Probe(Kind.CELL, n) not in read:
            yield f"{name}: cells at {first.lit.cell_degc[n]:.0f} °C, from {origin}"
