"""The year as an option's report: its band, its steps, and what takes no part."""

from dataclasses import replace
from pathlib import Path

import pytest

from jobs import FULL, SAMPLE, option_a, warm_workspace_in, with_inverter, with_module
from ridge_tally.catalogue.shelf import sample_shelf
from ridge_tally.core.energy.diode_fit import fit_diode
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import (
    DeratingPoint,
    EfficiencyPoint,
    OptimizerKind,
    TrackerSheet,
)
from ridge_tally.core.errors import MissingDatum, OutOfRange
from ridge_tally.core.job.document import Job, with_option
from ridge_tally.core.job.system import system_of
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.design import design_for
from ridge_tally.rules.document import require_sound
from ridge_tally.rules.equipment.sheet import require_sheet
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.plant import plant_of
from ridge_tally.simulation.scenario import OwnPoint, Scenario
from ridge_tally.studies.strings.own_point import Way, own_point_report
from ridge_tally.studies.sun.losses_at_meter import losses_at_meter
from ridge_tally.views.loading.year import year_report


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("year")))


def test_the_year_tells_the_band_its_clipping_lies_in(workspace: Workspace) -> None:
    report = year_report(workspace.desk, design_for(FULL, option_a(FULL)))
    assert report.clipped_hourly_kwh < report.clipped_kwh < report.clipped_most_kwh
    at = [c for c in report.limits if c.limit_kw <= report.limit_kw][-1]
    above = next(c for c in report.limits if c.limit_kw > report.limit_kw)
    assert above.clipped_kwh < report.clipped_kwh < at.clipped_kwh


@pytest.mark.parametrize("job", [FULL, lagoon_road(sample_shelf())], ids=lambda j: j.name)
def test_the_waterfall_of_each_sample_adds_up_to_the_watt_hour(
    workspace: Workspace, job: Job
) -> None:
    strung = [o for o in job.options if o.strings]
    assert strung
    for option in strung:
        report = year_report(workspace.desk, design_for(job, option))
        first = report.stages[0].after_kwh
        told = first + sum(s.change_kwh for s in report.stages)
        assert told == pytest.approx(report.energy_kwh, abs=1e-3)
        assert sum(report.monthly_kwh) == pytest.approx(report.energy_kwh, abs=1e-3)


def test_modules_in_no_string_and_a_tracker_that_never_runs_are_told_and_the_rest_computed(
    workspace: Workspace,
) -> None:
    option = option_a(SAMPLE)
    loose = replace(option, strings=option.strings[:1])
    job = with_option(SAMPLE, loose)
    report = year_report(workspace.desk, design_for(job, loose))
    assert report.faults[0].startswith("14 modules are in no string")
    assert report.energy_kwh > 5000
    high = TrackerSheet(590.0, 599.0, 20.0, 25.0, 2)
    first = system_of(SAMPLE, option).inverters[0].trackers[0]
    stopped = with_inverter(SAMPLE, trackers=(first, high))
    report = year_report(workspace.desk, design_for(stopped, option_a(stopped)))
    assert report.faults == (
        "Tracker 2 never runs all year: B stays outside its 590 to 599 V, start 120 V. "
        "Put more or fewer modules in series",
    )
    assert report.energy_kwh > 5000


def test_heat_and_an_export_limit_take_what_their_curves_say(workspace: Workspace) -> None:
    weak = with_inverter(FULL, derating=(DeratingPoint(10.0, 1.0), DeratingPoint(30.0, 0.5)))
    report = year_report(workspace.desk, design_for(weak, option_a(weak)))
    assert report.hot_loss_kwh > 300
    assert report.cabinet_most_degc > 31
    silent = with_inverter(FULL, derating=())
    told = year_report(workspace.desk, design_for(silent, option_a(silent)))
    assert told.hot_loss_kwh is None
    assert any("names no derating" in d for d in told.caveats)
    assert FULL.brief.grid is not None
    grid = replace(FULL.brief.grid, export_limit_kw=4.0)
    held = replace(FULL, brief=replace(FULL.brief, grid=grid))
    limited = year_report(workspace.desk, design_for(held, option_a(held)))
    assert limited.export_loss_kwh > 1000
    assert any("reckoned with the house’s use" in d for d in limited.caveats)
    # With nobody at home more is held back, by at most what the house would have used meanwhile.
    empty = replace(held, brief=replace(held.brief, bills=(), loads=()))
    bare = year_report(workspace.desk, design_for(empty, option_a(empty)))
    assert any("no household load entered" in d for d in bare.caveats)
    more = (bare.export_loss_kwh or 0) - (limited.export_loss_kwh or 0)
    assert 0 < more < 21_320


def test_a_sheet_s_own_ageing_takes_the_place_of_the_usual(workspace: Workspace) -> None:
    option = option_a(FULL)
    report = year_report(workspace.desk, design_for(FULL, option))
    aged = next(s for s in report.stages if s.step is Step.AGE)
    sheet = FULL.equipment.modules[0]
    assert aged.share_frac == pytest.approx(-sheet.first_year_loss_frac)
    assert not any("ageing" in d for d in report.caveats)
    assert len(report.by_age_kwh) == 25
    assert report.by_age_kwh[0] == pytest.approx(report.energy_kwh)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"efficiency": (EfficiencyPoint(0.5, 1.01),)}, "efficiency at 50 % load"),
        ({"efficiency": (EfficiencyPoint(5.0, 0.96),)}, "load of an efficiency"),
        ({"derating": (DeratingPoint(45, 1.0), DeratingPoint(60, 1.2))}, "derated power at 60 °C"),
        ({"derating": (DeratingPoint(45, 90.0),)}, "derated power at 45 °C"),
    ],
)
def test_curves_that_cannot_be_are_refused_by_name(change: dict, field: str) -> None:
    job = with_inverter(SAMPLE, **change)
    with pytest.raises(OutOfRange, match=field):
        require_sound(job)
    with pytest.raises(OutOfRange, match=field):
        require_sheet(system_of(job, option_a(job)).inverters[0])


