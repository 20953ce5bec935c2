"""Modules by hand: moved, turned, split, kept; strips as sets; what cannot be is refused."""

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotUnderstood, OutOfRange
from ridge_tally.core.job.array import Orientation, PlacedModule, Ways
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.fills import (
    ApplySetbackPack,
    ArrayField,
    FillPlane,
    LaidAt,
    LayModules,
    SetAccessPath,
    SetArrayField,
)
from ridge_tally.core.job.edits.array.modules import (
    AddModule,
    KeepModules,
    MoveModules,
    RemoveModules,
    SplitRow,
    ToggleModules,
    TurnModules,
)
from ridge_tally.core.job.edits.brief.needs import SetWish, WishFlag
from ridge_tally.core.job.survey import EdgeKind
from ridge_tally.core.working import Verdict
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.describe import describe_edit
from ridge_tally.editing.design import design_for
from ridge_tally.views.option import OptionReport, option_report

P, L = Orientation.PORTRAIT, Orientation.LANDSCAPE
# The sample's modules: 1.722 x 1.134 m, 20 mm apart, the first at the eave's left.
FIRST, SECOND, TENTH = "south-1", "south-2", "south-10"


def after(*steps: Edit, job: Job = SAMPLE) -> Job:
    return apply_edits(job, steps, SHELF)


def module(job: Job, module_id: str) -> PlacedModule:
    return next(m for m in option_a(job).arrays[0].modules if m.id == module_id)


def report(job: Job) -> OptionReport:
    return option_report(design_for(job, option_a(job)))


def move(*ids: str, right: float = 0.0, up: float = 0.0) -> MoveModules:
    return MoveModules("a", ids, right, up)


def test_a_move_shifts_what_is_held_and_nothing_else() -> None:
    before, job = SAMPLE, after(move(FIRST, right=-0.02))
    assert module(job, FIRST).x_m == pytest.approx(module(before, FIRST).x_m - 0.02)
    assert module(job, SECOND) == module(before, SECOND)


def test_a_module_too_close_tells_the_distance_and_is_a_stop_until_it_is_kept() -> None:
    job = after(move(FIRST, right=-0.05))
    (trouble,) = report(job).planes[0].troubles
    assert trouble.module_id == FIRST
    assert 'too close to left rake, which wants 12"' in trouble.told
    # By hand: 0.3048 - 0.2858 m are 19 mm, three quarters of an inch.
    assert module(job, FIRST).x_m == pytest.approx(0.3048 - 0.019, abs=5e-4)
    assert trouble.told.startswith('3/4" too close')
    stop = next(v.check for v in report(job).checks if v.check.rule_id == "array.on-roof")
    assert (stop.verdict, stop.value.value) == (Verdict.BROKEN, 1)

    kept = after(KeepModules("a", (FIRST,), " agreed with the owner "), job=job)
    by = {v.check.rule_id: v.check for v in report(kept).checks}
    assert by["array.on-roof"].verdict is Verdict.KEPT
    note = by["array.exception"]
    assert note.kind == "note"
    assert note.subject == "South roof, left rake: agreed with the owner"
    # The rake as taped leans by half a millimetre.
    assert note.value.value == pytest.approx(module(job, FIRST).x_m * 1000, abs=1)

    moved = after(move(FIRST, right=0.05), job=kept)
    assert module(moved, FIRST).kept_because == ""
    assert report(moved).planes[0].troubles == ()
    back = after(KeepModules("a", (FIRST,), ""), job=kept)
    assert report(back).broken_stops == 1


