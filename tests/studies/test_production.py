"""Troubles planted in a log: each is named by its sign, and nothing else is to be acted on."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from jobs import SHELF, WORKED_OUT
from ridge_tally.core.proving.logged.days import (
    LogStanding,
    judged_days,
    months_of,
    standing_of,
)
from ridge_tally.core.proving.logged.siblings import beside_siblings
from ridge_tally.core.proving.logged.signatures import Sign
from ridge_tally.core.proving.logged.steps import DueSteps, sorted_steps
from ridge_tally.core.proving.logged.trend import changes_of, sinkings_of
from ridge_tally.demo.tollgate import tollgate
from ridge_tally.editing.design import design_for
from ridge_tally.formats.production_file import read_production
from ridge_tally.studies.proving.gateway import TROUBLES, Gateway, Trouble, gateway_csv, sound_log
from ridge_tally.studies.proving.production import judged_log, terms_of
from ridge_tally.studies.proving.production_words import Tone, headline, sign_told

JOB = tollgate(SHELF)
DESIGN = design_for(JOB, JOB.options[0])
FIRST = date(2026, 5, 22)
TOLD = {
    Trouble.DIRT: Sign.SOILING,
    Trouble.STRING_OUT: Sign.STRING_OUT,
    Trouble.HOT: Sign.HOT,
    Trouble.LIMIT: Sign.HELD,
    Trouble.TRIPS: Sign.TRIP,
    Trouble.STOOD_STILL: Sign.OUT,
}


@pytest.mark.parametrize("light", [True, False])
@pytest.mark.parametrize("trouble", TROUBLES)
def test_each_trouble_is_named_and_no_other(trouble: Trouble, light: bool) -> None:
    gateway = Gateway(FIRST, 90, TROUBLES.index(trouble), light, "Europe/Brussels")
    content = gateway_csv(WORKED_OUT, DESIGN, gateway, []).encode()
    log = read_production(content, "log.csv", terms_of(DESIGN))
    found = judged_log(WORKED_OUT, DESIGN, log)
    told = [sign_told(s, FIRST, measured=light) for s in found.signs]
    asks = {s.sign for s in told if s.tone is not Tone.KNOWN}
    assert asks == ({TOLD[trouble]} if trouble in TOLD else set())
    # A summer's log on the local clock: one hour late all the while.
    assert [(o.first, o.late_h) for o in found.due.offs] == [(0, 1.0)]
    line = headline(0.99, LogStanding.FINE, told, 60, 90, measured=light, odd=0)
    assert ("no sign of a fault" in line) == (trouble is Trouble.NOTHING)


def test_a_log_survives_its_own_file() -> None:
    gateway = Gateway(FIRST, 20, TROUBLES.index(Trouble.NOTHING))
    log, _ = sound_log(WORKED_OUT, DESIGN, gateway)
    content = gateway_csv(WORKED_OUT, DESIGN, gateway, []).encode()
    back = read_production(content, "log.csv", terms_of(DESIGN))
    there = np.isfinite(back.power_w)
    assert np.isnan(back.power_w).sum() == 12
    assert back.power_w[there] == pytest.approx(log.power_w[there], abs=0.5)


def test_modules_that_report_are_held_against_their_siblings() -> None:
    ids = [m.id for m in DESIGN.arrays[0].array.modules if m.present][:8]
    cells = [(f"South roof row 1 place {n}", (i,)) for n, i in enumerate(ids, 1)]
    gateway = Gateway(FIRST, 20, 6 + 7 * 3)
    content = gateway_csv(WORKED_OUT, DESIGN, gateway, cells).encode()
    log = read_production(content, "log.csv", terms_of(DESIGN))
    assert len(log.modules) == 8
    found = judged_log(WORKED_OUT, DESIGN, log)
    made = np.array([np.nansum(w) for _, w in log.modules])
    beside = beside_siblings(made, found.due.module_light, np.zeros(8, np.int64))
    # The one planted as weak gives 80 %; all others are alike.
    weak = gateway.number % 8
    assert beside.odd.tolist() == [2 if n == weak else 0 for n in range(8)]
    assert beside.ratio[weak] == pytest.approx(0.8, abs=0.01)


@pytest.mark.parametrize(
    ("ratio", "measured", "standing"),
    [
        (0.95, True, LogStanding.FINE), (0.9494, True, LogStanding.LOOK),
        (0.90, True, LogStanding.LOOK), (0.8994, True, LogStanding.ACT),
        (1.05, True, LogStanding.FINE), (1.0506, True, LogStanding.LOOK),
        (0.90, False, LogStanding.FINE), (0.8994, False, LogStanding.LOOK),
        (0.85, False, LogStanding.LOOK), (0.8494, False, LogStanding.ACT),
        (None, True, LogStanding.UNJUDGED), (float("nan"), True, LogStanding.UNJUDGED),
    ],
)  # fmt: skip
def test_bands_at_their_edges(ratio: float | None, measured: bool, standing: LogStanding) -> None:
    # Common practice, no source: 5 and 10 % by measured light, 10 and 15 % without.
    assert standing_of(ratio, in_plane=measured) is standing


def _even(made_w: np.ndarray, due_w: float = 2000.0, light: float = 800.0) -> DueSteps:
    """Days of ten even hours of light, cells at 45 °C; 4 kW of modules on a 5 kW inverter."""
    due = np.zeros((len(made_w), 24))
    due[:, 7:17] = due_w
    lit = due > 0
    cells = np.where(lit, 45.0, np.nan)
    return DueSteps(
        np.where(lit, made_w, 0.0), due, due, np.where(lit, light, 0.0), cells,
        np.full(due.shape, 20.0), 4000.0, 5000.0, 1.0, light_measured=True, in_plane=True,
    )  # fmt: skip


def test_the_performance_ratio_by_hand() -> None:
    # By hand: 10 h of 2 kW are 20 kWh a day; 4 kW times 8 kWh/m² are 32: 0.625; at 25 °C over
    # 1 − 0.004 · 20 = 0.92: 0.6793.  Ten days.
    steps = sorted_steps(_even(np.full((10, 24), 2000.0)))
    days = judged_days(steps)
    (month,) = months_of(steps, days, date(2026, 6, 1), -0.004)
    assert month.performance_frac == pytest.approx(0.625)
    assert month.at_25_frac == pytest.approx(0.625 / 0.92)
    assert month.light_kwh_per_m2 == pytest.approx(80.0)
    assert (month.ratio, month.standing) == (pytest.approx(1.0), LogStanding.FINE)


def test_stops_and_holes_are_left_out_and_counted() -> None:
    made = np.full((10, 24), 2000.0)
    made[2, 9:12] = 0.0
    made[3, 9:11] = np.nan
    steps = sorted_steps(_even(made))
    (month,) = months_of(steps, judged_days(steps), date(2026, 6, 1), -0.004)
    assert month.ratio == pytest.approx(1.0)
    assert {w.name: h for w, h in month.left_out_h} == {"OUT": 3.0, "GAP": 2.0}


@pytest.mark.parametrize(("size", "found"), [(0.02, 0), (0.04, 1), (-0.2, 1)])
def test_steps_are_dated_and_scatter_is_none(size: float, found: int) -> None:
    rng = np.random.default_rng(3)
    ratio = 1 + rng.normal(0, 0.005, 120)
    ratio[70:] += size
    ratio[::9] = np.nan
    changes = changes_of(ratio)
    assert len(changes) == found
    assert all(abs(c.day - 70) <= 1 for c in changes)


@pytest.mark.parametrize(("per_day", "found"), [(-0.0003, 0), (-0.0006, 1), (0.001, 0)])
def test_a_sinking_is_told_from_its_least_rate_on(per_day: float, found: int) -> None:
    rng = np.random.default_rng(5)
    ratio = 1 + per_day * np.arange(60) + rng.normal(0, 0.002, 60)
    sinkings = sinkings_of(ratio, ())
    assert len(sinkings) == found
    assert all(s.per_day == pytest.approx(per_day, abs=0.0001) for s in sinkings)


def test_a_wrong_unit_stops_the_judging() -> None:
    log, _ = sound_log(WORKED_OUT, DESIGN, Gateway(FIRST, 20, 6))
    found = judged_log(WORKED_OUT, DESIGN, replace(log, power_w=log.power_w * 1000))
    assert [s.sign for s in found.signs] == [Sign.UNIT]
