"""Modules of two types: on planes of their own, in one string and side by side."""

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from jobs import FULL, SHELF, option_a, warm_workspace_in, with_inverter
from ridge_tally.core.energy.lit import diode_of
from ridge_tally.core.equipment import ModuleId, ModuleSheet, TrackerSheet
from ridge_tally.core.errors import NotFound
from ridge_tally.core.job.array import Ways, present_of
from ridge_tally.core.job.document import Job, option_of, with_option
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.array.kinds import ChooseModule, ChoosePlaneModule
from ridge_tally.core.job.option import ModuleString
from ridge_tally.core.job.system import system_of
from ridge_tally.core.kernels.modules import helped_year
from ridge_tally.core.kernels.strings import free_year
from ridge_tally.core.working import Check, LimitKind, Verdict
from ridge_tally.demo.juniper_survey import GARAGE_WEST, SOUTH
from ridge_tally.editing.apply import apply_edit, apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.formats.job_file import read_job, write_job
from ridge_tally.rules.report import all_checks
from ridge_tally.services.workspace import Workspace
from ridge_tally.studies.strings.asked_plan import plan_verdict
from ridge_tally.studies.strings.plans import plans_report
from ridge_tally.studies.strings.tracker_losses import tracker_losses
from ridge_tally.views.loading.year import year_report
from ridge_tally.views.option import option_report

OTHER = ModuleId("sample-330")
WIDE = tuple(TrackerSheet(60.0, 590.0, 60.0, 90.0, 4) for _ in range(2))


def two_types(job: Job = FULL) -> Job:
    """The house in 405 W, the garage in 330 W."""
    steps = [
        ChoosePlaneModule("a", GARAGE_WEST, OTHER),
        FillPlane("a", GARAGE_WEST, Ways.PORTRAIT),
    ]
    return apply_edits(with_inverter(job, trackers=WIDE), steps, SHELF)


BOTH = two_types()


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("types")))


def ids_on(job: Job, plane_id: str) -> tuple[str, ...]:
    return tuple(
        m.id for a in option_a(job).arrays if a.plane_id == plane_id for m in present_of(a)
    )


def strung(job: Job, *strings: tuple[int, tuple[str, ...]]) -> Job:
    made = tuple(ModuleString(f"S{n}", t, ids) for n, (t, ids) in enumerate(strings))
    return with_option(job, replace(option_a(job), strings=made))


def checks_of(job: Job) -> dict[tuple[str, str], Check]:
    return {(c.rule_id, c.subject): c for c in all_checks(design_for(job, option_a(job)))}


def sheets(job: Job) -> tuple[ModuleSheet, ModuleSheet]:
    system = system_of(job, option_a(job))
    return system.on(SOUTH).module, system.on(GARAGE_WEST).module


def test_a_plane_has_a_type_of_its_own_counted_apart_and_kept_in_the_file() -> None:
    house, garage = sheets(BOTH)
    assert (house.id, garage.id) == ("sample-405", OTHER)
    assert read_job(write_job(BOTH)) == BOTH
    report = option_report(design_for(BOTH, option_a(BOTH)))
    many = len(ids_on(BOTH, GARAGE_WEST))
    assert report.p_dc_w == 28 * 405 + many * 330
    assert report.modules_told == (
        "28 × Sample module 405 W, half-cut", f"{many} × Sample module 330 W, full-cell",
    )  # fmt: skip
    # Each type fills by its own size.
    assert {
        system_of(BOTH, option_a(BOTH)).sheets[m].long_m for m in ids_on(BOTH, GARAGE_WEST)
    } == {garage.long_m}


def test_the_options_module_changes_only_where_a_plane_has_none_of_its_own() -> None:
    changed = apply_edit(BOTH, ChooseModule("a", ModuleId("sample-390")), SHELF)
    assert [s.id for s in sheets(changed)] == ["sample-390", OTHER]
    back = apply_edit(changed, ChoosePlaneModule("a", GARAGE_WEST, None), SHELF)
    assert [s.id for s in sheets(back)] == ["sample-390", "sample-390"]
    with pytest.raises(NotFound, match="sample-none"):
        apply_edit(BOTH, ChoosePlaneModule("a", GARAGE_WEST, ModuleId("sample-none")), SHELF)
    assert option_of(back, "a").module_id == "sample-390"


def test_a_string_of_two_types_sums_their_voltages_and_its_current_is_the_larger() -> None:
    house, garage = sheets(BOTH)
    job = strung(BOTH, (1, ids_on(BOTH, SOUTH)[:6] + ids_on(BOTH, GARAGE_WEST)[:4]))
    found = checks_of(job)
    cold = found["strings.cold-voltage", "string S0"]
    # By hand: each type's Voc with its own coefficient, 53 K below 25 °C.
    by_hand = 6 * house.voc_v * (1 - 53 * house.beta_voc_frac_per_degc) + 4 * garage.voc_v * (
        1 - 53 * garage.beta_voc_frac_per_degc
    )
    assert cold.value.value == pytest.approx(by_hand)
    assert "n_b * voc_b" in cold.formula
    short = found["strings.short-circuit-current", "tracker 1"]
    assert short.value.value == pytest.approx(1.25 * max(house.isc_a, garage.isc_a))
    mixed = found["strings.types-in-series", "string S0"]
    apart = (house.imp_a - garage.imp_a) / house.imp_a * 100
    assert mixed.value.value == pytest.approx(apart)
    assert (mixed.kind, mixed.verdict) == (LimitKind.COSTS, Verdict.BROKEN)


