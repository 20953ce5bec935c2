"""The measured-curve bench: a file taken in, groups typed, the model beside it."""

from datetime import date
from pathlib import Path

import pytest

from jobs import SAMPLE, SHELF, option_a, workspace_in
from meter_files import power_csv
from ridge_tally.core.errors import BadGeometry, FormatError, NotUnderstood, OutOfRange
from ridge_tally.core.job.bench import BenchTerm
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.loading.bench import ClearBench, SetBench, TypedTerm, UsePowerFile
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.services.taken_in import take_in_power
from ridge_tally.services.workspace import Workspace
from ridge_tally.studies.loading.bench import bench_view, solar_noon_h


@pytest.fixture
def workspace(tmp_path: Path) -> Workspace:
    return workspace_in(tmp_path)


def on_bench(workspace: Workspace, content: bytes) -> Job:
    ref = take_in_power(workspace, SAMPLE, content, "day.csv")
    return apply_edit(SAMPLE, UsePowerFile(ref, "400"), SHELF)


def set_bench(job: Job, *terms: TypedTerm, limit: str = "", daylight: bool = False) -> Job:
    return apply_edit(job, SetBench("400", terms, limit, daylight), SHELF)


def test_a_day_is_taken_in_and_made_the_whole_array(workspace: Workspace) -> None:
    job = on_bench(workspace, power_csv())
    report = bench_view(workspace.desk, design_for(job, option_a(job))).report
    assert report is not None
    assert report.bench.file.day == date(2025, 4, 18)
    # The sample's 28 modules of 405 W.
    assert report.bench.terms == (BenchTerm(28 * 405.0, mirrored=False),)
    # By hand: 300 W of a 400 W module, a half sine of 12 h: 0.75 * 12 * 2/pi = 5.73 kWh a kW.
    assert report.whole_kwh == pytest.approx(0.75 * 12 * 2 / 3.14159 * 11.34, rel=2e-3)
    assert report.most_kw == pytest.approx(0.75 * 11.34, rel=1e-3)
    assert report.model_kwh is not None
    assert report.clipped_kwh == 0


def test_solar_noon_is_where_equation_of_time_and_longitude_put_it() -> None:
    # By hand for 105.6° W at UTC-7: 2.4 minutes after twelve by longitude; the equation of time on
    # 18 April is about +0.7 minutes (Meeus, Astronomical Algorithms, from memory).
    assert solar_noon_h(SAMPLE, date(2025, 4, 18)) * 60 == pytest.approx(721.7, abs=1.5)


def test_half_each_way_is_symmetric_about_noon_and_a_limit_cuts_it(workspace: Workspace) -> None:
    job = on_bench(workspace, power_csv(noon_h=10.5))
    halves = (TypedTerm("5 kW", mirrored=False), TypedTerm("5000", mirrored=True))
    report = bench_view(
        workspace.desk, design_for(set_bench(job, *halves, limit="5"), option_a(job))
    ).report
    assert report is not None
    mirrored = report.whole_kw[::-1]
    # Noon lies 1.7 minutes after twelve: a fraction of a step of five minutes.
    assert report.whole_kw == pytest.approx(mirrored, abs=0.15)
    assert max(report.given_kw) == 5.0
    assert report.clipped_kwh > 0
    assert any("faces east" in d for d in report.caveats)


def test_a_clock_on_daylight_time_is_put_back(workspace: Workspace) -> None:
    job = on_bench(workspace, power_csv(noon_h=13.0))
    summer = set_bench(job, TypedTerm("4000", mirrored=False), daylight=True)
    report = bench_view(workspace.desk, design_for(summer, option_a(job))).report
    assert report is not None
    assert report.whole_kw.index(max(report.whole_kw)) * 5 / 60 == pytest.approx(12.0, abs=0.1)
    assert not any("clock is another" in d for d in report.caveats)


def test_a_cut_off_top_and_passing_clouds_are_told(workspace: Workspace) -> None:
    rows = power_csv().decode().splitlines()
    capped = [
        rows[0],
        *(f"{r.split(',')[0]},{min(250.0, float(r.split(',')[1]))}" for r in rows[1:]),
    ]
    job = on_bench(workspace, "\n".join(capped).encode())
    report = bench_view(workspace.desk, design_for(job, option_a(job))).report
    assert report is not None
    assert report.days[0].limited
    assert any("held the module back" in d for d in report.caveats)


def test_an_empty_bench_says_how_to_fill_it_and_a_lost_file_to_choose_it_again(
    workspace: Workspace, tmp_path: Path
) -> None:
    view = bench_view(workspace.desk, design_for(SAMPLE, option_a(SAMPLE)))
    assert (view.report, view.problem) == (None, "")
    assert any("never pull its connectors under load" in s for s in view.freeing)
    job = on_bench(workspace, power_csv())
    elsewhere = workspace_in(tmp_path / "elsewhere")
    assert "choose it again" in bench_view(elsewhere.desk, design_for(job, option_a(job))).problem
    assert apply_edit(job, ClearBench(), SHELF).bench is None


def test_what_cannot_be_is_refused_by_field(workspace: Workspace) -> None:
    with pytest.raises(BadGeometry, match="Choose its file first"):
        set_bench(SAMPLE)
    job = on_bench(workspace, power_csv())
    with pytest.raises(NotUnderstood, match="Group 1"):
        set_bench(job, TypedTerm("many", mirrored=False))
    with pytest.raises(OutOfRange, match="Limit of the bench"):
        set_bench(job, limit="0")
    with pytest.raises(OutOfRange, match="Groups on the bench"):
        set_bench(job, *[TypedTerm("100", mirrored=False)] * 7)
    with pytest.raises(FormatError, match="no day in it"):
        take_in_power(workspace, SAMPLE, b"time,W\n2025-04-18 10:00,5\n2025-04-18 10:05,6\n", "x")
