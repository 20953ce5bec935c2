"""The rails of a design cut from sticks and offcuts."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.build.racking.cutting import (
    CutLine,
    CutPlan,
    CutRules,
    NoCut,
    Stock,
    cut_plans,
)
from ridge_tally.core.job.brief import StockKind
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.rules.build.firm_stock import named_on_shelf, rail_name
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.design import Design

# A tenth of a millimetre: what rails are cut to inside.
TICK_M = 0.0001
MOST_ON_SHELF = 200
# What a saw takes; common practice, no source.
KERF_M = 0.003


@dataclass(frozen=True, slots=True)
class Sawing:
    """The rails of one system cut from sticks; ``lines`` are its runs, as ``(plane, run)`` places.

    Past the last run of a ground plane come its rails up the glass.
    """

    sheet: MountingSheet
    lines: tuple[tuple[int, int], ...]
    plan: CutPlan | NoCut


def sawn(design: Design, planes: tuple[RackedPlane, ...]) -> Iterator[tuple[Sawing, ...]]:
    """Yield how the rails of each system are cut, better as it is found; nothing before mounts are."""
    groups: dict[MountingSheet, list[tuple[int, int]]] = {}
    for p, plane in enumerate(planes):
        if plane.sheet is not None and plane.runs and all(r.mounts_m for r in plane.runs):
            groups.setdefault(plane.sheet, []).extend((p, r) for r in range(len(plane.runs)))
            rails = 0 if plane.ground is None else plane.ground.rails
            groups[plane.sheet] += [(p, len(plane.runs) + n) for n in range(rails)]
    found: dict[MountingSheet, Sawing] = {}
    streams = {
        sheet: _cuts(design, sheet, [_cut_line(planes[p], r) for p, r in at])
        for sheet, at in groups.items()
    }
    for sheet, stream in streams.items():
        found[sheet] = Sawing(sheet, tuple(groups[sheet]), next(stream))
    yield tuple(found.values())
    for sheet, stream in streams.items():
        for plan in stream:
            found[sheet] = Sawing(sheet, tuple(groups[sheet]), plan)
            yield tuple(found.values())


def _cut_line(plane: RackedPlane, number: int) -> CutLine:
    """Return a run as it is cut: one of the rails up the glass past the last run."""
    if number >= len(plane.runs):
        assert plane.ground is not None
        low, high = plane.ground.beams_m
        # Over two beams there is one span: nobody splices in it.
        return CutLine(_ticks(plane.ground.rail_m), (_ticks(low), _ticks(high)), whole=True)
    run = plane.runs[number]
    return CutLine(
        _ticks(run.run.length_m), tuple(_ticks(m - run.run.from_m) for m in run.mounts_m)
    )


def _cuts(design: Design, sheet: MountingSheet, lines: list[CutLine]) -> Iterator[CutPlan | NoCut]:
    return cut_plans(lines, _stock(design, sheet), _rules(sheet))


def _stock(design: Design, sheet: MountingSheet) -> list[Stock]:
    at_hand: dict[int, int] = {}
    for piece in design.option.racking.offcuts:
        length = _ticks(piece.value_m)
        at_hand[length] = at_hand.get(length, 0) + 1
    for s in sheet.stock:
        length = _ticks(s.length_m)
        there = named_on_shelf(design.job, StockKind.RAIL, rail_name(design.job, sheet, s.length_m))
        # More than any job cuts is as good as enough.
        at_hand[length] = at_hand.get(length, 0) + min(there, MOST_ON_SHELF)
    stock = [
        Stock(
            _ticks(s.length_m),
            # A stick nobody has a price for is weighed by its length.
            (s.price_cents or 0) if _priced(sheet) else _ticks(s.length_m),
            at_hand.pop(_ticks(s.length_m), 0),
        )
        for s in sheet.stock
    ]
    return stock + [Stock(length, None, count) for length, count in at_hand.items()]


def _priced(sheet: MountingSheet) -> bool:
    return all(s.price_cents is not None for s in sheet.stock)


def _rules(sheet: MountingSheet) -> CutRules:
    return CutRules(
        _ticks(KERF_M),
        _ticks(sheet.least_piece_m),
        sheet.splice_frac,
        _ticks(sheet.splice_clear_m),
        sheet.mounts_per_piece,
        in_end_spans=sheet.splice_in_end_spans,
        splice_cost=(sheet.splice_cents or 0) if _priced(sheet) else 0,
    )


# Tries of a cut with a rule left out: what it costs is told, not planned with.
TRIES_WITHOUT = 120


def costly_rules(
    design: Design, planes: tuple[RackedPlane, ...], sawing: Sawing
) -> tuple[tuple[str, int], ...]:
    """Return the splice rules that cost sticks, each with how many fewer there were without it."""
    if not isinstance(sawing.plan, CutPlan):
        return ()
    rules, stock = _rules(sawing.sheet), _stock(design, sawing.sheet)
    stick = min((s.cost for s in stock if s.cost), default=1)
    without = (
        ("how near a mount a splice must lie", replace(rules, splice_frac=0.5)),
        ("how far off a mount a splice must stay", replace(rules, clear=0)),
        ("no splice in an end span", replace(rules, in_end_spans=True)),
        ("the mounts under each piece", replace(rules, least_mounts=0)),
        ("the shortest piece", replace(rules, least_piece=1)),
    )
    lines = [_cut_line(planes[p], r) for p, r in sawing.lines]
    found = []
    for name, looser in without:
        if looser == rules:
            continue
        *_, plan = cut_plans(lines, stock, looser, TRIES_WITHOUT)
        # What is saved, in sticks of the cheapest length.
        saved = sawing.plan.cost - plan.cost if isinstance(plan, CutPlan) else 0
        if saved >= stick:
            found.append((name, saved // stick))
    return tuple(found)


def _ticks(length_m: float) -> int:
    return round(length_m / TICK_M)
