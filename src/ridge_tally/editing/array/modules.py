"""Applying the edits of modules by hand: taken away, moved, turned, set apart, kept where they are."""

from collections.abc import Callable, Container
from dataclasses import replace
from typing import assert_never

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.tables import columns_of, tier_up_m, tiers_of
from ridge_tally.core.errors import BadGeometry, NotFound, OutOfRange
from ridge_tally.core.job.array import (
    OTHER_WAY,
    ROUNDED_TO,
    PlacedModule,
    PlaneArray,
    in_lines,
    present_of,
)
from ridge_tally.core.job.document import Job, array_of, option_of, with_array, with_option
from ridge_tally.core.job.edits.array.modules import (
    AddModule,
    KeepModules,
    ModuleEdit,
    MoveModules,
    RemoveModules,
    SplitRow,
    ToggleModules,
    TurnModules,
)
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import laid_array
from ridge_tally.core.survey.outline import require_closed
from ridge_tally.editing.array.filled import placed_module, require_possible
from ridge_tally.editing.array.respaced import typed_gap_m
from ridge_tally.editing.rows import next_id
from ridge_tally.rules.array.checks import lay_of

# Modules this much further apart than their gap still touch.
TOUCHING_M = 0.005

LONGEST_REASON = 160


def modules_changed(job: Job, edit: ModuleEdit) -> Job:  # noqa: PLR0911 - one arm an edit
    """Return the job after an edit of modules by hand.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, NotFound
        If a module is not there, or would lie on something, on another or over the edge.
    """
    match edit:
        case ToggleModules():
            return with_option(job, _each(job, edit, lambda m: replace(m, present=not m.present)))
        case RemoveModules():
            return with_option(job, _each(job, edit, lambda m: None))
        case AddModule():
            return _added(job, edit)
        case MoveModules():
            return _moved(job, edit)
        case TurnModules():
            return _turned(job, edit)
        case SplitRow():
            return _split(job, edit)
        case KeepModules():
            return _kept(job, edit)
        case _:
            assert_never(edit)


def _each(
    job: Job,
    edit: ToggleModules | RemoveModules,
    change: Callable[[PlacedModule], PlacedModule | None],
) -> Option:
    option = option_of(job, edit.option_id)
    _require_known(option, edit.module_ids)
    arrays = []
    for array in option.arrays:
        changed = [change(m) if m.id in edit.module_ids else m for m in array.modules]
        arrays.append(replace(array, modules=tuple(m for m in changed if m is not None)))
    return replace(option, arrays=tuple(arrays))


def _require_known(option: Option, module_ids: tuple[PlacedId, ...]) -> None:
    known = {m.id for array in option.arrays for m in array.modules}
    for module_id in module_ids:
        if module_id not in known:
            raise NotFound("module", module_id)


def _one_array(option: Option, module_ids: tuple[PlacedId, ...]) -> PlaneArray:
    """Return the array that holds all those modules."""
    _require_known(option, module_ids)
    for array in option.arrays:
        ids = {m.id for m in array.modules}
        if ids.issuperset(module_ids) and module_ids:
            return array
    raise BadGeometry(
        "Modules", "none, or of more than one roof plane", "Choose modules of one plane."
    )


def _added(job: Job, edit: AddModule) -> Job:
    option = option_of(job, edit.option_id)
    array = array_of(option, edit.plane_id)
    laid = laid_array(job, option, array)
    plane = laid.plane
    require_closed(plane)
    taken = [m.id for a in option.arrays for m in a.modules]
    at = Place(edit.at.x_m, edit.at.y_m, edit.at.orientation)
    added: list[PlacedModule] = []
    for place, tier in tiers_of(lay_of(laid), (at,)):
        new_id = PlacedId(next_id(f"{plane.id}-", [*taken, *(m.id for m in added)]))
        added.append(placed_module(new_id, place, tier))
    array = replace(array, modules=(*array.modules, *added))
    require_possible(replace(laid, array=array), {m.id for m in added})
    return with_option(job, with_array(option, array))


Column = tuple[Place, tuple[PlacedModule, ...]]


