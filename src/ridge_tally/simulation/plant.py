"""An option as the year takes it: its light, its converters and its losses, remembered."""

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from typing import TypeGuard

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.build.circuits.sums import squares_over_rating
from ridge_tally.core.energy.inverter import InverterModel, ac_side
from ridge_tally.core.energy.lit import DcOutput, HeatLoss, StringIrradiance
from ridge_tally.core.energy.module_points import (
    drawn_by_microinverters,
    drawn_by_optimizers,
    micro_converter,
    module_points,
    optimizer_converter,
)
from ridge_tally.core.energy.trackers import (
    Helpers,
    LoadedTracker,
    drawn_by_strings,
    loaded_tracker,
)
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import Losses, Plant
from ridge_tally.core.equipment import (
    InverterSheet,
    MicroinverterSheet,
    ModuleSheet,
    OptimizerKind,
    OptimizerSheet,
    Warming,
)
from ridge_tally.core.job.array import Mounting
from ridge_tally.core.job.document import Job, strings_by_tracker
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.system import strung_w
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.core.strings.units import units_by_plane
from ridge_tally.core.sun.shading import QUICK
from ridge_tally.rules import tables
from ridge_tally.rules.build.circuits.conductors import LostAtRating, lost_at_rating
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import ArrayLight, array_lights, lit_string
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.house_load import house_w
from ridge_tally.simulation.scenario import AS_IT_IS, OwnPoint, Scenario
from ridge_tally.simulation.site_sky import SiteSky
from ridge_tally.simulation.weather import passing_beam_of, weather_key, weather_of

FloatArray = NDArray[np.float64]


def plant_of(desk: Desk, design: Design, scenario: Scenario = AS_IT_IS) -> Plant:
    """Return what the year needs to know of an option.

    Raises
    ------
    MissingDatum, OutOfRange
        If a datasheet lacks what the model needs or contradicts itself.
    """
    own = own_point_of(design, scenario)
    weather, beam = weather_of(desk, design.job), passing_beam_of(desk, design.job)
    export_w, at_home_w = exported(desk, design.job, len(weather.time))
    drawn = _drawn(desk, design, scenario)
    losses = losses_of(design.module, own.unit if own else None)
    return Plant(
        drawn=drawn,
        sides=ac_sides(design, own),
        losses=_wired(losses, wires_at_rating(design, scenario), design, drawn.whole_w),
        export_w=export_w,
        house_w=at_home_w,
        cloud=beam.cloud,
        cloud_most=beam.cloud_most,
    )


def ac_sides(design: Design, own: OwnPoint | None) -> tuple[InverterModel, ...]:
    """Return the inverters of a design, or the microinverter at its modules, as they are worked out.

    Raises
    ------
    MissingDatum, OutOfRange
        See ``ac_side``.
    """
    units: tuple[InverterSheet | MicroinverterSheet, ...] = design.inverters
    if own is not None and isinstance(own.unit, MicroinverterSheet):
        units = (own.unit,)
    usual = usual_warming()
    return tuple(ac_side(unit, usual) for unit in units)


def wires_at_rating(design: Design, scenario: Scenario = AS_IT_IS) -> LostAtRating:
    """Return the share of the rated power that DC and AC conductors take at it.

    ``None`` for the usual allowance: while ways are not taken, and for what is not as it is drawn.
    """
    if scenario.own_point is not None or scenario.strung:
        return LostAtRating()
    return lost_at_rating(design)


