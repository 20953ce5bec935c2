"""Shade on an option: what reaches each module, who takes how much, what trimming recovers."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.array.lay import Place
from ridge_tally.core.equipment import module_area_m2
from ridge_tally.core.errors import MissingDatum, NotFound, OutOfRange
from ridge_tally.core.job.array import PlacedModule, present_of
from ridge_tally.core.job.document import taking_part
from ridge_tally.core.job.ids import PlacedId, PlaneId, ShadeId
from ridge_tally.core.job.places import SitePoint
from ridge_tally.core.sun.occluders import Occluders, OwnerKind
from ridge_tally.core.sun.shading import (
    QUICK,
    ModuleLight,
    Passing,
    Resolution,
    glass_corners_m,
    sum_of,
)
from ridge_tally.core.survey.polygon import encloses
from ridge_tally.core.survey.shade import lowered, source_at, source_height_m
from ridge_tally.editing.design import design_for
from ridge_tally.editing.rows import row_of, with_row
from ridge_tally.rules import tables
from ridge_tally.rules.array.checks import lay_of, placed_at
from ridge_tally.rules.design import Design
from ridge_tally.simulation.array_light import ArrayLight, array_lights, require_modules
from ridge_tally.simulation.desk import Desk
from ridge_tally.simulation.scenario import Scenario
from ridge_tally.simulation.site_sky import SiteSky, site_sky
from ridge_tally.simulation.weather import weather_key
from ridge_tally.simulation.year import hourly_year, require_year

FloatArray = NDArray[np.float64]
Places = tuple[Place, ...]
# Less than this in a year is not worth a line.
LEAST_KWH = 0.5
# Hours of a month with less light than this tell nothing.
LEAST_KWH_PER_M2 = 0.05


@dataclass(frozen=True, slots=True)
class ModuleShade:
    """A module's light in a year, kWh/m², and the share of it shade takes, by month as well."""

    module_id: PlacedId
    plane_id: PlaneId
    free_kwh_per_m2: float
    lost_frac: float
    monthly_lost_frac: tuple[float, ...]
    monthly_free_kwh_per_m2: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Culprit:
    """Somebody who stands in the light, and what the array would gain without them.

    ``alone_kwh``: what is gained when only they go, ``module_kwh`` the same by module.
    ``at`` is their middle on the site; ``None`` for the horizon.
    ``only_kwh``: what they take if nobody else stood there.  Where the two differ, others
    stand behind them.
    """

    number: int
    name: str
    kind: OwnerKind
    shade_id: str
    alone_kwh: float
    only_kwh: float
    monthly_kwh: tuple[float, ...]
    module_kwh: tuple[float, ...]
    at: SitePoint | None


@dataclass(frozen=True, slots=True)
class ShadeReport:
    """Light on the array's glass in a year, kWh, and what shade takes of it.

    ``shared_kwh`` is what two or more take together, so that none alone gives it back.
    ``left_kwh`` reaches the front after shade; dirt and snow take their months' from it, and
    ``monthly_rear_kwh`` is what the back adds, as much as the front would make of it.
    """

    option_id: str
    resolution: str
    free_kwh: float
    lost_kwh: float
    lost_frac: float
    monthly_free_kwh: tuple[float, ...]
    monthly_lost_kwh: tuple[float, ...]
    shared_kwh: float
    modules: tuple[ModuleShade, ...]
    culprits: tuple[Culprit, ...]
    told: str
    left_kwh: float
    monthly_snow_kwh: tuple[float, ...]
    monthly_soiling_kwh: tuple[float, ...]
    monthly_rear_kwh: tuple[float, ...]
    rear_told: str
    weather: str
    stand_in_weather: bool
    crowns: str
    standing_in: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Trimmed:
    """What an obstacle lowered by so much gives back in a year, kWh of light on the glass.

    ``meter_kwh`` is what comes of it at the meter; ``None`` while no module is in a string.
    """

    shade_id: str
    by_m: float
    to_m: float
    recovered_kwh: float
    recovered_frac: float
    meter_kwh: float | None


