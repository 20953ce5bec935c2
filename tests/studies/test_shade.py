"""Shade on the sample jobs: who throws it, what trimming gives back, what it rests on."""

from dataclasses import replace

import pytest

from jobs import FULL, SHELF, option_a, warm_workspace_in
from ridge_tally.core.errors import MissingDatum, NotFound, OutOfRange
from ridge_tally.core.job.document import Job, present_ids
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.survey.obstructions import RemoveObstruction
from ridge_tally.core.job.edits.survey.surroundings import SetShadeField, ShadeField
from ridge_tally.core.sun.occluders import OwnerKind
from ridge_tally.core.sun.shading import FINE
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.services.workspace import Workspace
from ridge_tally.studies.sun.shade import ShadeReport, at_meter, shade_report, trimmed
from ridge_tally.views.loading.year import year_report

TREE = next(s for s in FULL.survey.shade_sources if s.name == "Cottonwood")


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(tmp_path_factory.mktemp("data"))


@pytest.fixture(scope="module")
def report(workspace: Workspace) -> ShadeReport:
    return shade_report(workspace.desk, design_for(FULL, option_a(FULL)))


def by_name(report: ShadeReport) -> dict[str, float]:
    return {c.name: c.alone_kwh for c in report.culprits}


def test_the_worst_tree_is_found_by_name_and_told(report: ShadeReport) -> None:
    worst = report.culprits[0]
    assert (worst.name, worst.kind, worst.shade_id) == ("Cottonwood", OwnerKind.TREE, TREE.id)
    assert "without Cottonwood alone it would be" in report.told
    assert report.stand_in_weather
    assert "from memory" in report.crowns


def test_months_modules_and_the_array_add_up(report: ShadeReport) -> None:
    assert sum(report.monthly_lost_kwh) == pytest.approx(report.lost_kwh)
    area_m2 = 1.722 * 1.134
    lost = sum(m.lost_frac * m.free_kwh_per_m2 for m in report.modules) * area_m2
    assert lost == pytest.approx(report.lost_kwh)
    assert len(report.modules) == len(present_ids(option_a(FULL)))
    for culprit in report.culprits:
        assert sum(culprit.monthly_kwh) == pytest.approx(culprit.alone_kwh)
        # Who stands behind others gives less back than it would take by itself.
        assert 0 <= culprit.alone_kwh <= culprit.only_kwh + 1e-6


def test_leave_one_out_is_what_the_job_without_it_gains(workspace: Workspace, report) -> None:
    chimney = next(o for o in FULL.survey.planes[0].obstructions if o.name == "Chimney")
    without = apply_edit(FULL, RemoveObstruction("south", chimney.id), SHELF)
    gained = (
        report.lost_kwh
        - shade_report(workspace.desk, design_for(without, option_a(without))).lost_kwh
    )
    assert by_name(report)["Chimney"] == pytest.approx(gained, rel=1e-6)


def test_at_the_meter_an_owner_costs_what_the_year_without_it_gains(workspace, report) -> None:
    chimney = next(o for o in FULL.survey.planes[0].obstructions if o.name == "Chimney")
    number = next(c.number for c in report.culprits if c.name == "Chimney")
    without = apply_edit(FULL, RemoveObstruction("south", chimney.id), SHELF)
    gained = (
        year_report(workspace.desk, design_for(without, option_a(without))).energy_kwh
        - year_report(workspace.desk, design_for(FULL, option_a(FULL))).energy_kwh
    )
    cost = at_meter(workspace.desk, design_for(FULL, option_a(FULL)), number)
    assert cost.kwh == pytest.approx(gained, abs=0.5)
    assert cost.kwh > 20
    with pytest.raises(NotFound, match="owner of shade"):
        at_meter(workspace.desk, design_for(FULL, option_a(FULL)), 99)


def test_the_modules_beside_the_chimney_lose_most(report: ShadeReport) -> None:
    worst = sorted(report.modules, key=lambda m: -m.lost_frac)[:2]
    assert {m.module_id for m in worst} == {"south-25", "south-26"}


def test_trimming_gives_back_what_the_trimmed_job_gains(workspace: Workspace, report) -> None:
    cut = trimmed(workspace.desk, design_for(FULL, option_a(FULL)), TREE.id, 2.0)
    typed = SetShadeField(TREE.id, ShadeField.HEIGHT, f"{cut.to_m} m")
    job: Job = apply_edit(FULL, typed, SHELF)
    after = shade_report(workspace.desk, design_for(job, option_a(job)))
    assert cut.recovered_kwh == pytest.approx(report.lost_kwh - after.lost_kwh, rel=1e-6)
    assert 0 < cut.recovered_kwh < by_name(report)["Cottonwood"]
    assert cut.recovered_frac == pytest.approx(cut.recovered_kwh / report.free_kwh)
    gained = (
        year_report(workspace.desk, design_for(job, option_a(job))).energy_kwh
        - year_report(workspace.desk, design_for(FULL, option_a(FULL))).energy_kwh
    )
    assert cut.meter_kwh == pytest.approx(gained)


@pytest.mark.parametrize(
    ("shade_id", "by_m", "error", "says"),
    [
        ("ghost", 1.0, NotFound, "ghost"),
        (TREE.id, 0.0, OutOfRange, "Trimmed off Cottonwood, metres reads 0"),
        (TREE.id, 40.0, OutOfRange, "below 11"),
    ],
)
def test_a_trim_that_cannot_be_is_refused(workspace, shade_id, by_m, error, says) -> None:
    with pytest.raises(error, match=says):
        trimmed(workspace.desk, design_for(FULL, option_a(FULL)), shade_id, by_m)


def test_a_tree_of_unknown_height_is_not_trimmed(workspace: Workspace) -> None:
    unknown = replace(TREE, height=None, sighting=None)
    survey = replace(FULL.survey, shade_sources=(unknown,))
    with pytest.raises(MissingDatum, match="Cottonwood has no height"):
        trimmed(
            workspace.desk, design_for(replace(FULL, survey=survey), option_a(FULL)), TREE.id, 1.0
        )


def test_without_modules_nothing_is_shaded(workspace: Workspace) -> None:
    every = present_ids(option_a(FULL))
    job = apply_edit(FULL, ToggleModules("a", every), SHELF)
    with pytest.raises(MissingDatum, match="Lay some in the Array step"):
        shade_report(workspace.desk, design_for(job, option_a(job)))


def test_the_fine_sky_agrees_with_the_quick_one(workspace: Workspace, report) -> None:
    fine = shade_report(workspace.desk, design_for(FULL, option_a(FULL)), FINE)
    assert (report.resolution, fine.resolution) == ("quick", "fine")
    assert fine.lost_frac == pytest.approx(report.lost_frac, abs=0.001)
    for one, other in zip(fine.modules, report.modules, strict=True):
        assert one.lost_frac == pytest.approx(other.lost_frac, abs=0.006)
