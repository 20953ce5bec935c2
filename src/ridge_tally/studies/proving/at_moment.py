"""A moment of a design: what should be read now, two arrays held against each other, and is it normal."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import combinations
from math import hypot, log

from ridge_tally.core.errors import NotUnderstood, OutOfRange
from ridge_tally.core.nominal_year import day_name
from ridge_tally.core.proving.expected import MeterErrors
from ridge_tally.core.proving.rig import OF_PLANE, OF_STRING, Bench, Display, Kind, Lit, Probe, Rig
from ridge_tally.core.proving.weighing import (
    MODEL_CELL_K,
    MODEL_LIGHT_FRAC,
    Read,
    sigma_of,
)
from ridge_tally.core.sky.given_sky import Sky
from ridge_tally.core.units import parse_number
from ridge_tally.rules.design import Design
from ridge_tally.rules.proving.diagnosis import STEADY_W_PER_M2, Diagnosis, diagnosed
from ridge_tally.rules.proving.tables import test_rows
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.moment import Asked, DayUnder, day_under
from ridge_tally.studies.proving.rig import rig_at

# Two power readings, each off by so much; and how far the model is off while the sun is low.
POWER_FRAC, LOW_SUN_DEG, LOW_SUN_FRAC, HIGH_SUN_FRAC = 0.03, 15.0, 0.15, 0.04
# Readings further off than so many deviations are no chance.
ODD, DOUBTFUL = 3.0, 2.0
# What a sky that somebody calls so may be as well.
LOOKS_LIKE = {
    Sky.CLEAR: (Sky.HAZY,),
    Sky.HAZY: (Sky.CLEAR, Sky.OVERCAST),
    Sky.OVERCAST: (Sky.HAZY,),
}
STRING_READS = (
    Kind.VOC, Kind.ISC, Kind.V_AT_WORK, Kind.I_AT_WORK, Kind.POWER,
)  # fmt: skip
HELD_STRING_READS = (Kind.V_AT_WORK, Kind.POWER)


class Normal(StrEnum):
    """Whether what was read is as it should be."""

    NOT_ASKED = "not-asked"
    NORMAL = "normal"
    DOUBTFUL = "doubtful"
    ODD = "odd"


@dataclass(frozen=True, slots=True)
class TypedReading:
    """A reading as it was typed: of which kind, of which string or array from 0."""

    kind: Kind
    at: int
    typed: str


@dataclass(frozen=True, slots=True)
class DueNow:
    """What an instrument should read, how far from it is no news, and what was read."""

    kind: Kind
    title: str
    unit: str
    due: float
    band: float
    read: float | None
    normal: Normal


@dataclass(frozen=True, slots=True)
class ArrayNow:
    """An array: light in its plane, degrees the sun stands off square, what reaches its cells."""

    name: str
    modules: int
    rated_w: float
    light_w_per_m2: float
    off_square_deg: float
    reaches_frac: float
    shade_frac: float
    cell_degc: float
    power: DueNow


@dataclass(frozen=True, slots=True)
class StringNow:
    """A string with its readings; ``told``: what makes them other than the label's."""

    name: str
    tracker: int
    modules: int
    on: str
    readings: tuple[DueNow, ...]
    told: str


@dataclass(frozen=True, slots=True)
class PairNow:
    """Two arrays, each by its rated watts: the first's share over the second's, now and all day.

    ``low`` and ``high``: what skies that look like it give, with what meters may be off.
    ``day_low``, ``day_high`` (m,) at ``minutes`` of the view, nothing while either is dark.
    """

    first: int
    second: int
    title: str
    due: float
    low: float
    high: float
    day_due: tuple[float | None, ...]
    day_low: tuple[float | None, ...]
    day_high: tuple[float | None, ...]
    read: float | None
    normal: Normal
    told: str


@dataclass(frozen=True, slots=True)
class MomentView:
    """A moment; ``minutes`` (m,) of the day's curves, standard time."""

    day: int
    minute: int
    told: str
    arrays: tuple[ArrayNow, ...]
    strings: tuple[StringNow, ...]
    ac: DueNow
    held_told: str
    minutes: tuple[int, ...]
    pairs: tuple[PairNow, ...]
    verdict: Normal
    verdict_told: str
    diagnosis: Diagnosis | None
    caveats: tuple[str, ...]


