"""Strings of several planes: in series their currents differ, in parallel their peaks."""

from ridge_tally.core.job.document import strings_on
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.working import Check, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.design import Alike, Design, alike
from ridge_tally.rules.practice import Practice, practice

TYPES = Source("types of module in one string", "", SourceStatus.COMMON_PRACTICE)
PRACTICE = Source("planes in one string or on one tracker", "", SourceStatus.COMMON_PRACTICE)


def mixing_checks(design: Design) -> tuple[Check, ...]:
    """Return a verdict on every string and tracker that has modules of several planes."""
    home = {m.id: a.plane for a in design.arrays for m in a.array.modules}
    checks = []
    seen: dict[int, set[PlaneId]] = {}
    for string in design.option.strings:
        on = {p.id: p for p in (home[m] for m in string.module_ids if m in home)}
        seen.setdefault(string.tracker_number, set()).update(on)
        if len(on) > 1:
            checks.append(_in_series(string.tag, [on[i] for i in sorted(on)]))
        types = alike(design, string.module_ids)
        if len(types) > 1:
            checks.append(_types_in_series(string.tag, types))
    for number, ids in sorted(seen.items()):
        if len(ids) > 1 and len(strings_on(design.option, number)) > 1:
            checks.append(_in_parallel(number, len(ids)))
    return tuple(checks)


def _types_in_series(tag: str, types: tuple[Alike, ...]) -> Check:
    """In series the type with least current sets that of all."""
    amps = [t.sheet.imp_a for t in types]
    high, low = max(amps), min(amps)
    return check(
        rule_id="strings.types-in-series",
        title="Types in series",
        subject=f"string {tag}",
        kind=LimitKind.COSTS,
        formula="(i_high - i_low) / i_high * 100",
        givens=(
            Given("i_high", "highest Imp of its types", high, "A", "module datasheet"),
            Given("i_low", "lowest Imp of its types", low, "A", "module datasheet"),
        ),
        value=(high - low) / high * 100,
        symbol="apart",
        unit="%",
        relation="<=",
        limit=Given(
            "most",
            "currents apart at most",
            practice(Practice.TYPES_APART_PERCENT),
            "%",
            "common practice",
        ),
        source=TYPES,
        reached_at="what it costs is told at its tracker; the lowest series fuse rules",
    )


def _in_series(tag: str, planes: list[RoofPlane]) -> Check:
    """In series the plane with least light sets the current of all; diodes conduct for hours."""
    apart = max(_apart_deg(a, b) for a in planes for b in planes)
    return check(
        rule_id="strings.one-plane",
        title="Planes in series",
        subject=f"string {tag}",
        kind=LimitKind.COSTS,
        formula="apart",
        givens=(Given("apart", "facing of its planes apart", apart, "°", "survey"),),
        value=apart,
        symbol="d",
        unit="°",
        relation="<=",
        limit=Given(
            "d_max", "apart at most", practice(Practice.PLANES_APART_DEG), "°", "common practice"
        ),
        source=PRACTICE,
        reached_at="what it costs is in the year, as uneven light in strings",
    )


def _in_parallel(number: int, planes: int) -> Check:
    """In parallel voltages are nearly equal: planes cost little, and their currents add."""
    return check(
        rule_id="strings.planes-on-tracker",
        title="Planes in parallel",
        subject=f"tracker {number}",
        kind=LimitKind.NOTE,
        formula="planes",
        givens=(Given("planes", "planes on it", float(planes), "", "this design"),),
        value=float(planes),
        symbol="n",
        unit="planes",
        relation="<=",
        limit=Given("n_max", "planes without a loss", 1.0, "planes", "common practice"),
        source=PRACTICE,
        reached_at="a tracker each is better; in parallel it usually costs 0.5 to 2 %",
        graded=False,
    )


def _apart_deg(one: RoofPlane, other: RoofPlane) -> float:
    """Return how far apart two planes face, degrees of azimuth."""
    turned = abs(one.azimuth_deg - other.azimuth_deg) % 360
    return min(turned, 360 - turned)