@dataclass(frozen=True, slots=True)
class AtMeter:
    """What an owner of shade costs at the meter in a year, kWh, with what stands behind it."""

    number: int
    kwh: float


def shade_report(desk: Desk, design: Design, resolution: Resolution = QUICK) -> ShadeReport:
    """Return what shade takes from an option in a year.

    Raises
    ------
    MissingDatum
        If no module is placed, or a plane of the array does not close.
    """
    key = ("shade", resolution, *_content(design))
    return desk.shades.get(key, lambda: _report(desk, design, resolution))


def trimmed(desk: Desk, design: Design, shade_id: ShadeId, by_m: float) -> Trimmed:
    """Return what lowering a tree, house or pole gives back.

    Raises
    ------
    NotFound, MissingDatum, OutOfRange
        If there is no such obstacle, nobody knows its height, or it is not that high.
    """
    source = row_of(design.job.survey.shade_sources, shade_id, "tree, house or pole")
    height_m = source_height_m(source)
    if height_m is None:
        raise MissingDatum("height", source.name, "Type or sight it in the Survey step first.")
    if not 0 < by_m < height_m:
        raise OutOfRange(f"Trimmed off {source.name}, metres", by_m, f"above 0, below {height_m:g}")
    to_m = height_m - by_m
    lower = lowered(source, to_m)
    survey = replace(
        design.job.survey, shade_sources=with_row(design.job.survey.shade_sources, lower)
    )
    cut = replace(design.job, survey=survey)
    before = shade_report(desk, design)
    after = shade_report(desk, design_for(cut, design.option))
    recovered = before.lost_kwh - after.lost_kwh
    meter = None
    if taking_part(design.option):
        meter = hourly_year(desk, design_for(cut, design.option)).energy_kwh
        meter -= hourly_year(desk, design).energy_kwh
    return Trimmed(shade_id, by_m, to_m, recovered, recovered / before.free_kwh, meter)


def at_meter(desk: Desk, design: Design, number: int) -> AtMeter:
    """Return what an owner of shade costs at the meter: the year without it, less the year.

    Raises
    ------
    MissingDatum
        While no module is in a string.
    NotFound
        If no owner has that number.
    """
    require_year(design)
    if not 0 <= number < site_sky(desk, design).owners:
        raise NotFound("owner of shade", str(number))
    with_it = hourly_year(desk, design)
    return AtMeter(
        number,
        hourly_year(desk, design, Scenario(without=number)).energy_kwh - with_it.energy_kwh,
    )


def _content(design: Design) -> tuple[object, ...]:
    """Return what the shade of an option depends on."""
    return weather_key(design.job), design.job.survey, design.option.arrays, design.array_sheets


def _kwh_per_wh_m2(one: ArrayLight) -> float:
    """Return kWh on the glass of a module of an array for each Wh/m²."""
    return module_area_m2(one.laid.module) / 1000


