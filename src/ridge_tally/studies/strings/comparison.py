"""The ways to the grid point by point on this roof, and which of them, and why."""

from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.equipment import MicroinverterSheet, OptimizerSheet
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.any_edit import TakeRemedy
from ridge_tally.core.number_format import spaced
from ridge_tally.core.strings.parts import ac_makers, counted_names
from ridge_tally.core.working import LimitKind
from ridge_tally.rules.design import Design
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.strings.microinverters import branches
from ridge_tally.simulation.batteries import conversions, takes_dc
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import require_year
from ridge_tally.studies.strings.architectures import WAYS, Built, ways_built
from ridge_tally.studies.strings.growing import grown

# Common practice, no source: a fault below this share is lost in a day's weather.
SEEN_FRAC = 0.05


@dataclass(frozen=True, slots=True)
class WayTold:
    """A way with its figures; ``gain`` against strings alone.  ``edit`` takes it.

    ``unclipped_kwh``: how much less its limit cuts off than that of the strings, which no freedom
    of its modules earned.

    ``points``: its text at each point of the comparison, in order; empty while it is worked out.
    """

    architecture: Architecture
    title: str
    made_of: str
    energy_kwh: float | None
    gain_kwh: float | None
    gain_frac: float | None
    unclipped_kwh: float | None
    cents: int | None
    extra_cents: int | None
    saved_cents: int | None
    stops: int
    outside: int
    legal: bool
    not_checked: str
    from_option: str
    points: tuple[str, ...]
    edit: TakeRemedy | None


@dataclass(frozen=True, slots=True)
class Comparison:
    """The ways looked at so far, of how many; ``which`` and ``why`` when all are.

    ``titles`` of the points.  ``chosen``: the way recommended.  ``sample_prices``: some are invented.
    """

    ways: tuple[WayTold, ...]
    of: int
    titles: tuple[str, ...]
    chosen: Architecture | None
    which: str
    why: tuple[str, ...]
    sample_prices: bool
    unknown_prices: tuple[str, ...]


TITLES = (
    "Limits",
    "If a part fails",
    "What is watched",
    "A battery later",
    "More modules later",
    "Parts on the roof",
    "Where it is serviced",
)


def comparison(desk: Desk, design: Design) -> Iterator[Comparison]:
    """Yield the comparison as the ways are worked out, the verdict with the last.

    Raises
    ------
    MissingDatum
        While no module reaches the grid.
    """
    require_year(design)
    built: list[Built] = []
    ways: list[WayTold] = []
    yield _told(design.job, built, ways, done=False)
    for way in ways_built(desk, design):
        built.append(way)
        # Strings alone come first: the others are held against them.
        ways.append(_way(way, built[0], ""))
        yield _told(design.job, built, ways, done=False)
        # What more modules come to takes as long as all else together.
        ways[-1] = _way(way, built[0], grown(desk, way.design))
        yield _told(design.job, built, ways, done=False)
    yield _told(design.job, built, ways, done=True)


def _told(job: Job, built: list[Built], ways: list[WayTold], *, done: bool) -> Comparison:
    chosen, which, why = _verdict(job, tuple(ways)) if done else (None, "", ())
    return Comparison(
        ways=tuple(ways),
        of=len(WAYS),
        titles=TITLES,
        chosen=chosen,
        which=which,
        why=why,
        sample_prices=any(b.bill.sample for b in built),
        unknown_prices=tuple(dict.fromkeys(n for b in built for n in b.bill.unknown)),
    )


def _way(way: Built, base: Built, more_later: str) -> WayTold:
    gain = frac = cents = unclipped = None
    if base.energy_kwh and way.energy_kwh is not None:
        gain = way.energy_kwh - base.energy_kwh
        frac = gain / base.energy_kwh
        unclipped = (base.clipped_kwh or 0.0) - (way.clipped_kwh or 0.0)
    if base.bill.cents is not None and way.bill.cents is not None:
        cents = way.bill.cents - base.bill.cents
    return WayTold(
        architecture=way.architecture,
        title=WAYS[way.architecture],
        made_of=_made_of(way),
        energy_kwh=way.energy_kwh,
        gain_kwh=gain,
        gain_frac=frac,
        unclipped_kwh=unclipped,
        cents=way.bill.cents,
        extra_cents=cents,
        saved_cents=way.saved_cents,
        stops=way.standing.count(LimitKind.STOP),
        outside=way.standing.count(LimitKind.OUTSIDE),
        legal=way.legal,
        not_checked=way.standing.not_checked,
        from_option=way.from_option,
        points=(
            _limits(way),
            _fails(way),
            _watched(way),
            _battery(way),
            more_later,
            _on_roof(way),
            _serviced(way),
        ),
        edit=way.edit,
    )


