"""A plane's racking as it is shown: rails with their mounts, and what is still asked."""

from dataclasses import dataclass
from math import hypot
from string import ascii_uppercase

from ridge_tally.core.array.stances import Stand, stands
from ridge_tally.core.build.racking.mounts import NoPlan
from ridge_tally.core.job.array import table_of
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.mounting_sheet import MountBase, MountingId, RailLay
from ridge_tally.core.sheets.in_feet import LB_PER_N
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.rules.build.beyond import left_to_an_engineer
from ridge_tally.rules.build.checks import made_for
from ridge_tally.rules.build.falls import falls_of, told_of
from ridge_tally.rules.build.forces import pull_limit
from ridge_tally.rules.build.mount_loads import PlaneLoads, plane_loads
from ridge_tally.rules.build.racked import (
    RackedPlane,
    RackedRun,
    held_of,
    held_on,
    rail_length_m,
    trims_m,
    weight_kg,
)
from ridge_tally.rules.build.racking import EDGE_ZONE_M
from ridge_tally.rules.build.trench import Dug, dug_of
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


# What hurts or leaks where these are put in; common practice, no source.
CAUTIONS: dict[MountBase, tuple[str, ...]] = {
    MountBase.RAFTER: (
        "Every hole is flashed and sealed before the next; a missed one is sealed at once.",
    ),
    MountBase.SEAM: (
        "The clamp must match the seam’s profile: try its torque on a fixed sample first.",
        "No hole through a seam; shavings off the roof the same day.",
    ),
    MountBase.RIB: (
        "The bracket must match the rib’s profile; butyl under it, shavings off the roof.",
    ),
    MountBase.PURLIN: ("Clamps grip the flange whole: look at each from below.",),
    MountBase.PILE: (
        "Ask for buried lines before driving. Depth, pull-out and frost are an engineer’s.",
        "Level the front beam first, then the back one, before rails and modules.",
    ),
}
ON_TILE = ("Hooks stand beside battens and touch no tile; take 5 to 10 % spare tiles.",)


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
    ``bare_right_m``: how long its ends may be bare.  ``trim_left_m`` and ``trim_right_m``: how much is
    cut off last, once the modules lie: what was run on to a support past them.  ``offset_m``: from
    the module's nearest edge, ``None`` where a rail lies by itself; ``upper``: from its upper one.
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
    trim_left_m: float
    trim_right_m: float
    offset_m: float | None
    upper: bool


@dataclass(frozen=True, slots=True)
class PileView:
    """A pile of a table: how far it stands out of the ground, and how long it is where that is known."""

    table: int
    x_m: float
    y_m: float
    back: bool
    reveal_m: float
    length_m: float | None


@dataclass(frozen=True, slots=True)
class GroundView:
    """What stands in the ground.  ``rail_m`` long, two under each of ``columns``.

    The figures of a section: ``tilt_deg``, the glass ``slant_m`` long, ``overhang_m`` of it before
    the front pile, ``apart_m`` to the back one.  ``embedment_m``: an engineer's, where it is typed.
    ``stands``: legs at each tilt of the year where it is changed.  ``falls``: what the ground's fall
    along each table asks, in words.
    """

    piles: tuple[PileView, ...]
    columns: int
    rail_m: float
    tilt_deg: float
    slant_m: float
    overhang_m: float
    apart_m: float
    embedment_m: float | None
    stands: tuple[Stand, ...]
    falls: tuple[str, ...]
    dug: Dug | None


@dataclass(frozen=True, slots=True)
class PlaneRackingView:
    """One plane.  ``asked``: what has to be known first; ``amiss``: why mounts cannot be placed.

    ``on_support``: how many mounts land on each support.  ``forced``: of those shared, at an end where
    no other support is near enough.  ``edge_m``: how wide the roof's edges are with spans of their own,
    0 where they have none.  ``kg_per_m2``: modules, rails and mounts
    over the modules' area, ``None`` where a weight is not known.  ``pulled``: the mount the wind pulls
    most, in words, ``loads_asked`` what is missing for that.  ``left_m`` to ``top_m``:
    where the modules lie on the plane, ``diagonal_m`` what both diagonals of them must be.
    ``engineer``: what nothing here judges.
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
    forced: int
    proven: bool
    edge_m: float
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
    ground: GroundView | None
    cautions: tuple[str, ...]
    asked: tuple[str, ...]
    amiss: tuple[str, ...]
    mends: tuple[Mend, ...]
    engineer: tuple[str, ...]


def plane_view(desk: Desk, design: Design, plane: RackedPlane) -> PlaneRackingView:
    """Return a plane's racking with what is asked, what is amiss and what mends it."""
    names = run_names(plane.runs)
    on_support = [0] * len(plane.supports_m)
    for run in plane.runs:
        for x in run.mounts_m:
            on_support[_support(plane, x)] += 1
    sheet = plane.sheet
    weight, box = weight_kg(plane), _box(plane)
    loads = plane_loads(design.job, plane)
    return PlaneRackingView(
        plane_id=plane.laid.plane.id,
        name=plane.laid.plane.name,
        mounting_id=plane.choice.mounting_id,
        mounting="" if sheet is None else sheet.name,
        fits=made_for(plane) is not False,
        up_slope=plane.up_slope,
        support="" if sheet is None else SUPPORT_WORDS[sheet.base],
        supports_m=plane.supports_m,
        unusable_m=plane.unusable_m,
        on_support=tuple(on_support),
        runs=tuple(_run(plane, n, names[n]) for n in range(len(plane.runs))),
        mounts=plane.mounts,
        shared=plane.shared,
        forced=_forced(plane),
        proven=plane.proven,
        edge_m=_edge_m(plane),
        rail_m=rail_length_m(plane),
        left_m=box[0],
        right_m=box[1],
        bottom_m=box[2],
        top_m=box[3],
        diagonal_m=hypot(box[1] - box[0], box[3] - box[2]),
        kg=weight,
        kg_per_m2=None if weight is None else weight / plane.modules_area_m2,
        pulled=_pulled(design, plane, loads, names),
        loads_asked=loads.asked,
        ground=_ground(design.job, plane),
        cautions=()
        if sheet is None
        else CAUTIONS[sheet.base] + ON_TILE * ("tile" in sheet.coverings),
        asked=plane.asked,
        amiss=() if plane.no_plan is None else _amiss(design, plane, plane.no_plan, names),
        mends=mends_of(design, desk.shelf, plane),
        engineer=left_to_an_engineer(plane),
    )


