"""What the firm's shelf holds of rails and parts of racking, by their names in the parts list."""

from ridge_tally.core.job.brief import StockKind
from ridge_tally.core.job.document import Job
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.units import LengthUnit, format_length


def rail_name(job: Job, sheet: MountingSheet, length_m: float) -> str:
    """Return what a stick of a system is called in the parts list and on the shelf."""
    feet = job.unit is LengthUnit.FOOT
    length = format_length(length_m, job.unit) if feet else f"{length_m * 1000:.0f} mm"
    return f"Rail {length}, {sheet.name}"


def named_on_shelf(job: Job, kind: StockKind, name: str) -> int:
    """Return how many of a rail or part lie on the shelf; its item or its name may say which."""
    wanted = name.lower()
    return sum(
        s.count
        for s in job.brief.stock
        if s.kind is kind and wanted in (s.item_id.lower(), s.name.lower())
    )
