"""Alternatives, proofs in the background, why not one more."""

from collections.abc import Iterator
from threading import Event, current_thread

import pytest

from jobs import EPOCH, SAMPLE, SHELF, option_a, warm_workspace_in
from ridge_tally.core.errors import BadGeometry, MissingDatum, OutOfRange
from ridge_tally.core.job.array import RowRule, Ways
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.array.fills import (
    ApplySetbackPack,
    ArrayField,
    LayModules,
    SetArrayField,
)
from ridge_tally.core.job.edits.survey.planes import PlaneField, SetPlaneField
from ridge_tally.demo.blank_job import blank_job
from ridge_tally.demo.lagoon_road import FRONT, lagoon_road
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.services.runs import Runs
from ridge_tally.services.workspace import Workspace
from ridge_tally.studies.array.exact_count import Arrangement, exactly
from ridge_tally.studies.array.layouts import alternatives, prove, squeezed
from ridge_tally.studies.array.one_more import one_more
from ridge_tally.views.option import option_report

LAGOON = lagoon_road(SHELF)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(tmp_path_factory.mktemp("data"))


def laid(job: Job, plane_id: str, layout) -> Job:
    return apply_edit(job, LayModules("a", plane_id, layout.places), SHELF)


def test_alternatives_rank_by_count_and_say_what_each_takes(workspace: Workspace) -> None:
    found = alternatives(workspace.desk, design_for(SAMPLE, option_a(SAMPLE)), "south")
    assert [(a.ways, a.count, a.in_use) for a in found] == [
        (Ways.MIXED, 29, False),
        (Ways.PORTRAIT, 28, True),
        (Ways.LANDSCAPE, 27, False),
    ]
    portrait = found[1]
    assert portrait.p_dc_w == 28 * 405
    assert (portrait.rows, portrait.at_most) == (3, 28)
    # By hand: two rows of ten, 11.52 m each, and runs of five and three, 5.75 and 3.442 m.
    assert portrait.rail_m == pytest.approx(2 * (2 * 11.52 + 5.75 + 3.442))
    assert 1600 < portrait.energy_kwh / (portrait.p_dc_w / 1000) < 2000


def test_every_alternative_can_be_laid_and_is_then_the_one_in_use(workspace: Workspace) -> None:
    for layout in alternatives(workspace.desk, design_for(LAGOON, option_a(LAGOON)), FRONT):
        job = laid(LAGOON, FRONT, layout)
        assert option_report(design_for(job, option_a(job))).planes[0].misplaced == ()
        now = alternatives(workspace.desk, design_for(job, option_a(job)), FRONT)
        assert [a.key for a in now if a.in_use] == [layout.key]


def test_each_permitted_path_is_tried_and_named(workspace: Workspace) -> None:
    job = apply_edit(SAMPLE, ApplySetbackPack(("south",), "us-fire"), SHELF)
    found = alternatives(workspace.desk, design_for(job, option_a(job)), "south")
    assert {a.path_name for a in found} >= {"left rake"}
    assert all(a.path_name in {"left rake", "right rake"} for a in found)


def test_a_plane_that_takes_nothing_or_is_not_closed_says_so(workspace: Workspace) -> None:
    wide = SetPlaneField("south", PlaneField.SETBACK_EAVE, "20'")
    job = apply_edit(SAMPLE, wide, SHELF)
    with pytest.raises(BadGeometry, match=r"South roof: no module .* fits inside the free strips"):
        alternatives(workspace.desk, design_for(job, option_a(job)), "south")
    blank = blank_job(SHELF, "x", SAMPLE.unit, EPOCH.date())
    plane = blank.survey.planes[0]
    with pytest.raises(MissingDatum):
        alternatives(workspace.desk, design_for(blank, blank.options[0]), plane.id)


def test_proofs_go_on_to_the_last_kind(workspace: Workspace) -> None:
    steps = list(prove(workspace.desk, design_for(LAGOON, option_a(LAGOON)), FRONT))
    assert steps[-1].proven == steps[-1].of
    assert [s.proven for s in steps] == sorted(s.proven for s in steps)
    aligned = {a.ways: a for a in steps[-1].alternatives if a.rule is RowRule.ALIGNED}
    assert aligned[Ways.LANDSCAPE].count == aligned[Ways.LANDSCAPE].at_most


def test_squeezing_holds_no_less_than_rows(workspace: Workspace) -> None:
    found = squeezed(workspace.desk, design_for(SAMPLE, option_a(SAMPLE)), "south")
    assert 29 <= found.count <= found.at_most
    job = laid(SAMPLE, "south", found)
    assert option_report(design_for(job, option_a(job))).planes[0].misplaced == ()


def test_why_not_one_more_is_answered_and_each_way_does_what_it_says(workspace: Workspace) -> None:
    for job, plane_id in ((SAMPLE, "south"), (LAGOON, FRONT)):
        answer = one_more(workspace.desk, design_for(job, option_a(job)), plane_id)
        assert answer.holds == answer.fill_holds
        assert "short" in answer.told
        assert answer.ways_in
        for way in answer.ways_in:
            assert way.modules > answer.holds
            if way.edits:
                followed = apply_edits(job, way.edits, SHELF)
                array = next(a for a in option_a(followed).arrays if a.plane_id == plane_id)
                assert sum(m.present for m in array.modules) == way.modules