def test_types_in_parallel_are_judged_by_voltage_and_the_lowest_fuse_rules() -> None:
    house, garage = sheets(BOTH)
    job = strung(BOTH, (1, ids_on(BOTH, SOUTH)[:6]), (1, ids_on(BOTH, GARAGE_WEST)[:6]))
    found = checks_of(job)
    equal = found["strings.equal-lengths", "tracker 1"]
    volts = sorted((6 * house.vmp_v, 6 * garage.vmp_v))
    assert equal.value.value == pytest.approx((volts[1] - volts[0]) / volts[1] * 100)
    assert equal.verdict is Verdict.BROKEN
    fuse = found["strings.without-fuses", "tracker 1"]
    assert fuse.limit.value == min(house.max_series_fuse_a, garage.max_series_fuse_a)
    current = found["strings.operating-current", "tracker 1"]
    assert current.value.value == pytest.approx(house.imp_a + garage.imp_a)


def test_the_planner_keeps_types_apart_and_knows_each_one_s_lengths(workspace: Workspace) -> None:
    report = plans_report(workspace.desk, design_for(BOTH, option_a(BOTH)))
    assert report.total > 0
    kinds = {m: s.id for m, s in system_of(BOTH, option_a(BOTH)).sheets.items()}
    for plan in report.plans:
        on_tracker: dict[int, set[str]] = {}
        for string in plan.edit.strings:
            on_tracker.setdefault(string.tracker_number, set()).update(
                kinds[m] for m in string.module_ids
            )
        assert all(len(types) == 1 for types in on_tracker.values())
    assert [told.module for told in report.lengths] == [s.name for s in sheets(BOTH)]
    answer = plan_verdict(
        design_for(BOTH, option_a(BOTH)), "South: 14 on 1; Garage west: 11 on 1"
    ).told
    assert answer.startswith("Two types of module in parallel on tracker 1")


def test_the_year_of_two_types_apart_is_that_of_each(workspace: Workspace) -> None:
    south, west = ids_on(BOTH, SOUTH)[:6], ids_on(BOTH, GARAGE_WEST)[:4]
    apart = strung(BOTH, (1, south), (2, west))
    report = year_report(workspace.desk, design_for(apart, option_a(apart)))
    only = [year_report(workspace.desk, design_for(j, option_a(j))) for j in (
        strung(BOTH, (1, south)), strung(BOTH, (2, west)))]  # fmt: skip
    assert report.stages[0].after_kwh == pytest.approx(
        sum(y.stages[0].after_kwh for y in only), rel=1e-9
    )
    series = strung(BOTH, (1, south + west))
    losses = tracker_losses(workspace.desk, design_for(series, option_a(series)))[0]
    assert losses.mixed_kwh is not None
    # Ten amperes under thirteen: the stronger modules give up about a quarter of theirs.
    assert 0.05 < losses.mixed_kwh / losses.own_kwh < 0.3


def curve_best_w(light: list[float], refs: np.ndarray, types: list[int]) -> float:
    column = np.array(light)[:, None]
    none = np.zeros(len(light), np.bool_)
    free, _, _ = helped_year(
        column, np.array([0, len(light)]), np.array([[45.0]]), refs, np.array(types), 1, none,
        1.0, 1e9, 1e9, 0.0, 1e9, 1e9, 0.0,
    )  # fmt: skip
    return float(free[0])


def test_two_types_that_are_one_are_as_one_type() -> None:
    ref = diode_of(SHELF.modules[1])
    light = [900.0] * 6 + [500.0] * 6
    alone = free_year(np.array(light)[:, None], np.array([0, 12]), np.array([[45.0]]), ref)[2][0]
    twice = curve_best_w(light, np.array([ref, ref]), [0, 1] * 6)
    assert twice == pytest.approx(alone, rel=5e-4)


def test_a_mixed_string_meets_the_exact_curve_of_its_parts() -> None:
    # Against the reference library: voltages of the parts at each current summed, finely.
    from pvlib import pvsystem

    one, other = SHELF.modules[1], SHELF.modules[4]
    refs = np.array([diode_of(one), diode_of(other)])
    light, types = [900.0] * 9 + [700.0] * 9, [0] * 9 + [1] * 9
    amps = np.linspace(0.0, 13.0, 40_001)
    volts = np.zeros_like(amps)
    for ref, e, many in ((refs[0], 900.0, 9), (refs[1], 700.0, 9)):
        il, io, rs, rsh, nsvth = pvsystem.calcparams_desoto(
            e, 45.0, ref[5], ref[4], ref[0], ref[1], ref[3], ref[2], ref[7], -0.0002677
        )
        parts = ref[6]
        v = pvsystem.v_from_i(amps, il, io, rs, rsh, nsvth, method="lambertw")
        v = np.where(amps < il, v, -0.5 * parts) / parts
        volts += many * np.maximum(v, -0.5)
    assert curve_best_w(light, refs, types) == pytest.approx(float((volts * amps).max()), rel=1e-3)
