"""Shade on an option: what reaches each module, who takes how much, what trimming recovers."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.lay import Lay, Place
from ridge_tally.core.errors import MissingDatum, OutOfRange
from ridge_tally.core.job.array import PlacedModule, present_of
from ridge_tally.core.job.document import Job, Option, module_sheet_of, plane_of, present_ids
from ridge_tally.core.job.ids import PlacedId, PlaneId, ShadeId
from ridge_tally.core.job.survey import RoofPlane, Taped
from ridge_tally.core.sky.plane_irradiance import light_parts
from ridge_tally.core.sky.sun import SunPath, sun_path
from ridge_tally.core.sky.weather_year import WeatherYear, month_of
from ridge_tally.core.sun.occluders import Occluders, OwnerKind, occluders_of
from ridge_tally.core.sun.shading import (
    QUICK,
    Passing,
    Resolution,
    Taken,
    cell_weights,
    passes_of,
    sample_points_m,
    skies_over,
    taken,
)
from ridge_tally.core.survey.outline import require_closed
from ridge_tally.core.survey.shade import source_height_m
from ridge_tally.rules import tables
from ridge_tally.rules.array import lay_of, placed_at
from ridge_tally.services.evaluation import location_of, weather_of
from ridge_tally.services.rows import row_of, with_row
from ridge_tally.services.workspace import Workspace

FloatArray = NDArray[np.float64]
Places = tuple[Place, ...]
# Less than this in a year is not worth a line.
LEAST_KWH = 0.5


@dataclass(frozen=True, slots=True)
class ModuleShade:
    """A module's light in a year, kWh/m², and the share of it shade takes, by month as well."""

    module_id: PlacedId
    plane_id: PlaneId
    free_kwh_per_m2: float
    lost_frac: float
    monthly_lost_frac: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Culprit:
    """Somebody who stands in the light, and what the array would gain without them.

    ``alone_kwh``: what is gained when only they go.  ``only_kwh``: what they take if nobody
    else stood there.  Where the two differ, others stand behind them.
    """

    number: int
    name: str
    kind: OwnerKind
    shade_id: str
    alone_kwh: float
    only_kwh: float
    monthly_kwh: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class ShadeReport:
    """Light on the array's glass in a year, kWh, and what shade takes of it."""

    option_id: str
    resolution: str
    free_kwh: float
    lost_kwh: float
    lost_frac: float
    monthly_lost_kwh: tuple[float, ...]
    modules: tuple[ModuleShade, ...]
    culprits: tuple[Culprit, ...]
    told: str
    weather: str
    stand_in_weather: bool
    crowns: str


@dataclass(frozen=True, slots=True)
class Trimmed:
    """What an obstacle lowered by so much gives back in a year, kWh of light on the glass."""

    shade_id: str
    by_m: float
    to_m: float
    recovered_kwh: float
    recovered_frac: float


@dataclass(frozen=True, slots=True)
class _Year:
    """The hours of the weather year."""

    weather: WeatherYear
    sun: SunPath
    month: NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class _Lit:
    """A plane of the array: its modules, their free light by month, and what shade takes."""

    plane: RoofPlane
    modules: tuple[PlacedModule, ...]
    free_wh_per_m2: FloatArray
    taken: Taken


def shade_report(
    workspace: Workspace, job: Job, option: Option, resolution: Resolution = QUICK
) -> ShadeReport:
    """Return what shade takes from an option in a year.

    Raises
    ------
    MissingDatum
        If no module is placed, or a plane of the array does not close.
    """
    key = ("shade", resolution, *_content(job, option))
    return workspace.shades.get(key, lambda: _report(workspace, job, option, resolution))


def trimmed(
    workspace: Workspace, job: Job, option: Option, shade_id: ShadeId, by_m: float
) -> Trimmed:
    """Return what lowering a tree, house or pole gives back.

    Raises
    ------
    NotFound, MissingDatum, OutOfRange
        If there is no such obstacle, nobody knows its height, or it is not that high.
    """
    source = row_of(job.survey.shade_sources, shade_id, "tree, house or pole")
    height_m = source_height_m(source)
    if height_m is None:
        raise MissingDatum("height", source.name, "Type or sight it in the Survey step first.")
    if not 0 < by_m < height_m:
        raise OutOfRange(f"Trimmed off {source.name}, metres", by_m, f"above 0, below {height_m:g}")
    to_m = height_m - by_m
    lower = replace(source, height=Taped(to_m, f"{to_m:.2f} m"))
    survey = replace(job.survey, shade_sources=with_row(job.survey.shade_sources, lower))
    before = shade_report(workspace, job, option)
    after = shade_report(workspace, replace(job, survey=survey), option)
    recovered = before.lost_kwh - after.lost_kwh
    return Trimmed(shade_id, by_m, to_m, recovered, recovered / before.free_kwh)


def _content(job: Job, option: Option) -> tuple[object, ...]:
    """Return what the shade of an option depends on."""
    return job.site.climate_id, location_of(job.site), job.survey, option.arrays, option.module_id


