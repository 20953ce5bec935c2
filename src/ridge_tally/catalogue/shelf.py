"""The shipped sample equipment: invented datasheets with their provenance."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import TypeVar

from pydantic import TypeAdapter, ValidationError

from ridge_tally.core.equipment import (
    SHEETS,
    AnySheet,
    InverterId,
    InverterSheet,
    MicroinverterId,
    MicroinverterSheet,
    ModuleId,
    ModuleSheet,
    OptimizerId,
    OptimizerSheet,
    kind_of,
    sheet_among,
)
from ridge_tally.core.errors import RidgeTallyError
from ridge_tally.core.mounting_sheet import MountingId, MountingSheet
from ridge_tally.rules.equipment.sheet import require_sheet

Sheet = TypeVar("Sheet")


@dataclass(frozen=True, slots=True)
class LeftOut:
    """An own datasheet that is kept but cannot be used, and why."""

    kind: str
    id: str
    why: str


@dataclass(frozen=True, slots=True)
class Shelf:
    """Modules, inverters, converters for single modules and mounting systems to choose from.

    ``left_out``: own datasheets that cannot be used.
    """

    modules: tuple[ModuleSheet, ...]
    inverters: tuple[InverterSheet, ...]
    optimizers: tuple[OptimizerSheet, ...] = ()
    microinverters: tuple[MicroinverterSheet, ...] = ()
    mountings: tuple[MountingSheet, ...] = ()
    left_out: tuple[LeftOut, ...] = ()

    def of_kind(self, kind: str) -> tuple[AnySheet, ...]:
        """Return the sheets of a kind, by its word: ``module``."""
        by_kind: dict[str, tuple[AnySheet, ...]] = {
            "module": self.modules,
            "inverter": self.inverters,
            "optimizer": self.optimizers,
            "microinverter": self.microinverters,
            "mounting": self.mountings,
        }
        return by_kind[kind]

    def module(self, module_id: ModuleId) -> ModuleSheet:
        """Return one module; NotFound if there is none."""
        return sheet_among(self.modules, module_id, "module")

    def inverter(self, inverter_id: InverterId) -> InverterSheet:
        """Return one inverter; NotFound if there is none."""
        return sheet_among(self.inverters, inverter_id, "inverter")

    def optimizer(self, optimizer_id: OptimizerId) -> OptimizerSheet:
        """Return one optimizer; NotFound if there is none."""
        return sheet_among(self.optimizers, optimizer_id, "optimizer")

    def microinverter(self, microinverter_id: MicroinverterId) -> MicroinverterSheet:
        """Return one microinverter; NotFound if there is none."""
        return sheet_among(self.microinverters, microinverter_id, "microinverter")

    def mounting(self, mounting_id: MountingId) -> MountingSheet:
        """Return one mounting system; NotFound if there is none."""
        return sheet_among(self.mountings, mounting_id, "mounting system")


@cache
def sample_shelf() -> Shelf:
    """Return the shipped sample equipment."""
    folder = files("ridge_tally.catalogue").joinpath("data")

    def read(name: str, kind: type[Sheet]) -> tuple[Sheet, ...]:
        content = folder.joinpath(name).read_bytes()
        return tuple(TypeAdapter(list[kind]).validate_json(content))  # type: ignore[valid-type]

    return Shelf(
        read("modules.json", ModuleSheet),
        read("inverters.json", InverterSheet),
        read("optimizers.json", OptimizerSheet),
        read("microinverters.json", MicroinverterSheet),
        read("mountings.json", MountingSheet),
    )


@cache
def _reader(kind: str) -> TypeAdapter[AnySheet]:
    return TypeAdapter(SHEETS[kind])


def with_own(samples: Shelf, documents: Iterable[tuple[str, str, str]]) -> Shelf:
    """Return the shelf with own datasheets, kept as (kind, id, JSON), behind the samples.

    One that cannot be read or that contradicts itself is left out and named.
    """
    own: dict[str, list[AnySheet]] = {kind: [] for kind in SHEETS}
    left_out = []
    for kind, sheet_id, document in documents:
        try:
            sheet = _reader(kind).validate_json(document)
            require_sheet(sheet)
        except (KeyError, ValidationError, RidgeTallyError) as error:
            why = str(error) if isinstance(error, RidgeTallyError) else "It does not read as one."
            left_out.append(LeftOut(kind, sheet_id, why))
            continue
        own[kind].append(sheet)
    whole = {f"{kind}s": (*samples.of_kind(kind), *own[kind]) for kind in SHEETS}
    return Shelf(**whole, left_out=tuple(left_out))  # type: ignore[arg-type]


def written(sheet: AnySheet) -> str:
    """Return a datasheet as ``with_own`` reads it."""
    return _reader(kind_of(sheet)).dump_json(sheet).decode()