def at_moment(
    desk: Desk, design: Design, asked: Asked, typed: Sequence[TypedReading] = ()
) -> MomentView:
    """Return what a design should read at a moment, and whether what was read is normal.

    Raises
    ------
    NotUnderstood, OutOfRange
        If a reading is no number, or of nothing there is, or cannot be at that moment.
    MissingDatum
        If no module is in a string, or a datasheet lacks what the model needs.
    """
    day = day_under(desk, design, asked)
    rig, lit = rig_at(day)
    reads = tuple(_reads(rig, typed, day))
    twos = _twos(day)
    beside = LOOKS_LIKE[asked.sky] if twos and asked.measured_w_per_m2 is None else ()
    skies = [day_under(desk, design, replace(asked, sky=s)) for s in beside]
    errors = MeterErrors()
    known = replace(
        errors,
        light_frac=errors.light_frac if asked.measured_w_per_m2 else MODEL_LIGHT_FRAC,
        cell_k=errors.cell_k if asked.cell_degc is not None else MODEL_CELL_K,
    )
    bench = _Benches(rig, lit, known)
    diagnosis = None
    if reads:
        diagnosis = diagnosed(rig, (*reads, *_measured(asked)), errors, lit)
    pairs = tuple(_pair(day, skies, one, other, reads) for one, other in twos)
    strings = tuple(_string(day, bench, n, reads) for n in range(len(day.strings)))
    ac = bench.due(Probe(Kind.AC_W), reads)
    verdict, told = _verdict(diagnosis, pairs)
    hold = bench.here.display
    return MomentView(
        day=asked.day,
        minute=asked.minute,
        told=_when(day, asked),
        arrays=tuple(_array(day, bench, n, reads) for n in range(len(day.arrays))),
        strings=strings,
        ac=ac,
        held_told="" if hold is Display.RUNNING else f"The inverter: {hold.value}.",
        minutes=tuple(day.minutes.tolist()),
        pairs=pairs,
        verdict=verdict,
        verdict_told=told,
        diagnosis=diagnosis,
        caveats=tuple(_caveats(day, asked)),
    )


def _reads(rig: Rig, typed: Sequence[TypedReading], day: DayUnder) -> Iterator[Read]:
    for one in typed:
        text = one.typed.strip()
        if not text:
            continue
        row = test_rows().get(one.kind)
        name = row.title if row else one.kind.value
        of = [""]
        if one.kind in OF_STRING:
            of = [f"String {s.name}" for s in rig.strings]
        elif one.kind in OF_PLANE:
            of = list(rig.planes)
        if one.at >= len(of):
            raise OutOfRange(name, one.at + 1, f"of one of {len(of)}, counted from 1")
        field = ": ".join(filter(None, (of[one.at], name)))
        value = parse_number(text, field, f"a number in {row.unit if row else 'its unit'}")
        _sane(field, one.kind, value, day)
        yield Read(Probe(one.kind, one.at), value)


def _sane(field: str, kind: Kind, value: float, day: DayUnder) -> None:
    """Refuse what no instrument shows there, with what may have happened."""
    most = {
        Kind.VOC: 2000.0, Kind.V_AT_WORK: 2000.0, Kind.ISC: 100.0, Kind.I_AT_WORK: 100.0,
        Kind.POWER: 60_000.0, Kind.ARRAY_W: 60_000.0, Kind.AC_W: 60_000.0, Kind.AC_V: 600.0,
    }.get(kind, 1e6)  # fmt: skip
    least = -2000.0 if kind is Kind.VOC else 0.0
    if not least <= value <= most:
        raise OutOfRange(
            field, value, f"between {least:g} and {most:g}",
            "Look at its sign and its unit: volts, amperes, watts.",
        )  # fmt: skip
    if not day.up and kind in (*STRING_READS, Kind.ARRAY_W) and abs(value) > 1:
        raise OutOfRange(
            field, value, "nothing while the sun is down",
            "Check the day and the hour; they are in standard time.",
        )  # fmt: skip


def _measured(asked: Asked) -> Iterator[Read]:
    if asked.measured_w_per_m2 is not None:
        yield Read(Probe(Kind.LIGHT, asked.measured_on), float(asked.measured_w_per_m2))
    if asked.cell_degc is not None:
        yield Read(Probe(Kind.CELL, asked.measured_on), float(asked.cell_degc))


