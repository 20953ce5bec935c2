"""A house step by step: by hand, against a half-sine day, and as a balance that closes."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridge_tally.core.energy.lit import kwh_of
from ridge_tally.core.job.battery import Battery, Coupling
from ridge_tally.core.job.household import PaidEvents
from ridge_tally.core.loading.house import (
    BatteryEfficiency,
    HouseYear,
    Sun,
    carried_frac,
    events_of,
    house_year,
)
from ridge_tally.core.sky.weather_year import hour_middles

FREE = BatteryEfficiency(1.0, 1.0)


def sun(made: list[float], clipped: list[float] | None = None, limit_w: float = 5000.0) -> Sun:
    return Sun(np.array(made), np.array(clipped or [0.0] * len(made)), limit_w, 1.0)


def battery(coupling: Coupling, usable_kwh: float = 10.0, power_kw: float = 5.0) -> Battery:
    return Battery(coupling, usable_kwh, power_kw)


def test_self_use_of_a_day_by_hand() -> None:
    # Hours of 0, 2, 3, 1 kW of sun on a load of 1 kW: 0 + 1 + 1 + 1 at home, 1 + 2 sent, 1 bought.
    house = house_year(sun([0, 2000, 3000, 1000]), np.full(4, 1000.0))
    assert house.own_use_w.tolist() == [0, 1000, 1000, 1000]
    assert house.sent_w.tolist() == [0, 1000, 2000, 0]
    assert house.bought_w.tolist() == [1000, 0, 0, 0]


def test_an_export_limit_holds_back_what_the_house_and_the_battery_do_not_take() -> None:
    made, load = sun([4000, 4000]), np.full(2, 500.0)
    bare = house_year(made, load, export_w=1500)
    assert bare.held_w.tolist() == [2000, 2000]
    # 2 kWh of room: the first hour fills it, so only 1.5 + 2.0 kWh are held back, less 2 taken.
    stored = house_year(made, load, 1500, battery(Coupling.AC, 2.0), FREE)
    assert stored.from_surplus_w.tolist() == [2000, 0]
    assert stored.held_w.tolist() == [0, 2000]


def test_only_a_battery_on_the_dc_side_takes_what_the_limit_cuts() -> None:
    made, load = sun([3000, 0], [2000, 0], 3000), np.array([3000.0, 2000.0])
    dc = house_year(made, load, battery=battery(Coupling.DC), kept=FREE)
    ac = house_year(made, load, battery=battery(Coupling.AC), kept=FREE)
    assert (dc.from_clipped_w[0], dc.given_w[1]) == (2000, 2000)
    assert (ac.from_clipped_w[0], ac.given_w[1]) == (0, 0)


def test_only_a_battery_beside_it_carries_load_above_the_inverter_s_limit() -> None:
    # 6 kWh are put by, then a load of 5 kW stands on 2 kW of sun behind a limit of 3 kW.
    made = sun([3000, 3000, 2000], limit_w=3000)
    load = np.array([0.0, 0.0, 5000.0])
    dc = house_year(made, load, battery=battery(Coupling.DC), kept=FREE)
    ac = house_year(made, load, battery=battery(Coupling.AC), kept=FREE)
    assert dc.given_w[2] == 1000
    assert ac.given_w[2] == 3000
    assert (dc.bought_w[2], ac.bought_w[2]) == (2000, 0)


def test_each_conversion_takes_its_share() -> None:
    # 4 kWh in at 0.9 are 3.6 stored; out at 0.8 they are 2.88.
    made, load = sun([4000, 0, 0]), np.array([0.0, 5000.0, 5000.0])
    house = house_year(made, load, battery=battery(Coupling.AC), kept=BatteryEfficiency(0.9, 0.8))
    assert house.charge_wh[0] == pytest.approx(3600)
    assert kwh_of(house.given_w, 1.0) == pytest.approx(2.88)
    assert house.lost_kwh == pytest.approx(4 - 2.88)


def test_a_half_sine_day_cut_at_six_ninths_gives_the_battery_its_known_share() -> None:
    # Loss of a half-sine day by a limit r of its peak: cos a - r (pi/2 - a), a = asin r;
    # 18.46 % at 6/9.  Derivable; common practice says 19 %.
    steps = 24 * 60
    whole = 9000 * np.sin((np.arange(steps) + 0.5) / steps * math.pi)
    given_w = np.minimum(whole, 6000)
    day = Sun(given_w, whole - given_w, 6000.0, 12 / steps)
    house = house_year(
        day, np.full(steps, 6000.0), battery=battery(Coupling.DC, 1e3, 1e3), kept=FREE
    )
    taken = house.from_clipped_w.sum() / whole.sum()
    assert taken == pytest.approx(0.1846, abs=1e-4)


@st.composite
def houses(draw: st.DrawFn) -> tuple[Sun, np.ndarray, float | None, Battery, BatteryEfficiency]:
    n = draw(st.integers(3, 40))
    watts = st.floats(0, 8000)
    limit = draw(st.floats(500, 6000))
    offered = np.array(draw(st.lists(watts, min_size=n, max_size=n)))
    made = np.where(offered > 0, np.minimum(offered, limit), -draw(st.floats(0, 10)))
    load = np.array(draw(st.lists(watts, min_size=n, max_size=n)))
    clipped = np.maximum(offered - limit, 0.0)
    stored = Battery(
        draw(st.sampled_from(Coupling)), draw(st.floats(0.1, 20)), draw(st.floats(0.1, 10))
    )
    kept = BatteryEfficiency(draw(st.floats(0.5, 1.0)), draw(st.floats(0.5, 1.0)))
    return Sun(made, clipped, limit, 0.5), load, draw(st.none() | watts), stored, kept


@settings(max_examples=150, deadline=None)
@given(houses(), st.lists(st.integers(0, 2), min_size=40, max_size=40))
def test_every_watt_is_somewhere(
    there: tuple[Sun, np.ndarray, float | None, Battery, BatteryEfficiency], events: list[int]
) -> None:
    made, load, export_w, stored, kept = there
    event = np.array(events[: len(load)], np.int8)
    house = house_year(made, load, export_w, stored, kept, event)
    given_off = np.maximum(made.made_w, 0.0)
    assert house.direct_w + house.from_surplus_w + house.sent_w + house.held_w == pytest.approx(
        given_off, abs=1e-6
    )
    assert house.own_use_w + house.bought_w == pytest.approx(house.load_w, abs=1e-6)
    # The battery: what went in less its loss, less what came out with its loss, is what is there.
    into = (house.from_surplus_w + house.from_clipped_w) * kept.in_frac
    out = (house.given_w + house.sold_w) / kept.out_frac
    assert np.cumsum((into - out) * made.hours) == pytest.approx(house.charge_wh, abs=1e-6)
    assert house.charge_wh.min() >= -1e-6
    assert house.charge_wh.max() <= stored.usable_kwh * 1000 + 1e-6
    assert _powers_kept(house, made, export_w, stored)


def _powers_kept(house: HouseYear, made: Sun, export_w: float | None, stored: Battery) -> bool:
    taken, out = house.from_surplus_w + house.from_clipped_w, house.given_w + house.sold_w
    kept = max(taken.max(), out.max()) <= stored.power_kw * 1000 + 1e-6
    if export_w is not None:
        kept = kept and bool((house.sent_w + house.sold_w).max() <= export_w + 1e-6)
    if stored.coupling is Coupling.DC:
        through = np.maximum(made.made_w, 0.0) + out
        return kept and bool(through[out > 1e-6].max(initial=0.0) <= made.limit_w + 1e-6)
    return kept and bool(house.from_clipped_w.max() == 0.0)


def test_events_stand_on_the_days_the_house_uses_most_and_keep_the_charge_for_them() -> None:
    time = hour_middles()
    load = np.full(8760, 500.0)
    for day in (40, 45, 200):
        load[day * 24 + 17 : day * 24 + 20] = 3000 + day
    events = PaidEvents(2, 17, 20, 150.0)
    found = events_of(load, time, events).reshape(365, 24)
    # Days 40 and 45 lie within two weeks of each other: the greater of them counts.
    assert np.nonzero(found.any(axis=1))[0].tolist() == [45, 200]
    assert found[200].tolist() == [0] * 12 + [1] * 5 + [2] * 3 + [0] * 4
    made = np.zeros(8760)
    made[45 * 24 + 10] = made[200 * 24 + 10] = 8000
    event = events_of(load, time, events)
    stored = Battery(Coupling.AC, 8.0, 4.0)
    house = house_year(
        Sun(made, np.zeros(8760), 8000.0, 1.0), load, None, stored, FREE, event
    )  # fmt: skip
    kept = house.charge_wh.reshape(365, 24)
    # By hand: 7.5 kW are left over at 10 h, the battery takes 4; the hour after gives 0.5 to the
    # house, and from noon on it keeps 3.5 kWh until 17 h, when the house's own 3 kW come first.
    assert kept[200, 10] == 4000
    assert kept[200, 11] == kept[200, 16] == 3500
    assert house.given_w.reshape(365, 24)[200, 17] == 3200
    assert house.sold_w.reshape(365, 24)[200, 17] == pytest.approx(300)


def test_without_events_nothing_is_kept() -> None:
    assert not events_of(np.ones(8760), hour_middles(), None).any()


def test_what_peaks_are_carried_is_a_share_of_their_own_load() -> None:
    time = hour_middles()
    hour = np.arange(8760) % 24
    made = np.where(hour == 8, 1000.0, 0.0)
    house = house_year(Sun(made, np.zeros(8760), 2000.0, 1.0), np.full(8760, 500.0))
    # One of the three hours from 6 to 9 is carried.
    assert carried_frac(house, time, (6, 9)) == (pytest.approx(1 / 3), pytest.approx(1 / 3))
    empty = replace(house, load_w=np.zeros(8760))
    assert carried_frac(empty, time, (6, 9)) == (0.0, 0.0)