@pytest.mark.parametrize(
    ("edit", "error", "says"),
    [
        (move(FIRST, right=-1.0), BadGeometry, "module 1: it would lie across left rake. Move it"),
        (move(FIRST, right=0.5), BadGeometry, "it would lie on another module"),
        (move(), BadGeometry, "Choose modules of one plane"),
        (TurnModules("a", (FIRST,)), BadGeometry, "it would lie on another module"),
        (SplitRow("a", FIRST, "40 mm"), BadGeometry, "is the first of its row"),
        (SplitRow("a", SECOND, "-1"), OutOfRange, "Gap in the row in metres reads -0.3"),
        (SplitRow("a", SECOND, "wide"), NotUnderstood, "wide"),
        (
            AddModule("a", "south", LaidAt(1.0, 1.0, P)),
            BadGeometry,
            "it would lie on another module",
        ),
        (
            AddModule("a", "south", LaidAt(6.9, 4.0, P)),
            BadGeometry,
            "across Chimney|on another",
        ),
        (
            SetArrayField("a", "south", ArrayField.GAP_IN_ROW, "-20 mm"),
            OutOfRange,
            "Gap in a row in metres reads -0.02",
        ),
        (
            SetArrayField("a", "south", ArrayField.SHORTEST_RUN, "1.5"),
            OutOfRange,
            "Shortest run reads 1.5, but it must be a whole number",
        ),
        (LayModules("a", "south", ()), BadGeometry, "no module of"),
        (ApplySetbackPack(("south",), "moon"), Exception, "moon"),
        (ApplySetbackPack(("south",), "wind-edge-zone"), MissingDatum, "least width"),
        (
            ApplySetbackPack(("south",), "wind-edge-zone", "0.2 m", "5 m"),
            OutOfRange,
            "Least width of the house in metres reads 0.2",
        ),
        (
            SetAccessPath("south", "3'", (EdgeKind.VALLEY,)),
            BadGeometry,
            "the plane has no valley",
        ),
        (SetAccessPath("south", "40'", (EdgeKind.RAKE,)), OutOfRange, "access path"),
        (KeepModules("a", (FIRST,), "x" * 200), OutOfRange, "Length of the reason reads 200"),
    ],
)
def test_what_cannot_be_is_refused_by_name(edit: Edit, error: type[Exception], says: str) -> None:
    with pytest.raises(error, match=says):
        after(edit)


def test_a_row_turned_closes_up_from_its_left_end() -> None:
    row = tuple(f"south-{i}" for i in range(1, 6))
    rest = tuple(m.id for m in option_a(SAMPLE).arrays[0].modules if m.id not in row)
    job = after(RemoveModules("a", rest), TurnModules("a", row))
    turned = [module(job, i) for i in row]
    assert {m.orientation for m in turned} == {L}
    assert [m.x_m - turned[0].x_m for m in turned] == pytest.approx([i * 1.742 for i in range(5)])
    assert turned[0].x_m == module(SAMPLE, FIRST).x_m
    assert {m.y_m for m in turned} == {module(SAMPLE, FIRST).y_m}
    back = after(TurnModules("a", row), job=job)
    assert [module(back, i) for i in row] == [module(SAMPLE, i) for i in row]


def test_a_split_moves_the_rest_of_the_row_to_the_gap_typed() -> None:
    few = tuple(f"south-{i}" for i in range(8, 11))
    job = after(RemoveModules("a", few), SplitRow("a", "south-4", "300 mm"))
    xs = [module(job, f"south-{i}").x_m for i in range(1, 8)]
    assert xs[3] - (xs[2] + 1.134) == pytest.approx(0.3)
    assert xs[6] - xs[3] == pytest.approx(3 * 1.154)


def test_a_wider_gap_draws_runs_and_rows_apart() -> None:
    field = ArrayField
    few = tuple(m.id for m in option_a(SAMPLE).arrays[0].modules if m.x_m > 6)
    job = after(
        RemoveModules("a", few),
        SetArrayField("a", "south", field.GAP_IN_ROW, "30 mm"),
        SetArrayField("a", "south", field.GAP_BETWEEN_ROWS, '1"'),
    )
    a, b = module(job, FIRST), module(job, SECOND)
    assert b.x_m - a.x_m == pytest.approx(1.164)
    above = module(job, "south-11")
    assert above.y_m - a.y_m == pytest.approx(1.722 + 0.0254)
    assert option_a(job).arrays[0].gap_between_rows.typed == '1"'


