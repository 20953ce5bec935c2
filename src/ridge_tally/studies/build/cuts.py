"""An option's rails cut from sticks, remembered once the best cut is found."""

from collections.abc import Iterator

from ridge_tally.rules.build.racking import racked_planes
from ridge_tally.rules.build.sawing import Sawing, sawn
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk


def cuts_so_far(desk: Desk, design: Design) -> Iterator[tuple[Sawing, ...]]:
    """Yield how an option's rails are cut, better as it is found; at once where it was found before."""
    job, option = design.job, design.option
    key = (
        "cuts", job.survey, job.site, job.design_loads, job.brief.stock, job.equipment.mountings,
        job.unit, option.arrays, option.racking, option.module_id,
    )  # fmt: skip
    best: tuple[Sawing, ...] = ()
    if key not in desk.fills:
        for best in sawn(design, racked_planes(design)):
            yield best
    found = best
    yield desk.fills.get(key, lambda: found)
