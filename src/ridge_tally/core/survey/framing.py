"""Where seams, ribs, rafters and purlins lie on a plane, as its readings say."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.survey import Covering, RoofPlane, Structure

FloatArray = NDArray[np.float64]
# More lines than that are no roof of a house: a drawing stays readable.
MOST_LINES = 400
# What is left of a sheet narrower than this share of a rib's step holds no rib: it is the lap.
LAP_OF_STEP = 0.5


@dataclass(frozen=True, slots=True)
class FramingLines:
    """Lines of a plane, metres: ribs or seams and rafters by x, purlins by y; empty where unread.

    ``unusable_x_m``: rafters found that no mount may stand on.  ``laps_x_m``: where one sheet of ``cover_width`` ends and the next begins.
    """

    ribs_x_m: tuple[float, ...] = ()
    rafters_x_m: tuple[float, ...] = ()
    unusable_x_m: tuple[float, ...] = ()
    purlins_y_m: tuple[float, ...] = ()
    laps_x_m: tuple[float, ...] = ()


def framing_lines(plane: RoofPlane, corners_m: FloatArray) -> FramingLines:
    """Return the lines under a plane.

    Parameters
    ----------
    corners_m : FloatArray
        (n, 2) corners on the plane, x along the eave, y up the slope.
    """
    structure, (right, top) = plane.structure, corners_m.max(axis=0)
    laps: tuple[float, ...] = ()
    if structure.covering is Covering.RIBBED_METAL and structure.cover_width:
        laps = _steps(structure.first_rib or NOTHING, structure.cover_width, right)
    return FramingLines(
        _ribs(structure, laps, float(right)),
        _rafters(structure, right, usable=True),
        _rafters(structure, right, usable=False),
        _steps(structure.first_purlin, structure.purlin_spacing, top),
        laps,
    )


NOTHING = Taped(0.0, "0")


def _steps(first: Taped | None, spacing: Taped | None, end_m: float) -> tuple[float, ...]:
    """Return lines from the first on, a spacing apart, as far as the plane goes."""
    if first is None or spacing is None or spacing.value_m <= 0:
        return ()
    count = math.floor((end_m - first.value_m) / spacing.value_m + 1e-6) + 1
    return tuple(
        round(first.value_m + i * spacing.value_m, 4) for i in range(min(max(count, 0), MOST_LINES))
    )


def _rafters(structure: Structure, right_m: float, *, usable: bool) -> tuple[float, ...]:
    """Return rafters that were found, else those an even spacing leads to expect."""
    if structure.found_rafters:
        mine = (f.at.value_m for f in structure.found_rafters if f.usable is usable)
        return tuple(round(x, 4) for x in mine)
    if not usable:
        return ()
    return _steps(structure.first_rafter, structure.rafter_spacing, right_m)


def _ribs(structure: Structure, laps: tuple[float, ...], right_m: float) -> tuple[float, ...]:
    """Return seams, or ribs counted anew on each sheet where its cover width was read."""
    first = structure.first_rib or NOTHING
    if structure.covering is not Covering.RIBBED_METAL and structure.seam_spacing:
        return _steps(first, structure.seam_spacing, right_m)
    step = structure.rib_spacing or structure.seam_spacing
    if step is None or not laps or structure.cover_width is None:
        return _steps(first, step, right_m)
    cover = structure.cover_width.value_m
    on_sheet = max(1, math.ceil(cover / step.value_m - LAP_OF_STEP))
    every = (lap + i * step.value_m for lap in laps for i in range(on_sheet))
    return tuple(round(x, 4) for x in every if x <= right_m + 1e-6)[:MOST_LINES]
