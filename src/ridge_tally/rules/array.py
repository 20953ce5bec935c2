"""Rules of the array: every module on the roof, every module in a string."""

from functools import lru_cache

import numpy as np

from ridge_tally.core.array.blockers import ground_of
from ridge_tally.core.array.fill import Footprint, fits
from ridge_tally.core.job.document import PlaneArray, module_footprint_m, plane_of, present_ids
from ridge_tally.core.job.edits import FillPlane, WishSeriesLength
from ridge_tally.core.job.ids import PlacedId
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.survey.outline import adjusted_outline, is_closed, what_would_close
from ridge_tally.core.working import Check, Fix, Given, LimitKind, Source, SourceStatus, check
from ridge_tally.rules.design import Design

GEOMETRY = Source("setbacks and clearances of this survey", "", SourceStatus.GEOMETRY)
PRACTICE = Source("every module is wired", "", SourceStatus.COMMON_PRACTICE)


def footprint_of(design: Design, array: PlaneArray) -> Footprint:
    """Return the module's footprint the way round this array lays it."""
    width_m, height_m = module_footprint_m(design.module, array.orientation)
    return Footprint(width_m, height_m, array.gap_in_row_m, array.gap_between_rows_m)


def misplaced(design: Design, array: PlaneArray) -> tuple[PlacedId, ...]:
    """Return the present modules that no longer keep every setback and clearance."""
    return _misplaced(plane_of(design.job, array.plane_id), array, footprint_of(design, array))


# Asked by the check, by the drawing, and by each option on an unchanged roof.
@lru_cache(maxsize=128)
def _misplaced(plane: RoofPlane, array: PlaneArray, footprint: Footprint) -> tuple[PlacedId, ...]:
    present = [m for m in array.modules if m.present]
    if not present:
        return ()
    places = np.array([(m.x_m, m.y_m) for m in present])
    kept = fits(ground_of(plane), footprint, places)
    return tuple(m.id for m, ok in zip(present, kept, strict=True) if not ok)


def array_checks(design: Design) -> tuple[Check, ...]:
    """Return the placing check of each array and the wiring check of the option."""
    checks = [_on_roof(design, array) for array in design.option.arrays if array.modules]
    if present_ids(design.option):
        checks.append(_strung(design))
    return tuple(checks)


def _on_roof(design: Design, array: PlaneArray) -> Check:
    plane = plane_of(design.job, array.plane_id)
    closed = is_closed(plane)
    off = float(len(misplaced(design, array))) if closed else None
    return check(
        rule_id="array.on-roof",
        title="Keeps its distances",
        subject=plane.name,
        kind=LimitKind.STOP,
        formula="n_off",
        givens=(Given("n_off", "modules too close to an edge or obstruction", off, "", "drawing"),),
        value=off,
        symbol="n_off",
        unit="modules",
        relation="<=",
        limit=Given("none", "allowed", 0.0, "modules", "setbacks of this survey"),
        source=GEOMETRY,
        graded=False,
        reason=""
        if closed
        else f"Not checked: {what_would_close(adjusted_outline(plane.outline))}",
        fixes=(Fix("Fill again", FillPlane(design.option.id, plane.id, array.orientation)),),
    )


def _strung(design: Design) -> Check:
    present = present_ids(design.option)
    strung = sum(len(s.module_ids) for s in design.option.strings)
    fixes: tuple[Fix, ...] = ()
    if design.option.series_wish is not None:
        fixes = (Fix("Let the planner choose", WishSeriesLength(design.option.id, None)),)
    return check(
        rule_id="array.strung",
        title="Modules not in a string",
        subject="array",
        kind=LimitKind.COSTS,
        formula="n - n_strung",
        givens=(
            Given("n", "modules", float(len(present)), "", "this design"),
            Given("n_strung", "modules in strings", float(strung), "", "this design"),
        ),
        value=float(len(present) - strung),
        symbol="n_left",
        unit="modules",
        relation="<=",
        limit=Given("none", "left out", 0.0, "modules", "common practice"),
        source=PRACTICE,
        graded=False,
        fixes=fixes,
    )
