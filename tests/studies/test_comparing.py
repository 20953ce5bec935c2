"""The ways to the grid point by point, pairings, and every module of the shelf on a roof."""

from dataclasses import replace
from pathlib import Path

import pytest

from jobs import FULL, SAMPLE, SHELF, option_a, warm_workspace_in
from ridge_tally.core.job.architecture import Architecture
from ridge_tally.core.job.document import option_of, present_ids
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.brief.needs import SetGrowth
from ridge_tally.core.job.edits.strings.electronics import ChooseElectronics
from ridge_tally.demo.lagoon_road import lagoon_road
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.remembered import Remembered
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.array.module_choice import module_choice
from ridge_tally.studies.parts import bill_of
from ridge_tally.studies.strings.comparison import Comparison, comparison
from ridge_tally.studies.strings.growing import grown
from ridge_tally.studies.strings.pairing import pairing_study

LAGOON = lagoon_road(SHELF)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("comparing")))


@pytest.fixture(scope="module")
def lagoon(workspace: Workspace) -> Comparison:
    *_, whole = comparison(workspace.desk, design_for(LAGOON, option_a(LAGOON)))
    return whole


def test_lagoon_road_in_its_three_ways_and_one_more(
    workspace: Workspace, lagoon: Comparison
) -> None:
    ways = {w.architecture: w for w in lagoon.ways}
    assert set(ways) == set(Architecture)
    for option in LAGOON.options:
        way = ways[option.electronics.architecture]
        assert way.from_option == option.id
        assert way.energy_kwh == pytest.approx(
            hourly_year(workspace.desk, design_for(LAGOON, option)).energy_kwh
        )
        assert way.cents == bill_of(design_for(LAGOON, option)).cents
    assert all(len(w.points) == len(lagoon.titles) for w in lagoon.ways)


def test_which_and_why_follow_from_the_figures_told(lagoon: Comparison) -> None:
    priced = sorted((w for w in lagoon.ways if w.legal), key=lambda w: w.cents or 0)
    chosen = next(w for w in lagoon.ways if w.architecture is lagoon.chosen)
    assert chosen in priced
    assert lagoon.why[0].startswith(f"{priced[0].title} cost least")
    # By hand: 28.6 cents a kWh (26 and a tenth of tax in the sample's tariff).
    micro = next(w for w in lagoon.ways if w.architecture is Architecture.MICRO)
    assert micro.extra_cents is not None
    assert micro.gain_kwh is not None
    assert micro.gain_frac is not None
    told = next(s for s in lagoon.why if s.startswith("Microinverters"))
    assert f"(+{micro.gain_frac * 100:.1f} %)" in told
    # A fifth more is a slogan on this roof.
    assert micro.gain_frac < 0.05


def test_a_way_is_taken_in_one_go(lagoon: Comparison) -> None:
    for way in lagoon.ways:
        if way.edit is None:
            continue
        changed = apply_edit(LAGOON, way.edit, SHELF)
        option = option_of(changed, way.edit.option_id)
        assert option.electronics.architecture is way.architecture
        assert present_ids(option) == present_ids(option_a(LAGOON))


def test_without_a_tariff_the_most_energy_is_named_and_what_is_missing(
    workspace: Workspace,
) -> None:
    job = replace(LAGOON, brief=replace(LAGOON.brief, grid=None))
    *_, whole = comparison(workspace.desk, design_for(job, option_a(job)))
    most = max((w for w in whole.ways if w.legal), key=lambda w: w.energy_kwh or 0)
    assert whole.chosen is most.architecture
    assert "a tariff or a use in the Brief is missing" in whole.why[0]


def test_unknown_prices_are_named_and_nothing_is_made_of_them() -> None:
    modules = tuple(replace(m, price_cents=None) for m in FULL.equipment.modules)
    job = replace(FULL, equipment=replace(FULL.equipment, modules=modules))
    bill = bill_of(design_for(job, option_a(job)))
    assert (bill.cents, bill.unknown) == (None, (modules[0].name,))
    # By hand: 28 modules at 126 and 14.60 of freight, an inverter at 1 300.
    whole = bill_of(design_for(FULL, option_a(FULL)))
    assert whole.cents == 28 * (12600 + 1460) + 130000


