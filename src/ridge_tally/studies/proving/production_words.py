"""What a log's signs are called, what speaks for them and what to look at."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from ridge_tally.core.proving.logged.clock import Off
from ridge_tally.core.proving.logged.days import LogStanding
from ridge_tally.core.proving.logged.signatures import Seen, Sign
from ridge_tally.core.proving.logged.steps import What
from ridge_tally.core.units import day_text

# A step down of this is a fault's; days of holes and of stops from which they matter.
ACT_STEP_FRAC, MANY_TRIPS, MANY_GAP_H = 0.05, 3, 24.0
# A level that moves more than this with heat is no set one.
SAGS_FRAC = 0.02


class Tone(StrEnum):
    """What a sign asks for."""

    KNOWN = "known"
    LOOK = "look"
    ACT = "act"


@dataclass(frozen=True, slots=True)
class SignTold:
    """A sign in words: what is seen, on which days, what it may be and what to look at."""

    sign: Sign
    title: str
    tone: Tone
    first: date
    last: date
    when: str
    seen: str
    look_at: str
    lost_kwh: float | None


_LEFT_OUT = {
    What.GAP: "no reading", What.OUT: "nothing made", What.SNOW: "snow", What.CLIPPED: "at the AC limit",
    What.HELD: "held at a level", What.HOT: "stepped down",
}  # fmt: skip
_TITLE = {
    Sign.UNIT: "Wrong unit",
    Sign.AC_CLIP: "At the inverter’s AC limit",
    Sign.HELD: "Held at a level",
    Sign.HOT: "Steps down in bright hours",
    Sign.OUT: "Stood still",
    Sign.TRIP: "Short stops",
    Sign.SNOW: "Snow on the glass",
    Sign.GAP: "Holes in the log",
    Sign.SHADE: "A dent at the same hour",
    Sign.STRING_OUT: "A string’s part is missing",
    Sign.STEP: "A sudden step",
    Sign.WASHED: "Washed clean",
    Sign.SOILING: "Sinks slowly",
    Sign.WEATHER: "Dark days",
}
_LOOK_AT = {
    Sign.UNIT: "the heading of the column and the gateway’s settings; nothing else is judged until it fits",
    Sign.AC_CLIP: "nothing: the design gives so much up on purpose, Loading says how much",
    Sign.HELD: "an export limit or a power setting in the inverter; a level that sags with heat is a tracker’s current limit",
    Sign.HOT: "fan and fins, sun on the box, clearances; it recovers as it cools",
    Sign.OUT: "the inverter’s event list, its switches and breakers; a qualified person opens the panel",
    Sign.TRIP: "AC volts at those hours: a grid that runs high disconnects inverters",
    Sign.SNOW: "nothing on the roof: it comes off by itself, do not climb for it",
    Sign.GAP: "the gateway’s link; what is not logged is not lost",
    Sign.SHADE: "what stands before the sun at that hour and is not in the survey",
    Sign.STRING_OUT: "string fuses and DC switches, then each string’s current with a clamp; never open a connector under load",
    Sign.STEP: "what was done on that day, or failed: the search for the fault takes readings further",
    Sign.WASHED: "rain did it, or somebody: what was lost before was dirt",
    Sign.SOILING: "dirt on the glass, which a wash or rain takes off in one step; or a light meter that drifts",
    Sign.WEATHER: "nothing: little was made of little light",
}


def _tone(seen: Seen) -> Tone:
    f = seen.figures
    match seen.sign:
        case Sign.UNIT | Sign.OUT | Sign.HOT | Sign.STRING_OUT:
            return Tone.ACT
        case Sign.TRIP:
            return Tone.ACT if f["times"] >= MANY_TRIPS else Tone.LOOK
        case Sign.GAP:
            return Tone.LOOK if f["hours"] > MANY_GAP_H else Tone.KNOWN
        case Sign.STEP:
            down = f["before"] - f["after"]
            return Tone.ACT if down >= ACT_STEP_FRAC else Tone.LOOK if down > 0 else Tone.KNOWN
        case Sign.HELD | Sign.SHADE | Sign.SOILING:
            return Tone.LOOK
        case _:
            return Tone.KNOWN


def sign_told(seen: Seen, first_day: date, *, measured: bool) -> SignTold:
    """Return a sign in words; ``measured``: whether the light was."""
    first, last = (first_day + timedelta(days=n) for n in (seen.first, seen.last))
    return SignTold(
        seen.sign, _title(seen), _tone(seen), first, last, _when(seen, first, last),
        _evidence(seen, measured=measured), _LOOK_AT[seen.sign], seen.lost_kwh,
    )  # fmt: skip


def _title(seen: Seen) -> str:
    f = seen.figures
    if seen.sign is Sign.STRING_OUT and f["strings"] > 1:
        return f"The part of {f['strings']:.0f} strings is missing"
    if seen.sign is Sign.STEP:
        way = "down" if f["after"] < f["before"] else "up"
        return f"A sudden step {way}"
    return _TITLE[seen.sign]


# By name of the figures a sign is told with; shares as per cent, hours as a clock.
_EVIDENCE = {
    Sign.UNIT: "{much} times what can be, as another unit would be",
    Sign.AC_CLIP: "{hours:.0f} h flat at the limit while more was due",
    Sign.HELD: (
        "flat at {level_kw:.2f} kW, {of_limit:.0%} of the inverter’s rating, {sags}, {hours:.0f} h while "
        "more was due"
    ),
    Sign.HOT: (
        "full before, then down to {level_kw:.2f} kW for {hours:.0f} h in all, at air of {air_degc:.0f} °C "
        "(a usual noon has {air_usual_degc:.0f} °C)"
    ),
    Sign.OUT: "{hours:.0f} h at nothing while light enough was there",
    Sign.TRIP: "{times:.0f} stops, {hours:.1f} h in all, about {about}, full power before and after",
    Sign.SNOW: "{hours:.0f} h of next to nothing under measured light in frost",
    Sign.GAP: "{hours:.0f} h of daylight without a reading: missing, not nothing",
    Sign.SHADE: "from {since} to {till}, up to {deep:.0%} less than the hours beside, on most days",
    Sign.STRING_OUT: "{share:.0%} less{where}: {course}",
    Sign.STEP: "from {before:.0%} to {after:.0%} {of} between two days",
    Sign.WASHED: "from {before:.0%} up to {after:.0%} {of} between two days",
    Sign.SOILING: "{month:.1%} in thirty days, from {at_first:.0%} to {at_end:.0%}{often}{then}",
    Sign.WEATHER: "low, and equal to the light that was measured",
}


def _evidence(seen: Seen, *, measured: bool) -> str:
    f = seen.figures
    spread = f.get("spread", 0.0)
    tracker = f.get("tracker", 0.0)
    told = _EVIDENCE[seen.sign].format(
        **f,
        of="of what the light was worth" if measured else "of what a cloudless sky is worth",
        level_kw=f.get("level_w", 0.0) / 1000,
        sags=f"sagging by {spread:.0%}" if spread > SAGS_FRAC else "always the same",
        about=_clock(f.get("about_h", 0.0)),
        since=_clock(f.get("from_h", 0.0)),
        till=_clock(f.get("to_h", 0.0)),
        where=f" on input {tracker:.0f}" if tracker else "",
        course="the day’s course fits it"
        if f.get("by_course")
        else "the same share all day fits it",
        month=abs(f.get("per_day", 0.0)) * 30,
        much=f"{f.get('times', 0.0):,.0f}"
        if f.get("times", 0.0) >= 2
        else f"{f.get('times', 0.0):.3g}",
        often=f", the worst of {f['times']:.0f} times" if f.get("times", 0.0) > 1 else "",
        then=", with a step up after it" if f.get("washed") else "",
    )
    return told.replace("%", " %")


def _when(seen: Seen, first: date, last: date) -> str:
    if first == last:
        return day_text(first)
    many = seen.days
    if seen.last - seen.first + 1 == many:
        return f"{day_text(first)} to {day_text(last)}"
    return f"{many} days between {day_text(first)} and {day_text(last)}"


def _clock(hours: float) -> str:
    minutes = round(hours * 60)
    return f"{minutes // 60}:{minutes % 60:02d}"


def left_out_told(hours: Sequence[tuple[What, float]]) -> str:
    """Return why steps are not judged, with their hours where there are some."""
    return ", ".join(f"{_LEFT_OUT[w]} {h:.1f} h" if h else _LEFT_OUT[w] for w, h in hours)


def clocks_told(offs: Sequence[Off], first_day: date) -> Iterator[str]:
    """Yield what was put right in a log's clock by the sun."""
    for off in offs:
        much = abs(off.late_h)
        way = "late" if off.late_h > 0 else "early"
        first, last = (first_day + timedelta(days=n) for n in (off.first, off.end - 1))
        yield (
            f"From {day_text(first)} to {day_text(last)} its clock is {much:g} h {way} by the sun: put right"
        )


