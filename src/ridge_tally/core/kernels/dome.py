"""Compiled: which solids stand before each cell of the sky, seen from points on an array.

The sky over a point is an equal-angle grid, ``elevation x azimuth``, cell centres half a
cell in.  Each cell holds a 64-bit word with a bit for every owner whose solid the ray
through its centre meets, so that months, trimmed crowns and leave-one-out need no new rays.
The compiler's cache does not see changes in another file: ``make`` clears it when any changes.
"""

import math
from typing import Any

import numba
import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]

WordArray = NDArray[np.uint64]

compiled = numba.njit(cache=True, nogil=True)

EPS = 1e-9

CYLINDER, ELLIPSOID, CONE = 0, 1, 2


@compiled
def _fill_polygon(
    sky: Any,
    front: Any,
    turns: Any,
    heights: Any,
    px: float,
    py: float,
    pz: float,
    ring: Any,
    normal: Any,
    drop: int,
    bit: Any,
) -> None:
    """Mark the cells whose ray meets a flat polygon; ``drop`` is the axis it is projected along."""
    rows, columns = sky.shape
    cell = math.pi / 2 / rows
    count = ring.shape[0]
    # The window: azimuths the corners span, from the lowest corner to what no edge rises above.
    reach = 1e30
    inside = False
    top, low = -1e30, 1e30
    first = math.atan2(ring[0, 0] - px, ring[0, 1] - py)
    turned, least, most = 0.0, 0.0, 0.0
    last = first
    for i in range(count):
        ax, ay, az = ring[i, 0] - px, ring[i, 1] - py, ring[i, 2] - pz
        j = (i + 1) % count
        bx, by = ring[j, 0] - px, ring[j, 1] - py
        top = max(top, az)
        low = min(low, math.atan2(az, math.hypot(ax, ay)))
        dx, dy = bx - ax, by - ay
        long2 = dx * dx + dy * dy
        share = 0.0
        if long2 > 0:
            share = min(1.0, max(0.0, -(ax * dx + ay * dy) / long2))
        reach = min(reach, math.hypot(ax + share * dx, ay + share * dy))
        if (ay > 0) != (by > 0) and (bx - ax) * (-ay) / (by - ay) + ax > 0:
            inside = not inside
        step = math.atan2(bx, by) - last
        while step > math.pi:
            step -= 2 * math.pi
        while step < -math.pi:
            step += 2 * math.pi
        turned += step
        last += step
        least, most = min(least, turned), max(most, turned)
    if top <= 0:
        return
    if inside:
        reach = 0.0
    high = math.atan2(top, reach) if reach > 0 else math.pi / 2
    row_from = max(0, math.floor(low / cell - 0.5))
    row_to = min(rows - 1, math.ceil(high / cell))
    if inside or most - least >= 2 * math.pi - 1e-6:
        column_from, column_to = 0, columns - 1
    else:
        column_from = math.floor((first + least) / cell - 0.5)
        column_to = math.ceil((first + most) / cell)
    nx, ny, nz = normal[0], normal[1], normal[2]
    ahead = nx * (ring[0, 0] - px) + ny * (ring[0, 1] - py) + nz * (ring[0, 2] - pz)
    u, v = (1, 2) if drop == 0 else ((0, 2) if drop == 1 else (0, 1))
    for row in range(row_from, row_to + 1):
        level, up = heights[row, 0], heights[row, 1]
        for column in range(column_from, column_to + 1):
            c = column % columns
            if not front[row, c] or sky[row, c] & bit:
                continue
            dx, dy = level * turns[c, 0], level * turns[c, 1]
            facing = nx * dx + ny * dy + nz * up
            if abs(facing) < EPS:
                continue
            t = ahead / facing
            if t <= 1e-6:
                continue
            hit = (px + t * dx, py + t * dy, pz + t * up)
            hu, hv = hit[u], hit[v]
            odd = False
            for i in range(count):
                j = (i + 1) % count
                av, bv = ring[i, v], ring[j, v]
                if (av > hv) != (bv > hv):
                    au, bu = ring[i, u], ring[j, u]
                    if hu < (bu - au) * (hv - av) / (bv - av) + au:
                        odd = not odd
            if odd:
                sky[row, c] |= bit


