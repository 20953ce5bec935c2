"""The firm's own equipment beside the samples, looked through, used in a job, taken away."""

from pathlib import Path

import pytest

from equipment_rows import INVERTER, MODULE, table
from jobs import SAMPLE, SHELF, option_a, workspace_in
from ridge_tally.core.equipment import Origin
from ridge_tally.core.errors import FormatError, NotFound
from ridge_tally.core.job.edits.array.kinds import ChooseModule
from ridge_tally.core.job.system import system_of
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.formats.equipment_fields import SheetKind
from ridge_tally.services import own_equipment as own
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.views.shelf import ShelfQuestion, sheet_view, shelf_page

TYPED = {**MODULE, "beta_voc": "-98 mV/K", "price": "130", "freight": "12.50"}


@pytest.fixture
def workspace(tmp_path: Path) -> Workspace:
    return workspace_in(tmp_path)


def test_a_typed_module_stands_behind_the_samples_and_in_a_job(workspace: Workspace) -> None:
    sheet = own.keep_typed(workspace, SheetKind.MODULE, TYPED)
    assert workspace.desk.shelf.modules == (*SHELF.modules, sheet)
    job = apply_edit(SAMPLE, ChooseModule("a", sheet.id), workspace.desk.shelf)
    assert system_of(job, option_a(job)).module == sheet
    assert hourly_year(workspace.desk, design_for(job, option_a(job))).energy_kwh > 15_000
    own.remove_own(workspace, SheetKind.MODULE, sheet.id)
    assert workspace.desk.shelf == SHELF
    # The job keeps its copy.
    assert system_of(job, option_a(job)).module.name == "Hill 410"


def test_the_same_name_is_renewed_and_another_workspace_sees_it(
    workspace: Workspace, tmp_path: Path
) -> None:
    own.keep_typed(workspace, SheetKind.MODULE, TYPED)
    own.keep_typed(workspace, SheetKind.MODULE, {**TYPED, "mass_kg": "22"})
    again = workspace_in(tmp_path)
    (sheet,) = again.desk.shelf.modules[len(SHELF.modules) :]
    assert sheet.mass_kg == 22.0


def test_a_file_is_taken_in_and_its_bad_rows_told(workspace: Workspace) -> None:
    bad = {**MODULE, "name": "Hill bad", "imp_a": "20"}
    content = table(MODULE, bad, {**MODULE, "name": "Hill 2"}).encode()
    told = own.take_in_equipment(workspace, content, "m.csv")
    assert (told.added, told.renewed, told.left_out) == (2, 0, 1)
    again = own.take_in_equipment(workspace, content, "m.csv")
    assert (again.added, again.renewed) == (0, 2)
    assert own.own_equipment_file(workspace).count('"name"') == 2


def test_too_many_are_refused_and_nothing_is_kept(
    workspace: Workspace, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(own, "MOST_OWN", 2)
    rows = [{**MODULE, "name": f"Hill {n}"} for n in range(3)]
    with pytest.raises(FormatError, match="more than 2 own datasheets"):
        own.take_in_equipment(workspace, table(*rows).encode(), "m.csv")
    assert workspace.desk.shelf == SHELF


def test_a_sample_cannot_be_taken_away(workspace: Workspace) -> None:
    with pytest.raises(NotFound, match="own module"):
        own.remove_own(workspace, SheetKind.MODULE, SHELF.modules[0].id)


def test_each_value_says_where_it_is_from_and_the_fit_how_well_it_meets_them(
    workspace: Workspace,
) -> None:
    sheet = own.keep_typed(workspace, SheetKind.MODULE, TYPED)
    view = sheet_view(workspace.desk.shelf, SheetKind.MODULE, sheet.id)
    origins = {v.label: v.origin for v in view.values}
    assert origins["Voc"] is Origin.DATASHEET
    assert origins["Voc coefficient"] is Origin.COMPUTED
    assert origins["Bypass diodes"] is Origin.ESTIMATED
    assert origins["Nominal operating watts"] is Origin.COMPUTED
    assert view.fit is not None
    assert view.fit.worst_point_frac < 1e-3
    sample = sheet_view(workspace.desk.shelf, SheetKind.MODULE, SHELF.modules[1].id)
    assert {v.origin for v in sample.values} == {Origin.SAMPLE}
    bare = own.keep_typed(
        workspace, SheetKind.MODULE, {**TYPED, "name": "No coefficient", "beta_voc": ""}
    )
    fit = sheet_view(workspace.desk.shelf, SheetKind.MODULE, bare.id)
    assert (fit.fit, "voltage coefficient" in fit.fit_problem) == (None, True)


@pytest.mark.parametrize("kind", list(SheetKind))
def test_every_column_of_a_kind_sorts_both_ways_and_narrows(kind: SheetKind) -> None:
    whole = shelf_page(SHELF, kind, ShelfQuestion())
    assert whole.found == whole.of == len(SHELF.of_kind(kind.value))
    for at, column in enumerate(whole.columns):
        up = shelf_page(SHELF, kind, ShelfQuestion(sort=column.id))
        down = shelf_page(SHELF, kind, ShelfQuestion(sort=column.id, down=True))
        for page, turned in ((up, False), (down, True)):
            cells = [r.cells[at] for r in page.rows]
            known = [c for c in cells if c is not None and c != ""]
            assert known == sorted(known, reverse=turned)
            # What is not known stands last, whichever way.
            assert cells[: len(known)] == known
        numbers = [c for r in up.rows if isinstance(c := r.cells[at], float)]
        if numbers:
            some = shelf_page(SHELF, kind, ShelfQuestion(sort=column.id, least=max(numbers)))
            assert 0 < some.found <= len(numbers)
            assert all(r.cells[at] == max(numbers) for r in some.rows)
    assert {len(sheet_view(SHELF, kind, r.id).values) > 5 for r in whole.rows} == {True}


def test_words_find_and_pages_go_on(workspace: Workspace) -> None:
    rows = [{**MODULE, "name": f"Hill {n:03}"} for n in range(230)]
    own.take_in_equipment(workspace, table(*rows).encode(), "m.csv")
    shelf = workspace.desk.shelf
    first = shelf_page(shelf, SheetKind.MODULE, ShelfQuestion(words="hill"))
    assert (first.found, len(first.rows), first.rows[0].own) == (230, 100, True)
    last = shelf_page(shelf, SheetKind.MODULE, ShelfQuestion(words="hill", start=200))
    assert len(last.rows) == 30
    with pytest.raises(NotFound, match="column"):
        shelf_page(shelf, SheetKind.MODULE, ShelfQuestion(sort="colour"))


def test_an_own_inverter_of_one_efficiency_has_a_year(workspace: Workspace) -> None:
    from ridge_tally.core.job.edits.strings.inverters import ChooseInverter

    sheet = own.keep_typed(workspace, SheetKind.INVERTER, {**INVERTER, "p_ac_w": "7600"})
    job = apply_edit(SAMPLE, ChooseInverter("a", sheet.id), workspace.desk.shelf)
    assert hourly_year(workspace.desk, design_for(job, option_a(job))).energy_kwh > 15_000
