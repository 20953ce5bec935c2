"""What an inverter's trackers draw from their strings, with or without add-on optimizers."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.energy.lit import (
    DcOutput,
    StringIrradiance,
    banks_of,
    cell_degc,
    diode_of,
    direct_of,
    kwh_of,
    light_left,
)
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import OptimizerSheet
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.system import TrackerInput
from ridge_tally.core.kernels import modules as module_kernel
from ridge_tally.core.kernels.strings import BOUNDLESS, free_year, limited_year
from ridge_tally.core.sky.weather_year import WeatherYear, step_h

FloatArray = NDArray[np.float64]
# Modules without a converter, and a tracker that takes whatever there is.
NO_UNIT = (1.0, BOUNDLESS, BOUNDLESS)
NO_LIMITS = (0.0, BOUNDLESS, BOUNDLESS, 0.0)


@dataclass(frozen=True, slots=True, eq=False)
class Helpers:
    """Add-on optimizers of one kind on the modules marked ``fitted`` (m,), string by string."""

    sheet: OptimizerSheet
    fitted: NDArray[np.bool_]


@dataclass(frozen=True, slots=True, eq=False)
class LoadedTracker:
    """Strings on one tracker and where they would stand without its limits; (n,) W and V.

    ``refs`` (t, 8): the diode of each type of module; ``types`` (m,): of each substring.
    ``cool_w`` and ``own_w``: all substrings each at its own best, at 25 °C and as warm as they
    are.  ``free_w`` at ``volts_v``: the strings' best together, without optimizers;
    ``opens_v``: where they open.
    """

    index: int
    strings: tuple[StringIrradiance, ...]
    light_w_per_m2: FloatArray
    starts: NDArray[np.int64]
    cells_degc: FloatArray
    refs: FloatArray
    types: NDArray[np.int64]
    cool_w: FloatArray
    own_w: FloatArray
    free_w: FloatArray
    volts_v: FloatArray
    opens_v: FloatArray
    even: NDArray[np.bool_]
    helpers: Helpers | None = None

    @property
    def free_a(self) -> FloatArray:
        """(n,) A at the strings' best together, before any limit of the tracker."""
        out = np.zeros_like(self.free_w)
        return np.divide(self.free_w, self.volts_v, out=out, where=self.volts_v > 0)


def loaded_tracker(
    index: int, strings: Sequence[StringIrradiance], weather: WeatherYear
) -> LoadedTracker:
    """Return strings on a tracker, worked out as far as its own limits do not count.

    Raises
    ------
    MissingDatum, OutOfModelRange
        If a datasheet lacks what the model needs or contradicts itself.

    Notes
    -----
    Substrings by the single diode of De Soto et al. 2006, a bypass diode over each; strings on
    one current, parallel strings on one voltage.  See ``core.kernels.strings``; where modules of
    several types share a tracker, by the tabled curves of ``core.kernels.modules``.
    """
    light = np.ascontiguousarray(np.concatenate([s.reaching_w_per_m2 for s in strings]))
    starts = np.cumsum([0, *(len(s.reaching_w_per_m2) for s in strings)])
    cells = np.array([cell_degc(s.warming_w_per_m2, weather, s.heat) for s in strings])
    sheets = list(dict.fromkeys(sheet for s in strings for sheet in s.sheets))
    refs = np.array([diode_of(sheet) for sheet in sheets])
    types = np.array(
        [sheets.index(m) for s in strings for m in s.sheets for _ in range(m.bypass_diodes)]
    )
    lit = (light, starts, cells)
    alike = len(sheets) == 1
    free = free_year(*lit, refs[0]) if alike else _mixed_year(*lit, refs, types)
    return LoadedTracker(index, tuple(strings), *lit, refs, types, *free)


def _mixed_year(
    light: FloatArray,
    starts: NDArray[np.int64],
    cells: FloatArray,
    refs: FloatArray,
    types: NDArray[np.int64],
) -> tuple[FloatArray, ...]:
    """Return what ``free_year`` does, for strings with modules of several types."""
    cool, own = np.zeros(light.shape[1]), np.zeros(light.shape[1])
    for s, (first, end) in enumerate(pairwise(starts)):
        for t in np.unique(types[first:end]):
            mine = np.ascontiguousarray(light[first:end][types[first:end] == t])
            cool_t, own_t = module_kernel.own_year(mine, cells[s], refs[t])
            cool, own = cool + cool_t, own + own_t
    free, _, volts = module_kernel.helped_year(
        light, starts, cells, refs, types, 1, np.zeros(len(light), np.bool_), *NO_UNIT, *NO_LIMITS
    )
    return cool, own, free, volts, np.zeros_like(free), np.zeros(len(free), np.bool_)


