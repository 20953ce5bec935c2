"""The year of an evenly lit array against the reference library's whole chain, and what
practitioners know of clipping beforehand.
"""

from dataclasses import replace

import numpy as np
import pandas as pd
import pytest
from pvlib import iam, irradiance, pvsystem, solarposition, temperature
from pvlib.atmosphere import get_relative_airmass

from plants import WIDE, string_plant
from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.lit import HeatLoss, StringIrradiance
from ridge_tally.core.energy.trackers import loaded_tracker
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import YearResult, simulate_year
from ridge_tally.core.sky.plane_irradiance import plane_light
from ridge_tally.core.sky.stand_in_year import stand_in_year
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.simulators.weather_service import normals_at

PLACE = Location(40.0, -105.0, 1600.0, -7.0)
WEATHER = stand_in_year(normals_at("high-desert", PLACE.latitude_deg), PLACE)
SUN = sun_path(WEATHER.time, PLACE)
SHELF = sample_shelf()
SHEET, DIODE = SHELF.modules[1], fit_diode(SHELF.modules[1])


def string(azimuth_deg: float, modules: int, tilt_deg: float = 30.0) -> StringIrradiance:
    light = plane_light(WEATHER, SUN, tilt_deg, azimuth_deg)
    cells = np.repeat(light.effective_w_per_m2[None], modules * SHEET.bypass_diodes, axis=0)
    return StringIrradiance(
        0, (SHEET,) * modules, cells, light.poa_w_per_m2, np.zeros(len(WEATHER.time)),
        ((Step.SUNLIGHT, light.poa_w_per_m2), (Step.GLASS, light.effective_w_per_m2)),
        HeatLoss(25.0, 6.84),
    )  # fmt: skip


def year_of(strings: list[StringIrradiance], ratio: float) -> YearResult:
    """On an inverter without losses or windows to speak of, loaded by a ratio."""
    modules = sum(s.modules for s in strings)
    inverter = replace(
        SHELF.inverters[0], p_ac_w=modules * SHEET.p_max_w / ratio, trackers=(WIDE,), v_start_v=1.0,
        night_w=0.0, derating=(),
    )  # fmt: skip
    tracker = loaded_tracker(0, strings, WEATHER)
    return simulate_year(string_plant((tracker,), inverter, WEATHER), WEATHER)


def by_the_library(tilt: float, azimuth: float) -> float:
    """Kilowatt-hours of DC of one module, each step the library's own."""
    at = pd.DatetimeIndex(WEATHER.time).tz_localize("Etc/GMT+7")
    sun = solarposition.get_solarposition(
        at, PLACE.latitude_deg, PLACE.longitude_deg, PLACE.elevation_m, temperature=12.0
    )
    zenith, around = sun["apparent_zenith"].to_numpy(), sun["azimuth"].to_numpy()
    total = irradiance.get_total_irradiance(
        tilt, azimuth, zenith, around, WEATHER.dni_w_per_m2, WEATHER.ghi_w_per_m2,
        WEATHER.dhi_w_per_m2, dni_extra=irradiance.get_extra_radiation(at).to_numpy(),
        airmass=get_relative_airmass(zenith), albedo=0.2, model="perez",
    )  # fmt: skip
    glass = iam.marion_diffuse("physical", tilt)
    effective = (
        total["poa_direct"] * iam.physical(irradiance.aoi(tilt, azimuth, zenith, around))
        + total["poa_sky_diffuse"] * glass["sky"]
        + total["poa_ground_diffuse"] * glass["ground"]
    )
    effective, poa = np.nan_to_num(effective), np.nan_to_num(total["poa_global"])
    cells = temperature.faiman(poa, WEATHER.air_degc, WEATHER.wind_m_per_s, 25.0, 6.84)
    lit = effective > 1.0
    terms = pvsystem.calcparams_desoto(
        effective[lit], cells[lit], DIODE.alpha_isc_a_per_degc, DIODE.thermal_v,
        DIODE.light_current_a, DIODE.saturation_current_a, DIODE.shunt_ohm, DIODE.series_ohm,
        EgRef=DIODE.gap_ev,
    )  # fmt: skip
    return float(pvsystem.singlediode(*terms, method="lambertw")["p_mp"].sum() / 1000)


@pytest.mark.parametrize(("tilt", "azimuth"), [(30.0, 180.0), (20.0, 265.0)])
def test_an_even_array_gives_what_the_library_s_chain_gives(tilt: float, azimuth: float) -> None:
    ours = year_of([string(azimuth, 10, tilt)], 0.5).dc_w.sum() / 1000 / 10
    assert ours == pytest.approx(by_the_library(tilt, azimuth), rel=1e-3)


def test_an_east_and_a_west_half_hardly_clip_where_one_south_plane_does() -> None:
    # Common practice, no source: at a loading of 1.5.
    south = year_of([string(180.0, 20)], 1.5)
    split = year_of([string(90.0, 10), string(270.0, 10)], 1.5)
    assert south.clipped_frac > 0.04
    assert split.clipped_frac < 0.2 * south.clipped_frac


def test_in_midwinter_a_loading_of_1_2_goes_most_days_without_clipping() -> None:
    # Common practice, no source: at about 40° N.
    year = year_of([string(180.0, 20)], 1.2)
    days = year.clipped_w.reshape(365, 24).sum(axis=1) > 0
    winter = np.r_[days[334:365], days[0:21]]
    assert winter.mean() < 0.5
    assert days.sum() > 20