def _wired(
    losses: Losses,
    at_rating: LostAtRating,
    design: Design,
    drawn_w: FloatArray,
) -> Losses:
    """Return the losses with the design's own conductors in the place of the usual allowance.

    A conductor takes the square of what flows: of the year's energy the share at the rating times
    the energy-weighted mean of the power over the rating.
    """

    def share(frac: float, power_w: FloatArray, rated_w: float) -> float:
        return frac * rated_w * squares_over_rating(power_w, rated_w) / float(power_w.sum())

    if drawn_w.sum() <= 0:
        return losses
    if at_rating.dc_frac is not None:
        dc = share(at_rating.dc_frac, drawn_w, strung_w(design))
        losses = replace(losses, wiring_frac=dc)
    if at_rating.ac_frac is not None:
        p_ac_w = design.p_ac_w
        ac = share(at_rating.ac_frac, np.minimum(drawn_w, p_ac_w), p_ac_w)
        losses = replace(losses, ac_wiring_frac=ac)
    return losses


def exported(desk: Desk, job: Job, steps: int) -> tuple[float | None, FloatArray | None]:
    """Return the most that may leave the house, W, and (steps,) what it uses meanwhile.

    Nothing where no limit is held; no use where none is known.
    """
    export_kw = job.brief.grid.export_limit_kw if job.brief.grid else None
    if export_kw is None:
        return None, None
    return export_kw * 1000, house_w(desk, job, steps)


def usual_warming() -> Warming:
    """Return how a cabinet warms where its sheet is silent."""
    heat = tables.load("inverter-heat")
    return Warming(
        heat.number("value", quantity="rise above the air at the rating, K"),
        heat.number("value", quantity="lag of the cabinet, minutes"),
    )


def own_point_of(design: Design, scenario: Scenario = AS_IT_IS) -> OwnPoint | None:
    """Return what stands at the modules: as the scenario has it, or as the option has it.

    Raises
    ------
    NotFound
        If the job carries no datasheet of it.
    """
    if scenario.own_point is not None or scenario.strung:
        return scenario.own_point
    micro = design.microinverter
    if micro is not None:
        return OwnPoint(micro)
    optimizer = design.optimizer
    if optimizer is None:
        return None
    some = optimizer.kind is OptimizerKind.ADD_ON
    return OwnPoint(optimizer, design.option.electronics.fitted if some else ())


def losses_of(
    module: ModuleSheet, unit: OptimizerSheet | MicroinverterSheet | None = None
) -> Losses:
    """Return the usual losses, the module's own ageing where its datasheet grants one.

    Where each module has its own point nothing is lost to mismatch, and behind microinverters
    there is no DC run.
    """
    table = tables.load("usual-losses")

    def share(loss: str) -> float:
        return table.number("share_frac", loss=loss)

    micro = isinstance(unit, MicroinverterSheet)
    alone = micro or (isinstance(unit, OptimizerSheet) and unit.kind is OptimizerKind.SYSTEM)
    first, later = module.first_year_loss_frac, module.yearly_loss_frac
    return Losses(
        mismatch_frac=0.0 if alone else share("mismatch"),
        wiring_frac=0.0 if micro else share("DC wiring"),
        ac_wiring_frac=share("AC wiring"),
        first_year_frac=share("ageing in the first year") if first is None else first,
        yearly_frac=share("ageing in each later year") if later is None else later,
        outage_frac=share("standing still"),
    )


def _drawn(desk: Desk, design: Design, scenario: Scenario) -> DcOutput:
    own = own_point_of(design, scenario)
    weather = weather_of(desk, design.job)
    if not has_own_points(own):
        trackers = trackers_of(desk, design, scenario)
        return drawn_by_strings(trackers, design.trackers, len(weather.time))
    return drawn_at_modules(
        design, own, lambda groups: _lit(desk, design, groups, scenario), weather
    )


# Modules that share a tracker or lie on one array, with its number from 0.
Group = tuple[int, tuple[PlacedId, ...]]


def has_own_points(own: OwnPoint | None) -> TypeGuard[OwnPoint]:
    """Return whether every module has a converter of its own."""
    if own is None:
        return False
    return isinstance(own.unit, MicroinverterSheet) or own.unit.kind is OptimizerKind.SYSTEM


