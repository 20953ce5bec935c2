"""What an option is made of that has a datasheet, by piece."""

from collections import Counter

from ridge_tally.core.equipment import (
    InverterSheet,
    MicroinverterSheet,
    OptimizerKind,
    OptimizerSheet,
    Priced,
)
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import System
from ridge_tally.core.strings.units import units_by_plane

Counted = tuple[tuple[Priced, int], ...]


def modules_in(system: System) -> Counted:
    """Return the modules that are there by type; none of the option's own while nothing is laid."""
    present = set(present_ids(system.option))
    counts = Counter(s for m, s in system.sheets.items() if m in present)
    return tuple(counts.items()) or ((system.module, 0),)


Converters = tuple[tuple[InverterSheet | MicroinverterSheet, int], ...]


def ac_makers(system: System) -> Converters:
    """Return what turns DC into AC: a generic DC input does not."""
    return tuple(
        (s, n) for s, n in converters(system) if isinstance(s, MicroinverterSheet) or not s.dc_only
    )


def converters(system: System) -> Converters:
    """Return what takes the modules' DC: the inverters, or one at each module where there are such."""
    micro = system.microinverter
    if micro is not None:
        return ((micro, sum(map(len, units_by_plane(system, micro.inputs)))),)
    return tuple(Counter(system.inverters).items())


def parts_of(system: System) -> Counted:
    """Return modules, inverters and what stands at the modules, each with its count."""
    optimizer, found = system.optimizer, list(modules_in(system))
    found += converters(system)
    if optimizer is not None:
        found.append((optimizer, len(fitted_ids(system.option, optimizer))))
    return tuple(found)


def fitted_ids(option: Option, optimizer: OptimizerSheet | None) -> tuple[PlacedId, ...]:
    """Return the modules with an optimizer: every one in a system."""
    if optimizer is None:
        return ()
    if optimizer.kind is OptimizerKind.SYSTEM:
        return present_ids(option)
    return option.electronics.fitted


def counted_names(parts: Counted | Converters) -> str:
    """Return parts by name, alike ones counted: ``2 × Sample inverter 5.0 kW``."""
    return " + ".join(f"{n} × {s.name}" if n > 1 else s.name for s, n in parts)
