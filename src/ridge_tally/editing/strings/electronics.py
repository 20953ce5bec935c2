"""Another way for modules to reach the grid, and optimizers fitted to some of them."""

from dataclasses import replace
from typing import assert_never

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import MicroinverterId, OptimizerId, OptimizerKind, with_renewed
from ridge_tally.core.errors import BadGeometry, NotFound
from ridge_tally.core.job.architecture import Architecture, Electronics
from ridge_tally.core.job.document import Job, option_of, present_ids, with_option
from ridge_tally.core.job.edits.strings.electronics import (
    ChooseElectronics,
    ElectronicsEdit,
    FitOptimizers,
)
from ridge_tally.core.job.option import Option

KINDS = {
    Architecture.ADD_ON: OptimizerKind.ADD_ON,
    Architecture.SYSTEM: OptimizerKind.SYSTEM,
}


def electronics_changed(job: Job, edit: ElectronicsEdit, shelf: Shelf) -> Job:
    """Return the job after an edit of what stands at an option's modules.

    Raises
    ------
    NotFound
        If the shelf has no such unit, or a module is not there.
    BadGeometry
        If the unit is of another kind, or the option has no add-on optimizers.
    """
    option = option_of(job, edit.option_id)
    match edit:
        case ChooseElectronics():
            return _chosen(job, option, edit, shelf)
        case FitOptimizers():
            return with_option(job, _fitted(option, edit))
        case _:
            assert_never(edit)


def _chosen(job: Job, option: Option, edit: ChooseElectronics, shelf: Shelf) -> Job:
    equipment, way = job.equipment, edit.architecture
    electronics = Electronics(way)
    if way in KINDS:
        optimizer = shelf.optimizer(OptimizerId(edit.unit_id))
        if optimizer.kind is not KINDS[way]:
            raise BadGeometry(
                "Optimizer",
                f"{optimizer.name} is of the kind “{optimizer.kind.value}”",
                "Choose the way it is made for.",
            )
        equipment = replace(equipment, optimizers=with_renewed(equipment.optimizers, optimizer))
        kept = option.electronics.fitted if way is Architecture.ADD_ON else ()
        electronics = Electronics(way, optimizer_id=optimizer.id, fitted=kept)
    elif way is Architecture.MICRO:
        micro = shelf.microinverter(MicroinverterId(edit.unit_id))
        micros = with_renewed(equipment.microinverters, micro)
        equipment = replace(equipment, microinverters=micros)
        electronics = Electronics(way, microinverter_id=micro.id)
    return with_option(replace(job, equipment=equipment), replace(option, electronics=electronics))


def _fitted(option: Option, edit: FitOptimizers) -> Option:
    if option.electronics.architecture is not Architecture.ADD_ON:
        raise BadGeometry(
            "Optimizers",
            "this option has no add-on optimizers",
            "Choose strings with add-on optimizers first.",
        )
    there = set(present_ids(option))
    for module_id in edit.module_ids:
        if module_id not in there:
            raise NotFound("module", module_id)
    others = tuple(m for m in option.electronics.fitted if m not in edit.module_ids)
    fitted = (*others, *edit.module_ids) if edit.on else others
    return replace(option, electronics=replace(option.electronics, fitted=fitted))
