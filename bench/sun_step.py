"""The sun's speed: the sky over every module against exact polygons and against plain numpy."""

import resource
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
from shapely.geometry import MultiPoint, Polygon
from shapely.ops import unary_union

from jobs import FULL, SHELF, option_a, workspace_in
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.array.modules import MoveModules
from ridge_tally.core.job.edits.survey.surroundings import SetShadeField, ShadeField
from ridge_tally.core.job.ids import PlacedId, PlaneId
from ridge_tally.core.kernels.dome import warm
from ridge_tally.core.sun.occluders import Occluders, occluders_of
from ridge_tally.core.sun.shading import (
    FINE,
    QUICK,
    Glass,
    Resolution,
    cell_weights,
    glass_of,
    reach_at,
    sample_points_m,
    skies_over,
)
from ridge_tally.core.sun.shadows import Screen, before_screen, shadows_on, toward_sun
from ridge_tally.core.survey.site_frame import axes
from ridge_tally.editing.apply import apply_edit
from ridge_tally.editing.design import design_for
from ridge_tally.rules.array.checks import lay_of, placed_at
from ridge_tally.simulation.site_sky import site_sky
from ridge_tally.studies.sun.shade import shade_report
from ridge_tally.studies.sun.sun_day import sun_day
from ridge_tally.studies.sun.sun_paths import sun_paths

# Hours worked out by polygons, and points by numpy; the year and the array are so many times more.
SAMPLED_HOURS, SAMPLED_POINTS = 40, 12


def core(median_s: Callable[..., float]) -> None:
    """A year's shade on the sample's modules, and what each owner takes."""
    start = time.perf_counter()
    warm()
    print(f"kernels compiled or loaded: {time.perf_counter() - start:.2f} s")
    _against_others(median_s)
    _in_the_app(median_s)


def _against_others(median_s: Callable[..., float]) -> None:
    design = design_for(FULL, option_a(FULL))
    laid = design.arrays[0]
    plane, lay, places = laid.plane, lay_of(laid), placed_at(laid.array.modules)
    with tempfile.TemporaryDirectory() as folder:
        sky = site_sky(workspace_in(Path(folder)).desk, design)
    occluders, glass = occluders_of(FULL.survey), glass_of(plane, 0.0)
    hours, up = sky.hours, sky.hours.up
    azimuth, elevation = hours.sun.azimuth_deg[up], 90 - hours.sun.zenith_deg[up]
    weights = cell_weights(glass, QUICK.rows)
    points = np.array([sample_points_m(plane, lay, p, 3, QUICK) for p in places])
    flat = points.reshape(-1, 3)

    def look() -> None:
        for mine in points:
            words = skies_over(occluders, glass, mine.reshape(-1, 3), weights)
            reach_at(words, 3, azimuth, elevation, hours.month[up], sky.passes)

    ours_s = median_s(look)
    raster_s = median_s(lambda: skies_over(occluders, glass, flat, weights))
    numpy_s = median_s(lambda: numpy_skies(occluders, glass, flat[:SAMPLED_POINTS], weights > 0), 3)
    numpy_s *= len(flat) / SAMPLED_POINTS
    chosen = np.linspace(0, int(up.sum()) - 1, SAMPLED_HOURS).astype(int)
    screen = Screen(
        flat[0], np.cross(*axes(plane.azimuth_deg, plane.slope_deg)), (-1e6, -1e6, 1e6, 1e6), 0.3
    )
    strips = [MultiPoint(part[:, :2]).convex_hull.buffer(0.05) for mine in points for part in mine]

    def polygons() -> None:
        before = before_screen(screen, occluders)
        for i in chosen:
            found = shadows_on(before, toward_sun(azimuth[i], elevation[i]))
            dark = unary_union([Polygon(s.ring).buffer(0) for s in found])
            for strip in strips:
                strip.intersection(dark)

    polygons_s = median_s(polygons, 3) * up.sum() / SAMPLED_HOURS
    print(
        f"sky and look-up of {len(places)} modules, {len(flat)} points, 2°, hourly year: {ours_s:.3f} s; "
        f"exact polygons {polygons_s:.0f} s (from {SAMPLED_HOURS} hours): "
        f"{polygons_s / ours_s:.0f} times as long (floor 100, aim 250)"
    )
    print(
        f"the raster alone {raster_s:.3f} s; in plain numpy {numpy_s:.1f} s "
        f"(from {SAMPLED_POINTS} points): {numpy_s / raster_s:.0f} times as long (floor 30, aim 100)"
    )


