"""Ways out of a broken limit or a heavy loss: each judged anew, by every rule and by its year."""

from pathlib import Path

import pytest

from jobs import FULL, SHELF, option_a, warm_workspace_in
from ridge_tally.core.errors import MissingDatum
from ridge_tally.core.job.document import Job, option_of, present_ids
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.option import Option
from ridge_tally.core.job.system import system_of
from ridge_tally.core.working import LimitKind
from ridge_tally.demo.mill_terrace import mill_terrace
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.rule_status import standing_of
from ridge_tally.studies.strings.proposals import RemedyKind
from ridge_tally.studies.strings.remedies import RemediesReport, Remedy, remedies
from ridge_tally.studies.strings.tracker_currents import shared_trackers

TERRACE = mill_terrace(SHELF)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("remedies")))


@pytest.fixture(scope="module")
def terrace(workspace: Workspace) -> RemediesReport:
    *_, report = remedies(workspace.desk, design_for(TERRACE, option_a(TERRACE)))
    return report


def of_kind(report: RemediesReport, kind: RemedyKind) -> list[Remedy]:
    return [r for r in report.remedies if r.kind is kind]


def taken(job: Job, remedy: Remedy) -> tuple[Job, Option]:
    changed = apply_edit(job, remedy.edit, SHELF)
    return changed, option_of(changed, remedy.edit.option_id)


def test_the_trouble_is_told_with_its_hours_and_its_share(terrace: RemediesReport) -> None:
    # By hand: two strings of Imp 11.61 A on an input of 16 A.
    assert terrace.troubles[0].told == "Operating current, tracker 1: 23.2 A of 16 A"
    assert "to its limits: over its current for" in terrace.troubles[1].told
    assert {t.kind for t in terrace.troubles} == {LimitKind.COSTS}


def test_ways_out_are_shown_by_the_rules_before_any_of_their_years(workspace: Workspace) -> None:
    design = design_for(TERRACE, option_a(TERRACE))
    first = next(r for r in remedies(workspace.desk, design) if r.remedies)
    assert first.looked_at == 0
    assert all(r.year_to_come and r.energy_kwh is None for r in first.remedies)
    # Judged alike with its year and without.
    shown = first.remedies[0]
    later = next(r for r in remedies(workspace.desk, design) if r.looked_at == r.of > 0).remedies
    twin = next(r for r in later if r.title == shown.title)
    assert not twin.year_to_come
    assert (twin.breaks, twin.left, twin.mends) == (shown.breaks, shown.left, shown.mends)


def test_every_remedy_does_what_it_says_when_it_is_taken(
    workspace: Workspace, terrace: RemediesReport
) -> None:
    for remedy in terrace.remedies:
        changed, option = taken(TERRACE, remedy)
        assert hourly_year(workspace.desk, design_for(changed, option)).energy_kwh == pytest.approx(
            remedy.energy_kwh
        )
        broken = {b.told for b in standing_of(design_for(changed, option)).broken.values()}
        assert broken == {b.told for b in (*remedy.breaks, *remedy.left)}
        assert present_ids(option) == present_ids(option_a(TERRACE))


def test_in_series_the_cold_voltage_is_checked_first_and_refused(terrace: RemediesReport) -> None:
    (series,) = of_kind(terrace, RemedyKind.IN_SERIES)
    # By hand: 14 x 40.4 V x (1 + 0.0027 x 43) = 631 V, over the input's 600 V.
    assert series.cold == "631 V of 600 V"
    assert series.breaks[0].kind is LimitKind.STOP
    assert terrace.remedies[-1] == series


def test_a_split_keeps_the_parts_and_tells_how_long_the_other_tracker_is_over(
    workspace: Workspace, terrace: RemediesReport
) -> None:
    splits = of_kind(terrace, RemedyKind.SPLIT)
    assert {s.extra_cents for s in splits} == {0}
    best = max(splits, key=lambda s: s.energy_kwh or 0)
    # The south-west roof peaks when the east one is nearly dark: less is lost than before.
    assert best.title.startswith("B (South-west roof) to tracker 2")
    assert best.gain_kwh is not None
    assert best.gain_kwh > 0
    job, option = taken(TERRACE, best)
    (after,) = shared_trackers(workspace.desk, design_for(job, option))
    (before,) = shared_trackers(workspace.desk, design_for(TERRACE, option_a(TERRACE)))
    assert after.over_hours == pytest.approx(best.over_hours)
    assert after.over_hours < before.over_hours


