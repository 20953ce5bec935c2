"""How far apart long rows stand so that one leaves the next the sun; what nearer ones cost."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from pvlib import shading

from ridge_tally.core.sky.sun import SunPath

FloatArray = NDArray[np.float64]
# The shortest day, from nine to three by the sun: common practice, no source.
FROM_H, TO_H = 9.0, 15.0
TILT_OF_EARTH_DEG = 23.44
LEAST_GAP_M = 0.01


@dataclass(frozen=True, slots=True)
class Rows:
    """Long rows alike: glass ``slant_m`` up the slope, and the ground's rise for each metre behind."""

    tilt_deg: float
    facing_deg: float
    slant_m: float
    rise_behind: float = 0.0

    @property
    def height_m(self) -> float:
        """How much higher the upper edge is than the lower one."""
        return self.slant_m * math.sin(math.radians(self.tilt_deg))

    @property
    def depth_m(self) -> float:
        """What a row covers of the level."""
        return self.slant_m * math.cos(math.radians(self.tilt_deg))


def solstice_sun(latitude_deg: float, solar_h: float) -> tuple[float, float]:
    """Return elevation and true azimuth, degrees, on the shortest day at an hour of solar time."""
    southern = latitude_deg < 0
    declination = math.radians(TILT_OF_EARTH_DEG if southern else -TILT_OF_EARTH_DEG)
    latitude, hour = math.radians(latitude_deg), math.radians(15 * (solar_h - 12))
    up = math.sin(latitude) * math.sin(declination) + math.cos(latitude) * math.cos(
        declination
    ) * math.cos(hour)
    elevation = math.asin(up)
    east = -math.cos(declination) * math.sin(hour)
    north = math.cos(latitude) * math.sin(declination) - math.sin(latitude) * math.cos(
        declination
    ) * math.cos(hour)
    return math.degrees(elevation), math.degrees(math.atan2(east, north)) % 360


def gap_m(rows: Rows, elevation_deg: float, azimuth_deg: float) -> float:
    """Return the level gap between rows at which the front one's shadow just ends at the next.

    Notes
    -----
    D = H cos(A) / tan(el) on level ground, A from the rows' facing; where the ground rises by
    s for each metre behind, H is less by what the next row stands higher:
    D = k (H - s depth) / (1 + k s), k = cos(A) / tan(el).  0 where the sun stands behind the rows.
    """
    facing = math.cos(math.radians(azimuth_deg - rows.facing_deg))
    if facing <= 0 or elevation_deg <= 0:
        return 0.0
    k = facing / math.tan(math.radians(elevation_deg))
    below = 1 + k * rows.rise_behind
    if below <= 0:
        return math.inf
    return max(0.0, k * (rows.height_m - rows.rise_behind * rows.depth_m) / below)


def solstice_gap_m(rows: Rows, latitude_deg: float) -> float:
    """Return the gap that keeps rows free of each other from 9 to 15 h on the shortest day."""
    hours = np.linspace(FROM_H, TO_H, 25)
    return max(gap_m(rows, *solstice_sun(latitude_deg, float(h))) for h in hours)


def gap_at_m(rows: Rows, gap: float, tilt_deg: float) -> float:
    """Return the level gap of rows held at another tilt, their pitch staying; below 0 they meet."""
    return gap + rows.depth_m - replace(rows, tilt_deg=tilt_deg).depth_m


def shaded_frac(rows: Rows, gap: float, sun: SunPath) -> FloatArray:
    """Return (n,): the share of a row's height that the row before it shades.

    Rows that meet are taken as just apart.

    Notes
    -----
    Anderson and Jensen, Shaded fraction and backtracking (2024), in the reference library; on
    ground across the rows the cross-axis slope is the ground's.
    """
    axis_azimuth = (rows.facing_deg + 90) % 360
    # About an axis to the right of the facing, ground that rises behind turns the other way.
    cross = -math.degrees(math.atan(rows.rise_behind))
    found = shading.shaded_fraction1d(
        np.minimum(sun.zenith_deg, 89.9),
        sun.azimuth_deg,
        axis_azimuth=axis_azimuth,
        shaded_row_rotation=-rows.tilt_deg,
        collector_width=rows.slant_m,
        pitch=max(LEAST_GAP_M, gap) + rows.depth_m,
        axis_tilt=0.0,
        cross_axis_slope=cross,
    )
    return np.nan_to_num(np.asarray(found, dtype=np.float64))
