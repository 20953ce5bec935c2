"""The sun's speed: the sky over every module, quick and fine, and one module moved."""

import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from jobs import FULL, SHELF, option_a, workspace_in
from ridge_tally.core.job.array_edits import MoveModules
from ridge_tally.core.kernels import dome
from ridge_tally.core.sun.shading import FINE, QUICK, Resolution
from ridge_tally.services.editing import apply_edit
from ridge_tally.services.shade import shade_report
from ridge_tally.services.sun_paths import sun_paths


def core(median_s: Callable[..., float]) -> None:
    """A year's shade on the sample's modules, and what each owner takes."""
    start = time.perf_counter()
    dome.warm()
    print(f"kernels compiled or loaded: {time.perf_counter() - start:.2f} s")
    option = option_a(FULL)
    modules = sum(m.present for a in option.arrays for m in a.modules)
    jobs = [
        apply_edit(FULL, MoveModules("a", ("south-1",), i * 1e-4, 0.0), SHELF) for i in range(6)
    ]

    def shade(resolution: Resolution) -> float:
        with tempfile.TemporaryDirectory() as folder:
            workspace = workspace_in(Path(folder))
            turns = iter(jobs)
            shade_report(workspace, FULL, option, resolution)

            def once() -> None:
                job = next(turns)
                shade_report(workspace, job, option_a(job), resolution)

            return median_s(once, 5)

    quick_s, fine_s = shade(QUICK), shade(FINE)
    print(
        f"shade of {modules} modules, every owner told: quick {quick_s:.2f} s, fine {fine_s:.2f} s "
        f"(aim under 1 s), {fine_s / quick_s:.1f} times as long"
    )
    paths_s = median_s(lambda: sun_paths(FULL, option, "south"), 3)
    print(f"seven sun paths and the sky over a spot: {paths_s:.2f} s")