class _Benches:
    """What instruments show now, and with a little more light or heat: bands by root-sum-square."""

    def __init__(self, rig: Rig, lit: Lit, known: MeterErrors) -> None:
        self.here = Bench(rig, lit)
        brighter = tuple(v * (1 + known.light_frac) for v in lit.light_w_per_m2)
        warmer = tuple(v + known.cell_k for v in lit.cell_degc)
        self._moved = (
            Bench(rig, Lit(brighter, lit.cell_degc)),
            Bench(rig, Lit(lit.light_w_per_m2, warmer)),
        )
        self._known = known

    def due(self, test: Probe, reads: Sequence[Read]) -> DueNow:
        """Return what a reading should be, its band, and what was read."""
        due, row = float(self.here.read(test)), test_rows()[test.kind]
        sigma = hypot(
            sigma_of(test.kind, due, self._known),
            *(float(b.read(test)) - due for b in self._moved),
        )
        read = next((float(r.value) for r in reads if r.test == test), None)
        return DueNow(test.kind, row.title, row.unit, due, 2 * sigma, read, _by(read, due, sigma))


def _by(read: float | None, due: float, sigma: float) -> Normal:
    if read is None:
        return Normal.NOT_ASKED
    off = abs(read - due) / max(sigma, 1e-9)
    return Normal.NORMAL if off <= DOUBTFUL else Normal.DOUBTFUL if off <= ODD else Normal.ODD


def _array(day: DayUnder, bench: _Benches, at: int, reads: Sequence[Read]) -> ArrayNow:
    one, now = day.arrays[at], day.now
    free = max(float(one.free_w_per_m2[now]), 1e-9)
    return ArrayNow(
        name=one.name,
        modules=one.modules,
        rated_w=one.rated_w,
        light_w_per_m2=float(one.free_w_per_m2[now]),
        off_square_deg=float(one.incidence_deg[now]),
        reaches_frac=float(one.in_cells_w_per_m2[now]) / free,
        shade_frac=1 - float(one.on_glass_w_per_m2[now]) / free,
        cell_degc=float(one.cell_degc[now]),
        power=bench.due(Probe(Kind.ARRAY_W, at), reads),
    )


def _string(day: DayUnder, bench: _Benches, at: int, reads: Sequence[Read]) -> StringNow:
    one, hung = day.strings[at], bench.here.rig.strings[at]
    kinds = STRING_READS if hung.held_v is None else HELD_STRING_READS
    due = tuple(bench.due(Probe(kind, at), reads) for kind in kinds)
    names = dict.fromkeys(day.arrays[n].name for n in one.arrays)
    return StringNow(
        hung.name, one.string.tracker_number, hung.in_series, " and ".join(names), due,
        _string_told(day, at, due) if hung.held_v is None else "",
    )  # fmt: skip


def _string_told(day: DayUnder, at: int, due: Sequence[DueNow]) -> str:
    one = day.strings[at]
    label = sum(s.voc_v for s in one.light.sheets)
    cell = float(one.cell_degc[day.now])
    opens = next(d.due for d in due if d.kind is Kind.VOC)
    short = label - opens
    way = "under" if short > 0 else "over"
    return f"{abs(short):.0f} V {way} the label’s {label:.0f} V: cells at {cell:.0f} °C"


def _twos(day: DayUnder) -> list[tuple[int, int]]:
    strung = [n for n, a in enumerate(day.arrays) if a.modules]
    return list(combinations(strung, 2))[:6]


def _pair(
    day: DayUnder, skies: Sequence[DayUnder], first: int, second: int, reads: Sequence[Read]
) -> PairNow:
    def ratio(of: DayUnder) -> tuple[float | None, ...]:
        a, b = of.arrays[first], of.arrays[second]
        one, other = a.dc_w / a.rated_w, b.dc_w / b.rated_w
        lit = (one > DARK_FRAC) & (other > DARK_FRAC)
        return tuple(
            float(x / y) if there else None for x, y, there in zip(one, other, lit, strict=True)
        )

    due, alike = ratio(day), [ratio(of) for of in skies]
    up = 90 - day.sun.zenith_deg
    low: list[float | None] = []
    high: list[float | None] = []
    for n, value in enumerate(due):
        if value is None:
            low.append(None)
            high.append(None)
            continue
        found = [v for v in (value, *(a[n] for a in alike)) if v is not None]
        off = hypot(
            2 * POWER_FRAC, 2 * POWER_FRAC, LOW_SUN_FRAC if up[n] < LOW_SUN_DEG else HIGH_SUN_FRAC
        )
        low.append(min(found) / (1 + off))
        high.append(max(found) * (1 + off))
    now = day.now
    a, b = day.arrays[first], day.arrays[second]
    watts = [
        next((float(r.value) for r in reads if r.test == Probe(Kind.ARRAY_W, n)), None)
        for n in (first, second)
    ]
    read = None
    if watts[0] is not None and watts[1]:
        read = (watts[0] / a.rated_w) / (watts[1] / b.rated_w)
    normal, told = _pair_told(a.name, b.name, due[now], low[now], high[now], read)
    return PairNow(
        first, second, f"{a.name} over {b.name}", due[now] or 0.0, low[now] or 0.0,
        high[now] or 0.0, due, tuple(low), tuple(high), read, normal, told,
    )  # fmt: skip


