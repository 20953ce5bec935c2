"""A plane filled, and modules put at places: what edits of an array are made of."""

from collections.abc import Container, Iterable
from dataclasses import replace

from ridge_tally.core.array.blockers import ground_of, path_edges
from ridge_tally.core.array.fill import fill_rows
from ridge_tally.core.array.lay import Fill, Place
from ridge_tally.core.array.legal import NEIGHBOUR, Shortfall, shortfalls
from ridge_tally.core.array.search import prepared
from ridge_tally.core.array.tables import columns_of, tiers_of
from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.array import (
    ROUNDED_TO,
    PlacedModule,
    PlaneArray,
    Ways,
    present_of,
)
from ridge_tally.core.job.document import (
    Job,
    array_of,
    option_of,
    with_array,
    with_option,
)
from ridge_tally.core.job.ids import OptionId, PlacedId, PlaneId
from ridge_tally.core.job.system import LaidArray, laid_array
from ridge_tally.core.survey.outline import is_closed, require_closed
from ridge_tally.rules.array.checks import lay_of

TURN_OR_NARROW = "Turn the modules, choose a smaller one, or narrow a strip."


def best_rows(laid: LaidArray, ways: Ways) -> Fill:
    """Return the fullest rows, the access path along the edge that costs least."""
    plane = laid.plane
    require_closed(plane)
    lay = lay_of(laid)
    fills = [
        fill_rows(prepared(ground_of(plane, edge), lay), ways)
        for edge in path_edges(plane) or (None,)
    ]
    best = max(fills, key=lambda f: f.count)
    return Fill(best.places, max(f.at_most for f in fills))


def filled(job: Job, option_id: OptionId, plane_id: PlaneId, ways: Ways) -> Job:
    """Return the job with a plane filled anew."""
    option = option_of(job, option_id)
    laid = laid_array(job, option, array_of(option, plane_id))
    fill = best_rows(laid, ways)
    if not fill.places:
        raise nothing_fits(laid)
    return with_option(job, with_array(option, with_places(laid, fill.places)))


def nothing_fits(laid: LaidArray, remedy: str = TURN_OR_NARROW) -> BadGeometry:
    """Return the refusal of a plane whose strips leave no room for a module."""
    sheet = laid.module
    return BadGeometry(
        laid.plane.name,
        f"no module of {sheet.long_m:g} × {sheet.short_m:g} m fits inside the free strips",
        remedy,
    )


def with_places(laid: LaidArray, places: Iterable[Place]) -> PlaneArray:
    """Return the array with modules at places; on tables, of every tier above each."""
    modules = tuple(
        placed_module(PlacedId(f"{laid.plane.id}-{i}"), p, tier)
        for i, (p, tier) in enumerate(tiers_of(lay_of(laid), places), start=1)
    )
    return replace(laid.array, modules=modules)


def placed_module(module_id: PlacedId, place: Place, tier: int) -> PlacedModule:
    """Return a module at a place, rounded as documents hold it."""
    x_m, y_m = round(place.x_m, ROUNDED_TO), round(place.y_m, ROUNDED_TO)
    return PlacedModule(module_id, x_m, y_m, place.orientation, present=True, tier=tier)


def require_possible(
    laid: LaidArray,
    module_ids: Container[PlacedId],
    remedy: str = "Move it off, or take one of them away.",
) -> None:
    """Refuse modules that would lie on something, on each other or over the edge."""
    plane, array = laid.plane, laid.array
    if not is_closed(plane):
        return
    present = present_of(array)
    lay = lay_of(laid)
    columns = columns_of(lay, present)
    short = shortfalls(ground_of(plane), lay, tuple(place for place, _ in columns))
    numbers = {m.id: number for number, m in enumerate(array.modules, start=1)}
    for (_, modules), found in zip(columns, short, strict=True):
        worst = next((s for s in found if s.impossible), None)
        module = next((m for m in modules if m.id in module_ids), None)
        if module is not None and worst is not None:
            raise BadGeometry(f"{plane.name}, module {numbers[module.id]}", _lies_on(worst), remedy)


def _lies_on(worst: Shortfall) -> str:
    if worst.owner.name == NEIGHBOUR:
        return "it would lie on another module"
    return f"it would lie across {worst.owner.name}"