def _columns(
    array: PlaneArray, lay: Lay, module_ids: Container[PlacedId] | None = None
) -> tuple[tuple[Column, ...], ...]:
    """Return the columns of tables those modules stand in, row by row, each row from its left.

    Each with the place of its lowest module; on roofs each module is a column by itself.
    """
    columns = (
        c
        for c in columns_of(lay, array.modules)
        if module_ids is None or any(m.id in module_ids for m in c[1])
    )
    return in_lines(columns, lambda c: c[0].y_m, lambda c: c[0].x_m)


def _moved(job: Job, edit: MoveModules) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, edit.module_ids)
    moved = {
        m.id: replace(
            m,
            x_m=round(m.x_m + edit.right_m, ROUNDED_TO),
            y_m=round(m.y_m + edit.up_m, ROUNDED_TO),
            # A reason was given for the place, not for the module.
            kept_because="",
        )
        for row in _columns(array, lay_of(laid_array(job, option, array)), edit.module_ids)
        for _, column in row
        for m in column
    }
    return _settled(job, option, array, moved)


def _turned(job: Job, edit: TurnModules) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, edit.module_ids)
    lay = lay_of(laid_array(job, option, array))
    turned: dict[PlacedId, PlacedModule] = {}
    above_m = float("-inf")
    for row in _columns(array, lay, edit.module_ids):
        bottom_m = max(min(place.y_m for place, _ in row), above_m)
        right_m = row[0][0].x_m
        for place, column in row:
            other = OTHER_WAY[place.orientation]
            for module in column:
                turned[module.id] = replace(
                    module,
                    x_m=round(right_m, ROUNDED_TO),
                    y_m=round(bottom_m + tier_up_m(lay, other, module.tier), ROUNDED_TO),
                    orientation=other,
                    kept_because="",
                )
            right_m += lay.pitch_m(other)
            above_m = bottom_m + lay.height_m(other) + lay.gap_between_rows_m
    return _settled(job, option, array, turned)


def _split(job: Job, edit: SplitRow) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, (edit.module_id,))
    gap_m = typed_gap_m(job, edit.typed, "Gap in the row")
    lay = lay_of(laid_array(job, option, array))
    there = replace(array, modules=present_of(array))
    rows = _columns(there, lay)
    found = (
        (row, i)
        for row in rows
        for i, (_, column) in enumerate(row)
        if any(m.id == edit.module_id for m in column)
    )
    row, number = next(found, ((), 0))
    if number == 0:
        raise BadGeometry(
            "Gap in the row",
            "this module is the first of its row, nothing stands left of it",
            "Choose the module to the right of the gap.",
        )
    left, place = row[number - 1][0], row[number][0]
    shift_m = left.x_m + lay.width_m(left.orientation) + gap_m - place.x_m
    moved: dict[PlacedId, PlacedModule] = {}
    end_m = place.x_m - lay.gap_in_row_m
    for beside, column in row[number:]:
        # What stands further on, beyond a chimney or a gap of its own, stays.
        if beside.x_m - end_m > lay.gap_in_row_m + TOUCHING_M:
            break
        for m in column:
            moved[m.id] = replace(m, x_m=round(m.x_m + shift_m, ROUNDED_TO), kept_because="")
        end_m = beside.x_m + lay.width_m(beside.orientation)
    return _settled(job, option, array, moved)


def _settled(
    job: Job, option: Option, array: PlaneArray, moved: dict[PlacedId, PlacedModule]
) -> Job:
    array = replace(array, modules=tuple(moved.get(m.id, m) for m in array.modules))
    require_possible(laid_array(job, option, array), set(moved))
    return with_option(job, with_array(option, array))


def _kept(job: Job, edit: KeepModules) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, edit.module_ids)
    reason = edit.reason.strip()
    if len(reason) > LONGEST_REASON:
        raise OutOfRange(
            "Length of the reason", len(reason), f"at most {LONGEST_REASON} characters"
        )
    laid = laid_array(job, option, array)
    require_closed(laid.plane)
    if reason:
        nothing_allows = "Nothing allows that: move it off."
        require_possible(laid, edit.module_ids, nothing_allows)
    modules = tuple(
        replace(m, kept_because=reason) if m.id in edit.module_ids else m for m in array.modules
    )
    return with_option(job, with_array(option, replace(array, modules=modules)))
