"""The posts under the tables of a ground array, and the array in a sentence for the sheet."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ridge_tally.core.array.posts import legs, overhang_m, posts_along
from ridge_tally.core.array.stances import stands
from ridge_tally.core.array.tables import Table, ground_height_m, tables_of
from ridge_tally.core.job.array import GroundTable, present_of
from ridge_tally.core.job.document import Job, Option, module_on
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.nominal_year import day_name
from ridge_tally.core.sun.row_spacing import Rows
from ridge_tally.core.units import format_length
from ridge_tally.rules.array import lay_of
from ridge_tally.rules.ground import rows_of
from ridge_tally.services.array_editing import array_of
from ridge_tally.services.ground_editing import ground_of_plane


@dataclass(frozen=True, slots=True)
class Post:
    """A post: where it stands on the plane, and its length from the ground to the glass.

    ``table``: its number from 1; ``back``: of the upper row.
    """

    table: int
    x_m: float
    y_m: float
    back: bool
    height_m: float


def posts_of(
    plane: RoofPlane, rows: Rows, table: GroundTable, tables: Sequence[Table]
) -> tuple[Post, ...]:
    """Return every post; both rows of posts under the glass, as far apart up the slope as typed."""
    tilt = math.radians(rows.tilt_deg)
    apart = min(table.apart.value_m, rows.slant_m)
    over = overhang_m(rows.slant_m, apart)
    found = []
    for number, one in enumerate(tables, start=1):
        hinge = one.base_m + over * math.sin(tilt)
        at = legs(rows.slant_m, apart, hinge, rows.tilt_deg)
        for back, up, top in ((False, over, at.front_m), (True, over + apart, at.back_m)):
            y = one.front_m + up * math.cos(tilt)
            for along in posts_along(one.right_m - one.left_m, table.along.value_m):
                x = one.left_m + along
                found.append(Post(number, x, y, back, top - ground_height_m(plane, x, y)))
    return tuple(found)


def told_tables(job: Job, option: Option, plane: RoofPlane) -> str:
    """Return the tables of a ground array in a sentence or two: posts, bays, tilts of the year.

    Raises
    ------
    BadGeometry
        If the plane is a roof.
    """
    ground, array = ground_of_plane(plane), array_of(option, plane.id)
    rows, table = rows_of(job, option, array), array.table or GroundTable()
    there = tables_of(plane, array, lay_of(module_on(job, option, plane.id), array, plane))
    heights = [p.height_m for p in posts_of(plane, rows, table, there)]
    bays = len(array.modules) - len(present_of(array))

    def length(of_m: float) -> str:
        return format_length(of_m, job.unit)

    found = (
        f"{plane.name}: tables facing {plane.azimuth_deg:.0f}° true at {rows.tilt_deg:g}°, ground "
        f"falls {ground.slope_deg:g}° to {ground.falls_to_deg:.0f}°, lengths level. Front edge "
        f"{length(table.clearance.value_m)} over the ground, rows "
        f"{length(array.gap_between_rows.value_m)} apart"
    )
    if heights:
        found += (
            f"; {len(there)} tables on {len(heights)} posts of {length(min(heights))} to "
            f"{length(max(heights))} over the ground"
        )
    if bays:
        found += f"; {bays} bays left for later"
    changes = (
        f"{s.tilt_deg:g}° from {day_name(s.from_day)}, back legs {length(s.back_leg_m)}"
        for s in (stands(rows.slant_m, table, table.seasons) if table.seasons else ())
    )
    told = "; ".join(changes)
    return f"{found}. Tilted with the seasons: {told}." if told else f"{found}."
