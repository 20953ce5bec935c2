"""Exactly so many modules: kept where the light is, together, in one row, in one rectangle."""

from itertools import pairwise, product

import pytest

from jobs import SAMPLE, SHELF, option_a, warm_workspace_in
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import Orientation
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.array.fills import ArrayField, LayModules, SetArrayField
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.services.workspace import Workspace
from ridge_tally.studies.array.exact_count import Arrangement, exactly
from ridge_tally.studies.array.layouts import Alternative, alternatives, squeezed
from ridge_tally.views.option import option_report

SOUTH = "south"


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(tmp_path_factory.mktemp("data"))


def asked(
    workspace: Workspace, modules: int, kept: Arrangement, job: Job = SAMPLE
) -> tuple[Alternative, ...]:
    return exactly(workspace.desk, design_for(job, option_a(job)), SOUTH, modules, kept)


def laid(layout: Alternative, job: Job = SAMPLE) -> Job:
    return apply_edit(job, LayModules("a", SOUTH, layout.places), SHELF)


@pytest.mark.parametrize(
    ("modules", "kept"),
    [
        *product([1, 13, 28, 29], [Arrangement.LIGHT, Arrangement.TOGETHER]),
        (20, Arrangement.RECTANGLE),
        (10, Arrangement.ROW),
    ],
)
def test_exactly_so_many_are_laid_and_legal(
    workspace: Workspace, modules: int, kept: Arrangement
) -> None:
    found = asked(workspace, modules, kept)
    assert {a.count for a in found} == {modules}
    assert len({a.key for a in found}) == len(found)
    for layout in found:
        job = laid(layout)
        assert option_report(design_for(job, option_a(job))).planes[0].misplaced == ()


def test_sixteen_in_one_rectangle_are_two_rows_of_eight(workspace: Workspace) -> None:
    # Four rows of four upright are 7.1 m high: too high for this roof less its strips; lying,
    # four of four are 7.1 m long and 4.6 m high, and the chimney stands in their way.
    (best, *_) = asked(workspace, 16, Arrangement.RECTANGLE)
    assert (best.ways, best.rows, best.per_row) == ("P", 2, 8)
    ways, lefts, bottoms = (
        {p.orientation for p in best.places},
        sorted({round(p.x_m, 3) for p in best.places}),
        {round(p.y_m, 3) for p in best.places},
    )
    assert ways == {Orientation.PORTRAIT}
    assert (len(lefts), len(bottoms)) == (8, 2)
    (together, *_) = asked(workspace, 16, Arrangement.TOGETHER)
    assert (together.rows, together.per_row) == (2, 8)


def test_twenty_kept_together_are_two_full_rows(workspace: Workspace) -> None:
    (best, *_) = asked(workspace, 20, Arrangement.TOGETHER)
    assert (best.ways, best.rows, best.per_row) == ("P", 2, 10)


def test_what_is_no_rectangle_or_row_names_the_numbers_that_are(workspace: Workspace) -> None:
    with pytest.raises(OutOfRange, match=r"in one rectangle reads 17.* 16 \(.*\) or 18 \("):
        asked(workspace, 17, Arrangement.RECTANGLE)
    with pytest.raises(OutOfRange, match="in one row reads 16, but it must be 10 or fewer"):
        asked(workspace, 16, Arrangement.ROW)


def test_where_the_light_is_best_never_makes_less_than_what_was_shown(
    workspace: Workspace,
) -> None:
    design = design_for(SAMPLE, option_a(SAMPLE))
    for modules in (13, 28):
        best = asked(workspace, modules, Arrangement.LIGHT)[0].energy_kwh
        for kept in (Arrangement.LIGHT, Arrangement.TOGETHER):
            assert best >= max(a.energy_kwh for a in asked(workspace, modules, kept)) - 0.1
    # Of the fullest of every kind, valued as they stand.
    for layout in alternatives(workspace.desk, design, SOUTH):
        same = asked(workspace, layout.count, Arrangement.LIGHT)
        assert any(a.count == layout.count for a in same)
    # What only a layout without rows holds is found, too.
    free = squeezed(workspace.desk, design, SOUTH)
    assert asked(workspace, free.count, Arrangement.LIGHT)[0].count == free.count


def test_rows_that_may_move_leave_the_chimney_s_shade(workspace: Workspace) -> None:
    # Light lost beside the chimney is found again by rows of another height or column.
    moved = asked(workspace, 28, Arrangement.LIGHT)
    fixed = [a for a in moved if a.rule == "aligned"]
    assert moved[0].rule == "independent"
    assert moved[0].energy_kwh > max(a.energy_kwh for a in fixed)


@pytest.mark.parametrize("kept", [Arrangement.LIGHT, Arrangement.TOGETHER])
def test_runs_are_as_long_as_asked(workspace: Workspace, kept: Arrangement) -> None:
    job = apply_edit(SAMPLE, SetArrayField("a", SOUTH, ArrayField.SHORTEST_RUN, "4"), SHELF)
    for layout in asked(workspace, 13, kept, job):
        report = option_report(design_for(laid(layout, job), option_a(laid(layout, job))))
        assert report.planes[0].misplaced == ()
        assert min(_runs(layout)) >= 4


def _runs(layout: Alternative) -> list[int]:
    """The lengths of the runs: modules of one row whose left edges stand a width and 20 mm apart."""
    left = sorted(layout.places, key=lambda p: (p.y_m, p.x_m))
    runs = [1]
    for one, other in pairwise(left):
        wide_m = 1.134 if one.orientation == "P" else 1.762
        touching = one.y_m == other.y_m and other.x_m - one.x_m - wide_m < 0.03
        runs = [*runs[:-1], runs[-1] + 1] if touching else [*runs, 1]
    return runs


def test_the_best_so_many_keep_out_of_the_shade(workspace: Workspace) -> None:
    # One short of the fullest portrait layout: the module beside the chimney goes first.
    design = design_for(SAMPLE, option_a(SAMPLE))
    full = next(a for a in alternatives(workspace.desk, design, SOUTH) if a.ways == "P")
    found = asked(workspace, full.count - 1, Arrangement.LIGHT)
    best = next(a for a in found if (a.ways, a.rule) == (full.ways, full.rule))
    ((x_m, y_m),) = {(p.x_m, p.y_m) for p in full.places} - {(p.x_m, p.y_m) for p in best.places}
    # The chimney stands from 7.16 to 7.98 m, 4.57 m up: the next module to its right.
    assert 7.98 < x_m < 7.98 + 1.134
    assert y_m > 4
    assert best.energy_kwh < full.energy_kwh * (full.count - 1) / full.count
