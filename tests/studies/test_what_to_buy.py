"""Every module, way and inverter of a shelf on a roof, and the answer of Loading."""

from dataclasses import replace
from pathlib import Path

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, warm_workspace_in, with_module
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import option_of, present_ids
from ridge_tally.core.working import LimitKind
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.remembered import Remembered
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.loading.what_to_buy import WhatToBuy, what_to_buy
from ridge_tally.studies.loading.which import which
from ridge_tally.studies.parts import bill_of
from ridge_tally.studies.rule_status import standing_of


def small(folder: Path, *, priced: bool = True) -> Workspace:
    """A shelf of three modules, six inverters, an optimizer of each kind and a microinverter."""
    modules = tuple(SHELF.module(m) for m in ("sample-405", "sample-350b", "sample-545"))
    if not priced:
        modules = tuple(replace(m, price_cents=None) for m in modules)
    kinds = {o.kind: o for o in SHELF.optimizers}
    shelf = replace(
        SHELF,
        modules=modules,
        inverters=(*SHELF.inverters[1:6], SHELF.inverters[19]),
        optimizers=tuple(kinds.values()),
        microinverters=SHELF.microinverters[2:3],
    )
    remembered = Remembered(1)
    remembered.get("shelf", lambda: shelf)
    whole = warm_workspace_in(folder)
    return replace(whole, desk=replace(whole.desk, samples=shelf, own=remembered))


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return small(Path(tmp_path_factory.mktemp("buying")))


@pytest.fixture(scope="module")
def steps(workspace: Workspace) -> list[WhatToBuy]:
    return list(what_to_buy(workspace.desk, design_for(SAMPLE, option_a(SAMPLE))))


def test_each_combination_is_the_design_its_edit_makes(
    workspace: Workspace, steps: list[WhatToBuy]
) -> None:
    last = steps[-1]
    assert {p.architecture for p in last.found} >= {Architecture.STRINGS, Architecture.MICRO}
    by_way = {p.architecture: p for p in last.found}
    by_module = {p.module_id: p for p in last.found}
    for purchase in (*by_way.values(), *by_module.values()):
        job = apply_edit(SAMPLE, purchase.edit, workspace.desk.shelf)
        option = option_of(job, option_a(SAMPLE).id)
        year = hourly_year(workspace.desk, design_for(job, option))
        assert year.energy_kwh == pytest.approx(purchase.energy_kwh)
        assert len(present_ids(option)) == purchase.modules
        assert option.module_id == purchase.module_id
        assert option.electronics.architecture is purchase.architecture
        assert bill_of(design_for(job, option)).cents == purchase.cents
        broken = standing_of(design_for(job, option)).broken.values()
        assert not any(b.kind is LimitKind.STOP for b in broken)
        assert {b.told for b in broken if b.kind is LimitKind.OUTSIDE} == set(purchase.outside)


def test_it_is_ranked_by_energy_for_the_money_what_keeps_all_limits_first(
    steps: list[WhatToBuy],
) -> None:
    last = steps[-1]
    assert last.by_cost
    keys = [(len(p.outside) > 0, -(p.kwh_per_100 or 0)) for p in last.found]
    assert keys == sorted(keys)
    best = last.found[0]
    # By hand: kWh a year for each 100 of parts.
    assert best.cents is not None
    assert best.kwh_per_100 == pytest.approx(best.energy_kwh / (best.cents / 100) * 100)
    assert last.told[0].startswith(f"Most kWh for the money: {best.modules} × {best.module}")
    assert sum(r.count for r in last.refused) <= last.refused_count
    assert all(r.why and r.example for r in last.refused)


def test_it_streams_its_own_module_first_and_grows(steps: list[WhatToBuy]) -> None:
    assert steps[0].count == 0
    first = next(s for s in steps if s.count)
    assert {p.module_id for p in first.found} == {option_a(SAMPLE).module_id}
    assert [s.count for s in steps] == sorted(s.count for s in steps)
    assert steps[-1].looked_at == steps[-1].of == 3
    assert len(steps) > 10


def test_without_prices_it_ranks_by_energy_and_names_what_is_missing(tmp_path: Path) -> None:
    workspace, job = small(tmp_path, priced=False), with_module(SAMPLE, price_cents=None)
    found = next(
        s for s in what_to_buy(workspace.desk, design_for(job, option_a(job))) if s.count > 2
    )
    assert not found.by_cost
    by_energy = [p.energy_kwh for p in found.found if not p.outside]
    assert by_energy == sorted(by_energy, reverse=True)
    assert found.unknown_prices == ("Sample module 405 W, half-cut",)
    assert found.told[0].startswith("Most kWh so far: ")


def test_loading_answers_which_inverter_how_many_and_which_way(workspace: Workspace) -> None:
    steps = list(which(workspace.desk, design_for(FULL, option_a(FULL))))
    assert [s.done_frac for s in steps] == sorted(s.done_frac for s in steps)
    # A first inverter is told after one year; nobody can take what more years may turn.
    first = next(s for s in steps if s.inverter.answer)
    assert first.inverter.so_far.startswith("Best of 1 so far, of ")
    assert first.inverter.edit is None
    assert not first.way.answer
    last = steps[-1]
    assert last.inverter.so_far == ""
    hanging = FULL.equipment.inverters[0].name
    assert last.inverter.answer in {i.name for i in workspace.desk.shelf.inverters}
    assert (last.inverter.edit is None) == (last.inverter.answer == hanging)
    assert last.modules.answer == "28, DC:AC 1.49, as it is"
    assert last.modules.edit is None
    assert last.way.answer == "all to the equator"
    assert any("less light than the best angle" in w for w in last.way.why)


def test_the_answer_to_an_overrun_tracker_is_an_inverter_that_carries_it(tmp_path: Path) -> None:
    job = mill_terrace(SHELF)
    workspace = warm_workspace_in(tmp_path)
    *_, last = which(workspace.desk, design_for(job, option_a(job)))
    assert last.inverter.edit is not None
    mended = apply_edit(job, last.inverter.edit, SHELF)
    assert not standing_of(design_for(mended, option_a(mended))).broken
    assert any("no legal plan" in w for w in last.inverter.why)
