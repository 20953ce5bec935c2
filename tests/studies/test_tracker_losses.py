"""What trackers lose: nothing to mixing where all is of a sort, more in series than in parallel."""

from dataclasses import replace
from pathlib import Path

import pytest

from jobs import FULL, SHELF, option_a, warm_workspace_in, with_inverter
from ridge_tally.core.energy.waterfall import Step
from ridge_tally.core.equipment import TrackerSheet
from ridge_tally.core.job.array import Ways, present_of
from ridge_tally.core.job.document import Job, with_option
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.option import ModuleString
from ridge_tally.demo.juniper_survey import GARAGE_WEST, SOUTH
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.strings.tracker_losses import TrackerLosses, tracker_losses

WIDE = tuple(TrackerSheet(60.0, 590.0, 60.0, 90.0, 4) for _ in range(2))


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("losses")))


def garage_and_house() -> Job:
    return apply_edit(
        with_inverter(FULL, trackers=WIDE), FillPlane("a", GARAGE_WEST, Ways.PORTRAIT), SHELF
    )


def strung(job: Job, *strings: tuple[int, tuple[str, ...]]) -> Job:
    made = tuple(ModuleString(f"S{n}", t, ids) for n, (t, ids) in enumerate(strings))
    return with_option(job, replace(option_a(job), strings=made))


def losses(workspace: Workspace, job: Job) -> dict[int, TrackerLosses]:
    return {t.number: t for t in tracker_losses(workspace.desk, design_for(job, option_a(job)))}


def test_mixing_costs_most_in_series_little_in_parallel_and_nothing_apart(
    workspace: Workspace,
) -> None:
    job = garage_and_house()
    south, west = (
        tuple(m.id for m in present_of(a))[:6]
        for a in sorted(option_a(job).arrays, key=lambda a: a.plane_id != SOUTH)
        if a.plane_id in (SOUTH, GARAGE_WEST)
    )
    apart = losses(workspace, strung(job, (1, south), (2, west)))
    parallel = losses(workspace, strung(job, (1, south), (1, west)))[1]
    series = losses(workspace, strung(job, (1, south + west)))[1]
    assert [t.mixed_kwh for t in apart.values()] == [None, None]
    assert parallel.mixed_kwh is not None
    assert series.mixed_kwh is not None
    # The same modules under the same light: only what is joined differs.
    own = sum(t.own_kwh for t in apart.values())
    assert parallel.own_kwh == pytest.approx(own, rel=1e-6)
    # One string's cells are taken as equally warm.
    assert series.own_kwh == pytest.approx(own, rel=3e-3)
    # Common practice, no source: neighbouring planes in parallel usually cost 0.5 to 2 %.
    assert 0 <= parallel.mixed_kwh < 0.02 * own
    assert series.mixed_kwh > 4 * parallel.mixed_kwh
    # Apart means apart: what mixing costs is what the year on own trackers gives more.
    free = own - sum(t.uneven_kwh for t in apart.values())
    assert series.own_kwh - series.uneven_kwh + series.mixed_kwh == pytest.approx(free, rel=1e-6)


def test_strings_of_two_lengths_in_parallel_pay_for_it(workspace: Workspace) -> None:
    job = with_inverter(FULL, trackers=WIDE)
    ids = tuple(m.id for m in present_of(option_a(job).arrays[0]))
    uneven = losses(workspace, strung(job, (1, ids[:10]), (1, ids[10:15])))[1]
    even = losses(workspace, strung(job, (1, ids[:8]), (1, ids[8:16])))[1]
    assert even.mixed_kwh is None
    assert uneven.mixed_kwh is not None
    assert uneven.mixed_kwh > 0.1 * uneven.own_kwh


def test_an_overrun_tracker_tells_its_hours_and_what_it_clips(workspace: Workspace) -> None:
    narrow = tuple(TrackerSheet(60.0, 590.0, 14.0, 90.0, 4) for _ in range(2))
    job = with_inverter(FULL, trackers=narrow)
    ids = tuple(m.id for m in present_of(option_a(job).arrays[0]))
    found = losses(workspace, strung(job, (1, ids[:14]), (1, ids[14:])))[1]
    assert found.over_hours > 1000
    # Two strings of 13 A each on 14 A: most of what is above half their current is lost.
    assert 0.1 < found.limits_kwh / found.own_kwh < 0.4
    year = hourly_year(workspace.desk, design_for(strung(job, (1, ids[:14]), (1, ids[14:])), option_a(
        strung(job, (1, ids[:14]), (1, ids[14:]))
    )))  # fmt: skip
    assert found.limits_kwh == pytest.approx(year.lost_kwh(Step.TRACKER), rel=1e-6)
