"""What to bring: rails, mounts and clamps counted, with spares and prices; what two people carry."""

from dataclasses import dataclass

from ridge_tally.core.build.racking.cutting import CutPlan
from ridge_tally.core.build.racking.hardware import Clamps, clamps_of, spares_of
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.brief import StockKind
from ridge_tally.core.job.document import Job
from ridge_tally.core.mounting_sheet import MountingSheet, RailLay
from ridge_tally.rules.build.firm_stock import named_on_shelf, rail_name
from ridge_tally.rules.build.racked import RackedPlane, RackedRun
from ridge_tally.rules.build.sawing import TICK_M, Sawing

# From here on two people lift a stick; common practice, no source.
HEAVY_KG, LONG_M = 20.0, 4.0


@dataclass(frozen=True, slots=True)
class PartRow:
    """A line of the parts list: so many, spares beside them, what the firm's shelf gives of both.

    ``buy``: the rest, in ``boxes`` of ``box`` where it comes in boxes, 0 else.  ``cents``: for whole boxes.
    """

    name: str
    count: int
    spares: int
    on_shelf: int
    buy: int
    boxes: int
    box: int
    price_cents: int | None
    cents: int | None


def part_rows(
    job: Job, planes: tuple[RackedPlane, ...], sawings: tuple[Sawing, ...]
) -> tuple[PartRow, ...]:
    """Return the parts list, system by system."""
    rows: list[PartRow] = []
    for sheet in dict.fromkeys(p.sheet for p in planes if p.sheet is not None):
        mine = [p for p in planes if p.sheet == sheet]
        rows += _sticks(job, sheet, sawings)
        rows += _hung(job, sheet, mine, sawings)
    return tuple(r for r in rows if r.count)


def _sticks(job: Job, sheet: MountingSheet, sawings: tuple[Sawing, ...]) -> list[PartRow]:
    plan = next((s.plan for s in sawings if s.sheet == sheet), None)
    if not isinstance(plan, CutPlan):
        return []
    found = []
    for stock in sheet.stock:
        length = round(stock.length_m / TICK_M)
        mine = [s for s in plan.sticks if s.length == length]
        buy = sum(s.bought for s in mine)
        price = stock.price_cents
        cents = None if price is None else price * buy
        name = rail_name(job, sheet, stock.length_m)
        found.append(PartRow(name, len(mine), 0, len(mine) - buy, buy, 0, 0, price, cents))
    return found


def _hung(
    job: Job, sheet: MountingSheet, planes: list[RackedPlane], sawings: tuple[Sawing, ...]
) -> list[PartRow]:
    runs = [r for p in planes for r in p.runs]
    mounts = sum(p.mounts for p in planes)
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
    frames = [p.ground for p in planes if p.ground is not None]
    if frames:
        # Over the beams each column's two rails hold it by its ends, tier on tier.
        held = [n for f in frames for n in f.columns if n]
        clamps = Clamps(sum(2 * (n - 1) for n in held), 4 * len(held))
    ends = len(runs) + sum(f.rails for f in frames)
    caps = 0 if sheet.hidden_clamps else 2 * ends
    lags, what = mounts * sheet.lags, "Pile with its head" if frames else "Mount"
    box = sheet.box_of or 0
    return [
        # A pile is driven where it stands: none is taken along to spare.
        _row(job, f"{what}, {sheet.name}", mounts, sheet.mount_cents, spare=not frames),
        _row(job, "Lag screw, with the mounts", lags, 0),
        _row(job, "Splice", splices, sheet.splice_cents),
        _row(job, "Mid clamp", clamps.mid, sheet.mid_clamp_cents, box),
        _row(job, "End clamp", clamps.end, sheet.end_clamp_cents, box),
        _row(job, "End cap", caps, sheet.cap_cents, box),
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


def _row(
    job: Job, name: str, count: int, price_cents: int | None, box: int = 0, *, spare: bool = True
) -> PartRow:
    spares = spares_of(count) if spare else 0
    needed = count + spares
    there = min(named_on_shelf(job, StockKind.PART, name), needed)
    buy = needed - there
    boxes = -(-buy // box) if box else 0
    cents = None if price_cents is None else price_cents * (boxes * box if box else buy)
    return PartRow(name, count, spares, there, buy, boxes, box, price_cents, cents)


def lifting_of(planes: tuple[RackedPlane, ...], sawings: tuple[Sawing, ...]) -> tuple[str, ...]:
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