def numpy_skies(
    occluders: Occluders, glass: Glass, points: np.ndarray, front: np.ndarray
) -> np.ndarray:
    """The same words by whole arrays: every cell of a point against every solid."""
    rows = front.shape[0]
    cell = np.pi / 2 / rows
    el = ((np.arange(rows) + 0.5) * cell)[:, None]
    az = ((np.arange(4 * rows) + 0.5) * cell)[None]
    ray = np.stack(
        [
            np.cos(el) * np.sin(az),
            np.cos(el) * np.cos(az),
            np.broadcast_to(np.sin(el), front.shape),
        ],
        axis=-1,
    )
    normal = np.cross(*axes(glass.azimuth_deg, glass.slope_deg))
    sky = np.zeros((len(points), *front.shape), np.uint64)
    for p, point in enumerate(points):
        for f, owner in enumerate(occluders.face_owners):
            ring = occluders.corners_m[occluders.starts[f] : occluders.starts[f + 1]] - point
            n = occluders.normals[f]
            if abs(n @ normal) > 0.9999 and abs(n @ ring[0]) < occluders.own_m[f]:
                continue
            with np.errstate(divide="ignore", invalid="ignore"):
                t = (n @ ring[0]) / (ray @ n)
                hit = ray * t[..., None]
            axes_kept = [k for k in range(3) if k != occluders.drops[f]]
            u, v = hit[..., axes_kept[0]], hit[..., axes_kept[1]]
            odd = np.zeros(front.shape, dtype=bool)
            flat = ring[:, axes_kept]
            for a, b in zip(flat, np.roll(flat, -1, axis=0), strict=True):
                if a[1] == b[1]:
                    continue
                crosses = (a[1] > v) != (b[1] > v)
                odd ^= crosses & (u < (b[0] - a[0]) * (v - a[1]) / (b[1] - a[1]) + a[0])
            sky[p][odd & (t > 1e-6) & front] |= np.uint64(1) << np.uint64(owner)
        for solid, owner in zip(occluders.rounds_m, occluders.round_owners, strict=True):
            # All as ellipsoids here: what each shape costs in numpy is alike.
            size = np.array([solid[4], solid[4], max((solid[3] - solid[2]) / 2, 1e-6)])
            away = (point - [solid[0], solid[1], (solid[2] + solid[3]) / 2]) / size
            bent = ray / size
            a, b = (bent**2).sum(axis=-1), bent @ away
            inner = b * b - a * (away @ away - 1)
            meets = (inner > 0) & (-b + np.sqrt(np.maximum(inner, 0)) > 0)
            sky[p][meets & front] |= np.uint64(1) << np.uint64(owner)
    return sky


def _in_the_app(median_s: Callable[..., float]) -> None:
    option = option_a(FULL)
    modules = sum(m.present for a in option.arrays for m in a.modules)
    moved = [
        apply_edit(FULL, MoveModules(option.id, (PlacedId("south-1"),), i * 1e-4, 0.0), SHELF)
        for i in range(1, 7)
    ]

    def shade(resolution: Resolution, turns: list[Job], *, known: bool) -> float:
        with tempfile.TemporaryDirectory() as folder:
            workspace = workspace_in(Path(folder))
            if known:
                shade_report(workspace.desk, design_for(FULL, option), resolution)
            jobs = iter(turns)

            def once() -> None:
                job = next(jobs)
                shade_report(workspace.desk, design_for(job, option_a(job)), resolution)

            return median_s(once, 5)

    # Another unit of the survey's months is another site: nothing is known of it yet.
    trimmed = [_with_tree_lower(i) for i in range(1, 7)]
    for resolution in (QUICK, FINE):
        whole_s = shade(resolution, trimmed, known=False)
        one_s = shade(resolution, moved, known=True)
        print(
            f"shade of {modules} modules, every owner told, {resolution.name}: {whole_s:.2f} s; "
            f"one module moved {one_s * 1000:.0f} ms, {whole_s / one_s:.0f} times faster "
            "(floor 10, aim 25)"
        )
    with tempfile.TemporaryDirectory() as folder:
        workspace = workspace_in(Path(folder))
        days = iter(range(6))
        sun_day(workspace.desk, design_for(FULL, option), 300)
        day_s = median_s(
            lambda: sun_day(workspace.desk, design_for(FULL, option), 20 * next(days)), 5
        )
        paths_s = median_s(
            lambda: sun_paths(workspace.desk, design_for(FULL, option), PlaneId("south")), 3
        )
    print(f"a day of shadows, 15 minutes a step: {day_s:.2f} s; sun paths and sky {paths_s:.2f} s")
    peak_mb = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"memory at its most so far: {peak_mb:.0f} MB (aim under 500 MB for a job)")


def _with_tree_lower(step: int) -> Job:
    tree = next(s for s in FULL.survey.shade_sources if s.name == "Cottonwood")
    return apply_edit(FULL, SetShadeField(tree.id, ShadeField.HEIGHT, f"{11 - step / 10} m"), SHELF)
