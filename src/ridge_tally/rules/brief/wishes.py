"""Wishes of the household: honoured, or refused aloud."""

from collections.abc import Iterable
from dataclasses import replace

from ridge_tally.core.equipment import InverterSheet
from ridge_tally.core.job.document import Job, module_footprint_m, present_ids
from ridge_tally.core.job.edits.array.fills import SetSymmetric
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.job.ids import OptionId, PlaneId
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.core.working import (
    Check,
    Fix,
    Given,
    LimitKind,
    Source,
    SourceStatus,
    check,
    number_of,
)
from ridge_tally.rules.design import Design, dc_limit_given, dc_watts, p_max_given

WISH = Source("wish of the household", "", SourceStatus.BRIEF)
# Half a module gap: closer than this two modules mirror each other for the eye.
MIRROR_M = 0.05


def roofs_left_free(job: Job) -> dict[PlaneId, str]:
    """Return the planes no module may go on, with why: taken by an old array, or a wish.

    Where the old array's rows are drawn, only they are taken.
    """
    drawn = {(p.id, rows.existing_id) for p in job.survey.planes for rows in p.existing}
    taken = {
        p: f"taken by {a.name}"
        for a in job.brief.already.arrays
        for p in a.plane_ids
        if (p, a.id) not in drawn
    }
    return taken | dict.fromkeys(job.brief.wishes.no_go_planes, "to stay free")


def wish_checks(design: Design) -> tuple[Check, ...]:
    """Return a check for each wish; none before modules are placed."""
    if not present_ids(design.option):
        return ()
    wishes, option = design.job.brief.wishes, design.option
    found: list[Check] = []
    for plane_id, why in roofs_left_free(design.job).items():
        found.append(_roof_left_free(design, design.on(plane_id), why))
    if wishes.growth_modules:
        found.append(_growth(design, wishes.growth_modules))
    if wishes.symmetric:
        used = [a for a in design.arrays if any(m.present for m in a.array.modules)]
        found += [_symmetry(option.id, laid) for laid in used]
    if wishes.all_black:
        found.append(_yes("wish.all-black", "All black", "module", design.module.all_black))
    if wishes.battery_later:
        ready = _all(i.battery_ready for i in _hybrids(design))
        found.append(_yes("wish.battery", "Battery later", "inverter", ready))
    if wishes.backup:
        ready = _all(i.backup_ready for i in _hybrids(design))
        found.append(_yes("wish.backup", "Backup", "inverter", ready))
    return tuple(found)


def _hybrids(design: Design) -> tuple[InverterSheet, ...]:
    """Return the inverters a battery could hang on: none where every module has its own."""
    return () if design.microinverter is not None else design.inverters


def _all(answers: Iterable[bool | None]) -> bool | None:
    """Return whether all are; unknown where one is and none is not."""
    known = list(answers)
    if False in known:
        return False
    return None if None in known or not known else True


def _count_check(
    rule_id: str,
    title: str,
    subject: str,
    label: str,
    count: int,
    kind: LimitKind,
    fixes: tuple[Fix, ...] = (),
) -> Check:
    return check(
        rule_id=rule_id,
        title=title,
        subject=subject,
        kind=kind,
        formula="n_off",
        givens=(Given("n_off", label, float(count), "", "this design"),),
        value=float(count),
        symbol="n_off",
        unit="modules",
        relation="<=",
        limit=Given("none", "allowed", 0.0, "modules", "brief"),
        source=WISH,
        graded=False,
        fixes=fixes,
    )


def _roof_left_free(design: Design, laid: LaidArray, why: str) -> Check:
    present = tuple(m.id for m in laid.array.modules if m.present)
    return _count_check(
        "wish.roof-left-free",
        "Roof left free",
        f"{laid.plane.name}, {why}",
        "modules on it",
        len(present),
        LimitKind.OUTSIDE,
        (Fix("Take them off", ToggleModules(design.option.id, present)),),
    )


def _growth(design: Design, growth: int) -> Check:
    """The inverter's maker must stand behind the modules to come as well."""
    formula, givens, p_dc_w = dc_watts(design)
    p_max = p_max_given(design)
    return check(
        rule_id="wish.growth",
        title="Room to grow",
        subject="inverter",
        kind=LimitKind.NOTE,
        formula=f"{formula} + n_grow * p_grow",
        givens=(
            *givens,
            Given("n_grow", "modules to come", float(growth), "", "wish of the household"),
            replace(p_max, symbol="p_grow"),
        ),
        value=p_dc_w + growth * number_of(p_max),
        symbol="p_dc",
        unit="W",
        relation="<=",
        limit=dc_limit_given(design),
        source=WISH,
    )


def _symmetry(option_id: OptionId, laid: LaidArray) -> Check:
    """Count the modules without a mirror image across the middle of the eave."""
    plane, sheet, eave = laid.plane, laid.module, corners_m(laid.plane)
    middle = float(eave[0][0] + eave[1][0]) / 2
    places = [
        (m.x_m + module_footprint_m(sheet, m.orientation)[0] / 2 - middle, m.y_m)
        for m in laid.array.modules
        if m.present
    ]
    lone = sum(
        not any(
            abs(x + other_x) < MIRROR_M and abs(y - other_y) < MIRROR_M
            for other_x, other_y in places
        )
        for x, y in places
    )
    return _count_check(
        "wish.symmetric",
        "Symmetric",
        plane.name,
        "modules without a mirror image",
        lone,
        LimitKind.NOTE,
        ()
        if laid.array.symmetric
        else (Fix("Ask for symmetric fills", SetSymmetric(option_id, plane.id, on=True)),),
    )


def _yes(rule_id: str, title: str, subject: str, answer: bool | None) -> Check:
    """A wish the datasheet grants, denies, or says nothing about."""
    value = None if answer is None else float(answer)
    return check(
        rule_id=rule_id,
        title=title,
        subject=subject,
        kind=LimitKind.NOTE,
        formula="yes",
        givens=(Given("yes", "datasheet says", value, "", "datasheet"),),
        value=value,
        symbol="yes",
        unit="",
        relation=">=",
        limit=Given("wished", "wished", 1.0, "", "brief"),
        source=WISH,
        graded=False,
        reason="Not checked: the datasheet does not say.",
    )