def headline(
    ratio: float | None, standing: LogStanding, signs: Sequence[SignTold], judged: int, days: int,
    *, measured: bool, odd: int,
) -> str:  # fmt: skip
    """Return the judgement in a line; never fine while a sign asks for something."""
    if any(s.sign is Sign.UNIT for s in signs):
        return "Not judged: the numbers are in another unit than the heading says"
    if ratio is None:
        return f"Not judged: none of {days} days can be"
    against = "what the measured light was worth" if measured else "what a cloudless sky is worth"
    told = f"{ratio * 100:.0f} % of {against}, on {judged} of {days} days"
    act = [s.title for s in signs if s.tone is Tone.ACT]
    look = [s.title for s in signs if s.tone is Tone.LOOK]
    if odd:
        act.append(
            f"{odd} modules behind their siblings" if odd > 1 else "a module behind its siblings"
        )
    if act:
        return f"{told}. To act on: {_listed(act)}"
    if standing is LogStanding.ACT:
        return f"{told}: far from what is due, with no sign that names why"
    if look or standing is LogStanding.LOOK:
        return f"{told}. Worth a look: {_listed(look) or 'the ratio itself'}"
    return f"{told}: as is due, and no sign of a fault in what is judged"


def _listed(titles: Sequence[str]) -> str:
    some = list(dict.fromkeys(titles))
    return ", ".join([some[0], *(t[0].lower() + t[1:] for t in some[1:])]) if some else ""