# Arrays that give less than this share of their rating are dark: their ratio means nothing.
DARK_FRAC = 0.01


def _pair_told(
    first: str,
    second: str,
    due: float | None,
    low: float | None,
    high: float | None,
    read: float | None,
) -> tuple[Normal, str]:
    if due is None or low is None or high is None:
        return Normal.NOT_ASKED, f"{first} and {second}: too dark to be compared now."
    should = f"{due:.2f} times is due watt for watt, {low:.2f} to {high:.2f} with haze and meters"
    if read is None:
        return Normal.NOT_ASKED, f"{first} against {second}: {should}."
    if low <= read <= high:
        return (
            Normal.NORMAL,
            f"{first} makes {read:.2f} times what {second} makes: normal. Now {should}.",
        )
    beyond = log(read / high) if read > high else log(low / read)
    weak = second if read > high else first
    normal = Normal.ODD if beyond > POWER_FRAC else Normal.DOUBTFUL
    return (
        normal,
        f"{first} makes {read:.2f} times what {second} makes, {weak} too little: not normal. Now {should}.",
    )


def _verdict(diagnosis: Diagnosis | None, pairs: Sequence[PairNow]) -> tuple[Normal, str]:
    asked = [p for p in pairs if p.read is not None]
    if diagnosis is None:
        return Normal.NOT_ASKED, ""
    odd = [p for p in asked if p.normal is Normal.ODD]
    first = diagnosis.causes[0] if diagnosis.causes else None
    healthy = first is not None and first.code == "healthy"
    if odd:
        lead = odd[0].told.split(" Now ")[0]
        tail = "" if healthy else f" {diagnosis.told}"
        return Normal.ODD, f"Not normal. {lead}{tail}"
    if healthy and first is not None and first.fits:
        shown = asked[0].told.split(" Now ")[0] if asked else ""
        return Normal.NORMAL, f"Normal for this moment. {shown}".strip()
    return (Normal.ODD if first and first.chance > 0.9 else Normal.DOUBTFUL), diagnosis.told


def _when(day: DayUnder, asked: Asked) -> str:
    hour, minute = divmod(asked.minute, 60)
    up = 90 - float(day.sun.zenith_deg[day.now])
    sun = f"sun {up:.0f}° up, bearing {day.sun.azimuth_deg[day.now]:.0f}°" if up > 0 else "sun down"
    return f"{day_name(asked.day)}, {hour:02d}:{minute:02d} standard time, {sun}"


def _caveats(day: DayUnder, asked: Asked) -> Iterator[str]:
    if not day.up:
        yield "The sun is down or nearly so: nothing that is read now says anything."
        return
    if asked.measured_w_per_m2 is None:
        yield f"A model’s {asked.sky.value} sky, within {100 * MODEL_LIGHT_FRAC:.0f} %: measure the light to narrow the bands."
    if asked.cell_degc is None:
        yield f"Cells by the model, within {MODEL_CELL_K:.0f} K, in the month’s usual air and wind of the stand-in or weather file."
    dull = [a.name for a in day.arrays if a.free_w_per_m2[day.now] < STEADY_W_PER_M2]
    if dull:
        yield f"Little light on {' and '.join(dull)}: an hour when the sun stands square to it tells more."
    grid = day.design.job.brief.grid
    if grid is not None and grid.export_limit_kw is not None:
        yield f"The export limit of {grid.export_limit_kw:g} kW holds the inverter back when the house uses little: not in these figures."
    if day.design.optimizer is not None and day.design.system is None:
        yield "Add-on optimizers are in the curves, not in the volts of a string at work."


def parse_minute(typed: str) -> int:
    """Return the minute of the day of a time such as 8:30; NotUnderstood if it is none."""
    hour, _, minute = typed.strip().replace(".", ":").partition(":")
    if hour.isdigit() and (minute.isdigit() or not minute) and len(hour) <= 2 and len(minute) <= 2:
        found = int(hour) * 60 + int(minute or 0)
        if int(hour) < 24 and int(minute or 0) < 60:
            return found
    raise NotUnderstood("Time", typed, "a time of day such as 8:30 or 13:05, standard time")
