"""A house on its own sun: its load, its battery, other sizes, and metered years taken in."""

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, workspace_in
from meter_files import use_csv
from ridge_tally.core.errors import (
    BadGeometry,
    FormatError,
    MissingDatum,
    NotUnderstood,
    OutOfRange,
    RidgeTallyError,
)
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.brief import Brief
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.loading.batteries import RemoveBattery, SetBattery
from ridge_tally.core.job.edits.loading.household import (
    ForgetLoadFile,
    SetDayShape,
    SetPaidEvents,
    UseLoadFile,
)
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics
from ridge_tally.core.job.household import DayShape
from ridge_tally.core.number_format import spaced
from ridge_tally.core.sky.weather_year import hour_middles, hour_of, month_of
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.services import jobs
from ridge_tally.services.taken_in import take_in_load
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.batteries import conversions
from ridge_tally.simulation.house_load import house_load
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.loading.household import HouseReport, house_report
from ridge_tally.studies.loading.sweep import loading_sweep

LAGOON = lagoon_road(SHELF)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return workspace_in(Path(tmp_path_factory.mktemp("household")))


def stored(job: Job, coupling: Coupling, usable: str = "10", price: str = "") -> Job:
    return apply_edit(job, SetBattery(option_a(job).id, coupling, usable, "5", price), SHELF)


def of(workspace: Workspace, job: Job) -> HouseReport:
    return house_report(workspace.desk, design_for(job, option_a(job)))


def test_a_house_is_its_bills_and_its_car_and_every_kilowatt_hour_is_somewhere(
    workspace: Workspace,
) -> None:
    report = of(workspace, FULL)
    alone = report.alone
    load = house_load(workspace.desk, FULL)
    assert load is not None
    # The Brief's need of 21 310 kWh, and the inverter's draw in dark hours on top.
    assert load.power_w.sum() / 1000 == pytest.approx(21_315, abs=5)
    assert alone.load_kwh == pytest.approx(load.power_w.sum() / 1000, abs=10)
    assert alone.own_use_kwh + alone.bought_kwh == pytest.approx(alone.load_kwh)
    assert alone.own_use_kwh + alone.sent_kwh + alone.held_kwh == pytest.approx(alone.made_kwh)
    year = hourly_year(workspace.desk, design_for(FULL, option_a(FULL)))
    assert alone.made_kwh == pytest.approx(np.maximum(year.before_export_w, 0).sum() / 1000)
    assert sum(m.load_kwh for m in report.months) == pytest.approx(alone.load_kwh)

    # By hand: 500 kWh a month at 12.4 cents, the rest at 15.8; what is over is carried from April on.
    def month_cents(kwh: float) -> float:
        return min(kwh, 500) * 12.4 + max(0.0, kwh - 500) * 15.8

    spared, bank = 0.0, 0.0
    for m in (report.months[(3 + n) % 12] for n in range(12)):
        after = m.bought_kwh - m.sent_kwh - bank
        bank = max(0.0, -after)
        spared += month_cents(m.load_kwh) - month_cents(max(0.0, after))
    # The inverter's draw at night is the array's own; each bill is rounded by itself.
    assert alone.worth_cents == pytest.approx(spared + bank * 4.1, abs=15.8 * 12)


def test_a_battery_moves_energy_into_the_evening_and_its_sums_close(workspace: Workspace) -> None:
    for coupling, count in ((Coupling.DC, 2), (Coupling.AC, 3)):
        job = stored(LAGOON, coupling, price="7200")
        report = of(workspace, job)
        told, alone, battery = report.with_battery, report.alone, report.battery
        assert told is not None
        assert battery is not None
        assert battery.conversions == count
        assert told.evening_frac > alone.evening_frac + 0.5
        came = told.made_kwh + told.from_clipped_kwh
        went = told.own_use_kwh + told.sent_kwh + told.sold_kwh + told.held_kwh
        assert came == pytest.approx(went + told.lost_kwh + told.left_kwh)
        assert 0 <= told.left_kwh <= 10
        # By hand: 28.6 cents bought, 5 paid for export in this sample's rules.
        assert battery.more_worth_cents == pytest.approx(
            battery.more_own_kwh * 28.6 + (told.sent_kwh - alone.sent_kwh) * 5, abs=2
        )
        assert battery.years_to_pay == pytest.approx(720_000 / (battery.more_worth_cents or 1))


