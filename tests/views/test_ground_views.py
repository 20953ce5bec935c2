"""Ground arrays in the other views: seen from where posts hold them, counted and moved by tables."""

import math
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from jobs import SHELF, warm_workspace_in
from ridge_tally.core.array.tables import columns_of
from ridge_tally.core.job.array import Orientation, PlaneArray, Position, Ways
from ridge_tally.core.job.document import Job, option_of
from ridge_tally.core.job.edits.array.fills import ArrayField, FillPlane, LaidAt, SetArrayField
from ridge_tally.core.job.edits.array.modules import (
    AddModule,
    MoveModules,
    RemoveModules,
    SplitRow,
    TurnModules,
)
from ridge_tally.core.job.edits.array.tables import SetSeasons, SetTableField, TableField
from ridge_tally.core.job.ids import OptionId
from ridge_tally.demo.kiln_yard import YARD, kiln_yard
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for, design_in
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.services.workspace import Workspace
from ridge_tally.simulation.array_light import array_lights, light_at
from ridge_tally.simulation.year import hourly_year
from ridge_tally.studies.array.layouts import alternatives
from ridge_tally.studies.array.one_more import one_more
from ridge_tally.studies.array.worst_modules import worst_modules
from ridge_tally.studies.sun.angles import angle_map
from ridge_tally.studies.sun.sun_day import sun_day
from ridge_tally.studies.sun.sun_paths import sun_paths

A = OptionId("a")
KILN = kiln_yard(SHELF)
TWO = apply_edit(KILN, SetTableField(A, YARD, TableField.ROWS, "2", lay_anew=True), SHELF)


@pytest.fixture(scope="module")
def workspace(tmp_path_factory: pytest.TempPathFactory) -> Workspace:
    return warm_workspace_in(Path(tmp_path_factory.mktemp("ground-views")))


def yard(job: Job) -> PlaneArray:
    return next(a for a in option_of(job, A).arrays if a.plane_id == YARD)


def columns(job: Job):
    laid = design_in(job, A).on(YARD)
    lay = lay_of(laid)
    return lay, columns_of(lay, laid.array.modules)


def test_the_sky_is_seen_from_where_posts_hold_the_module(workspace: Workspace) -> None:
    """By hand: how high the row before stands over the middle of a module of the second row."""
    array = yard(KILN)
    rows = sorted({m.y_m for m in array.modules})
    middle = sorted((m for m in array.modules if m.y_m == rows[1]), key=lambda m: m.x_m)[4]
    paths = sun_paths(workspace.desk, design_in(KILN, A), YARD, middle.id)
    seen = [b for b in paths.blocked if b.name == "rows on Yard" and abs(b.azimuth_deg - 180) < 20]
    slant, tilt = 2.094, math.radians(30)
    pitch = rows[1] - rows[0]
    # The ground rises by 4° towards 16° off the rows' back: tables stand as much higher.
    higher = pitch * math.tan(math.radians(4)) * math.cos(math.radians(16))
    over = slant * math.sin(tilt) / 2 - higher
    away = pitch - slant * math.cos(tilt) / 2
    wanted = math.degrees(math.atan2(over, away))
    assert max(b.to_deg for b in seen) == pytest.approx(wanted, abs=1.2)


def test_places_get_the_light_of_the_modules_that_stand_there(workspace: Workspace) -> None:
    season = SetSeasons(A, YARD, (Position(100, 20.0), Position(260, 55.0)))
    for job in (KILN, TWO, apply_edit(KILN, season, SHELF)):
        option, (lay, found) = option_of(job, A), columns(job)
        laid = [c for c in found if all(m.present for m in c[1])]
        _, arrays = array_lights(workspace.desk, design_for(job, option))
        lost = {
            m.id: float(x.lost.sum())
            for one in arrays
            for m, x in zip(one.modules, one.lights, strict=True)
        }
        design = design_for(job, option)
        bays = tuple(m for m in yard(job).modules if not m.present)
        bare = replace(design.on(YARD), array=replace(yard(job), modules=bays))
        light = light_at(workspace.desk, design, bare, [place for place, _ in laid])
        told = np.array([x.lost.sum() for x in light.lights]).reshape(-1, lay.tiers)
        wanted = np.array([[lost[m.id] for m in c] for _, c in laid])
        assert told == pytest.approx(wanted, rel=1e-6)


