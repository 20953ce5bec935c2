"""The target report: first guess and true yield, the binding ceiling, routes, the brief sheet."""

from io import BytesIO
from pathlib import Path

import numpy as np
import pytest
from pypdf import PdfReader

from jobs import SAMPLE, SHELF, option_a, warm_workspace_in
from ridge_tally.core.brief.target import CeilingKind
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.brief.bills import RemoveBills, SetUse
from ridge_tally.core.job.edits.brief.grid import (
    GridField,
    RouteField,
    SetGridField,
    SetRouteField,
    TakeGridPack,
)
from ridge_tally.core.job.edits.brief.needs import (
    AddExisting,
    AddLoad,
    ExistingField,
    LoadKind,
    ServiceField,
    SetExistingField,
    SetGrowth,
    SetNoGo,
    SetServiceField,
    SetTargetField,
    TargetField,
)
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.edits.survey.outlines import SetReading
from ridge_tally.core.job.grid import RouteKind
from ridge_tally.core.job.survey import ReadingKind
from ridge_tally.core.units import LengthUnit
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.services import jobs
from ridge_tally.services.papers import brief_pdf
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.brief.target import TargetReport, target_report
from ridge_tally.views.loading.year import year_report

EVERY = tuple(m.id for a in option_a(SAMPLE).arrays for m in a.modules)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(tmp_path_factory.mktemp("data"))


def report(workspace: Workspace, *steps: Edit) -> TargetReport:
    job: Job = SAMPLE
    for step in steps:
        job = apply_edit(job, step, SHELF)
    return target_report(workspace.desk, design_for(job, option_a(job)))


def test_the_binding_ceiling_is_named_with_what_it_cuts_off(workspace: Workspace) -> None:
    found = report(workspace)
    # Mixed rows would put 29 on the roof; the busbar takes 28.
    assert found.told == "The target is 33 modules; the busbar ends it at 28, 5 short"
    assert (found.binding, found.spare, found.modules_now) == (CeilingKind.BUSBAR, -5, 28)
    assert next(c.modules for c in found.ceilings if c.kind is CeilingKind.ROOF) == 29


def test_against_usage_is_the_year_over_the_need(workspace: Workspace) -> None:
    found = report(workspace)
    year = year_report(workspace.desk, design_for(SAMPLE, option_a(SAMPLE)))
    assert found.yield_simulated
    assert found.against_need_frac == pytest.approx(year.energy_kwh / found.need_kwh)
    assert found.need_kwh is not None
    # By hand: 33 is the first whole count whose yield reaches the need.
    one_kwh = found.yield_kwh_per_kw * 0.405
    assert 32 * one_kwh < found.need_kwh <= 33 * one_kwh


def test_before_modules_are_strung_the_yield_is_a_first_guess(workspace: Workspace) -> None:
    guess = report(workspace, ToggleModules("a", EVERY))
    assert not guess.yield_simulated
    assert guess.yield_origin.startswith("first guess: 80 % of the light on South roof")
    true = report(workspace)
    assert guess.yield_kwh_per_kw == pytest.approx(true.yield_kwh_per_kw, rel=0.1)
    assert guess.against_need_frac is None
    assert sum(guess.monthly_kwh) == pytest.approx(
        guess.target_dc_kw * guess.yield_kwh_per_kw, rel=1e-9
    )


def test_a_typed_yield_stands_until_the_year_is_simulated(workspace: Workspace) -> None:
    typed = SetTargetField(TargetField.YIELD, "1500")
    assert report(workspace, typed, ToggleModules("a", EVERY)).yield_kwh_per_kw == 1500
    assert report(workspace, typed).yield_simulated


def test_a_roof_left_free_takes_its_modules_out_of_the_ceiling(workspace: Workspace) -> None:
    found = report(workspace, SetNoGo("south", on=True))
    assert (found.binding, found.ceilings[0].modules) == (CeilingKind.ROOF, 0)


def test_a_design_beyond_an_exact_ceiling_is_told(workspace: Workspace) -> None:
    assert not any(c.passed for c in report(workspace).ceilings)
    small = SetGridField(GridField.SIZE_CAP, "80 %")
    assert [c.kind for c in report(workspace, small).ceilings if c.passed] == [CeilingKind.SIZE_CAP]
    # The busbar's modules rest on a ratio taken; the design's own inverter is checked instead.
    less = SetServiceField(ServiceField.BUSBAR, "175 A")
    assert not any(c.passed for c in report(workspace, less).ceilings)