def _edge_m(plane: RackedPlane) -> float:
    """Return the width of the wind zone at the edges, where spans there are shorter."""
    limits = {limit for run in plane.runs for limit in run.limits_m}
    return EDGE_ZONE_M if len(limits) > 1 and plane.ground is None else 0.0


def _forced(plane: RackedPlane) -> int:
    """Return how many supports two rails share at an end because no other lies in the bare end."""

    def ends(run: RackedRun) -> set[float]:
        found = set()
        left, right = run.bare_limits_m
        near_left = [s for s in plane.supports_m if -1e-6 <= s - run.run.from_m <= left + 1e-6]
        near_right = [s for s in plane.supports_m if -1e-6 <= run.run.to_m - s <= right + 1e-6]
        for near in (near_left, near_right):
            if len(near) == 1:
                found.add(round(near[0], 4))
        return found

    return sum(
        len(ends(a) & ends(b))
        for n, a in enumerate(plane.runs)
        for b in plane.runs[n + 1 :]
        if b.run.line - a.run.line == 1 and a.mounts_m and b.mounts_m
    )


# Nearer than this to the middle a rail is the third one, between the two.
SAME_M = 0.001
# Cut off above the head once a pile is driven; common practice, no source.
CUT_OFF_M = 0.15


def _ground(job: Job, plane: RackedPlane) -> GroundView | None:
    frame, embedment = plane.ground, plane.choice.embedment
    if frame is None:
        return None
    table = table_of(plane.laid.array)
    deep = None if embedment is None else embedment.value_m
    low, high = frame.beams_m
    return GroundView(
        piles=tuple(
            PileView(
                p.table,
                p.x_m,
                p.y_m,
                p.back,
                p.height_m,
                None if deep is None else p.height_m + deep + CUT_OFF_M,
            )
            for p in frame.posts
        ),
        columns=len(frame.columns),
        rail_m=frame.rail_m,
        tilt_deg=frame.tilt_deg,
        slant_m=frame.slant_m,
        overhang_m=frame.overhang_m,
        apart_m=high - low,
        embedment_m=deep,
        stands=stands(frame.slant_m, table, table.seasons) if table.seasons else (),
        falls=tuple(told_of(fall, job.unit) for fall in falls_of(plane)),
        dug=dug_of(job, plane),
    )


def _pulled(design: Design, plane: RackedPlane, loads: PlaneLoads, names: tuple[str, ...]) -> str:
    worst, sheet = loads.worst, plane.sheet
    if worst is None or worst.uplift_n is None or sheet is None:
        return ""
    feet = design.job.unit is LengthUnit.FOOT

    def force(newtons: float) -> str:
        return f"{newtons * LB_PER_N:.0f} lb" if feet else f"{newtons:.0f} N"

    most = pull_limit(design.job, sheet).value
    limit = "" if most is None else f" of {force(most)}"
    at = plane.runs[worst.run].mounts_m[worst.mount]
    where = f"rail {names[worst.run]}, {SUPPORT_WORDS[sheet.base]} {_support(plane, at) + 1}"
    return f"{force(max(worst.uplift_n, 0.0))}{limit}, {where}"


def _box(plane: RackedPlane) -> tuple[float, float, float, float]:
    """Return left, right, bottom and top of the modules."""
    held = held_of(plane.laid, up_slope=False)
    return (
        min(h.from_m for h in held),
        max(h.to_m for h in held),
        min(h.low_m for h in held),
        max(h.high_m for h in held),
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
        *trims_m(plane, number),
        *_offset(plane, run),
    )


def _offset(plane: RackedPlane, run: RackedRun) -> tuple[float | None, bool]:
    """Return how far a rail lies from its modules' nearest edge, and whether that is the upper one."""
    sheet, held = plane.sheet, held_on(plane, run.run)
    if sheet is None or sheet.rails is RailLay.SHARED or plane.ground is not None or not held:
        return None, False
    low = run.run.across_m - min(h.low_m for h in held)
    high = max(h.high_m for h in held) - run.run.across_m
    middle = abs(low - high) < SAME_M
    return (None if middle else min(low, high)), high < low


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
