"""Checks of grid, panel and wishes: kept, broken, and not checked for want of a number."""

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import Edit
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.edits.brief.grid import GridField, RouteField, SetGridField, SetRouteField
from ridge_tally.core.job.edits.brief.needs import (
    AddExisting,
    ServiceField,
    SetExistingPlane,
    SetGrowth,
    SetNoGo,
    SetServiceField,
    SetWish,
    WishFlag,
)
from ridge_tally.core.job.edits.brief.site import SetSiteField, SiteField
from ridge_tally.core.job.edits.strings.inverters import ChooseInverter
from ridge_tally.core.job.grid import RouteKind
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.brief.wishes import wish_checks
from ridge_tally.rules.loading.grid import grid_checks
from ridge_tally.rules.report import all_checks

GRID, WISH = GridField, WishFlag


def both(job: Job) -> tuple[Check, ...]:
    design = design_for(job, option_a(job))
    return (*grid_checks(design), *wish_checks(design))


def checks(*changes: Edit) -> dict[str, Check]:
    job: Job = SAMPLE
    for change in changes:
        job = apply_edit(job, change, SHELF)
    return {c.rule_id: c for c in both(job)}


@pytest.mark.parametrize(
    ("rule_id", "changes", "verdict", "kind"),
    [
        ("grid.ac-cap", (), "kept", "outside"),
        ("grid.ac-cap", (SetGridField(GRID.AC_CAP, "7.6"),), "kept", "outside"),
        ("grid.ac-cap", (SetGridField(GRID.AC_CAP, "7.5 kW"),), "broken", "outside"),
        (
            "grid.ac-cap",
            # One phase of three carries all of a one-phase inverter.
            (SetGridField(GRID.AC_CAP, "2.6"), SetServiceField(ServiceField.PHASES, "3")),
            "broken",
            "outside",
        ),
        ("grid.quick-approval", (SetRouteField(RouteKind.NOTIFY, RouteField.MOST, "3.68"),), "broken", "note"),
        ("grid.export", (SetGridField(GRID.EXPORT_LIMIT, "0"),), "broken", "note"),
        ("grid.export", (SetGridField(GRID.EXPORT_LIMIT, "8 kW"),), "kept", "note"),
        ("grid.busbar", (), "kept", "stop"),
        ("grid.busbar", (ChooseInverter("a", "sample-i10"),), "broken", "stop"),
        ("grid.busbar", (SetServiceField(ServiceField.MAIN_BREAKER, ""),), "not-checked", "stop"),
        ("grid.rebate-ratio", (SetGridField(GRID.REBATE_RATIO, "133 %"),), "broken", "outside"),
        ("grid.rebate-ratio", (SetGridField(GRID.REBATE_RATIO, "150 %"),), "kept", "outside"),
        ("grid.rebate-size", (SetGridField(GRID.REBATE_DC, "11.34"),), "kept", "outside"),
        ("grid.rebate-size", (SetGridField(GRID.REBATE_DC, "11"),), "broken", "outside"),
        (
            "grid.size-cap",
            (SetGridField(GRID.SIZE_CAP_KIND, "dc-kw"), SetGridField(GRID.SIZE_CAP, "11 kW")),
            "broken",
            "outside",
        ),
        (
            "grid.size-cap",
            (SetGridField(GRID.SIZE_CAP_KIND, "ac-kw"), SetGridField(GRID.SIZE_CAP, "8 kW")),
            "kept",
            "outside",
        ),
        (
            "grid.size-cap",
            (
                SetGridField(GRID.SIZE_CAP_KIND, "ac-kw"),
                SetGridField(GRID.SIZE_CAP, "8 kW"),
                AddExisting(),
            ),
            "broken",
            "outside",
        ),
        ("wish.battery", (), "not-checked", "note"),
        ("wish.backup", (SetWish(WISH.BACKUP, on=True),), "not-checked", "note"),
        ("wish.all-black", (SetWish(WISH.ALL_BLACK, on=True),), "not-checked", "note"),
        ("wish.growth", (SetGrowth("4"),), "broken", "note"),
        ("wish.roof-left-free", (SetNoGo("south", on=True),), "broken", "outside"),
        (
            "wish.roof-left-free",
            (AddExisting(), SetExistingPlane("existing1", "south", on=True)),
            "broken",
            "outside",
        ),
    ],
)  # fmt: skip
def test_verdicts(rule_id: str, changes: tuple[Edit, ...], verdict: str, kind: str) -> None:
    found = checks(*changes)[rule_id]
    assert (found.verdict, found.kind) == (Verdict(verdict), LimitKind(kind))
    if found.verdict is Verdict.NOT_CHECKED:
        assert found.reason.startswith("Not checked")


def test_nothing_is_checked_before_modules_are_placed() -> None:
    every = tuple(m.id for a in option_a(SAMPLE).arrays for m in a.modules)
    assert checks(ToggleModules("a", every)) == {}


def test_a_roof_to_stay_free_offers_to_take_the_modules_off() -> None:
    job = apply_edit(SAMPLE, SetNoGo("south", on=True), SHELF)
    found = {c.rule_id: c for c in both(job)}
    fix = found["wish.roof-left-free"].fixes[0]
    cleared = apply_edit(job, fix.edit, SHELF)
    assert not any(m.present for m in option_a(cleared).arrays[0].modules)


def test_symmetry_counts_the_modules_without_a_mirror_image() -> None:
    whole = checks(SetWish(WISH.SYMMETRIC, on=True))["wish.symmetric"]
    first = option_a(SAMPLE).arrays[0].modules[0].id
    less = checks(SetWish(WISH.SYMMETRIC, on=True), ToggleModules("a", (first,)))
    assert less["wish.symmetric"].value.value != whole.value.value
    assert whole.value.value is not None


def test_a_typed_source_takes_the_mark_of_a_sample_away() -> None:
    assert checks()["grid.ac-cap"].source.status == "sample"
    own = checks(SetGridField(GRID.SOURCE, "connection rules, sheet 4"))
    assert own["grid.ac-cap"].source.status == "brief"


def test_the_record_low_is_a_note_of_the_stricter_school() -> None:
    job = apply_edit(SAMPLE, SetSiteField(SiteField.RECORD_LOW, "-34"), SHELF)
    found = [
        c for c in all_checks(design_for(job, option_a(job))) if c.rule_id == "strings.record-low"
    ]
    # 14 * 37.3 V * (1 + 0.0027 * 59) = 605.4 V, over 600 V.
    assert [(c.kind, c.verdict) for c in found] == [(LimitKind.NOTE, Verdict.BROKEN)] * 2
    assert found[0].value.value == pytest.approx(605.3, abs=0.2)
