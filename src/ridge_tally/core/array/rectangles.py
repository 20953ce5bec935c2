"""So many modules as one rectangle: rows of as many, one above the other, all the same way round."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import product

import numpy as np

from ridge_tally.core.array.blockers import FloatArray, Gap
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.rows import ROUNDING_M, row_heights
from ridge_tally.core.array.search import Prepared, bands_at
from ridge_tally.core.array.worth import WorthMap
from ridge_tally.core.job.array import Orientation

# A rectangle is tried this far apart up the slope and along it.
STEP_M = 0.1


@dataclass(frozen=True, slots=True)
class Shape:
    """Rows of so many modules each."""

    orientation: Orientation
    rows: int
    columns: int

    @property
    def modules(self) -> int:
        """How many modules it has."""
        return self.rows * self.columns


@dataclass(frozen=True, slots=True)
class _Free:
    """Where rows one above the other are free: the lowest one's bottom, and from x to x."""

    bottom_m: float
    left_m: float
    right_m: float


def rectangle(roof: Prepared, shape: Shape, worth: WorthMap) -> tuple[Place, ...]:
    """Return where a rectangle of that shape is worth the most by the map; nowhere if none fits."""
    lay, way = roof.lay, shape.orientation
    down = np.arange(shape.rows) * _rise_m(lay, way)
    along = np.arange(shape.columns) * lay.pitch_m(way)
    long_m = along[-1] + lay.width_m(way)
    most, left_m, bottom_m = -np.inf, 0.0, 0.0
    for free in _free(roof, way, shape.rows):
        x_m = _tried(lay, free, long_m)
        if len(x_m) == 0:
            continue
        at_x = np.asarray(x_m[:, None, None] + along)
        at_y = np.asarray(free.bottom_m + down[:, None])
        total = worth.at(lay, way, at_x, at_y).sum(axis=(1, 2))
        i = int(total.argmax())
        if total[i] > most + 1e-9:
            most, left_m, bottom_m = float(total[i]), float(x_m[i]), free.bottom_m
    if most == -np.inf:
        return ()
    return tuple(
        Place(float(left_m + dx), float(bottom_m + dy), way) for dy, dx in product(down, along)
    )


def shapes_of(roof: Prepared, most: int) -> tuple[Shape, ...]:
    """Return every rectangle that fits, of up to so many modules."""
    lay, found = roof.lay, []
    for way in roof.rows:
        for rows in range(1, most + 1):
            longest_m = max((_length_m(lay, f) for f in _free(roof, way, rows)), default=0.0)
            fit = int((longest_m + lay.gap_in_row_m + ROUNDING_M) / lay.pitch_m(way))
            if fit == 0:
                break
            columns = range(lay.shortest_run, min(fit, most // rows) + 1)
            found += [Shape(way, rows, c) for c in columns]
    return tuple(found)


def _rise_m(lay: Lay, way: Orientation) -> float:
    return lay.height_m(way) + lay.gap_between_rows_m


def _free(roof: Prepared, way: Orientation, rows: int) -> Iterator[_Free]:
    lay = roof.lay
    rise_m = _rise_m(lay, way)
    height_m = lay.height_m(way) + (rows - 1) * rise_m
    bottoms = row_heights(roof.ground, height_m, STEP_M)
    bands = [bands_at(roof.ground, lay, way, bottoms + k * rise_m) for k in range(rows)]
    for i, bottom_m in enumerate(bottoms):
        free = bands[0].gaps(i)
        for band in bands[1:]:
            free = _common(free, band.gaps(i))
        yield from (_Free(float(bottom_m), left, right) for left, right in free)


def _common(one: list[Gap], other: list[Gap]) -> list[Gap]:
    both = [(max(a, c), min(b, d)) for (a, b), (c, d) in product(one, other)]
    return [(a, b) for a, b in both if b > a]


def _length_m(lay: Lay, free: _Free) -> float:
    """Return how long a row in it may be: about the axis where there is one."""
    if lay.axis_m is None:
        return free.right_m - free.left_m
    return 2 * min(lay.axis_m - free.left_m, free.right_m - lay.axis_m)


def _tried(lay: Lay, free: _Free, long_m: float) -> FloatArray:
    """Return left edges: the middle first, where even margins are worth as much as any."""
    if long_m > _length_m(lay, free) + ROUNDING_M:
        return np.array([])
    if lay.axis_m is not None:
        return np.array([lay.axis_m - long_m / 2])
    last_m = max(free.left_m, free.right_m - long_m)
    middle_m = (free.left_m + last_m) / 2
    steps = np.arange(0.0, last_m - middle_m, STEP_M)[1:]
    ends = [free.left_m, last_m]
    return np.concatenate([[middle_m], middle_m - steps, middle_m + steps, ends])
