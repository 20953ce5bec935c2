"""From DC to AC: datasheet efficiencies, the limit, and the cabinet's heat."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import brentq

from plants import USUAL
from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.inverter import (
    AcYear,
    Within,
    ac_side,
    ac_year,
    efficiency_at,
    loss_curve,
)
from ridge_tally.core.equipment import DeratingPoint, EfficiencyPoint, InverterSheet, Warming
from ridge_tally.core.errors import MissingDatum, OutOfRange

SHELF = sample_shelf()
PLAIN = replace(SHELF.inverters[2], derating=())
CURVE = (DeratingPoint(45.0, 1.0), DeratingPoint(60.0, 0.4))
HOT = replace(PLAIN, derating=CURVE)


def given(
    sheet: InverterSheet, dc_w: float, air_degc: float, steps: int = 24, hours: float = 0.25
) -> AcYear:
    """A steady day."""
    side = ac_side(sheet, USUAL)
    return ac_year(
        np.full((1, steps), dc_w), np.full(steps, 380.0), np.full(steps, air_degc), side, hours
    )


@pytest.mark.parametrize("sheet", SHELF.inverters, ids=lambda i: i.id)
def test_loss_curves_meet_the_datasheet_efficiencies(sheet: InverterSheet) -> None:
    side = ac_side(sheet, USUAL)
    for point in sheet.efficiency:
        dc = np.array([[point.load_frac * sheet.p_ac_w / point.efficiency_frac]])
        volts = np.array([point.dc_v or 380.0])
        out = ac_year(dc, volts, np.array([20.0]), side, 1.0).unlimited_w[0] / dc[0, 0]
        # Three terms through seven rounded points: within half a per cent of each.
        assert out == pytest.approx(point.efficiency_frac, abs=0.006)


def test_between_two_voltages_the_efficiency_lies_between_theirs() -> None:
    sheet = next(i for i in SHELF.inverters if i.efficiency[0].dc_v is not None)
    side, dc = ac_side(sheet, USUAL), np.array([[4000.0]])
    low, between, high, beyond = (
        ac_year(dc, np.array([v]), np.array([20.0]), side, 1.0).unlimited_w[0]
        for v in (200.0, 290.0, 380.0, 120.0)
    )
    assert low < between < high
    assert between == pytest.approx((low + high) / 2)
    assert beyond == low


def test_efficiency_of_a_whole_or_of_two_points_is_refused() -> None:
    points = tuple(EfficiencyPoint(load, 1.02) for load in (0.1, 0.5, 1.0))
    with pytest.raises(OutOfRange, match=r"1\.02"):
        loss_curve(points)
    with pytest.raises(MissingDatum, match="efficiency"):
        ac_side(replace(PLAIN, efficiency=PLAIN.efficiency[:2]), USUAL)
    with pytest.raises(MissingDatum, match="efficiency"):
        ac_side(replace(PLAIN, efficiency=()), USUAL)


def test_the_efficiency_peaks_where_the_sheet_s_does() -> None:
    side = ac_side(PLAIN, USUAL)
    loads = np.linspace(0.05, 1.0, 96)
    best = loads[np.argmax(efficiency_at(loads, side))]
    sheet_s = max(PLAIN.efficiency, key=lambda p: p.efficiency_frac).load_frac
    assert best == pytest.approx(sheet_s, abs=0.2)


def test_a_settled_cabinet_follows_the_sheet_s_curve() -> None:
    # By hand: at 52.5 °C the curve lies half way from 1 to 0.4.
    for air, share in ((30.0, 1.0), (45.0, 1.0), (52.5, 0.7), (60.0, 0.4), (70.0, 0.4)):
        out = given(HOT, 1.5 * HOT.p_ac_w, air, steps=96)
        assert out.given_w[-1] / HOT.p_ac_w == pytest.approx(share, abs=0.002), air
        assert out.rated_w[-1] == HOT.p_ac_w


def test_a_short_peak_passes_where_a_day_at_the_limit_does_not() -> None:
    out = given(HOT, 1.5 * HOT.p_ac_w, 50.0, steps=24)
    assert out.given_w[0] == HOT.p_ac_w
    assert out.given_w[-1] < 0.85 * HOT.p_ac_w
    # Left idle for a night the cabinet is cool again.
    assert (np.diff(out.given_w) <= 1e-6).all()


def test_a_cabinet_settles_at_the_air_and_its_rise_and_gets_there_by_its_lag() -> None:
    side = ac_side(PLAIN, Warming(25.0, 60.0))
    dc = np.full((1, 48), 2.0 * PLAIN.p_ac_w)
    out = ac_year(dc, np.full(48, 380.0), np.full(48, 20.0), side, 0.25)
    assert out.cabinet_degc[-1] == pytest.approx(45.0, abs=0.05)
    # After one lag 63 % of the way.
    assert out.cabinet_degc[3] == pytest.approx(20 + 25 * (1 - np.exp(-1)), abs=0.05)


def test_an_overrun_inverter_is_no_warmer_than_one_just_at_its_limit() -> None:
    just = given(PLAIN, 1.04 * PLAIN.p_ac_w, 30.0)
    over = given(PLAIN, 2.0 * PLAIN.p_ac_w, 30.0)
    assert over.cabinet_degc[-1] == pytest.approx(just.cabinet_degc[-1], abs=0.1)


def test_without_a_curve_nothing_is_derated_and_in_the_dark_it_draws_its_night() -> None:
    assert np.array_equal(given(PLAIN, 6000.0, 70.0).given_w, given(PLAIN, 6000.0, 70.0).rated_w)
    assert given(PLAIN, 0.0, 20.0).given_w[0] == -PLAIN.night_w


def test_several_alike_give_the_sum_of_each() -> None:
    side = ac_side(HOT, USUAL)
    dc = np.array([np.linspace(0, 8000, 50), np.linspace(6000, 0, 50)])
    volts, air = np.full(50, 380.0), np.full(50, 48.0)
    both = ac_year(dc, volts, air, side, 0.5)
    one, other = (ac_year(dc[k : k + 1], volts, air, side, 0.5) for k in (0, 1))
    assert both.given_w == pytest.approx(one.given_w + other.given_w)
    assert both.unlimited_w == pytest.approx(one.unlimited_w + other.unlimited_w)


@pytest.mark.parametrize(
    ("direct", "beam", "cut_of_rating", "limited"),
    [
        # By hand, of 0.9 of the rating: parts at 1.5 and 0.5 of it are 1.35 and 0.45.
        (1.0, (0.5, 1.5), 0.35 / 2, 0.5),
        # Half of it the beam's: 1.125 and 0.675.
        (0.5, (0.5, 1.5), 0.125 / 2, 0.5),
        # At the limit, and just past it.
        (1.0, (1 / 0.9, 2 - 1 / 0.9), 0.0, 0.0),
        (1.0, (1.1 / 0.9, 2 - 1.1 / 0.9), 0.1 / 2, 0.5),
        (0.0, (0.5, 1.5), 0.0, 0.0),
    ],
)
def test_parts_of_an_hour_clip_what_their_mean_hides(
    direct: float, beam: tuple[float, float], cut_of_rating: float, limited: float
) -> None:
    side = ac_side(PLAIN, USUAL)
    volts, air = np.full(1, 380.0), np.full(1, 20.0)

    def run(dc_w: float, within: Within | None = None) -> AcYear:
        return ac_year(np.array([[dc_w]]), volts, air, side, 1.0, within)

    dc_w = brentq(lambda dc: run(dc).unlimited_w[0] - 0.9 * side.rating_w, 1.0, 2 * side.rating_w)
    found = run(dc_w, Within(np.array([direct]), np.array([beam])))
    cut = (found.unlimited_w - found.rated_w) / side.rating_w
    assert cut[0] == pytest.approx(cut_of_rating, abs=1e-6)
    assert found.limited_frac[0] == pytest.approx(limited)
