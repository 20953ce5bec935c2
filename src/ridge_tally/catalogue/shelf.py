"""The shipped sample equipment: invented datasheets with their provenance."""

from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from pydantic import TypeAdapter

from ridge_tally.core.equipment import InverterId, InverterSheet, ModuleId, ModuleSheet
from ridge_tally.core.errors import NotFound


@dataclass(frozen=True, slots=True)
class Shelf:
    """Modules and inverters to choose from."""

    modules: tuple[ModuleSheet, ...]
    inverters: tuple[InverterSheet, ...]

    def module(self, module_id: ModuleId) -> ModuleSheet:
        """Return one module; NotFound if there is none."""
        for sheet in self.modules:
            if sheet.id == module_id:
                return sheet
        raise NotFound("module", module_id)

    def inverter(self, inverter_id: InverterId) -> InverterSheet:
        """Return one inverter; NotFound if there is none."""
        for sheet in self.inverters:
            if sheet.id == inverter_id:
                return sheet
        raise NotFound("inverter", inverter_id)


@cache
def sample_shelf() -> Shelf:
    """Return the shipped sample equipment."""
    folder = files("ridge_tally.catalogue").joinpath("data")
    modules = TypeAdapter(tuple[ModuleSheet, ...])
    inverters = TypeAdapter(tuple[InverterSheet, ...])
    return Shelf(
        modules.validate_json(folder.joinpath("modules.json").read_bytes()),
        inverters.validate_json(folder.joinpath("inverters.json").read_bytes()),
    )
