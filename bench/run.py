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
from playwright.sync_api import sync_playwright
from pvlib import iam, irradiance, pvsystem, solarposition, temperature

from ridge_tally.editing.design import design_for

sys.path.insert(0, str(Path(__file__).parents[1] / "tests" / "browser"))
sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

from live import live_app

import array_step
import build_step
import clipping_step
import loading_step
import money_step
import proving_step
import sheets_step
import shell_step
import strings_step
import sun_step
import survey
import year_step
from browser import CONTEXT, launch
from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.energy.diode_fit import DiodeModel
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.sky.sun import Location
from ridge_tally.core.sky.weather_year import WeatherYear
from ridge_tally.editing.apply import apply_edit
from ridge_tally.views.brief.report import brief_report
from ridge_tally.views.option import option_report

STATIC = Path(__file__).parents[1] / "src" / "ridge_tally" / "static"


def median_s(work: Callable[[], object], times: int = 5) -> float:
    """Median time of some calls, seconds."""
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        taken.append(time.perf_counter() - start)
    return statistics.median(taken)


def year_of_one_module_by_script(
    weather: WeatherYear, location: Location, diode: DiodeModel, tilt: float, azimuth: float
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
    toggle = ToggleModules(option.id, (PlacedId("south-3"),))
    edit_s = median_s(lambda: apply_edit(SAMPLE, toggle, SHELF), 15)
    report_s = median_s(lambda: option_report(design_for(SAMPLE, option)), 15)
    print(
        f"a toggle in the core: edit {edit_s * 1000:.1f} ms, checks of one option {report_s * 1000:.1f} ms (aim under 50 ms)"
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
    build_step.core(median_s)
    build_step.wired(median_s)
    money_step.run(median_s)
    sheets_step.run(median_s)
    proving_step.run(median_s)
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
        browser = launch(playwright, one_thread=False)
        shell_step.in_browser(browser.new_context(**CONTEXT).new_page(), address)
        survey.in_browser(browser.new_context(**CONTEXT).new_page(), address)
        array_step.in_browser(browser.new_context(**CONTEXT).new_page(), address)
        browser.close()


if __name__ == "__main__":
    main()
