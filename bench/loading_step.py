"""Loading's studies: a house with a battery, options side by side, the shelf on a roof."""

import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np

from jobs import FULL, SHELF, option_a, workspace_in
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.edits.loading.batteries import SetBattery
from ridge_tally.core.loading.house import BatteryEfficiency, Sun, house_year
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.simulation.house_load import house_load
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.loading.household import house_report
from ridge_tally.studies.loading.what_to_buy import what_to_buy
from ridge_tally.studies.loading.which import which


def by_script(made: np.ndarray, load: np.ndarray, usable: float, power: float) -> float:
    """What a careful script does today: the same battery, hour after hour in plain Python."""
    stored = bought = 0.0
    for sun, use in zip(made.tolist(), load.tolist(), strict=True):
        direct = min(max(sun, 0.0), use)
        taken = min(max(sun, 0.0) - direct, power, (usable - stored) / 0.95)
        stored += taken * 0.95
        given = min(use - direct, power - taken, stored * 0.95)
        stored -= given / 0.95
        bought += use - direct - given
    return bought


def core(median_s: Callable[..., float]) -> None:
    """Each against what is done today in the same run, or against its aim."""
    job = apply_edit(FULL, SetBattery(option_a(FULL).id, Coupling.AC, "10", "5"), SHELF)
    option = option_a(job)
    with tempfile.TemporaryDirectory() as folder:
        here = workspace_in(Path(folder))
        year, load = hourly_year(here.desk, design_for(job, option)), house_load(here.desk, job)
        assert load is not None
        made = year.before_export_w
        sun = Sun(made, year.clipped_w, year.limit_w, 1.0)
        battery, kept = Battery(Coupling.AC, 10.0, 5.0), BatteryEfficiency(0.95, 0.95)
        ours_s = median_s(lambda: house_year(sun, load.power_w, None, battery, kept), 9)
        script_s = median_s(lambda: by_script(made, load.power_w, 10_000.0, 5000.0), 5)
        begun = time.perf_counter()
        house_report(here.desk, design_for(job, option))
        first_s = time.perf_counter() - begun
        again_s = median_s(lambda: house_report(here.desk, design_for(job, option)), 5)
        print(
            f"a battery's year: {ours_s * 1000:.2f} ms, a plain loop takes {script_s / ours_s:.0f} times "
            f"as long; the house with every size {first_s:.2f} s, again {again_s * 1000:.0f} ms"
        )
        begun = time.perf_counter()
        *_, _ = which(here.desk, design_for(job, option))
        which_s = time.perf_counter() - begun
        begun, found_s = time.perf_counter(), 0.0
        for step in what_to_buy(here.desk, design_for(job, option)):
            if step.count and not found_s:
                found_s = time.perf_counter() - begun
            if step.looked_at == 3:
                break
        three_s = time.perf_counter() - begun
        print(
            f"which inverter, how many, which way: {which_s:.1f} s (aim 15 s); what to buy: the first "
            f"after {found_s:.1f} s (aim 1 s), three modules with 40 inverters {three_s:.1f} s"
        )
