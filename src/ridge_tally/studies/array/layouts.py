"""The layouts that could be applied to a plane: of each kind as full as it goes, and proven."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import chain

from ridge_tally.core.array.aligned import grid_scores
from ridge_tally.core.array.blockers import LayoutRegion, ground_of, path_edges
from ridge_tally.core.array.fill import (
    ROW_KINDS,
    Kind,
    fill_row_kinds,
    prove_aligned,
)
from ridge_tally.core.array.free import fill_freely
from ridge_tally.core.array.lay import Fill, Lay, Place, after_steps
from ridge_tally.core.array.posts import posts_along
from ridge_tally.core.array.search import prepared
from ridge_tally.core.array.shape import modules_a_row, rail_m, rows_in, runs_of
from ridge_tally.core.array.tables import columns_of, tables_of
from ridge_tally.core.job.array import RowRule, Ways, in_lines, present_of
from ridge_tally.core.job.edits.array.fills import LaidAt
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sun.shading import glass_of
from ridge_tally.core.survey.outline import edge_names, require_closed
from ridge_tally.editing.array.filled import best_rows, nothing_fits, with_places
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.first_yield import monthly_guess

# How long a search of a layout without rows may go on while somebody waits.
# Cuts looked at; some seconds on a roof of many notches, less on most.
SQUEEZE_STEPS = 2000
SAME_PLACE_M = 0.002


@dataclass(frozen=True, slots=True)
class Alternative:
    """A layout that could be applied, with what ranks it.

    ``at_most`` is a count no layout of its kind can pass; ``energy_kwh`` a first estimate of a
    year without shade; ``per_row`` how many modules each row has where all have as many; ``rail_m`` two rails under each run, ``posts`` of ground tables.  ``path_name`` is the edge the
    access path runs along, empty where the plane asks for none.
    """

    key: str
    ways: Ways
    rule: RowRule
    path_name: str
    count: int
    at_most: int
    p_dc_w: float
    energy_kwh: float
    rows: int
    per_row: int | None
    rail_m: float
    posts: int | None
    in_use: bool
    places: tuple[LaidAt, ...]


@dataclass(frozen=True, slots=True)
class Proof:
    """How far the proofs of a plane's layouts have come: judged ranges, and what is known now."""

    proven: int
    of: int
    judged: int
    alternatives: tuple[Alternative, ...]


@dataclass(frozen=True, slots=True)
class LayoutRoof:
    """A plane as its layouts see it, with what turns a layout into an alternative."""

    plane: RoofPlane
    lay: Lay
    p_max_w: float
    kwh_per_kw: float
    present: tuple[Place, ...]
    bare: LaidArray

    def ground(self, path_edge: int | None) -> LayoutRegion:
        return ground_of(self.plane, path_edge)

    def path_edges(self) -> tuple[int | None, ...]:
        return path_edges(self.plane) or (None,)

    def _posts(self, fill: Fill) -> int | None:
        table = self.bare.array.table
        if self.plane.ground is None or table is None:
            return None
        laid = with_places(self.bare, fill.places)
        widths = [t.right_m - t.left_m for t in tables_of(self.plane, laid, self.lay)]
        return sum(2 * len(posts_along(width, table.along.value_m)) for width in widths)

    def alternative(self, kind: Kind, path_edge: int | None, fill: Fill) -> Alternative:
        runs = runs_of(self.lay, fill.places)
        count = fill.count * self.lay.tiers
        p_dc_w = count * self.p_max_w
        path = "" if path_edge is None else edge_names(self.plane.outline)[path_edge]
        return Alternative(
            key=f"{kind.ways} {kind.rule} {'' if path_edge is None else path_edge}".strip(),
            ways=kind.ways,
            rule=kind.rule,
            path_name=path,
            count=count,
            at_most=fill.at_most * self.lay.tiers,
            p_dc_w=p_dc_w,
            energy_kwh=p_dc_w / 1000 * self.kwh_per_kw,
            rows=rows_in(runs),
            per_row=modules_a_row(runs),
            rail_m=rail_m(runs),
            posts=self._posts(fill),
            in_use=same_places(fill.places, self.present),
            places=tuple(
                LaidAt(round(p.x_m, 5), round(p.y_m, 5), p.orientation) for p in fill.places
            ),
        )


def alternatives(desk: Desk, design: Design, plane_id: PlaneId) -> tuple[Alternative, ...]:
    """Return the layouts of a plane with rows, as first found, best first.

    Raises
    ------
    MissingDatum, BadGeometry
        If the plane does not close yet, or takes no module whatever way it lies.
    """
    roof = roof_on(desk, design, plane_id)
    found = [
        roof.alternative(kind, edge, fill)
        for edge in roof.path_edges()
        for kind, fill in _row_kinds(desk, roof, edge).items()
    ]
    if not any(a.count for a in found):
        remedy = "Choose a smaller module, or narrow a strip."
        raise nothing_fits(roof.bare, remedy)
    return ranked(found)


