"""Options over a year side by side, and a design as it was before it was mended."""

from pathlib import Path

import pytest

from jobs import FULL, SHELF, warm_workspace_in
from ridge_tally.core.errors import NotFound, NotUnderstood, OutOfRange
from ridge_tally.core.job.battery import Coupling
from ridge_tally.core.job.edits.loading.batteries import SetBattery
from ridge_tally.core.job.ids import OptionId
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.editing.design import design_for
from ridge_tally.services import jobs
from ridge_tally.services.compared import compared
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.loading.options_compared import Pick, parse_picks
from ridge_tally.studies.strings.remedies import remedies


@pytest.fixture
def workspace(tmp_path: Path) -> Workspace:
    return warm_workspace_in(tmp_path)


def test_two_options_stand_side_by_side_with_what_makes_the_difference(
    workspace: Workspace,
) -> None:
    job_id = jobs.store_job(workspace, FULL, "sample", "tests").job_id
    told = compared(workspace, job_id, 1, parse_picks("a,b", 1))
    a, b = told.years
    for year, option in zip(told.years, FULL.options, strict=True):
        assert year.energy_kwh == pytest.approx(
            hourly_year(workspace.desk, design_for(FULL, option)).energy_kwh
        )
        assert len(year.monthly_kwh) == 12
        assert [len(d) for d in year.days_kw] == [24] * len(told.day_titles)
    assert a.energy_kwh is not None
    assert b.energy_kwh is not None
    assert sum(d.kwh for d in b.differences) == pytest.approx(b.energy_kwh - a.energy_kwh)
    assert a.differences == ()
    assert (a.stops, b.stops) == (0, 1)
    assert b.first_broken.startswith("Cold Voc, string A: 640 V of 600 V")
    assert told.told[0].startswith("B one longer string gives −")


def test_the_overrun_tracker_shows_its_year_before_and_after_mending(workspace: Workspace) -> None:
    job = mill_terrace(SHELF)
    job_id = jobs.store_job(workspace, job, "sample", "tests").job_id
    *_, report = remedies(workspace.desk, design_for(job, job.options[0]))
    assert report.best is not None
    remedy = report.remedies[report.best]
    jobs.save_edit(workspace, job_id, 1, remedy.edit, "tests")
    before = jobs.earlier(workspace, job_id, 2)
    assert [(e.revision, e.before) for e in before] == [(1, remedy.title)]
    told = compared(workspace, job_id, 2, parse_picks("a@1,a", 2))
    was, now = told.years
    assert (was.earlier, now.earlier) == (True, False)
    assert was.tracker_loss_kwh == pytest.approx(209, abs=1)
    assert now.tracker_loss_kwh == pytest.approx(0, abs=1)
    assert now.energy_kwh == pytest.approx((was.energy_kwh or 0) + (remedy.gain_kwh or 0))
    assert "against what was before" in told.told[0]


def test_a_battery_is_part_of_what_an_option_costs(workspace: Workspace) -> None:
    job_id = jobs.store_job(workspace, FULL, "sample", "tests").job_id
    for number, (price, more) in enumerate((("7200", 720_000), ("", None)), start=1):
        battery = SetBattery(OptionId("a"), Coupling.DC, "10", "5", price)
        jobs.save_edit(workspace, job_id, number, battery, "tests")
        picks = parse_picks("a@1,a", number + 1)
        was, now = compared(workspace, job_id, number + 1, picks).years
        assert was.cents is not None
        assert now.cents == (None if more is None else was.cents + more)
        assert now.made_of.endswith("battery 10 kWh, 5 kW, on the DC side")
        assert (now.own_use_kwh or 0) > (was.own_use_kwh or 0) + 1000


def test_which_options_are_asked_for_is_read_with_care(workspace: Workspace) -> None:
    assert parse_picks("a, b,a@3,a", 5) == (
        Pick(OptionId("a"), 5), Pick(OptionId("b"), 5), Pick(OptionId("a"), 3),
    )  # fmt: skip
    with pytest.raises(NotUnderstood, match="a,b"):
        parse_picks("a@x", 1)
    for typed in ("", "a,b,c,d,e"):
        with pytest.raises(OutOfRange, match="1 to 4"):
            parse_picks(typed, 1)
    job_id = jobs.store_job(workspace, FULL, "sample", "tests").job_id
    for typed in ("z", "a@9"):
        with pytest.raises(NotFound):
            compared(workspace, job_id, 1, parse_picks(typed, 1))
