"""Exactly so many modules: where the light is best, kept together, in one row, in one rectangle.

Two ways are tried and the best is told first, whatever it came from: of each layout that is
full, the places worth keeping; and rows that may stand anywhere, by a map of the light.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum

import numpy as np

from ridge_tally.core.array.blockers import FloatArray
from ridge_tally.core.array.choose import choose
from ridge_tally.core.array.fill import Kind
from ridge_tally.core.array.lay import Fill, Place
from ridge_tally.core.array.moving import longest_row, moving_rows, one_row
from ridge_tally.core.array.rectangles import Shape, rectangle, shapes_of
from ridge_tally.core.array.search import Prepared, prepared
from ridge_tally.core.array.worth import WorthMap, corners
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import Orientation, RowRule, Ways
from ridge_tally.core.job.document import with_array
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.survey.outline import edge_names
from ridge_tally.editing.array.filled import with_places
from ridge_tally.editing.design import design_for
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import light_at
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.weather import weather_key
from ridge_tally.studies.array.layouts import (
    Alternative,
    LayoutRoof,
    alternatives,
    as_places,
    roof_on,
    squeezed,
)

# The share of one module's year one would give up for each corner less in the array's outline.
# Judgement, no source.
GIVE_UP_FRAC = 0.02
# Nodes of the map of light along the longer side of a plane; what is found is valued exactly.
MAP_NODES = 14
# Years nearer than this share are as good as each other: rows and rail decide.
AS_GOOD_FRAC = 0.001
WANTED = "Modules wanted"


class Arrangement(StrEnum):
    """How so many modules are to lie."""

    LIGHT = "light"
    TOGETHER = "together"
    ROW = "row"
    RECTANGLE = "rectangle"


@dataclass(frozen=True, slots=True)
class _Asked:
    """What is asked of a plane: so many columns of modules, and what worth each place has.

    ``ready``: the plane ready for filling, for each edge its access path may run along, by name.
    """

    desk: Desk
    design: Design
    roof: LayoutRoof
    columns: int
    modules: int
    ready: tuple[tuple[str, Prepared], ...]

    @property
    def module_kwh(self) -> float:
        return self.roof.lay.tiers * self.roof.p_max_w / 1000 * self.roof.kwh_per_kw

    def worth(self, places: tuple[Place, ...], *, standing: bool = True) -> FloatArray:
        """Return (n,): what the column at each place would make in a year, its shade taken off.

        Without ``standing`` each place is judged by itself, as if no other were taken.
        """
        design, roof = self.design, self.roof
        others = tuple(
            a for a in design.option.arrays if a.leg_tilt_deg > 0 and a.plane_id != roof.plane.id
        )
        site = (design.job.survey, weather_key(design.job), roof.lay, roof.bare, others)
        key = ("losses", *site, places, standing)
        lost = self.desk.shades.get(key, lambda: self._lost_frac(places, standing=standing))
        return np.asarray(self.module_kwh * (1 - lost))

    def _lost_frac(self, places: tuple[Place, ...], *, standing: bool) -> FloatArray:
        bare = self.roof.bare
        array = with_places(bare, places) if standing else bare.array
        laid = with_array(self.design.option, array)
        light = light_at(self.desk, design_for(self.design.job, laid), bare, places)
        lost = np.array([x.lost.sum() for x in light.lights]).reshape(-1, self.roof.lay.tiers)
        return np.asarray(lost.mean(axis=1) / light.on_free.free_wh_per_m2.sum())

    def found(self, rule: RowRule, path_name: str, places: tuple[Place, ...]) -> "_Found":
        ways = {p.orientation: Ways(p.orientation.value) for p in places}
        kind = Kind(next(iter(ways.values())) if len(ways) == 1 else Ways.MIXED, rule)
        told = self.roof.alternative(kind, None, Fill(places, len(places)))
        kwh = float(self.worth(places).sum())
        first = places[0]
        key = f"{kind.ways} {rule} {told.rows} {first.x_m:.3f} {first.y_m:.3f} {path_name}".strip()
        alternative = replace(told, path_name=path_name, key=key, energy_kwh=kwh)
        return _Found(alternative, corners(self.roof.lay, places))


@dataclass(frozen=True, slots=True)
class _Found:
    """A layout of so many, and how many corners its outline has."""

    alternative: Alternative
    corners: int


def exactly(
    desk: Desk, design: Design, plane_id: PlaneId, modules: int, arrangement: Arrangement
) -> tuple[Alternative, ...]:
    """Return the layouts of exactly so many modules, best first.

    Raises
    ------
    OutOfRange
        If the plane does not hold so many that way, or tables of several module rows cannot be
        so many; the message names numbers that can.
    """
    roof = roof_on(desk, design, plane_id)
    tiers = roof.lay.tiers
    if modules % tiers:
        below, above = modules // tiers * tiers, (modules // tiers + 1) * tiers
        raise OutOfRange(
            f"Modules on tables of {tiers} module rows", modules, f"{below or above} or {above}"
        )
    asked = _Asked(desk, design, roof, modules // tiers, modules, tuple(_ready(roof)))
    if arrangement is Arrangement.ROW:
        return _ranked(_in_one_row(asked), 0.0, AS_GOOD_FRAC)
    if arrangement is Arrangement.RECTANGLE:
        return _ranked(_in_one_rectangle(asked), 0.0, AS_GOOD_FRAC)
    price = 0.0 if arrangement is Arrangement.LIGHT else GIVE_UP_FRAC * asked.module_kwh
    fixed, refused = _of_full_layouts(asked, price)
    moved = list(_in_moving_rows(asked, price, fixed))
    if arrangement is Arrangement.TOGETHER:
        moved += _rectangles(asked)
    if not fixed and not moved:
        assert refused is not None
        raise refused
    return _ranked(fixed + moved, price, 0.0 if arrangement is Arrangement.LIGHT else AS_GOOD_FRAC)


def _ranked(found: list[_Found], price: float, as_good_frac: float) -> tuple[Alternative, ...]:
    """Return the layouts by their year less what corners cost, of those as good by rows and rail.

    Of those that look alike, with as many rows of the same way round, only the best is told.
    """
    best = max(f.alternative.energy_kwh - price * f.corners for f in found)

    def order(one: _Found) -> tuple[float, int, float, float]:
        short_kwh = best - one.alternative.energy_kwh + price * one.corners
        near = round(short_kwh / max(best * as_good_frac, 0.05))
        return near, one.alternative.rows, round(one.alternative.rail_m, 2), short_kwh

    told: dict[tuple[object, ...], Alternative] = {}
    for one in sorted(found, key=order):
        a = one.alternative
        # Of alike rows in two places the better ones do.
        alike = a.per_row or (one.corners, round(a.energy_kwh), round(a.rail_m, 2))
        look = (a.ways, a.rows, alike)
        told.setdefault(look, a)
    return tuple(told.values())


def _of_full_layouts(asked: _Asked, price: float) -> tuple[list[_Found], OutOfRange | None]:
    """Return the best places to keep of each layout that holds so many, or why there are none."""
    desk, design, roof = asked.desk, asked.design, asked.roof
    full = alternatives(desk, design, roof.plane.id)
    if full[0].count < asked.modules:
        # What no row holds a layout without rows may.
        full = (*full, squeezed(desk, design, roof.plane.id))
    found: list[_Found] = []
    refused: OutOfRange | None = None
    for layout in sorted(full, key=lambda a: -a.count):
        if layout.count < asked.modules and (found or refused):
            continue
        places = as_places(layout.places)
        try:
            kept = choose(roof.lay, places, asked.worth(places), asked.columns, price).kept
        except OutOfRange as error:
            refused = refused or error
            continue
        chosen = tuple(places[i] for i in kept)
        found.append(asked.found(layout.rule, layout.path_name, chosen))
    return found, refused


def _in_moving_rows(asked: _Asked, price: float, fixed: list[_Found]) -> Iterator[_Found]:
    """Yield the best of rows that may stand anywhere; a symmetric look leaves them no such play."""
    if asked.roof.lay.axis_m is not None:
        return
    known = tuple(p for f in fixed for p in as_places(f.alternative.places))
    worth = _map(asked)
    for path_name, ready in asked.ready:
        for ways in Ways:
            places = moving_rows(ready, ways.orientations, worth, asked.columns, 2 * price, known)
            if places:
                yield asked.found(RowRule.INDEPENDENT, path_name, places)


def _in_one_row(asked: _Asked) -> list[_Found]:
    worth, lay = _map(asked), asked.roof.lay
    found = []
    for path_name, ready in asked.ready:
        for way in Orientation:
            if lay.axis_m is None:
                places = one_row(ready, (way,), worth, asked.columns)
            else:
                places = rectangle(ready, Shape(way, 1, asked.columns), worth)
            if places:
                found.append(asked.found(RowRule.INDEPENDENT, path_name, places))
    if not found:
        longest = max(_longest_row(asked, ready, worth) for _, ready in asked.ready)
        raise OutOfRange(f"{WANTED} in one row", asked.modules, f"{longest * lay.tiers} or fewer")
    return found


def _longest_row(asked: _Asked, ready: Prepared, worth: WorthMap) -> int:
    if asked.roof.lay.axis_m is None:
        return longest_row(ready, tuple(Orientation), worth, asked.columns)
    shapes = shapes_of(ready, asked.columns)
    return max((s.columns for s in shapes if s.rows == 1), default=0)


def _in_one_rectangle(asked: _Asked) -> list[_Found]:
    found = list(_rectangles(asked))
    if not found:
        # Up to twice as many, to name the next number that can be one.
        fitting = [s for _, r in asked.ready for s in shapes_of(r, 2 * asked.columns)]
        near = [
            max((s for s in fitting if s.modules < asked.columns), key=_size, default=None),
            min((s for s in fitting if s.modules > asked.columns), key=_size, default=None),
        ]
        tiers = asked.roof.lay.tiers
        told = [f"{s.modules * tiers} ({s.rows} × {s.columns})" for s in near if s is not None]
        raise OutOfRange(f"{WANTED} in one rectangle", asked.modules, " or ".join(told) or "none")
    return found


def _rectangles(asked: _Asked) -> Iterator[_Found]:
    """Yield the best place of every rectangle of so many modules."""
    worth = _map(asked)
    for path_name, ready in asked.ready:
        for shape in shapes_of(ready, asked.columns):
            if shape.modules == asked.columns:
                places = rectangle(ready, shape, worth)
                yield asked.found(RowRule.ALIGNED, path_name, places)


def _size(shape: Shape) -> tuple[int, int]:
    return shape.modules, shape.rows


def _ready(roof: LayoutRoof) -> Iterator[tuple[str, Prepared]]:
    names = edge_names(roof.plane.outline)
    for edge in roof.path_edges():
        yield "" if edge is None else names[edge], prepared(roof.ground(edge), roof.lay)


def _map(asked: _Asked) -> WorthMap:
    """Return what a column is worth by where it lies, each as if it were alone."""
    lay, outline = asked.roof.lay, asked.roof.ground(None).corners
    way = Orientation.PORTRAIT
    low, high = outline.min(axis=0), outline.max(axis=0)
    extent = high - low
    step_m = float(extent.max()) / (MAP_NODES - 1)
    count = np.maximum(np.ceil(extent / step_m).astype(int) + 1, 2)
    step = extent / (count - 1)
    x_m, y_m = (low[k] + np.arange(count[k]) * step[k] for k in (0, 1))
    half = lay.width_m(way) / 2, lay.height_m(way) / 2
    nodes = tuple(Place(float(x - half[0]), float(y - half[1]), way) for y in y_m for x in x_m)
    worth = asked.worth(nodes, standing=False).reshape(len(y_m), len(x_m))
    return WorthMap(float(low[0]), float(low[1]), (float(step[0]), float(step[1])), worth)
