"""What it would give to let modules stand each at a point of their own, on this roof."""

import math
from dataclasses import dataclass
from enum import StrEnum

from ridge_tally.catalogue.shelf import Shelf
from ridge_tally.core.equipment import MicroinverterSheet, OptimizerKind, OptimizerSheet
from ridge_tally.core.errors import NotFound, RidgeTallyError
from ridge_tally.core.job.architecture import Electronics
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import Option
from ridge_tally.core.sheets.working_lines import value_and_limit
from ridge_tally.core.strings.units import units_by_plane
from ridge_tally.core.working import LimitKind, Verdict
from ridge_tally.rules.design import Design
from ridge_tally.rules.practice import Practice, practice
from ridge_tally.rules.strings import microinverters, optimizers
from ridge_tally.rules.strings.limits import modules_of
from ridge_tally.simulation.array_light import light_kept_frac
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.scenario import AS_IT_IS, OwnPoint, Scenario
from ridge_tally.simulation.year import hourly_year, require_year

AtModule = OptimizerSheet | MicroinverterSheet


class Way(StrEnum):
    """How modules reach the grid."""

    STRUNG = "strung"
    ADD_ON = "add-on"
    SYSTEM = "system"
    MICRO = "micro"


@dataclass(frozen=True, slots=True)
class WayYear:
    """The year one way, kWh, against the strings as they are; ``None`` where it fails.

    ``problem``: why it fails, or what takes no part in it.
    """

    way: Way
    unit_id: str
    unit: str
    units: int
    limit_kw: float
    energy_kwh: float | None
    gain_kwh: float | None
    gain_frac: float | None
    clipped_kwh: float | None
    problem: str


@dataclass(frozen=True, slots=True)
class ModuleShare:
    """A module's light over the year as a share of its free light, and whether it is helped."""

    module_id: PlacedId
    light_frac: float
    helped: bool


@dataclass(frozen=True, slots=True)
class OwnPointReport:
    """The ways side by side, by the hour, and which modules have add-on optimizers."""

    ways: tuple[WayYear, ...]
    modules: tuple[ModuleShare, ...]


def helped_ids(by_commas: str | None) -> tuple[PlacedId, ...] | None:
    """Return the modules named in a line, as ``own_point_report`` takes them."""
    if by_commas is None:
        return None
    return tuple(PlacedId(m) for m in by_commas.split(",") if m)


def own_point_report(
    desk: Desk, design: Design, helped: tuple[PlacedId, ...] | None = None
) -> OwnPointReport:
    """Return the year of the strings as they are, with optimizers, and of microinverters.

    Parameters
    ----------
    helped : tuple of module ids, optional
        Modules with add-on optimizers; left out: those clearly darker than the brightest of
        their string.

    Raises
    ------
    MissingDatum
        While no module is in a string.
    NotFound
        If a helped module is not there.
    """
    require_year(design)
    light = light_kept_frac(desk, design)
    if helped is None:
        helped = darker_ids(design.option, light)
    there = set(present_ids(design.option))
    for module_id in helped:
        if module_id not in there:
            raise NotFound("module", module_id)
    plain = design.option.electronics == Electronics()
    as_it_is = hourly_year(desk, design, AS_IT_IS if plain else Scenario(strung=True))
    limit_kw = as_it_is.limit_w / 1000
    ways = [
        WayYear(
            Way.STRUNG, "", "", 0, limit_kw, as_it_is.energy_kwh, 0.0, 0.0, as_it_is.clipped_kwh, ""
        )
    ]
    for unit in fitting_units(design, desk.shelf):
        own = OwnPoint(unit, helped if _way(unit) is Way.ADD_ON else ())
        ways.append(_year_of(desk, design, own, as_it_is.energy_kwh))
    modules = tuple(ModuleShare(m, share, m in helped) for m, share in light.items())
    return OwnPointReport(tuple(ways), modules)


