"""Applying another choice of module, for an option or one of its planes."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import ModuleSheet, with_renewed
from ridge_tally.core.job.array import ways_of_array
from ridge_tally.core.job.document import (
    Job,
    array_of,
    option_of,
    plane_of,
    with_array,
    with_option,
)
from ridge_tally.core.job.edits.array.kinds import ChooseModule, ChoosePlaneModule, KindEdit
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.system import laid_array
from ridge_tally.editing.array.filled import filled


def kinds_changed(job: Job, edit: KindEdit, shelf: Shelf) -> Job:
    """Return the job with another module in an option or on one of its planes.

    Raises
    ------
    NotFound, BadGeometry
        If the shelf has no such module, or none of its size fits a plane.
    """
    match edit:
        case ChooseModule():
            return _with_module(job, edit, shelf)
        case ChoosePlaneModule():
            return _with_plane_module(job, edit, shelf)
        case _:
            assert_never(edit)


def _with_module(job: Job, edit: ChooseModule, shelf: Shelf) -> Job:
    """Take another module; planes with one of their own keep it."""
    old = option_of(job, edit.option_id)
    job = _with_sheet(job, shelf.module(edit.module_id))
    changed = with_option(job, replace(old, module_id=edit.module_id))
    planes = [a.plane_id for a in old.arrays if a.module_id is None]
    return _filled_again(job, changed, edit.option_id, planes)


def _with_plane_module(job: Job, edit: ChoosePlaneModule, shelf: Shelf) -> Job:
    """Take another module on one plane."""
    if edit.module_id is not None:
        job = _with_sheet(job, shelf.module(edit.module_id))
    plane_of(job, edit.plane_id)
    option = option_of(job, edit.option_id)
    own = None if edit.module_id == option.module_id else edit.module_id
    array = replace(array_of(option, edit.plane_id), module_id=own)
    changed = with_option(job, with_array(option, array))
    return _filled_again(job, changed, option.id, [edit.plane_id])


def _with_sheet(job: Job, module: ModuleSheet) -> Job:
    modules = with_renewed(job.equipment.modules, module)
    return replace(job, equipment=replace(job.equipment, modules=modules))


def _filled_again(job: Job, changed: Job, option_id: OptionId, planes: list[PlaneId]) -> Job:
    """Return the changed job, planes filled anew whose modules are of another size: every place
    depends on it."""
    before, after = option_of(job, option_id), option_of(changed, option_id)
    for plane_id in planes:
        array = array_of(before, plane_id)
        old = laid_array(job, before, array).module
        new = laid_array(changed, after, array_of(after, plane_id)).module
        if array.modules and (old.long_m, old.short_m) != (new.long_m, new.short_m):
            changed = filled(changed, option_id, plane_id, ways_of_array(array))
    return changed
