"""How the rails are cut, as it is shown: sticks, splices, waste and what is proven."""

from dataclasses import dataclass

from ridge_tally.core.build.racking.cutting import CutPlan, NoCut
from ridge_tally.core.units import LengthUnit, format_length
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.sawing import KERF_M, TICK_M, Sawing, costly_rules
from ridge_tally.rules.design import Design
from ridge_tally.views.build.plane import PlaneRackingView


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
    """How the rails of one system are cut; ``told``: sticks, splices, waste and what is proven.

    ``costly``: rules that cost a stick, once the cut is done.
    """

    mounting: str
    sticks: tuple[StickView, ...]
    splices: int
    proven: bool
    told: str
    problem: str
    costly: tuple[str, ...] = ()


def cut_view(
    design: Design,
    planes: tuple[RackedPlane, ...],
    views: tuple[PlaneRackingView, ...],
    sawing: Sawing,
) -> CutView:
    """Return a system's cut, or why a rail of it cannot be made."""
    several, unit = len(planes) > 1, design.job.unit
    names = [
        f"{views[p].name} {_line_name(views[p], r)}" if several else _line_name(views[p], r)
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


def costly_told(design: Design, planes: tuple[RackedPlane, ...], sawing: Sawing) -> tuple[str, ...]:
    """Return what each rule that costs a stick costs, in words."""
    return tuple(
        f"Without the rule on {rule}: {_counted(fewer, 'stick')} less. A mount moved may do as much."
        for rule, fewer in costly_rules(design, planes, sawing)
    )


def _line_name(plane: PlaneRackingView, number: int) -> str:
    """Return what a line of the cut is called: past the runs come the rails up the glass, ``R7``."""
    over = number - len(plane.runs)
    return plane.runs[number].name if over < 0 else f"R{over + 1}"


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
