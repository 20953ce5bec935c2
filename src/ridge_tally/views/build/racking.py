"""The racking of an option as it is shown: planes, sticks, parts, what two carry, the hours."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridge_tally.core.equipment import origin_of
from ridge_tally.core.sheet_origins import Origin
from ridge_tally.rules.build.hours import HoursRow, crew_hours
from ridge_tally.rules.build.parts import PartRow, lifting_of, part_rows
from ridge_tally.rules.build.racked import RackedPlane
from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.build.sawing import Sawing
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.studies.build.cuts import cuts_so_far
from ridge_tally.views.build.cuts import CutView, costly_told, cut_view
from ridge_tally.views.build.plane import PlaneRackingView, plane_view


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
    hours: tuple[HoursRow, ...]
    done: bool


def racking_view(desk: Desk, design: Design) -> Iterator[RackingView]:
    """Yield the racking with a first cut, then with each better one."""
    planes = racked_planes(design)
    views = tuple(plane_view(desk, design, p) for p in planes)
    yield _view(design, planes, views, (), done=False)
    sawings: tuple[Sawing, ...] = ()
    for sawings in cuts_so_far(desk, design):
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
    parts = part_rows(design.job, planes, sawings)
    unknown = tuple(p.name for p in parts if p.cents is None)
    return RackingView(
        planes=views,
        cuts=tuple(
            replace(
                cut_view(design, planes, views, s),
                costly=costly_told(design, planes, s) if done else (),
            )
            for s in sawings
        ),
        parts=parts,
        # Before the sticks are cut there is no sum.
        cents=None if unknown or not sawings else sum(p.cents or 0 for p in parts),
        unknown_prices=unknown,
        sample_prices=any(
            p.sheet is not None and origin_of(p.sheet, "stock") is Origin.SAMPLE for p in planes
        ),
        lifting=lifting_of(planes, sawings),
        hours=crew_hours(design, planes),
        done=done,
    )