@dataclass(frozen=True, slots=True, eq=False)
class Taken:
    """What a tracker draws, (n,): W, V, and W of the strings' best with their optimizers."""

    power_w: FloatArray
    volts_v: FloatArray
    best_w: FloatArray


def taken(tracker: LoadedTracker, at: TrackerInput) -> Taken:
    """Return what the tracker draws at the best point its window and current allow.

    Nothing where the strings open below the window or the start voltage.
    """
    sheet, helpers = at.sheet, tracker.helpers
    limits = (sheet.v_min_v, sheet.v_max_v, sheet.i_max_a, at.inverter.v_start_v)
    lit = (
        tracker.light_w_per_m2, tracker.starts, tracker.cells_degc, tracker.refs, tracker.types,
    )  # fmt: skip
    if helpers is not None and helpers.fitted.any():
        unit = helpers.sheet
        per = {int(ref[6]) for ref in tracker.refs}
        if len(per) > 1:
            raise OutOfRange(
                "Bypass diodes of the modules on one tracker",
                max(per),
                f"alike, as {min(per)}, where some have optimizers",
            )
        best_w, power_w, volts_v = module_kernel.helped_year(
            *lit, per.pop(), helpers.fitted, unit.efficiency_frac, unit.p_max_w,
            unit.i_out_max_a, *limits,
        )  # fmt: skip
        return Taken(power_w, volts_v, best_w)
    if len(tracker.refs) > 1:
        bare = np.zeros(len(tracker.types), np.bool_)
        best_w, power_w, volts_v = module_kernel.helped_year(*lit, 1, bare, *NO_UNIT, *limits)
        return Taken(power_w, volts_v, best_w)
    power_w, volts_v = limited_year(
        tracker.light_w_per_m2, tracker.starts, tracker.cells_degc, tracker.refs[0], tracker.free_w,
        tracker.volts_v, tracker.opens_v, tracker.even, *limits,
    )  # fmt: skip
    return Taken(power_w, volts_v, tracker.free_w)


def drawn_by_strings(
    trackers: Sequence[LoadedTracker],
    inputs: tuple[TrackerInput, ...],
    steps: int,
) -> DcOutput:
    """Return what string inverters draw by their inputs in a year of so many steps."""
    return drawn_as_taken([(t, taken(t, inputs[t.index])) for t in trackers], inputs, steps)


def drawn_as_taken(
    pairs: Sequence[tuple[LoadedTracker, Taken]],
    inputs: tuple[TrackerInput, ...],
    steps: int,
) -> DcOutput:
    """Return the same of trackers whose draw is known."""
    hours, none = step_h(steps), np.zeros(steps)
    found = {t.index: took for t, took in pairs}
    trackers = [t for t, _ in pairs]
    sources = [found[i].power_w if i in found else none for i in range(len(inputs))]
    volts = [found[i].volts_v if i in found else none for i in range(len(inputs))]
    whole = np.sum([t.power_w for t in found.values()], axis=0) if found else none

    def summed(powers: Sequence[FloatArray]) -> float:
        return sum(kwh_of(p, hours) for p in powers)

    helped: tuple[tuple[Step, float], ...] = ()
    if any(t.helpers is not None for t in trackers):
        helped = ((Step.OPTIMIZERS, summed([t.best_w for t in found.values()])),)
    return DcOutput(
        banks=banks_of(sources, volts, inputs),
        sources_w=tuple(sources),
        direct=direct_of([(t.strings, found[t.index].power_w) for t in trackers], steps),
        left=(
            *light_left([s for t in trackers for s in t.strings], hours),
            (Step.LOW_LIGHT, summed([t.cool_w for t in trackers])),
            (Step.HEAT, summed([t.own_w for t in trackers])),
            (Step.UNEVEN, summed([t.free_w for t in trackers])),
            *helped,
            (Step.TRACKER, kwh_of(whole, hours)),
        ),
    )