def test_the_house_sends_what_the_year_does_under_an_export_limit(workspace: Workspace) -> None:
    assert FULL.brief.grid is not None
    grid = replace(FULL.brief.grid, export_limit_kw=4.0)
    held = replace(FULL, brief=replace(FULL.brief, grid=grid))
    year = hourly_year(workspace.desk, design_for(held, option_a(held)))
    alone = of(workspace, held).alone
    lost = (year.before_export_w - year.ac_w).sum() / 1000
    assert lost > 1000
    assert alone.held_kwh == pytest.approx(lost, rel=1e-4)
    # What is made, less what is held back and what the inverter draws at night, is the Tally's.
    night_kwh = -year.ac_w[year.ac_w < 0].sum() * year.hours / 1000
    assert night_kwh > 1
    assert alone.made_kwh - alone.held_kwh - night_kwh == pytest.approx(year.energy_kwh, abs=0.1)
    (first, *_) = of(workspace, held).told
    assert (
        f"{spaced(year.energy_kwh)} to the meter: inverters draw {spaced(night_kwh)} at night"
        in first
    )
    assert year.held_within_w.sum() / 1000 > 20


def test_conversions_by_hand() -> None:
    # Best efficiency of the sample's inverter, charger 0.97, cells 0.97, battery's inverter 0.96.
    option = option_a(FULL)
    best = max(p.efficiency_frac for p in FULL.equipment.inverters[0].efficiency)
    assert conversions(design_for(FULL, option), Coupling.DC).kept_frac == pytest.approx(
        best * 0.97 * 0.97
    )
    beside = conversions(design_for(FULL, option), Coupling.AC)
    assert beside.kept_frac == pytest.approx(best * 0.97 * 0.97 * 0.96)
    # What is stored of AC and comes back: the array's inverter is behind it already.
    assert beside.kept.in_frac * beside.kept.out_frac == pytest.approx(0.97 * 0.97 * 0.96)


def test_only_dc_takes_what_is_clipped_and_the_sweep_tells_from_where_it_pays(
    workspace: Workspace,
) -> None:
    dc, ac = stored(FULL, Coupling.DC), stored(FULL, Coupling.AC)
    with_dc, with_ac = of(workspace, dc).with_battery, of(workspace, ac).with_battery
    assert with_dc is not None
    assert with_ac is not None
    assert with_dc.from_clipped_kwh > 100
    assert with_ac.from_clipped_kwh == 0
    # The sizes of inverter come first in a sweep; the counts of modules are not waited for.
    for job, gains in ((dc, True), (ac, False)):
        steps = loading_sweep(workspace.desk, design_for(job, option_a(job)))
        sizes = next(r for r in steps if len(r.schools) == 5).by_size
        more = {p.ratio: (p.with_battery_kwh or 0) - (p.energy_kwh or 0) for p in sizes}
        assert more[0.8] < 0
        assert (more[2.2] > 0) == gains


def test_smaller_inverters_send_less_and_their_rules_are_named(workspace: Workspace) -> None:
    sizes = of(workspace, FULL).sizes
    assert [s.ac_kw for s in sizes] == sorted(s.ac_kw for s in sizes)
    assert [s.now for s in sizes].count(True) == 1
    sent = [s.sent_kwh for s in sizes if s.clipped_kwh > 0]
    assert sent == sorted(sent)
    marks = {s.ac_kw: s.mark for s in sizes if s.mark}
    # The sample's rules: notify up to 10 kW and at most 25 kW for a phase, of which there is one.
    assert marks == {10.0: "quick approval to here", 25.0: "inverter cap"}
    small = sizes[0]
    load = house_load(workspace.desk, FULL)
    assert load is not None
    hour = hour_of(hour_middles())
    peak = ((hour >= 6) & (hour < 9)) | ((hour >= 17) & (hour < 21))
    over = (load.power_w[peak] > small.ac_kw * 1000).sum()
    assert small.over_hours == pytest.approx(over, abs=5)


def test_shapes_move_the_day_and_keep_the_months(workspace: Workspace) -> None:
    months, days = [], []
    for shape in DayShape:
        load = house_load(workspace.desk, apply_edit(SAMPLE, SetDayShape(shape), SHELF))
        assert load is not None
        months.append(np.bincount(month_of(hour_middles()), weights=load.power_w))
        days.append(np.bincount(hour_of(hour_middles()), weights=load.power_w))
    for other in months[1:]:
        assert other == pytest.approx(months[0])
    home, out, car, _ = days
    assert out[10:15].sum() < 0.7 * home[10:15].sum()
    assert car[0:5].sum() > 1.5 * out[0:5].sum()


def test_events_sell_what_the_house_leaves_in_the_battery(workspace: Workspace) -> None:
    job = apply_edit(stored(LAGOON, Coupling.AC), SetPaidEvents("6", "17-20", "150"), SHELF)
    report = of(workspace, job)
    assert report.with_battery is not None
    assert 0 < report.with_battery.sold_kwh <= 6 * 10
    assert report.events_told.startswith("6 days, 17 to 20 h, 150 cents a kWh")
    gone = apply_edit(job, SetPaidEvents("", "17-20", "150"), SHELF)
    assert gone.brief.household.events is None


