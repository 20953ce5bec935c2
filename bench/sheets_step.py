"""The sheets' speed: a page of the preview, and the whole permit set as PDF; memory in all."""

import resource
from collections.abc import Callable
from datetime import date

from jobs import FULL, WORKED_OUT, option_a
from ridge_tally.core.sheets.paper import SheetPaper
from ridge_tally.core.sheets.scene_svg import scene_svg
from ridge_tally.core.sheets.sets import SetName
from ridge_tally.editing.design import design_for
from ridge_tally.formats.scene_pdf import scenes_pdf
from ridge_tally.views.sheets.design import Stamp
from ridge_tally.views.sheets.plan_set import SetSheet, in_order, plan_set

Median = Callable[..., float]


def run(median_s: Median) -> None:
    """Print the sheets' figures."""
    design, stamp = design_for(FULL, option_a(FULL)), Stamp(1, date(2026, 12, 1))

    def permit() -> tuple[SetSheet, ...]:
        return in_order(plan_set(WORKED_OUT, design, stamp, SetName.PERMIT, SheetPaper.LETTER))

    sheets = permit()
    drawn = median_s(permit, 3)
    slowest = max(median_s(lambda s=s: scene_svg(s.scene), 3) for s in sheets)
    bound = median_s(lambda: scenes_pdf("bench", "bench", [s.scene for s in sheets]), 3)
    print(f"a page of the preview once its set is drawn: {slowest * 1e3:.0f} ms (aim under 300 ms)")
    print(
        f"permit set of {len(sheets)} sheets: drawn and looked through {drawn:.2f} s, as PDF {bound:.2f} s "
        "(aim under 6 s together)"
    )
    print(f"memory so far: {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB")
