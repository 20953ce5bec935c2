"""Checks of grid, panel and wishes: kept, broken, and not checked for want of a number."""

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.job import brief_edits as brief
from ridge_tally.core.job import edits
from ridge_tally.core.job.array_edits import ToggleModules
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.grid import RouteKind
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.rules.grid import grid_checks
from ridge_tally.rules.report import all_checks
from ridge_tally.rules.wishes import wish_checks
from ridge_tally.services.editing import apply_edit, design_for

GRID, WISH = brief.GridField, brief.WishFlag


def both(job: Job) -> tuple[Check, ...]:
    design = design_for(job, option_a(job))
    return (*grid_checks(design), *wish_checks(design))


def checks(*changes: edits.Edit) -> dict[str, Check]:
    job: Job = SAMPLE
    for change in changes:
        job = apply_edit(job, change, SHELF)
    return {c.rule_id: c for c in both(job)}


@pytest.mark.parametrize(
    ("rule_id", "changes", "verdict", "kind"),
    [
        ("grid.ac-cap", (), "kept", "outside"),
        ("grid.ac-cap", (brief.SetGridField(GRID.AC_CAP, "7.6"),), "kept", "outside"),
        ("grid.ac-cap", (brief.SetGridField(GRID.AC_CAP, "7.5 kW"),), "broken", "outside"),
        (
            "grid.ac-cap",
            (brief.SetGridField(GRID.AC_CAP, "2.6"), brief.SetServiceField(brief.ServiceField.PHASES, "3")),
            "kept",
            "outside",
        ),
        ("grid.quick-approval", (brief.SetRouteField(RouteKind.NOTIFY, brief.RouteField.MOST, "3.68"),), "broken", "note"),
        ("grid.export", (brief.SetGridField(GRID.EXPORT_LIMIT, "0"),), "broken", "note"),
        ("grid.export", (brief.SetGridField(GRID.EXPORT_LIMIT, "8 kW"),), "kept", "note"),
        ("grid.busbar", (), "kept", "stop"),
        ("grid.busbar", (edits.ChooseInverter("a", "sample-i10"),), "broken", "stop"),
        ("grid.busbar", (brief.SetServiceField(brief.ServiceField.MAIN_BREAKER, ""),), "not-checked", "stop"),
        ("grid.rebate-ratio", (brief.SetGridField(GRID.REBATE_RATIO, "133 %"),), "broken", "outside"),
        ("grid.rebate-ratio", (brief.SetGridField(GRID.REBATE_RATIO, "150 %"),), "kept", "outside"),
        ("grid.rebate-size", (brief.SetGridField(GRID.REBATE_DC, "11.34"),), "kept", "outside"),
        ("grid.rebate-size", (brief.SetGridField(GRID.REBATE_DC, "11"),), "broken", "outside"),
        (
            "grid.size-cap",
            (brief.SetGridField(GRID.SIZE_CAP_KIND, "dc-kw"), brief.SetGridField(GRID.SIZE_CAP, "11 kW")),
            "broken",
            "outside",
        ),
        (
            "grid.size-cap",
            (brief.SetGridField(GRID.SIZE_CAP_KIND, "ac-kw"), brief.SetGridField(GRID.SIZE_CAP, "8 kW")),
            "kept",
            "outside",
        ),
        (
            "grid.size-cap",
            (
                brief.SetGridField(GRID.SIZE_CAP_KIND, "ac-kw"),
                brief.SetGridField(GRID.SIZE_CAP, "8 kW"),
                brief.AddExisting(),
            ),
            "broken",
            "outside",
        ),
        ("wish.battery", (), "not-checked", "note"),
        ("wish.backup", (brief.SetWish(WISH.BACKUP, on=True),), "not-checked", "note"),
        ("wish.all-black", (brief.SetWish(WISH.ALL_BLACK, on=True),), "not-checked", "note"),
        ("wish.growth", (brief.SetGrowth("4"),), "broken", "note"),
        ("wish.roof-left-free", (brief.SetNoGo("south", on=True),), "broken", "outside"),
        (
            "wish.roof-left-free",
            (brief.AddExisting(), brief.SetExistingPlane("existing1", "south", on=True)),
            "broken",
            "outside",
        ),
    ],
)  # fmt: skip
def test_verdicts(rule_id: str, changes: tuple[edits.Edit, ...], verdict: str, kind: str) -> None:
    found = checks(*changes)[rule_id]
    assert (found.verdict, found.kind) == (Verdict(verdict), LimitKind(kind))
    if found.verdict is Verdict.NOT_CHECKED:
        assert found.reason.startswith("Not checked")


def test_nothing_is_checked_before_modules_are_placed() -> None:
    every = tuple(m.id for a in option_a(SAMPLE).arrays for m in a.modules)
    assert checks(ToggleModules("a", every)) == {}


def test_a_roof_to_stay_free_offers_to_take_the_modules_off() -> None:
    job = apply_edit(SAMPLE, brief.SetNoGo("south", on=True), SHELF)
    found = {c.rule_id: c for c in both(job)}
    fix = found["wish.roof-left-free"].fixes[0]
    cleared = apply_edit(job, fix.edit, SHELF)
    assert not any(m.present for m in option_a(cleared).arrays[0].modules)


def test_symmetry_counts_the_modules_without_a_mirror_image() -> None:
    whole = checks(brief.SetWish(WISH.SYMMETRIC, on=True))["wish.symmetric"]
    first = option_a(SAMPLE).arrays[0].modules[0].id
    less = checks(brief.SetWish(WISH.SYMMETRIC, on=True), ToggleModules("a", (first,)))
    assert less["wish.symmetric"].value.value != whole.value.value
    assert whole.value.value is not None


def test_a_typed_source_takes_the_mark_of_a_sample_away() -> None:
    assert checks()["grid.ac-cap"].source.status == "sample"
    own = checks(brief.SetGridField(GRID.SOURCE, "connection rules, sheet 4"))
    assert own["grid.ac-cap"].source.status == "brief"


def test_the_record_low_is_a_note_of_the_stricter_school() -> None:
    job = apply_edit(SAMPLE, edits.SetSiteField(edits.SiteField.RECORD_LOW, "-34"), SHELF)
    found = [
        c for c in all_checks(design_for(job, option_a(job))) if c.rule_id == "strings.record-low"
    ]
    # 14 * 37.3 V * (1 + 0.0027 * 59) = 605.4 V, over 600 V.
    assert [(c.kind, c.verdict) for c in found] == [(LimitKind.NOTE, Verdict.BROKEN)] * 2
    assert found[0].value.value == pytest.approx(605.3, abs=0.2)