def ranked(found: list[Alternative]) -> tuple[Alternative, ...]:
    """Return the layouts by count, power, yearly yield, fewer rows and less rail.

    One that is the same as another, or mixes nothing and holds no more, is left out.
    """
    # Of two that are the same, the one with the stricter rule says more.
    strict = sorted(found, key=lambda a: (a.rule is not RowRule.ALIGNED, len(a.ways)))
    kept: list[Alternative] = []
    for one in strict:
        mixes = len({p.orientation for p in one.places}) > 1
        needless = one.ways is Ways.MIXED and not mixes
        if one.count and not needless and not any(_alike(one, other) for other in kept):
            kept.append(one)
    return tuple(sorted(kept, key=lambda a: (-a.count, -a.p_dc_w, -a.energy_kwh, a.rows, a.rail_m)))


def _alike(one: Alternative, other: Alternative) -> bool:
    """Whether two layouts are the same to whoever looks at them: same ways, count and rows."""
    same = same_places(as_places(one.places), as_places(other.places))
    loose = one.rule is not RowRule.ALIGNED and other.rule is RowRule.ALIGNED
    same_kind = one.ways is other.ways and one.path_name == other.path_name
    return same or (loose and same_kind and one.count == other.count)


def prove(desk: Desk, design: Design, plane_id: PlaneId) -> Iterator[Proof]:
    """Yield how the proofs of the layouts on shared grids go on, to the last.

    A better grid that is found on the way takes its layout's place.
    """
    roof = roof_on(desk, design, plane_id)
    found = {
        (kind, edge): fill
        for edge in roof.path_edges()
        for kind, fill in _row_kinds(desk, roof, edge).items()
    }

    def now(judged: int) -> Proof:
        told = [roof.alternative(kind, edge, fill) for (kind, edge), fill in found.items()]
        proven = sum(fill.proven for fill in found.values())
        return Proof(proven, len(found), judged, ranked(told))

    judged = 0
    yield now(judged)
    for edge in roof.path_edges():
        todo = [k for k in ROW_KINDS if k.rule is RowRule.ALIGNED and not found[k, edge].proven]
        if not todo:
            continue
        ready = prepared(roof.ground(edge), roof.lay)
        scores = grid_scores(ready)
        for kind in todo:
            loose = found[Kind(kind.ways, RowRule.INDEPENDENT), edge]
            for fill in prove_aligned(ready, kind.ways, loose, scores):
                judged += 1
                if fill.count >= found[kind, edge].count:
                    found[kind, edge] = fill
                yield now(judged)


def squeezed(desk: Desk, design: Design, plane_id: PlaneId) -> Alternative:
    """Return the fullest layout found with no rows asked for, and its ceiling."""
    roof = roof_on(desk, design, plane_id)

    def compute() -> tuple[int | None, Fill]:
        fills = [
            (edge, fill_freely(roof.ground(edge), roof.lay, Ways.MIXED, after_steps(SQUEEZE_STEPS)))
            for edge in roof.path_edges()
        ]
        return max(fills, key=lambda f: f[1].count)

    edge, fill = desk.fills.get(("free", *_content(roof)), compute)
    return roof.alternative(Kind(Ways.MIXED, RowRule.FREE), edge, fill)


def most_modules(desk: Desk, design: Design, plane: RoofPlane) -> int:
    """Return how many modules rows of either way hold on a closed plane."""
    roof = roof_on(desk, design, plane.id)
    return desk.fills.get(
        ("most", *_content(roof)),
        lambda: best_rows(roof.bare, Ways.MIXED).count * roof.lay.tiers,
    )


def roof_on(desk: Desk, design: Design, plane_id: PlaneId) -> LayoutRoof:
    laid = design.on(plane_id)
    plane, array = laid.plane, laid.array
    require_closed(plane)
    lay = lay_of(laid)
    return LayoutRoof(
        plane,
        lay,
        laid.module.p_max_w,
        sum(monthly_guess(desk, design.job, glass_of(plane, lay.leg_tilt_deg))),
        tuple(place for place, _ in columns_of(lay, present_of(array))),
        replace(laid, array=replace(array, modules=())),
    )


def _row_kinds(desk: Desk, roof: LayoutRoof, edge: int | None) -> dict[Kind, Fill]:
    key = ("rows", edge, *_content(roof))
    return desk.fills.get(key, lambda: fill_row_kinds(roof.ground(edge), roof.lay))


def _content(roof: LayoutRoof) -> tuple[object, ...]:
    """Return what a fill depends on."""
    plane = roof.plane
    return (
        *(plane.outline, plane.lengths, plane.slope_deg, plane.setbacks, plane.access),
        *(plane.obstructions, plane.keep_outs, plane.existing, roof.lay),
    )


def as_places(laid: tuple[LaidAt, ...]) -> tuple[Place, ...]:
    return tuple(Place(p.x_m, p.y_m, p.orientation) for p in laid)


def same_places(one: tuple[Place, ...], other: tuple[Place, ...]) -> bool:
    if len(one) != len(other):
        return False

    def ordered(places: tuple[Place, ...]) -> Iterator[Place]:
        return chain(*in_lines(places, lambda p: p.y_m, lambda p: p.x_m, SAME_PLACE_M))

    pairs = zip(ordered(one), ordered(other), strict=True)
    return all(
        a.orientation is b.orientation
        and abs(a.x_m - b.x_m) < SAME_PLACE_M
        and abs(a.y_m - b.y_m) < SAME_PLACE_M
        for a, b in pairs
    )
