"""Ways out where mounts cannot be placed: each tried by the planner, each taken in one action."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.build.racking.mounts import NoPlan
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.job.array import present_of
from ridge_tally.core.job.document import with_option
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.modules import MoveModules
from ridge_tally.core.job.edits.build.racking import (
    RackingField,
    SetBlocking,
    SetRackingField,
    SetRunOn,
)
from ridge_tally.core.job.racking import PlaneRacking
from ridge_tally.core.mounting_sheet import MountBase
from ridge_tally.core.survey.taping import drawn_length
from ridge_tally.core.units import format_length
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_in
from ridge_tally.rules.array.checks import standing
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.design import Design

# How finely a row is moved, or a rail left longer, and how far.
STEP_M, FARTHEST_M = 0.02, 0.62
MOST_OVERHANG_M = 0.3
MOST_BLOCKS = 6


@dataclass(frozen=True, slots=True)
class Mend:
    """A way out in words, with the edit that takes it; none where somebody has to be asked first."""

    told: str
    edit: Edit | None


def mends_of(design: Design, shelf: Shelf, plane: RackedPlane) -> tuple[Mend, ...]:
    """Return what would let every rail of a plane be mounted; empty where all are."""
    if plane.no_plan is None:
        return ()
    return tuple(_mends(design, shelf, plane, plane.no_plan))


def _mends(design: Design, shelf: Shelf, plane: RackedPlane, amiss: NoPlan) -> Iterator[Mend]:
    unit = design.job.unit
    option_id, plane_id = design.option.id, plane.laid.plane.id
    sheet_m = 0.0 if plane.sheet is None else plane.sheet.overhang_m
    if _holds(design, plane, replace(plane.choice, run_on=True)):
        yield Mend(
            "Let rail ends run on to the next support where none is near enough",
            SetRunOn(option_id, plane_id, on=True),
        )
    longer = next(
        (
            o
            for k in range(1, int(MOST_OVERHANG_M / STEP_M) + 1)
            if _mounted(design, plane, overhang_m=(o := round(max(sheet_m, 0.0) + k * STEP_M, 3)))
        ),
        None,
    )
    if longer is not None:
        length = drawn_length(longer, unit)
        yield Mend(
            f"Let the rails run {length.typed} past the last module",
            SetRackingField(option_id, plane_id, RackingField.OVERHANG, length.typed),
        )
    moved = _shift_m(design, shelf, plane)
    if moved is not None:
        way = "right" if moved > 0 else "left"
        ids = tuple(m.id for m in present_of(plane.laid.array))
        yield Mend(
            f"Move all modules {format_length(abs(moved), unit)} to the {way}",
            MoveModules(option_id, ids, moved, 0.0),
        )
    if plane.sheet is not None and plane.sheet.base is MountBase.RAFTER:
        blocks = _blocks(design, plane, amiss)
        if blocks:
            where = ", ".join(format_length(x, unit) for x in blocks)
            yield Mend(
                f"Put blocking between rafters at {where} from the left edge",
                SetBlocking(option_id, plane_id, blocks, on=True),
            )
    span = _span_that_does(design, plane)
    if span is not None:
        # Nobody takes a longer span than the maker stands behind by a press.
        told = format_length(span, unit)
        yield Mend(f"A rail and mounts that may span {told}: ask the maker, then type it", None)


def _mounted(design: Design, plane: RackedPlane, **lengths_m: float) -> bool:
    """Return whether every rail of the plane can be mounted with other lengths typed."""
    unit = design.job.unit
    typed = {name.removesuffix("_m"): drawn_length(v, unit) for name, v in lengths_m.items()}
    return _holds(design, plane, replace(plane.choice, **typed))  # type: ignore[arg-type]


def _holds(design: Design, plane: RackedPlane, choice: PlaneRacking) -> bool:
    racking = design.option.racking
    others = tuple(p for p in racking.planes if p.plane_id != plane.laid.plane.id)
    option = replace(
        design.option,
        racking=replace(racking, planes=(*others, choice)),
    )
    tried = replace(design, job=with_option(design.job, option), option=option)
    return _is_mounted(tried, plane)


def _is_mounted(design: Design, plane: RackedPlane) -> bool:
    found = next((p for p in racked_planes(design) if p.laid.plane.id == plane.laid.plane.id), None)
    return found is not None and not found.asked and found.no_plan is None


def _shift_m(design: Design, shelf: Shelf, plane: RackedPlane) -> float | None:
    """Return the least move along the rails that lets all be mounted and keeps its distances."""
    if plane.up_slope:
        return None
    ids = tuple(m.id for m in present_of(plane.laid.array))
    for k in range(1, int(FARTHEST_M / STEP_M) + 1):
        for by in (k * STEP_M, -k * STEP_M):
            try:
                job = apply_edit(
                    design.job, MoveModules(design.option.id, ids, round(by, 3), 0.0), shelf
                )
            except RidgeTallyError:
                continue
            moved = design_in(job, design.option.id)
            if _is_mounted(moved, plane) and _stands_no_worse(design, moved, plane):
                return round(by, 3)
    return None


def _stands_no_worse(design: Design, moved: Design, plane: RackedPlane) -> bool:
    """Return whether a move leaves no module too close to an edge that was not before."""
    plane_id = plane.laid.plane.id
    before, after = standing(design.on(plane_id)), standing(moved.on(plane_id))
    return len(after.short_of) <= len(before.short_of)


def _blocks(design: Design, plane: RackedPlane, amiss: NoPlan) -> tuple[float, ...]:
    """Return places for blocking that let every rail be mounted, as few as hole by hole gives."""
    places: set[float] = set()
    for hole in amiss.holes:
        run = plane.runs[hole.rail].run
        count = int((hole.to_m - hole.from_m) / hole.limit_m - 1e-9)
        step = (hole.to_m - hole.from_m) / (count + 1)
        places |= {round(run.from_m + hole.from_m + step * (k + 1), 2) for k in range(count)}
    for end in amiss.ends:
        run = plane.runs[end.rail].run
        at = run.from_m + end.limit_m if end.end == "left" else run.to_m - end.limit_m
        inside = max(min(at, run.to_m - 0.05), run.from_m + 0.05)
        # A little inside what is allowed: nobody nails to the millimetre.
        places.add(round(inside - 0.02 if end.end == "left" else inside + 0.02, 2))
    spread = sorted(places)
    merged = [x for n, x in enumerate(spread) if n == 0 or x - spread[n - 1] > 0.05]
    if not merged or len(merged) > MOST_BLOCKS:
        return ()
    choice = replace(plane.choice, blocking_m=tuple(sorted({*plane.choice.blocking_m, *merged})))
    return tuple(merged) if _holds(design, plane, choice) else ()


def _span_that_does(design: Design, plane: RackedPlane) -> float | None:
    for k in range(1, 40):
        span = round(0.3 + 0.1 * k, 1)
        if _mounted(design, plane, span_m=span):
            return span
    return None
