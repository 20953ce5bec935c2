"""The hourly year: identities that hold for any plant, and directions known beforehand."""

from dataclasses import replace

import numpy as np
import pytest

from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.inverter import clipped_by_minutes_w, loss_curve, unlimited_ac_w
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import (
    DcLosses,
    HeatLoss,
    LitString,
    LoadedTracker,
    Plant,
    loaded_tracker,
    simulate_year,
)
from ridge_tally.core.equipment import EfficiencyPoint, InverterSheet
from ridge_tally.core.errors import MissingDatum, OutOfRange
from ridge_tally.core.loading.clipped_day import limit_costs, loading_days
from ridge_tally.core.sky.minutes import beam_quantiles
from ridge_tally.core.sky.plane_irradiance import light_parts, plane_light
from ridge_tally.core.sky.stand_in_year import stand_in_year
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.simulators.weather_service import normals_at

SITE = Location(36.2, -105.6, 2150, -7)
WEATHER = stand_in_year(normals_at("high-desert", SITE.latitude_deg), SITE)
SHELF = sample_shelf()
INVERTER = SHELF.inverters[4]


SUN = sun_path(WEATHER.time, SITE)
MINUTES = beam_quantiles(WEATHER, SUN, SITE.elevation_m)


def lit_strings(azimuth_deg: float) -> tuple[LitString, ...]:
    """One string of 13 on each of two trackers, free light, two per cent of dirt."""
    light = plane_light(WEATHER, SUN, 26.6, azimuth_deg)
    poa, reaching = light.poa_w_per_m2, light.effective_w_per_m2 * 0.98
    left = (
        (Step.SUNLIGHT, poa),
        (Step.SHADE, poa),
        (Step.DIRT, poa * 0.98),
        (Step.GLASS, reaching),
    )
    substrings = np.repeat(reaching[None], 39, axis=0)
    parts = light_parts(WEATHER, SUN, 26.6, azimuth_deg)
    direct = np.divide(parts.beam_w_per_m2, poa, out=np.zeros_like(poa), where=poa > 0)
    return tuple(
        LitString(tracker, 13, substrings, poa, direct, left, HeatLoss(24.0, 5.0))
        for tracker in (0, 1)
    )


def loaded(strings: tuple[LitString, ...]) -> tuple[LoadedTracker, ...]:
    diode = fit_diode(SHELF.modules[1])
    return tuple(loaded_tracker(s.tracker_index, (s,), diode, 3, WEATHER) for s in strings)


def plant(azimuth_deg: float = 176.0, inverter: InverterSheet = INVERTER, **change) -> Plant:
    made = Plant(
        module_w=SHELF.modules[1].p_max_w,
        inverter=inverter,
        trackers=loaded(lit_strings(azimuth_deg)),
        losses=DcLosses(0.01, 0.015),
        beam_quantiles=MINUTES,
    )
    return replace(made, **change)


YEAR = simulate_year(plant(), WEATHER)


def test_energy_is_conserved_hour_by_hour() -> None:
    assert np.array_equal(YEAR.ac_unlimited_w - YEAR.clipped_w, YEAR.ac_w)
    assert sum(YEAR.monthly_kwh) == pytest.approx(YEAR.energy_kwh, rel=1e-12)
    assert (YEAR.ac_unlimited_w <= YEAR.dc_w).all()
    assert YEAR.ac_w.max() == INVERTER.p_ac_w


def test_dark_hours_draw_the_night_watts() -> None:
    assert YEAR.ac_w.min() == -INVERTER.night_w


def test_a_higher_limit_never_clips_more() -> None:
    clipped = [c.clipped_kwh for c in limit_costs(YEAR)]
    assert clipped == sorted(clipped, reverse=True)
    assert clipped[-1] == 0
    below = [c for c in limit_costs(YEAR) if c.limit_kw * 1000 <= INVERTER.p_ac_w][-1]
    assert below.clipped_kwh >= YEAR.clipped_kwh


def test_south_beats_west_and_west_beats_north() -> None:
    facing = [simulate_year(plant(a), WEATHER).energy_kwh for a in (176.0, 266.0, 356.0)]
    assert facing[0] > facing[1] > facing[2]


def test_half_the_array_gives_half_where_nothing_clips() -> None:
    big = replace(INVERTER, p_ac_w=50_000.0)
    dc_both = simulate_year(plant(inverter=big), WEATHER).dc_w.sum()
    one = plant(inverter=big)
    dc_one = simulate_year(replace(one, trackers=one.trackers[:1]), WEATHER).dc_w.sum()
    assert dc_both == pytest.approx(2 * dc_one, rel=1e-12)


def test_losses_take_their_product() -> None:
    clean = simulate_year(plant(losses=DcLosses(0.0, 0.0)), WEATHER).dc_w.sum()
    lossy = simulate_year(plant(losses=DcLosses(0.01, 0.015)), WEATHER).dc_w.sum()
    assert lossy == pytest.approx(clean * 0.99 * 0.985, rel=1e-12)