def test_an_old_array_counts_in_need_cap_and_busbar(workspace: Workspace) -> None:
    old = (
        AddExisting(),
        SetExistingField("existing1", ExistingField.ENERGY, "5000"),
    )
    before, after = report(workspace), report(workspace, *old)
    by_kind = {c.kind: c for c in after.ceilings}
    was = {c.kind: c for c in before.ceilings}
    # Built in 2015, before the first bill: past use is bills + 5000, and 5000 is taken off the
    # cap: 1.2 * 5000 - 5000 = 1000 kWh more room than before.
    room = (by_kind[CeilingKind.SIZE_CAP].value or 0) - (was[CeilingKind.SIZE_CAP].value or 0)
    assert room * 0.405 * after.yield_kwh_per_kw == pytest.approx(1000)
    assert by_kind[CeilingKind.BUSBAR].value < was[CeilingKind.BUSBAR].value
    assert after.need_kwh == before.need_kwh


def test_routes_tell_what_staying_small_costs(workspace: Workspace) -> None:
    small = SetRouteField(RouteKind.NOTIFY, RouteField.MOST, "3.68")
    imposed = SetRouteField(RouteKind.APPLY, RouteField.IMPOSED_EXPORT, "5")
    (inverter,) = report(workspace, small, imposed).routes
    notify, apply = inverter.routes
    assert (notify.open, apply.open) == (False, True)
    year = hourly_year(workspace.desk, design_for(SAMPLE, option_a(SAMPLE)))
    kept = np.minimum(year.parts_w, 3680.0).mean(axis=1).sum() / 1000
    assert notify.lost_kwh == pytest.approx(year.ac_rated_w.sum() / 1000 - kept, rel=1e-6)
    # Net metering by the month, 12.4 and 15.8 cents: most of it would only have been cheap ones.
    assert 12.4 * notify.lost_kwh < (notify.lost_cents or 0) < 15.8 * notify.lost_kwh
    assert apply.lost_kwh is None
    assert apply.export_lost_kwh == pytest.approx(
        (year.ac_rated_w - np.minimum(year.parts_w, 5000.0).mean(axis=1)).sum() / 1000, rel=1e-6
    )


def test_without_grid_or_bills_it_says_what_is_missing(workspace: Workspace) -> None:
    found = report(workspace, TakeGridPack(""), RemoveBills(()))
    assert found.told.startswith("No target yet: use in a year")
    assert found.routes == ()
    assert found.against_need_frac is None
    assert [c.kind for c in found.ceilings] == [
        CeilingKind.ROOF,
        CeilingKind.PURSE,
        CeilingKind.BUSBAR,
    ]


def test_a_roof_nobody_measured_is_told_as_such(tmp_path: Path) -> None:
    workspace = warm_workspace_in(tmp_path)
    job = jobs.create_job(workspace, "Larch End", LengthUnit.METRE, "tests").job
    use = apply_edit(job, SetUse("9000"), SHELF)
    blank = target_report(workspace.desk, design_for(use, option_a(use)))
    assert blank.told.endswith("no ceiling is known yet")
    assert (blank.ceilings[0].title, blank.ceilings[0].modules) == ("Roof, unmeasured", None)
    measured = use
    for edge, typed in ((0, "10.02"), (3, "6.1")):
        taped = SetReading("plane-1", ReadingKind.SIDE, (edge,), typed)
        measured = apply_edit(measured, taped, SHELF)
    assert (
        "unmeasured"
        not in target_report(workspace.desk, design_for(measured, option_a(measured))).told
    )


@pytest.mark.parametrize(
    "steps",
    [
        (),
        (
            AddExisting(),
            AddLoad(LoadKind.HEAT_PUMP),
            AddLoad(LoadKind.OTHER),
            SetGrowth("6"),
            SetNoGo("south", on=True),
            ChooseInverter("b", "sample-i10"),
        ),
        (RemoveBills(()), TakeGridPack("")),
    ],
)
def test_the_brief_is_one_page(tmp_path: Path, steps: tuple[Edit, ...]) -> None:
    workspace = warm_workspace_in(tmp_path)
    job: Job = SAMPLE
    for step in steps:
        job = apply_edit(job, step, SHELF)
    state = jobs.store_job(workspace, job, "sample", "tests")
    pdf = PdfReader(BytesIO(brief_pdf(workspace, state.job_id, 1, option_a(job).id)))
    assert len(pdf.pages) == 1
    text = " ".join(pdf.pages[0].extract_text().split())
    assert report(workspace, *steps).told in text
    assert "Approve before buying" in text
    assert ("invented sample" in text) is (job.brief.grid is not None)
