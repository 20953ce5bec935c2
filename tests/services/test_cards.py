"""Jobs as cards: what one tells, its last known year, the archive, samples begun anew."""

from math import dist
from pathlib import Path

import pytest

from jobs import FULL, SAMPLE, warm_workspace_in
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.edits.options import RenameJob
from ridge_tally.core.units import LengthUnit
from ridge_tally.services import cards, jobs
from ridge_tally.services.sample_jobs import Sample, store_sample
from ridge_tally.services.workspace import Workspace
from ridge_tally.views.step_state import StepState


@pytest.fixture
def workspace(tmp_path: Path) -> Workspace:
    return warm_workspace_in(tmp_path)


def test_a_card_tells_size_place_and_steps_and_draws_planes_and_modules(
    workspace: Workspace,
) -> None:
    stored = jobs.store_job(workspace, FULL, "sample", "tests")
    card = cards.job_card(workspace, stored.job_id)
    assert (card.modules, card.p_dc_w) == (28, 28 * 405)
    assert (card.place, card.options) == (FULL.site.place, 2)
    assert card.steps["brief"] is stored.brief.step
    assert card.steps["strings"] is stored.reports[0].steps["strings"]
    assert len(card.plan.planes) == len(FULL.survey.planes)
    assert len(card.plan.modules) == 28
    # By hand: the south roof's eave is 40 ft, and level: 12.19 m on the site as along the roof.
    left, right, *_ = card.plan.planes[0]
    assert dist(left, right) == pytest.approx(40 * 0.3048, abs=0.01)


def test_a_year_is_told_once_it_was_worked_out_and_said_to_be_older_after_an_edit(
    workspace: Workspace,
) -> None:
    stored = jobs.store_job(workspace, SAMPLE, "sample", "tests")
    job_id = stored.job_id
    assert cards.job_card(workspace, job_id).energy_kwh is None
    year = cards.option_year(workspace, job_id, 1, "a")
    card = cards.job_card(workspace, job_id)
    assert (card.energy_kwh, card.year_is_newest) == (year.energy_kwh, True)
    jobs.save_edit(workspace, job_id, 1, RenameJob("Bench"), "tests")
    card = cards.job_card(workspace, job_id)
    assert (card.energy_kwh, card.year_is_newest) == (year.energy_kwh, False)
    jobs.undo(workspace, job_id, 2)
    assert cards.job_card(workspace, job_id).year_is_newest


def test_an_empty_job_has_a_card_and_no_year(workspace: Workspace) -> None:
    made = jobs.create_job(workspace, "Larch End", LengthUnit.METRE, "tests")
    card = cards.job_card(workspace, made.job_id)
    assert (card.modules, card.energy_kwh, card.plan.modules) == (0, None, ())
    assert card.steps["strings"] is StepState.NOT_BEGUN


def test_the_archive_keeps_a_job_as_it_is(workspace: Workspace) -> None:
    stored = jobs.store_job(workspace, SAMPLE, "sample", "tests")
    cards.archive_job(workspace, stored.job_id, away=True)
    (entry,) = jobs.list_jobs(workspace)
    assert (entry.archived, entry.head) == (True, 1)
    assert jobs.open_job(workspace, stored.job_id).job == SAMPLE
    cards.archive_job(workspace, stored.job_id, away=False)
    assert not jobs.list_jobs(workspace)[0].archived
    with pytest.raises(NotFound):
        cards.archive_job(workspace, "nowhere", away=True)


def test_a_sample_is_begun_as_a_job_of_its_own(workspace: Workspace) -> None:
    first, second = (store_sample(workspace, Sample.MILL_TERRACE, "tests") for _ in range(2))
    assert (first.job_id, second.job_id) == ("mill-terrace", "mill-terrace-2")
    assert first.job == second.job
