"""Which N modules of a layout to keep: the most yearly value, kept together as wished.

An integer programme: a place is kept or not, N are kept, each pair of neighbours of which
one is kept and the other not is a cut.  Value less a price for each cut is made largest:

    max  sum v_i x_i - price * sum c_e     with  c_e >= x_i - x_j,  c_e >= x_j - x_i,  sum x_i = N

and where a run has at least r modules, x_i - x_left <= x_j for the r - 1 places right of i.
"""

from dataclasses import dataclass

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_array

from ridge_tally.core.array.blockers import FloatArray
from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.array.legal import boxes_of
from ridge_tally.core.errors import OutOfRange

TOUCHING_M = 0.005
# Branches looked at; a house's roof takes a few.
MOST_NODES = 2000


@dataclass(frozen=True, slots=True)
class Chosen:
    """The places kept, by index, the value they have together and the cuts beside them."""

    kept: tuple[int, ...]
    value: float
    cuts: int
    proven: bool


def choose(
    lay: Lay, places: tuple[Place, ...], value: FloatArray, modules: int, cut_price: float
) -> Chosen:
    """Return the best choice of so many modules.

    Parameters
    ----------
    value : (n,) float
        What each place is worth, such as kWh a year.
    modules : int
        How many to keep, 1 to n.
    cut_price : float
        What a broken neighbourhood costs, in the unit of ``value``; 0 or more.

    Raises
    ------
    OutOfRange
        If there are not so many places.
    """
    count = len(places)
    if not 1 <= modules <= count:
        raise OutOfRange("Modules wanted", modules, f"between 1 and {count}, the most that fit")
    beside, above = neighbours(lay, places)
    pairs = np.concatenate([beside, above]).reshape(-1, 2)
    edges = len(pairs)
    cost = np.concatenate([-value, np.full(edges, cut_price)])
    rows = [_sum_is(count, edges, modules), *_cut_rows(count, pairs)]
    if lay.shortest_run > 1:
        rows.append(_whole_runs(count, edges, beside, lay.shortest_run))
    bounds = Bounds(np.zeros(count + edges), np.ones(count + edges))
    whole = np.concatenate([np.ones(count), np.zeros(edges)])
    found = milp(
        cost,
        integrality=whole,
        bounds=bounds,
        constraints=rows,
        options={"node_limit": MOST_NODES},
    )
    if found.x is None:
        raise OutOfRange(
            "Modules wanted",
            modules,
            f"a number that leaves no run of fewer than {lay.shortest_run} in its row",
        )
    kept = found.x[:count] > 0.5
    cuts = int(np.sum(kept[pairs[:, 0]] != kept[pairs[:, 1]])) if edges else 0
    return Chosen(
        tuple(np.nonzero(kept)[0].tolist()), float(value[kept].sum()), cuts, found.status == 0
    )


def neighbours(lay: Lay, places: tuple[Place, ...]) -> tuple[np.ndarray, np.ndarray]:
    """Return the (k, 2) pairs that touch beside each other, and those that touch above."""
    boxes = boxes_of(lay, places)
    left, bottom, right, top = boxes.T
    shared_y = np.minimum(top[:, None], top[None]) - np.maximum(bottom[:, None], bottom[None])
    shared_x = np.minimum(right[:, None], right[None]) - np.maximum(left[:, None], left[None])
    gap_x = left[None] - right[:, None]
    gap_y = bottom[None] - top[:, None]
    beside = (np.abs(gap_x - lay.gap_in_row_m) < TOUCHING_M) & (shared_y > lay.short_m / 2)
    above = (np.abs(gap_y - lay.gap_between_rows_m) < TOUCHING_M) & (shared_x > lay.short_m / 2)
    return np.argwhere(beside), np.argwhere(above)


def _sum_is(count: int, edges: int, modules: int) -> LinearConstraint:
    ones = np.concatenate([np.ones(count), np.zeros(edges)])
    return LinearConstraint(ones[None], modules, modules)


def _cut_rows(count: int, pairs: np.ndarray) -> list[LinearConstraint]:
    if len(pairs) == 0:
        return []
    e = np.arange(len(pairs))
    rows, columns, entries = [], [], []
    for sign, offset in ((1.0, 0), (-1.0, len(pairs))):
        rows += [e + offset] * 3
        columns += [pairs[:, 0], pairs[:, 1], count + e]
        entries += [np.full(len(e), sign), np.full(len(e), -sign), np.full(len(e), -1.0)]
    shape = (2 * len(pairs), count + len(pairs))
    matrix = coo_array(
        (np.concatenate(entries), (np.concatenate(rows), np.concatenate(columns))), shape
    ).tocsr()
    return [LinearConstraint(matrix, -np.inf, 0.0)]


def _whole_runs(count: int, edges: int, beside: np.ndarray, shortest: int) -> LinearConstraint:
    """Return that where a run begins, the modules that make it long enough are kept, too."""
    right = {int(i): int(j) for i, j in beside}
    left = {j: i for i, j in right.items()}
    rows = []
    for first in range(count):
        at: int | None = first
        for _ in range(1, shortest):
            at = None if at is None else right.get(at)
            row = np.zeros(count + edges)
            row[first] = 1.0
            if first in left:
                row[left[first]] = -1.0
            if at is not None:
                row[at] -= 1.0
            rows.append(row)
            if at is None:
                break
    return LinearConstraint(np.array(rows), -np.inf, 0.0)
