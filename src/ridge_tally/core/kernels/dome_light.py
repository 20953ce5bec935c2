"""Compiled: what of the beam and of the sky reaches points, owner by owner of what stands there.

A sky is the words of ``dome``: a bit for every owner whose solid stands before a cell.
"""

import math
from typing import Any

import numba
import numpy as np

compiled = numba.njit(cache=True, nogil=True)


@compiled
def _through(word: Any, passes: Any) -> float:
    """Return the share of light that passes all owners of a word."""
    share = 1.0
    j = 0
    while word:
        if word & np.uint64(1):
            share *= passes[j]
            if share == 0.0:
                return 0.0
        word >>= np.uint64(1)
        j += 1
    return share


@compiled
def beam_sums(
    sky: Any,
    group_of: Any,
    azimuth_rad: Any,
    elevation_rad: Any,
    month: Any,
    direct: Any,
    passes: Any,
    owners: int,
) -> Any:
    """Return the share of the beam that reaches each part, and what each owner takes by month.

    Parameters
    ----------
    sky : (n, rows, 4 rows) uint64
        Skies over points, part by part.
    group_of : (k,) int
        To which group of cells each of a part's k points belongs, from 0: cells of one group are
        in series, groups side by side.
    azimuth_rad, elevation_rad, month, direct : (m,)
        Where the sun is, the month (0 to 11), and the beam on the free plane, W/m².
    passes : (12, 64) float
        What each owner lets through, by month: 0 where it is solid.
    owners : int
        How many bits are used.

    Returns
    -------
    reach, least : (parts, m) float32
        On the mean of a part's points, and where the darkest point of each group rules it.
    alone, only : (owners, 12) float
        Over all points: what returns when an owner alone goes, and what it takes if it alone
        stands there.

    Notes
    -----
    Bilinear between the four cells around the sun, which also softens the cells' edges.
    """
    count, rows, columns = sky.shape
    cell = math.pi / 2 / rows
    per_part, groups = len(group_of), group_of.max() + 1
    reach = np.zeros((count // per_part, azimuth_rad.shape[0]), np.float32)
    # The darkest of each group so far, at every moment of the part in hand.
    darkest = np.ones((groups, azimuth_rad.shape[0]))
    least = np.zeros_like(reach)
    alone, only = np.zeros((owners, 12)), np.zeros((owners, 12))
    words, weights = np.zeros(4, np.uint64), np.zeros(4)
    one, none = np.uint64(1), np.uint64(0)
    for p in range(count):
        part, group = p // per_part, group_of[p % per_part]
        for m in range(azimuth_rad.shape[0]):
            x = azimuth_rad[m] / cell - 0.5
            y = min(max(elevation_rad[m] / cell - 0.5, 0.0), rows - 1.0)
            c, r = math.floor(x), math.floor(y)
            fx, fy = x - c, y - r
            c0, c1, r1 = c % columns, (c + 1) % columns, min(r + 1, rows - 1)
            words[0], words[1] = sky[p, r, c0], sky[p, r, c1]
            words[2], words[3] = sky[p, r1, c0], sky[p, r1, c1]
            union = words[0] | words[1] | words[2] | words[3]
            if union == none:
                reach[part, m] += 1.0 / per_part
                continue
            weights[0], weights[1] = (1 - fx) * (1 - fy), fx * (1 - fy)
            weights[2], weights[3] = (1 - fx) * fy, fx * fy
            mine = month[m]
            open_at = passes[mine]
            whole = 0.0
            for k in range(4):
                through = _through(words[k], open_at)
                whole += weights[k] * through
                if words[k] == none:
                    continue
                share = direct[m] * weights[k]
                for j in range(owners):
                    bit = one << np.uint64(j)
                    if words[k] & bit:
                        without = _through(words[k] & ~bit, open_at)
                        alone[j, mine] += share * (without - through)
                        only[j, mine] += share * (1 - open_at[j])
            reach[part, m] += whole / per_part
            darkest[group, m] = min(darkest[group, m], whole)
        if p % per_part == per_part - 1:
            for m in range(azimuth_rad.shape[0]):
                for g in range(groups):
                    least[part, m] += darkest[g, m] / groups
                    darkest[g, m] = 1.0
    return reach, least, alone, only


@compiled
def beam_through(
    sky: Any, per_part: int, azimuth_rad: Any, elevation_rad: Any, month: Any, passes: Any
) -> Any:
    """Return (parts, m): the share of the beam that reaches each part at each moment.

    Parameters as ``beam_sums``, which tells whose shade it is as well.
    """
    nothing = np.zeros(azimuth_rad.shape[0])
    one_group = np.zeros(per_part, np.int64)
    return beam_sums(sky, one_group, azimuth_rad, elevation_rad, month, nothing, passes, 0)[0]


@compiled
def sky_sums(sky: Any, per_part: int, weights: Any, passes: Any, owners: int) -> Any:
    """Return the share of the sky's light that shade takes, by season: of parts, and by owner.

    Parameters
    ----------
    weights : (rows, 4 rows) float
        Cosine of incidence times solid angle of each cell; 0 behind the plane.
    passes : (s, 64) float
        What each owner lets through, by season.

    Returns
    -------
    lost : (parts, s) float
    alone, only : (owners, s) float
        Over all points, as ``beam_sums``.
    """
    count, rows, columns = sky.shape
    seasons = passes.shape[0]
    whole = weights.sum()
    lost = np.zeros((count // per_part, seasons))
    alone, only = np.zeros((owners, seasons)), np.zeros((owners, seasons))
    one = np.uint64(1)
    for p in range(count):
        for r in range(rows):
            for c in range(columns):
                word = sky[p, r, c]
                if not word or weights[r, c] <= 0:
                    continue
                share = weights[r, c] / whole
                for season in range(seasons):
                    through = _through(word, passes[season])
                    lost[p // per_part, season] += share * (1 - through) / per_part
                    for j in range(owners):
                        bit = one << np.uint64(j)
                        if word & bit:
                            without = _through(word & ~bit, passes[season])
                            alone[j, season] += share * (without - through)
                            only[j, season] += share * (1 - passes[season, j])
    return lost, alone, only


def warm() -> None:
    """Compile every kernel once, or load it from the cache."""
    sky = np.zeros((1, 4, 16), dtype=np.uint64)
    passes, at = np.zeros((12, 64)), np.array([0.1])
    beam_through(sky, 1, at, at, np.array([0]), passes)
    beam_sums(sky, np.zeros(1, np.int64), at, at, np.array([0]), at, passes, 3)
    sky_sums(sky, 1, np.ones((4, 16)), passes, 3)