def _made_of(way: Built) -> str:
    told = counted_names(ac_makers(way.design))
    units = [p for p in way.bill.parts if isinstance(p.sheet, OptimizerSheet)]
    return ", ".join([told, *(f"{p.count} × {p.sheet.name}" for p in units)])


def _limits(way: Built) -> str:
    if way.problem:
        return way.problem
    broken = sorted(way.standing.broken.values(), key=lambda b: list(LimitKind).index(b.kind))
    if not broken:
        # Nobody may think all is well while something that can stop the job was not judged.
        kept = "Keeps all" if not way.standing.unchecked else "Breaks none"
        still = way.standing.not_checked
        return f"{kept}. Cold Voc {way.standing.cold}{f'; {still}' if still else ''}"
    words = {LimitKind.STOP: "Stop", LimitKind.OUTSIDE: "Outside", LimitKind.COSTS: "Costs"}
    more = f"; {len(broken) - 1} more" if len(broken) > 1 else ""
    return f"{words[broken[0].kind]}: {broken[0].told}{more}"


def _fails(way: Built) -> str:
    """What is dark when one thing fails, as a share of the modules."""
    total = len(present_ids(way.design.option))
    longest = max((len(s.module_ids) for s in way.design.option.strings), default=0)
    if way.architecture is Architecture.MICRO:
        (unit, count), *_ = ac_makers(way.design)
        assert isinstance(unit, MicroinverterSheet)
        on_unit = -(-total // count) if count else 0
        circuits = branches(way.design, unit)
        most = max((sum(len(u) for u in b.units) for b in circuits), default=0)
        return (
            f"A unit: {_share(on_unit, total)}, the rest go on. A branch’s breaker: "
            f"{_share(most, total)}"
        )
    biggest = max(
        sum(len(s.module_ids) for s in way.design.option.strings if s.tracker_number in numbers)
        for numbers in _by_inverter(way)
    )
    inverter = f"The inverter: {_share(biggest, total)}"
    if way.architecture is Architecture.SYSTEM:
        return f"{inverter}. An optimizer: its module alone. A connector: {_share(longest, total)}"
    few = ". An optimizer lets its string by" if way.architecture is Architecture.ADD_ON else ""
    return f"{inverter}. A connector: its string, {_share(longest, total)}{few}"


def _by_inverter(way: Built) -> list[set[int]]:
    design = way.design
    found: dict[int, set[int]] = {}
    for tracker in design.trackers:
        found.setdefault(tracker.unit_number, set()).add(tracker.number)
    return list(found.values())


def _share(modules: int, total: int) -> str:
    return f"{modules} of {total} modules ({modules / total * 100:.0f} %)" if total else "nothing"


def _watched(way: Built) -> str:
    """What is read, and what one substring of three gone dark does to the nearest reading."""
    diodes = way.design.module.bypass_diodes
    trackers = {s.tracker_number for s in way.design.option.strings}
    if way.architecture in (Architecture.SYSTEM, Architecture.MICRO):
        return f"Every module. A dead substring: −{1 / diodes * 100:.0f} % of its module’s reading"
    most = max(
        sum(len(s.module_ids) for s in way.design.option.strings if s.tracker_number == n)
        for n in trackers
    )
    share = 1 / diodes / most
    seen = "plain beside its sister" if share > SEEN_FRAC else "lost in a day’s weather"
    inputs = "1 tracker" if len(trackers) == 1 else f"{len(trackers)} trackers"
    return f"{inputs}. A dead substring: −{share * 100:.1f} % of a tracker’s reading, {seen}"


def _battery(way: Built) -> str:
    """Conversions between sun and socket by way of a battery, and what they leave."""
    coupling = Coupling.DC if takes_dc(way.design) else Coupling.AC
    found = conversions(way.design, coupling)
    told = f"{found.count} conversions, about {found.kept_frac * 100:.0f} % kept"
    if coupling is Coupling.DC:
        return f"On its DC side: {told}"
    why = "" if way.architecture is Architecture.MICRO else " (no battery input named)"
    return f"Beside it, on AC{why}: {told}"


def _on_roof(way: Built) -> str:
    units = [p for p in way.bill.parts if isinstance(p.sheet, MicroinverterSheet | OptimizerSheet)]
    count = sum(p.count for p in units)
    if not count:
        return "No electronics; DC of every string up to its open voltage"
    dc = {
        Architecture.MICRO: "no DC beyond each module",
        Architecture.SYSTEM: "strings at their held voltage",
        Architecture.ADD_ON: "strings at their full DC voltage",
    }[way.architecture]
    each = "piece" if count == 1 else "pieces"
    return f"{count} {each} of electronics under modules; {dc}"


def _serviced(way: Built) -> str:
    walls = sum(n for _, n in ac_makers(way.design))
    hang = "1 inverter" if walls == 1 else f"{walls} inverters"
    total = len(present_ids(way.design.option))
    match way.architecture:
        case Architecture.STRINGS:
            return f"On the wall: {hang}"
        case Architecture.MICRO:
            return f"On the roof, at height, under a module: each of {walls} units"
        case Architecture.SYSTEM:
            return f"On the wall: {hang}. On the roof, at height: each of {total} optimizers"
        case Architecture.ADD_ON:
            few = len(way.design.option.electronics.fitted)
            return f"On the wall: {hang}. On the roof, at height: {few} of {total} modules"


def _verdict(
    job: Job, ways: tuple[WayTold, ...]
) -> tuple[Architecture | None, str, tuple[str, ...]]:
    """Return the way to take and why, step by step from the cheapest that breaks nothing."""
    legal = [w for w in ways if w.legal and w.energy_kwh is not None]
    if not legal:
        return None, "Each of them breaks a Stop or an Outside limit: mend the design first.", ()
    priced = [w for w in legal if w.cents is not None]
    if not priced or any(w.saved_cents is None for w in priced):
        most = max(legal, key=lambda w: w.energy_kwh or 0.0)
        missing = "a price of its parts" if not priced else "a tariff or a use in the Brief"
        return (
            most.architecture,
            f"For this roof: {_low(most.title)}, most energy.",
            (f"What it spares is not known in money: {missing} is missing.",),
        )
    chosen = min(priced, key=lambda w: w.cents or 0)
    why = [
        f"{chosen.title} cost least: parts at {_money(chosen.cents)}, {_kwh(chosen.energy_kwh)} a year."
    ]
    for way in sorted(priced, key=lambda w: w.cents or 0):
        if way is chosen:
            continue
        more_kwh = (way.energy_kwh or 0.0) - (chosen.energy_kwh or 0.0)
        more_cents = (way.cents or 0) - (chosen.cents or 0)
        more_saved = (way.saved_cents or 0) - (chosen.saved_cents or 0)
        if more_kwh <= 0:
            why.append(f"{way.title}: {_money(more_cents)} more for {_kwh(-more_kwh)} a year less.")
            continue
        if more_saved <= 0:
            why.append(
                f"{way.title}: {_kwh(more_kwh)} a year more for {_money(more_cents)}, and bills "
                "no lower for it: not worth it."
            )
            continue
        years = more_cents / more_saved
        frac = more_kwh / (chosen.energy_kwh or 1.0)
        told = (
            f"{way.title}: {_kwh(more_kwh)} a year more (+{frac * 100:.1f} %) for "
            f"{_money(more_cents)}; bills of a year {_money(more_saved)} less by it, paid back in "
            f"{years:.1f} years"
        )
        if years <= practice(Practice.PAYS_YEARS):
            why.append(f"{told}: worth it.")
            chosen = way
        else:
            why.append(f"{told}: not worth it for the energy alone.")
    why += [f"{way.title}: {way.points[0]}." for way in ways if not way.legal]
    return chosen.architecture, f"For this roof: {_low(chosen.title)}.", tuple(why)


def _low(text: str) -> str:
    return text[0].lower() + text[1:]


def _money(cents: int | None) -> str:
    return spaced((cents or 0) / 100)


def _kwh(kwh: float | None) -> str:
    return f"{spaced(kwh or 0.0)} kWh"