@compiled
def _meets_cone(
    dx: float,
    dy: float,
    up: float,
    ox: float,
    oy: float,
    base: float,
    top: float,
    radius: float,
) -> bool:
    """Whether a ray from the origin meets an upright cone: apex at the top, widest at its base."""
    # x² + y² = k² (top − z)² about its axis, between base and top.
    k = radius / max(top - base, 1e-6)
    a = dx * dx + dy * dy - k * k * up * up
    b = -(dx * ox + dy * oy) + k * k * top * up
    c = ox * ox + oy * oy - k * k * top * top
    # From inside, every ray leaves through it.
    if base <= 0.0 <= top and c <= 0.0:
        return True
    inner = b * b - a * c
    if inner >= 0.0 and abs(a) > EPS:
        root = math.sqrt(inner)
        for sign in (-1.0, 1.0):
            t = (-b + sign * root) / a
            if t > 0.0 and base <= t * up <= top:
                return True
    # Its level base, seen from below.
    if abs(up) > EPS:
        t = base / up
        if t > 0.0 and (t * dx - ox) ** 2 + (t * dy - oy) ** 2 <= radius * radius:
            return True
    return False


@compiled
def _fill_round(
    sky: Any,
    front: Any,
    turns: Any,
    heights: Any,
    px: float,
    py: float,
    pz: float,
    solid: Any,
    shape: int,
    bit: Any,
) -> None:
    """Mark the cells whose ray meets an upright round solid: e, n, base, top, radius."""
    rows, columns = sky.shape
    cell = math.pi / 2 / rows
    ox, oy = solid[0] - px, solid[1] - py
    base, top, radius = solid[2] - pz, solid[3] - pz, solid[4]
    away = math.hypot(ox, oy)
    if top <= 0 or radius <= 0:
        return
    middle = math.atan2(ox, oy)
    if away > radius * 1.0001:
        half = math.asin(radius / away) + cell
        column_from = math.floor((middle - half) / cell)
        column_to = math.ceil((middle + half) / cell)
        row_to = min(rows - 1, math.ceil(math.atan2(top, away - radius) / cell))
    else:
        column_from, column_to, row_to = 0, columns - 1, rows - 1
    centre, tall = (base + top) / 2, max((top - base) / 2, 1e-6)
    for row in range(row_to + 1):
        level, up = heights[row, 0], heights[row, 1]
        for column in range(column_from, column_to + 1):
            c = column % columns
            if not front[row, c] or sky[row, c] & bit:
                continue
            dx, dy = level * turns[c, 0], level * turns[c, 1]
            if shape == ELLIPSOID:
                # Squeezed so that the ellipsoid is a unit ball.
                sx, sy, sz = dx / radius, dy / radius, up / tall
                qx, qy, qz = -ox / radius, -oy / radius, -centre / tall
                a = sx * sx + sy * sy + sz * sz
                b = sx * qx + sy * qy + sz * qz
                c2 = qx * qx + qy * qy + qz * qz - 1
                inner = b * b - a * c2
                if inner > 0 and (-b + math.sqrt(inner)) / a > 0:
                    sky[row, c] |= bit
            elif shape == CONE:
                if _meets_cone(dx, dy, up, ox, oy, base, top, radius):
                    sky[row, c] |= bit
            else:
                a = dx * dx + dy * dy
                b = -(dx * ox + dy * oy)
                inner = b * b - a * (away * away - radius * radius)
                if inner <= 0 or a < EPS:
                    continue
                root = math.sqrt(inner)
                near, far = (-b - root) / a, (-b + root) / a
                if far <= 0:
                    continue
                near = max(near, 0.0)
                if min(near, far) * up <= top and max(near, far) * up >= base:
                    sky[row, c] |= bit