def test_growth_fills_bays_left_free_and_checks_every_limit_with_them(
    workspace: Workspace,
) -> None:
    ids = present_ids(option_a(SAMPLE))
    bays = apply_edit(SAMPLE, ToggleModules("a", ids[:4]), SHELF)
    assert (
        grown(workspace.desk, design_for(bays, option_a(bays)))
        == "4 more in bays left free: every limit kept"
    )
    wish = apply_edit(SAMPLE, SetGrowth("4"), SHELF)
    told = grown(workspace.desk, design_for(wish, option_a(wish)))
    assert told.startswith("4 more, as wished: no legal plan holds")
    micro = apply_edit(bays, ChooseElectronics("a", Architecture.MICRO, "sample-micro-330"), SHELF)
    assert grown(workspace.desk, design_for(micro, option_a(micro))).startswith(
        "4 more in bays left free: 4 units more, "
    )


def test_growth_past_the_rebate_names_it_and_the_cheaper_way(workspace: Workspace) -> None:
    told = grown(workspace.desk, design_for(LAGOON, option_a(LAGOON)))
    # By hand: 21 x 405 W over 6 kW is 1.42, the scheme pays to 1.333.
    assert "Rebate DC:AC, rebate: 1.42 of 1.333" in told
    assert "today instead: +" in told
    assert told.endswith("today is cheaper")


def test_pairings_clip_more_in_the_cold_than_in_the_heat_and_least_on_the_largest(
    workspace: Workspace,
) -> None:
    # A shelf of three tells as much as one of ten: a small one, a large one, one off its list.
    few = ("sample-micro-330", "sample-micro-800-2", "sample-micro-380-72")
    micros = tuple(m for m in SHELF.microinverters if m.id in few)
    small = replace(SHELF, microinverters=micros)
    desk = replace(workspace.desk, samples=small, own=Remembered(1))
    *_, study = pairing_study(desk, design_for(SAMPLE, option_a(SAMPLE)))
    by_id = {p.unit_id: p for p in study.pairings}
    assert set(by_id) == set(few)
    for pairing in study.pairings:
        assert pairing.cold is not None
        assert pairing.hot is not None
        assert pairing.cold.kwh_per_module >= pairing.hot.kwh_per_module
        # All that is lost: never less than the AC limit's own share, and what is left is told.
        assert 0 <= pairing.cold.frac < 1
        assert pairing.cold.net_kwh_per_module > 100
    small, large = by_id["sample-micro-330"], by_id["sample-micro-800-2"]
    assert small.here is not None
    assert large.here is not None
    assert small.here.kwh_per_module > 10 * large.here.kwh_per_module
    assert small.here.net_kwh_per_module < large.here.net_kwh_per_module
    # By hand: 405 W x 0.8 x (1 - 0.0034 x 20) = 302 W at nominal conditions, 0.744 of Pmax.
    assert study.nominal is not None
    assert study.nominal.p_w == pytest.approx(405 * 0.8 * (1 - 0.0034 * 20), rel=0.01)
    assert "75 %" in study.told or "74 %" in study.told
    assert "Cells off its list" in by_id["sample-micro-380-72"].unfit


def test_every_module_of_the_shelf_is_laid_as_choosing_it_would(workspace: Workspace) -> None:
    *_, whole = module_choice(workspace.desk, design_for(SAMPLE, option_a(SAMPLE)))
    assert len(whole.found) == whole.of == len(SHELF.modules)
    by_id = {m.module_id: m for m in whole.found}
    own = by_id["sample-405"]
    assert (own.count, own.plans, own.chosen) == (28, 1, True)
    # By hand: 126 and 14.60 of freight over 405 W; 21.3 kg over 1.722 x 1.134 m.
    assert own.cents_per_w == pytest.approx(14060 / 405)
    assert own.kg_per_m2 == pytest.approx(21.3 / (1.722 * 1.134))
    large = by_id["sample-600"]
    assert large.dc_kw == pytest.approx(large.count * 0.6)
    assert "need at least 3 strings" in by_id["sample-390"].told


def test_a_job_in_microinverters_names_them_in_routes_and_to_buy(workspace: Workspace) -> None:
    from ridge_tally.studies.brief.target import target_report
    from ridge_tally.studies.stock import to_buy

    micro = ChooseElectronics("a", Architecture.MICRO, "sample-micro-330")
    job = apply_edits(FULL, (micro,), SHELF)
    report = target_report(workspace.desk, design_for(job, option_a(job)))
    assert report.routes[0].inverter == "28 × Sample microinverter 330 W"
    assert report.routes[0].p_ac_kw == pytest.approx(28 * 0.33)
    assert ("Sample microinverter 330 W", 28) in [
        (b.name, b.needed) for b in to_buy(design_for(job, option_a(job)))
    ]