def test_layouts_are_ranked_by_the_light_on_the_tilted_glass(workspace: Workspace) -> None:
    flat = apply_edit(KILN, SetArrayField(A, YARD, ArrayField.LEG_TILT, "1"), SHELF)
    per_kw = [
        a.energy_kwh / a.p_dc_w * 1000
        for job in (KILN, flat)
        for a in alternatives(workspace.desk, design_in(job, A), YARD)[:1]
    ]
    assert per_kw[0] > 1.08 * per_kw[1]
    (in_use,) = (
        a for a in alternatives(workspace.desk, design_for(KILN, KILN.options[0]), YARD)[:1]
    )
    # Three tables of two rows of five posts, as the layout itself has them.
    assert in_use.posts == 30
    simulated = hourly_year(workspace.desk, design_for(KILN, KILN.options[0])).energy_kwh / 10.8
    assert per_kw[0] == pytest.approx(simulated, rel=0.12)


def test_one_more_counts_modules_on_tables_of_two_rows(workspace: Workspace) -> None:
    told = one_more(workspace.desk, design_in(TWO, A), YARD)
    full = apply_edit(TWO, FillPlane(A, YARD, Ways.PORTRAIT), SHELF)
    assert told.holds == sum(m.present for m in yard(TWO).modules)
    assert told.fill_holds == len(yard(full).modules)
    assert told.rows
    for way in told.ways_in:
        assert way.modules % 2 == 0


def test_the_worst_of_tables_of_two_rows_go_nowhere_alone(workspace: Workspace) -> None:
    full = apply_edit(TWO, FillPlane(A, YARD, Ways.PORTRAIT), SHELF)
    assert worst_modules(workspace.desk, design_in(full, A)).moved == ()


def test_a_column_is_moved_turned_split_off_and_set_down_as_one() -> None:
    _, before = columns(TWO)
    row = sorted((c for c in before if c[0].y_m == before[0][0].y_m), key=lambda c: c[0].x_m)
    lone = apply_edit(
        TWO, RemoveModules(A, tuple(m.id for _, c in before if c not in (row[0][1],) for m in c)),
        SHELF,
    )  # fmt: skip
    upper = row[0][1][1].id
    moved = apply_edit(lone, MoveModules(A, (upper,), 1.0, 0.5), SHELF)
    ((place, column),) = columns(moved)[1]
    assert len(column) == 2
    assert (place.x_m, place.y_m) == pytest.approx((row[0][0].x_m + 1.0, row[0][0].y_m + 0.5))
    turned = apply_edit(lone, TurnModules(A, (upper,)), SHELF)
    lay, ((place, column),) = columns(turned)
    assert {m.orientation for m in column} == {Orientation.LANDSCAPE}
    # By hand: the upper of two lies a module and a clamp further up the glass.
    rise = (lay.short_m + 0.02) * math.cos(math.radians(30))
    assert column[1].y_m - column[0].y_m == pytest.approx(rise, abs=1e-4)
    added = apply_edit(lone, AddModule(A, YARD, LaidAt(6.0, 3.0, Orientation.PORTRAIT)), SHELF)
    assert [len(c) for _, c in columns(added)[1]] == [2, 2]
    split = apply_edit(TWO, SplitRow(A, row[1][1][1].id, "0.1 m"), SHELF)
    places = [p for p, c in columns(split)[1] if c[0].id in {m.id for _, r in row for m in r}]
    assert len(places) == len(row)
    left, right = sorted(places, key=lambda p: p.x_m)[:2]
    assert right.x_m - left.x_m - lay.short_m == pytest.approx(0.1, abs=1e-4)


def test_each_tilt_of_the_year_is_judged_on_its_own_days(workspace: Workspace) -> None:
    season = SetSeasons(A, YARD, (Position(95, 15.0), Position(250, 50.0)))
    job = apply_edit(KILN, season, SHELF)
    summer, winter = angle_map(workspace.desk, design_in(job, A)).planes
    (fixed,) = angle_map(workspace.desk, design_for(KILN, KILN.options[0])).planes
    assert (summer.name, winter.name) == ("Yard from 6 Apr", "Yard from 8 Sep")
    assert max(summer.loss_frac, winter.loss_frac) < 0.02
    assert summer.kwh_per_m2 + winter.kwh_per_m2 > 1.02 * fixed.kwh_per_m2


@pytest.mark.parametrize(("day", "tilt_deg"), [(171, 15.0), (354, 50.0), (94, 50.0), (95, 15.0)])
def test_a_day_s_shadows_are_of_the_tilt_held_on_it(
    workspace: Workspace, day: int, tilt_deg: float
) -> None:
    season = SetSeasons(A, YARD, (Position(95, 15.0), Position(250, 50.0)))
    job = apply_edit(KILN, season, SHELF)
    ring = np.array(sun_day(workspace.desk, design_in(job, A), day).modules[0].ring)
    # By hand: from above 2.094 m of glass are 2.094 cos(tilt) deep.
    deep = float(np.linalg.norm(ring[3] - ring[0]))
    assert deep == pytest.approx(2.094 * math.cos(math.radians(tilt_deg)), abs=3e-3)
