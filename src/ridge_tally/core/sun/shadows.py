"""Shadows as outlines: every solid of the site thrown along the sun onto a flat face."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.kernels.dome import CONE, CYLINDER
from ridge_tally.core.sun.occluders import Occluders, OwnerKind

FloatArray = NDArray[np.float64]
AROUND = np.linspace(0.0, 2 * np.pi, 18, endpoint=False)
# Thrown from a sun lower than this a shadow has no end worth drawing.
LEAST_FACING = 0.02
NEAR_M = 1e-6


@dataclass(frozen=True, slots=True)
class Screen:
    """What shadows fall on: a point and the unit normal of its plane, and the box that matters.

    ``box_m`` is west, south, east, north; ``own_m`` how near a face along it belongs to it.
    """

    at: FloatArray
    normal: FloatArray
    box_m: tuple[float, float, float, float]
    own_m: float = 0.0


@dataclass(frozen=True, slots=True)
class Shadow:
    """An outline on the site plan, metres east and north; ``soft`` below a crown."""

    soft: bool
    ring: tuple[tuple[float, ...], ...]


def toward_sun(azimuth_deg: float, elevation_deg: float) -> FloatArray:
    """Return (3,): the unit step towards the sun, east, north, up."""
    a, e = np.radians(azimuth_deg), np.radians(elevation_deg)
    return np.array([np.cos(e) * np.sin(a), np.cos(e) * np.cos(a), np.sin(e)])


@dataclass(frozen=True, slots=True)
class Before:
    """What of the site's solids stands before a screen: cut there once, thrown for each sun."""

    screen: Screen
    points_m: FloatArray
    ahead_m: FloatArray
    starts: NDArray[np.int64]
    soft: tuple[bool, ...]
    rounds: tuple[tuple[FloatArray, int, bool], ...]


def before_screen(screen: Screen, occluders: Occluders) -> Before:
    """Return the faces before a screen, cut off at it, and the round solids that reach there."""
    rings, soft = [], []
    for f, owner in enumerate(occluders.face_owners):
        ring = occluders.corners_m[occluders.starts[f] : occluders.starts[f + 1]]
        ahead = (ring - screen.at) @ screen.normal
        along = abs(float(occluders.normals[f] @ screen.normal))
        if along > 0.9999 and abs(ahead).max() < screen.own_m:
            continue
        cut = _before(ring, ahead)
        if len(cut) > 2:
            rings.append(cut)
            soft.append(occluders.owners[owner].kind is OwnerKind.TREE)
    points = np.vstack(rings) if rings else np.zeros((0, 3))
    rounds = tuple(
        (
            solid,
            int(shape),
            occluders.owners[owner].kind is OwnerKind.TREE and shape != CYLINDER,
        )
        for solid, shape, owner in zip(
            occluders.rounds_m, occluders.shapes, occluders.round_owners, strict=True
        )
    )
    starts = np.cumsum([0, *(len(r) for r in rings)])[:-1].astype(np.int64)
    return Before(screen, points, (points - screen.at) @ screen.normal, starts, tuple(soft), rounds)


def shadows_on(before: Before, sun: FloatArray) -> tuple[Shadow, ...]:
    """Return the shadows on a screen, those that miss its box left out.

    Parameters
    ----------
    sun : (3,) float
        Towards the sun; on a screen turned away from it there is none to draw.
    """
    screen = before.screen
    facing = float(sun @ screen.normal)
    if facing < LEAST_FACING:
        return ()
    found = []
    if len(before.starts):
        flat = (before.points_m - np.outer(before.ahead_m / facing, sun))[:, :2]
        low = np.minimum.reduceat(flat, before.starts)
        high = np.maximum.reduceat(flat, before.starts)
        ends = [*before.starts[1:], len(flat)]
        found += [
            _shadow(flat[before.starts[f] : ends[f]], soft=before.soft[f])
            for f in np.nonzero(_overlaps(screen, low, high))[0]
        ]
    for solid, shape, soft in before.rounds:
        points = _before_lines(*_lines(solid, shape, sun), screen)
        if len(points) < 3:
            continue
        ahead = (points - screen.at) @ screen.normal
        flat = (points - np.outer(ahead / facing, sun))[:, :2]
        if not _overlaps(screen, flat.min(axis=0)[None], flat.max(axis=0)[None])[0]:
            continue
        found.append(_shadow(_hull(flat), soft=soft))
    return tuple(s for s in found if len(s.ring) > 2)