@compiled
def _behind(ring: Any, px: float, py: float, pz: float, normal: Any) -> bool:
    """Whether a polygon lies behind the glass: no ray before it meets that."""
    for i in range(ring.shape[0]):
        ahead = (ring[i, 0] - px) * normal[0] + (ring[i, 1] - py) * normal[1]
        if ahead + (ring[i, 2] - pz) * normal[2] > 0.0:
            return False
    return True


@compiled
def skies(
    points: Any,
    corners: Any,
    starts: Any,
    normals: Any,
    drops: Any,
    face_owners: Any,
    own_m: Any,
    rounds: Any,
    shapes: Any,
    round_owners: Any,
    horizon_rad: Any,
    horizon_owner: int,
    plane_normal: Any,
    front: Any,
) -> Any:
    """Return the (n, rows, 4 rows) words of the sky over each of n points.

    Parameters
    ----------
    points : (n, 3) float
        East, north, up, metres.
    corners, starts, normals, drops, face_owners
        Polygons: all corners (k, 3), where each begins (f + 1,), unit normals (f, 3), the axis
        each is projected along (f,), and its owner's bit number (f,).
    own_m : (f,) float
        A face along the glass and nearer than this never stands in its light.
    rounds, shapes, round_owners
        Upright solids (r, 5): east, north, base, top, radius; each cylinder, ellipsoid or cone.
    horizon_rad : (4 rows,) float
        Elevation of the horizon at each column's azimuth; below 0 where there is none.
    plane_normal : (3,) float
        Of the glass the points lie on.
    front : (rows, 4 rows) bool
        The cells before the plane; others are left alone.
    """
    count, rows = points.shape[0], front.shape[0]
    sky = np.zeros((count, rows, 4 * rows), np.uint64)
    one = np.uint64(1)
    cell = math.pi / 2 / rows
    # Sines and cosines of the cells' middles, once for all points.
    turns, heights = np.empty((4 * rows, 2)), np.empty((rows, 2))
    for c in range(4 * rows):
        turns[c, 0], turns[c, 1] = math.sin((c + 0.5) * cell), math.cos((c + 0.5) * cell)
    for r in range(rows):
        heights[r, 0], heights[r, 1] = math.cos((r + 0.5) * cell), math.sin((r + 0.5) * cell)
    for p in range(count):
        px, py, pz = points[p, 0], points[p, 1], points[p, 2]
        for f in range(face_owners.shape[0]):
            ring = corners[starts[f] : starts[f + 1]]
            n = normals[f]
            along = n[0] * plane_normal[0] + n[1] * plane_normal[1] + n[2] * plane_normal[2]
            apart = n[0] * (px - ring[0, 0]) + n[1] * (py - ring[0, 1]) + n[2] * (pz - ring[0, 2])
            if abs(along) > 0.9999 and abs(apart) < own_m[f]:
                continue
            if _behind(ring, px, py, pz, plane_normal):
                continue
            bit = one << np.uint64(face_owners[f])
            _fill_polygon(
                sky[p], front, turns, heights, px, py, pz, ring, normals[f], drops[f], bit
            )
        for r in range(round_owners.shape[0]):
            bit = one << np.uint64(round_owners[r])
            _fill_round(sky[p], front, turns, heights, px, py, pz, rounds[r], shapes[r], bit)
        if horizon_owner >= 0:
            bit = one << np.uint64(horizon_owner)
            for c in range(4 * rows):
                for row in range(rows):
                    if (row + 0.5) * cell >= horizon_rad[c]:
                        break
                    sky[p, row, c] |= bit
    return sky


def warm() -> None:
    """Compile every kernel once, or load it from the cache."""
    front = np.ones((4, 16), dtype=bool)
    ring = np.array([[1.0, 5.0, 0.0], [2.0, 5.0, 0.0], [2.0, 5.0, 3.0]])
    skies(
        np.zeros((1, 3)), ring, np.array([0, 3]), np.array([[0.0, 1.0, 0.0]]), np.array([1]),
        np.array([0]), np.array([0.3]), np.array([[0.0, 9.0, 0.0, 3.0, 1.0]]), np.array([ELLIPSOID]), np.array([1]),
        np.zeros(16), 2, np.array([0.0, 0.0, 1.0]), front,
    )  # fmt: skip
