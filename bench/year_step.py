"""The year's speed: strings by their summed curves against what an expert scripts today."""

import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import numpy as np
from pvlib import pvsystem

from jobs import FULL, SHELF, option_a, workspace_in
from ridge_tally.core.energy.diode_fit import DiodeModel, fit_diode
from ridge_tally.core.energy.inverter import ac_side
from ridge_tally.core.energy.lit import StringIrradiance, cell_degc
from ridge_tally.core.energy.trackers import drawn_by_strings, loaded_tracker
from ridge_tally.core.energy.year import simulate_year
from ridge_tally.core.equipment import Warming
from ridge_tally.core.job.array import Position
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.array.tables import SetSeasons
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.system import tracker_inputs
from ridge_tally.core.kernels.strings import warm
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.demo.kiln_yard import YARD, kiln_yard
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.simulation.plant import plant_of, trackers_of
from ridge_tally.simulation.weather import weather_of
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.strings.own_point import own_point_report
from ridge_tally.views.loading.year import year_report

# Hours summed by whole arrays; the year has so many times more.
SAMPLED_HOURS = 40


def core(median_s: Callable[..., float], script: Callable[..., float]) -> None:
    """The sample's year; ``script`` is the per-module year of a careful script."""
    start = time.perf_counter()
    warm()
    print(f"kernels of strings compiled or loaded: {time.perf_counter() - start:.2f} s")
    option, plane = option_a(FULL), FULL.survey.planes[0]
    diode = fit_diode(FULL.equipment.modules[0])
    with tempfile.TemporaryDirectory() as folder:
        workspace = workspace_in(Path(folder))
        weather = weather_of(workspace.desk, FULL)
        plant = plant_of(workspace.desk, design_for(FULL, option))
        trackers = trackers_of(workspace.desk, design_for(FULL, option))
    modules = sum(s.modules for t in trackers for s in t.strings)
    inverter = FULL.equipment.inverters[0]

    def electrical() -> None:
        loaded = [loaded_tracker(t.index, t.strings, weather) for t in trackers]
        drawn = drawn_by_strings(loaded, tracker_inputs((inverter,)), len(weather.time))
        side = ac_side(inverter, Warming(25.0, 40.0))
        simulate_year(replace(plant, drawn=drawn, sides=(side,)), weather)

    ours_s = median_s(electrical)
    by_arrays_s = median_s(lambda: by_arrays(trackers[0].strings, diode, weather), 3)
    # Of the first tracker's sampled hours to all strings' sun-up hours.
    lit = trackers[0].strings[0].reaching_w_per_m2
    by_arrays_s *= int((lit.max(axis=0) > 1.0).sum()) / SAMPLED_HOURS
    by_arrays_s *= sum(len(t.strings) for t in trackers) / len(trackers[0].strings)
    location = location_of(FULL.site)
    script_s = modules * median_s(
        lambda: script(weather, location, diode, plane.slope_deg, plane.azimuth_deg), 3
    )
    print(
        f"electrical year of {modules} shaded modules: {ours_s:.2f} s; hours summed by whole arrays "
        f"{by_arrays_s:.1f} s: {by_arrays_s / ours_s:.0f} times as long (floor 30, aim 80); the "
        f"per-module script {script_s:.1f} s: {script_s / ours_s:.0f} times (floor 15, aim 60)"
    )
    mine = option_a(FULL).inverter_id
    twin = next(i for i in SHELF.inverters if i.id != mine and len(i.trackers) > 1)
    other = apply_edit(FULL, ChooseInverter(option_a(FULL).id, twin.id), SHELF)
    other = _same_strings(other)
    with tempfile.TemporaryDirectory() as folder:
        fresh = [workspace_in(Path(folder) / str(i)) for i in range(6)]
        turns = iter(fresh)
        whole_s = median_s(lambda: year_report(next(turns).desk, design_for(FULL, option)), 3)
        known = fresh[0]
        year_report(known.desk, design_for(FULL, option))
        begun = time.perf_counter()
        year_report(known.desk, design_for(other, option_a(other)))
        changed_s = time.perf_counter() - begun
        begun = time.perf_counter()
        own_point_report(known.desk, design_for(FULL, option))
        ways_s = time.perf_counter() - begun
    print(
        f"whole hourly year with its weather, sky and shade: {whole_s:.2f} s; both scripts together "
        f"{(by_arrays_s + script_s) / whole_s:.0f} times as long (floor 8, aim 25); another inverter "
        f"on the same strings {changed_s * 1000:.0f} ms, {whole_s / changed_s:.0f} times faster (aim 8)"
    )
    print(
        f"four more years of optimizers and microinverters {ways_s:.2f} s, "
        f"{ways_s / whole_s:.1f} times the first one"
    )


def seasons(median_s: Callable[..., float]) -> None:
    """A ground array's year at four tilts against its year at one."""
    positions = (Position(75, 30.0), Position(115, 10.0), Position(230, 30.0), Position(270, 50.0))
    kiln = kiln_yard(SHELF)
    changed = apply_edit(kiln, SetSeasons(option_a(kiln).id, YARD, positions), SHELF)
    with tempfile.TemporaryDirectory() as folder:
        fresh = iter([workspace_in(Path(folder) / str(i)) for i in range(6)])
        once_s = median_s(
            lambda: hourly_year(next(fresh).desk, design_for(kiln, option_a(kiln))), 3
        )
        four_s = median_s(
            lambda: hourly_year(next(fresh).desk, design_for(changed, option_a(changed))), 3
        )
    print(
        f"year of ground tables: {once_s:.2f} s at one tilt, {four_s:.2f} s at four of three angles: "
        f"{four_s / once_s:.1f} times (no more than the angles, 3)"
    )


def _same_strings(job: Job) -> Job:
    """The job with the sample's strings, whatever the planner would thread for its inverter."""
    option = replace(option_a(job), strings=option_a(FULL).strings)
    return replace(job, options=(option, *job.options[1:]))


def by_arrays(lit: tuple[StringIrradiance, ...], diode: DiodeModel, weather: WeatherYear) -> float:
    """Seconds' worth of work: each hour every substring's curve at 200 currents, then the sum."""
    best = 0.0
    for string in lit:
        light = string.reaching_w_per_m2
        cells = cell_degc(string.warming_w_per_m2, weather, string.heat)
        up = np.nonzero(light.max(axis=0) > 1.0)[0]
        for n in up[:: max(1, len(up) // SAMPLED_HOURS)][:SAMPLED_HOURS]:
            terms = pvsystem.calcparams_desoto(
                light[:, n], cells[n], diode.alpha_isc_a_per_degc, diode.thermal_v,
                diode.light_current_a, diode.saturation_current_a, diode.shunt_ohm, diode.series_ohm,
        EgRef=diode.gap_ev,
            )  # fmt: skip
            il, i0, rs, rsh, a = (
                np.broadcast_to(np.asarray(t, float), light[:, n].shape) for t in terms
            )
            amps = np.linspace(0, il.max(), 200)
            volts = pvsystem.v_from_i(
                amps[None],
                il[:, None],
                i0[:, None],
                rs[:, None] / 3,
                rsh[:, None] / 3,
                a[:, None] / 3,
            )
            volts = np.maximum(np.where(np.isfinite(volts), volts, -0.5), -0.5)
            best += float((volts.sum(axis=0) * amps).max())
    return best