@dataclass(frozen=True, slots=True)
class _OnGlass:
    """Arrays with their light; sums over all modules in kilowatt-hours on the glass."""

    sky: SiteSky
    arrays: tuple[ArrayLight, ...]

    def kwh(self, part: Callable[[ArrayLight], FloatArray]) -> FloatArray:
        return np.asarray(sum(part(one) * _kwh_per_wh_m2(one) for one in self.arrays))

    def free(self) -> FloatArray:
        return self.kwh(lambda one: one.on_free.free_wh_per_m2 * len(one.modules))

    def lost(self) -> FloatArray:
        return self.kwh(lambda one: sum_of(x.lost for x in one.lights).sum(axis=1))

    def alone(self) -> FloatArray:
        return self.kwh(lambda one: sum_of(x.alone for x in one.lights))

    def snow(self) -> FloatArray:
        return self.kwh(lambda one: _left(one) * one.snow_frac)

    def soiling(self) -> FloatArray:
        return self.kwh(lambda one: _left(one) * (1 - one.snow_frac) * one.soiling_frac)

    def rear(self) -> FloatArray:
        month = self.sky.hours.month
        return self.kwh(
            lambda one: (
                len(one.modules)
                * np.bincount(month, one.rear_w_per_m2, minlength=12).astype(np.float64)
            )
        )

    def culprits(self) -> tuple[Culprit, ...]:
        """Who takes light worth a word, the worst first."""
        alone, only = self.alone(), self.kwh(lambda one: sum_of(x.only for x in one.lights))
        of_modules = np.array(
            [x.alone.sum(axis=1) * _kwh_per_wh_m2(one) for one in self.arrays for x in one.lights]
        )
        found = [
            Culprit(
                number,
                owner.name,
                owner.kind,
                owner.shade_id,
                float(alone[number].sum()),
                float(only[number].sum()),
                tuple(alone[number].tolist()),
                tuple(of_modules[:, number].tolist()),
                _middle_of(self.sky.occluders, number),
            )
            for number, owner in enumerate(self.sky.occluders.owners)
            if only[number].sum() > LEAST_KWH
        ]
        return tuple(sorted(found, key=lambda c: -c.alone_kwh))


def _report(desk: Desk, design: Design, resolution: Resolution) -> ShadeReport:
    require_modules(design.option)
    sky, arrays = array_lights(desk, design, resolution)
    glass = _OnGlass(sky, arrays)
    monthly_free, lost, culprits = glass.free(), glass.lost(), glass.culprits()
    free_kwh, lost_kwh = float(monthly_free.sum()), float(lost.sum())
    return ShadeReport(
        option_id=design.option.id,
        resolution=resolution.name,
        free_kwh=free_kwh,
        lost_kwh=lost_kwh,
        lost_frac=lost_kwh / free_kwh,
        monthly_free_kwh=tuple(monthly_free.tolist()),
        monthly_lost_kwh=tuple(lost.tolist()),
        shared_kwh=max(0.0, lost_kwh - sum(float(a.sum()) for a in glass.alone())),
        modules=tuple(
            _module(one, placed, light)
            for one in arrays
            for placed, light in zip(one.modules, one.lights, strict=True)
        ),
        culprits=culprits,
        told=_told(culprits, lost_kwh, free_kwh),
        left_kwh=float(glass.kwh(_left).sum()),
        monthly_snow_kwh=tuple(glass.snow().tolist()),
        monthly_soiling_kwh=tuple(glass.soiling().tolist()),
        monthly_rear_kwh=tuple(glass.rear().tolist()),
        rear_told="; ".join(dict.fromkeys(one.rear_told for one in arrays)),
        weather=sky.weather.name,
        stand_in_weather=sky.weather.stand_in,
        crowns=_crowns_told(sky.passing),
        standing_in=standing_in_array(design),
    )


def _left(one: ArrayLight) -> FloatArray:
    """Return (12,): what shade leaves on all modules of an array, Wh/m²."""
    lost = sum_of(x.lost for x in one.lights).sum(axis=1)
    return np.asarray(one.on_free.free_wh_per_m2 * len(one.modules) - lost)


def _module(one: ArrayLight, placed: PlacedModule, light: ModuleLight) -> ModuleShade:
    free, lost = one.on_free.free_wh_per_m2, light.lost.sum(axis=1)
    return ModuleShade(
        placed.id,
        one.laid.plane.id,
        float(free.sum()) / 1000,
        float(lost.sum() / free.sum()),
        tuple((lost / np.maximum(free, 1e-9)).tolist()),
        tuple((free / 1000).tolist()),
    )