def test_a_module_is_added_beside_another_and_removed_for_good() -> None:
    last = module(SAMPLE, TENTH)
    job = after(RemoveModules("a", (TENTH,)))
    job = after(AddModule("a", "south", LaidAt(last.x_m, last.y_m, P)), job=job)
    new = option_a(job).arrays[0].modules[-1]
    assert (new.x_m, new.y_m, new.present) == (last.x_m, last.y_m, True)
    assert new.id not in {m.id for m in option_a(SAMPLE).arrays[0].modules}
    assert sum(len(s.module_ids) for s in option_a(job).strings) == 28


def test_a_symmetric_fill_leaves_no_module_without_its_mirror_image() -> None:
    wished = after(SetWish(WishFlag.SYMMETRIC, on=True))
    lone = next(v.check for v in report(wished).checks if v.check.rule_id == "wish.symmetric")
    assert lone.verdict is Verdict.BROKEN
    job = after(lone.fixes[0].edit, FillPlane("a", "south", Ways.MIXED), job=wished)
    lone = next(v.check for v in report(job).checks if v.check.rule_id == "wish.symmetric")
    assert (lone.verdict, lone.value.value) == (Verdict.KEPT, 0)


def test_the_us_pack_sets_strips_and_a_path_and_a_fill_keeps_both() -> None:
    job = after(ApplySetbackPack(("south",), "us-fire"), FillPlane("a", "south", Ways.PORTRAIT))
    plane = job.survey.planes[0]
    assert plane.setbacks.ridge.value_m == pytest.approx(0.4572)
    assert plane.setbacks.ridge.typed == "1' 6\""
    assert plane.access.width.typed == "3' 0\""
    view = report(job).planes[0]
    assert plane.outline.edges[view.path_edge] is EdgeKind.RAKE
    assert view.misplaced == ()
    # 36 in free along one rake: 12.192 - 0.9144 - 0.1524 = 11.1252 m take 9 of 1.154.
    assert max(_row_lengths(job)) == 9


def _row_lengths(job: Job) -> list[int]:
    rows: dict[float, int] = {}
    for m in option_a(job).arrays[0].modules:
        rows[m.y_m] = rows.get(m.y_m, 0) + 1
    return list(rows.values())


@pytest.mark.parametrize(
    ("modules", "verdict"),
    # 28 x 1.9527 m2 of 78.967 m2, alike in plan as on the slope: 0.69; ten are 0.247.
    [(28, Verdict.BROKEN), (10, Verdict.KEPT)],
)
def test_the_narrow_ridge_strip_is_for_a_third_of_the_roof(modules: int, verdict: Verdict) -> None:
    ids = tuple(m.id for m in option_a(SAMPLE).arrays[0].modules)
    job = after(ApplySetbackPack(("south",), "us-fire"), ToggleModules("a", ids[modules:]))
    check = next(v.check for v in report(job).checks if v.check.rule_id == "array.ridge-strip")
    assert check.verdict is verdict
    assert check.value.value == pytest.approx(modules * 1.722 * 1.134 / (12.192 * 6.477), rel=1e-3)
    assert check.source.status == "from-memory"


@pytest.mark.parametrize(
    ("width", "height", "typed"),
    [
        # The lesser of 0.1 x 12 and 0.4 x 4; never below 0.04 x 12 or 0.9 m.
        ("12 m", "4 m", 1.2),
        ("20 m", "3 m", 1.2),
        ("6 m", "4 m", 0.9),
        ("40 m", "2 m", 1.6),
    ],
)
def test_the_wind_zone_follows_from_the_house(width: str, height: str, typed: float) -> None:
    job = after(ApplySetbackPack(("south",), "wind-edge-zone", width, height))
    strips = job.survey.planes[0].setbacks
    assert strips.eave.value_m == pytest.approx(typed)
    assert strips.hip == strips.eave


@pytest.mark.parametrize(
    ("edit", "told"),
    [
        (FillPlane("a", "south", Ways.MIXED), "fill mixed rows"),
        (move(FIRST, SECOND), "move 2 module(s)"),
        (LayModules("a", "south", (LaidAt(0, 0, P),)), "lay 1 module(s)"),
    ],
)
def test_the_history_tells_what_was_done(edit: Edit, told: str) -> None:
    assert describe_edit(edit) == told