def test_ways_side_by_side_say_what_an_own_point_gives_here(workspace: Workspace) -> None:
    report = own_point_report(workspace.desk, design_for(FULL, option_a(FULL)))
    ways = {w.way: w for w in report.ways}
    strung = ways[Way.STRUNG]
    assert [m.module_id for m in report.modules if m.helped] == ["south-26"]
    assert 0 < ways[Way.ADD_ON].gain_kwh < ways[Way.SYSTEM].gain_kwh
    assert ways[Way.SYSTEM].limit_kw == strung.limit_kw
    assert ways[Way.MICRO].limit_kw > strung.limit_kw
    # Behind one limit alike, what one's own point gives is a share of what strings lost to uneven
    # light and mismatch, and no more.
    year = year_report(workspace.desk, design_for(FULL, option_a(FULL)))
    lost = sum(-s.change_kwh for s in year.stages if s.step in (Step.UNEVEN, Step.MISMATCH))
    assert ways[Way.SYSTEM].gain_kwh < lost


def test_none_helped_is_as_strung_and_too_few_for_the_voltage_say_so(workspace: Workspace) -> None:
    option = option_a(FULL)
    report = own_point_report(workspace.desk, design_for(FULL, option), ())
    assert report.ways[1].gain_kwh == pytest.approx(0.0)
    system = next(o for o in workspace.desk.shelf.optimizers if o.kind is OptimizerKind.SYSTEM)
    drawn = plant_of(
        workspace.desk,
        design_for(FULL, option),
        Scenario(own_point=OwnPoint(replace(system, v_out_max_v=20.0))),
    ).drawn
    assert drawn.whole_w.sum() == 0
    with pytest.raises(MissingDatum, match="Fill the roof"):
        own_point_report(workspace.desk, design_for(FULL, replace(option, strings=())))


def test_strings_too_short_for_the_voltage_the_inverter_holds_are_named(
    workspace: Workspace,
) -> None:
    option = option_a(FULL)
    first, second = option.strings
    short = replace(option, strings=(first, replace(second, module_ids=second.module_ids[:6])))
    job = with_option(FULL, short)
    system = next(
        w
        for w in own_point_report(workspace.desk, design_for(job, short)).ways
        if w.way is Way.SYSTEM
    )
    # By hand: 380 V over 60 V are 6.3, so seven.
    assert system.problem == (
        "String B (6) never runs: up to 60 V from each, 7 at least reach the 380 V the inverter holds."
    )
    assert system.energy_kwh > 5000


def test_another_inverter_leaves_the_light_alone(workspace: Workspace) -> None:
    larger = with_inverter(FULL, p_ac_w=10_000.0)
    report = year_report(workspace.desk, design_for(larger, option_a(larger)))
    assert report.limit_kw == 10
    assert report.stages[0].after_kwh == pytest.approx(
        year_report(workspace.desk, design_for(FULL, option_a(FULL))).stages[0].after_kwh
    )


def test_what_the_light_loses_is_told_at_the_meter(workspace: Workspace) -> None:
    option = option_a(FULL)
    found = {
        loss.step: loss.kwh for loss in losses_at_meter(workspace.desk, design_for(FULL, option))
    }
    assert list(found) == [Step.SHADE, Step.SNOW, Step.DIRT, Step.BACK]
    assert (found[Step.SNOW], found[Step.BACK]) == (0, 0)
    # Two per cent of dirt cost less than two per cent: part of it would have been clipped.
    year = year_report(workspace.desk, design_for(FULL, option)).energy_kwh
    assert -0.02 * year < found[Step.DIRT] < -0.005 * year
    # Shade costs what a site without anything that stands there would give more.
    bare = replace(
        FULL,
        survey=replace(
            FULL.survey,
            shade_sources=(),
            horizon=(),
            planes=tuple(replace(p, obstructions=()) for p in FULL.survey.planes),
        ),
    )
    freed = year_report(workspace.desk, design_for(bare, option_a(bare))).energy_kwh - year
    assert found[Step.SHADE] == pytest.approx(-freed, rel=0.02)
    with pytest.raises(MissingDatum, match="Fill the roof"):
        losses_at_meter(workspace.desk, design_for(FULL, replace(option, strings=())))


def test_a_diode_that_loses_less_with_heat_than_its_sheet_says_is_told_with_its_size(
    workspace: Workspace,
) -> None:
    error = fit_diode(SAMPLE.equipment.modules[0]).gamma_error_per_degc
    report = year_report(workspace.desk, design_for(SAMPLE, option_a(SAMPLE)))
    (told,) = [c for c in report.caveats if c.startswith("The diode of")]
    assert f"{error * 25 * 100:.1f} % too much" in told
    # A sheet whose coefficient the diode meets has nothing to tell.
    gamma = SAMPLE.equipment.modules[0].gamma_pmp_frac_per_degc
    assert gamma is not None
    met = with_module(SAMPLE, gamma_pmp_frac_per_degc=gamma + error)
    after = year_report(workspace.desk, design_for(met, option_a(met)))
    assert not any(c.startswith("The diode of") for c in after.caveats)