def _report(workspace: Workspace, job: Job, option: Option, resolution: Resolution) -> ShadeReport:
    if not present_ids(option):
        raise MissingDatum("module", f"Option {option.name}", "Lay some in the Array step first.")
    occluders = occluders_of(job.survey)
    year = _year(workspace, job)
    passing = _passing()
    passes = passes_of(occluders, passing)
    lit = [
        _lit(job, option, plane, occluders, year, passes, resolution)
        for plane in _planes(job, option)
    ]
    module = module_sheet_of(job, option)
    area_m2 = module.long_m * module.short_m

    def on_array(part: Callable[[_Lit], FloatArray]) -> FloatArray:
        """Kilowatt-hours on the glass of all modules."""
        total = sum(part(one) * len(one.modules) for one in lit)
        return np.asarray(total) * area_m2 / 1000

    monthly_free = on_array(lambda one: one.free_wh_per_m2)
    lost = on_array(lambda one: one.taken.lost.mean(axis=0))
    alone, only = on_array(lambda one: one.taken.alone), on_array(lambda one: one.taken.only)
    culprits = [
        Culprit(
            number,
            owner.name,
            owner.kind,
            owner.shade_id,
            float(alone[number].sum()),
            float(only[number].sum()),
            tuple(alone[number].tolist()),
        )
        for number, owner in enumerate(occluders.owners)
        if only[number].sum() > LEAST_KWH
    ]
    culprits.sort(key=lambda c: -c.alone_kwh)
    modules = tuple(
        ModuleShade(
            placed.id,
            one.plane.id,
            float(one.free_wh_per_m2.sum()) / 1000,
            float(mine.sum() / one.free_wh_per_m2.sum()),
            tuple((mine / np.maximum(one.free_wh_per_m2, 1e-9)).tolist()),
        )
        for one in lit
        for placed, mine in zip(one.modules, one.taken.lost, strict=True)
    )
    free_kwh, lost_kwh = float(monthly_free.sum()), float(lost.sum())
    return ShadeReport(
        option_id=option.id,
        resolution=resolution.name,
        free_kwh=free_kwh,
        lost_kwh=lost_kwh,
        lost_frac=lost_kwh / free_kwh,
        monthly_lost_kwh=tuple(lost.tolist()),
        modules=modules,
        culprits=tuple(culprits),
        told=_told(culprits, lost_kwh, free_kwh),
        weather=year.weather.name,
        stand_in_weather=year.weather.stand_in,
        crowns=_crowns_told(passing),
    )


def _crowns_told(passing: Passing) -> str:
    source = tables.load("crown-passing").source
    return (
        f"{source.document}: {passing.in_leaf_frac * 100:g} % in leaf, "
        f"{passing.bare_frac * 100:g} % bare ({source.status.value.replace('-', ' ')})"
    )


def _passing() -> Passing:
    table = tables.load("crown-passing")
    return Passing(
        table.number("passes_frac", leaf="in-leaf"), table.number("passes_frac", leaf="bare")
    )


def _told(culprits: list[Culprit], lost_kwh: float, free_kwh: float) -> str:
    """Return the sentence for the homeowner."""
    if lost_kwh < 0.001 * free_kwh or not culprits:
        return "Nothing takes as much as a thousandth of this array's light."
    worst = culprits[0]
    together = lost_kwh / free_kwh * 100
    return (
        f"Shade takes {together:.1f} % of the light on this array in a year; without "
        f"{worst.name} alone it would be {(lost_kwh - worst.alone_kwh) / free_kwh * 100:.1f} %."
    )


def _planes(job: Job, option: Option) -> tuple[RoofPlane, ...]:
    used = [a.plane_id for a in option.arrays if present_of(a)]
    planes = tuple(plane_of(job, p) for p in used)
    for plane in planes:
        require_closed(plane)
    return planes


def _year(workspace: Workspace, job: Job) -> _Year:
    weather = weather_of(workspace, job)
    month = np.asarray(month_of(weather.time), dtype=np.int64)
    return _Year(weather, sun_path(weather.time, location_of(job.site)), month)


def _lit(
    job: Job,
    option: Option,
    plane: RoofPlane,
    occluders: Occluders,
    year: _Year,
    passes: FloatArray,
    resolution: Resolution,
) -> _Lit:
    array = next(a for a in option.arrays if a.plane_id == plane.id)
    modules = present_of(array)
    sheet = module_sheet_of(job, option)
    lay = lay_of(sheet, array, plane)
    free, shade = _on_places(
        plane, lay, placed_at(modules), sheet.bypass_diodes, occluders, year, passes, resolution
    )
    return _Lit(plane, modules, free, shade)


def place_losses(
    workspace: Workspace, job: Job, option: Option, plane: RoofPlane, lay: Lay, places: Places
) -> FloatArray:
    """Return (n,): the share of a year's light that shade takes at places on a plane."""
    occluders = occluders_of(job.survey)
    passes = passes_of(occluders, _passing())
    substrings = module_sheet_of(job, option).bypass_diodes
    free, shade = _on_places(
        plane, lay, places, substrings, occluders, _year(workspace, job), passes, QUICK
    )
    return np.asarray(shade.lost.sum(axis=1) / free.sum())


def _on_places(
    plane: RoofPlane,
    lay: Lay,
    places: Places,
    substrings: int,
    occluders: Occluders,
    year: _Year,
    passes: FloatArray,
    resolution: Resolution,
) -> tuple[FloatArray, Taken]:
    """Return the free light by month, Wh/m², and what shade takes of it at each place."""
    points = np.stack(
        [sample_points_m(plane, lay, place, substrings, resolution) for place in places]
    )
    weights = cell_weights(plane, resolution.rows)
    parts = light_parts(year.weather, year.sun, plane.slope_deg, plane.azimuth_deg)
    sky = skies_over(occluders, plane, points.reshape(-1, 3), weights)
    owners = len(occluders.owners)
    shade = taken(sky, len(places), year.sun, year.month, parts, weights, passes, owners)
    free = np.bincount(year.month, parts.poa_w_per_m2, minlength=12).astype(np.float64)
    return free, shade
