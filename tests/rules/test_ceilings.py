"""Ceilings worked by hand, and every printed sum of a ceiling done again."""

from dataclasses import replace

import pytest

from jobs import SAMPLE, SHELF, option_a
from ridge_tally.core.brief.target import Ceiling, CeilingKind, binding_ceiling
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.any_edit import BriefEdit
from ridge_tally.core.job.edits.brief.grid import GridField, SetGridField, TakeGridPack
from ridge_tally.core.job.edits.brief.needs import (
    AddExisting,
    ExistingField,
    ServiceField,
    SetExistingField,
    SetServiceField,
    SetTarget,
    SetTargetField,
    TargetField,
)
from ridge_tally.core.job.grid import SizeCap, SizeCapKind
from ridge_tally.core.working import Given
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.brief.ceilings import Figures, TargetCount, ceilings, target_count

YIELD = Given("y", "yield", 1800.0, "kWh/kW", "hand")


def after(*changes: BriefEdit, job: Job = SAMPLE) -> Job:
    for change in changes:
        job = apply_edit(job, change, SHELF)
    return job


def figures(roof: float = 28, past: float | None = 15000.0, old: float = 0.0) -> Figures:
    return Figures(
        "Roof",
        Given("n_roof", "roof", roof, "", "hand"),
        YIELD,
        Given("use", "past use", past, "kWh", "hand"),
        Given("e_old", "old", old, "kWh", "hand"),
    )


def found(job: Job, given: Figures | None = None) -> dict[CeilingKind, Ceiling]:
    design = design_for(job, option_a(job))
    return {c.kind: c for c in ceilings(design, given or figures())}


def with_cap(job: Job, cap: SizeCap) -> Job:
    return replace(job, brief=replace(job.brief, grid=replace(job.brief.grid, size_cap=cap)))


OLD_ARRAY = (
    AddExisting(),
    SetExistingField("existing1", ExistingField.P_DC, "4.05"),
    SetExistingField("existing1", ExistingField.P_AC, "3.6"),
)


def test_the_purse() -> None:
    # (28 000 - 1 000) / (2.50 * 405) = 26.67
    job = after(
        SetTargetField(TargetField.BUDGET, "28 000"),
        SetTargetField(TargetField.FIXED_PRICE, "1 000"),
        SetTargetField(TargetField.PRICE, "2.50"),
    )
    purse = found(job)[CeilingKind.PURSE]
    assert purse.value.value == pytest.approx(26.6667, abs=1e-4)
    assert purse.modules == 26


def test_a_size_cap_in_kw_counts_what_is_there() -> None:
    # (10.125 - 4.05) kW / 0.405 kW = 15, exactly; without the old array 25, exactly.
    cap = SizeCap(SizeCapKind.DC_KW, 10.125)
    assert found(with_cap(SAMPLE, cap))[CeilingKind.SIZE_CAP].modules == 25
    assert found(with_cap(after(*OLD_ARRAY), cap))[CeilingKind.SIZE_CAP].modules == 15


def test_a_size_cap_by_use_counts_what_the_old_array_makes() -> None:
    # (1.2 * 15 000 - 7 290) kWh / (1800 * 0.405) kWh = 14.69; without the old array 24.69.
    assert found(SAMPLE)[CeilingKind.SIZE_CAP].value.value == pytest.approx(24.6914, abs=1e-4)
    held = found(SAMPLE, figures(old=7290.0))[CeilingKind.SIZE_CAP]
    assert held.modules == 14


def test_a_cap_below_what_is_there_leaves_no_room() -> None:
    cap = SizeCap(SizeCapKind.DC_KW, 3.0)
    assert found(with_cap(after(*OLD_ARRAY), cap))[CeilingKind.SIZE_CAP].modules == 0