def _way(unit: AtModule) -> Way:
    if isinstance(unit, MicroinverterSheet):
        return Way.MICRO
    return Way.ADD_ON if unit.kind is OptimizerKind.ADD_ON else Way.SYSTEM


def fitting_units(design: Design, shelf: Shelf) -> tuple[AtModule, ...]:
    """Return of each kind the first of the shelf that suits every module, and what the option has.

    Where none of a kind suits, its first is returned all the same: its way then says why not.
    """
    units: list[AtModule] = [*shelf.optimizers, *shelf.microinverters]
    chosen: list[AtModule] = []
    for kind in dict.fromkeys(_kind(unit) for unit in units):
        mine = [unit for unit in units if _kind(unit) == kind]
        chosen.append(next((unit for unit in mine if not unfit(design, unit)), mine[0]))
    there = design.microinverter or design.optimizer
    if there is not None and all(unit.id != there.id for unit in chosen):
        chosen.append(there)
    return tuple(chosen)


def _kind(unit: AtModule) -> tuple[Way, int]:
    return _way(unit), unit.inputs if isinstance(unit, MicroinverterSheet) else 1


def unfit(design: Design, unit: AtModule) -> str:
    """Return which limits of a unit's input the modules break; empty where it suits them."""
    broken = []
    for sheet in modules_of(design):
        checks = (
            microinverters.input_checks(design, unit, sheet)
            if isinstance(unit, MicroinverterSheet)
            else optimizers.input_checks(design, unit, sheet)
        )
        for c in checks:
            if c.kind in (LimitKind.STOP, LimitKind.OUTSIDE) and c.verdict is Verdict.BROKEN:
                value, limit = value_and_limit(c)
                broken.append(f"{c.title}: {value} against {limit}")
    return "; ".join(broken)


def _year_of(desk: Desk, design: Design, own: OwnPoint, strung_kwh: float) -> WayYear:
    option = design.option
    way, count = _way(own.unit), len(present_ids(option))
    if isinstance(own.unit, MicroinverterSheet):
        units = sum(map(len, units_by_plane(design, own.unit.inputs)))
        limit_kw = units * own.unit.p_ac_w / 1000
    else:
        limit_kw = sum(i.p_ac_w for i in design.inverters) / 1000
        units = len(own.module_ids) if way is Way.ADD_ON else count
    try:
        year = hourly_year(desk, design, Scenario(own_point=own))
    except RidgeTallyError as error:
        return WayYear(
            way, own.unit.id, own.unit.name, units, limit_kw, None, None, None, None, str(error)
        )
    gain = year.energy_kwh - strung_kwh
    return WayYear(
        way,
        own.unit.id,
        own.unit.name,
        units,
        limit_kw,
        year.energy_kwh,
        gain,
        gain / strung_kwh if strung_kwh > 0 else None,
        year.clipped_kwh,
        " ".join(filter(None, (unfit(design, own.unit), _too_short(option, own.unit)))),
    )


def _too_short(option: Option, unit: OptimizerSheet | MicroinverterSheet) -> str:
    """Return which strings of optimizers never reach the voltage the inverter holds."""
    if not isinstance(unit, OptimizerSheet) or unit.string_v is None:
        return ""
    short = [s for s in option.strings if len(s.module_ids) * unit.v_out_max_v < unit.string_v]
    if not short:
        return ""
    told = ", ".join(f"{s.tag} ({len(s.module_ids)})" for s in short)
    least = math.ceil(unit.string_v / unit.v_out_max_v)
    return (
        f"String {told} never runs: up to {unit.v_out_max_v:g} V from each, {least} at least reach "
        f"the {unit.string_v:g} V the inverter holds."
    )


def darker_ids(option: Option, light: dict[PlacedId, float]) -> tuple[PlacedId, ...]:
    """Return the modules clearly darker over the year than the brightest of their string."""
    found: list[PlacedId] = []
    for string in option.strings:
        best = max(light[m] for m in string.module_ids)
        found += [m for m in string.module_ids if light[m] < best - practice(Practice.DARKER_FRAC)]
    return tuple(found)
