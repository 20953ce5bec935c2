"""The hourly year: identities that hold for any plant, and directions known beforehand."""

from dataclasses import replace

import numpy as np
import pytest

from plants import USUAL, string_plant
from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.inverter import ac_side
from ridge_tally.core.energy.lit import HeatLoss, StringIrradiance
from ridge_tally.core.energy.trackers import LoadedTracker, loaded_tracker
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.energy.year import (
    Losses,
    Plant,
    YearResult,
    clipping_band_kwh,
    energy_by_age_kwh,
    simulate_year,
)
from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.loading.at_work import at_work
from ridge_tally.core.loading.clipped_day import clipped_kwh_at, limit_costs, loading_days
from ridge_tally.core.loading.clipping import clip_calendar
from ridge_tally.core.sky.plane_irradiance import light_parts, plane_light
from ridge_tally.core.sky.stand_in_year import stand_in_year
from ridge_tally.core.sky.sun import Location, sun_path
from ridge_tally.simulators.weather_service import normals_at

SITE = Location(36.2, -105.6, 2150, -7)
WEATHER = stand_in_year(normals_at("high-desert", SITE.latitude_deg), SITE)
SHELF = sample_shelf()
INVERTER = SHELF.inverters[4]
SUN = sun_path(WEATHER.time, SITE)
LOSSES = Losses(mismatch_frac=0.01, wiring_frac=0.015)


def lit_strings(azimuth_deg: float) -> tuple[StringIrradiance, ...]:
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
        StringIrradiance(
            tracker, (SHELF.modules[1],) * 13, substrings, poa, direct, left, HeatLoss(24.0, 5.0)
        )
        for tracker in (0, 1)
    )


def loaded(strings: tuple[StringIrradiance, ...]) -> tuple[LoadedTracker, ...]:
    return tuple(loaded_tracker(s.tracker_index, (s,), WEATHER) for s in strings)


SOUTH = loaded(lit_strings(176.0))


def plant(
    trackers: tuple[LoadedTracker, ...] = SOUTH,
    inverter: InverterSheet = INVERTER,
    losses: Losses = LOSSES,
) -> Plant:
    return string_plant(trackers, inverter, WEATHER, losses)


def year(*given, **change) -> YearResult:
    return simulate_year(plant(*given, **change), WEATHER)


YEAR = year()


def test_energy_is_conserved_hour_by_hour() -> None:
    assert np.array_equal(YEAR.ac_unlimited_w - YEAR.clipped_w, YEAR.ac_rated_w)
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
    facing = [year(loaded(lit_strings(a))).energy_kwh for a in (176.0, 266.0, 356.0)]
    assert facing[0] > facing[1] > facing[2]


def test_half_the_array_gives_half_where_nothing_clips() -> None:
    big = replace(INVERTER, p_ac_w=50_000.0)
    dc_both, dc_one = (year(t, big).dc_w.sum() for t in (SOUTH, SOUTH[:1]))
    assert dc_both == pytest.approx(2 * dc_one, rel=1e-12)


def test_losses_take_their_product() -> None:
    clean = year(losses=Losses()).dc_w.sum()
    lossy = year(losses=replace(LOSSES, first_year_frac=0.02)).dc_w.sum()
    assert lossy == pytest.approx(clean * 0.99 * 0.985 * 0.98, rel=1e-12)


def test_each_year_gives_less_but_clips_less_too() -> None:
    losses = replace(LOSSES, first_year_frac=0.02, yearly_frac=0.005)
    ages = energy_by_age_kwh(plant(losses=losses), WEATHER)
    assert len(ages) == 25
    assert list(ages) == sorted(ages, reverse=True)
    assert ages[0] == pytest.approx(year(losses=losses).energy_kwh)
    # 24 later years take 12 % of the rating; the limit gives part of it back.
    assert 1 - 0.12 / 0.98 < ages[-1] / ages[0] < 0.97
    free = energy_by_age_kwh(
        plant(inverter=replace(INVERTER, p_ac_w=50_000.0), losses=losses), WEATHER
    )
    assert free[-1] / free[0] < ages[-1] / ages[0]


def test_outages_wires_and_an_export_limit_each_take_their_step() -> None:
    losses = replace(LOSSES, ac_wiring_frac=0.01, outage_frac=0.02)
    held = simulate_year(replace(plant(losses=losses), export_w=5000.0), WEATHER)
    shares = {s.step: s for s in held.stages}
    assert held.ac_w.max() == pytest.approx(5000 * 0.98)
    assert shares[Step.AC_WIRING].share_frac == pytest.approx(-0.01, rel=0.01)
    assert shares[Step.OUTAGE].share_frac == pytest.approx(-0.02, rel=0.01)
    assert shares[Step.EXPORT].change_kwh < 0
    assert held.stages[-1].after_kwh == pytest.approx(held.energy_kwh, abs=1e-6)
    # The inverter itself clips what it did before.
    assert held.clipped_kwh == pytest.approx(year(losses=losses).clipped_kwh)


