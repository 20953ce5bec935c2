"""The sun's paths over a spot of the array, and what stands before the sky there."""

import math
from dataclasses import dataclass

import numpy as np

from ridge_tally.core.array.lay import Place
from ridge_tally.core.array.tables import raised
from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.array import Orientation, present_of
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.nominal_year import DAYS
from ridge_tally.core.sky.site import location_of
from ridge_tally.core.sun.day_path import DayPath, day_path
from ridge_tally.core.sun.occluders import OwnerKind
from ridge_tally.core.sun.shading import (
    FINE,
    cell_weights,
    glass_of,
    sample_points_m,
    skies_over,
)
from ridge_tally.core.survey.outline import corners_m, require_closed
from ridge_tally.rules.array.checks import lay_of
from ridge_tally.rules.design import Design
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.site_sky import site_sky

# Solstices and an equinox, and the months between: the 21st of each from December to June.
PATH_DAYS = (354, 20, 51, 79, 110, 140, 171)


@dataclass(frozen=True, slots=True)
class Blocked:
    """A strip of sky, one degree of bearing wide, that somebody stands before."""

    azimuth_deg: float
    from_deg: float
    to_deg: float
    name: str
    kind: OwnerKind


@dataclass(frozen=True, slots=True)
class SunPaths:
    """Paths of the days, the sky that is taken, and where it was looked at from."""

    spot: str
    plane_azimuth_deg: float
    plane_slope_deg: float
    days: tuple[DayPath, ...]
    own_day: DayPath | None
    blocked: tuple[Blocked, ...]
    utc_offset_h: float


def sun_paths(
    desk: Desk,
    design: Design,
    plane_id: PlaneId,
    module_id: PlacedId | None = None,
    day: int | None = None,
) -> SunPaths:
    """Return the sun's paths and the sky over a module, or over the middle of a plane.

    ``day`` of the year is drawn besides the usual ones.

    Raises
    ------
    MissingDatum
        If the plane does not close yet.
    OutOfRange
        If there is no such day.
    """
    if day is not None and not 0 <= day < DAYS:
        raise OutOfRange("Day of the year", day, f"between 0 and {DAYS - 1}")
    laid = design.on(plane_id)
    plane, array = laid.plane, laid.array
    require_closed(plane)
    lay = lay_of(laid)
    module = next((m for m in array.modules if m.id == module_id), None)
    place, spot = _middle(corners_m(plane)), f"middle of {plane.name}"
    if module is None and array.leg_tilt_deg > 0:
        # The middle of such a plane lies under its own tables or between them.
        module = min(
            present_of(array),
            key=lambda m: math.hypot(m.x_m - place.x_m, m.y_m - place.y_m),
            default=None,
        )
    if module is not None:
        (place,), spot = (
            raised(plane, array, lay, (module,)),
            f"module {array.modules.index(module) + 1}",
        )
    occluders = site_sky(desk, design).occluders
    point = sample_points_m(plane, lay, place, 1, FINE).reshape(-1, 3).mean(axis=0)[None]
    glass = glass_of(plane, lay.leg_tilt_deg)
    weights = cell_weights(glass, FINE.rows)
    sky = skies_over(occluders, glass, point, np.ones_like(weights))[0]
    location = location_of(design.job.site)
    return SunPaths(
        spot=spot,
        plane_azimuth_deg=glass.azimuth_deg,
        plane_slope_deg=glass.slope_deg,
        days=tuple(day_path(d, location) for d in PATH_DAYS),
        own_day=None if day is None else day_path(day, location),
        blocked=tuple(
            Blocked(*strip, occluders.owners[owner].name, occluders.owners[owner].kind)
            for strip, owner in _strips(sky)
        ),
        utc_offset_h=location.utc_offset_h,
    )


def _middle(corners: np.ndarray) -> Place:
    x_m, y_m = (corners.min(axis=0) + corners.max(axis=0)) / 2
    return Place(float(x_m), float(y_m), Orientation.PORTRAIT)


def _strips(sky: np.ndarray) -> list[tuple[tuple[float, float, float], int]]:
    """Return runs of cells of one owner, column by column: azimuth, from, to; and whose."""
    rows, columns = sky.shape
    cell = 90 / rows
    found = []
    for column in range(columns):
        owners = [_first_bit(int(word)) for word in sky[:, column]]
        start = 0
        for row in range(1, rows + 1):
            if row == rows or owners[row] != owners[start]:
                if owners[start] >= 0:
                    found.append((((column + 0.5) * cell, start * cell, row * cell), owners[start]))
                start = row
    return found


def _first_bit(word: int) -> int:
    """Return the number of the lowest bit, −1 for none."""
    return (word & -word).bit_length() - 1