def _overlaps(screen: Screen, low: FloatArray, high: FloatArray) -> NDArray[np.bool_]:
    west, south, east, north = screen.box_m
    apart = (high[:, 0] < west) | (low[:, 0] > east) | (high[:, 1] < south) | (low[:, 1] > north)
    return np.asarray(~apart)


def _before(ring: FloatArray, ahead: FloatArray) -> FloatArray:
    """Return a ring cut off at the screen, what lies behind it gone."""
    if (ahead > NEAR_M).all():
        return ring
    kept = []
    for i in range(len(ring)):
        j = (i + 1) % len(ring)
        if ahead[i] > NEAR_M:
            kept.append(ring[i])
        if (ahead[i] > NEAR_M) != (ahead[j] > NEAR_M):
            kept.append(ring[i] + (ring[j] - ring[i]) * ahead[i] / (ahead[i] - ahead[j]))
    return np.array(kept).reshape(-1, 3)


def _before_lines(low: FloatArray, high: FloatArray, screen: Screen) -> FloatArray:
    """Return the ends of lines up a solid, those behind the screen moved up to it or gone."""
    from_m = (low - screen.at) @ screen.normal
    to_m = (high - screen.at) @ screen.normal
    seen = np.maximum(from_m, to_m) > 0
    low, high, from_m, to_m = low[seen], high[seen], from_m[seen], to_m[seen]
    run = np.where(from_m == to_m, 1.0, to_m - from_m)
    step = np.clip(-from_m / run, 0.0, 1.0)[:, None]
    cut = low + (high - low) * step
    ends = [np.where((m < 0)[:, None], cut, end) for m, end in ((from_m, low), (to_m, high))]
    return np.vstack(ends)


def _lines(solid: FloatArray, shape: int, sun: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return (k, 3) ends of lines on a round solid whose hull throws its shadow."""
    east, north, base, top, radius = solid
    circle = np.column_stack([np.cos(AROUND), np.sin(AROUND)]) * radius
    flat = np.array([east, north]) + circle
    foot = np.column_stack([flat, np.full(len(flat), base)])
    if shape == CYLINDER:
        return foot, np.column_stack([flat, np.full(len(flat), top)])
    if shape == CONE:
        return foot, np.tile([east, north, top], (len(flat), 1))
    # An ellipsoid, squeezed to a ball: its outline is the great circle square to the sun.
    size = np.array([radius, radius, max((top - base) / 2, NEAR_M)])
    axis = sun / size
    axis /= np.linalg.norm(axis)
    side = np.cross(axis, [0.0, 0.0, 1.0] if abs(axis[2]) < 0.9 else [1.0, 0.0, 0.0])
    side /= np.linalg.norm(side)
    ring = np.outer(np.cos(AROUND), side) + np.outer(np.sin(AROUND), np.cross(axis, side))
    outline = np.asarray(np.array([east, north, (base + top) / 2]) + ring * size)
    return outline, outline


def _hull(points: FloatArray) -> FloatArray:
    """Return the convex hull, anticlockwise (Andrew's monotone chain)."""
    ordered = sorted(map(tuple, np.round(points, 4).tolist()))
    if len(ordered) < 3:
        return np.zeros((0, 2))

    def half(run: list[tuple[float, ...]]) -> list[tuple[float, ...]]:
        kept: list[tuple[float, ...]] = []
        for p in run:
            while len(kept) > 1 and _turn(kept[-2], kept[-1], p) <= 0:
                kept.pop()
            kept.append(p)
        return kept[:-1]

    return np.array(half(ordered) + half(ordered[::-1]))


def _turn(a: tuple[float, ...], b: tuple[float, ...], c: tuple[float, ...]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _shadow(outline: FloatArray, *, soft: bool) -> Shadow:
    """Return an outline, anticlockwise: drawn as one shape, rings of two senses would cancel."""
    x, y = outline[:, 0], outline[:, 1]
    if float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y)) < 0:
        outline = outline[::-1]
    return Shadow(soft, tuple((x, y) for x, y in np.round(outline, 2).tolist()))
