"""Tables tilted about their front posts with the seasons: how they stand, and on which days."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.lay import Lay
from ridge_tally.core.array.posts import hinge_m, legs, lift_m, overhang_m, posts_apart_m
from ridge_tally.core.array.tables import slant_of_m
from ridge_tally.core.job.array import GroundTable, PlaneArray, Position, table_of
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.survey import RoofPlane
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.core.survey.ground import rise_behind


@dataclass(frozen=True, slots=True)
class Stand:
    """A tilt of the year: from which day, its back legs, and how far they are lifted for it."""

    from_day: int
    tilt_deg: float
    back_leg_m: float
    lift_m: float
    lowest_m: float


def steepest_deg(positions: Sequence[Position]) -> float:
    """Return the steepest tilt of a year."""
    return max(p.tilt_deg for p in positions)


def flattest_deg(array: PlaneArray) -> float:
    """Return the flattest tilt an array is held at in a year."""
    return min(p.tilt_deg for p in positions_of(array))


def table_hinge_m(slant_m: float, table: GroundTable, positions: Sequence[Position]) -> float:
    """Return how high the front posts hold the glass so that it clears the ground at the steepest."""
    clear_m = table.clearance.value_m
    return hinge_m(slant_m, posts_apart_m(table, slant_m), clear_m, steepest_deg(positions))


def stands(slant_m: float, table: GroundTable, positions: Sequence[Position]) -> tuple[Stand, ...]:
    """Return the stands of a year for glass so long up the slope, in the order of the year."""
    apart, hinge = posts_apart_m(table, slant_m), table_hinge_m(slant_m, table, positions)
    found = []
    for number, position in enumerate(positions):
        at = legs(slant_m, apart, hinge, position.tilt_deg)
        grown = lift_m(apart, positions[number - 1].tilt_deg, position.tilt_deg)
        found.append(Stand(position.from_day, position.tilt_deg, at.back_m, grown, at.lowest_m))
    return tuple(found)


def positions_of(array: PlaneArray) -> tuple[Position, ...]:
    """Return the tilts of an array's year; one alone where it stays."""
    return (array.table and array.table.seasons) or (Position(0, array.leg_tilt_deg),)


def tilt_by_day(positions: Sequence[Position]) -> NDArray[np.float64]:
    """Return the (365,) tilts of a year; before its first change the last one's holds."""
    tilts = np.full(DAYS, positions[-1].tilt_deg)
    for position in positions:
        tilts[position.from_day :] = position.tilt_deg
    return tilts


def tilted(plane: RoofPlane, array: PlaneArray, lay: Lay, tilt_deg: float) -> PlaneArray:
    """Return a ground array held at another tilt: its posts and their front hinges stay.

    Parameters
    ----------
    lay : Lay
        Of the array as it is.

    Notes
    -----
    From t0 to t the lower edge moves back by o (cos t0 - cos t) and up by o (sin t0 - sin t), o
    the glass that reaches beyond the posts; over ground that rises behind, the way back takes
    off it.  The rows' pitch stays: where the gap comes out below 0, rows meet.
    """
    table = table_of(array)
    slant_m = slant_of_m(array, lay)
    over_m = overhang_m(slant_m, posts_apart_m(table, slant_m))
    was, is_ = math.radians(array.leg_tilt_deg), math.radians(tilt_deg)
    flatter = math.cos(was) - math.cos(is_)
    back_m = over_m * flatter
    rise = rise_behind(plane.ground, plane.azimuth_deg) if plane.ground else 0.0
    clear_m = table.clearance.value_m + over_m * (math.sin(was) - math.sin(is_)) - rise * back_m
    return replace(
        array,
        leg_tilt_deg=tilt_deg,
        gap_between_rows=_taped(array.gap_between_rows.value_m + slant_m * flatter),
        modules=tuple(
            replace(m, y_m=m.y_m + back_m - m.tier * lay.tier_m(m.orientation) * flatter)
            for m in array.modules
        ),
        table=replace(table, clearance=_taped(clear_m), seasons=()),
    )


def _taped(length_m: float) -> Taped:
    return Taped(length_m, f"{length_m:.3f} m")
