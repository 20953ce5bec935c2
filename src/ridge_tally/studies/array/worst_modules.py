"""What moving the modules with least light would give: the best free places, or none."""

from dataclasses import dataclass, replace

import numpy as np

from ridge_tally.core.array.blockers import LayoutRegion, ground_of
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.legal import boxes_of, shortfalls
from ridge_tally.core.array.search import bands_at
from ridge_tally.core.array.shape import same_lines
from ridge_tally.core.equipment import module_area_m2
from ridge_tally.core.job.array import ROUNDED_TO, Orientation, present_of
from ridge_tally.core.job.document import option_of, taking_part
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.fills import LaidAt
from ridge_tally.core.job.edits.array.modules import AddModule, RemoveModules
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.working import shown
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.rules.array.checks import lay_of, placed_at, standing
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import light_at, require_modules
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.sun.shade import shade_report

# How many are asked about; the page of the product speaks of three.
WORST = 3
# Moving for less than this is not worth the crew's walk.
LEAST_GAIN_KWH = 1.0


@dataclass(frozen=True, slots=True)
class FreePlace:
    """A legal place where nothing lies, and the light it would get in a year, kWh."""

    plane_id: PlaneId
    at: LaidAt
    kwh: float


@dataclass(frozen=True, slots=True)
class WorstModules:
    """The modules with least light, and where they would do better.

    ``without_kwh`` is the light they get now, lost if they were left off.  ``edits`` move
    ``moved`` of them; empty where no better place is free.  ``meter_gained_kwh`` and
    ``meter_without_kwh`` are the same at the meter, strings threaded anew; ``None`` where they
    do not go to a meter.
    """

    module_ids: tuple[PlacedId, ...]
    without_kwh: float
    moved: tuple[PlacedId, ...]
    places: tuple[FreePlace, ...]
    gained_kwh: float
    meter_gained_kwh: float | None
    meter_without_kwh: float | None
    told: str
    edits: tuple[RemoveModules | AddModule, ...]


def worst_modules(desk: Desk, design: Design) -> WorstModules:
    """Return what moving the three modules with least light would give.

    Raises
    ------
    MissingDatum
        If no module is laid.
    """
    require_modules(design.option)
    report, sheets = shade_report(desk, design), design.sheets
    kwh = {
        m.module_id: m.free_kwh_per_m2 * (1 - m.lost_frac) * module_area_m2(sheets[m.module_id])
        for m in report.modules
    }
    worst = sorted(kwh, key=lambda m: kwh[m])[:WORST]
    moved, taken = _moves(desk, design, worst, kwh)
    gained = sum(p.kwh for p in taken) - sum(kwh[m] for m in moved)
    without = sum(kwh[m] for m in worst)
    edits: tuple[RemoveModules | AddModule, ...] = ()
    if moved:
        edits = (
            RemoveModules(design.option.id, tuple(moved)),
            *(AddModule(design.option.id, p.plane_id, p.at) for p in taken),
        )
    meter_gained = _at_meter(desk, design, edits) if edits else None
    off = _at_meter(desk, design, (RemoveModules(design.option.id, tuple(worst)),))
    meter_without = None if off is None else -off
    told = _told(len(worst), len(moved), (gained, meter_gained), (without, meter_without))
    return WorstModules(
        tuple(worst), without, tuple(moved), tuple(taken), gained, meter_gained, meter_without,
        told, edits,
    )  # fmt: skip


def _moves(
    desk: Desk,
    design: Design,
    worst: list[PlacedId],
    kwh: dict[PlacedId, float],
) -> tuple[list[PlacedId], list[FreePlace]]:
    """Return as many of the worst as do better elsewhere, and the places they go to.

    Places are free once those that move are gone; the others stand where they stood.
    """
    for many in range(len(worst), 0, -1):
        moved, taken = worst[:many], list[FreePlace]()
        free = _free_places(desk, design, tuple(moved))
        for module_id in moved:
            best = next((p for p in free if all(_apart(design, p, t) for t in taken)), None)
            if best is None or best.kwh - kwh[module_id] < LEAST_GAIN_KWH:
                break
            taken.append(best)
        if len(taken) == many:
            return moved, taken
    return [], []


def _at_meter(desk: Desk, design: Design, edits: tuple[Edit, ...]) -> float | None:
    """Return what edits change at the meter, kWh; ``None`` where either has no year."""
    if not taking_part(design.option):
        return None
    changed = apply_edits(design.job, edits, desk.shelf)
    other = option_of(changed, design.option.id)
    if not taking_part(other):
        return None
    after = hourly_year(desk, design_for(changed, other)).energy_kwh
    return after - hourly_year(desk, design).energy_kwh


Kwh = tuple[float, float | None]


