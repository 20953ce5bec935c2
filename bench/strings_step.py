"""The planner's speed: every plan of forty modules on three planes, and the whole shelf."""

import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from jobs import FULL, SHELF, option_a, workspace_in
from ridge_tally.core.job.document import present_ids
from ridge_tally.core.job.edits.array.modules import ToggleModules
from ridge_tally.core.strings.plans import TrackerClass, legal_plans
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.studies.loading.sweep import loading_sweep
from ridge_tally.studies.strings.inverters import inverter_plans
from ridge_tally.studies.sun.angles import angle_map
from ridge_tally.views.option import option_report

COUNTS = (16, 14, 10)


def core(median_s: Callable[..., float]) -> None:
    """Ones the rest of the program waits for."""
    two = [TrackerClass((1, 2, 3, 4, 5, 6), ((4, 14),), (1,))]
    wide = [TrackerClass((1, 2, 3, 4, 5, 6), ((4, 14),), (2,))]
    one_s, most_s = (median_s(lambda c=c: legal_plans(COUNTS, c)) for c in (two, wide))
    begun = time.perf_counter()
    here = workspace_in(Path(tempfile.mkdtemp()))
    steps = inverter_plans(here.desk, design_for(FULL, option_a(FULL)), SHELF.inverters)
    last = next(s for s in steps if len(s.found) == s.of)
    shelf_s = time.perf_counter() - begun
    *_, last = steps
    searched_s = time.perf_counter() - begun
    begun, first_s = time.perf_counter(), 0.0
    for report in loading_sweep(here.desk, design_for(FULL, option_a(FULL))):
        first_s = first_s or (time.perf_counter() - begun if report.by_size else 0.0)
    sweep_s = time.perf_counter() - begun
    points = len(report.by_size) + len(report.by_modules)
    begun = time.perf_counter()
    angle_map(here.desk, design_for(FULL, option_a(FULL)))
    angles_s = time.perf_counter() - begun
    ids = iter(present_ids(option_a(FULL)))

    def toggled() -> None:
        job = apply_edit(FULL, ToggleModules(option_a(FULL).id, (next(ids),)), SHELF)
        option_report(design_for(job, option_a(job)))

    print(
        f"planner, 40 modules on 3 planes and six trackers: {one_s * 1000:.0f} ms for "
        f"{legal_plans(COUNTS, two).total} plans, {most_s * 1000:.0f} ms for "
        f"{legal_plans(COUNTS, wide).total} with two strings on each (aim 300 ms); the shelf's "
        f"{last.of} inverters {shelf_s * 1000:.0f} ms (aim 5 s), with the years of those that "
        f"have a plan {searched_s:.1f} s (aim 15 s); a module taken off, strung anew "
        f"and every check made {median_s(toggled) * 1000:.0f} ms (aim 50 ms)"
    )
    print(
        f"loading sweep, {points} sizes: the first after {first_s:.1f} s (aim 1 s), all after "
        f"{sweep_s:.1f} s (aim 15 s); tilt and azimuth, 19 by 37: {angles_s:.1f} s (aim about 1 s)"
    )