def drawn_at_modules(
    design: Design,
    own: OwnPoint,
    lit: Callable[[list[Group]], tuple[StringIrradiance, ...]],
    weather: WeatherYear,
) -> DcOutput:
    """Return what converters at every module draw of the light that ``lit`` puts on groups of them.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If a datasheet lacks what the model needs or contradicts itself.
    """
    steps = len(weather.time)
    if isinstance(own.unit, OptimizerSheet):
        groups = [(s.tracker_number - 1, s.module_ids) for s in design.option.strings]
        points = module_points(lit(groups), optimizer_converter(own.unit), weather)
        return drawn_by_optimizers(points, own.unit, design.trackers, steps)
    planes = [p for p in units_by_plane(design, own.unit.inputs) if p]
    groups = [(n, tuple(m for unit in p for m in unit)) for n, p in enumerate(planes)]
    points = module_points(lit(groups), micro_converter(own.unit), weather)
    return drawn_by_microinverters(points, [[len(unit) for unit in p] for p in planes], steps)


def trackers_of(
    desk: Desk, design: Design, scenario: Scenario = AS_IT_IS
) -> tuple[LoadedTracker, ...]:
    """Return the trackers with their strings' light, remembered whatever inverter they are on."""
    sheets, weather = design.array_sheets, weather_of(desk, design.job)
    # Optimizers change what a tracker takes of its strings, not the light on them.
    lit = replace(scenario, own_point=None, strung=False)
    own = own_point_of(design, scenario)

    def load(item: tuple[int, list[ModuleString]]) -> LoadedTracker:
        index, strings = item
        wired = tuple(s.module_ids for s in strings)
        key = (
            index,
            wired,
            weather_key(design.job),
            design.job.survey,
            design.option.arrays,
            sheets,
            lit,
        )

        def compute() -> LoadedTracker:
            groups = [(index, ids) for ids in wired]
            mine = _lit(desk, design, groups, lit)
            return loaded_tracker(index, mine, weather)

        return replace(desk.loaded.get(key, compute), helpers=helpers_of(own, wired))

    # The kernels let go of the interpreter, so that both cores work.
    with ThreadPoolExecutor() as pool:
        return tuple(pool.map(load, strings_by_tracker(design.option).items()))


def helpers_of(own: OwnPoint | None, wired: tuple[tuple[PlacedId, ...], ...]) -> Helpers | None:
    """Return the add-on optimizers on modules of the strings of a tracker, if any."""
    if own is None or not isinstance(own.unit, OptimizerSheet):
        return None
    there = set(own.module_ids)
    return Helpers(own.unit, np.array([m in there for ids in wired for m in ids]))


def _lit(
    desk: Desk,
    design: Design,
    groups: list[Group],
    scenario: Scenario,
) -> tuple[StringIrradiance, ...]:
    """Return modules by tracker or array with the light on each of their substrings."""
    sky, arrays = array_lights(desk, design, QUICK, scenario.without)
    return lit_groups(sky, arrays, groups, darkest=scenario.darkest, free_of=scenario.free_of)


def lit_groups(
    sky: SiteSky,
    arrays: Sequence[ArrayLight],
    groups: Sequence[Group],
    *,
    darkest: bool = False,
    free_of: frozenset[Step] = frozenset(),
) -> tuple[StringIrradiance, ...]:
    """Return groups of modules with their light; the rest as ``lit_string``."""
    lit = {m.id: (a, x) for a in arrays for m, x in zip(a.modules, a.lights, strict=True)}
    return tuple(
        lit_string(
            [lit[m] for m in ids],
            sky,
            index,
            heat_loss(lit[ids[0]][0].laid.array.mounting),
            darkest=darkest,
            free_of=free_of,
        )
        for index, ids in groups
    )


def heat_loss(mounting: Mounting) -> HeatLoss:
    """Return how a mounting cools its modules."""
    table = tables.load("heat-loss")
    return HeatLoss(
        table.number("constant_w_per_m2k", mounting=mounting.value),
        table.number("per_wind_w_per_m2k_per_m_per_s", mounting=mounting.value),
    )
