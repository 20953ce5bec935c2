"""Modules each at a point of their own: optimizers on every module, and microinverters."""

import os
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from itertools import accumulate, groupby, pairwise

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import (
    Bank,
    DcOutput,
    Direct,
    Left,
    StringIrradiance,
    banks_of,
    cell_degc,
    diode_of,
    direct_of,
    kwh_of,
    light_left,
)
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import MicroinverterSheet, ModuleSheet, OptimizerSheet
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.kernels import modules as kernel
from ridge_tally.core.sky.weather_year import WeatherYear, step_h

FloatArray = NDArray[np.float64]
# Modules handed to a core together.
AT_ONCE = 4
# Halvings of the span a string's current is looked for in.
HALVINGS = 40


@dataclass(frozen=True, slots=True)
class Converter:
    """What a converter at a module tracks: its window, the most current and where it starts."""

    v_min_v: float
    v_max_v: float
    i_max_a: float
    v_start_v: float


@dataclass(frozen=True, slots=True, eq=False)
class ModulePoints:
    """Modules of strings or arrays each with a converter; (m, n) W and kWh after each step."""

    groups: tuple[StringIrradiance, ...]
    taken_w: tuple[FloatArray, ...]
    volts_v: tuple[FloatArray, ...]
    left: Left


def module_points(
    groups: Sequence[StringIrradiance], converter: Converter, weather: WeatherYear
) -> ModulePoints:
    """Return what converters of their own take of each module, group by group.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If a datasheet lacks what the model needs or contradicts itself.
    """
    hours = weather.step_h
    limits = (converter.v_min_v, converter.v_max_v, converter.i_max_a, converter.v_start_v)

    def some(part: tuple[FloatArray, FloatArray, ModuleSheet]) -> tuple[FloatArray, ...]:
        light, cells, sheet = part
        per = sheet.bypass_diodes
        own = np.repeat(cells[None], len(light) // per, axis=0)
        found: tuple[FloatArray, ...] = kernel.own_points(light, per, own, diode_of(sheet), *limits)
        return found

    parts = [_parts(group, weather) for group in groups]
    # The kernel lets go of the interpreter, so that every core works.
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        done = [list(pool.map(some, group_parts)) for group_parts in parts]
    flat = [part for group in done for part in group]
    cool, own, best = (sum(kwh_of(part[k], hours) for part in flat) for k in range(3))
    taken = [np.concatenate([part[3] for part in group]) for group in done]
    volts = [np.concatenate([part[4] for part in group]) for group in done]
    left = (
        *light_left(groups, hours),
        (Step.LOW_LIGHT, cool),
        (Step.HEAT, own),
        (Step.UNEVEN, best),
    )
    return ModulePoints(tuple(groups), tuple(taken), tuple(volts), left)


def _parts(
    group: StringIrradiance, weather: WeatherYear
) -> list[tuple[FloatArray, FloatArray, ModuleSheet]]:
    """Return a few modules of a type each, with their light and how warm they are."""
    cells = cell_degc(group.warming_w_per_m2, weather, group.heat)
    light = np.ascontiguousarray(group.reaching_w_per_m2)
    parts, row = [], 0
    for sheet, run in groupby(group.sheets):
        left = len(list(run)) * sheet.bypass_diodes
        while left > 0:
            some = min(left, AT_ONCE * sheet.bypass_diodes)
            parts.append((light[row : row + some], cells, sheet))
            row, left = row + some, left - some
    return parts


def optimizer_converter(sheet: OptimizerSheet) -> Converter:
    """Return what an optimizer tracks; it starts where it tracks and names no current."""
    return Converter(sheet.v_in_min_v, sheet.v_in_max_v, np.inf, sheet.v_in_min_v)


def micro_converter(sheet: MicroinverterSheet) -> Converter:
    """Return what each input of a microinverter tracks."""
    return Converter(sheet.v_min_v, sheet.v_max_v, sheet.i_max_a, sheet.v_start_v)


def drawn_by_optimizers(
    points: ModulePoints,
    optimizer: OptimizerSheet,
    inputs: tuple[TrackerInput, ...],
    steps: int,
) -> DcOutput:
    """Return what inverters draw from strings in which every module has its optimizer.

    Notes
    -----
    An inverter holds each string at one voltage; its optimizers share one current.  Each gives
    all its module has as long as its own output voltage allows; one far brighter than the rest
    stands at that voltage and gives less.

    Raises
    ------
    MissingDatum
        If the optimizer's sheet names no string voltage.
    """
    if optimizer.string_v is None:
        raise MissingDatum("string voltage", optimizer.name, "Type what the inverter holds.")
    hours = step_h(steps)
    sources = [np.zeros(steps) for _ in inputs]
    given = 0.0
    for group, taken in zip(points.groups, points.taken_w, strict=True):
        kept = np.minimum(taken, optimizer.p_max_w) * optimizer.efficiency_frac
        string_w = series_of_optimizers_w(kept, optimizer, optimizer.string_v)
        given += kwh_of(string_w, hours)
        sources[group.tracker_index] += string_w
    # The inverter's own currents, at the voltage it holds.
    limited = tuple(
        np.minimum(s, t.sheet.i_max_a * optimizer.string_v)
        for s, t in zip(sources, inputs, strict=True)
    )
    whole = np.sum(limited, axis=0)
    return DcOutput(
        banks=banks_of(limited, [np.full(steps, optimizer.string_v)] * len(inputs), inputs),
        sources_w=limited,
        direct=_direct(points, steps),
        left=(*points.left, (Step.OPTIMIZERS, given), (Step.TRACKER, kwh_of(whole, hours))),
    )


def series_of_optimizers_w(
    kept_w: FloatArray, optimizer: OptimizerSheet, string_v: float
) -> FloatArray:
    """Return (n,): what a string of optimizers held at a voltage gives, of (m, n) W at each.

    Nothing where even all of them at their highest output do not reach the voltage.
    """
    whole = kept_w.sum(axis=0)
    if len(kept_w) * optimizer.v_out_max_v < string_v:
        return np.zeros_like(whole)
    low, high = np.zeros_like(whole), np.maximum(whole / string_v, 1e-9)

    def volts(amps: FloatArray) -> FloatArray:
        return np.asarray(np.minimum(kept_w / amps, optimizer.v_out_max_v).sum(axis=0))

    # The voltage of the string falls as its current grows; at the sum's own current none is cut.
    free = volts(high) >= string_v * (1 - 1e-9)
    top = high.copy()
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        enough = volts(np.maximum(middle, 1e-12)) >= string_v
        low, high = np.where(enough, middle, low), np.where(enough, high, middle)
    amps = np.minimum(np.where(free, top, low), optimizer.i_out_max_a)
    return np.asarray(np.where(whole > 0, amps * string_v, 0.0))


def drawn_by_microinverters(
    points: ModulePoints, on_units: Sequence[Sequence[int]], steps: int
) -> DcOutput:
    """Return what microinverters draw; ``on_units``: modules on each, group by group."""
    units: list[FloatArray] = []
    for taken, sizes in zip(points.taken_w, on_units, strict=True):
        firsts = [0, *accumulate(sizes)]
        units += [taken[first:end].sum(axis=0) for first, end in pairwise(firsts)]
    whole = np.sum(units, axis=0) if units else np.zeros(steps)
    at = np.zeros(steps)
    for taken, volts in zip(points.taken_w, points.volts_v, strict=True):
        at += (taken * volts).sum(axis=0)
    return DcOutput(
        banks=(
            Bank(
                np.array(units).reshape(-1, steps),
                np.divide(at, whole, out=np.zeros(steps), where=whole > 0),
            ),
        ),
        sources_w=tuple(t.sum(axis=0) for t in points.taken_w),
        direct=_direct(points, steps),
        left=(*points.left, (Step.TRACKER, kwh_of(whole, step_h(steps)))),
    )


def _direct(points: ModulePoints, steps: int) -> Direct:
    return direct_of(
        [((g,), t.sum(axis=0)) for g, t in zip(points.groups, points.taken_w, strict=True)], steps
    )
