"""Rows of ground tables spaced for the shortest day."""

import math
from dataclasses import replace

from ridge_tally.core.job.array import (
    PlaneArray,
)
from ridge_tally.core.job.places import Taped
from ridge_tally.core.job.system import LaidArray
from ridge_tally.core.sun.row_spacing import solstice_gap_m
from ridge_tally.rules.array.ground import rows_of
from ridge_tally.rules.option_document import WIDEST_GAP_M


def spaced(laid: LaidArray, latitude_deg: float) -> PlaneArray:
    """Return an array with its rows as far apart as the shortest day's sun from 9 to 15 h asks."""
    level_m = solstice_gap_m(rows_of(laid), latitude_deg)
    # On a roof that slopes the gap lies along it.
    gap_m = level_m / math.cos(math.radians(laid.plane.slope_deg))
    return replace(laid.array, gap_between_rows=level_gap(min(gap_m, WIDEST_GAP_M)))


def level_gap(gap_m: float) -> Taped:
    """Return a gap up to the next centimetre."""
    up = -(-round(gap_m * 1000) // 10) / 100
    return Taped(up, f"{up:.2f} m")
