"""What hangs on rails, counted run by run: clamps, caps, lags, and spares by a stated rule."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

# Clamps, clips and lags of which one is lost or bent; common practice, no source.
SPARE_FRAC = 0.05


@dataclass(frozen=True, slots=True)
class Clamps:
    """Mid and end clamps of some rails."""

    mid: int
    end: int


def clamps_of(rows_on: Iterable[Sequence[int]], *, shared: bool) -> Clamps:
    """Return the clamps of some runs of rail.

    Parameters
    ----------
    rows_on : iterable of sequence of int
        For each run, how many modules of each row it holds: one row, or two on a shared rail.
    shared : bool
        Whether clamps hold modules by the edges a rail runs along: each module has one of its own
        on an outer rail, each pair over a shared rail two between them.

    Returns
    -------
    Clamps
        A run under n modules of one row has n - 1 mid clamps and 2 end clamps.

    Notes
    -----
    Shared rails, c columns and R rows: R + 1 rails, 4 c end clamps, 2 c (R - 1) mid clamps.
    Source: common practice, no source; counted out.
    """
    mid = end = 0
    for rows in rows_on:
        if not rows:
            continue
        if not shared:
            mid += max(sum(rows) - 1, 0)
            end += 2
        elif len(rows) == 1:
            end += 2 * rows[0]
        else:
            pairs = min(rows)
            mid += 2 * pairs
            end += 2 * (max(rows) - pairs)
    return Clamps(mid, end)


def spares_of(count: int) -> int:
    """Return how many more are taken along: 5 %, at least one; none of nothing."""
    return 0 if count == 0 else max(1, math.ceil(count * SPARE_FRAC - 1e-9))
