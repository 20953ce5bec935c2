"""The racking as it is shown: rails with their mounts, sticks, parts, and what is still asked."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import hypot
from string import ascii_uppercase

from ridge_tally.core.build.racking.cutting import CutPlan, NoCut
from ridge_tally.core.build.racking.hardware import Clamps, clamps_of, spares_of
from ridge_tally.core.build.racking.mounts import NoPlan
from ridge_tally.core.equipment import module_area_m2, origin_of
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import module_footprint_m
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.mounting_sheet import MountBase, MountingId, MountingSheet, RailLay
from ridge_tally.core.sheet_origins import Origin
from ridge_tally.core.sheets.in_feet import LB_PER_N
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.rules.build.mount_loads import PlaneLoads, plane_loads
from ridge_tally.rules.build.racking import (
    KERF_M,
    TICK_M,
    RackedPlane,
    RackedRun,
    Sawing,
    racked_planes,
    sawn,
    weight_kg,
)
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.build.mends import Mend, mends_of

SUPPORT_WORDS = {
    MountBase.RAFTER: "rafter",
    MountBase.SEAM: "seam",
    MountBase.RIB: "rib",
    MountBase.PURLIN: "purlin",
    MountBase.PILE: "pile",
}
# From here on two people lift a stick; common practice, no source.
HEAVY_KG, LONG_M = 20.0, 4.0


@dataclass(frozen=True, slots=True)
class MountView:
    """A mount: its place along the rail, its support from 1, whether held, whether shared.

    ``shared``: a neighbouring rail stands on the same support; ``forced`` where none other lay
    within the bare end.
    """

    at_m: float
    support: int
    pinned: bool
    shared: bool


@dataclass(frozen=True, slots=True)
class RunView:
    """A run of rail on the plan.

    ``name``: its line's letter, with a number where the line has several.  ``limits_m``: of each
    span between mounts; ``bare_left_m`` and
    ``bare_right_m``: how long its ends may be bare.
    """

    name: str
    line: int
    across_m: float
    from_m: float
    to_m: float
    mounts: tuple[MountView, ...]
    limits_m: tuple[float, ...]
    bare_left_m: float
    bare_right_m: float


@dataclass(frozen=True, slots=True)
class PlaneRackingView:
    """One plane.  ``asked``: what has to be known first; ``amiss``: why mounts cannot be placed.

    ``on_support``: how many mounts land on each support.  ``kg_per_m2``: modules, rails and mounts
    over the modules' area, ``None`` where a weight is not known.  ``pulled``: the mount the wind pulls
    most, in words, ``loads_asked`` what is missing for that.  ``left_m`` to ``top_m``:
    where the modules lie on the plane, ``diagonal_m`` what both diagonals of them must be.
    """

    plane_id: PlaneId
    name: str
    mounting_id: MountingId | None
    mounting: str
    fits: bool
    up_slope: bool
    support: str
    supports_m: tuple[float, ...]
    unusable_m: tuple[float, ...]
    on_support: tuple[int, ...]
    runs: tuple[RunView, ...]
    mounts: int
    shared: int
    proven: bool
    rail_m: float
    left_m: float
    right_m: float
    bottom_m: float
    top_m: float
    diagonal_m: float
    kg: float | None
    kg_per_m2: float | None
    pulled: str
    loads_asked: tuple[str, ...]
    asked: tuple[str, ...]
    amiss: tuple[str, ...]
    mends: tuple[Mend, ...]


@dataclass(frozen=True, slots=True)
class PieceView:
    """A piece on a stick: the run it is of and which piece of it, from where on the run."""

    name: str
    start_m: float
    length_m: float


@dataclass(frozen=True, slots=True)
class StickView:
    """A stick with its pieces; ``left_m`` after the last cut, ``keep`` where it may serve again."""

    length_m: float
    bought: bool
    pieces: tuple[PieceView, ...]
    left_m: float
    keep: bool


@dataclass(frozen=True, slots=True)
class CutView:
    """How the rails of one system are cut; ``told``: sticks, splices, waste and what is proven."""

    mounting: str
    sticks: tuple[StickView, ...]
    splices: int
    proven: bool
    told: str
    problem: str


@dataclass(frozen=True, slots=True)
class PartRow:
    """A line of the parts list: so many, spares beside them, the price of one and of all."""

    name: str
    count: int
    spares: int
    price_cents: int | None
    cents: int | None


@dataclass(frozen=True, slots=True)
class RackingView:
    """The racking of an option so far; ``done`` once no better cut is looked for."""

    planes: tuple[PlaneRackingView, ...]
    cuts: tuple[CutView, ...]
    parts: tuple[PartRow, ...]
    cents: int | None
    unknown_prices: tuple[str, ...]
    sample_prices: bool
    lifting: tuple[str, ...]
    done: bool


def racking_view(desk: Desk, design: Design) -> Iterator[RackingView]:
    """Yield the racking with a first cut, then with each better one."""
    planes = racked_planes(design)
    views = tuple(_plane(desk, design, p) for p in planes)
    yield _view(design, planes, views, (), done=False)
    sawings: tuple[Sawing, ...] = ()
    for sawings in sawn(design, planes):
        yield _view(design, planes, views, sawings, done=False)
    yield _view(design, planes, views, sawings, done=True)


def _view(
    design: Design,
    planes: tuple[RackedPlane, ...],
    views: tuple[PlaneRackingView, ...],
    sawings: tuple[Sawing, ...],
    *,
    done: bool,
) -> RackingView:
    parts = _parts(planes, sawings)
    priced = [p for p in parts if p.count]
    unknown = tuple(p.name for p in priced if p.cents is None)
    return RackingView(
        planes=views,
        cuts=tuple(_cut(design, planes, views, s) for s in sawings),
        parts=parts,
        cents=None if unknown or not priced else sum(p.cents or 0 for p in priced),
        unknown_prices=unknown,
        sample_prices=any(
            p.sheet is not None and origin_of(p.sheet, "stock") is Origin.SAMPLE for p in planes
        ),
        lifting=_lifting(planes, sawings),
        done=done,
    )


def _plane(desk: Desk, design: Design, plane: RackedPlane) -> PlaneRackingView:
    names = run_names(plane.runs)
    on_support = [0] * len(plane.supports_m)
    for run in plane.runs:
        for x in run.mounts_m:
            on_support[_support(plane, x)] += 1
    sheet, covering = plane.sheet, plane.laid.plane.structure.covering
    weight, box = weight_kg(plane), _box(plane)
    area = len(present_of(plane.laid.array)) * module_area_m2(plane.laid.module)
    loads = plane_loads(design.job, plane)
    return PlaneRackingView(
        plane_id=plane.laid.plane.id,
        name=plane.laid.plane.name,
        mounting_id=plane.choice.mounting_id,
        mounting="" if sheet is None else sheet.name,
        fits=sheet is None or covering is None or covering.value in sheet.coverings,
        up_slope=plane.up_slope,
        support="" if sheet is None else SUPPORT_WORDS[sheet.base],
        supports_m=plane.supports_m,
        unusable_m=plane.unusable_m,
        on_support=tuple(on_support),
        runs=tuple(_run(plane, n, names[n]) for n in range(len(plane.runs))),
        mounts=sum(len(r.mounts_m) for r in plane.runs),
        shared=plane.shared,
        proven=plane.proven,
        rail_m=sum(r.run.length_m for r in plane.runs),
        left_m=box[0],
        right_m=box[1],
        bottom_m=box[2],
        top_m=box[3],
        diagonal_m=hypot(box[1] - box[0], box[3] - box[2]),
        kg=weight,
        kg_per_m2=None if weight is None or not area else weight / area,
        pulled=_pulled(design, plane, loads, names),
        loads_asked=loads.asked,
        asked=plane.asked,
        amiss=() if plane.no_plan is None else _amiss(design, plane, plane.no_plan, names),
        mends=mends_of(design, desk.shelf, plane),
    )


def _pulled(design: Design, plane: RackedPlane, loads: PlaneLoads, names: tuple[str, ...]) -> str:
    worst, sheet = loads.worst, plane.sheet
    if worst is None or worst.uplift_n is None or sheet is None:
        return ""
    feet = design.job.unit is LengthUnit.FOOT

    def force(newtons: float) -> str:
        return f"{newtons * LB_PER_N:.0f} lb" if feet else f"{newtons:.0f} N"

    limit = "" if sheet.mount_limit_n is None else f" of {force(sheet.mount_limit_n)}"
    at = plane.runs[worst.run].mounts_m[worst.mount]
    where = f"rail {names[worst.run]}, {SUPPORT_WORDS[sheet.base]} {_support(plane, at) + 1}"
    return f"{force(max(worst.uplift_n, 0.0))}{limit}, {where}"


def _box(plane: RackedPlane) -> tuple[float, float, float, float]:
    """Return left, right, bottom and top of the modules."""
    array = plane.laid.array
    sides = [
        (m.x_m, m.y_m, *module_footprint_m(plane.laid.module, m.orientation, array.leg_tilt_deg))
        for m in present_of(array)
    ]
    return (
        min(x for x, *_ in sides),
        max(x + width for x, _, width, _ in sides),
        min(y for _, y, *_ in sides),
        max(y + height for _, y, _, height in sides),
    )


def run_names(runs: tuple[RackedRun, ...]) -> tuple[str, ...]:
    """Return what each run is called: ``A``, ``B1`` where line B has several."""
    lines = [r.run.line for r in runs]
    seen: dict[int, int] = {}
    found = []
    for line in lines:
        seen[line] = seen.get(line, 0) + 1
        letter = ascii_uppercase[line % 26] * (1 + line // 26)
        found.append(f"{letter}{seen[line]}" if lines.count(line) > 1 else letter)
    return tuple(found)


def _support(plane: RackedPlane, at_m: float) -> int:
    return min(range(len(plane.supports_m)), key=lambda i: abs(plane.supports_m[i] - at_m))


def _run(plane: RackedPlane, number: int, name: str) -> RunView:
    run = plane.runs[number]
    beside = {
        round(x, 4)
        for other in plane.runs
        if abs(other.run.line - run.run.line) == 1
        for x in other.mounts_m
    }
    pinned = {round(p.at_m, 3) for p in plane.choice.pins if p.rail == run.run.line}
    return RunView(
        name,
        run.run.line,
        run.run.across_m,
        run.run.from_m,
        run.run.to_m,
        tuple(
            MountView(x, _support(plane, x) + 1, round(x, 3) in pinned, round(x, 4) in beside)
            for x in run.mounts_m
        ),
        run.limits_m,
        *run.bare_limits_m,
    )


def _amiss(
    design: Design, plane: RackedPlane, none: NoPlan, names: tuple[str, ...]
) -> tuple[str, ...]:
    unit, word = (
        design.job.unit,
        "support" if plane.sheet is None else SUPPORT_WORDS[plane.sheet.base],
    )

    def told(length_m: float) -> str:
        return format_length(length_m, unit)

    # Alike troubles are told once, of all the rails that have them.
    whose: dict[str, list[str]] = {}
    for hole in none.holes:
        start = plane.runs[hole.rail].run.from_m
        wide = told(hole.to_m - hole.from_m)
        what = (
            f"no {word} between {told(start + hole.from_m)} and {told(start + hole.to_m)}: "
            f"{wide} over {told(hole.limit_m)}"
        )
        whose.setdefault(what, []).append(names[hole.rail])
    for end in none.ends:
        near = (
            f"there is no {word} under it"
            if end.nearest_m is None
            else f"the nearest {word} is {told(end.nearest_m)} in"
        )
        what = f"at the {end.end} end {near}, at most {told(end.limit_m)} may be bare"
        whose.setdefault(what, []).append(names[end.rail])
    for n in none.short_of:
        what = f"no set of {word}s keeps span and bare ends"
        whose.setdefault(what, []).append(names[n])
    return tuple(
        f"Rail{'s' if len(rails) > 1 else ''} {', '.join(rails)}: {what}"
        for what, rails in whose.items()
    )


def _cut(
    design: Design,
    planes: tuple[RackedPlane, ...],
    views: tuple[PlaneRackingView, ...],
    sawing: Sawing,
) -> CutView:
    several, unit = len(planes) > 1, design.job.unit
    names = [
        f"{views[p].name} {views[p].runs[r].name}" if several else views[p].runs[r].name
        for p, r in sawing.lines
    ]
    plan = sawing.plan
    if isinstance(plan, NoCut):
        reached = format_length(plan.reached * TICK_M, unit)
        why = f"Rail {names[plan.line]} cannot be made: a legal piece reaches {reached}."
        return CutView(sawing.sheet.name, (), 0, False, "", why)
    kerf, least = round(KERF_M / TICK_M), sawing.sheet.least_piece_m
    sticks = tuple(
        StickView(
            stick.length * TICK_M,
            stick.bought,
            tuple(
                PieceView(f"{names[p.line]}-{p.number + 1}", p.start * TICK_M, p.length * TICK_M)
                for p in stick.pieces
            ),
            (left := stick.left(kerf) * TICK_M),
            left >= least,
        )
        for stick in plan.sticks
    )
    return CutView(sawing.sheet.name, sticks, plan.splices, plan.proven, _told(plan, unit), "")


def _told(plan: CutPlan, unit: LengthUnit) -> str:
    whole = sum(s.length for s in plan.sticks)
    used = sum(p.length for s in plan.sticks for p in s.pieces)
    sticks = _counted(len(plan.sticks), "stick")
    splices = _counted(plan.splices, "splice")
    waste = format_length((whole - used) * TICK_M, unit)
    share = (whole - used) / whole * 100 if whole else 0.0
    if plan.proven:
        proof = "least, proven"
    elif plan.least_sticks is not None:
        proof = f"best found, at least {plan.least_sticks} needed"
    else:
        proof = f"best found, at least {plan.bound / max(plan.cost, 1) * 100:.1f} % of it needed"
    return f"{sticks}, {splices}, {waste} left over ({share:.0f} %); {proof}"


def _counted(count: int, word: str) -> str:
    return f"{count} {word}" if count == 1 else f"{count} {word}s"


def _parts(planes: tuple[RackedPlane, ...], sawings: tuple[Sawing, ...]) -> tuple[PartRow, ...]:
    """Return the parts list, system by system."""
    rows: list[PartRow] = []
    for sheet in dict.fromkeys(p.sheet for p in planes if p.sheet is not None):
        mine = [p for p in planes if p.sheet == sheet]
        rows += _sticks(sheet, sawings)
        rows += _hung(sheet, mine, sawings)
    return tuple(r for r in rows if r.count)


def _sticks(sheet: MountingSheet, sawings: tuple[Sawing, ...]) -> list[PartRow]:
    plan = next((s.plan for s in sawings if s.sheet == sheet), None)
    if not isinstance(plan, CutPlan):
        return []
    found = []
    for stock in sheet.stock:
        length = round(stock.length_m / TICK_M)
        count = sum(s.bought and s.length == length for s in plan.sticks)
        name = f"Rail {stock.length_m * 1000:.0f} mm, {sheet.name}"
        found.append(_row(name, count, 0, stock.price_cents))
    return found


def _hung(
    sheet: MountingSheet, planes: list[RackedPlane], sawings: tuple[Sawing, ...]
) -> list[PartRow]:
    runs = [r for p in planes for r in p.runs]
    mounts = sum(len(r.mounts_m) for r in runs)
    shared = sheet.rails is RailLay.SHARED
    clamps = clamps_of(
        (_by_row(p, r, shared=shared) for p in planes for r in p.runs), shared=shared
    )
    plan = next((s.plan for s in sawings if s.sheet == sheet), None)
    splices = plan.splices if isinstance(plan, CutPlan) else 0
    if sheet.rails is RailLay.SHORT:
        # A piece under two modules has their mid clamp, one under a module alone an end clamp.
        pairs = sum(len(r.run.held) > 1 for r in runs)
        clamps = Clamps(pairs, len(runs) - pairs)
    caps = 0 if sheet.hidden_clamps else 2 * len(runs)
    lags = mounts * sheet.lags
    return [
        _row(f"Mount, {sheet.name}", mounts, spares_of(mounts), sheet.mount_cents),
        _row("Lag screw, with the mounts", lags, spares_of(lags), 0),
        _row("Splice", splices, spares_of(splices), sheet.splice_cents),
        _row("Mid clamp", clamps.mid, spares_of(clamps.mid), sheet.mid_clamp_cents),
        _row("End clamp", clamps.end, spares_of(clamps.end), sheet.end_clamp_cents),
        _row("End cap", caps, spares_of(caps), sheet.cap_cents),
    ]


def _by_row(plane: RackedPlane, run: RackedRun, *, shared: bool) -> tuple[int, ...]:
    """Return how many modules of each row a run holds."""
    if not shared:
        return (len(run.run.held),)
    bottoms: dict[float, int] = {}
    held = set(run.run.held)
    for m in present_of(plane.laid.array):
        if m.id in held:
            bottoms[round(m.y_m, 2)] = bottoms.get(round(m.y_m, 2), 0) + 1
    return tuple(bottoms.values())


def _row(name: str, count: int, spares: int, price_cents: int | None) -> PartRow:
    cents = None if price_cents is None else price_cents * (count + spares)
    return PartRow(name, count, spares, price_cents, cents)


def _lifting(planes: tuple[RackedPlane, ...], sawings: tuple[Sawing, ...]) -> tuple[str, ...]:
    """Return what two people carry."""
    found = []
    if any(p.laid.module.mass_kg >= HEAVY_KG for p in planes):
        heaviest = max(p.laid.module.mass_kg for p in planes)
        found.append(f"Modules of {heaviest:.0f} kg: two people each")
    lengths = [
        s.length * TICK_M for w in sawings if isinstance(w.plan, CutPlan) for s in w.plan.sticks
    ]
    if lengths and max(lengths) >= LONG_M:
        found.append("Rails longer than 4 m: two people each, clear of any line overhead")
    return tuple(found)