def test_the_busbar() -> None:
    # 200 A bar and main: (240 - 200) / 1.25 = 32 A, 7.68 kW at 240 V (handbook figure, common
    # practice); times 1.5 DC:AC: 11.52 kW, 28 modules.  A 225 A bar gives 56 A, 13.44 kW.
    assert found(SAMPLE)[CeilingKind.BUSBAR].modules == 28
    job = after(SetServiceField(ServiceField.BUSBAR, "225 A"))
    assert found(job)[CeilingKind.BUSBAR].value.value == pytest.approx(13440 * 1.5 / 405)
    job = after(*OLD_ARRAY)
    assert found(job)[CeilingKind.BUSBAR].value.value == pytest.approx((7680 - 3600) * 1.5 / 405)


def test_the_rebate_of_a_capped_grid() -> None:
    # 7.6 kW * 4/3 = 10 133 W; / 405 W = 25.02.
    job = after(TakeGridPack("sample-au-capped"))
    assert found(job)[CeilingKind.REBATE].modules == 25


def test_a_missing_number_is_named_and_leaves_the_ceiling_unknown() -> None:
    job = after(SetServiceField(ServiceField.BUSBAR, ""))
    busbar = found(job)[CeilingKind.BUSBAR]
    assert busbar.modules is None
    assert busbar.reason == "main breaker and busbar not given"
    unsaid = after(SetServiceField(ServiceField.SOURCE_BREAKER, ""))
    assert found(unsaid)[CeilingKind.BUSBAR].reason == "place of the source breaker not given"


def test_the_lowest_known_ceiling_binds() -> None:
    lowest = binding_ceiling(tuple(found(SAMPLE, figures(roof=26)).values()))
    assert lowest is not None
    assert lowest.kind is CeilingKind.SIZE_CAP
    assert binding_ceiling(()) is None


@pytest.mark.parametrize(
    "job",
    [
        SAMPLE,
        after(*OLD_ARRAY),
        after(TakeGridPack("sample-au-capped")),
        after(TakeGridPack("sample-iec-surplus"), *OLD_ARRAY),
        with_cap(SAMPLE, SizeCap(SizeCapKind.AC_KW, 10.0)),
        with_cap(SAMPLE, SizeCap(SizeCapKind.DC_KW, 11.0)),
    ],
)
def test_every_printed_sum_gives_its_value(job: Job) -> None:
    for item in found(job).values():
        names = {g.symbol: g.value for g in item.givens}
        assert item.value.value == pytest.approx(eval(item.formula, {}, names), rel=1e-12)


def count(job: Job, need: float | None, given: Figures | None = None) -> TargetCount:
    design = design_for(job, option_a(job))
    need_ = Given("need", "use", need, "kWh", "hand")
    return target_count(design, need_, YIELD, ceilings(design, given or figures()))


@pytest.mark.parametrize(
    ("need", "modules"), [(20 * 729.0, 20), (20 * 729.0 + 0.1, 21), (1.0, 1), (19.5 * 729.0, 20)]
)
def test_net_zero_at_exact_and_just_over_counts(need: float, modules: int) -> None:
    # One module of 405 W makes 729 kWh at 1800 kWh/kW.
    assert count(SAMPLE, need).modules == modules


def test_the_other_targets() -> None:
    share = after(SetTargetField(TargetField.SHARE, "50 %"))
    assert count(share, 20 * 729.0).modules == 10
    budget = after(SetTarget("budget"))
    assert count(budget, 1.0).modules == 32
    roof = after(SetTarget("roof"))
    assert count(roof, None, figures(roof=19)).modules == 19
    rebate = after(TakeGridPack("sample-au-capped"), SetTarget("rebate"))
    assert count(rebate, 1.0).modules == 25


def test_a_target_without_its_number_says_which() -> None:
    assert "use" in count(SAMPLE, None).reason
    no_rebate = after(SetTarget("rebate"), SetGridField(GridField.REBATE_NAME, ""))
    assert "no limit of a rebate" in count(no_rebate, 1.0).reason
    no_price = after(SetTarget("budget"), SetTargetField(TargetField.PRICE, ""))
    assert count(no_price, 1.0).reason == "price of a watt not given"
