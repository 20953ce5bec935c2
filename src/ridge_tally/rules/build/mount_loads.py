"""What each mount of a plane is pulled and pressed with, as far as what was typed tells."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ridge_tally.core.build.racking.loads import (
    array_area_factor,
    flat_roof_snow_pa,
    rail_shares,
    sloped_snow_frac,
    tributary_m,
    velocity_pressure_pa,
)
from ridge_tally.core.errors import OutsideModelRange
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.racking import DesignLoads
from ridge_tally.core.survey.outline import corners_m
from ridge_tally.rules.build.racked import RackedPlane, held_on, weight_kg
from ridge_tally.rules.build.racking import EDGE_ZONE_M

GRAVITY_M_PER_S2 = 9.80665
# An array in the air over a cold roof keeps its snow (ASCE 7-16, table 7.3-2; from memory).
THERMAL = 1.2
# Every module is taken as exposed at its edge: more than the formula asks of inner ones
# (29.4.4, gamma E; from memory).
EXPOSED = 1.5
# Allowable stress: what wind and weight count for in uplift (2.4.1; from memory).
WIND_PART, WEIGHT_PART = 0.6, 0.6


@dataclass(frozen=True, slots=True)
class MountLoad:
    """One mount: where, the area it carries on the roof, and what acts on it, N.

    ``dead_n`` and ``snow_n`` are vertical, of the whole; ``press_n`` and ``slide_n`` their parts
    across and down the roof.  ``wind_n`` pulls off the roof, ``uplift_n`` what is left of it when
    weight holds against it; ``None`` where something for them is not known.
    """

    run: int
    mount: int
    area_m2: float
    dead_n: float
    snow_n: float | None
    press_n: float | None
    slide_n: float | None
    pressure_pa: float | None
    gcp: float | None
    area_factor: float
    wind_n: float | None
    uplift_n: float | None


@dataclass(frozen=True, slots=True)
class PlaneLoads:
    """The loads of a plane's mounts, the worst in uplift and what of it is missing or out of range."""

    mounts: tuple[MountLoad, ...]
    worst: MountLoad | None
    asked: tuple[str, ...]


def plane_loads(job: Job, plane: RackedPlane) -> PlaneLoads:
    """Return the loads of every mount; none before the mounts are placed."""
    weight = weight_kg(plane)
    if plane.asked or plane.no_plan is not None or weight is None:
        return PlaneLoads((), None, ())
    loads = job.design_loads
    pressure, asked = _pressure(job, loads)
    if plane.laid.array.leg_tilt_deg > 0:
        # The formula is for arrays parallel to the roof.
        pressure, asked = None, ("an engineer’s wind on tilted modules",)
    mounts = tuple(_mounts(plane, loads, weight / plane.modules_area_m2, pressure))
    # The worst of all is not known while one of them is not.
    known = mounts if all(m.uplift_n is not None for m in mounts) else ()
    worst = max(known, key=lambda m: m.uplift_n or 0.0, default=None)
    return PlaneLoads(mounts, worst, asked)


def _pressure(job: Job, loads: DesignLoads) -> tuple[float | None, tuple[str, ...]]:
    asked = [
        what
        for what, value in (
            ("wind", loads.wind_m_per_s),
            ("exposure", loads.exposure),
            ("roof height", loads.roof_height),
            ("GCp in the field", loads.gcp_field),
            ("GCp at the edge", loads.gcp_edge),
        )
        if value is None
    ]
    if loads.wind_m_per_s is None or loads.exposure is None or loads.roof_height is None:
        return None, tuple(asked)
    try:
        pressure = velocity_pressure_pa(
            loads.wind_m_per_s,
            loads.exposure.value,
            loads.roof_height.value_m,
            job.site.elevation_m or 0.0,
        )
    except OutsideModelRange:
        return None, (*asked, "an engineer’s wind on so high a roof")
    return pressure, tuple(asked)


def _mounts(
    plane: RackedPlane, loads: DesignLoads, kg_per_m2: float, pressure_pa: float | None
) -> Iterator[MountLoad]:
    slope = math.radians(plane.laid.plane.slope_deg)
    snow_pa = None
    if loads.ground_snow_pa is not None:
        flat = flat_roof_snow_pa(loads.ground_snow_pa, THERMAL)
        snow_pa = flat * sloped_snow_frac(plane.laid.plane.slope_deg, THERMAL)
    corners = corners_m(plane.laid.plane)
    low, high = corners.min(axis=0), corners.max(axis=0)
    for number, run in enumerate(plane.runs):
        across = _across_m(plane, number)
        lengths = tributary_m(run.run.from_m, run.run.to_m, run.mounts_m)
        spans = (0.0, *run.spans_m, 0.0)
        for n, (at, along) in enumerate(zip(run.mounts_m, lengths, strict=True)):
            area = along * across
            dead = kg_per_m2 * area * GRAVITY_M_PER_S2
            snow = None if snow_pa is None else snow_pa * area * math.cos(slope)
            down = None if snow is None else dead + snow
            x, y = (run.run.across_m, at) if plane.up_slope else (at, run.run.across_m)
            edge = min(x - low[0], high[0] - x, y - low[1], high[1] - y) < EDGE_ZONE_M
            gcp = loads.gcp_edge if edge else loads.gcp_field
            span = max(spans[n], spans[n + 1])
            factor = array_area_factor(span * max(across, span / 3))
            wind = None
            if pressure_pa is not None and gcp is not None:
                wind = pressure_pa * abs(gcp) * EXPOSED * factor * area
            yield MountLoad(
                run=number,
                mount=n,
                area_m2=area,
                dead_n=dead,
                snow_n=snow,
                press_n=None if down is None else down * math.cos(slope),
                slide_n=None if down is None else down * math.sin(slope),
                pressure_pa=pressure_pa,
                gcp=gcp,
                area_factor=factor,
                wind_n=wind,
                uplift_n=None
                if wind is None
                else WIND_PART * wind - WEIGHT_PART * dead * math.cos(slope),
            )


def _across_m(plane: RackedPlane, number: int) -> float:
    """Return how much of the modules across a rail is its own, by statics of two rails."""
    run = plane.runs[number].run
    held = held_on(plane, run)
    total = 0.0
    for h in held:
        size = h.high_m - h.low_m
        mine = sorted({r.run.across_m for r in plane.runs if h.id in r.run.held})
        shares = rail_shares(size, [across - h.low_m for across in mine])
        total += shares[mine.index(run.across_m)] * size
    return total / len(held) if held else 0.0