def test_days_are_the_ones_their_titles_say() -> None:
    days = {d.title: d for d in loading_days(YEAR, WEATHER, SITE.latitude_deg)}
    assert set(days) == {"Most clipped day", "Clear summer day", "Clear winter day"}
    daily = YEAR.clipped_w.reshape(365, 24).sum(axis=1) / 1000
    assert days["Most clipped day"].clipped_kwh == pytest.approx(daily.max())
    assert abs(days["Clear summer day"].day_of_year - 171) <= 12


def test_nothing_clipped_leaves_no_most_clipped_day() -> None:
    free = year(inverter=replace(INVERTER, p_ac_w=50_000.0))
    assert next(d.title for d in loading_days(free, WEATHER, 36.2)) == "Clear summer day"


def test_a_module_without_coefficients_cannot_be_simulated_and_says_so() -> None:
    sheet = replace(SHELF.modules[0], beta_voc_frac_per_degc=None)
    with pytest.raises(MissingDatum, match="voltage coefficient"):
        fit_diode(sheet)


def test_the_waterfall_ends_at_the_meter_and_nothing_is_unnamed() -> None:
    first, last = YEAR.stages[0], YEAR.stages[-1]
    assert (first.step, last.step) == (Step.SUNLIGHT, Step.OUTAGE)
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
    shaded = tuple(
        replace(
            s,
            reaching_w_per_m2=s.reaching_w_per_m2 * np.where(np.arange(39) < 6, 0.6, 1.0)[:, None],
        )
        for s in lit_strings(176.0)
    )
    whole, less = (year(t, big) for t in (SOUTH, loaded(shaded)))
    lost = 1 - less.dc_w.sum() / whole.dc_w.sum()
    # 6 of 39 substrings at 60 % are 6.2 % of the light.  At most the string bypasses them: 15.4 %
    # of its voltage and their diodes'.
    assert 0.062 < lost < 0.17
    uneven = next(s for s in less.stages if s.step is Step.UNEVEN)
    assert uneven.share_frac < -0.03


def test_an_option_without_strings_draws_its_night_watts() -> None:
    assert year(()).energy_kwh == pytest.approx(-INVERTER.night_w * 8.76)


def test_the_same_inverter_with_only_its_limit_raised_never_clips_more() -> None:
    clipped = [
        year(inverter=replace(INVERTER, p_ac_w=w)).clipped_kwh for w in (5e3, 6e3, 7.6e3, 9e3, 12e3)
    ]
    assert clipped == sorted(clipped, reverse=True)


def test_the_calendar_holds_what_the_year_clips_and_no_month_has_more_days_than_it_has() -> None:
    calendar = clip_calendar(YEAR, WEATHER)
    assert np.sum(calendar.kwh) == pytest.approx(YEAR.clipped_kwh)
    for days, much, whole in zip(
        calendar.days_any,
        calendar.days_much,
        (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31),
        strict=True,
    ):
        assert 0 <= much <= days <= whole


def test_hours_by_load_are_the_hours_that_run_and_a_small_inverter_runs_at_its_limit() -> None:
    work = at_work(YEAR, ac_side(INVERTER, USUAL))
    assert sum(b.hours for b in work.bands) == (YEAR.ac_rated_w > 0).sum()
    assert sum(b.kwh for b in work.bands) == pytest.approx(
        YEAR.ac_rated_w[YEAR.ac_rated_w > 0].sum() / 1000
    )
    assert 0 < work.best_from_frac < work.best_to_frac <= 1
    smallest, *_, largest = work.sizes
    assert smallest.rating_kw == pytest.approx(0.6 * 7.6)
    assert smallest.best_hours < largest.best_hours
    assert all(0.9 < s.efficiency_frac < 0.99 for s in work.sizes)


def test_clouds_within_the_hour_cut_more_and_everywhere_alike() -> None:
    # Half of each hour the beam alone at 1.6 of its mean, half at 0.4.
    cloud = np.tile([0.4, 1.6], (8760, 1))
    clouded = replace(plant(), cloud=cloud, cloud_most=np.tile([0.0, 2.0], (8760, 1)))
    found = simulate_year(clouded, WEATHER)
    assert np.array_equal(found.ac_unlimited_w, YEAR.ac_unlimited_w)
    least, most = clipping_band_kwh(clouded, WEATHER)
    assert least == pytest.approx(YEAR.clipped_kwh)
    assert least < found.clipped_kwh < most
    # The curve of limits has the year's own figure at its own limit.
    (here,) = clipped_kwh_at(np.maximum(found.parts_w, 0), np.array([INVERTER.p_ac_w]), 1.0)
    assert here == pytest.approx(found.clipped_kwh, rel=1e-9)
    # What leaves under an export limit is cut within the hour, too, and never gains.
    held = simulate_year(replace(clouded, export_w=5000.0), WEATHER)
    even = simulate_year(replace(plant(), export_w=5000.0), WEATHER)
    assert (held.ac_w <= held.before_export_w + 1e-6).all()
    assert held.lost_kwh(Step.EXPORT) > 0
    assert held.energy_kwh < even.energy_kwh
