"""Speed as ratios in one run: ``make bench``.

Absolute times of a shared machine swing; the ratios against a fair baseline in the same
run do not.  Aims stand beside each figure.
"""

import gzip
import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pandas as pd
from playwright.sync_api import Page, sync_playwright
from pvlib import iam, irradiance, pvsystem, solarposition, temperature

from ridge_tally.editing.design import design_for

sys.path.insert(0, str(Path(__file__).parents[1] / "tests" / "browser"))
sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

from live import live_app

import array_step
import clipping_step
import loading_step
import strings_step
import sun_step
import survey
import year_step
from browser import CONTEXT, launch
from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.editing.apply import apply_edit
from ridge_tally.views.brief.report import brief_report
from ridge_tally.views.option import option_report

STATIC = Path(__file__).parents[1] / "src" / "ridge_tally" / "static"
TOGGLES = 200
TOGGLE_AND_WAIT = """
async (name) => {
  const box = [...document.querySelectorAll('[role=checkbox]')].find((e) => e.ariaLabel === name);
  const before = box.getAttribute('aria-checked');
  const start = performance.now();
  box.dispatchEvent(new MouseEvent('click', { bubbles: true }));
  while (box.getAttribute('aria-checked') === before) await new Promise((r) => setTimeout(r, 1));
  return performance.now() - start;
}
"""


def median_s(work: Callable[[], object], times: int = 5) -> float:
    """Median time of some calls, seconds."""
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        taken.append(time.perf_counter() - start)
    return statistics.median(taken)


def year_of_one_module_by_script(
    weather: WeatherYear, location, diode, tilt: float, azimuth: float
) -> float:
    """What a careful script does today for one module: kWh of DC at its own maximum."""
    index = pd.DatetimeIndex(weather.time).tz_localize("Etc/GMT+7")
    sun = solarposition.get_solarposition(
        index, location.latitude_deg, location.longitude_deg, location.elevation_m
    )
    total = irradiance.get_total_irradiance(
        tilt, azimuth, sun["apparent_zenith"], sun["azimuth"],
        pd.Series(weather.dni_w_per_m2, index), pd.Series(weather.ghi_w_per_m2, index),
        pd.Series(weather.dhi_w_per_m2, index), irradiance.get_extra_radiation(index), model="perez",
    )  # fmt: skip
    poa = total["poa_global"].fillna(0)
    through = iam.physical(irradiance.aoi(tilt, azimuth, sun["apparent_zenith"], sun["azimuth"]))
    effective = total["poa_direct"] * through + total["poa_diffuse"].fillna(0) * 0.95
    cell = temperature.faiman(poa, weather.air_degc, weather.wind_m_per_s, 24, 5)
    terms = pvsystem.calcparams_desoto(
        effective, cell, diode.alpha_isc_a_per_degc, diode.thermal_v, diode.light_current_a,
        diode.saturation_current_a, diode.shunt_ohm, diode.series_ohm,
        EgRef=diode.gap_ev,
    )  # fmt: skip
    return float(np.nansum(pvsystem.singlediode(*terms)["p_mp"]) / 1000)


def core() -> None:
    """Bills, edits and checks."""
    option = option_a(SAMPLE)
    brief_s = median_s(lambda: brief_report(SAMPLE), 15)
    print(f"twelve bills read and the need told: {brief_s * 1000:.1f} ms (aim under 10 ms)")
    toggle = ToggleModules(option.id, ("south-3",))
    edit_s = median_s(lambda: apply_edit(SAMPLE, toggle, SHELF), 15)
    report_s = median_s(lambda: option_report(design_for(SAMPLE, option)), 15)
    print(
        f"a toggle in the core: edit {edit_s * 1000:.1f} ms, checks of one option {report_s * 1000:.1f} ms (aim under 50 ms)"
    )


def in_browser(page: Page, address: str) -> None:
    """First paint, and the time from a click to its checks on the screen."""
    page.goto(f"{address}/jobs/juniper-bench/a/array")
    page.get_by_text("To the meter", exact=True).wait_for()
    start = time.perf_counter()
    page.goto(f"{address}/jobs/juniper-bench/a/survey")
    page.get_by_label("Eave", exact=True).wait_for()
    print(f"first useful paint of a job: {time.perf_counter() - start:.2f} s (aim under 1.5 s)")
    page.goto(f"{address}/jobs/juniper-bench/a/array")
    page.get_by_text("To the meter", exact=True).wait_for()
    page.get_by_role("checkbox", name="Module 1", exact=True).wait_for()
    taken = [page.evaluate(TOGGLE_AND_WAIT, f"Module {1 + i % 28}") for i in range(TOGGLES)]
    p95 = statistics.quantiles(taken, n=20)[18]
    print(
        f"click to checks in the Tally, {TOGGLES} toggles: median {statistics.median(taken):.0f} ms, "
        f"p95 {p95:.0f} ms (aim under 100 ms)"
    )


def sizes() -> None:
    """Initial script, gzipped."""
    page = (STATIC / "index.html").read_text("utf-8")
    scripts = [p for p in (STATIC / "assets").glob("*.js") if p.name in page]
    size = sum(len(gzip.compress(p.read_bytes(), 9)) for p in scripts)
    print(f"initial JavaScript: {size / 1000:.0f} kB gzipped (aim under 300 kB)")


def main() -> None:
    core()
    survey.core(median_s)
    array_step.core(median_s)
    sun_step.core(median_s)
    strings_step.core(median_s)
    loading_step.core(median_s)
    year_step.core(median_s, year_of_one_module_by_script)
    year_step.seasons(median_s)
    clipping_step.run(median_s)
    sizes()
    with (
        tempfile.TemporaryDirectory() as folder,
        live_app(Path(folder), whole=True) as address,
        sync_playwright() as playwright,
    ):
        browser = launch(playwright)
        in_browser(browser.new_context(**CONTEXT).new_page(), address)
        survey.in_browser(browser.new_context(**CONTEXT).new_page(), address)
        array_step.in_browser(browser.new_context(**CONTEXT).new_page(), address)
        browser.close()


if __name__ == "__main__":
    main()