def test_a_way_in_changes_the_option_it_was_asked_for(workspace: Workspace) -> None:
    for option in SAMPLE.options:
        ways = one_more(workspace.desk, design_for(SAMPLE, option), "south").ways_in
        of = {getattr(e, "option_id", option.id) for way in ways for e in way.edits}
        assert of == {option.id}


def test_a_layout_with_room_left_is_told_to_fill_again(workspace: Workspace) -> None:
    gap = SetArrayField("a", "south", ArrayField.SHORTEST_RUN, "2")
    few = exactly(
        workspace.desk, design_for(SAMPLE, option_a(SAMPLE)), "south", 20, Arrangement.TOGETHER
    )[0]
    job = apply_edit(laid(SAMPLE, "south", few), gap, SHELF)
    answer = one_more(workspace.desk, design_for(job, option_a(job)), "south")
    assert answer.told == "A fill in portrait holds 28, this layout 20."
    assert any(w.told.startswith("Fill again in portrait") for w in answer.ways_in)


# What is awaited here comes by an event; this only ends a run in which it never does.
NEVER_S = 600.0


def counting(until: int, go: Event, ended: Event) -> Iterator[int]:
    try:
        for i in range(until):
            yield i
            go.wait(NEVER_S)
    finally:
        ended.set()


def test_a_run_is_seen_as_it_goes_and_stops_when_cancelled() -> None:
    runs, go, ended = Runs(first_step_s=NEVER_S), Event(), Event()
    seen = runs.look("here", "one", lambda: counting(1000, go, ended))
    assert (seen.step, seen.running) == (0, True)
    runs.cancel("here")
    go.set()
    ended.wait(NEVER_S)
    while seen.running:
        seen = runs.look("here", "one", lambda: counting(1, go, ended))
    assert seen.cancelled
    assert seen.step < 999


def test_a_run_nobody_looks_at_rests_and_goes_on_when_somebody_does() -> None:
    now_s = [0.0]
    runs = Runs(first_step_s=NEVER_S, unwatched_s=60.0, clock_s=lambda: now_s[0])
    made: list[int] = []
    go, second, ended = Event(), Event(), Event()

    def steps() -> Iterator[int]:
        for i in range(4):
            made.append(i)
            if i == 1:
                go.wait(NEVER_S)
                # A minute and more since somebody looked.
                now_s[0] += 61.0
                second.set()
            yield i
        ended.set()

    runs.look("here", "one", steps)
    go.set()
    assert second.wait(NEVER_S)
    # On a machine however slow this never fails by itself; a run that does not rest ends here.
    assert not ended.wait(0.2)
    assert made == [0, 1]
    seen = runs.look("here", "one", steps)
    assert ended.wait(NEVER_S)
    while seen.running:
        seen = runs.look("here", "one", steps)
    assert made == [0, 1, 2, 3]
    assert (seen.step, seen.cancelled) == (3, False)


def test_newer_work_in_its_place_cancels_what_ran_and_failures_are_told() -> None:
    runs, go, ended = Runs(first_step_s=NEVER_S), Event(), Event()
    runs.look("here", "one", lambda: counting(1000, go, ended))

    def failing() -> Iterator[int]:
        yield 1
        raise OutOfRange("Roof", 3, "less")

    seen = runs.look("here", "two", failing)
    go.set()
    assert ended.wait(NEVER_S)
    while seen.running:
        seen = runs.look("here", "two", failing)
    assert (seen.step, seen.running) == (1, False)
    assert seen.problem.startswith("Roof reads 3")


def test_a_short_first_step_is_worked_out_by_whoever_asks_and_older_kin_rest() -> None:
    runs, ended = Runs(first_step_s=NEVER_S), Event()
    by: list[str] = []

    def steps() -> Iterator[int]:
        try:
            for i in range(3):
                by.append(current_thread().name)
                yield i
        finally:
            ended.set()

    seen = runs.look("here", 1, steps, first_here=True, kin="racking")
    assert (seen.step, by[0]) == (0, current_thread().name)
    assert ended.wait(NEVER_S)
    assert current_thread().name not in by[1:]

    def failing() -> Iterator[int]:
        raise OutOfRange("Roof", 3, "less")
        yield 1

    seen = runs.look("there", 1, failing, first_here=True)
    assert (seen.step, seen.running) == (None, False)
    assert seen.problem.startswith("Roof reads 3")
    # A run that somebody looked at a moment ago rests all the same once a newer one of its kin begins.
    go, late = Event(), Event()

    def older() -> Iterator[int]:
        yield 0
        go.wait(NEVER_S)
        yield 1
        late.set()

    runs.look("a", 1, older, kin="same")
    runs.look("b", 1, steps, kin="same")
    go.set()
    assert not late.wait(0.2)
    seen = runs.look("a", 1, older, kin="same")
    assert late.wait(NEVER_S)