def _told(worst: int, moved: int, gained_kwh: Kwh, without_kwh: Kwh) -> str:
    """Return both in a sentence; each is light on the glass and what of it reaches the meter."""
    light, meter = without_kwh
    left_off = f"Left off, the array would get {shown(light)} kWh of light less in a year"
    left_off += "." if meter is None else f" and the meter {shown(meter)} kWh less."
    if moved == 0:
        return f"No other legal place gives the worst {worst} more light. {left_off}"
    which = f"the worst {moved}" if moved == worst else f"{moved} of the worst {worst}"
    light, meter = gained_kwh
    at_meter = "" if meter is None else f", {shown(meter)} kWh at the meter"
    return (
        f"Moving {which} to the best free places gives {shown(light)} kWh of light a year"
        f"{at_meter}. {left_off}"
    )


def _free_places(desk: Desk, design: Design, worst: tuple[PlacedId, ...]) -> list[FreePlace]:
    """Return legal places beside what stays, in the rows there are, most light first.

    None on tables of several rows: a module alone stands on no table.
    """
    found: list[FreePlace] = []
    without = design_for(design.job, _each_left(design.option, worst))
    for laid in design.arrays:
        plane, array, sheet = laid.plane, laid.array, laid.module
        present = present_of(array)
        if not present or (array.table and array.table.rows > 1):
            continue
        lay = lay_of(laid)
        ground = ground_of(plane, standing(laid).path_edge)
        staying = placed_at(tuple(m for m in present if m.id not in worst))
        places = [
            Place(x_m, row[0].y_m, row[0].orientation)
            for row in same_lines(placed_at(present))
            for x_m in _spots_in_row(ground, lay, staying, row[0].y_m, row[0].orientation)
        ]
        legal = tuple(p for p in places if not shortfalls(ground, lay, (p, *staying))[0])
        gone = {(p.x_m, p.y_m) for p in placed_at(tuple(m for m in present if m.id in worst))}
        legal = tuple(
            p for p in legal if all(abs(p.x_m - x) + abs(p.y_m - y) > 0.05 for x, y in gone)
        )
        if not legal:
            continue
        light = light_at(desk, without, without.on(plane.id), legal)
        free_wh_per_m2 = light.on_free.free_wh_per_m2.sum()
        found += [
            FreePlace(
                plane.id,
                LaidAt(round(p.x_m, ROUNDED_TO), round(p.y_m, ROUNDED_TO), p.orientation),
                float(free_wh_per_m2 - x.lost.sum()) / 1000 * module_area_m2(sheet),
            )
            for p, x in zip(legal, light.lights, strict=True)
        ]
    return sorted(found, key=lambda p: -p.kwh)


def _each_left(option: Option, worst: tuple[PlacedId, ...]) -> Option:
    """Return an option without modules that are to move."""
    return replace(
        option,
        arrays=tuple(
            replace(a, modules=tuple(m for m in a.modules if m.id not in worst))
            for a in option.arrays
        ),
    )


def _spots_in_row(
    ground: LayoutRegion, lay: Lay, staying: tuple[Place, ...], y_m: float, way: Orientation
) -> list[float]:
    """Return left edges in a row: at the ends of each free stretch, and a pitch apart between."""
    width_m, height_m, gap_m = lay.width_m(way), lay.height_m(way), lay.gap_in_row_m
    stretches = bands_at(ground, lay, way, np.array([y_m])).gaps(0)
    for p in staying:
        over = p.y_m < y_m + height_m + lay.gap_between_rows_m
        under = p.y_m + lay.height_m(p.orientation) > y_m - lay.gap_between_rows_m
        if over and under:
            left, right = p.x_m - gap_m, p.x_m + lay.width_m(p.orientation) + gap_m
            stretches = [
                part
                for a, b in stretches
                for part in ((a, min(b, left)), (max(a, right), b))
                if part[1] > part[0]
            ]
    found: list[float] = []
    for left, right in stretches:
        count = int((right - left + gap_m + 1e-6) // (width_m + gap_m))
        found += [left + i * (width_m + gap_m) for i in range(count)]
        found += [right - width_m - i * (width_m + gap_m) for i in range(count)]
    return found


def _apart(design: Design, one: FreePlace, other: FreePlace) -> bool:
    """Return whether two places keep their gap."""
    if one.plane_id != other.plane_id:
        return True
    lay = lay_of(design.on(one.plane_id))
    one_box, other_box = boxes_of(
        lay, tuple(Place(p.at.x_m, p.at.y_m, p.at.orientation) for p in (one, other))
    )
    beside = max(one_box[0] - other_box[2], other_box[0] - one_box[2])
    above = max(one_box[1] - other_box[3], other_box[1] - one_box[3])
    return bool(beside >= lay.gap_in_row_m - 1e-6 or above >= lay.gap_between_rows_m - 1e-6)