def test_what_breaks_nothing_comes_first_the_most_energy_at_its_head(
    terrace: RemediesReport,
) -> None:
    legal = [r for r in terrace.remedies if r.legal]
    assert terrace.remedies[: len(legal)] == tuple(legal)
    energies = [r.energy_kwh or 0 for r in legal]
    assert energies == sorted(energies, reverse=True)
    assert terrace.best == 0
    assert terrace.cheapest is not None
    cheapest = terrace.remedies[terrace.cheapest]
    assert cheapest.left == ()
    assert all((r.extra_cents or 0) >= (cheapest.extra_cents or 0) for r in legal if r.left == ())
    kinds = {r.kind for r in terrace.remedies}
    assert {RemedyKind.MICRO, RemedyKind.INVERTER, RemedyKind.SYSTEM} <= kinds


def test_a_three_tracker_inverter_gives_each_roof_its_own(terrace: RemediesReport) -> None:
    found = of_kind(terrace, RemedyKind.INVERTER)
    for remedy in found:
        job, option = taken(TERRACE, remedy)
        assert standing_of(design_for(job, option)).broken == {}
        trackers = [s.tracker_number for s in option.strings]
        if len(system_of(job, option).inverters[0].trackers) > 2:
            assert len(set(trackers)) == 3


def test_the_summed_current_is_that_of_its_strings(workspace: Workspace) -> None:
    (shared,) = shared_trackers(workspace.desk, design_for(TERRACE, option_a(TERRACE)))
    for hour, amps in enumerate(shared.together_a):
        # Roofs of one slope have nearly one voltage: what they carry together is nearly the sum.
        assert amps == pytest.approx(sum(s.amps[hour] for s in shared.strings), rel=0.03, abs=0.2)
    assert max(shared.together_a) == pytest.approx(shared.most_a, rel=0.1)
    assert shared.over_hours > 100


def test_a_string_too_long_is_mended_by_other_lengths_without_a_part(workspace: Workspace) -> None:
    option = FULL.options[1]
    *_, report = remedies(workspace.desk, design_for(FULL, option))
    (other,) = of_kind(report, RemedyKind.OTHER_LENGTH)
    assert other.mends == ("Cold Voc, string A: 640 V of 600 V",)
    assert (other.extra_cents, other.parts, other.cold) == (0, "", "597 V of 600 V")
    # A few optimizers never lift the cold-voltage rule.
    (few,) = of_kind(report, RemedyKind.ADD_ON)
    assert [b.told for b in few.left if b.kind is LimitKind.STOP] == list(other.mends)


def test_fewer_modules_where_no_plan_is_legal(workspace: Workspace) -> None:
    # 31 small modules do not fit two strings of thirteen; what comes off is told and counted.
    from ridge_tally.core.job.edits.array.kinds import ChooseModule

    job = apply_edit(FULL, ChooseModule("a", "sample-390"), SHELF)
    *_, report = remedies(workspace.desk, design_for(job, option_a(job)))
    (fewer,) = of_kind(report, RemedyKind.FEWER)
    changed, option = taken(job, fewer)
    gone = len(present_ids(option_a(job))) - len(present_ids(option))
    assert fewer.title == f"{gone} modules fewer"
    strung = sum(len(s.module_ids) for s in option.strings)
    assert strung == len(present_ids(option))
    assert standing_of(design_for(changed, option)).count(LimitKind.STOP) == 0


def test_without_a_string_there_is_nothing_to_mend(workspace: Workspace) -> None:
    option = option_a(TERRACE)
    bare = apply_edit(TERRACE, ToggleModules("a", present_ids(option)), SHELF)
    with pytest.raises(MissingDatum, match="has no string"):
        next(remedies(workspace.desk, design_for(bare, option_a(bare))))