def _middle_of(occluders: Occluders, number: int) -> SitePoint | None:
    """Return the middle of an owner's solids from above."""
    of_corner = np.repeat(occluders.face_owners, np.diff(occluders.starts))
    points = np.vstack(
        [
            occluders.corners_m[of_corner == number, :2],
            occluders.rounds_m[occluders.round_owners == number, :2],
        ]
    )
    if len(points) == 0:
        return None
    east_m, north_m = (points.min(axis=0) + points.max(axis=0)) / 2
    return SitePoint(float(east_m), float(north_m))


def standing_in_array(design: Design) -> tuple[str, ...]:
    """Return a sentence for each tree, pole or house whose foot stands inside an array's ground."""
    found = []
    for laid in design.arrays:
        plane, present = laid.plane, present_of(laid.array)
        if not present:
            continue
        lay = lay_of(laid)
        corners = np.array([glass_corners_m(plane, lay, p)[:, :2] for p in placed_at(present)])
        low, high = corners.min(axis=(0, 1)), corners.max(axis=(0, 1))
        for source in design.job.survey.shade_sources:
            at = np.array([source_at(source).east_m, source_at(source).north_m])
            if (at < low).any() or (at > high).any():
                continue
            hit = sum(bool(encloses(ring, at[:1], at[1:])[0]) for ring in corners)
            if hit:
                found.append(
                    f"{source.name} stands inside the array on {plane.name}: what it takes from "
                    f"{hit} module{'s' if hit > 1 else ''} there means nothing. Move it, or take "
                    "the modules off."
                )
    return tuple(found)


def _crowns_told(passing: Passing) -> str:
    source = tables.load("crown-passing").source
    return (
        f"Crowns let through {passing.in_leaf_frac * 100:g} % in leaf, "
        f"{passing.bare_frac * 100:g} % bare ({source.status.value.replace('-', ' ')})"
    )


def _told(culprits: Sequence[Culprit], lost_kwh: float, free_kwh: float) -> str:
    """Return the sentence for the homeowner."""
    if lost_kwh < 0.001 * free_kwh or not culprits:
        return "Nothing takes as much as a thousandth of this array's light."
    worst = culprits[0]
    together = lost_kwh / free_kwh * 100
    return (
        f"Shade takes {together:.1f} % of the light on this array in a year; without "
        f"{worst.name} alone it would be {(lost_kwh - worst.alone_kwh) / free_kwh * 100:.1f} %."
    )


@dataclass(frozen=True, slots=True)
class ShadeHours:
    """Month by hour, (12, 24): the free light, kWh/m², and the share of it shade takes.

    ``None`` where there is no light.
    """

    module_id: str
    free_kwh_per_m2: tuple[tuple[float, ...], ...]
    lost_frac: tuple[tuple[float | None, ...], ...]


def shade_hours(desk: Desk, design: Design, module_id: PlacedId | None = None) -> ShadeHours:
    """Return what shade takes by month and hour of standard time, of a module or of the array.

    Raises
    ------
    MissingDatum
        If no module is laid.
    NotFound
        If the module is not there.
    """
    require_modules(design.option)
    sky, arrays = array_lights(desk, design)
    slot = sky.hours.month * 24 + sky.hours.hour
    free, lost, modules = np.zeros(288), np.zeros(288), 0
    for one in arrays:
        lights = [
            light
            for placed, light in zip(one.modules, one.lights, strict=True)
            if module_id in (None, placed.id)
        ]
        modules += len(lights)
        if lights:
            poa = np.bincount(slot, one.on_free.parts.poa_w_per_m2, minlength=288)
            free += poa * len(lights)
            lost += sum_of(x.lost for x in lights).ravel()
    if modules == 0:
        raise NotFound("module", str(module_id))
    light = free / modules / 1000
    share = np.divide(lost, free, out=np.full(288, np.nan), where=light > LEAST_KWH_PER_M2)
    return ShadeHours(
        module_id or "",
        tuple(tuple(row) for row in light.reshape(12, 24).tolist()),
        tuple(
            tuple(None if v != v else v for v in row)  # noqa: PLR0124 - NaN is no light
            for row in share.reshape(12, 24).tolist()
        ),
    )
