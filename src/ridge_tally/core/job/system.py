"""An option with every id in it looked up once: planes, datasheets, tracker inputs."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ridge_tally.core.equipment import (
    InverterSheet,
    MicroinverterSheet,
    ModuleId,
    ModuleSheet,
    OptimizerSheet,
    TrackerSheet,
    sheet_among,
)
from ridge_tally.core.job.array import PlaneArray
from ridge_tally.core.job.document import Job, array_of, plane_of, taking_part
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.survey import RoofPlane


@dataclass(frozen=True, slots=True)
class LaidArray:
    """An array with the plane it lies on and the datasheet of its modules."""

    array: PlaneArray
    plane: RoofPlane
    module: ModuleSheet


@dataclass(frozen=True, slots=True)
class TrackerInput:
    """An MPPT input of an option: its number, and its inverter with that one's number, from 1."""

    number: int
    unit_number: int
    sheet: TrackerSheet
    inverter: InverterSheet


@dataclass(frozen=True, slots=True)
class System:
    """One option of a job with what its ids stand for; nothing below looks them up again.

    ``module`` is the option's, ``sheets`` that of every module laid.  ``inverters``: one for each
    that hangs there; ``trackers``: their inputs, numbered through.
    """

    job: Job
    option: Option
    module: ModuleSheet
    arrays: tuple[LaidArray, ...]
    sheets: Mapping[PlacedId, ModuleSheet]
    inverters: tuple[InverterSheet, ...]
    trackers: tuple[TrackerInput, ...]
    optimizer: OptimizerSheet | None
    microinverter: MicroinverterSheet | None

    def on(self, plane_id: PlaneId) -> LaidArray:
        """Return what lies on a plane, an empty array where nothing does.

        Raises
        ------
        NotFound
            If the survey has no such plane.
        """
        for laid in self.arrays:
            if laid.plane.id == plane_id:
                return laid
        return laid_array(self.job, self.option, array_of(self.option, plane_id))

    def planes_under(self, module_ids: Iterable[PlacedId]) -> str:
        """Return the names of the planes some modules lie on, in the modules' order."""
        lies_on = {m.id: laid.plane.name for laid in self.arrays for m in laid.array.modules}
        return " and ".join(dict.fromkeys(lies_on[m] for m in module_ids))

    @property
    def array_sheets(self) -> tuple[ModuleSheet, ...]:
        """The datasheet of each array, in their order."""
        return tuple(laid.module for laid in self.arrays)


def system_of(job: Job, option: Option) -> System:
    """Return an option with what its ids stand for.

    Raises
    ------
    NotFound
        If the job lacks a plane or a datasheet that the option names.
    """
    arrays = tuple(laid_array(job, option, array) for array in option.arrays)
    inverters = inverter_sheets_of(job, option)
    return System(
        job=job,
        option=option,
        module=module_sheet(job, option.module_id),
        arrays=arrays,
        sheets={m.id: laid.module for laid in arrays for m in laid.array.modules},
        inverters=inverters,
        trackers=tracker_inputs(inverters),
        optimizer=_optimizer(job, option),
        microinverter=_microinverter(job, option),
    )


def laid_array(job: Job, option: Option, array: PlaneArray) -> LaidArray:
    """Return an array with its plane and datasheet, be it in the option yet or not.

    Raises
    ------
    NotFound
        If the job lacks the plane or the datasheet.
    """
    module = module_sheet(job, array.module_id or option.module_id)
    return LaidArray(array, plane_of(job, array.plane_id), module)


def module_sheet(job: Job, module_id: ModuleId) -> ModuleSheet:
    """Return the datasheet of a module; NotFound if the job carries no such one."""
    return sheet_among(job.equipment.modules, module_id, "module datasheet")


def inverter_sheets_of(job: Job, option: Option) -> tuple[InverterSheet, ...]:
    """Return the datasheets of the option's inverters; NotFound if the job lacks one."""
    return tuple(
        sheet_among(job.equipment.inverters, i, "inverter datasheet")
        for i in (option.inverter_id, *option.more_inverters)
    )


def _optimizer(job: Job, option: Option) -> OptimizerSheet | None:
    wanted = option.electronics.optimizer_id
    if wanted is None:
        return None
    return sheet_among(job.equipment.optimizers, wanted, "optimizer datasheet")


def _microinverter(job: Job, option: Option) -> MicroinverterSheet | None:
    wanted = option.electronics.microinverter_id
    if wanted is None:
        return None
    return sheet_among(job.equipment.microinverters, wanted, "microinverter datasheet")


def tracker_inputs(inverters: tuple[InverterSheet, ...]) -> tuple[TrackerInput, ...]:
    """Return the inputs of inverters, numbered through."""
    owners = [(u, t, i) for u, i in enumerate(inverters, start=1) for t in i.trackers]
    return tuple(TrackerInput(n, *owner) for n, owner in enumerate(owners, start=1))


def strung_w(system: System) -> float:
    """Return what the modules that reach the grid are rated at together, W."""
    return sum(system.sheets[m].p_max_w for m in taking_part(system.option))