def test_a_metered_year_takes_the_place_of_the_bills_and_travels_with_the_job(
    workspace: Workspace, tmp_path: Path
) -> None:
    told = take_in_load(workspace, SAMPLE, use_csv(0.5), "meter.csv")
    assert (told.ref.energy_kwh, told.most_kw, told.holes) == (4380.0, 0.5, 0)
    assert any("less than the bills" in note for note in told.notes)
    assert house_load(workspace.desk, SAMPLE).origin.startswith("12 bills")
    job = apply_edit(replace(SAMPLE, name="Metered"), UseLoadFile(told.ref), SHELF)
    load = house_load(workspace.desk, job)
    assert load is not None
    # The car to come is added to what was metered.
    car = sum(x.energy_kwh for x in jobs_brief(job).loads)
    assert load.power_w.sum() / 1000 == pytest.approx(4380 + car)
    assert load.origin.startswith("metered, meter.csv")
    state = jobs.store_job(workspace, job, "sample", "tests")
    packed, suffix = jobs.export_job(workspace, state.job_id)
    assert suffix.endswith(".zip")
    elsewhere = workspace_in(tmp_path)
    came = jobs.import_job(elsewhere, packed, "job.zip", "tests").job
    there = house_load(elsewhere.desk, came)
    assert there is not None
    assert there.power_w == pytest.approx(load.power_w)
    bare = workspace_in(tmp_path / "bare")
    without = house_load(bare.desk, job)
    assert without is not None
    assert any("not kept here: choose it again" in d for d in without.caveats)
    back = apply_edit(job, ForgetLoadFile(), SHELF)
    assert house_load(workspace.desk, back).origin.startswith("12 bills")


def jobs_brief(job: Job):
    from ridge_tally.views.brief.report import brief_report

    return brief_report(job)


def test_a_refused_file_changes_and_keeps_nothing(workspace: Workspace) -> None:
    before = set(workspace.desk.meter_files.glob("*"))
    with pytest.raises(FormatError, match="W, kW, Wh or kWh"):
        take_in_load(workspace, SAMPLE, b"time;value\n2025-01-01 00:00;1\n", "meter.csv")
    assert set(workspace.desk.meter_files.glob("*")) == before


def test_without_any_use_it_says_where_to_type_one(workspace: Workspace) -> None:
    bare = replace(SAMPLE, brief=Brief())
    with pytest.raises(MissingDatum, match="Type bills or a yearly figure"):
        of(workspace, bare)
    # The sweep goes on without: what the house takes is then not told.
    first = next(
        r
        for r in loading_sweep(workspace.desk, design_for(bare, option_a(bare)))
        if len(r.by_size) > 2
    )
    assert {p.own_use_kwh for p in first.by_size} == {None}
    assert {p.held_kwh for p in first.by_size} == {0.0}


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (SetBattery(option_a(SAMPLE).id, Coupling.DC, "much", "5"), NotUnderstood, "usable kWh"),
        (SetBattery(option_a(SAMPLE).id, Coupling.DC, "0", "5"), OutOfRange, "between 0.1 and 200"),
        (SetBattery(option_a(SAMPLE).id, Coupling.AC, "5", "900"), OutOfRange, "Battery, kW"),
        (SetPaidEvents("6", "evening", "1"), NotUnderstood, "hours such as 17-20"),
        (SetPaidEvents("6", "20-17", "1"), OutOfRange, "Hours of the events, to"),
        (SetPaidEvents("60", "17-20", "1"), OutOfRange, "Export events a year"),
        (SetPaidEvents("1.5", "17-20", "1"), NotUnderstood, "whole days"),
    ],
)
def test_figures_that_cannot_be_are_refused_by_field(
    edit: object, error: type[RidgeTallyError], says: str
) -> None:
    with pytest.raises(error, match=says):
        apply_edit(SAMPLE, edit, SHELF)


def test_microinverters_have_no_dc_side_for_a_battery(workspace: Workspace) -> None:
    option = option_a(SAMPLE)
    micro = ChooseElectronics(option.id, Architecture.MICRO, SHELF.microinverters[0].id)
    wired = apply_edit(SAMPLE, micro, SHELF)
    with pytest.raises(BadGeometry, match="no DC side"):
        stored(wired, Coupling.DC)
    # One that was there before the microinverters joins on AC, and it is told.
    late = apply_edits(SAMPLE, (SetBattery(option.id, Coupling.DC, "10", "5"), micro), SHELF)
    battery = of(workspace, late).battery
    assert battery is not None
    assert battery.conversions == 3
    assert any("no DC side" in d for d in battery.caveats)
    assert option_a(apply_edit(late, RemoveBattery(option.id), SHELF)).battery is None