def test_days_are_the_ones_their_titles_say() -> None:
    days = {d.title: d for d in loading_days(YEAR, WEATHER, SITE.latitude_deg)}
    assert set(days) == {"Most clipped day", "Clear summer day", "Clear winter day"}
    daily = YEAR.clipped_w.reshape(365, 24).sum(axis=1) / 1000
    assert days["Most clipped day"].clipped_kwh == pytest.approx(daily.max())
    assert abs(days["Clear summer day"].day_of_year - 171) <= 12


def test_nothing_clipped_leaves_no_most_clipped_day() -> None:
    year = simulate_year(plant(inverter=replace(INVERTER, p_ac_w=50_000.0)), WEATHER)
    assert next(d.title for d in loading_days(year, WEATHER, 36.2)) == "Clear summer day"


@pytest.mark.parametrize("sheet", SHELF.inverters, ids=lambda i: i.id)
def test_loss_curve_meets_the_datasheet_efficiencies(sheet: InverterSheet) -> None:
    for point in sheet.efficiency:
        dc = np.array([point.load_frac * sheet.p_ac_w / point.efficiency_frac])
        efficiency = unlimited_ac_w(dc, sheet)[0] / dc[0]
        # Three terms through seven rounded points: within half a per cent of each.
        assert efficiency == pytest.approx(point.efficiency_frac, abs=0.006)


def test_efficiency_of_a_whole_or_of_two_points_is_refused() -> None:
    points = tuple(EfficiencyPoint(load, 1.02) for load in (0.1, 0.5, 1.0))
    with pytest.raises(OutOfRange, match=r"1\.02"):
        loss_curve(points)
    with pytest.raises(MissingDatum, match="efficiency"):
        loss_curve(INVERTER.efficiency[:2])


def test_a_module_without_coefficients_cannot_be_simulated_and_says_so() -> None:
    sheet = replace(SHELF.modules[0], beta_voc_frac_per_degc=None)
    with pytest.raises(MissingDatum, match="voltage coefficient"):
        fit_diode(sheet)


def test_the_waterfall_ends_at_the_meter_and_nothing_is_unnamed() -> None:
    first, last = YEAR.stages[0], YEAR.stages[-1]
    assert (first.step, last.step) == (Step.SUNLIGHT, Step.LIMIT)
    assert last.after_kwh == pytest.approx(YEAR.energy_kwh, abs=1e-6)
    told = first.after_kwh + sum(s.change_kwh for s in YEAR.stages)
    assert told == pytest.approx(YEAR.energy_kwh, abs=1e-6)
    # By hand: dirt is two per cent of what comes in, wiring one and a half.
    shares = {s.step: s.share_frac for s in YEAR.stages}
    assert shares[Step.DIRT] == pytest.approx(-0.02)
    assert shares[Step.WIRING] == pytest.approx(-0.015)
    assert shares[Step.UNEVEN] == pytest.approx(0, abs=1e-6)
    assert -0.12 < shares[Step.HEAT] < 0


def test_a_shaded_substring_costs_its_string_more_than_its_share_of_the_light() -> None:
    big = replace(INVERTER, p_ac_w=50_000.0)
    even = plant(inverter=big)
    shaded = tuple(
        replace(
            s,
            reaching_w_per_m2=s.reaching_w_per_m2 * np.where(np.arange(39) < 6, 0.6, 1.0)[:, None],
        )
        for s in lit_strings(176.0)
    )
    whole, less = (
        simulate_year(p, WEATHER) for p in (even, replace(even, trackers=loaded(shaded)))
    )
    lost = 1 - less.dc_w.sum() / whole.dc_w.sum()
    # 6 of 39 substrings at 60 % are 6.2 % of the light.  At most the string bypasses them: 15.4 %
    # of its voltage and their diodes'.
    assert 0.062 < lost < 0.17
    uneven = next(s for s in less.stages if s.step is Step.UNEVEN)
    assert uneven.share_frac < -0.03


def test_an_option_without_strings_draws_its_night_watts() -> None:
    idle = simulate_year(plant(trackers=()), WEATHER)
    assert idle.energy_kwh == pytest.approx(-INVERTER.night_w * 8.76)


def test_minutes_keep_the_hour_s_mean_and_clip_no_less_than_it() -> None:
    assert MINUTES.mean(axis=1) == pytest.approx(np.ones(len(MINUTES)))
    assert YEAR.clipped_most_kwh > YEAR.clipped_kwh
    # Even hours: the band closes.
    even = np.ones_like(MINUTES)
    same = replace(YEAR, beam_quantiles=even)
    assert same.clipped_most_kwh == pytest.approx(YEAR.clipped_kwh)
    # By hand: half the light at 1.5, half at 0.5 of 8 kW over a limit of 9 clips half of 3 kW.
    cut = clipped_by_minutes_w(np.array([8000.0]), np.ones(1), np.array([[0.5, 1.5]]), 9000.0)
    assert cut[0] == pytest.approx(1500.0)
