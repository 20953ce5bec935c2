"""Beams and rails on the piles of ground tables."""

from dataclasses import replace

from ridge_tally.core.array.posts import overhang_m, posts_apart_m
from ridge_tally.core.array.tables import columns_of, tables_of
from ridge_tally.core.build.racking.rails import RailRun
from ridge_tally.core.job.array import table_of
from ridge_tally.core.job.racking import DesignLoads, PlaneRacking
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.mounting_sheet import MountingSheet
from ridge_tally.core.survey.outline import is_closed
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.array.ground import posts_of, rows_of
from ridge_tally.rules.build.racked import GroundFrame, RackedPlane, RackedRun
from ridge_tally.rules.build.span_limits import (
    bare_end_m,
    rail_overhang_m,
    span_limit_m,
    span_missing,
)


def racked_on_ground(
    laid: LaidArray, choice: PlaneRacking, sheet: MountingSheet, loads: DesignLoads
) -> RackedPlane:
    """Return beams on the piles of each table, a front and a back one, and the rails over them.

    Piles stand where the array has them, as far apart as is typed there: the sheet's span is the
    limit they are held to.  Beams carry the bays left free too.
    """
    plane, array = laid.plane, laid.array
    none = RackedPlane(laid, choice, sheet, False, (), (), (), 0, False, (), None)
    if plane.ground is None or not is_closed(plane):
        told = f"{plane.name}: piles stand in the ground, not on a roof."
        return replace(none, asked=(told,))
    rows, table, tables = rows_of(laid), table_of(array), tables_of(plane, array, lay_of(laid))
    posts = posts_of(plane, rows, table, tables)
    span = {edge: span_limit_m(sheet, choice, loads, at_edge=edge) for edge in (False, True)}
    missing = span_missing(plane, sheet, loads, span)
    limit = span[False]
    if missing or limit is None:
        return replace(none, asked=(missing,))
    overhang = rail_overhang_m(sheet, choice)
    runs = []
    for number, one in enumerate(tables, start=1):
        for back in (False, True):
            mine = [p for p in posts if p.table == number and p.back is back]
            run = RailRun(
                2 * (number - 1) + back,
                mine[0].y_m,
                one.left_m - overhang,
                one.right_m + overhang,
                tuple(m.id for m in one.modules),
            )
            xs = tuple(p.x_m for p in mine)
            bare = bare_end_m(sheet, choice, limit)
            runs.append(RackedRun(run, xs, (limit,) * (len(xs) - 1), (bare, bare)))
    apart = posts_apart_m(table, rows.slant_m)
    over = overhang_m(rows.slant_m, apart)
    columns = tuple(
        sum(m.present for m in modules)
        for one in tables
        for _, modules in columns_of(lay_of(laid), one.modules)
    )
    frame = GroundFrame(
        posts=posts,
        columns=columns,
        rail_m=rows.slant_m + 2 * overhang,
        beams_m=(over + overhang, over + apart + overhang),
        tilt_deg=rows.tilt_deg,
        slant_m=rows.slant_m,
        overhang_m=over,
    )
    return replace(
        none,
        supports_m=tuple(sorted({p.x_m for p in posts})),
        runs=tuple(runs),
        proven=True,
        ground=frame,
    )
