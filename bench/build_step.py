"""Build's speed: two rails jointly, and forty modules on three planes to a first cut and its parts."""

import itertools
import tempfile
from collections.abc import Callable
from datetime import date
from pathlib import Path

from jobs import FULL, SHELF, option_a, unracked, workspace_in
from ridge_tally.core.build.racking.mounts import RailLine, SpanZone, plan_mounts
from ridge_tally.core.job.array import Ways
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.edits.array.fills import FillPlane
from ridge_tally.core.job.edits.build.racking import (
    ChooseMounting,
    DesignLoadField,
    RackingField,
    SetDesignLoad,
    SetRackingField,
    SetRunOn,
)
from ridge_tally.core.job.ids import PlaneId
from ridge_tally.core.mounting_sheet import MountingId
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.editing.apply import apply_edits
from ridge_tally.editing.design import design_for
from ridge_tally.rules.build import racking
from ridge_tally.rules.build.circuits.checks import circuit_checks
from ridge_tally.rules.build.circuits.conductors import circuits_sized
from ridge_tally.views.build.one_line import one_line
from ridge_tally.views.build.racking import racking_view
from ridge_tally.views.option import option_report
from ridge_tally.views.sheets.design import Stamp
from ridge_tally.views.sheets.titles import title_facts

INCH_M = 0.0254
SOUTH, WEST, EAST = PlaneId("south"), PlaneId("plane-2"), PlaneId("plane-3")


def core(median_s: Callable[..., float]) -> None:
    """Print both."""
    along = tuple((7 + 16 * n) * INCH_M for n in range(24))
    rail = RailLine(385 * INCH_M, along, (SpanZone(0.0, 385 * INCH_M, 48 * INCH_M),), 24 * INCH_M)
    pair_s = median_s(lambda: plan_mounts([rail, rail]), 25)
    print(f"two rails of 24 supports jointly: {pair_s * 1000:.1f} ms (aim under 10)")
    option = option_a(FULL).id
    seam = MountingId("sample-seam-clamp")
    job = apply_edits(
        unracked(FULL),
        [
            SetDesignLoad(DesignLoadField.WIND, "105 mph", ""),
            SetDesignLoad(DesignLoadField.SNOW, "20 psf", ""),
            FillPlane(option, WEST, Ways.PORTRAIT),
            FillPlane(option, EAST, Ways.PORTRAIT),
            ChooseMounting(option, SOUTH, MountingId("sample-flashed-foot")),
            ChooseMounting(option, WEST, seam),
            ChooseMounting(option, EAST, seam),
            SetRunOn(option, SOUTH, on=True),
            *(SetRackingField(option, p, RackingField.BARE_END, '16"') for p in (WEST, EAST)),
        ],
        SHELF,
    )
    design = design_for(job, option_a(job))
    desk = workspace_in(Path(tempfile.mkdtemp())).desk

    def first_lists() -> None:
        racking._racked.cache_clear()
        racking._planned.cache_clear()
        view = next(v for v in racking_view(desk, design) if v.cuts)
        assert all(p.mounts for p in view.planes), [p.amiss for p in view.planes]

    lists_s = median_s(first_lists, 7)
    modules, planes = len(present_ids(design.option)), len(design.arrays)
    print(
        f"{modules} modules on {planes} planes: rails, mounts, first cut and parts "
        f"{lists_s * 1000:.0f} ms (aim under 200), {lists_s / pair_s:.0f} times two rails"
    )
    views = list(itertools.islice(racking_view(desk, design), 3))
    for cut in views[-1].cuts:
        print(f"  {cut.mounting}: {cut.told}")


def wired(median_s: Callable[..., float]) -> None:
    """Print how long all circuits of a job take, and its one-line from design to SVG."""
    design = design_for(FULL, option_a(FULL))
    facts = title_facts(design, option_report(design), Stamp(1, date(2026, 12, 1)))
    circuits_s = median_s(lambda: circuit_checks(design, circuits_sized(design)), 15)
    print(f"all circuits of a job: {circuits_s * 1000:.1f} ms (aim under 20)")
    drawn_s = median_s(lambda: [scene_svg(s.scene) for s in one_line(design, facts)], 7)
    print(
        f"one-line from design to SVG, looked through: {drawn_s * 1000:.0f} ms (aim under 150), "
        f"{drawn_s / circuits_s:.0f} times all circuits"
    )
